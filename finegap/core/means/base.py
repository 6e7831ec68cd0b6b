"""What a means of setting a gap is to the rest of the application: one protocol, one class a means, one file each.

A means reads its part of the sheet, tells its state and the next move from the tries so far, says what is typed of a try, and how
it is shown. What it takes apart when it is moved is declared at the steps of a family (``Step.undone_by``), for each build.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any, ClassVar, Protocol, Self

from finegap.core.errors import FieldError
from finegap.core.families.family import Family, GapWords
from finegap.core.families.steps import Step
from finegap.core.formatting import Sentence, Text, Units
from finegap.core.gap.housing import Zero
from finegap.core.gap.move import Move, Window
from finegap.core.gap.stock import refuse_too_much
from finegap.core.gap.table import Row
from finegap.core.gap.tape import Tape
from finegap.core.gap.tries import Check, GapResult, GapTarget, Setting, TryMade
from finegap.core.measuring.verdict import School, guard_of
from finegap.core.units import Dimension


@dataclass(frozen=True)
class Moved:
    """The one quantity a try of a means moves something by.

    ``entry`` is its field of ``core.entry.FIELDS``, ``dimension`` what it is; it is kept with a sign: ``ways`` are the words for
    more than nothing and for less. Without an ``entry`` only the way is known, as of a blow, and 1 stands for it.
    """

    entry: str
    dimension: Dimension
    ways: tuple[str, str]

    def signed(self, value: float, way: str) -> float:
        """A value as it is kept; ``way`` is one of ``ways``, or none of them where nothing was turned.

        Raises
        ------
        FieldError
            A way that is none, of a value that is not zero.
        """
        if value and way not in self.ways:
            raise FieldError("way", f"“{way}” is no way to turn it.", f"Expected {' or '.join(self.ways)}.")
        return -value if way == self.ways[1] else value


@dataclass(frozen=True)
class FittedSize:
    """A size of a part as it goes back in, in mm, with the name of its feature.

    ``mm`` is what decides of it, or the middle of a new part's sizes, with its standard uncertainty; ``planes`` are the least and
    the most of each plane it was measured in.
    """

    mm: float | None
    name: str
    u_mm: float = 0.0
    planes: Mapping[str, tuple[float, float]] = field(default_factory=dict)

    def ends(self, plane: str = "") -> tuple[float, float] | None:
        """The least and the most: of a plane, or of all of it where it has no such plane; ``None`` where nothing is known."""
        if self.mm is None:
            return None
        if plane in self.planes:
            return self.planes[plane]
        both = [mm for pair in self.planes.values() for mm in pair] or [self.mm]
        return min(both), max(both)


BACK_COLUMN = "back_clearance"
"""The column of the clearance table behind the rotor, by its name in the file."""


@dataclass(frozen=True)
class SetNow:
    """What a means works with in one job.

    ``window`` is that of the clearance table, ``back`` that behind the rotor where the row gives one; ``box`` counts what is on
    the shelf by thickness in um; ``sizes`` are the parts as they go back in, by feature. ``zero`` is how zero was found, ``None``
    until it is; ``lash_mm`` the play that is counted with. ``places`` are those a gap is checked at, by its key, where they are
    several; ``shut`` when this job leaves closed what the means is under.
    """

    window: Window
    tries: tuple[TryMade, ...]
    school: School
    words: GapWords
    back: Window | None = None
    box: Mapping[int, int] | None = None
    sizes: Mapping[str, FittedSize] | None = None
    zero: Zero | None = None
    lash_mm: float = 0.0
    places: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    shut: bool = False

    @property
    def shelf(self) -> Mapping[int, int]:
        """What is on the shelf."""
        return self.box or {}


@dataclass(frozen=True)
class View:
    """How a means, or a task, is shown: ``kind`` tells the front end which component draws it."""

    kind: str


@dataclass(frozen=True)
class MeansView(View):
    """What the picture of a means draws."""


class Means(Protocol):
    """A means of setting a gap, as one sheet has it."""

    kind: ClassVar[str]
    """What it is called in sheets, builds and steps."""
    schema: ClassVar[Mapping[str, Any]]
    """JSON Schema of its part of a sheet; ``means`` is its own kind."""
    view_type: ClassVar[type[MeansView]]
    sets: ClassVar[tuple[str, ...]]
    """The gaps it is asked for, by the key of each."""
    moved: ClassVar[Moved | None]
    """What a try moves it by; ``None`` where no number says so."""
    stacks: ClassVar[int]
    """How many stacks of pieces from the shelf it has."""
    piece: ClassVar[str]
    """What one piece from the shelf is called; empty where it takes none."""
    zero: Zero | None
    """How the sheet has zero found before the first try; ``None`` where it is set without one."""
    lash_mm: float
    """Play of its thread or bearing in mm, by the sheet."""

    @classmethod
    def columns(cls, family: Family) -> tuple[str, ...]:
        """What it reads of a row of the clearance table beside the end clearance, by the names of the file."""

    def remarks(self) -> tuple[tuple[str, Text], ...]:
        """What the sheet prints of it twice and not alike, each with its path in the file."""

    def stocked(self) -> tuple[int, ...]:
        """Thicknesses it is sold in [um], to be counted on the shelf."""

    @classmethod
    def read(cls, data: Mapping[str, Any], family: Family, rows: tuple[Row, ...]) -> Self:
        """Read its part of a sheet whose shape the schema has settled.

        Raises
        ------
        FieldError
            What cannot be, or is no part of the family; ``field`` is the path in the file.
        """

    def set(self, now: SetNow) -> Setting:
        """Where setting stands, and the next move."""

    def show(self, setting: Setting, now: SetNow) -> MeansView:
        """What the picture of it draws."""

    def lines(self, words: GapWords) -> list[tuple[str, Text]]:
        """What the page of a sheet tells of it, line by line."""

    def against_itself(self) -> tuple[Text, bool] | None:
        """Whether what the sheet prints of it agrees with itself, in words; ``None`` where it prints nothing twice."""

    def set_by(self, made: TryMade, typed: str) -> Text:
        """How a try set it, in a few words; ``typed`` is the quantity as it was typed."""

    def check_stacks(self, stacks: Sequence[Sequence[int]]) -> list[list[int]]:
        """Stacks of a try as they are kept, the thickest piece first.

        Raises
        ------
        FieldError
            Too few or too many stacks, or one that cannot be.
        """

    def opens(self, family: Family) -> tuple[Step, ...]:
        """Steps of a build that put together what it takes apart when it is moved."""

    def tape(self, window: Window, units: Units) -> Tape | None:
        """A scale to lay round what is turned; ``None`` where nothing is."""

    def lash_by(self, moved: float) -> float:
        """The play in mm, by what it was moved before the gap followed.

        Raises
        ------
        FieldError
            Nothing of it turns.
        """


class PlainMeans:
    """What most means have in common: no number of its own, no stack, no zero, no tape."""

    kind: ClassVar[str]
    sets: ClassVar[tuple[str, ...]] = ("gap",)
    moved: ClassVar[Moved | None] = None
    stacks: ClassVar[int] = 0
    piece: ClassVar[str] = ""
    zero: Zero | None = None
    lash_mm: float = 0.0

    @classmethod
    def columns(cls, family: Family) -> tuple[str, ...]:
        """The end clearance alone."""
        return ()

    def remarks(self) -> tuple[tuple[str, Text], ...]:
        """It prints nothing twice."""
        return ()

    def stocked(self) -> tuple[int, ...]:
        """Nothing is sold for it."""
        return ()

    def against_itself(self) -> tuple[Text, bool] | None:
        """It prints nothing twice."""
        return None

    def set_by(self, made: TryMade, typed: str) -> Text:
        """With leaves of the wanted thickness."""
        return "leaves"

    def check_stacks(self, stacks: Sequence[Sequence[int]]) -> list[list[int]]:
        """So many stacks as it has, of thicknesses above zero, none thicker than a stack can be."""
        if not self.stacks:
            return []
        if len(stacks) != self.stacks or any(t <= 0 for stack in stacks for t in stack):
            raise FieldError("stack", "it cannot be.", f"Expected {self.stacks} of thicknesses above zero.")
        refuse_too_much({}, *map(sum, stacks))
        return [sorted(stack, reverse=True) for stack in stacks]

    def opens(self, family: Family) -> tuple[Step, ...]:
        """As the family declares it."""
        return tuple(step for step in family.steps if self.kind in step.undone_by)

    def tape(self, window: Window, units: Units) -> Tape | None:
        """None."""
        return None

    def lash_by(self, moved: float) -> float:
        """Nothing turns."""
        raise FieldError("arc before the rotor follows", "nothing turns on this pump.", "Expected none.")


def check_sizes(family: Family, keys: Sequence[str], path: str) -> None:
    """Refuse sizes a sheet names that nobody measures on a family's pumps; ``path`` is where it names them.

    Raises
    ------
    FieldError
        No such size.
    """
    for i, key in enumerate(keys):
        if key not in family.by_key or not family.by_key[key].kind.taken:
            problem = f"a {family.name.lower()} has no size {key}."
            raise FieldError(f"{path}[{i}]", problem, f"Expected any of: {', '.join(family.by_key)}.")


def asked_one(now: SetNow) -> tuple[GapTarget, ...]:
    """The one gap most means set."""
    return (GapTarget("gap", now.words.name, now.window),)


def asked_at(key: str, name: str, window: Window, now: SetNow, apart_mm: float = math.inf) -> tuple[GapTarget, ...]:
    """A gap at each of its places; once, where it has no more than one."""
    places = now.places.get(key, ())
    return tuple(GapTarget(f"{key}:{i}", f"{name}, {place}", window, apart_mm, key) for i, place in enumerate(places, start=1)) or (
        GapTarget(key, name, window, apart_mm),
    )


def guard_mm(checks: Sequence[Check], school: School) -> float:
    """How far inside its window a gap has to be for checks as good as these to leave no doubt, in whole micrometres, as mm."""
    if school is School.PLAIN:
        return 0.0
    return math.ceil(1000 * max(guard_of(check.u_mm, check.dof, check.half_mm) for check in checks)) / 1000


SHARES = {
    1.0: "Kept inside every edge by the doubt of what was measured, so that the next check can call it right.",
    0.5: "Kept inside every edge by half the doubt of what was measured; the stock allows no more.",
    0.0: "Inside every edge, but nearer than what was measured is good: the stock allows no more.",
}
"""Shares of that guard, the best that can be had first, and what is said of them."""


def with_share(move: Move, share: float, school: School) -> Move:
    """A move that says by which share of the guard it keeps inside."""
    notes = () if school is School.PLAIN else (Sentence(SHARES[share]),)
    return replace(move, working=replace(move.working, notes=(*move.working.notes, *notes)))


def drawn_in(window: Window, guard: float) -> Window:
    """A window less a guard at both ends, in mm; to its target where it is too narrow for that."""
    low, high = window.low_mm + guard, window.high_mm - guard
    return Window(window.target_mm, min(low, window.target_mm), max(high, window.target_mm))


def difference(one: GapResult, other: GapResult) -> Check:
    """One reading less the other, their doubts together."""
    return less(one.check, other.check)


def less(one: Check, other: Check) -> Check:
    """One reading less the other, their doubts together."""
    return Check(one.value_mm - other.value_mm, math.hypot(one.u_mm, other.u_mm), min(one.dof, other.dof))
