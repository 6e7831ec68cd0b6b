"""What a spec sheet says about building: press fits, packing, bearings, stacks. Read from its plain values, as ``sheet`` does."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Any

from finegap.core.assembly.disc_spring import DiscSpring
from finegap.core.assembly.fits import SOURCE, fit_of
from finegap.core.assembly.oring import ORing
from finegap.core.assembly.packing import Joints
from finegap.core.assembly.press import Solid
from finegap.core.assembly.torque import DEFAULT_PASSES, FRICTION, Tang, Thread, thread_of
from finegap.core.errors import FieldError
from finegap.core.families.family import Family
from finegap.core.families.stack import Carrier, LinesUp, Points, Ring, Shape, Stack, StackPart
from finegap.core.formatting import Kind, Sentence, between
from finegap.core.materials import MATERIALS, Expansion
from finegap.core.quantities import AllowedSign, parse
from finegap.core.units import Dimension

CARBON = "carbon graphite"
_PRESS_FRICTION = (0.08, 0.16)
"""Oiled metal on metal. Common practice, no source."""


@dataclass(frozen=True)
class Torque:
    """A line of the torque table, in N.m.

    ``count`` fasteners in ``passes`` (shares of the torque); thread, friction and mean diameter of the bearing face [mm] where the
    preload is to be told; ``tang`` for a lock nut.
    """

    fastener: str
    low_n_m: float
    high_n_m: float
    condition: str
    page: str
    count: int = 1
    passes: tuple[float, ...] = (1.0,)
    thread: Thread | None = None
    friction: tuple[float, float] | None = None
    face_mm: float | None = None
    tang: Tang | None = None

    @property
    def key(self) -> str:
        """How it is found: its name without capitals."""
        return self.fastener.lower()

    @property
    def span(self) -> Sentence:
        """The range as it is shown."""
        return between(self.low_n_m, self.high_n_m, Kind.TORQUE)


@dataclass(frozen=True)
class PressSpec:
    """A press fit as the sheet prints it, in mm. ``outside_mm`` and ``seat_mm`` are the limits of size of its two parts."""

    key: str
    said: str
    source: str
    outside_mm: tuple[float, float]
    seat_mm: tuple[float, float]
    length_mm: float
    seat_outside_mm: float
    bushing: Solid
    seat: Solid
    friction: tuple[float, float]

    @property
    def interference_mm(self) -> tuple[float, float]:
        """Least and most."""
        return self.outside_mm[0] - self.seat_mm[1], self.outside_mm[1] - self.seat_mm[0]

    @property
    def joint_mm(self) -> float:
        """The diameter of the joint, about."""
        return sum(self.seat_mm) / 2

    @property
    def in_one_stroke(self) -> bool:
        """Pressed without stopping."""
        return self.bushing.name.lower() == CARBON


@dataclass(frozen=True)
class PackingSpec:
    """Section of the packing in mm, its rings, the school of joints, and after which ring the lantern ring comes."""

    section_mm: float
    rings: int
    joints: Joints
    lantern_after: int


@dataclass(frozen=True)
class Bearing:
    """A bearing to be lubricated: outside diameter and width in mm; ``oil`` where it runs in oil."""

    name: str
    outside_mm: float
    width_mm: float
    oil: bool


@dataclass(frozen=True)
class DiscSpec:
    """A disc spring under a nut: the disc, how much the joint settles in mm, and the line of the torque table the nut is in."""

    disc: DiscSpring
    settles_mm: float
    under: str


@dataclass(frozen=True)
class Building:
    """Everything a sheet says about building.

    ``reusable`` are keys of parts it lets be used again; ``rings`` the sizes of the O-rings in the family's own stacks, by part.
    """

    presses: Mapping[str, PressSpec]
    packing: PackingSpec | None
    bearings: tuple[Bearing, ...]
    stacks: tuple[Stack, ...]
    reusable: frozenset[str]
    disc: DiscSpec | None = None
    rings: Mapping[str, Ring] = field(default_factory=dict)


def read_building(data: Mapping[str, Any], family: Family) -> Building:
    """Read the building part of a sheet whose shape the schema has settled.

    Raises
    ------
    FieldError
        ``field`` is the path in the file.
    """
    known = {press.key: press for press in family.presses}
    for key in data.get("press_fits", {}):
        if key not in known:
            raise FieldError(f"press_fits.{key}", "this family has no such press fit.", f"Expected any of: {', '.join(known)}.")
    ring_parts = {part.key for stack in family.stacks for part in stack.parts if part.shape is Shape.O_RING}
    for key in data.get("rings", {}):
        if key not in ring_parts and key not in family.former_rings:
            raise FieldError(
                f"rings.{key}", "this family has no such O-ring.", f"Expected any of: {', '.join(sorted(ring_parts))}."
            )
    stacks = tuple(_stack(one, f"stacks[{i}]") for i, one in enumerate(data.get("stacks", ())))
    places = [stack.place for stack in stacks]
    twice = next((i for i, place in enumerate(places) if place in places[:i]), None)
    if twice is not None:
        raise FieldError(f"stacks[{twice}].place", f"there is another for {places[twice]}.", "Expected one stack a place.")
    return Building(
        {key: _press(key, one, f"press_fits.{key}") for key, one in data.get("press_fits", {}).items()},
        _packing(data["packing"]) if "packing" in data else None,
        tuple(_bearing(one, f"bearings[{i}]") for i, one in enumerate(data.get("bearings", ()))),
        stacks,
        frozenset(data.get("reusable", ())),
        _disc(data["disc_spring"], data) if "disc_spring" in data else None,
        {key: _ring(one, f"rings.{key}") for key, one in data.get("rings", {}).items()},
    )


def _disc(data: Mapping[str, Any], sheet: Mapping[str, Any]) -> DiscSpec:
    sizes = (_length(data[name], f"disc_spring.{name}") for name in ("outside", "inside", "thickness", "cone"))
    try:
        disc = DiscSpring(*sizes)
    except FieldError as error:
        raise error if "." in error.field else error.within("disc_spring") from None
    under = data["under"].lower()
    known = [one["fastener"].lower() for one in sheet["torques"]]
    if under not in known:
        raise FieldError("disc_spring.under", f"the torque table has no {data['under']}.", f"Expected one of: {', '.join(known)}.")
    return DiscSpec(disc, _length(data["settles"], "disc_spring.settles", AllowedSign.NOT_NEGATIVE), under)


def _length(text: str, path: str, sign: AllowedSign = AllowedSign.POSITIVE) -> float:
    return parse(text, Dimension.LENGTH, path, sign=sign).value


def _pair(texts: list[str], path: str) -> tuple[float, float]:
    low, high = (_length(texts[i], f"{path}[{i}]") for i in (0, 1))
    if low > high:
        raise FieldError(path, "the range is reversed.", "Expected the smaller size first.")
    return low, high


def _press(key: str, data: Mapping[str, Any], path: str) -> PressSpec:
    if "fit" in data:
        nominal = _length(data["nominal"], f"{path}.nominal")
        fit = fit_of(data["fit"], nominal, f"{path}.fit")
        outside, seat, said, source = fit.shaft_mm, fit.hole_mm, f"{nominal:g} {fit.code}", SOURCE
    else:
        outside, seat = _pair(data["outside"], f"{path}.outside"), _pair(data["seat"], f"{path}.seat")
        said, source = "the sheet", "limits printed on the sheet"
    if outside[1] <= seat[0]:
        raise FieldError(path, "the bushing is never larger than its seat: this is no press fit.", "Expected interference.")
    spec = PressSpec(
        key, said, source, outside, seat,
        _length(data["length"], f"{path}.length"),
        _length(data["seat_outside"], f"{path}.seat_outside"),
        _solid(data["bushing_material"], f"{path}.bushing_material"),
        _solid(data["seat_material"], f"{path}.seat_material"),
        _friction(data.get("friction", _PRESS_FRICTION), f"{path}.friction"),
    )  # fmt: skip
    if spec.seat_outside_mm <= spec.outside_mm[1]:
        raise FieldError(
            f"{path}.seat_outside", "there is no metal round the bushing.", "Expected more than the bushing's outside."
        )
    return spec


def _friction(given: list[float] | tuple[float, float], path: str) -> tuple[float, float]:
    low, high = given
    if not 0 < low <= high <= 1:
        raise FieldError(path, f"{low:g} to {high:g} cannot be.", "Expected more than 0, up to 1, the lower first.")
    return low, high


def _solid(given: str | Mapping[str, Any], path: str) -> Solid:
    if isinstance(given, str):
        material = MATERIALS.get(given)
        if material is None:
            expected = f"Expected one of {', '.join(MATERIALS)}, or name, modulus, poisson and expansion."
            raise FieldError(path, f"the stiffness of {given} is not known here.", expected)
        return Solid.of(material)
    stress = {
        name: parse(given[name], Dimension.STRESS, f"{path}.{name}", sign=AllowedSign.POSITIVE).value if name in given else None
        for name in ("modulus", "compressive", "yield")
    }
    upto = parse(given["upto"], Dimension.TEMPERATURE, f"{path}.upto").value if "upto" in given else None
    expansion = Expansion.of(given["expansion"], upto)
    return Solid(given["name"], stress["modulus"] or 0.0, given["poisson"], expansion, stress["yield"], stress["compressive"])


def _packing(data: Mapping[str, Any]) -> PackingSpec:
    lantern = data.get("lantern_after", 0)
    if lantern >= data["rings"]:
        raise FieldError("packing.lantern_after", f"it cannot follow ring {lantern}.", f"Expected less than {data['rings']}.")
    joints = Joints.QUARTER if data.get("joints") == "quarter" else Joints.OPPOSITE
    return PackingSpec(_length(data["section"], "packing.section"), data["rings"], joints, lantern)


def _bearing(data: Mapping[str, Any], path: str) -> Bearing:
    outside, width = _length(data["outside"], f"{path}.outside"), _length(data["width"], f"{path}.width")
    if width > outside:
        raise FieldError(f"{path}.width", "it is wider than its outside.", "Expected the outside diameter first.")
    return Bearing(data["name"], outside, width, data.get("lubricant", "grease") == "oil")


def _stack(data: Mapping[str, Any], path: str) -> Stack:
    try:
        return Stack(
            data["key"],
            data["name"],
            data["place"],
            tuple(_part(one, f"parts[{i}]") for i, one in enumerate(data["parts"])),
            {name: tuple(marks) for name, marks in data.get("fixed", {}).items()},
            ends=(data["ends"][0], data["ends"][1]) if "ends" in data else None,
            carriers=tuple(Carrier(**one | {"ends": tuple(one["ends"])}) for one in data.get("carriers", ())),
        )
    except FieldError as error:
        raise error.within(path) from None


def _part(data: Mapping[str, Any], path: str) -> StackPart:
    return StackPart(
        data["key"],
        data["name"],
        Shape(data["shape"]),
        data.get("facing", ""),
        Points(data.get("points", "")),
        tuple(data.get("marks", ())),
        tuple(LinesUp(one["mark"], one["to"], one["of"]) for one in data.get("lines_up", ())),
        data.get("always_new", False),
        data.get("elastomer", ""),
        note=data.get("note", ""),
        ring=_ring(data["ring"], f"{path}.ring") if "ring" in data else None,
        **{name: data[name] for name in ("on", "at", "split", "takes_out", "lubricant", "checked") if name in data},
    )


def _ring(data: Mapping[str, Any], path: str) -> Ring:
    sizes = {f"{name}_mm": _length(data[name], f"{path}.{name}") for name in _RING_SIZES}
    ring = Ring(**sizes, moving=data.get("moving", False))
    try:
        ORing.of(ring)  # only to learn here, not in the middle of a job, that no such ring can be
    except FieldError as error:
        raise error.within(path) from None
    return ring


_RING_SIZES = ("inside", "section", "groove", "depth", "width")


def read_torque(line: Mapping[str, Any], path: str) -> Torque:
    """A line of the torque table."""
    low, high = (parse(line["torque"][i], Dimension.TORQUE, f"{path}.torque[{i}]", sign=AllowedSign.POSITIVE).value for i in (0, 1))
    if low > high:
        raise FieldError(f"{path}.torque", "the range is reversed.", "Expected the lower torque first.")
    count, condition = line.get("count", 1), line.get("condition", "dry")
    passes = tuple(line.get("passes", DEFAULT_PASSES if count > 1 else (1.0,)))
    if passes[-1] != 1 or any(not 0 < a < b for a, b in pairwise(passes)):
        raise FieldError(f"{path}.passes", "they do not rise to the whole torque.", "Expected shares such as 0.4, 0.7, 1.")
    turn = parse(line["turn"], Dimension.ANGLE, f"{path}.turn", sign=AllowedSign.POSITIVE).value if "turn" in line else None
    return Torque(
        line["fastener"], low, high, condition, line.get("page", ""), count, passes,
        thread_of(line["thread"], f"{path}.thread") if "thread" in line else None,
        _friction(line["friction"], f"{path}.friction") if "friction" in line else FRICTION.get(condition.lower()),
        _length(line["face_diameter"], f"{path}.face_diameter") if "face_diameter" in line else None,
        Tang(line["slots"], line["tangs"], turn) if "slots" in line else None,
    )  # fmt: skip
