"""Fasteners tightened to the torque of the sheet, pass by pass in their order."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from typing import TYPE_CHECKING, ClassVar, Self

from finegap.core.assembly.tightening import Tightened, Tightening, Wrench, pass_words, wrench_for
from finegap.core.families.family import Family
from finegap.core.formatting import Amount, Kind, Sentence, Text, between
from finegap.core.result_lines import ResultLine, Status
from finegap.core.tasks.base import PlainTask, Rows, TaskNow, TaskView

if TYPE_CHECKING:
    from finegap.core.job_record import JobRecord


@dataclass(frozen=True)
class Pass:
    """A pass: its torque at the nut, and how many of the fasteners are done."""

    number: int
    torque: Text
    done: int


@dataclass(frozen=True)
class TorqueLine:
    """A line of the torque log."""

    id: str
    pass_number: int
    bolts: list[int]
    typed: str
    at_nut: Text
    adapter: str
    wrench: str
    certificate: str
    overdue: bool
    by: str
    at: str
    struck_reason: str


@dataclass(frozen=True)
class TorqueView(TaskView):
    """A line of the torque table with its passes and its log.

    ``pass_number`` is the pass in hand, ``left`` what is left of it, ``wrench`` the first one that reaches its ``middle``.
    """

    fastener: str
    fastener_key: str
    torque: Text
    condition: str
    page: str
    count: int
    order: list[int]
    passes: list[Pass]
    pass_number: int | None
    left: list[int]
    middle: Text
    wrench: str
    lines: list[ResultLine]
    log: list[TorqueLine]


@dataclass(frozen=True)
class TorqueTask(PlainTask):
    """A line of the torque table, and the wrenches of the cabinet; ``too_early`` where what it holds went in after it."""

    kind: ClassVar[str] = "torque"
    view_type: ClassVar[type[TaskView]] = TorqueView
    entries: ClassVar[tuple[str, ...]] = ("torque", "wrench_length", "adapter", "angle")
    rows: ClassVar[Rows | None] = Rows.TORQUES

    tightening: Tightening
    wrenches: tuple[Wrench, ...]
    too_early: Sentence | None = None

    @classmethod
    def choices(cls, family: Family) -> Collection[str]:
        """The lines of a torque table the family knows; a sheet may have more, and each gets a step of its own."""
        return family.torques

    @classmethod
    def read(cls, now: TaskNow, of: str) -> Self | None:
        """None where the sheet's torque table has no such line."""
        torque = next((t for t in now.record.sheet.torques if t.key == of), None)
        if torque is None:
            return None
        tightening = Tightening(torque, tuple(t for t in now.record.tightened if t.fastener == of))
        return cls(tightening, now.record.wrenches, _too_early(now.record, tightening))

    @property
    def rows_key(self) -> str:
        """Those of its fastener."""
        return self.tightening.torque.key

    @property
    def begun(self) -> bool:
        """Something was tightened."""
        return bool(self.tightening.standing)

    def holds_back(self) -> tuple[Sentence, ...]:
        """What is not logged."""
        if not self.tightening.complete:
            return (self.tightening.open_sentence,)
        return (self.too_early,) if self.too_early else ()

    def blockers(self) -> tuple[tuple[Sentence, bool], ...]:
        """What is not logged; no lead signs past it."""
        return tuple((words, False) for words in self.holds_back())

    def show(self, key: str) -> TorqueView:
        """Pass by pass."""
        one, torque = self.tightening, self.tightening.torque
        now = one.range_n_m(one.pass_number or len(torque.passes))
        middle = sum(now) / 2
        return TorqueView(
            self.kind,
            key,
            fastener=torque.fastener,
            fastener_key=torque.key,
            torque=torque.span,
            condition=torque.condition,
            page=torque.page,
            count=torque.count,
            order=list(one.order),
            passes=[Pass(n + 1, pass_words(one, n + 1), done) for n, done in enumerate(one.done)],
            pass_number=one.pass_number,
            left=list(one.left),
            middle=Amount(middle, Kind.FINE_TORQUE),
            wrench=wrench_for(middle, self.wrenches),
            lines=_lines(one),
            log=[_logged(mark) for mark in one.log],
        )


def _too_early(record: JobRecord, tightening: Tightening) -> Sentence | None:
    """A nut holds what is under it. A part of its step, or of one its step stands on, that went in after it was not held.

    What setting the gap takes apart and puts together again says nothing of a nut that stayed tight meanwhile.
    """
    steps = [step for step in record.family.steps if tightening.torque.key in step.of("torque")]
    under = {key for step in steps for key in (step.key, *step.needs)}
    places = {place for step in record.family.steps if step.key in under and not step.reopened for place in step.of("stack")}
    stacks = {record.stacks[place].key: record.stacks[place] for place in places if place in record.stacks}
    first = min((mark.made for mark in tightening.standing if mark.made), default=0)
    late = next((one for one in record.fitted if one.stack in stacks and first and one.made > first), None)
    if late is None:
        return None
    words = "{fastener}: {part} went in after it was tightened. Strike its torque out, and tighten it again."
    part = stacks[late.stack].name_of(late.part)
    return Sentence(words, {"fastener": tightening.torque.fastener, "part": part})


def _logged(mark: Tightened) -> TorqueLine:
    return TorqueLine(
        id=mark.stamp.id,
        pass_number=mark.pass_number,
        bolts=list(mark.bolts),
        typed=mark.typed,
        at_nut=Amount(mark.at_nut_n_m, Kind.FINE_TORQUE),
        adapter=mark.adapter,
        wrench=mark.wrench,
        certificate=mark.certificate,
        overdue=mark.overdue,
        by=mark.stamp.by,
        at=mark.stamp.at,
        struck_reason=mark.struck_reason,
    )


def _lines(one: Tightening) -> list[ResultLine]:
    torque = one.torque
    lines = []
    if one.joint is not None:
        low, high = one.joint.preload_n(torque.low_n_m, torque.high_n_m)
        working = one.joint.working(torque.low_n_m, torque.high_n_m, torque.condition)
        lines.append(ResultLine("Preload", between(low, high, Kind.FORCE), working=working))
    if torque.tang is not None:
        status = Status.CARE if torque.tang.always is False else Status.GOOD
        lines.append(ResultLine("Tang", torque.tang.sentence, status, torque.tang.working))
    return lines


TASK = TorqueTask
