"""Finding zero, and the tries at the gaps."""

from __future__ import annotations

import uuid
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, field, replace

from finegap.bench.facts import GAP, MESH, core_gauge, family_of, load, sheet_of
from finegap.bench.models import Job, Try, TryCheck
from finegap.bench.services.changing import Seen, changing, log, recording
from finegap.bench.services.measuring import length_gauge, length_typed, overdue
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.families.model import FeatureKind, Stage
from finegap.core.gap.declared import GasketMeans, HousingMeans, Means, ShimMeans
from finegap.core.gap.housing import Zero
from finegap.core.gap.leaves import pair_uncertainty_mm
from finegap.core.gap.move import Way
from finegap.core.gap.setting import Asked, Check, feeler_check
from finegap.core.gap.shims import SHAFTS
from finegap.core.job import assess
from finegap.core.measuring import readings as measuring
from finegap.core.measuring.feeler import check_pile
from finegap.core.measuring.plausible import check_plausible, plausible
from finegap.core.numerals import Mark
from finegap.core.quantities import Quantity, understood
from finegap.site.errors import Refused
from finegap.toolbox.models import GasketStock, Gauge


@dataclass(frozen=True)
class NewCheck:
    """A check as typed: a feeler pair, or a reading with a gauge."""

    goes: str = ""
    stops: str = ""
    read: str = ""
    gauge: str = ""


@dataclass(frozen=True)
class NewTry:
    """A try as typed: which gap it sets; an arc and its way, or one stack a place; and a check of each gap, in their order."""

    id: uuid.UUID
    checks: list[NewCheck]
    sets: str = GAP
    arc: str = ""
    way: str = Way.OPEN.value
    stacks_um: list[list[int]] = field(default_factory=list)


def set_zero(seen: Seen, school: str, lash: str = "", lash_arc: str = "") -> None:
    """Say that zero is found, by which school, and the play if not the sheet's: as a length, or as the arc turned before the rotor
    followed. After tries only the play can change."""
    with changing(seen) as job:
        if school != job.zero_school and job.tries.exists():
            raise Refused("The gap has been tried from this zero already.", ["How zero was found stands as it was."])
        if lash and lash_arc:
            raise FieldError("play (lash)", "it is given twice.", "Expected the play, or the arc it was measured by.")
        if lash:
            job.lash_mm = seen.entry.read("lash", lash).value
        means = sheet_of(job).means
        if lash_arc:
            if not isinstance(means, HousingMeans):
                raise FieldError("arc before the rotor follows", "nothing turns on this pump.", "Expected none.")
            arc = seen.entry.read("lash_arc", lash_arc).value
            job.lash_mm = means.housing.clearance_mm(arc)
        if job.lash_mm > _MOST_LASH_MM:
            raise FieldError("play (lash)", f"{job.lash_mm:g} mm is not play, it is damage.", "Expected up to 1 mm.")
        try:
            job.zero_school = Zero(school).value
        except ValueError:
            expected = " or ".join(z.value for z in Zero)
            raise FieldError("school", f"“{school}” is not a way to find zero.", f"Expected: {expected}.") from None
        job.save(update_fields=["zero_school", "lash_mm"])
        log(job, seen, f"Zero by {job.zero_school}, play {job.lash_mm:.3f} mm")


_MOST_LASH_MM = 1.0


def record_try(seen: Seen, new: NewTry) -> None:
    """Record a try at a gap. The shelf gives and takes the gaskets or shims that were put in and taken out.

    Raises
    ------
    FieldError
        Readings that cannot be, a stack of nothing, or more pieces than the shelf has.
    Refused
        Zero has not been found; or this pump has no such gap to set.
    """
    with recording(seen, Try, new.id, new) as job:
        if job is None:
            return
        sheet = sheet_of(job)
        gapping = assess(load(job).facts).gapping
        setting = {GAP: gapping.setting, MESH: gapping.mesh}.get(new.sets)
        if setting is None:
            raise Refused(
                "There is no such gap to set in this job.", [] if gapping.window else [gapping.choice.sentence.render(seen.unit)]
            )
        checked = _checked(setting.asked, new, seen)
        arc = _arc(job, sheet.means, new, seen.entry)
        stacks = _take_stacks(job, sheet.means, new.stacks_um) if new.sets == GAP else []
        number = len(setting.tries) + 1
        made = Try.objects.create(
            id=new.id,
            job=job,
            sets=new.sets,
            number=number,
            arc_mm=arc.value * (-1 if new.way in _BACKWARDS else 1) if arc else None,
            arc_typed=understood(arc) if arc else "",
            stacks_um=stacks,
            **seen.stamp,
        )
        for order, check in enumerate(checked):
            check.made, check.order = made, order
        TryCheck.objects.bulk_create(checked)
        said = ", ".join(f"{check.value_mm:.3f}" for check in checked)
        log(job, seen, f"Try {number}: {'gap' if new.sets == GAP else 'mesh gaps'} {said} mm{_unprove(job)}")


_BACKWARDS = (Way.CLOSE.value, "right")


