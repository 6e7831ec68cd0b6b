"""What a sheet says of setting the gap: the means, the timing gear, heat, and slip; read from the plain values of its file."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from finegap.core.errors import FieldError
from finegap.core.families.model import Family, FeatureKind
from finegap.core.gap.heat import NO_PART, Body, Part, Warming
from finegap.core.gap.housing import Housing, SheetCheck, ThreadHand, Zero, check_sheet
from finegap.core.gap.move import Window
from finegap.core.gap.performance import Losses, Path, TestPoint
from finegap.core.gap.table import Row
from finegap.core.gap.timing import Timing
from finegap.core.materials import MATERIALS, Expansion
from finegap.core.quantities import Dimension, Sign, parse

_ZERO_SCHOOLS = {"first drag": Zero.FIRST_DRAG, "back off": Zero.BACK_OFF}


@dataclass(frozen=True)
class HousingMeans:
    """Threaded bearing housing, with the sheet's own check against itself where it prints an arc."""

    housing: Housing
    zero: Zero
    lash_mm: float
    check: SheetCheck | None


@dataclass(frozen=True)
class GasketMeans:
    """Gaskets under a head or cover: thicknesses as compressed that the maker sells, and the one to begin with, in micrometres.

    ``outer`` and ``inner`` name two features whose difference is the gap without a gasket (a cylinder and the rotor in it); empty
    where only a trial tells.
    """

    sold_um: tuple[int, ...]
    start_um: int
    outer: str = ""
    inner: str = ""


@dataclass(frozen=True)
class RingMeans:
    """Adjusting ring, or sleeve coupling: the shaft is set with feeler leaves, and nothing tells by how much it moved.

    ``depth_mm`` is how far the bearing lies below the cover face, low and high, where the sheet says it.
    """

    coupling: bool = False
    depth_mm: tuple[float, float] | None = None


@dataclass(frozen=True)
class FixedMeans:
    """Nothing adjusts it: the gap follows from the parts, and is only checked."""


@dataclass(frozen=True)
class ShimMeans:
    """Shims behind the front bearings of two shafts: thicknesses sold and the one to begin with [um]; how far rotors may differ."""

    sold_um: tuple[int, ...]
    start_um: int
    difference_mm: float


Means = HousingMeans | GasketMeans | RingMeans | FixedMeans | ShimMeans

TIMING = "timing"
"""What a timing gear is called beside the other means."""

_KEYS = {GasketMeans: "gaskets", HousingMeans: "housing", ShimMeans: "shims", FixedMeans: "fixed"}


def means_key(means: Means) -> str:
    """What a means is called in builds, steps and pictures."""
    if isinstance(means, RingMeans):
        return "coupling" if means.coupling else "ring"
    return _KEYS[type(means)]


@dataclass(frozen=True)
class MeshMeans:
    """Two mesh gaps made alike with a timing gear; what each may be and by how much they may differ."""

    timing: Timing
    window: Window
    difference_mm: float


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


def length_of(text: str, path: str, sign: Sign = Sign.POSITIVE) -> float:
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


def read_means(data: Mapping[str, Any], family: Family, rows: tuple[Row, ...]) -> Means:
    """The means of adjustment of a sheet.

    Raises
    ------
    FieldError
        A lead, diameter or lash that cannot be; sizes that are no features of the family; shims without a back clearance.
    """
    match data["means"]:
        case "housing":
            return _housing(data, rows)
        case "gaskets":
            sizes = data.get("between", ["", ""])
            for i, key in enumerate(sizes):
                if key and (key not in family.by_key or not family.by_key[key].kind.taken):
                    problem = f"a {family.name.lower()} has no size {key}."
                    raise FieldError(f"adjustment.between[{i}]", problem, f"Expected any of: {', '.join(family.by_key)}.")
            return GasketMeans(_sold(data), _um(data["starting_gasket"], "adjustment.starting_gasket"), *sizes)
        case "shims":
            bare = next((i for i, row in enumerate(rows) if row.back_mm is None), None)
            if bare is not None:
                hint = "Expected the clearance behind the rotor in every row: shims move both."
                raise FieldError(f"clearance_table.rows[{bare}].back_clearance", "it is missing.", hint)
            difference = length_of(data["difference"], "adjustment.difference")
            start = "starting_shims"
            return ShimMeans(_sold(data), _um(data[start], f"adjustment.{start}") if start in data else 0, difference)
        case "fixed":
            return FixedMeans()
        case coupling_or_ring:
            return RingMeans(coupling_or_ring == "coupling", _pair(data["depth"], "adjustment.depth") if "depth" in data else None)


