"""Readings, singly and in sets, and what was seen on the parts."""

from __future__ import annotations

import datetime as dt
import uuid
from dataclasses import dataclass

from django.contrib.auth.models import User
from django.db import models
from django.utils import timezone

from finegap.bench.facts import family_of, sheet_of
from finegap.bench.models import Job, Look, Reading
from finegap.bench.services.changing import Seen, changing, log, recording
from finegap.core import facts as core
from finegap.core.errors import FieldError
from finegap.core.families.model import Feature, FeatureKind, Station
from finegap.core.gauges import GaugeKind
from finegap.core.materials import MATERIALS
from finegap.core.measuring.feeler import check_pile, interval
from finegap.core.measuring.paste import Pasted, read_set
from finegap.core.measuring.plausible import check_plausible
from finegap.core.quantities import Dimension, Quantity, Sign, parse, said
from finegap.core.showing import Units
from finegap.toolbox.models import Gauge


@dataclass(frozen=True)
class NewReading:
    """A reading as typed: a size, or with ``stops`` the leaf that goes and the one that does not.

    ``part`` is the temperature of a part that is not at 20 C, ``material`` what it is made of where the sheet does not say.
    ``confirmed`` when the technician says an unlikely number is meant.
    """

    id: uuid.UUID
    feature: str
    station: str
    typed: str
    gauge: str
    phase: str = core.Phase.FOUND.value
    stops: str = ""
    part: str = ""
    material: str = ""
    taken: str = "typed"
    confirmed: bool = False


@dataclass(frozen=True)
class NewSet:
    """Readings of one feature pasted from a spreadsheet."""

    id: uuid.UUID
    feature: str
    text: str
    gauge: str
    phase: str = core.Phase.FOUND.value
    confirmed: bool = False


def record_reading(seen: Seen, new: NewReading) -> None:
    """Record one reading as typed and as converted.

    Raises
    ------
    FieldError
        Not a length, unknown feature, station or gauge, a part temperature without a known expansion, or (unless confirmed)
        absurdly far from the new size, or leaves the set does not have.
    """
    with recording(seen, Reading, new.id) as job:
        if job is None:
            return
        feature, station = _place(job, new.feature, new.station)
        gauge = length_gauge(new.gauge)
        quantity = length_typed(new.typed, "leaf that goes" if new.stops else feature.name, seen.unit, feature.kind)
        stops = length_typed(new.stops, "leaf that does not", seen.unit, feature.kind) if new.stops else None
        reading = _reading(job, feature, station, gauge, new.phase, seen.actor)
        reading.id, reading.taken = new.id, new.taken
        reading.typed, reading.unit, reading.value_mm = quantity.typed, quantity.unit, quantity.value
        if stops is not None:
            reading.typed, reading.unit = f"{quantity.said} goes, {stops.said} does not", ""
            reading.value_mm, reading.half_mm = interval(quantity.value, stops.value, feature.name)
        if new.part.strip():
            reading.part_c, reading.expansion_um_m_k = _warm(job, feature, new)
        if not new.confirmed:
            _ask(job, feature, stops or quantity)
            for leaf in filter(None, (quantity if stops else None, stops)):
                check_pile(leaf, gauge.leaves_um, gauge.tag, feature.name)
        reading.out_of_range = not _reaches(gauge, reading)
        reading.save(force_insert=True)
        log(job, seen.actor, f"{feature.name}, {station.label}: {said(reading.typed, reading.unit)}")


def record_set(seen: Seen, new: NewSet) -> None:
    """Record a set of readings pasted from a spreadsheet: all of it, or nothing.

    Raises
    ------
    FieldError
        As for one reading; the row and column are named.
    """
    first = uuid.uuid5(new.id, "0")
    with recording(seen, Reading, first) as job:
        if job is None:
            return
        feature = _measured(job, new.feature)
        gauge = length_gauge(new.gauge)
        sign = Sign.NOT_NEGATIVE if feature.kind.is_gap else Sign.POSITIVE
        rows = read_set(new.text, feature.stations, seen.unit.value, feature.name, sign)
        for i, row in enumerate(rows):
            if not new.confirmed:
                _ask(job, feature, row.quantity)
            _pasted(job, feature, gauge, new, row, i, seen.actor).save(force_insert=True)
        log(job, seen.actor, f"{feature.name}: {len(rows)} readings pasted")


def _pasted(job: Job, feature: Feature, gauge: Gauge, new: NewSet, row: Pasted, index: int, actor: User) -> Reading:
    reading = _reading(job, feature, row.station, gauge, new.phase, actor)
    reading.id, reading.taken = uuid.uuid5(new.id, str(index)), "pasted"
    reading.typed, reading.unit, reading.value_mm = row.quantity.typed, row.quantity.unit, row.quantity.value
    reading.out_of_range = not _reaches(gauge, reading)
    return reading


def _reading(job: Job, feature: Feature, station: Station, gauge: Gauge, phase: str, actor: User) -> Reading:
    now = timezone.now()
    order = (job.readings.aggregate(last=models.Max("order"))["last"] or 0) + 1
    return Reading(
        job=job,
        feature=feature.key,
        phase=core.Phase(phase).value,
        station=station.key,
        gauge=gauge,
        gauge_overdue=overdue(gauge, now),
        order=order,
        by=actor,
        at=now,
    )


