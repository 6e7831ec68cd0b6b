"""What a sheet says beside its means of setting the gap: heat, slip, the run-in; read from the plain values of its file."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from finegap.core.errors import FieldError
from finegap.core.families.family import Family
from finegap.core.families.features import FeatureKind
from finegap.core.gap.bend import Overhung
from finegap.core.gap.heat import NO_PART, Body, HeatedPart, Warming
from finegap.core.gap.losses import Losses, Path, TestPoint
from finegap.core.materials import MATERIALS, Expansion
from finegap.core.quantities import AllowedSign, parse
from finegap.core.units import Dimension


@dataclass(frozen=True)
class RunIn:
    """What a sheet says of running its packing in: drops a minute from and to, hottest box [C]; ``None`` where it says nothing."""

    drops: tuple[float, float] | None = None
    hottest_c: float | None = None


def read_run_in(data: Mapping[str, Any]) -> RunIn:
    """The run-in of a sheet's packing.

    Raises
    ------
    FieldError
        Drops in the wrong order.
    """
    drops = None
    if "drops" in data:
        drops = (float(data["drops"][0]), float(data["drops"][1]))
        if not 0 < drops[0] < drops[1]:
            raise FieldError(
                "packing.drops", "the range is reversed or begins at nothing.", "Expected the fewer first, above zero."
            )
    hottest = parse(data["hottest"], Dimension.TEMPERATURE, "packing.hottest").value if "hottest" in data else None
    return RunIn(drops, hottest)


def length_of(text: str, path: str, sign: AllowedSign = AllowedSign.POSITIVE) -> float:
    """A length of a sheet, in mm."""
    return parse(text, Dimension.LENGTH, path, sign=sign).value


def expansion_of(given: str | float, path: str) -> Expansion:
    """An expansion of a sheet: a material of the table, or a number in µm/(m·K)."""
    if not isinstance(given, str):
        return Expansion.of(float(given))
    material = MATERIALS.get(given)
    if material is None:
        raise FieldError(
            path,
            f"the expansion of {given} is not known here.",
            f"Expected one of {', '.join(MATERIALS)}, or µm/(m·K) as a number.",
        )
    return material.expansion


def pair_of(data: list[str], path: str) -> tuple[float, float]:
    """A range of lengths of a sheet, in mm."""
    low, high = (length_of(text, f"{path}[{i}]", AllowedSign.NOT_NEGATIVE) for i, text in enumerate(data))
    if low >= high:
        raise FieldError(path, "the range is reversed or empty.", "Expected the lower end first.")
    return low, high


def read_heat(data: Mapping[str, Any]) -> Body:
    """What a sheet says of heat; the rotor is as long as the casing where it says nothing else."""
    casing = length_of(data["thrust_to_head"], "heat.thrust_to_head")
    rotor = length_of(data["rotor_length"], "heat.rotor_length") if "rotor_length" in data else casing
    head = NO_PART
    if "head" in data:
        head = HeatedPart(
            length_of(data["head"]["reach"], "heat.head.reach"), expansion_of(data["head"]["material"], "heat.head.material")
        )
    warming = None
    if "warming" in data:
        warming = Warming(float(data["warming"]["rotor_minutes"]), float(data["warming"]["casing_minutes"]))
    return Body(
        HeatedPart(casing, expansion_of(data["casing"], "heat.casing")),
        HeatedPart(rotor, expansion_of(data["rotor"], "heat.rotor")),
        head,
        warming,
        length_of(data["least_hot"], "heat.least_hot", AllowedSign.NOT_NEGATIVE) if "least_hot" in data else 0.0,
    )


def read_bend(data: Mapping[str, str], family: Family) -> Overhung:
    """What a sheet says of shafts that bend.

    Raises
    ------
    FieldError
        Lengths that cannot be, or a family none of whose gaps closes by it.
    """
    if not any(feature.closes_at for feature in family.features):
        raise FieldError("bend", f"no gap of a {family.name.lower()} closes by it.", "Expected none.")
    keys = ("between_bearings", "overhang", "rotor_length", "shaft", "across")
    try:
        return Overhung(*(length_of(data[key], f"bend.{key}") for key in keys))
    except FieldError as error:
        raise error if error.field.startswith("bend.") else error.within("bend") from None


def read_losses(data: Mapping[str, Any], family: Family) -> Losses:
    """What a sheet says of slip.

    Raises
    ------
    FieldError
        A path through no gap of the family, or what ``Losses`` refuses.
    """
    paths = tuple(_path(one, family, f"slip.paths[{i}]") for i, one in enumerate(data["paths"]))
    test = _test(data["test"]) if "test" in data else None
    displacement = parse(data["displacement"], Dimension.VOLUME, "slip.displacement", sign=AllowedSign.POSITIVE).value
    try:
        return Losses(displacement, paths, test)
    except FieldError as error:
        raise error.within("slip") from None


def _path(data: Mapping[str, Any], family: Family, path: str) -> Path:
    feature = family.by_key.get(data["feature"])
    if feature is None or not (feature.kind is FeatureKind.PAIR or feature.kind.is_gap):
        gaps = ", ".join(f.key for f in family.features if f.kind is FeatureKind.PAIR or f.kind.is_gap)
        raise FieldError(f"{path}.feature", f"{data['feature']} is no gap of a {family.name.lower()}.", f"Expected any of: {gaps}.")
    sizes = {name: length_of(data[name], f"{path}.{name}") for name in ("width", "length", "wall") if name in data}
    width = sizes.get("width")
    return Path(
        feature.key,
        feature.name,
        None if width is None else width * feature.sides,
        sizes.get("length"),
        # A running clearance is given on the diameter, a total gap for all its sides; the liquid passes on each of them.
        0.5 if feature.kind is FeatureKind.PAIR else 1 / feature.sides,
        sizes.get("wall", 0.0),
        data.get("drag", "against") == "against",
    )


def _test(data: Mapping[str, Any]) -> TestPoint:
    return TestPoint(
        parse(data["flow"], Dimension.FLOW, "slip.test.flow", sign=AllowedSign.POSITIVE).value,
        parse(data["pressure"], Dimension.PRESSURE, "slip.test.pressure", sign=AllowedSign.POSITIVE).value,
        parse(data["viscosity"], Dimension.VISCOSITY, "slip.test.viscosity", sign=AllowedSign.POSITIVE).value,
        float(data["speed"]),
        {key: length_of(text, f"slip.test.gaps.{key}") for key, text in data["gaps"].items()},
    )
