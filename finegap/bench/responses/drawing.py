"""The drawing of a job's pump on one screen, in px."""

from __future__ import annotations

from dataclasses import dataclass

from finegap.api.shown import MarkResponse


@dataclass(frozen=True)
class ViewResponse:
    """One view: its marks in units of its own, ``scale`` px to one, from ``x``, ``y``."""

    x: float
    y: float
    scale: float
    marks: list[MarkResponse]


@dataclass(frozen=True)
class NumberResponse:
    """A number beside the drawing: its ring, its words and its leader from ``port`` to ``spot``.

    Words begin at ``text_x`` where they stand ``right`` of the ring, and end there where they stand left.
    """

    key: str
    number: int
    name: str
    x: float
    y: float
    right: bool
    text_x: float
    port: list[float]
    spot: list[float]


@dataclass(frozen=True)
class DrawingResponse:
    """A pump as it is drawn; ``words_px`` is the room beside each number, ``row_px`` its height, ``ring_px`` the ring's radius.

    ``named`` when names stand beside the numbers.
    """

    width: int
    height: int
    named: bool
    ring_px: float
    words_px: float
    row_px: float
    views: list[ViewResponse]
    numbers: list[NumberResponse]
