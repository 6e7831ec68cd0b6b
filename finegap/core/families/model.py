"""What a family declares: builds, features with their damage, the procedure, stacks, symptoms, and the drawings."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from enum import Enum
from functools import cached_property, lru_cache
from typing import Protocol, TypeVar

from finegap.core.errors import FieldError
from finegap.core.families.stack import Stack
from finegap.core.measuring.readings import Statistic
from finegap.core.measuring.verdict import Verdict

Build = Mapping[str, str]
"""Which choice of each option a pump has: ``{"seal": "packed"}``."""

When = Mapping[str, tuple[str, ...]]
"""Builds something belongs to: for each option named, the choices it is there for. Empty: every build."""


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


class FeatureKind(Enum):
    """What a feature is, which settles how it wears and how it is drawn."""

    EXTERNAL = "external size"
    INTERNAL = "internal size"
    PAIR = "running clearance of a pair"
    GAP = "gap measured directly"
    RUNOUT = "total indicator reading"
    FLATNESS = "gap under a straightedge"
    CHECK = "looked at, not measured"

    @property
    def statistic(self) -> Statistic:
        """Which station is held against the limit."""
        return _STATISTICS.get(self, Statistic.AS_MEASURED)

    @property
    def is_gap(self) -> bool:
        """Small by nature, and possibly nothing at all."""
        return self in (FeatureKind.GAP, FeatureKind.RUNOUT, FeatureKind.FLATNESS)

    @property
    def taken(self) -> bool:
        """Readings are taken of it."""
        return self not in (FeatureKind.PAIR, FeatureKind.CHECK)


_STATISTICS = {
    FeatureKind.EXTERNAL: Statistic.SMALLEST,
    FeatureKind.INTERNAL: Statistic.LARGEST,
    FeatureKind.RUNOUT: Statistic.LARGEST,
    FeatureKind.FLATNESS: Statistic.LARGEST,
}


@dataclass(frozen=True)
class Station:
    """A place on the part. ``plane`` is along it, ``direction`` across it; both may be empty."""

    key: str
    plane: str
    direction: str

    @property
    def label(self) -> str:
        """How it is said: “front, 12–6”, “3 o'clock”."""
        direction = f"{self.direction} o'clock" if self.direction.isdigit() else self.direction
        return ", ".join(part for part in (self.plane, direction) if part) or "reading"


def stations(planes: Iterable[str], directions: Iterable[str]) -> tuple[Station, ...]:
    """Every direction in every plane, in the order they are taken."""
    across = tuple(directions)
    return tuple(Station(f"{p}/{d}".strip("/"), p, d) for p in planes for d in across)


@dataclass(frozen=True)
class Counted:
    """How many there are of something, by a detail of the sheet: vanes, rollers, lobes.

    ``name`` is what each is called, with its number as ``{n}``; ``usual`` how many there are where the sheet does not say.
    """

    detail: str
    name: str
    usual: int

    def names(self, details: Mapping[str, str]) -> tuple[str, ...]:
        """Each of them, by the details of a sheet.

        Raises
        ------
        FieldError
            What the sheet gives is no count.
        """
        typed = details.get(self.detail) or str(self.usual)
        if not typed.isdigit() or not 1 <= int(typed) <= MOST_COUNTED:
            raise FieldError(f"details.{self.detail}", f"“{typed}” is no count.", f"Expected 1 to {MOST_COUNTED}.")
        return tuple(self.name.format(n=n) for n in range(1, int(typed) + 1))


MOST_COUNTED = 60
"""More of a part than this no pump has (no source)."""


@dataclass(frozen=True)
class Damage:
    """A kind of damage to choose, and what it means by the family's rules whatever the size."""

    key: str
    name: str
    verdict: Verdict
    meaning: str


