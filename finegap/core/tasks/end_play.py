"""End play by indicator, held against the width of the gap's window."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Self

from finegap.core.entry import Entry
from finegap.core.formatting import Amounts, Sentence, length
from finegap.core.gap.move import Window
from finegap.core.proof.seen import Proof
from finegap.core.result_lines import ResultLine, Status
from finegap.core.tasks.base import PlainTask, Rows, TaskNow, TaskView, TypedSight
from finegap.core.working import Given, Working


@dataclass(frozen=True)
class EndPlayView(TaskView):
    """What was measured at this step, against what it may be; ``None`` while nothing was. ``id`` is what it is struck out by."""

    step: str
    id: str
    line: ResultLine | None


@dataclass(frozen=True)
class EndPlayTask(PlainTask):
    """End play at one step, and the window of the gap."""

    kind: ClassVar[str] = "end-play"
    view_type: ClassVar[type[TaskView]] = EndPlayView
    of_its_step: ClassVar[bool] = True
    entries: ClassVar[tuple[str, ...]] = ("end_play",)
    sights: ClassVar[tuple[str, ...]] = (kind,)
    rows: ClassVar[Rows | None] = Rows.PROOFS

    step: str
    proof: Proof | None
    window: Window | None

    @classmethod
    def read(cls, now: TaskNow, of: str) -> Self | None:
        """What was measured at the step."""
        return cls(of, now.record.seen_at(of, cls.kind), now.gap.window)

    @classmethod
    def observe(cls, seen: str, typed: TypedSight, entry: Entry) -> tuple[float | None, str]:
        """In mm."""
        play = entry.read("end_play", typed.text)
        return play.value, play.said

    @property
    def rows_key(self) -> str:
        """Those of its step."""
        return self.step

    @property
    def begun(self) -> bool:
        """It was measured."""
        return self.proof is not None

    def holds_back(self) -> tuple[Sentence, ...]:
        """It was not measured."""
        return () if self.proof else (Sentence("Measure the end play first."),)

    def show(self, key: str) -> EndPlayView:
        """What was measured."""
        proof = self.proof
        line = end_play(proof.value, self.window) if proof and proof.value is not None else None
        return EndPlayView(self.kind, key, self.step, proof.stamp.id if proof else "", line)


def end_play(play_mm: float, window: Window | None) -> ResultLine:
    """End play against the width of the gap's window: more than that, and the gap moves out of it with the load.

    Common practice, no source: no appreciable end play.
    """
    amounts: Amounts = {"play": length(play_mm, fine=True)}
    if window is None:
        return ResultLine("End play", Sentence("{play}.", amounts))
    wide = window.high_mm - window.low_mm
    working = Working(
        "End play against the window",
        "play ≤ high − low",
        (
            Given("play", "by indicator, pushed and pulled", length(play_mm, fine=True)),
            Given("low", "smallest gap", window.shown()[0]),
            Given("high", "largest gap", window.shown()[1]),
        ),
        length(wide, fine=True),
        "geometry: the rotor may stand anywhere within its end play",
    )
    if play_mm <= wide:
        return ResultLine("End play", Sentence("{play}: the gap stays in its window.", amounts), working=working)
    words = "{play}: more than the window is wide, the gap moves out of it with the load. Look at lock nut, bearing and collars."
    return ResultLine("End play", Sentence(words, amounts), Status.CARE, working)


TASK = EndPlayTask
