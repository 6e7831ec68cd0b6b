"""A job as plain facts, and what follows from them: results, verdicts, the gap, and what still blocks sign-off."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import Enum

from finegap.core.families.model import Feature, FeatureKind, Stage
from finegap.core.gap import heat, table
from finegap.core.gap.housing import Zero
from finegap.core.gap.move import Window
from finegap.core.gap.setting import Setting, TryMade, set_by_gaskets, set_by_housing
from finegap.core.measuring.readings import Reading, Result, running_clearance, summarize
from finegap.core.measuring.verdict import Call, Verdict, judge
from finegap.core.sheet import FeatureSpec, GasketMeans, HousingMeans, SpecSheet
from finegap.core.showing import Sentence, length


class Phase(Enum):
    """When a part was measured: as found, or as left after Build."""

    FOUND = "found"
    LEFT = "left"


class Decided(Enum):
    """What the technician decided for a part."""

    KEEP = "keep"
    CHANGE = "change"


@dataclass(frozen=True)
class Decision:
    """A decision with the reason it needed, if it went against the verdict."""

    decided: Decided
    reason: str = ""


@dataclass(frozen=True)
class Duty:
    """What the pump does: viscosity at pumping temperature [mm2/s], temperatures [C]."""

    material: str
    viscosity_mm2_s: float
    temperature_c: float
    casing_c: float


@dataclass(frozen=True)
class Facts:
    """Everything recorded on a job.

    ``readings`` leaves out what was struck; ``zero`` is ``None`` until zero is found; ``box`` is gasket stock by thickness [um].
    """

    sheet: SpecSheet
    duty: Duty
    readings: Mapping[tuple[str, Phase], tuple[Reading, ...]]
    steps_done: frozenset[str]
    decisions: Mapping[str, Decision]
    zero: Zero | None
    lash_mm: float
    tries: tuple[TryMade, ...]
    box: Mapping[int, int]
    overdue_gauges: tuple[str, ...] = ()


@dataclass(frozen=True)
class FeatureState:
    """A feature with what was found, what was left, and the verdicts on both."""

    feature: Feature
    spec: FeatureSpec
    found: Result | None
    found_verdict: Verdict | None
    left: Result | None
    left_verdict: Verdict | None
    decision: Decision | None

    @property
    def fine(self) -> bool:
        """Shown with a decimal more: the sheet prints it so, or it was measured with a gauge that reads so."""
        return self.spec.fine or any(r is not None and r.fine for r in (self.found, self.left))

    @property
    def changed(self) -> bool:
        """Decided to be changed."""
        return self.decision is not None and self.decision.decided is Decided.CHANGE

    @property
    def open_decision(self) -> bool:
        """A verdict that asks for a decision nobody has made, or that has since turned against one made without a reason."""
        if self.found_verdict is None:
            return False
        if self.decision is None:
            return self.found_verdict.call is not Call.KEEP
        return reason_needed(self.found_verdict, self.decision.decided) and not self.decision.reason


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
    progress: Mapping[Stage, tuple[int, int]]
    blockers: tuple[Blocker, ...]


def reason_needed(verdict: Verdict | None, decided: Decided) -> bool:
    """Keeping what is not proved good, or changing what is, goes against the verdict and needs a written reason."""
    if verdict is None:
        return True
    if decided is Decided.KEEP:
        return verdict.call in (Call.CHANGE, Call.MEASURE_AGAIN)
    return verdict.call is Call.KEEP


def assess(facts: Facts) -> Assessment:
    """Work out everything the bench shows from what was recorded."""
    features = _features(facts)
    sheet, duty = facts.sheet, facts.duty
    choice = table.choose(sheet.rows, duty.material, duty.viscosity_mm2_s, duty.temperature_c, sheet.cite(sheet.table_page))
    window = None
    if choice.chosen is not None:
        target = choice.chosen.clearance_mm
        window = Window(target, target - sheet.minus_mm, target + sheet.plus_mm)
    setting = _setting(facts, window)
    hot = _hot(facts, window, setting)
    progress = _progress(facts, features, setting)
    blockers = _blockers(facts, features, choice, setting, hot)
    return Assessment(features, choice, window, setting, hot, progress, blockers)


def _features(facts: Facts) -> tuple[FeatureState, ...]:
    family = facts.sheet.family
    results: dict[tuple[str, Phase], Result | None] = {}
    for phase in Phase:
        for feature in family.features:
            results[feature.key, phase] = _result(facts, feature, phase, results)
    return tuple(_state(facts, feature, results) for feature in family.features)


def _result(facts: Facts, feature: Feature, phase: Phase, results: Mapping[tuple[str, Phase], Result | None]) -> Result | None:
    spec = facts.sheet.features[feature.key]
    if feature.kind is not FeatureKind.PAIR:
        readings = facts.readings.get((feature.key, phase), ())
        return summarize(readings, feature.kind.statistic, feature.name, spec.fine) if readings else None
    members = [results[key, phase] for key in (feature.bore, feature.shaft)]
    if phase is Phase.LEFT:
        if not any(members):
            return None
        members = [m or results[k, Phase.FOUND] for m, k in zip(members, (feature.bore, feature.shaft), strict=True)]
    bore, shaft = members
    return running_clearance(bore, shaft, feature.name) if bore and shaft else None


def _state(facts: Facts, feature: Feature, results: Mapping[tuple[str, Phase], Result | None]) -> FeatureState:
    spec = facts.sheet.features[feature.key]

    def verdict(result: Result | None) -> Verdict | None:
        if result is None or spec.limit is None:
            return None
        return judge(result.value_mm, result.u_mm, result.dof, spec.limit, facts.sheet.school, facts.sheet.near_share, spec.fine)

    found, left = results[feature.key, Phase.FOUND], results[feature.key, Phase.LEFT]
    return FeatureState(feature, spec, found, verdict(found), left, verdict(left), facts.decisions.get(feature.key))


def _setting(facts: Facts, window: Window | None) -> Setting | None:
    if window is None:
        return None
    means = facts.sheet.means
    match means:
        case GasketMeans():
            return set_by_gaskets(means, window, facts.tries, facts.sheet.school, facts.box)
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
        every = facts.sheet.family.steps_of(stage)
        return sum(s.key in facts.steps_done for s in every), len(every)

    measured = [f for f in features if f.feature.kind is not FeatureKind.PAIR]
    asking = [f for f in features if f.open_decision or (f.found_verdict and f.found_verdict.call is not Call.KEEP)]
    return {
        **{stage: steps(stage) for stage in (Stage.PREPARE, Stage.STRIP, Stage.BUILD, Stage.PROVE)},
        Stage.INSPECT: (sum(f.found is not None for f in measured), len(measured)),
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
        for step in facts.sheet.family.steps
        if step.hold and step.key not in facts.steps_done
    ]
    found += [blocker for state in features for blocker in _feature_blockers(state)]
    found += _gap_blockers(facts, choice, setting, hot)
    found += [
        Blocker(Stage.INSPECT, Sentence("{gauge} is past its calibration date.", {"gauge": gauge}), lead_may=True)
        for gauge in facts.overdue_gauges
    ]
    order = list(Stage)
    return tuple(sorted(found, key=lambda b: order.index(b.stage)))


def _feature_blockers(state: FeatureState) -> list[Blocker]:
    name = {"name": state.feature.name}
    if state.found is None:
        return [Blocker(Stage.INSPECT, Sentence("{name}: not measured.", name), lead_may=True)]
    if state.open_decision:
        return [Blocker(Stage.DECIDE, Sentence("{name}: not decided.", name))]
    if state.changed and state.left is None:
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
