"""A spec sheet: what a pump's own manual says, read from the plain values of the open JSON format.

Quantities are text with a unit, as printed ("0.005 in", "62 mm2/s"); the format is described in ``docs/formats``.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import partial
from typing import Any

from finegap.core.assembly.declared import Building, Torque, read_torque
from finegap.core.errors import FieldError, Found, T
from finegap.core.families import FAMILIES
from finegap.core.families.builds import Build
from finegap.core.families.family import Family, pressed_only, stationed
from finegap.core.formatting import Text
from finegap.core.gap.bend import Overhung
from finegap.core.gap.declared import (
    RunIn,
    read_bend,
    read_heat,
    read_losses,
    read_run_in,
)
from finegap.core.gap.heat import Body
from finegap.core.gap.losses import Losses
from finegap.core.gap.table import Row
from finegap.core.means.base import Means
from finegap.core.means.registry import read_means
from finegap.core.means.timing import TimingMeans
from finegap.core.measuring.verdict import School
from finegap.core.sheet_parts import (
    NOT_PRINTED,
    FeatureSpec,
    printed_twice,
    read_build,
    read_catalogue,
    read_details,
    read_features,
    read_parts_of_building,
    read_plan,
    read_rows,
    read_tolerance,
    read_usual,
    sizes_of_means,
    sizes_of_presses,
)
from finegap.core.wear.lubrication import Plan
from finegap.core.wear.parts import Catalogue


@dataclass(frozen=True)
class SpecSheet:
    """A sheet at one revision. Tolerances are how far below and above the table's clearance still serves, in mm."""

    title: str
    maker: str
    model: str
    revision: str
    date: str
    source: str
    family: Family
    school: School
    near_share: float
    features: Mapping[str, FeatureSpec]
    rows: tuple[Row, ...]
    table_page: str
    minus_mm: float
    plus_mm: float
    means: Means
    torques: tuple[Torque, ...]
    heat: Body | None
    build: Mapping[str, str]
    details: Mapping[str, str]
    catalogue: Catalogue
    building: Building
    mesh: TimingMeans | None = None
    bend: Overhung | None = None
    losses: Losses | None = None
    run_in: RunIn = field(default_factory=RunIn)
    lubrication: tuple[Plan, ...] = ()
    usual: Mapping[str, tuple[float, float]] = field(default_factory=dict)
    cautions: tuple[tuple[str, str], ...] = ()

    def spec(self, key: str) -> FeatureSpec:
        """What the sheet prints of a feature; nothing, if it does not."""
        return self.features.get(key, NOT_PRINTED)

    def family_of(self, build: Build) -> Family:
        """The family as a pump of this sheet is built, with the stations the sheet asks for."""
        means = self.build.get("means")
        if build.get("means", means) != means:
            raise FieldError("build.means", "the numbers of this sheet are for another.", f"Expected {means}.")
        family = self.family.built(self.family.complete({**self.build, **build}))
        family = pressed_only(family, frozenset(self.building.presses))
        own = {f.key: f.stations_by({**self.details, **(family.build or {})}) for f in family.features if f.counted}
        own |= {key: spec.stations for key, spec in self.features.items() if spec.stations}
        return stationed(family, tuple(own.items())) if own else family

    def cite(self, page: str = "") -> str:
        """How a working names this sheet."""
        return f"{self.title}, revision {self.revision} of {self.date}" + (f", page {page}" if page else "")


@dataclass(frozen=True)
class PartlySheet:
    """A sheet as far as it could be read: ``rows`` and ``means`` are there only where nothing of them is wrong.

    ``readable`` are the rows that could be read, whatever is wrong with others.
    """

    family: Family
    features: Mapping[str, FeatureSpec]
    rows: tuple[Row, ...]
    readable: tuple[Row, ...]
    means: Means | None
    build: Mapping[str, str]
    details: Mapping[str, str]
    building: Building
    mesh: TimingMeans | None = None
    remarks: tuple[tuple[str, Text], ...] = ()

    def spec(self, key: str) -> FeatureSpec:
        """What it prints of a feature; nothing, if it does not."""
        return self.features.get(key, NOT_PRINTED)


def family_of(data: Mapping[str, Any]) -> Family:
    """The family of a sheet.

    Raises
    ------
    FieldError
        There is no such family.
    """
    family = FAMILIES.get(data.get("family", ""))
    if family is None:
        problem = f"“{data.get('family', '')}” is not a family known here."
        raise FieldError("family", problem, f"Expected one of: {', '.join(FAMILIES)}.")
    return family


