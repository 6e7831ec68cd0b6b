"""Checks that a family names only what it has. A misspelt key would make a step vanish, and its hold point with it.

Every fault names its place in the family, as ``made_up.steps[bearing_in].changed``.
"""

from __future__ import annotations

import string
from collections import Counter
from collections.abc import Collection, Iterable, Iterator
from graphlib import CycleError, TopologicalSorter

from finegap.core.drawing.views import Pump
from finegap.core.errors import FieldError
from finegap.core.families.builds import NOT_KNOWN, Build, When, belongs
from finegap.core.families.family import Family
from finegap.core.families.features import Feature, FeatureKind
from finegap.core.families.steps import GAP_RIGHT, Stage, Step

TOLD_BY_THE_JOB = frozenset({"maker", "model", "serial", "liquid", "hazards", "temperature", "pressure"})
"""What a step may say of any job, whatever its family."""

TOLD_BY_TASKS = ("torque", "one_stroke")
"""What a step may say of a torque or a press fit, as ``torque:lock nut``."""

_MOST_BUILDS = 5000


def check_family(family: Family) -> None:
    """Check every reference a family makes.

    Raises
    ------
    FieldError
        ``field`` is the place; the hint lists what it could name.
    """
    for check in (_features, _options, _steps, _stacks, _presses, _rules, _pieces, _drawing, _builds):
        check(family)


def _fault(place: str, problem: str, known: Iterable[str] = ()) -> FieldError:
    names = ", ".join(sorted(known))
    return FieldError(place, problem, f"Expected any of: {names}." if names else "")


def _known(place: str, wanted: Iterable[str], known: Collection[str], what: str) -> None:
    for key in wanted:
        if key not in known:
            raise _fault(place, f"there is no {what} {key}.", known)


def _once(place: str, keys: Iterable[str]) -> None:
    seen: set[str] = set()
    for key in keys:
        if key in seen:
            raise _fault(place, f"{key} is given twice.")
        seen.add(key)


def _when(place: str, when: When, family: Family) -> None:
    choices: dict[str, set[str]] = {}
    for option in family.options:
        choices.setdefault(option.key, set()).update(option.choices)
    _known(f"{place}.when", when, choices, "option")
    for key, wanted in when.items():
        _known(f"{place}.when.{key}", wanted, choices[key], "choice")


def _features(family: Family) -> None:
    place, keys = f"{family.key}.features", [f.key for f in family.features]
    _once(place, keys)
    numbers = sorted({f.number for f in family.features})
    if numbers != list(range(1, len(numbers) + 1)):
        raise _fault(place, f"its numbers are {', '.join(map(str, numbers))}: one is left out.")
    presses = {press.key for press in family.presses}
    for feature in family.features:
        _feature(f"{place}[{feature.key}]", feature, family, presses)


def _feature(at: str, feature: Feature, family: Family, presses: Collection[str]) -> None:
    _when(at, feature.when, family)
    _once(f"{at}.damages", (damage.key for damage in feature.damages))
    _once(f"{at}.stations", (station.key for station in feature.stations))
    parts = (feature.bore, feature.shaft)
    if feature.kind is FeatureKind.PAIR:
        sizes = {f.key for f in family.features if f.kind.is_size}
        _known(f"{at}.bore, shaft", parts, sizes, "size")
    elif any(parts):
        raise _fault(f"{at}.bore, shaft", "only the running clearance of a pair has them.")
    if feature.kind.taken and not feature.stations:
        raise _fault(f"{at}.stations", "it is measured, and has none.")
    _known(f"{at}.of_parts", feature.of_parts, family.by_key.keys() - {feature.key}, "feature")
    if feature.counted:
        _known(f"{at}.counted", [feature.counted.detail], {*family.details, *(o.key for o in family.options)}, "detail")
    if feature.press:
        _known(f"{at}.press", [feature.press], presses, "press fit")


def _options(family: Family) -> None:
    for i, option in enumerate(family.options):
        for other in family.options[:i]:
            if other.key == option.key and not _exclude(option.when, other.when):
                raise _fault(f"{family.key}.options", f"{option.key} is given twice.")
        at = f"{family.key}.options[{option.key}]"
        if not option.choices:
            raise _fault(f"{at}.choices", "there is none.")
        if option.is_convention and set(option.said) != set(option.choices):
            raise _fault(f"{at}.said", "something is to be said of each choice, and of none else.", option.choices)
        _known(f"{at}.when", option.when, {o.key for o in family.options[:i]}, "option before it")
        _when(at, option.when, family)


def _exclude(one: When, other: When) -> bool:
    """Whether no build has both."""
    return any(not set(choices) & set(other.get(key, choices)) for key, choices in one.items())


