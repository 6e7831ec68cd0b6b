"""Nothing adjusts the gap: it follows from the parts, and is only checked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, ClassVar, Self

from finegap.core.families.family import Family, GapWords
from finegap.core.formatting import Text
from finegap.core.gap import fixed
from finegap.core.gap.table import Row
from finegap.core.gap.tries import Setting, judged, settled
from finegap.core.means.base import MeansView, PlainMeans, SetNow, asked_one


@dataclass(frozen=True)
class FixedView(MeansView):
    """The two faces."""


@dataclass(frozen=True)
class FixedMeans(PlainMeans):
    """A gap that cannot be adjusted."""

    kind: ClassVar[str] = "fixed"
    view_type: ClassVar[type[MeansView]] = FixedView
    schema: ClassVar[Mapping[str, Any]] = {"required": [], "properties": {}}

    @classmethod
    def read(cls, data: Mapping[str, Any], family: Family, rows: tuple[Row, ...]) -> Self:
        """A sheet has nothing to say of it."""
        return cls()

    def set(self, now: SetNow) -> Setting:
        """Checked, and nothing else."""
        last = now.tries[-1].check.value_mm if now.tries else None
        asked = asked_one(now)
        return settled(Setting(asked, judged(asked, now.tries, now.school), fixed.move_for(last, now.window, now.words)))

    def show(self, setting: Setting, now: SetNow) -> FixedView:
        """Nothing of its own."""
        return FixedView(self.kind)

    def lines(self, words: GapWords) -> list[tuple[str, Text]]:
        """That there is none."""
        return [("Means", "none: the gap is checked only")]


MEANS = FixedMeans
