"""Parts put together in their order: which comes next, which way round, and what its elastomer meets."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from typing import ClassVar, Self

from finegap.core.assembly.stacking import StackState, stack_state
from finegap.core.families.family import Family
from finegap.core.families.stack import Points, Shape, StackPart
from finegap.core.formatting import Sentence, Text
from finegap.core.procedure import filled
from finegap.core.result_lines import ResultLine
from finegap.core.tasks.base import PlainTask, Rows, TaskNow, TaskView
from finegap.core.tasks.press import one_stroke
from finegap.core.tasks.spring import spring_lines

_PICTURED = {Shape.LIP_SEAL: "lip", Shape.DISC_SPRING: "cone"}


@dataclass(frozen=True)
class FittedPart:
    """A part of a stack; ``fresh`` when it was decided new. ``on`` names its carrier. ``at`` is empty while it is not in."""

    id: str
    key: str
    name: str
    shape: str
    points: str
    on: str
    directions: list[str]
    lubricant: str
    note: Text
    must_be_new: bool
    fresh: bool
    lines: list[ResultLine]
    picture: str
    fitted: bool
    reused: bool
    reason: str
    by: str
    at: str


@dataclass(frozen=True)
class CarrierView:
    """What a sub-assembly is built on: its name, what lies left and right of it, its parts by key from left to right."""

    name: str
    left: str
    right: str
    parts: list[str]


@dataclass(frozen=True)
class StackView(TaskView):
    """A stack in the order of fitting; ``next`` is the part in hand, ``together`` all parts by key as they lie in the pump."""

    place: str
    name: str
    parts: list[FittedPart]
    next: str
    carriers: list[CarrierView]
    together: list[str]
    advice: str


@dataclass(frozen=True)
class StackTask(PlainTask):
    """``fresh`` are features whose part was decided new; ``notes`` what the notes of parts say of the sheet."""

    kind: ClassVar[str] = "stack"
    view_type: ClassVar[type[TaskView]] = StackView
    rows: ClassVar[Rows | None] = Rows.PARTS

    place: str
    state: StackState
    fresh: frozenset[str]
    notes: Mapping[str, Text]

    @classmethod
    def choices(cls, family: Family) -> Collection[str]:
        """Places of the family's stacks; a sheet's own takes one of them."""
        return {stack.place for stack in family.stacks}

    @classmethod
    def read(cls, now: TaskNow, of: str) -> Self | None:
        """The stack of a place; none where neither family nor sheet has one."""
        record, building = now.record, now.record.sheet.building
        stack = record.stacks.get(of)
        if stack is None:
            return None
        spring = spring_lines(building.disc, (t for t in record.sheet.torques if record.tightens(t.key)))
        state = stack_state(stack, record.fitted, record.sheet.details, record.used, building.reusable, spring)
        strokes = {f"one_stroke:{key}": one_stroke(press) for key, press in building.presses.items()}
        return cls(of, state, record.changed, strokes)

    @property
    def rows_key(self) -> str:
        """Those of its stack."""
        return self.state.stack.key

    @property
    def begun(self) -> bool:
        """A part is in."""
        return bool(self.state.fitted)

    def holds_back(self) -> tuple[Sentence, ...]:
        """The part that comes next."""
        if self.state.next is None:
            return ()
        return (Sentence("{stack}: next comes {part}.", {"stack": self.state.stack.name, "part": self.state.next.name.lower()}),)

    def parts(self) -> frozenset[str]:
        """Of its parts those that stand for a feature."""
        return frozenset(part.feature for part in self.state.stack.parts if part.feature)

    def show(self, key: str) -> StackView:
        """Part by part."""
        stack = self.state.stack
        return StackView(
            self.kind,
            key,
            place=self.place,
            name=stack.name,
            parts=[self._part(part) for part in stack.parts],
            next=self.state.next.key if self.state.next else "",
            carriers=[CarrierView(c.name, *c.ends, [p.key for p in stack.row(c)]) for c in stack.sub_assemblies],
            together=[part.key for part in stack.together],
            advice=self.state.advice,
        )

    def _part(self, part: StackPart) -> FittedPart:
        state, row = self.state, self.state.fitted.get(part.key)
        return FittedPart(
            id=row.stamp.id if row else "",
            key=part.key,
            name=part.name,
            shape=part.shape.value,
            points="" if part.points is Points.NEITHER else part.points.value,
            on=next(c.name for c in state.stack.sub_assemblies if c.key == state.stack.carrier_of(part)),
            directions=list(state.stack.directions(part)),
            lubricant=part.lubricant,
            note=filled(part.note, self.notes),
            must_be_new=state.must_be_new(part),
            fresh=part.feature in self.fresh,
            lines=list(state.lines.get(part.key, ())),
            picture=_PICTURED.get(part.shape, ""),
            fitted=row is not None,
            reused=row.reused if row else False,
            reason=row.reason if row else "",
            by=row.stamp.by if row else "",
            at=row.stamp.at if row else "",
        )


TASK = StackTask
