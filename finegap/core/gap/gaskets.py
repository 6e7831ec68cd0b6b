"""Setting a gap with gaskets under a head or a cover.

clearance = stack as compressed + offset of the metal. One measured gap with a known stack gives the offset; the wanted stack
follows, and is made exactly from stock.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass

from finegap.core.families.family import DEFAULT_WORDS, GapWords
from finegap.core.formatting import Amounts, Sentence, length
from finegap.core.gap.move import Move, Way, Window, way_of
from finegap.core.gap.stack_choice import StackChoice, StackWanted, best_stack, choose_stack
from finegap.core.gap.stock import (
    Stack,
    describe,
    ordered,
    piece,
    stock_text,
)
from finegap.core.working import Given, Working


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
    choice = choose_stack(stock, wanted, sold_um)
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
    choice = choose_stack(available, wanted, sold_um)
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
