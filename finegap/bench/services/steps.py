"""Steps done or skipped, and what is on hand."""

from __future__ import annotations

import uuid
from collections.abc import Sequence

from finegap.bench.models import Job, OnHand, StepMark
from finegap.bench.records import family_of, load, name_of
from finegap.bench.services.changing import JobRef, has_worked, log, recording
from finegap.core.errors import FieldError
from finegap.core.families.family import Family
from finegap.core.families.steps import Step
from finegap.core.job import assess
from finegap.core.tasks.ready import ReadyTask
from finegap.site.errors import Conflict, Refused

_MOST_ITEMS = 300


def mark_step(
    ref: JobRef, mark_id: uuid.UUID, step_key: str, note: str = "", skip: str = "", past: str = "", is_lead: bool = False
) -> None:
    """Mark a step done, a caution acknowledged, or (with the reason in ``skip``) a step skipped, by name and time.

    ``past`` is a lead's reason for a hold point done before what must come before it.

    Raises
    ------
    Refused
        A hold point or caution skipped, or a hold point done out of its turn, by anyone but a lead; or what the step is done with
        is not complete.
    """
    with recording(ref, StepMark, mark_id, (step_key, note, skip, past), lambda job: about_step(job, step_key)) as job:
        if job is None:
            return
        job_record = load(job).job_record
        step = step_of(job_record.family, step_key)
        overrides = False
        if skip.strip():
            overrides = step.hold or step.caution
            if overrides and not is_lead:
                raise Refused("This step is not skipped without a lead.", ["A lead may skip it, with the reason in writing."])
        elif step.hold or step.tasks or step.changed:
            assessment = assess(job_record)
            waits = assessment.holds_back(step)
            if waits:
                raise Refused("This step is not complete.", [words.render(ref.unit) for words in waits])
            early = assessment.out_of_turn(step)
            overrides = bool(early)
            if early and not (is_lead and past.strip()):
                reasons = [words.render(ref.unit) for words in early]
                raise Refused("Something comes before this step.", [*reasons, "A lead may do it now, with the reason in writing."])
        if job.steps.standing().filter(step=step_key).exists():
            return
        own = overrides and has_worked(job, ref.actor)
        StepMark.objects.create(
            id=mark_id, job=job, step=step_key, note=note.strip(), skipped=skip.strip(), past=past.strip() if overrides else "",
            own=own, **ref.stamp,
        )  # fmt: skip
        log(job, ref, _said(step, note.strip(), skip.strip(), past.strip() if overrides else "", own))


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


def say_on_hand(ref: JobRef, line_id: uuid.UUID, items: Sequence[str], here: bool) -> None:
    """Say whether things the job needs are on hand."""
    first = uuid.uuid5(line_id, "0")
    with recording(ref, OnHand, first, (tuple(items), here), f"on-hand:{line_id}") as job:
        if job is None:
            return
        named = [item.strip() for item in dict.fromkeys(items)]
        if not named or not all(named) or len(named) > _MOST_ITEMS:
            raise FieldError("items", "nothing was named.", f"Expected tools, consumables or parts, up to {_MOST_ITEMS}.")
        rows = job.on_hand.filter(item__in=named)
        since = rows.filter(made__gt=ref.version).exclude(by=ref.actor).select_related("by")
        if since:
            raise Conflict([f"{name_of(row.by)}: {'On hand' if row.here else 'Missing'}: {row.item}" for row in since])
        rows.delete()
        OnHand.objects.bulk_create(
            OnHand(id=uuid.uuid5(line_id, str(i)), job=job, item=item, here=here, made=job.version + 1, **ref.stamp)
            for i, item in enumerate(named)
        )
        reopened = "" if here else _not_ready(job, ref)
        log(job, ref, f"{'On hand' if here else 'Missing'}: {', '.join(named)}{reopened}")


def _not_ready(job: Job, ref: JobRef) -> str:
    """What is missing is not ready, whoever said so before. Words for the log."""
    keys = [s.key for s in family_of(job).steps if s.has(ReadyTask.kind)]
    struck = job.steps.filter(step__in=keys).strike(ref.actor, ref.moment, "something is missing")
    return "; its step is open again" if struck else ""