def _check_reach(travel_mm: float, rows: tuple[Row, ...]) -> None:
    """Every clearance of the table has to lie within what the thread can be turned out."""
    beyond = next((i for i, row in enumerate(rows) if row.clearance_mm > travel_mm), None)
    if beyond is not None:
        problem = f"the thread reaches {travel_mm:g} mm, and this row asks for {rows[beyond].clearance_mm:g} mm."
        raise FieldError(
            f"clearance_table.rows[{beyond}].end_clearance", problem, "Expected a clearance within the thread's travel."
        )


def _housing(data: Mapping[str, Any], rows: tuple[Row, ...]) -> HousingMeans:
    housing = Housing(
        length_of(data["outside_diameter"], "adjustment.outside_diameter"),
        length_of(data["lead"], "adjustment.lead"),
        ThreadHand(data.get("thread", "right")),
    )
    if "travel" in data:
        _check_reach(length_of(data["travel"], "adjustment.travel"), rows)
    lash = length_of(data.get("lash", "0 mm"), "adjustment.lash", Sign.NOT_NEGATIVE)
    check = None
    if "arc" in data:
        printed = length_of(data["arc"], "adjustment.arc")
        check = check_sheet(housing, printed, length_of(data["for_clearance"], "adjustment.for_clearance"))
    return HousingMeans(housing, _ZERO_SCHOOLS[data.get("zero", "first drag")], lash, check)


def _um(text: str, path: str) -> int:
    return round(length_of(text, path) * 1000)


def _sold(data: Mapping[str, Any]) -> tuple[int, ...]:
    return tuple(_um(text, f"adjustment.thicknesses[{i}]") for i, text in enumerate(data["thicknesses"]))


def _pair(data: list[str], path: str) -> tuple[float, float]:
    low, high = (length_of(text, f"{path}[{i}]", Sign.NOT_NEGATIVE) for i, text in enumerate(data))
    if low >= high:
        raise FieldError(path, "the range is reversed or empty.", "Expected the lower end first.")
    return low, high


def read_timing(data: Mapping[str, Any]) -> MeshMeans:
    """The timing gear of a sheet, and what the mesh gaps may be."""
    try:
        timing = Timing(
            length_of(data["pitch_diameter"], "timing.pitch_diameter"),
            length_of(data.get("marked_diameter", data["pitch_diameter"]), "timing.marked_diameter"),
        )
    except FieldError as error:
        raise error if "." in error.field else error.within("timing") from None
    low, high = _pair(data["gap"], "timing.gap")
    return MeshMeans(timing, Window((low + high) / 2, low, high), length_of(data["difference"], "timing.difference"))


def read_heat(data: Mapping[str, Any]) -> Body:
    """What a sheet says of heat; the rotor is as long as the casing where it says nothing else."""
    casing = length_of(data["thrust_to_head"], "heat.thrust_to_head")
    rotor = length_of(data["rotor_length"], "heat.rotor_length") if "rotor_length" in data else casing
    head = NO_PART
    if "head" in data:
        head = Part(
            length_of(data["head"]["reach"], "heat.head.reach"), expansion_of(data["head"]["material"], "heat.head.material")
        )
    warming = None
    if "warming" in data:
        warming = Warming(float(data["warming"]["rotor_minutes"]), float(data["warming"]["casing_minutes"]))
    return Body(
        Part(casing, expansion_of(data["casing"], "heat.casing")),
        Part(rotor, expansion_of(data["rotor"], "heat.rotor")),
        head,
        warming,
        length_of(data["least_hot"], "heat.least_hot", Sign.NOT_NEGATIVE) if "least_hot" in data else 0.0,
    )


def read_losses(data: Mapping[str, Any], family: Family) -> Losses:
    """What a sheet says of slip.

    Raises
    ------
    FieldError
        A path through no gap of the family, or what ``Losses`` refuses.
    """
    paths = tuple(_path(one, family, f"slip.paths[{i}]") for i, one in enumerate(data["paths"]))
    test = _test(data["test"]) if "test" in data else None
    displacement = parse(data["displacement"], Dimension.VOLUME, "slip.displacement", sign=Sign.POSITIVE).value
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
    return Path(
        feature.key,
        feature.name,
        sizes.get("width"),
        sizes.get("length"),
        # A running clearance is given on the diameter; the liquid passes on each side of the shaft.
        0.5 if feature.kind is FeatureKind.PAIR else 1.0,
        sizes.get("wall", 0.0),
        data.get("drag", "against") == "against",
    )


def _test(data: Mapping[str, Any]) -> TestPoint:
    return TestPoint(
        parse(data["flow"], Dimension.FLOW, "slip.test.flow", sign=Sign.POSITIVE).value,
        parse(data["pressure"], Dimension.PRESSURE, "slip.test.pressure", sign=Sign.POSITIVE).value,
        parse(data["viscosity"], Dimension.VISCOSITY, "slip.test.viscosity", sign=Sign.POSITIVE).value,
        float(data["speed"]),
        {key: length_of(text, f"slip.test.gaps.{key}") for key, text in data["gaps"].items()},
    )
