"""The page of one pump: how it stands, what comes next, its meter and papers. Worked out from the records as it is asked for."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from typing import TypeVar

from django.utils import timezone

from finegap.bench.presenters.drawing import drawn_for
from finegap.bench.presenters.wearing import Worn, chart, until
from finegap.bench.records import name_of
from finegap.bench.responses import WearResponse
from finegap.core.drawing.labels import Screen
from finegap.core.drawn import Beside
from finegap.core.formatting import Amount, Kind, Sentence, Units, grouped, length
from finegap.core.numerals import DecimalMark
from finegap.core.standing import PartNow, Standing
from finegap.core.wear.hours import Counts
from finegap.core.wear.lubrication import Due, Metered, gone_back, hours_a_week, together
from finegap.core.working import Working
from finegap.due.services import bar_of
from finegap.due.standing import BESIDE, coming_of, day_of, family_now, order_by, readings_of, service_due, sheet_now, standing_of
from finegap.fleet import responses as shown
from finegap.fleet.queries import bar, choices_of, pump_line, pumps
from finegap.formats.days import written
from finegap.inventory.models import ShelfLine
from finegap.pumps.history import measured
from finegap.pumps.models import EarlierOverhaul, Lubricated, MeterReading, Moved, PartMoved, Pump, PumpDocument
from finegap.pumps.parts import parts_of
from finegap.sheets.drawn import DrawingResponse
from finegap.works.queries import works_settings

_LINES = 40
"""How many lines of each kind a pump's page shows; the timeline has the rest."""
_MOST_STOCK = 60

T = TypeVar("T")


def whole(tag: str) -> Pump | None:
    """A pump with all that is read for its page, in a fixed number of SQL queries."""
    beside = (
        *BESIDE, "meter__by", "lubricated__by", "earlier__by", "earlier__sizes", "moves__by", "notes__by", "documents__by",
        "given__by", "given__taker", "taken__by", "taken__pump",
    )  # fmt: skip
    return pumps().prefetch_related(*beside).filter(tag=tag).first()


def pump_page(tag: str) -> shown.PumpPage | None:
    """A pump; ``None`` where there is no such pump."""
    pump = whole(tag)
    if pump is None:
        return None
    readings = readings_of(pump)
    standing = standing_of(pump, readings)
    service = service_due(pump, readings)
    rate = hours_a_week(readings, pump.hours_per_week)
    coming = coming_of(pump, standing)
    return shown.PumpPage(
        line=pump_line(pump, timezone.localdate()),
        code=pump.code,
        duty=_duty(pump),
        wet=pump.wet,
        counts=Counts(pump.counts).sign,
        rate=f"{rate:.0f} h a week" if rate else "",
        meter_note=_meter_note(readings),
        parts=[_part(one, rate, day_of(readings[-1].day if readings else None)) for one in standing.parts] if standing else [],
        unknown=_unknown(standing),
        coming=None if coming is None else _coming(coming.sentence, coming.day, coming.working),
        needs=_needs(standing) if coming else [],
        order_by=order_by(standing.needs, coming.day) if standing and coming else None,
        stock=_stock(pump),
        meter=[_meter(one) for one in _newest(pump.meter.all())],
        lubricated=[_lubricated(one) for one in _newest(pump.lubricated.all())],
        entered=_entered(pump, DecimalMark(works_settings().decimal_mark)),
        due=[shown.DueResponse(one.plan.name, one.sentence, day_of(one.day), one.late, one.working) for one in service],
        earlier=[_earlier(one) for one in _newest(pump.earlier.all())],
        moves=[_moved(one) for one in _newest(pump.moves.all())],
        parts_moved=_parts_moved(pump),
        movable=_movable(pump),
        notes=[
            shown.NoteResponse(one.id, one.text, one.at, name_of(one.by), one.struck_reason) for one in _newest(pump.notes.all())
        ],
        documents=[_document(one) for one in _newest(pump.documents.all())],
        revisions=[
            shown.RevisionResponse(one.revision, one.date, one.may_be_signed_on)
            for one in list(pump.sheet.revisions.all())[:_LINES]
        ],
        measured=_measured(pump),
        visits=_visits(service),
    )


