"""Every change to the fleet, declared once: validation, service and schema read it here."""

from __future__ import annotations

import uuid
from dataclasses import dataclass, field

from django.core.files.base import File

from finegap.api import fields as sent
from finegap.core.wear.hours import Counts
from finegap.core.wear.lives import Instead


@dataclass(frozen=True)
class AddPump:
    """A pump as typed. ``casing`` is the casing's temperature; empty means that of the liquid. Hours are running hours.

    ``counts`` is what its meter counts; of anything but hours ``per_hour`` go to an hour of running.
    """

    tag: str = sent.text(30, filled=True)
    service: str = sent.text(120, filled=True)
    location: str = sent.text(120, filled=True)
    serial: str = sent.text(60, filled=True)
    sheet: str = sent.text(80, filled=True)
    material: str = sent.text(60, filled=True)
    liquid: str = sent.text(80, filled=True)
    viscosity: str = sent.text(120, filled=True)
    temperature: str = sent.text(40, filled=True)
    pressure: str = sent.text(40, filled=True)
    speed: str = sent.text(40, filled=True)
    casing: str = sent.text(40, "")
    density: str = sent.text(40, "")
    start: str = sent.text(40, "")
    hot: str = sent.text(40, "")
    hazards: str = sent.text(200, "")
    medium: str = sent.text(40, "")
    overhaul_every: str = sent.text(20, "")
    hours_per_week: str = sent.text(20, "")
    wet: bool = False
    counts: Counts = Counts.HOURS
    per_hour: str = sent.text(20, "")
    build: dict[str, str] = sent.by_name(40)


@dataclass(frozen=True)
class EditPump(AddPump):
    """A pump put right, made from its ``version``."""

    version: int = sent.number(1, 2**31, kw_only=True)


@dataclass(frozen=True)
class RetirePump:
    """A pump that comes to the bench no more, or does again."""

    retired: bool = sent.required()


@dataclass(frozen=True)
class ReadMeter:
    """The hours meter as read; the day empty means today.

    ``old_last`` is the last reading of a meter that was replaced, ``new_first`` what this one began at.
    """

    id: uuid.UUID
    hours: str = sent.text(20)
    day: str = sent.text(10, "")
    old_last: str = sent.text(20, "")
    new_first: str = sent.text(20, "")


@dataclass(frozen=True)
class Strike:
    """A line of a pump, recorded by mistake, struck out."""

    record: uuid.UUID
    reason: str = sent.text(200)


@dataclass(frozen=True)
class Lubricate:
    """Oil or grease done, at so many running hours."""

    id: uuid.UUID
    name: str = sent.text(120, filled=True)
    hours: str = sent.text(20)


@dataclass(frozen=True)
class MovePump:
    """A pump goes somewhere else; the day empty means today. One that is ``lent`` is expected ``back`` on a day, if agreed."""

    id: uuid.UUID
    to: str = sent.text(120, filled=True)
    day: str = sent.text(10, "")
    note: str = sent.text(200, "")
    lent: bool = False
    back: str = sent.text(10, "")


@dataclass(frozen=True)
class MovePart:
    """A part went from this pump into another; the day empty means today. Hours are what either meter showed then."""

    id: uuid.UUID
    part: str = sent.text(80, filled=True)
    taker: str = sent.text(30, filled=True)
    hours: str = sent.text(20)
    hours_there: str = sent.text(20)
    instead: Instead = sent.required()
    day: str = sent.text(10, "")
    note: str = sent.text(200, "")


@dataclass(frozen=True)
class WriteNote:
    """Something the next one at this pump should know."""

    id: uuid.UUID
    text: str = sent.text(1000)


@dataclass(frozen=True)
class AttachDocument:
    """A paper of a pump: a photograph of it, or a PDF."""

    id: uuid.UUID
    file: File  # type: ignore[type-arg]
    name: str = sent.text(120)


@dataclass(frozen=True)
class EarlierPart:
    """A part at an earlier overhaul: its size as found and as left, and whether it was renewed then."""

    feature: str = sent.text(40, filled=True)
    found: str = sent.text(40, "")
    left: str = sent.text(40, "")
    changed: bool = False


@dataclass(frozen=True)
class AddEarlier:
    """An overhaul from before this record; ``pressure`` and ``speed`` are what the pump ran at until then."""

    id: uuid.UUID
    day: str = sent.text(10, filled=True)
    hours: str = sent.text(20, filled=True)
    pressure: str = sent.text(40, filled=True)
    speed: str = sent.text(40, filled=True)
    source: str = sent.text(120, filled=True)
    parts: list[EarlierPart] = field(default_factory=list)
