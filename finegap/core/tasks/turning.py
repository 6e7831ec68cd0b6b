"""The shaft turned by hand, all the way round."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Self

from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.formatting import Sentence
from finegap.core.proof.seen import Proof, Sight, sight
from finegap.core.tasks.base import PlainTask, Rows, TaskNow, TaskView, TypedSight

CLOCK = tuple(str(hour) for hour in range(1, 13))
"""Where a shaft may be tight."""


@dataclass(frozen=True)
class TurningView(TaskView):
    """How it turned at this step; ``None`` while nobody has said. Its ``places`` are clock positions where it is tight."""

    step: str
    seen: Sight | None


@dataclass(frozen=True)
class TurningTask(PlainTask):
    """How the shaft turned at one step."""

    kind: ClassVar[str] = "turning"
    view_type: ClassVar[type[TaskView]] = TurningView
    of_its_step: ClassVar[bool] = True
    sights: ClassVar[tuple[str, ...]] = (kind,)
    rows: ClassVar[Rows | None] = Rows.PROOFS

    step: str
    proof: Proof | None

    @classmethod
    def read(cls, now: TaskNow, of: str) -> Self | None:
        """What was seen at the step."""
        return cls(of, now.record.seen_at(of, cls.kind))

    @classmethod
    def observe(cls, seen: str, typed: TypedSight, entry: Entry) -> tuple[float | None, str]:
        """Where it is tight, by hours of the clock; freely where nowhere is."""
        odd = next((place for place in typed.places if place not in CLOCK), None)
        if odd is not None:
            raise FieldError("tight spot", f"“{odd}” is no hour of the clock.", "Expected 1 to 12.")
        return None, f"tight at {', '.join(typed.places)} o'clock" if typed.places else "turns freely all the way round"

    @property
    def rows_key(self) -> str:
        """Those of its step."""
        return self.step

    @property
    def begun(self) -> bool:
        """It was turned."""
        return self.proof is not None

    def holds_back(self) -> tuple[Sentence, ...]:
        """Nobody has said how it turns, or it is tight."""
        if self.proof is None:
            return (Sentence("Say first how the shaft turns, all the way round."),)
        return tuple(words for words, _ in self.blockers())

    def blockers(self) -> tuple[tuple[Sentence, bool], ...]:
        """It is tight; no lead signs past that."""
        if self.proof is None or not self.proof.places:
            return ()
        at = {"at": ", ".join(self.proof.places)}
        return ((Sentence("The shaft is tight at {at} o'clock: never run it like that.", at), False),)

    def show(self, key: str) -> TurningView:
        """What was seen."""
        return TurningView(self.kind, key, self.step, sight(self.proof) if self.proof else None)


TASK = TurningTask
