"""Page 1, for the customer: what came in and why, what was found and done, the gap, the proof, who signed."""

from __future__ import annotations

from reportlab.lib.units import mm
from reportlab.platypus import Flowable, Spacer

from finegap.formats.days import moment
from finegap.formats.letterhead import Letterhead, Paper
from finegap.formats.paper import CELL, HEAD, TITLE, WIDTH, Record, bold, heading, paragraph, size_of, written
from finegap.formats.report.pages import GapBar, called, capital, done, left_as, measured, tables_follow, tasks, turned

_EDGES = 30 * mm
_MOST_ROWS, _MOST_LINES, _LONGEST = 24, 8, 260


def front(record: Record, head: Letterhead, paper: Paper) -> list[Flowable]:
    """The first page; as many of its rows as fit, the rest is counted and stands in the tables after it."""
    high = size_of(paper)[1] - _EDGES
    telling = [f for f in record["features"] if _is_telling(f)]
    for rows in range(min(len(telling), _MOST_ROWS), -1, -1):
        story = [*heading(head), *_page(record, telling[:rows], len(telling) - rows)]
        if _height(story, high) <= high:
            break
    return story


def _page(record: Record, telling: list[Record], more: int) -> list[Flowable]:
    return [
        *_heading(record),
        *_found(record, telling, more),
        *_gap(record),
        *_proved(record),
        *_open(record),
        *_signature(record),
        paragraph(tables_follow(record), CELL),
    ]


def _height(story: list[Flowable], high: float) -> float:
    return float(sum(one.wrap(WIDTH, high)[1] + one.getSpaceBefore() + one.getSpaceAfter() for one in story))


def _heading(record: Record) -> list[Flowable]:
    pump, duty = record["pump"], record["duty"]
    hours = f" at {record['hours_run']} h" if record["hours_run"] is not None else ""
    return [
        paragraph(f"{pump['tag']}  {pump['service']}", TITLE),
        paragraph(
            f"Job {record['number']}. {_state(record)}. {pump['maker']} {pump['model']}, serial {pump['serial']}, "
            f"{pump['location']}."
        ),
        paragraph(f"Came in{hours}: {record['reason']}. Opened by {record['opened_by']}, {moment(record['opened_at'])}."),
        paragraph(
            f"Duty: {duty['liquid']}, {duty['viscosity']} at {duty['temperature']}, {duty['pressure']}, {duty['speed']}; "
            f"{duty['material']}."
        ),
        paragraph(f"Spec sheet: {record['sheet']}. {_read(record)}Verdicts by the {record['school']} school."),
    ]


def _read(record: Record) -> str:
    """Who read the sheet against the manual; of a sheet that was never asked about nothing is said."""
    if record["sheet_unread"]:
        return "SHEET NOT YET READ AGAINST THE MANUAL. "
    read = record["sheet_read"]
    if not read:
        return ""
    alone = ", who typed some of it" if read["alone"] else ""
    return f"Read against the manual by {read['names']}{alone}, {moment(read['when'])}. "


def _state(record: Record) -> str:
    if record["abandoned"]:
        return "ABANDONED: not to be used"
    return "Signed" if record["signed"] else "NOT SIGNED: work in progress"


def _is_telling(feature: Record) -> bool:
    """Anything but found well inside its limit and left alone."""
    judged = [one["verdict"] for one in (feature["judged"], feature["judged_left"]) if one]
    return bool(feature["decision"] or feature["renewed"]) or any(verdict != "Keep" for verdict in judged)


def _found(record: Record, telling: list[Record], more: int) -> list[Flowable]:
    rows = []
    for feature in telling:
        decision = feature["decision"]
        decided = ": ".join(filter(None, (decision["decided"], decision["reason"]))) if decision else ""
        limit = feature["limit_text"] if feature["lower_mm"] is not None or feature["upper_mm"] is not None else "—"
        cells = [feature["name"], measured(feature), limit, called(feature["judged"]), decided, left_as(feature, record)]
        rows.append([_clip(cell) for cell in cells])
    head = ["Size or part", "Found", "Limit", "Verdict, it conforms", "Decided", "Left"]
    told = [written(head, rows, [0.19, 0.17, 0.13, 0.17, 0.15, 0.19])] if rows else []
    return [paragraph(f"What was found and done ({record['unit']})", HEAD), *told, paragraph(_rest(record, more), CELL)]


