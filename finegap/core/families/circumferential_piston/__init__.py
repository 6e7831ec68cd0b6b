"""Circumferential piston pump: arc-shaped wings of two timed rotors sweep round hubs. Common practice, no source."""

from finegap.core.families.builds import Option
from finegap.core.families.circumferential_piston.drawing import DRAWING
from finegap.core.families.circumferential_piston.features import FEATURES
from finegap.core.families.circumferential_piston.pictures import PICTURES
from finegap.core.families.circumferential_piston.procedure import DETAILS, STEPS
from finegap.core.families.circumferential_piston.stacks import STACKS
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
                "single_m": "single mechanical",
                "double_m": "double mechanical, flushed",
            },
        ),
        Option("rotor", "Rotors on", {"spline": "splines", "key": "keys"}),
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
    details=DETAILS,
    stacks=STACKS,
    pictures=PICTURES,
    gap=GapWords("front face clearance", "behind the front bearings", "rotor and cover"),
    drawing=DRAWING,
    torques=("rotor nuts", "cover nuts"),
    geared=("timing",),
)
