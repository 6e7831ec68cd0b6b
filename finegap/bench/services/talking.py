"""Notes on a job, its hand-over, and how far somebody has read it. None of it touches the record or its version."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from finegap.api.errors import Refused
from finegap.api.retry import digest
from finegap.api.roles import ROLES, role_of
from finegap.bench.changes import LookedAt, StrikeNote, WriteJobNote
from finegap.bench.models import Job, JobLook, JobNote
from finegap.bench.records import name_of
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.pumps.services import is_retry

_MOST_NOTES = 500


def write_note(actor: User, number: int, new: WriteJobNote, entry: Entry) -> None:
    """Keep a note on a job, or hand it over.

    Raises
    ------
    FieldError
        No such job, nothing written, nobody of that name, or too many.
    Refused
        A job that has ended is not handed over.
    Conflict
        The same identity with other contents.
    """
    with transaction.atomic():
        job = _job(number)
        sent = digest((number, new), actor, entry)
        if is_retry(JobNote.objects.filter(id=new.id).first(), sent):
            return
        if not new.text.strip():
            raise FieldError("note", "nothing was written.", "Expected what the next one should know.")
        if new.handover and job.ended:
            raise Refused(f"Job {job.number} is {job.ended}: there is nothing to hand over.")
        if job.notes.count() >= _MOST_NOTES:
            raise FieldError("note", f"there are {_MOST_NOTES} already.", "Expected fewer.")
        to = _person(new.to) if new.to else None
        if to is not None and not new.handover:
            raise FieldError("to", "a note is for everybody.", "Expected nobody here, or a hand-over.")
        JobNote.objects.create(
            id=new.id, job=job, text=new.text.strip(), handover=new.handover, to=to, by=actor, at=timezone.now(), sent=sent
        )


def take_over(actor: User, number: int, note: str) -> None:
    """Say that a hand-over was read and the job is gone on with.

    Raises
    ------
    FieldError
        There is no such hand-over, it was struck out, taken over already, meant for somebody else, or the own.
    Refused
        The job has ended.
    """
    with transaction.atomic():
        job = _job(number)
        found = JobNote.objects.select_related("taken_by", "to").filter(id=note, job=job, handover=True, struck_reason="").first()
        if found is None:
            raise FieldError("hand-over", "it is not there, or was struck out.", "Expected one of this job.")
        if found.taken_by_id == actor.pk:
            return
        if job.ended:
            raise Refused(f"Job {job.number} is {job.ended}: there is nothing to go on with.")
        if found.taken_by is not None:
            raise FieldError("hand-over", f"{name_of(found.taken_by)} took it over already.", "Expected one nobody has.")
        if found.by_id == actor.pk:
            raise FieldError("hand-over", "it is your own.", "Expected somebody else to take it over; or strike it out.")
        if found.to is not None and found.to_id != actor.pk:
            raise FieldError("hand-over", f"it is meant for {name_of(found.to)}.", "Expected that person; or a new hand-over.")
        found.taken_by, found.taken_at = actor, timezone.now()
        found.save(update_fields=["taken_by", "taken_at"])


def strike_note(actor: User, number: int, note: str, new: StrikeNote) -> None:
    """Strike out a note; it stays in sight.

    Raises
    ------
    FieldError
        No reason, or no such note.
    """
    reason = new.reason.strip()
    if not reason:
        raise FieldError("reason", "say why it is struck out.", "Expected a few words, such as “of another job”.")
    with transaction.atomic():
        rows = JobNote.objects.filter(id=note, job=_job(number), struck_reason="")
        if not rows.update(struck_by=actor, struck_reason=reason):
            raise FieldError("note", "it is not there, or struck out already.", "Expected one of this job.")


def looked_at(actor: User, number: int, new: LookedAt) -> None:
    """Remember up to which version somebody has read a job; it never goes back.

    Raises
    ------
    FieldError
        No such job, or a version it has not come to.
    """
    with transaction.atomic():
        job = _job(number)
        if new.version > job.version:
            raise FieldError("version", f"job {number} has not come to it.", f"Expected {job.version} at most.")
        look = JobLook.objects.filter(job=job, person=actor).first() or JobLook(job=job, person=actor, version=0)
        look.version, look.at = max(look.version, new.version), timezone.now()
        look.save()


def _job(number: int) -> Job:
    job = Job.objects.filter(number=number).first()
    if job is None:
        raise FieldError("job", f"there is no job {number}.", "Expected one from the bench.")
    return job


def _person(username: str) -> User:
    found = User.objects.filter(username=username, is_active=True).first()
    if found is None or role_of(found) not in ROLES:
        raise FieldError("to", f"nobody here is called “{username[:30]}”.", "Expected somebody who works here.")
    return found
