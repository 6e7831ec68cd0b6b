"""Photographs, two to a row, each with what it is of, who took it, and when."""

from __future__ import annotations

import io
from collections.abc import Callable, Iterator
from typing import Any

from reportlab.lib.units import mm
from reportlab.lib.utils import ImageReader
from reportlab.platypus import Flowable, Image, Table, TableStyle

from finegap.formats.days import moment
from finegap.formats.paper import CELL, HEAD, WIDTH, Record, paragraph

Pictures = Callable[[str], bytes | None]
"""The file of a photograph by its identity."""

_HIGH = 62 * mm


def photographs(record: Record, pictures: Pictures) -> list[Flowable]:
    """All photographs of a job; nothing where there is none."""
    cells = [[_picture(pictures(photo["id"])), paragraph(_said(of, photo), CELL)] for of, photo in _photos(record)]
    if not cells:
        return []
    rows = [cells[i : i + 2] + [""] * (2 - len(cells[i : i + 2])) for i in range(0, len(cells), 2)]
    shown = Table(rows, colWidths=[WIDTH / 2, WIDTH / 2])
    shown.setStyle(TableStyle([("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (-1, -1), 0)]))
    return [paragraph("Photographs", HEAD), shown]


def _photos(record: Record) -> Iterator[tuple[str, Record]]:
    for feature in record["features"]:
        yield from ((feature["name"], photo) for photo in feature["photos"])
    for step in record["steps"]:
        yield from ((step["text"], photo) for photo in step["photos"])


def _said(of: str, photo: Record) -> str:
    note = f" {photo['note']}." if photo["note"] else ""
    return f"{of}:{note} {photo['by']}, {moment(photo['at'])}"


def _picture(file: bytes | None) -> Any:
    if file is None:
        return paragraph("The file of this photograph is not here.", CELL)
    width, height = ImageReader(io.BytesIO(file)).getSize()
    share = min((WIDTH / 2 - 12) / width, _HIGH / height)
    return Image(io.BytesIO(file), width * share, height * share)
