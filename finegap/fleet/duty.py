"""Reading a duty as typed: the same for a pump of the fleet and for a job on the bench."""

from __future__ import annotations

from finegap.core.gap.sweep import Sweep
from finegap.core.gap.viscosity import read_viscosity
from finegap.core.quantities import Dimension, parse, parse_number
from finegap.fleet.models import Duty


def read_temperature(typed: str, field: str) -> float:
    """A temperature in C."""
    return parse(typed, Dimension.TEMPERATURE, field, "C").value


def read_range(typed: str, field: str) -> float | None:
    """An end of a duty's range in C; nothing where nothing is typed."""
    return read_temperature(typed, field) if typed.strip() else None


def read_density(typed: str) -> float | None:
    """A density in kg/m3; nothing where nothing is typed."""
    digits = typed.replace("kg/m3", "").replace("kg/m³", "").strip()
    return parse_number(digits, "density", 300, 3000) if digits else None


def settle_viscosity(duty: Duty) -> None:
    """Read what was typed at the pumping temperature, and make sure of it over the whole range.

    Raises
    ------
    FieldError
        A viscosity that cannot be read, or a range without the pumping temperature, or so wide that the liquid is not known.
    """
    known = read_viscosity(duty.viscosity_typed, duty.temperature_c, duty.density_kg_m3)
    duty.viscosity_mm2_s = known.pumping_mm2_s
    start = duty.temperature_c if duty.start_c is None else duty.start_c
    hot = duty.temperature_c if duty.hot_c is None else duty.hot_c
    sweep = Sweep(known.pumping_mm2_s, duty.temperature_c, start, hot, known.liquid)
    sweep.at(start)
    sweep.at(hot)
