"""How amounts are shown: one place that rounds, in the unit system in use.

Rounding is half away from zero, as on paper: millimetres to 0.01 or 0.001, inches to 0.001 or 0.0001, arcs also as the nearest
sixty-fourth for a steel rule (common practice, no source). What a size is held against is rounded inwards, with as many places
as it takes that nothing shown contradicts the verdict beside it.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from decimal import ROUND_CEILING, ROUND_FLOOR, ROUND_HALF_UP, Decimal
from enum import Enum
from fractions import Fraction

from finegap.core.kept import kept
from finegap.core.quantities import from_internal
from finegap.core.units import Dimension


class Units(Enum):
    """The unit system a screen or a report is shown in. With thousandths all lengths are in them, and the rest as with inches."""

    MM = "mm"
    IN = "in"
    THOU = "thou"

    @property
    def system(self) -> Units:
        """Millimetres or inches: what all but lengths goes by, and what records keep."""
        return Units.MM if self is Units.MM else Units.IN


UNIT_NAMES = tuple(units.value for units in Units)
"""The systems by the names settings and requests give them."""


class Kind(Enum):
    """What an amount is, which settles its unit and its decimals: (dimension, metric, inch)."""

    LENGTH = (Dimension.LENGTH, ("mm", 2, "mm"), ("in", 3, "in"))
    FINE_LENGTH = (Dimension.LENGTH, ("mm", 3, "mm"), ("in", 4, "in"))
    THIN = (Dimension.LENGTH, ("mm", 2, "mm"), ("in", 4, "in"))
    UNCERTAINTY = (Dimension.LENGTH, ("mm", 5, "mm"), ("in", 6, "in"))
    ARC = (Dimension.LENGTH, ("mm", 1, "mm"), ("in", 2, "in"))
    ANGLE = (Dimension.ANGLE, ("deg", 1, "°"), ("deg", 1, "°"))
    FINE_ANGLE = (Dimension.ANGLE, ("deg", 2, "°"), ("deg", 2, "°"))
    TORQUE = (Dimension.TORQUE, ("N.m", 0, "N·m"), ("lbf.ft", 0, "lbf·ft"))
    FINE_TORQUE = (Dimension.TORQUE, ("N.m", 1, "N·m"), ("lbf.ft", 1, "lbf·ft"))
    TEMPERATURE_STEP = (None, ("", 1, "K"), ("", 1, "K"))
    TEMPERATURE = (Dimension.TEMPERATURE, ("C", 0, "°C"), ("F", 0, "°F"))
    VISCOSITY = (Dimension.VISCOSITY, ("mm2/s", 0, "mm²/s"), ("mm2/s", 0, "mm²/s"))
    FINE_VISCOSITY = (Dimension.VISCOSITY, ("mm2/s", 2, "mm²/s"), ("mm2/s", 2, "mm²/s"))
    FLOW = (Dimension.FLOW, ("L/min", 3, "L/min"), ("gpm", 4, "US gal/min"))
    FLOW_ABOUT = (Dimension.FLOW, ("L/min", 1, "L/min"), ("gpm", 2, "US gal/min"))
    POWER = (Dimension.POWER, ("kW", 3, "kW"), ("hp", 3, "hp"))
    VOLUME = (Dimension.VOLUME, ("L", 2, "L"), ("gal", 2, "US gal"))
    PRESSURE = (Dimension.PRESSURE, ("bar", 1, "bar"), ("psi", 0, "psi"))
    FORCE = (Dimension.FORCE, ("kN", 1, "kN"), ("lbf", 0, "lbf"))
    STRESS = (Dimension.STRESS, ("MPa", 1, "MPa"), ("ksi", 2, "ksi"))
    MASS = (Dimension.MASS, ("g", 1, "g"), ("oz", 2, "oz"))
    NUMBER = (None, ("", 2, ""), ("", 2, ""))
    FINE_NUMBER = (None, ("", 4, ""), ("", 4, ""))
    COUNT = (None, ("", 0, ""), ("", 0, ""))
    EXPANSION = (None, ("", 1, "µm/(m·K)"), ("", 1, "µm/(m·K)"))
    PERCENT = (None, ("", 1, "%"), ("", 1, "%"))
    SHARE = (None, ("%", 1, "%"), ("%", 1, "%"))


_BEYOND_MEASURE = 1e9
_CLOSE_UP = {"°", "%", ""}


_DIGITS = 12
"""Digits of a float that are meant; what comes after them is binary, not measured."""


def rounded(value: float, decimals: int, inward: int = 0) -> Decimal:
    """A number to so many decimals of its decimal text: half away from zero, or all of it up (1) or down (-1)."""
    how = {0: ROUND_HALF_UP, 1: ROUND_CEILING, -1: ROUND_FLOOR}[inward]
    return Decimal(f"{value:.{_DIGITS}g}").quantize(Decimal(1).scaleb(-decimals), rounding=how)


def round_half_away(value: float, decimals: int) -> str:
    """A number as paper rounds it, never “-0.00”."""
    return _written(rounded(value, decimals))


def _written(number: Decimal) -> str:
    return f"{abs(number) if number == 0 else number:f}"


@dataclass(frozen=True)
class Amount:
    """A value in its internal unit together with what kind of value it is.

    ``inward`` rounds it up (1) or down (-1) instead of to the nearest; ``places`` are decimals more than its kind has, in mm and
    in inches.
    """

    value: float
    kind: Kind
    inward: int = 0
    places: tuple[int, int] = (0, 0)

    def bare(self, units: Units) -> str:
        """The number alone, rounded for its kind."""
        dimension = self.kind.value[0]
        unit, decimals, _ = system_of(self.kind, units)
        # Nothing on a pump is this large; degrees of freedom are, when repeats agree to the last digit.
        if abs(self.value) >= _BEYOND_MEASURE:
            return "infinite"
        if self.kind is Kind.PERCENT and not 0.05 <= self.value < 99.95:
            return "over 99.9" if self.value > 50 else "under 0.1"
        value = from_internal(self.value, dimension, unit) if dimension else self.value
        more = self.places[0 if units is Units.MM else 1]
        return _written(rounded(value, decimals + more, self.inward))

    def text(self, units: Units) -> str:
        """Number and unit."""
        sign = unit_sign(self.kind, units)
        return f"{self.bare(units)}{'' if sign in _CLOSE_UP else ' '}{sign}"


def unit_sign(kind: Kind, units: Units) -> str:
    """How the unit of a kind is written in a unit system."""
    return system_of(kind, units)[2]


def system_of(kind: Kind, units: Units) -> tuple[str, int, str]:
    """Unit, decimals, and how the unit is written, of a kind in a unit system. Thousandths have the digits inches have."""
    unit, decimals, sign = kind.value[1 if units is Units.MM else 2]
    if units is Units.THOU and unit == "in":
        return "thou", max(decimals - 3, 0), "thou"
    return str(unit), int(decimals), str(sign)


def length(mm: float, fine: bool = False) -> Amount:
    """A length in millimetres as an amount to show."""
    return Amount(mm, Kind.FINE_LENGTH if fine else Kind.LENGTH)


_TAKEN = 0.02
"""Share of a window that rounding its ends inwards may take."""
_MOST_MORE = 5


@dataclass(frozen=True)
class Edges:
    """What sizes are held against, and the sizes, to be shown beside one another."""

    low: Amount | None
    high: Amount | None
    sizes: tuple[Amount, ...]


@kept(8192)
def edges(
    low_mm: float | None,
    high_mm: float | None,
    span_mm: float,
    sizes_mm: Sequence[float] = (),
    fine: bool = False,
    sizes_too: bool = False,
) -> Edges:
    """A minimum, a maximum or both, rounded inwards, and sizes held against them, in mm.

    Parameters
    ----------
    low_mm, high_mm : float or None
        The limits.
    span_mm : float
        What lies between them, or between a limit and the new size: rounding takes at most 2 % of it.
    sizes_mm : sequence of float
        The sizes. Each is shown on the side of each limit it lies on.
    fine : bool
        Show a decimal more.
    sizes_too : bool
        Rounding takes no more than that from the sizes, either.
    """
    kind = Kind.FINE_LENGTH if fine else Kind.LENGTH
    limits = [(mm, way) for mm, way in ((low_mm, 1), (high_mm, -1)) if mm is not None]
    _, (_, in_mm, _), (_, in_inches, _) = kind.value
    taken = _TAKEN * span_mm
    scales = [_Scale(decimals, unit_mm, limits) for decimals, unit_mm in ((in_mm, 1.0), (in_inches, 25.4))]
    mm, inches = (scale.more(sizes_mm, taken, taken if sizes_too else math.inf) for scale in scales)

    def shown(size: float) -> Amount:
        places = (mm, inches) if sizes_too else (scales[0].of_size(size, mm), scales[1].of_size(size, inches))
        return Amount(size, kind, _way(size, limits), places)

    return Edges(
        None if low_mm is None else Amount(low_mm, kind, 1, (mm, inches)),
        None if high_mm is None else Amount(high_mm, kind, -1, (mm, inches)),
        tuple(shown(size) for size in sizes_mm),
    )


@dataclass(frozen=True)
class _Scale:
    """Limits as one unit system shows them: decimals at least, the unit in mm, and each limit with the way it is rounded."""

    decimals: int
    unit_mm: float
    limits: Sequence[tuple[float, int]]

    def _shown(self, mm: float, more: int, way: int) -> Decimal:
        return rounded(mm / self.unit_mm, self.decimals + more, way)

    def _off(self, mm: float, more: int, way: int) -> float:
        return abs(float(self._shown(mm, more, way)) * self.unit_mm - mm)

    def _agrees(self, size: float, of_size: int, more: int) -> bool:
        """Whether a size with so many decimals more stands on its own side of every limit."""
        shown = self._shown(size, of_size, _way(size, self.limits))
        return all(
            ((shown - self._shown(limit, more, way)) * way >= 0) == ((size - limit) * way >= -_SAME_MM)
            for limit, way in self.limits
        )

    def more(self, sizes: Sequence[float], off_limits: float, off_sizes: float) -> int:
        """The fewest decimals more with which limits and sizes do."""

        def does(more: int) -> bool:
            near = all(self._off(limit, more, way) <= off_limits for limit, way in self.limits)
            return near and all(
                self._off(size, more, _way(size, self.limits)) <= off_sizes and self._agrees(size, more, more) for size in sizes
            )

        return next((more for more in range(_MOST_MORE) if does(more)), _MOST_MORE)

    def of_size(self, size: float, more: int) -> int:
        """The fewest decimals more for a size; just at a limit as many as that has."""
        if _way(size, self.limits):
            return more
        return next((few for few in range(more) if self._agrees(size, few, more)), more)


def _way(size_mm: float, limits: Sequence[tuple[float, int]]) -> int:
    """A size just at a limit is shown as the limit is; any other to the nearest."""
    return next((way for limit, way in limits if abs(size_mm - limit) <= _SAME_MM), 0)


def between_edges(low_mm: float, high_mm: float, fine: bool = False) -> Sentence:
    """A range of sizes rounded inwards, without its unit."""
    if low_mm == high_mm:
        return Sentence("{size} to {size}", {"size": Bare(length(low_mm, fine))})
    of = edges(low_mm, high_mm, high_mm - low_mm, (), fine)
    return Sentence("{low} to {high}", {"low": Bare(of.low or length(low_mm)), "high": Bare(of.high or length(high_mm))})


_SAME_MM = 1e-9


def uncertainty(mm: float) -> Amount:
    """A standard uncertainty or guard in a working: enough digits (JCGM 100, 7.2.6) that the sum can be done again by hand."""
    return Amount(mm, Kind.UNCERTAINTY)


def rule_fraction(mm: float) -> str:
    """A length as a steel rule reads it: inches to the nearest sixty-fourth (``18.1`` -> ``23/32``)."""
    sixty_fourths = Fraction(round_half_away(mm / 25.4 * 64, 0)) / 64
    sign, whole = ("-" if sixty_fourths < 0 else ""), abs(sixty_fourths)
    rest = whole - int(whole)
    parts = [str(int(whole))] if int(whole) or not rest else []
    return sign + " ".join(parts + ([str(rest)] if rest else []))


@dataclass(frozen=True)
class Bare:
    """An amount written without its unit, where the words beside it carry one already."""

    amount: Amount


@dataclass(frozen=True)
class Sentence:
    """Words with amounts in them (``"Inside by {margin}."``), rendered in whichever unit system is in use."""

    template: str
    amounts: Mapping[str, Text] = field(default_factory=dict)

    def __hash__(self) -> int:
        """By its words and amounts, which nobody changes once it is made."""
        return hash((self.template, *self.amounts.items()))

    def render(self, units: Units) -> str:
        """The sentence with its amounts written out."""
        return self.template.format(**{name: render(part, units) for name, part in self.amounts.items()})


@dataclass(frozen=True)
class Joined:
    """Texts one after the other, apart by the same words; what is empty is left out."""

    parts: tuple[Text, ...]
    apart: str = ", "


@dataclass(frozen=True)
class Shown:
    """A text as it was shown once, in mm and in inches: of a signed record, whose words and figures stay as they were.

    ``thou`` is what stands for it in thousandths; without it inches do.
    """

    mm: str
    inches: str
    thou: str = ""


def grouped(value: float, decimals: int = 0) -> str:
    """A number with its thousands apart, which a line never breaks between."""
    return f"{value:,.{decimals}f}".replace(",", "\u00a0")


def between(low: float, high: float, kind: Kind) -> Sentence:
    """A range of one kind, written out."""
    return Sentence("{low} to {high}", {"low": Amount(low, kind), "high": Amount(high, kind)})


Text = Amount | Bare | Sentence | Joined | Shown | str
"""What is shown as text: a number, a number without its unit, words with numbers in them, or plain words."""

Amounts = dict[str, Text]
"""What goes into a sentence, by name."""


def render(text: Text, units: Units) -> str:
    """A number, a sentence or plain words, written out in a unit system."""
    match text:
        case Sentence():
            return text.render(units)
        case Amount():
            return text.text(units)
        case Bare():
            return text.amount.bare(units)
        case Joined():
            return text.apart.join(filter(None, (render(part, units) for part in text.parts)))
        case Shown():
            return text.mm if units is Units.MM else text.thou if units is Units.THOU and text.thou else text.inches
    return text


def bare(mm: float, fine: bool = False) -> Bare:
    """A length without its unit."""
    return Bare(length(mm, fine))
