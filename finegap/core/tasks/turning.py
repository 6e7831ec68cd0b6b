"""The shaft turned by hand, all the way round."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Self

from finegap.core.formatting import Sentence
from finegap.core.proof.seen import Proof, Sight, sight
from finegap.core.tasks.base import Plain, TaskNow, TaskView

CLOCK = tuple(str(hour) for hour in range(1, 13))
"""Where a shaft may be tight."""


@dataclass(frozen=True)
class TurningView(TaskView):
    """How it turned at this step; ``None`` while nobody has said. Its ``places`` are clock positions where it is tight."""

    step: str
    seen: Sight | None


@dataclass(frozen=True)
class TurningTask(Plain):
    """How the shaft turned at one step."""

    kind: ClassVar[str] = "turning"
    view_type: ClassVar[type[TaskView]] = TurningView
    of_its_step: ClassVar[bool] = True

    step: str
    proof: Proof | None

    @classmethod
    def read(cls, now: TaskNow, of: str) -> Self | None:
        """What was seen at the step."""
        return cls(of, now.record.seen_at(of, cls.kind))

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
