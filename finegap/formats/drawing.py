"""A pump's drawing on paper: the same marks the screen shows (paths of SVG 2, chapter 9), with its numbers."""

from __future__ import annotations

import math
import re
from collections.abc import Iterator

from reportlab.lib.colors import HexColor
from reportlab.pdfgen.canvas import Canvas
from reportlab.pdfgen.pathobject import PDFPathObject
from reportlab.platypus import Flowable

from finegap.core.drawing.labels import RING_PX
from finegap.core.drawn import Drawn
from finegap.formats.paper import BLUE, INK, RULE

_FILLS = {
    "bright": "#FFFFFF", "steel light": "#EEF0F1", "steel": "#DDE1E4", "liquid": "#F4F7FA", "rubber": "#8A9299",
    "bushing": "#E8DFC8", "packing": "#E9E4DA", "hatched": "#FFFFFF", "hatched-other": "#FFFFFF", "clearance": "#FFFFFF",
}  # fmt: skip
"""Greys and tints that a black and white printer tells apart; what is not named is not filled."""
_HATCH_PX = 7.0
_TOKEN = re.compile(r"[MLHVhvaAZ]|-?\d+(?:\.\d+)?(?:e-?\d+)?")
_TAKES = {"M": 2, "L": 2, "H": 1, "V": 1, "h": 1, "v": 1, "a": 7, "A": 7, "Z": 0}
_KAPPA_STEP = math.pi / 2


class PumpDrawn(Flowable):  # type: ignore[misc]  # reportlab has no types
    """A drawing as wide as the page, each number in its ring with its name and room to write beside it."""

    def __init__(self, of: Drawn, width: float) -> None:
        super().__init__()
        self.of = of
        self.factor = width / of.width
        self.width, self.height = width, of.height * self.factor

    def draw(self) -> None:
        """Views, leaders, rings, names."""
        canvas = self.canv
        canvas.saveState()
        canvas.translate(0, self.height)
        canvas.scale(self.factor, -self.factor)
        for view in self.of.views:
            canvas.saveState()
            canvas.translate(view.x, view.y)
            canvas.scale(view.scale, view.scale)
            for mark in view.marks:
                _mark(canvas, mark.path, mark.style.value, view.scale)
            canvas.restoreState()
        for number in self.of.numbers:
            canvas.setStrokeColor(BLUE)
            canvas.setLineWidth(0.7)
            canvas.line(*number.spot, *number.port)
            canvas.setFillColor(BLUE)
            canvas.circle(*number.spot, 2, 0, 1)
            canvas.setFillColor(HexColor("#FFFFFF"))
            canvas.circle(number.x, number.y, RING_PX - 2, 1, 1)
            _text(canvas, number.x, number.y + 4.5, str(number.number), 13, "centre", bold=True)
            _text(canvas, number.text_x, number.y + 4.5, number.name, 12, "left" if number.right else "right")
        canvas.restoreState()


def _text(canvas: Canvas, x: float, y: float, text: str, size: float, at: str, bold: bool = False) -> None:
    canvas.saveState()
    canvas.translate(x, y)
    canvas.scale(1, -1)
    canvas.setFillColor(INK)
    canvas.setFont("FineGap-Bold" if bold else "FineGap", size)
    {"left": canvas.drawString, "right": canvas.drawRightString, "centre": canvas.drawCentredString}[at](0, 0, text)
    canvas.restoreState()


def _mark(canvas: Canvas, path: str, style: str, scale: float) -> None:
    drawn = canvas.beginPath()
    points = list(_follow(drawn, path))
    fill = _FILLS.get(style)
    canvas.setLineWidth((0.5 if style in ("thin", "axis") else 1.0) / scale)
    canvas.setStrokeColor(RULE if style in ("axis", "thin", "liquid") else INK)
    canvas.setDash([6 / scale, 2 / scale, 1 / scale, 2 / scale] if style == "axis" else [])
    if fill:
        canvas.setFillColor(HexColor(fill))
    canvas.drawPath(drawn, stroke=1, fill=1 if fill else 0)
    canvas.setDash([])
    if style.startswith("hatched") and points:
        _hatch(canvas, path, points, scale, 1 if style == "hatched" else -1)


