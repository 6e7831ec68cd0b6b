"""What happens to a job as a whole: it is abandoned before it is signed, or amended after."""

from __future__ import annotations

import uuid

from django.db import transaction

from finegap.bench.models import Abandonment, Amendment, Job, SignOff
from finegap.bench.records import GAP
from finegap.bench.services.changing import JobRef, check_last, has_worked, log, recording
from finegap.bench.services.setting import move_stock
from finegap.core.errors import FieldError
from finegap.fleet.models import Pump
from finegap.site.errors import Conflict, Refused
from finegap.site.retry import digest

_LONGEST = 2000
_MOST_AMENDMENTS = 50


def abandon(ref: JobRef, record: uuid.UUID, reason: str) -> None:
    """Give up a job that was opened by mistake, or is not gone on with. It is kept and marked; the pump is free again.

    What it had taken from the shelf for its gap goes back there.

    Raises
    ------
    FieldError
        No reason.
    """
    if not reason.strip():
        raise FieldError("reason", "say why the job is abandoned.", "Expected a few words, such as “opened on the wrong pump”.")
    with recording(ref, Abandonment, record, reason) as job:
        if job is None:
            return
        check_last(job, ref)
        last = job.tries.standing().filter(sets=GAP).last()
        move_stock(job, last.stacks_um if last else [], [])
        Abandonment.objects.create(id=record, job=job, reason=reason.strip(), **ref.stamp)
        given = "; what it took for its gap is on the shelf again" if last and last.stacks_um else ""
        log(job, ref, f"Abandoned, because: {reason.strip()}{given}")


def amend(
    ref: JobRef, record: uuid.UUID, what: str, reason: str, void: bool = False, belongs_to: str = "", is_lead: bool = False
) -> None:
    """Put a signed job right: the signed page stays as it is, and a page is added.

    ``void`` takes the sizes of the whole record out of this pump's wear; ``belongs_to`` is the tag of the pump it is of.

    Raises
    ------
    Refused
        Not signed, not a lead, or void already.
    FieldError
        No reason, nothing said, or a pump that is not there, or is this one.
    """
    if not is_lead:
        raise Refused("A signed job is amended by a lead.")
    with transaction.atomic():
        job = Job.objects.select_related("pump", "opened_by").filter(number=ref.number).first()
        if job is None or not SignOff.objects.filter(job=job).exists():
            raise Refused("Only a signed job is amended.", ["What is not signed is put right where it stands."])
        sent = digest((what, reason, void, belongs_to), ref.actor, ref.entry)
        existing = Amendment.objects.filter(id=record).first()
        if existing is not None:
            if existing.job_id != job.pk or existing.sent != sent:
                raise Conflict(["It was saved with other contents."])
            return
        check_last(job, ref)
        _check(job, what, reason, void, belongs_to)
        number = job.amendments.count() + 1
        own = has_worked(job, ref.actor)
        said = what.strip() or f"Void{': belongs to ' + belongs_to if belongs_to else ''}."
        job.about = "*"
        by_own = " By a lead of that lead's own job." if own else ""
        log(job, ref, f"Amendment {number}, because: {reason.strip()}: {said}{by_own}")
        Amendment.objects.create(
            id=record, job=job, number=number, what=said, reason=reason.strip(), void=void, belongs_to=belongs_to.strip(), own=own,
            sent=sent, made=job.version, **ref.stamp,
        )  # fmt: skip


def _check(job: Job, what: str, reason: str, void: bool, belongs_to: str) -> None:
    if not reason.strip():
        raise FieldError("reason", "a signed job is amended only with a reason.", "Expected why.")
    if not what.strip() and not void:
        raise FieldError("what", "nothing was said.", "Expected what was wrong, and what is right.")
    if len(what) > _LONGEST:
        raise FieldError("what", "that is too long for a page.", f"Expected up to {_LONGEST} letters.")
    if belongs_to and not void:
        raise FieldError("belongs to", "a record that counts is of its own pump.", "Expected it with a void record only.")
    if belongs_to.strip() == job.pump.tag:
        raise FieldError("belongs to", f"it is on {job.pump.tag} already.", "Expected another pump.")
    if belongs_to.strip() and not Pump.objects.filter(tag=belongs_to.strip()).exists():
        raise FieldError("belongs to", f"there is no pump {belongs_to.strip()}.", "Expected a tag from Fleet, or none.")
    if job.amendments.count() >= _MOST_AMENDMENTS:
        raise Refused(f"The job has {_MOST_AMENDMENTS} amendments already.")
    if void and job.amendments.filter(void=True).exists():
        raise Refused("This record is void already.")
