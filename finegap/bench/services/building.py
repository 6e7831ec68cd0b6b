"""Stacks part by part, the log of torques, and what is on the bench."""

from __future__ import annotations

import uuid
from dataclasses import dataclass

from finegap.bench.models import Job, NewPart, PartFitted, TorqueMark
from finegap.bench.records import load
from finegap.bench.services.changing import JobRef, changing, log, recording
from finegap.bench.services.measuring import overdue
from finegap.core.assembly.elastomers import MEDIA
from finegap.core.assembly.torque import Adapter
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Kind, Units
from finegap.core.gauges import GaugeKind
from finegap.core.job import assess
from finegap.core.job_tasks import JobTasks
from finegap.core.tasks.stack import StackTask
from finegap.core.tasks.torque import TorqueTask
from finegap.inventory.models import Gauge, GreaseGun


@dataclass(frozen=True)
class NewTorque:
    """A torque as typed. ``typed`` is what the wrench was set to; its length, and the adapter's, where there was one."""

    id: uuid.UUID
    fastener: str
    pass_number: int
    bolts: list[int]
    typed: str
    wrench: str
    wrench_length: str = ""
    adapter: str = ""
    angle: str = ""


def fit_part(
    ref: JobRef, fit_id: uuid.UUID, place: str, part_key: str, confirmed: bool, reused: bool = False, reason: str = ""
) -> None:
    """Tick a part of a stack: in its turn, its direction confirmed.

    Raises
    ------
    FieldError
        What the stack's own check says.
    """
    with recording(ref, PartFitted, fit_id, (place, part_key, confirmed, reused, reason), f"stack:{place}") as job:
        if job is None:
            return
        task = _tasks(job).of_kind(StackTask).get(place)
        if task is None:
            raise FieldError("stack", f"nothing is stacked at {place} in this job.", "Expected a stack of Build.")
        state = task.state
        part = state.check(part_key, confirmed, reused, reason, ref.unit)
        directions = "; ".join(state.stack.directions(part))
        PartFitted.objects.create(
            id=fit_id, job=job, stack=state.stack.key, part=part.key, reused=reused, reason=reason.strip(),
            directions=directions, **ref.stamp,
        )  # fmt: skip
        words = [f"{'Used again' if reused else 'Fitted'}: {part.name}", directions, reason.strip()]
        log(job, ref, "; ".join(w for w in words if w))


def log_torque(ref: JobRef, new: NewTorque) -> None:
    """Log what fasteners got, and with which wrench.

    Raises
    ------
    FieldError
        No such fastener in this job, not a torque wrench, a setting outside its range, an adapter that cannot be, or what the
        order and range of the pass say.
    """
    with recording(ref, TorqueMark, new.id, new, f"torque:{new.fastener}") as job:
        if job is None:
            return
        task = _tasks(job).of_kind(TorqueTask).get(new.fastener)
        if task is None:
            raise FieldError("fastener", f"{new.fastener} is not tightened in this job.", "Expected a fastener of Build.")
        tightening = task.tightening
        wrench = _wrench(new.wrench)
        quantity = ref.entry.read("torque", new.typed)
        if not wrench.now.low <= quantity.value <= wrench.now.high:
            raise FieldError("torque", f"{wrench.tag} does not reach {quantity.said}.", f"Expected {_span(wrench, ref.unit)}.")
        usual = (_LEAST_OF_TORQUE * tightening.torque.low_n_m, _MOST_OF_TORQUE * tightening.torque.high_n_m)
        ref.entry.check_usual(quantity, "torque", usual)
        adapter = _adapter(new, ref.entry)
        at_nut = quantity.value / (adapter.share if adapter else 1.0)
        tightening.check(new.pass_number, new.bolts, at_nut, ref.unit)
        TorqueMark.objects.create(
            id=new.id, job=job, fastener=new.fastener, pass_number=new.pass_number, bolts=new.bolts, typed=quantity.said,
            set_n_m=quantity.value, at_nut_n_m=at_nut, adapter=_adapter_words(new, ref.entry) if adapter else "",
            wrench=wrench, certificate=wrench.now, wrench_overdue=overdue(wrench, ref.moment), **ref.stamp,
        )  # fmt: skip
        log(
            job,
            ref,
            f"{tightening.torque.fastener}{_which(new, tightening.torque.count)}: {quantity.said} with {wrench.tag}",
        )


