"""Reading the toolbox."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable

from finegap.core.gap.gaskets import piece
from finegap.core.showing import Units, length
from finegap.toolbox.models import GasketStock, Gauge
from finegap.toolbox.shapes import GaugeShape, StockShape


def gauge_shapes(gauges: Iterable[Gauge], units: Units, today: dt.date) -> list[GaugeShape]:
    """Gauges with their certificates."""
    return [
        GaugeShape(
            tag=g.tag,
            kind=g.kind,
            range=f"{length(g.low_mm).bare(units)} to {length(g.high_mm).text(units)}",
            resolution=length(g.resolution_mm, fine=True).text(units),
            expanded=length(g.expanded_mm, fine=True).text(units),
            k=g.k,
            calibrated=g.calibrated,
            due=g.due,
            overdue=g.due < today,
        )
        for g in gauges
    ]


def stock_shapes(units: Units) -> list[StockShape]:
    """Every line of gasket stock, by sheet and thickness."""
    return [
        StockShape(g.sheet.title, g.sheet.slug, g.thickness_um, piece(g.thickness_um).text(units), g.count)
        for g in GasketStock.objects.select_related("sheet")
    ]
