"""A change carried out whole: it is made, and the job as it stands after it is the answer, in one transaction."""

from __future__ import annotations

from typing import Any, TypeVar

from django.db import transaction

from finegap.bench import responses
from finegap.bench.models import Job
from finegap.bench.presenters.job import job_response, signed_page
from finegap.bench.records import load
from finegap.bench.services.changing import JobRef, Service
from finegap.bench.services.news import note_verdicts

C = TypeVar("C")


def carry_out(service: Service[C], ref: JobRef, new: C) -> responses.JobResponse | dict[str, Any]:
    """Make a change with its service; what the job shows then is kept, so that what changes by itself later is noticed."""
    with transaction.atomic():
        now = service(ref, new)
        job = now.job if now else Job.objects.whole().get(number=ref.number)
        page = signed_page(job)
        if page is not None:
            return page
        records = now.after if now else load(job)
        view = job_response(records)
        note_verdicts(records, view)
        return view
