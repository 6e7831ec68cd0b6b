"""Reading the toolbox."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable

from finegap.core.gap.gaskets import piece
from finegap.core.gauges import GaugeKind
from finegap.core.quantities import Dimension
from finegap.core.showing import Amount, Kind, Units, length
from finegap.toolbox.models import GasketStock, Gauge
from finegap.toolbox.shapes import GaugeShape, StockShape


def gauge_shapes(gauges: Iterable[Gauge], units: Units, today: dt.date) -> list[GaugeShape]:
    """Gauges with their certificates."""
    return [
        GaugeShape(
            tag=g.tag,
            kind=g.kind,
            lengths=GaugeKind(g.kind).dimension is Dimension.LENGTH,
            certificate=g.certificate,
            repeatability="" if g.repeatability is None else _fine(g, g.repeatability).text(units),
            leaves=[length(t / 1000, fine=units is Units.IN).bare(units) for t in g.leaves_um],
            range=f"{_shown(g, g.low).bare(units)} to {_shown(g, g.high).text(units)}",
            resolution=_fine(g, g.resolution).text(units),
            expanded=_fine(g, g.expanded).text(units),
            k=g.k,
            calibrated=g.calibrated,
            due=g.due,
            overdue=g.due < today,
        )
        for g in gauges
    ]


def _shown(gauge: Gauge, value: float) -> Amount:
    return Amount(value, _KINDS[GaugeKind(gauge.kind).dimension][0])


def _fine(gauge: Gauge, value: float) -> Amount:
    return Amount(value, _KINDS[GaugeKind(gauge.kind).dimension][1])


_KINDS = {
    Dimension.LENGTH: (Kind.LENGTH, Kind.FINE_LENGTH),
    Dimension.TORQUE: (Kind.TORQUE, Kind.FINE_TORQUE),
    Dimension.TEMPERATURE: (Kind.TEMPERATURE, Kind.TEMPERATURE_STEP),
}


def stock_shapes(units: Units) -> list[StockShape]:
    """Every line of gasket stock, by sheet and thickness."""
    return [
        StockShape(g.sheet.title, g.sheet.slug, g.thickness_um, piece(g.thickness_um).text(units), g.count)
        for g in GasketStock.objects.select_related("sheet")
    ]