def _rest(record: Record, more: int) -> str:
    """What the table leaves out: nothing that was not judged is called good."""
    rest = [f for f in record["features"] if f["wanted"] and not _is_telling(f)]
    good = sum(bool(f["judged"]) and f["done"] for f in rest)
    unjudged = [f["name"] for f in rest if f["done"] and not f["judged"]]
    open_ = [f["name"] for f in record["features"] if f["wanted"] and not f["done"] and not f["decision"]]
    told = [
        f"{more} more, as much out of the ordinary, are in the tables." if more else "",
        f"{good} found inside their limits, or sound." if good else "",
        f"Measured, with no limit on the sheet: {_clip(', '.join(unjudged))}." if unjudged else "",
        f"Not measured, or not everywhere: {_clip(', '.join(open_))}." if open_ else "",
    ]
    return " ".join(filter(None, told))


def _gap(record: Record) -> list[Flowable]:
    story: list[Flowable] = []
    for setting in (record["setting"], record["mesh"]):
        if setting is None:
            continue
        story.append(paragraph(capital(setting["name"]), HEAD))
        standing = [one for one in setting["tries"] if not one["struck_reason"]]
        if not standing:
            story.append(bold("Not set."))
        elif len(setting["gaps"]) == 1:
            state = "right" if setting["right"] else "NOT RIGHT"
            words = f"Left at {standing[-1]['gap']} {record['unit']}, window {setting['low']} to {setting['high']}: {state}."
            story += [bold(words), Spacer(1, 3), GapBar(setting, standing[-1]), Spacer(1, 2)]
        else:
            gaps = "; ".join(f"{g['name']} {g['gap']} ({g['low']} to {g['high']})" for g in setting["gaps"])
            state = "all right" if setting["right"] else "NOT ALL RIGHT"
            story.append(paragraph(f"Left, {record['unit']}: {gaps}: {state}."))
        story += [paragraph(f"{sentence}") for sentence in (*setting["outside"], *setting["bent"])[:_MOST_LINES]]
    return story


def _proved(record: Record) -> list[Flowable]:
    told = [f"{name}: {seen['typed']}." for name, seen in turned(record)]
    told += [f"{line['name']}: {line['text']}" for one in tasks(record, "first-hour") for line in one["lines"]]
    holds = [s for s in record["steps"] if s["hold"]]
    undone = sum(not s["at"] for s in holds)
    told.append(f"Hold points: {len(holds) - undone} of {len(holds)} done.")
    odd = [s for s in record["steps"] if s["skipped"] or s["past"]]
    lines = [paragraph(_clip(f"{s['text']} {done(s)}."), CELL) for s in odd[:_MOST_LINES]]
    rest = [paragraph(f"And {len(odd) - _MOST_LINES} more.", CELL)] if len(odd) > _MOST_LINES else []
    return [paragraph("Proved", HEAD), paragraph(" ".join(told)), *lines, *rest]


def _open(record: Record) -> list[Flowable]:
    """What a lead signed past."""
    past = [blocker["sentence"] for blocker in record["blockers"]] if record["signed"] else []
    if not past:
        return []
    rest = f" And {len(past) - _MOST_LINES} more." if len(past) > _MOST_LINES else ""
    return [paragraph("Signed past", HEAD), paragraph(" ".join(past[:_MOST_LINES]) + rest, CELL)]


def _signature(record: Record) -> list[Flowable]:
    signed, abandoned = record["signed"], record["abandoned"]
    if signed:
        reason = f" Signed past what was open, because: {signed['reason']}" if signed["reason"] else ""
        own = " By a lead who had worked on this job." if signed["own"] else ""
        words = f"Signed off by {signed['by']}, {moment(signed['at'])}, core {signed['core_version']}.{reason}{own}"
        return [paragraph("Signature", HEAD), bold(words)]
    if abandoned:
        words = f"Abandoned by {abandoned['by']}, {moment(abandoned['at'])}, because: {abandoned['reason']}"
        return [paragraph("Abandoned", HEAD), bold(words)]
    open_points = [blocker["sentence"] for blocker in record["blockers"]]
    rest = f" And {len(open_points) - _MOST_LINES} more." if len(open_points) > _MOST_LINES else ""
    said = " ".join(open_points[:_MOST_LINES]) + rest
    return [paragraph("Still open", HEAD), paragraph(said or "Nothing. It can be signed.")]


def _clip(text: str) -> str:
    """Text short enough for this page; all of it stands in the tables."""
    return text if len(text) <= _LONGEST else text[: _LONGEST - 1].rstrip() + "…"
