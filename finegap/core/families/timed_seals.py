"""Six shaft seals of pumps with two timed rotors before an oiled case, each as its sub-assemblies.

Common practice, no source; the sheet rules.
"""

from dataclasses import replace

from finegap.core.families.builds import Option
from finegap.core.families.stack import Carrier, LinesUp, Points, Shape, Stack, StackPart

_SUITS = "a lubricant that suits its rubber"
_NOT_CUT = "Shoulders felt for burrs; rolled on, not cut over a shoulder, not bunched."
_SPRUNG = "pressed, it comes back over its whole travel"
_CLEAN = "Faces free of dirt. {faces}"

_ROTOR = Carrier("rotor", "In the rotor, on the bench", ("product", "gear case"))
_FRONT = Carrier("front", "In the body, from the product side", ("product", "gear case"), open_left=True)
_BEHIND = Carrier("behind", "In the body, from behind", ("product", "gear case"), brought="body")
_HOUSING = Carrier("housing", "In the seal housing", ("product", "gear case"), brought="body")
_SHAFT = Carrier("shaft", "On the shaft", ("product", "gear case"), open_left=True, brought="body")


def _ring(key: str, name: str, on: str, note: str = _NOT_CUT) -> StackPart:
    return StackPart(key, name, Shape.O_RING, always_new=True, elastomer="elastomer", on=on, lubricant=_SUITS, note=note)


def _body(on: str) -> StackPart:
    """The body over shafts and studs: what is in it and on the shafts comes together."""
    return StackPart(
        "body",
        "Body over shafts and studs",
        Shape.CAP,
        "no seal part nicked or moved",
        Points.DRIVE,
        ("large hole", "small hole"),
        (LinesUp("large hole", "large dowel", "gear case"), LinesUp("small hole", "small dowel", "gear case")),
        on=on,
        note="Its screws by hand, evenly. {body_on}",
    )


_CASE = {"gear case": ("large dowel", "small dowel")}

SINGLE_O = Stack(
    "single_o",
    "Single O-ring seal",
    "seal",
    (
        _ring("housing_ring", "O-ring of the housing", "housing"),
        StackPart(
            "housing",
            "Seal housing onto the body",
            Shape.WASHER,
            marks=("holes",),
            lines_up=(LinesUp("holes", "threads", "body plate"),),
            on="housing",
            note="Its bolts hand tight, with the key.",
        ),
        _ring("body_ring", "Body O-ring into the housing", "housing", "Felt all the way round, not twisted."),
        _body("housing"),
        StackPart(
            "sleeve",
            "Sleeve, pushed through that ring from the front",
            Shape.SLEEVE,
            "chamfer first",
            on="over",
            lubricant="outside lubricated",
        ),
        _ring("rotor_ring", "O-ring between sleeve and the back of the rotor", "over"),
    ),
    fixed={**_CASE, "body plate": ("threads",)},
    when={"seal": ("single_o",)},
    carriers=(Carrier("over", "On the shaft, from the front", ("product", "gear case"), open_left=True, needs="body"), _HOUSING),
)
DOUBLE_O = Stack(
    "double_o",
    "Double O-ring seal, flushed",
    "seal",
    (
        StackPart(
            "spring_seat",
            "Spring seat",
            Shape.WASHER,
            "",
            marks=("2 flats",),
            lines_up=(LinesUp("2 flats", "2 flats", "shaft"),),
            on="shaft",
        ),
        StackPart("wave", "Wave spring", Shape.SPRING, on="shaft", checked=_SPRUNG),
        _ring("shaft_ring", "Shaft O-ring", "shaft"),
        _ring("body_ring_a", "Body O-ring, first groove", "housing", "Felt all the way round, not twisted."),
        _ring("body_ring_b", "Body O-ring, second groove", "housing", "Felt all the way round, not twisted."),
        _ring("housing_ring", "O-ring of the housing itself", "housing"),
        StackPart(
            "housing",
            "Seal housing onto the body",
            Shape.LANTERN,
            marks=("ports",),
            lines_up=(LinesUp("ports", "cut-outs", "body plate"),),
            on="housing",
            note="Covered ports leave the seal dry.",
        ),
        StackPart(
            "sleeve",
            "Sleeve with its O-ring",
            Shape.SLEEVE,
            "two notches towards the rotor",
            on="shaft",
            elastomer="elastomer",
            lubricant=_SUITS,
            checked="seated, before the body goes on",
        ),
        _body("housing"),
    ),
    fixed={**_CASE, "shaft": ("2 flats",), "body plate": ("cut-outs",)},
    when={"seal": ("double_o",)},
    carriers=(_HOUSING, _SHAFT),
)

