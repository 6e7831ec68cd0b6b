"""The parts of a spec sheet, each read by itself from the plain values of the open JSON format."""

from __future__ import annotations

import math
import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import partial
from typing import Any

from finegap.core.assembly.declared import Building, read_building
from finegap.core.entry import FIELDS
from finegap.core.errors import FieldError, Found
from finegap.core.families.family import Family
from finegap.core.families.features import FeatureKind, Station, stations
from finegap.core.formatting import Sentence, Text
from finegap.core.gap.declared import (
    expansion_of,
    length_of,
)
from finegap.core.gap.table import Range, Row, check_rows
from finegap.core.materials import Expansion
from finegap.core.means.base import Means
from finegap.core.measuring.verdict import Limit
from finegap.core.quantities import AllowedSign, from_internal, parse
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


NOT_PRINTED = FeatureSpec(None, None)


def read_rows(table: Mapping[str, Any], found: Found) -> tuple[tuple[Row, ...], tuple[Row, ...]]:
    """The rows of the clearance table, none of them where one cannot be read; and those that can."""
    read = [found.reading(partial(_row, row, f"clearance_table.rows[{i}]"), None) for i, row in enumerate(table.get("rows", ()))]
    rows = tuple(row for row in read if row)
    if not read or len(rows) < len(read):
        return (), rows

    def checked() -> tuple[Row, ...]:
        try:
            check_rows(rows, table.get("holes_as_printed", False))
        except FieldError as error:
            raise error.within("clearance_table") from None
        return rows

    return found.reading(checked, rows), rows


def read_tolerance(table: Mapping[str, Any], rows: tuple[Row, ...]) -> tuple[float, float]:
    """How far below and above the table still serves, in mm."""
    minus, plus = (
        length_of(table["tolerance"][side], f"clearance_table.tolerance.{side}", AllowedSign.NOT_NEGATIVE)
        for side in ("minus", "plus")
    )
    if minus + plus == 0:
        raise FieldError("clearance_table.tolerance", "no gap can be exactly that.", "Expected more than 0 below or above it.")
    least = min((mm for row in rows for mm in (row.clearance_mm, row.back_mm) if mm is not None), default=math.inf)
    if minus >= least:
        touching = f"it lets a gap of {least:g} mm close altogether."
        raise FieldError("clearance_table.tolerance.minus", touching, "Expected less than the least end clearance.")
    return minus, plus


def read_parts_of_building(data: Mapping[str, Any], family: Family, found: Found) -> Building:
    """What it says of building, part by part: what cannot be read of one leaves the others."""
    torques = data.get("torques", [])
    nothing = read_building({"torques": torques}, family)
    whole = found.reading(lambda: read_building({"torques": torques, **data}, family), None)
    if whole:
        return whole
    return found.quietly(lambda: read_building({"press_fits": data.get("press_fits", {}), "torques": torques}, family), nothing)


def printed_twice(table: Mapping[str, Any], rows: tuple[Row, ...]) -> Iterator[tuple[str, Text]]:
    """Rows whose clearance, printed in two units, is not the same: each is a rounding of the other, or it is a slip."""
    for i, (row, given) in enumerate(zip(rows, table.get("rows", ()), strict=False)):
        if "also" not in given:
            continue
        also = length_of(given["also"], f"clearance_table.rows[{i}].also")
        if abs(also - row.clearance_mm) > (_rounding_mm(given["also"]) + _rounding_mm(given["end_clearance"])) * 1.001:
            unit = parse(given["also"], Dimension.LENGTH, "").unit
            same = f"{from_internal(row.clearance_mm, Dimension.LENGTH, unit):.3g} {unit}"
            said = {"printed": given["end_clearance"], "same": same, "also": given["also"]}
            yield f"clearance_table.rows[{i}].also", Sentence("{printed} is {same}; the row prints {also} beside it.", said)


