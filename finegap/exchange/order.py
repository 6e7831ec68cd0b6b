"""What to order for a job, as a table, a page, and text for the clipboard. Made from the record the bench shows."""

from __future__ import annotations

import csv
import io
from collections.abc import Callable

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, KeepInFrame

from finegap.exchange.paper import HEAD, Record, paragraph, register_fonts, table

_FORMULA = ("=", "+", "-", "@", "\t", "\r")
_MARGIN = 15 * mm


def as_csv(record: Record) -> bytes:
    """A table a spreadsheet opens; a cell that would run as a formula is made text."""
    buffer = io.StringIO()
    writer = csv.writer(buffer)
    writer.writerow(["pump", "model", "serial", "number", "name", "count", "price", "lead time", "why"])
    pump = record["pump"]
    for line in record["order"]["lines"]:
        row = [pump["tag"], f"{pump['maker']} {pump['model']}", pump["serial"], line["number"], line["name"], line["count"]]
        writer.writerow([_safe(cell) for cell in [*row, line["price"], line["lead"], "; ".join(line["reasons"])]])
    return buffer.getvalue().encode("utf-8-sig")


def _safe(cell: str | int) -> str:
    text = str(cell)
    return f"'{text}" if text.startswith(_FORMULA) else text


def as_text(record: Record) -> bytes:
    """The order in plain lines, with model and serial on it."""
    order = record["order"]
    lines = [_of(record), ""]
    lines += [f"{line['count']} x {line['number']}  {line['name']}  ({line['lead']})" for line in order["lines"]] or [
        "Nothing to order."
    ]
    lines += ["", f"Total {order['total']}. {order['lead'].capitalize()}."]
    if order["missing"]:
        lines.append(f"Not in the catalogue, please offer: {'; '.join(order['missing'])}.")
    return "\n".join(lines).encode()


def _of(record: Record) -> str:
    pump = record["pump"]
    return f"Parts for {pump['maker']} {pump['model']}, serial {pump['serial']} (our {pump['tag']}, job {record['number']})"


def as_pdf(record: Record) -> bytes:
    """The order as one page."""
    register_fonts()
    order = record["order"]
    buffer = io.BytesIO()
    canvas = Canvas(buffer, pagesize=A4)
    canvas.setTitle(f"Order for job {record['number']}")
    rows = [[paragraph(t) for t in ("Number", "Name", "Count", "Price", "Lead time", "Why")]]
    for line in order["lines"]:
        why = "; ".join(line["reasons"])
        rows.append([paragraph(t) for t in (line["number"], line["name"], str(line["count"]), line["price"], line["lead"], why)])
    story: list[Flowable] = [paragraph(_of(record), HEAD), paragraph(f"Spec sheet: {record['sheet']}.")]
    story.append(table(rows, [0.15, 0.25, 0.07, 0.13, 0.12, 0.28]))
    story.append(paragraph(f"Total {order['total']}. {order['lead'].capitalize()}.", HEAD))
    if order["spare"]:
        story.append(paragraph(f"The kits also bring: {'; '.join(order['spare'])}."))
    if order["missing"]:
        story.append(paragraph(f"Not in the catalogue: {'; '.join(order['missing'])}."))
    width, height = A4[0] - 2 * _MARGIN, A4[1] - 2 * _MARGIN
    frame = KeepInFrame(width, height, story, mode="shrink")
    _, used = frame.wrapOn(canvas, width, height)
    frame.drawOn(canvas, _MARGIN, A4[1] - _MARGIN - used)
    canvas.showPage()
    canvas.save()
    return buffer.getvalue()


MAKERS: dict[str, Callable[[Record], bytes]] = {"csv": as_csv, "pdf": as_pdf, "txt": as_text}
TYPES = {"csv": "text/csv; charset=utf-8", "pdf": "application/pdf", "txt": "text/plain; charset=utf-8"}
