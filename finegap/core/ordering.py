"""From verdicts and decisions to what has to be ordered, and before opening to what to have ready."""

from __future__ import annotations

from dataclasses import dataclass

from finegap.core.families.family import Family
from finegap.core.families.features import FeatureKind
from finegap.core.inspection import FeatureState
from finegap.core.measuring.verdict import Verdict
from finegap.core.wear.parts import Catalogue, Cover, cover, cover_working
from finegap.core.working import Working


@dataclass(frozen=True)
class Order:
    """What to order, why, and how it was reached. ``unlisted`` are features whose part the catalogue does not name."""

    cover: Cover
    needs: dict[str, int]
    unlisted: tuple[str, ...]
    working: Working


def to_order(family: Family, states: tuple[FeatureState, ...], catalogue: Catalogue) -> Order:
    """For everything decided to be changed, or judged Change and not decided yet; with what goes together, and the always-new."""
    reasons: dict[str, str] = {}
    for state in states:
        undecided = state.decision is None and state.found_judgement is not None and state.found_judgement.verdict is Verdict.CHANGE
        if state.feature.kind is FeatureKind.PAIR:
            continue  # its parts are ordered, as they were decided
        if state.changed:
            _add(reasons, state, "decided to change")
        elif undecided:
            _add(reasons, state, "judged Change, not decided yet")
    return order_for(family, reasons, catalogue)


def to_have_ready(family: Family, states: tuple[FeatureState, ...], catalogue: Catalogue) -> Order:
    """Before opening: what is never used twice, and what is forecast past its limit by the next planned overhaul."""
    reasons: dict[str, str] = {}
    for state in states:
        coming = state.forecast
        if coming is not None and state.feature.kind is not FeatureKind.PAIR and coming.crosses:
            _add(reasons, state, "forecast to need it")
    return order_for(family, reasons, catalogue)


def _add(reasons: dict[str, str], state: FeatureState, why: str) -> None:
    reasons.setdefault(state.feature.key, f"{state.feature.name}: {why}")


def order_for(family: Family, reasons: dict[str, str], catalogue: Catalogue) -> Order:
    """What to order for reasons by feature: with what goes together, and what is never used twice."""
    for rule in family.replaced_with:
        if rule.changed in reasons:
            for key in rule.also:
                reasons.setdefault(key, f"goes with {family.by_key[rule.changed].part.lower()}: {rule.why}")
    needs: dict[str, int] = {}
    why: dict[str, str] = {}
    for part in catalogue.parts:
        wanted = [reasons[key] for key in part.renews if key in reasons]
        if wanted or part.always:
            needs[part.number] = part.count
            why[part.number] = wanted[0] if wanted else "not used twice"
    listed = {key for part in catalogue.parts for key in part.renews}
    unlisted = tuple(family.by_key[key].name for key in reasons if key in family.by_key and key not in listed)
    bought = cover(needs, catalogue, why)
    return Order(bought, needs, unlisted, cover_working(needs, bought, catalogue))
