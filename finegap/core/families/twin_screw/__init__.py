"""Twin screw pump: two screws meshed and timed in one casing, changed together. Common practice, no source."""

from finegap.core.families.builds import Option
from finegap.core.families.conventions import seal_faces
from finegap.core.families.family import Family, GapWords, ReplacedWith, Side, Symptom
from finegap.core.families.rotation import ROTATION
from finegap.core.families.twin_screw.drawing import views
from finegap.core.families.twin_screw.features import FEATURES
from finegap.core.families.twin_screw.pictures import PICTURES
from finegap.core.families.twin_screw.procedure import DETAILS, OPENED, SHUT, STEPS
from finegap.core.families.twin_screw.stacks import STACKS

_FLANKS = ("flank_left", "flank_right", "flanks")
_RADIAL = ("radial_drive", "radial_driven", "clearance_drive", "clearance_driven")
_PAIR = "The screws are one matched pair: they are changed together."

FAMILY = Family(
    key="twin_screw",
    name="Twin screw pump",
    features=FEATURES,
    steps=STEPS,
    options=(
        Option("means", "Flank gaps set by", {"helix": "the timing gear, with its case open", "fixed": "nothing: checked only"}),
        ROTATION,
        Option("scope", "This job", {SHUT: "the wet end, the gear case stays shut", OPENED: "an overhaul, gear case opened"}),
        seal_faces({}),
    ),
    symptoms=(
        Symptom(
            "low_flow",
            "Low flow, worst when thin",
            (*_FLANKS, *_RADIAL, "ends_cover", "ends_back"),
            "Relief valve passing, air drawn in at the suction side.",
            Side.WIDER,
        ),
        Symptom("noise", "Noise or shaking", ("flanks", "play", "bearings", "splines"), "Starved suction, a coupling out of line."),
        Symptom("leak", "Leaks at a shaft", ("cartridges", "play", "bearings")),
        Symptom(
            "seized",
            "Seized, or jams when turned",
            (*_FLANKS, "radial_drive", "radial_driven", "ends_cover", "bearings"),
            "A loose screw nut, dirt, screws not home on their splines.",
            Side.TIGHTER,
        ),
        Symptom("planned", "Planned overhaul", ()),
    ),
    replaced_with=(
        ReplacedWith("screw_drive", ("screw_driven", "flanks"), _PAIR),
        ReplacedWith("screw_driven", ("screw_drive", "flanks"), _PAIR),
        ReplacedWith("flanks", ("screw_drive", "screw_driven"), _PAIR),
    ),
    one_piece=(("bore_drive", "bore_driven"),),
    details=DETAILS,
    stacks=STACKS,
    pictures=PICTURES,
    gap=GapWords("flank gap", "", "flank and flank"),
    views=views,
    torques=("screw nuts", "clamp screws", "gland bolts", "casing nuts", "cover nuts"),
)
