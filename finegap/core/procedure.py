"""A procedure as a shop follows it: the family's steps, in the shop's order and words, with steps of its own."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from finegap.core.errors import FieldError
from finegap.core.families.builds import UNSAID
from finegap.core.families.check import placeholders
from finegap.core.families.family import Family, in_order
from finegap.core.families.steps import Stage, Step, Task
from finegap.core.formatting import Sentence, Text

OWN = "own-"
"""How the key of a shop's own step begins."""

_LONGEST = 400
_MOST_STEPS = 200


@dataclass(frozen=True)
class ShopStep:
    """A step as the shop wants it: its place is its place in the list; ``text`` and ``why`` empty mean the family's words."""

    key: str
    stage: str
    text: str = ""
    why: str = ""
    hold: bool = False


def read_steps(data: Sequence[Mapping[str, Any]], family: Family) -> tuple[ShopStep, ...]:
    """A shop's version of the procedure.

    Raises
    ------
    FieldError
        A step given twice, one of no family's, a stage that is none, a family's step left out or moved to another stage, an own
        step without words, or words too long.
    """
    declared = {s.key: s for s in family.steps}
    steps = tuple(ShopStep(**{k: v for k, v in one.items() if k in ShopStep.__dataclass_fields__}) for one in data)
    if len(steps) > _MOST_STEPS:
        raise FieldError("steps", f"{len(steps)} are more than anyone follows.", f"Expected up to {_MOST_STEPS}.")
    keys = [s.key for s in steps]
    for i, step in enumerate(steps):
        where = f"steps[{i}]"
        if keys.count(step.key) > 1:
            raise FieldError(where, f"{step.key} is given twice.", "Expected each step once.")
        if step.stage not in [s.value for s in Stage]:
            raise FieldError(where, f"“{step.stage}” is no stage.", f"Expected: {', '.join(s.value for s in Stage)}.")
        if max(len(step.text), len(step.why)) > _LONGEST:
            raise FieldError(where, "that is too long to be read at the bench.", f"Expected up to {_LONGEST} letters.")
        if step.key.startswith(OWN):
            if not step.text.strip():
                raise FieldError(where, "a step of your own has no words.", "Expected what is done, in a sentence.")
        elif step.key not in declared:
            raise FieldError(where, f"the procedure has no step {step.key}.", f"Expected your own to begin with {OWN}.")
        elif declared[step.key].stage.value != step.stage:
            raise FieldError(where, "a step cannot move to another stage.", f"Expected {declared[step.key].stage.value}.")
    lost = next((s for s in family.steps if s.key not in keys), None)
    if lost:
        raise FieldError("steps", f"“{lost.text[:60]}” is missing.", "Expected every step; skip it at the job, with a reason.")
    _check_needs(keys, declared)
    return steps


def read_conventions(data: Mapping[str, str], family: Family) -> dict[str, str]:
    """What the shop chose of what practitioners differ on; what it left open is not kept.

    Raises
    ------
    FieldError
        No convention of the family, or no choice of it.
    """
    known = {option.key: option for option in family.options if option.is_convention}
    for key, choice in data.items():
        if key not in known:
            raise FieldError(f"conventions.{key}", "there is no such convention.", f"Expected any of: {', '.join(known)}.")
        if choice not in known[key].choices:
            expected = f"Expected one of: {', '.join(known[key].choices)}."
            raise FieldError(f"conventions.{key}", f"“{choice}” is not a choice of {known[key].name.lower()}.", expected)
    return {key: choice for key, choice in data.items() if choice != UNSAID}


def _check_needs(keys: Sequence[str], declared: Mapping[str, Step]) -> None:
    """Refuse an order that breaks one. What no build needs in the order declared is put right build by build."""
    listed = list(declared)
    for i, key in enumerate(keys):
        needs = () if key not in declared else declared[key].needs
        later = next((n for n in needs if n in keys[i:] and listed.index(n) < listed.index(key)), None)
        if later:
            problem = f"“{declared[key].text[:60]}” cannot be done before “{declared[later].text[:60]}”."
            raise FieldError(f"steps[{i}]", problem, "Expected it after that: it stands on it.")