def pump_drawing(tag: str, units: Units, screen: Screen) -> DrawingResponse | None:
    """The drawing of a pump as it is built; ``None`` where there is no such pump."""
    pump = pumps().prefetch_related("sheet__revisions").filter(tag=tag).first()
    if pump is None:
        return None
    revision = next(iter(pump.sheet.revisions.all()), None)
    return drawn_for(revision.content if revision else {}, pump.build, units, screen, Beside.LIFE)


def pump_wear(tag: str, feature: str, units: Units) -> WearResponse | None:
    """The chart of a part's wear: all that were fitted; ``None`` where there is no such pump or part."""
    pump = whole(tag)
    if pump is None:
        return None
    readings = readings_of(pump)
    standing = standing_of(pump, readings)
    part = next((one for one in standing.parts if one.feature.key == feature), None) if standing else None
    if part is None or standing is None:
        return None
    return chart(Worn(part.feature, part.spec, part.fine, part.lives, part.odd, part.coming, standing.rate), units)


def _meter_note(readings: list[Metered]) -> str:
    back = gone_back(readings)
    if back is None:
        return ""
    day = written(dt.date.fromordinal(back.day))
    return (
        f"The meter went back on {day}, to {grouped(back.hours)}\u00a0h, with nothing said of a new one: hours before that are not "
        "counted. Strike out the slip, or read it again as a replaced one."
    )


def _unknown(standing: Standing | None) -> str:
    if standing is None:
        return "Its sheet has no revision that can be read: nothing is known of its sizes."
    if any(part.last is not None and part.measured for part in standing.parts):
        return ""
    if not standing.overhauls:
        return "No overhaul is on record yet: what it measures inside is not known."
    return "Nothing was measured at its overhauls on record: what it measures inside is not known."


def _duty(pump: Pump) -> shown.PumpDuty:
    return shown.PumpDuty(
        pump.material,
        Amount(pump.viscosity_mm2_s, Kind.VISCOSITY),
        Amount(pump.temperature_c, Kind.TEMPERATURE),
        Amount(pump.pressure_bar, Kind.PRESSURE),
        f"{pump.speed_r_min:g} r/min",
    )


def _part(part: PartNow, rate: float | None, read: dt.date | None) -> shown.PartNowResponse:
    return shown.PartNowResponse(
        key=part.feature.key,
        number=part.feature.number,
        name=part.feature.name,
        part=part.feature.part,
        size="" if part.last is None else length(part.last.value_mm, part.fine),
        measured=part.measured,
        day=day_of(part.day),
        verdict=part.verdict.value if part.verdict else "",
        sentence=part.sentence,
        left=_left(part),
        date=until((part.left_h, part.early_h, part.late_h), rate, read),
        odd=list(part.odd),
        bar=None if part.share is None else bar(bar_of(part)),
        working=part.coming.working if part.coming else None,
    )


def _left(part: PartNow) -> Sentence | str:
    """What its wear leaves of it, from the last reading of the meter."""
    if part.left_h is None and part.early_h is None:
        return ""

    def said(hours: float | None) -> str:
        return "beyond telling" if hours is None else "now" if hours <= 0 else f"{grouped(round(hours, -1))}\u00a0h"

    return Sentence(
        "{left} to the limit ({early} to {late})",
        {"left": said(part.left_h), "early": said(part.early_h), "late": said(part.late_h)},
    )


def _coming(sentence: Sentence, day: int | None, working: Working) -> shown.ComingResponse:
    on = day_of(day)
    return shown.ComingResponse(sentence, on, on is not None and on < timezone.localdate(), working)


def _needs(standing: Standing | None) -> list[shown.NeededPart]:
    if standing is None or standing.needs is None:
        return []
    return [
        shown.NeededPart(one.number, one.name, one.count, one.lead_days, list(one.reasons)) for one in standing.needs.cover.lines
    ]


def _stock(pump: Pump) -> list[shown.StockResponse]:
    rows = ShelfLine.objects.filter(sheet=pump.sheet_id).order_by("thickness_um")[:_MOST_STOCK]
    return [shown.StockResponse(length(one.thickness_um / 1000, fine=True), one.count) for one in rows]


def _newest(rows: Iterable[T]) -> list[T]:
    return list(reversed(list(rows)))[:_LINES]


