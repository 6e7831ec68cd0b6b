"""Feeler leaves: what a pair of goes and does not go says, and which thicknesses a set can make."""

from __future__ import annotations

import re
from collections.abc import Sequence
from functools import lru_cache
from itertools import combinations

from finegap.core.errors import FieldError, Unlikely
from finegap.core.numerals import DecimalMark
from finegap.core.quantities import AllowedSign, Quantity, parse, unit_of
from finegap.core.units import Dimension

MOST_LEAVES = 3
"""More leaves than this in one pile spring apart and read thick (common practice, no source)."""

_INCHES = ("in", "thou")
_MARKED_BOTH_WAYS_UM = 4
"""Between the two markings of a common leaf, at most (common practice, no source)."""


def interval(goes_mm: float, stops_mm: float, field: str) -> tuple[float, float]:
    """Middle and half-width of a feeler reading, in mm: this leaf goes, that one does not.

    Raises
    ------
    FieldError
        The leaf that goes is not the thinner one.
    """
    if goes_mm >= stops_mm:
        raise FieldError(field, "the leaf that goes is not thinner than the one that stops.", "Expected the thinner leaf to go.")
    return (goes_mm + stops_mm) / 2, (stops_mm - goes_mm) / 2


def check_leaves(leaves_um: Sequence[int], field: str = "leaves") -> tuple[int, ...]:
    """A set's leaves in order of thickness, in micrometres.

    Raises
    ------
    FieldError
        No leaf, one without thickness, or the same leaf twice.
    """
    if not leaves_um:
        raise FieldError(field, "there is no leaf in the set.", "Expected thicknesses, such as 0.05, 0.10, 0.15.")
    if min(leaves_um) <= 0:
        raise FieldError(field, "a leaf of no thickness cannot be.", "Expected each more than zero.")
    repeated = next((t for t in leaves_um if list(leaves_um).count(t) > 1), None)
    if repeated is not None:
        raise FieldError(field, f"{repeated / 1000:g} mm is in it twice.", "Expected each leaf of the set once.")
    return tuple(sorted(leaves_um))


def read_leaves(text: str, unit: str, mark: DecimalMark = DecimalMark.POINT) -> tuple[int, ...]:
    """Leaves in micrometres from one line, thinnest first: spaces or semicolons between, a comma is a decimal mark or stands before
    a space. A unit anywhere in the line is that of all of them; ``unit`` is theirs without one.

    Raises
    ------
    FieldError
        Not lengths, no leaf, or the same leaf twice.
    """
    words = [word for word in (w.strip(",") for w in re.split(r"[;\s]+", text)) if word]
    named = {unit_of(word, Dimension.LENGTH) for word in words} - {""}
    if len(named) > 1:
        raise FieldError("leaves", f"they are in {' and '.join(sorted(named))}.", "Expected one unit for all of them.")
    of = next(iter(named), unit)
    sizes = [word for word in words if not unit_of(word, Dimension.LENGTH)]
    return check_leaves([round(parse(w, Dimension.LENGTH, "leaves", of, AllowedSign.POSITIVE, mark).value * 1000) for w in sizes])


@lru_cache(maxsize=32)
def _piles(leaves_um: tuple[int, ...]) -> frozenset[int]:
    return frozenset(sum(pile) for count in range(1, MOST_LEAVES + 1) for pile in combinations(leaves_um, count))


def check_pile(thickness: Quantity, leaves_um: Sequence[int], set_name: str, field: str) -> None:
    """Ask about a thickness this set cannot make with up to three leaves; nothing at all (0) always goes.

    Said in inches it may be off by as much as leaves marked both ways are: 0.25 mm is also called 0.010 in.

    Raises
    ------
    Unlikely
        No pile of its leaves is that thick.
    """
    wanted = round(thickness.value * 1000)
    slack = _MARKED_BOTH_WAYS_UM if thickness.unit in _INCHES else 1
    if not leaves_um or not wanted or any(abs(pile - wanted) <= slack for pile in _piles(tuple(leaves_um))):
        return
    nearest = min(_piles(tuple(leaves_um)), key=lambda pile: abs(pile - wanted))
    raise Unlikely(
        field,
        f"{thickness.said} is no leaf of {set_name}, nor a pile of up to {MOST_LEAVES}.",
        f"Expected its leaves; the nearest it makes is {nearest / 1000:g} mm.",
    )
