"""Reading the fleet."""

from __future__ import annotations

import datetime as dt

from django.contrib.auth.models import User
from django.db.models import Prefetch, QuerySet
from django.utils import timezone

from finegap.api.shown import NamedResponse
from finegap.bench.models import Job
from finegap.core.assembly.elastomers import MEDIA
from finegap.core.families import FAMILIES
from finegap.core.formatting import Amount, Kind, Shown
from finegap.core.numerals import DecimalMark
from finegap.core.sheet import read_sheet
from finegap.core.wear.lubrication import Due, Metered, due, hours_a_week, together
from finegap.fleet.responses import (
    DueResponse,
    LubricatedResponse,
    MeterResponse,
    PumpEntered,
    PumpJob,
    PumpLine,
    PumpPage,
    PumpSymptom,
)
from finegap.inventory.queries import works_settings
from finegap.pumps import meter
from finegap.pumps.models import MeterReading, Pump


def _jobs() -> QuerySet[Job]:
    """Jobs of pumps, newest first, with how each ended; no record is read."""
    jobs = Job.objects.select_related("sign_off", "abandonment").defer("sign_off__document")
    return jobs.prefetch_related("amendments").order_by("-number")


def pump_lines() -> list[PumpLine]:
    """Every pump with its jobs, by tag, in a fixed number of SQL queries."""
    jobs = Prefetch("jobs", _jobs())
    return [_line(pump) for pump in Pump.objects.select_related("sheet").prefetch_related(jobs, "sheet__revisions")]


def _line(pump: Pump) -> PumpLine:
    jobs = [_job(job) for job in pump.jobs.all()]
    revisions = list(pump.sheet.revisions.all())
    family = FAMILIES.get(revisions[0].content["family"]) if revisions else None
    return PumpLine(
        tag=pump.tag,
        service=pump.service,
        location=pump.location,
        serial=pump.serial,
        sheet=pump.sheet.title,
        slug=pump.sheet.slug,
        model=revisions[0].content["model"] if revisions else "",
        material=pump.material,
        liquid=pump.liquid,
        viscosity=Amount(pump.viscosity_mm2_s, Kind.VISCOSITY),
        temperature=Amount(pump.temperature_c, Kind.TEMPERATURE),
        pressure=Amount(pump.pressure_bar, Kind.PRESSURE),
        speed=f"{pump.speed_r_min:g} r/min",
        on_bench=next((j.number for j in jobs if j.signed_at is None and not j.ended), None),
        symptoms=[PumpSymptom(s.key, s.name) for s in family.symptoms] if family else [],
        jobs=jobs,
    )


def _job(job: Job) -> PumpJob:
    signature = getattr(job, "sign_off", None)
    gap = Shown(signature.gap_mm, signature.gap_in) if signature and signature.gap_mm else None
    void = any(one.void for one in job.amendments.all())
    ended = "abandoned" if hasattr(job, "abandonment") else "void" if void else ""
    return PumpJob(job.number, job.opened_at, job.reason, signature.at if signature else None, ended, gap)


def pump_page(tag: str) -> PumpPage | None:
    """A pump with what falls due; ``None`` where there is no such pump."""
    pump = _whole(tag)
    if pump is None:
        return None
    found = due_of(pump)
    rate = hours_a_week(meter.readings(pump), pump.hours_per_week)
    return PumpPage(
        line=_line(pump),
        wet=pump.wet,
        rate=f"{rate:.0f} h a week" if rate else "",
        meter=[
            MeterResponse(m.id, m.hours, m.day, _name(m.by), _replaced(m), m.struck_reason)
            for m in list(reversed(pump.meter.all()))[:_LINES]
        ],
        lubricated=[
            LubricatedResponse(one.id, one.name, one.hours, one.at, _name(one.by), one.struck_reason)
            for one in list(reversed(pump.lubricated.all()))[:_LINES]
        ],
        entered=_entered(pump, DecimalMark(works_settings().decimal_mark)),
        due=[DueResponse(one.plan.name, one.sentence, _date(one), one.late, one.working) for one in found],
        visits=[
            f"{dt.date.fromordinal(group[0].day or 1):%d %b %Y}: {', '.join(one.plan.name.lower() for one in group)}, in one visit"
            for group in together(found)
            if len(group) > 1
        ],
    )


def pump_due(tag: str) -> tuple[Pump, tuple[Due, ...]] | None:
    """A pump and what falls due, for its calendar."""
    pump = _whole(tag)
    return None if pump is None else (pump, due_of(pump))


def due_of(pump: Pump) -> tuple[Due, ...]:
    """What falls due by the pump's sheet and meter."""
    revision = next(iter(pump.sheet.revisions.all()), None)
    if revision is None:
        return ()
    counted = (one for one in pump.lubricated.all() if not one.struck_reason)
    done = {one.name: Metered(timezone.localdate(one.at).toordinal(), float(one.hours)) for one in counted}
    return due(read_sheet(revision.content).lubrication, meter.readings(pump), done, pump.wet, pump.start_c, pump.hours_per_week)


def _whole(tag: str) -> Pump | None:
    jobs = Prefetch("jobs", _jobs())
    pumps = Pump.objects.select_related("sheet")
    return pumps.prefetch_related(jobs, "sheet__revisions", "meter__by", "lubricated__by").filter(tag=tag).first()


_LINES = 40
"""How many readings of a meter, and how many times oil and grease, a pump's page shows."""


def _name(user: User) -> str:
    return user.get_full_name() or user.username


def _replaced(row: MeterReading) -> str:
    if row.old_last is None:
        return ""
    return f"meter replaced: the old one ended at {row.old_last} h, this one began at {row.new_first} h"


def _entered(pump: Pump, mark: DecimalMark) -> PumpEntered:
    def typed(value: float | None, unit: str) -> str:
        return "" if value is None else f"{value:.6g} {unit}".replace(".", mark.sign, 1).strip()

    revision = next(iter(pump.sheet.revisions.all()), None)
    rows = read_sheet(revision.content).rows if revision else ()
    return PumpEntered(
        version=pump.version,
        sheet=pump.sheet.slug,
        material=pump.material,
        materials=list(dict.fromkeys(row.material for row in rows)),
        liquid=pump.liquid,
        medium=pump.medium,
        media=[NamedResponse(key, one.name) for key, one in MEDIA.items()],
        viscosity=pump.viscosity_typed,
        temperature=typed(pump.temperature_c, "C"),
        casing=typed(pump.casing_c, "C"),
        density=typed(pump.density_kg_m3, "kg/m3"),
        start=typed(pump.start_c, "C"),
        hot=typed(pump.hot_c, "C"),
        pressure=typed(pump.pressure_bar, "bar"),
        speed=typed(pump.speed_r_min, "r/min"),
        hazards=pump.hazards,
        overhaul_every="" if pump.overhaul_every_h is None else str(pump.overhaul_every_h),
        hours_per_week=typed(pump.hours_per_week, ""),
        build=pump.build,
    )


def _date(one: Due) -> dt.date | None:
    return dt.date.fromordinal(one.day) if one.day is not None else None
