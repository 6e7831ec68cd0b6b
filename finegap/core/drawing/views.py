"""Views of a pump: what is drawn, what its numbers mean, and how large it is by its sheet."""

from __future__ import annotations

import statistics
from collections.abc import Mapping
from dataclasses import dataclass, field

from finegap.core.drawing.marks import Mark, Point
from finegap.core.drawing.spots import Spot

_LEAST, _MOST = 0.6, 1.6
"""A size that is less or more than this of what goes with the others is not drawn: it would not look like a pump."""


Spots = Mapping[str, Spot | Point]
"""What a view shows of each feature, by key."""


@dataclass(frozen=True)
class View:
    """One view: its marks within a box (left, top, right, bottom) in mm, and where on it each feature is, by key."""

    name: str
    box: tuple[float, float, float, float]
    marks: tuple[Mark, ...]
    spots: Spots

    def spot(self, key: str) -> Spot:
        """Where on it a feature is."""
        spot = self.spots[key]
        return spot if isinstance(spot, Spot) else Spot(*spot)

    @property
    def width(self) -> float:
        """In mm."""
        return self.box[2] - self.box[0]

    @property
    def height(self) -> float:
        """In mm."""
        return self.box[3] - self.box[1]


def nothing_drawn(_: Pump) -> tuple[View, ...]:
    """Of a family that has no drawing."""
    return ()


@dataclass(frozen=True)
class Pump:
    """A pump to be drawn: its build, how many there are of a part, and its sizes in mm as a sheet prints them.

    A size the sheet does not print is the usual one, as much larger or smaller as the sizes it prints are.
    """

    build: Mapping[str, str]
    sizes_mm: Mapping[str, float] = field(default_factory=dict)
    counts: Mapping[str, int] = field(default_factory=dict)

    def has(self, option: str, *choices: str) -> bool:
        """It is built so."""
        return self.build.get(option) in choices

    def count(self, detail: str, usual: int) -> int:
        """How many there are, by a detail of the sheet."""
        return self.counts.get(detail, usual)

    def sized(self, **usual_mm: float) -> tuple[float, ...]:
        """Every size that is drawn by, in the order given.

        Parameters
        ----------
        **usual_mm : float
            The sizes of a usual pump of its kind, by feature, in mm.

        Returns
        -------
        tuple of float
            The sheet's size where it prints one that goes with the others, else the usual one in their proportion.
        """
        ratios = [self.sizes_mm[key] / usual for key, usual in usual_mm.items() if key in self.sizes_mm]
        scale = statistics.median(ratios) if ratios else 1.0
        printed = ((self.sizes_mm.get(key, 0.0), usual * scale) for key, usual in usual_mm.items())
        return tuple(size if _LEAST <= size / usual <= _MOST else usual for size, usual in printed)
