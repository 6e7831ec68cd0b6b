"""Which way round: the directions that wreck an internal gear pump, drawn right and wrong. Common practice, no source."""

import math

from finegap.core.families.model import Mark, Picture, Style, circle, rect

_X, _Y, _R = 150, 112, 84


def _at(degrees: float, radius: float, x: float = _X, y: float = _Y) -> tuple[float, float]:
    """A place clockwise from the top."""
    angle = math.radians(degrees)
    return x + radius * math.sin(angle), y - radius * math.cos(angle)


def _port(degrees: float) -> tuple[Mark, ...]:
    """A port as a stub on the casing."""
    (ax, ay), (bx, by) = _at(degrees - 14, _R), _at(degrees - 11, _R + 20)
    (cx, cy), (dx, dy) = _at(degrees + 11, _R + 20), _at(degrees + 14, _R)
    walls = (f"M{ax:.1f} {ay:.1f} L{bx:.1f} {by:.1f}", f"M{cx:.1f} {cy:.1f} L{dx:.1f} {dy:.1f}")
    return (Mark(Style.LIQUID, f"{walls[0]} L{walls[1][1:]} Z"), *(Mark(Style.OUTLINE, wall) for wall in walls))


def _head(degrees: float) -> tuple[Mark, ...]:
    """The head seen from inside: idler on its pin, offset towards ``degrees``, the crescent opposite."""
    x, y = _at(degrees, 26)
    ends = [_at(degrees + 180 + turn, radius) for turn, radius in ((-58, 70), (58, 70), (38, 57), (-38, 57))]
    (ax, ay), (bx, by), (cx, cy), (dx, dy) = ends
    crescent = f"M{ax:.1f} {ay:.1f} A70 70 0 0 1 {bx:.1f} {by:.1f} L{cx:.1f} {cy:.1f} A57 57 0 0 0 {dx:.1f} {dy:.1f} Z"
    return (
        Mark(Style.OUTLINE, circle(_X, _Y, _R)),
        Mark(Style.STEEL_LIGHT, circle(x, y, 46)),
        Mark(Style.HATCHED, circle(x, y, 15)),
        Mark(Style.STEEL, crescent),
    )


_PORTS = (*_port(-45), *_port(45))
_PORT_NAMES = ((40, 30, "port"), (260, 30, "port"))
_AXIS = Mark(Style.AXIS, f"M{_X} 8 V{_Y + _R + 6}")


def _valve(adjusting_left: bool) -> tuple[Mark, ...]:
    screw = rect(68, 30, 24, 12) if adjusting_left else rect(208, 30, 24, 12)
    return (
        Mark(Style.STEEL_LIGHT, circle(_X, 146, 58)),
        Mark(Style.LIQUID, rect(64, 126, 38, 40)),
        Mark(Style.LIQUID, rect(198, 126, 38, 40)),
        Mark(Style.OUTLINE, "M16 146 H52 M40 136 L52 146 L40 156"),
        Mark(Style.OUTLINE, "M246 146 H284 M272 136 L284 146 L272 156"),
        Mark(Style.HATCHED, rect(92, 18, 116, 36)),
        Mark(Style.BRIGHT, screw),
        Mark(Style.HATCHED_OTHER, rect(110, 54, 22, 40)),
        Mark(Style.HATCHED_OTHER, rect(168, 54, 22, 40)),
    )


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


PICTURES = {
    "pin": Picture(
        "Idler pin",
        (*_PORTS, *_head(0), _AXIS),
        "Towards the ports, as far from the one as from the other.",
        (*_PORTS, *_head(90), _AXIS),
        "A quarter turn round: it pumps next to nothing.",
        _PORT_NAMES,
    ),
    "crescent": Picture(
        "Crescent",
        (*_PORTS, *_head(0)),
        "On the side away from the ports, pointing at neither.",
        (*_PORTS, *_head(180)),
        "Under the ports: the teeth run into it, or the pump runs backwards.",
        _PORT_NAMES,
    ),
    "relief": Picture(
        "Relief valve",
        _valve(True),
        "Adjusting end over the suction port, where the arrow goes in.",
        _valve(False),
        "Over the discharge it never opens.",
        ((32, 186, "suction"), (264, 186, "discharge"), (150, 152, "pump")),
    ),
    "lip": Picture(
        "Lip",
        _lip(True),
        "Outward: the lip away from the bearing keeps dirt out.",
        _lip(False),
        "Inward: it keeps grease in and lets water by. Only where the sheet prints it.",
        ((52, 24, "bearing"), (258, 24, "weather")),
    ),
    "cone": Picture(
        "Disc spring",
        _cone(True),
        "The cone stands towards the nut: its inner edge is at the nut.",
        _cone(False),
        "Flat way round it is crushed, and the nut works loose.",
        ((88, 24, "bearing"), (223, 40, "nut")),
    ),
}
