"""Deciding keep or change."""

from __future__ import annotations

import uuid
from collections.abc import Mapping
from dataclasses import replace

from finegap.bench.changes import Decide
from finegap.bench.models import Decision, Job
from finegap.bench.records import family_of
from finegap.bench.services.changing import JobInHand, changes
from finegap.bench.services.tries import unprove
from finegap.core import job_record as core
from finegap.core.deciding import decided as decided_with
from finegap.core.errors import FieldError
from finegap.core.inspection import FeatureState, reason_needed


@changes(lambda new, now: about_feature(now.job, new.feature), Decision)
def decide(now: JobInHand, new: Decide) -> None:
    """Decide keep or change for a feature; of a pair to be changed, ``parts`` are those of its features whose parts are new.

    A pair and its parts are one decision: deciding the one settles the other, and what no longer holds goes.

    Raises
    ------
    FieldError
        Against the verdict without a reason, of the feature or of a part it takes with it; or a pair that names no part.
    """
    before, wanted = now.before.job_record, core.FeatureDecision(new.decided, new.reason.strip(), tuple(new.parts))
    states = {state.feature.key: state for state in now.before.assessment.features}
    state = states.get(new.feature)
    if state is None:
        raise FieldError("feature", f"there is no feature {new.feature}.", "Expected a feature of this family.")
    _check_reason(state, wanted.decided, wanted.reason)
    after, touched = decided_with(before.family, before.decisions, new.feature, wanted)
    for key in touched[1:]:
        if key in after and after[key].decided is core.Decided.KEEP and key in states:
            _check_reason(states[key], core.Decided.KEEP, wanted.reason)
    for key in touched:
        _put(now, states[key], after.get(key), new.id if key == new.feature else uuid.uuid5(new.id, key))
    undone = renew(now, after)
    now.log("; ".join(_said(states[key], after.get(key)) for key in touched) + undone)


def about_feature(job: Job, feature: str) -> tuple[str, ...]:
    """What deciding a feature is about: itself, the parts of a pair, the pairs of a part, and what else the part is measured by."""
    family = family_of(job)
    named = family.by_key.get(feature)
    members = {feature, named.bore, named.shaft} - {""} if named else {feature}
    members |= {other for key in members for other in family.piece_of(key)}
    pairs = {f.key for f in family.features if {f.bore, f.shaft} & members}
    return tuple(f"feature:{key}" for key in sorted({*members, *pairs}))


def _check_reason(state: FeatureState, wanted: core.Decided, reason: str) -> None:
    verdict = state.found_judgement.verdict if state.found_judgement else None
    if reason_needed(verdict, wanted) and not reason.strip():
        problem = f"{wanted.value} goes against the verdict “{_verdict(state)}” of {state.feature.name}."
        raise FieldError("reason", problem, "Expected the reason, in a few words.")


def _verdict(state: FeatureState) -> str:
    return state.found_judgement.verdict.value if state.found_judgement else "not measured"


def _put(now: JobInHand, state: FeatureState, decision: core.FeatureDecision | None, record_id: uuid.UUID) -> None:
    key = state.feature.key
    now.strike(now.job.decisions.filter(feature=key), "decided again")
    if decision is not None:
        Decision.objects.create(
            id=record_id, job=now.job, feature=key, decided=decision.decided.value, verdict=_verdict(state),
            reason=decision.reason, parts=list(decision.parts), **now.ref.stamp,
        )  # fmt: skip


def renew(now: JobInHand, decisions: Mapping[str, core.FeatureDecision]) -> str:
    """What new decisions change of the parts that are new. Answers words for the log.

    A part that is kept after all is not a new one that is in, and what was measured as the new one is not of it. A pump whose parts
    are others has another gap: what was proved of it is to be proved again.
    """
    job, before = now.job, now.before.job_record
    after = replace(before, decisions=decisions)
    if after.changed == before.changed:
        return ""
    why, kept = "the part is kept after all", before.changed - after.changed
    now.undo_features(kept, why)
    now.strike(job.readings.filter(feature__in=kept, phase=core.Phase.LEFT.value), f"measured as a new part; {why}")
    job.renewed = job.version + 1
    job.save(update_fields=["renewed"])
    return unprove(now, after.family, "other parts were decided after it")


def _said(state: FeatureState, decision: core.FeatureDecision | None) -> str:
    if decision is None:
        return f"{state.feature.name}: open again"
    return f"{state.feature.name}: {decision.decided.value} (verdict {_verdict(state)}) {decision.reason}".strip()
