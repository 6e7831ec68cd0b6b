"""A part pressed into its seat: what was measured before, and what that lets expect."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from typing import ClassVar, Self

from finegap.core.assembly.declared import PressSpec
from finegap.core.families.family import Family
from finegap.core.formatting import Sentence
from finegap.core.result_lines import ResultLine, Status
from finegap.core.tasks.base import PlainTask, TaskNow, TaskView, one_line
from finegap.core.tasks.pressing import PressState, press_state

_ONE_STROKE = "Carbon graphite: lubricate, start straight, one continuous stroke. Stopping cracks it."


def one_stroke(press: PressSpec) -> str:
    """The warning for a part that must not be stopped on its way; empty for others."""
    return _ONE_STROKE if press.in_one_stroke else ""


@dataclass(frozen=True)
class PressView(TaskView):
    """A press fit: the features measured before it, how it is pressed, and its results. ``bore`` is the one that closes in."""

    name: str
    said: str
    how: str
    features: list[str]
    bore: str
    lines: list[ResultLine]
    ready: bool


@dataclass(frozen=True)
class PressTask(PlainTask):
    """A press fit as it stands."""

    kind: ClassVar[str] = "press"
    view_type: ClassVar[type[TaskView]] = PressView

    state: PressState

    @classmethod
    def choices(cls, family: Family) -> Collection[str]:
        """The family's press fits."""
        return {press.key for press in family.presses}

    @classmethod
    def read(cls, now: TaskNow, of: str) -> Self | None:
        """None where the sheet gives no sizes for it."""
        spec = now.record.sheet.building.presses.get(of)
        if spec is None:
            return None
        press = next(press for press in now.record.family.presses if press.key == of)
        duty = now.record.duty
        return cls(press_state(press, spec, now.features, duty.temperature_c, duty.casing_c))

    def holds_back(self) -> tuple[Sentence, ...]:
        """What says that it would not hold, or break."""
        return tuple(one_line(line.name, line.text) for line in self.state.lines if line.status is Status.STOP)

    def blockers(self) -> tuple[tuple[Sentence, bool], ...]:
        """It should not have been made."""
        return tuple((words, True) for words in self.holds_back())

    def measured_before(self) -> tuple[str, ...]:
        """Outside, seat, and bore while it is free."""
        press = self.state.press
        return tuple(filter(None, (press.outside, press.seat, press.free)))

    def show(self, key: str) -> PressView:
        """Its lines."""
        press = self.state.press
        return PressView(
            self.kind,
            key,
            name=press.name,
            said=self.state.spec.said,
            how=press.how,
            features=list(self.measured_before()),
            bore=press.bore,
            lines=list(self.state.lines),
            ready=self.state.ready,
        )


TASK = PressTask