def _ask(job: Job, feature: Feature, quantity: Quantity) -> None:
    """Ask about a reading that can hardly be of this feature; without a size on the sheet there is nothing to go by."""
    spec = sheet_of(job).spec(feature.key)
    if spec.new_mm is not None:
        expected = max(spec.limit.upper_mm if spec.limit and spec.limit.upper_mm else 0, spec.new_mm[1])
        check_plausible(quantity, feature.name, expected, feature.kind.is_gap)


def _reaches(gauge: Gauge, reading: Reading) -> bool:
    if GaugeKind(gauge.kind) is GaugeKind.FEELER:
        return reading.value_mm - reading.half_mm <= gauge.high
    return gauge.low <= reading.value_mm <= gauge.high


def _warm(job: Job, feature: Feature, new: NewReading) -> tuple[float, float]:
    """Temperature of the part [C] and its expansion [um/(m K)], from the sheet or as chosen."""
    part = parse(new.part, Dimension.TEMPERATURE, "part temperature", "C").value
    if not _COLDEST_PART_C <= part <= _HOTTEST_PART_C:
        raise FieldError("part temperature", f"nobody measures a part at {part:g} °C.", "Expected −40 to 200 °C.")
    expected = f"Expected: {', '.join(MATERIALS)}."
    expansion = sheet_of(job).spec(feature.key).expansion_um_m_k
    if new.material:
        material = MATERIALS.get(new.material)
        if material is None:
            raise FieldError(
                "material", f"the expansion of {new.material} is not known here.", f"Expected: {', '.join(MATERIALS)}."
            )
        expansion = material.expansion_um_m_k
    if expansion is None:
        raise FieldError("material", "the sheet does not say what this part is made of.", expected)
    return part, expansion


_COLDEST_PART_C, _HOTTEST_PART_C = -40.0, 200.0


def look_at(seen: Seen, look_id: uuid.UUID, feature: str, damages: list[str], note: str = "", phase: str = "found") -> None:
    """Record what was seen on a part; no damage means that it is sound.

    Raises
    ------
    FieldError
        A feature without damage to choose, or a damage it does not have.
    """
    with recording(seen, Look, look_id) as job:
        if job is None:
            return
        part = family_of(job).by_key.get(feature)
        if part is None or not part.damages:
            raise FieldError("feature", f"“{feature}” is not looked at.", "Expected a part that can be damaged.")
        known = {d.key: d.name for d in part.damages}
        unknown = next((d for d in damages if d not in known), None)
        if unknown is not None:
            raise FieldError("damage", f"“{unknown}” is not one of {part.name.lower()}.", f"Expected: {', '.join(known)}.")
        when = core.Phase(phase).value
        job.looks.filter(feature=feature, phase=when).delete()
        kept = [d for d in known if d in damages]
        Look.objects.create(
            id=look_id, job=job, feature=feature, phase=when, damages=kept, note=note.strip(), by=seen.actor, at=timezone.now()
        )
        words = ", ".join(known[d] for d in kept) or "sound"
        log(job, seen.actor, f"{part.name}: {words}" + (f" ({note.strip()})" if note.strip() else ""))


def strike_reading(seen: Seen, reading_id: uuid.UUID, reason: str) -> None:
    """Strike out a reading with a reason. It stays on the sheet and no longer counts."""
    if not reason.strip():
        raise FieldError("reason", "say why it is struck out.", "Expected a few words, such as “slipped off the edge”.")
    with changing(seen) as job:
        reading = job.readings.filter(id=reading_id, struck_at__isnull=True).first()
        if reading is None:
            raise FieldError("reading", "it is not there, or struck out already.", "Expected a reading of this job.")
        reading.struck_by, reading.struck_at, reading.struck_reason = seen.actor, timezone.now(), reason.strip()
        reading.save(update_fields=["struck_by", "struck_at", "struck_reason"])
        log(job, seen.actor, f"Struck out {said(reading.typed, reading.unit)} of {reading.feature}: {reason.strip()}")


def _measured(job: Job, feature_key: str) -> Feature:
    feature = family_of(job).by_key.get(feature_key)
    if feature is None or not feature.stations:
        raise FieldError("feature", f"“{feature_key}” is not measured by itself.", "Expected a feature with stations.")
    return feature


def _place(job: Job, feature_key: str, station_key: str) -> tuple[Feature, Station]:
    feature = _measured(job, feature_key)
    station = next((s for s in feature.stations if s.key == station_key), None)
    if station is None:
        known = ", ".join(s.key for s in feature.stations)
        raise FieldError("station", f"{feature.name} has no station “{station_key}”.", f"Expected one of: {known}.")
    return feature, station


def length_typed(typed: str, name: str, unit: Units, kind: FeatureKind) -> Quantity:
    """A length as typed; only a gap may be nothing."""
    sign = Sign.NOT_NEGATIVE if kind.is_gap else Sign.POSITIVE
    return parse(typed, Dimension.LENGTH, name, unit.value, sign)


def _gauge(tag: str) -> Gauge:
    gauge = Gauge.objects.filter(tag=tag).first()
    if gauge is None:
        raise FieldError("gauge", f"there is no gauge {tag or '(none)'}.", "Expected one from the toolbox.")
    return gauge


def length_gauge(tag: str) -> Gauge:
    """A gauge that can measure a part."""
    gauge = _gauge(tag)
    if GaugeKind(gauge.kind).dimension is not Dimension.LENGTH:
        raise FieldError("gauge", f"{tag} is a {gauge.kind}: it measures no length.", "Expected a gauge for sizes or gaps.")
    return gauge


def overdue(gauge: Gauge, now: dt.datetime) -> bool:
    """Whether its certificate had run out."""
    return gauge.due < timezone.localdate(now)
