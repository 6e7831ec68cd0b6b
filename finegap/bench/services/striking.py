"""Putting right what was recorded by mistake: it is struck out with a reason, and what followed from it goes with it."""

from __future__ import annotations

import uuid
from collections.abc import Callable
from typing import Any

from django.db.models import Q

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
from finegap.bench.records import GAP, load
from finegap.bench.services.changing import JobRef, changing, log
from finegap.bench.services.deciding import about_feature, renew
from finegap.bench.services.setting import move_stock, unprove
from finegap.bench.services.steps import about_step
from finegap.core.errors import FieldError
from finegap.core.families.family import Family
from finegap.core.families.steps import Step
from finegap.core.job import Assessment, assess
from finegap.core.job_record import JobRecord
from finegap.core.quantities import said
from finegap.core.sequence import hangs_on


def strike(ref: JobRef, kind: str, record: uuid.UUID, reason: str) -> None:
    """Strike a record out, with a reason, and with it what rests on it; the record keeps both.

    Raises
    ------
    FieldError
        No reason, no such kind, or nothing of it that stands.
    """
    if not reason.strip():
        raise FieldError("reason", "say why it is struck out.", "Expected a few words, such as “slipped off the edge”.")
    if kind not in _KINDS:
        raise FieldError("kind", f"“{kind}” is not struck out.", f"Expected one of: {', '.join(_KINDS)}.")
    model, strike_one, about = _KINDS[kind]
    rows: Any = model._default_manager
    row = rows.filter(id=record, job__number=ref.number, struck_reason="").first()
    if row is None:
        raise FieldError(kind, "it is not there, or struck out already.", "Expected one of this job that stands.")
    with changing(ref, lambda job: about(job, row)) as job:
        before = assess(load(job).job_record)
        what = strike_one(job, ref, row, reason.strip())
        rows.filter(id=record).strike(ref.actor, ref.moment, reason.strip())
        log(job, ref, f"Struck out, because: {reason.strip()}: {what}{_reopen(job, ref, before)}")


def _reopen(job: Job, ref: JobRef, before: Assessment) -> str:
    """A step whose evidence is gone is not done any more. Words for the log."""
    was, now = before.record, assess(load(job).job_record)
    done = [s for s in now.record.family.steps if s.key in now.record.steps_done and s.key not in now.record.skipped]
    lost = [s for s in done if now.holds_back(s) and not _held_back(before, was, s)]
    if not lost:
        return ""
    keys = {one.key for s in lost for one in (s, *hangs_on(s.key, now.record.family))}
    job.steps.filter(step__in=keys).strike(ref.actor, ref.moment, "what it was done with was struck out")
    return "; open again: " + ", ".join(s.text for s in lost)


def _held_back(before: Assessment, was: JobRecord, step: Step) -> bool:
    same = next((s for s in was.family.steps if s.key == step.key), None)
    return same is None or bool(before.holds_back(same))


def _reading(job: Job, ref: JobRef, row: Reading, reason: str) -> str:
    return f"{said(row.typed, row.unit)} of {_named(job, row.feature)}"


def _torque(job: Job, ref: JobRef, row: TorqueMark, reason: str) -> str:
    # By what was done before what; of the oldest only their clocks are known.
    after = Q(made__gt=row.made) | Q(made=0, at__gte=row.at)
    later = job.torques.filter(after, fastener=row.fastener).exclude(pk=row.pk)
    more = later.strike(ref.actor, ref.moment, reason)
    return f"{row.fastener} {row.typed}" + (f" and {more} after it" if more else "")


def _step(job: Job, ref: JobRef, row: StepMark, reason: str) -> str:
    family = load(job).job_record.family
    after = hangs_on(row.step, family)
    gone = job.steps.filter(step__in=[s.key for s in after]).strike(ref.actor, ref.moment, "what comes before it is open again")
    return f"done: {_text(family, row.step)}" + ("; and what comes after it" if gone else "")


def _text(family: Family, key: str) -> str:
    return next((s.text for s in family.steps if s.key == key), key)


