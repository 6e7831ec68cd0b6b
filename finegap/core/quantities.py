"""What a person types <-> one internal unit."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from enum import Enum
from fractions import Fraction

from finegap.core.errors import Ambiguous, FieldError, Suggestion
from finegap.core.numerals import DecimalMark, Meaning, Numeral, read_numeral, spelled_out
from finegap.core.saybolt import from_furol, from_saybolt, saybolt_seconds
from finegap.core.units import BY_SPELLING, EXAMPLES, FLOATS, LOWEST, SAYBOLT, UNITS, Dimension, spelled


class AllowedSign(Enum):
    """Which signs make sense for a quantity."""

    ANY = "any"
    NOT_NEGATIVE = "zero or more"
    POSITIVE = "more than zero"


_LONGEST = 40


@dataclass(frozen=True)
class Quantity:
    """A quantity in the internal unit of its dimension, with the text it came from and the unit it was read in.

    ``understood`` is how it was taken where the text alone has two meanings and only one of them could be.
    """

    value: float
    dimension: Dimension
    typed: str
    unit: str
    understood: str = ""

    @property
    def said(self) -> str:
        """As typed, with the unit it was read in where none was typed: it stays true in any unit system."""
        return said(self.typed, self.unit)


def understood(quantity: Quantity) -> str:
    """What was typed with its unit and, where it had two meanings, as it was taken."""
    return quantity.said + (f" (read as {quantity.understood})" if quantity.understood else "")


def said(typed: str, unit: str) -> str:
    """What was typed, with its unit where it carries none."""
    return typed if re.search(r"[^\d\s.,/eE+−'’-]", spelled_out(typed)) else f"{typed} {unit}"


def parse(
    text: str,
    dimension: Dimension,
    field: str,
    default_unit: str | None = None,
    sign: AllowedSign = AllowedSign.ANY,
    mark: DecimalMark = DecimalMark.POINT,
    possible: Callable[[float], bool] | None = None,
) -> Quantity:
    """Read what a person typed.

    Parameters
    ----------
    text : str
        Number and unit; the number with decimal mark and groups, or a fraction (``1 23/32 in``).
    dimension : Dimension
        What is expected.
    field : str
        Name used in errors.
    default_unit : str, optional
        Unit of a bare number. Without it a bare number is refused.
    sign : Sign
        Which signs are possible.
    mark : Mark
        The decimal mark in force where it was typed.
    possible : callable, optional
        Whether a value in the internal unit can be at all: of two meanings it takes the only one that can.

    Returns
    -------
    Quantity
        Value in the internal unit (mm, deg, N.m, C, mm2/s, bar).

    Raises
    ------
    FieldError
        Not a number, wrong dimension, unknown unit, impossible sign, outside what can exist.
    Ambiguous
        Two meanings, both or neither possible; the suggestions are both.
    """
    expected = f"Expected {dimension.value} such as {EXAMPLES[dimension]}."
    cleaned = text.strip()
    if not cleaned:
        raise FieldError(field, "nothing was entered.", expected)
    if len(cleaned) > _LONGEST:
        raise FieldError(field, "that is too long for a number.", expected)
    numeral = read_numeral(cleaned, mark, field, expected)
    to_internal, unit_name = _converter(numeral.rest, dimension, default_unit, field, expected, mark)
    chosen = _chosen(numeral, to_internal, possible)
    if chosen is None:
        raise two_meanings(field, cleaned, numeral, unit_name)
    value = to_internal(chosen.number)
    _check_possible(value, chosen.number, dimension, sign, field, expected)
    understood = f"{chosen.written} {unit_name}" if len(numeral.meanings) > 1 else ""
    return Quantity(value, dimension, cleaned, unit_name, understood)


def _chosen(numeral: Numeral, to_internal: Callable[[Fraction], float], possible: Callable[[float], bool] | None) -> Meaning | None:
    if len(numeral.meanings) == 1:
        return numeral.meanings[0]
    if possible is None:
        return None
    could = [meaning for meaning in numeral.meanings if possible(to_internal(meaning.number))]
    return could[0] if len(could) == 1 else None


def split_at(text: str) -> tuple[str, str]:
    """A value and the temperature it is for: “300 SUS @ 100 F”, “46 cSt at 40 C”; the second empty where none is said."""
    value, _, at = re.sub(r"\s*@\s*|\s+at\s+", "\0", f"{text} ", count=1, flags=re.IGNORECASE).partition("\0")
    return value.strip(), at.strip()


def is_saybolt(text: str) -> bool:
    """Whether a value is in Saybolt seconds, which lean on the temperature they were counted at."""
    return spelled(re.sub(r"^[-+\d.,\s'’/eE]+", "", text)) in SAYBOLT


def two_meanings(field: str, typed: str, numeral: Numeral, unit: str = "") -> Ambiguous:
    """The question for a number with two meanings."""
    written = [f"{meaning.written} {unit}".strip() for meaning in numeral.meanings]
    names = ("with a decimal mark", "with a mark between thousands")
    suggestions = tuple(Suggestion(text, f"{text}: {name}") for text, name in zip(written, names, strict=True))
    return Ambiguous(field, f"“{typed}” can be read in two ways.", f"Is it {' or '.join(written)}?", suggestions)


def from_internal(value: float, dimension: Dimension, unit_name: str) -> float:
    """Express an internal value in a named unit (``from_internal(25.4, LENGTH, "in")`` is 1.0)."""
    if dimension is Dimension.VISCOSITY and unit_name == "SSU":
        return saybolt_seconds(value)
    offset, factor = FLOATS[dimension, unit_name]
    return (value - offset) / factor


def unit_of(text: str, dimension: Dimension) -> str:
    """The unit of a dimension a text is a spelling of; empty where it is none."""
    unit = BY_SPELLING.get((dimension, spelled(text)))
    return unit.name if unit else ""


def internal_unit(dimension: Dimension) -> str:
    """The unit of values of a dimension inside the application."""
    return next(unit.name for unit in UNITS[dimension] if unit.factor == 1 and unit.offset == 0)


def unit_names(dimension: Dimension) -> tuple[str, ...]:
    """Canonical unit names of a dimension, the internal one first."""
    return tuple(u.name for u in UNITS[dimension])


def _converter(
    rest: str, dimension: Dimension, default_unit: str | None, field: str, expected: str, mark: DecimalMark
) -> tuple[Callable[[Fraction], float], str]:
    scale, at = split_at(rest or default_unit or "")
    spelling = spelled(rest or default_unit or "")
    if not spelling:
        raise FieldError(field, "the unit is missing.", expected)
    if dimension is Dimension.VISCOSITY:
        seconds = SAYBOLT.get(spelled(scale))
        if seconds:
            at_c = parse(at, Dimension.TEMPERATURE, field, mark=mark).value if at else None
            back = from_saybolt if seconds == "SSU" else from_furol
            return (lambda number: back(float(number), at_c, field)), seconds
        if (Dimension.DYNAMIC, spelling) in BY_SPELLING:
            raise FieldError(
                field,
                f"{rest} is a dynamic viscosity.",
                "Expected mm2/s; divide by the density (mPa.s over kg/L gives mm2/s).",
            )
    unit = BY_SPELLING.get((dimension, spelling))
    if unit:
        return (lambda number: float(number * unit.factor + unit.offset)), unit.name
    other = next((d for d in Dimension if (d, spelling) in BY_SPELLING), None)
    if other:
        raise FieldError(field, f"“{rest}” makes this {other.value}.", expected)
    raise FieldError(field, f"“{rest}” is not a unit known here.", expected)


def _check_possible(value: float, number: Fraction, dimension: Dimension, sign: AllowedSign, field: str, expected: str) -> None:
    if number < 0 and sign is not AllowedSign.ANY:
        raise FieldError(field, "it cannot be negative.", expected)
    if number == 0 and sign is AllowedSign.POSITIVE:
        raise FieldError(field, "it must be more than zero.", expected)
    lowest = LOWEST.get(dimension)
    if lowest is not None and value < lowest:
        raise FieldError(field, f"nothing is colder than {lowest} C.", expected)
    if abs(value) > 1e9:
        raise FieldError(field, "that is larger than anything on a pump.", expected)


def parse_number(
    text: str, field: str, low: float, high: float, whole: bool = False, mark: DecimalMark = DecimalMark.POINT
) -> float:
    """Read a plain number: a friction, a share, a count.

    Raises
    ------
    FieldError
        Not a number, with a unit, outside ``low`` to ``high``, or not whole where it has to be.
    Ambiguous
        Two meanings, unless it counts whole.
    """
    expected = f"Expected {'a whole number' if whole else 'a number'} from {low:g} to {high:g}."
    cleaned = text.strip()
    if not cleaned:
        raise FieldError(field, "nothing was entered.", expected)
    if len(text) > _LONGEST:
        raise FieldError(field, f"“{cleaned[:_LONGEST]}” is not a number.", expected)
    numeral = read_numeral(cleaned, mark, field, expected)
    if numeral.rest:
        raise FieldError(field, f"“{cleaned}” is not a number.", expected)
    # What counts whole has no decimal mark: between two meanings it is the mark between thousands.
    could = numeral.meanings[-1:] if whole else numeral.meanings
    if len(could) > 1:
        raise two_meanings(field, cleaned, numeral)
    if not Fraction(str(low)) <= could[0].number <= Fraction(str(high)) or (whole and could[0].number.denominator != 1):
        raise FieldError(field, f"“{cleaned}” cannot be.", expected)
    return float(could[0].number)


_MOST_HOURS = 9_999_999


def parse_hours(typed: str, field: str, least: int = 0, mark: DecimalMark = DecimalMark.POINT) -> int | None:
    """Running hours as read from a meter: whole, groups of thousands as people write them; ``None`` where nothing is typed.

    Raises
    ------
    FieldError
        Anything else, fewer than ``least``, or more than a meter shows.
    """
    if not typed.strip():
        return None
    expected = "Expected digits, such as 14380; or leave it empty."
    try:
        count = int(parse_number(typed, field, least, _MOST_HOURS, whole=True, mark=mark))
    except FieldError:
        raise FieldError(field, f"“{typed}” is no count of hours.", expected) from None
    if re.search(r"[^\d\s.,'’]", typed) or re.search(rf"{re.escape(mark.sign)}\d*$", typed.strip()):
        raise FieldError(field, f"“{typed}” is no count of hours.", expected)
    return count
