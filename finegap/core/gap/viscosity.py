"""Kinematic viscosity at another temperature, from two points of the liquid, and the grades of ISO 3448."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from functools import cached_property

from finegap.core.entry import VISCOSITY_USUAL, Entry
from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Amounts, Kind, Sentence
from finegap.core.quantities import AllowedSign, is_saybolt, parse, split_at, unit_of
from finegap.core.units import Dimension
from finegap.core.working import Given, Working

GRADES = {
    grade: float(grade)
    for grade in (10, 15, 22, 32, 46, 68, 100, 150, 220, 320, 460, 680, 1000, 1500, 2200, 3200)
} | {2: 2.2, 3: 3.2, 5: 4.6, 7: 6.8}  # fmt: skip
"""ISO 3448 viscosity grade to its middle viscosity at 40 C in mm2/s; each reaches 10 % either way. From memory."""

GRADE_C = 40.0
_KELVIN = 273.15
_LEAST, _MOST = 0.21, 2e7
"""Range of ASTM D341 in mm2/s."""

FAR_SHARE = 0.5
"""How far outside its two points a liquid is followed, as a share of what lies between them. Common practice, no source."""


def grade_mm2_s(grade: int) -> float:
    """Middle viscosity of an ISO VG grade at 40 C, mm2/s."""
    if grade not in GRADES:
        raise FieldError("grade", f"there is no ISO VG {grade}.", f"Expected one of: {', '.join(map(str, sorted(GRADES)))}.")
    return GRADES[grade]


def _z(viscosity_mm2_s: float) -> float:
    """The z of ASTM D341: the exponential term is what thin liquids below 2 mm2/s need."""
    v = viscosity_mm2_s
    return v + 0.7 + math.exp(-1.47 - 1.84 * v - 0.51 * v * v)


def _w(viscosity_mm2_s: float) -> float:
    return math.log10(math.log10(_z(viscosity_mm2_s)))


@dataclass(frozen=True)
class Liquid:
    """A liquid by two points: viscosities in mm2/s at temperatures in C (ASTM D341, Walther)."""

    first_mm2_s: float
    first_c: float
    second_mm2_s: float
    second_c: float

    def __post_init__(self) -> None:
        for name, value in (("first viscosity", self.first_mm2_s), ("second viscosity", self.second_mm2_s)):
            if not _LEAST <= value <= _MOST:
                raise FieldError(name, f"{value:g} mm2/s is outside ASTM D341.", f"Expected {_LEAST:g} to {_MOST:g} mm2/s.")
        for name, value in (("first temperature", self.first_c), ("second temperature", self.second_c)):
            if value <= -_KELVIN:
                raise FieldError(name, f"{value:g} °C is absolute zero.", "Expected a temperature of a liquid.")
        if abs(self.first_c - self.second_c) < 1:
            raise FieldError("second temperature", "both points are at one temperature.", "Expected points well apart.")
        if (self.first_mm2_s - self.second_mm2_s) * (self.second_c - self.first_c) <= 0:
            raise FieldError(
                "second viscosity", "it does not get thinner when it warms.", "Expected the thinner one at the warmer."
            )

    @cached_property
    def _line(self) -> tuple[float, float]:
        """A and B of log log z = A - B log T."""
        one, other = math.log10(self.first_c + _KELVIN), math.log10(self.second_c + _KELVIN)
        b = (_w(self.first_mm2_s) - _w(self.second_mm2_s)) / (other - one)
        return _w(self.first_mm2_s) + b * one, b

    def at(self, temperature_c: float) -> float:
        """Viscosity at a temperature, mm2/s.

        Raises
        ------
        FieldError
            So hot or cold that the result leaves the range of ASTM D341.
        """
        a, b = self._line
        if temperature_c <= -_KELVIN:
            raise FieldError("temperature", f"{temperature_c:g} °C is below absolute zero.", "Expected a temperature of a liquid.")
        from scipy.optimize import brentq

        wanted = a - b * math.log10(temperature_c + _KELVIN)
        if not _w(_LEAST) <= wanted <= _w(_MOST):
            words = f"at {temperature_c:g} °C this liquid leaves the range of ASTM D341."
            raise FieldError("temperature", words, f"Expected one where it is between {_LEAST:g} and {_MOST:g} mm2/s.")
        return float(math.exp(brentq(lambda log: _w(math.exp(log)) - wanted, math.log(_LEAST), math.log(_MOST), xtol=1e-13)))

    def where(self, viscosity_mm2_s: float) -> float:
        """Temperature in C at which the liquid has a viscosity: the inverse."""
        a, b = self._line
        return float(10 ** ((a - _w(viscosity_mm2_s)) / b)) - _KELVIN

    def outside_k(self, temperature_c: float) -> float:
        """How far a temperature lies outside the two points, in kelvin; nothing between them."""
        low, high = sorted((self.first_c, self.second_c))
        return max(low - temperature_c, temperature_c - high, 0.0)

    def working(self, temperature_c: float) -> Working:
        """How the viscosity is reached."""
        a, b = self._line
        out = self.outside_k(temperature_c)
        far = Sentence(
            "{out} outside the two points: wax, water or a blend may not follow the line there.",
            {"out": Amount(out, Kind.TEMPERATURE_STEP)},
        )
        return Working(
            "Viscosity at another temperature",
            "log log z = A − B·log T,   z = ν + 0.7 + exp(−1.47 − 1.84·ν − 0.51·ν²)",
            (
                Given("ν₁", "first point", Amount(self.first_mm2_s, Kind.FINE_VISCOSITY)),
                Given("T₁", "at", Amount(self.first_c, Kind.TEMPERATURE)),
                Given("ν₂", "second point", Amount(self.second_mm2_s, Kind.FINE_VISCOSITY)),
                Given("T₂", "at", Amount(self.second_c, Kind.TEMPERATURE)),
                Given("A", "of the line through both, T in kelvin", Amount(a, Kind.FINE_NUMBER)),
                Given("B", "of the line through both", Amount(b, Kind.FINE_NUMBER)),
                Given("T", "temperature asked for", Amount(temperature_c, Kind.TEMPERATURE)),
            ),
            Amount(self.at(temperature_c), Kind.FINE_VISCOSITY),
            "ASTM D341 (from memory); logarithms to base 10",
            (far,) if out > 0 else (),
        )

    def far(self, temperature_c: float) -> Sentence | None:
        """Why its viscosity there is a guess, where it is: too far outside the two points."""
        out, between = self.outside_k(temperature_c), abs(self.second_c - self.first_c)
        if out <= FAR_SHARE * between:
            return None
        words = "At {at} its viscosity is a guess: {out} outside its two points, {between} apart. Ask for a point nearer to it."
        amounts: Amounts = {
            "at": Amount(temperature_c, Kind.TEMPERATURE),
            "out": Amount(out, Kind.TEMPERATURE_STEP),
            "between": Amount(between, Kind.TEMPERATURE_STEP),
        }
        return Sentence(words, amounts)


def kinematic_mm2_s(dynamic_mpa_s: float, density_kg_m3: float) -> float:
    """Kinematic viscosity of a dynamic one in mPa.s (cP) and a density in kg/m3."""
    return dynamic_mpa_s / density_kg_m3 * 1000


_EXPECTED = (
    "Expected it at pumping temperature (62 mm2/s, 300 SSU, 460 cP), or two points of the liquid, "
    "such as: 68 mm2/s at 40 C; 8.6 mm2/s at 100 C. VG 68 is a point at 40 C."
)
_GRADE = re.compile(r"(?:iso\s*)?vg\s*(\d+)", re.IGNORECASE)
_APART = re.compile(r"\s*;\s*|\s+and\s+", re.IGNORECASE)
SAME_K = 0.5
"""Temperatures nearer than this are one. Common practice, no source."""


AS_WRITTEN = Entry()
"""What was stored, or is written in a file: millimetres, Celsius, a decimal point."""


@dataclass(frozen=True)
class Viscosity:
    """What is known of a liquid's viscosity: at pumping temperature [mm2/s], and its two points where they were given."""

    pumping_mm2_s: float
    liquid: Liquid | None = None


