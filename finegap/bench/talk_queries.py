"""Who is on a job, what they wrote one another, and what changed since somebody looked."""

from __future__ import annotations

import datetime as dt

from django.contrib.auth.models import User
from django.db.models import Max
from django.utils import timezone

from finegap.bench.models import Event, Job, JobLook, JobNote
from finegap.bench.records import name_of
from finegap.bench.responses import EventResponse
from finegap.bench.responses.talk import HereResponse, JobNoteResponse, SinceResponse, TalkResponse

_NOTES, _EVENTS, _PEOPLE = 60, 30, 8
_HERE = dt.timedelta(minutes=10)
"""Who had the job before them so recently is taken to be at it (no source)."""


def talk_of(number: int, reader: User) -> TalkResponse | None:
    """What goes on at a job beside its record; ``None`` where there is no such job."""
    job = Job.objects.filter(number=number).only("pk", "version", "opened_at", "ended").first()
    if job is None:
        return None
    notes = list(JobNote.objects.filter(job=job).select_related("by", "to", "taken_by").order_by("-at")[: _NOTES + 1])
    return TalkResponse(
        here=_here(job),
        notes=[_note(one, reader, job) for one in notes[:_NOTES]],
        more=len(notes) > _NOTES,
        since=_since(job, reader),
    )


def _here(job: Job) -> list[HereResponse]:
    """Who worked on it, the last first, and who has it before them now."""
    seen = dict(JobLook.objects.filter(job=job).values_list("person", "at"))
    acted = dict(Event.objects.filter(job=job).values_list("by").annotate(last=Max("at")).values_list("by", "last"))
    took = dict(JobNote.objects.filter(job=job, taken_by__isnull=False).values_list("taken_by", "taken_at"))
    keys: dict[int, dt.datetime] = dict(acted)
    for key, at in took.items():
        if key is not None and at is not None:
            keys[key] = max(at, keys.get(key, at))
    now = timezone.now()
    looking = {key: at for key, at in seen.items() if now - at < _HERE}
    people = User.objects.in_bulk([*keys, *looking])
    last = sorted({*keys, *looking}, key=lambda key: keys.get(key) or looking[key], reverse=True)[:_PEOPLE]
    return [HereResponse(name_of(people[key]), keys.get(key), key in looking) for key in last if key in people]


def _since(job: Job, reader: User) -> SinceResponse | None:
    """What others did since this person looked; nothing where they never did, or nothing was done."""
    look = JobLook.objects.filter(job=job, person=reader).first()
    if look is None or look.version >= job.version:
        return None
    rows = Event.objects.filter(job=job, version__gt=look.version).exclude(by=reader).select_related("by").order_by("-version")
    events = list(rows[: _EVENTS + 1])
    if not events:
        return None
    lines = [EventResponse(one.version, one.what, name_of(one.by), one.when) for one in events[:_EVENTS]]
    return SinceResponse(look.at, lines, len(events) > _EVENTS)


def _note(one: JobNote, reader: User, job: Job) -> JobNoteResponse:
    for_reader = one.to_id in (None, reader.pk) and one.by_id != reader.pk and not job.ended
    return JobNoteResponse(
        id=one.id,
        text=one.text,
        by=name_of(one.by),
        at=one.at,
        handover=one.handover,
        to=name_of(one.to) if one.to else "",
        taken_by=name_of(one.taken_by) if one.taken_by else "",
        taken_at=one.taken_at,
        may_take=one.handover and one.taken_by_id is None and not one.struck_reason and for_reader,
        struck_reason=one.struck_reason,
    )
