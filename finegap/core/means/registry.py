"""Finds the means there are, and reads those of a sheet."""

from __future__ import annotations

from collections.abc import Mapping
from importlib import import_module
from pkgutil import iter_modules
from typing import Any

from finegap.core import means
from finegap.core.errors import FieldError
from finegap.core.families import FAMILIES
from finegap.core.families.family import Family
from finegap.core.gap.table import Row
from finegap.core.means.base import Means, MeansView
from finegap.core.means.timing import TimingMeans


def _found() -> dict[str, type[Means]]:
    modules = (import_module(f"{means.__name__}.{module.name}") for module in iter_modules(means.__path__))
    found = [module.MEANS for module in modules if hasattr(module, "MEANS")]
    return {one.kind: one for one in sorted(found, key=lambda one: one.kind)}


ALL: dict[str, type[Means]] = _found()
"""Every means by its kind: those that set the gap of the clearance table, and the timing gear."""

GEAR = TimingMeans.kind
"""The means that sets the mesh of a pump whose sheet has a timing gear, beside the other."""

KINDS: dict[str, type[Means]] = {kind: one for kind, one in ALL.items() if kind != GEAR}
"""Those that set the gap of the clearance table."""


def check_means(family: Family) -> None:
    """Check that the means of a family are such as there are, and that what it says is set is what they set.

    Raises
    ------
    FieldError
        ``field`` is the place in the family.
    """
    option = next((one for one in family.options if one.key == "means"), None)
    for kind in (*(option.choices if option else ()), *family.geared):
        if kind not in ALL:
            place = f"{family.key}.{'geared' if kind in family.geared else 'options[means]'}"
            raise FieldError(place, f"there is no means {kind}.", f"Expected any of: {', '.join(ALL)}.")
    kinds = {*(option.choices if option else KINDS), *family.geared}
    sets = {key for kind in kinds for key in ALL[kind].sets}
    for feature in family.features:
        if feature.set_as and feature.set_as not in sets:
            place = f"{family.key}.features[{feature.key}].set_as"
            raise FieldError(place, f"no means of it sets {feature.set_as}.", f"Expected any of: {', '.join(sorted(sets))}.")


for _family in FAMILIES.values():
    check_means(_family)

VIEWS: dict[str, type[MeansView]] = {kind: one.view_type for kind, one in ALL.items()}


def schema_of(kind: str) -> dict[str, Any]:
    """JSON Schema of what a sheet says of a means, as ``adjustment``."""
    own = KINDS[kind].schema
    rest = {key: value for key, value in own.items() if key not in ("required", "properties")}
    return {
        "type": "object",
        "additionalProperties": False,
        "required": ["means", *own["required"]],
        "properties": {"means": {"const": kind}, **own["properties"]},
        **rest,
    }


def read_means(data: Mapping[str, Any], family: Family, rows: tuple[Row, ...]) -> Means:
    """The means of adjustment of a sheet.

    Raises
    ------
    FieldError
        A kind that is not registered, or what the means itself refuses.
    """
    kind = KINDS.get(data["means"])
    if kind is None:
        raise FieldError("adjustment.means", f"“{data['means']}” is not known here.", f"Expected one of: {', '.join(KINDS)}.")
    return kind.read(data, family, rows)
