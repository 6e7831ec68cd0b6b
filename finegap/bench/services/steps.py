"""Steps done, taken back or skipped, and what is on hand."""

from __future__ import annotations

import uuid

from finegap.bench.facts import load
from finegap.bench.models import OnHand, StepMark
from finegap.bench.services.changing import Seen, changing, log, recording
from finegap.core.errors import FieldError
from finegap.core.families.model import Family, Step
from finegap.core.job import assess
from finegap.site.errors import Refused


def mark_step(seen: Seen, mark_id: uuid.UUID, step_key: str, note: str = "", skip: str = "", is_lead: bool = False) -> None:
    """Mark a step done, a caution acknowledged, or (with the reason in ``skip``) a step skipped, by name and time.

    Raises
    ------
    Refused
        A hold point or caution skipped by anyone but a lead; or what the step is done with is not complete.
    """
    with recording(seen, StepMark, mark_id, (step_key, note, skip)) as job:
        if job is None:
            return
        facts = load(job).facts
        step = step_of(facts.family, step_key)
        if skip.strip() and (step.hold or step.caution) and not is_lead:
            raise Refused("This step is not skipped without a lead.", ["A lead may skip it, with the reason in writing."])
        if (step.works or step.changed) and not skip.strip():
            waits = assess(facts).holds_back(step)
            if waits:
                raise Refused("This step is not complete.", [words.render(seen.unit) for words in waits])
        if not job.steps.filter(step=step_key).exists():
            StepMark.objects.create(id=mark_id, job=job, step=step_key, **seen.stamp, note=note.strip(), skipped=skip.strip())
            done = f"Skipped, because: {skip.strip()}: " if skip.strip() else "Done: "
            log(job, seen, done + step.text + (f" ({note.strip()})" if note.strip() else ""))


def step_of(family: Family, step_key: str) -> Step:
    """A step of the procedure a job goes by."""
    step = next((s for s in family.steps if s.key == step_key), None)
    if step is None:
        raise FieldError("step", f"there is no step {step_key}.", "Expected a step of this procedure.")
    return step


def clear_step(seen: Seen, step_key: str) -> None:
    """Take back a step marked by mistake; the log keeps both."""
    with changing(seen) as job:
        if job.steps.filter(step=step_key).delete()[0]:
            log(job, seen, f"Taken back: {step_key}")


def say_on_hand(seen: Seen, line_id: uuid.UUID, item: str, here: bool) -> None:
    """Say whether something the job needs is on hand."""
    with recording(seen, OnHand, line_id, (item, here)) as job:
        if job is None:
            return
        if not item.strip():
            raise FieldError("item", "nothing was named.", "Expected a tool, a consumable or a part.")
        job.on_hand.filter(item=item).delete()
        OnHand.objects.create(id=line_id, job=job, item=item, here=here, **seen.stamp)
        log(job, seen, f"{'On hand' if here else 'Missing'}: {item}")