def confirm_new(ref: JobRef, part_id: uuid.UUID, feature: str) -> None:
    """Say that the new part is in, where no size shows it.

    Raises
    ------
    FieldError
        A part that is not renewed in this job, or one whose sizes show it.
    """
    with recording(ref, NewPart, part_id, feature, f"feature:{feature}") as job:
        if job is None:
            return
        state = next((s for s in assess(load(job).job_record).features if s.feature.key == feature), None)
        if state is None or not state.to_confirm:
            raise FieldError("part", f"{feature} is not to be confirmed in this job.", "Expected a part that is changed.")
        if not job.new_parts.standing().filter(feature=feature).exists():
            NewPart.objects.create(id=part_id, job=job, feature=feature, **ref.stamp)
            log(job, ref, f"New part in: {state.feature.name}")


def use_at_bench(ref: JobRef, lubricant: str | None = None, gun: str | None = None) -> None:
    """Say which lubricant and which grease gun are on the bench; what is ``None`` stays as it is."""
    with changing(ref, "bench") as job:
        if lubricant is not None:
            if lubricant and not (lubricant in MEDIA and MEDIA[lubricant].lubricates):
                known = ", ".join(key for key, m in MEDIA.items() if m.lubricates)
                raise FieldError("lubricant", f"“{lubricant}” is not in the table.", f"Expected one of: {known}.")
            job.lubricant = lubricant
        if gun is not None:
            job.gun = GreaseGun.objects.filter(tag=gun).first()
            if gun and job.gun is None:
                raise FieldError("grease gun", f"there is no {gun}.", "Expected one from the toolbox.")
        job.save(update_fields=["lubricant", "gun"])
        said = [MEDIA[job.lubricant].name if job.lubricant else "no lubricant", job.gun.tag if job.gun else ""]
        log(job, ref, "On the bench: " + ", ".join(s for s in said if s))


_LEAST_OF_TORQUE, _MOST_OF_TORQUE = 0.1, 3.0
"""What a wrench is usually set to, as shares of the sheet's torque.

Passes begin low, an adapter or a slip goes high (no source).
"""


def _tasks(job: Job) -> JobTasks:
    return assess(load(job).job_record).tasks


def _wrench(tag: str) -> Gauge:
    gauge = Gauge.objects.filter(tag=tag).first()
    if gauge is None:
        raise FieldError("wrench", f"there is no {tag} in the toolbox." if tag else "none was chosen.", "Expected a torque wrench.")
    if gauge.kind != GaugeKind.TORQUE_WRENCH.value:
        raise FieldError("wrench", f"{tag} is a {gauge.kind}.", "Expected a torque wrench.")
    return gauge


def _span(wrench: Gauge, units: Units) -> str:
    low, high = (Amount(value, Kind.TORQUE).text(units) for value in (wrench.now.low, wrench.now.high))
    return f"{low} to {high}"


def _adapter(new: NewTorque, entry: Entry) -> Adapter | None:
    if not new.adapter.strip():
        return None
    if not new.wrench_length.strip():
        raise FieldError("wrench, length", "an adapter changes the setting by the wrench's length.", "Expected drive to grip.")
    return Adapter(
        entry.read("wrench_length", new.wrench_length).value,
        entry.read("adapter", new.adapter).value,
        entry.read("angle", new.angle or "0").value,
    )


def _adapter_words(new: NewTorque, entry: Entry) -> str:
    wrench, adapter = entry.read("wrench_length", new.wrench_length).said, entry.read("adapter", new.adapter).said
    return f"adapter {adapter} at {entry.read('angle', new.angle or '0').value:g}° on {wrench}"


def _which(new: NewTorque, count: int) -> str:
    if count == 1:
        return ""
    return f" {', '.join(map(str, new.bolts))}, pass {new.pass_number}"
