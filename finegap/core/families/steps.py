"""Steps of a procedure: the stages, what a step says, what it is done with, and what takes it apart again."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import Enum

from finegap.core.families.builds import When


class Stage(Enum):
    """The order of work."""

    PREPARE = "prepare"
    STRIP = "strip"
    INSPECT = "inspect"
    DECIDE = "decide"
    BUILD = "build"
    SET = "set"
    PROVE = "prove"
    CLOSE = "close"


@dataclass(frozen=True)
class Task:
    """What a step is done with: a kind of task that is registered, and which one of its kind, where there are several."""

    kind: str
    of: str = ""

    def __str__(self) -> str:
        return f"{self.kind}:{self.of}" if self.of else self.kind


@dataclass(frozen=True)
class Step:
    """One step of the procedure.

    ``why`` is given where a slip is costly; ``caution`` where the work can hurt; a ``hold`` step blocks sign-off until done.
    ``tells`` are lines with values of the sheet and the job in braces (“Expect {head_bolts} head bolts.”); a line whose value is
    not known is left out. ``look`` says what to look at while it is done. ``tasks`` are the sums, stacks, torques and pictures it
    is done with. A step of Build is there only when one of the features of ``changed`` is renewed, or one of the steps of
    ``opened`` was done at Strip; with neither, always.

    ``measured`` are sizes taken as left at this step, which hold it until they are.
    ``needs`` are the steps whose work it stands on: without them it cannot be done at all, and no order of a works puts it before
    them. ``after`` are the steps a hold point comes after, and ``GAP_RIGHT``; empty: every hold point of the stages before its own.
    ``undone_by`` are the means of setting a gap (“gaskets”, “shims”, “timing”) that take apart what this step put together: once
    they did, it is ``reopened`` and done again at Set. ``before_check`` when what it puts together holds the gap: a check made
    before it says nothing.
    """

    stage: Stage
    key: str
    text: str
    why: str = ""
    caution: bool = False
    hold: bool = False
    look: str = ""
    tells: tuple[str, ...] = ()
    tools: tuple[str, ...] = ()
    consumables: tuple[str, ...] = ()
    tasks: tuple[Task, ...] = ()
    changed: tuple[str, ...] = ()
    opened: tuple[str, ...] = ()
    when: When = field(default_factory=dict)
    after: tuple[str, ...] = ()
    undone_by: tuple[str, ...] = ()
    reopened: bool = False
    before_check: bool = False
    needs: tuple[str, ...] = ()
    measured: tuple[str, ...] = ()

    @property
    def puts_in(self) -> bool:
        """It puts parts in: at Build, or again at Set after what was put in was opened."""
        return self.stage is Stage.BUILD or self.reopened

    def of(self, kind: str) -> tuple[str, ...]:
        """Which ones of a kind of task it is done with."""
        return tuple(task.of for task in self.tasks if task.kind == kind)

    def has(self, kind: str) -> bool:
        """Whether it is done with a task of this kind."""
        return any(task.kind == kind for task in self.tasks)


GAP_RIGHT = "gap"
"""Among the steps one comes after: every gap that is set was checked, and is right."""
