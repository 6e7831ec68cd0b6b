"""The only place that changes a job: who, a transaction, the core, the record, the log.

Every change names the ``version`` of the job it was made from. If somebody saved in between it is refused with what they did,
so nothing is overwritten silently. Records carry an identity made by the client: a retry is the same record, not a second one.
"""

from __future__ import annotations

import datetime as dt
import uuid
from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field

from django.contrib.auth.models import User
from django.db import models, transaction
from django.utils import timezone

from finegap.bench.facts import core_gauge, load, name_of, sheet_of
from finegap.bench.models import Decision, Event, Job, Reading, Recorded, SignOff, StepMark, Try
from finegap.core import VERSION
from finegap.core import job as core
from finegap.core.errors import FieldError
from finegap.core.families.model import Feature, FeatureKind, Stage, Station
from finegap.core.gap.housing import Zero
from finegap.core.gap.move import Way
from finegap.core.gap.setting import Check, feeler_check
from finegap.core.measuring import readings as measuring
from finegap.core.measuring.plausible import check_plausible
from finegap.core.quantities import Dimension, Quantity, Sign, parse, said
from finegap.core.sheet import GasketMeans, HousingMeans, read_sheet
from finegap.core.showing import Units
from finegap.fleet.models import Pump
from finegap.site.errors import Conflict, ReadOnly, Refused
from finegap.site.plain import plain
from finegap.toolbox.models import GasketStock, Gauge


@dataclass(frozen=True)
class Seen:
    """From which version of which job a change is made, by whom, and the unit a bare number is in."""

    actor: User
    number: int
    version: int
    unit: Units = Units.MM


@dataclass(frozen=True)
class NewReading:
    """A reading as typed. ``confirmed`` when the technician says an unlikely number is meant."""

    id: uuid.UUID
    feature: str
    station: str
    typed: str
    gauge: str
    phase: str = core.Phase.FOUND.value
    confirmed: bool = False


@dataclass(frozen=True)
class NewTry:
    """A try as typed: an arc and its way, or a stack; and a feeler pair, or a reading with a gauge."""

    id: uuid.UUID
    arc: str = ""
    way: str = Way.OPEN.value
    stack_um: list[int] = field(default_factory=list)
    goes: str = ""
    stops: str = ""
    read: str = ""
    gauge: str = ""
    confirmed: bool = False


def open_job(actor: User, pump_tag: str, reason: str, hours_run: str = "") -> Job:
    """Open a job on a pump, to the latest revision of its sheet and its duty as it stands.

    Raises
    ------
    FieldError
        No such pump, no reason given, or hours that are no count.
    Refused
        The pump already has an unsigned job, or its sheet no revision.
    """
    if not pump_tag:
        raise FieldError("pump", "none was chosen.", "Expected one from the list.")
    if not reason.strip():
        raise FieldError("reason", "say why the pump came in.", "Expected a few words: the symptom, or “planned overhaul”.")
    with transaction.atomic():
        pump = Pump.objects.select_related("sheet").filter(tag=pump_tag).first()
        if pump is None:
            raise FieldError("pump", f"there is no pump {pump_tag}.", "Expected a tag from Fleet.")
        already = Job.objects.filter(pump=pump, sign_off__isnull=True).first()
        if already:
            raise Refused(f"{pump.tag} is already on the bench.", [f"Job {already.number} is not signed yet."])
        revision = pump.sheet.revisions.first()
        if revision is None:
            raise Refused(f"The sheet {pump.sheet} has no revision yet.")
        last = Job.objects.aggregate(last=models.Max("number"))["last"] or 0
        means = read_sheet(revision.content).means
        job = Job.objects.create(
            number=last + 1,
            pump=pump,
            revision=revision,
            opened_by=actor,
            opened_at=timezone.now(),
            reason=reason.strip(),
            hours_run=_hours(hours_run),
            lash_mm=means.lash_mm if isinstance(means, HousingMeans) else 0.0,
            **pump.duty(),
        )
        Event.objects.create(job=job, version=1, by=actor, at=job.opened_at, what=f"Job opened: {job.reason}")
        return job


def _hours(typed: str) -> int | None:
    """Running hours as read from a meter: digits, with spaces between thousands at most; empty where not known."""
    digits = typed.replace(" ", "")
    if not digits:
        return None
    if not (digits.isascii() and digits.isdigit() and len(digits) <= _MOST_HOUR_DIGITS):
        raise FieldError("hours run", f"“{typed}” is no count of hours.", "Expected digits, such as 14380; or leave it empty.")
    return int(digits)


_MOST_HOUR_DIGITS = 7