_SEAT_ON_SHAFT = (
    _ring("shaft_ring", "Shaft O-ring", "shaft"),
    StackPart(
        "seat",
        "Seat, against the shoulder",
        Shape.SEAT,
        "lapped face towards the product",
        Points.ROTOR,
        ("flats",),
        (LinesUp("flats", "flats", "shaft"),),
        always_new=True,
        on="shaft",
        note=_CLEAN,
    ),
)


def _in_body(key: str, name: str) -> StackPart:
    return StackPart(
        key,
        name,
        Shape.FACE,
        "lapped face towards the gear case",
        Points.DRIVE,
        ("3 notches",),
        (LinesUp("3 notches", "3 pins", "body bore"),),
        always_new=True,
        elastomer="elastomer",
        on="behind",
        lubricant=_SUITS,
        note="With its O-ring. " + _CLEAN,
    )


_INNER = (
    StackPart("inner_spring", "Wave spring of the inner seal", Shape.SPRING, on="behind", checked=_SPRUNG),
    _in_body("inner", "Inner seal"),
)
_OUTER = (
    StackPart("outer_spring", "Wave spring of the outer seal", Shape.SPRING, on="behind", checked=_SPRUNG),
    _in_body("outer", "Outer seal"),
)
_MECHANICAL = {**_CASE, "shaft": ("flats",), "body bore": ("3 pins",)}
SINGLE_M = Stack(
    "single_m",
    "Single mechanical seal, loaded from the gear side",
    "seal",
    (*_SEAT_ON_SHAFT, *_INNER, _body("behind")),
    fixed=_MECHANICAL,
    when={"seal": ("single_m",)},
    carriers=(_BEHIND, _SHAFT),
)
DOUBLE_M = Stack(
    "double_m",
    "Double mechanical seal, loaded from the gear side",
    "seal",
    (*_SEAT_ON_SHAFT, *_INNER, *_OUTER, _body("behind")),
    fixed=_MECHANICAL,
    when={"seal": ("double_m",)},
    carriers=(_BEHIND, _SHAFT),
)

