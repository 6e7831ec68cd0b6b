"""What goes onto the shaft of an internal gear pump, in its usual arrangements. Common practice, no source; the sheet rules."""

from finegap.core.families.stack import LinesUp, Points, Shape, Stack, StackPart

_LOCKING = (
    StackPart(
        "lock_washer",
        "Lock washer",
        Shape.LOCK_WASHER,
        "tangs towards the nut",
        Points.DRIVE,
        ("tab",),
        (LinesUp("tab", "slot", "shaft"),),
        always_new=True,
        feature="lock_washer",
    ),
    StackPart(
        "lock_nut", "Lock nut", Shape.NUT, "bevelled side towards the washer", Points.ROTOR, note="By hand: torque comes later."
    ),
)
_SHAFT = {"shaft": ("slot", "groove", "flat")}
_PRESSED = "By its inner ring onto the shaft, by its outer ring into the housing."

PACKED = Stack(
    "packing",
    "Packing with a one-piece gland",
    "seal",
    (
        StackPart("retainer", "Retainer washer", Shape.WASHER, "flat side towards the packing", Points.DRIVE),
        StackPart("packing", "Packing ring", Shape.PACKING, always_new=True, note="Each ring seated on its own with a sleeve."),
        StackPart(
            "gland", "Gland", Shape.GLAND, "nose towards the packing", Points.ROTOR, note="Square, and only snug: nuts by hand."
        ),
    ),
    when={"seal": ("packed",), "gland": ("one-piece",)},
)
PACKED_SPLIT = Stack(
    "packing_split",
    "Packing with a split gland and clips",
    "seal",
    (
        *PACKED.parts[:2],
        StackPart("gland_a", "Gland, first half", Shape.SPLIT_GLAND, "nose towards the packing", Points.ROTOR, ("slot",)),
        StackPart(
            "gland_b",
            "Gland, second half",
            Shape.SPLIT_GLAND,
            "nose towards the packing",
            Points.ROTOR,
            ("tab",),
            (LinesUp("tab", "slot", "gland_a"),),
            note="Both halves from one casting: same number.",
        ),
        StackPart("clips", "Gland clips", Shape.CLIP, "over both halves", note="Sprung on fully: they hold the halves together."),
    ),
    when={"seal": ("packed",), "gland": ("split",)},
)


def _seat(points: Points) -> tuple[StackPart, ...]:
    """The seat with its ring; its face points to where the rotating face comes."""
    return (
        StackPart(
            "seat_ring",
            "O-ring of the seat",
            Shape.O_RING,
            always_new=True,
            elastomer="elastomer",
            note="Feel for burrs first; tape over threads and shoulders.",
        ),
        StackPart(
            "seat",
            "Seat",
            Shape.SEAT,
            "lapped face towards the rotating face",
            points,
            ("notch",),
            (LinesUp("notch", "pin", "casing"),),
            always_new=True,
            note="{faces}",
        ),
    )


_CASING = {"casing": ("pin",), **_SHAFT}

MECHANICAL = Stack(
    "mechanical",
    "Mechanical seal behind the rotor",
    "seal",
    (
        StackPart(
            "shaft_ring",
            "O-ring on the shaft",
            Shape.O_RING,
            always_new=True,
            elastomer="elastomer",
            note="Rolled on with lubricant, so that it does not bunch.",
        ),
        StackPart(
            "rotating",
            "Rotating part with its spring",
            Shape.FACE,
            "lapped face away from the rotor",
            Points.DRIVE,
            ("drive",),
            (LinesUp("drive", "flat", "shaft"),),
            always_new=True,
            note="{faces}",
        ),
        StackPart("set_screws", "Set screws", Shape.SCREW, "onto the flat, not onto the round", feature="set_screws"),
        StackPart(
            "clips", "Holding clips", Shape.CLIP, "out: turned away from the spring", note="Press, and feel the spring come back."
        ),
        *_seat(Points.ROTOR),
    ),
    fixed=_CASING,
    when={"seal": ("mechanical",)},
)
BELLOWS = Stack(
    "bellows",
    "Bellows seal of the compact build",
    "seal",
    (
        *_seat(Points.DRIVE),
        StackPart(
            "bellows",
            "Bellows with the rotating face",
            Shape.BELLOWS,
            "face towards the seat",
            Points.ROTOR,
            always_new=True,
            elastomer="elastomer",
            note="{faces} Slid on in one go: it grips within minutes.",
        ),
        StackPart(
            "spring",
            "Spring",
            Shape.SPRING,
            "wide end towards the bellows",
            Points.ROTOR,
            always_new=True,
            note="Press, and feel it come back over its whole travel.",
        ),
        StackPart(
            "collar",
            "Drive collar",
            Shape.COLLAR,
            "set screws onto the flat",
            Points.NEITHER,
            ("screw",),
            (LinesUp("screw", "flat", "shaft"),),
        ),
    ),
    fixed=_CASING,
    when={"seal": ("bellows",)},
)
WEDGE = Stack(
    "wedge",
    "Wedge seal of the compact build",
    "seal",
    (
        *_seat(Points.DRIVE),
        StackPart(
            "rotating", "Rotating face", Shape.FACE, "lapped face towards the seat", Points.ROTOR, always_new=True, note="{faces}"
        ),
        StackPart(
            "wedge",
            "Wedge ring",
            Shape.WEDGE,
            "thin edge towards the rotating face",
            Points.ROTOR,
            always_new=True,
            elastomer="PTFE",
            note="Warmed a little it slides over the shaft; never over an edge without a sleeve.",
        ),
        StackPart(
            "carrier",
            "Spring carrier",
            Shape.SPRING,
            "springs towards the wedge",
            Points.ROTOR,
            ("screw",),
            (LinesUp("screw", "flat", "shaft"),),
            always_new=True,
            note="Press, and feel all springs come back.",
        ),
    ),
    fixed=_CASING,
    when={"seal": ("wedge",)},
)

