"""What inspection comes to: each feature's result, damage, forecast and verdict, and what would settle it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from finegap.core.facts import Decided, Decision, Facts, Look, Phase
from finegap.core.families.model import Damage, Feature, FeatureKind
from finegap.core.gauges import Cabinet
from finegap.core.measuring.readings import Result, running_clearance, summarize
from finegap.core.measuring.settle import settle
from finegap.core.measuring.verdict import Call, Limit, School, Verdict, judge
from finegap.core.sheet import FeatureSpec
from finegap.core.showing import Amounts, Bare, Sentence, Units, grouped, length
from finegap.core.wear.forecast import Forecast, forecast
from finegap.core.wear.lives import Life, Size, Visit, trace
from finegap.core.working import Working

_WORSE = (Call.KEEP, Call.WATCH, Call.MEASURE_AGAIN, Call.CHANGE)


@dataclass(frozen=True)
class Judgement:
    """The call on a feature from all that is known of it. ``probability`` and ``working`` are of its size, where it has one."""

    call: Call
    sentence: Sentence
    reasons: tuple[Sentence, ...] = ()
    probability: float | None = None
    working: Working | None = None


@dataclass(frozen=True)
class PairOption:
    """What the running clearance would be with some parts of the pair new; ``new`` are their feature keys."""

    new: tuple[str, ...]
    name: str
    low_mm: float
    high_mm: float
    verdict: Verdict


@dataclass(frozen=True)
class FeatureState:
    """A feature with what was found, what was left, and the verdicts on both.

    ``lives`` are the part's lives at this pump, the running one last; ``odd`` what is strange about them. ``by_parts`` says that
    a pair is decided by what was decided for its parts; ``builds`` that the job puts parts in.
    """

    feature: Feature
    spec: FeatureSpec
    cabinet: Cabinet
    found: Result | None
    look: Look | None
    found_verdict: Judgement | None
    left: Result | None
    left_verdict: Judgement | None
    decision: Decision | None
    lives: tuple[Life, ...] = ()
    odd: tuple[Sentence, ...] = ()
    forecast: Forecast | None = None
    missing: Sentence | None = None
    options: tuple[PairOption, ...] = ()
    by_parts: bool = False
    builds: bool = True

    @property
    def fine(self) -> bool:
        """Shown with a decimal more: the sheet prints it so, or it was measured with a gauge that reads so."""
        return self.spec.fine or any(r is not None and r.fine for r in (self.found, self.left))

    @property
    def changed(self) -> bool:
        """Decided to be changed."""
        return self.decision is not None and self.decision.decided is Decided.CHANGE

    @property
    def renewed(self) -> bool:
        """Changed, in this job."""
        return self.changed and self.builds

    @property
    def wanted(self) -> bool:
        """It has to be measured, or looked at, before the job can be signed."""
        return not self.feature.press and (self.feature.kind is FeatureKind.CHECK or self.spec.new_mm is not None)

    @property
    def done(self) -> bool:
        """Measured, or looked at where nothing can be measured."""
        return self.look is not None if self.feature.kind is FeatureKind.CHECK else self.found is not None

    @property
    def open_decision(self) -> bool:
        """A verdict that asks for a decision nobody has made, or that has since turned against one made without a reason."""
        if self.found_verdict is None:
            return False
        if self.decision is None:
            return self.found_verdict.call is not Call.KEEP and not self.by_parts
        return reason_needed(self.found_verdict.call, self.decision.decided) and not self.decision.reason


def reason_needed(call: Call | None, decided: Decided) -> bool:
    """Keeping what is not proved good, or changing what is, goes against the verdict and needs a written reason."""
    if call is None:
        return True
    if decided is Decided.KEEP:
        return call in (Call.CHANGE, Call.MEASURE_AGAIN)
    return call is Call.KEEP


def inspect(facts: Facts) -> tuple[FeatureState, ...]:
    """Every feature of the build, in order."""
    results: dict[tuple[str, Phase], Result | None] = {}
    for phase in Phase:
        for feature in facts.family.features:
            results[feature.key, phase] = _result(facts, feature, phase, results)
    return tuple(_state(facts, feature, results) for feature in facts.family.features)


def _result(facts: Facts, feature: Feature, phase: Phase, results: Mapping[tuple[str, Phase], Result | None]) -> Result | None:
    if feature.kind is not FeatureKind.PAIR:
        readings = facts.readings.get((feature.key, phase), ())
        spec = facts.sheet.spec(feature.key)
        return summarize(readings, feature.kind.statistic, feature.name, spec.fine) if readings else None
    members = [results.get((key, phase)) for key in (feature.bore, feature.shaft)]
    if phase is Phase.LEFT:
        if not any(members):
            return None
        members = [m or results.get((k, Phase.FOUND)) for m, k in zip(members, (feature.bore, feature.shaft), strict=True)]
    bore, shaft = members
    return running_clearance(bore, shaft, feature.name) if bore and shaft else None


def _state(facts: Facts, feature: Feature, results: Mapping[tuple[str, Phase], Result | None]) -> FeatureState:
    spec = facts.sheet.spec(feature.key)
    cabinet = Cabinet.of(facts.gauges, feature.kind, spec.new_mm, spec.limit)
    found, left = results[feature.key, Phase.FOUND], results[feature.key, Phase.LEFT]
    lives, odd = _lives(facts, feature, found)
    coming = forecast(lives[-1], spec.limit, wears_up(feature, spec.limit), facts.past.planned_h) if lives else None
    options = _options(facts, feature, results)
    return FeatureState(
        feature=feature,
        spec=spec,
        cabinet=cabinet,
        found=found,
        look=facts.looks.get((feature.key, Phase.FOUND)),
        found_verdict=_judged(facts, feature, spec, cabinet, found, Phase.FOUND, coming),
        left=left,
        left_verdict=_judged(facts, feature, spec, cabinet, left, Phase.LEFT, None),
        decision=facts.decisions.get(feature.key),
        lives=lives,
        odd=odd,
        forecast=coming,
        missing=_missing(facts, feature, found),
        options=options,
        by_parts=_by_parts(facts, feature, options),
        builds=facts.builds,
    )


def wears_up(feature: Feature, limit: Limit | None) -> bool:
    """Bores and gaps grow; pins, shafts and heights shrink."""
    if limit is not None and (limit.upper_mm is None) != (limit.lower_mm is None):
        return limit.upper_mm is not None
    return feature.kind is not FeatureKind.EXTERNAL


def _lives(facts: Facts, feature: Feature, found: Result | None) -> tuple[tuple[Life, ...], tuple[Sentence, ...]]:
    past = facts.past
    if feature.kind is FeatureKind.CHECK or past.meter.hours is None:
        return (), ()
    size = None if found is None else Size(found.value_mm, found.u_mm)
    work = facts.duty.work
    visits = (*past.visits.get(feature.key, ()), Visit(past.job, past.day, past.meter, work, size))
    spec = facts.sheet.spec(feature.key)
    return trace(visits, spec.new_mm, wears_up(feature, spec.limit), work)


def _judged(
    facts: Facts,
    feature: Feature,
    spec: FeatureSpec,
    cabinet: Cabinet,
    result: Result | None,
    phase: Phase,
    coming: Forecast | None,
) -> Judgement | None:
    look = facts.looks.get((feature.key, phase))
    size = None
    if result is not None and spec.limit is not None:
        school, share = facts.sheet.school, facts.sheet.near_share
        size = judge(result.value_mm, result.u_mm, result.dof, spec.limit, school, share, spec.fine)
    calls = [*_by_damage(feature, look)]
    if size is not None and result is not None:
        calls.append((size.call, size.sentence))
        if size.call in (Call.KEEP, Call.WATCH) and coming is not None and _will_cross(coming, facts.sheet.school):
            calls.append((Call.WATCH, _crossing_words(coming)))
    if not calls:
        return None
    call = max((c for c, _ in calls), key=_WORSE.index)
    told = [words for c, words in calls if c is call] + [words for c, words in calls if c is not call]
    told += _faults(facts, feature, phase) if result is not None else ()
    if size is not None and call is Call.MEASURE_AGAIN and result is not None:
        told.append(settle(result, size.margin_mm, None if feature.kind is FeatureKind.PAIR else cabinet))
    return Judgement(call, told[0], tuple(told[1:]), size.probability if size else None, size.working if size else None)


def _faults(facts: Facts, feature: Feature, phase: Phase) -> tuple[Sentence, ...]:
    """What there is against the gauges a size was taken with; a pair's are those of its parts."""
    keys = (feature.bore, feature.shaft) if feature.kind is FeatureKind.PAIR else (feature.key,)
    faults = [fault for key in keys for reading in facts.readings.get((key, phase), ()) for fault in reading.faults]
    return tuple({fault.render(Units.MM): fault for fault in faults}.values())


