"""A gasket at each end of a housing with two gears in it: both total end gaps at once, and how each falls on its two ends."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, ClassVar, Self

from finegap.core.errors import FieldError
from finegap.core.families.family import Family, GapWords
from finegap.core.formatting import Bare, Joined, Sentence, Text, bare, length
from finegap.core.gap import mismatch
from finegap.core.gap.gasket_pair import GEARS, Gaskets, Measured, Pair, PairChoice, move_for, move_from
from finegap.core.gap.gaskets import change_between
from finegap.core.gap.move import Move, Way, Window
from finegap.core.gap.stock import piece
from finegap.core.gap.table import Row
from finegap.core.gap.tries import Check, GapTarget, Setting, TryMade, judged, settled
from finegap.core.means.base import SHARES, MeansView, PlainMeans, SetNow, check_sizes, drawn_in, guard_mm, with_share
from finegap.core.means.pieces import Piece, pieces, shelf, stack_words, um_of
from finegap.core.means.schemas import FEATURES, LENGTH
from finegap.core.working import Given, Working

ENDS = ("front", "back")
_ABOUT = ("housing", "gear")


@dataclass(frozen=True)
class EndOfPair:
    """The gaskets at one end: in now, next, and what changes."""

    name: str
    now: list[Piece]
    next: list[Piece]
    out: list[Piece]
    into: list[Piece]


@dataclass(frozen=True)
class GearOfPair:
    """One gear: its total end gap, and how it falls on both ends with the gear in the middle of its housing, as it will be.

    Texts are empty where it is not known yet.
    """

    name: str
    total: Text
    front: Text
    back: Text
    front_mm: float
    back_mm: float


@dataclass(frozen=True)
class PairView(MeansView):
    """Both ends and both gears to draw, and what is on the shelf; ``possible`` when the shelf has a pair that does."""

    ends: list[EndOfPair]
    gears: list[GearOfPair]
    box: list[Piece]
    possible: bool


@dataclass(frozen=True)
class PairState:
    """What is in, what is next, and how that was chosen; ``bare_mm`` is the gap of either gear without a gasket."""

    now: Pair
    next: Pair
    choice: PairChoice | None
    bare_mm: tuple[float, float] | None = None
    ahead_mm: tuple[float, float] = (0.0, 0.0)


@dataclass(frozen=True)
class Sizes:
    """The features a gear's gap is made of, by key: housing and gear of each gear, and both wear plates.

    A plate is measured under each gear: its planes bear the names of the gears.
    """

    housing: tuple[str, str]
    gear: tuple[str, str]
    plates: tuple[str, str]


@dataclass(frozen=True)
class GasketPairMeans(PlainMeans):
    """What the maker sells, as compressed and as sold, and the gasket to begin with at each end [um]."""

    kind: ClassVar[str] = "gasket_pair"
    piece: ClassVar[str] = "gasket"
    view_type: ClassVar[type[MeansView]] = PairView
    sets: ClassVar[tuple[str, ...]] = ("end:1", "end:2")
    stacks: ClassVar[int] = len(ENDS)
    schema: ClassVar[Mapping[str, Any]] = {
        "required": ["gaskets", "starting_gasket"],
        "properties": {
            "gaskets": {
                "type": "array",
                "minItems": 1,
                "maxItems": 40,
                "description": "Those the maker sells, each with what it is compressed to.",
                "items": {
                    "type": "object",
                    "additionalProperties": False,
                    "required": ["compressed"],
                    "properties": {"sold": LENGTH, "compressed": LENGTH},
                },
            },
            "starting_gasket": {**LENGTH, "description": "At each end, as compressed, where the sizes do not tell the pair."},
            "between": {
                "type": "object",
                "additionalProperties": False,
                "required": ["housing", "gear", "plates"],
                "description": "The sizes that tell the gap of either gear without a gasket: features of the drive gear, then of "
                "the idler gear; the front plate, then the back plate.",
                "properties": dict.fromkeys((*_ABOUT, "plates"), FEATURES),
            },
        },
    }

    sold_as: Mapping[int, int]
    start_um: int
    sizes: Sizes | None = None

    @classmethod
    def read(cls, data: Mapping[str, Any], family: Family, rows: tuple[Row, ...]) -> Self:
        """Raises FieldError for sizes that are no features of the family, and gaskets nobody could tell apart."""
        between = data.get("between", {})
        for name in between:
            check_sizes(family, between[name], f"adjustment.between.{name}")
        sold_as: dict[int, int] = {}
        for i, one in enumerate(data["gaskets"]):
            compressed = um_of(one["compressed"], f"adjustment.gaskets[{i}].compressed")
            sold = um_of(one["sold"], f"adjustment.gaskets[{i}].sold") if "sold" in one else compressed
            if compressed in sold_as:
                problem = f"another is {compressed / 1000:g} mm as compressed, too."
                raise FieldError(f"adjustment.gaskets[{i}].compressed", problem, "Expected each of them once.")
            if sold < compressed:
                raise FieldError(f"adjustment.gaskets[{i}].sold", "it is thinner than compressed.", "Expected the thicker here.")
            sold_as[compressed] = sold
        start = um_of(data["starting_gasket"], "adjustment.starting_gasket")
        sizes = Sizes(*(tuple(between[name]) for name in (*_ABOUT, "plates"))) if between else None
        return cls(sold_as, start, sizes)

    def set(self, now: SetNow) -> Setting:
        """The next pair after the tries so far."""
        asked = tuple(GapTarget(key, f"end gap, {gear}", now.window) for key, gear in zip(self.sets, GEARS, strict=True))
        measured = self._measured(now)
        ahead = (measured[0].ahead_mm, measured[1].ahead_mm) if measured else (0.0, 0.0)
        if now.tries:
            return settled(self._after(now, asked, ahead))
        if measured is None:
            move, first = self._blind(now)
            return Setting(asked, (), move, state=PairState(((), ()), first, None))
        doubt = guard_mm([Check(now.window.target_mm, self._doubt_mm(now), math.inf)], now.school)
        move, choice = self._best(now, doubt, now.shelf, lambda window, of: move_for(measured, window, of))
        sizes = Sentence("Sizes tell where to begin; the check of either gear judges.")
        bare_mm = (measured[0].ends.bare_um / 1000, measured[1].ends.bare_um / 1000)
        move = Move(move.way, 0.0, move.headline, (*move.details, sizes), move.working)
        return Setting(asked, (), move, state=PairState(((), ()), choice.stacks or ((), ()), choice, bare_mm, ahead))

    def _after(self, now: SetNow, asked: tuple[GapTarget, ...], ahead: tuple[float, float]) -> Setting:
        """The pair after a check, kept inside by as much of that check's doubt as the stock allows."""
        last = now.tries[-1]
        fitted: Pair = (last.stacks[0], last.stacks[1])
        totals = [check.value_mm for check in last.checks]
        stock = Counter(now.shelf) + Counter(fitted[0]) + Counter(fitted[1])
        doubt = guard_mm(last.checks, now.school)
        move, choice = self._best(now, doubt, stock, lambda window, of: move_from(fitted, totals, ahead, window, of))
        both = sum(map(sum, fitted)) / 1000
        state = PairState(fitted, choice.stacks or fitted, choice, (totals[0] - both, totals[1] - both), ahead)
        odd = next((found for pair in [now.tries[-2:]] if len(pair) == 2 for found in _odd(*pair)), None)
        return Setting(asked, judged(asked, now.tries, now.school), move, state=state, mismatch=odd)

    def _best(
        self, now: SetNow, doubt_mm: float, stock: Mapping[int, int], told: Callable[[Window, Gaskets], tuple[Move, PairChoice]]
    ) -> tuple[Move, PairChoice]:
        """The pair kept inside by as much of a doubt as the stock allows; what to buy is for the whole window."""
        for share in SHARES:
            gaskets = Gaskets(stock, () if share else self.stocked(), self.sold_as)
            move, choice = told(drawn_in(now.window, share * doubt_mm), gaskets)
            if choice.stacks is not None:
                return with_share(move, share, now.school), choice
        return move, choice

    def _doubt_mm(self, now: SetNow) -> float:
        """The standard uncertainty of a gear's gap by the sizes, of the gear that is known less well."""
        assert self.sizes is not None
        of = self.sizes
        keys = ((of.housing[i], of.gear[i], *of.plates) for i in range(len(GEARS)))
        return max(math.hypot(*(size.u_mm for key in pair if (size := (now.sizes or {}).get(key)))) for pair in keys)

    def _blind(self, now: SetNow) -> tuple[Move, Pair]:
        """The sheet's gasket at each end, where the sizes do not tell."""
        has = now.shelf.get(self.start_um, 0) >= len(ENDS)
        amounts = {"gasket": length(self.start_um / 1000)}
        lacking = "Two gaskets of {gasket} are wanted to begin with: count the shelf"
        headline = Sentence("Begin with {gasket} at each end" if has else lacking, amounts)
        details = (Sentence("With housing, plates and gears measured, the pair is told before anything is closed."),)
        given = (Given("", "the sheet's gasket", amounts["gasket"]),)
        working = Working("Trial pair", "the sheet's gasket at each end", given, headline, "the sheet; begin with what is known")
        one = (self.start_um,) if has else ()
        return Move(Way.STAY, 0.0, headline, details, working), (one, one)

    def _measured(self, now: SetNow) -> tuple[Measured, Measured] | None:
        """What lies about each gear where it is narrowest, once all of it is known."""
        if self.sizes is None:
            return None
        found = []
        for i, gear in enumerate(GEARS):
            wanted = (self.sizes.housing[i], self.sizes.gear[i], *self.sizes.plates)
            sizes = [(now.sizes or {}).get(key) for key in wanted]
            ends = [size.ends(gear) if size else None for size in sizes]
            known = [end for end in ends if end]
            if len(known) < len(wanted):
                return None
            (housing, _), (_, width), (_, front), (_, back) = known
            # With the gear in the middle of its housing, the thicker plate takes its more from its own end.
            found.append(Measured(housing, front + back, width, back - front))
        return found[0], found[1]

    def show(self, setting: Setting, now: SetNow) -> PairView:
        """Both ends, and both gears with the pair that is next."""
        state = setting.state
        assert isinstance(state, PairState)
        ends = []
        for name, before, after in zip(ENDS, state.now, state.next, strict=True):
            change = change_between(before, after)
            ends.append(EndOfPair(name, *(pieces(of) for of in (change.now, change.next, change.out, change.into))))
        possible = setting.right or state.choice is None or state.choice.stacks is not None
        return PairView(self.kind, ends, [self._gear(i, state) for i in range(len(GEARS))], shelf(now.shelf), possible)

    def _gear(self, i: int, state: PairState) -> GearOfPair:
        if state.bare_mm is None or not all(state.next):
            return GearOfPair(GEARS[i], "", "", "", 0.0, 0.0)
        metal, ahead = state.bare_mm[i], state.ahead_mm[i]
        one, other = (sum(stack) / 1000 for stack in state.next)
        front, back = (metal + ahead) / 2 + one, (metal - ahead) / 2 + other
        total, at_front, at_back = (Bare(length(mm, fine=True)) for mm in (front + back, front, back))
        return GearOfPair(GEARS[i], total, at_front, at_back, front, back)

    def lines(self, words: GapWords) -> list[tuple[str, Text]]:
        """As the sheet prints them."""
        sold = (
            bare(t / 1000) if t == before else Sentence("{t} of {sold}", {"t": Bare(piece(t)), "sold": Bare(piece(before))})
            for t, before in sorted(self.sold_as.items())
        )
        means = ("Means", "a gasket at each end of the housing")
        return [
            means,
            ("Thicknesses as compressed", Joined(tuple(sold))),
            ("Begin with, at each end", length(self.start_um / 1000)),
        ]

    def stocked(self) -> tuple[int, ...]:
        """Every gasket the maker sells, as compressed."""
        return tuple(sorted(self.sold_as))

    def set_by(self, made: TryMade, typed: str) -> Text:
        """By the gaskets in front and behind."""
        return Sentence("front {front}, back {back}", dict(zip(ENDS, map(stack_words, made.stacks), strict=True)))

    def check_stacks(self, stacks: Sequence[Sequence[int]]) -> list[list[int]]:
        """One gasket or more at each end."""
        checked = super().check_stacks(stacks)
        for name, stack in zip(ENDS, checked, strict=True):
            if not stack:
                raise FieldError("stack", f"there is no gasket at the {name}.", "Expected one or more at each end: it seals.")
        return checked


def _odd(before: TryMade, made: TryMade) -> Iterator[Sentence]:
    """What does not follow the gaskets, gear by gear."""
    promised = (sum(map(sum, made.stacks)) - sum(map(sum, before.stacks))) / 1000
    for gear, (was, now) in zip(GEARS, zip(before.checks, made.checks, strict=True), strict=True):
        odd = mismatch.mismatch(promised, now.value_mm - was.value_mm, math.hypot(was.u_mm, now.u_mm), mismatch.GASKETS)
        if odd:
            yield Sentence("{gear}: {odd}", {"gear": gear.capitalize(), "odd": odd})


MEANS = GasketPairMeans
