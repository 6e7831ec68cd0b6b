"""A stack: what is put together in which order, on what, which way round, and what lines up with what. Declared data.

A stack is a few sub-assemblies, each built on its own carrier (on the shaft, in the bracket, on the bench), then brought together.
What cannot be done is refused when it is declared.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from enum import Enum
from functools import cached_property

from finegap.core.errors import FieldError
from finegap.core.families.features import SheetCount


class Shape(Enum):
    """How a part is drawn in a stack."""

    WASHER = "washer"
    PACKING = "packing"
    LANTERN = "lantern"
    GLAND = "gland"
    SPLIT_GLAND = "split gland"
    CLIP = "clip"
    SCREW = "screw"
    O_RING = "o-ring"
    SEAT = "seat"
    FACE = "face"
    BELLOWS = "bellows"
    WEDGE = "wedge"
    SPRING = "spring"
    DISC_SPRING = "disc spring"
    COLLAR = "collar"
    LIP_SEAL = "lip seal"
    BEARING = "bearing"
    TAPERED = "tapered bearing"
    HALF_RING = "half ring"
    CAP = "cap"
    NUT = "nut"
    LOCK_WASHER = "lock washer"
    SLEEVE = "sleeve"
    GASKET = "gasket"
    ROTOR = "rotor"
    TOOL = "tool"
    OUT = "out"


FACED = (Shape.SEAT, Shape.FACE, Shape.BELLOWS)
"""Shapes with a lapped face."""

_UNDRAWN = (Shape.TOOL, Shape.OUT)
"""Not in the finished stack."""


class Points(Enum):
    """Which way the drawn part points along the shaft."""

    NEITHER = ""
    ROTOR = "rotor"
    DRIVE = "drive"


@dataclass(frozen=True)
class LinesUp:
    """A mark of this part that has to meet a mark of one fitted before, or of the pump itself.

    Several say how many (“3 notches” to “3 pins”): as many as they meet.
    """

    mark: str
    to: str
    of: str


@dataclass(frozen=True)
class Ring:
    """Inside and section of an O-ring, bottom diameter, depth and width of its groove, mm; ``moving``: something slides on it."""

    inside_mm: float
    section_mm: float
    groove_mm: float
    depth_mm: float
    width_mm: float
    moving: bool = False


@dataclass(frozen=True)
class StackPart:
    """A part of a stack.

    ``facing`` is the direction to be confirmed (“lip outward”); ``marks`` what it has to line up; ``elastomer`` its code, or the
    name of the sheet's detail that holds it; ``feature`` the feature whose decision tells whether it is a new one. Where the part
    is there several times, one after another, ``counted`` says by what.

    ``on`` is its carrier, the first where none is named; ``at`` how far out it lies there, where it is 0 one further than the part
    before. A ``split`` part goes on from the side, past what lies further out. ``takes_out`` is the tool put in before that comes
    out here. ``turned_by`` is the convention that says which way it points. ``lubricant`` is what it goes in with, ``checked``
    what is tried by hand once it is in (“the spring returns”).
    """

    key: str
    name: str
    shape: Shape
    facing: str = ""
    points: Points = Points.NEITHER
    marks: tuple[str, ...] = ()
    lines_up: tuple[LinesUp, ...] = ()
    always_new: bool = False
    elastomer: str = ""
    feature: str = ""
    note: str = ""
    ring: Ring | None = None
    counted: SheetCount | None = None
    on: str = ""
    at: int = 0
    split: bool = False
    takes_out: str = ""
    lubricant: str = ""
    checked: str = ""
    turned_by: str = ""

    @property
    def directed(self) -> bool:
        """Its direction, what it lines up with, or what is tried by hand, has to be confirmed."""
        return bool(self.facing or self.lines_up or self.checked)


@dataclass(frozen=True)
class Carrier:
    """What a sub-assembly is built on or in.

    ``ends`` name what lies left and right of it as it is drawn; it is closed to the left, ``open_left`` where parts come in from
    there. ``inside`` is the part at which it lies in the pump, once all is together. ``needs`` is the part that has to be in
    before anything goes onto it. ``brought`` is the part by which it comes into its place: from then on only what lies at
    ``reach`` or further out goes on; nothing where that is 0.
    """

    key: str
    name: str
    ends: tuple[str, str] = ("rotor", "drive")
    open_left: bool = False
    needs: str = ""
    brought: str = ""
    reach: int = 0
    inside: str = ""


SHAFT = Carrier("shaft", "On the shaft")
"""The one carrier of a stack that names none."""


@dataclass(frozen=True)
class Stack:
    """Parts in the order of fitting, each on its carrier.

    ``place`` is where in the pump it belongs: a sheet's stack takes the place of the family's. ``fixed`` are things of the pump
    itself that parts line up with, by name, with their marks. ``ends`` name what lies left and right of it where it is not on the
    shaft between rotor and drive; ``Points.ROTOR`` is then to the left. ``carriers`` stand in the order they are brought together
    in, from left to right.
    """

    key: str
    name: str
    place: str
    parts: tuple[StackPart, ...]
    fixed: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    when: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    ends: tuple[str, str] | None = None
    carriers: tuple[Carrier, ...] = ()

    def __post_init__(self) -> None:
        if not self.parts:
            raise FieldError("parts", "there is none.", "Expected the parts in the order of fitting.")
        self._check_order()
        known = dict(self.fixed)
        for i, part in enumerate(self.parts):
            path = f"parts[{i}]"
            if part.key in known:
                raise FieldError(f"{path}.key", f"{part.key} is given twice.", "Expected a name of its own for each part.")
            for n, one in enumerate(part.lines_up):
                self._check(part, one, known, f"{path}.lines_up[{n}]")
            known[part.key] = part.marks
        self._check_marks()

    def _check(self, part: StackPart, one: LinesUp, known: Mapping[str, tuple[str, ...]], path: str) -> None:
        if one.mark not in part.marks:
            raise FieldError(path, f"{part.name} has no {one.mark}.", "Expected one of its marks.")
        if one.of not in known:
            later = any(p.key == one.of for p in self.parts)
            problem = f"{one.of} is fitted later." if later else f"{part.name} lines up with nothing: there is no {one.of}."
            raise FieldError(path, problem, f"Expected a part fitted before, or any of: {', '.join(self.fixed) or 'none'}.")
        if one.to not in known[one.of]:
            raise FieldError(path, f"{part.name} lines up with nothing: {one.of} has no {one.to}.", "Expected one of its marks.")
        if _count(one.mark) != _count(one.to):
            raise FieldError(path, f"{one.mark} of {part.name} cannot meet {one.to}.", "Expected as many as they meet.")

    @cached_property
    def sub_assemblies(self) -> tuple[Carrier, ...]:
        """Its carriers; the shaft, or what it lies between, where it names none."""
        if self.carriers:
            return self.carriers
        return (Carrier(SHAFT.key, self.name, self.ends) if self.ends else SHAFT,)

    def carrier_of(self, part: StackPart) -> str:
        """The key of what a part goes onto."""
        return part.on or self.sub_assemblies[0].key

    @cached_property
    def places(self) -> dict[str, int]:
        """How far out on its carrier each part lies, by key."""
        places: dict[str, int] = {}
        last: dict[str, int] = {}
        for part in self.parts:
            on = self.carrier_of(part)
            places[part.key] = part.at or last.get(on, 0) + (part.shape not in _UNDRAWN)
            last[on] = max(places[part.key], last.get(on, 0))
        return places

    def row(self, carrier: Carrier) -> tuple[StackPart, ...]:
        """The parts of a carrier as they lie on it, from left to right; tools are not among them."""
        there = [p for p in self.parts if self.carrier_of(p) == carrier.key and p.shape not in _UNDRAWN]
        return tuple(sorted(there, key=lambda p: self.places[p.key], reverse=carrier.open_left))

    @property
    def together(self) -> tuple[StackPart, ...]:
        """All parts as they lie in the pump, from left to right: a sub-assembly lies at the part it is inside of."""
        return tuple(part for carrier in self.sub_assemblies if not carrier.inside for part in self._lying(carrier))

    def _lying(self, carrier: Carrier) -> Iterator[StackPart]:
        for part in self.row(carrier):
            yield part
            for inner in self.sub_assemblies:
                if inner.inside == part.key:
                    yield from self._lying(inner)

    def _check_order(self) -> None:
        """Refuse an order nobody can follow.

        Raises
        ------
        FieldError
            A part on a carrier that is not there, or not in yet; one behind another that is in; one onto what is closed; a tool
            that stays in; faces that do not face each other.
        """
        carriers = {carrier.key: carrier for carrier in self.sub_assemblies}
        done: set[str] = set()
        tools: dict[str, str] = {}
        furthest: dict[str, StackPart] = {}
        for i, part in enumerate(self.parts):
            path, on = f"parts[{i}]", self.carrier_of(part)
            if on not in carriers:
                raise FieldError(f"{path}.on", f"there is no {on} to put it on.", f"Expected any of: {', '.join(carriers)}.")
            if part.shape is Shape.TOOL:
                tools[part.key] = part.name
            elif part.takes_out:
                if tools.pop(part.takes_out, None) is None:
                    raise FieldError(f"{path}.takes_out", f"no tool {part.takes_out} is in.", "Expected one put in before.")
            else:
                self._check_reach(part, carriers[on], done, furthest.get(on), path)
                if on not in furthest or self.places[part.key] >= self.places[furthest[on].key]:
                    furthest[on] = part
            done.add(part.key)
        if tools:
            raise FieldError("parts", f"{', '.join(tools.values())} stays in.", "Expected what takes it out again.")
        for carrier in self.sub_assemblies:
            for name, key in (("needs", carrier.needs), ("brought", carrier.brought), ("inside", carrier.inside)):
                if key and key not in done:
                    raise FieldError(f"carriers.{carrier.key}.{name}", f"there is no part {key}.", "Expected a part of the stack.")
        if self.carriers:
            self._check_faces()

    def _check_reach(self, part: StackPart, on: Carrier, done: set[str], furthest: StackPart | None, path: str) -> None:
        at = self.places[part.key]
        if on.needs and on.needs not in done and part.key != on.needs:
            raise FieldError(f"{path}.on", f"{part.name} goes onto what is not there yet.", f"Expected {on.needs} before it.")
        if on.brought in done and (not on.reach or at < on.reach):
            raise FieldError(f"{path}.at", f"{part.name} cannot be reached any more.", f"Expected it before {on.brought}.")
        if furthest is not None and at < self.places[furthest.key] and not part.split:
            raise FieldError(f"{path}.at", f"{part.name} cannot go in behind {furthest.name}.", "Expected it before that.")

    def _check_faces(self) -> None:
        """Where faces lie in each other, as in a double seal about one seat, several point the same way: then they meet as one."""
        faces = [part for part in self.together if part.shape in FACED]
        meet = "".join(">" if part.points is Points.DRIVE else "<" for part in faces)
        if not re.fullmatch(r"(>+<+)*", meet):
            said = ", ".join(part.name for part in faces)
            raise FieldError("parts", f"{said}: the faces do not face each other.", "Expected them point to point.")

    def _check_marks(self) -> None:
        used = {(p.key, up.mark) for p in self.parts for up in p.lines_up}
        used |= {(up.of, up.to) for p in self.parts for up in p.lines_up}
        for i, part in enumerate(self.parts):
            alone = next((m for m in part.marks if (part.key, m) not in used), None)
            if alone:
                problem = f"the {alone} of {part.name} lines up with nothing."
                raise FieldError(f"parts[{i}].marks", problem, "Expected what it meets, or no such mark.")

    def name_of(self, key: str) -> str:
        """A part, or a thing of the pump, as it is said."""
        return next((p.name.lower() for p in self.parts if p.key == key), key)

    def directions(self, part: StackPart) -> tuple[str, ...]:
        """What has to be confirmed of a part: which way it faces, and what lines up."""
        meets = tuple(f"{up.mark} to the {up.to} of the {self.name_of(up.of)}" for up in part.lines_up)
        return (*filter(None, (part.facing,)), *meets, *filter(None, (part.checked,)))


def _count(mark: str) -> int:
    """How many there are of a mark: “3 notches”."""
    found = re.match(r"\d+", mark)
    return int(found[0]) if found else 1
