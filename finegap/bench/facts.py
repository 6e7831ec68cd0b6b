"""From records to the core's facts, in a fixed number of SQL queries."""

from __future__ import annotations

import json
import math
from dataclasses import dataclass
from functools import lru_cache

from django.contrib.auth.models import User
from django.utils import timezone

from finegap.bench.models import Decision, Job, Reading, StepMark, Try
from finegap.core import job as core
from finegap.core.gap.housing import Zero
from finegap.core.gap.setting import Check, TryMade
from finegap.core.gauges import Choice, GaugeKind
from finegap.core.measuring import readings as measuring
from finegap.core.sheet import SpecSheet, read_sheet
from finegap.toolbox.models import GasketStock, Gauge


@dataclass(frozen=True)
class Records:
    """A job's rows, each kind read once, and the facts made of them. ``names`` are people by key."""

    job: Job
    gauges: list[Gauge]
    cabinet: tuple[Choice, ...]
    names: dict[int, str]
    readings: list[Reading]
    steps: list[StepMark]
    decisions: list[Decision]
    tries: list[Try]
    facts: core.Facts


@lru_cache(maxsize=64)
def _sheet(content: str) -> SpecSheet:
    return read_sheet(json.loads(content))


def sheet_of(job: Job) -> SpecSheet:
    """The spec sheet a job works to; the same contents are read once."""
    return _sheet(json.dumps(job.revision.content))


def core_gauge(gauge: Gauge) -> measuring.Gauge:
    """A gauge as the core knows it."""
    return measuring.Gauge(gauge.tag, gauge.resolution_mm, gauge.expanded_mm, gauge.k, gauge.repeatability_mm)


def core_choice(gauge: Gauge) -> Choice:
    """A gauge as the core chooses among them."""
    overdue = gauge.due < timezone.localdate()
    return Choice(gauge.tag, GaugeKind(gauge.kind), gauge.low_mm, gauge.high_mm, gauge.expanded_mm, overdue)


def load(job: Job) -> Records:
    """Read a job's rows and make the facts."""
    readings = list(job.readings.all())
    steps = list(job.steps.all())
    decisions = list(job.decisions.all())
    tries = list(job.tries.all())
    # A few gauges serve many readings: joined here once, not row by row in SQL.
    gauges = {gauge.pk: gauge for gauge in Gauge.objects.all()}
    for reading in readings:
        reading.gauge = gauges[reading.gauge_id]
    for one in tries:
        one.gauge = gauges[one.gauge_id] if one.gauge_id else None
    stock = GasketStock.objects.filter(sheet=job.revision.sheet_id).values_list("thickness_um", "count")
    sheet = sheet_of(job)
    facts = core.Facts(
        sheet=sheet,
        duty=core.Duty(job.material, job.viscosity_mm2_s, job.temperature_c, job.casing_c),
        readings=_grouped(sheet, readings),
        steps_done=frozenset(s.step for s in steps),
        decisions={d.feature: core.Decision(core.Decided(d.decided), d.reason) for d in decisions},
        zero=Zero(job.zero_school) if job.zero_school else None,
        lash_mm=job.lash_mm,
        tries=tuple(_try(t) for t in tries),
        box=dict(stock),
        overdue_gauges=_overdue(readings, tries),
    )
    cabinet = tuple(core_choice(gauge) for gauge in gauges.values())
    return Records(job, list(gauges.values()), cabinet, _names(), readings, steps, decisions, tries, facts)


def name_of(user: User) -> str:
    """A person's name as it is shown and signed."""
    return user.get_full_name() or user.username


def _names() -> dict[int, str]:
    return {user.pk: name_of(user) for user in User.objects.only("first_name", "last_name", "username")}


def _grouped(sheet: SpecSheet, rows: list[Reading]) -> dict[tuple[str, core.Phase], tuple[measuring.Reading, ...]]:
    planes = {(f.key, s.key): s.plane for f in sheet.family.features for s in f.stations}
    gauges = {row.gauge_id: core_gauge(row.gauge) for row in rows}
    groups: dict[tuple[str, core.Phase], list[measuring.Reading]] = {}
    for row in rows:
        if row.struck_at is None:
            reading = measuring.Reading(row.station, planes.get((row.feature, row.station), ""), row.value_mm, gauges[row.gauge_id])
            groups.setdefault((row.feature, core.Phase(row.phase)), []).append(reading)
    return {key: tuple(group) for key, group in groups.items()}


def _try(row: Try) -> TryMade:
    check = Check(row.value_mm, row.u_mm, math.inf if row.dof is None else row.dof)
    return TryMade(check, row.arc_mm, tuple(row.stack_um))


def _overdue(readings: list[Reading], tries: list[Try]) -> tuple[str, ...]:
    rows = [r for r in readings if r.struck_at is None] + [t for t in tries if t.gauge is not None]
    return tuple(dict.fromkeys(r.gauge.tag for r in rows if r.gauge_overdue and r.gauge))
