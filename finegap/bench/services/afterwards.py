"""What happens to a job as a whole: it is abandoned before it is signed, or amended after."""

from __future__ import annotations

from django.db import transaction

from finegap.api.errors import Refused
from finegap.api.retry import digest
from finegap.bench.changes import Abandon, Amend, TryOf
from finegap.bench.models import ABANDONED, Abandonment, Amendment, Job
from finegap.bench.services.changing import ALL, JobInHand, JobRef, changes, check_last, has_worked, is_there
from finegap.bench.services.tries import move_stock
from finegap.core.errors import FieldError
from finegap.pumps.models import Pump

_LONGEST = 2000
_MOST_AMENDMENTS = 50


@changes(lambda new, now: ALL, Abandonment)
def abandon(now: JobInHand, new: Abandon) -> None:
    """Give up a job that was opened by mistake, or is not gone on with. It is kept and marked; the pump is free again.

    What it had taken from the shelf for its gap goes back there.

    Raises
    ------
    FieldError
        No reason.
    """
    job, reason = now.job, new.reason.strip()
    if not reason:
        raise FieldError("reason", "say why the job is abandoned.", "Expected a few words, such as “opened on the wrong pump”.")
    check_last(job, now.ref)
    last = job.tries.standing().filter(sets=TryOf.GAP).last()
    move_stock(job, last.stacks_um if last else [], [])
    Abandonment.objects.create(id=new.id, job=job, reason=reason, **now.ref.stamp)
    job.end(ABANDONED)
    given = "; what it took for its gap is on the shelf again" if last and last.stacks_um else ""
    now.log(f"Abandoned, because: {reason}{given}")


def amend(ref: JobRef, new: Amend) -> JobInHand | None:
    """Put a signed job right: the signed page stays as it is, and a page is added.

    Raises
    ------
    Refused
        Not signed, not a lead, or void already.
    FieldError
        No reason, nothing said, or a pump that is not there, or is this one.
    """
    if not ref.is_lead:
        raise Refused("A signed job is amended by a lead.")
    with transaction.atomic():
        job = Job.objects.whole().filter(number=ref.number).first()
        if job is None or not job.is_signed:
            raise Refused("Only a signed job is amended.", ["What is not signed is put right where it stands."])
        sent = digest(new, ref.actor, ref.entry)
        if is_there(Amendment, new.id, sent, job):
            return None
        check_last(job, ref)
        _check(job, new)
        number = job.amendments.count() + 1
        own = has_worked(job, ref.actor)
        said = new.what.strip() or f"Void{': belongs to ' + new.belongs_to if new.belongs_to else ''}."
        by_own = " By a lead of that lead's own job." if own else ""
        now = JobInHand(job, ref, ALL)
        now.log(f"Amendment {number}, because: {new.reason.strip()}: {said}{by_own}")
        Amendment.objects.create(
            id=new.id, job=job, number=number, what=said, reason=new.reason.strip(), void=new.void,
            belongs_to=new.belongs_to.strip(), own=own, sent=sent, made=job.version, **ref.stamp,
        )  # fmt: skip
        return now


def _check(job: Job, new: Amend) -> None:
    what, void, belongs_to = new.what.strip(), new.void, new.belongs_to.strip()
    if not new.reason.strip():
        raise FieldError("reason", "a signed job is amended only with a reason.", "Expected why.")
    if not what and not void:
        raise FieldError("what", "nothing was said.", "Expected what was wrong, and what is right.")
    if len(what) > _LONGEST:
        raise FieldError("what", "that is too long for a page.", f"Expected up to {_LONGEST} letters.")
    if belongs_to and not void:
        raise FieldError("belongs to", "a record that counts is of its own pump.", "Expected it with a void record only.")
    if belongs_to == job.pump.tag:
        raise FieldError("belongs to", f"it is on {job.pump.tag} already.", "Expected another pump.")
    if belongs_to and not Pump.objects.filter(tag=belongs_to).exists():
        raise FieldError("belongs to", f"there is no pump {belongs_to}.", "Expected a tag from Fleet, or none.")
    if job.amendments.count() >= _MOST_AMENDMENTS:
        raise Refused(f"The job has {_MOST_AMENDMENTS} amendments already.")
    if void and job.amendments.filter(void=True).exists():
        raise Refused("This record is void already.")