def mark_step(seen: Seen, mark_id: uuid.UUID, step_key: str) -> None:
    """Mark a step done, or a caution acknowledged, by name and time."""
    with _recording(seen, StepMark, mark_id) as job:
        if job is None:
            return
        step = next((s for s in sheet_of(job).family.steps if s.key == step_key), None)
        if step is None:
            raise FieldError("step", f"there is no step {step_key}.", "Expected a step of this family.")
        if not job.steps.filter(step=step_key).exists():
            StepMark.objects.create(id=mark_id, job=job, step=step_key, by=seen.actor, at=timezone.now())
            _log(job, seen.actor, f"Done: {step.text}")


def clear_step(seen: Seen, step_key: str) -> None:
    """Take back a step marked by mistake; the log keeps both."""
    with _changing(seen) as job:
        if job.steps.filter(step=step_key).delete()[0]:
            _log(job, seen.actor, f"Taken back: {step_key}")


def record_reading(seen: Seen, new: NewReading) -> None:
    """Record one reading as typed and as converted.

    Raises
    ------
    FieldError
        Not a length, unknown feature, station or gauge, or (unless confirmed) absurdly far from the new size.
    """
    with _recording(seen, Reading, new.id) as job:
        if job is None:
            return
        feature, station = _place(job, new.feature, new.station)
        quantity = _length(new.typed, feature.name, seen.unit, feature.kind)
        if not new.confirmed:
            spec = sheet_of(job).features[feature.key]
            expected = max(spec.limit.upper_mm if spec.limit and spec.limit.upper_mm else 0, spec.new_mm[1])
            check_plausible(quantity, feature.name, expected, feature.kind is FeatureKind.GAP)
        gauge = _gauge(new.gauge)
        now = timezone.now()
        Reading.objects.create(
            id=new.id,
            job=job,
            feature=feature.key,
            phase=core.Phase(new.phase).value,
            station=station.key,
            typed=quantity.typed,
            unit=quantity.unit,
            value_mm=quantity.value,
            gauge=gauge,
            gauge_overdue=_overdue(gauge, now),
            order=job.version,
            by=seen.actor,
            at=now,
        )
        _log(job, seen.actor, f"{feature.name}, {station.label}: {quantity.said}")


def strike_reading(seen: Seen, reading_id: uuid.UUID, reason: str) -> None:
    """Strike out a reading with a reason. It stays on the sheet and no longer counts."""
    if not reason.strip():
        raise FieldError("reason", "say why it is struck out.", "Expected a few words, such as “slipped off the edge”.")
    with _changing(seen) as job:
        reading = job.readings.filter(id=reading_id, struck_at__isnull=True).first()
        if reading is None:
            raise FieldError("reading", "it is not there, or struck out already.", "Expected a reading of this job.")
        reading.struck_by, reading.struck_at, reading.struck_reason = seen.actor, timezone.now(), reason.strip()
        reading.save(update_fields=["struck_by", "struck_at", "struck_reason"])
        _log(job, seen.actor, f"Struck out {said(reading.typed, reading.unit)} of {reading.feature}: {reason.strip()}")


def decide(seen: Seen, decision_id: uuid.UUID, feature: str, decided: str, reason: str = "") -> None:
    """Decide keep or change for a feature.

    Raises
    ------
    FieldError
        Against the verdict without a reason.
    """
    with _recording(seen, Decision, decision_id) as job:
        if job is None:
            return
        wanted = core.Decided(decided)
        state = next((f for f in core.assess(load(job).facts).features if f.feature.key == feature), None)
        if state is None:
            raise FieldError("feature", f"there is no feature {feature}.", "Expected a feature of this family.")
        call = state.found_verdict.call.value if state.found_verdict else "not measured"
        if core.reason_needed(state.found_verdict, wanted) and not reason.strip():
            raise FieldError("reason", f"{wanted.value} goes against the verdict “{call}”.", "Expected the reason, in a few words.")
        job.decisions.filter(feature=feature).delete()
        Decision.objects.create(
            id=decision_id,
            job=job,
            feature=feature,
            decided=wanted.value,
            verdict=call,
            reason=reason.strip(),
            by=seen.actor,
            at=timezone.now(),
        )
        _log(job, seen.actor, f"{state.feature.name}: {wanted.value} (verdict {call}) {reason.strip()}".strip())


