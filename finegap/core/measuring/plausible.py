"""Is this reading for this feature at all? A slip of unit or decimal is asked about, never converted silently."""

from __future__ import annotations

from collections.abc import Callable

from finegap.core.errors import Suggestion, Unlikely
from finegap.core.numerals import DecimalMark, read_numeral, spelled_out
from finegap.core.quantities import Quantity, parse
from finegap.core.units import Dimension

_SIZE_SHARE = 0.25
_GAP_TIMES = 8.0


def plausible(expected_mm: float, is_gap: bool) -> Callable[[float], bool]:
    """Whether a size in mm can be of a feature: gaps open several times over, no part comes to the bench a quarter smaller."""
    if is_gap:
        return lambda mm: abs(mm) <= _GAP_TIMES * expected_mm
    return lambda mm: abs(mm - expected_mm) <= _SIZE_SHARE * expected_mm


def check_plausible(reading: Quantity, field: str, expected_mm: float, is_gap: bool, mark: DecimalMark = DecimalMark.POINT) -> None:
    """Refuse a reading absurdly far from what the feature can be.

    Parameters
    ----------
    reading : Quantity
        A length as typed.
    field : str
        Name of the feature, for the error.
    expected_mm : float
        New size of a part; for a gap its limit.
    is_gap : bool
        Gaps may open several times over; a part does not lose a quarter of its size and come to the bench.
    mark : Mark
        The decimal mark it was typed with.

    Raises
    ------
    Unlikely
        With the other units under which the same digits would make sense as suggestions.
    """
    possible = plausible(expected_mm, is_gap)
    if possible(reading.value):
        return
    text = spelled_out(reading.understood or reading.typed)
    digits = text.removesuffix(read_numeral(text, mark, field, "").rest).strip()
    suggestions = []
    for unit, name in (
        ("mm", "millimetres"),
        ("in", "inches"),
        ("thou", "thousandths of an inch"),
        ("um", "micrometres"),
    ):
        if unit == reading.unit:
            continue
        other = parse(f"{digits} {unit}", Dimension.LENGTH, field, mark=mark, possible=possible)
        if possible(other.value):
            suggestions.append(Suggestion(other.typed, f"{name}: {other.value:.3f} mm"))
    around = f"Expected around {expected_mm:g} mm." if not is_gap else f"Expected up to a few times {expected_mm:g} mm."
    ask = f" Did you mean {' or '.join(s.meaning.split(':')[0] for s in suggestions)}?" if suggestions else ""
    typed = f"{digits} {reading.unit}"
    raise Unlikely(
        field,
        f"{typed} is far from what this can be."
        if reading.unit == "mm"
        else f"{typed} is {reading.value:.3f} mm, far from what this can be.",
        around + ask,
        tuple(suggestions),
    )
