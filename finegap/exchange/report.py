"""The job's report: one page as PDF, and the same as JSON. Both are made from the record the bench shows or a signature froze."""

from __future__ import annotations

import io
import json
from datetime import datetime
from functools import cache
from pathlib import Path
from typing import Any
from xml.sax.saxutils import escape

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import Flowable, KeepInFrame, Paragraph, Spacer, Table, TableStyle

from finegap.core.families.model import Stage

Record = dict[str, Any]

_FONTS = Path(__file__).parent / "fonts"
_INK, _BLUE, _GREY, _RULE = HexColor("#20262B"), HexColor("#1D3F72"), HexColor("#4C565E"), HexColor("#9AA4AB")
_BODY = ParagraphStyle("body", fontName="FineGap", fontSize=9, leading=11.4, textColor=_INK)
_CELL = ParagraphStyle("cell", parent=_BODY, fontSize=8, leading=9.6)
_SMALL = ParagraphStyle("small", parent=_BODY, fontSize=7.8, leading=9.8, textColor=_GREY)
HEAD = ParagraphStyle("head", parent=_BODY, fontName="FineGap-Bold", fontSize=10.5, leading=14, textColor=_BLUE, spaceBefore=4)
_WIDTH = A4[0] - 30 * mm
_TRIES_SHOWN = 8


def as_json(record: Record) -> bytes:
    """The report as JSON: what the PDF shows, and all readings and workings behind it."""
    wrapped = {"format": "fine-gap/job-report", "version": 1, "core_version": record["core"], "job": record}
    return json.dumps(wrapped, ensure_ascii=False, indent=2).encode()


def as_pdf(record: Record) -> bytes:
    """The report as one A4 page: found and left, verdicts, tries, gauges, sheet revision, who and when."""
    register_fonts()
    buffer = io.BytesIO()
    canvas = Canvas(buffer, pagesize=A4)
    canvas.setTitle(f"Job {record['number']}, {record['pump']['tag']}")
    canvas.setAuthor("Fine Gap")
    story = [*_heading(record), *_sizes(record), *_build(record), *_gap(record), *_proof(record), *_signature(record)]
    frame = KeepInFrame(_WIDTH, A4[1] - 26 * mm, story, mode="shrink")
    _, height = frame.wrapOn(canvas, _WIDTH, A4[1] - 26 * mm)
    frame.drawOn(canvas, 15 * mm, A4[1] - 13 * mm - height)
    canvas.setFont("FineGap", 6.5)
    canvas.setFillColor(_GREY)
    canvas.drawString(15 * mm, 8 * mm, "Local law, site rules, the maker's manual and licensed trades rule over this page.")
    canvas.drawRightString(A4[0] - 15 * mm, 8 * mm, f"Fine Gap, core {record['core']}. Lengths in {record['unit']}.")
    canvas.showPage()
    canvas.save()
    return buffer.getvalue()


@cache
def register_fonts() -> None:
    """The fonts of every page, once."""
    pdfmetrics.registerFont(TTFont("FineGap", _FONTS / "DejaVuSansCondensed.ttf"))
    pdfmetrics.registerFont(TTFont("FineGap-Bold", _FONTS / "DejaVuSansCondensed-Bold.ttf"))
    pdfmetrics.registerFontFamily("FineGap", normal="FineGap", bold="FineGap-Bold")


def paragraph(text: str, style: ParagraphStyle = _BODY) -> Paragraph:
    """Text that wraps, as it is: nothing in it is markup."""
    return Paragraph(escape(text), style)


def _b(text: str) -> Paragraph:
    return Paragraph(f"<b>{escape(text)}</b>", _BODY)


def _when(stamp: str) -> str:
    moment = datetime.fromisoformat(stamp)
    ahead = moment.strftime("%z")
    zone = "" if ahead in ("", "+0000") else f" ({ahead[:3]}:{ahead[3:]})"
    return moment.strftime("%Y-%m-%d %H:%M") + zone


def _heading(record: Record) -> list[Flowable]:
    pump, duty = record["pump"], record["duty"]
    state = "Signed" if record["signed"] else "NOT SIGNED: work in progress"
    title = ParagraphStyle("title", parent=_BODY, fontName="FineGap-Bold", fontSize=15, leading=19)
    hours = f" at {record['hours_run']} h" if record["hours_run"] is not None else ""
    return [
        paragraph(f"{pump['tag']}  {pump['service']}", title),
        paragraph(
            f"Job {record['number']}. {state}. {pump['maker']} {pump['model']}, serial {pump['serial']}, {pump['location']}."
        ),
        paragraph(f"Came in{hours}: {record['reason']}. Opened by {record['opened_by']}, {_when(record['opened_at'])}."),
        paragraph(
            f"Duty: {duty['liquid']}, {duty['viscosity']} at {duty['temperature']}, {duty['pressure']}, {duty['speed']}; "
            f"{duty['material']}."
        ),
        paragraph(f"Spec sheet: {record['sheet']}. Verdicts by the {record['school']} school."),
    ]


