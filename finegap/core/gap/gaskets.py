"""Setting the end clearance with gaskets under the head.

clearance = stack as compressed + offset of the metal. One measured gap with a known stack gives the offset; the wanted stack
follows, and is made exactly from stock.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from itertools import combinations_with_replacement

from finegap.core.errors import FieldError
from finegap.core.gap.move import Move, Way, Window, way_of
from finegap.core.showing import Amount, Sentence, length
from finegap.core.working import Given, Working

Stack = tuple[int, ...]
"""Gasket thicknesses as compressed, in micrometres, thickest first."""

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

    Exact. Reachable sums are kept as bit sets, one for each number of pieces, so the work grows with the number of gaskets and
    not with their combinations.

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
        A thickness or tolerance that cannot be.
    """
    _check(stock, minus_um, plus_um)
    low, high = target_um - minus_um, target_um + plus_um
    pieces = {t: n for t, n in stock.items() if n}
    # Beyond the window a sum is only of interest as the nearest above; no such sum exceeds the window by more than one piece.
    most = max(high, 0) + max(pieces, default=0)
    layers = _reachable(pieces, most)
    for count, sums in enumerate(layers[-1][1:], start=1):
        best = _nearest(sums, target_um, low, high)
        if best is not None:
            return StackChoice(_trace(layers, pieces, count, best), best - target_um)
    below, above = _either_side(layers, pieces, low, high)
    return StackChoice(None, 0, below, above)


def what_to_buy(stock: Mapping[int, int], sold_um: tuple[int, ...], target_um: int, minus_um: int, plus_um: int) -> Stack:
    """The fewest gaskets of the maker's thicknesses that, added to stock, make the stack; empty if three do not."""
    for bought in range(1, _MOST_BOUGHT + 1):
        fits = []
        for extra in combinations_with_replacement(sorted(sold_um), bought):
            widened = Counter(stock) + Counter(extra)
            choice = best_stack(widened, target_um, minus_um, plus_um)
            if choice.stack is not None:
                fits.append((len(choice.stack), abs(choice.error_um), extra))
        if fits:
            return min(fits)[2]
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
    return StackChange(now, following, _ordered((have - want).elements()), _ordered((want - have).elements()))


def first_move(stock: Mapping[int, int], start_um: int, tolerance_um: int) -> tuple[Move, StackChoice]:
    """The trial stack to begin with: the sheet's starting gasket, from stock."""
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
        Sentence("Start with {stack} under the head", {"stack": describe(stack)})
        if stack
        else Sentence("No gasket in stock: order before the pump is opened")
    )
    details = (Sentence("Fit it, tighten evenly and criss-cross in passes, then measure the end clearance."),)
    return Move(Way.STAY, 0.0, headline, details, working), choice


def move_for(
    now: Stack, measured_mm: float, window: Window, available: Mapping[int, int], sold_um: tuple[int, ...] = ()
) -> tuple[Move, StackChange | None, StackChoice]:
    """The stack that brings a measured gap to the middle of its window.

    Parameters
    ----------
    now : Stack
        What is under the head.
    measured_mm : float
        The check reading with that stack.
    window : Window
        Where the gap has to end up.
    available : mapping of int to int
        Thickness [um] -> count, the pieces under the head included.
    sold_um : tuple of int
        Thicknesses the maker sells, for what to buy.
    """
    stack_um = sum(now)
    change_um = round((window.target_mm - measured_mm) * 1000)
    target_um = stack_um + change_um
    minus = round((window.target_mm - window.low_mm) * 1000)
    plus = round((window.high_mm - window.target_mm) * 1000)
    choice = best_stack(available, target_um, minus, plus)
    way = way_of(change_um / 1000)
    working = Working(
        title="Gasket stack",
        formula="stack = present stack + (target − measured)",
        given=(
            Given("", "present stack, as compressed", length(stack_um / 1000)),
            Given("target", "end clearance wanted", length(window.target_mm)),
            Given("measured", "check reading", length(measured_mm, fine=True)),
            Given("", "stack wanted", length(target_um / 1000)),
            Given("", "stock and fitted", _stock_text(available)),
        ),
        result=describe(choice.stack) if choice.stack else "cannot be made from this stock",
        source="clearance = compressed stack + offset of the metal; exact search of all stacks from stock",
    )
    if choice.stack is None:
        bought = what_to_buy(available, sold_um, target_um, minus, plus)
        choice = StackChoice(None, 0, choice.below, choice.above, bought)
        return Move(way, change_um / 1000, _cannot(target_um, choice), _nearest_words(choice), working), None, choice
    change = change_between(now, choice.stack)
    return (
        Move(way, change_um / 1000, _headline(way, change_um, change), _gap_words(change, measured_mm), working),
        change,
        choice,
    )


