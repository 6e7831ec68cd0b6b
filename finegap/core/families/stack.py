"""A stack: what goes onto the shaft in which order, which way round, and what lines up with what. Declared data."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import Enum

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


class Points(Enum):
    """Which way the drawn part points along the shaft."""

    NEITHER = ""
    ROTOR = "rotor"
    DRIVE = "drive"


@dataclass(frozen=True)
class LinesUp:
    """A mark of this part that has to meet a mark of one fitted before, or of the pump itself."""

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

    @property
    def directed(self) -> bool:
        """Its direction, or what it lines up with, has to be confirmed."""
        return bool(self.facing or self.lines_up)


@dataclass(frozen=True)
class Stack:
    """Parts in the order of fitting, drawn along the shaft.

    ``place`` is where in the pump it belongs: a sheet's stack takes the place of the family's. ``fixed`` are things of the pump
    itself that parts line up with, by name, with their marks. ``ends`` name what lies left and right of it where it is not on the
    shaft between rotor and drive; ``Points.ROTOR`` is then to the left.
    """

    key: str
    name: str
    place: str
    parts: tuple[StackPart, ...]
    fixed: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    when: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    ends: tuple[str, str] | None = None

    def __post_init__(self) -> None:
        if not self.parts:
            raise FieldError("parts", "there is none.", "Expected the parts in the order of fitting.")
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
        return ((part.facing,) if part.facing else ()) + meets
