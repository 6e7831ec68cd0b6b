"""Gaskets under a head or cover."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Any, ClassVar, Self

from finegap.core.errors import FieldError
from finegap.core.families.family import Family, GapWords
from finegap.core.formatting import Sentence, Text
from finegap.core.gap import gaskets, mismatch
from finegap.core.gap.gaskets import MetalGap, StackChange
from finegap.core.gap.stack_choice import StackChoice
from finegap.core.gap.table import Row
from finegap.core.gap.tries import Setting, TryMade, judged, settled
from finegap.core.means.base import SHARES, MeansView, PlainMeans, SetNow, asked_one, check_sizes, drawn_in, guard_mm, with_share
from finegap.core.means.pieces import Piece, listed, pieces, shelf, sold, stacks_words, um_of
from finegap.core.means.schemas import FEATURES, LENGTH, THICKNESSES


@dataclass(frozen=True)
class GasketsView(MeansView):
    """Stacks to draw: in the pump now, next, and what is on the shelf; ``possible`` when the shelf has a stack that does."""

    now: list[Piece]
    next: list[Piece]
    out: list[Piece]
    into: list[Piece]
    box: list[Piece]
    possible: bool


@dataclass(frozen=True)
class GasketsState:
    """The change from the stack that is in to the next, and how that was chosen."""

    change: StackChange
    choice: StackChoice


@dataclass(frozen=True)
class GasketMeans(PlainMeans):
    """Thicknesses as compressed that the maker sells, and the one to begin with, in micrometres.

    ``outer`` and ``inner`` name two features whose difference is the gap without a gasket (a cylinder and the rotor in it); empty
    where only a trial tells.
    """

    kind: ClassVar[str] = "gaskets"
    piece: ClassVar[str] = "gasket"
    view_type: ClassVar[type[MeansView]] = GasketsView
    stacks: ClassVar[int] = 1
    schema: ClassVar[Mapping[str, Any]] = {
        "required": ["thicknesses", "starting_gasket"],
        "properties": {
            "thicknesses": {**THICKNESSES, "description": "As compressed."},
            "starting_gasket": LENGTH,
            "between": {
                **FEATURES,
                "description": "Two features whose difference is the gap without a gasket: the outer (cylinder length), then the "
                "inner (rotor length).",
            },
        },
    }

    sold_um: tuple[int, ...]
    start_um: int
    outer: str = ""
    inner: str = ""

    @classmethod
    def read(cls, data: Mapping[str, Any], family: Family, rows: tuple[Row, ...]) -> Self:
        """Raises FieldError for sizes that are no features of the family."""
        check_sizes(family, data.get("between", ()), "adjustment.between")
        sizes = data.get("between", ("", ""))
        return cls(sold(data), um_of(data["starting_gasket"], "adjustment.starting_gasket"), *sizes)

    def set(self, now: SetNow) -> Setting:
        """Next stack after the tries so far."""
        odd = None
        for before, made in pairwise(now.tries):
            promised = (sum(made.stack) - sum(before.stack)) / 1000
            u = math.hypot(before.check.u_mm, made.check.u_mm)
            odd = mismatch.mismatch(promised, made.check.value_mm - before.check.value_mm, u, mismatch.GASKETS)
        if now.tries:
            stack, gap, available = (
                now.tries[-1].stack,
                now.tries[-1].check.value_mm,
                Counter(now.shelf) + Counter(now.tries[-1].stack),
            )
            for share in SHARES:
                guard = share * guard_mm(now.tries[-1].checks, now.school)
                to_buy = () if share else self.sold_um
                window = drawn_in(now.window, guard)
                move, following, choice = gaskets.move_for(stack, gap, window, available, to_buy, now.words)
                if choice.stack is not None:
                    move = with_share(move, share, now.school)
                    break
            change = following or gaskets.change_between(stack, stack)
        else:
            known = self._known(now)
            move, choice = gaskets.first_move(now.shelf, self.start_um, now.window, now.words, known, self.sold_um)
            change = gaskets.change_between((), choice.stack or ())
        asked, state = asked_one(now), GasketsState(change, choice)
        return settled(Setting(asked, judged(asked, now.tries, now.school), move, state=state, mismatch=odd))

    def _known(self, now: SetNow) -> MetalGap | None:
        """The gap the metal alone leaves where it is narrowest, where sizes tell it before any trial."""
        sizes = now.sizes or {}
        outer, inner = sizes.get(self.outer), sizes.get(self.inner)
        low, high = outer.ends() if outer else None, inner.ends() if inner else None
        return MetalGap(low[0], high[1], outer.name, inner.name) if outer and inner and low and high else None

    def show(self, setting: Setting, now: SetNow) -> GasketsView:
        """The stack now, and what changes."""
        assert isinstance(setting.state, GasketsState)
        change, choice = setting.state.change, setting.state.choice
        return GasketsView(
            self.kind,
            pieces(change.now),
            pieces(change.next),
            pieces(change.out),
            pieces(change.into),
            shelf(now.shelf),
            possible=choice.stack is not None or setting.right,
        )

    def lines(self, words: GapWords) -> list[tuple[str, Text]]:
        """As the sheet prints them."""
        (_, thicknesses), begin = listed(self.sold_um, self.start_um)
        means = Sentence("gaskets {place}", {"place": words.place})
        return [("Means", means), ("Thicknesses as compressed", thicknesses), begin]

    def stocked(self) -> tuple[int, ...]:
        """Every thickness the maker sells."""
        return self.sold_um

    def set_by(self, made: TryMade, typed: str) -> Text:
        """By its stack."""
        return stacks_words(made.stacks)

    def check_stacks(self, stacks: Sequence[Sequence[int]]) -> list[list[int]]:
        """One gasket or more."""
        checked = super().check_stacks(stacks)
        if not checked[0]:
            raise FieldError("stack", "there is no gasket in it.", "Expected one gasket or more: it seals.")
        return checked


MEANS = GasketMeans
