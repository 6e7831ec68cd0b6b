"""Shims behind the front bearings of two shafts: each moves its rotor forward, closing the front and opening the back."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, ClassVar, Self

from finegap.core.errors import FieldError
from finegap.core.families.family import Family, GapWords
from finegap.core.formatting import Bare, Sentence, Text, length
from finegap.core.gap import gaskets, mismatch, shims, stack_choice
from finegap.core.gap.declared import length_of
from finegap.core.gap.gaskets import StackChange
from finegap.core.gap.move import Window
from finegap.core.gap.shims import ShimChoice
from finegap.core.gap.stock import Stack
from finegap.core.gap.table import Row
from finegap.core.gap.tries import GapTarget, Setting, TryJudged, TryMade, hold, judged, settled
from finegap.core.means.base import BACK_COLUMN, SHARES, MeansView, PlainMeans, SetNow, difference, drawn_in, guard_mm, with_share
from finegap.core.means.pieces import Piece, listed, pieces, shelf, sold, stacks_words, um_of
from finegap.core.means.schemas import LENGTH, THICKNESSES


@dataclass(frozen=True)
class Shaft:
    """One shaft: shims now and next, and both clearances as they are and as they should come to."""

    name: str
    now: list[Piece]
    next: list[Piece]
    out: list[Piece]
    into: list[Piece]
    front_mm: float | None
    back_mm: float | None
    next_front_mm: float | None
    next_back_mm: float | None


@dataclass(frozen=True)
class ShimsView(MeansView):
    """Both shafts to draw, what the clearances may be, and what is on the shelf."""

    shafts: list[Shaft]
    front: Text
    back: Text
    difference: Text
    box: list[Piece]


@dataclass(frozen=True)
class ShimsState:
    """The change at each shaft, and how it was chosen; before the first check nothing was."""

    changes: tuple[StackChange, StackChange]
    choice: ShimChoice | None = None


@dataclass(frozen=True)
class ShimMeans(PlainMeans):
    """Thicknesses sold and the one to begin with [um]; how far the rotors may differ, in mm."""

    kind: ClassVar[str] = "shims"
    piece: ClassVar[str] = "shim"
    view_type: ClassVar[type[MeansView]] = ShimsView
    sets: ClassVar[tuple[str, ...]] = ("front:1", "back:1", "front:2", "back:2")
    stacks: ClassVar[int] = len(shims.SHAFTS)
    schema: ClassVar[Mapping[str, Any]] = {
        "required": ["thicknesses", "difference"],
        "properties": {
            "thicknesses": THICKNESSES,
            "starting_shims": LENGTH,
            "difference": {**LENGTH, "description": "How far the two rotors may differ, in front and behind."},
        },
    }

    sold_um: tuple[int, ...]
    start_um: int
    difference_mm: float

    @classmethod
    def columns(cls, family: Family) -> tuple[str, ...]:
        """Behind the rotor, too."""
        return (BACK_COLUMN,)

    @classmethod
    def read(cls, data: Mapping[str, Any], family: Family, rows: tuple[Row, ...]) -> Self:
        """Raises FieldError for a row without a back clearance."""
        bare = next((i for i, row in enumerate(rows) if row.back_mm is None), None)
        if bare is not None:
            hint = "Expected the clearance behind the rotor in every row: shims move both."
            raise FieldError(f"clearance_table.rows[{bare}].back_clearance", "it is missing.", hint)
        start = um_of(data["starting_shims"], "adjustment.starting_shims") if "starting_shims" in data else 0
        return cls(sold(data), start, length_of(data["difference"], "adjustment.difference"))

    def set(self, now: SetNow) -> Setting:
        """Next shims for both shafts after the tries so far."""
        asked = self._asked(now)
        spread = Window(0.0, -self.difference_mm, self.difference_mm)
        if not now.tries:
            trial = _trial(self.start_um, now.shelf)
            changes = (gaskets.change_between((), trial[0]), gaskets.change_between((), trial[1]))
            return Setting(asked, (), shims.first_move(trial, self.start_um), state=ShimsState(changes))
        differ = tuple(GapTarget(f"differ:{side}", f"{side}, one rotor to the other", spread) for side in ("front", "back"))
        held = tuple(
            TryJudged(
                one.made,
                (
                    *one.results,
                    *(hold(d, difference(one.results[i], one.results[i + 2]), now.school, True) for i, d in enumerate(differ)),
                ),
            )
            for one in judged(asked, now.tries, now.school)
        )
        move, state = self._next(now, held[-1], spread)
        odd = next((found for pair in [now.tries[-2:]] if len(pair) == 2 for found in _odd(*pair)), None)
        return settled(Setting(asked, held, move, state=state, mismatch=odd))

    def _asked(self, now: SetNow) -> tuple[GapTarget, ...]:
        sides = (("front", now.window), ("back", _back(now)))
        return tuple(
            GapTarget(f"{side}:{i + 1}", f"{side}, {shaft}", window, self.difference_mm)
            for i, shaft in enumerate(shims.SHAFTS)
            for side, window in sides
        )

    def _next(self, now: SetNow, judged_last: TryJudged, spread: Window) -> tuple[Any, ShimsState]:
        """The next move, kept inside by as much of the last check's doubt as the stock allows."""
        last = now.tries[-1]
        stock = Counter(now.shelf) + Counter(last.stacks[0]) + Counter(last.stacks[1])
        rotors = shims.faces([c.value_mm for c in last.checks], last.stacks)
        doubts = [guard_mm(checks, now.school) for checks in (last.checks[::2], last.checks[1::2])]
        doubt = guard_mm([h.check for h in judged_last.results if h.derived], now.school)
        for share in SHARES:
            windows = zip((now.window, _back(now)), doubts, strict=True)
            front, back = (drawn_in(window, share * guard) for window, guard in windows)
            apart = drawn_in(spread, share * doubt).high_mm
            move, changes, choice = shims.move_for(rotors, front, back, apart, stock, () if share else self.sold_um)
            if choice.stacks is not None:
                move = with_share(move, share, now.school)
                break
        one, other = last.stacks
        stay = (gaskets.change_between(one, one), gaskets.change_between(other, other))
        return move, ShimsState(changes or stay, choice)

    def show(self, setting: Setting, now: SetNow) -> ShimsView:
        """Both shafts."""
        assert isinstance(setting.state, ShimsState)
        checks = [h.check.value_mm for h in setting.tries[-1].results if not h.derived] if setting.tries else []
        return ShimsView(
            self.kind,
            shafts=[_shaft(i, change, checks) for i, change in enumerate(setting.state.changes)],
            front=_ends(now.window),
            back=_ends(_back(now)),
            difference=length(self.difference_mm),
            box=shelf(now.shelf),
        )

    def lines(self, words: GapWords) -> list[tuple[str, Text]]:
        """As the sheet prints them."""
        (_, thicknesses), begin = listed(self.sold_um, self.start_um)
        means = ("Means", "shims behind the front bearings of both shafts")
        return [means, ("Thicknesses", thicknesses), begin, ("The rotors may differ by", length(self.difference_mm))]

    def stocked(self) -> tuple[int, ...]:
        """Every thickness the maker sells."""
        return self.sold_um

    def set_by(self, made: TryMade, typed: str) -> Text:
        """By the stack of each shaft."""
        return stacks_words(made.stacks)


