"""What falls due, as plain data."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass


@dataclass(frozen=True)
class DueLineResponse:
    """Something that falls due, at a pump or of a gauge; without a day where the meter does not tell the rate."""

    kind: str
    pump: str
    gauge: str
    name: str
    said: str
    service: str
    place: str
    lent: bool
    on_bench: int | None
    day: dt.date | None
    late: bool


@dataclass(frozen=True)
class DueCount:
    """How many of a kind."""

    kind: str
    count: int


@dataclass(frozen=True)
class DueWeek:
    """A week of the ribbon: its first day, and how many of each kind fall due in it."""

    begins: dt.date
    counts: list[DueCount]


@dataclass(frozen=True)
class DueAhead:
    """Twelve weeks ahead, what is past due before them, and what has no day; ``behind`` pumps are still being worked out anew."""

    late: list[DueCount]
    weeks: list[DueWeek]
    undated: list[DueCount]
    behind: int
