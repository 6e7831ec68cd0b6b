"""A spec sheet: what a pump's own manual says, read from the plain values of the open JSON format.

Quantities are text with a unit, as printed ("0.005 in", "62 mm2/s"); the format is described in ``docs/formats``.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from finegap.core.assembly.declared import Building, Torque, read_building, read_torque
from finegap.core.entry import FIELDS
from finegap.core.errors import FieldError
from finegap.core.families import FAMILIES
from finegap.core.families.builds import Build
from finegap.core.families.family import Family, pressed_only, stationed
from finegap.core.families.features import FeatureKind, Station, stations
from finegap.core.gap.bend import Overhung
from finegap.core.gap.declared import (
    RunIn,
    expansion_of,
    length_of,
    read_bend,
    read_heat,
    read_losses,
    read_run_in,
)
from finegap.core.gap.heat import Body
from finegap.core.gap.losses import Losses
from finegap.core.gap.table import Range, Row, check_rows
from finegap.core.materials import Expansion
from finegap.core.means.base import Means
from finegap.core.means.registry import read_means
from finegap.core.means.timing import TimingMeans
from finegap.core.measuring.verdict import Limit, School
from finegap.core.quantities import AllowedSign, parse
from finegap.core.units import Dimension
from finegap.core.wear.lubrication import Plan
from finegap.core.wear.parts import Catalogue, CataloguePart, Kit

OPEN_LOW, OPEN_HIGH = "any lower", "and up"
"""How an open end of a range is written in the file."""


@dataclass(frozen=True)
class FeatureSpec:
    """New size and limit of one feature, with the page they are printed on; ``None`` where none is printed.

    ``expansion`` is of the part's material; ``stations`` those of the family where empty.
    """

    limit: Limit | None
    new_mm: tuple[float, float] | None
    page: str = ""
    fine: bool = False
    expansion: Expansion | None = None
    stations: tuple[Station, ...] = ()


_NOT_PRINTED = FeatureSpec(None, None)


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

    def spec(self, key: str) -> FeatureSpec:
        """What the sheet prints of a feature; nothing, if it does not."""
        return self.features.get(key, _NOT_PRINTED)

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


def read_sheet(data: Mapping[str, Any]) -> SpecSheet:
    """Read a sheet whose shape the JSON Schema has already settled.

    Raises
    ------
    FieldError
        ``field`` is the path in the file; values that cannot be: units, signs, order of ranges, holes in the table, unknown
        feature or family.
    """
    family = FAMILIES.get(data["family"])
    if family is None:
        raise FieldError("family", f"“{data['family']}” is not a family known here.", f"Expected one of: {', '.join(FAMILIES)}.")
    table = data["clearance_table"]
    rows = tuple(_row(row, f"clearance_table.rows[{i}]") for i, row in enumerate(table["rows"]))
    try:
        check_rows(rows, table.get("holes_as_printed", False))
    except FieldError as error:
        raise error.within("clearance_table") from None
    minus, plus = (
        length_of(table["tolerance"][side], f"clearance_table.tolerance.{side}", AllowedSign.NOT_NEGATIVE)
        for side in ("minus", "plus")
    )
    if minus + plus == 0:
        raise FieldError("clearance_table.tolerance", "no gap can be exactly that.", "Expected more than 0 below or above it.")
    least = min(mm for row in rows for mm in (row.clearance_mm, row.back_mm) if mm is not None)
    if minus >= least:
        touching = f"it lets a gap of {least:g} mm close altogether."
        raise FieldError("clearance_table.tolerance.minus", touching, "Expected less than the least end clearance.")
    building = read_building(data, family)
    means = read_means(data["adjustment"], family, rows)
    return SpecSheet(
        title=data["title"],
        maker=data["maker"],
        model=data["model"],
        revision=data["revision"],
        date=data["date"],
        source=data["source"],
        family=family,
        school=School(data.get("school", School.GUARDED.value)),
        near_share=data.get("near_share", 0.2),
        features=_of_means(family, means) | _features(family, data["features"]) | _press_sizes(family, building),
        rows=rows,
        table_page=table["page"],
        minus_mm=minus,
        plus_mm=plus,
        means=means,
        torques=tuple(read_torque(t, f"torques[{i}]") for i, t in enumerate(data["torques"])),
        heat=read_heat(data["heat"]) if "heat" in data else None,
        build=_build(family, data),
        details=_details(family, data.get("details", {})),
        catalogue=_catalogue(family, data["catalogue"]) if "catalogue" in data else Catalogue(""),
        building=building,
        mesh=TimingMeans.read(data["timing"], family) if "timing" in data else None,
        bend=read_bend(data["bend"], family) if "bend" in data else None,
        losses=read_losses(data["slip"], family) if "slip" in data else None,
        run_in=read_run_in(data.get("packing", {})),
        lubrication=tuple(_plan(one, f"lubrication[{i}]") for i, one in enumerate(data.get("lubrication", ()))),
        usual={key: _usual(key, pair) for key, pair in data.get("usual", {}).items()},
    )


def _usual(key: str, pair: list[str]) -> tuple[float, float]:
    """Between which values a quantity of the duty usually lies, in its internal unit."""
    low, high = (
        parse(text, FIELDS[key].dimension, f"usual.{key}[{i}]", sign=FIELDS[key].sign).value for i, text in enumerate(pair)
    )
    if low >= high:
        raise FieldError(f"usual.{key}", "the range is reversed or empty.", "Expected the lower end first.")
    return low, high


def _build(family: Family, data: Mapping[str, Any]) -> dict[str, str]:
    """The sheet's build; its means of adjustment is a choice like any other where the family has it."""
    build = dict(data.get("build", {}))
    options = {option.key for option in family.options}
    for feature in family.features:
        count = feature.counted
        if count is not None and count.detail in options and feature.key in data["features"] and count.detail not in build:
            choices = ", ".join(choice for o in family.options if o.key == count.detail for choice in o.choices)
            problem = f"it prints {feature.name.lower()}, and not how many there are."
            raise FieldError(f"build.{count.detail}", problem, f"Expected one of: {choices}.")
    if any(option.key == "means" for option in family.options):
        build["means"] = data["adjustment"]["means"]
    said = {option.key for option in family.options if option.is_convention}
    if "faces" in said and data.get("details", {}).get("faces") in ("dry", "film"):
        build.setdefault("faces", data["details"]["faces"])  # where sheets said it before it was a convention
    return {key: choice for key, choice in family.complete(build).items() if key not in said or key in build}


