"""Many rows at once, from a table: every one is tried, and all are kept or none."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, cast

from django.db import transaction

from finegap.core.entry import Entry
from finegap.core.errors import FieldError, Unlikely
from finegap.core.formatting import Text
from finegap.formats.tables import Row, read_table

MOST_ROWS = 500


@dataclass(frozen=True)
class RowRead:
    """A row of the file, blank lines not counted: what it is of, how it was read, and what is wrong; "" where nothing is."""

    number: int
    name: str
    read: Text
    wrong: str


@dataclass(frozen=True)
class RowsResponse:
    """Every row with its verdict, and how many were kept: all, or none."""

    rows: list[RowRead]
    kept: int


@dataclass(frozen=True)
class Table:
    """A table people fill in.

    ``columns`` are as the template names them, the first of them says what a row is of; ``keep`` keeps one row and says how it was
    read.
    """

    name: str
    columns: Sequence[str]
    keep: Callable[[Row, Entry], Text]


def keep_rows(table: Table, data: bytes, entry: Entry, dry: bool) -> RowsResponse:
    """Try every row, and keep all of them where none is wrong and it is not a ``dry`` run.

    Raises
    ------
    FieldError
        The file is no such table.
    """
    read = read_table(data, tuple(table.columns), MOST_ROWS, entry.mark)
    if not read:
        raise FieldError("file", "it has no row.", "Expected one for each.")
    with transaction.atomic():
        rows = [_tried(table, number, row, entry) for number, row in enumerate(read, 1)]
        undone = dry or any(row.wrong for row in rows)
        transaction.set_rollback(undone)
    return RowsResponse(rows, 0 if undone else len(rows))


def _tried(table: Table, number: int, row: Row, entry: Entry) -> RowRead:
    wrong, read = "", cast(Text, "")
    try:
        with transaction.atomic():
            read = table.keep(row, entry)
    except Unlikely as asked:
        wrong = str(asked)
    except FieldError as fault:
        wrong = f"{fault.field}: {fault.problem} {fault.hint}".strip()
    return RowRead(number, row[table.columns[0]][:40], read, wrong)


def given(row: Row, columns: Mapping[str, str], declared: type) -> dict[str, Any]:
    """The cells of a row by the field each is of, none longer than its declaration says.

    Raises
    ------
    FieldError
        A cell that is too long.
    """
    for column, name in columns.items():
        most = declared.__dataclass_fields__[name].metadata.get("serializer_kwargs", {}).get("max_length")  # type: ignore[attr-defined]
        if most and len(row[column]) > most:
            raise FieldError(column, f"it is longer than {most} letters.", "Expected fewer.")
    return {name: row[column] for column, name in columns.items()}
