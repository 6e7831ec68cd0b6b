"""The tasks of a job: what its steps are done with, as it stands."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING, TypeVar

from finegap.core.families.features import FeatureKind
from finegap.core.families.steps import Step, Task
from finegap.core.formatting import Sentence
from finegap.core.tasks.base import StepTask, TaskNow
from finegap.core.tasks.registry import KINDS

if TYPE_CHECKING:
    from finegap.core.job_record import JobRecord

T = TypeVar("T", bound=StepTask)


def key_of(task: Task, step: Step) -> str:
    """How a task of a step is found: by its own name, or by its step where it belongs to that alone."""
    return f"{task.kind}:{step.key}" if KINDS[task.kind].of_its_step else str(task)


@dataclass(frozen=True)
class JobTasks:
    """Every task by its key.

    ``not_new`` are the sentences against parts that cannot be the new ones, by feature; ``unmeasured`` those of sizes the sheet
    prints that nobody has measured as left.
    """

    by_key: Mapping[str, StepTask]
    not_new: Mapping[str, Sentence]
    unmeasured: Mapping[str, Sentence]

    def of_step(self, step: Step) -> tuple[StepTask, ...]:
        """What a step is done with; what the sheet says nothing of is left out."""
        keys = (key_of(task, step) for task in step.tasks)
        return tuple(self.by_key[key] for key in keys if key in self.by_key)

    def of_kind(self, kind: type[T]) -> dict[str, T]:
        """Every task of one kind, by what it is of."""
        return {key.partition(":")[2]: task for key, task in self.by_key.items() if isinstance(task, kind)}

    def holds_back(self, step: Step) -> tuple[Sentence, ...]:
        """Why a step cannot be marked done yet: a part that cannot be the new one, a task that is not complete."""
        found = [self.not_new[key] for key in self.parts_of(step) if key in self.not_new]
        found += [self.unmeasured[key] for key in step.measured if key in self.unmeasured]
        return (*found, *(words for task in self.of_step(step) for words in task.holds_back()))

    def parts_of(self, step: Step) -> set[str]:
        """Features whose parts a step puts in."""
        if not step.puts_in:
            return set()
        return {*step.changed, *(key for task in self.of_step(step) for key in task.parts())}

    def measured_at(self, step: Step, record: JobRecord) -> tuple[str, ...]:
        """Features of renewed parts that are measured, or looked at, as fitted at a step of Build."""
        renewed = self.parts_of(step) & record.changed
        wanted = {*renewed, *(key for key in step.measured if key in record.family.by_key)}
        return tuple(f.key for f in record.family.features if f.key in wanted and f.kind is not FeatureKind.PAIR)

    def blockers(self, record: JobRecord) -> tuple[tuple[Step, Sentence, bool], ...]:
        """What keeps the job from being signed, with the first step it is of; nothing of steps that were skipped."""
        found: list[tuple[Step, Sentence, bool]] = []
        told: set[str] = set()
        skipped = {key_of(task, step) for step in record.family.steps if step.key in record.skipped for task in step.tasks}
        for step in record.family.steps:
            for key in (key_of(task, step) for task in step.tasks):
                if key in self.by_key and key not in told and key not in skipped:
                    told.add(key)
                    found += [(step, words, lead_may) for words, lead_may in self.by_key[key].blockers()]
        return tuple(found)


def tasks_of(now: TaskNow) -> JobTasks:
    """Everything the steps of a job are done with, as it stands."""
    found: dict[str, StepTask] = {}
    for step in now.record.family.steps:
        for task in step.tasks:
            kind, key = KINDS[task.kind], key_of(task, step)
            if key not in found:
                read = kind.read(now, step.key if kind.of_its_step else task.of)
                if read is not None:
                    found[key] = read
    not_new = {
        key: Sentence("{name}: {why}", {"name": state.feature.name, "why": state.not_new})
        for key, state in now.features.items()
        if state.not_new is not None
    }
    unmeasured = {
        key: Sentence("{name}: measured now; later it cannot be reached.", {"name": state.feature.name})
        for key, state in now.features.items()
        if state.left is None and (state.spec.new_mm is not None or state.spec.limit is not None)
    }
    return JobTasks(found, not_new, unmeasured)
