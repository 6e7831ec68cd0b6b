"""The hours meter of a pump: every reading of it, those of its jobs among them."""

from __future__ import annotations

import datetime as dt
from typing import Any

from django.utils import timezone

from finegap.core.entry import Entry
from finegap.core.errors import Ambiguous, Suggestion
from finegap.core.wear.hours import Counts, hours_of
from finegap.core.wear.lubrication import Metered
from finegap.pumps.models import Pump

_MOST = 1e9
"""A counter has no more digits."""


def typed_hours(pump: Pump, typed: str, name: str, entry: Entry, labelled: bool = True) -> int | None:
    """Running hours from what was read on the meter of a pump; ``None`` where nothing is typed.

    Where the field is ``labelled`` with what the meter counts, a bare number is in that. Elsewhere, as at a job, where every field
    of hours says hours, a bare number of a meter that counts something else is asked about.

    Raises
    ------
    FieldError
        No count.
    Ambiguous
        A bare number that may be either.
    """
    if pump.per_hour is None:
        return entry.hours(typed, name)
    text = typed.strip()
    for sign in (Counts(pump.counts).sign, pump.counts):
        text = text.removesuffix(sign).strip()
    if not text:
        return None
    if not labelled and text == typed.strip() and not text.casefold().endswith("h"):
        sign = Counts(pump.counts).sign
        either = (Suggestion(f"{text} {sign}", f"{text} {sign}"), Suggestion(f"{text} h", f"{text} hours"))
        raise Ambiguous(name, f"the meter of {pump.tag} counts {sign}: “{text}” may be that, or hours.", "Which is it?", either)
    if text.casefold().endswith("h"):
        return entry.hours(text[:-1], name)  # said in hours, they are hours
    return hours_of(entry.number(text, name, 0, _MOST), pump.per_hour)


def as_read(pump: Pump, typed: str) -> str:
    """What was read, of a meter that counts something else than hours; nothing where it was said in hours."""
    if pump.per_hour is None or typed.strip().casefold().endswith("h"):
        return ""
    sign = Counts(pump.counts).sign
    return f"{typed.strip().removesuffix(pump.counts).removesuffix(sign).strip()} {sign}"[:60]


def is_read(pump: Pump) -> bool:
    """Whether anything that counts rests on what its meter showed."""
    return (
        pump.meter.filter(struck_reason="").exists()
        or pump.lubricated.filter(struck_reason="").exists()
        or pump.earlier.filter(struck_reason="").exists()
        or pump.jobs.filter(hours_run__isnull=False).exists()
        or pump.given.filter(struck_reason="").exists()
        or pump.taken.filter(struck_reason="").exists()
    )


def readings(pump: Pump) -> list[Metered]:
    """Readings that count, oldest first. With ``meter``, ``jobs`` and ``earlier`` prefetched it makes no query."""
    rows = [
        Metered(one.day.toordinal(), float(one.hours), _float(one.old_last), float(one.new_first))
        for one in pump.meter.all()
        if not one.struck_reason
    ]
    rows += [
        Metered(_opened(job), float(job.hours_run), _float(job.old_meter_last), float(job.new_meter_first))
        for job in pump.jobs.all()
        if job.hours_run is not None
    ]
    rows += [Metered(one.day.toordinal(), float(one.hours)) for one in pump.earlier.all() if not one.struck_reason]
    return sorted(rows, key=lambda one: (one.day, one.old_last is not None, one.hours))


def last_hours(pump: Pump, day: dt.date, but_job: int | None = None) -> Metered | None:
    """The last reading of the meter up to a day, of a job or between jobs, but not of one job."""
    read = pump.meter.filter(day__lte=day, struck_reason="").last()
    jobs = pump.jobs.filter(opened_at__date__lte=day, hours_run__isnull=False)
    job = (jobs if but_job is None else jobs.exclude(pk=but_job)).order_by("number").last()
    found = [Metered(read.day.toordinal(), float(read.hours))] if read else []
    found += [Metered(_opened(job), float(job.hours_run or 0))] if job else []
    old = pump.earlier.filter(day__lte=day, struck_reason="").last()
    found += [Metered(old.day.toordinal(), float(old.hours))] if old else []
    return max(found, key=lambda one: one.day, default=None)


def next_hours(pump: Pump, day: dt.date) -> Metered | None:
    """The first reading of the meter after a day, between jobs or of a job."""
    read = pump.meter.filter(day__gt=day, struck_reason="").first()
    job = pump.jobs.filter(opened_at__date__gt=day, hours_run__isnull=False).order_by("number").first()
    found = [Metered(read.day.toordinal(), float(read.hours), _float(read.old_last))] if read else []
    if job:
        found.append(Metered(_opened(job), float(job.hours_run or 0), _float(job.old_meter_last)))
    old = pump.earlier.filter(day__gt=day, struck_reason="").first()
    found += [Metered(old.day.toordinal(), float(old.hours))] if old else []
    return min(found, key=lambda one: one.day, default=None)


def _float(value: int | None) -> float | None:
    return None if value is None else float(value)


def _opened(job: Any) -> int:
    """The day a job was opened, as the works' calendar has it."""
    return timezone.localdate(job.opened_at).toordinal()