def table(rows: list[list[Any]], widths: list[float]) -> Table:
    """A ruled table over the width of the page; the first row is its head."""
    ruled = Table(rows, colWidths=[w * _WIDTH for w in widths], repeatRows=1)
    ruled.setStyle(
        TableStyle(
            [
                ("VALIGN", (0, 0), (-1, -1), "TOP"),
                ("LINEBELOW", (0, 0), (-1, 0), 0.8, _INK),
                ("LINEBELOW", (0, 1), (-1, -1), 0.3, _RULE),
                ("TOPPADDING", (0, 0), (-1, -1), 1.5),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 1.5),
                ("LEFTPADDING", (0, 0), (-1, -1), 0),
                ("RIGHTPADDING", (0, 0), (-1, -1), 3),
            ]
        )
    )
    return ruled


def _sizes(record: Record) -> list[Flowable]:
    rows: list[list[Any]] = [
        [paragraph(t, _SMALL) for t in ("", "Size", "New", "Limit", "Found", "Verdict, it conforms", "Decided", "Left")]
    ]
    for feature in record["features"]:
        if not (feature["wanted"] or feature["done"] or feature["look"]):
            continue  # neither on the sheet nor looked at
        decision = feature["decision"]
        decided = ": ".join(filter(None, (decision["decided"], decision["reason"]))) if decision else ""
        limit = feature["limit_text"] if feature["lower_mm"] is not None or feature["upper_mm"] is not None else "—"
        cells = [str(feature["number"]), feature["name"], feature["new_text"] or "—", limit]
        found = Paragraph(f"<b>{escape(_measured(feature))}</b>", _CELL)
        after = [_called(feature["judged"]), decided, _left(feature, record)]
        rows.append([*(paragraph(c, _CELL) for c in cells), found, *(paragraph(c, _CELL) for c in after)])
    return [paragraph(f"Found and left ({record['unit']})", HEAD), table(rows, [0.035, 0.165, 0.14, 0.12, 0.155, 0.145, 0.1, 0.14])]


def _measured(feature: Record) -> str:
    size = ", ".join(filter(None, (_size(feature["found"]), feature["partial"])))
    seen = feature["look"]["words"] if feature["look"] else ""
    nothing = "not looked at" if feature["kind"] == "check" else "not measured"
    return ", ".join(filter(None, (size, seen))) or nothing


def _size(result: Record | None) -> str:
    return f"{result['text']} ± {result['expanded_text']}" if result else ""


def _called(judged: Record | None) -> str:
    return ", ".join(filter(None, (judged["call"], judged["chance"]))) if judged else ""


def _left(feature: Record, record: Record) -> str:
    """As left; and what a lead signed past at this line, with the reason."""
    past = [blocker["sentence"] for blocker in record["blockers"] if blocker["feature"] == feature["key"]]
    signed = record["signed"]
    if past and signed and signed["reason"]:
        past = [f"{' '.join(past)} Signed so by {signed['by']}, because: {signed['reason']}"]
    return ". ".join(filter(None, (feature["left_text"], feature["left_note"], *past)))


def _gap(record: Record) -> list[Flowable]:
    setting, choice = record["setting"], record["choice"]
    if setting is None:
        return [paragraph("The gap", HEAD), paragraph(choice["sentence"])]
    said = " ".join(filter(None, (choice["sentence"], choice["over"], choice["hole"])))
    story: list[Flowable] = [paragraph(_capital(setting["name"]), HEAD), paragraph(said), *_tries(record, setting)]
    window = f"Window {setting['low']} to {setting['high']} {record['unit']}." if len(setting["gaps"]) == 1 else ""
    hot = f"Predicted hot gap {setting['hot']['text']}." if setting["hot"] else ""
    warm = setting["warming"]["sentence"] if setting["warming"] else ""
    told = " ".join(filter(None, (window, hot, warm)))
    if told:
        story.append(paragraph(told))
    if record["mesh"]:
        story += [paragraph("Mesh gaps", HEAD), *_tries(record, record["mesh"])]
    return story


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]


