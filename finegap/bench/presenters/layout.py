"""A record as the bench shows it: its words and figures with the layout of today.

Pictures, stations and the drawing are those of today's family. What helps with the work of an open job, as gauges to
choose and damages to tick, is empty.
"""

from __future__ import annotations

from typing import Any

from finegap.api.plain import walked
from finegap.bench import responses
from finegap.bench.models import Job
from finegap.bench.presenters.drawing import drawing_key
from finegap.bench.record.complete import completed
from finegap.bench.records import build_of, sheet_of
from finegap.core.errors import FieldError
from finegap.core.families.family import Family
from finegap.core.means import registry as registered_means
from finegap.core.means.base import MeansView
from finegap.core.tasks import registry as registered_tasks
from finegap.core.tasks.base import TaskView
from finegap.core.tasks.picture import picture_view

Record = dict[str, Any]

KINDS: dict[type, dict[str, type]] = {MeansView: dict(registered_means.VIEWS), TaskView: dict(registered_tasks.VIEWS)}


def laid_out(record: Record, job: Job) -> Record:
    """A record of the present version with the layout of today. What an older record brought with it stays."""
    family = _family(job)
    drawn = family.pictures.items() if family else ()
    pictures = [walked(picture_view(f"picture:{key}", one), lambda text: text) for key, one in drawn]
    tasks = record.get("tasks", [])
    own = {task["key"] for task in tasks}
    whole = {
        **record,
        "drawing": drawing_key(job) if family else "",
        "building": {"pictures": [one | {"key": one["key"].partition(":")[2]} for one in pictures]} | record.get("building", {}),
        "steps": [_step(one, family) for one in record.get("steps", [])],
        "features": [_feature(one, family) for one in record.get("features", [])],
        "tasks": [*tasks, *(one for one in pictures if one["key"] not in own)],
    }
    return completed(responses.JobResponse, whole, KINDS)


def _family(job: Job) -> Family | None:
    """Today's family as the pump is built; nothing where there is no such family any more."""
    try:
        return sheet_of(job).family_of(build_of(job))
    except FieldError:
        return None


def _step(record: Record, family: Family | None) -> Record:
    of = next((step for step in family.steps if step.key == record["key"]), None) if family else None
    if of is None:
        return record
    return {"why": of.why, "look": of.look, "tools": list(of.tools), "consumables": list(of.consumables), **record}


def _feature(record: Record, family: Family | None) -> Record:
    of = family.by_key.get(record["key"]) if family else None
    if of is None:
        return record
    stations = [{"key": s.key, "plane": s.plane, "direction": s.direction, "label": s.label} for s in of.stations]
    return {"stations": stations, **record}
