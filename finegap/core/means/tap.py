"""A rotor pressed between two halves: its shaft is tapped across by a drift, and nothing tells by how much it went."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, ClassVar, Self

from finegap.core.families.family import Family, GapWords
from finegap.core.formatting import Bare, Sentence, Text, length
from finegap.core.gap import tap
from finegap.core.gap.declared import length_of
from finegap.core.gap.mismatch import LEAST_ODD_MM
from finegap.core.gap.move import Move, Way, Window
from finegap.core.gap.table import Row
from finegap.core.gap.tries import GapTarget, Setting, TryMade, settled
from finegap.core.means.base import MeansView, Moved, PlainMeans, SetNow, check_sizes
from finegap.core.means.schemas import FEATURES, LENGTH
from finegap.core.means.sides import held, shared
from finegap.core.units import Dimension
from finegap.core.working import Working


@dataclass(frozen=True)
class TapView(MeansView):
    """The end to be tapped, empty where none is; the gaps as checked, or as the sizes foretell them, empty where neither is."""

    end: str
    front: Text
    back: Text
    front_mm: float
    back_mm: float
    foretold: bool


@dataclass(frozen=True)
class TapMeans(PlainMeans):
    """By how much the sides may differ, in mm. ``depth`` and ``rotor`` name the sizes that foretell them; empty where none do."""

    kind: ClassVar[str] = "tap"
    view_type: ClassVar[type[MeansView]] = TapView
    sets: ClassVar[tuple[str, ...]] = ("side:1", "side:2")
    moved: ClassVar[Moved | None] = Moved("", Dimension.LENGTH, (tap.WAYS[0], tap.WAYS[1]))
    schema: ClassVar[Mapping[str, Any]] = {
        "required": ["difference"],
        "properties": {
            "difference": {**LENGTH, "description": "By how much the gaps in front and behind may differ."},
            "between": {
                **FEATURES,
                "description": "Two features whose difference is both gaps together: the outer (housing depth), then the inner "
                "(rotor width).",
            },
        },
    }

    difference_mm: float
    depth: str = ""
    rotor: str = ""

    @classmethod
    def read(cls, data: Mapping[str, Any], family: Family, rows: tuple[Row, ...]) -> Self:
        """Raises FieldError for sizes that are no features of the family."""
        check_sizes(family, data.get("between", ()), "adjustment.between")
        sizes = data.get("between", ("", ""))
        return cls(length_of(data["difference"], "adjustment.difference"), *sizes)

    def set(self, now: SetNow) -> Setting:
        """Which end is tapped next."""
        window = now.window
        if now.tries:
            front, back = (check.value_mm for check in now.tries[-1].checks)
            asked = self._asked(now, shared(window, now.tries))
            alike = GapTarget("differ:side", "front less back", Window(0.0, -self.difference_mm, self.difference_mm))
            move = tap.move_for(front, back, self.difference_mm, window)
            return settled(Setting(asked, held(asked, alike, now), move, mismatch=_odd(now.tries[-2:])))
        known = self._known(now)
        return Setting(self._asked(now, window), (), tap.foretold(*known, window) if known else _blind())

    def _asked(self, now: SetNow, window: Window) -> tuple[GapTarget, ...]:
        sides = zip(self.sets, tap.ENDS, strict=True)
        return tuple(GapTarget(key, f"{now.words.name}, {end}", window, self.difference_mm) for key, end in sides)

    def _known(self, now: SetNow) -> tuple[float, float] | None:
        """Depth where it is least and rotor where it is most, once both are known."""
        sizes = now.sizes or {}
        depth, rotor = (size.ends() if (size := sizes.get(key)) else None for key in (self.depth, self.rotor))
        return (depth[0], rotor[1]) if depth and rotor else None

    def show(self, setting: Setting, now: SetNow) -> TapView:
        """Where the drift goes."""
        known = self._known(now)
        if setting.tries:
            front, back = (h.check.value_mm for h in setting.tries[-1].results if not h.derived)
            taps = not setting.right and abs(front - back) > self.difference_mm
            return self._view(tap.ENDS[back < front] if taps else "", front, back, foretold=False)
        if known is None:
            return TapView(self.kind, "", "", "", 0.0, 0.0, foretold=False)
        each = (known[0] - known[1]) / 2
        return self._view("", each, each, foretold=True)

    def _view(self, end: str, front_mm: float, back_mm: float, *, foretold: bool) -> TapView:
        front, back = (Bare(length(mm, fine=True)) for mm in (front_mm, back_mm))
        return TapView(self.kind, end, front, back, front_mm, back_mm, foretold)

    def lines(self, words: GapWords) -> list[tuple[str, Text]]:
        """What it is."""
        return [("Means", "the shaft tapped across by a drift"), ("The two sides may differ by", length(self.difference_mm))]

    def set_by(self, made: TryMade, typed: str) -> Text:
        """By the end that was tapped."""
        return f"tapped on the {tap.WAYS[made.moved < 0]}" if made.moved else "as bolted, not tapped"


def _blind() -> Move:
    headline = Sentence("Bolted, measure the gap on both sides")
    details = (Sentence("With housing and rotor measured, it is told before anything is pressed together."),)
    return Move(Way.STAY, 0.0, headline, details, Working("Side gaps", "as measured", (), headline, "common practice, no source"))


def _odd(tries: tuple[TryMade, ...]) -> Sentence | None:
    """A rotor that went the other way than it was tapped, or two gaps that together are not what they were."""
    if len(tries) < 2:
        return None
    before, made = ([check.value_mm for check in one.checks] for one in tries)
    u = math.hypot(*(check.u_mm for one in tries for check in one.checks))
    went, both = (made[0] - before[0] - made[1] + before[1]) / 2, sum(made) - sum(before)
    if abs(both) > max(2 * u, LEAST_ODD_MM):
        words = (
            "Both gaps together are {off} {how} than before, and no tap changes that. Look for dirt, and for bolts that are loose."
        )
        return Sentence(words, {"off": length(abs(both), fine=True), "how": "more" if both > 0 else "less"})
    tapped = tries[-1].moved or 0.0
    if tapped * went >= 0 or abs(went) <= max(2 * u, LEAST_ODD_MM):
        return None
    words = "It went the other way than it was tapped, by {off}. Usual reasons: front and back taken for one another, or read so."
    return Sentence(words, {"off": length(abs(went), fine=True)})


MEANS = TapMeans
