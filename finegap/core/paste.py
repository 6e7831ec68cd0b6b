"""A set of readings pasted from a spreadsheet: one row a station, repeats in the columns after it."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from finegap.core.errors import FieldError
from finegap.core.families.features import Station
from finegap.core.numerals import DecimalMark
from finegap.core.quantities import AllowedSign, Quantity, parse, unit_of
from finegap.core.units import Dimension

MOST_ROWS = 400
_NUMBER = re.compile(r"^[-+−]?[\d.,/ ]*\d")
_BRACKETS = re.compile(r"[(\[]\s*([^)\]]+?)\s*[)\]]")
_WORDS = re.compile(r"[^\W\d_]+", re.UNICODE)
_ALSO_A_WORD = ("in", "m")
"""Units that are words of a sentence, too (“bore in housing”): read as a unit in brackets or alone in their cell only."""


@dataclass(frozen=True)
class Pasted:
    """One reading of the set: where, and what was in the cell."""

    station: Station
    quantity: Quantity


def read_set(
    text: str,
    stations: Sequence[Station],
    unit: str,
    field: str,
    sign: AllowedSign = AllowedSign.POSITIVE,
    mark: DecimalMark = DecimalMark.POINT,
    possible: Callable[[float], bool] | None = None,
) -> tuple[Pasted, ...]:
    """Read pasted cells, all of them or none.

    Rows are stations, named in the first column or, without names, in the order of ``stations``; further columns are repeats. A
    first row of words is a heading, and may carry the unit: ``Reading (mm)``, ``Reading, thou``. ``mark`` is the decimal mark of
    the works, ``possible`` whether a size in mm can be of this feature.

    Raises
    ------
    FieldError
        Names the row and column: an unknown or missing station (merged cells come as empty ones), an empty cell between two
        readings, not a number, more rows than stations, a heading with two units, nothing at all.
    """
    rows = [[cell.strip() for cell in re.split(r"\t|;", line)] for line in text.splitlines()]
    rows = [row for row in rows if any(row)]
    if not rows:
        raise FieldError(field, "nothing was pasted.", "Expected a row for each station, repeats in columns.")
    if len(rows) > MOST_ROWS:
        raise FieldError(field, f"{len(rows)} rows are more than a part has stations.", f"Expected up to {MOST_ROWS}.")
    named = _named(rows[0], stations) or any(_named(row, stations) for row in rows[1:])
    if not _named(rows[0], stations) and not any(_NUMBER.match(cell) for cell in rows[0][1 if named else 0 :]):
        unit = _heading_unit(rows.pop(0), unit, field)
    pasted = tuple(
        Pasted(station, parse(cell, Dimension.LENGTH, where, unit, sign, mark, possible))
        for i, row in enumerate(rows, 1)
        for station, cell, where in _cells(row, i, stations, named, field)
    )
    if not pasted:
        raise FieldError(field, "there is a heading, but no reading under it.", "Expected a row for each station.")
    return pasted


def _named(row: list[str], stations: Sequence[Station]) -> bool:
    return any(row[0].lower() in (s.label.lower(), s.key.lower()) for s in stations)


def _heading_unit(heading: list[str], unit: str, field: str) -> str:
    """The unit a heading names in brackets, by a word that is nothing else, or as all of a cell."""
    said = [inside for cell in heading for inside in _BRACKETS.findall(cell)]
    said += [word for cell in heading for word in _WORDS.findall(_BRACKETS.sub(" ", cell)) if word.lower() not in _ALSO_A_WORD]
    named = {unit_of(one, Dimension.LENGTH) for one in (*said, *heading)} - {""}
    if len(named) > 1:
        raise FieldError(field, f"its heading names {' and '.join(sorted(named))}.", "Expected one unit for all of it.")
    return next(iter(named), unit)


def _cells(row: list[str], number: int, stations: Sequence[Station], named: bool, field: str) -> list[tuple[Station, str, str]]:
    where = f"{field}, row {number}"
    if named:
        first, *cells = row
        station = next((s for s in stations if first.lower() in (s.label.lower(), s.key.lower())), None)
        if station is None:
            problem = f"“{first}” is not one of its stations." if first else "the station is empty: merged cells come so."
            raise FieldError(where, problem, f"Expected in the first column: {'; '.join(s.label for s in stations)}.")
    else:
        cells = row
        if number > len(stations):
            raise FieldError(where, f"there are only {len(stations)} stations.", "Expected a row for each, repeats in columns.")
        station = stations[number - 1]
    while cells and not cells[-1]:
        cells = cells[:-1]
    empty = next((i for i, cell in enumerate(cells, 1) if not cell), None)
    if not cells or empty:
        column = (empty or 1) + (1 if named else 0)
        problem = "the cell is empty." if empty else "there is no reading in it."
        raise FieldError(f"{where}, column {column}", problem, "Expected a reading; merged cells come as empty ones.")
    return [(station, cell, f"{where}, column {i + (1 if named else 0)}") for i, cell in enumerate(cells, 1)]
