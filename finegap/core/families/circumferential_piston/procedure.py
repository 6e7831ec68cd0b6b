"""The steps of a circumferential piston overhaul, in working order. Common practice, no source."""

from finegap.core.families.model import Stage, Step

DETAILS = {
    "cover_nuts": "number of cover nuts",
    "pump_mass": "mass of the pump",
    "elastomer": "elastomer of seals and O-rings",
    "oil": "oil of the gear case",
}
"""What a sheet may tell the procedure, by key."""

_BLOCK = "nylon or hardwood block"

STEPS = (
    Step(
        Stage.PREPARE,
        "identify",
        "Nameplate read: model, serial and elastomer agree with the sheet.",
        tells=("Sheet: {maker} {model}.",),
    ),
    Step(
        Stage.PREPARE,
        "isolate",
        "Isolated, locked and tagged at every source; start tried and dead.",
        caution=True,
        hold=True,
        tools=("lock and tag",),
    ),
    Step(
        Stage.PREPARE,
        "drain",
        "Pressure relieved, drained and flushed; hot surfaces cooled.",
        caution=True,
        hold=True,
        tells=("{liquid}: {hazards}.",),
    ),
    Step(
        Stage.STRIP,
        "cover_off",
        "Cover nuts off, cover drawn off straight and laid product side up.",
        tells=("Expect {cover_nuts} cover nuts.",),
        look="Two sizes of dowel: which one sits where.",
    ),
    Step(
        Stage.STRIP,
        "rotors_off",
        "Rotors blocked with nylon or hardwood, rotor nuts off, rotors off their shafts.",
        "Steel between the wings chips them.",
        tools=(_BLOCK,),
        look="Disc springs: which way their cone points.",
    ),
    Step(
        Stage.STRIP,
        "body_off",
        "Body off straight, on its two screws; seals out.",
        caution=True,
        tells=("The pump is {pump_mass}.",),
    ),
    Step(Stage.STRIP, "shims_out", "Front bearings out, their shims kept by shaft.", "Mixed up, both rotors stand wrong."),
    Step(
        Stage.BUILD,
        "bearings_in",
        "Bearings in with their shims, fully home, by the sheet's grease.",
        hold=True,
        opened=("shims_out",),
        tools=("press or sleeve for bearings",),
    ),
    Step(Stage.BUILD, "seals_in", "New seals and O-rings in; nothing pinched, nothing dry.", hold=True, opened=("body_off",)),
    Step(
        Stage.BUILD,
        "rotors_on",
        "Rotors on, disc springs with their cone towards the nut, nuts to torque, rotors blocked; the second at right angles.",
        "A loose rotor nut wrecks the pump.",
        hold=True,
        tools=("torque wrench", _BLOCK),
        opened=("rotors_off",),
    ),
    Step(
        Stage.PROVE,
        "below",
        "Both rotors lie below the body face: felt with the thumb, all the way round.",
        "Above it, the cover is drawn down on the rotor. Never assemble.",
        hold=True,
    ),
    Step(Stage.PROVE, "cover_on", "Cover on its dowels with its O-ring, nuts by the sheet.", hold=True, tools=("torque wrench",)),
    Step(
        Stage.PROVE,
        "free_turn",
        "The shaft turns freely by hand, all the way round, before anything else.",
        "A tight spot is a wing that touches.",
        hold=True,
        works=("turning",),
    ),
    Step(Stage.PROVE, "oil", "Gear case filled to the middle of the sight glass.", tells=("{oil}.",)),
    Step(Stage.PROVE, "guards", "Guards back on; hands away; locks removed by those who set them.", caution=True, hold=True),
    Step(Stage.PROVE, "rotation", "Valves open; rotation right by a bump.", caution=True, hold=True),
    Step(
        Stage.PROVE,
        "first_hour",
        "First hour: flow, pressure, power, noise and temperature as they should be.",
        works=("first-hour",),
        tools=("bucket and watch, or flow meter", "thermometer"),
    ),
)
