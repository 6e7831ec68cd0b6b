"""Readings, singly and in sets, and what was seen on the parts."""

from __future__ import annotations

import datetime as dt
import uuid
from collections.abc import Callable
from dataclasses import replace

from django.db import models
from django.utils import timezone

from finegap.bench.as_core import core_choice
from finegap.bench.changes import LookAt, RecordReading, RecordSet, Taken
from finegap.bench.models import Job, Look, Reading
from finegap.bench.records import family_of, sheet_of
from finegap.bench.services.changing import JobInHand, JobRef, changes, first_of
from finegap.core import job_record as core
from finegap.core.entry import FIELDS, Entry
from finegap.core.errors import FieldError, Unlikely
from finegap.core.families.features import Feature, FeatureKind, Station
from finegap.core.formatting import length
from finegap.core.gauges import GaugeKind
from finegap.core.materials import part_expansion, warm_part
from finegap.core.measuring.feeler import check_pile, interval
from finegap.core.measuring.plausible import check_plausible, plausible
from finegap.core.measuring.temperature import Warm
from finegap.core.measuring.verdict import Verdict
from finegap.core.numerals import DecimalMark
from finegap.core.paste import Pasted, read_set
from finegap.core.quantities import AllowedSign, Quantity, said
from finegap.core.units import Dimension
from finegap.inventory.models import Gauge


@changes(lambda new, now: f"feature:{new.feature}", Reading)
def record_reading(now: JobInHand, new: RecordReading) -> None:
    """Record one reading as typed and as converted.

    Raises
    ------
    FieldError
        Not a length, unknown feature, station or gauge, a part temperature without a known expansion, or a number with two
        meanings.
    Unlikely
        Unless it is said to be meant: absurdly far from the new size, leaves the set does not have, a clearance below zero, or a
        new part away from its new size.
    """
    job, ref = now.job, now.ref
    feature, station = _place(job, new.feature, new.station)
    gauge = length_gauge(new.gauge)
    entry = _as_sent(ref.entry, gauge, new.taken)
    possible = _possible(job, feature)
    quantity = length_typed(new.typed, "leaf that goes" if new.stops else feature.name, entry, feature.kind, possible)
    stops = length_typed(new.stops, "leaf that does not", entry, feature.kind, possible) if new.stops else None
    reading = _reading(job, feature, station, gauge, new.phase, ref)
    reading.id, reading.taken, reading.reason = new.id, new.taken.value, new.reason.strip()
    reading.typed, reading.unit, reading.value_mm = quantity.typed, quantity.unit, quantity.value
    reading.understood = "; ".join(q.understood for q in (quantity, stops) if q and q.understood)
    if stops is not None:
        reading.typed, reading.unit = f"{quantity.said} goes, {stops.said} does not", ""
        reading.value_mm, reading.half_mm = interval(quantity.value, stops.value, feature.name)
    if new.part.strip():
        warm = _warm(job, feature, new, entry)
        reading.part_c, reading.expansion_um_m_k = warm.part_c, warm.expansion_um_m_k
    if not entry.meant:
        _ask(job, feature, stops or quantity, entry)
        for leaf in filter(None, (quantity if stops else None, stops)):
            check_pile(leaf, gauge.now.leaves_um, gauge.tag, feature.name)
    reading.out_of_range = not _reaches(gauge, reading)
    reading.save(force_insert=True)
    _ask_the_rest(now, [reading])
    now.log(f"{feature.name}, {station.label}: {_said(reading)}")


@changes(lambda new, now: f"feature:{new.feature}", Reading, first_of)
def record_set(now: JobInHand, new: RecordSet) -> None:
    """Record a set of readings pasted from a spreadsheet: all of it, or nothing.

    Raises
    ------
    FieldError
        As for one reading; the row and column are named.
    """
    job, ref = now.job, now.ref
    feature = _measured(job, new.feature)
    gauge = length_gauge(new.gauge)
    sign = AllowedSign.NOT_NEGATIVE if feature.kind.is_gap else AllowedSign.POSITIVE
    entry, possible = ref.entry, _possible(job, feature)
    rows = read_set(new.text, feature.stations, entry.unit(Dimension.LENGTH), feature.name, sign, entry.mark, possible)
    pasted = []
    for i, row in enumerate(rows):
        if not entry.meant:
            _ask(job, feature, row.quantity, entry)
        pasted.append(_pasted(job, feature, gauge, new, row, i, ref))
        pasted[-1].save(force_insert=True)
    _ask_the_rest(now, pasted)
    now.log(f"{feature.name}: {len(rows)} readings pasted")


