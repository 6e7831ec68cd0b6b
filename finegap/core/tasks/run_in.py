"""Packing run in: what the gland leaks and how warm the box is, and what to do next."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Self

from finegap.core.formatting import Amount, Kind, Sentence, Text
from finegap.core.proof.run_in import Advice, Note, Rules, Say, advise, rules_for
from finegap.core.tasks.base import PlainTask, Rows, TaskNow, TaskView

_NOT_YET = {Say.BEGIN, Say.BACK_OFF, Say.STOP}
_EIGHTHS = {0.5: "1/16", 1.0: "1/8"}


@dataclass(frozen=True)
class RunInLine:
    """A line of the log; ``turn`` says what the gland was turned by."""

    id: str
    number: int
    minute: float
    drops: float | None
    drops_text: str
    box_c: float | None
    box: Text
    eighths: float
    turn: str
    by: str
    at: str


@dataclass(frozen=True)
class RunInView(TaskView):
    """What is to be done now, what the packing may do, and the log."""

    say: str
    headline: Text
    why: Text
    eighths: float
    wait_min: float
    drops: list[float]
    hottest_c: float
    hottest: Text
    notes: list[RunInLine]


@dataclass(frozen=True)
class RunInTask(PlainTask):
    """The log of the run-in, and what packing may do here."""

    kind: ClassVar[str] = "run-in"
    view_type: ClassVar[type[TaskView]] = RunInView
    entries: ClassVar[tuple[str, ...]] = ("box",)
    rows: ClassVar[Rows | None] = Rows.RUN_IN

    notes: tuple[Note, ...]
    rules: Rules
    advice: Advice

    @classmethod
    def read(cls, now: TaskNow, of: str) -> Self | None:
        """By the rules of the sheet, or the usual ones."""
        record = now.record
        rules = rules_for(record.duty.temperature_c, record.sheet.run_in.drops, record.sheet.run_in.hottest_c)
        return cls(record.run_in, rules, advise(record.run_in, rules))

    @property
    def begun(self) -> bool:
        """A line was written."""
        return bool(self.notes)

    def holds_back(self) -> tuple[Sentence, ...]:
        """What is to be done first."""
        return (Sentence("Run-in: {what}.", {"what": self.advice.headline}),) if self.advice.say in _NOT_YET else ()

    def show(self, key: str) -> RunInView:
        """The next move and the log."""
        rules, advice = self.rules, self.advice
        return RunInView(
            self.kind,
            key,
            say=advice.say.value,
            headline=advice.headline,
            why=advice.why,
            eighths=advice.eighths,
            wait_min=advice.wait_min,
            drops=list(rules.drops),
            hottest_c=rules.hottest_c,
            hottest=Amount(rules.hottest_c, Kind.TEMPERATURE),
            notes=[_line(note) for note in self.notes],
        )


def _line(note: Note) -> RunInLine:
    doubt = f" ± {note.drops_expanded:.0f}" if note.drops_expanded else ""
    share = _EIGHTHS.get(abs(note.eighths), f"{abs(note.eighths) / 8:g}")
    way = "tightened" if note.eighths > 0 else "backed off"
    return RunInLine(
        id=note.stamp.id,
        number=note.number,
        minute=note.minute,
        drops=note.drops,
        drops_text="" if note.drops is None else f"{note.drops:.0f}{doubt}",
        box_c=note.box_c,
        box="" if note.box_c is None else Amount(note.box_c, Kind.TEMPERATURE),
        eighths=note.eighths,
        turn=f"{way} {share}" if note.eighths else "",
        by=note.stamp.by,
        at=note.stamp.at,
    )


TASK = RunInTask
