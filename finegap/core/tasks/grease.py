"""How much each bearing gets, in grams and in strokes of the gun in hand."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Self

from finegap.core.assembly.declared import Bearing
from finegap.core.assembly.grease import Greased
from finegap.core.formatting import Amount, Kind
from finegap.core.result_lines import ResultLine, Status
from finegap.core.tasks.base import PlainTask, TaskNow, TaskView


@dataclass(frozen=True)
class LubricatedBearing:
    """A bearing to be lubricated."""

    name: str
    oil: bool
    lines: list[ResultLine]


@dataclass(frozen=True)
class GreaseView(TaskView):
    """Every bearing of the sheet; empty where it gives no sizes."""

    bearings: list[LubricatedBearing]


@dataclass(frozen=True)
class GreaseTask(PlainTask):
    """The sheet's bearings, and what ten strokes of the gun in hand weigh, in grams."""

    kind: ClassVar[str] = "grease"
    view_type: ClassVar[type[TaskView]] = GreaseView

    bearings: tuple[Bearing, ...]
    grams_per_ten_strokes: float | None

    @classmethod
    def read(cls, now: TaskNow, of: str) -> Self | None:
        """Whatever the sheet gives."""
        return cls(now.record.sheet.building.bearings, now.record.grams_per_ten_strokes)

    def show(self, key: str) -> GreaseView:
        """Bearing by bearing."""
        return GreaseView(self.kind, key, [self._bearing(bearing) for bearing in self.bearings])

    def _bearing(self, bearing: Bearing) -> LubricatedBearing:
        if bearing.oil:
            return LubricatedBearing(
                bearing.name, True, [ResultLine("Oil", "to the middle of the sight glass, standing still and level.")]
            )
        greased = Greased(bearing.outside_mm, bearing.width_mm, self.grams_per_ten_strokes)
        strokes = str(greased.strokes) if greased.strokes is not None else "weigh ten strokes of the gun first"
        lines = [
            ResultLine("Grease", Amount(greased.grams, Kind.MASS), working=greased.working),
            ResultLine("Strokes", strokes, Status.GOOD if greased.strokes is not None else Status.ASK),
            ResultLine("Or", "until clean grease shows, where there is a way out."),
        ]
        return LubricatedBearing(bearing.name, False, lines)


TASK = GreaseTask
