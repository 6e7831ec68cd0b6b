"""Finding zero, and the tries at the gap."""

from __future__ import annotations

import uuid
from collections import Counter
from dataclasses import dataclass, field

from django.utils import timezone

from finegap.bench.facts import core_gauge, family_of, load, sheet_of
from finegap.bench.models import Job, Try
from finegap.bench.services.changing import Seen, changing, log, recording
from finegap.bench.services.measuring import length_gauge, length_typed, overdue
from finegap.core.errors import FieldError
from finegap.core.families.model import FeatureKind, Stage
from finegap.core.gap.housing import Zero
from finegap.core.gap.move import Way
from finegap.core.gap.setting import Check, feeler_check
from finegap.core.job import assess
from finegap.core.measuring import readings as measuring
from finegap.core.measuring.plausible import check_plausible
from finegap.core.quantities import Dimension, Quantity, Sign, parse
from finegap.core.sheet import GasketMeans, HousingMeans
from finegap.core.showing import Units
from finegap.site.errors import Refused
from finegap.toolbox.models import GasketStock, Gauge


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


def set_zero(seen: Seen, school: str, lash: str) -> None:
    """Say that zero is found, by which school, and the play if not the sheet's. After tries only the play can change."""
    with changing(seen) as job:
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
        log(job, seen.actor, f"Zero by {job.zero_school}, play {job.lash_mm:.3f} mm")


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
    with recording(seen, Try, new.id) as job:
        if job is None:
            return
        sheet = sheet_of(job)
        setting = assess(load(job).facts).setting
        if setting is None:
            raise Refused("There is no end clearance to set to.", ["No row of the clearance table matches this duty."])
        gauge = length_gauge(new.gauge) if new.gauge or new.read else None
        typed = {
            name: length_typed(text, label, seen.unit, FeatureKind.GAP) if text else None
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
        arc = _arc(job, new, seen.unit) if isinstance(sheet.means, HousingMeans) else None
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
            gauge_overdue=gauge is not None and overdue(gauge, now),
            by=seen.actor,
            at=now,
        )
        log(job, seen.actor, f"Try {number}: gap {check.value_mm:.3f} mm{_unprove(job)}")


def _unprove(job: Job) -> str:
    """A gap that was moved has to be proved again: what Prove had ticked no longer stands. Words for the log."""
    proved = [step.key for step in family_of(job).steps_of(Stage.PROVE)]
    taken_back, _ = job.steps.filter(step__in=proved).delete()
    return "; to be proved again" if taken_back else ""


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
