"""Finding zero, and the tries at the gaps."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Any

from finegap.api.errors import Refused
from finegap.bench.as_core import core_gauge
from finegap.bench.changes import CheckGap, RecordTry, SetZero, TryOf
from finegap.bench.models import Job, Try, TryCheck, ZeroFound
from finegap.bench.records import family_of, sheet_of
from finegap.bench.services.changing import JobInHand, JobRef, changes
from finegap.bench.services.measuring import length_gauge, length_typed, overdue
from finegap.core.entry import FIELDS, Entry
from finegap.core.errors import FieldError
from finegap.core.families.family import Family
from finegap.core.families.features import FeatureKind
from finegap.core.families.steps import Stage, Step
from finegap.core.gap.housing import check_lash, zero_by
from finegap.core.gap.leaves import pair_uncertainty_mm
from finegap.core.gap.tries import Check, GapTarget, feeler_check
from finegap.core.means.base import Means
from finegap.core.measuring import readings as measuring
from finegap.core.measuring.feeler import check_pile
from finegap.core.measuring.plausible import check_plausible, plausible
from finegap.core.numerals import DecimalMark
from finegap.core.quantities import Quantity, understood
from finegap.core.sheet import SpecSheet
from finegap.core.tasks.base import Rows
from finegap.inventory.models import Gauge, ShelfLine


@changes(lambda new, now: TryOf.GAP, ZeroFound)
def set_zero(now: JobInHand, new: SetZero) -> None:
    """Say that zero is found, by which school, and the play if not the one in use: as a length, or as the arc turned before the
    rotor followed. After tries only the play can change; strike the zero out to find it anew."""
    job, ref = now.job, now.ref
    before = job.zeros.standing().first()
    if before is not None and new.school != before.school and job.tries.standing().filter(sets=TryOf.GAP).exists():
        raise Refused(
            "The gap has been tried from this zero already.",
            ["How zero was found stands as it was. If it was wrong, strike it out, with its tries."],
        )
    lash_mm, typed = _lash(now, new)
    found = zero_by(new.school).value
    if before is not None:
        now.strike(job.zeros.all(), "found anew")
    ZeroFound.objects.create(id=new.id, job=job, school=found, lash_mm=lash_mm, lash_typed=typed, **ref.stamp)
    now.log(f"Zero by {found}, play {lash_mm:.3f} mm")


def _lash(now: JobInHand, new: SetZero) -> tuple[float, str]:
    """The play in mm, and how it was typed: as it is in use, as a length, or by the arc before the rotor followed."""
    entry, typed = now.ref.entry, ""
    lash_mm = now.before.job_record.lash_mm
    if new.lash and new.lash_arc:
        raise FieldError("play (lash)", "it is given twice.", "Expected the play, or the arc it was measured by.")
    if new.lash:
        quantity = entry.read("lash", new.lash)
        lash_mm, typed = quantity.value, quantity.said
    if new.lash_arc:
        arc = entry.read("lash_arc", new.lash_arc)
        lash_mm, typed = now.before.job_record.sheet.means.lash_by(arc.value), f"arc {arc.said}"
    check_lash(lash_mm)
    return lash_mm, typed


@changes(lambda new, now: _about(now.job, new.sets), Try)
def record_try(now: JobInHand, new: RecordTry) -> None:
    """Record a try at a gap. The shelf gives and takes the gaskets or shims that were put in and taken out.

    A try the pump was opened for takes apart what its means is under: those steps are to be done again, at Set.

    Raises
    ------
    FieldError
        Readings that cannot be, a stack of nothing, more pieces than the shelf has, an opened pump not tightened for the trial, or
        a first try of which nobody says whether the pump was opened for it.
    Refused
        Zero has not been found; or this pump has no such gap to set.
    """
    job, ref, record, gap = now.job, now.ref, now.before.job_record, now.before.assessment.gap
    setting = gap.setting if new.sets is TryOf.GAP else gap.mesh
    if setting is None:
        raise Refused("There is no such gap to set in this job.", [] if gap.window else [gap.choice.sentence.render(ref.unit)])
    checked = _checked(setting.targets, new, ref)
    means = means_of(record.sheet, new.sets)
    moved, moved_typed = _moved(job, means, new, ref.entry)
    worked_with = gap.now if new.sets is TryOf.GAP else gap.mesh_now
    if moved and worked_with is not None and worked_with.shut:
        raise FieldError("arc", "what turns it stays shut in this job.", "Expected 0, or a job that opens it.")
    undone = means.opens(record.family)
    last = job.tries.standing().filter(sets=new.sets).last()
    stacks = means.check_stacks(new.stacks_um)
    opened = bool(undone) and _opened(now, new, undone, last, stacks, moved)
    if opened and not new.trial:
        raise FieldError("trial tightening", "a gap under what is loose is none.", "Tighten it for the trial, and say so.")
    if new.sets is TryOf.GAP:
        move_stock(job, last.stacks_um if last else [], stacks)
    number = job.tries.filter(sets=new.sets).count() + 1
    made = Try.objects.create(
        id=new.id, job=job, sets=new.sets.value, number=number,
        moved=moved, moved_typed=moved_typed, stacks_um=stacks, opened=opened, trial=opened, **ref.stamp,
    )  # fmt: skip
    for order, check in enumerate(checked):
        check.made, check.order = made, order
    TryCheck.objects.bulk_create(checked)
    said = ", ".join(f"{check.value_mm:.3f}" for check in checked)
    what = f"Try {number}: {'gap' if new.sets is TryOf.GAP else 'mesh gaps'} {said} mm"
    if opened:
        what += _take_apart(now, undone, f"opened for try {number}")
    else:
        # A cover that is put on after the check was off for this one.
        _take_apart(now, [s for s in undone if not s.puts_in], f"off for try {number}")
    now.log(what + unprove(now, record.family, f"try {number} came after"))


def means_of(sheet: SpecSheet, sets: TryOf) -> Means:
    """The means that sets a gap of a sheet.

    Raises
    ------
    Refused
        A mesh to be set on a pump whose sheet has no timing gear.
    """
    means = sheet.means if sets is TryOf.GAP else sheet.mesh
    if means is None:
        raise Refused("There is no such gap to set in this job.", ["The sheet says nothing of a timing gear."])
    return means


def _about(job: Job, sets: TryOf) -> tuple[str, ...]:
    undone = means_of(sheet_of(job), sets).opens(family_of(job))
    return (sets, *(f"step:{s.key}" for s in undone), *(str(task) for s in undone for task in s.tasks if task.of))


def _opened(
    now: JobInHand, new: RecordTry, undone: Sequence[Step], last: Try | None, stacks: list[list[int]], moved: float | None
) -> bool:
    """Whether the pump was opened for a try.

    After the first, another stack says so, or that what was clamped was turned; of the first only the technician knows.
    """
    if last is not None:
        return bool(stacks != last.stacks_um or moved)
    undone = [s for s in undone if s.puts_in]
    tasks = now.before.assessment.tasks
    done = now.job.steps.standing().filter(step__in=[s.key for s in undone]).exists()
    if not done and not any(task.begun for step in undone for task in tasks.of_step(step)):
        return True
    if new.opened is None:
        problem = "it was put together at Build, and nobody says whether it was opened for this try."
        raise FieldError("opened", problem, "Expected: opened for it, or checked as it was built.")
    return new.opened


def _take_apart(now: JobInHand, undone: Sequence[Step], why: str) -> str:
    """Strikes out what an opened pump undoes: steps, and what their tasks recorded. Answers words for the log."""
    job, struck = now.job, now.undo_steps((s.key for s in undone), why)
    rows: dict[Rows, Callable[[str], Any]] = {
        Rows.PARTS: lambda key: job.fitted.filter(stack=key),
        Rows.TORQUES: lambda key: job.torques.filter(fastener=key),
        Rows.RUN_IN: lambda key: job.run_in.all(),
        Rows.PROOFS: lambda key: job.proofs.filter(step=key),
    }
    for task in (task for step in undone for task in now.before.assessment.tasks.of_step(step)):
        if task.rows is not None:
            struck += now.strike(rows[task.rows](task.rows_key), why)
        struck += now.undo_features(task.parts(), why)
    # Packing ran in on the pump as it was: that is over once it was opened, whichever step it is of.
    if undone:
        now.undone.add("run-in")
        struck += now.strike(job.run_in.all(), why)
    return "; opened: what that took apart is to be done again at Set" if struck else "; opened"


def unprove(now: JobInHand, family: Family, why: str) -> str:
    """Opens what comes after the check of a gap, since the gap was moved. Answers words for the log."""
    steps = now.undo_steps(
        (s.key for s in family.steps if s.stage is Stage.PROVE or (s.stage is Stage.SET and not s.reopened)), why
    )
    # How it turned on the way there is a thing of its own moment: before the bolts nothing was moved yet.
    return "; to be proved again" if steps else ""


def _checked(asked: Sequence[GapTarget], new: RecordTry, ref: JobRef) -> list[TryCheck]:
    """Every check that is asked for, as rows not yet saved."""
    if len(new.checks) != len(asked):
        raise FieldError("checks", f"{len(new.checks)} were given.", f"Expected {len(asked)}: {', '.join(a.name for a in asked)}.")
    return [_one_check(one, check, len(asked) > 1, ref) for one, check in zip(asked, new.checks, strict=True)]


def _one_check(asked: GapTarget, new: CheckGap, several: bool, ref: JobRef) -> TryCheck:
    of = f", {asked.name}" if several else ""
    gauge = length_gauge(new.gauge) if new.gauge or new.read else None
    entry = replace(ref.entry, mark=DecimalMark(gauge.mark)) if gauge and gauge.mark else ref.entry
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
        gauge_overdue=gauge is not None and overdue(gauge, ref.moment),
    )


def _check(goes: Quantity | None, stops: Quantity | None, read: Quantity | None, gauge: Gauge | None, of: str) -> Check:
    if read is not None and gauge is not None:
        reading = measuring.StationReading("gap", "", read.value, core_gauge(gauge.now))
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


def _moved(job: Job, means: Means, new: RecordTry, entry: Entry) -> tuple[float | None, str]:
    """By how much a means was moved, with its sign, and as it was understood; nothing for what no number tells of."""
    if means.zero and not job.zeros.standing().exists():
        raise Refused("Zero has not been found yet.", ["Find zero first, and say by which school."])
    of = means.moved
    if of is None:
        return None, ""
    if not of.entry:
        return of.signed(1.0 if new.way else 0.0, new.way), ""
    if not new.moved.strip():
        raise FieldError(FIELDS[of.entry].name, "nothing was entered.", "Expected how far it was moved; 0 where it was not.")
    moved = entry.read(of.entry, new.moved)
    return of.signed(moved.value, new.way), understood(moved)


def move_stock(job: Job, before: list[list[int]], after: list[list[int]]) -> None:
    """Move gaskets or shims between shelf and pump; the shelf never goes below nothing."""
    needed = Counter(t for stack in after for t in stack)
    needed.subtract(Counter(t for stack in before for t in stack))
    for thickness, count in needed.items():
        if not count:
            continue
        line, _ = ShelfLine.objects.get_or_create(sheet=job.revision.sheet, thickness_um=thickness, defaults={"count": 0})
        if line.count < count:
            raise FieldError(
                "stack", f"{count} more of {thickness / 1000:g} mm, but the shelf has {line.count}.", "Expected pieces from stock."
            )
        line.count -= count
        line.save(update_fields=["count"])