def _will_cross(coming: Forecast, school: School) -> bool:
    return coming.crosses or (school is School.GUARDED and coming.may_cross)


def _crossing_words(coming: Forecast) -> Sentence:
    verb = "is predicted past" if coming.crosses else "could be past"
    return Sentence(
        f"It {verb} the limit before the next planned overhaul, {{planned}} h away. {{rate}}",
        {"planned": grouped(coming.planned_h or 0), "rate": coming.sentence},
    )


def seen(feature: Feature, look: Look | None) -> tuple[Damage, ...]:
    """The damage seen, in the family's words."""
    return tuple(d for d in feature.damages if look and d.key in look.damages)


def _by_damage(feature: Feature, look: Look | None) -> list[tuple[Call, Sentence]]:
    if look is None:
        return []
    damages = seen(feature, look)
    if not damages:
        return [(Call.KEEP, Sentence("Looked at, and sound."))] if feature.kind is FeatureKind.CHECK else []
    return [(d.call, Sentence("{damage}. {meaning}", {"damage": d.name.capitalize(), "meaning": d.meaning})) for d in damages]


def _missing(facts: Facts, feature: Feature, found: Result | None) -> Sentence | None:
    """What a result still lacks: stations without a reading, and the statistics they would give."""
    if found is None or len(feature.stations) < 2:
        return None
    taken = {r.station for r in facts.readings.get((feature.key, Phase.FOUND), ())}
    lacking = [s.label for s in feature.stations if s.key not in taken]
    if not lacking:
        return None
    across = {s.direction for s in feature.stations}
    along = {s.plane for s in feature.stations}
    lost = [
        word
        for word, value, possible in (
            ("out-of-round", found.out_of_round_mm, len(across) > 1 and feature.is_round),
            ("taper", found.taper_mm, len(along) > 1 and not feature.flat),
        )
        if possible and value is None
    ]
    words = "Not measured yet: {stations}." + (" Without them no {lost}." if lost else "")
    return Sentence(words, {"stations": "; ".join(lacking), "lost": " and no ".join(lost)})


