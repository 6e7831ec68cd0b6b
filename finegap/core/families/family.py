"""A family of pumps: its features, steps, options and drawing, the reasons it comes in, and what is renewed together."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from enum import Enum
from functools import cached_property, lru_cache

from finegap.core.drawing.marks import Picture
from finegap.core.drawing.views import Pump, View, nothing_drawn
from finegap.core.errors import FieldError
from finegap.core.families.builds import UNSAID, Build, Option, When, belonging, belongs
from finegap.core.families.features import Feature, Station
from finegap.core.families.stack import Points, Stack
from finegap.core.families.steps import Stage, Step


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


@dataclass(frozen=True)
class GapWords:
    """What a family calls the gap that is set: its name, where gaskets for it lie, and the faces it is between."""

    name: str
    place: str
    faces: str


DEFAULT_WORDS = GapWords("end clearance", "under the head", "rotor and head")
"""Those of most pumps with a head."""


@dataclass(frozen=True, eq=False)
class Family:
    """A family of pumps. ``details`` are the counts and weights a sheet may give for the procedure, by key.

    ``torques`` are the lines of a torque table its steps tighten to, by key (the line's name without capitals).
    ``geared`` are the means beside the option “means” that set another of its gaps.
    ``usual`` says between which values a quantity of the duty lies, by its field, where the family differs from others.
    ``former_rings`` are O-rings of its stacks that sheets of an earlier version may size: they are read, and meet nothing.
    ``overhung`` names the builds whose rotors stand free beyond their bearings, so that pressure bends their shafts.
    ``one_piece`` are features of one part, together: it is new in all of them, or in none.
    ``build`` is set where this is the family as one build has it; ``said`` is then what its conventions say, by name in braces.
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
    views: Callable[[Pump], tuple[View, ...]] = nothing_drawn
    torques: tuple[str, ...] = ()
    geared: tuple[str, ...] = ()
    former_rings: tuple[str, ...] = ()
    one_piece: tuple[tuple[str, ...], ...] = ()
    overhung: When = field(default_factory=dict)
    build: Build | None = None
    said: Mapping[str, str] = field(default_factory=dict)

    def __post_init__(self) -> None:
        if self.build is None:
            from finegap.core.families.check import check_family

            check_family(self)

    @cached_property
    def by_key(self) -> dict[str, Feature]:
        """Features by key."""
        return {f.key: f for f in self.features}

    def piece_of(self, key: str) -> tuple[str, ...]:
        """The other features of the same part, as far as this build has them."""
        return tuple(k for piece in self.one_piece if key in piece for k in piece if k != key and k in self.by_key)

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
        known = dict.fromkeys(option.key for option in self.options)
        for key in build:
            if key not in known:
                expected = f"Expected any of: {', '.join(known)}." if known else "Expected none."
                raise FieldError(f"{field_name}.{key}", f"a {self.name.lower()} has no such option.", expected)
        whole: dict[str, str] = {}
        for option in self.options:
            has, given = belongs(option.when, whole), build.get(option.key)
            # What a pump of another build has is kept with it, and says nothing of this one.
            choices = [c for o in ((option,) if has else self.options) if o.key == option.key for c in o.choices]
            if given and given not in choices:
                expected = f"Expected one of: {', '.join(choices)}."
                raise FieldError(f"{field_name}.{option.key}", f"“{given}” is not a choice of {option.name.lower()}.", expected)
            if has:
                whole[option.key] = given or choices[0]
        return whole

    def built(self, build: Build) -> Family:
        """The family as one build has it: features, steps and stacks that belong to it."""
        return _built(self, tuple(sorted(build.items())))


@lru_cache(maxsize=256)
def _built(family: Family, build: tuple[tuple[str, str], ...]) -> Family:
    chosen = dict(build)
    options = tuple(option for option in family.options if belongs(option.when, chosen))
    said = said_of(options, chosen)
    return replace(
        family,
        build=chosen,
        said=said,
        options=options,
        features=belonging(chosen, family.features),
        steps=in_order(tuple(step_worded(step, said) for step in belonging(chosen, family.steps))),
        stacks=tuple(stack_worded(_turned(stack, chosen), said) for stack in belonging(chosen, family.stacks)),
    )


def said_of(options: tuple[Option, ...], chosen: Build) -> dict[str, str]:
    """What is said of conventions, by their name in braces; of one nobody chose, what is said then."""
    return {f"{{{one.key}}}": one.said[chosen.get(one.key, UNSAID)] for one in options if one.is_convention}


def step_worded(step: Step, said: Mapping[str, str]) -> Step:
    """A step in the words of the conventions that hold."""
    text, why, look = (_filled(words, said) for words in (step.text, step.why, step.look))
    return replace(step, text=text, why=why, look=look, tells=tuple(filter(None, (_filled(line, said) for line in step.tells))))


_TURNED = {"outward": Points.DRIVE, "inward": Points.ROTOR}


def _turned(stack: Stack, chosen: Build) -> Stack:
    """A stack whose parts point the way the conventions say; one nobody spoke of is drawn without a direction."""
    if not any(part.turned_by for part in stack.parts):
        return stack
    pointed = (replace(p, points=_TURNED.get(chosen.get(p.turned_by, ""), p.points)) for p in stack.parts)
    return replace(stack, parts=tuple(pointed))


def stack_worded(stack: Stack, said: Mapping[str, str]) -> Stack:
    """A stack in the words of the conventions that hold."""
    if not any(name in part.facing + part.note for part in stack.parts for name in said):
        return stack
    parts = tuple(replace(part, facing=_filled(part.facing, said), note=_filled(part.note, said)) for part in stack.parts)
    return replace(stack, parts=parts)


def _filled(words: str, said: Mapping[str, str]) -> str:
    for name, phrase in said.items():
        words = words.replace(name, phrase)
    return words.strip()


def in_order(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    """Steps in the order they are declared in, but none before a step it needs."""
    keys, left, ordered = {s.key for s in steps}, list(steps), list[Step]()
    done: set[str] = set()
    while left:
        # A circle is refused when the family is checked; here it only must not hang.
        step = next((s for s in left if {*s.needs} & keys <= done), left[0])
        left.remove(step)
        ordered.append(step)
        done.add(step.key)
    return tuple(ordered)


@lru_cache(maxsize=256)
def pressed_only(family: Family, presses: frozenset[str]) -> Family:
    """The family with the sizes of only those press fits."""
    return replace(family, features=tuple(f for f in family.features if not f.press or f.press in presses))


@lru_cache(maxsize=256)
def stationed(family: Family, wanted: tuple[tuple[str, tuple[Station, ...]], ...]) -> Family:
    """The family with other stations for some features."""
    stations_of = dict(wanted)
    return replace(family, features=tuple(replace(f, stations=stations_of.get(f.key, f.stations)) for f in family.features))
