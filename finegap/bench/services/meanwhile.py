"""Verdicts that changed by something else than an act at the bench: kept until somebody reads them."""

from __future__ import annotations

from django.db import transaction

from finegap.bench import responses
from finegap.bench.models import Job
from finegap.bench.services.changing import JobRef, changing, log
from finegap.bench.verdicts import changed_since, outside_now, shown_verdicts


def note_verdicts(view: responses.JobResponse) -> None:
    """Keep what a job showed after an act, and what lay outside it then."""
    with transaction.atomic():
        job = Job.objects.select_related("pump").get(number=view.number)
        Job.objects.filter(pk=job.pk, version=view.version).update(
            verdicts=shown_verdicts(view), verdicts_version=view.version, outside=outside_now(job)
        )


def catch_up(number: int) -> None:
    """Before an act: if something outside the job is another than when it was last shown, keep what that changed."""
    from finegap.bench.queries import job_response, open_job_row

    job = open_job_row(number)
    if job is None or job.verdicts_version != job.version:
        return
    outside = outside_now(job)
    if job.outside == outside:
        return
    told = changed_since(job, shown_verdicts(job_response(job)), outside)
    with transaction.atomic():
        Job.objects.filter(pk=job.pk, version=job.version).update(
            meanwhile=[*job.meanwhile, *told], outside=outside, verdicts={}, verdicts_version=0
        )


def read_meanwhile(ref: JobRef) -> None:
    """Say that what changed by itself was read."""
    from finegap.bench.queries import job_response

    with changing(ref, "meanwhile") as job:
        told = job_response(job).meanwhile
        if told:
            job.meanwhile = []
            job.save(update_fields=["meanwhile"])
            log(job, ref, f"Read: {'; '.join(told)}")
