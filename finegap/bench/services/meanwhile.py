"""What changed by something else than an act at the bench is read."""

from __future__ import annotations

from finegap.bench.changes import ReadMeanwhile
from finegap.bench.presenters.job import job_response
from finegap.bench.services.changing import JobInHand, changes


@changes(lambda new, now: "meanwhile")
def read_meanwhile(now: JobInHand, new: ReadMeanwhile) -> None:
    """Say that what changed by itself was read."""
    told = job_response(now.before).meanwhile
    if told:
        now.job.meanwhile = []
        now.job.save(update_fields=["meanwhile"])
        now.log(f"Read: {'; '.join(told)}")
