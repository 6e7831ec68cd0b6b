"""Everything the job needs is on the bench before anything is opened."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Self

from finegap.core.formatting import Sentence, Text
from finegap.core.ready import not_ready
from finegap.core.tasks.base import PlainTask, TaskNow, TaskView


@dataclass(frozen=True)
class ReadyView(TaskView):
    """What is missing, or was not looked for."""

    missing: list[Text]


@dataclass(frozen=True)
class ReadyTask(PlainTask):
    """What is missing, and what nobody has looked for."""

    kind: ClassVar[str] = "ready"
    view_type: ClassVar[type[TaskView]] = ReadyView

    missing: tuple[Sentence, ...]

    @classmethod
    def read(cls, now: TaskNow, of: str) -> Self | None:
        """Held against what was said to be on hand."""
        return cls(not_ready(now.needs, now.record.on_hand))

    def holds_back(self) -> tuple[Sentence, ...]:
        """What is missing."""
        return self.missing

    def show(self, key: str) -> ReadyView:
        """The same."""
        return ReadyView(self.kind, key, list(self.missing))


TASK = ReadyTask
