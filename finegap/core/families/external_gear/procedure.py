"""The steps of an external gear pump's overhaul, in working order. Common practice, no source; the build from the strip."""

from finegap.core.families.preparing import FLUSH, IDENTIFY, ISOLATE, PRESSURE, READY, drain, lift
from finegap.core.families.proving import BUMP, FIRST_HOUR, GUARDS, seals_watched
from finegap.core.families.rotation import rotation
from finegap.core.families.steps import Stage, Step, Task
from finegap.core.families.stripping import CLEAN

DETAILS = {
    "seal": "shaft seal at the drive end",
    "teeth": "number of teeth of each gear",
    "plate_bolts": "number of bolts of each end plate",
    "pump_mass": "mass of the pump",
    "elastomer": "elastomer of seals and O-rings",
}
"""What a sheet may tell the procedure, by key."""

_PLIERS = "pliers for snap rings"
_FLY = "Eye protection: snap rings fly."
_PINS = "guide pins"
_DRAWING = "two drawing screws"
_EVENLY = "Turned alternately, a little at a time: drawn by one, the plate tilts and marks both shafts."
_PAIR = ("gasket_pair",)

_PREPARE = (
    IDENTIFY,
    READY,
    Step(
        Stage.PREPARE,
        "tools_sound",
        "Snap ring pliers, pullers for plates, bearings and seals, drift, soft mallet, guide pins: present, and in good order.",
        "One that slips or is missing is found with the pump half apart. Otherwise the work is not begun.",
        tools=(_PLIERS, "puller for bearings and seals", "small and large shaft puller", "drift", "soft mallet", _PINS, _DRAWING),
    ),
    *rotation(
        {
            "clockwise": "on the left with the drive gear above, where the teeth part",
            "counterclockwise": "on the right with the drive gear above, where the teeth part",
        }
    ),
    ISOLATE,
    PRESSURE,
    Step(
        Stage.PREPARE,
        "protect",
        "Glasses, gloves and safety shoes on before it is moved; gloves never near a turning shaft.",
        caution=True,
        hold=True,
        tools=("eye protection", "gloves", "safety shoes"),
    ),
    lift("The pump is {pump_mass}."),
    drain("Drain plug of the end plate out; drained, the shaft turned by hand to empty the teeth.", "The chambers hold some back."),
    FLUSH,
    Step(Stage.PREPARE, "place", "A ventilated place, closed off to everybody else.", caution=True),
)


def _plate_off(end: str, first: str, *needs: str) -> tuple[Step, ...]:
    """Guide pins, the plate drawn, the wear plate, the chambers of one end."""
    return (
        Step(
            Stage.STRIP,
            f"{end}_pins",
            f"{end.capitalize()} plate: two bolts out and guide pins in their places, then the other bolts.",
            "Without the pins the plate's weight hangs on shafts and seals.",
            tells=("Expect {plate_bolts} bolts.",),
            tools=(_PINS, "spanners"),
            needs=needs,
        ),
        Step(
            Stage.STRIP,
            f"{end}_drawn",
            f"{end.capitalize()} plate drawn by two screws, one in each chamber, at an even rate; guide pins out.",
            _EVENLY,
            caution=True,
            look="Two people, or a hoist, for the plate.",
            tools=(_DRAWING,),
            needs=(f"{end}_pins",),
        ),
        Step(
            Stage.STRIP,
            f"{end}_wear",
            f"{end.capitalize()} wear plate off plate or housing, the side that faced the gears marked; the gasket measured, then "
            "thrown away.",
            "Turned unseen, the worn side is measured as a fresh one.",
            look="Wear plates may stay on the plate or on the housing: look at both. Dowels that stay in the housing go back "
            "to the plate.",
            tools=("paint marker",),
            needs=(f"{end}_drawn",),
        ),
        Step(
            Stage.STRIP,
            f"{end}_chambers_out",
            f"{end.capitalize()} plate clamped: {first}; O-rings and lip seals out of the seal housings.",
            look=_FLY,
            caution=True,
            tools=("puller for bearings and seals", "soft mallet"),
            needs=(f"{end}_drawn",),
        ),
    )


