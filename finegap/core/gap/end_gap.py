"""The total end gap of one gear of a gear pump, from the sizes about it, and how it falls on both ends.

g = housing + both gaskets as compressed - both wear plates - gear. What is not known of it is that of every size, independent of
one another (JCGM 100:2008, 5.1.2).
"""

from __future__ import annotations

from dataclasses import dataclass

from finegap.core.formatting import Sentence, length, uncertainty
from finegap.core.measuring.uncertainty import Combined, Component, combine
from finegap.core.working import Given, Working


@dataclass(frozen=True)
class Size:
    """A size about a gear [mm], with its standard uncertainty and its sign in the sum."""

    symbol: str
    name: str
    mm: float
    u_mm: float
    sign: int


@dataclass(frozen=True)
class EndGap:
    """The total, what is not known of it, and the share of the front end [mm]."""

    total_mm: float
    combined: Combined
    front_mm: float

    @property
    def back_mm(self) -> float:
        """What is left for the other end."""
        return self.total_mm - self.front_mm


def end_gap(sizes: tuple[Size, ...], ahead_mm: float) -> EndGap:
    """The gap of a gear.

    Parameters
    ----------
    sizes : tuple of Size
        Housing, gaskets, plates and gear.
    ahead_mm : float
        By how much the front end has more than the back.
    """
    total = sum(one.sign * one.mm for one in sizes)
    return EndGap(total, combine(Component(one.name, one.u_mm) for one in sizes), (total + ahead_mm) / 2)


def working_of(sizes: tuple[Size, ...], found: EndGap) -> Working:
    """How the total came about."""
    given = tuple(Given(one.symbol, one.name, length(one.mm, fine=True)) for one in sizes)
    doubts = tuple(Given(f"u({one.symbol})", f"of the {one.name}", uncertainty(one.u_mm)) for one in sizes)
    return Working(
        "Total end gap of a gear",
        "g = H + f + b − P₁ − P₂ − w,   u = √(Σ u²)",
        (*given, *doubts),
        Sentence("{g}, u {u}", {"g": length(found.total_mm, fine=True), "u": uncertainty(found.combined.u)}),
        "geometry of a gear between two plates; JCGM 100:2008, 5.1.2",
    )