@dataclass(frozen=True)
class Feature:
    """One numbered gap or size.

    ``bore`` and ``shaft`` name the two features of a pair. ``anchor`` is the spot on the section drawing and ``label`` where its
    number stands, both in drawing units. ``set_as`` is what Set asks for it as, where it is a gap that is set
    again; ``press`` names the press fit it is measured for: such a size is taken at Build, of a part about to be pressed.
    A ``flat`` part has a thickness or a height where others have a diameter. Where the part is there several times, ``counted``
    says by what, and ``stations`` are those of one.
    """

    key: str
    number: int
    name: str
    part: str
    kind: FeatureKind
    anchor: tuple[int, int]
    label: tuple[int, int]
    stations: tuple[Station, ...] = ()
    bore: str = ""
    shaft: str = ""
    damages: tuple[Damage, ...] = ()
    set_as: str = ""
    press: str = ""
    flat: bool = False
    when: When = field(default_factory=dict)
    counted: Counted | None = None

    def stations_by(self, details: Mapping[str, str]) -> tuple[Station, ...]:
        """Its stations on a pump whose sheet gives these details."""
        if self.counted is None:
            return self.stations
        return stations(self.counted.names(details), (station.direction for station in self.stations))

    @property
    def is_set(self) -> bool:
        """It is set again at Set."""
        return bool(self.set_as)

    @property
    def is_round(self) -> bool:
        """Diameters are measured across it; tooth ends round the clock, or a runout, say nothing of roundness."""
        across = self.kind in (FeatureKind.EXTERNAL, FeatureKind.INTERNAL)
        return across and not self.flat and not any(s.direction.isdigit() for s in self.stations)


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

    ``after`` are the steps a hold point comes after, and ``GAP_RIGHT``; empty: every hold point of the stages before its own.
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


@dataclass(frozen=True)
class Press:
    """A part pressed into a seat.

    ``outside`` and ``seat`` are the features measured before pressing. Where the part has a bore, ``free`` is that bore while it
    is still free, ``bore`` the feature it is once it has closed in, and ``pair`` its running clearance; a solid part has none of
    the three. ``wet_seat`` when the seat runs in the liquid, too, and is as warm as it. ``how`` says in a few words with which
    tool it is pressed, from which side, and on what it stands.
    """

    key: str
    name: str
    outside: str
    seat: str
    free: str = ""
    bore: str = ""
    pair: str = ""
    wet_seat: bool = False
    how: str = ""


@dataclass(frozen=True)
class Option:
    """One way in which pumps of the family differ; ``choices`` by key, the usual one first.

    ``when`` names the builds that have it, by other options declared before it; a pump of another build has no such option.
    """

    key: str
    name: str
    choices: Mapping[str, str]
    when: When = field(default_factory=dict)


class Side(Enum):
    """On which side of its window a gap explains a symptom."""

    WIDER = "wider"
    TIGHTER = "tighter"
    EITHER = "either"


@dataclass(frozen=True)
class Symptom:
    """Why a pump comes in; ``suspects`` are feature keys, the most telling first, ``also`` what no gauge shows.

    ``gap`` is on which side of its window a gap that is set explains it.
    """

    key: str
    name: str
    suspects: tuple[str, ...]
    also: str = ""
    gap: Side = Side.EITHER


@dataclass(frozen=True)
class ReplacedWith:
    """Parts that go together: when the part of ``changed`` is renewed, so are those of ``also``."""

    changed: str
    also: tuple[str, ...]
    why: str


class Style(Enum):
    """How a mark of the section drawing is filled."""

    HATCHED = "hatched"
    HATCHED_OTHER = "hatched-other"
    STEEL = "steel"
    STEEL_LIGHT = "steel light"
    BRIGHT = "bright"
    LIQUID = "liquid"
    CLEARANCE = "clearance"
    BUSHING = "bushing"
    PACKING = "packing"
    OUTLINE = "outline"
    AXIS = "axis"


@dataclass(frozen=True)
class Mark:
    """One outline of the section drawing: an SVG path in a field of 724 by 604, or of whatever the family says."""

    style: Style
    path: str
    when: When = field(default_factory=dict)


def rect(x: float, y: float, width: float, height: float) -> str:
    """A rectangle as a path."""
    return f"M{x:g} {y:g} h{width:g} v{height:g} h{-width:g} Z"


def circle(x: float, y: float, radius: float) -> str:
    """A circle as a path."""
    return f"M{x - radius:g} {y:g} a{radius:g} {radius:g} 0 1 0 {2 * radius:g} 0 a{radius:g} {radius:g} 0 1 0 {-2 * radius:g} 0 Z"


@dataclass(frozen=True)
class GapWords:
    """What a family calls the gap that is set: its name, where gaskets for it lie, and the faces it is between."""

    name: str
    place: str
    faces: str


DEFAULT_WORDS = GapWords("end clearance", "under the head", "rotor and head")
"""Those of most pumps with a head."""


@dataclass(frozen=True)
class Drawing:
    """The section of the pump; ``size`` is the field its paths and the features' anchors are drawn in."""

    size: tuple[int, int]
    marks: tuple[Mark, ...]


@dataclass(frozen=True)
class Picture:
    """Which way round, drawn right and wrong, in a field of 300 by 220.

    ``words`` say what to look for in each; ``labels`` (x, y, text) stand in both.
    """

    name: str
    right: tuple[Mark, ...]
    right_words: str
    wrong: tuple[Mark, ...]
    wrong_words: str
    labels: tuple[tuple[float, float, str], ...] = ()


