"""Stacks part by part, the log of torques, and what is on the bench."""

from __future__ import annotations

from finegap.bench.as_core import core_wrench
from finegap.bench.changes import ConfirmNew, FitPart, LogTorque, UseAtBench
from finegap.bench.models import NewPart, PartFitted, TorqueMark
from finegap.bench.services.changing import JobInHand, changes
from finegap.bench.services.measuring import overdue
from finegap.core.assembly.elastomers import MEDIA
from finegap.core.assembly.torque import Adapter
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Kind, Units
from finegap.core.gauges import GaugeKind
from finegap.core.tasks.stack import StackTask
from finegap.core.tasks.torque import TorqueTask
from finegap.inventory.models import Gauge, GreaseGun


@changes(lambda new, now: f"stack:{new.stack}", PartFitted)
def fit_part(now: JobInHand, new: FitPart) -> None:
    """Tick a part of a stack: in its turn, its direction confirmed.

    Raises
    ------
    FieldError
        What the stack's own check says.
    """
    task = now.before.assessment.tasks.of_kind(StackTask).get(new.stack)
    if task is None:
        raise FieldError("stack", f"nothing is stacked at {new.stack} in this job.", "Expected a stack of Build.")
    state = task.state
    part = state.check(new.part, new.confirmed, new.reused, new.reason, now.ref.unit)
    directions = "; ".join(state.stack.directions(part))
    PartFitted.objects.create(
        id=new.id, job=now.job, stack=state.stack.key, part=part.key, words=part.name[:400], reused=new.reused,
        reason=new.reason.strip(), directions=directions, **now.ref.stamp,
    )  # fmt: skip
    words = [f"{'Used again' if new.reused else 'Fitted'}: {part.name}", directions, new.reason.strip()]
    now.log("; ".join(w for w in words if w))


@changes(lambda new, now: f"torque:{new.fastener}", TorqueMark)
def log_torque(now: JobInHand, new: LogTorque) -> None:
    """Log what fasteners got, and with which wrench.

    Raises
    ------
    FieldError
        No such fastener in this job, not a torque wrench, a setting outside its range, an adapter that cannot be, or what the
        order and range of the pass say.
    """
    ref = now.ref
    task = now.before.assessment.tasks.of_kind(TorqueTask).get(new.fastener)
    if task is None:
        raise FieldError("fastener", f"{new.fastener} is not tightened in this job.", "Expected a fastener of Build.")
    tightening = task.tightening
    wrench = _wrench(new.wrench)
    quantity = ref.entry.read("torque", new.typed)
    if not core_wrench(wrench).reaches(quantity.value):
        raise FieldError("torque", f"{wrench.tag} does not reach {quantity.said}.", f"Expected {_span(wrench, ref.unit)}.")
    ref.entry.check_usual(quantity, "torque", tightening.usual_n_m)
    adapter = _adapter(new, ref.entry)
    at_nut = quantity.value / (adapter.share if adapter else 1.0)
    tightening.check(new.pass_number, new.bolts, at_nut, ref.unit)
    TorqueMark.objects.create(
        id=new.id, job=now.job, fastener=new.fastener, pass_number=new.pass_number, bolts=new.bolts, typed=quantity.said,
        set_n_m=quantity.value, at_nut_n_m=at_nut, adapter=_adapter_words(new, ref.entry) if adapter else "",
        wrench=wrench, certificate=wrench.now, wrench_overdue=overdue(wrench, ref.moment), **ref.stamp,
    )  # fmt: skip
    now.log(f"{tightening.torque.fastener}{_which(new, tightening.torque.count)}: {quantity.said} with {wrench.tag}")


@changes(lambda new, now: f"feature:{new.feature}", NewPart)
def confirm_new(now: JobInHand, new: ConfirmNew) -> None:
    """Say that the new part is in, where no size shows it.

    Raises
    ------
    FieldError
        A part that is not renewed in this job, or one whose sizes show it.
    """
    state = next((s for s in now.before.assessment.features if s.feature.key == new.feature), None)
    if state is None or not state.to_confirm:
        raise FieldError("part", f"{new.feature} is not to be confirmed in this job.", "Expected a part that is changed.")
    if not now.job.new_parts.standing().filter(feature=new.feature).exists():
        NewPart.objects.create(id=new.id, job=now.job, feature=new.feature, **now.ref.stamp)
        now.log(f"New part in: {state.feature.name}")


@changes(lambda new, now: "bench")
def use_at_bench(now: JobInHand, new: UseAtBench) -> None:
    """Say which lubricant and which grease gun are on the bench; what is ``None`` stays as it is."""
    job, lubricant, gun = now.job, new.lubricant, new.gun
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
    now.log("On the bench: " + ", ".join(s for s in said if s))


def _wrench(tag: str) -> Gauge:
    gauge = Gauge.objects.filter(tag=tag).first()
    if gauge is None:
        raise FieldError("wrench", f"there is no {tag} in the toolbox." if tag else "none was chosen.", "Expected a torque wrench.")
    if gauge.retired:
        raise FieldError("wrench", f"{tag} is retired.", "Expected one in use.")
    if gauge.kind != GaugeKind.TORQUE_WRENCH.value:
        raise FieldError("wrench", f"{tag} is a {gauge.kind}.", "Expected a torque wrench.")
    return gauge


def _span(wrench: Gauge, units: Units) -> str:
    low, high = (Amount(value, Kind.TORQUE).text(units) for value in (wrench.now.low, wrench.now.high))
    return f"{low} to {high}"


def _adapter(new: LogTorque, entry: Entry) -> Adapter | None:
    if not new.adapter.strip():
        return None
    if not new.wrench_length.strip():
        raise FieldError("wrench, length", "an adapter changes the setting by the wrench's length.", "Expected drive to grip.")
    return Adapter(
        entry.read("wrench_length", new.wrench_length).value,
        entry.read("adapter", new.adapter).value,
        entry.read("angle", new.angle or "0").value,
    )


def _adapter_words(new: LogTorque, entry: Entry) -> str:
    wrench, adapter = entry.read("wrench_length", new.wrench_length).said, entry.read("adapter", new.adapter).said
    return f"adapter {adapter} at {entry.read('angle', new.angle or '0').value:g}° on {wrench}"


def _which(new: LogTorque, count: int) -> str:
    if count == 1:
        return ""
    return f" {', '.join(map(str, new.bolts))}, pass {new.pass_number}"
