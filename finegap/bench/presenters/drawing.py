"""The drawing of a job's pump: once a sheet, build, unit and screen, and nothing of what is measured."""

from __future__ import annotations

import json
import zlib
from functools import lru_cache

from finegap.bench import responses
from finegap.bench.models import Job
from finegap.bench.records import build_of, sheet_from
from finegap.core.drawing.labels import RING_PX, Screen
from finegap.core.drawing.marks import Mark, Point
from finegap.core.drawn import Number, Placed, drawn
from finegap.core.errors import FieldError
from finegap.core.formatting import Units


def drawing_key(job: Job) -> str:
    """What a job's drawing depends on, in a few letters: under the same ones it is the same drawing."""
    return f"{job.revision_id}-{zlib.crc32(repr(sorted(build_of(job).items())).encode()):08x}"


def drawing(job: Job, units: Units, screen: Screen) -> responses.DrawingResponse:
    """The drawing of a job's pump; an empty one where there is no such family any more."""
    try:
        return _drawing(json.dumps(job.revision.content), tuple(sorted(build_of(job).items())), units, screen)
    except FieldError:
        return responses.DrawingResponse(screen.width, screen.height, screen.named, RING_PX, 0, 0, [], [])


@lru_cache(maxsize=128)
def _drawing(sheet: str, build: tuple[tuple[str, str], ...], units: Units, screen: Screen) -> responses.DrawingResponse:
    read = sheet_from(sheet)
    of = drawn(read.family_of(dict(build)), read, units, screen)
    return responses.DrawingResponse(
        of.width,
        of.height,
        screen.named,
        RING_PX,
        _px(of.words_px),
        _px(of.row_px),
        [_view(view) for view in of.views],
        [_number(number) for number in of.numbers],
    )


def _view(view: Placed) -> responses.ViewResponse:
    return responses.ViewResponse(view.name, _px(view.x), _px(view.y), round(view.scale, 4), [_mark(mark) for mark in view.marks])


def _mark(mark: Mark) -> responses.DrawnMarkResponse:
    return responses.DrawnMarkResponse(mark.style.value, mark.path, mark.of)


def _number(of: Number) -> responses.NumberResponse:
    return responses.NumberResponse(
        key=of.key,
        number=of.number,
        name=of.name,
        x=_px(of.x),
        y=_px(of.y),
        right=of.right,
        text_x=_px(of.text_x),
        port=_point(of.port),
        spot=_point(of.spot),
        stations=[responses.PlaceResponse(key, *_point(point)) for key, point in of.stations.items()],
        faces=list(of.faces),
        mate=of.mate,
        set_as=of.set_as,
    )


def _point(point: Point) -> list[float]:
    return [_px(point[0]), _px(point[1])]


def _px(value: float) -> float:
    """To a hundredth: finer than any screen shows."""
    return round(value, 2)
