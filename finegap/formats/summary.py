"""A signed job in plain words, for who owns the pump and has never set a gap. Made from the record, and from nothing else."""

from __future__ import annotations

from dataclasses import dataclass

from finegap.core.formatting import grouped
from finegap.formats.days import moment
from finegap.formats.paper import Record

_LONGEST, _MOST = 300, 40


@dataclass(frozen=True)
class Section:
    """A heading and its sentences; ``parts`` are what was found and done of single parts: name, found, done."""

    heading: str
    sentences: list[str]
    parts: list[tuple[str, str, str]]


def summary_of(record: Record) -> list[Section]:
    """What came in, what was found, what was done, how it left, and what was put right since."""
    sections = [_came(record), _found(record), _set(record), _after(record)]
    if any(one["void"] for one in record["amendments"]):
        sections.insert(0, sections.pop())  # nobody reads on believing it
    return [one for one in sections if one.sentences or one.parts]


def _came(record: Record) -> Section:
    pump = record["pump"]
    hours = f" It had run {grouped(record['hours_run'])} hours by its meter." if record["hours_run"] is not None else ""
    return Section(
        "What came in",
        [
            f"{pump['service']} ({pump['tag']}): {pump['maker']} {pump['model']}, serial {pump['serial']}.",
            f"It came in on {moment(record['opened_at'])}: {record['reason']}.{hours}",
        ],
        [],
    )


def _found(record: Record) -> Section:
    wanted = [one for one in record["features"] if one["wanted"]]
    telling = [one for one in wanted if (one["decision"] and one["decision"]["decided"] == "change") or _is_watched(one)]
    good = [one for one in wanted if one not in telling and one["done"] and one["judged"] and one["judged"]["verdict"] == "Keep"]
    other = [one for one in wanted if one not in telling and one not in good and one["done"]]
    missing = [one for one in wanted if not one["done"] and one not in telling]
    sentences = []
    if good:
        sentences.append(
            f"{len(good)} {'size or part was' if len(good) == 1 else 'sizes and parts were'} found good, and went back in."
        )
    if other:
        sentences.append(f"Also measured or looked at: {_names(other)}. The report says what was found and decided.")
    if missing:
        sentences.append(f"Not measured, so nothing is said of: {_names(missing)}.")
    return Section("What we found and did", sentences, [_part(one, record["unit"]) for one in telling[:_MOST]])


def _is_watched(feature: Record) -> bool:
    return bool(feature["judged"]) and feature["judged"]["verdict"] == "Watch"


def _part(feature: Record, unit: str) -> tuple[str, str, str]:
    found = (
        f"{feature['found']['text']} {unit}"
        if feature["found"]
        else feature["look"]["words"]
        if feature["look"]
        else "not measured"
    )
    limit = feature["limit_text"] if feature["lower_mm"] is not None or feature["upper_mm"] is not None else ""
    if limit and feature["found"]:
        found += f"; allowed {limit}"
    changed = feature["decision"] and feature["decision"]["decided"] == "change"
    if not changed:
        return feature["name"], found, "Still within its limit. Worn enough to be measured again at the next overhaul."
    return feature["name"], found, _changed(feature, unit)


def _changed(feature: Record, unit: str) -> str:
    """What became of a part that was to be changed: as far as anybody measured it or said so, and no further."""
    if feature["left"]:
        return f"Replaced; it now measures {feature['left']['text']} {unit}."
    if feature["renewed"] or feature["left_text"] not in ("", "as found"):
        return "Replaced."
    return "To be replaced. It went back as it was found; the report says why."


def _set(record: Record) -> Section:
    sentences = []
    for setting in (record["setting"], record["mesh"]):
        if setting is None:
            continue
        standing = [one for one in setting["tries"] if not one["struck_reason"]]
        name = setting["name"][:1].upper() + setting["name"][1:]
        if not standing:
            sentences.append(f"{name}: not set in this job.")
            continue
        sentences += [
            f"{gap['name'][:1].upper() + gap['name'][1:]} was left at {gap['gap'] or 'a size that was not measured'} "
            f"{record['unit'] if gap['gap'] else ''}".rstrip()
            + f"; it should be {gap['low']} to {gap['high']}."
            for gap in setting["gaps"]
        ]
        if not setting["right"]:
            sentences.append("That is not as it should be; the report says why it was signed.")
    return Section("How it left", sentences, [])


def _after(record: Record) -> Section:
    sentences = [
        f"On {moment(one['at'])} {one['by']} put this right: {one['what'][:_LONGEST]}"
        + (" This record does not count for this pump." if one["void"] else "")
        for one in record["amendments"]
    ]
    return Section("Put right since it was signed", sentences, [])


def _names(features: list[Record]) -> str:
    names = [one["name"].lower() for one in features]
    apart = "; " if any("," in name for name in names) else ", "
    return apart.join(names[:_MOST]) + (f"{apart}and {len(names) - _MOST} more" if len(names) > _MOST else "")
