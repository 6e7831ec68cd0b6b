"""What every change to a job shares: who, when, with which units, a transaction, the version that was seen, the log.

Every change names the ``version`` of the job it was made from. If somebody else saved to the same part or step in between it is
refused with what they did, so nothing is overwritten silently; changes to different parts or steps do not stand in each other's
way. Records carry an identity made by the client: a retry is the same record, not a second one,
and the same identity with other contents is a conflict.
"""

from __future__ import annotations

import datetime as dt
import uuid
from collections.abc import Callable, Iterable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from finegap.bench.models import Abandonment, Event, Job, SignOff
from finegap.bench.recorded import Recorded
from finegap.bench.records import name_of
from finegap.core.entry import Entry
from finegap.core.errors import FieldError, Unlikely
from finegap.core.formatting import Units
from finegap.site.errors import Conflict, ReadOnly
from finegap.site.retry import digest

_TOLD = 20
"""What somebody else did since: so much of it is told, the newest."""

_LOOKED_AT = 500
"""How many changes one may be behind."""

AHEAD = dt.timedelta(minutes=5)
"""How far a device's clock may be ahead of this one before it is asked about."""


@dataclass(frozen=True)
class JobRef:
    """From which version of which job a change is made, and by whom.

    ``entry`` is how it was typed. ``at`` is the moment of the act with its zone; ``None`` is now, by the clock of this machine.
    """

    actor: User
    number: int
    version: int
    entry: Entry = field(default_factory=Entry)
    at: dt.datetime | None = None

    @property
    def unit(self) -> Units:
        """The unit system it was typed in."""
        return self.entry.units

    @cached_property
    def moment(self) -> dt.datetime:
        """When it was done: one moment for all that is kept of one act."""
        return self.at or timezone.now()

    @property
    def stamp(self) -> dict[str, Any]:
        """By whom and when, as a record keeps it."""
        at = self.moment
        return {"by": self.actor, "at": at, "zone_min": zone_of(at)}


def zone_of(moment: dt.datetime) -> int:
    """Minutes by which a moment's clock is ahead of UTC."""
    ahead = timezone.localtime(moment).utcoffset() if moment.tzinfo in (None, dt.UTC) else moment.utcoffset()
    return round((ahead or dt.timedelta()).total_seconds() / 60)


About = str | Callable[[Job], Iterable[str]]
"""What a change is about: ``feature:idler_bore``, ``step:isolate``; several where it touches several; ``*`` for all of the job."""

ALL = "*"


@contextmanager
def changing(ref: JobRef, about: About = ALL) -> Iterator[Job]:
    """A transaction on an unsigned job, at the version that was seen of what the change is about."""
    with transaction.atomic():
        job = _job(ref.number)
        _check_open(job, ref, about)
        yield job


@contextmanager
def recording(
    ref: JobRef, kind: type[Recorded], record_id: uuid.UUID, contents: object, about: About = ALL
) -> Iterator[Job | None]:
    """As ``changing``, for a record with an identity: ``None`` when this very record is already there.

    ``contents`` is what came with the identity.
    """
    with transaction.atomic():
        job = _job(ref.number)
        existing = kind._default_manager.filter(id=record_id).first()
        sent = digest(contents, ref.actor, ref.entry)
        if existing is None:
            _check_open(job, ref, about)
            yield job
            # As it may hold other rows made beside it, the one with the identity is marked when all is made.
            kind._default_manager.filter(id=record_id).update(sent=sent, made=job.version)
            return
        if existing.job_id != job.id:  # type: ignore[attr-defined]
            raise FieldError("id", "this identity is taken by another job.", "Expected a fresh one for each record.")
        if existing.sent not in ("", sent):
            raise Conflict([f"It was saved with other contents, by {name_of(existing.by)}."])
        yield None


def _job(number: int) -> Job:
    job = Job.objects.select_related("pump", "revision__sheet", "opened_by", "procedure", "gun").filter(number=number).first()
    if job is None:
        raise FieldError("job", f"there is no job {number}.", "Expected a number from the list.")
    return job


def _check_open(job: Job, ref: JobRef, about: About) -> None:
    if SignOff.objects.filter(job=job).exists():
        raise ReadOnly
    if Abandonment.objects.filter(job=job).exists():
        raise ReadOnly("This job was abandoned: it can be read, not changed.")
    job.about = about if isinstance(about, str) else " ".join(sorted(set(about(job))))
    if ref.version > job.version:
        raise Conflict(["This page is of another database. Read the job anew."])
    if job.version != ref.version:
        since = _since(job, ref)
        if since:
            raise Conflict(since)
    if ref.at is not None:
        _check_clock(job, ref)


def _check_clock(job: Job, ref: JobRef) -> None:
    """A clock that is wrong would put a wrong time under a signature: a time to come is asked about, one before the job refused."""
    at = ref.moment
    if at > timezone.now() + AHEAD and not ref.entry.meant:
        problem = f"the clock of this device is ahead: it says {at:%Y-%m-%d %H:%M}."
        raise Unlikely("time", problem, "Set the clock of this device; or is that time meant?")
    if at < job.opened_at - AHEAD:
        problem = f"the clock of this device is behind: it says {at:%Y-%m-%d %H:%M}, before the job was opened."
        raise FieldError("time", problem, "Set the clock of this device, then go on.")


def check_last(job: Job, ref: JobRef) -> None:
    """What closes a job is done after all of it: a clock that says otherwise is asked about.

    Readings may wait through an outage; this is done face to face, and its time stands under a name.

    Raises
    ------
    Unlikely
        A time before that of the last line of the log.
    """
    last = job.events.order_by("-at").first()
    if last is not None and ref.moment < last.at - AHEAD and not ref.entry.meant:
        problem = f"the clock of this device says {ref.moment:%Y-%m-%d %H:%M}, before what was last done on the job."
        raise Unlikely("time", problem, "Set the clock of this device; or is that time meant?")


def _since(job: Job, ref: JobRef) -> list[str]:
    """What others did since to what this change is about, the newest; a change to all of the job stands in the way of anybody's.

    A person's own changes wait in their order and are no news to that person.
    """
    if ref.version < job.version - _LOOKED_AT:
        return [f"More than {_LOOKED_AT} changes since. Read the job anew."]
    events = list(job.events.filter(version__gt=ref.version).select_related("by").order_by("-version"))
    mine = set(job.about.split())
    told = [e for e in events if ALL in mine or (e.by_id != ref.actor.pk and _meets(mine, e.about))]
    lines = [f"{name_of(e.by)}: {e.what}" for e in told[:_TOLD]]
    before = len(told) - len(lines)
    return [*([f"And {before} before these."] if before else []), *reversed(lines)]


def _meets(mine: set[str], about: str) -> bool:
    theirs = set(about.split())
    return ALL in theirs or bool(mine & theirs)


def has_worked(job: Job, person: User) -> bool:
    """Whether somebody has had a hand in a job."""
    return job.opened_by_id == person.pk or job.events.filter(by=person).exists()


def log(job: Job, ref: JobRef, what: str) -> None:
    """One line of the log, and one version more."""
    job.version += 1
    job.save(update_fields=["version"])
    Event.objects.create(job=job, version=job.version, what=what[:400], about=job.about, **ref.stamp)
