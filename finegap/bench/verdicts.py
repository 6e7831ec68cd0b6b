"""Verdicts that change by something else than an act at the bench: the job says so, and is not signed before that is read.

What was shown after the last act is kept with the job, beside what lies outside it. When either differs later, the difference is
told.
"""

from __future__ import annotations

from finegap.bench import responses
from finegap.bench.models import Job
from finegap.bench.past import counted_outside
from finegap.bench.records import Records
from finegap.core import VERSION
from finegap.works.queries import works_settings

Outside = dict[str, object]

Shown = dict[str, str]
"""The verdicts a job showed, by what they are of: ``idler_bore`` as found, ``idler_bore left``, ``gap front:1``."""

_CAUSES = {
    "core": "the rules of Fine Gap",
    "share": "the settings of the works",
    "planned": "the interval between overhauls",
    "past": "what earlier overhauls left on record",
    "sheet": "the spec sheet",
}


def shown_verdicts(view: responses.JobResponse) -> Shown:
    """What a job shows, for a later comparison."""
    found = {f.name: f.judged.verdict for f in view.features if f.judged}
    left = {f"{f.name}, as left": f.judged_left.verdict for f in view.features if f.judged_left}
    settings = [one for one in (view.setting, view.mesh) if one is not None]
    gaps = {f"{gap.name}, as set": gap.verdict for one in settings for gap in one.gaps if gap.verdict}
    return found | left | gaps


def outside_now(job: Job) -> Outside:
    """What lies outside a job and can change its verdicts, read anew."""
    return outside_of(job, counted_outside(job), works_settings().new_share)


def outside_then(records: Records) -> Outside:
    """The same as a job's records were worked out with it."""
    past = sum(len(visits) for visits in records.job_record.past.visits.values())
    return outside_of(records.job, past, records.job_record.new_share)


def outside_of(job: Job, past: int, share: float) -> Outside:
    """The same from what is known already; ``past`` counts the sizes on record of earlier overhauls."""
    # A revision nobody has read yet may be put right under an open job.
    sheet = f"{job.revision_id}.{job.revision.edition}" if job.revision.edition else job.revision_id
    return {"core": VERSION, "share": share, "planned": job.pump.overhaul_every_h, "past": past, "sheet": sheet}


def changed_since(job: Job, now: Shown, outside: Outside) -> list[str]:
    """Sentences on every verdict that is another than the job showed after its last act."""
    if job.verdicts_version != job.version:
        return []  # nothing was shown since the last act
    causes = [_CAUSES[key] for key, value in outside.items() if job.outside.get(key) != value]
    why = f"Since then changed: {', '.join(causes)}." if causes else "The day, the cabinet or the shelf is another."
    keys = [key for key in {**job.verdicts, **now} if job.verdicts.get(key) != now.get(key)]
    return [f"{key}: {job.verdicts.get(key, 'no verdict')} before, {now.get(key, 'no verdict')} now. {why}" for key in keys]
