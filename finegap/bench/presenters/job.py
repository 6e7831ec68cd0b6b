"""A job as the bench shows it, and as it is signed."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from django.utils import timezone

from finegap.bench import responses
from finegap.bench.changes import TryOf
from finegap.bench.compiled import Compiled
from finegap.bench.models import Event, Job, SignOff
from finegap.bench.presenters import building, gaps, inspecting, preparing, striking
from finegap.bench.presenters.doubtful import doubtful
from finegap.bench.presenters.drawing import drawing_key
from finegap.bench.presenters.layout import laid_out
from finegap.bench.records import Records, name_of
from finegap.bench.verdicts import changed_since, outside_then, shown_verdicts
from finegap.core import VERSION
from finegap.core.families.steps import Stage
from finegap.core.formatting import Shown
from finegap.core.job import Assessment
from finegap.core.materials import MATERIALS
from finegap.core.sheet import SpecSheet
from finegap.inventory.queries import gauge_response, gauge_responses
from finegap.inventory.responses import GaugeResponse
from finegap.works.queries import works_settings

_LOG_SHOWN = 30
_NEWEST = Compiled(lambda job: Event.objects.filter(job=job).order_by("-version")[:_LOG_SHOWN])


def signed_page(job: Job) -> dict[str, Any] | None:
    """A signed job as it was when it was signed, with what was put right since; ``None`` for one that is not signed."""
    if not job.is_signed:
        return None
    # Amendments are of after the signature: the frozen page stays as it is.
    page = laid_out(job.sign_off.shown(), job)
    return page | {"amendments": _amendments(job), "corrected": doubtful(job.revision, page)}


def _amendments(job: Job) -> list[responses.AmendmentResponse]:
    return [
        responses.AmendmentResponse(one.number, one.what, one.reason, one.void, one.belongs_to, name_of(one.by), one.when, one.own)
        for one in job.amendments.select_related("by")
    ]


def _abandoned(job: Job) -> responses.AbandonedResponse | None:
    row = job.abandonment if job.is_abandoned else None
    return responses.AbandonedResponse(name_of(row.by), row.when, row.reason) if row else None


def job_response(records: Records, signature: SignOff | None = None) -> responses.JobResponse:
    """Everything about a job; with a ``signature`` as it is signed."""
    job, assessment = records.job, records.assessment
    sheet = records.job_record.sheet
    # A signature freezes the whole log; the screen shows its newest lines and asks for the rest.
    events = list(job.events.order_by("-version")) if signature else _NEWEST(job.pk)
    view = responses.JobResponse(
        number=job.number,
        version=job.version,
        unit=Shown("mm", "in", "thou"),
        reason=job.reason,
        hours_run=job.hours_run,
        opened_by=name_of(job.opened_by),
        opened_at=job.opened_at,
        pump=_pump(job, sheet),
        duty=gaps.duty(job),
        sheet=sheet.cite(),
        slug=job.revision.sheet.slug,
        sheet_read=_sheet_read(job),
        sheet_unread=not job.revision.may_be_signed_on,
        cautions=[responses.CautionResponse(stage, text) for stage, text in sheet.cautions],
        family=sheet.family.key,
        school=sheet.school.value,
        stages=[responses.StageResponse(stage.value, *assessment.progress[stage]) for stage in Stage],
        details=preparing.details(records),
        ready=preparing.ready(records, assessment),
        procedure=f"the shop's version {job.procedure.version}" if job.procedure else "as Fine Gap lists it",
        steps=preparing.steps(records, assessment),
        drawing=drawing_key(job),
        features=inspecting.features(records, assessment),
        explained=_explained(assessment),
        order=preparing.order(assessment.order, sheet.catalogue),
        materials=list(MATERIALS),
        choice=gaps.choice(assessment.gap.choice, records),
        setting=gaps.setting(records, assessment, TryOf.GAP),
        mesh=gaps.setting(records, assessment, TryOf.MESH),
        slip=gaps.slip(assessment.gap),
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
        former=striking.former(records),
        abandoned=None if signature else _abandoned(job),
        works=_works() if signature else None,
        amendments=[],
        corrected=[],
    )
    return view if signature is not None else _with_news(view, records)


def _pump(job: Job, sheet: SpecSheet) -> responses.PumpResponse:
    return responses.PumpResponse(
        job.pump.tag, job.pump.service, job.pump.location, job.serial or job.pump.serial, sheet.maker, sheet.model
    )


def _sheet_read(job: Job) -> responses.SheetReadResponse | None:
    kept = job.revision
    return responses.SheetReadResponse(kept.read_names, kept.read_at, kept.read_alone) if kept.read_at else None


def _explained(assessment: Assessment) -> responses.ExplainedResponse | None:
    found = assessment.explained
    return None if found is None else responses.ExplainedResponse(found.symptom.name, found.sentence, list(found.explains))


def _signed(signature: SignOff | None) -> responses.SignedResponse | None:
    if signature is None:
        return None
    return responses.SignedResponse(name_of(signature.by), signature.when, signature.reason, signature.core_version, signature.own)


def _works() -> responses.HeadingResponse:
    """The heading of the works at the signature: a report of it goes on saying whose it is."""
    kept = works_settings()
    return responses.HeadingResponse(kept.name, kept.address, kept.logo)


def _with_news(view: responses.JobResponse, records: Records) -> responses.JobResponse:
    """An open job with what changed by itself since it was read: each stands in the way of signing until it is read."""
    told = [*records.job.meanwhile, *changed_since(records.job, shown_verdicts(view), outside_then(records))]
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