def _as_sent(entry: Entry, gauge: Gauge, taken: Taken) -> Entry:
    """How it was typed. A gauge with a decimal mark of its own writes that one; the receiver writes a point."""
    if gauge.mark:
        return replace(entry, mark=DecimalMark(gauge.mark))
    return replace(entry, mark=DecimalMark.POINT) if taken is Taken.RECEIVER else entry


def _said(reading: Reading) -> str:
    """A reading as typed and, where it had two meanings, as understood."""
    return said(reading.typed, reading.unit) + (f" (read as {reading.understood})" if reading.understood else "")


def _pasted(job: Job, feature: Feature, gauge: Gauge, new: RecordSet, row: Pasted, index: int, ref: JobRef) -> Reading:
    reading = _reading(job, feature, row.station, gauge, new.phase, ref)
    reading.id, reading.taken, reading.reason = uuid.uuid5(new.id, str(index)), "pasted", new.reason.strip()
    reading.typed, reading.unit, reading.value_mm = row.quantity.typed, row.quantity.unit, row.quantity.value
    reading.understood = row.quantity.understood
    reading.out_of_range = not _reaches(gauge, reading)
    return reading


def _reading(job: Job, feature: Feature, station: Station, gauge: Gauge, phase: core.Phase, ref: JobRef) -> Reading:
    order = (job.readings.aggregate(last=models.Max("order"))["last"] or 0) + 1
    return Reading(
        job=job,
        feature=feature.key,
        phase=phase.value,
        station=station.key,
        gauge=gauge,
        certificate=gauge.now,
        gauge_overdue=overdue(gauge, ref.moment),
        order=order,
        made=job.version + 1,
        **ref.stamp,
    )


def _expected_mm(job: Job, feature: Feature) -> float | None:
    """The size a feature has about [mm]. ``None`` where the sheet gives no size."""
    spec = sheet_of(job).spec(feature.key)
    if spec.new_mm is None:
        return None
    return max(spec.limit.upper_mm if spec.limit and spec.limit.upper_mm else 0, spec.new_mm[1])


def _possible(job: Job, feature: Feature) -> Callable[[float], bool] | None:
    expected = _expected_mm(job, feature)
    return None if expected is None else plausible(expected, feature.kind.is_gap)


def _ask(job: Job, feature: Feature, quantity: Quantity, entry: Entry) -> None:
    """Ask about a reading that can hardly be of this feature."""
    expected = _expected_mm(job, feature)
    if expected is not None:
        check_plausible(quantity, feature.name, expected, feature.kind.is_gap, entry.mark)


def _ask_the_rest(now: JobInHand, readings: list[Reading]) -> None:
    """Asks about what only shows beside other sizes or beside the decision. The transaction is rolled back until it is meant.

    Raises
    ------
    Unlikely
        A clearance below zero; or a new part that is not near its one new size, without a reason.
    """
    feature, phase = readings[0].feature, core.Phase(readings[0].phase)
    if phase is core.Phase.FOUND and not _may_be_below_zero(now.job, feature):
        return
    ref, states = now.ref, {state.feature.key: state for state in now.after.assessment.features}
    state, meant = states[feature], ref.entry.meant
    for pair in states.values():
        clearance = pair.left if phase is core.Phase.LEFT else pair.found
        if not meant and feature in (pair.feature.bore, pair.feature.shaft) and clearance and clearance.value_mm < 0:
            shown = length(clearance.value_mm, fine=True).text(ref.unit)
            raise Unlikely(state.feature.name, f"{pair.feature.name} would be {shown}.", "Is it a reading of this part?")
    if phase is core.Phase.LEFT and state.not_new is not None:
        outside = state.left_judgement is not None and state.left_judgement.verdict is Verdict.CHANGE
        words = state.not_new.render(ref.unit)
        if not meant:
            hint = "Is it meant?" if outside else "If it is meant, say why."
            raise Unlikely(state.feature.name, words, hint, reason_wanted=not outside)
        if not outside:
            raise Unlikely(state.feature.name, words, "It is not kept without a reason.", reason_wanted=True)


