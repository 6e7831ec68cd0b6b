"""A table pasted from a spreadsheet, or from the text of a PDF: which cell belongs where. Nothing is read as a number here.

Cells stand apart by tabs, by semicolons, by upright strokes, or by two blanks and more; with commas where every line has as many.
A first line of words is a heading: its columns may come in any order, and may carry their units. Without one the columns are those
of the table on the page, from the one the cursor was in.
"""

from __future__ import annotations

import csv
import re
from collections.abc import Sequence
from dataclasses import dataclass

from finegap.core.errors import FieldError
from finegap.core.quantities import is_saybolt, unit_of
from finegap.core.typed_sheet.asks import Ask, Grid
from finegap.core.units import Dimension

MOST_LETTERS = 200_000
"""A table of the largest manual, several times over; a book is no table (no source)."""
_BRACKETS = re.compile(r"[(\[]\s*([^)\]]*?)\s*[)\]]")


@dataclass(frozen=True)
class PastedRow:
    """``row`` is the key of a row that is always there, or how far below the cursor it goes; ``cells`` by column."""

    row: str | int
    cells: dict[str, str]


@dataclass(frozen=True)
class Pasted:
    """Rows as they go into the table, and units that stood over columns, by column."""

    rows: tuple[PastedRow, ...]
    units: dict[str, str]


def read_pasted(text: str, grid: Grid, start: str = "") -> Pasted:
    """Find out where each cell of a pasted table goes.

    Parameters
    ----------
    text : str
        What was pasted.
    grid : Grid
        The table it goes into.
    start : str
        Path of the column the cursor is in; the first one where it is empty.

    Raises
    ------
    FieldError
        Nothing, too much, more rows than the table can have, a heading that is none of its columns or there twice, more cells
        than columns, a row that is none of those there are. ``field`` names the row and the column.
    """
    if len(text) > MOST_LETTERS:
        raise FieldError(grid.label, "that is more than a table.", f"Expected up to {MOST_LETTERS} letters.")
    lines = _split(text.lstrip("\ufeff"))
    return _placed(lines, grid, start)


def read_lines(lines: Sequence[Sequence[str]], grid: Grid) -> Pasted:
    """The same of a table from a file, whose cells are apart already."""
    return _placed([[cell.strip() for cell in line] for line in lines if any(cell.strip() for cell in line)], grid, "")


def _placed(lines: list[list[str]], grid: Grid, start: str) -> Pasted:
    if not lines:
        raise FieldError(grid.label, "nothing was pasted.", "Expected the rows of the table.")
    columns, units, named = _columns(lines, grid, start)
    rows = lines[1:] if _is_heading(lines[0], grid) else lines
    if not rows:
        raise FieldError(grid.label, "there is a heading, and no row under it.", "Expected the rows of the table.")
    if len(rows) > grid.most:
        raise FieldError(grid.label, f"{len(rows)} rows are more than it can have.", f"Expected up to {grid.most}.")
    placed = []
    for i, cells in enumerate(rows):
        where = f"{grid.label}, row {i + 1}"
        key: str | int = i
        if named:
            key, cells = _row_called(cells[0], grid, where), cells[1:]
        while cells and not cells[-1]:
            cells = cells[:-1]
        if len(cells) > len(columns):
            problem = f"it has {len(cells)} cells, and the table {len(columns)} columns from here."
            raise FieldError(where, problem, "Expected a cell a column; a heading above tells which is which.")
        placed.append(PastedRow(key, {column.path: cell for column, cell in zip(columns, cells, strict=False)}))
    return Pasted(tuple(placed), units)


def _split(text: str) -> list[list[str]]:
    """Lines of cells, empty lines left out."""
    lines = [line for line in text.replace("\r\n", "\n").replace("\r", "\n").split("\n") if line.strip(" \t;|")]
    if any("\t" in line for line in lines):
        return [[cell.strip() for cell in row] for row in csv.reader(lines, delimiter="\t")]
    if all(";" in line for line in lines):
        return [[cell.strip() for cell in row] for row in csv.reader(lines, delimiter=";")]
    if all("|" in line for line in lines):
        rows = [[cell.strip() for cell in line.strip().strip("|").split("|")] for line in lines]
        return [row for row in rows if not all(re.fullmatch(r":?-+:?", cell) for cell in row)]
    if any(re.search(r"\S {2,}\S", line) for line in lines):
        return [re.split(r" {2,}", line.strip()) for line in lines]
    apart = list(csv.reader(lines, skipinitialspace=True))
    if len(lines) > 1 and len({len(row) for row in apart}) == 1 and len(apart[0]) > 1:
        return [[cell.strip() for cell in row] for row in apart]
    return [[line.strip()] for line in lines]


