"""What every change to a job shares: who, a transaction, the version that was seen, the log.

Every change names the ``version`` of the job it was made from. If somebody saved in between it is refused with what they did,
so nothing is overwritten silently. Records carry an identity made by the client: a retry is the same record, not a second one.
"""

from __future__ import annotations

import uuid
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from finegap.bench.facts import name_of
from finegap.bench.models import Event, Job, Recorded, SignOff
from finegap.core.errors import FieldError
from finegap.core.showing import Units
from finegap.site.errors import Conflict, ReadOnly


@dataclass(frozen=True)
class Seen:
    """From which version of which job a change is made, by whom, and the unit a bare number is in."""

    actor: User
    number: int
    version: int
    unit: Units = Units.MM


@contextmanager
def changing(seen: Seen) -> Iterator[Job]:
    """A transaction on an unsigned job, at the version that was seen."""
    with transaction.atomic():
        job = _job(seen.number)
        _check_open(job, seen)
        yield job


@contextmanager
def recording(seen: Seen, kind: type[Recorded], record_id: uuid.UUID) -> Iterator[Job | None]:
    """As ``changing``, for a record with an identity: ``None`` when this very record is already there."""
    with transaction.atomic():
        job = _job(seen.number)
        existing = kind._default_manager.filter(id=record_id).first()
        if existing is None:
            _check_open(job, seen)
            yield job
            return
        if existing.job_id != job.id:  # type: ignore[attr-defined]
            raise FieldError("id", "this identity is taken by another job.", "Expected a fresh one for each record.")
        yield None


def _job(number: int) -> Job:
    job = Job.objects.select_related("pump", "revision__sheet", "opened_by", "procedure", "gun").filter(number=number).first()
    if job is None:
        raise FieldError("job", f"there is no job {number}.", "Expected a number from the list.")
    return job


def _check_open(job: Job, seen: Seen) -> None:
    if SignOff.objects.filter(job=job).exists():
        raise ReadOnly
    if job.version != seen.version:
        raise Conflict(_since(job, seen.version))


def _since(job: Job, version: int) -> list[str]:
    events = job.events.filter(version__gt=version).select_related("by")
    return [f"{name_of(e.by)}: {e.what}" for e in events]


def log(job: Job, actor: User, what: str) -> None:
    """One line of the log, and one version more."""
    job.version += 1
    job.save(update_fields=["version"])
    Event.objects.create(job=job, version=job.version, by=actor, at=timezone.now(), what=what[:400])
