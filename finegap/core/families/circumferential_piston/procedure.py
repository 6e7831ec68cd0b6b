"""The steps of a circumferential piston overhaul, in working order. Common practice, no source."""

from dataclasses import replace

from finegap.core.families.circumferential_piston.builds import FLUID_END, OVERHAUL
from finegap.core.families.preparing import FLUSH, IDENTIFY, ISOLATE, PRESSURE, PROTECT, READY, drain, lift
from finegap.core.families.proving import FIRST_HOUR, GUARDS
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


def _within(scopes: tuple[str, ...], *steps: Step) -> tuple[Step, ...]:
    return tuple(replace(step, when={**step.when, "scope": scopes}) for step in steps)


_PREPARE = (
    IDENTIFY,
    READY,
    ISOLATE,
    PRESSURE,
    drain("Drained, the shaft turned by hand to empty the body.", "What stays between the wings comes out with the cover."),
    FLUSH,
    lift("The pump is {pump_mass}."),
    PROTECT,
)
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
        look="Two sizes of dowel: which one sits where. Then the tips of the wings, and the cover's face.",
        tools=("spanner for the cover nuts", "soft hammer"),
    ),
    *_within(
        FLUID_END,
        Step(
            Stage.STRIP,
            "rotors_down",
            "Rotors blocked with nylon or hardwood, rotor nuts off, rotors straight off and laid in the cover; block away.",
            "Steel between the wings chips them. The nuts are tight: the wrench may slip.",
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
    *_within(
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
_BUILD = (
    Step(
        Stage.BUILD,
        "clean_in",
        "Everything that goes in is clean and without burrs; new parts held beside the old ones.",
        "The wrong part shows here, not in the pump.",
        tells=("Elastomer by the sheet: {elastomer}.",),
        consumables=("lint-free cloth", "lubricant that suits the elastomer"),
    ),
    *_within(
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
    *_within(
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
            "Rotors on, part by part: disc springs with their cone towards the nut, the second rotor at right angles.",
            "A reversed or missing disc spring is a loose rotor nut, and that wrecks the pump.",
            hold=True,
            tells=("{rotor_turns}",),
            tasks=(Task("stack", "rotors"), Task("picture", "wings"), Task("picture", "cone")),
            undone_by=("shims",),
            opened=("rotors_down",),
            consumables=("food-grade anti-seize",),
            needs=("seals_built",),
            before_check=True,
        ),
        Step(
            Stage.BUILD,
            "rotor_nuts",
            "Rotors blocked with nylon or hardwood; rotor nuts to their torque.",
            "By the wrench, never by feel. Clockwise tightens, but for a left-hand thread: look first.",
            hold=True,
            tells=("{torque:rotor nuts} by the sheet.",),
            tasks=(Task("torque", "rotor nuts"),),
            undone_by=("shims",),
            opened=("rotors_down",),
            tools=("torque wrench", _BLOCK),
            needs=("rotors_up",),
            before_check=True,
        ),
        Step(
            Stage.BUILD,
            "block_out",
            "Block out from between the rotors.",
            "The next thing is to turn the shafts: a block left in chips a wing.",
            hold=True,
            undone_by=("shims",),
            opened=("rotors_down",),
            needs=("rotor_nuts",),
            before_check=True,
        ),
    ),
)
_SET = (
    Step(
        Stage.SET,
        "radial",
        "Radial gaps looked at over a whole turn: no wing touches its body or its hub.",
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
        "A tight spot is a wing that touches.",
        hold=True,
        tasks=(Task("turning"),),
    ),
    *_within(
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
    Step(Stage.PROVE, "rotation", "Valves open; rotation right by a bump.", caution=True, hold=True, after=("guards", "free_turn")),
    FIRST_HOUR,
)
STEPS = (*_PREPARE, *_STRIP, *_BUILD, *_SET, *_PROVE)
