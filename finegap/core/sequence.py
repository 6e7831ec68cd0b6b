"""What must come before what: a hold point is not done while one that comes before it is open."""

from __future__ import annotations

from collections.abc import Mapping

from finegap.core.families.family import Family
from finegap.core.families.steps import GAP_RIGHT, Stage, Step
from finegap.core.formatting import Sentence

_STAGES = list(Stage)


def comes_after(step: Step, family: Family) -> tuple[str, ...]:
    """What a step comes after directly: as declared, or every hold point of the stages before its own.

    A step of Set comes after the check, unless setting the gap reopened it; so does everything of Prove.
    """
    if step.after:
        return step.after
    before = _STAGES[: _STAGES.index(step.stage)]
    holds = tuple(s.key for s in family.steps if s.hold and s.stage in before)
    checked = step.stage is Stage.PROVE or (step.stage is Stage.SET and not step.reopened)
    return (*holds, GAP_RIGHT) if checked else holds


def must_be_done(step: Step, family: Family) -> frozenset[str]:
    """Everything a step comes after, directly or through another; a circle ends where it closes."""
    by_key = {s.key: s for s in family.steps}
    found: set[str] = set()
    left = [step]
    while left:
        for key in comes_after(left.pop(), family):
            if key not in found and (key in by_key or key == GAP_RIGHT):
                found.add(key)
                left += [by_key[key]] if key in by_key else []
    return frozenset(found - {step.key})


def hangs_on(key: str, family: Family) -> tuple[Step, ...]:
    """The steps that come after a step, or stand on it, by declaration, directly or through another. They are undone with it."""
    found: dict[str, Step] = {}
    left = [key]
    while left:
        before = left.pop()
        for step in family.steps:
            if before in (*step.after, *step.needs) and step.key not in found and step.key != key:
                found[step.key] = step
                left.append(step.key)
    return tuple(found.values())


def out_of_turn(step: Step, family: Family, done: frozenset[str], gap_open: tuple[Sentence, ...]) -> tuple[Sentence, ...]:
    """Why a step is not done yet: what it needs, whether it is a hold point or not; for a hold point what it comes after, too.

    Parameters
    ----------
    step, family : Step, Family
        The step, of the procedure in force.
    done : frozenset of str
        Keys of the steps that are done.
    gap_open : tuple of Sentence
        Why the gaps are not right; empty when they are.
    """
    needed = must_be_done(step, family) if step.hold else frozenset()
    open_: Mapping[str, Step] = {
        s.key: s for s in family.steps if s.key not in done and (s.key in step.needs or (s.hold and s.key in needed))
    }
    waits = [Sentence("First: {step}", {"step": s.text}) for s in open_.values()]
    return (*waits[:_TOLD], *(_and_more(len(waits) - _TOLD)), *(gap_open if GAP_RIGHT in needed else ()))


_TOLD = 2
"""So many open steps are named, the first; the rest is counted."""


def _and_more(count: int) -> tuple[Sentence, ...]:
    return (Sentence("And {n} hold points after that.", {"n": str(count)}),) if count > 0 else ()