def has_points(typed: str) -> bool:
    """Whether what was typed gives two points of the liquid, not one value."""
    return len([part for part in _APART.split(typed.strip()) if part]) > 1


def read_viscosity(
    typed: str,
    pumping_c: float,
    density_kg_m3: float | None = None,
    field: str = "viscosity",
    entry: Entry = AS_WRITTEN,
    bare_at: str | None = None,
) -> Viscosity:
    """Read the viscosity people have.

    Parameters
    ----------
    typed : str
        One value at pumping temperature, or two points with “;” or “and” between them, each with “at” and its temperature.
        Kinematic, Saybolt seconds, a grade of ISO 3448 (at 40 C), or dynamic where the density is known.
    pumping_c : float
        Pumping temperature.
    density_kg_m3 : float, optional
        Density when pumping, for a dynamic viscosity.
    field : str
        Name used in errors.
    entry : Entry
        With which units and decimal mark it was typed.
    bare_at : str, optional
        Unit of the temperature of a point that carries none. Without it such a point is refused: no unit of a temperature stands
        beside the field.

    Raises
    ------
    FieldError
        Nothing that can be read, a dynamic viscosity without density, a temperature without its unit, or one point at a temperature
        that is not pumped at.
    """
    parts = [part for part in _APART.split(typed.strip()) if part]
    points = [_point(part, pumping_c, density_kg_m3, field, entry, bare_at) for part in parts]
    if not points or len(points) > 2:
        raise FieldError(field, "it takes one value, or two points." if points else "nothing was entered.", _EXPECTED)
    if len(points) == 2:
        (first, first_c), (second, second_c) = points
        liquid = Liquid(first, first_c, second, second_c)
        return Viscosity(liquid.at(pumping_c), liquid)
    viscosity, at_c = points[0]
    if abs(at_c - pumping_c) > SAME_K:
        problem = f"it is known at {at_c:g} C alone, and the pump works at {pumping_c:g} C."
        raise FieldError(field, problem, "Expected a second point, such as: VG 68; 8.6 mm2/s at 100 C.")
    return Viscosity(viscosity)


