"""The stack to use of what is in stock, or why there is none, the nearest on either side, and what to buy."""

from __future__ import annotations

import math
from collections.abc import Collection, Mapping, Sequence
from dataclasses import astuple, dataclass
from functools import reduce
from itertools import combinations_with_replacement
from operator import or_

from finegap.core.errors import FieldError
from finegap.core.gap.move import Window
from finegap.core.gap.stock import (
    THICKEST_UM,
    Layers,
    Stack,
    any_number,
    check_stock,
    growing,
    lowest_bit,
    refuse_too_much,
    trace,
)

_MOST_BOUGHT = 3


@dataclass(frozen=True)
class StackChoice:
    """The best stack, or why there is none.

    ``error_um`` is stack less target. When ``stack`` is ``None``: ``below`` and ``above`` are the nearest that stock can make on
    either side of the window, and ``buy`` the fewest further gaskets that would do.
    """

    stack: Stack | None
    error_um: int
    below: Stack | None = None
    above: Stack | None = None
    buy: Stack = ()


def best_stack(stock: Mapping[int, int], target_um: int, minus_um: int, plus_um: int) -> StackChoice:
    """The stack to use: inside the window with the fewest pieces, then the least error, then the wider gap; at least one gasket.

    Exact, for stacks of up to 60 pieces. Reachable sums are kept as bit sets, one for each number of pieces, so the work grows
    with the number of gaskets and not with their combinations.

    Parameters
    ----------
    stock : mapping of int to int
        Thickness as compressed [um] -> count on hand.
    target_um : int
        Wanted stack.
    minus_um, plus_um : int
        How far below and above the target still serves.

    Raises
    ------
    FieldError
        A thickness, a tolerance or a stack that cannot be.
    """
    if minus_um < 0 or plus_um < 0:
        raise FieldError("tolerance", "it cannot be negative.", "Expected zero or more.")
    check_stock(stock)
    refuse_too_much(stock, target_um, target_um + plus_um)
    return choose_stack(stock, StackWanted(target_um, target_um - minus_um, target_um + plus_um))


@dataclass(frozen=True)
class StackWanted:
    """A stack in whole micrometres: wanted, least and most; none does where the least is above the most."""

    target_um: int
    low_um: int
    high_um: int

    @classmethod
    def of(cls, window: Window, bare_mm: float) -> StackWanted:
        """What brings a gap into a window, its ends rounded inwards; ``bare_mm`` is the gap without any stack."""
        low = math.ceil(1000 * (window.low_mm - bare_mm) - _HAIR)
        high = math.floor(1000 * (window.high_mm - bare_mm) + _HAIR)
        return cls(round(1000 * (window.target_mm - bare_mm)), low, high)


_HAIR = 1e-6
"""A thousandth of a millimetre is not lost to the last digit of a float."""


def choose_stack(stock: Mapping[int, int], wanted: StackWanted, sold_um: Collection[int] = ()) -> StackChoice:
    """The stack, or why there is none and what of ``sold_um`` to buy. What no stack can be is none, not an error."""
    check_stock(stock)
    target_um, low, high = wanted.target_um, min(wanted.low_um, THICKEST_UM + 1), min(wanted.high_um, THICKEST_UM)
    pieces = {t: n for t, n in stock.items() if n}
    # Beyond the window a sum is only of interest as the nearest above; no such sum exceeds the window by more than one piece.
    most_um = max(high, 0) + max(pieces, default=0)
    makes = any_number(pieces, most_um)
    if _nearest(makes & ~1, target_um, low, high) is not None:
        for counts, layers in growing(pieces, most_um):
            for count in counts:
                best = _nearest(layers[-1][count], target_um, low, high) if count else None
                if best is not None:
                    return StackChoice(trace(layers, pieces, count, best), best - target_um)
    below, above = _either_side(pieces, makes & ~1, low, high)
    return StackChoice(None, 0, below, above, _bought(pieces, makes, sold_um, StackWanted(target_um, low, high)))


