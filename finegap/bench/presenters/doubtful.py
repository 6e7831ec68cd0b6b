"""What a correction of its sheet makes doubtful in a signed record."""

from __future__ import annotations

from typing import Any

from finegap.bench import responses
from finegap.bench.records import name_of
from finegap.core.typed_sheet.printed import Change, changes_between
from finegap.sheets.drafts import lines_of
from finegap.sheets.models import SheetRevision

_MOST_CORRECTIONS = 20
_OF_THE_BOOK = ("maker", "model", "title", "revision", "date", "source", "catalogue", "lubrication", "cautions", "usual", "details")
"""Lines of a sheet nothing was judged or set by."""
_OF_THE_GAP = ("clearance_table", "adjustment", "heat", "bend", "timing")


def doubtful(of: SheetRevision, record: dict[str, Any]) -> list[responses.CorrectedResponse]:
    """The corrections of a revision that touch something this record rests on, in their order."""
    found = []
    for later in of.corrected.select_related("added_by").order_by("pk")[:_MOST_CORRECTIONS]:
        numbers = [_said(one) for one in changes_between(lines_of(of), lines_of(later)) if _rests_on(one, record)]
        if numbers:
            found.append(responses.CorrectedResponse(later.revision, name_of(later.added_by), later.added_at, numbers))
    return found


def _said(one: Change) -> str:
    name = f"{one.line.number} {one.line.label}" if one.line.number else f"{one.line.section}, {one.line.label.lower()}"
    return f"{name}: {one.before or 'not said'}; corrected: {one.after or 'not said'}"


def _rests_on(one: Change, record: dict[str, Any]) -> bool:
    section, _, rest = one.line.path.partition(".")
    section = section.partition("[")[0]
    if section == "features":
        return any(f["key"] == rest and (f["found"] or f["left"]) for f in record["features"])
    if section in _OF_THE_GAP:
        settings = (record["setting"], record["mesh"])
        return any(one and one["tries"] for one in settings)
    return section not in _OF_THE_BOOK
