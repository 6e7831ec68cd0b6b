"""What the toolbox shows, as plain data."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass

from finegap.site.shapes import NamedShape


@dataclass(frozen=True)
class GaugeShape:
    """A gauge of the toolbox. ``lengths`` says that it measures parts; ``leaves`` are those of a feeler set, as written."""

    tag: str
    kind: str
    lengths: bool
    certificate: str
    leaves: list[str]
    repeatability: str
    range: str
    resolution: str
    expanded: str
    k: float
    calibrated: dt.date
    due: dt.date
    overdue: bool


@dataclass(frozen=True)
class GunShape:
    """A grease gun."""

    tag: str
    grease: str
    ten: str
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
    text: str
    count: int
