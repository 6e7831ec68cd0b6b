"""Finds the kinds of task there are, and checks that families name no other."""

from __future__ import annotations

from collections.abc import Iterable
from importlib import import_module
from pkgutil import iter_modules

from finegap.core import tasks
from finegap.core.errors import FieldError
from finegap.core.families import FAMILIES
from finegap.core.families.builds import Build
from finegap.core.families.check import builds_about, every_build
from finegap.core.families.family import Family
from finegap.core.tasks.base import StepTask, TaskView


def _found() -> dict[str, type[StepTask]]:
    modules = (import_module(f"{tasks.__name__}.{module.name}") for module in iter_modules(tasks.__path__))
    found = [module.TASK for module in modules if hasattr(module, "TASK")]
    return {one.kind: one for one in sorted(found, key=lambda one: one.kind)}


KINDS: dict[str, type[StepTask]] = _found()

VIEWS: dict[str, type[TaskView]] = {kind: one.view_type for kind, one in KINDS.items()}


def check_tasks(family: Family, builds: Iterable[Build] | None = None) -> None:
    """Checks that every task of a family is of a registered kind, and names something the family has in these builds, or in each.

    Raises
    ------
    FieldError
        ``field`` is the place in the family.
    """
    for step in family.steps:
        for task in step.tasks:
            if task.kind not in KINDS:
                at = f"{family.key}.steps[{step.key}].tasks"
                raise FieldError(at, f"there is no task {task.kind}.", f"Expected any of: {', '.join(KINDS)}.")
    checked = set()
    for build in every_build(family) if builds is None else builds:
        built = family.built(build)
        of = {kind: frozenset(one.choices(built)) for kind, one in KINDS.items()}
        seen = (tuple(step.key for step in built.steps), tuple(of.items()))
        if seen in checked:
            continue
        checked.add(seen)
        for step in built.steps:
            for task in step.tasks:
                if task.of not in of[task.kind]:
                    at = f"{family.key}, built {', '.join(build.values())}: steps[{step.key}].tasks"
                    known = ", ".join(sorted(of[task.kind]))
                    raise FieldError(at, f"there is no {task.kind} {task.of or 'without a name'}.", f"Expected any of: {known}.")


for _family in FAMILIES.values():
    check_tasks(_family, builds_about(_family))
