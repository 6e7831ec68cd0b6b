"""What goes into an external gear pump in which order, three chambers alike and one not. Reckoned from the strip, no source."""

from finegap.core.families.stack import Carrier, LinesUp, Points, Shape, Stack, StackPart

_SUITS = "a lubricant that suits its rubber"


def _ring(key: str, name: str, on: str) -> StackPart:
    return StackPart(key, name, Shape.O_RING, always_new=True, elastomer="elastomer", on=on, lubricant=_SUITS)


def _chamber(key: str, name: str) -> tuple[StackPart, ...]:
    """One of the three that are alike, from its inner bearing out."""
    bench, chamber = f"bench_{key}", f"chamber_{key}"
    return (
        StackPart(
            f"lip_{key}", f"Lip seal into the seal housing, {name}", Shape.LIP_SEAL, "lip as the sheet says", always_new=True,
            elastomer="elastomer", on=bench, lubricant=_SUITS,
        ),
        _ring(f"ring_{key}", f"O-ring onto the seal housing, {name}", bench),
        StackPart(
            f"inner_{key}", f"Inner bearing, {name}", Shape.BEARING, on=chamber, feature="bearings",
            checked="home, and turns smoothly"
        ),
        *(
            StackPart(
                f"ptfe_{n}_{key}", f"PTFE seal {n} of 2, {name}", Shape.PACKING, always_new=True, on=chamber,
                note="Pressed in flat: bent once, it keeps the bend.",
            )
            for n in (1, 2)
        ),
        StackPart(
            f"seal_housing_{key}", f"Seal housing, {name}", Shape.SLEEVE, "the way it came out", on=chamber,
            note="Usually fit to go again after a look.", checked="home all the way round",
        ),
        StackPart(f"outer_{key}", f"Outer bearing, {name}", Shape.BEARING, on=chamber, feature="bearings", checked="home"),
    )  # fmt: skip


def _carriers(key: str, name: str) -> tuple[Carrier, ...]:
    ends = ("gears", "outside")
    housing = f"seal_housing_{key}"
    return (
        Carrier(f"chamber_{key}", f"In the chamber, {name}", ends),
        Carrier(f"bench_{key}", f"In the seal housing, {name}, on the bench", ends, brought=housing, inside=housing),
    )


_BACK = (("back_drive", "behind the drive gear"), ("back_idler", "behind the idler gear"))
_FRONT = ("front_idler", "in front of the idler gear")

BACK_CHAMBERS = Stack(
    "back_chambers",
    "Both chambers of the back plate",
    "back_chambers",
    tuple(part for one in _BACK for part in _chamber(*one)),
    carriers=tuple(carrier for one in _BACK for carrier in _carriers(*one)),
)
FRONT_CHAMBERS = Stack(
    "front_chambers",
    "Both chambers of the front plate",
    "front_chambers",
    (
        *_chamber(*_FRONT),
        StackPart(
            "ptfe_drive", "PTFE seals into the drive's seal housing", Shape.PACKING, always_new=True, on="bench_drive",
            note="Pressed in flat, both of them.",
        ),
        _ring("rings_drive", "O-rings onto the drive's seal housing", "bench_drive"),
        StackPart(
            "snap_inner", "Inner snap ring", Shape.CLIP, "sharp edge away from the seal housing", Points.ROTOR, on="drive",
            checked="seated in its groove all the way round",
        ),
        StackPart(
            "seal_housing_drive", "Drive's seal housing", Shape.SLEEVE, "the way it came out", on="drive",
            note="It differs from the other three: a snap ring holds it at both ends.", checked="home on the inner snap ring",
        ),
        StackPart(
            "snap_outer", "Outer snap ring", Shape.CLIP, "sharp edge away from the seal housing", Points.DRIVE, on="drive",
            checked="seated in its groove all the way round",
        ),
    ),
    carriers=(
        *_carriers(*_FRONT),
        Carrier("drive", "In the drive's chamber", ("gears", "outside")),
        Carrier(
            "bench_drive", "The drive's seal housing, on the bench", ("gears", "outside"), brought="seal_housing_drive",
            inside="seal_housing_drive",
        ),
    ),
)  # fmt: skip