def read_sheet(data: Mapping[str, Any]) -> SpecSheet:
    """Read a sheet whose shape the JSON Schema has already settled.

    Raises
    ------
    FieldError
        ``field`` is the path in the file; values that cannot be: units, signs, order of ranges, holes in the table, unknown
        feature or family. Of several the first.
    """
    found = Found()
    whole = _read(data, found)[1]
    if found.errors:
        raise found.errors[0]
    if whole is None:
        raise FieldError("file", "it is not whole.", "Expected everything the format asks for.")
    return whole


def read_partly(data: Mapping[str, Any]) -> tuple[PartlySheet, list[FieldError]]:
    """Read what can be read of a sheet, and gather all that is wrong with the rest. What it lacks altogether is not told here.

    Raises
    ------
    FieldError
        There is no such family.
    """
    found = Found()
    return _read(data, found)[0], found.errors


_NEEDED = {"title", "maker", "model", "revision", "date", "source", "torques"}


def _read(data: Mapping[str, Any], found: Found) -> tuple[PartlySheet, SpecSheet | None]:
    """``data`` may lack whole sections; then there is no sheet, only a part of one."""
    family = family_of(data)
    table = data.get("clearance_table", {})
    partly = _partly(data, table, family, found)
    tolerance = found.reading(lambda: read_tolerance(table, partly.rows), (0.0, 0.0)) if "tolerance" in table else (0.0, 0.0)
    beside = _beside(data, family, found)
    means = partly.means
    if found.errors or not found.whole or means is None or not partly.rows or not partly.features or _NEEDED - data.keys():
        return partly, None
    whole = SpecSheet(
        title=data["title"],
        maker=data["maker"],
        model=data["model"],
        revision=data["revision"],
        date=data["date"],
        source=data["source"],
        family=family,
        school=School(data.get("school", School.GUARDED.value)),
        near_share=data.get("near_share", 0.2),
        features=partly.features,
        rows=partly.rows,
        table_page=table["page"],
        minus_mm=tolerance[0],
        plus_mm=tolerance[1],
        means=means,
        build=partly.build,
        details=partly.details,
        building=partly.building,
        mesh=partly.mesh,
        cautions=tuple((one["stage"], one["text"]) for one in data.get("cautions", ())),
        **beside,
    )
    return partly, whole


def _partly(data: Mapping[str, Any], table: Mapping[str, Any], family: Family, found: Found) -> PartlySheet:
    rows, readable = read_rows(table, found)
    building = read_parts_of_building(data, family, found)
    said = "means" in data.get("adjustment", {})
    means = found.reading(lambda: read_means(data["adjustment"], family, rows), None) if said else None
    printed = read_features(family, data.get("features", {}), found)
    return PartlySheet(
        family=family,
        features=sizes_of_means(family, means) | printed | sizes_of_presses(family, building),
        rows=rows,
        readable=readable,
        means=means,
        build=found.reading(lambda: read_build(family, data), {}),
        details=found.reading(lambda: read_details(family, data.get("details", {})), {}),
        building=building,
        mesh=found.reading(lambda: TimingMeans.read(data["timing"], family), None) if "timing" in data else None,
        remarks=(*printed_twice(table, rows), *(means.remarks() if means else ())),
    )


def _beside(data: Mapping[str, Any], family: Family, found: Found) -> dict[str, Any]:
    """What a sheet may say beside sizes and gap, by the names of the sheet."""

    def maybe(key: str, read: Callable[[Any], T]) -> T | None:
        return found.reading(lambda: read(data[key]), None) if key in data else None

    def each(key: str, read: Callable[[Any, str], T]) -> tuple[T, ...]:
        lines = [found.reading(partial(read, line, f"{key}[{i}]"), None) for i, line in enumerate(data.get(key, ()))]
        return tuple(line for line in lines if line is not None)

    usual = {key: found.reading(partial(read_usual, key, pair), None) for key, pair in data.get("usual", {}).items()}
    return {
        "torques": each("torques", read_torque),
        "heat": maybe("heat", read_heat),
        "bend": maybe("bend", lambda given: read_bend(given, family)),
        "losses": maybe("slip", lambda given: read_losses(given, family)),
        "run_in": maybe("packing", read_run_in) or RunIn(),
        "catalogue": maybe("catalogue", lambda given: read_catalogue(family, given)) or Catalogue(""),
        "lubrication": each("lubrication", read_plan),
        "usual": {key: both for key, both in usual.items() if both},
    }
