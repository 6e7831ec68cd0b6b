"""Reading a duty as typed: the same for a pump of the fleet and for a job on the bench."""

from __future__ import annotations

from collections.abc import Mapping

from finegap.core.entry import Entry
from finegap.core.errors import Unlikely
from finegap.core.formatting import Units
from finegap.core.gap.duty_range import DutyRange
from finegap.core.gap.viscosity import Viscosity, read_viscosity
from finegap.core.numerals import DecimalMark
from finegap.core.sheet import SpecSheet
from finegap.pumps.models import DutyFields

Usual = Mapping[str, tuple[float, float]]
"""What is usual in a field, by its key; a field that is not named keeps its own."""


def usual_of(sheet: SpecSheet) -> Usual:
    """What is usual for the pumps of a sheet: the sheet's word before the family's."""
    return {**sheet.family.usual, **sheet.usual}


def read_maybe(entry: Entry, key: str, typed: str, usual: Usual) -> float | None:
    """A quantity in its internal unit; nothing where nothing is typed."""
    return entry.read(key, typed, usual.get(key)).value if typed.strip() else None


def settle_viscosity(duty: DutyFields, typed: str | None, entry: Entry) -> None:
    """Read the viscosity at the pumping temperature, and make sure of it over the whole range.

    ``typed`` is what was typed just now; with ``None`` what was typed before is read again, with the units and mark of that time.

    Raises
    ------
    FieldError
        A viscosity that cannot be read, or a range without the pumping temperature, or so wide that the liquid is not known.
    Unlikely
        A range so far outside the liquid's two points that its viscosity there is a guess.
    """
    if typed is not None:
        duty.viscosity_typed, duty.viscosity_units, duty.viscosity_mark = typed.strip(), entry.units.system.value, entry.mark.value
    known = read_again(duty, meant=typed is None or entry.meant, bare_at="C" if typed is None else None)
    duty.viscosity_mm2_s = known.pumping_mm2_s
    start = duty.temperature_c if duty.start_c is None else duty.start_c
    hot = duty.temperature_c if duty.hot_c is None else duty.hot_c
    duty_range = DutyRange(known.pumping_mm2_s, duty.temperature_c, start, hot, known.liquid)
    duty_range.at(start)
    duty_range.at(hot)
    if duty_range.far is not None and not entry.meant:
        raise Unlikely("viscosity", duty_range.far.render(entry.units), "Is it meant all the same?")


def read_again(duty: DutyFields, meant: bool = True, bare_at: str | None = "C") -> Viscosity:
    """The viscosity of a duty, as it was typed."""
    entry = Entry(Units(duty.viscosity_units), DecimalMark(duty.viscosity_mark), meant)
    # Before core 0.5 a bare temperature in it was degrees Celsius.
    return read_viscosity(duty.viscosity_typed, duty.temperature_c, duty.density_kg_m3, entry=entry, bare_at=bare_at)
