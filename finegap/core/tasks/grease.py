"""How much each bearing gets, in grams and in strokes of the gun in hand."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Self

from finegap.core.build.declared import Bearing
from finegap.core.build.grease import Greased
from finegap.core.reckoned import Line, Stand
from finegap.core.showing import Amount, Kind
from finegap.core.tasks.base import Plain, TaskNow, TaskView


@dataclass(frozen=True)
class Lubricated:
    """A bearing to be lubricated."""

    name: str
    oil: bool
    lines: list[Line]


@dataclass(frozen=True)
class GreaseView(TaskView):
    """Every bearing of the sheet; empty where it gives no sizes."""

    bearings: list[Lubricated]


@dataclass(frozen=True)
class GreaseTask(Plain):
    """The sheet's bearings, and what ten strokes of the gun in hand weigh, in grams."""

    kind: ClassVar[str] = "grease"
    view_type: ClassVar[type[TaskView]] = GreaseView

    bearings: tuple[Bearing, ...]
    ten_g: float | None

    @classmethod
    def read(cls, now: TaskNow, of: str) -> Self | None:
        """Whatever the sheet gives."""
        return cls(now.facts.sheet.building.bearings, now.facts.ten_g)

    def show(self, key: str) -> GreaseView:
        """Bearing by bearing."""
        return GreaseView(self.kind, key, [self._bearing(bearing) for bearing in self.bearings])

    def _bearing(self, bearing: Bearing) -> Lubricated:
        if bearing.oil:
            return Lubricated(bearing.name, True, [Line("Oil", "to the middle of the sight glass, standing still and level.")])
        greased = Greased(bearing.outside_mm, bearing.width_mm, self.ten_g)
        strokes = str(greased.strokes) if greased.strokes is not None else "weigh ten strokes of the gun first"
        lines = [
            Line("Grease", Amount(greased.grams, Kind.MASS), working=greased.working),
            Line("Strokes", strokes, Stand.GOOD if greased.strokes is not None else Stand.ASK),
            Line("Or", "until clean grease shows, where there is a way out."),
        ]
        return Lubricated(bearing.name, False, lines)


TASK = GreaseTask
