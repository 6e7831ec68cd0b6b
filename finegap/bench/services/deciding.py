"""Deciding keep or change."""

from __future__ import annotations

import uuid

from django.utils import timezone

from finegap.bench.facts import load
from finegap.bench.models import Decision
from finegap.bench.services.changing import Seen, log, recording
from finegap.core import facts as core
from finegap.core.errors import FieldError
from finegap.core.inspection import reason_needed
from finegap.core.job import assess


def decide(seen: Seen, decision_id: uuid.UUID, feature: str, decided: str, reason: str = "") -> None:
    """Decide keep or change for a feature.

    Raises
    ------
    FieldError
        Against the verdict without a reason.
    """
    with recording(seen, Decision, decision_id) as job:
        if job is None:
            return
        wanted = core.Decided(decided)
        state = next((f for f in assess(load(job).facts).features if f.feature.key == feature), None)
        if state is None:
            raise FieldError("feature", f"there is no feature {feature}.", "Expected a feature of this family.")
        called = state.found_verdict.call if state.found_verdict else None
        call = called.value if called else "not measured"
        if reason_needed(called, wanted) and not reason.strip():
            raise FieldError("reason", f"{wanted.value} goes against the verdict “{call}”.", "Expected the reason, in a few words.")
        job.decisions.filter(feature=feature).delete()
        Decision.objects.create(
            id=decision_id,
            job=job,
            feature=feature,
            decided=wanted.value,
            verdict=call,
            reason=reason.strip(),
            by=seen.actor,
            at=timezone.now(),
        )
        log(job, seen.actor, f"{state.feature.name}: {wanted.value} (verdict {call}) {reason.strip()}".strip())
