"""The clearance table as a map: viscosity, logarithmic, by temperature; each row a region, the duty a point."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from finegap.core.gap.duty_range import DutyRange
from finegap.core.gap.table import Range, Row, RowChoice

_MARGIN_DECADES = 0.4
_MARGIN_K = 15.0
_THINNEST_MM2_S = 0.3
_STEPS_K = (10, 20, 50, 100, 200)
_MOST_TICKS = 8


@dataclass(frozen=True)
class Region:
    """A row as it lies on the map: its ranges cut to what is drawn. An end that was cut is open."""

    row: Row
    viscosity_mm2_s: tuple[float, float]
    temperature_c: tuple[float, float]
    open_viscosity: tuple[bool, bool]
    open_temperature: tuple[bool, bool]
    matches: bool
    chosen: bool


@dataclass(frozen=True)
class TableMap:
    """What is drawn of a table: the span of both axes, the regions, and where the duty lies (mm2/s, C).

    ``way`` are the points of the duty's range from cold to hot; none where only the pumping point is known. A table that is only
    looked at has no ``duty``.
    """

    viscosity_mm2_s: tuple[float, float]
    temperature_c: tuple[float, float]
    regions: tuple[Region, ...]
    duty: tuple[float, float] | None
    way: tuple[tuple[float, float], ...] = ()

    @property
    def decades(self) -> tuple[float, ...]:
        """Powers of ten inside the viscosities drawn."""
        low, high = (math.log10(v) for v in self.viscosity_mm2_s)
        return tuple(float(10**n) for n in range(math.ceil(low - 1e-9), math.floor(high + 1e-9) + 1))

    @property
    def temperatures(self) -> tuple[float, ...]:
        """Round temperatures inside those drawn, not more than can be read."""
        low, high = self.temperature_c
        step = next((s for s in _STEPS_K if (high - low) / s <= _MOST_TICKS), _STEPS_K[-1])
        return tuple(float(t) for t in range(math.ceil(low / step) * step, math.floor(high) + 1, step))


def map_of(choice: RowChoice, viscosity_mm2_s: float, temperature_c: float, duty_range: DutyRange | None = None) -> TableMap:
    """The map of the rows a choice was made from, wide enough for every printed end and for the duty with its range."""
    way = () if duty_range is None or duty_range.is_point else duty_range.drawn()
    chosen = {id(c.row): (c.matches or c.passed, c.row is choice.chosen) for c in choice.candidates}
    return _mapped([c.row for c in choice.candidates], chosen, (viscosity_mm2_s, temperature_c), way)


def map_of_rows(rows: Sequence[Row]) -> TableMap:
    """The map of a table nobody has chosen from."""
    return _mapped(rows, {}, None, ())


def _mapped(
    rows: Sequence[Row],
    chosen: Mapping[int, tuple[bool, bool]],
    duty: tuple[float, float] | None,
    way: tuple[tuple[float, float], ...],
) -> TableMap:
    points = (*((duty,) if duty else ()), *way)
    viscosities = [v for row in rows for v in _ends(row.viscosity_mm2_s) if v > 0]
    viscosities += [max(v, _THINNEST_MM2_S) for v, _ in points]
    temperatures = [t for row in rows for t in _ends(row.temperature_c)] + [t for _, t in points]
    spread = 10**_MARGIN_DECADES
    across = (min(viscosities, default=1.0) / spread, max(viscosities, default=1000.0) * spread)
    up = (min(temperatures, default=0.0) - _MARGIN_K, max(temperatures, default=100.0) + _MARGIN_K)
    regions = tuple(
        Region(
            row,
            *(_cut(row.viscosity_mm2_s, across), _cut(row.temperature_c, up)),
            *(_open(row.viscosity_mm2_s, across), _open(row.temperature_c, up)),
            *chosen.get(id(row), (False, False)),
        )
        for row in rows
    )
    return TableMap(across, up, regions, duty, way)


def _ends(span: Range) -> list[float]:
    return [end for end in (span.low, span.high) if math.isfinite(end)]


def _cut(span: Range, drawn: tuple[float, float]) -> tuple[float, float]:
    return max(span.low, drawn[0]), min(span.high, drawn[1])


def _open(span: Range, drawn: tuple[float, float]) -> tuple[bool, bool]:
    return span.low < drawn[0], span.high > drawn[1]
