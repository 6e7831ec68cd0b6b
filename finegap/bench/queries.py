"""Reading jobs: from records and the core to what the bench shows, in a fixed number of SQL queries."""

from __future__ import annotations

import uuid
from dataclasses import replace
from typing import Any

from django.db.models import Exists, OuterRef, Subquery
from django.utils import timezone

from finegap.bench import responses
from finegap.bench.models import Abandonment, Amendment, Event, Job, Photo, SignOff
from finegap.bench.presenters import building, inspecting, preparing, setting, striking
from finegap.bench.record.layout import laid_out
from finegap.bench.records import GAP, MESH, Records, load, name_of
from finegap.bench.verdicts import changed_since, outside_of, shown_verdicts
from finegap.core import VERSION
from finegap.core.families.drawing import Drawing
from finegap.core.families.steps import Stage
from finegap.core.formatting import Shown, Units
from finegap.core.gap.tape import Printed
from finegap.core.job import Assessment, assess
from finegap.core.materials import MATERIALS
from finegap.core.sheet import SpecSheet
from finegap.inventory.queries import gauge_response, gauge_responses
from finegap.inventory.responses import GaugeResponse

_LOG_SHOWN = 30
_LOG_PAGE = 50


def job_lines() -> list[responses.JobLine]:
    """All jobs, newest first."""
    last = Event.objects.filter(job=OuterRef("pk")).order_by("-version").values("what")[:1]
    void = Amendment.objects.filter(job=OuterRef("pk"), void=True)
    rows = Job.objects.select_related("pump", "opened_by", "sign_off", "abandonment").defer("sign_off__document")
    jobs = rows.annotate(last=Subquery(last), void=Exists(void))
    return [
        responses.JobLine(
            number=job.number,
            pump=job.pump.tag,
            service=job.pump.service,
            reason=job.reason,
            opened_by=name_of(job.opened_by),
            opened_at=job.opened_at,
            signed_at=job.sign_off.at if hasattr(job, "sign_off") else None,
            ended="abandoned" if hasattr(job, "abandonment") else "void" if job.void else "",
            last=job.last or "",
        )
        for job in jobs
    ]


def job_view(number: int) -> responses.JobResponse | dict[str, Any] | None:
    """A job as the bench shows it; a signed one as it was when it was signed."""
    job = Job.objects.select_related("pump", "revision__sheet", "opened_by", "procedure", "gun").filter(number=number).first()
    if job is None:
        return None
    signature = SignOff.objects.filter(job=job).first()
    if signature is not None:
        # Amendments are of after the signature: the frozen page stays as it is.
        return laid_out(signature.shown(), job) | {"amendments": _amendments(job)}
    return job_response(job)


def _amendments(job: Job) -> list[responses.AmendmentResponse]:
    return [
        responses.AmendmentResponse(one.number, one.what, one.reason, one.void, one.belongs_to, name_of(one.by), one.when, one.own)
        for one in job.amendments.select_related("by")
    ]


def _abandoned(job: Job) -> responses.AbandonedResponse | None:
    row = Abandonment.objects.filter(job=job).select_related("by").first()
    return responses.AbandonedResponse(name_of(row.by), row.when, row.reason) if row else None


def open_job_row(number: int) -> Job | None:
    """An unsigned job with what is shown of it."""
    jobs = Job.objects.select_related("pump", "revision__sheet", "opened_by", "procedure", "gun")
    return jobs.filter(number=number, sign_off__isnull=True, abandonment__isnull=True).first()


def log_lines(number: int, before: int) -> list[responses.EventResponse] | None:
    """Lines of a job's log before a version, newest first; 0 begins at the newest. ``None`` where there is no such job."""
    if not Job.objects.filter(number=number).exists():
        return None
    events = Event.objects.filter(job__number=number).select_related("by")
    if before:
        events = events.filter(version__lt=before)
    return [responses.EventResponse(e.version, e.what, name_of(e.by), e.when) for e in events.order_by("-version")[:_LOG_PAGE]]