def _tries(record: Record, setting: Record) -> list[Flowable]:
    """How it came there: the gap drawn, or every gap in a line, and the tries."""
    story: list[Flowable] = []
    if setting["tries"] and len(setting["gaps"]) == 1:
        story += [Spacer(1, 3), GapBar(setting), Spacer(1, 2)]
    elif setting["tries"]:
        gaps = "; ".join(f"{g['name']} {g['gap']} ({g['low']} to {g['high']})" for g in setting["gaps"])
        story.append(paragraph(f"As left, {record['unit']}: {gaps}."))
    rows: list[list[Any]] = [[paragraph(t, _SMALL) for t in ("Try", "Set by", "Checked", "Gap", "Next", "Who and when")]]
    for one in setting["tries"][-_TRIES_SHOWN:]:
        who = f"{one['by']}, {_when(one['at'])}"
        rows.append(
            [
                paragraph(str(one["number"])),
                paragraph(one["set_by"]),
                paragraph(", ".join(filter(None, (one["checked"], one["gauge"])))),
                _b(one["gap"]),
                paragraph(one["next"]),
                paragraph(who),
            ]
        )
    if len(rows) > 1:
        story.append(table(rows, [0.05, 0.25, 0.26, 0.08, 0.12, 0.24]))
    earlier = len(setting["tries"]) - _TRIES_SHOWN
    if earlier > 0:
        story.append(paragraph(f"{earlier} earlier tries are in the JSON report.", _SMALL))
    return story


def _build(record: Record) -> list[Flowable]:
    """What was fitted, what was used again and why, press fits, and every torque that stands."""
    building = record["building"]
    told = [_stacked(stack) for stack in building["stacks"] if any(part["fitted"] for part in stack["parts"])]
    told += [_pressed(press) for press in building["presses"] if press["ready"]]
    told += [line for one in building["tightenings"] for line in _tightened(one)]
    return [paragraph("Build", HEAD), *(paragraph(line, _SMALL) for line in told)] if told else []


def _stacked(stack: Record) -> str:
    parts = [p for p in stack["parts"] if p["fitted"]]
    directions = "; ".join(d for p in parts for d in p["directions"])
    again = "; ".join(f"{p['name']} used again{': ' + p['reason'] if p['reason'] else ''}" for p in parts if p["reused"])
    asked = "; ".join(f"{p['name']}: {p['reason']}" for p in parts if p["reason"] and not p["reused"])
    whole = f"{len(parts)} of {len(stack['parts'])} parts" if len(parts) < len(stack["parts"]) else f"all {len(parts)} parts"
    who = ", ".join(dict.fromkeys(p["by"] for p in parts))
    said = f"{stack['name']}: {whole} in order, {who}. Confirmed: {directions or 'nothing to confirm'}."
    return said + (f" {again}." if again else "") + (f" {asked}." if asked else "")


def _pressed(press: Record) -> str:
    lines = "; ".join(f"{line['name'].lower()} {line['text']}" for line in press["lines"])
    return f"{press['name']}, press fit: {lines}"


def _tightened(one: Record) -> list[str]:
    last = [t for t in one["log"] if not t["struck_reason"] and t["pass_number"] == len(one["passes"])]
    if not last:
        return []
    logged = "; ".join(
        f"{t['at_nut']}{' on ' + ', '.join(map(str, t['bolts'])) if one['count'] > 1 else ''} with {t['wrench']}"
        f" ({t['certificate'] or 'no certificate'}{', OVERDUE' if t['overdue'] else ''}"
        f"{', ' + t['adapter'] if t['adapter'] else ''}), {t['by']}, {_when(t['at'])}"
        for t in last
    )
    passes = f", last of {len(one['passes'])} passes" if len(one["passes"]) > 1 else ""
    return [f"{one['fastener']} ({one['torque']}, {one['condition']}{passes}): {logged}."]


def _proof(record: Record) -> list[Flowable]:
    def listed(steps: list[Record]) -> str:
        return " ".join(f"{s['text']} — {_done(s)}." for s in steps)

    holds = [s for s in record["steps"] if s["hold"] or s["skipped"]]
    gauges = record["used_gauges"]
    readings = [r for f in record["features"] for r in f["readings"]]
    outside = {r["gauge"] for r in readings if any("range" in fault for fault in r["faults"])}
    told = "; ".join(
        f"{g['tag']} {g['kind']} {g['range']}, U {g['expanded']} (k {g['k']:g}), calibrated {g['calibrated']}, due {g['due']}"
        + (" OVERDUE" if g["overdue"] else "")
        + (" USED OUTSIDE ITS RANGE" if g["tag"] in outside else "")
        for g in gauges
    )
    prove = [s for s in holds if s["stage"] == Stage.PROVE.value]
    before = [s for s in holds if s["stage"] != Stage.PROVE.value]
    return [
        paragraph("Hold points", HEAD),
        paragraph(listed(before), _SMALL),
        paragraph(listed(prove)),
        *_seen(record["proving"]),
        paragraph("Gauges", HEAD),
        paragraph(told or "none used"),
    ]


