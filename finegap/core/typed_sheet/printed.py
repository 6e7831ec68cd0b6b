"""What a sheet prints, line by line: to be read against the manual, and to be held against another revision."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

from finegap.core.families.family import Family
from finegap.core.formatting import Units
from finegap.core.typed_sheet.asks import SIZE, Ask, Grid, RowName, Schema
from finegap.core.typed_sheet.draft import Content, Typed, typed_of


@dataclass(frozen=True)
class Line:
    """One thing a sheet prints: a field, or a row of a table. ``cells`` are name and text, the units with each.

    ``path`` is its place in the file, and ``places`` those of its cells; ``number`` is that on the drawing (0 without one),
    ``page`` where the manual prints it.
    """

    path: str
    section: str
    label: str
    number: int
    cells: tuple[tuple[str, str], ...]
    page: str
    places: tuple[str, ...]

    @property
    def said(self) -> str:
        """All of it in one text: what is read, and what changes."""
        return _said(self.cells)


def printed_lines(content: Content, schema: Schema, family: Family) -> tuple[Line, ...]:
    """Every line of a sheet, in the order it is typed in."""
    typed = typed_of(content, schema, family, Units.MM)
    lines: list[Line] = []
    for section in typed.form(schema, family):
        page = typed.fields.get(f"{section.key}.page", "")
        for ask in section.asks:
            text = typed.fields.get(ask.path, "")
            if text:
                lines.append(Line(ask.path, section.title, ask.label, 0, (("", _name(ask, text)),), page, (ask.path,)))
        for grid in section.grids:
            lines += _rows(typed, grid, section.title, page)
    if "stacks" in typed.rest:  # stacks of the sheet's own come from a file alone
        lines.append(Line("stacks", "From a file", "Stacks", 0, (("", "as the file has it"),), "", ("stacks",)))
    return tuple(lines)


def _rows(typed: Typed, grid: Grid, section: str, page: str) -> Iterator[Line]:
    rows: Sequence[tuple[str, RowName | int, dict[str, str]]]
    rows = [(f"{grid.path}[{i}]", i, row) for i, row in enumerate(typed.grids.get(grid.path, []))]
    if grid.names:
        rows = [(f"{grid.path}.{one.key}", one, typed.row(grid, one.key)) for one in grid.names]
    for path, row, texts in rows:
        cells = [
            (column.label, _with_unit(_name(column, texts[column.path]), typed.units.get(f"{grid.path}.{column.path}", "")))
            for column in grid.columns
            if column.path not in (SIZE, "page") and texts.get(column.path)
        ]
        if cells:
            label, number = (row.name, row.number) if isinstance(row, RowName) else (f"row {row + 1}", 0)
            places = tuple(f"{path}.{column.path}" for column in grid.columns if texts.get(column.path))
            yield Line(path, section, label, number, tuple(cells), texts.get("page", "") or page, places)


def _name(ask: Ask, text: str) -> str:
    return ask.choices.get(text, text)


def _with_unit(text: str, unit: str) -> str:
    return f"{text} {unit}" if unit and text != "all" else text


@dataclass(frozen=True)
class Change:
    """A line that is not the same in two revisions: its cells that differ, empty where one of them has none."""

    line: Line
    before: str
    after: str


def changes_between(before: Sequence[Line], after: Sequence[Line]) -> tuple[Change, ...]:
    """What is printed otherwise, in the order of the later one; rows of tables are held against each other in their order."""
    old = {line.path: line for line in before}
    new = {line.path: line for line in after}
    paths = [*new, *(path for path in old if path not in new)]
    found = []
    for path in paths:
        was, now = old.get(path), new.get(path)
        if (was.cells if was else None) != (now.cells if now else None):
            line = now or was
            assert line is not None
            same = set(was.cells) & set(now.cells) if was and now else set()
            found.append(Change(line, _but(was, same), _but(now, same)))
    return tuple(found)


def _but(line: Line | None, same: set[tuple[str, str]]) -> str:
    """What a line says, but for the cells that are the same in both."""
    return _said(cell for cell in line.cells if cell not in same) if line else ""


def _said(cells: Iterable[tuple[str, str]]) -> str:
    return "; ".join(f"{name}: {text}" if name else text for name, text in cells)
