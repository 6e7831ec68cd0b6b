"""What follows from the facts of a job: results, verdicts, the gap, what to order, and what still blocks sign-off."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from finegap.core.build.works import Works, works_of
from finegap.core.facts import Facts
from finegap.core.families.model import FeatureKind, Stage
from finegap.core.gap import heat, table
from finegap.core.gap.move import Window
from finegap.core.gap.setting import Setting, set_by_gaskets, set_by_housing, set_by_ring
from finegap.core.inspection import FeatureState, inspect
from finegap.core.measuring.verdict import Call
from finegap.core.ordering import Order, to_have_ready, to_order
from finegap.core.sheet import GasketMeans, HousingMeans, RingMeans
from finegap.core.showing import Sentence, length
from finegap.core.symptoms import Explained, explain


@dataclass(frozen=True)
class Blocker:
    """Why the job cannot be signed yet. ``lead_may`` when a lead may sign all the same, with a written reason."""

    stage: Stage
    sentence: Sentence
    lead_may: bool = False


@dataclass(frozen=True)
class Assessment:
    """What follows from the facts. ``progress`` is (done, of) for each stage."""

    features: tuple[FeatureState, ...]
    choice: table.Choice
    window: Window | None
    setting: Setting | None
    hot: heat.HotGap | None
    explained: Explained | None
    order: Order
    ready: Order
    works: Works
    progress: Mapping[Stage, tuple[int, int]]
    blockers: tuple[Blocker, ...]


def assess(facts: Facts) -> Assessment:
    """Work out everything the bench shows from what was recorded."""
    features = inspect(facts)
    sheet, duty = facts.sheet, facts.duty
    choice = table.choose(sheet.rows, duty.material, duty.viscosity_mm2_s, duty.temperature_c, sheet.cite(sheet.table_page))
    window = None
    if choice.chosen is not None:
        target = choice.chosen.clearance_mm
        window = Window(target, target - sheet.minus_mm, target + sheet.plus_mm)
    setting = _setting(facts, window)
    hot = _hot(facts, window, setting)
    progress = _progress(facts, features, setting)
    works = works_of(facts, features)
    blockers = _blockers(facts, features, choice, setting, hot)
    blockers = _in_order((*blockers, *_build_blockers(facts, works)))
    return Assessment(
        features=features,
        choice=choice,
        window=window,
        setting=setting,
        hot=hot,
        explained=explain(facts.family, facts.symptom, features, window),
        order=to_order(facts.family, features, sheet.catalogue),
        ready=to_have_ready(facts.family, features, sheet.catalogue),
        works=works,
        progress=progress,
        blockers=blockers,
    )


def _build_blockers(facts: Facts, works: Works) -> tuple[Blocker, ...]:
    found = [Blocker(Stage.BUILD, sentence) for sentence in works.not_tightened(facts)]
    return (*found, *(Blocker(Stage.BUILD, sentence, lead_may=True) for sentence in works.would_not_hold(facts)))


def _in_order(blockers: tuple[Blocker, ...]) -> tuple[Blocker, ...]:
    order = list(Stage)
    return tuple(sorted(blockers, key=lambda b: order.index(b.stage)))


def _setting(facts: Facts, window: Window | None) -> Setting | None:
    if window is None:
        return None
    means = facts.sheet.means
    match means:
        case GasketMeans():
            return set_by_gaskets(means, window, facts.tries, facts.sheet.school, facts.box)
        case RingMeans():
            return set_by_ring(window, facts.tries, facts.sheet.school)
        case HousingMeans():
            zero = facts.zero or means.zero
            return set_by_housing(means, window, facts.tries, facts.sheet.school, zero, facts.lash_mm)


def _hot(facts: Facts, window: Window | None, setting: Setting | None) -> heat.HotGap | None:
    """Hot gap of the gap as checked, or of the target while nothing is checked."""
    data = facts.sheet.heat
    if data is None or window is None:
        return None
    gap = setting.gap_mm if setting else None
    cold = window.target_mm if gap is None else gap
    duty = facts.duty
    return heat.hot_gap(
        cold, data.span_mm, data.casing_um_m_k, data.rotor_um_m_k, duty.casing_c, duty.temperature_c, facts.sheet.cite()
    )


def _progress(facts: Facts, features: tuple[FeatureState, ...], setting: Setting | None) -> dict[Stage, tuple[int, int]]:
    def steps(stage: Stage) -> tuple[int, int]:
        every = facts.family.steps_of(stage)
        return sum(s.key in facts.steps_done for s in every), len(every)

    measured = [f for f in features if f.feature.kind is not FeatureKind.PAIR and f.wanted]
    asking = [f for f in features if f.open_decision or (f.found_verdict and f.found_verdict.call is not Call.KEEP)]
    return {
        **{stage: steps(stage) for stage in (Stage.PREPARE, Stage.STRIP, Stage.BUILD, Stage.PROVE)},
        Stage.INSPECT: (sum(f.done for f in measured), len(measured)),
        Stage.DECIDE: (sum(not f.open_decision for f in asking), len(asking)),
        Stage.SET: (1 if setting and setting.right else 0, 1),
        Stage.CLOSE: (0, 1),
    }


def _blockers(
    facts: Facts,
    features: tuple[FeatureState, ...],
    choice: table.Choice,
    setting: Setting | None,
    hot: heat.HotGap | None,
) -> tuple[Blocker, ...]:
    found = [
        Blocker(step.stage, Sentence("Hold point not done: {step}", {"step": step.text}))
        for step in facts.family.steps
        if step.hold and step.key not in facts.steps_done
    ]
    found += [blocker for state in features for blocker in _feature_blockers(state)]
    found += _gap_blockers(facts, choice, setting, hot)
    found += [Blocker(Stage.INSPECT, fault, lead_may=True) for fault in facts.gauge_faults]
    return tuple(found)


def _feature_blockers(state: FeatureState) -> list[Blocker]:
    name = {"name": state.feature.name}
    if not state.done:
        words = "{name}: not looked at." if state.feature.kind is FeatureKind.CHECK else "{name}: not measured."
        open_ = [Blocker(Stage.INSPECT, Sentence(words, name), lead_may=True)] if state.wanted else []
        return open_ + ([Blocker(Stage.DECIDE, Sentence("{name}: not decided.", name))] if state.open_decision else [])
    if state.open_decision:
        return [Blocker(Stage.DECIDE, Sentence("{name}: not decided.", name))]
    if state.changed and state.left is None and state.feature.kind is not FeatureKind.CHECK and state.spec.new_mm is not None:
        return [Blocker(Stage.BUILD, Sentence("{name}: changed, but not measured after.", name), lead_may=True)]
    if state.left_verdict is not None and state.left_verdict.call is Call.CHANGE:
        return [Blocker(Stage.BUILD, Sentence("{name}: outside its limit as left.", name), lead_may=True)]
    return []


def _gap_blockers(facts: Facts, choice: table.Choice, setting: Setting | None, hot: heat.HotGap | None) -> list[Blocker]:
    if choice.chosen is None or setting is None:
        return [Blocker(Stage.SET, choice.sentence)]
    found = []
    if hot is not None and hot.touches:
        words = "Hot, the gap would be {hot}: at or below zero the pump seizes."
        found.append(Blocker(Stage.SET, Sentence(words, {"hot": length(hot.gap_mm, fine=True)})))
    gap = setting.gap_mm
    if gap is None:
        found.append(Blocker(Stage.SET, Sentence("The end clearance has not been set and checked.")))
    elif gap <= 0:
        words = "The end clearance was measured as {gap}: never run at zero."
        found.append(Blocker(Stage.SET, Sentence(words, {"gap": length(gap)})))
    elif not setting.right:
        how = {
            Call.CHANGE: "is not inside {low} to {high}.",
            Call.MEASURE_AGAIN: "is not proved inside {low} to {high}.",
        }
        amounts = {"gap": length(gap), "low": length(setting.window.low_mm), "high": length(setting.window.high_mm)}
        sentence = Sentence("The end clearance, {gap}, " + how[setting.tries[-1].verdict.call], amounts)
        found.append(Blocker(Stage.SET, sentence, lead_may=True))
    return found