def _meter(one: MeterReading) -> shown.MeterResponse:
    return shown.MeterResponse(one.id, one.hours, one.read, one.day, name_of(one.by), _replaced(one), one.struck_reason)


def _earlier(one: EarlierOverhaul) -> shown.EarlierResponse:
    sizes = list(one.sizes.all())
    return shown.EarlierResponse(
        one.id, one.day, one.hours, len(sizes), sum(size.changed for size in sizes), one.source, name_of(one.by), one.struck_reason
    )


def _lubricated(one: Lubricated) -> shown.LubricatedResponse:
    return shown.LubricatedResponse(one.id, one.name, one.hours, one.at, name_of(one.by), one.struck_reason)


def _moved(one: Moved) -> shown.MovedResponse:
    return shown.MovedResponse(one.id, one.was, one.to, one.day, one.lent, one.back, name_of(one.by), one.note, one.struck_reason)


def _document(one: PumpDocument) -> shown.DocumentResponse:
    at = f"/api/pump-documents/{one.id}"
    return shown.DocumentResponse(one.id, one.name, one.kind, _size(one.size), at, one.at, name_of(one.by), one.struck_reason)


def _parts_moved(pump: Pump) -> list[shown.PartMovedResponse]:
    moves = sorted((*pump.given.all(), *pump.taken.all()), key=lambda one: (one.day, one.at), reverse=True)
    return [
        shown.PartMovedResponse(one.id, moved_said(one, pump), one.day, name_of(one.by), one.note, one.struck_reason)
        for one in moves[:_LINES]
    ]


def moved_said(one: PartMoved, pump: Pump) -> str:
    """A part that moved, as the page of one of its two pumps says it."""
    if one.taker_id == pump.pk:
        return f"{one.part}: came from {one.pump.tag}, where the meter read {grouped(one.hours)}\u00a0h"
    instead = {"new": "a new one took its place", "unknown": "another one took its place", "nothing": "nothing took its place yet"}
    return f"{one.part}: went into {one.taker.tag}; {instead[one.instead]}"


def _movable(pump: Pump) -> list[str]:
    sheet = sheet_now(pump)
    return [] if sheet is None else list(parts_of(pump, sheet))


def _measured(pump: Pump) -> list[shown.MeasuredPart]:
    """The parts a size from before this record can be written down of."""
    sheet = sheet_now(pump)
    if sheet is None:
        return []
    parts = measured(family_now(pump) or sheet.family)
    return [shown.MeasuredPart(one.key, one.number, one.name) for one in parts.values()]


def _visits(found: tuple[Due, ...]) -> list[str]:
    return [
        f"{written(dt.date.fromordinal(group[0].day or 1))}: {', '.join(one.plan.name.lower() for one in group)}, in one visit"
        for group in together(found)
        if len(group) > 1
    ]


def _size(count: int) -> str:
    return f"{count / 1e6:.1f} MB" if count >= 100_000 else f"{max(count / 1000, 0.1):.0f} kB"


def _replaced(row: MeterReading) -> str:
    if row.old_last is None:
        return ""
    return f"meter replaced: the old one ended at {row.old_last} h, this one began at {row.new_first} h"


def _entered(pump: Pump, mark: DecimalMark) -> shown.PumpEntered:
    def typed(value: float | None, unit: str) -> str:
        return "" if value is None else f"{value:.6g} {unit}".replace(".", mark.sign, 1).strip()

    return shown.PumpEntered(
        version=pump.version,
        material=pump.material,
        choices=choices_of(pump.sheet),
        liquid=pump.liquid,
        medium=pump.medium,
        viscosity=pump.viscosity_typed,
        temperature=typed(pump.temperature_c, "C"),
        casing=typed(pump.casing_c, "C"),
        density=typed(pump.density_kg_m3, "kg/m3"),
        start=typed(pump.start_c, "C"),
        hot=typed(pump.hot_c, "C"),
        pressure=typed(pump.pressure_bar, "bar"),
        speed=typed(pump.speed_r_min, "r/min"),
        hazards=pump.hazards,
        overhaul_every="" if pump.overhaul_every_h is None else str(pump.overhaul_every_h),
        hours_per_week=typed(pump.hours_per_week, ""),
        counts=pump.counts,
        per_hour=typed(pump.per_hour, ""),
        build=pump.build,
    )