def _hatch(canvas: Canvas, path: str, points: list[tuple[float, float]], scale: float, way: int) -> None:
    """Lines at 45 degrees, as a section is drawn, inside the outline."""
    canvas.saveState()
    clip = canvas.beginPath()
    for _ in _follow(clip, path):
        pass
    canvas.clipPath(clip, stroke=0, fill=0)
    (left, right), (low, high) = ((min(axis), max(axis)) for axis in zip(*points, strict=True))
    step, tall = _HATCH_PX / scale, high - low
    canvas.setLineWidth(0.4 / scale)
    canvas.setStrokeColor(INK)
    for i in range(min(int((right - left + tall) / step) + 1, 400)):
        x = left - (tall if way > 0 else 0) + i * step
        canvas.line(x, low, x + way * tall, high) if way > 0 else canvas.line(x, low, x - tall, high)
    canvas.restoreState()


def _follow(into: PDFPathObject, path: str) -> Iterator[tuple[float, float]]:
    """Draw a path; its corners, and the far sides of its arcs."""
    tokens, at, begun = _TOKEN.findall(path), (0.0, 0.0), (0.0, 0.0)
    i, command = 0, "M"
    while i < len(tokens):
        if tokens[i] in _TAKES:
            command, i = tokens[i], i + 1
        takes = _TAKES[command]
        given = [float(token) for token in tokens[i : i + takes]]
        i += takes
        if command == "Z":
            into.close()
            at = begun
            continue
        to = _end(command, at, given)
        if command == "M":
            into.moveTo(*to)
            begun, command = to, "L"
        elif command in "aA":
            yield from _arc(into, at, to, given[0], bool(given[3]), bool(given[4]))
        else:
            into.lineTo(*to)
        at = to
        yield at


def _end(command: str, at: tuple[float, float], given: list[float]) -> tuple[float, float]:
    x, y = at
    match command:
        case "H":
            return given[0], y
        case "V":
            return x, given[0]
        case "h":
            return x + given[0], y
        case "v":
            return x, y + given[0]
        case "a":
            return x + given[5], y + given[6]
        case "A":
            return given[5], given[6]
        case _:
            return given[0], given[1]


def _arc(
    into: PDFPathObject, start: tuple[float, float], end: tuple[float, float], radius: float, large: bool, sweep: bool
) -> Iterator[tuple[float, float]]:
    """An arc of a circle as curves of a quarter at most (SVG 2, appendix B.2: from two points to a centre)."""
    (x1, y1), (x2, y2) = start, end
    dx, dy = (x1 - x2) / 2, (y1 - y2) / 2
    half = math.hypot(dx, dy)
    if half == 0:
        return
    r = max(radius, half)
    off = math.sqrt(max(r * r - half * half, 0.0)) / half * (1 if large != sweep else -1)
    cx, cy = (x1 + x2) / 2 + off * dy, (y1 + y2) / 2 - off * dx
    first = math.atan2(y1 - cy, x1 - cx)
    turn = math.atan2(y2 - cy, x2 - cx) - first
    if sweep and turn < 0:
        turn += 2 * math.pi
    if not sweep and turn > 0:
        turn -= 2 * math.pi
    steps = max(math.ceil(abs(turn) / _KAPPA_STEP - 1e-9), 1)
    part = turn / steps
    reach = 4 / 3 * math.tan(part / 4) * r
    for i in range(steps):
        a, b = first + i * part, first + (i + 1) * part
        ax, ay, bx, by = cx + r * math.cos(a), cy + r * math.sin(a), cx + r * math.cos(b), cy + r * math.sin(b)
        into.curveTo(ax - reach * math.sin(a), ay + reach * math.cos(a), bx + reach * math.sin(b), by - reach * math.cos(b), bx, by)
        yield bx, by
