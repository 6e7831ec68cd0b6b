"""A blank bench sheet of a pump on paper: its drawing, its gaps, their limits, and boxes to fill in at the bench.

The boxes stand in the order in which the page “From paper” asks for their numbers.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, PageBreak, Spacer

from finegap.core.drawn import Drawn
from finegap.formats.drawing import PumpDrawn
from finegap.formats.letterhead import Letterhead, Paper
from finegap.formats.paper import (
    CELL,
    GREY,
    HEAD,
    INK,
    RULE,
    SMALL,
    SMALLEST,
    TITLE,
    WIDTH,
    as_pages,
    bold,
    heading,
    left_of,
    paragraph,
    register_fonts,
    size_of,
    table,
)

_BOX = 25 * mm, 9 * mm
_GAP = 2 * mm


@dataclass(frozen=True)
class Blank:
    """A size to be measured, or a part to be looked at; ``boxes`` are the places it is measured at, in their order."""

    number: int
    name: str
    new: str
    limit: str
    boxes: tuple[str, ...]


@dataclass(frozen=True)
class BlankSheet:
    """What a blank sheet is of; lengths in ``unit``."""

    tag: str
    lines: tuple[str, ...]
    cautions: tuple[str, ...]
    unit: str
    drawn: Drawn
    sizes: tuple[Blank, ...]
    looks: tuple[Blank, ...]
    gaps: tuple[Blank, ...]


def as_pdf(sheet: BlankSheet, head: Letterhead = Letterhead(), paper: Paper = Paper.A4) -> bytes:  # noqa: B008 - it cannot be changed
    """The sheet: the drawing on its first page, the boxes after it."""
    register_fonts()
    story: list[Flowable] = [
        *heading(head),
        paragraph(f"Bench sheet {sheet.tag}", TITLE),
        *(paragraph(line) for line in sheet.lines),
        Spacer(1, 3 * mm),
        Boxes(("date", "measured by", "meter reads", "job", "gauges", "room °C"), width=27.5 * mm),
        Spacer(1, 3 * mm),
        PumpDrawn(sheet.drawn, WIDTH),
        *(bold(line, CELL) for line in sheet.cautions),
        PageBreak(),
    ]
    if sheet.sizes:
        story += [paragraph(f"Sizes, in {sheet.unit}", HEAD), _rows(sheet.sizes)]
    if sheet.looks:
        story += [paragraph("Looked at: sound, or what was seen", HEAD), _rows(sheet.looks, wide=True)]
    if sheet.gaps:
        story += [paragraph(f"Set, in {sheet.unit}: each try", HEAD), _rows(sheet.gaps)]
    story += [paragraph("Notes", HEAD), Boxes(("",), width=WIDTH, height=34 * mm)]

    def foot(canvas: Canvas, page: int, of: int) -> None:
        canvas.setFont("FineGap", SMALLEST)
        canvas.setFillColor(GREY)
        left = left_of(paper)
        canvas.drawString(left, 9 * mm, "Local law, site rules, the maker's manual and licensed trades rule over this page.")
        canvas.drawString(left, 5.5 * mm, "Numbers are typed in afterwards in this order: Inspect, From paper.")
        canvas.drawRightString(size_of(paper)[0] - left, 9 * mm, f"{sheet.tag}, page {page} of {of}")

    return as_pages(story, f"Bench sheet {sheet.tag}", foot, paper)


def _rows(sizes: Sequence[Blank], wide: bool = False) -> Flowable:
    across = 0.62 * WIDTH
    rows: list[list[object]] = [[paragraph(name, SMALL) for name in ("", "What", "New; limit", "")]]
    for one in sizes:
        limits = "; ".join(filter(None, (one.new, one.limit))) or "none printed"
        boxes = Boxes(one.boxes, room=across, width=across if wide else _BOX[0])
        rows.append([bold(str(one.number), CELL), paragraph(one.name, CELL), paragraph(limits if not wide else "", CELL), boxes])
    return table(rows, [0.05, 0.19, 0.14, 0.62])


class Boxes(Flowable):  # type: ignore[misc]  # reportlab has no types
    """Boxes to write in, each with what it is for above it, as many in a row as there is room for.

    They are wider where what is above them is: two places cut to the same letters would be one.
    """

    def __init__(self, labels: Sequence[str], room: float = WIDTH, width: float = _BOX[0], height: float = _BOX[1]) -> None:
        super().__init__()
        width = min(max([width, *(stringWidth(label, "FineGap", SMALLEST) for label in labels)]), room)
        self.labels, self.room, self.box = tuple(labels), room, (width, height)
        self.across = max(int((room + _GAP) // (width + _GAP)), 1)

    def wrap(self, *_: float) -> tuple[float, float]:
        """As high as its rows."""
        rows = -(-len(self.labels) // self.across)
        return self.room, rows * (self.box[1] + 4.2 * mm)

    def draw(self) -> None:
        """From the top."""
        width, high = self.box
        _, tall = self.wrap()
        for i, label in enumerate(self.labels):
            row, column = divmod(i, self.across)
            x, y = column * (width + _GAP), tall - (row + 1) * (high + 4.2 * mm) + 0.8 * mm
            self.canv.setStrokeColor(RULE)
            self.canv.setLineWidth(0.7)
            self.canv.rect(x, y, width, high, stroke=1, fill=0)
            self.canv.setFillColor(INK)
            self.canv.setFont("FineGap", SMALLEST)
            self.canv.drawString(x, y + high + 0.8 * mm, _fitting(label, width))


def _fitting(text: str, width: float) -> str:
    """As much of a label as fits over its box."""
    if stringWidth(text, "FineGap", SMALLEST) <= width:
        return text
    while text and stringWidth(f"{text}…", "FineGap", SMALLEST) > width:
        text = text[:-1]
    return f"{text}…"