def _steps(family: Family) -> None:
    steps = {step.key: step for step in family.steps}
    _once(f"{family.key}.steps", (step.key for step in family.steps))
    means = next((option.choices for option in family.options if option.key == "means"), {})
    conventions = {option.key for option in family.options if option.is_convention}
    stripped = {key for key, step in steps.items() if step.stage is Stage.STRIP}
    told = {*family.details, *(option.key for option in family.options), *TOLD_BY_THE_JOB, *_told_by_tasks(family)}
    for step in family.steps:
        at = f"{family.key}.steps[{step.key}]"
        _when(at, step.when, family)
        _known(f"{at}.changed", step.changed, family.by_key, "feature")
        _known(f"{at}.opened", step.opened, stripped, "step of Strip")
        _known(f"{at}.after", step.after, {*steps, GAP_RIGHT}, "step")
        _known(f"{at}.needs", step.needs, steps, "step")
        _known(f"{at}.measured", step.measured, family.by_key, "feature")
        for name in ("text", "why", "look"):
            _known(f"{at}.{name}", placeholders(getattr(step, name)), conventions, "convention")
        _known(f"{at}.undone_by", step.undone_by, {*means, *family.geared}, "means")
        for line in step.tells:
            _known(f"{at}.tells", placeholders(line), told, "value")
        _tasks(at, step, family)


def _tasks(at: str, step: Step, family: Family) -> None:
    """Kinds are checked where families are found: what is registered is not known here."""
    of = {
        "stack": {stack.place for stack in family.stacks},
        "press": {press.key for press in family.presses},
        "torque": set(family.torques),
        "picture": set(family.pictures),
        "asked": {option.key for option in family.options if NOT_KNOWN in option.choices},
    }
    for task in step.tasks:
        if task.kind in of:
            _known(f"{at}.tasks", [task.of], of[task.kind], task.kind)


def _told_by_tasks(family: Family) -> set[str]:
    return {f"torque:{key}" for key in family.torques} | {f"one_stroke:{press.key}" for press in family.presses}


def placeholders(line: str) -> list[str]:
    """Names in braces of a line; one may hold a colon (“torque:lock nut”), which a formatter takes for a format."""
    return [f"{name}:{spec}" if spec else name for _, name, spec, _ in string.Formatter().parse(line) if name]


def _stacks(family: Family) -> None:
    for stack in family.stacks:
        at = f"{family.key}.stacks[{stack.key}]"
        _when(at, stack.when, family)
        for part in stack.parts:
            here = f"{at}.parts[{part.key}]"
            _known(f"{here}.feature", filter(None, [part.feature]), family.by_key, "feature")
            conventions = {option.key for option in family.options if option.is_convention}
            _known(f"{here}.note", placeholders(part.note), {*conventions, *_told_by_tasks(family)}, "value")
            _known(f"{here}.facing", placeholders(part.facing), conventions, "convention")
            if part.counted:
                _known(f"{here}.counted", [part.counted.detail], family.details, "detail")
            if part.elastomer.islower():
                # A code is written in capitals; anything else is a detail of the sheet.
                _known(f"{here}.elastomer", [part.elastomer], family.details, "detail")
    tasks = {task.of for step in family.steps for task in step.tasks if task.kind == "stack"}
    for stack in family.stacks:
        _known(f"{family.key}.stacks[{stack.key}].place", [stack.place], tasks, "step that puts together")


def _presses(family: Family) -> None:
    _once(f"{family.key}.presses", (press.key for press in family.presses))
    for press in family.presses:
        at = f"{family.key}.presses[{press.key}]"
        own = {f.key for f in family.features if f.press == press.key}
        _known(at, filter(None, (press.outside, press.seat, press.free)), own, "size before pressing")
        _known(f"{at}.bore", filter(None, [press.bore]), family.by_key, "feature")
        pairs = {f.key for f in family.features if f.kind is FeatureKind.PAIR}
        _known(f"{at}.pair", filter(None, [press.pair]), pairs, "running clearance")
        if len({bool(one) for one in (press.free, press.bore, press.pair)}) > 1:
            raise _fault(at, "a part with a bore has the bore free, the bore pressed and its running clearance; a solid one none.")


def _rules(family: Family) -> None:
    _once(f"{family.key}.symptoms", (symptom.key for symptom in family.symptoms))
    for symptom in family.symptoms:
        _known(f"{family.key}.symptoms[{symptom.key}].suspects", symptom.suspects, family.by_key, "feature")
    for rule in family.replaced_with:
        at = f"{family.key}.replaced_with[{rule.changed}]"
        _known(f"{at}.changed", [rule.changed], family.by_key, "feature")
        _known(f"{at}.also", rule.also, family.by_key, "feature")


