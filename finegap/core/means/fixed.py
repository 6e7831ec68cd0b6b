"""Nothing adjusts the gap: it follows from the parts, and is only checked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, ClassVar, Self

from finegap.core.errors import FieldError
from finegap.core.families.family import Family, GapWords
from finegap.core.formatting import Text
from finegap.core.gap import fixed
from finegap.core.gap.table import Row
from finegap.core.gap.tries import GapTarget, Setting, judged, settled
from finegap.core.means.base import BACK_COLUMN, MeansView, PlainMeans, SetNow, asked_at, asked_one
from finegap.core.means.timing import TimingMeans


@dataclass(frozen=True)
class FixedView(MeansView):
    """The two faces."""


@dataclass(frozen=True)
class FixedMeans(PlainMeans):
    """Gaps that cannot be adjusted: by key and name, those another means of the family would set; empty where it has one alone."""

    kind: ClassVar[str] = "fixed"
    view_type: ClassVar[type[MeansView]] = FixedView
    schema: ClassVar[Mapping[str, Any]] = {"required": [], "properties": {}}

    gaps: tuple[tuple[str, str], ...] = ()

    @classmethod
    def columns(cls, family: Family) -> tuple[str, ...]:
        """Behind the rotor, too, where it has a back."""
        return (BACK_COLUMN,) if any(_is_back(feature.set_as) for feature in family.features) else ()

    @classmethod
    def read(cls, data: Mapping[str, Any], family: Family, rows: tuple[Row, ...]) -> Self:
        """A sheet has nothing to say of it, but what is behind a rotor that has a back.

        Raises FieldError for a row without it.
        """
        gaps = tuple((f.set_as, f.label.lower() or f.name.lower()) for f in family.features if f.set_as and not _meshes(f.set_as))
        bare = next((i for i, row in enumerate(rows) if row.back_mm is None), None)
        if bare is not None and any(_is_back(key) for key, _ in gaps):
            hint = "Expected the clearance behind the rotor in every row."
            raise FieldError(f"clearance_table.rows[{bare}].back_clearance", "it is missing.", hint)
        return cls(gaps if len(gaps) > 1 else ())

    def set(self, now: SetNow) -> Setting:
        """Checked, and nothing else; what is furthest out of its window is told."""
        asked = self._asked(now)
        held = judged(asked, now.tries, now.school)
        if not held:
            return Setting(asked, (), fixed.move_for(None, asked[0].window, now.words))
        worst = held[-1].worst
        words = replace(now.words, name=worst.target.name)
        move = fixed.move_for(worst.check.value_mm, worst.target.window, words if self.gaps else now.words)
        return settled(Setting(asked, held, move))

    def _asked(self, now: SetNow) -> tuple[GapTarget, ...]:
        if not self.gaps or any(len(made.checks) == 1 for made in now.tries):
            return asked_one(now)  # a job begun while one check was asked ends as it began
        back = now.back or now.window
        each = ((key, name, back if _is_back(key) else now.window) for key, name in self.gaps)
        return tuple(target for key, name, window in each for target in asked_at(key, name, window, now))

    def show(self, setting: Setting, now: SetNow) -> FixedView:
        """Nothing of its own."""
        return FixedView(self.kind)

    def lines(self, words: GapWords) -> list[tuple[str, Text]]:
        """That there is none."""
        return [("Means", "none: the gap is checked only")]


def _meshes(key: str) -> bool:
    """A timing gear sets it, whatever else is set."""
    return key in TimingMeans.sets


def _is_back(key: str) -> bool:
    """It lies behind a rotor: the table has another number for it."""
    return key.startswith("back:")


MEANS = FixedMeans
