"""Two screws whose flank gaps are made alike by turning one over its helix; with the gear case shut they are only checked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, ClassVar, Self

from finegap.core.errors import FieldError
from finegap.core.families.family import Family, GapWords
from finegap.core.formatting import Amount, Bare, Kind, Sentence, Text, length
from finegap.core.gap import helix, mismatch
from finegap.core.gap.declared import length_of
from finegap.core.gap.helix import Flank, Geared, Read
from finegap.core.gap.move import Move, Way, Window
from finegap.core.gap.table import Row
from finegap.core.gap.tries import GapTarget, Setting, TryMade, settled
from finegap.core.means.base import MeansView, Moved, PlainMeans, SetNow, asked_at
from finegap.core.means.housing import arc_words
from finegap.core.means.schemas import LENGTH
from finegap.core.means.sides import held, narrowest, odd, shared
from finegap.core.units import Dimension
from finegap.core.working import Working

_READ = {"axial": Read.AXIAL, "normal": Read.NORMAL, "round": Read.ROUND}


@dataclass(frozen=True)
class HelixView(MeansView):
    """The move to draw: towards which side, empty where there is none; and whether the gear case stays shut."""

    toward: str
    arc: Text
    angle_deg: float
    along: Text
    lead: Text
    read: str
    shut: bool


@dataclass(frozen=True)
class HelixMeans(PlainMeans):
    """The screw and its gear, and by how much both gaps may differ, in mm."""

    kind: ClassVar[str] = "helix"
    view_type: ClassVar[type[MeansView]] = HelixView
    sets: ClassVar[tuple[str, ...]] = tuple(f"flank:{side}" for side in helix.SIDES)
    moved: ClassVar[Moved | None] = Moved("arc", Dimension.LENGTH, (helix.SIDES[0], helix.SIDES[1]))
    schema: ClassVar[Mapping[str, Any]] = {
        "required": ["lead", "pitch_diameter", "read", "difference"],
        "properties": {
            "lead": {**LENGTH, "description": "Of the screws: pitch times starts."},
            "pitch_diameter": {**LENGTH, "description": "Of the screws, where their gaps are read."},
            "flank_angle": {
                "type": "number",
                "minimum": 0,
                "exclusiveMaximum": 80,
                "description": "How far the flank leans in a cut along the axis, in degrees. Default 0.",
            },
            "marked_diameter": {**LENGTH, "description": "Where the marks of the clamped gear are, if not on the pitch diameter."},
            "read": {"enum": list(_READ), "description": "How gaps are read: along the axis, square to the flank, or round."},
            "difference": {**LENGTH, "description": "By how much left and right may differ."},
        },
    }

    geared: Geared
    difference_mm: float

    @classmethod
    def read(cls, data: Mapping[str, Any], family: Family, rows: tuple[Row, ...]) -> Self:
        """Raises FieldError for diameters and leads that cannot be."""
        lead, pitch = (length_of(data[key], f"adjustment.{key}") for key in ("lead", "pitch_diameter"))
        marked = length_of(data["marked_diameter"], "adjustment.marked_diameter") if "marked_diameter" in data else pitch
        try:
            flank = Flank(lead, pitch, float(data.get("flank_angle", 0)))
        except FieldError as error:
            raise error.within("adjustment") from None
        return cls(Geared(flank, marked, _READ[data["read"]]), length_of(data["difference"], "adjustment.difference"))

    def set(self, now: SetNow) -> Setting:
        """The next move after the tries so far."""
        asked = self._asked(now, shared(now.window, now.tries))
        if not now.tries:
            return Setting(asked, (), self._first(now))
        left, right = narrowest(now.tries[-1])
        alike = GapTarget("differ:flank", "left less right", Window(0.0, -self.difference_mm, self.difference_mm))
        move = helix.move_for(self.geared, left.value_mm, right.value_mm, now.window, now.shut)
        strange = odd(now.tries, lambda arc: -self.geared.difference_mm(arc), mismatch.TIMING)
        return settled(Setting(asked, held(asked, alike, now), move, mismatch=strange))

    def _asked(self, now: SetNow, window: Window) -> tuple[GapTarget, ...]:
        sides = zip(self.sets, helix.SIDES, strict=True)
        return tuple(
            one for key, side in sides for one in asked_at(key, f"{now.words.name}, {side}", window, now, self.difference_mm)
        )

    def _first(self, now: SetNow) -> Move:
        headline = Sentence("Turn the shafts all the way round and measure both flank gaps")
        details = [Sentence("Left and right at every turn that is asked for. Nothing is turned yet.")]
        if now.shut:
            details.append(Sentence("The gear case stays shut: they are checked, and not set."))
        working = Working("Flank gaps", "left and right alike", (), headline, "the sheet")
        return Move(Way.STAY, 0.0, headline, tuple(details), working)

    def show(self, setting: Setting, now: SetNow) -> HelixView:
        """The move asked for."""
        shift = setting.move.change_mm if setting.move.travel_mm else 0.0
        return HelixView(
            self.kind,
            toward=helix.SIDES[shift < 0] if shift else "",
            arc=Bare(Amount(self.geared.arc_mm(abs(shift)), Kind.LENGTH)),
            angle_deg=self.geared.flank.turn_deg(abs(shift)),
            along=length(abs(shift), fine=True),
            lead=length(self.geared.flank.lead_mm),
            read=self.geared.read.value,
            shut=now.shut,
        )

    def lines(self, words: GapWords) -> list[tuple[str, Text]]:
        """As the sheet prints them."""
        return [
            ("Means", "the clamped timing gear, over the helix of its screw"),
            ("Lead", length(self.geared.flank.lead_mm)),
            ("Gaps are read", self.geared.read.value),
            ("They may differ by", length(self.difference_mm)),
        ]

    def set_by(self, made: TryMade, typed: str) -> Text:
        """By its arc, and towards which side; as it was found where nothing was turned."""
        moved = made.moved or 0.0
        return arc_words(Amount(abs(moved), Kind.LENGTH), helix.SIDES[moved < 0], typed) if moved else "as built, not turned"


MEANS = HelixMeans
