"""Verdicts that change by something else than an act at the bench: noticed before an act, and kept until somebody reads them."""

from __future__ import annotations

from collections.abc import Callable

from finegap.bench import responses
from finegap.bench.models import Job
from finegap.bench.presenters.job import job_response
from finegap.bench.records import Records
from finegap.bench.verdicts import outside_now, outside_then, shown_verdicts


def note_verdicts(records: Records, view: responses.JobResponse) -> None:
    """Keep what a job showed after an act, and what lay outside it then."""
    Job.objects.filter(pk=records.job.pk, version=view.version).update(
        verdicts=shown_verdicts(view), verdicts_version=view.version, outside=outside_then(records)
    )


def catch_up(job: Job, before: Callable[[], Records]) -> None:
    """Before a change: keeps what changed by itself, where something outside the job is another than when it was last shown."""
    if job.verdicts_version != job.version:
        return
    outside = outside_now(job)
    if job.outside == outside:
        return
    job.meanwhile = job_response(before()).meanwhile
    job.outside, job.verdicts, job.verdicts_version = outside, {}, 0
    job.save(update_fields=["meanwhile", "outside", "verdicts", "verdicts_version"])
