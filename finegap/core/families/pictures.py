"""Which way round: pictures more than one family shows. Common practice, no source."""

from finegap.core.drawing.marks import Mark, Picture, Style, circle, rect


def _shaft(end: float) -> tuple[Mark, ...]:
    return (Mark(Style.STEEL_LIGHT, rect(10, 96, end, 32)), Mark(Style.AXIS, "M0 112 H300"))


def _lip(outward: bool) -> tuple[Mark, ...]:
    """A lip seal in its bore, cut: a cup with its lip on the shaft; the bearing is left of it, the weather right."""
    x, sign = (120, 1) if outward else (180, -1)
    cups = (
        f"M{x} {far} L{x} {y} L{x + 44 * sign} {edge} L{x + 38 * sign} {inner} L{x + 12 * sign} {mid} L{x + 12 * sign} {far} Z"
        for far, y, edge, inner, mid in ((34, 84, 96, 84, 70), (190, 140, 128, 140, 154))
    )
    return (
        *_shaft(280),
        Mark(Style.HATCHED, rect(96, 14, 110, 20)),
        Mark(Style.HATCHED, rect(96, 190, 110, 20)),
        *(Mark(Style.PACKING, cup) for cup in cups),
        Mark(Style.BRIGHT, circle(52, 68, 26)),
        Mark(Style.BRIGHT, circle(52, 156, 26)),
    )


def _cone(towards_nut: bool) -> tuple[Mark, ...]:
    """A disc spring between a bearing and a nut, cut: its inner edge stands up towards the nut, or away from it."""
    foot, top = (128, 164) if towards_nut else (164, 128)
    return (
        *_shaft(280),
        Mark(Style.BRIGHT, circle(88, 62, 28)),
        Mark(Style.BRIGHT, circle(88, 162, 28)),
        Mark(Style.STEEL, f"M{foot} 36 L{foot + 10} 36 L{top + 10} 92 L{top} 92 Z"),
        Mark(Style.STEEL, f"M{foot} 188 L{foot + 10} 188 L{top + 10} 132 L{top} 132 Z"),
        Mark(Style.HATCHED, rect(196, 52, 54, 44)),
        Mark(Style.HATCHED, rect(196, 128, 54, 44)),
    )


LIP = Picture(
    "Lip",
    _lip(True),
    "Outward: the lip away from the bearing keeps dirt out.",
    _lip(False),
    "Inward: it keeps grease in and lets water by. Only where the sheet prints it.",
    ((52, 24, "bearing"), (258, 24, "weather")),
)
CONE = Picture(
    "Disc spring",
    _cone(True),
    "The cone stands towards the nut: its inner edge is at the nut.",
    _cone(False),
    "Flat way round it is crushed, and the nut works loose.",
    ((88, 24, "bearing"), (223, 40, "nut")),
)
