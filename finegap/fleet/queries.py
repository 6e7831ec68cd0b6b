"""Reading the fleet."""

from __future__ import annotations

from django.db.models import Prefetch

from finegap.bench.models import Job
from finegap.core.families import FAMILIES
from finegap.core.showing import Amount, Kind, Units
from finegap.fleet.models import Pump
from finegap.fleet.shapes import PumpJob, PumpLine, PumpSymptom


def pump_lines(units: Units) -> list[PumpLine]:
    """Every pump with its jobs, by tag, in a fixed number of SQL queries."""
    jobs = Prefetch("jobs", Job.objects.select_related("sign_off").order_by("-number"))
    return [_line(pump, units) for pump in Pump.objects.select_related("sheet").prefetch_related(jobs, "sheet__revisions")]


def _line(pump: Pump, units: Units) -> PumpLine:
    jobs = [_job(job, units) for job in pump.jobs.all()]
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
        viscosity=Amount(pump.viscosity_mm2_s, Kind.VISCOSITY).text(units),
        temperature=Amount(pump.temperature_c, Kind.TEMPERATURE).text(units),
        pressure=Amount(pump.pressure_bar, Kind.PRESSURE).text(units),
        speed=f"{pump.speed_r_min:g} r/min",
        on_bench=next((j.number for j in jobs if j.signed_at is None), None),
        symptoms=[PumpSymptom(s.key, s.name) for s in family.symptoms] if family else [],
        jobs=jobs,
    )


def _job(job: Job, units: Units) -> PumpJob:
    signature = getattr(job, "sign_off", None)
    gap = None
    if signature is not None and signature.record[units.value]["setting"]["tries"]:
        gap = signature.record[units.value]["setting"]["tries"][-1]["gap"]
    return PumpJob(job.number, job.opened_at, job.reason, signature.at if signature else None, gap)
