"""Units a person may type, each with its exact factor to the internal one, and the spellings it goes by.

Factors are exact fractions: inch 25.4 mm, pound-force 4.4482216152605 N (NIST SP 811, appendix B).
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from enum import Enum
from fractions import Fraction


@dataclass(frozen=True)
class Unit:
    """A unit a person may type: exact factor and offset to the internal unit, and the spellings it goes by."""

    name: str
    factor: Fraction
    spellings: tuple[str, ...]
    offset: Fraction = Fraction(0)


class Dimension(Enum):
    """What kind of quantity is expected; the value is how an error says it."""

    LENGTH = "a length"
    ANGLE = "an angle"
    TORQUE = "a torque"
    TEMPERATURE = "a temperature"
    VISCOSITY = "a kinematic viscosity"
    PRESSURE = "a pressure"
    FORCE = "a force"
    STRESS = "a stress"
    MASS = "a mass"
    FLOW = "a flow"
    DYNAMIC = "a dynamic viscosity"
    VOLUME = "a volume"
    POWER = "a power"
    SPEED = "a speed"
    DENSITY = "a density"


_INCH = Fraction(254, 10)
_LBF = Fraction("4.4482216152605")
_FOOT_M = Fraction("0.3048")
_SQ_INCH_MM2 = Fraction("645.16")
_ZERO_F = Fraction(-160, 9)
_GALLON = _INCH**3 * 231 / 10**6

_IMPERIAL_GALLON = Fraction("4.54609")
_IMPERIAL = tuple(f"{who} {what}" for who in ("imp", "imperial", "uk") for what in ("gal", "gallon", "gallons"))


def _both_ways(forces: tuple[str, ...], arms: tuple[str, ...]) -> tuple[str, ...]:
    """Force times arm as people write it, either first."""
    return tuple(f"{one}.{other}" for force in forces for arm in arms for one, other in ((force, arm), (arm, force)))


UNITS: dict[Dimension, tuple[Unit, ...]] = {
    Dimension.LENGTH: (
        Unit("mm", Fraction(1), ("mm", "millimetre", "millimeter", "millimetres", "millimeters")),
        Unit("in", _INCH, ("in", "inch", "inches", '"')),
        Unit("thou", _INCH / 1000, ("thou", "mil", "mils", "thousandth", "thousandths")),
        Unit("um", Fraction(1, 1000), ("um", "micron", "microns", "micrometre", "micrometer", "micrometres", "micrometers")),
        Unit("uin", _INCH / 10**6, ("uin", "microinch", "microinches")),
        Unit("cm", Fraction(10), ("cm",)),
        Unit("m", Fraction(1000), ("m", "metre", "meter")),
    ),
    Dimension.ANGLE: (
        Unit("deg", Fraction(1), ("deg", "degree", "degrees", "°")),
        Unit("turn", Fraction(360), ("turn", "turns", "rev")),
    ),
    Dimension.TORQUE: (
        Unit("N.m", Fraction(1), ("n.m", "nm", "newton metre", "newton metres")),
        Unit("lbf.ft", _LBF * _FOOT_M, _both_ways(("lbf", "lb", "lbs", "pound", "pounds"), ("ft", "foot", "feet"))),
        Unit("lbf.in", _LBF * _FOOT_M / 12, _both_ways(("lbf", "lb", "lbs", "pound", "pounds"), ("in", "inch", "inches"))),
        Unit("kgf.m", Fraction("9.80665"), ("kgf.m", "kgm")),
    ),
    Dimension.TEMPERATURE: (
        Unit("C", Fraction(1), ("c", "°c", "degc", "deg c", "degrees c", "celsius")),
        Unit("F", Fraction(5, 9), ("f", "°f", "degf", "deg f", "degrees f", "fahrenheit"), _ZERO_F),
        Unit("K", Fraction(1), ("k", "kelvin"), Fraction("-273.15")),
    ),
    Dimension.VISCOSITY: (
        Unit("mm2/s", Fraction(1), ("mm2/s", "cst", "centistokes")),
        Unit("St", Fraction(100), ("st", "stokes")),
        Unit("m2/s", Fraction(10**6), ("m2/s",)),
    ),
    Dimension.PRESSURE: (
        Unit("bar", Fraction(1), ("bar",)),
        Unit("psi", _LBF / _SQ_INCH_MM2 * 10, ("psi", "lbf/in2")),
        Unit("kPa", Fraction(1, 100), ("kpa",)),
        Unit("MPa", Fraction(10), ("mpa",)),
    ),
    Dimension.FORCE: (
        Unit("N", Fraction(1), ("n", "newton", "newtons")),
        Unit("kN", Fraction(1000), ("kn",)),
        Unit("lbf", _LBF, ("lbf", "lb", "lbs")),
        Unit("kgf", Fraction("9.80665"), ("kgf", "kp")),
    ),
    Dimension.STRESS: (
        Unit("MPa", Fraction(1), ("mpa", "n/mm2")),
        Unit("GPa", Fraction(1000), ("gpa",)),
        Unit("psi", _LBF / _SQ_INCH_MM2, ("psi",)),
        Unit("ksi", _LBF / _SQ_INCH_MM2 * 1000, ("ksi",)),
    ),
    Dimension.MASS: (
        Unit("g", Fraction(1), ("g", "gram", "grams", "gramme", "grammes")),
        Unit("kg", Fraction(1000), ("kg",)),
        Unit("oz", Fraction("28.349523125"), ("oz", "ounce", "ounces")),
    ),
    Dimension.FLOW: (
        Unit("L/min", Fraction(1), ("l/min", "lpm", "litres/min", "liters/min")),
        Unit("m3/h", Fraction(1000, 60), ("m3/h",)),
        Unit("gpm", _GALLON, ("gpm", "gal/min", "us gal/min", "usgpm")),
        Unit("imp.gal/min", _IMPERIAL_GALLON, ("imp gal/min", "imperial gal/min", "uk gal/min", "igpm", "imp gpm", "uk gpm")),
    ),
    Dimension.DYNAMIC: (
        Unit("mPa.s", Fraction(1), ("mpa.s", "mpas", "cp", "centipoise")),
        Unit("Pa.s", Fraction(1000), ("pa.s", "pas")),
        Unit("P", Fraction(100), ("p", "poise")),
    ),
    Dimension.VOLUME: (
        Unit("L", Fraction(1), ("l", "litre", "liter", "litres", "liters")),
        Unit("mL", Fraction(1, 1000), ("ml", "cm3", "cc")),
        Unit("gal", _GALLON, ("gal", "us gal", "gallon", "gallons", "us gallon", "us gallons")),
        Unit("imp.gal", _IMPERIAL_GALLON, _IMPERIAL),
        Unit("m3", Fraction(1000), ("m3",)),
        Unit("in3", _INCH**3 / 10**6, ("in3", "cu in")),
    ),
    Dimension.POWER: (
        Unit("kW", Fraction(1), ("kw", "kilowatt", "kilowatts")),
        Unit("W", Fraction(1, 1000), ("w", "watt", "watts")),
        Unit("hp", _LBF * _FOOT_M * 550 / 1000, ("hp", "bhp", "horsepower")),
    ),
    Dimension.SPEED: (Unit("r/min", Fraction(1), ("r/min", "rpm", "1/min", "rev/min", "min-1")),),
    Dimension.DENSITY: (
        Unit("kg/m3", Fraction(1), ("kg/m3",)),
        Unit("kg/L", Fraction(1000), ("kg/l", "g/cm3", "g/ml")),
    ),
}

_ALIKE = str.maketrans(
    {"µ": "u", "μ": "u", "º": "°", "˚": "°", "℃": "°c", "℉": "°f", "²": "2", "³": "3", "^": "", "″": '"', "”": '"', "“": '"'}
    | dict.fromkeys("·⋅∙*‐‑–", ".")
)


def spelled(text: str) -> str:
    """A unit as it is looked up: in small letters, with one sign for those that look alike and one between its words."""
    plain = re.sub(r"['’′]{2}", '"', text.strip().lower().translate(_ALIKE))
    return re.sub(r"[.\s-]+", ".", plain).strip(".")


BY_SPELLING = {(dim, spelled(s)): unit for dim, units in UNITS.items() for unit in units for s in unit.spellings}
FLOATS = {(dim, u.name): (float(u.offset), float(u.factor)) for dim, units in UNITS.items() for u in units}
SAYBOLT = {
    spelled(text): scale
    for scale, texts in (
        ("SSU", ("ssu", "sus", "saybolt", "saybolt universal", "saybolt universal seconds")),
        ("SSF", ("ssf", "sfs", "saybolt furol", "furol", "saybolt furol seconds")),
    )
    for text in texts
}
EXAMPLES = {
    Dimension.LENGTH: '"0.13 mm", ".005 in", "5 thou"',
    Dimension.ANGLE: '"17.8 deg"',
    Dimension.TORQUE: '"90 N.m", "66 lbf.ft"',
    Dimension.TEMPERATURE: '"38 C", "100 F"',
    Dimension.VISCOSITY: '"62 mm2/s", "300 SSU", "300 SSU at 100 F"',
    Dimension.PRESSURE: '"6 bar", "90 psi"',
    Dimension.FORCE: '"12 kN", "2700 lbf"',
    Dimension.STRESS: '"110 GPa", "150 MPa"',
    Dimension.MASS: '"9.8 g", "0.35 oz"',
    Dimension.FLOW: '"12 L/min", "3.2 gpm"',
    Dimension.DYNAMIC: '"460 mPa.s", "460 cP"',
    Dimension.VOLUME: '"10 L", "2.5 gal"',
    Dimension.POWER: '"4.2 kW", "5.5 hp"',
    Dimension.SPEED: '"320 r/min"',
    Dimension.DENSITY: '"870 kg/m3"',
}
LOWEST = {Dimension.TEMPERATURE: -273.15}
"""What nothing is below, in the internal unit."""
