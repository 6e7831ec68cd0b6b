"""A new part is shown to be new: by its size as left against its new size, or by somebody who says that it is in."""

from __future__ import annotations

from dataclasses import dataclass

from finegap.core.families.features import Feature, FeatureKind
from finegap.core.formatting import Amount, Amounts, Bare, Kind, Sentence, length
from finegap.core.job_record import JobRecord, Phase
from finegap.core.measuring.readings import Result
from finegap.core.measuring.verdict import Judgement, Limit, Verdict, judge
from finegap.core.sheet_parts import FeatureSpec


@dataclass(frozen=True)
class NewPartJudged:
    """What a size as left says of a new part.

    ``wrong`` where it cannot be one, or needs a reason to be; ``verdict`` against its own tolerance; ``note`` what is to be read
    beside it.
    """

    wrong: Sentence | None = None
    judgement: Judgement | None = None
    note: Sentence | None = None


NO_NEW_PART = NewPartJudged()


def has_a_size(feature: Feature, spec: FeatureSpec) -> bool:
    """Whether a reading can show that its part is new."""
    return feature.kind is not FeatureKind.CHECK and spec.new_mm is not None


def never_twice(record: JobRecord, key: str) -> tuple[str, ...]:
    """Parts of stacks that this job builds which stand for a feature and are never used twice, by key."""
    return record.never_twice.get(key, ())


def all_new(record: JobRecord, parts: tuple[str, ...]) -> bool:
    """Whether each of these parts of stacks went in as a new one."""
    new = {one.part for one in record.fitted if not one.reused}
    return all(part in new for part in parts)


def new_part(record: JobRecord, feature: Feature, spec: FeatureSpec, left: Result | None) -> NewPartJudged:
    """Hold a new part against its new size, not against its wear limit alone.

    With a tolerance it has to lie inside. With one number, more than ``new_share`` of its wear allowance away needs a reason.
    With neither tolerance nor limit nothing is said of it.
    """
    if left is None or not feature.kind.is_size:
        return NO_NEW_PART
    if spec.new_mm is None:
        return NewPartJudged(note=Sentence("no tolerance on the sheet"))
    low, high = spec.new_mm
    if low < high:
        window = Limit(low, high)
        judgement = judge(left.value_mm, left.u_mm, left.dof, window, record.sheet.school, 0.0, spec.fine, left.half_mm)
        if judgement.verdict is not Verdict.CHANGE:
            return NewPartJudged(judgement=judgement)
        of = window.beside(left.value_mm, fine=True)
        amounts: Amounts = {"size": of.sizes[0], "low": Bare(of.low or length(low)), "high": of.high or length(high)}
        words = "Not the new part: {size} is outside {low} to {high}, beyond doubt."
        return NewPartJudged(Sentence(words, amounts), judgement)
    return _against_one_size(record, feature, spec, left, low)


def _against_one_size(record: JobRecord, feature: Feature, spec: FeatureSpec, left: Result, new: float) -> NewPartJudged:
    limit = spec.limit
    bound = None if limit is None else (limit.upper_mm if wears_up(feature, limit) else limit.lower_mm)
    if bound is None:
        return NewPartJudged(note=Sentence("no tolerance on the sheet"))
    away = abs(left.value_mm - new)
    if away <= record.new_share * abs(bound - new) + 1e-9:
        return NO_NEW_PART
    why = "; ".join(dict.fromkeys(r.reason for r in record.readings.get((feature.key, Phase.LEFT), ()) if r.reason))
    if why:
        return NewPartJudged(
            note=Sentence("{away} from its new size, because: {why}", {"away": length(away, fine=True), "why": why})
        )
    amounts: Amounts = {
        "away": length(away, fine=True),
        "new": length(new, fine=True),
        "share": Amount(100 * record.new_share, Kind.PERCENT),
    }
    return NewPartJudged(Sentence("Is it the new part? It is {away} from {new}, more than {share} of its wear allowance.", amounts))


def wears_up(feature: Feature, limit: Limit | None) -> bool:
    """Bores and gaps grow; pins, shafts and heights shrink."""
    if limit is not None and (limit.upper_mm is None) != (limit.lower_mm is None):
        return limit.upper_mm is not None
    return feature.kind is not FeatureKind.EXTERNAL