def _rounding_mm(printed: str) -> float:
    """Half of the last digit a length is printed with."""
    digits = re.match(r"[\d\s]*(?:\.(\d*))?", printed.strip())
    decimals = len(digits[1] or "") if digits else 0
    unit = parse("1 " + parse(printed, Dimension.LENGTH, "").unit, Dimension.LENGTH, "").value
    return unit / 2 / float(10**decimals)


def read_usual(key: str, pair: list[str]) -> tuple[float, float]:
    """Between which values a quantity of the duty usually lies, in its internal unit."""
    low, high = (
        parse(text, FIELDS[key].dimension, f"usual.{key}[{i}]", sign=FIELDS[key].sign).value for i, text in enumerate(pair)
    )
    if low >= high:
        raise FieldError(f"usual.{key}", "the range is reversed or empty.", "Expected the lower end first.")
    return low, high


def read_build(family: Family, data: Mapping[str, Any]) -> dict[str, str]:
    """The sheet's build; its means of adjustment is a choice like any other where the family has it."""
    build = dict(data.get("build", {}))
    options = {option.key for option in family.options}
    for feature in family.features:
        count = feature.counted
        if count is not None and count.detail in options and feature.key in data.get("features", {}) and count.detail not in build:
            choices = ", ".join(choice for o in family.options if o.key == count.detail for choice in o.choices)
            problem = f"it prints {feature.name.lower()}, and not how many there are."
            raise FieldError(f"build.{count.detail}", problem, f"Expected one of: {choices}.")
    if any(option.key == "means" for option in family.options):
        build["means"] = data.get("adjustment", {}).get("means", build.get("means", ""))
    said = {option.key for option in family.options if option.is_convention}
    if "faces" in said and data.get("details", {}).get("faces") in ("dry", "film"):
        build.setdefault("faces", data["details"]["faces"])  # where sheets said it before it was a convention
    return {key: choice for key, choice in family.complete(build).items() if key not in said or key in build}


def read_details(family: Family, data: Mapping[str, str]) -> dict[str, str]:
    """Counts and weights, by key."""
    unknown = next((key for key in data if key not in family.details), None)
    if unknown:
        known = ", ".join(family.details) or "none"
        raise FieldError(f"details.{unknown}", f"a {family.name.lower()} has no such detail.", f"Expected any of: {known}.")
    for feature in family.features:
        feature.stations_by(data)  # refuses what is no count
    return dict(data)


def read_catalogue(family: Family, data: Mapping[str, Any]) -> Catalogue:
    """What can be bought."""

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


def read_features(family: Family, data: Mapping[str, Any], found: Found) -> dict[str, FeatureSpec]:
    """Sizes and limits, each by itself."""
    read = {key: found.reading(partial(_printed, family, key, spec), None) for key, spec in data.items()}
    return {key: spec for key, spec in read.items() if spec}


def _printed(family: Family, key: str, spec: Mapping[str, Any]) -> FeatureSpec:
    feature, place = family.by_key.get(key), f"features.{key}"
    if feature is None:
        known = ", ".join(family.by_key)
        raise FieldError(place, f"a {family.name.lower()} has no such feature.", f"Expected any of: {known}.")
    if feature.press:
        raise FieldError(place, "its size follows from its press fit.", "Expected it under press_fits.")
    if feature.kind is FeatureKind.CHECK:
        raise FieldError(place, "it is looked at, not measured.", "Expected no size for it.")
    return _feature(feature.kind, spec, place)


def sizes_of_means(family: Family, means: Means | None) -> dict[str, FeatureSpec]:
    """Limits the sheet prints with its means of adjustment."""
    printed = {f.key: getattr(means, f"{f.printed_as}_mm", None) for f in family.features if f.printed_as}
    return {key: FeatureSpec(Limit(*limits), None) for key, limits in printed.items() if limits}


def sizes_of_presses(family: Family, building: Building) -> dict[str, FeatureSpec]:
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


def read_plan(data: Mapping[str, Any], path: str) -> Plan:
    """Oil or grease by running hours."""
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
        arc_mm=length_of(row["arc"], f"{path}.arc") if "arc" in row else None,
    )
