"""Setting a gap with gaskets under a head or a cover.

clearance = stack as compressed + offset of the metal. One measured gap with a known stack gives the offset; the wanted stack
follows, and is made exactly from stock.
"""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Collection, Mapping, Sequence
from dataclasses import astuple, dataclass
from functools import reduce
from itertools import combinations_with_replacement
from operator import or_

from finegap.core.errors import FieldError
from finegap.core.families.family import DEFAULT_WORDS, GapWords
from finegap.core.formatting import Amounts, Sentence, length
from finegap.core.gap.move import Move, Way, Window, way_of
from finegap.core.gap.stock import (
    THICKEST_UM,
    Layers,
    Stack,
    bits,
    check_stock,
    describe,
    growing,
    lowest_bit,
    ordered,
    piece,
    refuse_too_much,
    stock_text,
    trace,
)
from finegap.core.working import Given, Working

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
    return _within(stock, StackWanted(target_um, target_um - minus_um, target_um + plus_um))


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


def _within(stock: Mapping[int, int], wanted: StackWanted, sold_um: Collection[int] = ()) -> StackChoice:
    """The stack, or why there is none and what of ``sold_um`` to buy. What no stack can be is none, not an error."""
    check_stock(stock)
    target_um, low, high = wanted.target_um, min(wanted.low_um, THICKEST_UM + 1), min(wanted.high_um, THICKEST_UM)
    pieces = {t: n for t, n in stock.items() if n}
    layers: Layers = [[1]]
    # Beyond the window a sum is only of interest as the nearest above; no such sum exceeds the window by more than one piece.
    for counts, layers in growing(pieces, max(high, 0) + max(pieces, default=0)):
        for count in counts:
            best = _nearest(layers[-1][count], target_um, low, high) if count else None
            if best is not None:
                return StackChoice(trace(layers, pieces, count, best), best - target_um)
    below, above = _either_side(layers, pieces, low, high)
    return StackChoice(None, 0, below, above, _bought(layers[-1], sold_um, StackWanted(target_um, low, high)))


def what_to_buy(stock: Mapping[int, int], sold_um: Collection[int], wanted: StackWanted) -> Stack:
    """The fewest gaskets to buy that, with the stock, make the stack. Empty where three are not enough."""
    return _within(stock, wanted, sold_um).buy


def _bought(sums: Sequence[int], sold_um: Collection[int], wanted: StackWanted) -> Stack:
    """The purchase that makes the best stack of the fewest bought, looked up in the sums the stock makes of each number of pieces.

    Every piece of the fewest bought is in the stack, or fewer would do; the stock makes the rest of it.
    """
    sold = sorted(sold_um)
    makes = reduce(or_, sums)
    for bought in range(1, _MOST_BOUGHT + 1):
        best: tuple[int, int, Stack] | None = None
        seen: set[int] = set()
        for extra in combinations_with_replacement(sold, bought):
            total = sum(extra)
            rest = StackWanted(wanted.target_um - total, wanted.low_um - total, wanted.high_um - total)
            if total in seen:
                continue
            seen.add(total)  # the first of a sum is the least in order, as the last word between equals asks
            if _nearest(makes, *astuple(rest)) is None:
                continue
            for count in range(min(len(sums), best[0] - bought + 1 if best else len(sums))):
                found = _nearest(sums[count], *astuple(rest))
                if found is not None:
                    fit = (count + bought, abs(found - rest.target_um), extra)
                    best = fit if best is None else min(best, fit)
                    break
        if best:
            return best[2]
    return ()


@dataclass(frozen=True)
class StackChange:
    """From the stack in the pump to the next one: what comes out and what goes in."""

    now: Stack
    next: Stack
    out: Stack
    into: Stack


def change_between(now: Stack, following: Stack) -> StackChange:
    """Compare two stacks piece by piece."""
    have, want = Counter(now), Counter(following)
    return StackChange(now, following, ordered((have - want).elements()), ordered((want - have).elements()))


def out_and_in(change: StackChange) -> Sentence | None:
    """What to take out and what to put in; ``None`` where nothing moves."""
    parts: Amounts = {
        verb.split()[0]: Sentence("{verb} {pieces}", {"verb": verb, "pieces": describe(pieces)})
        for verb, pieces in (("take out", change.out), ("put in", change.into))
        if pieces
    }
    return Sentence(", ".join(f"{{{name}}}" for name in parts), parts) if parts else None


