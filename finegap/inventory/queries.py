"""Reading the toolbox."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable

from finegap.core.calculators import CALCULATORS
from finegap.core.entry import BARE, SIGNS
from finegap.core.formatting import Amount, Bare, Kind, Sentence, Units
from finegap.core.gap.stock import piece
from finegap.core.gauges import GaugeKind
from finegap.core.quantities import Dimension
from finegap.inventory.models import Certificate, GasketStock, Gauge, GreaseGun, WorksSettings
from finegap.inventory.shapes import AskedShape, BareUnitShape, GaugeShape, GunShape, SettingsShape, StockShape, SumShape
from finegap.site.shapes import NamedShape


def works_settings() -> WorksSettings:
    """What the works decided for itself; the usual where it has not yet."""
    return WorksSettings.objects.filter(pk=1).first() or WorksSettings()


def settings_shape() -> SettingsShape:
    """The settings of the works, and the units of bare numbers."""
    kept = works_settings()
    by = (kept.by.get_full_name() or kept.by.username) if kept.by else ""
    units = [
        BareUnitShape(dimension.name.lower(), *(SIGNS.get(unit, unit) for unit in systems)) for dimension, systems in BARE.items()
    ]
    return SettingsShape(kept.decimal_mark, f"{100 * kept.new_share:g}", by, kept.at, units)


def gauge_shapes(gauges: Iterable[Gauge], today: dt.date) -> list[GaugeShape]:
    """Gauges with the certificates that hold now."""
    return [gauge_shape(gauge, gauge.now, gauge.now.due < today) for gauge in gauges]


def gauge_shape(gauge: Gauge, given: Certificate, overdue: bool) -> GaugeShape:
    """A gauge under one of its certificates."""
    return GaugeShape(
        tag=gauge.tag,
        kind=gauge.kind,
        mark=gauge.mark,
        lengths=GaugeKind(gauge.kind).dimension is Dimension.LENGTH,
        certificate=given.number,
        repeatability="" if given.repeatability is None else _fine(gauge, given.repeatability),
        leaves=[Bare(Amount(t / 1000, Kind.LENGTH, places=(0, 1))) for t in given.leaves_um],
        range=Sentence("{low} to {high}", {"low": Bare(_shown(gauge, given.low)), "high": _shown(gauge, given.high)}),
        resolution=_fine(gauge, given.resolution),
        expanded=_fine(gauge, given.expanded),
        k=given.k,
        calibrated=given.calibrated,
        due=given.due,
        overdue=overdue,
    )


def _shown(gauge: Gauge, value: float) -> Amount:
    return Amount(value, _KINDS[GaugeKind(gauge.kind).dimension][0])


def _fine(gauge: Gauge, value: float) -> Amount:
    return Amount(value, _KINDS[GaugeKind(gauge.kind).dimension][1])


_KINDS = {
    Dimension.LENGTH: (Kind.LENGTH, Kind.FINE_LENGTH),
    Dimension.TORQUE: (Kind.TORQUE, Kind.FINE_TORQUE),
    Dimension.TEMPERATURE: (Kind.TEMPERATURE, Kind.TEMPERATURE_STEP),
}


def gun_shapes(guns: Iterable[GreaseGun]) -> list[GunShape]:
    """Grease guns with what ten strokes of them weigh."""
    return [GunShape(g.tag, g.grease, Amount(g.grams_per_ten_strokes, Kind.MASS), g.weighed) for g in guns]


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
                    one.bare(units),
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


def stock_shapes() -> list[StockShape]:
    """Every line of gasket stock, by sheet and thickness."""
    return [
        StockShape(g.sheet.title, g.sheet.slug, g.thickness_um, piece(g.thickness_um), g.count)
        for g in GasketStock.objects.select_related("sheet")
    ]
