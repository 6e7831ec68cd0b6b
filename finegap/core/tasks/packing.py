"""Packing: what is cut to which length, and where the joints go."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Self

from finegap.core.assembly.packing import Packing
from finegap.core.formatting import Sentence
from finegap.core.result_lines import ResultLine
from finegap.core.tasks.base import PlainTask, TaskNow, TaskView

_ON = "shaft_at_seal"
"""The feature packing runs on."""


@dataclass(frozen=True)
class PackingView(TaskView):
    """Its lines, and where the joint of each ring goes, in degrees clockwise from the top."""

    lines: list[ResultLine]
    joints_deg: list[int]
    lantern_after: int
    school: str


@dataclass(frozen=True)
class PackingTask(PlainTask):
    """Packing for the shaft as it was measured, or as it is new."""

    kind: ClassVar[str] = "packing"
    view_type: ClassVar[type[TaskView]] = PackingView

    packing: Packing

    @classmethod
    def read(cls, now: TaskNow, of: str) -> Self | None:
        """None where the sheet says nothing of packing, or the shaft's size is not known."""
        spec, shaft = now.record.sheet.building.packing, now.features.get(_ON)
        if spec is None or shaft is None:
            return None
        size, new = shaft.left or shaft.found, shaft.spec.new_mm
        shaft_mm = size.value_mm if size else new[1] if new else None
        if shaft_mm is None:
            return None
        return cls(Packing(shaft_mm, spec.section_mm, spec.rings, spec.joints, spec.lantern_after))

    def show(self, key: str) -> PackingView:
        """What to cut, and the joints round the shaft."""
        of = self.packing
        lines = [*of.lines(), ResultLine("Rings", str(of.rings))]
        if of.lantern_after:
            words = Sentence("after ring {n} from the bottom, under the flush port", {"n": str(of.lantern_after)})
            lines.append(ResultLine("Lantern ring", words))
        joints = [of.joints.at_deg(ring) for ring in range(1, of.rings + 1)]
        return PackingView(self.kind, key, lines, joints, of.lantern_after, of.joints.value)


TASK = PackingTask
