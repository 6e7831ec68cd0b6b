"""Packing and seals of an internal gear pump, in its usual arrangements. Common practice, no source; the sheet rules."""

from finegap.core.families.internal_gear.builds import COMPACT, COUPLED, PACKED, UNCOUPLED
from finegap.core.families.stack import Carrier, LinesUp, Points, Shape, Stack, StackPart

_SUITS = "a lubricant that suits its rubber"
_BACK = "pressed, the spring comes back"

PACKING = (
    StackPart("retainer", "Retainer washer", Shape.WASHER, "flat side towards the packing", Points.DRIVE),
    StackPart(
        "packing",
        "Packing ring",
        Shape.PACKING,
        always_new=True,
        lubricant="a film of lubricant that suits the liquid",
        note="Each ring seated on its own with a length of pipe.",
    ),
)
PACKED_ONE_PIECE = Stack(
    "packing",
    "Packing with a one-piece gland",
    "seal",
    (
        *PACKING,
        StackPart(
            "gland", "Gland", Shape.GLAND, "nose towards the packing", Points.ROTOR, note="Square, and only snug: nuts by hand."
        ),
    ),
    when={**PACKED, "gland": ("one-piece",)},
)
PACKED_SPLIT = Stack(
    "packing_split",
    "Packing with a split gland and clips",
    "seal",
    (
        *PACKING,
        StackPart(
            "gland_a", "Gland, first half", Shape.SPLIT_GLAND, "nose towards the packing", Points.ROTOR, ("slot",), split=True
        ),
        StackPart(
            "gland_b",
            "Gland, second half",
            Shape.SPLIT_GLAND,
            "nose towards the packing",
            Points.ROTOR,
            ("tab",),
            (LinesUp("tab", "slot", "gland_a"),),
            note="Both halves from one casting: same number.",
            split=True,
        ),
        StackPart("clips", "Gland clips", Shape.CLIP, "over both halves", note="Sprung on fully: they hold the halves together."),
    ),
    when={**PACKED, "gland": ("split",)},
)

_ON_SHAFT = Carrier("shaft", "On the shaft, outside the pump", ("rotor", "drive"), brought="rotor_shaft", inside="rotor_shaft")
_IN_BRACKET = Carrier("bracket", "In the bracket, from the casing side", ("casing", "drive"), open_left=True)
_IN_CASING = Carrier("casing", "In the bore at the back of the casing", ("casing", "drive"), open_left=True)


def _seat_ring(on: str) -> StackPart:
    return StackPart(
        "seat_ring",
        "Ring of the seat",
        Shape.O_RING,
        always_new=True,
        elastomer="elastomer",
        on=on,
        lubricant=_SUITS,
        note="Onto the seat, not twisted.",
    )


def _sleeve_on() -> StackPart:
    return StackPart(
        "sleeve",
        "Installation sleeve, or tape over the thread",
        Shape.TOOL,
        on="shaft",
        note="A lip or ring is cut on a bare thread.",
    )


def _rotor_in(on: str, further: str) -> tuple[StackPart, ...]:
    """Rotor and shaft with what is on them, into what is in the pump; then the sleeve comes off."""
    return (
        StackPart(
            "rotor_shaft",
            "Rotor and shaft, the rotating part on it",
            Shape.ROTOR,
            "straight, not dragged",
            Points.DRIVE,
            on=on,
            lubricant="bushing bore and shaft lubricated",
            note=further,
        ),
        StackPart("sleeve_off", "Sleeve or tape off again", Shape.OUT, on="shaft", takes_out="sleeve"),
    )


BEHIND = Stack(
    "seal_behind_rotor",
    "Mechanical seal behind the rotor",
    "seal",
    (
        StackPart(
            "bracket_lip",
            "Lip seal of the bracket",
            Shape.LIP_SEAL,
            "spring side towards the casing",
            Points.ROTOR,
            always_new=True,
            elastomer="lip",
            on="bracket",
            lubricant="lip lubricated",
            note="Pressed square by a flat fixture.",
        ),
        _sleeve_on(),
        StackPart(
            "rotating",
            "Rotating part with its spring",
            Shape.FACE,
            "back against the rotor, lapped face away from it",
            Points.DRIVE,
            ("drive",),
            (LinesUp("drive", "flat", "shaft"),),
            always_new=True,
            elastomer="elastomer",
            on="shaft",
            lubricant=f"shaft with {_SUITS}",
            note="{faces}",
        ),
        StackPart(
            "screws_touch",
            "Set screws, all of them first to touch",
            Shape.SCREW,
            "onto the flat, not onto the round",
            on="shaft",
            at=1,
            feature="set_screws",
        ),
        StackPart("screws_tight", "Set screws, now all tight", Shape.SCREW, on="shaft", at=1),
        StackPart("clips_off", "Holding clips off", Shape.CLIP, "turned away from the spring", on="shaft", at=1, checked=_BACK),
        StackPart("spacer", "Spacer ring", Shape.WASHER, on="bracket", checked="flat against its shoulder"),
        _seat_ring("bracket"),
        StackPart(
            "seat",
            "Seat",
            Shape.SEAT,
            "lapped face towards the rotor",
            Points.ROTOR,
            ("pins",),
            (LinesUp("pins", "grooves", "bracket bushing"),),
            always_new=True,
            on="bracket",
            checked="home against the spacer",
            note="{faces}",
        ),
        *_rotor_in("bracket", "In now, with the seal already on it: behind the rotor nothing goes in later."),
    ),
    fixed={"shaft": ("flat",), "bracket bushing": ("grooves",)},
    when={"seal": ("mechanical",), **UNCOUPLED},
    carriers=(_ON_SHAFT, _IN_BRACKET),
)


