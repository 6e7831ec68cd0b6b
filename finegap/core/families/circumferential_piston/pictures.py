"""Which way round: what wrecks a circumferential piston pump, drawn right and wrong. Common practice, no source."""

import math

from finegap.core.drawing.marks import Mark, Picture, Style, circle
from finegap.core.families.pictures import CONE

_LEFT, _RIGHT, _Y, _HUB, _TIP = 96, 204, 110, 38, 70


def _wings(x: float, degrees: float) -> tuple[Mark, ...]:
    """A rotor seen from the front: two wings of 70 degrees, opposite one another."""
    marks = []
    for middle in (degrees, degrees + 180):
        ends = [math.radians(middle + turn) for turn in (-35, 35)]
        (ox, oy), (px, py) = ((x + _TIP * math.sin(a), _Y - _TIP * math.cos(a)) for a in ends)
        (qx, qy), (rx, ry) = ((x + _HUB * math.sin(a), _Y - _HUB * math.cos(a)) for a in reversed(ends))
        outer = f"M{ox:.1f} {oy:.1f} A{_TIP} {_TIP} 0 0 1 {px:.1f} {py:.1f}"
        inner = f"L{qx:.1f} {qy:.1f} A{_HUB} {_HUB} 0 0 0 {rx:.1f} {ry:.1f} Z"
        marks.append(Mark(Style.STEEL, f"{outer} {inner}"))
    return tuple(marks)


def _pair(driven: float) -> tuple[Mark, ...]:
    hubs = tuple(Mark(Style.HATCHED, circle(x, _Y, _HUB - 4)) for x in (_LEFT, _RIGHT))
    shafts = tuple(Mark(Style.BRIGHT, circle(x, _Y, 12)) for x in (_LEFT, _RIGHT))
    return (*hubs, *_wings(_LEFT, 0), *_wings(_RIGHT, driven), *shafts)


PICTURES = {
    "cone": CONE,
    "wings": Picture(
        "The second rotor",
        _pair(90),
        "At right angles to the first: each wing sweeps past the other's hub.",
        _pair(0),
        "Alike: the wings meet as soon as a shaft turns.",
        ((_LEFT, 206, "first"), (_RIGHT, 206, "second")),
    ),
}
