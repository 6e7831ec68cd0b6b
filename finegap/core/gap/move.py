"""What every means of setting answers: the window, and the next move towards it."""

from __future__ import annotations

from dataclasses import dataclass
from enum import Enum

from finegap.core.formatting import Amount, Sentence, edges
from finegap.core.working import Working


@dataclass(frozen=True)
class Window:
    """Where the gap has to end up, in mm."""

    target_mm: float
    low_mm: float
    high_mm: float

    def shown(self, gap_mm: float | None = None, fine: bool = False) -> tuple[Amount, Amount, Amount]:
        """The ends of the window and a gap beside them (the target where none is given), with as many places as it takes to
        compare them."""
        size = self.target_mm if gap_mm is None else gap_mm
        of = edges(self.low_mm, self.high_mm, self.high_mm - self.low_mm, (size,), fine)
        assert of.low is not None
        assert of.high is not None
        return of.low, of.high, of.sizes[0]


class Way(Enum):
    """Which way the gap goes."""

    OPEN = "open"
    CLOSE = "close"
    STAY = "stay"


@dataclass(frozen=True)
class Move:
    """The next move: the large sentence, the smaller ones under it, and how it was reached."""

    way: Way
    change_mm: float
    headline: Sentence
    details: tuple[Sentence, ...]
    working: Working
    travel_mm: float = 0.0
    """Clearance worth of turning, play included; never negative. Only for means that turn."""


def way_of(change_mm: float) -> Way:
    """The way of a change of gap; within a micrometre nothing moves."""
    if abs(change_mm) < 0.001:
        return Way.STAY
    return Way.OPEN if change_mm > 0 else Way.CLOSE
