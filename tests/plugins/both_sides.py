"""A made-up task: a part is measured on every side once it is in, before its step is done."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from typing import ClassVar, Self

from finegap.core.families.family import Family
from finegap.core.formatting import Sentence, Text
from finegap.core.job_record import Phase
from finegap.core.tasks.base import PlainTask, TaskNow, TaskView


@dataclass(frozen=True)
class BothSidesView(TaskView):
    """How many sides were measured."""

    told: Text


@dataclass(frozen=True)
class BothSidesTask(PlainTask):
    """``done`` of ``asked`` sides of a feature were measured."""

    kind: ClassVar[str] = "both-sides"
    view_type: ClassVar[type[TaskView]] = BothSidesView

    done: int
    asked: int

    @classmethod
    def choices(cls, family: Family) -> Collection[str]:
        """The features of the family."""
        return [feature.key for feature in family.features]

    @classmethod
    def read(cls, now: TaskNow, of: str) -> Self | None:
        """The sides that were measured after the work."""
        stations = now.features[of].feature.stations
        return cls(len({one.station for one in now.record.readings.get((of, Phase.LEFT), ())}), len(stations))

    def holds_back(self) -> tuple[Sentence, ...]:
        """A side is left."""
        return () if self.done == self.asked else (Sentence("Measure every side first."),)

    def show(self, key: str) -> BothSidesView:
        """How many."""
        return BothSidesView(
            self.kind, key, Sentence("{done} of {asked} sides measured.", {"done": str(self.done), "asked": str(self.asked)})
        )


TASK = BothSidesTask
