"""The steps of a sliding vane overhaul, in working order. Common practice, no source."""

from finegap.core.families.model import Stage, Step, When

DETAILS = {"vanes": "number of vanes", "pump_mass": "mass of the pump", "cover_bolts": "number of cover bolts"}
"""What a sheet may tell the procedure, by key."""

_FILTER: When = {"filter": ("fitted",)}

STEPS = (
    Step(Stage.PREPARE, "identify", "Nameplate read: model and serial agree with the sheet.", tells=("Sheet: {maker} {model}.",)),
    Step(
        Stage.PREPARE,
        "isolate",
        "Isolated from power and from the line, locked and tagged; start tried and dead.",
        caution=True,
        hold=True,
        tools=("lock and tag",),
    ),
    Step(Stage.PREPARE, "vented", "Vented to the air on both sides; hot surfaces cooled.", caution=True, hold=True),
    Step(Stage.STRIP, "marks", "Covers and cylinder match-marked; the fan end known from the other.", tools=("paint marker",)),
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
    Step(Stage.STRIP, "filter_off", "Filter out and blown from the clean side, never knocked.", when=_FILTER),
    Step(
        Stage.BUILD,
        "bearings_in",
        "Bearings pressed square and fully home.",
        hold=True,
        tools=("sleeve or press for bearings",),
        changed=("bearings",),
    ),
    Step(
        Stage.BUILD,
        "vanes_in",
        "Vanes in: square end in the slot, bevelled edge to the cylinder; each falls by its own weight.",
        "The wrong way round a vane digs in.",
        hold=True,
        opened=("vanes_out",),
    ),
    Step(
        Stage.BUILD,
        "cover_on",
        "Cover on its pins with new gaskets, then the bolts, criss-cross.",
        "Pins first: bolts do not align it.",
        hold=True,
        opened=("cover_off",),
        tools=("torque wrench",),
    ),
    Step(Stage.BUILD, "filter_in", "Clean filter in, its cover tight.", when=_FILTER, opened=("filter_off",)),
    Step(
        Stage.PROVE,
        "free_turn",
        "Turns freely by hand at the fan, all the way round.",
        "A rub is a cover too near, or a vane stuck.",
        hold=True,
        works=("turning",),
    ),
    Step(Stage.PROVE, "guards", "Guards back on; hands away; locks removed by those who set them.", caution=True, hold=True),
    Step(Stage.PROVE, "rotation", "Rotation right by a bump.", caution=True, hold=True),
    Step(Stage.PROVE, "valves", "Valves opened last, slowly."),
    Step(
        Stage.PROVE,
        "first_hour",
        "First hour: pressure, power, noise and temperature as they should be.",
        works=("first-hour",),
        tools=("thermometer",),
    ),
)
