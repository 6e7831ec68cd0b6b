"""A made-up means: a wedge pushed under a plate opens the slit by a tenth of its way."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, ClassVar, Self

from finegap.core.families.family import Family, GapWords
from finegap.core.formatting import Bare, Sentence, Text, length
from finegap.core.gap.declared import length_of
from finegap.core.gap.move import Move, way_of
from finegap.core.gap.table import Row
from finegap.core.gap.tries import Setting, TryMade, judged, settled
from finegap.core.means.base import MeansView, Moved, PlainMeans, SetNow, asked_one
from finegap.core.means.schemas import LENGTH
from finegap.core.units import Dimension
from finegap.core.working import Given, Working


@dataclass(frozen=True)
class WedgeView(MeansView):
    """How far the wedge is in, and how far it has to be pushed."""

    depth: Text
    push: Text


@dataclass(frozen=True)
class WedgeMeans(PlainMeans):
    """``run_mm`` is how far it goes for one millimetre of gap."""

    kind: ClassVar[str] = "wedge"
    view_type: ClassVar[type[MeansView]] = WedgeView
    moved: ClassVar[Moved | None] = Moved("arc", Dimension.LENGTH, ("in", "out"))
    schema: ClassVar[Mapping[str, Any]] = {"required": ["run"], "properties": {"run": LENGTH}}

    run_mm: float

    @classmethod
    def read(cls, data: Mapping[str, Any], family: Family, rows: tuple[Row, ...]) -> Self:
        """Its run for a millimetre of gap."""
        return cls(length_of(data["run"], "adjustment.run"))

    def set(self, now: SetNow) -> Setting:
        """Push it by what the gap still wants."""
        gap = now.tries[-1].check.value_mm if now.tries else 0.0
        wanted = now.window.target_mm - gap
        push = length(abs(wanted) * self.run_mm)
        words = Sentence("Push the wedge {way} by {push}", {"way": "in" if wanted > 0 else "out", "push": push})
        working = Working("Wedge", "s = r·Δ", (Given("Δ", "change wanted", length(wanted)),), push, "geometry")
        asked = asked_one(now)
        move = Move(way_of(wanted), wanted, words, (), working)
        return settled(Setting(asked, judged(asked, now.tries, now.school), move, state=push))

    def show(self, setting: Setting, now: SetNow) -> WedgeView:
        """Where it stands."""
        depth = sum(made.moved or 0.0 for made in now.tries)
        return WedgeView(self.kind, Bare(length(depth)), setting.state)

    def lines(self, words: GapWords) -> list[tuple[str, Text]]:
        """Its run."""
        return [("Means", "a wedge"), ("Run for a millimetre", length(self.run_mm))]

    def set_by(self, made: TryMade, typed: str) -> Text:
        """By how far it was pushed."""
        return Sentence("pushed {by}", {"by": length(made.moved or 0.0)})


MEANS = WedgeMeans
