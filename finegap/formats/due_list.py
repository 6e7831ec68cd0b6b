"""What falls due, on paper."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass

from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable

from finegap.formats.days import written as day_written
from finegap.formats.letterhead import Letterhead, Paper
from finegap.formats.paper import (
    CELL,
    GREY,
    SMALLEST,
    TITLE,
    as_pages,
    bold,
    heading,
    left_of,
    paragraph,
    register_fonts,
    size_of,
    written,
)

MOST = 600
"""Lines of the list on paper: some twenty pages. The table (CSV) has more."""


@dataclass(frozen=True)
class Line:
    """Something that falls due, in words; ``of`` is a pump or a gauge."""

    day: dt.date | None
    late: bool
    of: str
    name: str
    place: str
    lent: bool
    said: str


def as_pdf(lines: Sequence[Line], head: Letterhead = Letterhead(), paper: Paper = Paper.A4) -> bytes:  # noqa: B008 - it cannot be changed
    """The list, the soonest first, with a box to tick before each."""
    register_fonts()
    rows = [["☐", _day(one), one.of, one.name, f"{one.place}{', on loan' if one.lent else ''}", one.said] for one in lines[:MOST]]
    story: list[Flowable] = [*heading(head), paragraph("What falls due", TITLE)]
    if not rows:
        story.append(paragraph("Nothing falls due in the next twelve weeks, by what is on record."))
    else:
        story.append(written(["", "Day", "Of", "What", "Place", ""], rows, [0.04, 0.12, 0.1, 0.24, 0.16, 0.34]))
    if len(lines) > MOST:
        story.append(bold(f"Only the first {MOST} are printed. The table has them all.", CELL))

    def foot(canvas: Canvas, page: int, of: int) -> None:
        canvas.setFont("FineGap", SMALLEST)
        canvas.setFillColor(GREY)
        left = left_of(paper)
        canvas.drawString(
            left, 9 * mm, "Isolate and lock out before touching. Days of inspections are forecasts; the maker's manual rules."
        )
        canvas.drawRightString(size_of(paper)[0] - left, 9 * mm, f"Page {page} of {of}")

    return as_pages(story, "What falls due", foot, paper)


def _day(one: Line) -> str:
    if one.day is None:
        return "not known"
    return f"{day_written(one.day)}{', past due' if one.late else ''}"
