"""What the toolbox shows, as plain data."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass


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
class StockShape:
    """Gaskets of one thickness on the shelf of a sheet."""

    sheet: str
    slug: str
    um: int
    text: str
    count: int
