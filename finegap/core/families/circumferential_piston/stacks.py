"""What goes into a circumferential piston pump in which order. Common practice, no source; the sheet rules."""

from finegap.core.families.stack import LinesUp, Points, Shape, Stack, StackPart

_ENDS = ("rotor", "gear case")
_FACES = "{faces} Never touched; laid face up."
_ROLLED = "Shoulders felt for burrs and taped over; rolled on with lubricant, so that it does not bunch."
_SPRUNG = "Press, and feel it come back over its whole travel."

_SLEEVE = (
    StackPart("sleeve_ring", "O-ring under the sleeve", Shape.O_RING, always_new=True, elastomer="elastomer", note=_ROLLED),
    StackPart(
        "sleeve",
        "Seal sleeve",
        Shape.SLEEVE,
        "chamfer towards the rotor",
        Points.ROTOR,
        ("slot",),
        (LinesUp("slot", "pin", "shaft"),),
    ),
)


def _body_ring(key: str, name: str) -> StackPart:
    return StackPart(
        key,
        name,
        Shape.O_RING,
        always_new=True,
        elastomer="elastomer",
        note="Into its groove with lubricant: felt all the way round, not twisted.",
    )


def _seat(key: str, name: str, points: Points) -> tuple[StackPart, ...]:
    return (
        StackPart(
            f"{key}_ring", f"O-ring of the {name.lower()}", Shape.O_RING, always_new=True, elastomer="elastomer", note=_ROLLED
        ),
        StackPart(
            key,
            name,
            Shape.SEAT,
            "lapped face towards the rotating face",
            points,
            ("notch",),
            (LinesUp("notch", "pin", "body"),),
            always_new=True,
            note=_FACES,
        ),
    )


def _rotating(key: str, name: str, points: Points) -> tuple[StackPart, ...]:
    return (
        StackPart(
            f"{key}_ring", f"O-ring of the {name.lower()}", Shape.O_RING, always_new=True, elastomer="elastomer", note=_ROLLED
        ),
        StackPart(
            key,
            name,
            Shape.FACE,
            "lapped face towards its seat",
            points,
            ("flat",),
            (LinesUp("flat", "flat", "shaft"),),
            always_new=True,
            note=_FACES,
        ),
    )


_PORT = StackPart(
    "flush",
    "Flush ring",
    Shape.LANTERN,
    "ports outward",
    marks=("port",),
    lines_up=(LinesUp("port", "cut-out", "body"),),
    note="Covered, the seal runs dry.",
)
_RETAINER = StackPart("retainer", "Retainer", Shape.WASHER, "flat side towards the rings", Points.ROTOR)

SINGLE_O = Stack(
    "single_o",
    "Single O-ring seal",
    "seal",
    (*_SLEEVE, _body_ring("ring", "Seal O-ring"), _RETAINER),
    fixed={"shaft": ("pin",)},
    when={"seal": ("single_o",)},
    ends=_ENDS,
)
DOUBLE_O = Stack(
    "double_o",
    "Double O-ring seal with flush",
    "seal",
    (
        *_SLEEVE,
        _body_ring("inner_ring", "Seal O-ring, product side"),
        _PORT,
        _body_ring("outer_ring", "Seal O-ring, outside"),
        _RETAINER,
    ),
    fixed={"shaft": ("pin",), "body": ("cut-out",)},
    when={"seal": ("double_o",)},
    ends=_ENDS,
)
SINGLE_M = Stack(
    "single_m",
    "Single mechanical seal",
    "seal",
    (
        *_seat("seat", "Seat", Points.ROTOR),
        StackPart("spring", "Wave spring", Shape.SPRING, note=_SPRUNG),
        *_rotating("rotating", "Rotating face", Points.DRIVE),
    ),
    fixed={"shaft": ("flat",), "body": ("pin",)},
    when={"seal": ("single_m",)},
    ends=_ENDS,
)
DOUBLE_M = Stack(
    "double_m",
    "Double mechanical seal with flush",
    "seal",
    (
        *_seat("outer_seat", "Outer seat", Points.ROTOR),
        *_rotating("outer", "Outer rotating face", Points.DRIVE),
        StackPart("spring", "Wave spring", Shape.SPRING, note=_SPRUNG),
        _PORT,
        *_rotating("inner", "Inner rotating face", Points.ROTOR),
        *_seat("inner_seat", "Inner seat, product side", Points.DRIVE),
    ),
    fixed={"shaft": ("flat",), "body": ("pin", "cut-out")},
    when={"seal": ("double_m",)},
    ends=_ENDS,
)


def _rotor(key: str, name: str, mark: str, extra: tuple[LinesUp, ...] = (), marks: tuple[str, ...] = ()) -> tuple[StackPart, ...]:
    turned = "wings at right angles to the first" if extra else ""
    return (
        StackPart(
            f"rotor_{key}",
            f"{name} rotor",
            Shape.COLLAR,
            turned,
            marks=(mark, *marks),
            lines_up=(LinesUp(mark, mark, f"{key} shaft"), *extra),
            note="Onto its shoulder by hand: a burr holds it off.",
            feature="wings",
        ),
        StackPart(
            f"spring_{key}",
            f"Disc spring, {name.lower()}",
            Shape.DISC_SPRING,
            "cone towards the nut",
            Points.DRIVE,
            note="It must rattle: loose under its O-ring, not jammed.",
        ),
        StackPart(f"keeper_{key}", f"O-ring that keeps it, {name.lower()}", Shape.O_RING, always_new=True, elastomer="elastomer"),
        StackPart(
            f"nut_{key}",
            f"Rotor nut, {name.lower()}",
            Shape.NUT,
            "sealing face towards the rotor",
            Points.ROTOR,
            note="By hand: torque comes later.",
        ),
    )


def _rotors(mark: str, choice: str) -> Stack:
    return Stack(
        f"rotors_{mark}",
        f"Rotors on their {choice}",
        "rotors",
        (
            *_rotor("drive", "Drive", mark),
            *_rotor("driven", "Driven", mark, (LinesUp("wing", "hollow", "drive rotor"),), ("wing",)),
        ),
        fixed={"drive shaft": (mark,), "driven shaft": (mark,), "drive rotor": ("hollow",)},
        when={"rotor": (mark,)},
        ends=("gear case", "cover"),
    )


COVER = Stack(
    "cover",
    "Cover",
    "cover",
    (
        StackPart(
            "cover_ring",
            "Cover O-ring",
            Shape.O_RING,
            always_new=True,
            elastomer="elastomer",
            note="An ordinary ring may be stretched a little into its groove; an encapsulated one never.",
        ),
        StackPart(
            "cover",
            "Cover",
            Shape.CAP,
            "product side inward",
            Points.ROTOR,
            ("large hole", "small hole"),
            (LinesUp("large hole", "large dowel", "body"), LinesUp("small hole", "small dowel", "body")),
            note="Two sizes of dowel, so that it goes on one way only: forced upside down it wrecks both faces.",
        ),
        StackPart("cover_nuts", "Cover nuts", Shape.NUT, note="By hand, criss-cross."),
    ),
    fixed={"body": ("large dowel", "small dowel")},
    ends=("body", "outside"),
)

STACKS = (SINGLE_O, DOUBLE_O, SINGLE_M, DOUBLE_M, _rotors("spline", "splines"), _rotors("key", "keys"), COVER)