_STRIP = (
    Step(
        Stage.STRIP, "anchored", "Housing anchored so that it can neither roll nor slide.", caution=True, tools=("vice or clamps",)
    ),
    Step(
        Stage.STRIP,
        "match_marks",
        "Plates, housing and chambers match-marked, front from back, and photographed; which chamber differs is marked.",
        "Three chambers are alike and one is not: mixed up, they fit and leak.",
        tools=("paint marker", "camera"),
    ),
    Step(
        Stage.STRIP,
        "back_plugs",
        "Back plate first: both end plugs out, both snap rings out.",
        caution=True,
        look=_FLY,
        tools=(_PLIERS,),
        needs=("anchored",),
    ),
    *_plate_off("back", "bearings, seal housings and PTFE seals out", "back_plugs"),
    Step(
        Stage.STRIP,
        "front_plugs",
        "Inspection plug out underneath; the idler's end plug and snap ring out in front.",
        caution=True,
        look=_FLY,
        tools=(_PLIERS,),
        needs=("back_drawn",),
    ),
    Step(Stage.STRIP, "cap_off", "Cap screws out, bearing cap off, its set screws backed off.", needs=("front_plugs",)),
    Step(
        Stage.STRIP,
        "ring_out",
        "Screw of the lock ring out, the ring driven round and out; which way it went is noted.",
        "It is fitted either way. Driven the wrong way on, it only gets tighter.",
        tasks=(Task("asked", "ring"),),
        tools=("drift", "soft mallet"),
        needs=("cap_off",),
    ),
    Step(
        Stage.STRIP,
        "idler_out",
        "Idler gear and shaft pushed out backwards by the small puller, screwed into the chamber's own thread.",
        caution=True,
        look="Carried at the gear, not at the shaft: two people if it is heavy.",
        tools=("small and large shaft puller",),
        needs=("ring_out",),
    ),
    Step(
        Stage.STRIP,
        "drive_out",
        "Then the drive gear and shaft, by the large puller; the turning face comes with it.",
        "Neither face of the seal is laid on its face.",
        caution=True,
        tools=("small and large shaft puller",),
        needs=("idler_out",),
    ),
    *_plate_off("front", "bearings and seals out, those of the drive tapped out by a soft mallet", "drive_out"),
    CLEAN,
    Step(
        Stage.STRIP,
        "sorted",
        "Sorted in three: plates, seal housings, the seal's carrier, plugs, to go again after a look; housing, wear plates, gears, "
        "shafts, inside their limits only; gaskets, O-rings, lip and PTFE seals never.",
        "In doubt the maker is asked. What is never used twice is thrown out now.",
    ),
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
    Step(
        Stage.BUILD,
        "front_chambers_built",
        "Front plate clamped: the idler's chamber as the two behind, the drive's chamber as it alone is.",
        "The drive's seal housing has a snap ring at both ends; the others have none.",
        hold=True,
        caution=True,
        look=_FLY,
        tasks=(Task("stack", "front_chambers"),),
        tools=(_PLIERS, "press or sleeve for bearings"),
        opened=("front_chambers_out",),
    ),
    Step(
        Stage.BUILD,
        "back_chambers_built",
        "Back plate clamped: both chambers, alike.",
        hold=True,
        tasks=(Task("stack", "back_chambers"),),
        tools=("press or sleeve for bearings",),
        opened=("back_chambers_out",),
    ),
    Step(
        Stage.BUILD,
        "front_joined",
        "Front wear plate, gasket and plate onto the housing over guide pins; seal faces; gears in from behind.",
        "A gasket of another thickness is another end gap at both gears.",
        hold=True,
        caution=True,
        look="Plates and gears are heavy: two people, or a hoist. Fingers out of the mesh.",
        tasks=(Task("stack", "front_on"),),
        undone_by=_PAIR,
        tools=(_PINS,),
        opened=("front_drawn",),
        needs=("front_chambers_built",),
        before_check=True,
    ),
    Step(
        Stage.BUILD,
        "free_front",
        "The gears turn freely by hand before the back is closed.",
        "Tight with one plate on, it is a burr, dirt, or a seal that was bent.",
        hold=True,
        tasks=(Task("turning"),),
        undone_by=_PAIR,
        needs=("front_joined",),
    ),
    Step(
        Stage.BUILD,
        "back_joined",
        "Back wear plate, gasket and plate over both shafts and guide pins, drawn on evenly.",
        hold=True,
        caution=True,
        look="Two people, or a hoist, for the plate.",
        tasks=(Task("stack", "back_on"), Task("picture", "pins")),
        undone_by=_PAIR,
        tools=(_PINS,),
        opened=("back_drawn",),
        needs=("back_chambers_built", "free_front"),
        before_check=True,
    ),
    Step(
        Stage.BUILD,
        "plates_tight",
        "Bolts of both plates criss-cross to their torque, the shaft turned by hand between the passes.",
        hold=True,
        tells=("{torque:plate bolts} by the sheet.",),
        tasks=(Task("torque", "plate bolts"),),
        undone_by=_PAIR,
        tools=("torque wrench",),
        opened=("back_drawn",),
        needs=("back_joined",),
        before_check=True,
    ),
)
_SET = (
    Step(
        Stage.SET,
        "ends_closed",
        "End gaps right: snap rings and end plugs of the three chambers, then the drive end, part by part.",
        "In before that, snap rings and lock ring hide the end gap from the indicator.",
        hold=True,
        caution=True,
        look=_FLY,
        tells=("The lock ring came out: {ring}.",),
        tasks=(Task("stack", "ends"), Task("grease")),
        consumables=("grease by the sheet",),
        undone_by=_PAIR,
        tools=(_PLIERS, "drift", "dial indicator"),
        after=("gap",),
    ),
    Step(
        Stage.SET,
        "cap_tight",
        "Cap screws to their torque; set screws of the cap as the sheet says; inspection plug and drain plug back.",
        hold=True,
        tells=("{torque:cap screws} by the sheet.",),
        tasks=(Task("torque", "cap screws"),),
        undone_by=_PAIR,
        tools=("torque wrench",),
        needs=("ends_closed",),
        after=("gap",),
    ),
)
_PROVE = (
    Step(
        Stage.PROVE,
        "free_turn",
        "The shaft turns freely by hand, all the way round, with everything closed.",
        "Free before and tight now: the lock ring has taken the gear to one plate.",
        hold=True,
        tasks=(Task("turning"),),
    ),
    GUARDS,
    BUMP,
    seals_watched(
        "Drive end watched over the first minutes: the mechanical seal dry, its chamber no more than warm.",
        "A few drops until the faces have run in; what goes on dripping is a chipped face, or a pinched O-ring. Never started dry.",
    ),
    FIRST_HOUR,
)
STEPS = (*_PREPARE, *_STRIP, *_BUILD, *_SET, *_PROVE)
