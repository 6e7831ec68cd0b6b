"""Pumps with two timed rotors before an oiled case: their scopes, their conventions, and their steps in working order.

What differs from family to family is given: what the rotors carry, and by what each is held. Common practice, no source.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from finegap.core.families.builds import Option, convention
from finegap.core.families.conventions import seal_faces
from finegap.core.families.family import step_worded
from finegap.core.families.preparing import FLUSH, IDENTIFY, ISOLATE, PRESSURE, PROTECT, READY, drain, lift
from finegap.core.families.proving import FIRST_HOUR, GUARDS, seals_watched
from finegap.core.families.steps import Stage, Step, Task
from finegap.core.families.stripping import CLEAN, DISCARD

DETAILS = {
    "cover_nuts": "number of cover nuts",
    "pump_mass": "mass of the pump",
    "elastomer": "elastomer of seals and O-rings",
    "oil": "oil of the gear case",
    "faces": "how seal faces are fitted: dry, or film",
}
"""What a sheet may tell the procedure, by key."""

_BLOCK = "nylon or hardwood block"
OVERHAUL, ROTORS, CHECK = "overhaul", "rotors", "check"
FLUID_END = (OVERHAUL, ROTORS)
"""Scopes that take the fluid end off; the gear case stays shut in the second."""

ROTOR = Option("rotor", "Rotors on", {"spline": "splines", "key": "keys"})
SCOPE = Option(
    "scope",
    "This job",
    {
        OVERHAUL: "an overhaul, gear case opened where it must be",
        ROTORS: "rotors and seals, the gear case stays shut",
        CHECK: "a wear check, cover off",
    },
)
CONVENTIONS = (
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
)
"""What practitioners differ on; sheet or works choose."""


def within(scopes: tuple[str, ...], *steps: Step) -> tuple[Step, ...]:
    """Steps that only these scopes of a job have."""
    return tuple(replace(step, when={**step.when, "scope": scopes}) for step in steps)


_PREPARE = (
    IDENTIFY,
    READY,
    ISOLATE,
    PRESSURE,
    drain("Drained, the shaft turned by hand to empty the body.", "What stays between the {tip}s comes out with the cover."),
    FLUSH,
    lift("The pump is {pump_mass}."),
    PROTECT,
)
"""Before anything is opened."""


_STRIP = (
    Step(
        Stage.STRIP,
        "match_marks",
        "Cover to body, body to case and rotors to shafts match-marked, and photographed before anything moves.",
        "Parts go back as they came apart.",
        tools=("paint marker", "camera"),
    ),
    Step(
        Stage.STRIP,
        "cover_down",
        "Cover nuts off, cover drawn off straight and laid product side up.",
        tells=("Expect {cover_nuts} cover nuts.",),
        look="Two sizes of dowel: which one sits where. Then the tips of the {tip}s, and the cover's face.",
        tools=("spanner for the cover nuts", "soft hammer"),
    ),
    *within(
        FLUID_END,
        Step(
            Stage.STRIP,
            "rotors_down",
            "Rotors blocked with nylon or hardwood, {held} off, rotors straight off and laid in the cover; block away.",
            "Steel between the {tip}s chips them. What holds them is tight: the wrench may slip.",
            caution=True,
            tools=(_BLOCK, "socket for the rotor nuts"),
            look="Disc springs: which way their cone points. O-rings of nuts and hubs: flat, or swollen.",
            needs=("cover_down",),
        ),
        Step(
            Stage.STRIP,
            "body_down",
            "Body screws out, body straight off its studs; nothing levered.",
            caution=True,
            tells=("The pump is {pump_mass}.",),
            look="Bore, the web between the bores, the rear face and the crossover of the body.",
            needs=("rotors_down",),
        ),
        Step(
            Stage.STRIP,
            "seals_out",
            "Seals out: from the body inner seals, then their O-ring and wave spring; from the shafts seats, then shaft O-rings.",
            "A jacketed ring is blown out by air, not picked.",
            look="Shafts at the O-rings: corrosion. Splines or keyways, and the threads.",
            tools=("levers for the seats", "dry air"),
            needs=("body_down",),
        ),
        Step(
            Stage.STRIP,
            "gears_rocked",
            "Shafts still in: gears rocked by hand; grease seals and rear oil seal looked at.",
            "Backlash that is felt means new gears. With the bearings out it can no longer be felt.",
            needs=("body_down",),
        ),
        Step(
            Stage.STRIP,
            "case_plugs",
            "Two plugs low on the case out: water or dirt wiped out, plugs back; oil drained below.",
            look="Water or debris at the bottom of the case.",
            tools=("spanner for the cover nuts",),
            consumables=("drain pan", "lint-free cloth"),
        ),
    ),
    *within(
        (OVERHAUL,),
        Step(
            Stage.STRIP,
            "bearings_out",
            "Gear case opened, front bearings and their shims out, kept by shaft.",
            "Mixed up, both rotors stand wrong. A service of seals or rotors leaves them in: skip this where the case stays shut.",
            tools=("bearing puller",),
            needs=("gears_rocked",),
        ),
    ),
    CLEAN,
    DISCARD,
)
"""Off, as far as the scope goes."""


def tightened(key: str, fastener: str, why: str) -> Step:
    """What holds the rotors, to its torque."""
    return Step(
        Stage.BUILD,
        key,
        f"Rotors blocked with nylon or hardwood; {fastener} to their torque.",
        why,
        hold=True,
        tells=(f"{{torque:{fastener}}} by the sheet.",),
        tasks=(Task("torque", fastener),),
        undone_by=("shims",),
        opened=("rotors_down",),
        tools=("torque wrench", _BLOCK),
        needs=("rotors_up",),
        before_check=True,
    )


NUTS = tightened(
    "rotor_nuts",
    "rotor nuts",
    "By the wrench, never by feel. Clockwise tightens, but for a left-hand thread: look first.",
)


_BUILD = (
    Step(
        Stage.BUILD,
        "clean_in",
        "Everything that goes in is clean and without burrs; new parts held beside the old ones.",
        "The wrong part shows here, not in the pump.",
        tells=("Elastomer by the sheet: {elastomer}.",),
        consumables=("lint-free cloth", "lubricant that suits the elastomer"),
    ),
    *within(
        (OVERHAUL,),
        Step(
            Stage.BUILD,
            "bearings_home",
            "Bearings in with their shims, fully home; grease seals with their lips as the sheet says; rear oil seal in.",
            hold=True,
            tasks=(Task("grease"),),
            undone_by=("shims",),
            opened=("bearings_out",),
            tools=("press or sleeve for bearings", "grease gun"),
            before_check=True,
        ),
    ),
    *within(
        FLUID_END,
        Step(
            Stage.BUILD,
            "seals_built",
            "New seals and the body, part by part, both shafts alike; nothing pinched, nothing dry.",
            "A pinched ring is found at start-up.",
            hold=True,
            caution=True,
            look="Press each spring: it comes back over its whole travel. The body is heavy.",
            tells=("{body_on}",),
            tasks=(Task("stack", "seal"),),
            undone_by=("shims",),
            opened=("seals_out", "body_down"),
            tools=("sleeve or tape over threads and shoulders",),
            needs=("bearings_home",),
        ),
        Step(
            Stage.BUILD,
            "rotors_up",
            "{rotors_on}",
            "A reversed or missing disc spring is a loose rotor nut, and that wrecks the pump.",
            hold=True,
            tells=("{rotor_turns}",),
            tasks=(Task("stack", "rotors"), Task("picture", "cone")),
            undone_by=("shims",),
            opened=("rotors_down",),
            consumables=("food-grade anti-seize",),
            needs=("seals_built",),
            before_check=True,
        ),
        Step(
            Stage.BUILD,
            "block_out",
            "Block out from between the rotors.",
            "The next thing is to turn the shafts: a block left in chips a {tip}.",
            hold=True,
            undone_by=("shims",),
            opened=("rotors_down",),
            before_check=True,
        ),
    ),
)
"""Together again up to the cover."""


_SET = (
    Step(
        Stage.SET,
        "radial",
        "Gaps to the body looked at over a whole turn: no {tip} touches it.",
        "Turned by hand, fingers out of the mesh.",
        caution=True,
    ),
    Step(
        Stage.SET,
        "below",
        "Both rotors lie below the body face: felt with the thumb, all the way round.",
        "Above it, the cover is drawn down on the rotor. Never assemble.",
        hold=True,
    ),
)
"""What is looked at once the gaps are set."""


_PROVE = (
    Step(
        Stage.PROVE,
        "cover_up",
        "Cover on with its O-ring, its two hole sizes compared with the dowels; nuts criss-cross.",
        "Wing nuts by a soft hammer or a hex key; other nuts by hand where the sheet gives no figure.",
        hold=True,
        tells=("{torque:cover nuts} by the sheet.",),
        undone_by=("shims",),
        tasks=(Task("stack", "cover"), Task("torque", "cover nuts")),
        tools=("torque wrench",),
    ),
    Step(
        Stage.PROVE,
        "free_turn",
        "The shaft turns freely by hand, all the way round, before anything else.",
        "A tight spot is a {tip} that touches.",
        hold=True,
        tasks=(Task("turning"),),
    ),
    *within(
        FLUID_END,
        Step(
            Stage.PROVE,
            "oil_filled",
            "Gear case filled to {oil_mark}; one stroke of grease for each bearing that has a nipple.",
            tells=("{oil}.",),
            consumables=("oil by the sheet",),
        ),
    ),
    GUARDS,
    *within(
        FLUID_END,
        seals_watched(
            "Shaft seals watched over the first minutes: dry, their housings no more than warm; the flush runs where there is one.",
            "A face pinched at fitting, a ring cut over a shoulder, or a seal run dry, shows now.",
        ),
    ),
    FIRST_HOUR,
)
"""The cover on, and everything else before and after power."""


def fluid_end(
    words: Mapping[str, str],
    tight: tuple[Step, ...] = (NUTS,),
    after: Mapping[str, tuple[Step, ...]] | None = None,
    pictures: tuple[Task, ...] = (),
) -> tuple[Step, ...]:
    """All steps in the words of a family: what its rotors carry (tip), what holds them (held), and how they go on (rotors_on).

    ``tight`` is how what holds them is tightened, ``after`` are steps of its own by the step they follow, each in the builds of
    that one, ``pictures`` those shown where the rotors go on.
    """
    own, said = {"rotors_up": tight, **(after or {})}, {f"{{{key}}}": phrase for key, phrase in words.items()}
    found = []
    for step in (*_PREPARE, *_STRIP, *_BUILD, *_SET, *_PROVE):
        fitted = step_worded(step, said)
        if step.key == "rotors_up":
            fitted = replace(fitted, tasks=(*fitted.tasks[:1], *pictures, *fitted.tasks[1:]))
        if step.key == "block_out":
            fitted = replace(fitted, needs=tuple(one.key for one in tight))
        found += [fitted, *(replace(one, when={**step.when, **one.when}) for one in own.get(step.key, ()))]
    return tuple(found)
