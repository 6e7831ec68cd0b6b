"""What Fleet shows, as plain data."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass


@dataclass(frozen=True)
class PumpJob:
    """A job in a pump's history, with the gap it was left with."""

    number: int
    opened_at: dt.datetime
    reason: str
    signed_at: dt.datetime | None
    gap: str | None


@dataclass(frozen=True)
class PumpSymptom:
    """Why a pump of this family may come in."""

    key: str
    name: str


@dataclass(frozen=True)
class PumpLine:
    """A pump with its duty and its jobs, newest first."""

    tag: str
    service: str
    location: str
    serial: str
    sheet: str
    slug: str
    model: str
    material: str
    liquid: str
    viscosity: str
    temperature: str
    pressure: str
    speed: str
    on_bench: int | None
    symptoms: list[PumpSymptom]
    jobs: list[PumpJob]
