"""A decision for a part, or for a pair: what else it settles, so that no two decisions contradict each other."""

from __future__ import annotations

from collections.abc import Mapping

from finegap.core.errors import FieldError
from finegap.core.families.family import Family
from finegap.core.families.features import Feature, FeatureKind
from finegap.core.job_record import Decided, FeatureDecision, one_decision


def decided(
    family: Family, decisions: Mapping[str, FeatureDecision], key: str, decision: FeatureDecision
) -> tuple[dict[str, FeatureDecision], tuple[str, ...]]:
    """All decisions after one more, and the features it changed. ``key`` comes first.

    A pair that is changed says which of its parts are new (``decision.parts``): those are changed, the other is kept. A pair that
    is kept keeps a part that was to be changed. A part decided by itself takes its pair's decision with it. Sizes of one part are
    decided together: it is new in all of them, or in none.

    Raises
    ------
    FieldError
        A pair to be changed that names none of its parts, or a part that is not its own.
    """
    before = one_decision(family, decisions)
    after = dict(before)
    feature = family.by_key[key]
    if feature.kind is FeatureKind.PAIR:
        after |= _of_pair(feature, decision, before)
    else:
        after[key] = FeatureDecision(decision.decided, decision.reason)
        for pair in family.features:
            if key in (pair.bore, pair.shaft):
                _follow(pair, after)
        after = one_decision(family, after)
    changed = [k for k in (key, feature.bore, feature.shaft) if k in after and after.get(k) != before.get(k)]
    for part in changed:
        _whole(family, part, after)
    touched = [k for k in {**before, **after} if k != key and before.get(k) != after.get(k)]
    return after, (key, *touched)


def _whole(family: Family, key: str, after: dict[str, FeatureDecision]) -> None:
    """The other features of a part follow it, and every pair any of them is in: a part may be in several."""
    decision, name, piece = after[key], family.by_key[key].name.lower(), family.piece_of(key)
    for other in piece:
        was = after.get(other)
        decides = decision.decided is Decided.CHANGE or (was is not None and was.decided is Decided.CHANGE)
        if decides and (was is None or was.decided is not decision.decided):
            after[other] = FeatureDecision(decision.decided, decision.reason or f"one part with {name}")
    for pair in family.features:
        if {pair.bore, pair.shaft} & {key, *piece}:
            _follow(pair, after)


def _of_pair(pair: Feature, decision: FeatureDecision, before: Mapping[str, FeatureDecision]) -> dict[str, FeatureDecision]:
    members = (pair.bore, pair.shaft)
    if decision.decided is Decided.KEEP:
        back = (k for k in members if k in before and before[k].decided is Decided.CHANGE)
        return {
            pair.key: FeatureDecision(Decided.KEEP, decision.reason),
            **{k: FeatureDecision(Decided.KEEP, decision.reason) for k in back},
        }
    if not decision.parts or any(part not in members for part in decision.parts):
        raise FieldError("parts", f"{pair.name}: which of its two is new?", f"Expected one or both of: {', '.join(members)}.")
    why = decision.reason or f"decided for {pair.name.lower()}"
    parts = tuple(k for k in members if k in decision.parts)
    return {
        pair.key: FeatureDecision(Decided.CHANGE, decision.reason, parts),
        **{k: FeatureDecision(Decided.CHANGE if k in parts else Decided.KEEP, why) for k in members},
    }


def _follow(pair: Feature, after: dict[str, FeatureDecision]) -> None:
    """The decision of a pair after its parts were decided. A pair to be changed of which no part is new any more is open
    again."""
    was = after.get(pair.key)
    if was is None:
        return
    new = tuple(k for k in (pair.bore, pair.shaft) if k in after and after[k].decided is Decided.CHANGE)
    if new:
        after[pair.key] = FeatureDecision(Decided.CHANGE, was.reason, new)
    elif was.decided is Decided.CHANGE:
        del after[pair.key]
