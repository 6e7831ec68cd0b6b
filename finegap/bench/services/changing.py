"""What every change to a job shares: who, when, with which units, a transaction, the version that was seen, the log.

Every change names the ``version`` of the job it was made from. Each section of a job (a part, a step, a stack ...) has a version
of its own. Where somebody else has changed a section since, a change to that section is refused with what they did; changes to
other sections do not stand in its way. Records carry an identity made by the client: a retry is the same record, not a second
one, and the same identity with other contents is a conflict.
"""

from __future__ import annotations

import datetime as dt
import uuid
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from functools import cached_property, wraps
from typing import Any, Self, TypeVar

from django.contrib.auth.models import User
from django.db import connection, transaction
from django.utils import timezone

from finegap.api.errors import Conflict, ReadOnly
from finegap.api.retry import digest
from finegap.api.roles import LEAD, role_of
from finegap.bench.compiled import Reader
from finegap.bench.models import Event, Job, SectionVersion
from finegap.bench.recorded import Recorded
from finegap.bench.records import Records, load, name_of
from finegap.bench.services.news import catch_up
from finegap.core.entry import Entry
from finegap.core.errors import FieldError, Unlikely
from finegap.core.formatting import Units
from finegap.formats.days import moment

_TOLD = 20
"""What somebody else did since: so much of it is told, the newest."""

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
    def is_lead(self) -> bool:
        """Whether a lead makes it."""
        return role_of(self.actor) == LEAD

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


ALL = "*"
"""A section that meets every other: all of the job."""


class JobInHand:
    """A job while it is changed: as it was ``before``, and as it is ``after``; each is read once, when it is first asked for.

    A service that asks for ``before`` asks for it before it writes anything. ``sections`` are what the change is about; ``undone``
    are those it undoes beside them, whether anything was recorded there or not: what somebody saw of them before is out of date.
    """

    def __init__(self, job: Job, ref: JobRef, *sections: str) -> None:
        self.job, self.ref = job, ref
        self.sections = frozenset(sections)
        self.undone: set[str] = set()
        self.read = Reader()

    @cached_property
    def before(self) -> Records:
        """The job as the change found it."""
        return load(self.job, self.read)

    @cached_property
    def after(self) -> Records:
        """The job as the change leaves it."""
        return load(self.job, self.read)

    def __enter__(self) -> Self:
        """What is written from here on is seen by the reader."""
        self._watching = connection.execute_wrapper(self.read.seen)
        self._watching.__enter__()
        return self

    def __exit__(self, *raised: Any) -> None:
        self._watching.__exit__(*raised)

    def wrote(self) -> None:
        """More was written since ``after`` was read: it is read anew when it is asked for again."""
        self.__dict__.pop("after", None)

    def strike(self, rows: Any, why: str) -> int:
        """Strikes out the rows that still stand, with who and when. Answers how many they were."""
        return int(rows.strike(self.ref.actor, self.ref.moment, why))

    def undo_steps(self, keys: Iterable[str], why: str) -> int:
        """Opens steps again, and what was seen at them is to be seen again. Answers how much of it stood."""
        keys = set(keys)
        self.undone |= {f"step:{key}" for key in keys}
        return self.strike(self.job.steps.filter(step__in=keys), why) + self.strike(self.job.proofs.filter(step__in=keys), why)

    def undo_features(self, keys: Iterable[str], why: str) -> int:
        """Says of new parts that they are not in. Answers how many were."""
        keys = set(keys)
        self.undone |= {f"feature:{key}" for key in keys}
        return self.strike(self.job.new_parts.filter(feature__in=keys), why)

    def log(self, what: str) -> None:
        """One line of the log, and one version more, of the job and of each section the change is about or undoes."""
        job = self.job
        job.version += 1
        job.save(update_fields=["version"])
        Event.objects.create(job=job, version=job.version, what=what[:400], **self.ref.stamp)
        SectionVersion.objects.bulk_create(
            SectionVersion(job=job, section=section, version=job.version) for section in sorted(self.sections | self.undone)
        )


C = TypeVar("C")
"""A change as it is declared in ``finegap.bench.changes``."""

Service = Callable[[JobRef, C], JobInHand | None]
"""Makes a change. What it answers is the job in hand, or ``None`` where this very record was there already."""


