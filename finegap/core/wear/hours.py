"""Running hours from a meter that may have been replaced, or gone backwards."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import Enum
from itertools import pairwise

from finegap.core.errors import FieldError


class Counts(Enum):
    """What a meter counts. From starts or a volume hours are worked out, by how many of them go to an hour of running."""

    HOURS = "h"
    STARTS = "starts"
    VOLUME = "m3"

    @property
    def sign(self) -> str:
        """How it is written after a number."""
        return "m³" if self is Counts.VOLUME else self.value


def hours_of(count: float, per_hour: float | None) -> int:
    """Running hours from what a meter shows, to the nearest hour.

    Parameters
    ----------
    count : float
        What it shows: hours, starts or cubic metres.
    per_hour : float or None
        How many of them are an hour; ``None`` where it counts hours.
    """
    return round(count if per_hour is None else count / per_hour)


@dataclass(frozen=True)
class HoursRead:
    """What the meter said at one overhaul, in hours.

    ``old_last`` is the last reading of a meter that was replaced since the overhaul before, and ``new_first`` what the new one
    began at.
    """

    hours: float | None
    old_last: float | None = None
    new_first: float = 0.0


def check_replaced(hours: float | None, old_last: float | None, new_first: float, before: float | None, day: str = "") -> None:
    """Whether what is said of a replaced meter can be.

    Parameters
    ----------
    hours, old_last, new_first : float or None
        What the meter shows, the last reading of the one it replaced (``None``: not replaced), and what it began at.
    before : float or None
        The last reading on record.
    day : str
        When that was read, for the error.

    Raises
    ------
    FieldError
        The old meter's last reading is below the record, the new one shows less than it began at, or a meter went back without a
        word.
    """
    read = f"{before:.0f} h were read{f' on {day}' if day else ' before'}" if before is not None else ""
    if old_last is not None:
        if before is not None and old_last < before:
            raise FieldError("old meter's last reading", f"{read}: it cannot have ended at {old_last:.0f}.", "Expected no less.")
        if hours is not None and hours < new_first:
            problem = f"it began at {new_first:.0f} h and cannot read {hours:.0f} h now."
            raise FieldError("new meter's first reading", problem, "Expected no more than the hours run.")
    elif before is not None and hours is not None and hours < before:
        hint = "Expected no less; or say that the meter was replaced, with the old one's last reading."
        raise FieldError("hours on the meter", f"{read}.", hint)


def since_before(before: float | None, now: HoursRead) -> float | None:
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
