"""What Fleet shows, as plain data."""

from __future__ import annotations

import datetime as dt
import uuid
from dataclasses import dataclass

from finegap.api.shown import NamedResponse
from finegap.core.formatting import Text
from finegap.core.working import Working


@dataclass(frozen=True)
class PumpJob:
    """A signed job in a pump's history, with the gap it was left with; ``ended`` says “void” of one that does not count."""

    number: int
    signed_at: dt.datetime
    ended: str
    gap: Text | None


@dataclass(frozen=True)
class PumpLine:
    """A pump with its duty; ``jobs`` are its newest of ``signed`` signed ones."""

    tag: str
    service: str
    location: str
    serial: str
    sheet: str
    slug: str
    material: str
    liquid: str
    viscosity: Text
    temperature: Text
    pressure: Text
    speed: str
    on_bench: int | None
    retired: dt.date | None
    signed: int
    jobs: list[PumpJob]


@dataclass(frozen=True)
class DueResponse:
    """Oil or grease that falls due, with its day where the meter tells the rate."""

    name: str
    sentence: Text
    day: dt.date | None
    late: bool
    working: Working


@dataclass(frozen=True)
class MeterResponse:
    """The hours meter as it was read. ``replaced`` says with which readings a meter was replaced."""

    id: uuid.UUID
    hours: int
    day: dt.date
    by: str
    replaced: str
    struck_reason: str


@dataclass(frozen=True)
class LubricatedResponse:
    """Oil or grease done, at so many hours of the meter."""

    id: uuid.UUID
    name: str
    hours: int
    at: dt.datetime
    by: str
    struck_reason: str


@dataclass(frozen=True)
class EarlierResponse:
    """An overhaul from before this record: how many sizes are known of it, and how many parts were renewed."""

    id: uuid.UUID
    day: dt.date
    hours: int
    sizes: int
    changed: int
    source: str
    by: str
    struck_reason: str


@dataclass(frozen=True)
class MovedResponse:
    """A pump went from one place to another."""

    id: uuid.UUID
    was: str
    to: str
    day: dt.date
    by: str
    note: str
    struck_reason: str


@dataclass(frozen=True)
class MeasuredPart:
    """A part a size can be written down of."""

    key: str
    number: int
    name: str


@dataclass(frozen=True)
class PumpOption:
    """A way in which pumps of a sheet differ; ``usual`` is the sheet's choice. Only pumps with the choices of ``when`` have it."""

    key: str
    name: str
    choices: list[NamedResponse]
    usual: str
    when: dict[str, list[str]]


@dataclass(frozen=True)
class PumpChoices:
    """What has to be chosen for a pump of a sheet, and from what: materials as its clearance table names them, kinds of liquid."""

    sheet: str
    title: str
    materials: list[str]
    media: list[NamedResponse]
    options: list[PumpOption]


@dataclass(frozen=True)
class PumpEntered:
    """A pump as it would be typed: every quantity with its unit, by the decimal mark of the works."""

    version: int
    material: str
    choices: PumpChoices
    liquid: str
    medium: str
    viscosity: str
    temperature: str
    casing: str
    density: str
    start: str
    hot: str
    pressure: str
    speed: str
    hazards: str
    overhaul_every: str
    hours_per_week: str
    build: dict[str, str]


@dataclass(frozen=True)
class PumpPage:
    """A pump with what falls due. ``visits`` say what can be done together; ``place`` is wet or dry."""

    line: PumpLine
    wet: bool
    rate: str
    meter: list[MeterResponse]
    lubricated: list[LubricatedResponse]
    entered: PumpEntered
    due: list[DueResponse]
    earlier: list[EarlierResponse]
    moves: list[MovedResponse]
    measured: list[MeasuredPart]
    visits: list[str]
