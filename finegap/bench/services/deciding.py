"""Deciding keep or change."""

from __future__ import annotations

import uuid
from collections.abc import Sequence

from finegap.bench.models import Decision, Job
from finegap.bench.records import family_of, load
from finegap.bench.services.changing import JobRef, log, recording
from finegap.bench.services.setting import unprove
from finegap.core import job_record as core
from finegap.core.deciding import decided as decided_with
from finegap.core.errors import FieldError
from finegap.core.inspection import FeatureState, reason_needed
from finegap.core.job import assess


def decide(ref: JobRef, decision_id: uuid.UUID, feature: str, decided: str, reason: str = "", parts: Sequence[str] = ()) -> None:
    """Decide keep or change for a feature; of a pair to be changed, ``parts`` are those of its features whose parts are new.

    A pair and its parts are one decision: deciding the one settles the other, and what no longer holds goes.

    Raises
    ------
    FieldError
        Against the verdict without a reason, of the feature or of a part it takes with it; or a pair that names no part.
    """
    contents = (feature, decided, reason, tuple(parts))
    with recording(ref, Decision, decision_id, contents, lambda job: about_feature(job, feature)) as job:
        if job is None:
            return
        job_record = load(job).job_record
        states = {state.feature.key: state for state in assess(job_record).features}
        state = states.get(feature)
        if state is None:
            raise FieldError("feature", f"there is no feature {feature}.", "Expected a feature of this family.")
        wanted = core.Decision(core.Decided(decided), reason.strip(), tuple(parts))
        _check_reason(state, wanted.decided, reason)
        after, touched = decided_with(job_record.family, job_record.decisions, feature, wanted)
        for key in touched[1:]:
            if key in after and after[key].decided is core.Decided.KEEP and key in states:
                _check_reason(states[key], core.Decided.KEEP, reason)
        for key in touched:
            record_id = decision_id if key == feature else uuid.uuid5(decision_id, key)
            _put(job, ref, states[key], after.get(key), record_id)
        undone = renew(job, ref, job_record)
        log(job, ref, "; ".join(_said(states[key], after.get(key)) for key in touched) + undone)


def about_feature(job: Job, feature: str) -> tuple[str, ...]:
    """What deciding a feature is about: itself, the parts of a pair, and the pairs of a part."""
    family = family_of(job)
    named = family.by_key.get(feature)
    members = {named.bore, named.shaft} - {""} if named else set()
    pairs = {f.key for f in family.features if {f.bore, f.shaft} & {feature, *members}}
    return tuple(f"feature:{key}" for key in sorted({feature, *members, *pairs}))


def _check_reason(state: FeatureState, wanted: core.Decided, reason: str) -> None:
    verdict = state.found_judgement.verdict if state.found_judgement else None
    if reason_needed(verdict, wanted) and not reason.strip():
        problem = f"{wanted.value} goes against the verdict “{_verdict(state)}” of {state.feature.name}."
        raise FieldError("reason", problem, "Expected the reason, in a few words.")


def _verdict(state: FeatureState) -> str:
    return state.found_judgement.verdict.value if state.found_judgement else "not measured"


def _put(job: Job, ref: JobRef, state: FeatureState, decision: core.Decision | None, record_id: uuid.UUID) -> None:
    key = state.feature.key
    job.decisions.filter(feature=key).strike(ref.actor, ref.moment, "decided again")
    if decision is not None:
        Decision.objects.create(
            id=record_id, job=job, feature=key, decided=decision.decided.value, verdict=_verdict(state), reason=decision.reason,
            parts=list(decision.parts), **ref.stamp,
        )  # fmt: skip


def renew(job: Job, ref: JobRef, before: core.JobRecord) -> str:
    """After a decision: what it changes of the parts that are new. Words for the log.

    A part that is kept after all is not a new one that is in, and what was measured as the new one is not of it. A pump whose parts
    are others has another gap: what was proved of it is to be proved again.
    """
    now = load(job).job_record
    if now.changed == before.changed:
        return ""
    why, kept = "the part is kept after all", before.changed - now.changed
    job.new_parts.filter(feature__in=kept).strike(ref.actor, ref.moment, why)
    left = job.readings.filter(feature__in=kept, phase=core.Phase.LEFT.value)
    left.strike(ref.actor, ref.moment, f"measured as a new part; {why}")
    job.renewed = job.version + 1
    job.save(update_fields=["renewed"])
    return unprove(job, ref, now.family, "other parts were decided after it")


def _said(state: FeatureState, decision: core.Decision | None) -> str:
    if decision is None:
        return f"{state.feature.name}: open again"
    return f"{state.feature.name}: {decision.decided.value} (verdict {_verdict(state)}) {decision.reason}".strip()