class _Conditional(Protocol):
    @property
    def when(self) -> When: ...


C = TypeVar("C", bound=_Conditional)


def belongs(when: When, build: Build) -> bool:
    """Whether something of these builds is in this one."""
    return all(build.get(option) in choices for option, choices in when.items())


def _of(build: Build, things: tuple[C, ...]) -> tuple[C, ...]:
    return tuple(t for t in things if belongs(t.when, build))


@dataclass(frozen=True, eq=False)
class Family:
    """A family of pumps. ``details`` are the counts and weights a sheet may give for the procedure, by key.

    ``torques`` are the lines of a torque table its steps tighten to, by key (the line's name without capitals).
    ``geared`` are the means beside the option “means” that set another of its gaps.
    ``usual`` says between which values a quantity of the duty lies, by its field, where the family differs from others.
    ``build`` is set where this is the family as one build has it.
    A family is itself and no other: it is compared, and looked up, by identity.

    Raises
    ------
    FieldError
        As declared, it names something it does not have, or has a hold point that some build cannot reach.
    """

    key: str
    name: str
    features: tuple[Feature, ...]
    steps: tuple[Step, ...]
    options: tuple[Option, ...] = ()
    symptoms: tuple[Symptom, ...] = ()
    replaced_with: tuple[ReplacedWith, ...] = ()
    details: Mapping[str, str] = field(default_factory=dict)
    stacks: tuple[Stack, ...] = ()
    presses: tuple[Press, ...] = ()
    pictures: Mapping[str, Picture] = field(default_factory=dict)
    gap: GapWords = DEFAULT_WORDS
    usual: Mapping[str, tuple[float, float]] = field(default_factory=dict)
    drawing: Drawing = Drawing((724, 604), ())
    torques: tuple[str, ...] = ()
    geared: tuple[str, ...] = ()
    build: Build | None = None

    def __post_init__(self) -> None:
        if self.build is None:
            from finegap.core.families.check import check_family

            check_family(self)

    @cached_property
    def by_key(self) -> dict[str, Feature]:
        """Features by key."""
        return {f.key: f for f in self.features}

    def steps_of(self, stage: Stage) -> tuple[Step, ...]:
        """The steps of a stage, in order."""
        return tuple(s for s in self.steps if s.stage is stage)

    def complete(self, build: Build, field_name: str = "build") -> dict[str, str]:
        """A build with the usual choice where none is given.

        Raises
        ------
        FieldError
            An option or a choice this family does not have.
        """
        known = {option.key: option for option in self.options}
        for key, choice in build.items():
            if key not in known:
                expected = f"Expected any of: {', '.join(known)}." if known else "Expected none."
                raise FieldError(f"{field_name}.{key}", f"a {self.name.lower()} has no such option.", expected)
            if choice not in known[key].choices:
                expected = f"Expected one of: {', '.join(known[key].choices)}."
                raise FieldError(f"{field_name}.{key}", f"“{choice}” is not a choice of {known[key].name.lower()}.", expected)
        whole: dict[str, str] = {}
        for option in self.options:
            if belongs(option.when, whole):
                whole[option.key] = build.get(option.key) or next(iter(option.choices))
        return whole

    def built(self, build: Build) -> Family:
        """The family as one build has it: features, steps and drawing that belong to it."""
        return _built(self, tuple(sorted(build.items())))


@lru_cache(maxsize=256)
def _built(family: Family, build: tuple[tuple[str, str], ...]) -> Family:
    chosen = dict(build)
    drawing = replace(family.drawing, marks=_of(chosen, family.drawing.marks))
    return replace(
        family,
        build=chosen,
        options=tuple(option for option in family.options if belongs(option.when, chosen)),
        features=_of(chosen, family.features),
        steps=_of(chosen, family.steps),
        stacks=_of(chosen, family.stacks),
        drawing=drawing,
    )


@lru_cache(maxsize=256)
def pressed_only(family: Family, presses: frozenset[str]) -> Family:
    """The family with the sizes of only those press fits."""
    return replace(family, features=tuple(f for f in family.features if not f.press or f.press in presses))


@lru_cache(maxsize=256)
def stationed(family: Family, wanted: tuple[tuple[str, tuple[Station, ...]], ...]) -> Family:
    """The family with other stations for some features."""
    stations_of = dict(wanted)
    return replace(family, features=tuple(replace(f, stations=stations_of.get(f.key, f.stations)) for f in family.features))
