"""External gear pump: two gears in one housing between wear plates, their shafts in four chambers. Common practice, no source."""

from finegap.core.families.builds import Option
from finegap.core.families.conventions import seal_faces
from finegap.core.families.external_gear.drawing import views
from finegap.core.families.external_gear.features import FEATURES
from finegap.core.families.external_gear.pictures import PICTURES
from finegap.core.families.external_gear.procedure import DETAILS, STEPS
from finegap.core.families.external_gear.stacks import STACKS
from finegap.core.families.family import Family, GapWords, ReplacedWith, Side, Symptom
from finegap.core.families.rotation import ROTATION

_TIPS = ("tip_clearance_drive", "tip_clearance_idler")
_PLATES = "The gaps of both gears come from both plates: they are changed together."

FAMILY = Family(
    key="external_gear",
    name="External gear pump",
    features=FEATURES,
    steps=STEPS,
    options=(
        Option("means", "End gaps set by", {"gasket_pair": "a gasket at each end", "fixed": "nothing: they follow from the parts"}),
        ROTATION,
        Option(
            "ring",
            "Lock ring came out by turning it",
            {"unknown": "not known yet", "left": "counterclockwise", "right": "clockwise"},
        ),
        seal_faces({}),
    ),
    symptoms=(
        Symptom(
            "low_flow",
            "Low flow, worst when thin",
            ("end_drive", "end_idler", *_TIPS, "plate_front", "plate_back"),
            "Relief valve passing, air drawn in at the suction side.",
            Side.WIDER,
        ),
        Symptom(
            "noise",
            "Noise",
            ("teeth_drive", "teeth_idler", "backlash", "bearings", *_TIPS),
            "Starved suction, a coupling out of line.",
        ),
        Symptom("leak", "Leaks at the drive shaft", ("seal_faces", "shaft_drive", "runout", "bearings")),
        Symptom(
            "seized",
            "Seized, or turns hard",
            ("end_drive", "end_idler", "plate_front", "bearings", *_TIPS),
            "Dirt, a gasket too thin, heat.",
            Side.TIGHTER,
        ),
        Symptom("planned", "Planned overhaul", ()),
    ),
    replaced_with=(ReplacedWith("plate_front", ("plate_back",), _PLATES), ReplacedWith("plate_back", ("plate_front",), _PLATES)),
    one_piece=(
        ("width_drive", "tips_drive", "shaft_drive", "teeth_drive"),
        ("width_idler", "tips_idler", "shaft_idler", "teeth_idler"),
        ("length_drive", "length_idler", "bore_drive", "bore_idler"),
    ),
    details=DETAILS,
    stacks=STACKS,
    pictures=PICTURES,
    gap=GapWords("total end gap", "at both ends of the housing", "gear and wear plate"),
    views=views,
    torques=("plate bolts", "cap screws"),
)
