"""Many gauges at once, from a table: every row is tried, and all are kept or none."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction

from finegap.core.entry import Entry
from finegap.core.errors import FieldError, Unlikely
from finegap.formats.tables import Row, read_table
from finegap.inventory.changes import KeepGauge
from finegap.inventory.services import keep_gauge

COLUMNS = {
    "Tag": "tag", "Kind": "kind", "From": "low", "To": "high", "Resolution": "resolution", "U": "expanded", "k": "k",
    "Calibrated": "calibrated", "Due": "due", "Certificate": "certificate", "Repeatability": "repeatability", "Leaves": "leaves",
    "Sends": "sends",
}  # fmt: skip
"""As the template names them, and what each is of a gauge."""
MOST_ROWS = 500


@dataclass(frozen=True)
class GaugeRow:
    """A gauge of the file: which one it is, blank lines not counted, and what is wrong with it; "" where nothing is."""

    number: int
    tag: str
    kind: str
    wrong: str


@dataclass(frozen=True)
class GaugeFileResponse:
    """Every row with its verdict, and how many gauges are in the cabinet for it: all, or none."""

    rows: list[GaugeRow]
    kept: int


def keep_gauges(actor: User, data: bytes, entry: Entry, dry: bool) -> GaugeFileResponse:
    """Try every row, and keep all of them where none is wrong and it is not a ``dry`` run.

    Raises
    ------
    FieldError
        The file is no table of gauges.
    """
    table = read_table(data, tuple(COLUMNS), MOST_ROWS, entry.mark)
    with transaction.atomic():
        rows = [_tried(actor, i, row, entry) for i, row in enumerate(table, 1)]
        if not rows:
            raise FieldError("file", "it has no gauge.", "Expected a row for each.")
        undone = dry or any(row.wrong for row in rows)
        transaction.set_rollback(undone)
    return GaugeFileResponse(rows, 0 if undone else len(rows))


def _tried(actor: User, number: int, row: Row, entry: Entry) -> GaugeRow:
    wrong = ""
    try:
        with transaction.atomic():
            keep_gauge(actor, _gauge(row), entry)
    except Unlikely as asked:
        wrong = str(asked)
    except FieldError as fault:
        wrong = f"{fault.field}: {fault.problem} {fault.hint}".strip()
    return GaugeRow(number, row["Tag"][:20], row["Kind"][:60], wrong)


def _gauge(row: Row) -> KeepGauge:
    given: dict[str, Any] = {name: row[column] for column, name in COLUMNS.items()}
    for column, name in COLUMNS.items():
        most = KeepGauge.__dataclass_fields__[name].metadata.get("serializer_kwargs", {}).get("max_length")
        if most and len(given[name]) > most:
            raise FieldError(column, f"it is longer than {most} letters.", "Expected fewer.")
    if given["sends"] not in ("", "point", "comma"):
        raise FieldError("Sends", f"“{given['sends']}” is no decimal mark.", "Expected point, comma, or nothing.")
    days = {name: _day(row, column) for column, name in (("Calibrated", "calibrated"), ("Due", "due"))}
    return KeepGauge(**(given | days))


def _day(row: Row, column: str) -> dt.date:
    try:
        return dt.date.fromisoformat(row[column])
    except ValueError:
        raise FieldError(column, f"“{row[column][:20]}” is no day.", "Expected year, month and day, as in 2026-11-28.") from None
