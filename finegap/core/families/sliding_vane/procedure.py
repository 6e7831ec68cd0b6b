"""The steps of a sliding vane overhaul, and of a wear check through the port, in working order. Common practice, no source."""

from dataclasses import replace

from finegap.core.families.builds import When
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
_ISOLATED = "Isolated from power and from the line, locked and tagged; start tried and dead."

_OVERHAUL = (
    Step(
        Stage.PREPARE,
        "identify",
        "Nameplate read: model and serial agree with the sheet.",
        "The wrong sheet is the wrong gap.",
        tells=("Sheet: {maker} {model}, serial {serial}.",),
    ),
    Step(Stage.PREPARE, "ready", "Kit, tools, gauges and consumables are on the bench: nothing beside this is missing."),
    Step(Stage.PREPARE, "isolate", _ISOLATED, caution=True, hold=True, tools=("lock and tag",)),
    Step(Stage.PREPARE, "vented", "Vented to the air on both sides; hot surfaces cooled.", caution=True, hold=True),
    Step(
        Stage.PREPARE,
        "lift",
        "Lift planned: sling, path and where it is set down; two people or a hoist for what is heavy.",
        caution=True,
        tells=("The pump is {pump_mass}.",),
    ),
    Step(Stage.STRIP, "marks", "Covers and cylinder match-marked; the fan end known from the other.", tools=("paint marker",)),
    Step(
        Stage.STRIP,
        "drive_off",
        "Key, flange, wave ring and retaining ring off, in this order and laid in it.",
        "They go back in the opposite order.",
        caution=True,
        look="Eye protection: retaining rings fly.",
        tools=("eye protection", "pliers for retaining rings"),
        when=_LUBRICATED,
    ),
    Step(
        Stage.STRIP,
        "bearing_off",
        "Bearing pulled evenly by two screws, turned by turns a little at a time.",
        "Pulled by one it tilts, and marks the shaft.",
        tools=("two screws for the bearing",),
        when=_LUBRICATED,
    ),
    Step(
        Stage.STRIP,
        "cover_off",
        "Cover bolts out; two of them into the tapped holes, turned alternately a little at a time.",
        "One turned alone tilts the cover and pinches the rotor.",
        tells=("Expect {cover_bolts} cover bolts.",),
        look="Gaskets: measure their thickness before they are thrown out.",
        tools=("spanners",),
    ),
    Step(
        Stage.STRIP,
        "vanes_out",
        "Vanes out one by one, laid in their order; each fell by its own weight.",
        "One that does not fall does not seal.",
        caution=True,
        look="Edges are sharp: gloves.",
        tells=("Expect {vanes} vanes.",),
        tools=("gloves",),
    ),
    Step(
        Stage.STRIP,
        "dust",
        "Dust blown out while the rotor is turned by hand.",
        caution=True,
        look="Eye protection and a mask: vane dust is fine and dry.",
        tools=("eye protection", "mask", "dry air"),
    ),
    Step(
        Stage.STRIP,
        "filter_off",
        "Filter out and blown from the clean side outwards, never knocked on a hard edge.",
        "Knocked, it cracks where it is not seen.",
        caution=True,
        tools=("eye protection",),
        when=_FILTER,
    ),
    Step(
        Stage.BUILD,
        "bearings_in",
        "Bearings pressed square and fully home, then greased: grams by their size, strokes by this gun.",
        hold=True,
        tools=("sleeve or press for bearings", "grease gun"),
        tasks=(Task("grease"),),
        changed=("bearings",),
        before_check=True,
    ),
    Step(
        Stage.BUILD,
        "vanes_in",
        "Vanes in: square end in the slot, bevelled edge to the cylinder; each falls by its own weight.",
        "The wrong way round a vane digs in.",
        hold=True,
        tasks=(Task("picture", "vane"),),
        opened=("vanes_out",),
    ),
    Step(
        Stage.BUILD,
        "cover_on",
        "New gaskets, cover on its pins, then the bolts, part by part.",
        "Pins first: bolts do not align it.",
        hold=True,
        tasks=(Task("stack", "cover"),),
        undone_by=("gaskets",),
        opened=("cover_off",),
        before_check=True,
    ),
    Step(
        Stage.BUILD,
        "drive_on",
        "Bearing square and fully home, retaining ring, wave ring, flange and key back, part by part.",
        caution=True,
        look="Eye protection: retaining rings fly.",
        tasks=(Task("stack", "drive"),),
        undone_by=("gaskets",),
        opened=("drive_off",),
        when=_LUBRICATED,
    ),
    Step(Stage.BUILD, "filter_in", "Clean filter in, its cover tight.", when=_FILTER, opened=("filter_off",)),
    Step(
        Stage.PROVE,
        "free_turn",
        "Spins freely by hand at the fan, all the way round.",
        "A rub is a cover too near, or a vane stuck.",
        hold=True,
        tasks=(Task("turning"),),
    ),
    Step(Stage.PROVE, "guards", "Guards back on; hands away; locks removed by those who set them.", caution=True, hold=True),
    Step(Stage.PROVE, "rotation", "Rotation right by a bump.", caution=True, hold=True, after=("guards", "free_turn")),
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
    Step(Stage.PREPARE, "check_vented", "Vented to the air; the port is not opened under pressure.", caution=True, hold=True),
    Step(
        Stage.STRIP,
        "port_open",
        "Plug of the check port out, the rotor turned by hand until a vane stands under it.",
        "The pump stays closed: this takes minutes.",
        tools=("spanner for the port",),
    ),
    Step(Stage.PROVE, "port_closed", "Plug back with its ring; nothing was left in the port.", hold=True),
    Step(
        Stage.PROVE,
        "check_guards",
        "Guards back on; locks removed by those who set them.",
        caution=True,
        hold=True,
        after=("port_closed",),
    ),
)


def _only(steps: tuple[Step, ...], scope: str) -> tuple[Step, ...]:
    return tuple(replace(step, when={**step.when, "scope": (scope,)}) for step in steps)


STEPS = (*_only(_OVERHAUL, "overhaul"), *_only(_CHECK, "check"))
