"""The steps of a sliding vane overhaul, and of a wear check through the port, in working order. Common practice, no source."""

from dataclasses import replace

from finegap.core.families.builds import When
from finegap.core.families.preparing import PROTECT, READY, lift
from finegap.core.families.steps import Stage, Step, Task

DETAILS = {
    "vanes": "number of vanes",
    "pump_mass": "mass of the pump",
    "cover_bolts": "number of cover bolts",
    "elastomer": "elastomer of seals and O-rings",
}
"""What a sheet may tell the procedure, by key."""

_FILTER: When = {"filter": ("fitted",)}
_LUBRICATED: When = {"service": ("lubricated",)}
_DRY: When = {"service": ("dry",)}
_ISOLATED = "Isolated from power and from the line, locked and tagged; start tried and dead."

_PREPARE = (
    Step(
        Stage.PREPARE,
        "identify",
        "Nameplate read: model and serial agree with the sheet; parts are ordered by type and serial.",
        "The wrong sheet is the wrong gap.",
        tells=("Sheet: {maker} {model}, serial {serial}.",),
    ),
    READY,
    Step(Stage.PREPARE, "isolate", _ISOLATED, caution=True, hold=True, tools=("lock and tag",)),
    Step(Stage.PREPARE, "vented", "Vented to the air on both sides; hot surfaces cooled.", caution=True, hold=True),
    Step(Stage.PREPARE, "place", "Room to work {serviced}."),
    lift("The pump is {pump_mass}."),
    PROTECT,
)
_STRIP = (
    Step(
        Stage.STRIP,
        "match_marks",
        "Covers and cylinder match-marked and photographed; the fan end known from the other.",
        tools=("paint marker", "camera"),
    ),
    Step(
        Stage.STRIP,
        "outer_off",
        "Outer cover and fan cover off, the grease line too where there is one.",
        tools=("spanners",),
        when=_DRY,
    ),
    Step(
        Stage.STRIP,
        "flange_off",
        "Shaft key driven out, so that the flange can pass; flange bolts out, flange off; wave ring and snap ring off.",
        "Laid in this order: they go back the other way round.",
        caution=True,
        look="Eye protection: retaining rings fly. The flange's grease fitting stands at the top.",
        tools=("eye protection", "pliers for retaining rings", "drift for the key"),
        when=_LUBRICATED,
    ),
    Step(
        Stage.STRIP,
        "plate_off",
        "Lower bolts out first, two screws into the threaded holes while the rest hold; plate drawn with its bearing.",
        "Turned alternately, a little at a time: drawn by one it tilts and marks the shaft.",
        caution=True,
        tells=("Expect {cover_bolts} bolts.",),
        tools=("two screws for the threaded holes",),
        look="Gaskets: measure their thickness before they are thrown out.",
        when=_LUBRICATED,
        needs=("flange_off",),
    ),
    Step(
        Stage.STRIP,
        "end_off",
        "End cover bolts out; two of them into its threaded holes, turned alternately a little at a time.",
        "One turned alone tilts the cover and pinches the rotor.",
        tells=("Expect {cover_bolts} cover bolts.",),
        look="Gaskets: measure their thickness before they are thrown out.",
        tools=("spanners",),
        when=_DRY,
        needs=("outer_off",),
    ),
    Step(
        Stage.STRIP,
        "pins_clean",
        "Pins and rotor shaft cleaned, before a vane comes out.",
        "What falls from them falls into the slots.",
        consumables=("lint-free cloth",),
        needs=("end_off", "plate_off"),
    ),
    Step(
        Stage.STRIP,
        "vanes_drawn",
        "Vanes out one by one, laid in their order; each fell by its own weight.",
        "One that does not fall does not seal.",
        caution=True,
        look="Edges are sharp: gloves.",
        tells=("Expect {vanes} vanes.",),
        tools=("gloves",),
        needs=("pins_clean",),
    ),
    Step(
        Stage.STRIP,
        "blown",
        "Suction chamber, exhaust and intake ports blown out first, then the cylinder while the rotor is turned by hand.",
        "The other way round the dust goes back into the cylinder.",
        caution=True,
        look="Eye protection and a mask: vane dust is fine and dry.",
        tools=("eye protection", "mask", "dry air"),
        when=_DRY,
        needs=("vanes_drawn",),
    ),
    Step(
        Stage.STRIP,
        "filter_out",
        "Filter out and blown from the clean side outwards, never knocked on a hard edge; one too dirty for that is changed.",
        "Knocked, it cracks where it is not seen.",
        caution=True,
        tools=("eye protection", "dry air"),
        when=_FILTER,
    ),
    Step(
        Stage.STRIP,
        "gaskets_seen",
        "Gaskets under suction and exhaust covers looked at: whole and flat, or changed.",
        "A leak here is a vacuum that falls off, and the vanes are blamed.",
        when=_DRY,
    ),
)
_BUILD = (
    Step(
        Stage.BUILD,
        "bearings_new",
        "New bearings, square and fully home.",
        "One that stands proud is pressed home by the cover, and tilts.",
        hold=True,
        tools=("sleeve or press for bearings",),
        changed=("bearings",),
        when=_DRY,
        before_check=True,
    ),
    Step(
        Stage.BUILD,
        "package_read",
        "New vanes held against their package: size and type by the sheet.",
        "The wrong set fits, and wears the cylinder.",
        changed=("vane_height",),
    ),
    Step(
        Stage.BUILD,
        "vanes_in",
        "Vanes in: square end in the slot, bevelled edge to the cylinder; each falls by its own weight.",
        "The wrong way round a vane digs in.",
        hold=True,
        tasks=(Task("picture", "vane"),),
        opened=("vanes_drawn",),
    ),
    Step(
        Stage.BUILD,
        "faces_clean",
        "Faces of rotor and cover, and the shaft, cleaned before closing.",
        "A thread of rag between the faces is the side gap.",
        consumables=("lint-free cloth",),
        undone_by=("gaskets",),
        opened=("end_off", "plate_off"),
        needs=("vanes_in",),
    ),
    Step(
        Stage.BUILD,
        "end_on",
        "New gaskets, cover on its pins, then the bolts, part by part.",
        "Pins first: bolts do not align it.",
        hold=True,
        tasks=(Task("stack", "cover"),),
        undone_by=("gaskets",),
        opened=("end_off",),
        when=_DRY,
        needs=("faces_clean",),
        before_check=True,
    ),
    Step(
        Stage.BUILD,
        "plate_on",
        "Plate on over its bearing, part by part: held, lifted to its holes on temporary pins, bolts tight, pins out.",
        "The greased bearing carries the shaft while the plate is lifted: without it the rotor hangs on its vanes.",
        hold=True,
        caution=True,
        look="Two people, or a hoist, for the plate.",
        tools=("temporary alignment pins", "tube for the bearing"),
        consumables=("grease by the sheet",),
        tasks=(Task("stack", "cover"),),
        undone_by=("gaskets",),
        opened=("plate_off",),
        when=_LUBRICATED,
        needs=("faces_clean",),
        before_check=True,
    ),
    Step(
        Stage.BUILD,
        "flange_on",
        "Snap ring, wave ring, flange and key, part by part: the flange is bolted to the plate, the key goes in last.",
        caution=True,
        look="Eye protection: retaining rings fly.",
        tools=("eye protection", "pliers for retaining rings"),
        tasks=(Task("stack", "drive"),),
        undone_by=("gaskets",),
        opened=("flange_off",),
        when=_LUBRICATED,
        needs=("plate_on",),
    ),
    Step(
        Stage.BUILD,
        "chambers_on",
        "Suction, intake and exhaust covers on, their gaskets good or new; grease line on where there is one.",
        opened=("gaskets_seen",),
        when=_DRY,
    ),
)
_SET = (
    Step(
        Stage.SET,
        "greased",
        "Both bearings greased, at every service of the vanes: caps off, strokes by weight, nipples wiped, caps on.",
        "The nipples lie under the filter: forgotten now, they are reached at the next overhaul.",
        hold=True,
        tools=("grease gun",),
        consumables=("grease by the sheet",),
        tasks=(Task("grease"),),
    ),
    Step(
        Stage.SET,
        "filter_back",
        "Clean filter in, its cover on, its knobs by hand only.",
        "A spanner breaks them, or flattens the seal.",
        when=_FILTER,
        opened=("filter_out",),
        needs=("greased",),
    ),
)
_PROVE = (
    Step(
        Stage.PROVE,
        "free_turn",
        "Spins freely by hand, all the way round: at the fan, or at the shaft where there is none.",
        "A rub is a cover too near, or a vane stuck.",
        hold=True,
        tasks=(Task("turning"),),
    ),
    Step(
        Stage.PROVE,
        "ports_closed",
        "Check ports of both end plates closed, each plug with a new crush washer.",
        "A washer crushed once does not seal again.",
        hold=True,
        consumables=("crush washers",),
        when=_LUBRICATED,
    ),
    Step(
        Stage.PROVE,
        "guards",
        "Fan cover, outer cover and guards back on; hands away; locks removed by those who set them.",
        caution=True,
        hold=True,
    ),
    Step(
        Stage.PROVE,
        "rotation",
        "Rotation right by a bump, seen at the arrow where motor and pump meet.",
        caution=True,
        hold=True,
        after=("guards", "free_turn"),
    ),
    Step(Stage.PROVE, "valves", "Valves opened last, slowly."),
    Step(
        Stage.PROVE,
        "first_hour",
        "First hour: pressure, power, noise and temperature as they should be.",
        tasks=(Task("first-hour"),),
        tools=("thermometer",),
    ),
)
_CHECK = (
    Step(Stage.PREPARE, "check_isolate", _ISOLATED, caution=True, hold=True, tools=("lock and tag",)),
    Step(Stage.PREPARE, "check_vented", "Vented to the air; no port is opened under pressure.", caution=True, hold=True),
    Step(
        Stage.STRIP,
        "port_opened",
        "Plugs of the check ports out, one in each end plate where it has two; rotor turned by hand until a vane stands under it.",
        "The pump stays closed: this takes minutes. Each vane is turned to, one after another.",
        tells=("Expect {vanes} vanes.",),
        tools=("spanner for the port",),
        consumables=("crush washers",),
    ),
    Step(
        Stage.PROVE,
        "ports_shut",
        "Plugs back, each with a new crush washer; nothing was left in a port.",
        hold=True,
    ),
    Step(
        Stage.PROVE,
        "check_guards",
        "Guards back on; locks removed by those who set them.",
        caution=True,
        hold=True,
        after=("ports_shut",),
    ),
)


def _only(steps: tuple[Step, ...], scope: str) -> tuple[Step, ...]:
    return tuple(replace(step, when={**step.when, "scope": (scope,)}) for step in steps)


STEPS = (*_only((*_PREPARE, *_STRIP, *_BUILD, *_SET, *_PROVE), "overhaul"), *_only(_CHECK, "check"))
