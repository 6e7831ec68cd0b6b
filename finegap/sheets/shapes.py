"""What Sheets shows, as plain data."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass


@dataclass(frozen=True)
class SheetLine:
    """A sheet in the list, at its latest revision."""

    slug: str
    title: str
    maker: str
    model: str
    revision: str
    date: dt.date
    family: str
    means: str
    revisions: list[str]
    pumps: list[str]


@dataclass(frozen=True)
class SizeLine:
    """New size and limit of a feature."""

    number: int
    name: str
    new: str
    limit: str
    page: str


@dataclass(frozen=True)
class RowLine:
    """A row of the clearance table as printed, with the clearance in the unit asked for."""

    setting: str
    material: str
    viscosity: str
    temperature: str
    printed: str
    clearance: str


@dataclass(frozen=True)
class SheetDetail:
    """A revision, as the manual prints it."""

    slug: str
    title: str
    maker: str
    model: str
    revision: str
    date: dt.date
    source: str
    family: str
    school: str
    revisions: list[str]
    added_by: str
    sizes: list[SizeLine]
    table_page: str
    tolerance: str
    rows: list[RowLine]
    adjustment: list[list[str]]
    torques: list[list[str]]
    check: str | None
    check_agrees: bool
