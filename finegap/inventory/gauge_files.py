"""Many gauges at once, from a table: every row is tried, and all are kept or none."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction

from finegap.core.entry import Entry
from finegap.core.errors import FieldError, Unlikely
from finegap.core.formatting import Sentence, Text
from finegap.formats.tables import Row, read_table
from finegap.inventory.changes import KeepGauge
from finegap.inventory.models import Gauge
from finegap.inventory.queries import gauge_response
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
    """A gauge of the file: which one, blank lines not counted, how it was read, and what is wrong; "" where nothing is."""

    number: int
    tag: str
    read: Text
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
    wrong, read = "", Sentence("", {})
    try:
        with transaction.atomic():
            kept = keep_gauge(actor, _gauge(row), entry)
            read = _read(kept)
    except Unlikely as asked:
        wrong = str(asked)
    except FieldError as fault:
        wrong = f"{fault.field}: {fault.problem} {fault.hint}".strip()
    return GaugeRow(number, row["Tag"][:20], read, wrong)


def _read(gauge: Gauge) -> Sentence:
    """With its unit: a file in inches, sent while the screen shows mm, is seen to be wrong before anything is kept."""
    assert gauge.current is not None  # keep_gauge has just given it one
    of = gauge_response(gauge, gauge.current, overdue=False)
    amounts = {"range": of.range, "step": of.resolution, "u": of.expanded}
    return Sentence("{kind}, {range}, step {step}, U {u}", {"kind": of.kind, **amounts})


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
