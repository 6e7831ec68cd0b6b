"""The tape on paper, true to scale: a strip to cut out and lay round the bearing housing."""

from __future__ import annotations

import io
from collections.abc import Callable

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import landscape
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from finegap.core.formatting import Units, length
from finegap.core.gap.housing import ThreadHand
from finegap.core.gap.move import Way
from finegap.core.gap.tape import Printed, Segment
from finegap.formats.letterhead import Paper
from finegap.formats.paper import register_fonts, size_of

PAGE_MM = (Paper.LETTER.mm[1], Paper.A4.mm[0])
"""What either paper has, across: the strips are the same on both."""
MARGIN_MM = 15.0
FITS_MM = PAGE_MM[0] - 2 * MARGIN_MM
OVERLAP_MM = 12.0
STRIP_MM = 24.0
ROW_MM = 44.0
TOP_MM = 48.0
"""From the upper edge of the page to the first strip: title and ruler stand above it."""

RULER_MM = 100.0
ROWS = int((PAGE_MM[1] - TOP_MM - MARGIN_MM) // ROW_MM)
_BEFORE_MM, _AFTER_MM = 12.0, 14.0
_INK, _BLUE, _GREY, _WASH = HexColor("#20262B"), HexColor("#1D3F72"), HexColor("#4C565E"), HexColor("#DCE3EE")


def as_pdf(printed: Printed, paper: Paper = Paper.A4) -> bytes:
    """The tape as pages across, not to be scaled: viewers are told so, and a ruler shows whether they obeyed."""
    register_fonts()
    buffer = io.BytesIO()
    canvas = Canvas(buffer, pagesize=landscape(size_of(paper)))
    canvas.setTitle(f"Tape for {printed.tag}, job {printed.job}")
    canvas.setAuthor("Fine Gap")
    canvas.setViewerPreference("PrintScaling", "None")
    pieces = printed.tape.segments(FITS_MM, OVERLAP_MM, _BEFORE_MM, _AFTER_MM)
    pages = [pieces[i : i + ROWS] for i in range(0, len(pieces), ROWS)]
    for number, on_page in enumerate(pages, start=1):
        _heading(canvas, printed, f"Page {number} of {len(pages)}" if len(pages) > 1 else "")
        _ruler(canvas)
        for row, piece in enumerate(on_page):
            _strip(canvas, printed, piece, TOP_MM + row * ROW_MM, (number - 1) * ROWS + row, len(pieces))
        canvas.showPage()
    canvas.save()
    return buffer.getvalue()


def _y(from_top_mm: float) -> float:
    return float((PAGE_MM[1] - from_top_mm) * mm)


def _heading(canvas: Canvas, printed: Printed, page: str) -> None:
    tape = printed.tape
    canvas.setFillColor(_INK)
    canvas.setFont("FineGap-Bold", 13)
    canvas.drawString(MARGIN_MM * mm, _y(13), f"{printed.tag}: tape for the bearing housing")
    canvas.setFont("FineGap", 8.5)
    units = tape.units
    step = {Units.MM: "0.01 mm", Units.IN: "0.001 in", Units.THOU: "1 thou"}[units]
    diameter, lead = length(tape.housing.diameter_mm).text(units), length(tape.housing.lead_mm, fine=True).text(units)
    told = (
        f"{printed.sheet}. Job {printed.job}. Outside diameter {diameter}, lead {lead}, {tape.housing.hand.value}-hand. "
        f"A mark every {step}.",
        "Print at 100 %, never fitted to the page. Lay it flat round the housing with its zero at the line drawn across; "
        "the check reading is the judge, not the tape.",
    )
    for i, line in enumerate(told):
        canvas.drawString(MARGIN_MM * mm, _y(19 + 4.4 * i), line)
    canvas.drawRightString((PAGE_MM[0] - MARGIN_MM) * mm, _y(13), page)


def _ruler(canvas: Canvas) -> None:
    """100 mm, to hold a steel rule against."""
    left, base = MARGIN_MM, 37.0
    canvas.setStrokeColor(_INK)
    canvas.setLineWidth(0.25)
    canvas.line(left * mm, _y(base), (left + RULER_MM) * mm, _y(base))
    for i in range(int(RULER_MM) + 1):
        high = 4.5 if i % 10 == 0 else 3.0 if i % 5 == 0 else 1.8
        canvas.line((left + i) * mm, _y(base), (left + i) * mm, _y(base - high))
    canvas.setFont("FineGap", 8.5)
    canvas.setFillColor(_INK)
    words = "← these marks must be 100 mm apart on a steel rule. If not, the printer has scaled it: do not use it."
    canvas.drawString((left + RULER_MM + 4) * mm, _y(base - 1), words)


def _strip(canvas: Canvas, printed: Printed, piece: Segment, top: float, index: int, count: int) -> None:
    """One piece: zero at its right end and marks growing to the left for a right-hand thread, mirrored for a left-hand one."""
    tape = printed.tape
    grows_left = tape.housing.hand is ThreadHand.RIGHT

    def x(arc_mm: float) -> float:
        along = arc_mm - piece.start_mm
        return float((PAGE_MM[0] - MARGIN_MM - along if grows_left else MARGIN_MM + along) * mm)

    def inside(arc_mm: float) -> bool:
        return piece.start_mm <= arc_mm <= piece.end_mm

    bottom = top + STRIP_MM
    left, right = sorted((x(piece.start_mm), x(piece.end_mm)))
    low, high = (min(max(a, piece.start_mm), piece.end_mm) for a in tape.window_arc_mm)
    if high > low:
        canvas.setFillColor(_WASH)
        edge = min(x(low), x(high))
        canvas.rect(edge, _y(top + 14.5), abs(x(high) - x(low)), 10.5 * mm, stroke=0, fill=1)
    canvas.setStrokeColor(_GREY)
    canvas.setLineWidth(0.4)
    canvas.setDash(3, 2)
    canvas.rect(left, _y(bottom), right - left, STRIP_MM * mm)
    canvas.setDash()
    canvas.setStrokeColor(_INK)
    canvas.setFillColor(_INK)
    for mark in tape.marks():
        if not inside(mark.arc_mm):
            continue
        canvas.setLineWidth(0.9 if mark.arc_mm == 0 else 0.3)
        reach = STRIP_MM if mark.arc_mm == 0 else 8.0 if mark.long else 5.0
        canvas.line(x(mark.arc_mm), _y(top), x(mark.arc_mm), _y(top + reach))
        if mark.long:
            canvas.setFont("FineGap", 7)
            canvas.drawCentredString(x(mark.arc_mm), _y(top + 11), mark.label if mark.arc_mm else "")
    canvas.setFont("FineGap-Bold", 8)
    if inside(0.0) and grows_left:
        canvas.drawString(x(0.0) + 1 * mm, _y(top + 17.5), "zero")
    elif inside(0.0):
        canvas.drawRightString(x(0.0) - 1 * mm, _y(top + 17.5), "zero")
    if inside(tape.target_arc_mm):
        canvas.setStrokeColor(_BLUE)
        canvas.setFillColor(_BLUE)
        canvas.setLineWidth(1.1)
        at = x(tape.target_arc_mm)
        canvas.line(at, _y(top), at, _y(top + 8.5))
        canvas.line(at, _y(top + 12.5), at, _y(top + 14.5))
        canvas.drawCentredString(at, _y(top + 17.5), f"set here: {length(tape.window.target_mm).text(tape.units)}")
    canvas.setFillColor(_GREY)
    canvas.setFont("FineGap", 7)
    opens = f"← opens ({tape.housing.turns(Way.OPEN)})" if grows_left else f"opens ({tape.housing.turns(Way.OPEN)}) →"
    canvas.drawCentredString((left + right) / 2, _y(bottom - 2.2), f"{printed.tag} · {printed.sheet} · {opens}")
    _joins(canvas, piece, x, top, index, count)


def _joins(canvas: Canvas, piece: Segment, x: Callable[[float], float], top: float, index: int, count: int) -> None:
    """Where two pieces are laid over one another: the same letter at the same place of both."""
    canvas.setStrokeColor(_GREY)
    canvas.setFillColor(_GREY)
    canvas.setFont("FineGap-Bold", 8)
    canvas.setLineWidth(0.3)
    half = OVERLAP_MM / 2
    for is_there, arc_mm, letter in (
        (index > 0, piece.start_mm + half, chr(ord("A") + (index - 1) % 26)),
        (index < count - 1, piece.end_mm - half, chr(ord("A") + index % 26)),
    ):
        if is_there:
            canvas.setDash(1, 1)
            canvas.line(x(arc_mm), _y(top - 2), x(arc_mm), _y(top + STRIP_MM + 2))
            canvas.setDash()
            canvas.drawCentredString(x(arc_mm), _y(top - 3), f"join {letter}")
