"""The steps of a roller pump's overhaul, in working order. Common practice, no source."""

from finegap.core.families.preparing import FLUSH, ISOLATE, PRESSURE, PROTECT, READY, drain, lift
from finegap.core.families.proving import BUMP, FIRST_HOUR, GUARDS, seals_watched
from finegap.core.families.rotation import rotation
from finegap.core.families.steps import Stage, Step, Task
from finegap.core.families.stripping import CLEAN, DISCARD

DETAILS = {
    "rollers": "number of rollers",
    "housing_bolts": "number of housing bolts",
    "pump_mass": "mass of the pump",
    "elastomer": "elastomer of seals and O-ring",
    "roller_material": "what the rollers are made of",
}
"""What a sheet may tell the procedure, by key."""

_PRESS = ("press", "seal and bearing tool", "cradle")
_BY_THE_PRESS = "Eye protection; hands away from the ram; what is pressed stands square, or it flies."

_PREPARE = (
    Step(
        Stage.PREPARE,
        "identify",
        "Nameplate and kit read: model, serial, rollers and elastomer agree with the sheet.",
        "The kit holds two seals, the rollers and the O-ring, no bearings: those are ordered beside it, or judged.",
        tells=(
            "Sheet: {maker} {model}, serial {serial}.",
            "{rollers} rollers of {roller_material}.",
            "Elastomer by the sheet: {elastomer}.",
        ),
    ),
    READY,
    *rotation(
        {
            "clockwise": "the port on the right of the narrow place, where the chambers grow",
            "counterclockwise": "the port on the left of the narrow place, where the chambers grow",
        }
    ),
    ISOLATE,
    PRESSURE,
    drain("Drained, the shaft turned by hand to empty the pockets.", "What stays between the rollers comes out under the press."),
    FLUSH,
    lift("The pump is {pump_mass}."),
    PROTECT,
)
_STRIP = (
    Step(
        Stage.STRIP,
        "coupling_off",
        "Coupling or half coupling off; burrs filed off the shaft.",
        "A burr goes through both seals on its way out, and through the new ones on its way in.",
        tools=("coupling puller", "fine file"),
    ),
    Step(
        Stage.STRIP,
        "match_marks",
        "Housing and cover match-marked across the joint, weep holes noted, and photographed.",
        "They go together one way only: with their weep holes in line.",
        tools=("paint marker", "camera"),
    ),
    Step(Stage.STRIP, "dust_covers", "Dust covers off both ends.", tools=("small lever",)),
    Step(
        Stage.STRIP,
        "bolts_out",
        "Housing bolts out.",
        tells=("Expect {housing_bolts} bolts.",),
        tools=("spanners",),
    ),
    Step(
        Stage.STRIP,
        "halves_apart",
        "Housing on the cradle, its rim carried all round; halves pressed apart, the shaft end pushed by a sleeve.",
        "Levered at the joint, both faces are spoilt.",
        caution=True,
        look=_BY_THE_PRESS,
        tools=_PRESS,
        needs=("coupling_off", "dust_covers", "bolts_out"),
    ),
    Step(
        Stage.STRIP,
        "rollers_out",
        "Rollers out, all of them, and counted; O-ring off.",
        look="Where they ran: the cover's face, and a step near the rim of the housing.",
        tells=("Expect {rollers} rollers.",),
        needs=("halves_apart",),
    ),
    Step(
        Stage.STRIP,
        "rotor_out",
        "Rotor and shaft pressed out of the cover, the cover carried round its hub.",
        caution=True,
        look=_BY_THE_PRESS,
        tools=_PRESS,
        needs=("rollers_out",),
    ),
    Step(
        Stage.STRIP,
        "bearings_out",
        "Bearings pressed out of both halves by the tool that reaches through the seal.",
        "Pressed out by its inner ring a bearing is judged anew: any rough spot and it is changed.",
        caution=True,
        look=_BY_THE_PRESS,
        tools=_PRESS,
        needs=("rotor_out",),
    ),
    Step(
        Stage.STRIP,
        "seals_out",
        "Seals tapped out of both halves against their inner metal rim.",
        "A chisel at the bore scores the seat of the new one.",
        tools=("drift", "soft hammer"),
        needs=("bearings_out",),
    ),
    CLEAN,
    DISCARD,
)
_BUILD = (
    Step(
        Stage.BUILD,
        "clean_in",
        "Everything that goes in is clean and without burrs; new rollers counted, and measured beside the old ones.",
        tells=("{rollers} rollers of {roller_material}.", "Elastomer by the sheet: {elastomer}."),
        consumables=("lint-free cloth", "lubricant that suits the elastomer"),
    ),
    Step(
        Stage.BUILD,
        "seats_built",
        "Both seals, then both bearings, pressed into their halves until each bottoms.",
        "Short of the bottom, a bearing holds the halves apart and the shaft out of the middle.",
        hold=True,
        caution=True,
        look=_BY_THE_PRESS + " Each half stands on its hub, never on its rim.",
        tasks=(Task("stack", "seats"), Task("picture", "tool"), Task("grease")),
        consumables=("grease by the sheet",),
        tools=_PRESS,
        opened=("seals_out", "bearings_out"),
    ),
    Step(
        Stage.BUILD,
        "pressed_together",
        "Rotor into the cover, O-ring, rollers, housing: part by part, weep holes in line.",
        "Out of line, what a seal lets by runs into the bearing.",
        hold=True,
        caution=True,
        look=_BY_THE_PRESS,
        tasks=(Task("stack", "rotor"), Task("picture", "weep")),
        tools=_PRESS,
        consumables=("lint-free cloth",),
        opened=("halves_apart",),
        needs=("seats_built",),
        before_check=True,
    ),
    Step(
        Stage.BUILD,
        "free_unbolted",
        "It turns by hand before any bolt goes in.",
        "If not, it is dirt: apart again, and everything cleaned. A bolt would only hide it.",
        hold=True,
        tasks=(Task("turning"),),
        needs=("pressed_together",),
    ),
    Step(
        Stage.BUILD,
        "bolts_in",
        "Bolts by hand first, all of them, then criss-cross to their torque.",
        hold=True,
        tells=("{torque:housing bolts} by the sheet.",),
        tasks=(Task("torque", "housing bolts"),),
        tools=("torque wrench",),
        opened=("bolts_out",),
        needs=("free_unbolted",),
        before_check=True,
    ),
    Step(
        Stage.BUILD,
        "free_bolted",
        "It turns by hand after the bolts, as freely as before them.",
        "Tight only now it is position: the shaft moved across by a drift, never by the hammer itself, and tried again.",
        hold=True,
        tasks=(Task("turning"),),
        tools=("drift", "hammer"),
        opened=("bolts_out",),
        needs=("bolts_in",),
    ),
)
_PROVE = (
    Step(
        Stage.PROVE,
        "free_turn",
        "Side gaps right, it turns freely by hand all the way round.",
        "A tight spot is a rotor that touches. Never run it like that.",
        hold=True,
        tasks=(Task("turning"),),
    ),
    Step(
        Stage.PROVE,
        "dust_covers_on",
        "Dust covers on; weep holes open, and at the bottom as the pump will stand.",
        opened=("dust_covers",),
    ),
    GUARDS,
    BUMP,
    seals_watched(
        "Shaft seals watched over the first minutes: no drop from a weep hole, the hub no more than warm.",
        "A new lip may sweat until it has bedded in; a drop that goes on is a lip cut on the shaft, or turned round.",
    ),
    FIRST_HOUR,
)
STEPS = (*_PREPARE, *_STRIP, *_BUILD, *_PROVE)
