"""A clamped timing gear that makes two mesh gaps alike: it is turned towards one side."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, ClassVar, Self

from finegap.core.errors import FieldError
from finegap.core.families.family import Family, GapWords
from finegap.core.formatting import Amount, Bare, Kind, Sentence, Text, length
from finegap.core.gap import mismatch, timing
from finegap.core.gap.declared import length_of, pair_of
from finegap.core.gap.move import Window
from finegap.core.gap.table import Row
from finegap.core.gap.timing import Timing
from finegap.core.gap.tries import GapTarget, Setting, TryMade, settled
from finegap.core.means.base import MeansView, Moved, PlainMeans, SetNow, asked_at
from finegap.core.means.housing import arc_words
from finegap.core.means.schemas import LENGTH, RANGE
from finegap.core.means.sides import held, narrowest, odd, shared
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
        left, right = (check.value_mm for check in narrowest(now.tries[-1])) if now.tries else (None, None)
        window = shared(self.window, now.tries)
        asked = tuple(
            one for side in timing.SIDES for one in asked_at(f"mesh:{side}", f"mesh gap, {side}", window, now, self.difference_mm)
        )
        alike = GapTarget("differ:mesh", "left less right", Window(0.0, -self.difference_mm, self.difference_mm))
        move = timing.move_for(self.timing, left, right, self.window, self.difference_mm, now.shut)
        if not now.tries and now.places:
            move = replace(move, details=(Sentence("Left and right, at each place that is asked for. Nothing is turned yet."),))
        # Towards the left closes the left gap and opens the right one, so that their difference falls by twice as much.
        strange = odd(now.tries, lambda arc: -2 * self.timing.along_mm(arc), mismatch.TIMING)
        return settled(Setting(asked, held(asked, alike, now), move, mismatch=strange))

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
