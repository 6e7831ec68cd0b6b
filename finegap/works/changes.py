"""What can be changed of the works."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from django.core.files.base import File

from finegap.api import fields as sent
from finegap.core.numerals import DecimalMark


@dataclass(frozen=True)
class KeepSettings:
    """What the works decides for itself; what is left out stays.

    ``new_share`` is in percent; ``abandoned_days`` is empty where photographs of abandoned jobs are kept without end.
    """

    decimal_mark: DecimalMark | None = None
    new_share: str | None = sent.left_out(20)
    name: str | None = sent.left_out(80)
    address: str | None = sent.left_out(240)
    lengths: Literal["mm", "in", "thou"] | None = None
    date_form: Literal["day-month", "month-day", "iso", "dotted"] | None = None
    paper: Literal["A4", "Letter"] | None = None
    time_zone: str | None = sent.left_out(60)
    currency: str | None = sent.left_out(12)
    school: Literal["guarded", "plain"] | None = None
    photo_side: Literal["1200", "1600", "2400"] | None = None
    abandoned_days: str | None = sent.left_out(6)
    idle_days: str | None = sent.left_out(6)
    backup_hours: str | None = sent.left_out(6)


@dataclass(frozen=True)
class KeepLogo:
    """The picture on reports."""

    file: File  # type: ignore[type-arg]
