"""Putting right what was recorded by mistake: it is struck out with a reason, and what followed from it goes with it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from django.db.models import Q

from finegap.bench.changes import StrikeOut, Struck, TryOf
from finegap.bench.models import (
    Decision,
    Job,
    NewPart,
    PartFitted,
    ProofMark,
    Reading,
    RunInNote,
    StepMark,
    TorqueMark,
    Try,
    ZeroFound,
)
from finegap.bench.recorded import Strikeable
from finegap.bench.services.changing import JobInHand, changes
from finegap.bench.services.deciding import about_feature, renew
from finegap.bench.services.steps import about_step
from finegap.bench.services.tries import move_stock, unprove
from finegap.core.errors import FieldError
from finegap.core.families.family import Family
from finegap.core.families.steps import Step
from finegap.core.job import Assessment
from finegap.core.job_record import JobRecord, one_decision
from finegap.core.quantities import said
from finegap.core.sequence import hangs_on


@changes(lambda new, now: _kind(new).about(now.job, _row(new, now.job)))
def strike(now: JobInHand, new: StrikeOut) -> None:
    """Strike a record out, with a reason, and with it what rests on it; the record keeps both.

    Raises
    ------
    FieldError
        No reason, or nothing of that kind that stands.
    """
    reason, row, before = new.reason.strip(), _row(new, now.job), now.before.assessment
    what = _kind(new).strike(now, row, reason)
    now.strike(_rows(new).filter(id=new.record), reason)
    now.log(f"Struck out, because: {reason}: {what}{_reopen(now, before)}")


def _kind(new: StrikeOut) -> _Kind:
    return _KINDS[new.kind]


def _rows(new: StrikeOut) -> Any:
    return _kind(new).model._default_manager


def _row(new: StrikeOut, job: Job) -> Any:
    if not new.reason.strip():
        raise FieldError("reason", "say why it is struck out.", "Expected a few words, such as “slipped off the edge”.")
    row = _rows(new).filter(id=new.record, job=job, struck_reason="").first()
    if row is None:
        raise FieldError(new.kind.value, "it is not there, or struck out already.", "Expected one of this job that stands.")
    return row


def _reopen(now: JobInHand, before: Assessment) -> str:
    """Opens steps whose evidence is gone. Answers words for the log."""
    was, after = before.record, now.after.assessment
    done = [s for s in after.record.family.steps if s.key in after.record.steps_done and s.key not in after.record.skipped]
    lost = [s for s in done if after.holds_back(s) and not _held_back(before, was, s)]
    if not lost:
        return ""
    keys = {one.key for s in lost for one in (s, *hangs_on(s.key, after.record.family))}
    now.undo_steps(keys, "what it was done with was struck out")
    now.wrote()
    return "; open again: " + ", ".join(s.text for s in lost)


def _held_back(before: Assessment, was: JobRecord, step: Step) -> bool:
    same = next((s for s in was.family.steps if s.key == step.key), None)
    return same is None or bool(before.holds_back(same))


def _reading(now: JobInHand, row: Reading, reason: str) -> str:
    return f"{said(row.typed, row.unit)} of {_named(now, row.feature)}"


def _torque(now: JobInHand, row: TorqueMark, reason: str) -> str:
    # By what was done before what; of the oldest only their clocks are known.
    after = Q(made__gt=row.made) | Q(made=0, at__gte=row.at)
    later = now.job.torques.filter(after, fastener=row.fastener).exclude(pk=row.pk)
    more = now.strike(later, reason)
    return f"{row.fastener} {row.typed}" + (f" and {more} after it" if more else "")


def _step(now: JobInHand, row: StepMark, reason: str) -> str:
    family = now.before.job_record.family
    after = hangs_on(row.step, family)
    gone = now.undo_steps((s.key for s in after), "what comes before it is open again")
    return f"done: {_text(family, row.step)}" + ("; and what comes after it" if gone else "")


def _text(family: Family, key: str) -> str:
    return next((s.text for s in family.steps if s.key == key), key)


def _decision(now: JobInHand, row: Decision, reason: str) -> str:
    """A decision goes with those it settled: a pair and its parts are one, and so are all sizes of a part."""
    before = now.before.job_record
    family = before.family
    feature = family.by_key[row.feature]
    keys = {row.feature, feature.bore, feature.shaft}
    keys |= {other for key in keys for other in family.piece_of(key)}
    decided = set(now.job.decisions.standing().values_list("feature", flat=True))
    for pair in family.features:
        if {pair.bore, pair.shaft} & keys and pair.key in decided:
            keys |= {pair.key, pair.bore, pair.shaft}
    together = now.job.decisions.filter(feature__in=keys)
    names = [_named(now, one.feature) for one in together.standing().exclude(pk=row.pk)]
    now.strike(together, reason)
    left = {key: one for key, one in before.decisions.items() if key not in keys}
    undone = renew(now, one_decision(family, left))
    return f"{_named(now, row.feature)}: {row.decided}" + (f", with {', '.join(names)}" if names else "") + undone


def _try(now: JobInHand, row: Try, reason: str) -> str:
    """The shelf gets back what only this try had taken."""
    standing = list(now.job.tries.standing().filter(sets=row.sets))
    left = [one for one in standing if one.pk != row.pk]
    if row.sets == TryOf.GAP:
        move_stock(now.job, standing[-1].stacks_um, left[-1].stacks_um if left else [])
    return f"try {row.number}" + unprove(now, now.before.job_record.family, f"try {row.number} was struck out")


def _zero(now: JobInHand, row: ZeroFound, reason: str) -> str:
    """What was tried from a zero goes with it."""
    tries = now.job.tries.filter(sets=TryOf.GAP)
    standing = list(tries.standing())
    if standing:
        move_stock(now.job, standing[-1].stacks_um, [])
    gone = now.strike(tries, f"its zero was struck out: {reason}")
    said_of = f", with its {gone} tries" if gone else ""
    return f"zero by {row.school}{said_of}" + unprove(now, now.before.job_record.family, "its zero was struck out")


def _proof(now: JobInHand, row: ProofMark, reason: str) -> str:
    return f"{row.seen}: {row.typed}"


def _note(now: JobInHand, row: RunInNote, reason: str) -> str:
    return f"run-in, line {row.number}"


def _part(now: JobInHand, row: PartFitted, reason: str) -> str:
    """A part comes out with all that went in after it."""
    stack = next((s for s in now.before.job_record.stacks.values() if s.key == row.stack), None)
    parts = list(stack.parts) if stack else []
    keys = [p.key for p in parts]
    out = parts[keys.index(row.part) :] if row.part in keys else []
    now.strike(now.job.fitted.filter(stack=row.stack, part__in=[p.key for p in out]), reason)
    now.undo_features((p.feature for p in out if p.feature), reason)
    name = next((p.name for p in out), row.part)
    family = now.before.job_record.family
    holds = any(stack.place in s.of("stack") for s in family.steps if s.before_check) if stack else False
    undone = unprove(now, family, "what holds the gap was taken out") if holds else ""
    return f"fitted: {name}, with what came after it{undone}"


def _new_part(now: JobInHand, row: NewPart, reason: str) -> str:
    return f"new part in: {_named(now, row.feature)}"


def _named(now: JobInHand, feature: str) -> str:
    found = now.before.job_record.family.by_key.get(feature)
    return found.name if found else feature


def _of_feature(job: Job, row: Any) -> tuple[str, ...]:
    return (f"feature:{row.feature}",)


@dataclass(frozen=True)
class _Kind:
    """Rows of one kind: what goes with one that is struck out, with the words for the log; and what striking it is about."""

    model: type[Strikeable]
    strike: Callable[[JobInHand, Any, str], str]
    about: Callable[[Job, Any], tuple[str, ...]]


_KINDS = {
    Struck.READING: _Kind(Reading, _reading, _of_feature),
    Struck.TORQUE: _Kind(TorqueMark, _torque, lambda job, row: (f"torque:{row.fastener}",)),
    Struck.STEP: _Kind(StepMark, _step, lambda job, row: about_step(job, row.step)),
    Struck.DECISION: _Kind(Decision, _decision, lambda job, row: about_feature(job, row.feature)),
    Struck.TRY: _Kind(Try, _try, lambda job, row: (row.sets,)),
    Struck.ZERO: _Kind(ZeroFound, _zero, lambda job, row: (TryOf.GAP,)),
    Struck.PROOF: _Kind(ProofMark, _proof, lambda job, row: (f"step:{row.step}",)),
    Struck.RUN_IN: _Kind(RunInNote, _note, lambda job, row: ("run-in",)),
    Struck.PART: _Kind(PartFitted, _part, lambda job, row: (f"stack:{row.stack}",)),
    Struck.NEW_PART: _Kind(NewPart, _new_part, _of_feature),
}