def _is_heading(cells: Sequence[str], grid: Grid) -> bool:
    """Words alone: no cell has a number, but for those in a unit; or all of them are columns of the table."""
    said = [cell for cell in cells if cell]
    plain = [re.sub(r"(?i)mm2/s|mm²/s|m3/h|kg/m3|iso \d+", "", _BRACKETS.sub("", cell)) for cell in said]
    if any(re.search(r"\d", cell) for cell in plain):
        return False
    return any(_matches(cell, column) for cell in said for column in grid.columns)


def _columns(lines: list[list[str]], grid: Grid, start: str) -> tuple[list[Ask], dict[str, str], bool]:
    """The columns of what was pasted, their units, and whether the first cell of each row names the row."""
    first = lines[0]
    headed = _is_heading(first, grid)
    rows = lines[1:] if headed else lines
    named = bool(grid.names) and sum(_row_of(line[0], grid) is not None for line in rows) > len(rows) / 2
    if not headed:
        paths = [column.path for column in grid.columns]
        return list(grid.columns[paths.index(start) if start in paths and not named else 0 :]), {}, named
    columns: list[Ask] = []
    units: dict[str, str] = {}
    for i, cell in enumerate(first[1:] if named else first, 2 if named else 1):
        free = [column for column in grid.columns if column not in columns]
        found = next((c for c in free if _matches(cell, c)), None) or _by_unit(cell, free)
        if found is None:
            known = ", ".join(column.label for column in free)
            problem = f"“{cell[:40]}” is no column of it that is left." if cell else "a column has nothing above it."
            raise FieldError(f"{grid.label}, heading, column {i}", problem, f"Expected any of: {known}.")
        columns.append(found)
        if found.dimension and (unit := _unit_in(cell, found.dimension)):
            units[found.path] = unit
    return columns, units, named


def _said(cell: str) -> str:
    """A heading without its unit."""
    return " ".join(re.sub(r"[^\w\s]|_", " ", _BRACKETS.sub(" ", cell)).casefold().split())


def _matches(cell: str, column: Ask) -> bool:
    names = (column.label, column.path.replace("_", " ").replace(".", " "), *column.called)
    said = _said(cell)
    plain = {_said(name) for name in names}
    if said in plain:
        return True
    without = said
    if column.dimension:
        words = [word for word in said.split() if not _is_unit(word, column.dimension)]
        without = " ".join(words)
    return bool(without) and without in plain


def _is_unit(word: str, dimension: Dimension) -> bool:
    return bool(unit_of(word, dimension)) or (dimension is Dimension.VISCOSITY and is_saybolt(word))


def _unit_in(cell: str, dimension: Dimension) -> str:
    """The unit a heading names, by its usual name: in brackets, after a comma, or as one of its words."""
    words = [*_BRACKETS.findall(cell), *re.split(r"[,;/]\s|\s+", _BRACKETS.sub(" ", cell)), cell]
    found = next((word.strip(" .,") for word in words if word.strip(" .,") and _is_unit(word.strip(" .,"), dimension)), "")
    return unit_of(found, dimension) or found


def _by_unit(cell: str, free: Sequence[Ask]) -> Ask | None:
    """The only column left that can be in the unit a heading names."""
    found = [column for column in free if column.dimension and _unit_in(cell, column.dimension)]
    return found[0] if len(found) == 1 else None


def _row_of(cell: str, grid: Grid) -> str | None:
    said = cell.strip().casefold()
    for row in grid.names:
        if said and said in (row.key.casefold(), row.name.casefold(), str(row.number or ""), f"{row.number} {row.name}".casefold()):
            return row.key
    return None


def _row_called(cell: str, grid: Grid, where: str) -> str:
    found = _row_of(cell, grid)
    if found is None:
        problem = f"“{cell[:40]}” is not one of its rows." if cell else "it has no name: merged cells come so."
        raise FieldError(where, problem, f"Expected one of: {', '.join(row.name for row in grid.names)}.")
    return found