def _details(family: Family, data: Mapping[str, str]) -> dict[str, str]:
    unknown = next((key for key in data if key not in family.details), None)
    if unknown:
        known = ", ".join(family.details) or "none"
        raise FieldError(f"details.{unknown}", f"a {family.name.lower()} has no such detail.", f"Expected any of: {known}.")
    for feature in family.features:
        feature.stations_by(data)  # refuses what is no count
    return dict(data)


def _catalogue(family: Family, data: Mapping[str, Any]) -> Catalogue:
    def cents(one: Mapping[str, Any]) -> int | None:
        return round(one["price"] * 100) if "price" in one else None

    for i, one in enumerate(data["parts"]):
        unknown = next((key for key in one.get("renews", []) if key not in family.by_key), None)
        if unknown:
            path = f"catalogue.parts[{i}].renews"
            raise FieldError(path, f"a {family.name.lower()} has no {unknown}.", f"Expected any of: {', '.join(family.by_key)}.")
    catalogue = Catalogue(
        data["currency"],
        tuple(
            CataloguePart(
                one["number"],
                one["name"],
                cents(one),
                one.get("lead_days", 0),
                one.get("count", 1),
                tuple(one.get("renews", ())),
                one.get("always", False),
            )
            for one in data["parts"]
        ),
        tuple(
            Kit(one["number"], one["name"], cents(one) or 0, one.get("lead_days", 0), dict(one["contents"]))
            for one in data.get("kits", ())
        ),
    )
    catalogue.check("catalogue")
    return catalogue


def _features(family: Family, data: Mapping[str, Any]) -> dict[str, FeatureSpec]:
    unknown = next((key for key in data if key not in family.by_key), None)
    if unknown:
        known = ", ".join(family.by_key)
        raise FieldError(f"features.{unknown}", f"a {family.name.lower()} has no such feature.", f"Expected any of: {known}.")
    pressed = next((key for key in data if family.by_key[key].press), None)
    if pressed:
        raise FieldError(f"features.{pressed}", "its size follows from its press fit.", "Expected it under press_fits.")
    looked_at = next((key for key in data if family.by_key[key].kind is FeatureKind.CHECK), None)
    if looked_at:
        raise FieldError(f"features.{looked_at}", "it is looked at, not measured.", "Expected no size for it.")
    return {key: _feature(family.by_key[key].kind, spec, f"features.{key}") for key, spec in data.items()}


