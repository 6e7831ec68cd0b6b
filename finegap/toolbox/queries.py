"""Reading the toolbox."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable

from finegap.core.calculators import CALCULATORS
from finegap.core.gap.stock import piece
from finegap.core.gauges import GaugeKind
from finegap.core.quantities import Dimension
from finegap.core.showing import Amount, Kind, Units, length
from finegap.site.shapes import NamedShape
from finegap.toolbox.models import GasketStock, Gauge, GreaseGun
from finegap.toolbox.shapes import AskedShape, GaugeShape, GunShape, StockShape, SumShape


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


def gun_shapes(guns: Iterable[GreaseGun], units: Units) -> list[GunShape]:
    """Grease guns with what ten strokes of them weigh."""
    return [GunShape(g.tag, g.grease, Amount(g.ten_g, Kind.MASS).text(units), g.weighed) for g in guns]


def sum_shapes(units: Units) -> list[SumShape]:
    """What can be reckoned alone, with what each asks for."""
    return [
        SumShape(
            c.key,
            c.name,
            [
                AskedShape(
                    one.key,
                    one.name,
                    one.bare[units is Units.IN] if one.dimension else "",
                    one.usual,
                    one.optional,
                    one.long,
                    [NamedShape(*choice) for choice in one.choices],
                )
                for one in c.inputs
            ],
        )
        for c in CALCULATORS.values()
    ]


def stock_shapes(units: Units) -> list[StockShape]:
    """Every line of gasket stock, by sheet and thickness."""
    return [
        StockShape(g.sheet.title, g.sheet.slug, g.thickness_um, piece(g.thickness_um).text(units), g.count)
        for g in GasketStock.objects.select_related("sheet")
    ]
