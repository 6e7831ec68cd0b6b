"""A pump drawn to its sheet, and a clearance table as a map, as plain data; places in px."""

from __future__ import annotations

from dataclasses import dataclass

from finegap.core.formatting import Text


@dataclass(frozen=True)
class DrawnMarkResponse:
    """One outline of a view; ``of`` is the size of the sheet it is as large as."""

    style: str
    path: str
    of: str


@dataclass(frozen=True)
class ViewResponse:
    """One view: its marks in mm, ``scale`` px to one, about ``x``, ``y``."""

    name: str
    x: float
    y: float
    scale: float
    marks: list[DrawnMarkResponse]


@dataclass(frozen=True)
class PlaceResponse:
    """Where a station lies."""

    key: str
    x: float
    y: float


@dataclass(frozen=True)
class NumberResponse:
    """A number beside the drawing: its ring, its words and its leader from ``port`` to ``spot``.

    Words begin at ``text_x`` where they stand ``right`` of the ring, and end there where they stand left. ``faces`` lie on either
    side of the gap or the size, the first nearer its zero; ``mate`` is the feature of the other one, ``set_as`` what Set
    asks for it as.
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
    stations: list[PlaceResponse]
    faces: list[str]
    mate: str
    set_as: str


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


@dataclass(frozen=True)
class RegionResponse:
    """A row on the map; ends as drawn, and whether the row goes on past them (low, high)."""

    setting: str
    clearance: Text
    mm2_s: list[float]
    c: list[float]
    open_mm2_s: list[bool]
    open_c: list[bool]
    matches: bool
    chosen: bool


@dataclass(frozen=True)
class AxisTickResponse:
    """A line of the grid with its number."""

    value: float
    text: Text


@dataclass(frozen=True)
class MapResponse:
    """The table as a map, viscosity across and temperature up; ``duty`` is where the pump works, ``way`` its range."""

    mm2_s: list[float]
    c: list[float]
    regions: list[RegionResponse]
    duty: list[float]
    way: list[list[float]]
    mm2_s_ticks: list[AxisTickResponse]
    c_ticks: list[AxisTickResponse]
