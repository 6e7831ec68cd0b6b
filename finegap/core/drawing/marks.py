"""Outlines: what every drawing is made of, as SVG paths; and pictures of which way round."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass
from enum import Enum

Point = tuple[float, float]


class Style(Enum):
    """How an outline is filled."""

    HATCHED = "hatched"
    HATCHED_OTHER = "hatched-other"
    STEEL = "steel"
    STEEL_LIGHT = "steel light"
    BRIGHT = "bright"
    LIQUID = "liquid"
    CLEARANCE = "clearance"
    BUSHING = "bushing"
    PACKING = "packing"
    RUBBER = "rubber"
    OUTLINE = "outline"
    THIN = "thin"
    AXIS = "axis"


@dataclass(frozen=True)
class Mark:
    """One outline; ``of`` is the size of the sheet that it is as large as, where it is drawn by one."""

    style: Style
    path: str
    of: str = ""


def rect(x: float, y: float, width: float, height: float) -> str:
    """A rectangle as a path."""
    return f"M{x:g} {y:g} h{width:g} v{height:g} h{-width:g} Z"


def circle(x: float, y: float, radius: float) -> str:
    """A circle as a path."""
    return f"M{x - radius:g} {y:g} a{radius:g} {radius:g} 0 1 0 {2 * radius:g} 0 a{radius:g} {radius:g} 0 1 0 {-2 * radius:g} 0 Z"


def lines(points: Iterable[Point], closed: bool = True) -> str:
    """Straight lines from point to point as a path."""
    return "M" + " L".join(f"{x:.2f} {y:.2f}" for x, y in points) + (" Z" if closed else "")


def clockwise(degrees: float, radius: float, x: float = 0.0, y: float = 0.0) -> Point:
    """A point so far round a centre from twelve o'clock."""
    angle = math.radians(degrees)
    return x + radius * math.sin(angle), y - radius * math.cos(angle)


def arc(radius: float, end: Point, back: bool = False, large: bool = False) -> str:
    """An arc to a point as a piece of a path, clockwise or ``back``; ``large`` where it is more than half of the circle."""
    return f"A{radius:.2f} {radius:.2f} 0 {large:d} {not back:d} {end[0]:.2f} {end[1]:.2f}"


def sector(inside: float, outside: float, begin: float, end: float, x: float = 0.0, y: float = 0.0) -> str:
    """A piece of a ring between two radii, clockwise from one angle to another in degrees, as a path."""
    (ax, ay), b = clockwise(begin, outside, x, y), clockwise(end, outside, x, y)
    c, d = clockwise(end, inside, x, y), clockwise(begin, inside, x, y)
    large = end - begin > 180
    return f"M{ax:.2f} {ay:.2f} {arc(outside, b, large=large)} L{c[0]:.2f} {c[1]:.2f} {arc(inside, d, back=True, large=large)} Z"


@dataclass(frozen=True)
class Picture:
    """Which way round, drawn right and wrong, in a field of 300 by 220.

    ``words`` say what to look for in each; ``labels`` (x, y, text) stand in both.
    """

    name: str
    right: tuple[Mark, ...]
    right_words: str
    wrong: tuple[Mark, ...]
    wrong_words: str
    labels: tuple[tuple[float, float, str], ...] = ()