def _decision(job: Job, ref: JobRef, row: Decision, reason: str) -> str:
    """A decision goes with those it settled: a pair and its parts are one."""
    before = load(job).job_record
    family = before.family
    feature = family.by_key[row.feature]
    keys = {row.feature, feature.bore, feature.shaft}
    decided = set(job.decisions.standing().values_list("feature", flat=True))
    for pair in family.features:
        if row.feature in (pair.bore, pair.shaft) and pair.key in decided:
            keys |= {pair.key, pair.bore, pair.shaft}
    together = job.decisions.filter(feature__in=keys)
    names = [_named(job, one.feature) for one in together.standing().exclude(pk=row.pk)]
    together.strike(ref.actor, ref.moment, reason)
    undone = renew(job, ref, before)
    return f"{_named(job, row.feature)}: {row.decided}" + (f", with {', '.join(names)}" if names else "") + undone


def _try(job: Job, ref: JobRef, row: Try, reason: str) -> str:
    """The shelf gets back what only this try had taken."""
    standing = list(job.tries.standing().filter(sets=row.sets))
    left = [one for one in standing if one.pk != row.pk]
    if row.sets == GAP:
        move_stock(job, standing[-1].stacks_um, left[-1].stacks_um if left else [])
    return f"try {row.number}" + unprove(job, ref, load(job).job_record.family, f"try {row.number} was struck out")


def _zero(job: Job, ref: JobRef, row: ZeroFound, reason: str) -> str:
    """What was tried from a zero goes with it."""
    tries = job.tries.filter(sets=GAP)
    standing = list(tries.standing())
    if standing:
        move_stock(job, standing[-1].stacks_um, [])
    gone = tries.strike(ref.actor, ref.moment, f"its zero was struck out: {reason}")
    said_of = f", with its {gone} tries" if gone else ""
    return f"zero by {row.school}{said_of}" + unprove(job, ref, load(job).job_record.family, "its zero was struck out")


def _proof(job: Job, ref: JobRef, row: ProofMark, reason: str) -> str:
    return f"{row.seen}: {row.typed}"


def _note(job: Job, ref: JobRef, row: RunInNote, reason: str) -> str:
    return f"run-in, line {row.number}"


def _part(job: Job, ref: JobRef, row: PartFitted, reason: str) -> str:
    """A part comes out with all that went in after it."""
    stack = next((s for s in load(job).job_record.stacks.values() if s.key == row.stack), None)
    parts = list(stack.parts) if stack else []
    keys = [p.key for p in parts]
    out = parts[keys.index(row.part) :] if row.part in keys else []
    job.fitted.filter(stack=row.stack, part__in=[p.key for p in out]).strike(ref.actor, ref.moment, reason)
    job.new_parts.filter(feature__in=[p.feature for p in out if p.feature]).strike(ref.actor, ref.moment, reason)
    name = next((p.name for p in out), row.part)
    family = load(job).job_record.family
    holds = any(stack.place in s.of("stack") for s in family.steps if s.before_check) if stack else False
    undone = unprove(job, ref, family, "what holds the gap was taken out") if holds else ""
    return f"fitted: {name}, with what came after it{undone}"


def _new_part(job: Job, ref: JobRef, row: NewPart, reason: str) -> str:
    return f"new part in: {_named(job, row.feature)}"


def _named(job: Job, feature: str) -> str:
    found = load(job).job_record.family.by_key.get(feature)
    return found.name if found else feature


def _of_feature(job: Job, row: Any) -> tuple[str, ...]:
    return (f"feature:{row.feature}",)


_Strike = Callable[[Job, JobRef, Any, str], str]
_About = Callable[[Job, Any], tuple[str, ...]]

_KINDS: dict[str, tuple[type[Strikeable], _Strike, _About]] = {
    "reading": (Reading, _reading, _of_feature),
    "torque": (TorqueMark, _torque, lambda job, row: (f"torque:{row.fastener}",)),
    "step": (StepMark, _step, lambda job, row: about_step(job, row.step)),
    "decision": (Decision, _decision, lambda job, row: about_feature(job, row.feature)),
    "try": (Try, _try, lambda job, row: (row.sets,)),
    "zero": (ZeroFound, _zero, lambda job, row: (GAP,)),
    "proof": (ProofMark, _proof, lambda job, row: (f"step:{row.step}",)),
    "run-in": (RunInNote, _note, lambda job, row: ("run-in",)),
    "part": (PartFitted, _part, lambda job, row: (f"stack:{row.stack}",)),
    "new part": (NewPart, _new_part, _of_feature),
}
"""By kind: its rows, what goes with one and the words for the log, and what striking it is about."""

STRUCK_KINDS = tuple(_KINDS)
