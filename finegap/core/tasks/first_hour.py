"""The first hour of running: flow, pressure, power, temperature and noise, set against what gaps and slip say."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Self

from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.formatting import Sentence
from finegap.core.proof.first_hour import NOISES, FirstHourItem, by_bucket, first_hour
from finegap.core.proof.seen import Proof, Sight, sight
from finegap.core.result_lines import ResultLine, Status
from finegap.core.tasks.base import PlainTask, Rows, TaskNow, TaskView, TypedSight, one_line


@dataclass(frozen=True)
class Noise:
    """A noise to choose."""

    key: str
    name: str


@dataclass(frozen=True)
class FirstHourView(TaskView):
    """What was seen, set against what is predicted, and the noises that are told apart."""

    step: str
    lines: list[ResultLine]
    seen: list[Sight]
    noises: list[Noise]


_ENTRIES = {
    FirstHourItem.FLOW: "flow",
    FirstHourItem.PRESSURE: "discharge",
    FirstHourItem.POWER: "power",
    FirstHourItem.TEMPERATURE: "running",
}
"""The field of each quantity of the first hour."""


@dataclass(frozen=True)
class FirstHourTask(PlainTask):
    """What was seen at one step, in lines."""

    kind: ClassVar[str] = "first-hour"
    view_type: ClassVar[type[TaskView]] = FirstHourView
    of_its_step: ClassVar[bool] = True
    entries: ClassVar[tuple[str, ...]] = (*_ENTRIES.values(), "bucket")
    sights: ClassVar[tuple[str, ...]] = tuple(item.value for item in FirstHourItem)
    rows: ClassVar[Rows | None] = Rows.PROOFS

    step: str
    proofs: tuple[Proof, ...]
    lines: tuple[ResultLine, ...]

    @classmethod
    def read(cls, now: TaskNow, of: str) -> Self | None:
        """What was entered at the step, held against the pump as it was left."""
        record = now.record
        running, duty = record.running(of), record.duty
        set_gap = next((f.key for f in record.family.features if f.is_set), "")
        lines = first_hour(running, now.gap.left, set_gap, duty.pressure_bar, duty.temperature_c)
        return cls(of, record.first_hour(of), lines)

    @classmethod
    def observe(cls, seen: str, typed: TypedSight, entry: Entry) -> tuple[float | None, str]:
        """A noise of the list, or a quantity; a flow also as a bucket with the seconds it took, then in L/min."""
        item = FirstHourItem(seen)
        if typed.seconds.strip() and item is not FirstHourItem.FLOW:
            raise FieldError("seconds", "only a flow is timed.", "Expected them with a bucket.")
        if item is FirstHourItem.NOISE:
            if typed.text not in NOISES:
                raise FieldError("noise", f"“{typed.text}” is not in the list.", f"Expected one of: {', '.join(NOISES)}.")
            return None, typed.text
        if typed.seconds.strip():
            bucket, seconds = entry.read("bucket", typed.text), entry.number(typed.seconds, "seconds", 0.5, 36_000)
            return by_bucket(bucket.value, seconds), f"{bucket.said} in {seconds:g} s"
        quantity = entry.read(_ENTRIES[item], typed.text, name=seen)
        return quantity.value, quantity.said

    @property
    def rows_key(self) -> str:
        """Those of its step."""
        return self.step

    @property
    def begun(self) -> bool:
        """Something was entered."""
        return bool(self.proofs)

    def holds_back(self) -> tuple[Sentence, ...]:
        """Nothing was entered, or something stops the pump."""
        unseen = () if self.proofs else (Sentence("Nothing of the first hour was entered yet."),)
        return (*unseen, *(words for words, _ in self.blockers()))

    def blockers(self) -> tuple[tuple[Sentence, bool], ...]:
        """What stops the pump."""
        return tuple((one_line(line.name, line.text), True) for line in self.lines if line.status is Status.STOP)

    def show(self, key: str) -> FirstHourView:
        """What was seen."""
        noises = [Noise(noise, name) for noise, name in NOISES.items()]
        return FirstHourView(self.kind, key, self.step, list(self.lines), [sight(proof) for proof in self.proofs], noises)


TASK = FirstHourTask
