"""What earlier overhauls of a pump left on record, as the core takes it: in this record, before it, and of parts that moved."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from itertools import chain

from django.db.models import Q, QuerySet
from django.utils import timezone

from finegap.bench.models import Job, SizeOnRecord
from finegap.core import job_record as core
from finegap.core.renewing import wears_up
from finegap.core.sheet import SpecSheet
from finegap.core.wear.hours import HoursRead
from finegap.core.wear.lives import Instead, Life, MeasuredSize, Visit, carried
from finegap.core.wear.lubrication import Metered, total_at
from finegap.formats.days import written
from finegap.pumps import meter
from finegap.pumps.models import EarlierSize, PartMoved, Pump

_MOST_MOVES = 40
"""Parts that came to a pump or went from it, the last ones, that are followed."""
_FURTHEST = 6
"""Pumps through which one part is followed back (no source)."""

_COLUMNS = (
    "job__number", "job__opened_at", "job__hours_run", "job__old_meter_last", "job__new_meter_first", "job__pressure_bar",
    "job__speed_r_min", "feature", "found_mm", "found_u_mm", "left_mm", "left_u_mm", "changed",
)  # fmt: skip
_EARLIER = (
    "overhaul__day", "overhaul__hours", "overhaul__pressure_bar", "overhaul__speed_r_min", "feature", "found_mm", "found_u_mm",
    "left_mm", "left_u_mm", "changed",
)  # fmt: skip

Visits = dict[str, list[Visit]]


@dataclass(frozen=True)
class Until:
    """Up to where the past of a pump counts: before a job, or before a part was moved; all of it where neither is said."""

    job: int | None = None
    day: dt.date | None = None
    moved_at: dt.datetime | None = None


def past_of(job: Job, sheet: SpecSheet) -> core.Past:
    """Earlier overhauls of this pump, from before this record and signed in it, one visit of each feature an overhaul."""
    day = timezone.localdate(job.opened_at)
    until = Until(job.number, day)
    own = HoursRead(job.hours_run, job.old_meter_last, job.new_meter_first)
    visits = recorded(job.pump, until)
    if _has_moved(job):
        readings = meter.readings(job.pump)
        _through(visits, readings)
        _moves(visits, job.pump, readings, sheet, job.pressure_bar * job.speed_r_min, until)
        own = _total(readings, day.toordinal(), own)
    return core.Past({key: tuple(of) for key, of in visits.items()}, job.number, day.toordinal(), own, job.pump.overhaul_every_h)


def whole_past(pump: Pump, sheet: SpecSheet, readings: list[Metered]) -> dict[str, tuple[Visit, ...]]:
    """All that is on record of a pump up to now; hours are those run in all."""
    visits = recorded(pump, Until())
    _through(visits, readings)
    _moves(visits, pump, readings, sheet, pump.pressure_bar * pump.speed_r_min, Until())
    return {key: tuple(of) for key, of in visits.items()}


def counted_outside(job: Job) -> int:
    """How many sizes on record, and parts moved, the past of a job rests on."""
    signed = SizeOnRecord.objects.counting().filter(job__pump=job.pump_id, job__number__lt=job.number).count()
    day = timezone.localdate(job.opened_at)
    earlier = EarlierSize.objects.filter(overhaul__pump=job.pump_id, overhaul__struck_reason="", overhaul__day__lt=day).count()
    moved = sum(len(one.features) for one in _parts_moved(job.pump, Until(day=day))) if _has_moved(job) else 0
    return signed + earlier + moved


def recorded(pump: Pump, until: Until) -> Visits:
    """Overhauls of a pump by feature, oldest first, with what its meter showed."""
    visits: Visits = {}
    for feature, visit in chain(_earlier(pump, until), _signed(pump, until)):
        visits.setdefault(feature, []).append(visit)
    return visits


def _has_moved(job: Job) -> bool:
    """Whether a part of the pump came from another or went there, or its meter was replaced between overhauls."""
    return bool(getattr(job, "moved", True))


def _earlier(pump: Pump, until: Until) -> Iterator[tuple[str, Visit]]:
    rows = EarlierSize.objects.filter(overhaul__pump=pump.pk, overhaul__struck_reason="")
    if until.day is not None:
        rows = rows.filter(overhaul__day__lt=until.day)
    days: dict[dt.date, int] = {}
    for day, hours, bar, speed, feature, found, found_u, left, left_u, changed in (
        rows.order_by("overhaul__day", "feature").values_list(*_EARLIER)
    ):  # fmt: skip
        yield (
            feature,
            Visit(
                -days.setdefault(day, len(days) + 1),
                day.toordinal(),
                HoursRead(hours),
                bar * speed,
                None if found is None else MeasuredSize(found, found_u),
                changed,
                None if left is None else MeasuredSize(left, left_u),
                f"the overhaul of {written(day)}",
            ),
        )


def _signed(pump: Pump, until: Until) -> Iterator[tuple[str, Visit]]:
    rows = SizeOnRecord.objects.counting().filter(job__pump=pump.pk)
    if until.job is not None:
        rows = rows.filter(job__number__lt=until.job)
    if until.moved_at is not None:
        rows = rows.filter(job__opened_at__lt=until.moved_at)
    for number, opened, hours, old_last, new_first, bar, speed, feature, found, found_u, left, left_u, changed in (
        rows.order_by("job__number", "feature").values_list(*_COLUMNS)
    ):  # fmt: skip
        yield (
            feature,
            Visit(
                number,
                timezone.localdate(opened).toordinal(),
                HoursRead(hours, old_last, new_first),
                bar * speed,
                None if found is None else MeasuredSize(found, found_u),
                changed,
                None if left is None else MeasuredSize(left, left_u),
            ),
        )


def _through(visits: Visits, readings: list[Metered]) -> None:
    """Hours run in all in place of what the meter showed, which may have been replaced between overhauls."""
    for key, of in visits.items():
        visits[key] = [replace(one, meter=_total(readings, one.day, one.meter)) for one in of]


def _total(readings: list[Metered], day: int, read: HoursRead) -> HoursRead:
    return read if read.hours is None else HoursRead(total_at(readings, day, read.hours))


def _parts_moved(pump: Pump, until: Until) -> QuerySet[PartMoved]:
    rows = PartMoved.objects.filter(Q(pump=pump) | Q(taker=pump), struck_reason="").select_related("pump", "taker")
    if until.day is not None:
        rows = rows.filter(day__lte=until.day)
    if until.moved_at is not None:
        rows = rows.filter(at__lt=until.moved_at)
    return rows.order_by("-day", "-at")[:_MOST_MOVES]


def _moves(
    visits: Visits, pump: Pump, readings: list[Metered], sheet: SpecSheet, work: float, until: Until, depth: int = 0
) -> None:
    """Put parts that came or went among the overhauls, each on its day."""
    for nth, one in enumerate(_parts_moved(pump, until)):
        came = one.taker_id == pump.pk
        hours = one.hours_there if came else one.hours
        read = HoursRead(total_at(readings, one.day.toordinal(), hours))
        lives = _brought(one, sheet, work, depth) if came else {}
        said = f"the day it {'came from' if came else 'went to'} {one.pump.tag if came else one.taker.tag}"
        for feature in one.features:
            visit = Visit(
                -1000 - nth,
                one.day.toordinal(),
                read,
                one.work_there if came else one.work,
                None,
                changed=True,
                name=said,
                brought=lives.get(feature, Life((), None)) if came else None,
                instead=None if came else Instead(one.instead),
            )
            visits.setdefault(feature, []).append(visit)
    for key, of in visits.items():
        visits[key] = sorted(of, key=_in_order)


def _in_order(visit: Visit) -> tuple[int, bool, int]:
    """By day; on one day overhauls stand before a part that was moved, the last moved last."""
    moved = visit.job <= -1000
    return (visit.day, moved, visit.job if moved else 0)


def _brought(one: PartMoved, sheet: SpecSheet, work: float, depth: int) -> dict[str, Life]:
    """The lives a part brings with it, by feature; none where it was followed far enough."""
    if depth >= _FURTHEST:
        return {}
    until = Until(day=one.day, moved_at=one.at)
    readings = meter.readings(one.pump)
    visits = _of(recorded(one.pump, until), one.features)
    _through(visits, readings)
    _moves(visits, one.pump, readings, sheet, work, until, depth + 1)
    by_key = sheet.family.by_key
    at = HoursRead(total_at(readings, one.day.toordinal(), one.hours))
    lives = {}
    for key in one.features:
        spec = sheet.spec(key)
        if key in by_key:
            lives[key] = carried(visits.get(key, []), spec.new_mm, wears_up(by_key[key], spec.limit), at, one.work, work)
    return lives


def _of(visits: Visits, features: Iterable[str]) -> Visits:
    return {key: visits[key] for key in features if key in visits}
