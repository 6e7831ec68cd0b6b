"""Changing the fleet."""

from __future__ import annotations

import datetime as dt
import uuid
from dataclasses import dataclass, field

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from finegap.core.build.elastomers import MEDIA
from finegap.core.errors import FieldError
from finegap.core.quantities import Dimension, Sign, parse, parse_hours
from finegap.core.sheet import read_sheet
from finegap.fleet.duty import read_density, read_range, read_temperature, settle_viscosity
from finegap.fleet.models import Lubricated, MeterReading, Pump
from finegap.sheets.models import Sheet


@dataclass(frozen=True)
class NewPump:
    """A pump as typed. ``casing`` is the casing's temperature; empty means that of the liquid. Hours are running hours."""

    tag: str
    service: str
    location: str
    serial: str
    sheet: str
    material: str
    liquid: str
    viscosity: str
    temperature: str
    pressure: str
    speed_r_min: float
    casing: str = ""
    density: str = ""
    start: str = ""
    hot: str = ""
    hazards: str = ""
    medium: str = ""
    overhaul_every: str = ""
    hours_per_week: float | None = None
    wet: bool = False
    build: dict[str, str] = field(default_factory=dict)


def add_pump(actor: User, new: NewPump) -> Pump:
    """Add a pump to the fleet.

    Raises
    ------
    FieldError
        A quantity that cannot be, an unknown sheet, a material its clearance table does not know, a tag taken.
    """
    sheet = Sheet.objects.filter(slug=new.sheet).first()
    revision = sheet.revisions.first() if sheet else None
    if sheet is None or revision is None:
        raise FieldError("sheet", f"there is no sheet {new.sheet}.", "Expected one from Sheets.")
    spec = read_sheet(revision.content)
    spec.family_of(new.build)
    materials = list(dict.fromkeys(row.material for row in spec.rows))
    if new.material not in materials:
        known = ", ".join(materials)
        raise FieldError("material", f"the clearance table has no row for {new.material or 'it'}.", f"Expected: {known}.")
    if new.medium and new.medium not in MEDIA:
        raise FieldError("kind of liquid", f"“{new.medium}” is not in the table.", f"Expected one of: {', '.join(MEDIA)}.")
    temperature = read_temperature(new.temperature, "temperature")
    with transaction.atomic():
        if Pump.objects.filter(tag=new.tag).exists():
            raise FieldError("tag", f"{new.tag} is taken.", "Expected a tag of its own.")
        pump = Pump(
            tag=new.tag,
            service=new.service,
            location=new.location,
            serial=new.serial,
            sheet=sheet,
            material=new.material,
            liquid=new.liquid,
            viscosity_typed=new.viscosity,
            temperature_c=temperature,
            casing_c=read_temperature(new.casing, "casing") if new.casing else temperature,
            density_kg_m3=read_density(new.density),
            start_c=read_range(new.start, "coldest start"),
            hot_c=read_range(new.hot, "hottest running"),
            pressure_bar=parse(new.pressure, Dimension.PRESSURE, "pressure", "bar", Sign.NOT_NEGATIVE).value,
            speed_r_min=new.speed_r_min,
            hazards=new.hazards,
            medium=new.medium,
            build=new.build,
            overhaul_every_h=parse_hours(new.overhaul_every, "overhaul every", least=1),
            hours_per_week=new.hours_per_week,
            wet=new.wet,
        )
        settle_viscosity(pump)
        pump.save()
        return pump


def read_meter(actor: User, reading_id: uuid.UUID, tag: str, hours: str, day: str = "") -> None:
    """Record the hours meter of a pump, today or on a day that is past.

    Raises
    ------
    FieldError
        No such pump, hours that are no count or less than were read before, a day that is none or still to come.
    """
    with transaction.atomic():
        pump = _pump(tag)
        if MeterReading.objects.filter(id=reading_id).exists():
            return
        count = parse_hours(hours, "hours on the meter")
        if count is None:
            raise FieldError("hours on the meter", "nothing was entered.", "Expected digits, such as 14380.")
        on = _day(day)
        before = pump.meter.filter(day__lte=on).last()
        after = pump.meter.filter(day__gt=on).first()
        if before and count < before.hours:
            problem = f"{before.hours} h were read on {before.day:%d %b %Y}."
            raise FieldError("hours on the meter", problem, "Expected no less; a replaced meter is said on the next job.")
        if after and count > after.hours:
            raise FieldError("hours on the meter", f"{after.hours} h were read on {after.day:%d %b %Y}.", "Expected no more.")
        MeterReading.objects.create(id=reading_id, pump=pump, hours=count, day=on, by=actor, at=timezone.now())


def lubricate(actor: User, record_id: uuid.UUID, tag: str, name: str, hours: str) -> None:
    """Record oil or grease as done, at so many hours.

    Raises
    ------
    FieldError
        No such pump, nothing of that name on its sheet, or hours that are no count.
    """
    with transaction.atomic():
        pump = _pump(tag)
        if Lubricated.objects.filter(id=record_id).exists():
            return
        revision = pump.sheet.revisions.first()
        plans = read_sheet(revision.content).lubrication if revision else ()
        if all(plan.name != name for plan in plans):
            known = ", ".join(plan.name for plan in plans) or "none"
            raise FieldError("name", f"the sheet asks for no “{name}”.", f"Expected one of: {known}.")
        count = parse_hours(hours, "hours on the meter")
        if count is None:
            raise FieldError("hours on the meter", "nothing was entered.", "Expected digits, such as 14380.")
        Lubricated.objects.create(id=record_id, pump=pump, name=name, hours=count, by=actor, at=timezone.now())


def _pump(tag: str) -> Pump:
    pump = Pump.objects.select_related("sheet").filter(tag=tag).first()
    if pump is None:
        raise FieldError("pump", f"there is no pump {tag}.", "Expected a tag from Fleet.")
    return pump


def _day(typed: str) -> dt.date:
    if not typed.strip():
        return timezone.localdate()
    try:
        day = dt.date.fromisoformat(typed.strip())
    except ValueError:
        raise FieldError("day", f"“{typed}” is not a day.", "Expected it as 2026-03-31.") from None
    if day > timezone.localdate():
        raise FieldError("day", "it is still to come.", "Expected today or a day that is past.")
    return day
