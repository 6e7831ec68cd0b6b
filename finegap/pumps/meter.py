"""The hours meter of a pump: every reading of it, those of its jobs among them."""

from __future__ import annotations

import datetime as dt

from finegap.core.wear.lubrication import Metered
from finegap.pumps.models import Pump


def readings(pump: Pump) -> list[Metered]:
    """Readings that count, oldest first. With ``meter``, ``jobs`` and ``earlier`` prefetched it makes no query."""
    rows = [
        Metered(one.day.toordinal(), float(one.hours), _float(one.old_last), float(one.new_first))
        for one in pump.meter.all()
        if not one.struck_reason
    ]
    rows += [
        Metered(job.opened_at.toordinal(), float(job.hours_run), _float(job.old_meter_last), float(job.new_meter_first))
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
    found += [Metered(job.opened_at.toordinal(), float(job.hours_run or 0))] if job else []
    old = pump.earlier.filter(day__lte=day, struck_reason="").last()
    found += [Metered(old.day.toordinal(), float(old.hours))] if old else []
    return max(found, key=lambda one: one.day, default=None)


def next_hours(pump: Pump, day: dt.date) -> Metered | None:
    """The first reading of the meter after a day, between jobs or of a job."""
    read = pump.meter.filter(day__gt=day, struck_reason="").first()
    job = pump.jobs.filter(opened_at__date__gt=day, hours_run__isnull=False).order_by("number").first()
    found = [Metered(read.day.toordinal(), float(read.hours), _float(read.old_last))] if read else []
    if job:
        found.append(Metered(job.opened_at.toordinal(), float(job.hours_run or 0), _float(job.old_meter_last)))
    old = pump.earlier.filter(day__gt=day, struck_reason="").first()
    found += [Metered(old.day.toordinal(), float(old.hours))] if old else []
    return min(found, key=lambda one: one.day, default=None)


def _float(value: int | None) -> float | None:
    return None if value is None else float(value)
