"""Cartridges, screws, and casing with cover: what goes onto a twin screw pump in which order. Common practice, no source."""

from finegap.core.families.stack import Carrier, LinesUp, Points, Shape, Stack, StackPart
from finegap.core.families.twin_screw.features import SHAFTS

_SUITS = "a lubricant that suits its rubber"


def _ring(key: str, name: str, on: str, note: str = "") -> StackPart:
    return StackPart(
        key, name, Shape.O_RING, always_new=True, elastomer="elastomer", on=on, lubricant=_SUITS, note=note,
    )  # fmt: skip


def _cartridge(shaft: str) -> tuple[StackPart, ...]:
    """What goes onto one shaft, up to the ring before its screw."""
    return (
        _ring(f"outer_ring_{shaft}", f"Outer elastomers of the cartridge, {shaft} shaft", shaft),
        StackPart(
            f"cartridge_{shaft}",
            f"Cartridge seal, {shaft} shaft",
            Shape.SLEEVE,
            marks=("drive flat",),
            lines_up=(LinesUp("drive flat", "flat", "seal housing"),),
            on=shaft,
            feature="cartridges",
            checked="home against the shoulder",
            note="Slid on straight, by its body, never by a face. {faces}",
        ),
        _ring(f"plug_ring_{shaft}", f"O-ring of the retaining plug, {shaft} shaft", shaft),
        StackPart(f"plug_{shaft}", f"Retaining plug, {shaft} shaft", Shape.COLLAR, on=shaft, checked="seated all the way round"),
        StackPart(f"gland_{shaft}", f"Gland cover, {shaft} shaft", Shape.GLAND, on=shaft, note="Its bolts by hand, evenly."),
        _ring(f"front_ring_{shaft}", f"O-ring in front of the cartridge, {shaft} shaft", shaft),
    )


CARTRIDGES = Stack(
    "cartridges",
    "Cartridge seals on both shafts",
    "cartridges",
    tuple(part for shaft in SHAFTS for part in _cartridge(shaft)),
    fixed={"seal housing": ("flat",)},
    carriers=tuple(Carrier(shaft, f"On the {shaft} shaft", ("screws", "gear case"), open_left=True) for shaft in SHAFTS),
)
SCREWS = Stack(
    "screws",
    "Both screws",
    "screws",
    (
        StackPart(
            "pair",
            "Both screws, meshed on a flat surface and pushed on together",
            Shape.ROTOR,
            "ends flush",
            marks=("screw marks", "2 splines"),
            lines_up=(LinesUp("screw marks", "shaft marks", "shafts"), LinesUp("2 splines", "2 splines", "shafts")),
            feature="flanks",
            checked="home against the seal sleeves",
            note="Screw marks against shaft marks first. Pushed on both at once; the shafts are turned until the splines engage.",
        ),
        *(
            part
            for shaft in SHAFTS
            for part in (
                _ring(f"nut_ring_{shaft}", f"Elastomer of the screw nut, {shaft}", ""),
                StackPart(
                    f"nut_{shaft}",
                    f"Screw nut, {shaft}",
                    Shape.NUT,
                    note="Run down by hand: the soft block and the torque come next.",
                    lubricant="locking compound on the thread",
                ),
            )
        ),
    ),
    fixed={"shafts": ("shaft marks", "2 splines")},
    ends=("cover", "gear case"),
)
CASING = Stack(
    "casing",
    "Casing and cover",
    "casing",
    (
        _ring("casing_ring", "Elastomer of the casing", ""),
        StackPart(
            "casing",
            "Casing over the screws",
            Shape.CAP,
            marks=("mark", "2 dowel holes"),
            lines_up=(LinesUp("mark", "mark", "gear case"), LinesUp("2 dowel holes", "2 dowels", "gear case")),
            note="Straight, by two people or a lift: a crest that touches is nicked.",
        ),
        _ring("cover_ring", "Elastomer of the cover", "", "Seen to stay in its groove."),
        StackPart("cover", "Cover", Shape.CAP, "product side inward", Points.DRIVE),
    ),
    fixed={"gear case": ("mark", "2 dowels")},
    ends=("gear case", "outside"),
)
STACKS = (CARTRIDGES, SCREWS, CASING)
