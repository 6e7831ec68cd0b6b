"""Every change to sheets and procedures, declared once: validation, service and schema read it here."""

from __future__ import annotations

import uuid
from dataclasses import dataclass, field

from django.core.files.base import File

from finegap.api import fields as sent


@dataclass(frozen=True)
class SheetFile:
    """A sheet file's contents."""

    text: str = sent.text(2_000_000, filled=True, as_written=True)


@dataclass(frozen=True)
class StepLine:
    """A step as the shop wants it."""

    key: str = sent.text(40, filled=True)
    stage: str = sent.text(20, filled=True)
    text: str = sent.text(400, "")
    why: str = sent.text(400, "")
    hold: bool = False


@dataclass(frozen=True)
class KeepProcedure:
    """A shop's version of a procedure, made from ``version``; 0 is the family's own. ``conventions`` are its choices by key."""

    version: int = sent.number(0, 2**31)
    steps: list[StepLine] = sent.required()
    conventions: dict[str, str] = sent.by_name(40)


PURPOSES = ("new", "size", "revision", "correction", "unread")
"""What a sheet is typed for: from nothing; the next size; a later revision of the manual; one number put right; before reading."""


@dataclass(frozen=True)
class BeginDraft:
    """A sheet to type: of a family, in the unit system the manual prints; or from a revision, for a purpose."""

    family: str = sent.text(40, "")
    sheet: str = sent.text(80, "")
    revision: str = sent.text(20, "")
    purpose: str = sent.text(12, "new")


@dataclass(frozen=True)
class RowCells:
    """A row of a table: its texts by column."""

    cells: dict[str, str] = sent.by_name(2000, blank=True)


@dataclass(frozen=True)
class TableRows:
    """A table with all of its rows."""

    table: str = sent.text(80, filled=True)
    rows: list[RowCells] = sent.required()


@dataclass(frozen=True)
class SaveDraft:
    """What was typed since ``version``: texts by path, whole tables, units over columns."""

    version: int = sent.number(1, 2**31)
    fields: dict[str, str] = sent.by_name(2000, blank=True)
    grids: list[TableRows] = field(default_factory=list)
    units: dict[str, str] = sent.by_name(20, blank=True)


@dataclass(frozen=True)
class DraftSeen:
    """The version of a draft that is meant: what somebody else typed since is not kept unseen."""

    version: int = sent.number(1, 2**31)


@dataclass(frozen=True)
class PasteRows:
    """A table as it was pasted, into which table and from which column on."""

    table: str = sent.text(80, filled=True)
    text: str = sent.text(250_000, as_written=True)
    column: str = sent.text(80, "")


@dataclass(frozen=True)
class RowsOfFile:
    """A table in a file, into which table."""

    file: File  # type: ignore[type-arg]
    table: str = sent.text(80, filled=True)


@dataclass(frozen=True)
class AttachPage:
    """A page of the manual."""

    id: uuid.UUID
    file: File  # type: ignore[type-arg]


@dataclass(frozen=True)
class ReadLine:
    """A line held against the manual: what it said on screen, and whether the manual says the same."""

    path: str = sent.text(160, filled=True)
    said: str = sent.text(64, filled=True)
    agrees: bool = sent.required()
    note: str = sent.text(200, "")