def _plate(end: str, on: str) -> tuple[StackPart, ...]:
    """Wear plate, gasket and end plate at one end of the housing; guide pins hold the place of the last two bolts."""
    return (
        StackPart(
            f"wear_{end}", f"{end.capitalize()} wear plate", Shape.WASHER, "the side noted at the strip towards the gears", on=on,
            feature=f"plate_{end}", note="The wrong way round it has a worn side where a fresh one was measured.",
        ),
        StackPart(
            f"gasket_{end}", f"{end.capitalize()} gasket", Shape.GASKET, always_new=True, on=on,
            note="The one the end gaps ask for: dry, whole, and no other.",
        ),
        StackPart(f"pins_{end}", "Guide pins in the holes of the last two bolts", Shape.TOOL, on=on),
        StackPart(
            f"plate_on_{end}", f"{end.capitalize()} end plate, over the pins", Shape.CAP, marks=("dowel holes",),
            lines_up=(LinesUp("dowel holes", "dowels", "housing"),), on=on,
            note="Drawn on evenly, alternately, a little at a time.",
        ),
        StackPart(f"bolts_{end}", f"Bolts of the {end} plate, but the last two", Shape.SCREW, on=on, note="By hand."),
        StackPart(f"pins_out_{end}", "Guide pins out, the last two bolts in", Shape.OUT, on=on, takes_out=f"pins_{end}"),
    )  # fmt: skip


FRONT_ON = Stack(
    "front_on",
    "Front plate and gears",
    "front_on",
    (
        _ring("seat_ring", "O-ring of the seat", "seat_side"),
        StackPart(
            "seat", "Seat of the mechanical seal", Shape.SEAT, "face towards the gear", Points.ROTOR, on="seat_side",
            feature="seal_faces", note="Silicon carbide chips: by hand, on its edge. {faces}",
        ),
        *_plate("front", "front"),
        _ring("face_ring", "O-ring of the turning face", "drive_shaft"),
        StackPart(
            "face", "Turning face on the drive shaft", Shape.FACE, "face away from the gear", Points.DRIVE, on="drive_shaft",
            feature="seal_faces", note="{faces}", checked="its spring comes back over its whole travel",
        ),
        StackPart(
            "drive_gear", "Drive gear and shaft, from behind", Shape.ROTOR, "drive end forwards", on="housing", at=1,
            feature="teeth_drive", note="Straight through the front plate: neither seal nor bearing knocked.",
        ),
        StackPart(
            "idler_gear", "Idler gear and shaft, from behind", Shape.ROTOR, "the end it had forwards", on="housing", at=1,
            feature="teeth_idler", note="Its teeth into the same gaps where marked.",
        ),
    ),
    fixed={"housing": ("dowels",)},
    carriers=(
        Carrier("housing", "In the housing, from behind", ("behind", "front"), open_left=True, needs="plate_on_front"),
        Carrier("drive_shaft", "On the drive shaft", ("gear", "drive end"), brought="drive_gear"),
        Carrier(
            "seat_side", "In the front plate, from the gears' side", ("gears", "drive end"), open_left=True,
            brought="plate_on_front",
        ),
        Carrier("front", "On the front of the housing", ("housing", "front")),
    ),
)  # fmt: skip
BACK_ON = Stack(
    "back_on",
    "Back plate",
    "back_on",
    _plate("back", "back"),
    fixed={"housing": ("dowels",)},
    carriers=(Carrier("back", "On the back of the housing", ("housing", "behind")),),
)


def _end(key: str, name: str) -> tuple[StackPart, ...]:
    return (
        StackPart(
            f"snap_{key}", f"Snap ring, {name}", Shape.CLIP, on=f"end_{key}", checked="seated in its groove all the way round"
        ),
        StackPart(f"plug_{key}", f"End plug, {name}", Shape.CAP, on=f"end_{key}", note="Tight on a new seal where it has one."),
    )


ENDS = Stack(
    "ends",
    "Plugs of the three chambers, and the drive end",
    "ends",
    (
        *(part for one in (*_BACK, _FRONT) for part in _end(*one)),
        StackPart("thrust", "Bearing that takes the thrust", Shape.BEARING, on="end_drive", feature="bearings", checked="home"),
        StackPart(
            "lock_ring", "Lock ring, driven home", Shape.NUT, on="end_drive", note="The other way round than it came out.",
            checked="the drive gear stands in the middle of its end gap",
        ),
        StackPart("lock_screw", "Screw of the lock ring", Shape.SCREW, on="end_drive"),
        StackPart("cap", "Bearing cap, its set screws backed off", Shape.CAP, on="end_drive"),
        StackPart("cap_screws", "Cap screws, then the set screws", Shape.SCREW, on="end_drive", note="By hand: torque comes next."),
    ),
    carriers=(
        *(Carrier(f"end_{key}", f"Chamber {name}", ("gears", "outside")) for key, name in (*_BACK, _FRONT)),
        Carrier("end_drive", "Drive end", ("gears", "drive end")),
    ),
)  # fmt: skip

STACKS = (FRONT_CHAMBERS, BACK_CHAMBERS, FRONT_ON, BACK_ON, ENDS)
