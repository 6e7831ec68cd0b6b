"""Lobe pump: two rotors of one to four lobes, timed so that they never touch. General knowledge, no source."""

from dataclasses import replace

from finegap.core.families.builds import Option
from finegap.core.families.family import Family, GapWords, ReplacedWith, Side, Symptom
from finegap.core.families.fluid_end import CONVENTIONS, DETAILS, ROTOR, SCOPE
from finegap.core.families.lobe.drawing import views
from finegap.core.families.lobe.features import FEATURES
from finegap.core.families.lobe.phase import LOBES, PICTURES
from finegap.core.families.lobe.procedure import STEPS
from finegap.core.families.lobe.stacks import STACKS
from finegap.core.families.rotation import ROTATION
from finegap.core.families.timed_seals import SEAL

_FACES = ("front_drive", "front_driven", "back_drive", "back_driven")
_TIPS = ("tip_drive", "tip_driven")

FAMILY = Family(
    key="lobe",
    name="Lobe pump",
    features=FEATURES,
    steps=STEPS,
    options=(
        Option("means", "Face clearances set by", {"shims": "shims behind the front bearings", "fixed": "nothing: checked only"}),
        replace(ROTATION, name="Drive shaft turns, seen from the drive end"),
        LOBES,
        SEAL,
        ROTOR,
        Option("held", "Each rotor held by", {"nut": "a nut on its shaft", "plate": "a front plate with bolts"}),
        Option("outer", "Shaft ends", {"free": "free: the rotors overhang", "bearing": "in outboard bearings of the cover"}),
        SCOPE,
        *CONVENTIONS,
    ),
    symptoms=(
        Symptom(
            "low_flow",
            "Low flow, worst when thin",
            (*_TIPS, *_FACES, "mesh_left", "mesh_right", "faces"),
            "Relief valve passing, air drawn in at the suction side.",
            Side.WIDER,
        ),
        Symptom("noise", "Noise or knocking", ("lobes", "backlash", "play_drive", "play_driven", "bearings"), "Starved suction."),
        Symptom("leak", "Leaks at a shaft", ("o_ring_zones", "play_drive", "play_driven", "bearings")),
        Symptom(
            "seized",
            "Seized, or turns hard",
            ("faces", "lobes", *_TIPS, "front_drive", "front_driven", "backlash"),
            "A loose rotor nut, dirt, pressure above the sheet's.",
            Side.TIGHTER,
        ),
        Symptom("planned", "Planned overhaul", ()),
    ),
    replaced_with=(ReplacedWith("backlash", ("bearings",), "Timing gears come off with their bearings; both gears are a pair."),),
    one_piece=(
        ("length_drive", "over_drive"),
        ("length_driven", "over_driven"),
        ("depth", "bore_drive", "bore_driven"),
    ),
    details=DETAILS,
    stacks=STACKS,
    pictures=PICTURES,
    gap=GapWords("front face clearance", "behind the front bearings", "rotor and cover"),
    views=views,
    torques=("rotor nuts", "plate bolts", "clamp screws", "cover nuts"),
    geared=("timing",),
    overhung={"outer": ("free",)},
)
