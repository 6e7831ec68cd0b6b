"""Parts of a pump cut across its shaft, by the conventions of the sections.

Lengths and diameters are in mm, angles in degrees clockwise from the top.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from finegap.core.drawing.marks import Mark, Point, Style, arc, circle, clockwise, lines, sector
from finegap.core.drawing.section import Marks
from finegap.core.drawing.spots import Spot

_FLANK = 0.62
"""Of half a tooth's pitch at its root: half its width at the tip."""


@dataclass(frozen=True)
class Centre:
    """What lies round one centre."""

    x: float = 0.0
    y: float = 0.0

    def at(self, degrees: float, radius: float) -> Point:
        """A point so far round."""
        return clockwise(degrees, radius, self.x, self.y)

    def on(self, degrees: float, d: float) -> Spot:
        """A spot so far round a circle; its stations lie round it."""
        return Spot(*self.at(degrees, d / 2), around=(self.x, self.y, d / 2))

    def disc(self, style: Style, d: float, of: str = "") -> Marks:
        """A full body."""
        return (Mark(style, circle(self.x, self.y, d / 2), of),)

    def ring(self, style: Style, inside: float, outside: float, of: str = "") -> Marks:
        """A hollow body: its outline, and what is in it."""
        return (*self.disc(style, outside), *self.disc(Style.LIQUID, inside), *self.disc(Style.OUTLINE, inside, of))

    def gear(self, style: Style, teeth: int, root: float, tip: float, turn: float = 0.0) -> Marks:
        """A gear with straight flanks, one tooth at ``turn``."""
        half = 90 / teeth
        points = [
            self.at(turn + i * 360 / teeth + side * half * share, radius / 2)
            for i in range(teeth)
            for side, share, radius in ((-1, 1.15, root), (-1, _FLANK, tip), (1, _FLANK, tip), (1, 1.15, root))
        ]
        return (Mark(style, lines(points)),)

    def lobes(self, style: Style, lobes: int, tip: float, apart: float, turn: float = 0.0) -> Marks:
        """A rotor of so many lobes, one at ``turn``, beside another ``apart`` from it: as far out at a lobe as in at a hollow."""
        high = (tip - apart) / 2
        far = ((at, apart / 2 + high * math.cos(math.radians(lobes * at))) for at in range(0, 360, 3))
        points = [self.at(turn + at, radius) for at, radius in far]
        return (Mark(style, lines(points)),)

    def teeth(self, style: Style, teeth: int, inside: float, outside: float, turn: float = 0.0) -> Marks:
        """Teeth that stand on a disc, each by itself, one at ``turn``: narrower inside, where another gear comes between."""
        half = 90 / teeth
        path = " ".join(self._tooth(turn + i * 360 / teeth, half, inside / 2, outside / 2) for i in range(teeth))
        return (Mark(style, path),)

    def _tooth(self, at: float, half: float, inside: float, outside: float) -> str:
        begin = self.at(at - 1.15 * half, outside)
        inner = [self.at(at + side * 0.95 * half, inside) for side in (1, -1)]
        end = self.at(at + 1.15 * half, outside)
        return f"{lines([begin], closed=False)} {arc(outside, end)} L" + " L".join(f"{x:.2f} {y:.2f}" for x, y in inner) + " Z"

    def sector(self, style: Style, inside: float, outside: float, at: float, span: float) -> Marks:
        """A wing, or any piece of a ring, ``span`` degrees wide."""
        return (Mark(style, sector(inside / 2, outside / 2, at - span / 2, at + span / 2, self.x, self.y)),)

    def crescent(self, style: Style, outside: float, other: Point, inside: float, at: float, span: float) -> Marks:
        """What fills the room between a circle round this centre and one round another, ``span`` degrees about ``at``."""
        (ax, ay), b = (self.at(at + way * span / 2, outside / 2) for way in (-1, 1))
        c, d = (_towards(other, end, inside / 2) for end in (b, (ax, ay)))
        path = f"M{ax:.2f} {ay:.2f} {arc(outside / 2, b)} L{c[0]:.2f} {c[1]:.2f} {arc(inside / 2, d, back=True)} Z"
        return (Mark(style, path),)

    def port(self, at: float, across: float, near: float, far: float) -> Marks:
        """An opening through the body, from one radius to another, with its walls."""
        angle = math.radians(at)
        side = (math.cos(angle) * across / 2, math.sin(angle) * across / 2)
        corners = [
            (x + way * side[0], y + way * side[1])
            for radius, ways in ((near, (-1,)), (far, (-1, 1)), (near, (1,)))
            for x, y in (self.at(at, radius / 2),)
            for way in ways
        ]
        walls = (Mark(Style.OUTLINE, lines(ends, closed=False)) for ends in (corners[:2], corners[2:]))
        return (Mark(Style.LIQUID, lines(corners)), *walls)

    def vane(self, style: Style, at: Point, towards: float, thickness: float, height: float, of: str = "") -> Marks:
        """A slat, so thick and so high, that looks in a direction with its edge at a point."""
        angle = math.radians(towards)
        across = (math.cos(angle) * thickness / 2, math.sin(angle) * thickness / 2)
        end = (at[0] - math.sin(angle) * height, at[1] + math.cos(angle) * height)
        corners = [(x + side * across[0], y + side * across[1]) for (x, y), side in ((at, -1), (at, 1), (end, 1), (end, -1))]
        return (Mark(style, lines(corners), of),)

    def pocket(self, at: float, across: float, rim: float, deep: float) -> Marks:
        """A slot open at the rim of a disc, with a round bottom, so deep."""
        angle = math.radians(at)
        side = (math.cos(angle) * across / 2, math.sin(angle) * across / 2)
        (ox, oy), (ix, iy) = self.at(at, 0.995 * rim / 2), self.at(at, rim / 2 - deep)
        a, b, c = (ox - side[0], oy - side[1]), (ix - side[0], iy - side[1]), (ix + side[0], iy + side[1])
        path = f"{lines([a, b], closed=False)} {arc(across / 2, c, back=True)} L{ox + side[0]:.2f} {oy + side[1]:.2f} Z"
        return (Mark(Style.LIQUID, path),)

    def turning(self, d: float, clockwise_: bool) -> Marks:
        """An arrow that says which way it turns."""
        begin, end = (-38, 38) if clockwise_ else (38, -38)
        ahead = 9 if clockwise_ else -9
        head = [self.at(end - ahead, 0.56 * d), self.at(end, d / 2), self.at(end - ahead, 0.44 * d)]
        bow = f"{lines([self.at(begin, d / 2)], closed=False)} {arc(d / 2, self.at(end, d / 2), back=not clockwise_)}"
        return (Mark(Style.OUTLINE, f"{bow} {lines(head, closed=False)}"),)

    def flow(self, at: float, d: float, inward: bool) -> Marks:
        """An arrow in a port: the liquid comes in, or goes out."""
        near, far = (1.14, 0.86) if inward else (0.86, 1.14)
        tip, back = far * d / 2, (far + (0.08 if inward else -0.08)) * d / 2
        head = [self.at(at - 4, back), self.at(at, tip), self.at(at + 4, back)]
        return (
            Mark(
                Style.OUTLINE, f"{lines([self.at(at, near * d / 2), self.at(at, tip)], closed=False)} {lines(head, closed=False)}"
            ),
        )

    def cross(self, radius: float) -> Marks:
        """Its centre lines."""
        x, y, r = self.x, self.y, radius
        return (Mark(Style.AXIS, f"M{x - r:g} {y:g} H{x + r:g} M{x:g} {y - r:g} V{y + r:g}"),)


def _towards(centre: Point, point: Point, radius: float) -> Point:
    away = math.dist(centre, point)
    return centre[0] + (point[0] - centre[0]) * radius / away, centre[1] + (point[1] - centre[1]) * radius / away


def meets(start: Point, towards: float, centre: Point, radius: float) -> Point:
    """Where a line from a point within a circle, in a direction, reaches the circle."""
    angle = math.radians(towards)
    dx, dy = math.sin(angle), -math.cos(angle)
    x, y = start[0] - centre[0], start[1] - centre[1]
    along = x * dx + y * dy
    far = -along + math.sqrt(along * along - (x * x + y * y - radius * radius))
    return start[0] + far * dx, start[1] + far * dy
