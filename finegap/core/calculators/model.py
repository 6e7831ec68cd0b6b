"""A sum that needs no job: what it asks for, how that is read, and its lines.

Inputs come as typed; a bare number is in the unit system in use.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from finegap.core.entry import Entry, bare_unit
from finegap.core.errors import FieldError
from finegap.core.formatting import Units
from finegap.core.numerals import DecimalMark
from finegap.core.quantities import AllowedSign, parse, parse_number
from finegap.core.result_lines import ResultLine
from finegap.core.units import Dimension


@dataclass(frozen=True)
class Input:
    """One thing asked for: a quantity, a plain number between bounds, one of some choices, or plain text.

    An ``optional`` one may stay empty, a ``long`` one holds a list.
    """

    key: str
    name: str
    dimension: Dimension | None = None
    sign: AllowedSign = AllowedSign.POSITIVE
    number: tuple[float, float] | None = None
    whole: bool = False
    choices: tuple[tuple[str, str], ...] = ()
    usual: str = ""
    optional: bool = False
    long: bool = False

    def bare(self, units: Units) -> str:
        """The unit of a number typed without one; empty for what is no quantity."""
        return bare_unit(self.dimension, units) if self.dimension else ""


class TypedInputs:
    """What was typed, read with the names and units of a calculator's inputs."""

    def __init__(self, inputs: tuple[Input, ...], typed: Mapping[str, str], entry: Entry) -> None:
        self._inputs = {one.key: one for one in inputs}
        unknown = next((key for key in typed if key not in self._inputs), None)
        if unknown:
            raise FieldError(unknown, "it is not asked for.", f"Expected any of: {', '.join(self._inputs)}.")
        self._typed, self.entry, self.units = typed, entry, entry.units

    def text(self, key: str) -> str:
        """As typed, or the usual where nothing was."""
        one = self._inputs[key]
        text = self._typed.get(key, "").strip() or one.usual
        if one.choices and text not in dict(one.choices):
            raise FieldError(one.name, f"“{text}” is not a choice." if text else "nothing was chosen.",
                             f"Expected one of: {', '.join(dict(one.choices))}.")  # fmt: skip
        return text

    def value(self, key: str) -> float:
        """In the internal unit."""
        one = self._inputs[key]
        if one.number is not None:
            return parse_number(self.text(key), one.name, *one.number, whole=one.whole, mark=self._mark(key))
        assert one.dimension is not None
        return parse(self.text(key), one.dimension, one.name, one.bare(self.units), one.sign, self._mark(key)).value

    def _mark(self, key: str) -> DecimalMark:
        """The mark it was typed with; what is usual is written with a point."""
        return self.entry.mark if self._typed.get(key, "").strip() else DecimalMark.POINT

    def maybe(self, key: str) -> float | None:
        """In the internal unit, or ``None`` where nothing was typed."""
        return self.value(key) if self.text(key) else None


@dataclass(frozen=True)
class Calculator:
    """A sum: what it is called, what it asks for, and how it comes to its lines."""

    key: str
    name: str
    inputs: tuple[Input, ...]
    calculate: Callable[[TypedInputs], tuple[ResultLine, ...]]

    def run(self, typed: Mapping[str, str], entry: Entry) -> tuple[ResultLine, ...]:
        """Its lines, for what was typed with these units and decimal mark.

        Raises
        ------
        FieldError
            What was typed cannot be used; the field is named as it is on screen.
        """
        return self.calculate(TypedInputs(self.inputs, typed, entry))


def mm(key: str, name: str, sign: AllowedSign = AllowedSign.POSITIVE, usual: str = "", optional: bool = False) -> Input:
    """A length that is asked for."""
    return Input(key, name, Dimension.LENGTH, sign=sign, usual=usual, optional=optional)
