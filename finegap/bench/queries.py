"""Reading jobs: from records and the core to what the bench shows, in a fixed number of SQL queries."""

from __future__ import annotations

import uuid
from typing import Any

from django.db.models import OuterRef, Subquery
from django.utils import timezone

from finegap.bench import shapes
from finegap.bench.facts import GAP, MESH, load, name_of
from finegap.bench.frozen import upgraded
from finegap.bench.models import Event, Job, Photo, SignOff
from finegap.bench.showing.building import BuildingWords
from finegap.bench.showing.inspecting import FeatureWords
from finegap.bench.showing.preparing import PreparingWords
from finegap.bench.showing.proving import ProvingWords
from finegap.bench.showing.setting import SettingWords
from finegap.core.families.model import Stage
from finegap.core.gap.declared import HousingMeans
from finegap.core.gap.tape import Printed, Tape
from finegap.core.job import assess
from finegap.core.materials import MATERIALS
from finegap.core.showing import Units
from finegap.toolbox.queries import gauge_shapes

_LOG_SHOWN = 30


def job_lines() -> list[shapes.JobLine]:
    """All jobs, newest first."""
    last = Event.objects.filter(job=OuterRef("pk")).order_by("-version").values("what")[:1]
    jobs = Job.objects.select_related("pump", "opened_by", "sign_off").annotate(last=Subquery(last))
    return [
        shapes.JobLine(
            number=job.number,
            pump=job.pump.tag,
            service=job.pump.service,
            reason=job.reason,
            opened_by=name_of(job.opened_by),
            opened_at=job.opened_at,
            signed_at=job.sign_off.at if hasattr(job, "sign_off") else None,
            last=job.last or "",
        )
        for job in jobs
    ]


def job_view(number: int, units: Units) -> shapes.JobShape | dict[str, Any] | None:
    """A job as the bench shows it; a signed one as it was when it was signed."""
    job = Job.objects.select_related("pump", "revision__sheet", "opened_by", "procedure", "gun").filter(number=number).first()
    if job is None:
        return None
    signature = SignOff.objects.filter(job=job).first()
    if signature is not None:
        return upgraded(signature.record[units.value], job)
    return job_shape(job, units)


def job_shape(job: Job, units: Units, signature: SignOff | None = None) -> shapes.JobShape:
    """Work out and render everything about a job."""
    records = load(job)
    assessment = assess(records.facts)
    sheet = records.facts.sheet
    features, preparing, setting = FeatureWords(units), PreparingWords(units), SettingWords(units)
    events = list(job.events.order_by("-version")[:_LOG_SHOWN])
    explained, drawing = assessment.explained, records.facts.family.drawing
    return shapes.JobShape(
        number=job.number,
        version=job.version,
        unit=units.value,
        reason=job.reason,
        hours_run=job.hours_run,
        opened_by=name_of(job.opened_by),
        opened_at=job.opened_at,
        pump=shapes.PumpShape(
            job.pump.tag, job.pump.service, job.pump.location, job.serial or job.pump.serial, sheet.maker, sheet.model
        ),
        duty=setting.duty(job),
        sheet=sheet.cite(),
        family=sheet.family.key,
        school=sheet.school.value,
        stages=[shapes.StageShape(stage.value, *assessment.progress[stage]) for stage in Stage],
        known=preparing.known(records),
        ready=preparing.ready(records, assessment),
        procedure=f"the shop's version {job.procedure.version}" if job.procedure else "as Fine Gap lists it",
        steps=preparing.steps(records, assessment),
        drawing=shapes.DrawingShape(*drawing.size, [shapes.MarkShape(m.style.value, m.path) for m in drawing.marks]),
        features=features.features(records, assessment),
        explained=None
        if explained is None
        else shapes.ExplainedShape(explained.symptom.name, setting.say(explained.sentence), list(explained.explains)),
        order=preparing.order(assessment.order, sheet.catalogue),
        materials=list(MATERIALS),
        choice=setting.choice(assessment.gapping.choice, records),
        setting=setting.setting(records, assessment, GAP),
        mesh=setting.setting(records, assessment, MESH),
        slip=setting.slip(assessment.gapping),
        proving=ProvingWords(units).proving(records, assessment),
        building=BuildingWords(units).building(records, assessment),
        gauges=gauge_shapes(records.gauges, units, timezone.localdate()),
        blockers=[shapes.BlockerShape(b.stage.value, setting.say(b.sentence), b.lead_may) for b in assessment.blockers],
        log=[shapes.EventShape(e.version, e.what, records.names[e.by_id], e.at) for e in events],
        signed=None
        if signature is None
        else shapes.SignedShape(name_of(signature.by), signature.at, signature.reason, signature.core_version),
    )


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
    sheet, setting = records.facts.sheet, assess(records.facts).gapping.setting
    if setting is None or not isinstance(sheet.means, HousingMeans):
        return None
    tape = Tape(sheet.means.housing, setting.window, units)
    return Printed(tape, job.pump.tag, f"{sheet.title}, revision {sheet.revision}", job.number)


def wear_view(number: int, feature: str, units: Units) -> shapes.WearShape | None:
    """The chart of one part's wear; ``None`` where there is no such job or feature."""
    job = Job.objects.select_related("pump", "revision__sheet", "procedure", "gun").filter(number=number).first()
    if job is None:
        return None
    records = load(job)
    state = next((s for s in assess(records.facts).features if s.feature.key == feature), None)
    return FeatureWords(units).wear(state, records) if state else None


def photo_of(number: int, photo: uuid.UUID) -> Photo | None:
    """A photograph of a job."""
    return Photo.objects.filter(id=photo, job__number=number).first()


def pump_of(number: int) -> str | None:
    """The tag of the pump a job is on."""
    return Job.objects.filter(number=number).values_list("pump__tag", flat=True).first()
