"""Which way round: the directions that wreck an internal gear pump, drawn right and wrong. Common practice, no source."""

import math

from finegap.core.drawing.marks import Mark, Picture, Style, circle, rect
from finegap.core.families.pictures import CONE, LIP

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
        "What shows its suction side over the suction port, where the liquid goes in.",
        _valve(False),
        "Over the discharge it never opens.",
        ((32, 186, "suction"), (264, 186, "discharge"), (150, 152, "pump")),
    ),
    "lip": LIP,
    "cone": CONE,
}
