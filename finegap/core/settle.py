"""A reading too near the limit: what would settle it, more repeats or another gauge."""

from __future__ import annotations

import math

from finegap.core.formatting import Sentence
from finegap.core.gauges import Cabinet
from finegap.core.measuring.readings import Result, Scatter
from finegap.core.measuring.uncertainty import Component, combine
from finegap.core.measuring.verdict import guard_of

MOST_REPEATS = 20
"""Nobody repeats a reading more often than this for one number (common practice, no source)."""


def guard_after(result: Result, more: int) -> float:
    """Distance from the limit at which doubt would begin after ``more`` repeats of each deciding station, in mm.

    The scatter seen so far is taken to stay as it is.
    """
    systematic = [c for c in result.uncertainty.components if c.name != "repeatability"]
    combined = combine([_repeated(s, more) for s in result.scatter] + systematic)
    return guard_of(combined.u, combined.dof, result.half_mm)


def _repeated(scatter: Scatter, more: int) -> Component:
    repeats = scatter.repeats + more
    return Component("repeatability", scatter.s_mm / math.sqrt(repeats), scatter.dof + more)


def repeats_needed(result: Result, margin_mm: float) -> int | None:
    """The fewest repeats more that bring doubt within ``margin_mm`` of the limit; ``None`` if no sensible number does."""
    return next((more for more in range(1, MOST_REPEATS + 1) if guard_after(result, more) < abs(margin_mm)), None)


def settle(result: Result, margin_mm: float, cabinet: Cabinet | None) -> Sentence:
    """What would settle a reading this near the limit, in one sentence. ``cabinet`` is ``None`` for a pair, which no gauge
    measures."""
    more = repeats_needed(result, margin_mm)
    better = cabinet.first_that_proves(abs(margin_mm)) if cabinet else ""
    if more is not None:
        words = "Repeat the deciding station {more} times more" if more > 1 else "Repeat the deciding station once more"
        return Sentence(words + (", or take {gauge}." if better else "."), {"more": str(more), "gauge": better})
    if cabinet is None:
        return Sentence("Repeats will not settle it: measure its parts with better gauges, or decide with a reason.")
    if better:
        return Sentence("Repeats will not settle it with this gauge; {gauge} would.", {"gauge": better})
    return Sentence("Neither repeats nor any gauge of the cabinet would settle it: decide with a reason.")