_IN_ROTOR = (
    _ring("rotor_ring", "O-ring of the rotor", "rotor"),
    StackPart(
        "rotating",
        "Rotating seal of the rotor",
        Shape.FACE,
        "lapped face towards the body",
        Points.DRIVE,
        ("tabs",),
        (LinesUp("tabs", "slots", "rotor"),),
        always_new=True,
        on="rotor",
        note=_CLEAN,
    ),
)
SINGLE_B = Stack(
    "single_b",
    "Single mechanical seal, loaded from both sides",
    "seal",
    (
        *_IN_ROTOR,
        _ring("seat_ring", "O-ring of the seat", "behind"),
        StackPart(
            "spring_seat",
            "Spring seat",
            Shape.WASHER,
            "tab holes up",
            on="behind",
            marks=("tab holes",),
            lines_up=(LinesUp("tab holes", "tab holes", "body bore"),),
        ),
        StackPart(
            "tab",
            "Seal tab",
            Shape.CLIP,
            "tabs down, towards the product",
            on="behind",
            marks=("tabs",),
            lines_up=(LinesUp("tabs", "tab holes", "spring_seat"),),
        ),
        StackPart("spring", "Spring", Shape.SPRING, on="behind", checked=_SPRUNG),
        StackPart("carrier", "Carrier over the spring", Shape.WASHER, on="behind", lubricant="anti-seize on its bolts"),
        _ring("product_ring", "O-ring of the product seal", "front"),
        StackPart(
            "product",
            "Product seal",
            Shape.SEAT,
            "lapped face towards the rotor",
            Points.ROTOR,
            ("tabs",),
            (LinesUp("tabs", "tabs", "tab"),),
            always_new=True,
            on="front",
            lubricant="its back lubricated",
            checked="spring play felt",
            note=_CLEAN,
        ),
        _body("behind"),
    ),
    fixed={**_CASE, "rotor": ("slots",), "body bore": ("tab holes",)},
    when={"seal": ("single_b",)},
    carriers=(_ROTOR, replace(_FRONT, brought="body"), _BEHIND),
)
DOUBLE_B = Stack(
    "double_b",
    "Double mechanical seal, loaded from both sides",
    "seal",
    (
        *(replace(part, note=part.note + " As in the single seal; the sheet decides.") for part in _IN_ROTOR),
        _ring("shaft_ring", "Shaft O-ring", "shaft"),
        StackPart(
            "drive_ring",
            "Drive ring",
            Shape.COLLAR,
            marks=("2 flats", "tabs"),
            lines_up=(LinesUp("2 flats", "2 flats", "shaft"),),
            on="shaft",
        ),
        _ring("outer_ring", "O-ring of the outer rotating seal", "shaft"),
        StackPart(
            "outer_rotating",
            "Outer rotating seal",
            Shape.FACE,
            "lapped face towards the product",
            Points.ROTOR,
            ("tabs",),
            (LinesUp("tabs", "tabs", "drive_ring"),),
            always_new=True,
            on="shaft",
            note=_CLEAN,
        ),
        _ring("housing_ring", "O-ring of the housing", "behind"),
        StackPart(
            "carrier",
            "Carrier",
            Shape.WASHER,
            "slots up",
            on="behind",
            marks=("slot",),
            lines_up=(LinesUp("slot", "slot", "body bore"),),
        ),
        StackPart(
            "carrier_tab",
            "Its tab",
            Shape.CLIP,
            "tabs down, into the slot",
            on="behind",
            marks=("tab",),
            lines_up=(LinesUp("tab", "slot", "carrier"),),
        ),
        StackPart(
            "flush_housing",
            "Flush housing",
            Shape.LANTERN,
            marks=("ports", "3 bolts"),
            lines_up=(LinesUp("ports", "cut-outs", "body bore"),),
            on="behind",
            checked="rocked until the holes meet",
            note="Bolts in. Covered ports leave the seal dry.",
        ),
        _ring("inner_ring", "O-ring of the inner seal", "housing"),
        StackPart("inner_spring", "Wave spring of the inner seal", Shape.SPRING, on="housing", checked=_SPRUNG),
        StackPart(
            "inner",
            "Inner seal with three ears",
            Shape.FACE,
            "lapped face towards the gear case",
            Points.DRIVE,
            ("3 ears",),
            (LinesUp("3 ears", "3 bolts", "flush_housing"),),
            always_new=True,
            on="housing",
            checked="spring seated, nothing binds",
            note="Two bolts started, the seal slid beneath, then the third: hand tight. " + _CLEAN,
        ),
        _ring("stationary_ring", "O-ring of the stationary seal", "front"),
        StackPart(
            "stationary",
            "Stationary seal",
            Shape.SEAT,
            "lapped face towards the rotor",
            Points.ROTOR,
            ("pins",),
            (LinesUp("pins", "holes", "body bore"),),
            always_new=True,
            on="front",
            checked="spring tension felt",
            note=_CLEAN,
        ),
        _body("behind"),
    ),
    fixed={**_CASE, "rotor": ("slots",), "shaft": ("2 flats",), "body bore": ("slot", "cut-outs", "holes")},
    when={"seal": ("double_b",)},
    carriers=(_ROTOR, replace(_FRONT, brought="body"), _BEHIND, replace(_HOUSING, needs="flush_housing"), _SHAFT),
)

_SEALS = (SINGLE_O, DOUBLE_O, SINGLE_M, DOUBLE_M, SINGLE_B, DOUBLE_B)
SEAL = Option(
    "seal",
    "Shaft seals",
    {
        "single_o": "single O-ring",
        "double_o": "double O-ring, flushed",
        "single_m": "single mechanical, loaded from the gear side",
        "double_m": "double mechanical, loaded from the gear side",
        "single_b": "single mechanical, loaded from both sides",
        "double_b": "double mechanical, loaded from both sides",
    },
)


def seals(family: str) -> tuple[Stack, ...]:
    """All six, each under the name it has on record in a family."""
    return tuple(replace(stack, key=f"{family}_{stack.key}") for stack in _SEALS)
