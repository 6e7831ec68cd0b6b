"""Running hours from a meter that may have been replaced, or gone backwards."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise


@dataclass(frozen=True)
class MeterReading:
    """What the meter said at one overhaul, in hours.

    ``old_last`` is the last reading of a meter that was replaced since the overhaul before, and ``new_first`` what the new one
    began at.
    """

    hours: float | None
    old_last: float | None = None
    new_first: float = 0.0


def since_before(before: float | None, now: MeterReading) -> float | None:
    """Hours run between two readings; ``None`` where they cannot be told: not read, or gone backwards without a word."""
    if before is None or now.hours is None:
        return None
    run = now.hours - before if now.old_last is None else (now.old_last - before) + (now.hours - now.new_first)
    return run if run >= 0 else None


def hours_per_week(visits: Sequence[tuple[int, float | None]]) -> float | None:
    """Hours a week from (day, hours run since the visit before) in order; days as ordinals. ``None`` with nothing to go by."""
    days, hours = 0, 0.0
    for (before, _), (day, run) in pairwise(visits):
        if run is not None and day > before:
            days, hours = days + day - before, hours + run
    return hours / days * 7 if days and hours else None
