"""Numbers as people write them: decimal marks, groups of thousands, fractions.

A works states its decimal mark. One mark of the other kind before exactly three digits (``1,750`` in a works that writes a point)
has two meanings, and neither is taken: the person is asked. SI writes groups with a space (SI brochure, 5.4.4); an apostrophe is
common practice, no source.
"""

from __future__ import annotations

import re
import unicodedata
from dataclasses import dataclass
from enum import Enum
from fractions import Fraction

from finegap.core.errors import FieldError


class DecimalMark(Enum):
    """The decimal mark a works writes; the value is how its settings name it."""

    POINT = "point"
    COMMA = "comma"

    @property
    def sign(self) -> str:
        """The mark itself."""
        return "." if self is DecimalMark.POINT else ","

    @property
    def other(self) -> str:
        """The mark of the other kind, which may stand between thousands."""
        return "," if self is DecimalMark.POINT else "."


MARKS = tuple(mark.value for mark in DecimalMark)
"""The marks by the names settings give them."""


@dataclass(frozen=True)
class Meaning:
    """One way to read digits: the number, and how it is written so that nobody can read it otherwise."""

    number: Fraction
    written: str


_SPACES = " \u00a0\u2007\u2009\u202f"
_APOSTROPHES = "'’"
_TOKEN = re.compile(
    rf"""(?P<sign>[-+−]?)[{_SPACES}]*
        (?: (?P<whole>\d+)(?:[{_SPACES}]+|-)(?P<mixed>\d+/\d+) | (?P<fraction>\d+/\d+)
          | (?P<decimal>(?:\d|[.,]\d)(?:[\d.,]|[{_SPACES}{_APOSTROPHES}](?=\d))*)(?:[eE](?P<power>[-+]?\d{{1,2}}))? )
        [{_SPACES}]*(?P<rest>.*)$""",
    re.VERBOSE | re.DOTALL | re.ASCII,
)


@dataclass(frozen=True)
class Numeral:
    """The number at the head of what was typed: its meanings (one, or two that a person has to choose from), and what follows."""

    meanings: tuple[Meaning, ...]
    rest: str


def spelled_out(text: str) -> str:
    """Fractions in one character (``1½``) as digits: ``1 1/2``."""
    one = lambda sign: f" {unicodedata.normalize('NFKC', sign[0]).replace('⁄', '/')}"  # noqa: E731
    return re.sub("[¼-¾⅐-⅞]", one, text).replace("⁄", "/").lstrip()


def read_numeral(text: str, mark: DecimalMark, field: str, expected: str) -> Numeral:
    """Read the number at the head of a text.

    Parameters
    ----------
    text : str
        What was typed, without blanks around it.
    mark : Mark
        The decimal mark in force where it was typed.
    field, expected : str
        For errors.

    Raises
    ------
    FieldError
        No number, a fraction with zero below the line, groups that are not of three, or two decimal marks.
    """
    text = spelled_out(text)
    match = _TOKEN.match(text)
    if not match:
        raise FieldError(field, f"“{text}” is not a number.", expected)
    rest = match["rest"].strip()
    if rest[:1] in {"_", ".", ","} or rest[:1].isdigit():
        problem = "has an underscore in it." if rest.startswith("_") else "has more than one decimal mark."
        raise FieldError(field, f"“{text}” {problem}", expected)
    if match["decimal"]:
        meanings = _decimal(match["decimal"], mark, text, field, expected)
        scale = Fraction(10) ** int(match["power"] or 0)
        meanings = tuple(Meaning(m.number * scale, m.written + (f"e{match['power']}" if match["power"] else "")) for m in meanings)
    else:
        try:
            number = Fraction(match["fraction"] or match["mixed"]) + int(match["whole"] or 0)
        except ZeroDivisionError:
            raise FieldError(field, "a fraction cannot have zero below the line.", expected) from None
        meanings = (Meaning(number, text[: len(text) - len(match["rest"])].strip()),)
    if match["sign"] in {"-", "−"}:
        meanings = tuple(Meaning(-m.number, f"-{m.written.lstrip('-−')}") for m in meanings)
    return Numeral(meanings, rest)


def _decimal(digits: str, mark: DecimalMark, text: str, field: str, expected: str) -> tuple[Meaning, ...]:
    apart = {c for c in digits if not c.isdigit() and c not in ".,"}
    if apart:
        # Groups by blanks or apostrophes leave no doubt what a point or comma after them is.
        shape = "|".join(rf"\d{{1,3}}(?:{re.escape(c)}\d{{3}})+(?:[.,]\d*)?" for c in apart)
        if not re.fullmatch(shape, digits, re.ASCII):
            raise FieldError(field, f"“{text}” is not in groups of three digits.", expected)
        return (_meaning(re.sub(rf"[{_SPACES}{_APOSTROPHES}]", "", digits).replace(",", "."), mark),)
    points, commas = digits.count("."), digits.count(",")
    if points and commas:
        decimal = max(".,", key=digits.rfind)
        group = "," if decimal == "." else "."
        if not re.fullmatch(rf"\d{{1,3}}(?:{re.escape(group)}\d{{3}})+{re.escape(decimal)}\d*", digits):
            raise FieldError(field, f"“{text}” has more than one decimal mark.", expected)
        return (_meaning(digits.replace(group, "").replace(decimal, "."), mark),)
    if points + commas > 1:
        if mark.sign in digits or not re.fullmatch(r"\d{1,3}(?:[.,]\d{3})+", digits):
            raise FieldError(field, f"“{text}” has more than one decimal mark.", expected)
        return (_meaning(re.sub("[.,]", "", digits), mark),)
    decimal_meaning = _meaning(digits.replace(",", "."), mark)
    if mark.other in digits and re.fullmatch(r"[1-9]\d{0,2}[.,]\d{3}", digits):
        return (decimal_meaning, _meaning(re.sub("[.,]", "", digits), mark))
    return (decimal_meaning,)


def _meaning(digits: str, mark: DecimalMark) -> Meaning:
    return Meaning(Fraction(digits.rstrip(".") or "0"), digits.replace(".", mark.sign))