@dataclass(frozen=True)
class MetalGap:
    """The gap without any gasket, from two measured sizes: outer less inner, in mm, with their names."""

    outer_mm: float
    inner_mm: float
    outer: str
    inner: str

    @property
    def offset_mm(self) -> float:
        """Outer less inner."""
        return self.outer_mm - self.inner_mm


def first_move(
    stock: Mapping[int, int],
    start_um: int,
    window: Window,
    words: GapWords,
    known: MetalGap | None = None,
    sold_um: tuple[int, ...] = (),
) -> tuple[Move, StackChoice]:
    """The stack to begin with: the sheet's starting gasket, or what the measured sizes ask for; from stock."""
    details: tuple[Sentence, ...] = (
        Sentence("Fit it, tighten evenly and criss-cross in passes, then measure the {name}.", {"name": words.name}),
    )
    if known is not None:
        return _by_sizes(stock, window, words, known, sold_um, details)
    tolerance_um = round((window.high_mm - window.low_mm) * 1000)
    choice = best_stack(stock, start_um, tolerance_um, tolerance_um)
    if choice.stack is None:
        choice = StackChoice(choice.above or choice.below, 0)
    stack = choice.stack or ()
    working = Working(
        title="Trial stack",
        formula="a stack near the sheet's starting gasket, fewest pieces",
        given=(Given("", "starting gasket", length(start_um / 1000)),),
        result=describe(stack) if stack else "nothing in stock",
        source="the sheet; common practice: begin with a known stack and measure",
    )
    headline = (
        Sentence("Start with {stack} {place}", {"place": words.place, "stack": describe(stack)})
        if stack
        else Sentence("No gasket in stock: order before the pump is opened")
    )
    return Move(Way.STAY, 0.0, headline, details, working), choice


def _by_sizes(
    stock: Mapping[int, int],
    window: Window,
    words: GapWords,
    known: MetalGap,
    sold_um: tuple[int, ...],
    details: tuple[Sentence, ...],
) -> tuple[Move, StackChoice]:
    wanted = StackWanted.of(window, known.offset_mm)
    choice = _within(stock, wanted, sold_um)
    amounts: Amounts = {
        "stack": describe(choice.stack or ()),
        "gap": length(known.offset_mm + sum(choice.stack or ()) / 1000, fine=True),
        "inner": length(known.inner_mm, fine=True),
        "outer": length(known.outer_mm, fine=True),
    }
    working = Working(
        title="Gaskets from the sizes",
        formula="stack = wanted − (outer − inner)",
        given=(
            Given("wanted", f"{words.name} wanted", length(window.target_mm)),
            Given("outer", known.outer, length(known.outer_mm, fine=True)),
            Given("inner", known.inner, length(known.inner_mm, fine=True)),
            Given("", "stack wanted", length(wanted.target_um / 1000, fine=True)),
            Given("", "stock", stock_text(stock)),
        ),
        result=describe(choice.stack) if choice.stack else "cannot be made from this stock",
        source="gap = cylinder + compressed gaskets − rotor; exact search of all stacks from stock",
    )
    if choice.stack is None:
        return Move(Way.STAY, 0.0, _cannot(wanted.target_um, choice), _nearest_words(choice), working), choice
    sizes = Sentence(
        "By the sizes, {outer} less {inner}, the gap should come to {gap}: sizes tell where to begin, the check judges.", amounts
    )
    return Move(
        Way.STAY, 0.0, Sentence("Start with {stack} {place}", {"place": words.place} | amounts), (sizes, *details), working
    ), choice


