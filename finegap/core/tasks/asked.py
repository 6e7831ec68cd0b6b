"""Something of the pump that is asked at the bench before the work goes on: which way its shaft turns."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from typing import ClassVar, Self

from finegap.core.families.builds import NOT_KNOWN, Option
from finegap.core.families.family import Family
from finegap.core.formatting import Sentence
from finegap.core.tasks.base import PlainTask, TaskNow, TaskView


@dataclass(frozen=True)
class Answer:
    """An answer that can be given."""

    key: str
    name: str


@dataclass(frozen=True)
class AskedView(TaskView):
    """What is asked, by the option of the build, and what was answered; empty while it is not known."""

    option: str
    name: str
    answer: str
    answers: list[Answer]


@dataclass(frozen=True)
class AskedTask(PlainTask):
    """An option of the build and its choice."""

    kind: ClassVar[str] = "asked"
    view_type: ClassVar[type[TaskView]] = AskedView

    option: Option
    choice: str

    @classmethod
    def choices(cls, family: Family) -> Collection[str]:
        """The options whose choice may be not known yet."""
        return [option.key for option in family.options if NOT_KNOWN in option.choices]

    @classmethod
    def read(cls, now: TaskNow, of: str) -> Self | None:
        """What the job's build says of it."""
        family = now.record.family
        option = next((one for one in family.options if one.key == of), None)
        return cls(option, (family.build or {}).get(of, NOT_KNOWN)) if option else None

    def holds_back(self) -> tuple[Sentence, ...]:
        """Nobody has answered."""
        return tuple(words for words, _ in self.blockers())

    def blockers(self) -> tuple[tuple[Sentence, bool], ...]:
        """Not known; a lead may sign all the same."""
        if self.choice != NOT_KNOWN:
            return ()
        return ((Sentence("Not known yet: {name}.", {"name": self.option.name[0].lower() + self.option.name[1:]}), True),)

    def show(self, key: str) -> AskedView:
        """The answers there are."""
        answers = [Answer(one, name) for one, name in self.option.choices.items() if one != NOT_KNOWN]
        return AskedView(
            self.kind, key, self.option.key, self.option.name, "" if self.choice == NOT_KNOWN else self.choice, answers
        )


TASK = AskedTask
