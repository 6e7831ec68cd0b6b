"""Circumferential piston pump: arc-shaped wings of two timed rotors sweep round hubs. Common practice, no source."""

from finegap.core.families.builds import Option, convention
from finegap.core.families.circumferential_piston.drawing import views
from finegap.core.families.circumferential_piston.features import FEATURES
from finegap.core.families.circumferential_piston.pictures import PICTURES
from finegap.core.families.circumferential_piston.procedure import DETAILS, STEPS
from finegap.core.families.circumferential_piston.stacks import STACKS
from finegap.core.families.conventions import seal_faces
from finegap.core.families.family import Family, GapWords, ReplacedWith, Side, Symptom

FAMILY = Family(
    key="circumferential_piston",
    name="Circumferential piston pump",
    features=FEATURES,
    steps=STEPS,
    options=(
        Option("means", "Face clearances set by", {"shims": "shims behind the front bearings", "fixed": "nothing: checked only"}),
        Option(
            "seal",
            "Shaft seals",
            {
                "single_o": "single O-ring",
                "double_o": "double O-ring, flushed",
                "single_m": "single mechanical, loaded from the gear side",
                "double_m": "double mechanical, loaded from the gear side",
                "single_b": "single mechanical, loaded from both sides",
                "double_b": "double mechanical, loaded from both sides",
            },
        ),
        Option("rotor", "Rotors on", {"spline": "splines", "key": "keys"}),
        Option(
            "scope",
            "This job",
            {
                "overhaul": "an overhaul, gear case opened where it must be",
                "rotors": "rotors and seals, the gear case stays shut",
                "check": "a wear check, cover off",
            },
        ),
        seal_faces({}),
        convention(
            "rotor_turns",
            "Rotors go on",
            {"one": "one, torqued and turned upright, then the other", "both": "both, then both nuts"},
            {
                "one": "The first rotor is torqued and turned upright before the second goes on.",
                "both": "Both rotors go on, then both nuts.",
            },
        ),
        convention(
            "body_on",
            "Body goes on",
            {"drawn": "drawn in by its screws, never pushed", "pressed": "pressed onto its pins, then screwed to a figure"},
            {
                "drawn": "Drawn in by its screws, a little at each: never pushed.",
                "pressed": "Pressed onto its pins, then screwed to the sheet's figure.",
            },
        ),
        convention(
            "key_when",
            "Keys go in",
            {"before": "before their rotor", "after": "after both rotors"},
            {"before": "", "after": ""},
            when={"rotor": ("key",)},
        ),
        convention(
            "antiseize",
            "Anti-seize on the shaft threads",
            {"before": "before the rings of the nuts", "after": "after the rings of the nuts"},
            {
                "before": "Food-grade anti-seize on the shaft thread first, the nut's ring after it.",
                "after": "The nut's ring first, then food-grade anti-seize on the shaft thread.",
            },
            "Food-grade anti-seize on the shaft thread.",
        ),
        convention(
            "oil_mark",
            "Oil in the gear case",
            {"middle": "to the middle of the glass", "top": "to the top of the glass"},
            {"middle": "the middle of its glass", "top": "the top of its glass"},
            "the sheet's mark on its glass",
        ),
    ),
    symptoms=(
        Symptom(
            "low_flow",
            "Low flow, worst when thin",
            ("front_drive", "front_driven", "back_drive", "back_driven", "radial_drive", "radial_driven", "wings"),
            "Relief valve passing, air drawn in at the suction side.",
            Side.WIDER,
        ),
        Symptom("noise", "Noise or knocking", ("backlash", "bearings", "wings", "hubs"), "Starved suction, a loose rotor nut."),
        Symptom("leak", "Leaks at a shaft", ("o_ring_zones", "shoulders", "bearings")),
        Symptom(
            "seized",
            "Seized, or will not turn",
            ("front_drive", "front_driven", "backlash", "wings"),
            "A loose rotor nut, dirt.",
            Side.TIGHTER,
        ),
        Symptom("planned", "Planned overhaul", ()),
    ),
    replaced_with=(ReplacedWith("backlash", ("bearings",), "Timing gears come off with their bearings; both gears are a pair."),),
    one_piece=(("shoulders", "o_ring_zones"),),
    details=DETAILS,
    stacks=STACKS,
    pictures=PICTURES,
    gap=GapWords("front face clearance", "behind the front bearings", "rotor and cover"),
    views=views,
    torques=("rotor nuts", "cover nuts"),
    geared=("timing",),
    former_rings=("sleeve_ring", "ring", "seat_ring", "rotating_ring", "outer_seat_ring", "inner_seat_ring"),
)
