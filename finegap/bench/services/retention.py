"""What the works does not keep for ever: photographs of abandoned jobs. Never a signed record, its photographs, or the log."""

from __future__ import annotations

import datetime as dt

from django.db import transaction
from django.utils import timezone

from finegap.bench.models import ABANDONED, Event, Job, Photo
from finegap.works.queries import works_settings

_MOST_JOBS = 100


def let_go() -> int:
    """Delete the photographs of jobs abandoned longer ago than the works keeps them, and say so in each job's log.

    Returns
    -------
    int
        How many jobs: a hundred at most, the oldest first. The next call goes on.
    """
    kept = works_settings()
    if kept.abandoned_days is None or kept.by is None:
        return 0
    before = timezone.now() - dt.timedelta(days=kept.abandoned_days)
    old = Job.objects.filter(ended=ABANDONED, abandonment__at__lt=before, photos__isnull=False).distinct()
    numbers = list(old.order_by("number").values_list("pk", flat=True)[:_MOST_JOBS])
    for pk in numbers:
        with transaction.atomic():
            job = Job.objects.select_for_update().get(pk=pk)
            photos = list(Photo.objects.filter(job=job))
            for photo in photos:
                photo.delete()
                transaction.on_commit(lambda file=photo.file: file.delete(save=False))  # type: ignore[misc]
            job.version += 1
            job.save(update_fields=["version"])
            said = f"Photographs deleted, {len(photos)}: the works keeps those of an abandoned job {kept.abandoned_days} days"
            Event.objects.create(job=job, version=job.version, by=kept.by, at=timezone.now(), what=said)
    return len(numbers)
