"""A sheet as far as it is typed: every field and cell as text, and the file that comes out of it."""

from __future__ import annotations

import copy
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Any

from finegap.core.entry import bare_unit
from finegap.core.errors import FieldError
from finegap.core.families.family import Family
from finegap.core.formatting import Units
from finegap.core.numerals import DecimalMark
from finegap.core.quantities import unit_of
from finegap.core.typed_sheet.asks import SIZE, Ask, Grid, Schema, Section, form_of
from finegap.core.typed_sheet.cells import How, read_cell, units_in, without_unit, written

Content = dict[str, Any]
Row = dict[str, str]


@dataclass
class Typed:
    """What was typed. ``fields`` by path, cells of rows that are always there among them; ``grids`` the other rows, by the path
    of their table; ``units`` those chosen over columns, by table and column. ``rest`` is what a file held that nothing asks for.

    ``family``, ``system`` and ``mark`` hold for all of it.
    """

    family: str
    system: Units = Units.MM
    mark: DecimalMark = DecimalMark.POINT
    fields: dict[str, str] = field(default_factory=dict)
    grids: dict[str, list[Row]] = field(default_factory=dict)
    units: dict[str, str] = field(default_factory=dict)
    rest: Content = field(default_factory=dict)

    def form(self, schema: Schema, family: Family) -> tuple[Section, ...]:
        """What is asked of it as it is so far; a choice that cannot be made is as good as none."""
        options = {option.key: option.choices for option in family.options}
        said = {name.removeprefix("build."): text for name, text in self.fields.items() if name.startswith("build.")}
        build = {key: choice for key, choice in said.items() if choice in options.get(key, {})}
        means = self.fields.get("adjustment.means", "")
        return form_of(schema, family, build, means if means in options.get("means", {means: ""}) else "")

    def row(self, grid: Grid, key: str) -> Row:
        """The cells of a row that is always there."""
        return {column.path: self.fields.get(grid.place(key, column.path), "") for column in grid.columns}

    def how(self, ask: Ask, column: str = "") -> How:
        """How a bare number of a field is meant: by the unit over its column, or by the unit system."""
        if ask.dimension is None:
            return How(None, self.mark)
        chosen = self.units.get(column)
        return How(chosen or bare_unit(ask.dimension, self.system), self.mark, bool(chosen))


def content_of(typed: Typed, sections: Sequence[Section]) -> tuple[Content, list[FieldError]]:
    """The file that is typed so far, and what is wrong with single fields. What cannot be read is not in it.

    Rows that are for another size of pump are left out.
    """
    content: Content = copy.deepcopy(typed.rest)
    wrong: list[FieldError] = []
    for section in sections:
        cells = [_Cell(one, one.path, typed.fields.get(one.path, ""), typed.how(one)) for one in section.asks]
        cells += [cell for grid in section.grids for cell in _cells_of(typed, grid)]
        named = {cell.ask.path for cell in cells if cell.ask.name_of and cell.text.strip()}
        first: dict[str, str] = {}
        for cell in cells:
            if not cell.text.strip():
                continue
            try:
                value = read_cell(cell.ask, cell.text, cell.how, cell.path)
                if cell.column:
                    _check_unit(cell, value, first)
                _put(content, cell.path, value, cell.ask.path in named)
            except FieldError as error:
                wrong.append(error)
        wrong += [error for grid in section.grids for error in _without_size(typed, grid)]
    return content, wrong


def _without_size(typed: Typed, grid: Grid) -> Iterator[FieldError]:
    """Rows that do not say for which pump they are, in a table that does of others: merged cells come so."""
    rows = rows_of(typed, grid)
    if any(row.get(SIZE) for row in typed.grids.get(grid.path, [])):
        for i, row in enumerate(rows):
            if not row.get(SIZE, "").strip():
                told = "it does not say for which pump."
                yield FieldError(grid.place(i, SIZE), told, "Expected the model, as in the other rows.")


@dataclass(frozen=True)
class _Cell:
    ask: Ask
    path: str
    text: str
    how: How
    column: str = ""


def _check_unit(cell: _Cell, value: Any, first: dict[str, str]) -> None:
    """A column is in one unit: whether it is typed over it, in its cells or nowhere."""
    if cell.ask.dimension is None:
        return
    for text in sorted(units_in(written(cell.ask, value)) - {""}):
        unit = unit_of(text, cell.ask.dimension) or text
        if first.setdefault(cell.column, unit) != unit:
            problem = f"the column is in {first[cell.column]} above, and in {unit} here."
            raise FieldError(cell.path, problem, "Expected one unit in a column: in its cells, or chosen over it.")


