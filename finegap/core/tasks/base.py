"""What a task of a step is to the rest of the application: one protocol, one class a kind, one file each.

A task is one thing a step is done with (a stack put together, a torque, the run-in), as it stands in one job: what holds its step
back, what keeps the job from being signed, and how it is shown.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from enum import Enum
from typing import TYPE_CHECKING, ClassVar, Protocol, Self

from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.families.family import Family
from finegap.core.formatting import Sentence, Text
from finegap.core.means.base import View

if TYPE_CHECKING:
    from finegap.core.gap_assessment import GapAssessment
    from finegap.core.inspection import FeatureState
    from finegap.core.job_record import JobRecord


@dataclass(frozen=True)
class TaskNow:
    """What a task works with: what was recorded, the parts, the gap, and what the job needs on hand (item, kind of item)."""

    record: JobRecord
    features: Mapping[str, FeatureState]
    gap: GapAssessment
    needs: tuple[tuple[str, str], ...] = ()


@dataclass(frozen=True)
class TaskView(View):
    """How a task is shown; ``key`` is what steps name it by."""

    key: str


class Rows(Enum):
    """Rows a task is recorded in. What undoes its step strikes them out."""

    PARTS = "parts fitted"
    TORQUES = "torques"
    RUN_IN = "lines of the run-in"
    PROOFS = "proofs"


@dataclass(frozen=True)
class TypedSight:
    """What was typed of something seen at a step: its text, the seconds it took, the places it is of."""

    text: str
    seconds: str = ""
    places: tuple[str, ...] = ()


class StepTask(Protocol):
    """One task as it stands in a job."""

    kind: ClassVar[str]
    """What families name it by."""
    view_type: ClassVar[type[TaskView]]
    of_its_step: ClassVar[bool]
    """What is recorded of it belongs to one step, and proves nothing at another."""
    entries: ClassVar[tuple[str, ...]]
    """Quantities that are typed of it: keys of ``core.entry.FIELDS``, which has their dimension, sign and what is usual."""
    sights: ClassVar[tuple[str, ...]]
    """What may be seen of it, by name."""
    rows: ClassVar[Rows | None]
    """Where it is recorded; ``None`` where nothing is."""

    @classmethod
    def observe(cls, seen: str, typed: TypedSight, entry: Entry) -> tuple[float | None, str]:
        """One of its sights, read: its value in the internal unit, if it has one, and its words.

        Raises
        ------
        FieldError
            Not such a sight.
        """

    @property
    def rows_key(self) -> str:
        """Which of those rows are its own: a stack, a fastener, a step; empty where all are."""

    @classmethod
    def choices(cls, family: Family) -> Collection[str]:
        """The names a family may write after this kind, as one build has them. One empty text where there is only one of it."""

    @classmethod
    def read(cls, now: TaskNow, of: str) -> Self | None:
        """The task as it stands in a job. ``of`` is the name behind its kind, or its step. ``None`` where the sheet has
        nothing of it."""

    @property
    def begun(self) -> bool:
        """Something of it was done."""

    def holds_back(self) -> tuple[Sentence, ...]:
        """Why its step cannot be marked done yet."""

    def blockers(self) -> tuple[tuple[Sentence, bool], ...]:
        """What keeps the job from being signed, though its step was not skipped; whether a lead may sign all the same."""

    def parts(self) -> frozenset[str]:
        """Features whose parts it puts in."""

    def measured_before(self) -> tuple[str, ...]:
        """Features that are measured at its step before it is done."""

    def show(self, key: str) -> TaskView:
        """What is shown of it."""


class PlainTask:
    """What most tasks have in common: nothing typed or recorded, nothing to be done first, nothing that blocks, no parts."""

    of_its_step: ClassVar[bool] = False
    entries: ClassVar[tuple[str, ...]] = ()
    sights: ClassVar[tuple[str, ...]] = ()
    rows: ClassVar[Rows | None] = None

    @classmethod
    def observe(cls, seen: str, typed: TypedSight, entry: Entry) -> tuple[float | None, str]:
        """Nothing is seen of it."""
        raise FieldError("seen", f"“{seen}” is not looked at here.", "Expected nothing.")

    @property
    def rows_key(self) -> str:
        """All of its rows."""
        return ""

    @classmethod
    def choices(cls, family: Family) -> Collection[str]:
        """There is one of it."""
        return ("",)

    @property
    def begun(self) -> bool:
        """Nothing is recorded of it."""
        return False

    def holds_back(self) -> tuple[Sentence, ...]:
        """Nothing."""
        return ()

    def blockers(self) -> tuple[tuple[Sentence, bool], ...]:
        """Nothing."""
        return ()

    def parts(self) -> frozenset[str]:
        """None."""
        return frozenset()

    def measured_before(self) -> tuple[str, ...]:
        """None."""
        return ()


def one_line(name: str, text: Text) -> Sentence:
    """A line of a sum in one sentence."""
    return Sentence("{name}: {text}", {"name": name, "text": text})
