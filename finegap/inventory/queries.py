"""Reading the toolbox."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable

from django.db.models import QuerySet

from finegap.api.shown import NamedResponse
from finegap.core.calculators import CALCULATORS
from finegap.core.entry import BARE, SIGNS
from finegap.core.formatting import Amount, Bare, Kind, Sentence, Units
from finegap.core.gap.stock import piece
from finegap.core.gauges import GaugeKind
from finegap.core.units import Dimension
from finegap.inventory.models import Certificate, GasketStock, Gauge, GreaseGun, WorksSettings
from finegap.inventory.responses import (
    BareUnitResponse,
    GaugeResponse,
    GunResponse,
    InputResponse,
    SettingsResponse,
    StockResponse,
    SumResponse,
)


def works_settings() -> WorksSettings:
    """What the works decided for itself; the usual where it has not yet."""
    return WorksSettings.objects.filter(pk=1).first() or WorksSettings()


def settings_shape() -> SettingsResponse:
    """The settings of the works, and the units of bare numbers."""
    kept = works_settings()
    by = (kept.by.get_full_name() or kept.by.username) if kept.by else ""
    units = [
        BareUnitResponse(dimension.name.lower(), *(SIGNS.get(unit, unit) for unit in systems))
        for dimension, systems in BARE.items()
    ]
    return SettingsResponse(kept.decimal_mark, f"{100 * kept.new_share:g}", by, kept.at, units)


def gauge_responses(gauges: Iterable[Gauge], today: dt.date) -> list[GaugeResponse]:
    """Gauges with the certificates that hold now."""
    return [gauge_response(gauge, gauge.now, gauge.now.due < today) for gauge in gauges]


def gauge_response(gauge: Gauge, given: Certificate, overdue: bool) -> GaugeResponse:
    """A gauge under one of its certificates."""
    return GaugeResponse(
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


def gun_responses(guns: Iterable[GreaseGun]) -> list[GunResponse]:
    """Grease guns with what ten strokes of them weigh."""
    return [GunResponse(g.tag, g.grease, Amount(g.grams_per_ten_strokes, Kind.MASS), g.weighed) for g in guns]


def sum_responses(units: Units) -> list[SumResponse]:
    """What can be calculated alone, with what each asks for."""
    return [
        SumResponse(
            c.key,
            c.name,
            [
                InputResponse(
                    one.key,
                    one.name,
                    one.bare(units),
                    one.usual,
                    one.optional,
                    one.long,
                    [NamedResponse(*choice) for choice in one.choices],
                )
                for one in c.inputs
            ],
        )
        for c in CALCULATORS.values()
    ]


def stock() -> QuerySet[GasketStock]:
    """Every line of gasket stock, by sheet and thickness."""
    return GasketStock.objects.select_related("sheet")


def stock_responses(rows: Iterable[GasketStock]) -> list[StockResponse]:
    """Lines of gasket stock."""
    return [StockResponse(g.sheet.title, g.sheet.slug, g.thickness_um, piece(g.thickness_um), g.count) for g in rows]
