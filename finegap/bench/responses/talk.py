"""What people at a job say to one another."""

from __future__ import annotations

import datetime as dt
import uuid
from dataclasses import dataclass

from finegap.bench.responses.job import EventResponse


@dataclass(frozen=True)
class HereResponse:
    """Somebody on a job: when they last did something at it, and whether they have it before them now."""

    name: str
    last: dt.datetime | None
    looking: bool


@dataclass(frozen=True)
class JobNoteResponse:
    """A note, or a hand-over ``to`` somebody or to whoever goes on; ``may_take`` when the reader can take it over."""

    id: uuid.UUID
    text: str
    by: str
    at: dt.datetime
    handover: bool
    to: str
    taken_by: str
    taken_at: dt.datetime | None
    may_take: bool
    struck_reason: str


@dataclass(frozen=True)
class SinceResponse:
    """What others did since the reader looked ``at`` the job, the newest first."""

    at: dt.datetime
    lines: list[EventResponse]
    more: bool


@dataclass(frozen=True)
class TalkResponse:
    """Who is on a job, their notes with the newest first, and what changed since the reader looked."""

    here: list[HereResponse]
    notes: list[JobNoteResponse]
    more: bool
    since: SinceResponse | None