def _seen(proving: Record) -> list[Flowable]:
    """What was seen at Prove: the turning, the run-in's end, the first hour."""
    told = []
    if proving["turning"]:
        told.append(f"The shaft: {proving['turning']['typed']}, {proving['turning']['by']}.")
    if proving["play"]:
        told.append(f"End play {proving['play']['text']}")
    notes = proving["coach"]["notes"] if proving["coach"] else []
    if notes:
        last = notes[-1]
        end = ", ".join(filter(None, (f"{last['drops_text']} drops a minute" if last["drops_text"] else "", last["box"])))
        told.append(
            f"Packing run in over {last['minute']:.0f} min, {len(notes)} lines, at the end {end}: {proving['coach']['say']}."
        )
    told += [f"{line['name']}: {line['text']}" for line in proving["lines"]]
    return [paragraph(" ".join(told), _SMALL)] if told else []


def _done(step: Record) -> str:
    if not step["at"]:
        return "NOT DONE"
    skipped = f"SKIPPED, because: {step['skipped']}, " if step["skipped"] else ""
    return f"{skipped}{step['by']}, {_when(step['at'])}"


def _signature(record: Record) -> list[Flowable]:
    signed = record["signed"]
    if signed:
        reason = f" Signed past what was open, because: {signed['reason']}" if signed["reason"] else ""
        words = f"Signed off by {signed['by']}, {_when(signed['at'])}, core {signed['core_version']}.{reason}"
        return [paragraph("Signature", HEAD), _b(words)]
    open_points = " ".join(b["sentence"] for b in record["blockers"])
    return [paragraph("Still open", HEAD), paragraph(open_points or "Nothing. It can be signed.")]


class GapBar(Flowable):  # type: ignore[misc]  # reportlab has no types
    """The gap between two hatched faces: window band, target, and the last reading with its uncertainty as a soft edge."""

    def __init__(self, setting: Record) -> None:
        super().__init__()
        self.setting = setting
        self.width, self.height = _WIDTH, 13 * mm

    def draw(self) -> None:
        """Draw on the canvas of the frame."""
        s, last = self.setting, self.setting["tries"][-1]
        most = 1.25 * max(s["high_mm"], last["gap_mm"] + last["expanded_mm"])
        left, right = 6 * mm, self.width - 6 * mm
        bottom, top = 4 * mm, 11 * mm

        def x(gap_mm: float) -> Any:
            return left + (right - left) * min(max(gap_mm / most, 0.0), 1.0)

        canvas = self.canv
        canvas.setStrokeColor(_INK)
        for edge in (0.0, right):
            canvas.rect(edge, bottom, 6 * mm, top - bottom)
            for i in range(4):
                run = min(4.0, 6.0 - i * 1.5) * mm
                canvas.line(edge + i * 1.5 * mm, bottom, edge + i * 1.5 * mm + run, bottom + run)
        canvas.setFillColor(HexColor("#DCE3EE"))
        canvas.rect(x(s["low_mm"]), bottom, x(s["high_mm"]) - x(s["low_mm"]), top - bottom, stroke=0, fill=1)
        canvas.setFillColor(HexColor("#C9CED1"))
        near, far = x(last["gap_mm"] - last["expanded_mm"]), x(last["gap_mm"] + last["expanded_mm"])
        canvas.rect(near, bottom + 1.5 * mm, far - near, top - bottom - 3 * mm, stroke=0, fill=1)
        canvas.setLineWidth(1.6)
        canvas.line(x(last["gap_mm"]), bottom - 1 * mm, x(last["gap_mm"]), top + 1 * mm)
        canvas.setLineWidth(0.6)
        canvas.line(left, bottom, right, bottom)
        canvas.line(left, top, right, top)
        canvas.setFont("FineGap", 7)
        canvas.setFillColor(_BLUE)
        canvas.drawCentredString(x(s["low_mm"]), 0.6 * mm, s["low"])
        canvas.drawCentredString(x(s["high_mm"]), 0.6 * mm, s["high"])
        canvas.setFillColor(_INK)
        canvas.drawCentredString(x(last["gap_mm"]), top + 1.5 * mm, last["gap"])
