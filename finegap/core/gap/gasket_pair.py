"""A gasket at each end of a housing, for the end gaps of both gears at once.

What is between housing and gears is shared out in front and behind: total end gap = housing + both gaskets as compressed - plates
- gear. Both gears have the same two gaskets. In order: both total gaps inside their window; the two ends as alike as can be; the
fewest pieces; the gaps nearest to the target (common practice, no source).
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from itertools import combinations_with_replacement

from finegap.core.errors import FieldError
from finegap.core.formatting import Amounts, Sentence, length
from finegap.core.gap.dealing import Deal
from finegap.core.gap.move import Move, Way, Window
from finegap.core.gap.stock import Layers, Stack, any_number, bits, check_stock, describe, reachable, refuse_too_much, stock_text
from finegap.core.working import Given, Working

MOST_AN_END = 8
"""No end is sealed by more gaskets on one another."""

MOST_BOUGHT = 2
"""What takes more than two further gaskets is looked at by a person."""

THICKEST_PAIR_UM = 10_000
_AIMS = "{}, in its window at both gears; the ends alike, then fewest pieces, then nearest to the aim"


@dataclass(frozen=True)
class GearEnds:
    """One gear between its plates, without a gasket [um].

    ``bare_um`` is housing less plates less gear, below zero where only gaskets make a gap; ``ahead_um`` how much more of it is in
    front than behind.
    """

    bare_um: int
    ahead_um: int = 0


@dataclass(frozen=True)
class PairWanted:
    """The total end gap of a gear: least, wanted and most [um]."""

    low_um: int
    target_um: int
    high_um: int

    def totals(self, gears: Sequence[GearEnds]) -> tuple[int, int]:
        """The least and the most both gaskets together may be, for all gears. Least is above most where none do."""
        bare = [gear.bare_um for gear in gears]
        return self.low_um - min(bare), self.high_um - max(bare)


@dataclass(frozen=True)
class PairChoice:
    """The gaskets in front and behind, or none.

    ``uneven_um`` is by how much the ends of a gear differ at most, ``error_um`` how far a total gap is from the target at most;
    ``totals`` are the least and the most both may be together; ``buy`` the fewest further gaskets that would do.
    """

    stacks: tuple[Stack, Stack] | None
    uneven_um: int
    error_um: int
    totals: tuple[int, int]
    buy: Stack = ()


GEARS = ("drive gear", "idler gear")
Pair = tuple[Stack, Stack]
"""The gaskets in front, then those behind."""


@dataclass(frozen=True)
class Measured:
    """What lies about one gear [mm]: the housing at its bore, both wear plates together, and its width.

    ``ahead_mm`` is by how much more of the gap is in front than behind without a gasket.
    """

    housing_mm: float
    plates_mm: float
    width_mm: float
    ahead_mm: float = 0.0

    @property
    def ends(self) -> GearEnds:
        """In whole micrometres."""
        return GearEnds(round((self.housing_mm - self.plates_mm - self.width_mm) * 1000), round(self.ahead_mm * 1000))


@dataclass(frozen=True)
class Gaskets:
    """What is on the shelf, with what is in the pump, and what the maker sells; thicknesses as compressed [um].

    ``sold_as`` is the thickness of each before it is compressed, where that is another.
    """

    stock: Mapping[int, int]
    sold_um: tuple[int, ...] = ()
    sold_as: Mapping[int, int] = field(default_factory=dict)


def move_for(gears: Sequence[Measured], window: Window, gaskets: Gaskets) -> tuple[Move, PairChoice]:
    """What to fit at both ends by the sizes, what both gears come to, and the working.

    Parameters
    ----------
    gears : sequence of Measured
        The drive gear, then the idler gear.
    window : Window
        The total end gap wanted, in mm, the same for both.
    gaskets : Gaskets
        What there is to choose from.
    """
    given = tuple(
        Given(f"{symbol}{i}", f"{name}, {gear}", length(mm, fine=True))
        for i, (gear, one) in enumerate(zip(GEARS, gears, strict=True), 1)
        for symbol, name, mm in (
            ("H", "housing", one.housing_mm), ("P", "both wear plates", one.plates_mm), ("w", "width", one.width_mm),
        )
    )  # fmt: skip
    formula = _AIMS.format("g = H + front + back − P − w")
    return _answer([gear.ends for gear in gears], window, gaskets, given, formula)


def move_from(
    now: Pair, totals_mm: Sequence[float], ahead_mm: Sequence[float], window: Window, gaskets: Gaskets
) -> tuple[Move, PairChoice]:
    """What to change at both ends after a check.

    Parameters
    ----------
    now : Pair
        What is in.
    totals_mm : sequence of float
        The total end gap of either gear as it was checked.
    ahead_mm : sequence of float
        By how much more of it is in front than behind without a gasket.
    window : Window
        The total end gap wanted, in mm.
    gaskets : Gaskets
        What there is to choose from, what is in included.
    """
    fitted = sum(map(sum, now))
    gears = [GearEnds(round(mm * 1000) - fitted, round(more * 1000)) for mm, more in zip(totals_mm, ahead_mm, strict=True)]
    checked = enumerate(zip(GEARS, totals_mm, strict=True), 1)
    given = (
        *(Given(f"g{i}", f"as checked, {gear}", length(mm, fine=True)) for i, (gear, mm) in checked),
        Given("s", "both gaskets now", length(fitted / 1000, fine=True)),
    )  # fmt: skip
    formula = _AIMS.format("g − s + front + back")
    return _answer(gears, window, gaskets, given, formula, now)


def _answer(
    gears: Sequence[GearEnds],
    window: Window,
    gaskets: Gaskets,
    given: tuple[Given, ...],
    formula: str,
    now: Pair | None = None,
) -> tuple[Move, PairChoice]:
    wanted = PairWanted(
        -(-round(window.low_mm * 1e4) // 10), round(window.target_mm * 1000), round(window.high_mm * 1e4) // 10
    )  # fmt: skip
    choice = choose_pair(gaskets.stock, gears, wanted)
    if choice.stacks is None and choice.totals[0] <= choice.totals[1]:
        choice = replace(choice, buy=_to_buy(gears, wanted, gaskets, choice.totals))
    headline, details = _done(gears, choice, gaskets, now) if choice.stacks else _not_done(gears, choice, gaskets)
    low, high, target = window.shown()
    working = Working(
        "A gasket at each end",
        formula,
        (
            *given,
            Given("", "total end gap", Sentence("{low} to {high}, aim for {aim}", {"low": low, "high": high, "aim": target})),
            Given("", "stock, as compressed", stock_text(gaskets.stock)),
        ),
        headline,
        "geometry of a gear between two plates; exact search of all pairs from stock (common practice, no source)",
    )
    return Move(Way.STAY, 0.0, headline, details, working), choice


def _to_buy(gears: Sequence[GearEnds], wanted: PairWanted, gaskets: Gaskets, totals: tuple[int, int]) -> Stack:
    """The fewest further gaskets that make a pair: of as many, those that leave the ends most alike, then the least error."""
    if totals[1] <= 0:
        return ()
    window = (1 << totals[1] + 1) - (1 << max(totals[0], 0))
    for pieces in range(1, MOST_BOUGHT + 1):
        found = []
        for more in combinations_with_replacement(sorted(set(gaskets.sold_um)), pieces):
            stock = Counter(gaskets.stock) + Counter(more)
            if any_number(stock, totals[1]) & window:
                choice = choose_pair(stock, gears, wanted)
                if choice.stacks:
                    found.append((choice.uneven_um, choice.error_um, more))
        if found:
            return min(found)[2]
    return ()


def _done(
    gears: Sequence[GearEnds], choice: PairChoice, gaskets: Gaskets, now: Pair | None
) -> tuple[Sentence, tuple[Sentence, ...]]:
    assert choice.stacks is not None
    front, back = choice.stacks
    both = sum(front) + sum(back)
    gaps = [length((gear.bare_um + both) / 1000, fine=True) for gear in gears]
    details = [
        Sentence("Total end gap: {one} at the drive gear, {other} at the idler gear.", {"one": gaps[0], "other": gaps[1]}),
        Sentence("The two ends of a gear differ by {d} at most.", {"d": length(choice.uneven_um / 1000, fine=True)}),
    ]
    sold = [tuple(gaskets.sold_as.get(t, t) for t in stack) for stack in choice.stacks]
    if tuple(sold) != choice.stacks:
        amounts: Amounts = {"front": describe(sold[0]), "back": describe(sold[1])}
        details.append(Sentence("As they are sold: front {front}, back {back}.", amounts))
    if now is not None and choice.stacks == now:
        return Sentence("Leave both gaskets as they are"), tuple(details)
    return Sentence("Front: {front}. Back: {back}", {"front": describe(front), "back": describe(back)}), tuple(details)


def _not_done(gears: Sequence[GearEnds], choice: PairChoice, gaskets: Gaskets) -> tuple[Sentence, tuple[Sentence, ...]]:
    low, high = choice.totals
    if low > high:
        unlike = Sentence(
            "Without gaskets the gaps of the two gears differ by {d}, more than the window is wide. Look for wear.",
            {"d": length(abs(gears[0].bare_um - gears[1].bare_um) / 1000, fine=True)},
        )
        return Sentence("No pair serves both gears"), (unlike,)
    needs: Amounts = {"low": length(max(low, 0) / 1000, fine=True), "high": length(high / 1000, fine=True)}
    if high <= 0:
        return Sentence("The gap is too wide without any gasket"), (Sentence("Look for a worn gear, plate or housing."),)
    takes = Sentence("Both together take {low} to {high}, a gasket at each end at least.", needs)
    if choice.buy:
        return Sentence("Cannot be made from this stock: buy {buy}", {"buy": describe(choice.buy)}), (takes,)
    thinnest = min(gaskets.sold_um, default=0)
    if thinnest and 2 * thinnest > high:
        worn = Sentence("The thinnest there is, one at each end, is too much: worn plates, gears or housing have taken the room.")
        return Sentence("No gasket is thin enough"), (takes, worn)
    return Sentence("Cannot be made from this stock"), (takes,)


def choose_pair(stock: Mapping[int, int], gears: Sequence[GearEnds], wanted: PairWanted) -> PairChoice:
    """The pair to use. Exact.

    The sums either end can reach are bit sets. For each unevenness, the least first, two differences between the ends at most make
    it; the pairs of sums so far apart come from one bit set laid over itself.

    Parameters
    ----------
    stock : mapping of int to int
        Thickness as compressed [um] -> count.
    gears : sequence of GearEnds
        Both gears.
    wanted : PairWanted
        The window, the same for both.

    Raises
    ------
    FieldError
        A thickness, a count or a window that cannot be, or thicker gaskets than any pump has.
    """
    check_stock(stock)
    if not gears or not wanted.low_um <= wanted.target_um <= wanted.high_um:
        raise FieldError("window", "it is reversed, or there is no gear.", "Expected least, wanted, most.")
    totals = low, high = wanted.totals(gears)
    refuse_too_much(stock)
    if high > THICKEST_PAIR_UM:
        raise FieldError("gaskets", f"{high / 1000:g} mm of them cannot be.", f"Expected up to {THICKEST_PAIR_UM / 1000:g} mm.")
    pieces = {t: n for t, n in stock.items() if n}
    if low <= high and high > 0 and pieces:
        layers = reachable(pieces, high, 2 * MOST_AN_END)
        deal = Deal(layers, list(pieces.items()))
        for uneven, alike in _by_unevenness(layers, gears, totals):
            for _, error, (n1, s1), (n2, s2) in sorted(_counted(layers, gears, wanted, alike)):
                dealt = deal.out((n1, s1), (n2, s2))
                if dealt:
                    return PairChoice(dealt, uneven, error, totals)
    return PairChoice(None, 0, 0, totals)


def _by_unevenness(
    layers: Layers, gears: Sequence[GearEnds], totals: tuple[int, int]
) -> Iterator[tuple[int, list[tuple[int, int]]]]:
    """Every unevenness there is, the least first, with the pairs of sums (front, back) that have it."""
    low, high = totals
    ends = 0
    for sums in layers[-1][1 : MOST_AN_END + 1]:
        ends |= sums
    most, least = max(gear.ahead_um for gear in gears), min(gear.ahead_um for gear in gears)
    furthest = high + max(abs(most), abs(least))
    for uneven in range(-(-(most - least) // 2), furthest + 1):
        pairs = []
        for apart in {uneven - most, -uneven - least}:
            if max(abs(most + apart), abs(least + apart)) != uneven:
                continue
            both = ends & (ends << apart if apart >= 0 else ends >> -apart)
            start, end = max(-(-(low + apart) // 2), 0), (high + apart) // 2
            if start <= end:
                pairs += [(front, front - apart) for front in bits(both >> start & ((1 << end - start + 1) - 1), start)]
        if pairs:
            yield uneven, pairs


def _counted(
    layers: Layers, gears: Sequence[GearEnds], wanted: PairWanted, pairs: Sequence[tuple[int, int]]
) -> Iterator[tuple[int, int, tuple[int, int], tuple[int, int]]]:
    """Pairs of sums with each number of pieces that makes them: pieces in all, error, and (pieces, sum) of either end."""
    sums = layers[-1]
    for front, back in pairs:
        error = max(abs(gear.bare_um + front + back - wanted.target_um) for gear in gears)
        for n1 in range(1, MOST_AN_END + 1):
            for n2 in range(1, MOST_AN_END + 1):
                if sums[n1] >> front & 1 and sums[n2] >> back & 1:
                    yield n1 + n2, error, (n1, front), (n2, back)
