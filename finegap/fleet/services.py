"""Changing the fleet."""

from __future__ import annotations

from dataclasses import dataclass, field

from django.contrib.auth.models import User
from django.db import transaction

from finegap.core.build.elastomers import MEDIA
from finegap.core.errors import FieldError
from finegap.core.quantities import Dimension, Sign, parse, parse_hours
from finegap.core.sheet import read_sheet
from finegap.fleet.duty import read_density, read_range, read_temperature, settle_viscosity
from finegap.fleet.models import Pump
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
        )
        settle_viscosity(pump)
        pump.save()
        return pump
