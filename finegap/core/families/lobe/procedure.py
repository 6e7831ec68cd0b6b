"""The steps of a lobe pump's overhaul, in working order: the fluid end's, and its own. General knowledge, no source."""

from dataclasses import replace

from finegap.core.families.fluid_end import NUTS, OVERHAUL, fluid_end, tightened
from finegap.core.families.lobe.phase import LOBES, turned
from finegap.core.families.proving import BUMP
from finegap.core.families.rotation import rotation
from finegap.core.families.steps import Stage, Step, Task

_PHASES = tuple(
    Step(
        Stage.BUILD,
        f"phase_{key}",
        f"Phase: the second rotor stands turned by {turned(int(key))}, each lobe in the other's hollow; marks on their marks.",
        "Both shafts turned once by hand, fingers out of the mesh: a lobe that meets a lobe is felt at once.",
        hold=True,
        caution=True,
        tasks=(Task("picture", f"phase_{key}"),),
        undone_by=("shims",),
        opened=("rotors_down",),
        needs=("block_out",),
        when={"lobes": (key,)},
    )
    for key in LOBES.choices
)
_CLAMPED = Step(
    Stage.BUILD,
    "gear_clamped",
    "Timing gear on its clamping element, its screws tightened in passes, evenly, and its mark on the mark.",
    "Tightened one side first it creeps round, and the lobes meet. After each turn of it both mesh gaps at every lobe.",
    hold=True,
    tells=("{torque:clamp screws} by the sheet.",),
    tasks=(Task("torque", "clamp screws"),),
    undone_by=("timing",),
    opened=("bearings_out",),
    tools=("torque wrench",),
    needs=("rotors_up",),
    when={"scope": (OVERHAUL,)},
)
_LIFTED = Step(
    Stage.STRIP,
    "shafts_lifted",
    "Cover off, rotors still on: an indicator at each rotor, its shaft lifted by hand and let down.",
    "With the bearings out the play can no longer be read.",
    tools=("dial indicator with stand",),
)
_OUTER_OFF = Step(
    Stage.STRIP,
    "outer_off",
    "Outboard bearings stay in the cover: turned by hand there, and covered.",
    look="Rough, or pitted: they go with the bearings of the case.",
    when={"outer": ("bearing",)},
)
_OUTER_ON = Step(
    Stage.PROVE,
    "outer_on",
    "Shaft ends in their outboard bearings before the cover is drawn down, evenly.",
    "Drawn down askew it marks the shaft ends.",
    caution=True,
    when={"outer": ("bearing",)},
)
STEPS = fluid_end(
    {
        "tip": "lobe",
        "held": "rotor nuts or front plates",
        "rotors_on": "Rotors on, part by part, marks on their marks; the second turned so that its lobes stand in the hollows.",
    },
    (
        replace(NUTS, when={"held": ("nut",)}),
        replace(
            tightened("plate_bolts", "plate bolts", "Criss-cross, by the wrench: a loose plate lets the rotor forward."),
            when={"held": ("plate",)},
        ),
    ),
    {
        "ready": rotation(
            {
                "clockwise": "the port on the left with the drive shaft above, on the right with it below",
                "counterclockwise": "the port on the right with the drive shaft above, on the left with it below",
            }
        ),
        "cover_down": (_OUTER_OFF, _LIFTED),
        "block_out": (*_PHASES, _CLAMPED),
        "below": (
            Step(
                Stage.SET,
                "mesh_every",
                "Both mesh gaps seen at every lobe, after the last tightening of the clamp screws.",
                "One lobe alone says nothing of the others.",
                hold=True,
            ),
        ),
        "free_turn": (_OUTER_ON,),
        "guards": (BUMP,),
    },
)
