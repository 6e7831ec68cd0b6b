"""A table somebody filled in, as CSV or XLSX: read whole into rows, or refused with what is wrong.

CSV comes with or without a byte-order mark, in UTF-8 or Windows-1252, with commas, semicolons or tabs. Of an XLSX file the first
sheet is read; its numbers have no decimal mark, and get that of the works. By tablib and openpyxl.
"""

from __future__ import annotations

import datetime as dt
import io
import zipfile
from collections.abc import Sequence
from typing import Any

import tablib
from tablib.exceptions import TablibException

from finegap.core.errors import FieldError
from finegap.core.numerals import DecimalMark

MOST_BYTES = 1024 * 1024
_MOST_UNPACKED = 50 * 1024 * 1024
"""A file that unpacks to more is no table of a works."""
_MOST_LETTERS = 600

Row = dict[str, str]


def read_table(data: bytes, columns: Sequence[str], most_rows: int, mark: DecimalMark) -> list[Row]:
    """The rows of a table by the names of its columns.

    Parameters
    ----------
    data : bytes
        The file.
    columns : sequence of str
        The columns there can be, as the template names them; others are refused, some may be left out.
    most_rows : int
        More are refused.
    mark : DecimalMark
        What the numbers of a workbook are written with.

    Returns
    -------
    list of dict
        Every row that is not empty, each cell as text without blanks at its ends; "" where a column is left out.

    Raises
    ------
    FieldError
        It is too large, no table, has a column there is not, one twice, or too many rows.
    """
    if len(data) > MOST_BYTES:
        raise FieldError("file", "it is larger than 1 MB.", "Expected a table.")
    table = _workbook(data) if data.startswith(b"PK") else _text(data)
    names = [str(name or "").strip() for name in table.headers or ()]
    while names and not names[-1]:
        names.pop()
    known = {name.casefold(): name for name in columns}
    for name in names:
        if name.casefold() not in known:
            raise FieldError("file", f"there is no column “{name[:40]}”.", f"Expected any of: {', '.join(columns)}.")
    if len({name.casefold() for name in names}) < len(names) or not names:
        raise FieldError("file", "a column is there twice, or there is none.", f"Expected each once: {', '.join(columns)}.")
    if table.height > most_rows:
        raise FieldError("file", f"it has {table.height} rows.", f"Expected {most_rows} or fewer at a time.")
    rows = [[_cell(cell, mark) for cell in row] for row in table]
    empty = dict.fromkeys(columns, "")
    keys = [known[name.casefold()] for name in names]
    return [empty | dict(zip(keys, row, strict=False)) for row in rows if any(row)]


def read_cells(data: bytes, most_rows: int, mark: DecimalMark) -> list[list[str]]:
    """The cells of a table whose columns are not known beforehand, its first line among them.

    Raises
    ------
    FieldError
        It is too large, no table, or has too many rows.
    """
    if len(data) > MOST_BYTES:
        raise FieldError("file", "it is larger than 1 MB.", "Expected a table.")
    table = _workbook(data) if data.startswith(b"PK") else _text(data)
    if table.height > most_rows:
        raise FieldError("file", f"it has {table.height} rows.", f"Expected {most_rows} or fewer.")
    return [[_cell(cell, mark) for cell in row] for row in (table.headers or (), *table)]


def _text(data: bytes) -> tablib.Dataset:
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = data.decode("cp1252", errors="replace")
    first = text.lstrip().split("\n", 1)[0]
    delimiter = max(";,\t", key=first.count)
    return _loaded(text, "csv", delimiter=delimiter)


def _workbook(data: bytes) -> tablib.Dataset:
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            size = sum(entry.file_size for entry in packed.infolist())
    except zipfile.BadZipFile:
        raise FieldError("file", "it is damaged, or no table.", "Expected CSV or XLSX.") from None
    if size > _MOST_UNPACKED:
        raise FieldError("file", "it unpacks to more than 50 MB.", "Expected a table.")
    table = _loaded(data, "xlsx", read_only=True)
    _refuse_formulas(data, table.height + 1)
    return table


def _refuse_formulas(data: bytes, rows: int) -> None:
    """What a formula came to when the file was last saved is nobody's number."""
    from openpyxl import load_workbook

    book = load_workbook(io.BytesIO(data), read_only=True)
    for row in book.worksheets[0].iter_rows(max_row=rows):
        for cell in row:
            if cell.data_type == "f":
                raise FieldError("file", f"{cell.coordinate} holds a formula.", "Expected what it comes to, pasted as a value.")


def _loaded(data: str | bytes, kind: str, **how: Any) -> tablib.Dataset:
    try:
        return tablib.Dataset().load(data, format=kind, **how)
    except (TablibException, ValueError, KeyError, IndexError, TypeError, OSError, zipfile.BadZipFile) as wrong:
        expected = f"Expected CSV or XLSX with a line of column names ({str(wrong)[:80]})."
        raise FieldError("file", "it is no table.", expected) from None


def _cell(value: object, mark: DecimalMark) -> str:
    if isinstance(value, dt.datetime | dt.date):
        return f"{value:%Y-%m-%d}"
    if isinstance(value, float) and value.is_integer():
        return str(int(value))
    if isinstance(value, float):
        return f"{value:.12g}".replace(".", mark.sign)
    return "" if value is None else str(value).strip()[:_MOST_LETTERS]


_FORMULA = ("=", "+", "-", "@", "\t", "\r")


def safe(cell: object) -> str:
    """A cell of a table that is written: what a spreadsheet would run as a formula is made text."""
    text = str(cell)
    return f"'{text}" if text.startswith(_FORMULA) else text
