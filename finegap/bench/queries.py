"""Reading jobs: from records and the core to what the bench shows, in a fixed number of SQL queries."""

from __future__ import annotations

import uuid
from collections.abc import Iterable
from typing import Any

from django.db.models import Exists, OuterRef, Q, QuerySet, Subquery

from finegap.api.lists import words
from finegap.api.sections import Entries, working_at
from finegap.bench import responses
from finegap.bench.models import Amendment, Event, Job, Photo
from finegap.bench.presenters import inspecting, wearing
from finegap.bench.presenters.drawing import drawing
from finegap.bench.presenters.job import job_response, signed_page
from finegap.bench.records import load, name_of
from finegap.core.drawing.labels import Screen
from finegap.core.formatting import Units
from finegap.core.gap.tape import Printed
from finegap.pumps.models import PUMP_FIELDS, Pump
from finegap.sheets.drawn import DrawingResponse

_LOG_PAGE = 50

LISTS = {
    "features": Entries("key", ("readings", "stations", "damages", "made", "fits")),
    "steps": Entries("key"),
    "tasks": Entries("key"),
    "log": Entries("version"),
}
"""Lists of a job whose entries are sections of their own."""


_SAID = (
    "number", "reason", "opened_at", "ended", "pump__tag", "pump__service", "opened_by__first_name", "opened_by__last_name",
    "opened_by__username", "sign_off__at",
)  # fmt: skip
"""What a list says of a job: nothing else of its row is read."""


def jobs() -> QuerySet[Job]:
    """All jobs, newest first, with what a list says of each."""
    last = Event.objects.filter(job=OuterRef("pk")).order_by("-version").values("what")[:1]
    void = Amendment.objects.filter(job=OuterRef("pk"), void=True)
    rows = Job.objects.select_related("pump", "opened_by", "sign_off").only(*_SAID)
    return rows.annotate(last=Subquery(last), void=Exists(void))


def jobs_with(rows: QuerySet[Job], said: str) -> QuerySet[Job]:
    """Jobs of the pumps that have every word of a text, and the job with that number."""
    pumps = Q(pump__in=Pump.objects.filter(words(said, PUMP_FIELDS)).values("pk"))
    return rows.filter(pumps | Q(number=said) if said.isdecimal() and len(said) < 10 else pumps)


def job_lines(rows: Iterable[Job]) -> list[responses.JobLine]:
    """Jobs as a list says them."""
    return [
        responses.JobLine(
            number=job.number,
            pump=job.pump.tag,
            service=job.pump.service,
            reason=job.reason,
            opened_by=name_of(job.opened_by),
            opened_at=job.opened_at,
            signed_at=job.sign_off.at if job.is_signed else None,
            ended="abandoned" if job.is_abandoned else "void" if job.void else "",  # type: ignore[attr-defined]
            last=job.last or "",  # type: ignore[attr-defined]
        )
        for job in rows
    ]


def job_view(number: int) -> responses.JobResponse | dict[str, Any] | None:
    """A job as the bench shows it; a signed one as it was when it was signed."""
    job = Job.objects.whole().filter(number=number).first()
    if job is None:
        return None
    return signed_page(job) or job_response(load(job))


def log_of(number: int) -> QuerySet[Event] | None:
    """The log of a job, newest first; ``None`` where there is no such job."""
    if not Job.objects.filter(number=number).exists():
        return None
    return Event.objects.filter(job__number=number).select_related("by").order_by("-version")


def log_lines(events: QuerySet[Event]) -> list[responses.EventResponse]:
    """A page of a log."""
    return [responses.EventResponse(e.version, e.what, name_of(e.by), e.when) for e in events[:_LOG_PAGE]]


def tape_view(number: int, units: Units) -> Printed | None:
    """The tape for a job's bearing housing; ``None`` where there is no such job, no housing, or no row of the table for its duty.

    Raises
    ------
    FieldError
        A tape that cannot be printed: longer than once round, or marks too close to tell apart.
    """
    job = Job.objects.whole().filter(number=number).first()
    if job is None:
        return None
    records = load(job)
    sheet, setting = records.job_record.sheet, records.assessment.gap.setting
    tape = sheet.means.tape(setting.window, units) if setting else None
    if tape is None:
        return None
    return Printed(tape, job.pump.tag, f"{sheet.title}, revision {sheet.revision}", job.number)


def drawing_view(number: int, units: Units, screen: Screen) -> DrawingResponse | None:
    """The drawing of a job's pump; ``None`` where there is no such job."""
    job = Job.objects.whole().filter(number=number).first()
    return drawing(job, units, screen) if job else None


def wear_view(number: int, feature: str, units: Units) -> responses.WearResponse | None:
    """The chart of one part's wear; ``None`` where there is no such job or feature."""
    job = Job.objects.whole().filter(number=number).first()
    if job is None:
        return None
    records = load(job)
    state = next((s for s in records.assessment.features if s.feature.key == feature), None)
    return wearing.wear(state, records, units) if state else None


def fit_view(number: int, feature: str, gauge: str) -> responses.FitResponse | None:
    """What a gauge can do for a part; ``None`` where there is no such job or part, or the gauge is not made for it."""
    job = Job.objects.whole().filter(number=number).first()
    states = load(job).assessment.features if job else ()
    state = next((s for s in states if s.feature.key == feature), None)
    return inspecting.fit(state, gauge) if state else None


def working_view(number: int, place: str) -> Any:
    """The working that stands at a place of a job; ``None`` where none does."""
    view = job_view(number)
    return None if view is None else working_at(view, place, LISTS)


def photo_of(number: int, photo: uuid.UUID) -> Photo | None:
    """A photograph of a job."""
    return Photo.objects.filter(id=photo, job__number=number).first()


def pump_of(number: int) -> str | None:
    """The tag of the pump a job is on."""
    return Job.objects.filter(number=number).values_list("pump__tag", flat=True).first()


def version_of(number: int) -> int | None:
    """The version of a job's last change; ``None`` where there is no such job."""
    return Job.objects.filter(number=number).values_list("version", flat=True).first()


def needs_lead(number: int, step: str) -> bool:
    """Whether a step of a job is a hold point or a caution, which only a lead skips."""
    job = Job.objects.whole().filter(number=number).first()
    steps = load(job).job_record.family.steps if job else ()
    return any(s.key == step and (s.hold or s.caution) for s in steps)
