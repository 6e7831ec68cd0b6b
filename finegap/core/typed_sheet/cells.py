"""Reading one field of a sheet as people write it, into the value the file holds; and the other way round.

Ranges: “100-500”, “100 to 500 SSU”, “up to 90”, “>= 750”, “750 and up”, “all”, “12.70 ±0.02”, “12.70 +0.02 -0.01”, or one figure.
Lists: by commas, semicolons or blanks. A text keeps the digits it was typed with: how fine it is printed says how fine it counts.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from finegap.core.errors import Ambiguous, FieldError, Suggestion
from finegap.core.numerals import DecimalMark, read_numeral
from finegap.core.quantities import parse, parse_number, two_meanings
from finegap.core.sheet_parts import OPEN_HIGH, OPEN_LOW
from finegap.core.typed_sheet.asks import Ask, Kind, Many
from finegap.core.units import EXAMPLES

LONGEST = 2000
_MOST = 60
"""More values than this no field lists."""
_NUMBER = r"[-−]?\s?(?:\d[\d.,'’ /]*|[.,]\d+)"
_LESS = r"up to|to|max\.?|at most|below|under|less than|<=|=<|≤|<"
_MORE = r"from|min\.?|at least|above|over|more than|>=|=>|≥|>"
_UP_TO = re.compile(rf"^(?:{_LESS})\s*(.+)$|^(.+?)\s*(?:max\.?|and (?:below|less|lower|under)|or less)$", re.I)
_FROM = re.compile(rf"^(?:{_MORE})\s*(.+)$|^(.+?)\s*(?:min\.?|and (?:up|above|more|over|higher)|or more|\+)$", re.I)
_ALL = re.compile(r"^(?:all|any|every|no limit|—|–|-|\*)$", re.I)
_EITHER_SIDE = re.compile(rf"^(?P<size>{_NUMBER})\s*(?:±|\+\s?/\s?[-−]|\+[-−])\s*(?P<by>.+)$")
_TWO_SIDES = re.compile(
    rf"^(?P<size>{_NUMBER})\s+(?P<one>[-+−]\s?{_NUMBER})[\s/]+(?P<other>[-+−]?\s?{_NUMBER})\s*(?P<unit>[^\d]*)$"
)
_BETWEEN = re.compile(r"\s+(?:to|bis|\.{2,3}|…)\s+|\s*(?:\.{2,3}|…|–|—|÷)\s*|(?<=[^\s\-−+<>=])\s*-\s*(?=[-−]?\s?[\d.,])", re.I)
_FORMULA = re.compile(r"[=@\t\r]")


@dataclass(frozen=True)
class How:
    """The unit of a bare number and the decimal mark it was typed with; ``column`` when it is the unit of a whole column."""

    unit: str | None
    mark: DecimalMark
    column: bool = False


def read_cell(ask: Ask, text: str, how: How, path: str) -> Any:
    """What a field holds, for the file.

    Raises
    ------
    FieldError
        It is not what is asked for; ``field`` is ``path``.
    Ambiguous
        It has two meanings.
    """
    text = " ".join(text.split())
    if len(text) > LONGEST:
        raise FieldError(path, "it is too long.", f"Expected up to {LONGEST} letters.")
    if _FORMULA.match(text):
        raise FieldError(path, "the text begins like a formula.", "Expected what the manual prints.")
    if ask.many is Many.RANGE:
        return list(_range(ask, text, how, path))
    if ask.many is Many.LIST:
        return _list(ask, text, how, path)
    if ask.many is Many.COUNTS:
        return _counts(text, path)
    return _value(ask, text, how, path)


def _value(ask: Ask, text: str, how: How, path: str) -> Any:
    if ask.kind is Kind.QUANTITY:
        return _quantity(ask, text, how, path)
    if ask.kind is Kind.NUMBER:
        number = parse_number(text, path, ask.low, ask.high, ask.whole, how.mark)
        return int(number) if number.is_integer() else number
    if ask.kind is Kind.YES:
        return _yes(text, path)
    if ask.kind is Kind.DAY:
        if not re.fullmatch(r"\d{4}-\d{2}-\d{2}", text):
            raise FieldError(path, f"“{text}” is not a day.", "Expected it as 2026-03-31.")
        return text
    if ask.numbered and re.match(r"[\d.,]", text):
        return parse_number(text, path, 0.01, 300, mark=how.mark)
    if ask.choices:
        return _chosen(ask, text, path)
    if len(text) > ask.longest:
        raise FieldError(path, "it is too long.", f"Expected up to {ask.longest} letters.")
    return text


def _quantity(ask: Ask, text: str, how: How, path: str) -> str:
    """The text with its unit and a decimal point, once it has been read as a quantity."""
    assert ask.dimension is not None
    expected = f"Expected {ask.dimension.value} such as {EXAMPLES[ask.dimension]}."
    quantity = parse(text, ask.dimension, path, how.unit, mark=how.mark)
    numeral = read_numeral(text, how.mark, path, expected)
    if len(numeral.meanings) > 1:
        raise two_meanings(path, text, numeral, quantity.unit)
    if how.unit and how.column and numeral.rest and (named := parse(f"100 {how.unit}", ask.dimension, path).unit) != quantity.unit:
        problem = f"the column is in {named}, and this says {quantity.unit}."
        raise FieldError(path, problem, f"Expected {named}, or another unit for the whole column.")
    digits = numeral.meanings[0].written.replace(how.mark.sign, ".")
    return f"{digits} {numeral.rest or how.unit}"


def _range(ask: Ask, text: str, how: How, path: str) -> tuple[Any, Any]:
    if ask.open_ends:
        if _ALL.match(text):
            return OPEN_LOW, OPEN_HIGH
        for shape, low in ((_UP_TO, False), (_FROM, True)):
            met = shape.match(text)
            if met:
                end = _value(ask, (met[1] or met[2]).strip(), how, path)
                return (end, OPEN_HIGH) if low else (OPEN_LOW, end)
    about = _EITHER_SIDE.match(text) or _TWO_SIDES.match(text)
    if about and ask.kind is Kind.QUANTITY:
        return _with_tolerance(ask, about, how, path)
    if met := re.match(r"^(\d+)-(\d+/\d+)(\D*)$", text):
        both = tuple(Suggestion(one, one) for one in (f"{met[1]} {met[2]}{met[3]}", f"{met[1]} to {met[2]}{met[3]}"))
        raise Ambiguous(path, f"“{text}” is one size, or two.", f"Is it {both[0].typed} or {both[1].typed}?", both)
    ends = _BETWEEN.split(text)
    if len(ends) == 1:
        return (one := _value(ask, text, how, path)), one
    if len(ends) != 2:
        raise FieldError(path, f"“{text}” is no range.", "Expected two ends, such as 0.10-0.20, or one figure.")
    first, last = (end.strip() for end in ends)
    if ask.kind is Kind.QUANTITY and not _unit_of(first) and _unit_of(last):
        first = f"{first} {_unit_of(last)}"
    return _value(ask, first, how, path), _value(ask, last, how, path)


def _unit_of(text: str) -> str:
    """What follows the number in a text."""
    return re.sub(rf"^{_NUMBER}", "", text).strip()


def _with_tolerance(ask: Ask, about: re.Match[str], how: How, path: str) -> tuple[str, str]:
    """A size with its tolerance, as its two limits, to as many digits as the finer of both has."""
    groups = about.groupdict()
    if "by" in groups:
        unit, by = _unit_of(groups["by"]), re.match(_NUMBER, groups["by"].strip())
        if by is None:
            raise FieldError(path, f"“{about[0]}” is no size with its tolerance.", "Expected it as 12.70 ±0.02.")
        deviations = [f"-{by[0]}", by[0]]
    else:
        unit, deviations = groups["unit"], sorted((groups["one"], groups["other"]), key=lambda one: _plain(one, how, path))
    size = _plain(groups["size"], how, path)
    decimals = max(_decimals(one, how) for one in (groups["size"], *deviations))
    ends = (f"{size + _plain(one, how, path):.{decimals}f}".replace(".", how.mark.sign) for one in deviations)
    low, high = (_value(ask, f"{end} {unit}".strip(), how, path) for end in ends)
    return low, high


def _plain(text: str, how: How, path: str) -> float:
    numeral = read_numeral(text.replace(" ", "").replace("−", "-"), how.mark, path, "Expected a number.")
    if len(numeral.meanings) > 1:
        raise two_meanings(path, text, numeral)
    return float(numeral.meanings[0].number)


def _decimals(text: str, how: How) -> int:
    return len(text.strip().partition(how.mark.sign)[2])


def _list(ask: Ask, text: str, how: How, path: str) -> list[Any]:
    apart = r"[;\n]" if ";" in text else r"[,\n]" if how.mark is DecimalMark.POINT else r"[;\n]"
    found = [one.strip() for one in re.split(apart, text) if one.strip()]
    if ask.kind is Kind.CHOICE and ";" not in text and _choice(ask, text) is not None:
        found = [text]  # a name may have a comma of its own
    if len(found) == 1 and ask.kind in (Kind.QUANTITY, Kind.NUMBER) and not re.search(r"\d/\d", text):
        found = re.findall(r"[-−]?[\d.,]+(?:\s+[^\d\s]+)?", text) if " " in text else found
    if len(found) > _MOST:
        raise FieldError(path, f"{len(found)} values are more than it has.", f"Expected up to {_MOST}.")
    if ask.kind is Kind.QUANTITY and found and (unit := _unit_of(found[-1])):
        found = [one if _unit_of(one) else f"{one} {unit}" for one in found]
    return [_value(ask, one, how, path) for one in found]


def _counts(text: str, path: str) -> dict[str, int]:
    """How many of each: “A-1, 2 × B-4”."""
    counts: dict[str, int] = {}
    for one in filter(None, (part.strip() for part in re.split(r"[;,\n]", text))):
        last = re.match(r"^(\S.*?)\s*[×*x]\s*(\d{1,2})$", one, re.I)
        first = re.match(r"^(\d{1,2})\s*(?:×|\*|x|of)\s*(\S.*)$", one, re.I)
        name, count = (last[1], last[2]) if last else (first[2], first[1]) if first else (one, "1")
        if name in counts or int(count) < 1 or re.search(r"^\s*[×*]|[×*]\s*$", name):
            raise FieldError(path, f"“{one[:40]}” is not clear.", "Expected part numbers, such as: A-1, 2 × B-4.")
        counts[name] = int(count)
    return counts


def _yes(text: str, path: str) -> bool:
    if text.casefold() in ("yes", "y", "x", "true", "1"):
        return True
    if text.casefold() in ("no", "n", "false", "0"):
        return False
    raise FieldError(path, f"“{text[:20]}” is neither.", "Expected yes or no.")


def _choice(ask: Ask, text: str) -> tuple[str, str] | None:
    """The choice a text names: by key, by name, or by its number on the drawing."""
    said = text.casefold()
    for key, name in ask.choices.items():
        number, _, words = name.partition(" ")
        if said in (key.casefold(), name.casefold()) or (number.isdigit() and said in (number, words.casefold())):
            return key, name
    return None


def _chosen(ask: Ask, text: str, path: str) -> str:
    """One of the choices; of a text that only has suggestions, anything else as well."""
    found = _choice(ask, text)
    if found:
        return found[0] if ask.kind is Kind.CHOICE or found[0] == found[1] else text
    if ask.kind is Kind.TEXT:
        return text
    raise FieldError(path, f"“{text[:40]}” is not among them.", f"Expected one of: {', '.join(ask.choices.values())}.")


def written(ask: Ask, value: Any) -> str:
    """A value of the file as it would be typed, every quantity with its unit and a decimal point."""
    if ask.many is Many.RANGE:
        low, high = value
        if ask.open_ends and low == OPEN_LOW:
            return "all" if high == OPEN_HIGH else f"up to {_one(ask, high)}"
        if ask.open_ends and high == OPEN_HIGH:
            return f"{_one(ask, low)} and up"
        return _one(ask, low) if low == high else f"{_one(ask, low)} to {_one(ask, high)}"
    if ask.many is Many.LIST:
        # By name, as a person reads them; a name has no semicolon.
        return "; ".join(ask.choices.get(one, "") or _one(ask, one) if ask.kind is Kind.CHOICE else _one(ask, one) for one in value)
    if ask.many is Many.COUNTS:
        return "; ".join(name if n == 1 else f"{n} × {name}" for name, n in value.items())
    return _one(ask, value)


def _one(ask: Ask, value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, Mapping):
        return str(value.get("name", ""))
    if ask.kind is Kind.NUMBER:
        return f"{value:g}" if abs(value) < 1e6 else str(value)
    return str(value)


_WITH_UNIT = re.compile(r"^([-−]?(?:\d[\d.]*|\.\d+)) (\S.*)$")


def units_in(text: str) -> set[str]:
    """The units of the numbers in a written value; “” for one that is not a plain number and a unit."""
    found = set()
    for part in text.split("; "):
        for end in re.sub(r"^up to | and up$", "", part).split(" to "):
            met = _WITH_UNIT.match(end)
            if end != "all":
                found.add(met[2] if met else "")
    return found


def without_unit(text: str, unit: str) -> str:
    """A written value whose unit stands over its column."""
    return text.replace(f" {unit}", "")
