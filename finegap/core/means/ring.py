"""An adjusting ring on the shaft: the shaft is set with feeler leaves, and nothing tells by how much it moved."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, ClassVar, Self

from finegap.core.families.family import Family, GapWords
from finegap.core.formatting import Sentence, Text, length
from finegap.core.gap import ring
from finegap.core.gap.declared import pair_of
from finegap.core.gap.mismatch import LEAST_ODD_MM
from finegap.core.gap.table import Row
from finegap.core.gap.tries import Setting, judged, settled
from finegap.core.means.base import MeansView, PlainMeans, SetNow, asked_one
from finegap.core.means.schemas import RANGE


@dataclass(frozen=True)
class RingView(MeansView):
    """The two faces, with leaves between them."""


@dataclass(frozen=True)
class RingMeans(PlainMeans):
    """``depth_mm`` is how far the bearing lies below the cover face, low and high, where the sheet says it."""

    kind: ClassVar[str] = "ring"
    name: ClassVar[str] = "adjusting ring"
    view_type: ClassVar[type[MeansView]] = RingView
    schema: ClassVar[Mapping[str, Any]] = {
        "required": [],
        "properties": {
            "depth": {**RANGE, "description": "How far the bearing lies below the cover face, from and to."},
        },
    }

    depth_mm: tuple[float, float] | None = None

    @classmethod
    def read(cls, data: Mapping[str, Any], family: Family, rows: tuple[Row, ...]) -> Self:
        """Raises FieldError for a depth whose range is reversed."""
        return cls(pair_of(data["depth"], "adjustment.depth") if "depth" in data else None)

    def set(self, now: SetNow) -> Setting:
        """Next position of the shaft after the tries so far."""
        last = now.tries[-1].check.value_mm if now.tries else None
        move = ring.move_for(last, now.window, now.words, self.kind == "coupling", self.depth_mm)
        asked = asked_one(now)
        return settled(Setting(asked, judged(asked, now.tries, now.school), move, mismatch=_further(now)))

    def show(self, setting: Setting, now: SetNow) -> RingView:
        """Nothing of its own."""
        return RingView(self.kind)

    def lines(self, words: GapWords) -> list[tuple[str, Text]]:
        """What it is."""
        return [("Means", f"{self.name} on the shaft, set with leaves")]


def _further(now: SetNow) -> Sentence | None:
    """Set by hand it promises nothing but to come nearer."""
    if len(now.tries) < 2:
        return None
    before, last = (abs(t.check.value_mm - now.window.target_mm) for t in now.tries[-2:])
    if last - before <= max(2 * now.tries[-1].check.u_mm, LEAST_ODD_MM):
        return None
    words = (
        "Further off than before, by {off}. Usual reasons: moved the wrong way, the shaft crept while the screws were tightened, "
        "or the leaves were not on both sides."
    )
    return Sentence(words, {"off": length(last - before)})


MEANS = RingMeans