def what_to_buy(stock: Mapping[int, int], sold_um: Collection[int], wanted: StackWanted) -> Stack:
    """The fewest gaskets to buy that, with the stock, make the stack. Empty where three are not enough."""
    return choose_stack(stock, wanted, sold_um).buy


def _bought(pieces: Mapping[int, int], makes: int, sold_um: Collection[int], wanted: StackWanted) -> Stack:
    """The purchase that makes the best stack of the fewest bought.

    Every piece of the fewest bought is in the stack, or fewer would do; the stock makes the rest of it. ``makes`` are the sums of
    the stock whatever the number of pieces: where they and what is bought miss the window, nothing more is worked out.
    """
    sold = sorted(set(sold_um))
    for bought in range(1, _MOST_BOUGHT + 1):
        makes = _one_more(makes, sold, wanted.high_um)
        if _nearest(makes, *astuple(wanted)) is None:
            continue
        for counts, layers in growing(pieces, wanted.high_um):
            for count in counts:
                purchase = _purchase(layers[-1][count], sold, bought, wanted)
                if purchase:
                    return purchase
    return ()


def _one_more(sums: int, sold: Sequence[int], most_um: int) -> int:
    """The sums with one more piece of what is sold, none above ``most_um``."""
    mask = (1 << most_um + 1) - 1 if most_um >= 0 else 0
    return reduce(or_, (sums << thickness & mask for thickness in sold), 0)


def _purchase(sums: int, sold: Sequence[int], bought: int, wanted: StackWanted) -> Stack:
    """So many of what is sold that, with one of the sums, come nearest; the first in order between equals. Empty where none do."""
    if not sums:
        return ()
    with_it = reduce(lambda made, _: _one_more(made, sold, wanted.high_um), range(bought), sums)
    nearest = _nearest(with_it, *astuple(wanted))
    if nearest is None:
        return ()
    mirrored = 2 * wanted.target_um - nearest  # as near on the other side
    rests = [nearest] + [mirrored] * (wanted.low_um <= mirrored)
    return next(
        extra
        for extra in combinations_with_replacement(sold, bought)
        if any(total >= sum(extra) and sums >> (total - sum(extra)) & 1 for total in rests)
    )


def _nearest(sums: int, target: int, low: int, high: int) -> int | None:
    """The sum from ``low`` to ``high`` that is nearest to the target, the greater of two as near."""
    low = max(low, 0)
    inside = (sums >> low) & ((1 << max(high - low + 1, 0)) - 1)
    at = max(target - low, 0)
    under, over = inside & ((1 << at) - 1), inside >> at
    found = [low + under.bit_length() - 1] * bool(under) + [low + at + lowest_bit(over)] * bool(over)
    return min(found, key=lambda s: (abs(s - target), -s), default=None)


def _either_side(pieces: Mapping[int, int], makes: int, low: int, high: int) -> tuple[Stack | None, Stack | None]:
    """Nearest stacks below and above a window no stack falls into, with the fewest pieces for each.

    They are looked for among few pieces first. Where the nearest of all sums takes more pieces than a stack may have, every number
    of pieces was looked at.
    """
    low, over_from = max(low, 0), max(high, -1) + 1

    def sides(sums: int) -> tuple[int | None, int | None]:
        under, over = sums & ((1 << low) - 1), sums >> over_from
        return under.bit_length() - 1 if under else None, over_from + lowest_bit(over) if over else None

    layers: Layers = [[1]]
    nearest: list[tuple[int, int] | None] = [None, None]  # number of pieces, and their sum
    for counts, layers in growing(pieces, max(high, 0) + max(pieces, default=0)):
        for count in counts[1:] if not counts.start else counts:
            for side, total in enumerate(sides(layers[-1][count])):
                so_far = nearest[side]
                if total is not None and (so_far is None or abs(total - low) < abs(so_far[1] - low)):
                    nearest[side] = count, total
        if tuple(one and one[1] for one in nearest) == sides(makes):
            break
    below, above = (trace(layers, pieces, *one) if one else None for one in nearest)
    return below, above