def _unprove(job: Job) -> str:
    """A gap that was moved has to be proved again: what Prove had ticked or seen no longer stands. Words for the log."""
    proved = [step.key for step in family_of(job).steps_of(Stage.PROVE)]
    steps, _ = job.steps.filter(step__in=proved).delete()
    seen, _ = job.proofs.all().delete()
    return "; to be proved again" if steps or seen else ""


def _checked(asked: Sequence[Asked], new: NewTry, seen: Seen) -> list[TryCheck]:
    """Every check that is asked for, as rows not yet saved."""
    if len(new.checks) != len(asked):
        raise FieldError("checks", f"{len(new.checks)} were given.", f"Expected {len(asked)}: {', '.join(a.name for a in asked)}.")
    return [_one_check(one, check, len(asked) > 1, seen) for one, check in zip(asked, new.checks, strict=True)]


def _one_check(asked: Asked, new: NewCheck, several: bool, seen: Seen) -> TryCheck:
    of = f", {asked.name}" if several else ""
    gauge = length_gauge(new.gauge) if new.gauge or new.read else None
    entry = replace(seen.entry, mark=Mark(gauge.mark)) if gauge and gauge.mark else seen.entry
    possible = plausible(asked.window.high_mm, is_gap=True)
    typed = {
        name: length_typed(text, label, entry, FeatureKind.GAP, possible) if text else None
        for name, text, label in (
            ("goes", new.goes, f"leaf that goes{of}"),
            ("stops", new.stops, f"leaf that does not{of}"),
            ("read", new.read, asked.name),
        )
    }
    if not entry.meant:
        for quantity in filter(None, typed.values()):
            check_plausible(quantity, asked.name, asked.window.high_mm, is_gap=True, mark=entry.mark)
        for name in ("goes", "stops"):
            if (leaf := typed[name]) and gauge:
                check_pile(leaf, gauge.now.leaves_um, gauge.tag, asked.name)
    check = _check(typed["goes"], typed["stops"], typed["read"], gauge, of)
    return TryCheck(
        gap=asked.key,
        **{f"{name}_typed": understood(quantity) if quantity else "" for name, quantity in typed.items()},
        value_mm=check.value_mm,
        u_mm=check.u_mm,
        dof=None if check.dof == float("inf") else check.dof,
        half_mm=check.half_mm,
        gauge=gauge,
        certificate=gauge.now if gauge else None,
        gauge_overdue=gauge is not None and overdue(gauge, seen.moment),
    )


def _check(goes: Quantity | None, stops: Quantity | None, read: Quantity | None, gauge: Gauge | None, of: str) -> Check:
    if read is not None and gauge is not None:
        reading = measuring.Reading("gap", "", read.value, core_gauge(gauge.now))
        result = measuring.summarize([reading], measuring.Statistic.AS_MEASURED, "Gap")
        return Check(result.value_mm, result.u_mm, result.dof)
    for leaf, name in ((goes, "leaf that goes"), (stops, "leaf that does not")):
        if leaf is None:
            raise FieldError(f"{name}{of}", "nothing was entered.", "Expected a leaf's thickness, or a reading by another gauge.")
    assert goes is not None
    assert stops is not None
    leaf_u = gauge.now.expanded / gauge.now.k if gauge else 0.0
    leaves = gauge.now.leaves_um if gauge else []
    u = pair_uncertainty_mm(goes.value, stops.value, leaves, leaf_u) if gauge and goes.value < stops.value else leaf_u
    return feeler_check(goes.value, stops.value, u)[0]


def _arc(job: Job, means: Means, new: NewTry, entry: Entry) -> Quantity | None:
    """What a housing, or a timing gear, was turned by; nothing for what does not turn."""
    if new.sets == GAP:
        if not isinstance(means, HousingMeans):
            return None
        if not job.zero_school:
            raise Refused("Zero has not been found yet.", ["Find zero first, and say by which school."])
    return entry.read("arc", new.arc or "0")


def _take_stacks(job: Job, means: Means, stacks: list[list[int]]) -> list[list[int]]:
    """Move gaskets or shims between shelf and pump; the shelf never goes below nothing."""
    if not isinstance(means, GasketMeans | ShimMeans):
        return []
    places = len(SHAFTS) if isinstance(means, ShimMeans) else 1
    if len(stacks) != places or any(t <= 0 for stack in stacks for t in stack):
        raise FieldError("stack", "it cannot be.", f"Expected {places} of thicknesses above zero.")
    if isinstance(means, GasketMeans) and not stacks[0]:
        raise FieldError("stack", "there is no gasket in it.", "Expected one gasket or more: it seals.")
    last = job.tries.filter(sets=GAP).last()
    needed = Counter(t for stack in stacks for t in stack)
    needed.subtract(Counter(t for stack in (last.stacks_um if last else []) for t in stack))
    for thickness, count in needed.items():
        if not count:
            continue
        line, _ = GasketStock.objects.get_or_create(sheet=job.revision.sheet, thickness_um=thickness, defaults={"count": 0})
        if line.count < count:
            raise FieldError(
                "stack", f"{count} more of {thickness / 1000:g} mm, but the shelf has {line.count}.", "Expected pieces from stock."
            )
        line.count -= count
        line.save(update_fields=["count"])
    return [sorted(stack, reverse=True) for stack in stacks]
