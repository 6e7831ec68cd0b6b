"""Reading the toolbox."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from typing import Any

from django.db.models import OuterRef, QuerySet, Subquery
from django.db.models.fields.json import KT

from finegap.api.shown import NamedResponse
from finegap.core.calculators import CALCULATORS
from finegap.core.formatting import Amount, Bare, Kind, Sentence, Units
from finegap.core.gap.stock import piece
from finegap.core.gauges import GaugeKind
from finegap.core.means.registry import KINDS
from finegap.core.units import Dimension
from finegap.inventory.models import Certificate, Gauge, GreaseGun, ShelfLine
from finegap.inventory.responses import (
    CabinetResponse,
    GaugeResponse,
    GunResponse,
    InputResponse,
    ShelfResponse,
    SumResponse,
)
from finegap.sheets.models import SheetRevision


def gauge_responses(gauges: Iterable[Gauge], today: dt.date) -> list[GaugeResponse]:
    """Gauges with the certificates that hold now."""
    return [gauge_response(gauge, gauge.now, gauge.now.due < today) for gauge in gauges]


def cabinet(gauges: Iterable[Gauge], today: dt.date) -> list[CabinetResponse]:
    """Gauges as the cabinet shows them, retired ones too."""
    lines = gauge_responses(gauges := list(gauges), today)
    return [CabinetResponse(**vars(line), retired=gauge.retired) for gauge, line in zip(gauges, lines, strict=True)]


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


def shelf() -> QuerySet[ShelfLine]:
    """Every line of the shelf, by sheet and thickness."""
    latest = SheetRevision.objects.filter(sheet=OuterRef("sheet"))
    return ShelfLine.objects.select_related("sheet").annotate(
        means=Subquery(latest.values(said=KT("content__adjustment__means"))[:1])
    )


def shelf_responses(rows: Iterable[Any]) -> list[ShelfResponse]:
    """Lines of the shelf."""
    return [
        ShelfResponse(g.sheet.title, g.sheet.slug, KINDS[g.means].piece, g.thickness_um, piece(g.thickness_um), g.count)
        for g in rows
    ]
