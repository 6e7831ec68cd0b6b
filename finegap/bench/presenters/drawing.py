"""The drawing of a job's pump: once a sheet, build, unit and screen, and nothing of what is measured."""

from __future__ import annotations

import json
import zlib
from functools import lru_cache
from typing import Any

from finegap.bench.models import Job
from finegap.bench.records import build_of, sheet_from
from finegap.core.drawing.labels import Screen
from finegap.core.drawn import Beside, drawn
from finegap.core.errors import FieldError
from finegap.core.formatting import Units
from finegap.sheets.drawn import DrawingResponse
from finegap.sheets.presenters import drawing_response, nothing_drawn


def drawing_key(job: Job) -> str:
    """What a job's drawing depends on, in a few letters: under the same ones it is the same drawing."""
    return f"{job.revision_id}.{job.revision.edition}-{zlib.crc32(repr(sorted(build_of(job).items())).encode()):08x}"


def drawing(job: Job, units: Units, screen: Screen) -> DrawingResponse:
    """The drawing of a job's pump; an empty one where there is no such family any more."""
    return drawn_for(job.revision.content, build_of(job), units, screen)


def drawn_for(
    content: dict[str, Any], build: dict[str, str], units: Units, screen: Screen, beside: Beside = Beside.JOB
) -> DrawingResponse:
    """A pump of a sheet and a build; an empty drawing where there is no such family any more."""
    try:
        return _drawing(json.dumps(content), tuple(sorted(build.items())), units, screen, beside)
    except FieldError:
        return nothing_drawn(screen)


@lru_cache(maxsize=128)
def _drawing(sheet: str, build: tuple[tuple[str, str], ...], units: Units, screen: Screen, beside: Beside) -> DrawingResponse:
    read = sheet_from(sheet)
    of = drawn(read.family_of(dict(build)), read, units, screen, beside)
    return drawing_response(of, screen)
