"""Drafts and revisions as the core types them: what is asked, what is typed, what it prints."""

from __future__ import annotations

import datetime as dt
import hashlib
import json
from collections.abc import Iterable
from functools import cache, lru_cache
from typing import Any

from finegap.core.errors import FieldError
from finegap.core.families import FAMILIES
from finegap.core.families.family import Family
from finegap.core.formatting import Units
from finegap.core.numerals import DecimalMark
from finegap.core.typed_sheet.asks import Grid, Section
from finegap.core.typed_sheet.draft import Typed, typed_of
from finegap.core.typed_sheet.printed import Line, printed_lines
from finegap.formats.sheet_file import sheet_schema
from finegap.sheets.models import SheetDraft, SheetRevision

ALONE = dt.timedelta(minutes=10)
"""How long after typing a line the same person may read it, in a works of one."""


@cache
def schema() -> dict[str, Any]:
    """The schema of sheets."""
    return sheet_schema()


def family_named(key: str) -> Family:
    """A family by its key.

    Raises
    ------
    FieldError
        There is none.
    """
    family = FAMILIES.get(key)
    if family is None:
        raise FieldError("family", f"“{key}” is not a family known here.", f"Expected one of: {', '.join(FAMILIES)}.")
    return family


def typed_in(draft: SheetDraft) -> Typed:
    """What is typed in a draft."""
    held = draft.content
    return Typed(
        family=held["family"],
        system=Units(held["system"]),
        mark=DecimalMark(held["mark"]),
        fields=dict(held["fields"]),
        grids={path: [dict(row) for row in rows] for path, rows in held["grids"].items()},
        units=dict(held["units"]),
        rest=held["rest"],
    )


def held_of(typed: Typed) -> dict[str, Any]:
    """The same as it is kept."""
    return {
        "family": typed.family,
        "system": typed.system.value,
        "mark": typed.mark.value,
        "fields": typed.fields,
        "grids": typed.grids,
        "units": typed.units,
        "rest": typed.rest,
    }


def form_of_draft(typed: Typed) -> tuple[Section, ...]:
    """What is asked of a draft."""
    return typed.form(schema(), family_named(typed.family))


def grid_of(sections: Iterable[Section], path: str) -> Grid:
    """A table of a form.

    Raises
    ------
    FieldError
        There is no such table.
    """
    found = next((grid for section in sections for grid in section.grids if grid.path == path), None)
    if found is None:
        raise FieldError("table", f"this sheet has no table {path[:60]}.", "Expected one of the page.")
    return found


def typed_again(revision: SheetRevision) -> Typed:
    """A revision as it would have been typed."""
    content = revision.content
    return typed_of(content, schema(), family_named(content["family"]), system_of_sheet(content))


def system_of_sheet(content: dict[str, Any]) -> Units:
    """The unit system a sheet is printed in: that of most of its sizes."""
    texts = [text for spec in content.get("features", {}).values() for text in spec.get("new", ())]
    inches = sum(not text.rstrip().endswith("mm") for text in texts)
    return Units.IN if 2 * inches > len(texts) else Units.MM


def lines_of(revision: SheetRevision) -> tuple[Line, ...]:
    """What a revision prints, line by line."""
    return _lines(json.dumps(revision.content))


@lru_cache(maxsize=32)
def _lines(content: str) -> tuple[Line, ...]:
    held = json.loads(content)
    return printed_lines(held, schema(), family_named(held["family"]))


def said_of(line: Line) -> str:
    """A digest of what a line says: a reading counts while it is the same."""
    return hashlib.sha256(line.said.encode()).hexdigest()


def typed_by(revision: SheetRevision, line: Line) -> tuple[set[int], dt.datetime]:
    """Who typed a line, each of its cells, and when it was last typed."""
    usual = revision.typed.get("") or {"by": [revision.added_by_id], "at": revision.added_at.isoformat()}
    found = [revision.typed.get(place) or revision.typed.get(line.path) or usual for place in line.places]
    return {by for one in found for by in one["by"]}, max(dt.datetime.fromisoformat(one["at"]) for one in found)
