"""What was struck out and stands nowhere else any more."""

from __future__ import annotations

import datetime as dt

from finegap.bench import responses
from finegap.bench.models import Decision, NewPart, PartFitted, ProofMark, StepMark, ZeroFound
from finegap.bench.records import Records, Struck
from finegap.core.formatting import Sentence, Text, length


def struck(records: Records) -> list[responses.StruckResponse]:
    """In the order in which they were struck."""
    unknown = dt.datetime.min.replace(tzinfo=dt.UTC)
    rows = sorted(records.struck, key=lambda row: (row.struck_at or unknown, row.at))
    return [
        responses.StruckResponse(
            what=_what(row, records),
            by=records.names[row.by_id],
            at=row.when,
            struck_by=records.names[row.struck_by_id] if row.struck_by_id else "",
            struck_at=row.struck_at and row.struck_at.astimezone(row.when.tzinfo),
            reason=row.struck_reason,
        )
        for row in rows
    ]


def former(records: Records) -> list[responses.FormerResponse]:
    """Marks of steps and parts the procedure no longer has, in the words they were made under. They count for nothing.

    A step or part that is only not asked for by this job, as built and opened, is none of them.
    """
    job_record = records.job_record
    of_job = {s.key for s in job_record.family.steps}, {(s.key, p.key) for s in job_record.stacks.values() for p in s.parts}
    rows: list[StepMark | PartFitted] = [row for row in records.steps if row.step not in of_job[0]]
    rows += [row for row in records.fitted if (row.stack, row.part) not in of_job[1]]
    if not rows:
        return []
    steps = {s.key for s in (*job_record.sheet.family.steps, *job_record.whole.steps)}
    parts = {(s.key, p.key) for s in (*job_record.sheet.family.stacks, *job_record.sheet.building.stacks) for p in s.parts}
    stacks = {stack for stack, _ in parts}
    gone = [row for row in rows if (row.step not in steps if isinstance(row, StepMark) else not _is_of(row, parts, stacks))]
    gone.sort(key=lambda row: row.at)
    return [responses.FormerResponse(_what(row, records), records.names[row.by_id], row.when) for row in gone]


def _is_of(row: PartFitted, parts: set[tuple[str, str]], stacks: set[str]) -> bool:
    """Whether it is a part there still is, or one of several: ring 3 of the packing."""
    if (row.stack, row.part) in parts:
        return True
    return row.stack in stacks and (row.part == "lantern" or (row.stack, row.part.rpartition("-")[0]) in parts)


def _what(row: Struck, records: Records) -> Text:
    job_record = records.job_record
    names = {f.key: f.name for f in job_record.family.features}
    if isinstance(row, StepMark):
        texts = {s.key: s.text for s in job_record.whole.steps} | {s.key: s.text for s in job_record.family.steps}
        return f"{'Skipped' if row.skipped else 'Done'}: {row.words or texts.get(row.step, row.step)}"
    if isinstance(row, Decision):
        return f"{names.get(row.feature, row.feature)}: {row.decided}" + (f", {row.reason}" if row.reason else "")
    if isinstance(row, NewPart):
        return f"New part in: {names.get(row.feature, row.feature)}"
    if isinstance(row, PartFitted):
        parts = {(s.key, p.key): p.name for s in job_record.stacks.values() for p in s.parts}
        return f"{'Used again' if row.reused else 'Fitted'}: {row.words or parts.get((row.stack, row.part), row.part)}"
    if isinstance(row, ProofMark):
        return f"{row.seen.capitalize()}: {row.typed}"
    if isinstance(row, ZeroFound):
        return Sentence("Zero by {school}, play {play}", {"school": row.school, "play": length(row.lash_mm, fine=True)})
    return f"Run-in, line {row.number}, minute {row.minute:.0f}"