def in_force(family: Family, shop: Sequence[ShopStep]) -> Family:
    """A build of a family with a shop's version of its procedure; steps the shop's version does not know keep their place."""
    if not shop:
        return family
    declared = {s.key: s for s in family.steps}
    steps = [_worded(one, declared.get(one.key)) for one in shop if one.key in declared or one.key.startswith(OWN)]
    for i, step in enumerate(family.steps):
        if all(step.key != s.key for s in steps):
            before = next((s.key for s in reversed(family.steps[:i])), None)
            place = next((n + 1 for n, s in enumerate(steps) if s.key == before), 0)
            steps.insert(place, step)
    return replace(family, steps=tuple(steps) if family.build is None else in_order(tuple(steps)))


def needed(
    family: Family,
    changed: frozenset[str],
    skipped: frozenset[str],
    torques: Sequence[tuple[str, str]],
    stacks: Sequence[tuple[str, str]],
) -> Family:
    """The procedure with only those steps of Build that what was opened and changed asks for.

    A line of the torque table (key, name), or a stack of the sheet (place, name), that no step is for gets one of its own.
    """
    claimed = {task for step in family.steps for task in step.tasks}
    steps = [s for s in family.steps if s.stage is not Stage.BUILD or _asked_for(s, changed, skipped)]
    own = [
        Step(Stage.BUILD, _key("stack", place), f"{name}: in, part by part.", hold=True, tasks=(Task("stack", place),))
        for place, name in stacks
        if Task("stack", place) not in claimed
    ]
    own += [
        Step(Stage.BUILD, _key("torque", key), f"{name} to their torque.", tasks=(Task("torque", key),), tools=("torque wrench",))
        for key, name in torques
        if Task("torque", key) not in claimed
    ]
    before = list(Stage)[: list(Stage).index(Stage.BUILD) + 1]
    place = next((i + 1 for i, s in reversed(list(enumerate(steps))) if s.stage in before), 0)
    return replace(family, steps=(*steps[:place], *own, *steps[place:]))


def reopened(family: Family, opened: frozenset[str]) -> Family:
    """The procedure with what a means of setting the gap took apart to be done again at Set, in its order there."""
    if not opened:
        return family
    undone = {s.key for s in family.steps if s.stage is Stage.BUILD and opened & set(s.undone_by)}
    return replace(family, steps=tuple(replace(s, stage=Stage.SET, reopened=True) if s.key in undone else s for s in family.steps))


def _asked_for(step: Step, changed: frozenset[str], skipped: frozenset[str]) -> bool:
    if not step.changed and not step.opened:
        return True
    return bool(changed & set(step.changed)) or any(key not in skipped for key in step.opened)


def _key(kind: str, name: str) -> str:
    return f"{kind}-{re.sub(r'[^a-z0-9]+', '-', name.lower()).strip('-')}"[:40]


def _worded(one: ShopStep, step: Step | None) -> Step:
    if step is None:
        return Step(Stage(one.stage), one.key, one.text, one.why, hold=one.hold)
    # Words may change; what makes a step a caution or a hold point may not.
    return replace(step, text=one.text or step.text, why=one.why or step.why)


def told(step: Step, known: Mapping[str, Text]) -> tuple[Text, ...]:
    """The step's lines with their values; a line whose value nobody knows is left out."""
    return tuple(said for line in step.tells for said in [filled(line, known)] if said)


def filled(line: str, known: Mapping[str, Text]) -> Text:
    """A line with its values; a sentence of it whose value nobody knows is left out, and of no sentence nothing is left."""
    sentences = [s for s in line.split(". ") if s]
    kept = [s for s in sentences if all(known.get(name) for name in placeholders(s))]
    words = ". ".join(kept)
    names = dict.fromkeys(placeholders(words))
    for name in names:
        words = words.replace("{" + name + "}", "{" + _plain(name) + "}")
    if words and not words.endswith("."):
        # Words of a sheet may end with their own stop.
        last = next((name for name in reversed(names) if words.endswith("{" + _plain(name) + "}")), None)
        ends = known[last] if last is not None else ""
        words += "" if isinstance(ends, str) and ends.endswith(".") else "."
    return Sentence(words, {_plain(name): known[name] for name in names}) if names else words


def _plain(name: str) -> str:
    return re.sub(r"\W", "_", name)


def listed(family: Family, kind: str) -> tuple[str, ...]:
    """Tools or consumables of all its steps, each once, in the order they are first wanted."""
    return tuple(dict.fromkeys(item for step in family.steps for item in getattr(step, kind)))
