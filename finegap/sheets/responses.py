"""What Sheets shows, as plain data."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass

from finegap.api.shown import NamedResponse
from finegap.sheets.draft_responses import PageResponse


@dataclass(frozen=True)
class SheetLine:
    """A sheet in the list, at its latest of ``revisions``; ``pumps`` are the first few of ``used`` ones.

    ``unread`` while nobody has read that revision against the manual.
    """

    slug: str
    title: str
    maker: str
    model: str
    revision: str
    date: dt.date
    family: str
    means: str
    revisions: int
    pumps: list[str]
    used: int
    unread: bool


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
    """A revision, as the manual prints it.

    While it is ``unread`` nothing is signed on it; ``lines_read`` of its ``lines`` agree so far. ``pumps`` are the first few of
    ``used`` ones of its sheet.
    """

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
    parts: list[list[str]]
    adjustment: list[list[str]]
    torques: list[list[str]]
    building: list[list[str]]
    check: str | None
    check_agrees: bool
    unread: bool
    read_at: dt.datetime | None
    read_names: str
    read_alone: bool
    lines: int
    lines_read: int
    corrects: str
    remarks: list[str]
    cautions: list[list[str]]
    pages: list[PageResponse]
    pumps: list[str]
    used: int


@dataclass(frozen=True)
class ProcedureStep:
    """A step of a procedure, to read and change. ``declared`` holds the family's own words, empty for a step of the shop's."""

    key: str
    stage: str
    text: str
    why: str
    declared: str
    hold: bool
    caution: bool
    when: str


@dataclass(frozen=True)
class ConventionResponse:
    """Something practitioners differ on: what the shop chose, and what it may choose."""

    key: str
    name: str
    choice: str
    choices: list[NamedResponse]


@dataclass(frozen=True)
class ProcedureResponse:
    """A family's procedure as the shop follows it. Version 0 is the family's own."""

    family: str
    name: str
    version: int
    by: str
    at: dt.datetime | None
    conventions: list[ConventionResponse]
    steps: list[ProcedureStep]


@dataclass(frozen=True)
class ProcedureLine:
    """A procedure in the list."""

    family: str
    name: str
    version: int
