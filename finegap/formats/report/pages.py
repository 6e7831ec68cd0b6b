"""The further pages of a report: every size, reading, try, part, torque, step, gauge and line of the log."""

from __future__ import annotations

import re
from typing import Any
from xml.sax.saxutils import escape

from reportlab.lib.colors import HexColor
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, Paragraph

from finegap.core.families.steps import Stage
from finegap.formats.days import moment
from finegap.formats.paper import BLUE, CELL, HEAD, INK, SMALL, SMALLEST, WIDTH, Record, bold, paragraph, table, written


def pages(record: Record) -> list[Flowable]:
    """Everything after the first page, but for the photographs."""
    return [
        *_sizes(record),
        *_readings(record),
        *_gap(record),
        *_build(record),
        *_proof(record),
        *_steps(record),
        *_struck(record),
        *_log(record),
    ]


def tables_follow(record: Record) -> str:
    """What the pages after the first hold."""
    photos = " and photographs" if any(one["photos"] for one in (*record["features"], *record["steps"])) else ""
    return f"Every size, reading, try, part, torque and step, and the log{photos}, follow on the next pages."


def _sizes(record: Record) -> list[Flowable]:
    rows: list[list[Any]] = [
        [paragraph(t, SMALL) for t in ("", "Size", "New", "Limit", "Found", "Verdict, it conforms", "Decided", "Left")]
    ]
    for feature in record["features"]:
        if not (feature["wanted"] or feature["done"] or feature["look"]):
            continue  # neither on the sheet nor looked at
        decision = feature["decision"]
        decided = ": ".join(filter(None, (decision["decided"], decision["reason"]))) if decision else ""
        limit = feature["limit_text"] if feature["lower_mm"] is not None or feature["upper_mm"] is not None else "—"
        cells = [str(feature["number"]), feature["name"], feature["new_text"] or "—", limit]
        found = Paragraph(f"<b>{escape(measured(feature))}</b>", CELL)
        after = [called(feature["judged"]), decided, left_as(feature, record)]
        rows.append([*(paragraph(c, CELL) for c in cells), found, *(paragraph(c, CELL) for c in after)])
    return [paragraph(f"Found and left ({record['unit']})", HEAD), table(rows, [0.035, 0.165, 0.14, 0.12, 0.155, 0.145, 0.1, 0.14])]


def measured(feature: Record) -> str:
    """What was found, in size and in looks."""
    size = ", ".join(filter(None, (_size(feature["found"]), feature["partial"])))
    seen = feature["look"]["words"] if feature["look"] else ""
    nothing = "not looked at" if feature["kind"] == "check" else "not measured"
    return ", ".join(filter(None, (size, seen))) or nothing


def _size(result: Record | None) -> str:
    return f"{result['text']} ± {result['expanded_text']}" if result else ""


def called(judged: Record | None) -> str:
    """The verdict, and how likely the part conforms."""
    return ", ".join(filter(None, (judged["verdict"], judged["chance"]))) if judged else ""


def left_as(feature: Record, record: Record) -> str:
    """As left; and what a lead signed past at this line, with the reason."""
    past = [blocker["sentence"] for blocker in record["blockers"] if blocker["feature"] == feature["key"]]
    signed = record["signed"]
    if past and signed and signed["reason"]:
        past = [f"{' '.join(past)} Signed so by {signed['by']}, because: {signed['reason']}"]
    return _after_each_other(feature["left_text"], feature["left_note"], *past)


def _after_each_other(*told: str) -> str:
    """What is told, with one full stop between, whether it is a sentence with its own or not."""
    *first, last = [one for one in told if one] or [""]
    return ". ".join([*(one.removesuffix(".") for one in first), last])


def _gap(record: Record) -> list[Flowable]:
    setting, choice = record["setting"], record["choice"]
    if setting is None:
        return [paragraph("The gap", HEAD), paragraph(choice["sentence"])]
    said = " ".join(filter(None, (choice["sentence"], choice["over"], choice["hole"])))
    story: list[Flowable] = [paragraph(capital(setting["name"]), HEAD), paragraph(said), *_tries(record, setting)]
    window = f"Window {setting['low']} to {setting['high']} {record['unit']}." if len(setting["gaps"]) == 1 else ""
    hot = f"Predicted hot gap {setting['hot']['text']}." if setting["hot"] else ""
    warm = setting["warming"]["sentence"] if setting["warming"] else ""
    told = " ".join(filter(None, (window, hot, warm, *setting["bent"])))
    if told:
        story.append(paragraph(told))
    if record["mesh"]:
        story += [paragraph("Mesh gaps", HEAD), *_tries(record, record["mesh"])]
    return story