def _cells_of(typed: Typed, grid: Grid) -> list[_Cell]:
    found = []
    rows: Sequence[tuple[int | str, Row]] = (
        [(one.key, typed.row(grid, one.key)) for one in grid.names] if grid.names else list(enumerate(rows_of(typed, grid)))
    )
    for key, row in rows:
        for column in grid.columns:
            if column.path != SIZE:
                over = f"{grid.path}.{column.path}"
                path, text = grid.place(key, column.path), row.get(column.path, "")
                found.append(_Cell(column, path, text, typed.how(column, over), over))
    return found


def rows_of(typed: Typed, grid: Grid) -> list[Row]:
    """The rows of a table that are for this pump; of what is typed after them, nothing."""
    mine = typed.fields.get("model", "").strip().casefold()
    rows = list(typed.grids.get(grid.path, []))
    while rows and not any(text.strip() for text in rows[-1].values()):
        rows.pop()
    return [row for row in rows if row.get(SIZE, "").strip().casefold() in ("", mine)]


def sizes_of(typed: Typed) -> tuple[str, ...]:
    """Other pump sizes its tables have rows for, in their order."""
    mine = typed.fields.get("model", "").strip().casefold()
    said = (row.get(SIZE, "").strip() for rows in typed.grids.values() for row in rows)
    return tuple({one.casefold(): one for one in said if one and one.casefold() != mine}.values())


def _put(content: Content, path: str, value: Any, named: bool) -> None:
    """Put a value at its path; ``named`` when other fields under the path may make an object of it, whose name it is."""
    steps = [int(step[1:-1]) if step.startswith("[") else step for step in re.findall(r"[^.\[\]]+|\[\d+\]", path)]
    place: Any = content
    for step, following in pairwise(steps):
        empty: Any = [] if isinstance(following, int) else {}
        if isinstance(step, int):
            place.extend({} for _ in range(step + 1 - len(place)))
        elif step not in place:
            place[step] = empty
        elif isinstance(place[step], str):
            place[step] = {"name": place[step]}
        place = place[step]
    last = steps[-1]
    if named and isinstance(place, dict) and isinstance(place.get(last), dict):
        place[last]["name"] = value
    else:
        place[last] = value


def typed_of(content: Content, schema: Schema, family: Family, system: Units) -> Typed:
    """A file as it would have been typed: reading it gives the same file. Where a column has one unit, that stands over it."""
    typed = Typed(family.key, system)
    left = copy.deepcopy(content)
    typed.fields = {f"build.{key}": choice for key, choice in content.get("build", {}).items()}
    typed.fields["adjustment.means"] = content.get("adjustment", {}).get("means", "")
    for section in typed.form(schema, family):
        for ask in section.asks:
            value = _taken(left, ask.path)
            if value is not None:
                typed.fields[ask.path] = written(ask, value)
        for grid in section.grids:
            _take_grid(typed, left, grid)
    typed.rest = _pruned(left)
    return typed


def _take_grid(typed: Typed, left: Content, grid: Grid) -> None:
    listed = _at(left, grid.path)
    keys: Sequence[int | str] = [one.key for one in grid.names] if grid.names else range(len(listed or ()))
    rows: list[Row] = []
    for key in keys:
        found = ((c, _taken(left, grid.place(key, c.path))) for c in grid.columns if c.path != SIZE)
        rows.append({c.path: written(c, value) for c, value in found if value is not None})
    for column in grid.columns:
        texts = [row[column.path] for row in rows if column.path in row]
        units = set().union(*(units_in(text) for text in texts)) if column.dimension and texts else set()
        if len(units) == 1 and "" not in units:
            unit = units.pop()
            typed.units[f"{grid.path}.{column.path}"] = unit
            for row in rows:
                if column.path in row:
                    row[column.path] = without_unit(row[column.path], unit)
    if grid.names:
        for key, row in zip(keys, rows, strict=True):
            typed.fields |= {grid.place(key, column): text for column, text in row.items()}
    elif rows:
        typed.grids[grid.path] = rows


def _at(content: Content, path: str) -> Any:
    place: Any = content
    for step in re.findall(r"[^.\[\]]+|\[\d+\]", path):
        try:
            place = place[int(step[1:-1]) if step.startswith("[") else step]
        except (KeyError, IndexError, TypeError):
            return None
    return place


def _taken(content: Content, path: str) -> Any:
    """The value at a path, taken out; of an object with a name, the name."""
    way, _, last = path.rpartition(".")
    place = _at(content, way) if way else content
    if not isinstance(place, dict) or last not in place:
        return None
    value = place[last]
    if isinstance(value, dict) and "name" in value:
        return value.pop("name")
    return place.pop(last)


def _pruned(left: Any) -> Any:
    """What is left of a file without its empty places."""
    if isinstance(left, dict):
        found = {key: _pruned(value) for key, value in left.items()}
        return {key: value for key, value in found.items() if value not in ({}, [])}
    if isinstance(left, list):
        found_in = [_pruned(one) for one in left]
        return found_in if any(one not in ({}, []) for one in found_in) else []
    return left