def set_zero(seen: Seen, school: str, lash: str) -> None:
    """Say that zero is found, by which school, and the play if not the sheet's. After tries only the play can change."""
    with _changing(seen) as job:
        if school != job.zero_school and job.tries.exists():
            raise Refused("The gap has been tried from this zero already.", ["How zero was found stands as it was."])
        if lash:
            job.lash_mm = parse(lash, Dimension.LENGTH, "play (lash)", seen.unit.value, Sign.NOT_NEGATIVE).value
        if job.lash_mm > _MOST_LASH_MM:
            raise FieldError("play (lash)", f"{job.lash_mm:g} mm is not play, it is damage.", "Expected up to 1 mm.")
        try:
            job.zero_school = Zero(school).value
        except ValueError:
            expected = " or ".join(z.value for z in Zero)
            raise FieldError("school", f"“{school}” is not a way to find zero.", f"Expected: {expected}.") from None
        job.save(update_fields=["zero_school", "lash_mm"])
        _log(job, seen.actor, f"Zero by {job.zero_school}, play {job.lash_mm:.3f} mm")


_MOST_LASH_MM = 1.0


def record_try(seen: Seen, new: NewTry) -> None:
    """Record a try at the gap. For gaskets the shelf gives and takes what was put in and taken out.

    Raises
    ------
    FieldError
        Readings that cannot be, a stack of nothing, or more gaskets than the shelf has.
    Refused
        Zero has not been found; or the stack stays the same and nothing was checked.
    """
    with _recording(seen, Try, new.id) as job:
        if job is None:
            return
        sheet = sheet_of(job)
        setting = core.assess(load(job).facts).setting
        if setting is None:
            raise Refused("There is no end clearance to set to.", ["No row of the clearance table matches this duty."])
        gauge = _gauge(new.gauge) if new.gauge or new.read else None
        typed = {
            name: _length(text, label, seen.unit, FeatureKind.GAP) if text else None
            for name, text, label in (
                ("goes", new.goes, "leaf that goes"),
                ("stops", new.stops, "leaf that does not"),
                ("read", new.read, "end clearance"),
            )
        }
        if not new.confirmed:
            for quantity in filter(None, typed.values()):
                check_plausible(quantity, "end clearance", setting.window.high_mm, is_gap=True)
        check = _check(typed["goes"], typed["stops"], typed["read"], gauge)
        gaskets = isinstance(sheet.means, GasketMeans)
        arc = _arc(job, new, seen.unit) if not gaskets else None
        stack = _take_stack(job, new.stack_um) if gaskets else []
        now = timezone.now()
        number = len(setting.tries) + 1
        Try.objects.create(
            id=new.id,
            job=job,
            number=number,
            arc_mm=arc.value * (-1 if new.way == Way.CLOSE.value else 1) if arc else None,
            arc_typed=arc.said if arc else "",
            stack_um=stack,
            **{f"{name}_typed": quantity.said if quantity else "" for name, quantity in typed.items()},
            value_mm=check.value_mm,
            u_mm=check.u_mm,
            dof=None if check.dof == float("inf") else check.dof,
            gauge=gauge,
            gauge_overdue=gauge is not None and _overdue(gauge, now),
            by=seen.actor,
            at=now,
        )
        _log(job, seen.actor, f"Try {number}: gap {check.value_mm:.3f} mm{_unprove(job)}")


def _unprove(job: Job) -> str:
    """A gap that was moved has to be proved again: what Prove had ticked no longer stands. Words for the log."""
    proved = [step.key for step in sheet_of(job).family.steps_of(Stage.PROVE)]
    taken_back, _ = job.steps.filter(step__in=proved).delete()
    return "; to be proved again" if taken_back else ""


def sign_off(seen: Seen, sign_id: uuid.UUID, is_lead: bool, reason: str = "") -> None:
    """Sign the job: freeze what is shown, in both unit systems, with the version of the core. From then on it is read-only.

    Raises
    ------
    Refused
        Something blocks it; the reasons say what. A lead may sign past some of them.
    FieldError
        A lead signing past a blocker without a written reason.
    """
    from finegap.bench.queries import job_shape

    with _recording(seen, SignOff, sign_id) as job:
        if job is None:
            return
        blockers = core.assess(load(job).facts).blockers
        hard = [b for b in blockers if not (b.lead_may and is_lead)]
        if hard:
            reasons = [b.sentence.render(seen.unit) + (" A lead may sign with a reason." if b.lead_may else "") for b in hard]
            raise Refused("This job cannot be signed yet.", reasons)
        if blockers and not reason.strip():
            raise FieldError("reason", "a lead signs past what is open only with a reason.", "Expected it in writing.")
        now = timezone.now()
        signature = SignOff(id=sign_id, job=job, by=seen.actor, at=now, reason=reason.strip(), core_version=VERSION, record={})
        _log(job, seen.actor, "Signed off" + (f": {reason.strip()}" if reason.strip() else ""))
        signature.record = {u.value: plain(job_shape(job, u, signature)) for u in Units}
        signature.save(force_insert=True)


@contextmanager
def _changing(seen: Seen) -> Iterator[Job]:
    """A transaction on an unsigned job, at the version that was seen."""
    with transaction.atomic():
        job = _job(seen.number)
        _check_open(job, seen)
        yield job


