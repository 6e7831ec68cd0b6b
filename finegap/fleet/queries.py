"""Reading the fleet."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence

from django.contrib.auth.models import User
from django.db.models import Count, OuterRef, QuerySet, Subquery, Window
from django.db.models.functions import RowNumber
from django.utils import timezone

from finegap.api.shown import NamedResponse
from finegap.bench.models import SIGNED, Job
from finegap.core.assembly.elastomers import MEDIA
from finegap.core.families import FAMILIES
from finegap.core.families.builds import OF_THE_JOB
from finegap.core.formatting import Amount, Kind, Shown
from finegap.core.numerals import DecimalMark
from finegap.core.sheet import read_sheet
from finegap.core.wear.lubrication import Due, Metered, due, hours_a_week, together
from finegap.fleet.responses import (
    DueResponse,
    EarlierResponse,
    LubricatedResponse,
    MeasuredPart,
    MeterResponse,
    MovedResponse,
    PumpChoices,
    PumpEntered,
    PumpJob,
    PumpLine,
    PumpOption,
    PumpPage,
)
from finegap.formats.days import written
from finegap.pumps import meter
from finegap.pumps.history import measured
from finegap.pumps.models import EarlierOverhaul, MeterReading, Pump
from finegap.sheets.models import Sheet, SheetRevision
from finegap.works.queries import works_settings

_OVERHAULS = 3
"""How many signed overhauls of a pump a list says, the newest."""


def pumps() -> QuerySet[Pump]:
    """Every pump by tag, with the job it is on the bench for."""
    on_bench = Job.objects.filter(pump=OuterRef("pk"), ended="").values("number")[:1]
    return Pump.objects.select_related("sheet").annotate(on_bench=Subquery(on_bench))


def pump_lines(rows: Sequence[Pump]) -> list[PumpLine]:
    """Pumps as a list says them, in a fixed number of SQL queries; no record is read."""
    signed = _overhauls(rows)
    return [_line(pump, signed.get(pump.pk, [])) for pump in rows]


def _overhauls(pumps: Sequence[Pump]) -> dict[int, list[Job]]:
    """The newest signed jobs of each pump, with their signatures, and how many there are in ``of``."""
    newest = Window(RowNumber(), partition_by="pump", order_by="-number")
    every = Window(Count("pk"), partition_by="pump")
    counted = Job.objects.filter(pump__in=pumps, ended=SIGNED).annotate(nth=newest, of=every).filter(nth__lte=_OVERHAULS)
    of = dict(counted.values_list("pk", "of"))
    # Their signatures are read once it is known which: each has a record of some kilobytes in its row.
    said = ("number", "pump", "sign_off__at", "sign_off__gap_mm", "sign_off__gap_in")
    jobs = Job.objects.filter(pk__in=of).select_related("sign_off").only(*said).prefetch_related("amendments")
    found: dict[int, list[Job]] = {}
    for job in jobs.order_by("-number"):
        job.of = of[job.pk]  # type: ignore[attr-defined]
        found.setdefault(job.pump_id, []).append(job)
    return found


def _line(pump: Pump, signed: Sequence[Job]) -> PumpLine:
    return PumpLine(
        tag=pump.tag,
        service=pump.service,
        location=pump.location,
        serial=pump.serial,
        sheet=pump.sheet.title,
        slug=pump.sheet.slug,
        material=pump.material,
        liquid=pump.liquid,
        viscosity=Amount(pump.viscosity_mm2_s, Kind.VISCOSITY),
        temperature=Amount(pump.temperature_c, Kind.TEMPERATURE),
        pressure=Amount(pump.pressure_bar, Kind.PRESSURE),
        speed=f"{pump.speed_r_min:g} r/min",
        on_bench=pump.on_bench,  # type: ignore[attr-defined]
        retired=pump.retired,
        signed=signed[0].of if signed else 0,  # type: ignore[attr-defined]
        jobs=[_job(job) for job in signed],
    )


def _job(job: Job) -> PumpJob:
    signature = job.sign_off
    gap = Shown(signature.gap_mm, signature.gap_in) if signature.gap_mm else None
    void = any(one.void for one in job.amendments.all())
    return PumpJob(job.number, signature.at, "void" if void else "", gap)


def symptoms_of(tag: str) -> list[NamedResponse] | None:
    """Why a pump of this family may come in; ``None`` where there is no such pump."""
    pump = Pump.objects.filter(tag=tag).first()
    if pump is None:
        return None
    key = SheetRevision.objects.filter(sheet=pump.sheet_id).values_list("content__family", flat=True).first()
    family = FAMILIES.get(key or "")
    return [NamedResponse(s.key, s.name) for s in family.symptoms] if family else []


def pump_page(tag: str) -> PumpPage | None:
    """A pump with what falls due; ``None`` where there is no such pump."""
    pump = _whole(tag)
    if pump is None:
        return None
    found = due_of(pump)
    rate = hours_a_week(meter.readings(pump), pump.hours_per_week)
    return PumpPage(
        line=pump_lines([pump])[0],
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
        earlier=[_earlier(one) for one in list(reversed(pump.earlier.all()))[:_LINES]],
        moves=[
            MovedResponse(one.id, one.was, one.to, one.day, _name(one.by), one.note, one.struck_reason)
            for one in list(reversed(pump.moves.all()))[:_LINES]
        ],
        measured=_measured(pump),
        visits=[
            f"{written(dt.date.fromordinal(group[0].day or 1))}: {', '.join(one.plan.name.lower() for one in group)}, in one visit"
            for group in together(found)
            if len(group) > 1
        ],
    )


def _earlier(one: EarlierOverhaul) -> EarlierResponse:
    sizes = list(one.sizes.all())
    return EarlierResponse(
        one.id, one.day, one.hours, len(sizes), sum(size.changed for size in sizes), one.source, _name(one.by), one.struck_reason
    )


def _measured(pump: Pump) -> list[MeasuredPart]:
    """The parts a size from before this record can be written down of."""
    revision = next(iter(pump.sheet.revisions.all()), None)
    if revision is None:
        return []
    parts = measured(read_sheet(revision.content).family_of(pump.build))
    return [MeasuredPart(one.key, one.number, one.name) for one in parts.values()]


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
    beside = ("sheet__revisions", "meter__by", "lubricated__by", "earlier__by", "earlier__sizes", "moves__by")
    return pumps().prefetch_related(*beside).filter(tag=tag).first()


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

    return PumpEntered(
        version=pump.version,
        material=pump.material,
        choices=_choices(pump.sheet),
        liquid=pump.liquid,
        medium=pump.medium,
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


def pump_choices(slug: str) -> PumpChoices | None:
    """What a pump of a sheet is chosen from, by the sheet's latest revision; ``None`` where there is no such sheet."""
    sheet = Sheet.objects.filter(slug=slug).prefetch_related("revisions").first()
    return _choices(sheet) if sheet else None


def _choices(sheet: Sheet) -> PumpChoices:
    revision = next(iter(sheet.revisions.all()), None)
    spec = read_sheet(revision.content) if revision else None
    # What the sheet's numbers are for is not the pump's to choose, and how far a job goes is the job's.
    options = [o for o in spec.family.options if not o.is_convention and o.key not in ("means", OF_THE_JOB)] if spec else []
    return PumpChoices(
        sheet=sheet.slug,
        title=sheet.title,
        materials=list(dict.fromkeys(row.material for row in spec.rows)) if spec else [],
        media=[NamedResponse(key, one.name) for key, one in MEDIA.items()],
        options=[
            PumpOption(
                o.key,
                o.name,
                [NamedResponse(key, words) for key, words in o.choices.items()],
                spec.build.get(o.key, "") if spec and spec.build.get(o.key) in o.choices else next(iter(o.choices)),
                {key: list(choices) for key, choices in o.when.items()},
            )
            for o in options
        ],
    )


def _date(one: Due) -> dt.date | None:
    return dt.date.fromordinal(one.day) if one.day is not None else None