def _of_means(family: Family, means: Means) -> dict[str, FeatureSpec]:
    """Limits the sheet prints with its means of adjustment."""
    printed = {f.key: getattr(means, f"{f.printed_as}_mm", None) for f in family.features if f.printed_as}
    return {key: FeatureSpec(Limit(*limits), None) for key, limits in printed.items() if limits}


def _press_sizes(family: Family, building: Building) -> dict[str, FeatureSpec]:
    """Limits of size of bushings and seats, from the fits the sheet prints."""
    sizes = {}
    for press in family.presses:
        if press.key in building.presses:
            spec = building.presses[press.key]
            for key, limits in ((press.outside, spec.outside_mm), (press.seat, spec.seat_mm)):
                sizes[key] = FeatureSpec(Limit(*limits, limits), limits, fine=True)
    return sizes


def _feature(kind: FeatureKind, spec: Mapping[str, Any], path: str) -> FeatureSpec:
    sign = AllowedSign.NOT_NEGATIVE if kind is FeatureKind.PAIR or kind.is_gap else AllowedSign.POSITIVE
    low, high = (length_of(spec["new"][i], f"{path}.new[{i}]", sign) for i in (0, 1))
    if low > high:
        raise FieldError(f"{path}.new", "the range is reversed.", "Expected the smaller size first.")
    minimum, maximum = (length_of(spec[side], f"{path}.{side}") if side in spec else None for side in ("minimum", "maximum"))
    limit = None
    if minimum is not None or maximum is not None:
        try:
            limit = Limit(minimum, maximum, (low, high))
        except FieldError as error:
            raise error.within(path) from None
        if limit.margin(low) < 0 or limit.margin(high) < 0:
            raise FieldError(path, "the new size is outside its own limit.", "Expected new sizes inside the wear limit.")
    printed = [*spec["new"], *(spec[s] for s in ("minimum", "maximum") if s in spec)]
    return FeatureSpec(
        limit,
        (low, high),
        spec.get("page", ""),
        any(_is_fine(text) for text in printed),
        expansion_of(spec["material"], f"{path}.material") if "material" in spec else None,
        stations(spec["stations"].get("planes", [""]), spec["stations"]["directions"]) if "stations" in spec else (),
    )


def _plan(data: Mapping[str, Any], path: str) -> Plan:
    every, wet = float(data["every_hours"]), data.get("wet_hours")
    if wet is not None and wet > every:
        raise FieldError(f"{path}.wet_hours", "it is longer than in a dry place.", f"Expected up to {every:g}.")
    cold = data.get("cold")
    below = parse(cold["below"], Dimension.TEMPERATURE, f"{path}.cold.below").value if cold else None
    return Plan(data["name"], every, wet, data.get("with", ""), below, cold["with"] if cold else "")


def _is_fine(text: str) -> bool:
    """Printed finer than 0.01 mm or 0.001 in, and so shown with a decimal more."""
    quantity = parse(text, Dimension.LENGTH, "")
    digits = text.replace(",", ".").partition(".")[2].rstrip('abcdefghijklmnopqrstuvwxyz"″ ')
    return len(digits) > {"mm": 2, "in": 3}.get(quantity.unit, 0)


def _range(pair: list[str], dimension: Dimension, path: str) -> Range:
    least = 0.0 if dimension is Dimension.VISCOSITY else -math.inf
    sign = AllowedSign.POSITIVE if dimension is Dimension.VISCOSITY else AllowedSign.ANY
    low = least if pair[0] == OPEN_LOW else parse(pair[0], dimension, f"{path}[0]", sign=sign).value
    high = math.inf if pair[1] == OPEN_HIGH else parse(pair[1], dimension, f"{path}[1]", sign=sign).value
    if low >= high:
        raise FieldError(path, "the range is reversed or empty.", "Expected the lower end first.")
    return Range(low, high)


def _row(row: Mapping[str, Any], path: str) -> Row:
    return Row(
        setting=row["setting"],
        material=row["material"],
        viscosity_mm2_s=_range(row["viscosity"], Dimension.VISCOSITY, f"{path}.viscosity"),
        temperature_c=_range(row["temperature"], Dimension.TEMPERATURE, f"{path}.temperature"),
        clearance_mm=length_of(row["end_clearance"], f"{path}.end_clearance"),
        back_mm=length_of(row["back_clearance"], f"{path}.back_clearance") if "back_clearance" in row else None,
    )
