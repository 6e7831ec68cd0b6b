"""What every printed page shares: fonts, text that wraps, ruled tables, pages with their numbers. No text is under 8 pt."""

from __future__ import annotations

import io
from collections.abc import Callable
from functools import cache
from pathlib import Path
from typing import Any
from xml.sax.saxutils import escape

from reportlab.lib.colors import HexColor
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, Image, Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

from finegap.formats.letterhead import Letterhead, Paper

Record = dict[str, Any]

_FONTS = Path(__file__).parent / "fonts"
INK, BLUE, GREY, RULE = HexColor("#20262B"), HexColor("#1D3F72"), HexColor("#4C565E"), HexColor("#9AA4AB")
BODY = ParagraphStyle("body", fontName="FineGap", fontSize=9, leading=11.4, textColor=INK)
CELL = ParagraphStyle("cell", parent=BODY, fontSize=8, leading=9.6)
SMALL = ParagraphStyle("small", parent=BODY, fontSize=8, leading=10, textColor=GREY)
HEAD = ParagraphStyle(
    "head", parent=BODY, fontName="FineGap-Bold", fontSize=10.5, leading=14, textColor=BLUE, spaceBefore=5, keepWithNext=1
)
TITLE = ParagraphStyle("title", parent=BODY, fontName="FineGap-Bold", fontSize=15, leading=19)
SMALLEST = 8
WIDTH = 180 * mm
"""Of what is printed, on either paper: tables stay as they are."""

_LOGO = 48 * mm, 14 * mm
_INSET = 6
"""What a frame of reportlab keeps free by itself."""


@cache
def register_fonts() -> None:
    """The fonts of every page, once."""
    pdfmetrics.registerFont(TTFont("FineGap", _FONTS / "DejaVuSansCondensed.ttf"))
    pdfmetrics.registerFont(TTFont("FineGap-Bold", _FONTS / "DejaVuSansCondensed-Bold.ttf"))
    pdfmetrics.registerFontFamily("FineGap", normal="FineGap", bold="FineGap-Bold")


def paragraph(text: str, style: ParagraphStyle = BODY) -> Paragraph:
    """Text that wraps, as it is: nothing in it is markup."""
    return Paragraph(escape(text), style)


def bold(text: str, style: ParagraphStyle = BODY) -> Paragraph:
    """The same in bold."""
    return Paragraph(f"<b>{escape(text)}</b>", style)


def size_of(paper: Paper) -> tuple[float, float]:
    """Width and height in points."""
    width, height = paper.mm
    return width * mm, height * mm


def left_of(paper: Paper) -> float:
    """Where what is printed begins, from the edge [pt]."""
    return float(size_of(paper)[0] - WIDTH) / 2


def table(rows: list[list[Any]], widths: list[float]) -> Table:
    """A ruled table over the width of the page; the first row is its head, printed again on each page."""
    ruled = Table(rows, colWidths=[w * WIDTH for w in widths], repeatRows=1)
    ruled.setStyle(
        TableStyle(
            [
                ("VALIGN", (0, 0), (-1, -1), "TOP"),
                ("LINEBELOW", (0, 0), (-1, 0), 0.8, INK),
                ("LINEBELOW", (0, 1), (-1, -1), 0.3, RULE),
                ("TOPPADDING", (0, 0), (-1, -1), 1.5),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 1.5),
                ("LEFTPADDING", (0, 0), (-1, -1), 0),
                ("RIGHTPADDING", (0, 0), (-1, -1), 3),
            ]
        )
    )
    return ruled


def written(head: list[str], rows: list[list[Any]], widths: list[float]) -> Table:
    """A ruled table of plain text; what is a paragraph already stays one."""
    cells = [[cell if isinstance(cell, Paragraph) else paragraph(cell, CELL) for cell in row] for row in rows]
    return table([[paragraph(name, SMALL) for name in head], *cells], widths)


def heading(head: Letterhead) -> list[Flowable]:
    """Whose report it is; nothing where the works has not said."""
    if not (head.name or head.address or head.picture):
        return []
    words = [*([bold(head.name, HEAD)] if head.name else []), *(paragraph(line, BODY) for line in head.address.splitlines())]
    picture: Flowable = Spacer(1, 1)
    if head.picture:
        picture = Image(io.BytesIO(head.picture), *_LOGO, kind="proportional")
        picture.hAlign = "RIGHT"
    side = Table([[words or "", picture]], colWidths=[WIDTH - _LOGO[0], _LOGO[0]])
    side.setStyle(
        [("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (-1, -1), 0), ("RIGHTPADDING", (0, 0), (-1, -1), 0),
         ("TOPPADDING", (0, 0), (-1, -1), 0), ("LINEBELOW", (0, 0), (-1, -1), 0.8, INK)]
    )  # fmt: skip
    return [side, Spacer(1, 6)]


class Numbered(Canvas):  # type: ignore[misc]  # reportlab has no types
    """A canvas that knows at the end how many pages there are; ``foot`` draws under each: canvas, page, of how many."""

    foot: Callable[[Canvas, int, int], None]

    def __init__(self, *args: Any, foot: Callable[[Canvas, int, int], None], **more: Any) -> None:
        super().__init__(*args, **more)
        self.foot = foot
        self._kept: list[dict[str, Any]] = []

    def showPage(self) -> None:  # noqa: N802 (reportlab's name)
        """Keep the page until all are there."""
        self._kept.append(dict(self.__dict__))
        self._startPage()

    def save(self) -> None:
        """Write every page with its foot."""
        pages = self._kept
        for number, page in enumerate(pages, 1):
            self.__dict__.update(page)
            self.foot(self, number, len(pages))
            super().showPage()
        super().save()


def as_pages(story: list[Flowable], title: str, foot: Callable[[Canvas, int, int], None], paper: Paper) -> bytes:
    """A story on as many pages as it takes, nothing made smaller to fit; ``foot`` draws under each."""
    register_fonts()
    buffer = io.BytesIO()
    document = SimpleDocTemplate(
        buffer, pagesize=size_of(paper), leftMargin=left_of(paper) - _INSET, rightMargin=left_of(paper) - _INSET,
        topMargin=12 * mm - _INSET, bottomMargin=14 * mm - _INSET, title=title, author="Fine Gap",
        invariant=True,  # the same record makes the same bytes
    )  # fmt: skip
    document.build(story, canvasmaker=lambda *args, **more: Numbered(*args, foot=foot, **more))
    return buffer.getvalue()
