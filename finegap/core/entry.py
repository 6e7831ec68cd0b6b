"""How a person types: the unit system and the decimal mark in force with the keystroke, and what is usual in a field.

One place decides what a bare number means. It is the unit shown beside the field, in either system.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from finegap.core.errors import Suggestion, Unlikely
from finegap.core.formatting import Units
from finegap.core.numerals import DecimalMark
from finegap.core.quantities import AllowedSign, Quantity, from_internal, parse, parse_hours, parse_number, unit_names
from finegap.core.units import Dimension

BARE: Mapping[Dimension, tuple[str, str]] = {
    Dimension.LENGTH: ("mm", "in"),
    Dimension.ANGLE: ("deg", "deg"),
    Dimension.TORQUE: ("N.m", "lbf.ft"),
    Dimension.TEMPERATURE: ("C", "F"),
    Dimension.VISCOSITY: ("mm2/s", "mm2/s"),
    Dimension.DYNAMIC: ("mPa.s", "mPa.s"),
    Dimension.PRESSURE: ("bar", "psi"),
    Dimension.FORCE: ("kN", "lbf"),
    Dimension.STRESS: ("MPa", "ksi"),
    Dimension.MASS: ("g", "oz"),
    Dimension.FLOW: ("L/min", "gpm"),
    Dimension.VOLUME: ("L", "gal"),
    Dimension.POWER: ("kW", "hp"),
    Dimension.SPEED: ("r/min", "r/min"),
    Dimension.DENSITY: ("kg/m3", "kg/m3"),
}
"""The unit of a bare number, metric and inch. The same units are shown beside the fields."""


SIGNS: Mapping[str, str] = {
    "C": "°C", "F": "°F", "deg": "°", "N.m": "N·m", "lbf.ft": "lbf·ft", "mm2/s": "mm²/s", "mPa.s": "mPa·s", "kg/m3": "kg/m³",
    "gpm": "US gal/min", "gal": "US gal",
}  # fmt: skip
"""How a unit is written beside a field, where its name here is plainer."""


def bare_unit(dimension: Dimension, units: Units) -> str:
    """The unit of a bare number in a unit system."""
    if units is Units.THOU and dimension is Dimension.LENGTH:
        return "thou"
    return BARE[dimension][units.system is Units.IN]


@dataclass(frozen=True)
class Field:
    """A quantity that is asked for: its name on screen, what it is, and between which values it usually lies (internal unit)."""

    key: str
    name: str
    dimension: Dimension
    usual: tuple[float, float] | None = None
    sign: AllowedSign = AllowedSign.NOT_NEGATIVE


def _fields(*fields: Field) -> dict[str, Field]:
    return {field.key: field for field in fields}


FIELDS = _fields(
    Field("temperature", "temperature", Dimension.TEMPERATURE, (-40, 300), AllowedSign.ANY),
    Field("casing", "casing temperature", Dimension.TEMPERATURE, (-40, 300), AllowedSign.ANY),
    Field("start", "coldest start", Dimension.TEMPERATURE, (-40, 150), AllowedSign.ANY),
    Field("hot", "hottest running", Dimension.TEMPERATURE, (-40, 350), AllowedSign.ANY),
    Field("pressure", "pressure", Dimension.PRESSURE, (0, 60)),
    Field("speed", "speed", Dimension.SPEED, (5, 4000), AllowedSign.POSITIVE),
    Field("density", "density", Dimension.DENSITY, (500, 2000), AllowedSign.POSITIVE),
    Field("part", "part temperature", Dimension.TEMPERATURE, (-10, 120), AllowedSign.ANY),
    Field("lash", "play (lash)", Dimension.LENGTH, (0, 1)),
    Field("lash_arc", "arc before the rotor follows", Dimension.LENGTH, (0, 60)),
    Field("arc", "arc", Dimension.LENGTH, (0, 300)),
    Field("end_play", "end play", Dimension.LENGTH, (0, 1)),
    Field("flow", "flow", Dimension.FLOW, (0, 5000)),
    Field("discharge", "pressure", Dimension.PRESSURE, (0, 60)),
    Field("power", "power", Dimension.POWER, (0, 200), AllowedSign.POSITIVE),
    Field("running", "temperature", Dimension.TEMPERATURE, (-40, 300), AllowedSign.ANY),
    Field("bucket", "bucket", Dimension.VOLUME, (0.1, 1000), AllowedSign.POSITIVE),
    Field("box", "box temperature", Dimension.TEMPERATURE, (-20, 150), AllowedSign.ANY),
    Field("torque", "torque", Dimension.TORQUE, None, AllowedSign.POSITIVE),
    Field("wrench_length", "wrench, length", Dimension.LENGTH, (100, 1500), AllowedSign.POSITIVE),
    Field("adapter", "adapter, length", Dimension.LENGTH, (0, 500)),
    Field("angle", "adapter, angle", Dimension.ANGLE, (0, 180), AllowedSign.ANY),
    Field("thickness", "thickness", Dimension.LENGTH, (0.01, 3), AllowedSign.POSITIVE),
    Field("ten", "ten strokes", Dimension.MASS, (1, 100), AllowedSign.POSITIVE),
)
"""Every quantity that is typed at the bench, in the fleet or the toolbox, but for readings of parts, whose sheet says what is
usual, and viscosities. What is usual is common practice, no source; family and sheet may say otherwise."""

VISCOSITY_USUAL = (0.2, 500_000.0)
"""Kinematic viscosities that are pumped [mm2/s]: from hot solvents to bitumen (common practice, no source)."""


@dataclass(frozen=True)
class Entry:
    """The unit system and decimal mark with which something was typed; ``meant`` when the person says that the odd is meant."""

    units: Units = Units.MM
    mark: DecimalMark = DecimalMark.POINT
    meant: bool = False

    def unit(self, dimension: Dimension) -> str:
        """The unit of a bare number."""
        return bare_unit(dimension, self.units)

    def read(self, key: str, typed: str, usual: tuple[float, float] | None = None, name: str = "") -> Quantity:
        """Read what was typed into a field of ``FIELDS``; ``usual`` is the sheet's or the family's, ``name`` another than its own.

        Raises
        ------
        FieldError
            Not such a quantity.
        Ambiguous
            A number with two meanings.
        Unlikely
            Outside what is usual, unless the person has said that it is meant.
        """
        field = FIELDS[key]
        quantity = self.quantity(typed, field.dimension, name or field.name, field.sign)
        self.check_usual(quantity, name or field.name, usual or field.usual)
        return quantity

    def quantity(
        self,
        typed: str,
        dimension: Dimension,
        name: str,
        sign: AllowedSign = AllowedSign.ANY,
        possible: Callable[[float], bool] | None = None,
    ) -> Quantity:
        """Read a quantity; what is usual is not asked."""
        return parse(typed, dimension, name, self.unit(dimension), sign, self.mark, possible)

    def number(self, typed: str, name: str, low: float, high: float, whole: bool = False) -> float:
        """Read a plain number."""
        return parse_number(typed, name, low, high, whole, self.mark)

    def hours(self, typed: str, name: str, least: int = 0) -> int | None:
        """Read running hours."""
        return parse_hours(typed, name, least, self.mark)

    def check_usual(self, quantity: Quantity, name: str, usual: tuple[float, float] | None) -> None:
        """Ask about a quantity outside what is usual.

        Raises
        ------
        Unlikely
            With the other units under which the same number would be usual.
        """
        if self.meant or usual is None or usual[0] <= quantity.value <= usual[1]:
            return
        low, high = (_said(value, quantity.dimension, quantity.unit) for value in usual)
        raise Unlikely(
            name,
            f"{quantity.said} is unusual here.",
            f"Usual: {low} to {high}. Is it meant?",
            self._other_units(quantity, name, usual),
        )

    def _other_units(self, quantity: Quantity, name: str, usual: tuple[float, float]) -> tuple[Suggestion, ...]:
        if quantity.said == quantity.typed:
            return ()  # the unit was typed: it is not guessed at
        found = []
        for unit in unit_names(quantity.dimension):
            other = f"{quantity.typed} {unit}"
            if unit != quantity.unit and usual[0] <= parse(other, quantity.dimension, name, mark=self.mark).value <= usual[1]:
                found.append(Suggestion(other, f"{other}"))
        return tuple(found)


def _said(value: float, dimension: Dimension, unit: str) -> str:
    return f"{from_internal(value, dimension, unit):.4g} {unit}"
