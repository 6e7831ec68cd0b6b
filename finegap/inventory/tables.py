"""The tables a works is filled from: gauges, and the shelf."""

from __future__ import annotations

import datetime as dt

from django.contrib.auth.models import User

from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.formatting import Sentence, Text
from finegap.core.gap.stock import piece
from finegap.formats.tables import Row
from finegap.inventory.changes import CountPieces, KeepGauge
from finegap.inventory.many import Table, given
from finegap.inventory.queries import gauge_response
from finegap.inventory.services import count_pieces, keep_gauge, piece_of
from finegap.sheets.models import Sheet

GAUGES = {
    "Tag": "tag", "Kind": "kind", "From": "low", "To": "high", "Resolution": "resolution", "U": "expanded", "k": "k",
    "Calibrated": "calibrated", "Due": "due", "Certificate": "certificate", "Repeatability": "repeatability", "Leaves": "leaves",
    "Sends": "sends",
}  # fmt: skip
"""As the template names them, and what each is of a gauge."""

SHELF = {"Sheet": "slug", "Thickness": "thickness", "Count": "count"}
"""The sheet by its short name or its title."""


def gauges(actor: User) -> Table:
    """Gauges with their certificates."""

    def keep(row: Row, entry: Entry) -> Sentence:
        cells = given(row, GAUGES, KeepGauge)
        if cells["sends"] not in ("", "point", "comma"):
            raise FieldError("Sends", f"“{cells['sends']}” is no decimal mark.", "Expected point, comma, or nothing.")
        days = {name: _day(row, column) for column, name in (("Calibrated", "calibrated"), ("Due", "due"))}
        gauge = keep_gauge(actor, KeepGauge(**(cells | days)), entry)
        # With its unit: a file in inches, sent while the screen shows mm, is seen to be wrong before anything is kept.
        of = gauge_response(gauge, gauge.now, overdue=False)
        amounts = {"range": of.range, "step": of.resolution, "u": of.expanded}
        return Sentence("{kind}, {range}, step {step}, U {u}", {"kind": of.kind, **amounts})

    return Table("gauges", tuple(GAUGES), keep)


def shelf(actor: User) -> Table:
    """Gaskets and shims, counted."""

    def keep(row: Row, entry: Entry) -> Sentence:
        cells = given(row, SHELF, CountPieces)
        sheet = Sheet.objects.filter(slug=cells["slug"]).first() or Sheet.objects.filter(title__iexact=cells["slug"]).first()
        if sheet is None:
            raise FieldError("Sheet", f"there is no sheet “{cells['slug']}”.", "Expected one from Sheets, by its title.")
        if not cells["count"].isascii() or not cells["count"].isdigit():
            raise FieldError("Count", f"“{cells['count'][:20]}” is no count.", "Expected a whole number, or 0.")
        line = count_pieces(actor, CountPieces(sheet.slug, cells["thickness"], int(cells["count"])), entry)
        said: dict[str, Text] = {"piece": piece_of(sheet), "thickness": piece(line.thickness_um), "sheet": sheet.title}
        return Sentence("{n} of the {piece} {thickness} for {sheet}", said | {"n": str(line.count)})

    return Table("shelf", tuple(SHELF), keep)


def _day(row: Row, column: str) -> dt.date:
    try:
        return dt.date.fromisoformat(row[column])
    except ValueError:
        raise FieldError(column, f"“{row[column][:20]}” is no day.", "Expected year, month and day, as in 2026-11-28.") from None