def _seat(*, pin: bool) -> StackPart:
    return StackPart(
        "seat",
        "Seat",
        Shape.SEAT,
        "lapped face towards the rotor",
        Points.ROTOR,
        ("pin",) if pin else (),
        (LinesUp("pin", "hole", "casing"),) if pin else (),
        always_new=True,
        on="casing",
        lubricant=f"bore and outside of the seat with {_SUITS}",
        checked="seated all the way round",
        note="By the thumbs on its outermost edge, or a close dowel with a slight step; never by its face. {faces}",
    )


def _compact(key: str, name: str, choice: str, *rotating: StackPart, pin: bool = False) -> Stack:
    return Stack(
        key,
        name,
        "seal",
        (
            _seat_ring("casing"),
            _seat(pin=pin),
            _sleeve_on(),
            *rotating,
            *_rotor_in("casing", "The spring meets the seat as the rotor goes home."),
        ),
        fixed={"casing": ("hole",), "shaft": ("flat",)} if pin else {"shaft": ("flat",)},
        when={"seal": (choice,), **UNCOUPLED},
        carriers=(_ON_SHAFT, _IN_CASING),
    )


def _set(at: int) -> tuple[StackPart, ...]:
    return (
        StackPart("clips_off", "Holding clips off", Shape.CLIP, "turned away from the spring", on="shaft", at=at, checked=_BACK),
        StackPart(
            "screws", "Set screws tight", Shape.SCREW, "onto the flat, not onto the round", on="shaft", at=at, feature="set_screws"
        ),
    )


_HOME = "Home against the back of the rotor; the sheet names sizes that need a press over the hub."
BELLOWS = _compact(
    "bellows_unit",
    "Bellows seal, one rotating unit",
    "bellows",
    StackPart(
        "bellows",
        "Bellows unit: spring, bellows and rotating face in one",
        Shape.BELLOWS,
        "spring towards the rotor, face away from it",
        Points.DRIVE,
        always_new=True,
        elastomer="elastomer",
        on="shaft",
        lubricant=f"shaft and bellows with {_SUITS}",
        checked="the spring touches the rotor and is not compressed",
        note="Slid on in one go, never pushed by its face. It has no collar and no set screws. {faces}",
    ),
)
WEDGE = _compact(
    "wedge_unit",
    "Wedge seal",
    "wedge",
    StackPart(
        "rotating",
        "Rotating unit with its wedge ring",
        Shape.FACE,
        "back against the rotor, face away from it",
        Points.DRIVE,
        ("drive",),
        (LinesUp("drive", "flat", "shaft"),),
        always_new=True,
        elastomer="PTFE",
        on="shaft",
        lubricant="shaft lubricated",
        note=_HOME,
    ),
    *_set(1),
    pin=True,
)
ORING = _compact(
    "oring_unit",
    "O-ring seal",
    "oring",
    StackPart(
        "rotating",
        "Rotating unit with its O-ring",
        Shape.FACE,
        "back against the rotor, face away from it",
        Points.DRIVE,
        ("drive",),
        (LinesUp("drive", "flat", "shaft"),),
        always_new=True,
        elastomer="elastomer",
        on="shaft",
        lubricant=f"shaft with {_SUITS}",
        note=_HOME + " {faces}",
    ),
    *_set(1),
)
COUPLED_SEAL = Stack(
    "coupled_unit",
    "Mechanical seal of the close-coupled build",
    "seal",
    (
        StackPart(
            "lower",
            "Lower rotating part",
            Shape.COLLAR,
            "flat to the rotor",
            Points.ROTOR,
            on="shaft",
            checked="its two screws tight",
        ),
        StackPart(
            "upper",
            "Upper ring with its rubber",
            Shape.FACE,
            "lapped face away from the rotor",
            Points.DRIVE,
            always_new=True,
            elastomer="elastomer",
            on="shaft",
            lubricant="first: what rubber is it? Then a lubricant that suits it, on the shaft",
            note="{faces}",
        ),
        _seat_ring("cover"),
        StackPart(
            "seat",
            "Seat",
            Shape.SEAT,
            "lapped face towards the rotor",
            Points.ROTOR,
            ("slot",),
            (LinesUp("slot", "pin", "rear cover"),),
            always_new=True,
            on="cover",
            lubricant="soapy water",
            note="Looked at first: flat, and without a crack. {faces}",
        ),
        StackPart("rotor_shaft", "Rotor and shaft, the seal on it", Shape.ROTOR, "straight, faces clean", Points.DRIVE, on="cover"),
    ),
    fixed={"rear cover": ("pin",)},
    when={"seal": ("mechanical", *COMPACT["seal"]), **COUPLED},
    carriers=(
        Carrier("shaft", "On the shaft, outside the pump", ("rotor", "drive"), brought="rotor_shaft", inside="rotor_shaft"),
        Carrier("cover", "In the rear cover", ("rotor", "motor"), open_left=True),
    ),
)

SEALS = (PACKED_ONE_PIECE, PACKED_SPLIT, BEHIND, BELLOWS, WEDGE, ORING, COUPLED_SEAL)