def _point(
    text: str, pumping_c: float, density_kg_m3: float | None, field: str, entry: Entry, bare_at: str | None
) -> tuple[float, float]:
    value, at = split_at(text)
    grade = _GRADE.fullmatch(value.strip())
    if grade:
        if at:
            raise FieldError(field, "a grade is a viscosity at 40 C.", "Expected the grade alone, such as VG 68.")
        return grade_mm2_s(int(grade[1])), GRADE_C
    measured_at = parse(at, Dimension.TEMPERATURE, field, bare_at, mark=entry.mark) if at else None
    at_c = measured_at.value if measured_at else pumping_c
    if not _is_dynamic(value):
        # Saybolt seconds lean a little on the temperature they were counted at.
        whole = f"{value} at {measured_at.said}" if measured_at and is_saybolt(value) else value
        quantity = entry.quantity(whole, Dimension.VISCOSITY, field, AllowedSign.POSITIVE)
        entry.check_usual(quantity, field, VISCOSITY_USUAL)
        return quantity.value, at_c
    dynamic = entry.quantity(value, Dimension.DYNAMIC, field, AllowedSign.POSITIVE).value
    if density_kg_m3 is None:
        raise FieldError(field, "it is a dynamic viscosity, and the density is not known.", "Expected the density, too, or mm2/s.")
    return kinematic_mm2_s(dynamic, density_kg_m3), at_c


def _is_dynamic(text: str) -> bool:
    unit = re.sub(r"^[-+\d.,\s'’/eE]+", "", text.strip()).strip()
    return bool(unit_of(unit, Dimension.DYNAMIC))