def _pieces(family: Family) -> None:
    at, sizes = f"{family.key}.one_piece", {f.key for f in family.features if f.kind is not FeatureKind.PAIR and not f.is_set}
    _once(at, (key for piece in family.one_piece for key in piece))
    for piece in family.one_piece:
        _known(at, piece, sizes, "feature of a part")


def _drawing(family: Family) -> None:
    views = family.views(Pump(family.complete({})))
    spots = Counter(key for view in views for key in view.spots)
    at = f"{family.key}.views"
    for key, times in spots.items():
        _known(at, [key], family.by_key, "feature")
        if times > 1:
            raise _fault(f"{at}[{key}]", "two views have a spot for it.")
    for feature in (one for one in family.features if views and not one.press):
        if feature.key not in spots:
            raise _fault(f"{at}[{feature.key}]", "no view has a spot for it.")
    for view in views:
        left, top, right, bottom = view.box
        for key in view.spots:
            spot = view.spot(key)
            if not (left <= spot.x <= right and top <= spot.y <= bottom):
                raise _fault(f"{at}[{key}]", f"its spot {spot.x:.0f}, {spot.y:.0f} lies outside its view.")


def every_build(family: Family) -> Iterator[Build]:
    """Each build of a family once, no convention chosen: options that others rule out are not in it."""
    builds: list[dict[str, str]] = [{}]
    for option in family.options:
        more = []
        for build in builds:
            choices = list(option.choices)[:1] if option.is_convention else list(option.choices)
            more += [{**build, option.key: choice} for choice in choices] if belongs(option.when, build) else [build]
        builds = more
        if len(builds) > _MOST_BUILDS:
            raise _fault(f"{family.key}.options", f"they make {len(builds)} builds; up to {_MOST_BUILDS} can be checked.")
    yield from builds


def every_convention(family: Family) -> Iterator[Build]:
    """Each build with each convention that is not said, and with each of its choices alone."""
    for build in every_build(family):
        yield build
        for option in family.options:
            if option.is_convention and option.key in build:
                yield from ({**build, option.key: choice} for choice in list(option.choices)[1:])


def builds_about(family: Family) -> Iterator[Build]:
    """The usual build, and those that differ from it in one option: so much is seen at start, and tests look at every build."""
    seen: set[tuple[tuple[str, str], ...]] = set()
    choices = [(option.key, choice) for option in family.options for choice in option.choices]
    for picked in ((), *((one,) for one in choices)):
        try:
            build = family.complete(dict(picked))
        except FieldError:
            continue  # one choice of an option rules the other out
        key = tuple(build.items())
        if key not in seen:
            seen.add(key)
            yield build


def _builds(family: Family) -> None:
    check_builds(family, builds_about(family))


def check_builds(family: Family, builds: Iterable[Build]) -> None:
    """Check builds: pairs are whole, numbers are used once, hold points can be reached, no step comes after itself.

    Raises
    ------
    FieldError
        ``field`` names the build and what of it.
    """
    checked: set[tuple[object, ...]] = set()
    for build in builds:
        features = [f for f in family.features if belongs(f.when, build)]
        steps = [s for s in family.steps if belongs(s.when, build)]
        stacks = [s for s in family.stacks if belongs(s.when, build)]
        what = (*(f.key for f in features), *(s.key for s in steps), *(s.key for s in stacks))
        if what in checked:
            continue
        checked.add(what)
        said = f"{family.key}, built {', '.join(build.values())}" if build else family.key
        _once(f"{said}: numbers", (str(f.number) for f in features))
        _once(f"{said}: stacks", (s.place for s in stacks))
        keys = {f.key for f in features}
        for feature in features:
            _known(f"{said}: {feature.key}", filter(None, (feature.bore, feature.shaft)), keys, "size")
        _within_reach(said, steps, keys, {s.place for s in stacks})


def _within_reach(said: str, steps: list[Step], features: Collection[str], places: Collection[str]) -> None:
    keys = {step.key for step in steps}
    for step in steps:
        at = f"{said}: step {step.key}"
        done_for = {*step.changed, *step.opened}
        if done_for and not done_for & {*features, *keys}:
            raise _fault(at, "nothing of what it is done for is in this build: it could never be reached.")
        for task in step.tasks:
            if task.kind == "stack":
                _known(f"{at}.tasks", [task.of], places, "stack")
    stages = list(Stage)
    for step in steps:
        for other in steps:
            if other.key in step.needs and stages.index(other.stage) > stages.index(step.stage):
                raise _fault(f"{said}: step {step.key}", f"it needs {other.key}, which is of a later stage.")
    try:
        TopologicalSorter({step.key: (*step.after, *step.needs) for step in steps}).prepare()
    except CycleError as error:
        raise _fault(f"{said}: steps", f"they come after each other: {', '.join(error.args[1])}.") from None