THRUST = Stack(
    "thrust_housing",
    "Thrust bearing housing",
    "bearing",
    (
        StackPart(
            "half_rings",
            "Half rings",
            Shape.HALF_RING,
            "both in the groove, joint level",
            Points.NEITHER,
            ("rim",),
            (LinesUp("rim", "groove", "shaft"),),
            feature="half_rings",
        ),
        StackPart("inner_collar", "Inner collar", Shape.COLLAR, "recess over the half rings", Points.ROTOR, feature="half_rings"),
        StackPart(
            "inner_lip",
            "Inner lip seal",
            Shape.LIP_SEAL,
            "lip towards the pump",
            Points.ROTOR,
            always_new=True,
            elastomer="lip",
            note="Lip greased; pressed square by its rim.",
        ),
        StackPart(
            "bearing",
            "Thrust bearing",
            Shape.BEARING,
            "printed side towards the drive",
            Points.DRIVE,
            feature="bearings",
            note=_PRESSED,
        ),
        StackPart("outer_collar", "Outer collar", Shape.COLLAR, "polished side under the lip", Points.DRIVE, feature="half_rings"),
        StackPart("end_cap", "End cap with its gasket", Shape.CAP, "drain hole down", Points.DRIVE),
        StackPart(
            "outer_lip",
            "Outer lip seal",
            Shape.LIP_SEAL,
            "lip outward",
            Points.DRIVE,
            always_new=True,
            elastomer="lip",
            note="Outward it keeps dirt and water out.",
        ),
        *_LOCKING,
    ),
    fixed=_SHAFT,
    when={"means": ("housing",), "bearing": ("ball",)},
)
TAPERED = Stack(
    "tapered",
    "Pair of tapered bearings with preload",
    "bearing",
    (
        StackPart(
            "inner_lip", "Inner lip seal", Shape.LIP_SEAL, "lip towards the pump", Points.ROTOR, always_new=True, elastomer="lip"
        ),
        StackPart(
            "inner_bearing",
            "Inner tapered bearing",
            Shape.TAPERED,
            "wide end of the rollers towards the drive",
            Points.DRIVE,
            feature="bearings",
            note=_PRESSED,
        ),
        StackPart("spacer", "Spacer", Shape.SLEEVE, feature="bearings"),
        StackPart(
            "outer_bearing",
            "Outer tapered bearing",
            Shape.TAPERED,
            "wide end of the rollers towards the rotor",
            Points.ROTOR,
            feature="bearings",
            note=_PRESSED,
        ),
        StackPart("disc_spring", "Disc spring", Shape.DISC_SPRING, "cone towards the nut", Points.DRIVE),
        *_LOCKING,
        StackPart(
            "end_cap",
            "End cap with its gasket",
            Shape.CAP,
            "drain hole down",
            Points.DRIVE,
            note="Preload by the sheet: turned through by hand it has no play and no tight spot.",
        ),
    ),
    fixed=_SHAFT,
    when={"bearing": ("tapered",)},
)
BALL = Stack(
    "ball",
    "Ball bearing in its cover",
    "bearing",
    (
        StackPart(
            "inner_lip", "Inner lip seal", Shape.LIP_SEAL, "lip towards the pump", Points.ROTOR, always_new=True, elastomer="lip"
        ),
        StackPart(
            "bearing",
            "Ball bearing",
            Shape.BEARING,
            "printed side towards the drive",
            Points.DRIVE,
            feature="bearings",
            note=_PRESSED,
        ),
        *_LOCKING,
        StackPart("cover", "Bearing cover with its gasket", Shape.CAP, "drain hole down", Points.DRIVE),
    ),
    fixed=_SHAFT,
    when={"means": ("gaskets", "ring", "coupling", "fixed"), "bearing": ("ball",)},
)

BUSHING = Stack(
    "bushing",
    "Bushing into its seat",
    "bushing",
    (
        StackPart(
            "bushing",
            "Bushing",
            Shape.SLEEVE,
            "lubrication groove at 12 o'clock",
            feature="bushing_bore",
            note="Square on the arbor, started straight, pressed flush. {one_stroke:bushing}",
        ),
    ),
)
_HEAD_PART = StackPart(
    "head",
    "Head with the idler on its pin",
    Shape.CAP,
    "tilted so that the idler meshes",
    Points.ROTOR,
    ("match mark",),
    (LinesUp("match mark", "match mark", "casing"),),
    note="Heavy: held until the first bolts carry it. Bolts by hand.",
)
HEAD = Stack(
    "head",
    "Head onto the casing",
    "head",
    (StackPart("head_gasket", "Head gasket", Shape.GASKET, "dry, flat, no hole covered", always_new=True), _HEAD_PART),
    fixed={"casing": ("match mark",)},
    when={"means": ("housing", "ring", "coupling", "fixed")},
    ends=("casing", "outside"),
)
HEAD_SET_BY_GASKETS = Stack(
    "head_set",
    "Head onto the casing",
    "head",
    (
        StackPart(
            "head_gasket",
            "Head gaskets",
            Shape.GASKET,
            "dry, flat, no hole covered",
            always_new=True,
            note="The stack to begin with; Set says which come out and go in.",
        ),
        _HEAD_PART,
    ),
    fixed={"casing": ("match mark",)},
    when={"means": ("gaskets",)},
    ends=("casing", "outside"),
)

STACKS = (PACKED, PACKED_SPLIT, MECHANICAL, BELLOWS, WEDGE, THRUST, TAPERED, BALL, BUSHING, HEAD, HEAD_SET_BY_GASKETS)
