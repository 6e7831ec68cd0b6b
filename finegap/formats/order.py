"""What to order for a job, as a table, a page, and text for the clipboard. Made from the record the bench shows."""

from __future__ import annotations

import csv
import io

from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable

from finegap.formats.letterhead import Letterhead, Paper
from finegap.formats.paper import GREY, HEAD, SMALLEST, Record, as_pages, heading, left_of, paragraph, register_fonts, written
from finegap.formats.tables import safe


def as_csv(record: Record) -> bytes:
    """A table a spreadsheet opens; a cell that would run as a formula is made text."""
    buffer = io.StringIO()
    writer = csv.writer(buffer)
    writer.writerow(["pump", "model", "serial", "number", "name", "count", "price", "lead time", "why"])
    pump = record["pump"]
    for line in record["order"]["lines"]:
        row = [pump["tag"], f"{pump['maker']} {pump['model']}", pump["serial"], line["number"], line["name"], line["count"]]
        writer.writerow([safe(cell) for cell in [*row, line["price"], line["lead"], "; ".join(line["reasons"])]])
    return buffer.getvalue().encode("utf-8-sig")


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


def as_pdf(record: Record, head: Letterhead = Letterhead(), paper: Paper = Paper.A4) -> bytes:  # noqa: B008
    """The order on numbered pages."""
    order = record["order"]
    register_fonts()
    rows = [
        [line["number"], line["name"], str(line["count"]), line["price"], line["lead"], "; ".join(line["reasons"])]
        for line in order["lines"]
    ]
    names = ["Number", "Name", "Count", "Price", "Lead time", "Why"]
    story: list[Flowable] = [*heading(head), paragraph(_of(record), HEAD), paragraph(f"Spec sheet: {record['sheet']}.")]
    story.append(written(names, rows, [0.15, 0.25, 0.07, 0.13, 0.12, 0.28]))
    story.append(paragraph(f"Total {order['total']}. {order['lead'].capitalize()}.", HEAD))
    if order["spare"]:
        story.append(paragraph(f"The kits also bring: {'; '.join(order['spare'])}."))
    if order["missing"]:
        story.append(paragraph(f"Not in the catalogue: {'; '.join(order['missing'])}."))

    def foot(canvas: Canvas, page: int, of: int) -> None:
        canvas.setFont("FineGap", SMALLEST)
        canvas.setFillColor(GREY)
        canvas.drawString(left_of(paper), 6 * mm, f"Order for job {record['number']}, page {page} of {of}.")

    return as_pages(story, f"Order for job {record['number']}", foot, paper)


def made(kind: str, record: Record, head: Letterhead, paper: Paper) -> bytes:
    """The order as csv, pdf or txt."""
    return as_pdf(record, head, paper) if kind == "pdf" else as_csv(record) if kind == "csv" else as_text(record)


TYPES = {"csv": "text/csv; charset=utf-8", "pdf": "application/pdf", "txt": "text/plain; charset=utf-8"}