def move_for(
    now: Stack,
    measured_mm: float,
    window: Window,
    available: Mapping[int, int],
    sold_um: tuple[int, ...] = (),
    words: GapWords = DEFAULT_WORDS,
) -> tuple[Move, StackChange | None, StackChoice]:
    """The stack that brings a measured gap to the middle of its window.

    Parameters
    ----------
    now : Stack
        What is fitted.
    measured_mm : float
        The check reading with that stack.
    window : Window
        Where the gap has to end up.
    available : mapping of int to int
        Thickness [um] -> count, the fitted pieces included.
    sold_um : tuple of int
        Thicknesses the maker sells, for what to buy.
    words : GapWords
        What the gap is called.
    """
    stack_um = sum(now)
    wanted = StackWanted.of(window, measured_mm - stack_um / 1000)
    change_um = wanted.target_um - stack_um
    choice = _within(available, wanted, sold_um)
    way = way_of(change_um / 1000)
    working = Working(
        title="Gasket stack",
        formula="stack = present stack + (target − measured)",
        given=(
            Given("", "present stack, as compressed", length(stack_um / 1000)),
            Given("target", f"{words.name} wanted", length(window.target_mm)),
            Given("measured", "check reading", length(measured_mm, fine=True)),
            Given("", "stack wanted", length(wanted.target_um / 1000)),
            Given("", "stock and fitted", stock_text(available)),
        ),
        result=describe(choice.stack) if choice.stack else "cannot be made from this stock",
        source="clearance = compressed stack + offset of the metal; exact search of all stacks from stock",
    )
    if choice.stack is None:
        return Move(way, change_um / 1000, _cannot(wanted.target_um, choice), _nearest_words(choice), working), None, choice
    change = change_between(now, choice.stack)
    return (
        Move(way, change_um / 1000, _headline(way, change_um, change), _gap_words(change, measured_mm), working),
        change,
        choice,
    )


def _nearest(sums: int, target: int, low: int, high: int) -> int | None:
    inside = (sums >> max(low, 0)) & ((1 << (high - max(low, 0) + 1)) - 1) if high >= max(low, 0) else 0
    found = [max(low, 0) + bit for bit in bits(inside)]
    return min(found, key=lambda s: (abs(s - target), -s), default=None)


def _either_side(layers: Layers, pieces: Mapping[int, int], low: int, high: int) -> tuple[Stack | None, Stack | None]:
    """Nearest stacks below and above a window no stack falls into, with the fewest pieces for each."""
    under = over = None
    for count, sums in enumerate(layers[-1][1:], start=1):
        beneath = sums & ((1 << max(low, 0)) - 1)
        above = sums >> (max(high, -1) + 1)
        if beneath and (under is None or beneath.bit_length() - 1 > under[1]):
            under = (count, beneath.bit_length() - 1)
        if above:
            first = max(high, -1) + 1 + lowest_bit(above)
            if over is None or first < over[1]:
                over = (count, first)
    return (
        trace(layers, pieces, *under) if under else None,
        trace(layers, pieces, *over) if over else None,
    )


def _headline(way: Way, change_um: int, change: StackChange) -> Sentence:
    doing = out_and_in(change)
    if doing is None:
        return Sentence("Leave the stack as it is")
    if way is Way.STAY:
        return doing
    return Sentence("{value} {c}: {doing}", {"value": way.value.capitalize(), "c": length(abs(change_um) / 1000), "doing": doing})


def _gap_words(change: StackChange, measured_mm: float) -> tuple[Sentence, ...]:
    predicted = measured_mm + (sum(change.next) - sum(change.now)) / 1000
    return (
        Sentence(
            "The gap should come to {gap} with {n}, tightened evenly and criss-cross.",
            {"gap": length(predicted), "n": f"{len(change.next)} gasket" + ("s" if len(change.next) > 1 else "")},
        ),
    )


def _cannot(target_um: int, choice: StackChoice) -> Sentence:
    if target_um <= 0:
        return Sentence("Cannot be done with gaskets: even one is too many. Look for a part out of place")
    if not choice.buy:
        return Sentence("A stack of {target} cannot be made from this stock", {"target": length(target_um / 1000)})
    return Sentence("Cannot be made from this stock: buy {buy}", {"buy": describe(choice.buy)})


def _nearest_words(choice: StackChoice) -> tuple[Sentence, ...]:
    return tuple(
        Sentence("Nearest {name}: {stack} = {sum}", {"name": name, "stack": describe(stack), "sum": piece(sum(stack))})
        for name, stack in (("below", choice.below), ("above", choice.above))
        if stack
    )
