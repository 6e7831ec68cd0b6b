"""Labels for pumps: a sheet of them, each with a code to scan (QR, ISO/IEC 18004) and what is read without one."""

from __future__ import annotations

import io
from collections.abc import Sequence
from dataclasses import dataclass

from reportlab.lib.colors import HexColor, black
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from finegap.core.errors import FieldError
from finegap.formats.paper import register_fonts

MOST = 500
_QUIET_MODULES = 4
"""Modules that stay white round a code (ISO/IEC 18004, 6.3.8, from memory)."""
_LEAST_MODULE_MM = 0.33
"""A module is no smaller, so that a tablet reads a label at arm's length (common practice, no source)."""
_GREY = HexColor("#4C565E")


@dataclass(frozen=True)
class Sheet:
    """A sheet of labels: page, label, how many across and down, edges of the page to the first, and from one to the next, in mm.

    The sizes are those blank label sheets are sold in everywhere (common practice, no source).
    """

    key: str
    name: str
    page: tuple[float, float]
    label: tuple[float, float]
    across: int
    down: int
    first: tuple[float, float]
    step: tuple[float, float]

    @property
    def count(self) -> int:
        """Labels of a sheet."""
        return self.across * self.down


_A4, _LETTER = (210.0, 297.0), (215.9, 279.4)
SHEETS = (
    Sheet("a4-21", "A4, 21 labels of 63.5 × 38.1 mm", _A4, (63.5, 38.1), 3, 7, (7.2, 15.15), (66.04, 38.1)),
    Sheet("a4-14", "A4, 14 labels of 99.1 × 38.1 mm", _A4, (99.1, 38.1), 2, 7, (4.65, 15.15), (101.6, 38.1)),
    Sheet("a4-24", "A4, 24 labels of 70 × 37 mm", _A4, (70.0, 37.0), 3, 8, (0.0, 0.5), (70.0, 37.0)),
    Sheet("a4-8", "A4, 8 labels of 99.1 × 67.7 mm", _A4, (99.1, 67.7), 2, 4, (4.65, 13.1), (101.6, 67.7)),
    Sheet("letter-30", "Letter, 30 labels of 2⅝ × 1 in", _LETTER, (66.675, 25.4), 3, 10, (4.7625, 12.7), (69.85, 25.4)),
    Sheet("letter-10", "Letter, 10 labels of 4 × 2 in", _LETTER, (101.6, 50.8), 2, 5, (3.96875, 12.7), (106.3625, 50.8)),
)


@dataclass(frozen=True)
class Label:
    """What a label says, and the address its code opens."""

    tag: str
    service: str
    serial: str
    code: str
    address: str


def sheet_named(key: str) -> Sheet:
    """A sheet by its key.

    Raises
    ------
    FieldError
        There is none.
    """
    for one in SHEETS:
        if one.key == key:
            return one
    raise FieldError("size", f"there is no sheet “{key[:20]}”.", f"Expected one of: {', '.join(one.key for one in SHEETS)}.")


def as_pdf(labels: Sequence[Label], sheet: Sheet, first: int = 1) -> bytes:
    """Labels on as many sheets as they take, true to scale.

    Parameters
    ----------
    labels : sequence of Label
        In their order.
    sheet : Sheet
        What is in the printer.
    first : int
        The first free label of the first sheet, counted along the rows from 1: a sheet that was begun is gone on with.

    Raises
    ------
    FieldError
        The sheet has no such label, or its labels are too small for the code.
    """
    if not 1 <= first <= sheet.count:
        raise FieldError("first label", f"the sheet has {sheet.count}.", f"Expected 1 to {sheet.count}.")
    register_fonts()
    buffer = io.BytesIO()
    canvas = Canvas(buffer, pagesize=(sheet.page[0] * mm, sheet.page[1] * mm), invariant=1)
    canvas.setTitle("Labels for pumps")
    canvas.setAuthor("Fine Gap")
    canvas.setViewerPreference("PrintScaling", "None")
    for i, label in enumerate(labels):
        nth = (first - 1 + i) % sheet.count
        if i and nth == 0:
            canvas.showPage()
        row, column = divmod(nth, sheet.across)
        left = sheet.first[0] + column * sheet.step[0]
        top = sheet.first[1] + row * sheet.step[1]
        _label(canvas, label, left, sheet.page[1] - top - sheet.label[1], sheet)
    canvas.showPage()
    canvas.save()
    return buffer.getvalue()


def _label(canvas: Canvas, label: Label, left: float, bottom: float, sheet: Sheet) -> None:
    """One label; left and bottom in mm from those of the page."""
    import segno

    width, height = sheet.label
    code = segno.make(label.address, error="m", micro=False)
    modules = code.symbol_size(scale=1, border=_QUIET_MODULES)[0]
    side = min(height - 2.0, 0.5 * width)
    module = side / modules
    if module < _LEAST_MODULE_MM:
        problem = f"a code of {modules} modules would be {side:.0f} mm wide: too fine to be read."
        raise FieldError("size", problem, "Expected larger labels, or a shorter address of the server.")
    canvas.setFillColor(black)
    x0, y0 = left + 1.0, bottom + (height - side) / 2
    for y, line in enumerate(code.matrix_iter(scale=1, border=_QUIET_MODULES)):
        run = 0
        for x, dark in enumerate([*line, 0]):
            if dark:
                run += 1
            elif run:
                # One bar a run of dark modules: between squares a printer leaves hairlines.
                canvas.rect(
                    (x0 + (x - run) * module) * mm, (y0 + (modules - 1 - y) * module) * mm, run * module * mm, module * mm, 0, 1
                )
                run = 0
    _words(canvas, label, x0 + side + 1.0, bottom, width - side - 3.5, height)


def _words(canvas: Canvas, label: Label, x: float, bottom: float, room: float, height: float) -> None:
    lines = (
        ("FineGap-Bold", 15.0, label.tag, black),
        ("FineGap", 9.0, label.service, black),
        ("FineGap", 8.0, f"serial {label.serial}", black),
        ("FineGap", 8.0, f"label {label.code}", _GREY),
    )
    y = bottom + height / 2 + 9.0
    for font, size, text, colour in lines:
        y -= size * 0.3528 * 1.25
        canvas.setFillColor(colour)
        canvas.setFont(font, _fits(text, font, size, room))
        canvas.drawString(x * mm, y * mm, _clipped(text, font, room))


_LEAST_PT = 7.0


def _fits(text: str, font: str, size: float, room: float) -> float:
    """The size at which a text fits, no smaller than can be read."""
    wide = stringWidth(text, font, size) / mm
    return max(size * min(1.0, room / wide if wide else 1.0), _LEAST_PT)


def _clipped(text: str, font: str, room: float) -> str:
    """As much of a text as fits at the smallest size; a tag is never cut where it fits at any."""
    if stringWidth(text, font, _LEAST_PT) / mm <= room:
        return text
    while text and stringWidth(f"{text}…", font, _LEAST_PT) / mm > room:
        text = text[:-1]
    return f"{text}…"
