"""What Prove shows: how the shaft turns, the run-in of packing, the first hour."""

from __future__ import annotations

import datetime as dt
import uuid
from dataclasses import dataclass

from finegap.site.shapes import LineShape, NamedShape


@dataclass(frozen=True)
class SeenShape:
    """Something seen at a step; ``places`` are clock positions where the shaft is tight."""

    id: uuid.UUID | None
    step: str
    seen: str
    typed: str
    places: list[str]
    by: str
    at: dt.datetime


@dataclass(frozen=True)
class NoteShape:
    """A line of the run-in; ``turn`` says what the gland was turned by."""

    id: uuid.UUID | None
    number: int
    minute: float
    drops: float | None
    drops_text: str
    box_c: float | None
    box: str
    eighths: float
    turn: str
    by: str
    at: dt.datetime


@dataclass(frozen=True)
class PlayShape:
    """End play as measured at a step, against what it may be."""

    id: uuid.UUID | None
    step: str
    line: LineShape


@dataclass(frozen=True)
class CoachShape:
    """What the coach says now, what the packing may do, and the log."""

    say: str
    headline: str
    why: str
    eighths: float
    wait_min: float
    drops: list[float]
    hottest_c: float
    hottest: str
    notes: list[NoteShape]


@dataclass(frozen=True)
class ProvingShape:
    """Where the proof stands; ``lines`` are the first hour set against what is predicted.

    ``turning`` and ``plays`` are of the step each was seen at.
    """

    turning: list[SeenShape]
    plays: list[PlayShape]
    coach: CoachShape | None
    seen: list[SeenShape]
    lines: list[LineShape]
    noises: list[NamedShape]
