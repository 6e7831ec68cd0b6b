"""How parts wear: forecasts in words, and the chart of a part's lives."""

from __future__ import annotations

import datetime as dt
import math
from dataclasses import dataclass

from django.utils import timezone

from finegap.bench import responses
from finegap.bench.records import Records
from finegap.core.families.features import Feature
from finegap.core.formatting import Bare, Sentence, Units, bare, length
from finegap.core.inspection import FeatureState
from finegap.core.renewing import wears_up
from finegap.core.sheet_parts import FeatureSpec
from finegap.core.wear.forecast import Forecast
from finegap.core.wear.hours import hours_per_week, since_before
from finegap.core.wear.lives import Life
from finegap.formats.days import written

_FURTHEST_H = 200_000.0
_BAND_STEPS = 24


def forecast(coming: Forecast | None, week_h: float | None) -> responses.ForecastResponse | None:
    """How a part wears, in hours and on the calendar."""
    if coming is None:
        return None
    at_planned = None if coming.planned_h is None or coming.life.now is None else coming.life.now + coming.planned_h
    return responses.ForecastResponse(
        sentence=coming.sentence,
        date=until((coming.hours_left, coming.early, coming.late), week_h),
        crosses=coming.crosses,
        may_cross=coming.may_cross,
        size_at_planned_mm=None if at_planned is None else coming.line.size(at_planned),
        working=coming.working,
    )


def until(hours: tuple[float | None, float | None, float | None], week_h: float | None, begins: dt.date | None = None) -> str:
    """When the limit is reached, at the hours a week its meter shows: by the line, at the earliest, at the latest.

    They are counted from a day, today where none is said.
    """
    left, early, late = hours
    if left is None or left <= 0 or not week_h:
        return ""
    first = begins or timezone.localdate()
    days = [_day_after(h, week_h, first) for h in (left, None if early is None or early <= 0 else early, late)]
    if days[0] is None:
        return ""
    bounds = f" (from {days[1] or 'now'} to {days[2] or 'later than can be told'})"
    return f"At {week_h:.0f} h a week: {days[0]}{bounds}."


@dataclass(frozen=True)
class Worn:
    """A part whose wear is drawn: its lives, the running one last, what comes of them, and hours run a week."""

    feature: Feature
    spec: FeatureSpec
    fine: bool
    lives: tuple[Life, ...]
    odd: tuple[Sentence, ...]
    coming: Forecast | None
    week_h: float | None


def wear(state: FeatureState, records: Records, units: Units) -> responses.WearResponse:
    """What the chart of a part's wear draws, of a part on the bench."""
    worn = Worn(state.feature, state.spec, state.fine, state.lives, state.odd, state.forecast, hours_a_week(records))
    return chart(worn, units)


def chart(worn: Worn, units: Units) -> responses.WearResponse:
    """What the chart of a part's wear draws."""
    *past, present = worn.lives or (Life((), None),)
    coming, limit = worn.coming, worn.spec.limit
    up = wears_up(worn.feature, limit)
    bound = None if limit is None else (limit.upper_mm if up else limit.lower_mm)
    return responses.WearResponse(
        feature=worn.feature.key,
        name=worn.feature.name,
        points=_points(present, worn.fine),
        lives=[_points(life, worn.fine) for life in past],
        band=_band(coming, present),
        limit_mm=bound,
        limit_text="" if bound is None else bare(bound, worn.fine),
        new_mm=list(worn.spec.new_mm or ()),
        now_h=present.now,
        planned_h=None if coming is None or present.now is None or coming.planned_h is None else present.now + coming.planned_h,
        ticks=_ticks(worn, bound, units),
        forecast=forecast(coming, worn.week_h),
        odd=list(worn.odd),
        week_h=worn.week_h,
    )


def _points(life: Life, fine: bool) -> list[responses.WearPointResponse]:
    return [
        responses.WearPointResponse(p.hours, p.size.value_mm, 2 * p.size.u_mm, bare(p.size.value_mm, fine), p.job, _day(p.day))
        for p in life.points
    ]


def _ticks(worn: Worn, bound: float | None, units: Units) -> list[responses.NamedTickResponse]:
    sizes = [p.size.value_mm for life in worn.lives for p in life.points]
    sizes += [*(worn.spec.new_mm or ()), *([] if bound is None else [bound])]
    if not sizes:
        return []
    unit = 1.0 if units.value == "mm" else 25.4
    low, high = min(sizes) / unit, max(sizes) / unit
    step = _round_step((high - low) / 4 or 0.01)
    first = math.floor(low / step)
    return [
        responses.NamedTickResponse((first + i) * step * unit, Bare(length((first + i) * step * unit, fine=True)))
        for i in range(math.ceil(high / step) - first + 1)
    ]


def _day(ordinal: int) -> dt.date | None:
    return dt.date.fromordinal(ordinal) if ordinal else None


def _round_step(step: float) -> float:
    power = 10.0 ** math.floor(math.log10(step))
    return next((power * m for m in (1.0, 2.0, 5.0) if power * m >= step), power * 10)


def _band(coming: Forecast | None, life: Life) -> list[responses.BandResponse]:
    """The line and its band from fitted to a little past what matters."""
    if coming is None or life.now is None:
        return []
    ends = [life.now * 1.1, life.now + (coming.planned_h or 0) * 1.05]
    ends += [life.now + h * 1.05 for h in (coming.hours_left,) if h is not None and h < 3 * max(life.now, 1000)]
    last = min(max(ends), _FURTHEST_H)
    hours = [last * i / _BAND_STEPS for i in range(_BAND_STEPS + 1)]
    line = coming.line
    return [
        responses.BandResponse(h, line.size(h), line.size(h) - line.half_width(h), line.size(h) + line.half_width(h)) for h in hours
    ]


def _day_after(hours: float | None, week_h: float, begins: dt.date) -> str | None:
    if hours is None or hours / week_h > 52 * 40:
        return None
    return written(begins + dt.timedelta(weeks=hours / week_h))


def hours_a_week(records: Records) -> float | None:
    """Hours run a week: kept for the pump, or from its meter at earlier overhauls."""
    if records.job.pump.hours_per_week:
        return records.job.pump.hours_per_week
    past = records.job_record.past
    visits = max(past.visits.values(), key=len, default=())
    days: list[tuple[int, float | None]] = []
    before: float | None = 0.0
    for day, meter in [(v.day, v.meter) for v in visits] + [(past.day, past.meter)]:
        days.append((day, since_before(before, meter)))
        before = meter.hours if meter.hours is not None else before
    return hours_per_week(days)
