"""Drawings: the section of a pump, and pictures of which way round; outlines as SVG paths."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import Enum


class Style(Enum):
    """How a mark of the section drawing is filled."""

    HATCHED = "hatched"
    HATCHED_OTHER = "hatched-other"
    STEEL = "steel"
    STEEL_LIGHT = "steel light"
    BRIGHT = "bright"
    LIQUID = "liquid"
    CLEARANCE = "clearance"
    BUSHING = "bushing"
    PACKING = "packing"
    OUTLINE = "outline"
    AXIS = "axis"


@dataclass(frozen=True)
class Mark:
    """One outline of the section drawing: an SVG path in a field of 724 by 604, or of whatever the family says."""

    style: Style
    path: str
    when: Mapping[str, tuple[str, ...]] = field(default_factory=dict)


def rect(x: float, y: float, width: float, height: float) -> str:
    """A rectangle as a path."""
    return f"M{x:g} {y:g} h{width:g} v{height:g} h{-width:g} Z"


def circle(x: float, y: float, radius: float) -> str:
    """A circle as a path."""
    return f"M{x - radius:g} {y:g} a{radius:g} {radius:g} 0 1 0 {2 * radius:g} 0 a{radius:g} {radius:g} 0 1 0 {-2 * radius:g} 0 Z"


@dataclass(frozen=True)
class Drawing:
    """The section of the pump; ``size`` is the field its paths and the spots that features mean are drawn in."""

    size: tuple[int, int]
    marks: tuple[Mark, ...]
    spots: Mapping[str, tuple[float, float]] = field(default_factory=dict)


NOTHING_DRAWN = Drawing((724, 604), ())


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
