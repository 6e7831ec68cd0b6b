"""Parts of a pump cut along its shaft: each a body turned about an axis, or half of it above and half below.

By the conventions of technical drawings (ISO 128-3, ISO 6410-1, ISO 2162-1, ISO 8826-2 and ISO 9222-2, from memory): what is cut
is hatched, the one part the other way than the next; shafts, pins, nuts, balls and teeth cut lengthwise are not. The root of a
thread is a thin line, a spring is a zigzag, an axis a line of long and short strokes. Lengths and diameters are in mm.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import accumulate, pairwise

from finegap.core.drawing.marks import Mark, Point, Style, circle, lines, rect
from finegap.core.drawing.spots import Spot

Marks = tuple[Mark, ...]

_BALL = 0.31
"""Of the height of a bearing's section: its ball's radius."""
_ROOT = 0.88
"""Of a thread's diameter: its root, about."""


@dataclass(frozen=True)
class Axis:
    """What turns about, or lies round, one axis at the height ``y``; parts begin at ``x`` and go on to the right."""

    y: float = 0.0

    def solid(self, style: Style, x: float, length: float, outside: float, of: str = "") -> Marks:
        """A full body."""
        return (Mark(style, rect(x, self.y - outside / 2, length, outside), of),)

    def ring(self, style: Style, x: float, length: float, inside: float, outside: float, of: str = "") -> Marks:
        """A hollow body: cut above and below the axis."""
        wall = (outside - inside) / 2
        return (Mark(style, f"{rect(x, self.y - outside / 2, length, wall)} {rect(x, self.y + inside / 2, length, wall)}", of),)

    def cup(self, style: Style, x: float, length: float, inside: float, outside: float, bottom: float, of: str = "") -> Marks:
        """A hollow body that is open on the left, so deep, on a disc as thick as its ``bottom``."""
        return (*self.ring(style, x, length, inside, outside, of), *self.solid(style, x + length, bottom, outside))

    def shaft(self, x: float, length: float, d: float, of: str = "") -> Marks:
        """A shaft or a pin."""
        return self.solid(Style.BRIGHT, x, length, d, of)

    def body(self, x: float, *steps: tuple[float, float, float], other: bool = False, of: str = "") -> Marks:
        """A casing, a cover, a housing, cut: one piece in steps (length, inside, outside); ``other`` hatches it the other way."""
        ends = list(accumulate((step[0] for step in steps), initial=x))
        outer = [(end, step[2]) for step, pair in zip(steps, pairwise(ends), strict=True) for end in pair]
        inner = [(end, step[1]) for step, pair in zip(steps, pairwise(ends), strict=True) for end in pair]
        return self._cut(Style.HATCHED_OTHER if other else Style.HATCHED, [*outer, *reversed(inner)], of)

    def _cut(self, style: Style, outline: Iterable[Point], of: str = "") -> Marks:
        """A section above and below the axis, of points along it with the diameter there."""
        points = list(outline)
        return (Mark(style, " ".join(lines((x, self.y + way * d / 2) for x, d in points) for way in (-1, 1)), of),)

    def bushing(self, x: float, length: float, inside: float, outside: float, of: str = "") -> Marks:
        """A plain bearing."""
        return self.ring(Style.BUSHING, x, length, inside, outside, of)

    def ball_bearing(self, x: float, width: float, bore: float, outside: float) -> Marks:
        """Two rings with a ball between them, above and below."""
        high = (outside - bore) / 2
        at = (bore + outside) / 4
        balls = (Mark(Style.BRIGHT, circle(x + width / 2, self.y + way * at, min(_BALL * high, 0.4 * width))) for way in (-1, 1))
        race = 0.3 * high
        rings = ((bore, bore + 2 * race), (outside - 2 * race, outside))
        return (
            *self.ring(Style.STEEL_LIGHT, x, width, bore, outside),
            *(mark for inner, outer in rings for mark in self.ring(Style.BRIGHT, x, width, inner, outer)),
            *balls,
        )

    def packing(self, x: float, rings: int, section: float, shaft: float) -> Marks:
        """Rings of packing side by side."""
        return joined(self.ring(Style.PACKING, x + i * section, 0.92 * section, shaft, shaft + 2 * section) for i in range(rings))

    def gland(self, x: float, nose: float, flange: float, inside: float, outside: float, across: float) -> Marks:
        """A follower: its nose in the box, its flange before it."""
        at, end = x + nose, x + nose + flange
        return self._cut(Style.STEEL_LIGHT, [(x, inside), (end, inside), (end, across), (at, across), (at, outside), (x, outside)])

    def lip_seal(self, x: float, width: float, shaft: float, bore: float, leftward: bool = True) -> Marks:
        """A cup with its lip on the shaft, looking left or right."""
        foot, mouth = (x + width, x) if leftward else (x, x + width)
        wall, middle = 0.18 * (bore - shaft), x + width / 2
        lip = [(foot, shaft + wall), (mouth, shaft), (mouth, shaft + wall), (middle, shaft + 2 * wall)]
        return self._cut(Style.RUBBER, [(mouth, bore), (foot, bore), *lip, (middle, bore - wall), (mouth, bore - wall)])

    def o_ring(self, x: float, section: float, round_what: float) -> Marks:
        """A ring of rubber in its groove."""
        at = (round_what + section) / 2
        return tuple(Mark(Style.RUBBER, circle(x, self.y + way * at, section / 2)) for way in (-1, 1))

    def spring(self, x: float, length: float, inside: float, outside: float, turns: int = 4) -> Marks:
        """A coil spring."""
        step = length / (2 * turns)
        path = " ".join(
            lines(((x + i * step, self.y + way * (outside if i % 2 else inside) / 2) for i in range(2 * turns + 1)), closed=False)
            for way in (-1, 1)
        )
        return (Mark(Style.OUTLINE, path),)

    def thread(self, x: float, length: float, d: float) -> Marks:
        """The root of an outside thread."""
        roots = (self.y + way * _ROOT * d / 2 for way in (-1, 1))
        return (Mark(Style.THIN, " ".join(f"M{x:.2f} {y:.2f} h{length:.2f}" for y in roots)),)

    def nut(self, x: float, length: float, thread: float, across: float) -> Marks:
        """A nut on its thread."""
        return (*self.thread(x - 0.3 * length, 1.6 * length, thread), *self.ring(Style.STEEL_LIGHT, x, length, thread, across))

    def on(self, x: float, length: float, d: float, share: float = 0.5, below: bool = False) -> Spot:
        """A spot on a body of revolution, so far along it, above the axis or below; its stations lie along it."""
        way = 1 if below else -1
        return Spot(x + share * length, self.y + way * d / 2, along=(x, x + length, self.y, -way * d / 2))

    def line(self, x: float, end: float) -> Marks:
        """The axis itself."""
        return (Mark(Style.AXIS, f"M{x:g} {self.y:g} H{end:g}"),)


def joined(parts: Iterable[Marks]) -> Marks:
    """Parts one after another."""
    return tuple(mark for marks in parts for mark in marks)


def slab(style: Style, x: float, y: float, length: float, height: float, of: str = "") -> Marks:
    """A part that is on one side of the axis alone."""
    return (Mark(style, rect(x, y, length, height), of),)