def capital(text: str) -> str:
    """With a capital to begin with."""
    return text[:1].upper() + text[1:]


def _tries(record: Record, setting: Record) -> list[Flowable]:
    """How it came there: every gap in a line where there are several, and all tries, those struck out too."""
    story: list[Flowable] = []
    if setting["tries"] and len(setting["gaps"]) > 1:
        gaps = "; ".join(f"{g['name']} {g['gap']} ({g['low']} to {g['high']})" for g in setting["gaps"])
        story.append(paragraph(f"As left, {record['unit']}: {gaps}."))
    rows: list[list[Any]] = [[paragraph(t, SMALL) for t in ("Try", "Set by", "Checked", "Gap", "Next", "Who and when")]]
    for one in setting["tries"]:
        who = f"{one['by']}, {moment(one['at'])}"
        rows.append(
            [
                paragraph(str(one["number"])),
                paragraph(one["set_by"]),
                paragraph(", ".join(filter(None, (one["checked"], one["gauge"])))),
                bold(one["gap"]),
                paragraph(_next(one)),
                paragraph(who),
            ]
        )
    if len(rows) > 1:
        story.append(table(rows, [0.05, 0.25, 0.26, 0.08, 0.12, 0.24]))
    return story


def _next(one: Record) -> str:
    if one["struck_reason"]:
        return f"STRUCK OUT, because: {one['struck_reason']}"
    return f"{one['next']}{', opened for it' if one['opened'] else ''}"


def _build(record: Record) -> list[Flowable]:
    """What was fitted, what was used again and why, press fits, and every torque that stands."""
    told = [_stacked(stack) for stack in tasks(record, "stack") if any(part["fitted"] for part in stack["parts"])]
    told += [_pressed(press) for press in tasks(record, "press") if press["ready"]]
    told += [line for one in tasks(record, "torque") for line in _tightened(one)]
    return [paragraph("Build", HEAD), *(paragraph(line, SMALL) for line in told)] if told else []


def tasks(record: Record, kind: str) -> list[Record]:
    """What the steps of a job were done with, of one kind."""
    return [task for task in record["tasks"] if task["kind"] == kind]


def turned(record: Record) -> list[tuple[str, Record]]:
    """How the shaft turned by hand; by the step where it was turned at several."""
    seen = [one for one in tasks(record, "turning") if one["seen"]]
    if len(seen) == 1:
        return [("The shaft", seen[0]["seen"])]
    texts = {step["key"]: re.split("[.;:]", step["text"])[0] for step in record["steps"]}
    return [(texts.get(one["step"], "The shaft"), one["seen"]) for one in seen]


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
        f"{', ' + t['adapter'] if t['adapter'] else ''}), {t['by']}, {moment(t['at'])}"
        for t in last
    )
    passes = f", last of {len(one['passes'])} passes" if len(one["passes"]) > 1 else ""
    struck = [
        f"{one['fastener']}, struck out, because: {t['struck_reason']}: {t['at_nut']}, pass {t['pass_number']}, "
        f"{t['by']}, {moment(t['at'])}."
        for t in one["log"]
        if t["struck_reason"]
    ]
    return [f"{one['fastener']} ({one['torque']}, {one['condition']}{passes}): {logged}.", *struck]


def _proof(record: Record) -> list[Flowable]:
    def listed(steps: list[Record]) -> str:
        return " ".join(f"{s['text']} — {done(s)}." for s in steps)

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
        paragraph(listed(before), SMALL),
        paragraph(listed(prove)),
        *_seen(record),
        paragraph("Gauges", HEAD),
        paragraph(told or "none used"),
    ]


def _seen(record: Record) -> list[Flowable]:
    """What was seen at Prove: the turning, the run-in's end, the first hour."""
    told = []
    told += [f"{name}: {seen['typed']}, {seen['by']}." for name, seen in turned(record)]
    told += [f"End play {one['line']['text']}" for one in tasks(record, "end-play") if one["line"]]
    for run_in in tasks(record, "run-in"):
        notes = run_in["notes"]
        if not notes:
            continue
        last = notes[-1]
        end = ", ".join(filter(None, (f"{last['drops_text']} drops a minute" if last["drops_text"] else "", last["box"])))
        told.append(f"Packing run in over {last['minute']:.0f} min, {len(notes)} lines, at the end {end}: {run_in['say']}.")
    told += [f"{line['name']}: {line['text']}" for one in tasks(record, "first-hour") for line in one["lines"]]
    return [paragraph(" ".join(told), SMALL)] if told else []