def _may_be_below_zero(job: Job, feature: str) -> bool:
    """Whether a pair with this feature could come out below zero: a look at the bare numbers, before anything is worked out."""
    pairs = [(f.bore, f.shaft) for f in family_of(job).features if feature in (f.bore, f.shaft)]
    if not pairs:
        return False
    rows = job.readings.filter(feature__in={key for pair in pairs for key in pair}, struck_reason="")
    sizes: dict[str, list[float]] = {}
    for key, value, warm in rows.values_list("feature", "value_mm", "part_c"):
        if warm is not None:
            return True
        sizes.setdefault(key, []).append(value)
    return any(bore in sizes and shaft in sizes and min(sizes[bore]) <= max(sizes[shaft]) for bore, shaft in pairs)


def _reaches(gauge: Gauge, reading: Reading) -> bool:
    return core_choice(gauge).reaches(reading.value_mm, reading.half_mm)


def _warm(job: Job, feature: Feature, new: RecordReading, entry: Entry) -> Warm:
    """The temperature of the part as typed, and its expansion, from the sheet or as chosen."""
    quantity = entry.quantity(new.part, Dimension.TEMPERATURE, "part temperature")
    part = warm_part(quantity.value, part_expansion(new.material, sheet_of(job).spec(feature.key).expansion))
    entry.check_usual(quantity, "part temperature", FIELDS["part"].usual)
    return part


@changes(lambda new, now: f"feature:{new.feature}", Look)
def look_at(now: JobInHand, new: LookAt) -> None:
    """Record what was seen on a part; no damage means that it is sound.

    Raises
    ------
    FieldError
        A feature without damage to choose, or a damage it does not have.
    """
    job, note = now.job, new.note.strip()
    part = family_of(job).by_key.get(new.feature)
    if part is None or not part.damages:
        raise FieldError("feature", f"“{new.feature}” is not looked at.", "Expected a part that can be damaged.")
    known = {d.key: d.name for d in part.damages}
    unknown = next((d for d in new.damages if d not in known), None)
    if unknown is not None:
        raise FieldError("damage", f"“{unknown}” is not one of {part.name.lower()}.", f"Expected: {', '.join(known)}.")
    job.looks.filter(feature=new.feature, phase=new.phase.value).delete()
    kept = [d for d in known if d in new.damages]
    Look.objects.create(id=new.id, job=job, feature=new.feature, phase=new.phase.value, damages=kept, note=note, **now.ref.stamp)
    words = ", ".join(known[d] for d in kept) or "sound"
    now.log(f"{part.name}: {words}" + (f" ({note})" if note else ""))


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


def length_typed(
    typed: str, name: str, entry: Entry, kind: FeatureKind, possible: Callable[[float], bool] | None = None
) -> Quantity:
    """A length as typed; only a gap may be nothing. Of two meanings the one that is ``possible`` is taken."""
    sign = AllowedSign.NOT_NEGATIVE if kind.is_gap else AllowedSign.POSITIVE
    return entry.quantity(typed, Dimension.LENGTH, name, sign, possible)


def _gauge(tag: str) -> Gauge:
    gauge = Gauge.objects.filter(tag=tag).first()
    if gauge is None:
        raise FieldError("gauge", f"there is no gauge {tag or '(none)'}.", "Expected one from the toolbox.")
    if gauge.retired:
        raise FieldError("gauge", f"{tag} is retired.", "Expected one in use.")
    return gauge


def length_gauge(tag: str) -> Gauge:
    """A gauge that can measure a part."""
    gauge = _gauge(tag)
    if GaugeKind(gauge.kind).dimension is not Dimension.LENGTH:
        raise FieldError("gauge", f"{tag} is a {gauge.kind}: it measures no length.", "Expected a gauge for sizes or gaps.")
    return gauge


def overdue(gauge: Gauge, at: dt.datetime) -> bool:
    """Whether its certificate had run out."""
    return gauge.now.due < timezone.localdate(at)
