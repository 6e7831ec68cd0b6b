"""Signing a job off, and keeping its sizes on record."""

from __future__ import annotations

import lzma
from collections import Counter

from finegap.api.errors import Refused
from finegap.bench.changes import Sign
from finegap.bench.models import SIGNED, Job, SignOff, SizeOnRecord
from finegap.bench.presenters.job import job_response
from finegap.bench.record import RECORD_VERSION
from finegap.bench.record.document import write
from finegap.bench.services.changing import ALL, JobInHand, changes, check_last, has_worked
from finegap.core import VERSION
from finegap.core.errors import FieldError
from finegap.core.families.features import FeatureKind
from finegap.core.formatting import Joined, Text, Units, bare, render
from finegap.core.gap.tries import Check
from finegap.core.inspection import FeatureState
from finegap.core.job import Assessment
from finegap.core.measuring.readings import Result


@changes(lambda new, now: ALL, SignOff)
def sign_off(now: JobInHand, new: Sign) -> None:
    """Sign the job: freeze the record, with the version of the core. From then on it is read-only.

    Raises
    ------
    Refused
        Something blocks it; the reasons say what. A lead may sign past some of them.
    FieldError
        A lead signing past a blocker without a written reason.
    Unlikely
        A time before that of what was last done.
    """
    job, ref, reason, records = now.job, now.ref, new.reason.strip(), now.before
    check_last(job, ref)
    blockers = records.assessment.blockers
    hard = [b for b in blockers if not (b.lead_may and ref.is_lead)]
    if hard:
        reasons = [b.sentence.render(ref.unit) + (" A lead may sign with a reason." if b.lead_may else "") for b in hard]
        raise Refused("This job cannot be signed yet.", reasons)
    if blockers and not reason:
        raise FieldError("reason", "a lead signs past what is open only with a reason.", "Expected it in writing.")
    changed = job_response(records).meanwhile
    if changed:
        raise Refused("Verdicts have changed since you last worked on this job. Read them first.", changed)
    signature = SignOff(id=new.id, job=job, reason=reason, core_version=VERSION, **ref.stamp)
    signature.own = bool(blockers) and has_worked(job, ref.actor)
    own = " (past what was open, on a job that lead had worked on)" if signature.own else ""
    now.log("Signed off" + (f": {reason}" if reason else "") + own)
    view = job_response(records, signature)
    signature.document = lzma.compress(write(view, RECORD_VERSION, VERSION), format=lzma.FORMAT_ALONE, preset=9)
    signature.verdicts = dict(Counter(feature.judged.verdict for feature in view.features if feature.judged))
    if view.setting and view.setting.tries:
        gap = _gap(records.assessment)
        signature.gap_mm, signature.gap_in = (render(gap, units) for units in (Units.MM, Units.IN))
    signature.save(force_insert=True)
    job.end(SIGNED)
    _keep_sizes(job, records.assessment)


def _gap(assessment: Assessment) -> Text:
    """Every gap as it was set, in the order they are asked for: of one with several places the narrowest."""
    setting, checked = assessment.gap.setting, assessment.gap.checked
    keys = dict.fromkeys(target.gap for target in setting.targets) if setting else {}
    return Joined(tuple(bare(checked[key].value_mm, fine=len(keys) > 1) for key in keys), " · ")


def _left(state: FeatureState, assessment: Assessment) -> Result | Check | None:
    """As left: measured at every station, or for the gap that is set the last check of it."""
    return assessment.gap.checked.get(state.feature.set_as) or (state.left if state.done_left else None)


def _keep_sizes(job: Job, assessment: Assessment) -> None:
    """Sizes as signed, for the wear of the parts at the next overhaul."""
    changed = {s.feature.key for s in assessment.features if s.renewed}
    SizeOnRecord.objects.bulk_create(
        SizeOnRecord(
            job=job,
            feature=s.feature.key,
            found_mm=found.value_mm if (found := s.found if s.coverage.complete else None) else None,
            found_u_mm=found.u_mm if found else None,
            left_mm=left.value_mm if (left := _left(s, assessment)) else None,
            left_u_mm=left.u_mm if left else None,
            changed=s.feature.is_set or s.feature.key in changed or bool({s.feature.bore, s.feature.shaft} & changed - {""}),
        )
        for s in assessment.features
        if s.feature.kind is not FeatureKind.CHECK and not s.feature.press
    )
