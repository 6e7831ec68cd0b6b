"""Steps done or skipped, and what is on hand."""

from __future__ import annotations

import uuid

from finegap.api.errors import Conflict, Refused
from finegap.bench.changes import MarkStep, SayOnHand
from finegap.bench.models import Job, OnHand, StepMark
from finegap.bench.records import family_of, name_of
from finegap.bench.services.changing import JobInHand, changes, first_of, has_worked
from finegap.core.errors import FieldError
from finegap.core.families.family import Family
from finegap.core.families.steps import Step
from finegap.core.tasks.ready import ReadyTask

_MOST_ITEMS = 300
_TOLD = 6


@changes(lambda new, now: about_step(now.job, new.step), StepMark)
def mark_step(now: JobInHand, new: MarkStep) -> None:
    """Mark a step done, a caution acknowledged, or (with the reason in ``skip``) a step skipped, by name and time.

    ``past`` is a lead's reason for a hold point done before what must come before it.

    Raises
    ------
    Refused
        A hold point or caution skipped, or a hold point done out of its turn, by anyone but a lead; or what the step is done with
        is not complete.
    """
    job, ref, skip, note = now.job, now.ref, new.skip.strip(), new.note.strip()
    step = step_of(now.before.job_record.family, new.step)
    overrides, past = False, ""
    if skip:
        overrides = step.hold or step.caution
        if overrides and not ref.is_lead:
            raise Refused("This step is not skipped without a lead.", ["A lead may skip it, with the reason in writing."])
    elif step.hold or step.tasks or step.changed or step.needs:
        overrides = _is_early(now, step, new.past.strip())
        past = new.past.strip() if overrides else ""
    if job.steps.standing().filter(step=new.step).exists():
        return
    own = overrides and has_worked(job, ref.actor)
    StepMark.objects.create(
        id=new.id, job=job, step=new.step, words=step.text[:400], note=note, skipped=skip, past=past, own=own, **ref.stamp
    )
    now.log(_said(step, note, skip, past, own))


def _is_early(now: JobInHand, step: Step, past: str) -> bool:
    """Whether a step that is complete comes before its turn: a lead may do it then, and says why."""
    assessment, unit = now.before.assessment, now.ref.unit
    waits = assessment.holds_back(step)
    if waits:
        raise Refused("This step is not complete.", [words.render(unit) for words in waits])
    early = assessment.out_of_turn(step)
    if early and not (now.ref.is_lead and past):
        reasons = [words.render(unit) for words in early]
        raise Refused("Something comes before this step.", [*reasons, "A lead may do it now, with the reason in writing."])
    return bool(early)


def _said(step: Step, note: str, skip: str, past: str, own: bool) -> str:
    done = f"Skipped, because: {skip}: " if skip else f"Done out of its turn, because: {past}: " if past else "Done: "
    lead = " A lead's override of that lead's own job." if own else ""
    return done + step.text + (f" ({note})" if note else "") + lead


def about_step(job: Job, step_key: str) -> tuple[str, ...]:
    """What marking a step is about: the step, and what it is done with."""
    step = next((s for s in family_of(job).steps if s.key == step_key), None)
    return (f"step:{step_key}", *(str(task) for task in (step.tasks if step else ()) if task.of))


def step_of(family: Family, step_key: str) -> Step:
    """A step of the procedure a job goes by."""
    step = next((s for s in family.steps if s.key == step_key), None)
    if step is None:
        raise FieldError("step", f"there is no step {step_key}.", "Expected a step of this procedure.")
    return step


@changes(lambda new, now: f"on-hand:{new.id}", OnHand, first_of)
def say_on_hand(now: JobInHand, new: SayOnHand) -> None:
    """Say whether things the job needs are on hand."""
    job, ref = now.job, now.ref
    named = [item.strip() for item in dict.fromkeys(new.items)]
    if not named or not all(named) or len(named) > _MOST_ITEMS:
        raise FieldError("items", "nothing was named.", f"Expected tools, consumables or parts, up to {_MOST_ITEMS}.")
    rows = job.on_hand.filter(item__in=named)
    since = rows.filter(made__gt=ref.version).exclude(by=ref.actor).select_related("by")
    if since:
        raise Conflict([f"{name_of(row.by)}: {'On hand' if row.here else 'Missing'}: {row.item}" for row in since])
    rows.delete()
    OnHand.objects.bulk_create(
        OnHand(id=uuid.uuid5(new.id, str(i)), job=job, item=item, here=new.here, made=job.version + 1, **ref.stamp)
        for i, item in enumerate(named)
    )
    reopened = "" if new.here else _not_ready(now)
    now.log(f"{'On hand' if new.here else 'Missing'}: {_listed(named)}{reopened}")


def _listed(items: list[str]) -> str:
    """The first few of many things, and how many more; each keeps its own mark in the list of what to have ready."""
    told = items if len(items) <= _TOLD else items[: _TOLD - 1]
    more = len(items) - len(told)
    return ", ".join(told) + (f" and {more} more" if more else "")


def _not_ready(now: JobInHand) -> str:
    """Opens the step that says that everything is ready, since something is missing. Answers words for the log."""
    keys = [s.key for s in family_of(now.job).steps if s.has(ReadyTask.kind)]
    struck = now.undo_steps(keys, "something is missing")
    return "; its step is open again" if struck else ""
