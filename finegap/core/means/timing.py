"""A clamped timing gear that makes two mesh gaps alike: it is turned towards one side."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Any, ClassVar, Self

from finegap.core.errors import FieldError
from finegap.core.families.family import Family, GapWords
from finegap.core.formatting import Amount, Bare, Kind, Sentence, Text, length
from finegap.core.gap import mismatch, timing
from finegap.core.gap.declared import length_of, pair_of
from finegap.core.gap.move import Window
from finegap.core.gap.table import Row
from finegap.core.gap.timing import Timing
from finegap.core.gap.tries import GapTarget, Setting, TryJudged, TryMade, hold, judged, settled
from finegap.core.means.base import MeansView, Moved, PlainMeans, SetNow, asked_at, halves, less, narrowest
from finegap.core.means.housing import arc_words
from finegap.core.means.schemas import LENGTH, RANGE
from finegap.core.units import Dimension


@dataclass(frozen=True)
class TimingView(MeansView):
    """The turn to draw: towards which side, and its arc as it is typed."""

    toward: str
    arc: Text
    angle_deg: float
    pitch: Text
    marked: Text


@dataclass(frozen=True)
class TimingMeans(PlainMeans):
    """The gear, what each mesh gap may be, and by how much they may differ, in mm."""

    kind: ClassVar[str] = "timing"
    view_type: ClassVar[type[MeansView]] = TimingView
    sets: ClassVar[tuple[str, ...]] = tuple(f"mesh:{side}" for side in timing.SIDES)
    moved: ClassVar[Moved | None] = Moved("arc", Dimension.LENGTH, timing.SIDES)
    schema: ClassVar[Mapping[str, Any]] = {
        "description": "A clamped timing gear that makes two mesh gaps alike.",
        "required": ["pitch_diameter", "gap", "difference"],
        "properties": {
            "pitch_diameter": {**LENGTH, "description": "Where the mesh gaps are measured."},
            "marked_diameter": {**LENGTH, "description": "Where the marks of the clamped gear are, if not on the pitch circle."},
            "gap": {**RANGE, "description": "What each mesh gap may be, from and to."},
            "difference": {**LENGTH, "description": "By how much left and right may differ."},
        },
    }

    timing: Timing
    window: Window
    difference_mm: float

    @classmethod
    def read(cls, data: Mapping[str, Any], family: Family, rows: tuple[Row, ...] = ()) -> Self:
        """Raises FieldError for diameters that cannot be, and a range that is reversed."""
        try:
            of = Timing(
                length_of(data["pitch_diameter"], "timing.pitch_diameter"),
                length_of(data.get("marked_diameter", data["pitch_diameter"]), "timing.marked_diameter"),
            )
        except FieldError as error:
            raise error if "." in error.field else error.within("timing") from None
        low, high = pair_of(data["gap"], "timing.gap")
        return cls(of, Window((low + high) / 2, low, high), length_of(data["difference"], "timing.difference"))

    def set(self, now: SetNow) -> Setting:
        """Next turn after the tries so far."""
        left, right = (narrowest(side).value_mm for side in halves(now.tries[-1])) if now.tries else (None, None)
        # Turning the gear makes the two alike; what they come to is given by the pair.
        middle = self.window.target_mm if left is None or right is None else (left + right) / 2
        window = replace(self.window, target_mm=min(max(middle, self.window.low_mm), self.window.high_mm))
        asked = tuple(
            one for side in timing.SIDES for one in asked_at(f"mesh:{side}", f"mesh gap, {side}", window, now, self.difference_mm)
        )
        alike = GapTarget("differ:mesh", "left less right", Window(0.0, -self.difference_mm, self.difference_mm))
        held = tuple(
            TryJudged(one.made, (*one.results, hold(alike, less(*map(narrowest, halves(one.made))), now.school, derived=True)))
            for one in judged(asked, now.tries, now.school)
        )
        move = timing.move_for(self.timing, left, right, self.window, self.difference_mm, now.shut)
        if not held and now.places:
            move = replace(move, details=(Sentence("Left and right, at each place that is asked for. Nothing is turned yet."),))
        return settled(Setting(asked, held, move, mismatch=self._odd(now)))

    def _odd(self, now: SetNow) -> Any:
        odd = None
        for before, made in pairwise(now.tries):
            # Towards the left closes the left gap and opens the right one, so that their difference falls by twice as much.
            promised = -2 * self.timing.along_mm(made.moved or 0.0)
            was, is_now = (less(*map(narrowest, halves(one))) for one in (before, made))
            u = math.hypot(was.u_mm, is_now.u_mm)
            odd = mismatch.mismatch(promised, is_now.value_mm - was.value_mm, u, mismatch.TIMING)
        return odd

    def show(self, setting: Setting, now: SetNow) -> TimingView:
        """The turn the move asks for."""
        shift = setting.move.change_mm if setting.move.travel_mm else 0.0
        return TimingView(
            self.kind,
            toward="" if not shift else timing.SIDES[0] if shift > 0 else timing.SIDES[1],
            arc=Bare(Amount(self.timing.arc_mm(abs(shift)), Kind.LENGTH)),
            angle_deg=self.timing.angle_deg(abs(shift)),
            pitch=length(self.timing.pitch_mm),
            marked=length(self.timing.marked_mm),
        )

    def lines(self, words: GapWords) -> list[tuple[str, Text]]:
        """As the sheet prints them."""
        return [
            ("Mesh gaps made alike by", "a clamped timing gear"),
            ("Its pitch circle", length(self.timing.pitch_mm)),
            ("They may differ by", length(self.difference_mm)),
        ]

    def set_by(self, made: TryMade, typed: str) -> Text:
        """By its arc, and towards which side."""
        moved = made.moved or 0.0
        side = "" if not moved else timing.SIDES[0] if moved > 0 else timing.SIDES[1]
        return arc_words(Amount(abs(moved), Kind.LENGTH), side, typed)


MEANS = TimingMeans
