"""What the toolbox shows, as plain data."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass

from finegap.core.formatting import Text
from finegap.site.shapes import NamedShape


@dataclass(frozen=True)
class GaugeShape:
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
class GunShape:
    """A grease gun."""

    tag: str
    grease: str
    ten: Text
    weighed: dt.date


@dataclass(frozen=True)
class AskedShape:
    """What a sum asks for: a quantity with the unit of a bare number, a plain number, one of some choices, or text."""

    key: str
    name: str
    unit: str
    usual: str
    optional: bool
    long: bool
    choices: list[NamedShape]


@dataclass(frozen=True)
class SumShape:
    """A sum of the register."""

    key: str
    name: str
    asks: list[AskedShape]


@dataclass(frozen=True)
class StockShape:
    """Gaskets of one thickness on the shelf of a sheet."""

    sheet: str
    slug: str
    um: int
    text: Text
    count: int


@dataclass(frozen=True)
class BareUnitShape:
    """What a bare number means: the unit of a kind of quantity, metric and inch, as it is written beside a field."""

    key: str
    metric: str
    inch: str


@dataclass(frozen=True)
class SettingsShape:
    """What the works decided for itself, who last changed it, and the units of bare numbers."""

    decimal_mark: str
    new_share: str
    by: str
    at: dt.datetime | None
    units: list[BareUnitShape]
