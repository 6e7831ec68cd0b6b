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


def _what(row: Struck, records: Records) -> Text:
    job_record = records.job_record
    names = {f.key: f.name for f in job_record.family.features}
    if isinstance(row, StepMark):
        texts = {s.key: s.text for s in job_record.whole.steps} | {s.key: s.text for s in job_record.family.steps}
        return f"{'Skipped' if row.skipped else 'Done'}: {texts.get(row.step, row.step)}"
    if isinstance(row, Decision):
        return f"{names.get(row.feature, row.feature)}: {row.decided}" + (f", {row.reason}" if row.reason else "")
    if isinstance(row, NewPart):
        return f"New part in: {names.get(row.feature, row.feature)}"
    if isinstance(row, PartFitted):
        parts = {(s.key, p.key): p.name for s in job_record.stacks.values() for p in s.parts}
        return f"{'Used again' if row.reused else 'Fitted'}: {parts.get((row.stack, row.part), row.part)}"
    if isinstance(row, ProofMark):
        return f"{row.seen.capitalize()}: {row.typed}"
    if isinstance(row, ZeroFound):
        return Sentence("Zero by {school}, play {play}", {"school": row.school, "play": length(row.lash_mm, fine=True)})
    return f"Run-in, line {row.number}, minute {row.minute:.0f}"
