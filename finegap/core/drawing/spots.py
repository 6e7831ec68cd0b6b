"""What a number means on a view: a point, and round it the places at which it is measured."""

from __future__ import annotations

import math
import re
from collections.abc import Iterable
from dataclasses import dataclass

from finegap.core.drawing.marks import Point, clockwise

Measured = tuple[str, str, str]
"""A station: its key, which plane along the part it lies in, and its direction across it; both may be empty."""

_HOURS = (12, 3, 6, 9)
_DEEPER = 0.08
"""Of the radius: how much further in a plane is drawn than the one before it, where one lies behind the other."""


@dataclass(frozen=True)
class Spot:
    """Where a leader ends, and round it where its stations lie.

    ``along`` an axis (begin, end, height, radius) planes follow one another; the radius is less than nothing for a spot below it.
    ``around`` a centre (x, y, radius) each direction has its place. ``each`` is a point for every plane: one vane after another.
    """

    x: float
    y: float
    along: tuple[float, float, float, float] | None = None
    around: tuple[float, float, float] | None = None
    each: tuple[Point, ...] = ()

    def stations(self, measured: Iterable[Measured]) -> dict[str, Point]:
        """Where each station lies, by key; none where the spot is a point alone."""
        stations = tuple(measured)
        planes = list(dict.fromkeys(plane for _, plane, _ in stations))
        directions = list(dict.fromkeys(direction for *_, direction in stations))
        if self.each:
            return {key: self.each[planes.index(plane) % len(self.each)] for key, plane, _ in stations}
        if self.around:
            x, y, radius = self.around
            deep = {plane: radius * (1 - _DEEPER * i) for i, plane in enumerate(planes)}
            return {key: clockwise(30 * _hour(said, directions), deep[plane], x, y) for key, plane, said in stations}
        if self.along:
            return self._along(stations, planes, directions)
        return {}

    def _along(self, stations: tuple[Measured, ...], planes: list[str], directions: list[str]) -> dict[str, Point]:
        begin, end, y, radius = self.along or (0, 0, 0, 0)
        # Without planes, what is no direction of the clock is a place along the part: at the bushing, at the seal.
        spread = planes if len(planes) > 1 or _said_hour(directions[0]) else directions
        found = {}
        for key, plane, direction in stations:
            at = spread.index(plane if spread is planes else direction)
            across = 0.0 if spread is directions else math.cos(math.radians(30 * _hour(direction, directions)))
            # A diameter is marked at the end the spot is on; what is said of one hour lies there.
            up = abs(radius) if direction.isdigit() else radius
            found[key] = (begin + (at + 0.5) / len(spread) * (end - begin), y - up * across)
        return found


def _said_hour(direction: str) -> int | None:
    found = re.match(r"\d+", direction)
    return int(found[0]) if found else None


def _hour(direction: str, directions: list[str]) -> int:
    """Of the clock: as it says, else a quarter further for each direction, the first above."""
    return _said_hour(direction) or _HOURS[directions.index(direction) % len(_HOURS)]