def job_response(job: Job, signature: SignOff | None = None) -> responses.JobResponse:
    """Work out everything about a job."""
    records = load(job)
    assessment = assess(records.job_record)
    sheet = records.job_record.sheet
    # A signature freezes the whole log; the screen shows its newest lines and asks for the rest.
    events = list(job.events.order_by("-version")[: None if signature else _LOG_SHOWN])
    view = responses.JobResponse(
        number=job.number,
        version=job.version,
        unit=Shown("mm", "in"),
        reason=job.reason,
        hours_run=job.hours_run,
        opened_by=name_of(job.opened_by),
        opened_at=job.opened_at,
        pump=_pump(job, sheet),
        duty=setting.duty(job),
        sheet=sheet.cite(),
        family=sheet.family.key,
        school=sheet.school.value,
        stages=[responses.StageResponse(stage.value, *assessment.progress[stage]) for stage in Stage],
        details=preparing.details(records),
        ready=preparing.ready(records, assessment),
        procedure=f"the shop's version {job.procedure.version}" if job.procedure else "as Fine Gap lists it",
        steps=preparing.steps(records, assessment),
        drawing=_drawing(records.job_record.family.drawing),
        features=inspecting.features(records, assessment),
        explained=_explained(assessment),
        order=preparing.order(assessment.order, sheet.catalogue),
        materials=list(MATERIALS),
        choice=setting.choice(assessment.gap.choice, records),
        setting=setting.setting(records, assessment, GAP),
        mesh=setting.setting(records, assessment, MESH),
        slip=setting.slip(assessment.gap),
        tasks=[task.show(key) for key, task in assessment.tasks.by_key.items()],
        building=building.building(records),
        gauges=gauge_responses(records.gauges, timezone.localdate()),
        used_gauges=_used(records),
        blockers=[responses.BlockerResponse(b.stage.value, b.sentence, b.lead_may, b.feature) for b in assessment.blockers],
        meanwhile=[],
        log=[responses.EventResponse(e.version, e.what, records.names[e.by_id], e.when) for e in events],
        log_total=job.version,
        core=VERSION,
        signed=_signed(signature),
        struck=striking.struck(records),
        abandoned=None if signature else _abandoned(job),
        amendments=[],
    )
    return view if signature is not None else _with_news(view, job, records)


def _pump(job: Job, sheet: SpecSheet) -> responses.PumpResponse:
    return responses.PumpResponse(
        job.pump.tag, job.pump.service, job.pump.location, job.serial or job.pump.serial, sheet.maker, sheet.model
    )


def _drawing(drawing: Drawing) -> responses.DrawingResponse:
    return responses.DrawingResponse(*drawing.size, [responses.MarkResponse(m.style.value, m.path) for m in drawing.marks])


def _explained(assessment: Assessment) -> responses.ExplainedResponse | None:
    found = assessment.explained
    return None if found is None else responses.ExplainedResponse(found.symptom.name, found.sentence, list(found.explains))


def _signed(signature: SignOff | None) -> responses.SignedResponse | None:
    if signature is None:
        return None
    return responses.SignedResponse(name_of(signature.by), signature.when, signature.reason, signature.core_version, signature.own)


def _with_news(view: responses.JobResponse, job: Job, records: Records) -> responses.JobResponse:
    """An open job with what changed by itself since it was read: each stands in the way of signing until it is read."""
    past = sum(len(visits) for visits in records.job_record.past.visits.values())
    outside = outside_of(job, past, records.job_record.new_share)
    told = [*job.meanwhile, *changed_since(job, shown_verdicts(view), outside)]
    return replace(view, meanwhile=told, blockers=[*view.blockers, *(_unread(one) for one in told)])


def _unread(sentence: str) -> responses.BlockerResponse:
    return responses.BlockerResponse(
        Stage.CLOSE.value, f"Changed by itself, and not read yet: {sentence}", lead_may=False, feature=""
    )


def _used(records: Records) -> list[GaugeResponse]:
    """What something was measured with, each under the certificate of that moment."""
    late = {r.certificate_id for r in records.readings if r.gauge_overdue}
    late |= {c.certificate_id for of in records.checks.values() for c in of if c.gauge_overdue and c.certificate_id}
    late |= {t.certificate_id for t in records.torques if t.wrench_overdue}
    used = sorted(records.certificates.values(), key=lambda one: (one.gauge.tag, one.pk))
    return [gauge_response(one.gauge, one, one.pk in late) for one in used]


def tape_view(number: int, units: Units) -> Printed | None:
    """The tape for a job's bearing housing; ``None`` where there is no such job, no housing, or no row of the table for its duty.

    Raises
    ------
    FieldError
        A tape that cannot be printed: longer than once round, or marks too close to tell apart.
    """
    job = Job.objects.select_related("pump", "revision__sheet", "procedure", "gun").filter(number=number).first()
    if job is None:
        return None
    records = load(job)
    sheet, setting = records.job_record.sheet, assess(records.job_record).gap.setting
    tape = sheet.means.tape(setting.window, units) if setting else None
    if tape is None:
        return None
    return Printed(tape, job.pump.tag, f"{sheet.title}, revision {sheet.revision}", job.number)


def wear_view(number: int, feature: str, units: Units) -> responses.WearResponse | None:
    """The chart of one part's wear; ``None`` where there is no such job or feature."""
    job = Job.objects.select_related("pump", "revision__sheet", "procedure", "gun").filter(number=number).first()
    if job is None:
        return None
    records = load(job)
    state = next((s for s in assess(records.job_record).features if s.feature.key == feature), None)
    return inspecting.wear(state, records, units) if state else None


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
    job = open_job_row(number)
    steps = load(job).job_record.family.steps if job else ()
    return any(s.key == step and (s.hold or s.caution) for s in steps)