def changes(
    about: Callable[[Any, JobInHand], str | Iterable[str]],
    record: type[Recorded] | None = None,
    identity: Callable[[Any], uuid.UUID] = lambda new: new.id,
) -> Callable[[Callable[[JobInHand, C], None]], Service[C]]:
    """Makes a service of a function: one transaction on an unsigned job, at the version that was seen of each section.

    ``about`` says which sections: ``feature:idler_bore``, ``step:isolate``; several where it touches several; ``*`` for all of
    the job. ``record`` is the kind of record that is made, ``identity`` the one that holds what was sent.
    """

    def wrap(body: Callable[[JobInHand, C], None]) -> Service[C]:
        @wraps(body)
        def service(ref: JobRef, new: C) -> JobInHand | None:
            with transaction.atomic(), JobInHand(_job(ref.number), ref) as now:
                if record is None:
                    _check_open(now, about(new, now))
                    body(now, new)
                    return now
                key, sent = identity(new), digest(new, ref.actor, ref.entry)
                if is_there(record, key, sent, now.job):
                    return None
                _check_open(now, about(new, now))
                body(now, new)
                # As it may hold other rows made beside it, the one with the identity is marked when all is made.
                record._default_manager.filter(id=key).update(sent=sent, made=now.job.version)
                return now

        return service

    return wrap


def first_of(new: Any) -> uuid.UUID:
    """The identity of the first of several records made by one change: it holds what was sent."""
    return uuid.uuid5(new.id, "0")


def is_there(record: type[Recorded], key: uuid.UUID, sent: str, job: Job) -> bool:
    """Whether this very record of this job was made before.

    Raises
    ------
    FieldError
        Its identity is that of a record of another job.
    Conflict
        It was made with other contents.
    """
    existing = record._default_manager.filter(id=key).first()
    if existing is None:
        return False
    if existing.job_id != job.id:  # type: ignore[attr-defined]
        raise FieldError("id", "this identity is taken by another job.", "Expected a fresh one for each record.")
    if existing.sent not in ("", sent):
        raise Conflict([f"It was saved with other contents, by {name_of(existing.by)}."])
    return True


def _job(number: int) -> Job:
    job = Job.objects.whole().filter(number=number).first()
    if job is None:
        raise FieldError("job", f"there is no job {number}.", "Expected a number from the list.")
    return job


def look(ref: JobRef, about: str) -> JobInHand:
    """A job as a change of a section will find it, before work that takes long; the change itself looks again.

    Raises
    ------
    ReadOnly
        It is signed or abandoned.
    Conflict
        Somebody else has changed that section since.
    FieldError
        There is no such job, or the device's clock is wrong.
    """
    now = JobInHand(_job(ref.number), ref)
    _refuse(now, about)
    return now


def _check_open(now: JobInHand, about: str | Iterable[str]) -> None:
    _refuse(now, about)
    catch_up(now.job, lambda: now.before)


def _refuse(now: JobInHand, about: str | Iterable[str]) -> None:
    job, ref = now.job, now.ref
    if job.is_signed:
        raise ReadOnly
    if job.is_abandoned:
        raise ReadOnly("This job was abandoned: it can be read, not changed.")
    now.sections = frozenset([about] if isinstance(about, str) else about)
    if ref.version > job.version:
        raise Conflict(["This page is of another database. Read the job anew."])
    if job.version != ref.version:
        since = _since(now)
        if since:
            raise Conflict(since)
    if ref.at is not None:
        _check_clock(job, ref)


def _check_clock(job: Job, ref: JobRef) -> None:
    """A clock that is wrong would put a wrong time under a signature: a time to come is asked about, one before the job refused."""
    at = ref.moment
    if at > timezone.now() + AHEAD and not ref.entry.meant:
        problem = f"the clock of this device is ahead: it says {moment(at.isoformat())}."
        raise Unlikely("time", problem, "Set the clock of this device; or is that time meant?")
    if at < job.opened_at - AHEAD:
        problem = f"the clock of this device is behind: it says {moment(at.isoformat())}, before the job was opened."
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
        problem = f"the clock of this device says {moment(ref.moment.isoformat())}, before what was last done on the job."
        raise Unlikely("time", problem, "Set the clock of this device; or is that time meant?")


def _since(now: JobInHand) -> list[str]:
    """What was changed since in the sections of this change, the newest last.

    A person's own changes wait in their order and are no news to that person, but for those made at a later moment: this one is
    then from another device, and older than they are. To all of the job one's own are news: who signs it has read it.
    """
    events = now.job.events.filter(version__gt=now.ref.version)
    if ALL not in now.sections:
        touched = now.job.section_versions.filter(section__in={*now.sections, ALL}, version__gt=now.ref.version)
        events = events.filter(version__in=touched.values("version")).exclude(by=now.ref.actor, at__lte=now.ref.moment)
    told = events.count()
    newest = events.select_related("by").order_by("-version")[:_TOLD]
    lines = [f"{name_of(e.by)}: {e.what}" for e in newest]
    before = told - len(lines)
    return [*([f"And {before} before these."] if before else []), *reversed(lines)]


def has_worked(job: Job, person: User) -> bool:
    """Whether somebody has had a hand in a job."""
    return job.opened_by_id == person.pk or job.events.filter(by=person).exists()