@contextmanager
def _recording(seen: Seen, kind: type[Recorded], record_id: uuid.UUID) -> Iterator[Job | None]:
    """As ``_changing``, for a record with an identity: ``None`` when this very record is already there."""
    with transaction.atomic():
        job = _job(seen.number)
        existing = kind._default_manager.filter(id=record_id).first()
        if existing is None:
            _check_open(job, seen)
            yield job
            return
        if existing.job_id != job.id:  # type: ignore[attr-defined]
            raise FieldError("id", "this identity is taken by another job.", "Expected a fresh one for each record.")
        yield None


def _job(number: int) -> Job:
    job = Job.objects.select_related("pump", "revision__sheet", "opened_by").filter(number=number).first()
    if job is None:
        raise FieldError("job", f"there is no job {number}.", "Expected a number from the list.")
    return job


def _check_open(job: Job, seen: Seen) -> None:
    if SignOff.objects.filter(job=job).exists():
        raise ReadOnly
    if job.version != seen.version:
        raise Conflict(_since(job, seen.version))


def _since(job: Job, version: int) -> list[str]:
    events = job.events.filter(version__gt=version).select_related("by")
    return [f"{name_of(e.by)}: {e.what}" for e in events]


def _log(job: Job, actor: User, what: str) -> None:
    job.version += 1
    job.save(update_fields=["version"])
    Event.objects.create(job=job, version=job.version, by=actor, at=timezone.now(), what=what[:400])


def _place(job: Job, feature_key: str, station_key: str) -> tuple[Feature, Station]:
    feature = sheet_of(job).family.by_key.get(feature_key)
    if feature is None or not feature.stations:
        raise FieldError("feature", f"“{feature_key}” is not measured by itself.", "Expected a feature with stations.")
    station = next((s for s in feature.stations if s.key == station_key), None)
    if station is None:
        known = ", ".join(s.key for s in feature.stations)
        raise FieldError("station", f"{feature.name} has no station “{station_key}”.", f"Expected one of: {known}.")
    return feature, station


def _length(typed: str, name: str, unit: Units, kind: FeatureKind) -> Quantity:
    sign = Sign.NOT_NEGATIVE if kind is FeatureKind.GAP else Sign.POSITIVE
    return parse(typed, Dimension.LENGTH, name, unit.value, sign)


def _gauge(tag: str) -> Gauge:
    gauge = Gauge.objects.filter(tag=tag).first()
    if gauge is None:
        raise FieldError("gauge", f"there is no gauge {tag or '(none)'}.", "Expected one from the toolbox.")
    return gauge


def _overdue(gauge: Gauge, now: dt.datetime) -> bool:
    return gauge.due < timezone.localdate(now)


def _check(goes: Quantity | None, stops: Quantity | None, read: Quantity | None, gauge: Gauge | None) -> Check:
    if read is not None and gauge is not None:
        reading = measuring.Reading("gap", "", read.value, core_gauge(gauge))
        result = measuring.summarize([reading], measuring.Statistic.AS_MEASURED, "End clearance")
        return Check(result.value_mm, result.u_mm, result.dof)
    for leaf, name in ((goes, "leaf that goes"), (stops, "leaf that does not")):
        if leaf is None:
            raise FieldError(name, "nothing was entered.", "Expected a leaf's thickness, or a reading by another gauge.")
    assert goes is not None
    assert stops is not None
    return feeler_check(goes.value, stops.value)[0]


def _arc(job: Job, new: NewTry, unit: Units) -> Quantity:
    if not job.zero_school:
        raise Refused("Zero has not been found yet.", ["Find zero first, and say by which school."])
    return parse(new.arc, Dimension.LENGTH, "arc", unit.value, Sign.NOT_NEGATIVE)


def _take_stack(job: Job, stack: list[int]) -> list[int]:
    """Move gaskets between shelf and pump; the shelf never goes below nothing."""
    if not stack or any(t <= 0 for t in stack):
        raise FieldError("stack", "there is no gasket in it.", "Expected one gasket or more: it seals.")
    last = job.tries.last()
    needed = Counter(stack)
    needed.subtract(Counter(last.stack_um if last else []))
    for thickness, count in needed.items():
        if not count:
            continue
        line, _ = GasketStock.objects.get_or_create(sheet=job.revision.sheet, thickness_um=thickness, defaults={"count": 0})
        if line.count < count:
            raise FieldError(
                "stack", f"{count} more of {thickness / 1000:g} mm, but the shelf has {line.count}.", "Expected gaskets from stock."
            )
        line.count -= count
        line.save(update_fields=["count"])
    return sorted(stack, reverse=True)