def describe(stack: Stack) -> Sentence:
    """A stack in words: ``2 × 0.25 mm + 0.10 mm``."""
    amounts: dict[str, Amount | Sentence | str] = {}
    parts = []
    for i, (thickness, count) in enumerate(sorted(Counter(stack).items(), reverse=True)):
        amounts[f"t{i}"] = piece(thickness)
        parts.append(f"{count} × {{t{i}}}" if count > 1 else f"{{t{i}}}")
    return Sentence(" + ".join(parts) or "nothing", amounts)


def piece(thickness_um: int) -> Amount:
    """A gasket's thickness as it is shown: finer where it is no whole number of hundredths."""
    return length(thickness_um / 1000, fine=thickness_um % 10 != 0)


def _check(stock: Mapping[int, int], minus_um: int, plus_um: int) -> None:
    for thickness, count in stock.items():
        if thickness <= 0:
            raise FieldError("stock", f"a gasket of {thickness} µm cannot be.", "Expected a thickness above zero.")
        if count < 0:
            raise FieldError("stock", f"a count of {count} cannot be.", "Expected zero or more.")
    if minus_um < 0 or plus_um < 0:
        raise FieldError("tolerance", "it cannot be negative.", "Expected zero or more.")


def _reachable(pieces: Mapping[int, int], most: int) -> list[list[int]]:
    """layers[i][k]: bit set of sums that k pieces of the first i thicknesses can make, none above ``most``."""
    mask = (1 << (most + 1)) - 1
    layers = [[1]]
    for thickness, count in pieces.items():
        count = min(count, most // thickness)
        before = layers[-1]
        after = before + [0] * count
        for used in range(1, count + 1):
            shift = used * thickness
            for k, sums in enumerate(before):
                after[k + used] |= (sums << shift) & mask
        layers.append(after)
    return layers


def _nearest(sums: int, target: int, low: int, high: int) -> int | None:
    inside = (sums >> max(low, 0)) & ((1 << (high - max(low, 0) + 1)) - 1) if high >= max(low, 0) else 0
    found = [max(low, 0) + bit for bit in _bits(inside)]
    return min(found, key=lambda s: (abs(s - target), -s), default=None)


def _bits(number: int) -> list[int]:
    out = []
    while number:
        lowest = number & -number
        out.append(lowest.bit_length() - 1)
        number ^= lowest
    return out


def _trace(layers: list[list[int]], pieces: Mapping[int, int], count: int, total: int) -> Stack:
    """Walk back through the layers to the pieces that make ``total`` with ``count`` of them."""
    out: list[int] = []
    for i, thickness in reversed(list(enumerate(pieces))):
        before = layers[i]
        used = next(
            u
            for u in range(pieces[thickness] + 1)
            if 0 <= count - u < len(before) and total >= u * thickness and before[count - u] >> (total - u * thickness) & 1
        )
        out += [thickness] * used
        count, total = count - used, total - used * thickness
    return _ordered(out)


def _either_side(layers: list[list[int]], pieces: Mapping[int, int], low: int, high: int) -> tuple[Stack | None, Stack | None]:
    """Nearest stacks below and above a window no stack falls into, with the fewest pieces for each."""
    under = over = None
    for count, sums in enumerate(layers[-1][1:], start=1):
        beneath = sums & ((1 << max(low, 0)) - 1)
        above = sums >> (max(high, -1) + 1)
        if beneath and (under is None or beneath.bit_length() - 1 > under[1]):
            under = (count, beneath.bit_length() - 1)
        if above:
            first = max(high, -1) + 1 + _lowest_bit(above)
            if over is None or first < over[1]:
                over = (count, first)
    return (
        _trace(layers, pieces, *under) if under else None,
        _trace(layers, pieces, *over) if over else None,
    )


def _lowest_bit(number: int) -> int:
    return (number & -number).bit_length() - 1


def _ordered(pieces: Iterable[int]) -> Stack:
    return tuple(sorted(pieces, reverse=True))


def _stock_text(available: Mapping[int, int]) -> Sentence:
    return describe(_ordered(Counter(available).elements()))


def _headline(way: Way, change_um: int, change: StackChange) -> Sentence:
    if change.now == change.next:
        return Sentence("Leave the stack as it is")
    parts = {
        verb.split()[0]: Sentence(f"{verb} {{pieces}}", {"pieces": describe(pieces)})
        for verb, pieces in (("take out", change.out), ("put in", change.into))
        if pieces
    }
    doing = Sentence(", ".join(f"{{{name}}}" for name in parts), parts)
    if way is Way.STAY:
        return Sentence("{doing}", {"doing": doing})
    return Sentence(f"{way.value.capitalize()} {{c}}: {{doing}}", {"c": length(abs(change_um) / 1000), "doing": doing})


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
        Sentence(f"Nearest {name}: {{stack}} = {{sum}}", {"stack": describe(stack), "sum": piece(sum(stack))})
        for name, stack in (("below", choice.below), ("above", choice.above))
        if stack
    )