def _options(facts: Facts, feature: Feature, results: Mapping[tuple[str, Phase], Result | None]) -> tuple[PairOption, ...]:
    """What the clearance would be with the one part new, with the other, with both."""
    if feature.kind is not FeatureKind.PAIR:
        return ()
    limit = facts.sheet.spec(feature.key).limit
    bore, shaft = results.get((feature.bore, Phase.FOUND)), results.get((feature.shaft, Phase.FOUND))
    new_bore, new_shaft = (facts.sheet.spec(key).new_mm for key in (feature.bore, feature.shaft))
    if bore is None or shaft is None or limit is None or new_bore is None or new_shaft is None:
        return ()
    names = facts.family.by_key
    options = []
    for new in ((feature.shaft,), (feature.bore,), (feature.bore, feature.shaft)):
        low_b, high_b = new_bore if feature.bore in new else (bore.value_mm, bore.value_mm)
        low_s, high_s = new_shaft if feature.shaft in new else (shaft.value_mm, shaft.value_mm)
        low, high = low_b - high_s, high_b - low_s
        spread = sum((h - lo) ** 2 / 12 for lo, h in ((low_b, high_b), (low_s, high_s)))
        known = sum(r.u_mm**2 for key, r in ((feature.bore, bore), (feature.shaft, shaft)) if key not in new)
        verdict = judge((low + high) / 2, (spread + known) ** 0.5, float("inf"), limit, facts.sheet.school)
        both = "both new" if len(new) == 2 else f"new {names[new[0]].part.lower()}"
        options.append(PairOption(new, both, low, high, verdict))
    return tuple(options)


def _by_parts(facts: Facts, feature: Feature, options: tuple[PairOption, ...]) -> bool:
    """Whether what was decided for a pair's parts puts its clearance right."""
    members = (feature.bore, feature.shaft)
    new = tuple(k for k in members if (d := facts.decisions.get(k)) is not None and d.decided is Decided.CHANGE)
    return any(o.new == new and o.verdict.call in (Call.KEEP, Call.WATCH) for o in options)


def option_words(option: PairOption, fine: bool) -> Sentence:
    """An option in one line."""
    amounts: Amounts = {
        "low": Bare(length(option.low_mm, fine)),
        "high": length(option.high_mm, fine),
        "name": option.name.capitalize(),
    }
    return Sentence("{name}: {low} to {high}", amounts)
