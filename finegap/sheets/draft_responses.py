"""What the page of a sheet that is being typed, read or compared shows, as plain data."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass

from finegap.api.shown import NamedResponse
from finegap.core.formatting import Text
from finegap.sheets.drawn import MapResponse


@dataclass(frozen=True)
class AskResponse:
    """One thing that is asked: a field at its path, or a column of a table. ``unit`` is that of a bare number, ``units`` others.

    ``kind`` is text, number, quantity, choice, yes or day; ``many`` one, range, list or counts.
    """

    path: str
    label: str
    kind: str
    many: str
    hint: str
    required: bool
    unit: str
    units: list[str]
    choices: list[NamedResponse]


@dataclass(frozen=True)
class RowNameResponse:
    """A row that is always there."""

    key: str
    number: int
    name: str


@dataclass(frozen=True)
class GridResponse:
    """A table to type: with ``names`` those rows, else up to ``most``."""

    path: str
    label: str
    hint: str
    required: bool
    most: int
    columns: list[AskResponse]
    names: list[RowNameResponse]


@dataclass(frozen=True)
class SectionResponse:
    """What stands together on the page."""

    key: str
    title: str
    hint: str
    required: bool
    asks: list[AskResponse]
    grids: list[GridResponse]


@dataclass(frozen=True)
class ProblemResponse:
    """What is wrong at a place; ``missing`` where something is only not there yet."""

    path: str
    problem: str
    hint: str
    missing: bool


@dataclass(frozen=True)
class RemarkResponse:
    """Something at a place that is no mistake, and worth a look."""

    path: str
    text: Text


@dataclass(frozen=True)
class PageResponse:
    """A page of the manual; ``kind`` is jpeg or pdf."""

    id: str
    name: str
    kind: str


@dataclass(frozen=True)
class DraftState:
    """Where a draft stands: what is wrong, what is remarkable, the table as a map, other sizes its tables have rows for.

    ``form`` changes when something else is asked.
    """

    id: int
    version: int
    title: str
    saved_at: dt.datetime
    form: str
    problems: list[ProblemResponse]
    remarks: list[RemarkResponse]
    overlaps: list[Text]
    map: MapResponse | None
    sizes: list[str]


@dataclass(frozen=True)
class TableTyped:
    """The rows of a table as typed: texts by column."""

    table: str
    rows: list[dict[str, str]]


@dataclass(frozen=True)
class DraftPage:
    """A draft whole: what is asked, what is typed, and where it stands. ``base`` is the revision it was begun from."""

    state: DraftState
    purpose: str
    family: str
    system: str
    mark: str
    base: str
    base_slug: str
    begun_by: str
    sections: list[SectionResponse]
    fields: dict[str, str]
    grids: list[TableTyped]
    units: dict[str, str]
    kept: list[str]
    pages: list[PageResponse]


@dataclass(frozen=True)
class DraftLine:
    """A draft in the list."""

    id: int
    title: str
    family: str
    purpose: str
    base: str
    by: str
    saved_at: dt.datetime


@dataclass(frozen=True)
class PastedRowResponse:
    """Where a pasted row goes: the key of a row that is always there, or so far below the cursor."""

    row: str
    cells: dict[str, str]


@dataclass(frozen=True)
class PastedResponse:
    """A pasted table by its cells, and units that stood over columns."""

    rows: list[PastedRowResponse]
    units: dict[str, str]


@dataclass(frozen=True)
class CellResponse:
    """A name and what is printed under it."""

    name: str
    text: str


@dataclass(frozen=True)
class LineResponse:
    """A line to hold against the manual. ``why_not`` says why this person cannot read it; ``said`` goes back with the reading.

    ``agrees`` is ``None`` while nobody has read it as it is.
    """

    path: str
    section: str
    label: str
    number: int
    page: str
    cells: list[CellResponse]
    said: str
    why_not: str
    agrees: bool | None
    note: str
    by: str
    at: dt.datetime | None


@dataclass(frozen=True)
class ReadingPage:
    """A revision that is read, line by line."""

    slug: str
    title: str
    revision: str
    read_at: dt.datetime | None
    read_names: str
    read_alone: bool
    lines: list[LineResponse]
    pages: list[PageResponse]


@dataclass(frozen=True)
class ChangeResponse:
    """A line that differs between two revisions; empty where one has none."""

    path: str
    section: str
    label: str
    number: int
    before: str
    after: str


@dataclass(frozen=True)
class ComparisonResponse:
    """Two revisions held against each other."""

    title: str
    before: str
    after: str
    same: int
    changes: list[ChangeResponse]


@dataclass(frozen=True)
class FamilyResponse:
    """A family sheets can be typed for."""

    key: str
    name: str


@dataclass(frozen=True)
class KeptResponse:
    """The revision a draft became."""

    slug: str
    revision: str
