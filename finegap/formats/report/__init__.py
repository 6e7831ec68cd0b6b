"""The job's report as PDF and as JSON. Both are made from the record the bench shows or a signature froze, and from nothing else.

Page 1 is for the customer; tables, log and photographs follow on numbered pages; each amendment adds a page of its own.
"""

from __future__ import annotations

import json

from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, PageBreak

from finegap.formats.days import DateForm, in_force, moment, using
from finegap.formats.letterhead import Letterhead, Paper
from finegap.formats.paper import (
    BODY,
    GREY,
    HEAD,
    SMALL,
    SMALLEST,
    TITLE,
    Record,
    as_pages,
    bold,
    left_of,
    paragraph,
    register_fonts,
    size_of,
)
from finegap.formats.report.front import front
from finegap.formats.report.pages import pages
from finegap.formats.report.photos import Pictures, photographs

__all__ = ["as_json", "as_pdf"]


def as_json(record: Record) -> bytes:
    """The report as JSON: what the PDF shows, and all workings behind it."""
    wrapped = {"format": "fine-gap/job-report", "version": 1, "core_version": record["core"], "job": record}
    return json.dumps(wrapped, ensure_ascii=False, indent=2).encode()


def as_pdf(
    record: Record,
    pictures: Pictures = lambda photo: None,
    head: Letterhead = Letterhead(),  # noqa: B008 - it cannot be changed
    paper: Paper = Paper.A4,
) -> bytes:
    """The report on paper. ``pictures`` gives the file of a photograph by its identity, or nothing.

    Days are written as the works writes them; on one signed before it could say, as they were printed then.
    """
    before = record["signed"] and record["works"] is None
    with using(DateForm.ISO if before else in_force()):
        return _pdf(record, pictures, head, paper)


def _pdf(record: Record, pictures: Pictures, head: Letterhead, paper: Paper) -> bytes:
    register_fonts()  # the first page is measured before it is laid out
    amendments = record["amendments"]
    story: list[Flowable] = [*front(record, head, paper), PageBreak(), *pages(record), *photographs(record, pictures)]
    for one in amendments:
        story += [PageBreak(), *_amendment(record, one)]

    def foot(canvas: Canvas, page: int, of: int) -> None:
        # An amendment leaves the pages before it as they were, their count too.
        own = of - len(amendments)
        which = f"page {page} of {own}" if page <= own else f"amendment {page - own}"
        canvas.setFont("FineGap", SMALLEST)
        canvas.setFillColor(GREY)
        left = left_of(paper)
        canvas.drawString(left, 9 * mm, "Local law, site rules, the maker's manual and licensed trades rule over this page.")
        canvas.drawString(left, 5.5 * mm, f"Job {record['number']}, {record['pump']['tag']}, {which}.")
        made = f"Fine Gap, core {record['core']}. Lengths in {record['unit']}."
        canvas.drawRightString(size_of(paper)[0] - left, 5.5 * mm, made)

    return as_pages(story, f"Job {record['number']}, {record['pump']['tag']}", foot, paper)


def _amendment(record: Record, one: Record) -> list[Flowable]:
    void = "VOID: nothing of this record counts for this pump." if one["void"] else ""
    of = f" It belongs to {one['belongs_to']}." if one["belongs_to"] else ""
    own = " That lead had worked on this job." if one["own"] else ""
    return [
        paragraph(f"Amendment {one['number']} to job {record['number']}, {record['pump']['tag']}", TITLE),
        paragraph("Made after the signature. The pages before this one are as they were signed.", SMALL),
        *([bold(void + of, HEAD)] if void else []),
        paragraph(one["what"], BODY),
        paragraph(f"Because: {one['reason']}", BODY),
        bold(f"Amended by {one['by']}, {moment(one['at'])}.{own}"),
    ]
