"""What the toolbox shows, as plain data."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass

from finegap.api.shown import NamedResponse
from finegap.core.formatting import Text


@dataclass(frozen=True)
class GaugeResponse:
    """A gauge of the toolbox under one of its certificates.

    ``lengths`` says that it measures parts; ``leaves`` are those of a feeler set, as written; ``mark`` is the decimal mark it
    sends.
    """

    tag: str
    kind: str
    mark: str
    lengths: bool
    certificate: str
    leaves: list[Text]
    repeatability: Text
    range: Text
    resolution: Text
    expanded: Text
    k: float
    calibrated: dt.date
    due: dt.date
    overdue: bool


@dataclass(frozen=True)
class CabinetResponse(GaugeResponse):
    """A gauge of the cabinet, and since when it is retired."""

    retired: dt.date | None


@dataclass(frozen=True)
class GunResponse:
    """A grease gun."""

    tag: str
    grease: str
    ten: Text
    weighed: dt.date


@dataclass(frozen=True)
class InputResponse:
    """What a sum asks for: a quantity with the unit of a bare number, a plain number, one of some choices, or text."""

    key: str
    name: str
    unit: str
    usual: str
    optional: bool
    long: bool
    choices: list[NamedResponse]


@dataclass(frozen=True)
class SumResponse:
    """A sum of the register."""

    key: str
    name: str
    asks: list[InputResponse]


@dataclass(frozen=True)
class ShelfResponse:
    """Gaskets or shims of one thickness on the shelf of a sheet; ``name`` says which."""

    sheet: str
    slug: str
    name: str
    um: int
    text: Text
    count: int
