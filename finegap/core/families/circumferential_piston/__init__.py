"""Circumferential piston pump: arc-shaped wings of two timed rotors sweep round hubs. Common practice, no source."""

from finegap.core.families.builds import Option
from finegap.core.families.circumferential_piston.drawing import views
from finegap.core.families.circumferential_piston.features import FEATURES
from finegap.core.families.circumferential_piston.pictures import PICTURES
from finegap.core.families.family import Family, GapWords, ReplacedWith, Side, Symptom
from finegap.core.families.fluid_end import CONVENTIONS, DETAILS, ROTOR, SCOPE, fluid_end
from finegap.core.families.steps import Stage, Step, Task
from finegap.core.families.timed_seals import SEAL, seals
from finegap.core.families.timed_stacks import COVER, Rotors, rotors

_BUMP = Step(
    Stage.PROVE, "rotation", "Valves open; rotation right by a bump.", caution=True, hold=True, after=("guards", "free_turn")
)

FAMILY = Family(
    key="circumferential_piston",
    name="Circumferential piston pump",
    features=FEATURES,
    steps=fluid_end(
        {
            "tip": "wing",
            "held": "rotor nuts",
            "rotors_on": "Rotors on, part by part: disc springs with their cone towards the nut, the second rotor at right angles.",
        },
        after={"guards": (_BUMP,)},
        pictures=(Task("picture", "wings"),),
    ),
    options=(
        Option("means", "Face clearances set by", {"shims": "shims behind the front bearings", "fixed": "nothing: checked only"}),
        SEAL,
        ROTOR,
        SCOPE,
        *CONVENTIONS,
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
    stacks=(*seals("piston"), *rotors(Rotors("wing", "wings", "wings at right angles to the first")), COVER),
    pictures=PICTURES,
    gap=GapWords("front face clearance", "behind the front bearings", "rotor and cover"),
    views=views,
    torques=("rotor nuts", "cover nuts"),
    geared=("timing",),
    former_rings=("sleeve_ring", "ring", "seat_ring", "rotating_ring", "outer_seat_ring", "inner_seat_ring"),
)