def done(step: Record) -> str:
    """By whom and when a step was done, skipped, or done out of its turn."""
    if not step["at"]:
        return "NOT DONE"
    skipped = f"SKIPPED, because: {step['skipped']}, " if step["skipped"] else ""
    past = f"OUT OF ITS TURN, because: {step['past']}, " if step["past"] else ""
    own = ", a lead of that lead's own job" if step["own"] else ""
    return f"{skipped}{past}{step['by']}, {moment(step['at'])}{own}"


def _readings(record: Record) -> list[Flowable]:
    """Every reading as it was typed, struck ones too."""
    rows = [
        [
            feature["name"], _station(reading), _typed(reading), reading["text"], reading["gauge"],
            f"{reading['by']}, {moment(reading['at'])}",
        ]
        for feature in record["features"]
        for reading in feature["readings"]
    ]  # fmt: skip
    head = ["Size", "Where", "Typed", "Reads", "Gauge", "Who and when"]
    return (
        [paragraph(f"Readings ({record['unit']})", HEAD), written(head, rows, [0.16, 0.16, 0.22, 0.09, 0.08, 0.29])] if rows else []
    )


_CAME = {"paper": "from a paper sheet", "pasted": "pasted", "receiver": "pulled from the gauge"}
"""How a reading that was not typed at the pump came into its field."""


def _station(reading: Record) -> str:
    return f"{reading['where']}{', as left' if reading['phase'] == 'left' else ''}"


def _typed(reading: Record) -> str:
    understood = f"read as {reading['understood']}" if reading["understood"] else ""
    struck = f"STRUCK OUT, because: {reading['struck_reason']}" if reading["struck_reason"] else ""
    came = _CAME.get(reading["taken"], "")
    return _after_each_other(reading["typed"], came, understood, reading["part"], reading["reason"], *reading["faults"], struck)


def _steps(record: Record) -> list[Flowable]:
    """Every step, by whom and when."""
    rows = [
        [step["stage"].capitalize(), step["text"] + (f" “{step['note']}”" if step["note"] else ""), done(step)]
        for step in record["steps"]
    ]
    return [paragraph("Steps", HEAD), written(["Stage", "Step", "Done"], rows, [0.1, 0.55, 0.35])] if rows else []


def _struck(record: Record) -> list[Flowable]:
    """What was struck out, but for what is crossed out where it stood."""
    rows = [
        [
            one["what"], f"{one['by']}, {moment(one['at'])}", one["reason"],
            ", ".join(filter(None, (one["struck_by"], moment(one["struck_at"]) if one["struck_at"] else ""))),
        ]
        for one in record["struck"]
    ]  # fmt: skip
    head = ["What", "Who and when", "Struck out, because", "By"]
    return [paragraph("Struck out", HEAD), written(head, rows, [0.4, 0.2, 0.22, 0.18])] if rows else []


def _log(record: Record) -> list[Flowable]:
    """The log, oldest first; of a job that is not signed its newest lines."""
    lines = sorted(record["log"], key=lambda line: int(line["version"]))
    rows = [[str(line["version"]), moment(line["at"]), line["by"], line["what"]] for line in lines]
    part = f", the newest {len(lines)} of {record['log_total']} lines" if len(lines) < record["log_total"] else ""
    return [paragraph(f"Log{part}", HEAD), written(["", "When", "Who", "What"], rows, [0.05, 0.2, 0.15, 0.6])] if rows else []


class GapBar(Flowable):  # type: ignore[misc]  # reportlab has no types
    """The gap between two hatched faces: window band, target, and the last reading with its uncertainty as a soft edge."""

    def __init__(self, setting: Record, last: Record) -> None:
        super().__init__()
        self.setting, self.last = setting, last
        self.width, self.height = WIDTH, 13 * mm

    def draw(self) -> None:
        """Draw on the canvas of the frame."""
        s, last = self.setting, self.last
        most = 1.25 * max(s["high_mm"], last["gap_mm"] + last["expanded_mm"])
        left, right = 6 * mm, self.width - 6 * mm
        bottom, top = 4 * mm, 11 * mm

        def x(gap_mm: float) -> Any:
            return left + (right - left) * min(max(gap_mm / most, 0.0), 1.0)

        canvas = self.canv
        canvas.setStrokeColor(INK)
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
        canvas.setFont("FineGap", SMALLEST)
        canvas.setFillColor(BLUE)
        canvas.drawCentredString(x(s["low_mm"]), 0.6 * mm, s["low"])
        canvas.drawCentredString(x(s["high_mm"]), 0.6 * mm, s["high"])
        canvas.setFillColor(INK)
        canvas.drawCentredString(x(last["gap_mm"]), top + 1.5 * mm, last["gap"])