def _back(now: SetNow) -> Window:
    assert now.back is not None  # every row of the sheet's table has one
    return now.back


def _ends(window: Window) -> Text:
    low, high, _ = window.shown()
    return Sentence("{low} to {high}", {"low": Bare(low), "high": high})


def _shaft(i: int, change: StackChange, checks: list[float]) -> Shaft:
    forward = (sum(change.next) - sum(change.now)) / 1000
    front, back = (checks[2 * i], checks[2 * i + 1]) if checks else (None, None)
    return Shaft(
        name=shims.SHAFTS[i],
        now=pieces(change.now),
        next=pieces(change.next),
        out=pieces(change.out),
        into=pieces(change.into),
        front_mm=front,
        back_mm=back,
        next_front_mm=None if front is None else front - forward,
        next_back_mm=None if back is None else back + forward,
    )


def _trial(start_um: int, box: Mapping[int, int]) -> tuple[Stack, ...]:
    """The starting shims of each shaft, the second's from what the first leaves."""
    left, trial = Counter(box), []
    for _ in shims.SHAFTS:
        stack = (stack_choice.best_stack(left, start_um, 0, 0).stack or ()) if start_um else ()
        left -= Counter(stack)
        trial.append(stack)
    return tuple(trial)


def _odd(before: TryMade, made: TryMade) -> list[Sentence]:
    """What does not follow the shims, gap by gap: forward closes the front and opens the back."""
    found = []
    for i, shaft in enumerate(shims.SHAFTS):
        forward = (sum(made.stacks[i]) - sum(before.stacks[i])) / 1000
        for side, sign in ((0, -1), (1, 1)):
            was, now = before.checks[2 * i + side], made.checks[2 * i + side]
            u = math.hypot(was.u_mm, now.u_mm)
            odd = mismatch.mismatch(sign * forward, now.value_mm - was.value_mm, u, mismatch.SHIMS)
            if odd:
                words = {"shaft": shaft.capitalize(), "side": ("front", "back")[side], "odd": odd}
                found.append(Sentence("{shaft}, {side}: {odd}", words))
    return found


MEANS = ShimMeans
