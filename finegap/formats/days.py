"""Days and moments as this works writes them. What is in force is of the request, as Django's time zone is.

A form with the month in figures and no sign of which is which (03/04/2026) is not offered: it has two meanings.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from enum import Enum
from zoneinfo import available_timezones

from django.utils import timezone


def time_zones() -> list[str]:
    """The zones a works can be in, by their IANA names."""
    return [*sorted(name for name in available_timezones() if "/" in name and not name.startswith("Etc/")), "UTC"]


class DateForm(Enum):
    """A form of days: its name in the settings."""

    DAY_MONTH = "day-month"
    MONTH_DAY = "month-day"
    ISO = "iso"
    DOTTED = "dotted"


_WRITTEN = {
    DateForm.DAY_MONTH: "{d.day} {m} {d.year}",
    DateForm.MONTH_DAY: "{m} {d.day}, {d.year}",
    DateForm.ISO: "{d:%Y-%m-%d}",
    DateForm.DOTTED: "{d:%d.%m.%Y}",
}
_MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")
_in_force: ContextVar[DateForm] = ContextVar("date_form", default=DateForm.DAY_MONTH)


def use(form: DateForm) -> None:
    """Write days in this form from now on."""
    _in_force.set(form)


@contextmanager
def using(form: DateForm) -> Iterator[None]:
    """Write days in this form for a while."""
    before = _in_force.set(form)
    try:
        yield
    finally:
        _in_force.reset(before)


def in_force() -> DateForm:
    """The form days are written in now."""
    return _in_force.get()


def written(day: dt.date, form: DateForm | None = None) -> str:
    """A day in a form, or in the one in force: 5 Nov 2026; Nov 5, 2026; 2026-11-05; 05.11.2026."""
    return _WRITTEN[form or _in_force.get()].format(d=day, m=_MONTHS[day.month - 1])


def moment(stamp: str) -> str:
    """An ISO moment with its zone where that is not UTC: 5 Nov 2026 14:05 (+01:00).

    It is as the clock showed it that it was read from; one kept in UTC is in the zone in force.
    """
    read = dt.datetime.fromisoformat(stamp)
    local = read if read.utcoffset() else timezone.localtime(read)
    ahead = f"{local:%z}"
    zone = "" if ahead == "+0000" else f" ({ahead[:3]}:{ahead[3:]})"
    return f"{written(local)} {local:%H:%M}{zone}"
