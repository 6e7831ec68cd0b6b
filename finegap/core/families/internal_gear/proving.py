"""Set and Prove of an internal gear pump, for its usual builds and scopes. Common practice, no source."""

from finegap.core.families.internal_gear.building import PACKED_BEFORE_MEANS, PACKING, PIPE
from finegap.core.families.internal_gear.builds import (
    BEARING,
    BEHIND_ROTOR,
    COMPACT_SEALS,
    COUPLED,
    GASKETS,
    HEAD_OFF,
    HOUSING,
    HOUSING_OUT,
    OVERHAUL,
    PACKED,
    RELIEF,
    REPACK,
    within,
)
from finegap.core.families.proving import GUARDS
from finegap.core.families.steps import Stage, Step, Task

_PACKED_AFTER = {**PACKED, "means": PACKED_BEFORE_MEANS, "packing_when": ("after",)}

_PACKED_LATER = within(
    (OVERHAUL, REPACK),
    Step(
        Stage.SET,
        "packing_set",
        PACKING,
        "In before the gap it hides a rotor that drags, and it is in the way each time the head comes off.",
        hold=True,
        tasks=(Task("stack", "seal"), Task("packing")),
        when={**PACKED, **GASKETS},
        consumables=("packing",),
        tools=PIPE,
    ),
    Step(
        Stage.SET,
        "packing_then",
        PACKING,
        "The works packs when the gap is right: it hides no rotor that drags.",
        hold=True,
        tasks=(Task("stack", "seal"), Task("packing")),
        when=_PACKED_AFTER,
        consumables=("packing",),
        tools=PIPE,
    ),
)
SET = (
    *within(
        HOUSING_OUT,
        Step(
            Stage.SET,
            "face_screws",
            "Both face screws of the bearing housing tight, equally; the shaft still turns easily.",
            "Tightened one after the other the housing tilts, and the gap with it.",
            when=HOUSING,
        ),
    ),
    *_PACKED_LATER,
    *within(
        HOUSING_OUT,
        Step(
            Stage.SET,
            "grease_turning",
            "Bracket greased while the shaft is turned, until grease leaves the relief fitting; then the housing until it shows.",
            "Before the gap grease would hide a rotor that drags. Until it shows in both places: a dry side runs hot.",
            consumables=("grease by the sheet",),
            tools=("grease gun",),
            tasks=(Task("grease"),),
            when=BEHIND_ROTOR,
        ),
        Step(
            Stage.SET,
            "grease_after",
            "Grease at the fittings, after the gap is right; oil to the sheet's mark where it runs in oil.",
            "Too much grease heats; too little rusts.",
            consumables=("grease or oil by the sheet",),
            tools=("grease gun",),
            tasks=(Task("grease"),),
            when={"seal": ("packed", *COMPACT_SEALS), "bearing": ("ball", "tapered")},
        ),
        Step(
            Stage.SET,
            "grease_sealed",
            "Bearings greased, after the gap is right; oil to the sheet's mark where they run in oil.",
            "Too much grease heats; too little rusts.",
            consumables=("grease or oil by the sheet",),
            tools=("grease gun",),
            tasks=(Task("grease"),),
            when={"seal": ("mechanical",), "means": ("gaskets", "ring", "coupling", "fixed"), "bearing": ("ball", "tapered")},
        ),
    ),
    *within(
        HEAD_OFF,
        Step(
            Stage.SET,
            "relief_last",
            "Bypass valve on with a new gasket: {relief_sign} to the suction side.",
            "Reversed, nothing relieves the pump.",
            hold=True,
            tasks=(Task("picture", "relief"),),
            consumables=("gasket of the bypass valve",),
            when={**RELIEF, **COUPLED},
        ),
    ),
)

PROVE = (
    Step(
        Stage.PROVE,
        "free_turn",
        "The shaft turns freely by hand, all the way round, before anything else.",
        "A tight spot is metal on metal. Open a little more and check again.",
        hold=True,
        tasks=(Task("turning"),),
    ),
    *within(
        (*HEAD_OFF, BEARING),
        Step(
            Stage.PROVE,
            "end_play",
            "Pushed and pulled along its axis the shaft shows no play that is felt, and still turns easily.",
            tools=("dial indicator",),
            tasks=(Task("end-play"),),
        ),
    ),
    *within(
        HEAD_OFF,
        Step(
            Stage.PROVE,
            "relief_faces",
            "Relief valve looked at once more, from outside: {relief_sign} to the suction side.",
            "Reversed, nothing relieves the pump.",
            hold=True,
            when=RELIEF,
        ),
    ),
    *within(
        HOUSING_OUT,
        Step(
            Stage.PROVE,
            "bracket_guards_on",
            "Bracket guards back, each washer between guard and bracket.",
            caution=True,
            hold=True,
            when=BEHIND_ROTOR,
        ),
    ),
    GUARDS,
    Step(
        Stage.PROVE,
        "rotation",
        "Valves open; rotation right by a bump.",
        caution=True,
        hold=True,
        after=("guards", "free_turn", "relief_faces", "bracket_guards_on"),
    ),
    *within(
        (OVERHAUL, REPACK),
        Step(
            Stage.PROVE,
            "run_in",
            "Packing run in: a few drops a minute for life, the box no more than warm.",
            "Gland at most an eighth of a turn at a time, evenly. If it heats, back off and let it cool.",
            caution=True,
            look="Sleeves and rags away from the turning shaft; the gland is turned from the side.",
            tools=("spanner for the gland", "thermometer"),
            tasks=(Task("run-in"),),
            when=PACKED,
        ),
    ),
    Step(
        Stage.PROVE,
        "first_hour",
        "First hour: flow, pressure, power, noise and temperature as they should be.",
        "What is off now is found by noon; left, it is found as a seizure.",
        tools=("bucket and watch, or flow meter", "thermometer"),
        tasks=(Task("first-hour"),),
    ),
)
