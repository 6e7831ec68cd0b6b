"""What inspection comes to: each feature's result, damage, forecast and verdict, and what would settle it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from finegap.core.bending import bent as bent_at
from finegap.core.families.features import Damage, Feature, FeatureKind
from finegap.core.formatting import Amounts, Bare, Sentence, Units, grouped, length
from finegap.core.gauges import Cabinet
from finegap.core.job_record import Decided, FeatureDecision, JobRecord, Phase, SeenDamage
from finegap.core.measuring.readings import BORE_WORDS, Result, running_clearance, summarize
from finegap.core.measuring.verdict import Judgement, School, Verdict, judge
from finegap.core.renewing import NO_NEW_PART, NewPartJudged, all_new, has_a_size, never_twice, new_part, wears_up
from finegap.core.settle import settle
from finegap.core.sheet_parts import FeatureSpec
from finegap.core.wear.forecast import Forecast, forecast
from finegap.core.wear.lives import Life, MeasuredSize, Visit, trace
from finegap.core.working import Working

_DEPTH_WORDS = ("depth, deepest station", "width, thinnest station")
_WORSE = (Verdict.KEEP, Verdict.WATCH, Verdict.MEASURE_AGAIN, Verdict.CHANGE)


@dataclass(frozen=True)
class PartJudgement:
    """The verdict on a feature from all that is known of it. ``probability`` and ``working`` are of its size, where it has one."""

    verdict: Verdict
    sentence: Sentence
    reasons: tuple[Sentence, ...] = ()
    probability: float | None = None
    working: Working | None = None


@dataclass(frozen=True)
class Coverage:
    """At how many of its stations a feature has a reading that counts."""

    taken: int
    of: int

    @property
    def complete(self) -> bool:
        """At all of them."""
        return self.taken >= self.of

    @property
    def sentence(self) -> Sentence:
        """How far it has come."""
        return Sentence("{taken} of {of} stations", {"taken": str(self.taken), "of": str(self.of)})


NOTHING = Coverage(0, 0)


@dataclass(frozen=True)
class PairOption:
    """What the running clearance would be with some parts of the pair new; ``new`` are their feature keys."""

    new: tuple[str, ...]
    name: str
    low_mm: float
    high_mm: float
    judgement: Judgement


@dataclass(frozen=True)
class FeatureState:
    """A feature with what was found, what was left, and the verdicts on both.

    ``lives`` are the part's lives at this pump, the running one last; ``odd`` what is strange about them. ``by_parts`` says that
    a pair is decided by what was decided for its parts; ``renewed`` that its part is changed, in this job. ``coverage`` and
    ``coverage_left`` are the stations it was measured at. ``not_new`` says why what was measured as left cannot be the new part, or
    needs a reason to be; ``to_confirm`` that its part is new and no size shows it, ``confirmed`` that somebody said so;
    ``partless`` that it is to be changed, and no part it is measured of is.
    """

    feature: Feature
    spec: FeatureSpec
    cabinet: Cabinet
    found: Result | None
    look: SeenDamage | None
    found_judgement: PartJudgement | None
    left: Result | None
    left_judgement: PartJudgement | None
    decision: FeatureDecision | None
    lives: tuple[Life, ...] = ()
    odd: tuple[Sentence, ...] = ()
    forecast: Forecast | None = None
    missing: Sentence | None = None
    options: tuple[PairOption, ...] = ()
    by_parts: bool = False
    renewed: bool = False
    coverage: Coverage = NOTHING
    coverage_left: Coverage = NOTHING
    not_new: Sentence | None = None
    left_note: Sentence | None = None
    to_confirm: bool = False
    confirmed: bool = False
    partless: bool = False

    @property
    def fine(self) -> bool:
        """Whether its sizes are shown with one more decimal: the sheet prints it so, or a gauge of that resolution was used."""
        return self.spec.fine or any(r is not None and r.fine for r in (self.found, self.left))

    @property
    def changed(self) -> bool:
        """Decided to be changed, in this job or the next."""
        return self.decision is not None and self.decision.decided is Decided.CHANGE

    @property
    def wanted(self) -> bool:
        """It has to be measured, or looked at, before the job can be signed."""
        return not self.feature.press and (self.feature.kind is FeatureKind.CHECK or self.spec.new_mm is not None)

    @property
    def done(self) -> bool:
        """Measured at every station, or looked at where nothing can be measured."""
        return (
            self.look is not None if self.feature.kind is FeatureKind.CHECK else self.found is not None and self.coverage.complete
        )

    @property
    def done_left(self) -> bool:
        """Measured as left, at every station."""
        return self.left is not None and self.coverage_left.complete

    @property
    def _is_unfinished(self) -> bool:
        """Measured at some of its stations, and not worn out by them: it is measured on, not decided."""
        unfinished = self.found is not None and not self.coverage.complete
        return unfinished and self.found_judgement is not None and self.found_judgement.verdict is Verdict.MEASURE_AGAIN

    @property
    def open_decision(self) -> bool:
        """Whether a decision is open: the verdict asks for one, and there is none, or it was made without a reason before the
        verdict turned."""
        if self.found_judgement is None or self._is_unfinished:
            return False
        if self.decision is None:
            return self.found_judgement.verdict is not Verdict.KEEP and not self.by_parts
        return reason_needed(self.found_judgement.verdict, self.decision.decided) and not self.decision.reason


def reason_needed(verdict: Verdict | None, decided: Decided) -> bool:
    """Keeping what is not proved good, or changing what is, goes against the verdict and needs a written reason."""
    if verdict is None:
        return True
    if decided is Decided.KEEP:
        return verdict in (Verdict.CHANGE, Verdict.MEASURE_AGAIN)
    return verdict is Verdict.KEEP


def inspect(record: JobRecord) -> tuple[FeatureState, ...]:
    """Every feature of the build, in order."""
    results: dict[tuple[str, Phase], Result | None] = {}
    for phase in Phase:
        for feature in record.family.features:
            results[feature.key, phase] = _result(record, feature, phase, results)
    return tuple(_state(record, feature, results) for feature in record.family.features)


def _result(record: JobRecord, feature: Feature, phase: Phase, results: Mapping[tuple[str, Phase], Result | None]) -> Result | None:
    if feature.kind is not FeatureKind.PAIR:
        readings = record.readings.get((feature.key, phase), ())
        spec = record.sheet.spec(feature.key)
        return summarize(readings, feature.statistic, feature.name, spec.fine) if readings else None
    keys = (feature.bore, feature.shaft)
    if phase is Phase.LEFT and not _settled(record, keys):
        return None
    bore, shaft = (results.get((key, _phase_of(record, key, phase))) for key in keys)
    words = _DEPTH_WORDS if record.family.by_key[feature.bore].kind is FeatureKind.DEPTH else BORE_WORDS
    return running_clearance(bore, shaft, feature.name, words) if bore and shaft else None


def _settled(record: JobRecord, keys: tuple[str, ...]) -> bool:
    """Whether the clearance of a pair is known as left: a part of it is new, and every new part was measured."""
    new = [key for key in keys if key in record.changed and record.builds]
    return bool(new) and all(_coverage(record, record.family.by_key[key], Phase.LEFT).complete for key in new)


def _phase_of(record: JobRecord, key: str, phase: Phase) -> Phase:
    """A part that is kept counts as found; one that is changed only as measured after."""
    return phase if key in record.changed and record.builds else Phase.FOUND


def _coverage(record: JobRecord, feature: Feature, phase: Phase) -> Coverage:
    if feature.kind is FeatureKind.PAIR:
        members = [record.family.by_key[k] for k in (feature.bore, feature.shaft)]
        parts = [_coverage(record, one, _phase_of(record, one.key, phase)) for one in members]
        return Coverage(sum(p.taken for p in parts), sum(p.of for p in parts))
    taken = {reading.station for reading in record.readings.get((feature.key, phase), ())}
    return Coverage(sum(s.key in taken for s in feature.stations), len(feature.stations))


def _state(record: JobRecord, feature: Feature, results: Mapping[tuple[str, Phase], Result | None]) -> FeatureState:
    spec = record.sheet.spec(feature.key)
    cabinet = Cabinet(feature.kind, spec.new_mm, spec.limit, record.made_for[feature.kind])
    found, left = results[feature.key, Phase.FOUND], results[feature.key, Phase.LEFT]
    coverage, coverage_left = _coverage(record, feature, Phase.FOUND), _coverage(record, feature, Phase.LEFT)
    lives, odd = _lives(record, feature, found if coverage.complete else None)
    coming = forecast(lives[-1], spec.limit, wears_up(feature, spec.limit), record.past.planned_h) if lives else None
    options = _options(record, feature, results)
    renewed = feature.key in record.changed and record.builds
    new = new_part(record, feature, spec, left if renewed else None)
    once = never_twice(record, feature.key)
    to_confirm = bool(once) or (renewed and feature.kind is not FeatureKind.PAIR and not has_a_size(feature, spec))
    return FeatureState(
        feature=feature,
        spec=spec,
        cabinet=cabinet,
        found=found,
        look=record.looks.get((feature.key, Phase.FOUND)),
        found_judgement=_judged(record, feature, spec, cabinet, found, Phase.FOUND, coming, coverage),
        left=left,
        left_judgement=_judged(record, feature, spec, cabinet, left, Phase.LEFT, None, coverage_left, new),
        decision=record.decisions.get(feature.key),
        lives=lives,
        odd=odd,
        forecast=coming,
        missing=_missing(record, feature, found),
        options=options,
        by_parts=_by_parts(record, feature, options),
        renewed=renewed,
        coverage=coverage,
        coverage_left=coverage_left,
        not_new=new.wrong,
        left_note=new.note,
        to_confirm=to_confirm,
        confirmed=feature.key in record.confirmed_new or (bool(once) and all_new(record, once)),
        partless=_partless(record, feature),
    )


def _partless(record: JobRecord, feature: Feature) -> bool:
    """Whether it is decided to be changed, and nobody says which of the parts it is measured of is the new one."""
    decision = record.decisions.get(feature.key)
    wanted = decision is not None and decision.decided is Decided.CHANGE
    return wanted and bool(feature.of_parts) and not set(feature.of_parts) & record.changed


def _lives(record: JobRecord, feature: Feature, found: Result | None) -> tuple[tuple[Life, ...], tuple[Sentence, ...]]:
    past = record.past
    if feature.kind is FeatureKind.CHECK or past.meter.hours is None:
        return (), ()
    size = None if found is None else MeasuredSize(found.value_mm, found.u_mm)
    work = record.duty.work
    visits = (*past.visits.get(feature.key, ()), Visit(past.job, past.day, past.meter, work, size))
    spec = record.sheet.spec(feature.key)
    return trace(visits, spec.new_mm, wears_up(feature, spec.limit), work)


def _judged(
    record: JobRecord,
    feature: Feature,
    spec: FeatureSpec,
    cabinet: Cabinet,
    result: Result | None,
    phase: Phase,
    coming: Forecast | None,
    coverage: Coverage,
    new: NewPartJudged = NO_NEW_PART,
) -> PartJudgement | None:
    look = record.looks.get((feature.key, phase))
    size = new.judgement if spec.limit is None else None
    if result is not None and spec.limit is not None:
        school, share = record.sheet.school, record.sheet.near_share
        size = judge(result.value_mm, result.u_mm, result.dof, spec.limit, school, share, spec.fine, result.half_mm)
    calls = [*_by_damage(feature, look)]
    chance = size.probability if size else None
    if size is not None and result is not None:
        calls.append(_by_size(feature, result, size, coverage))
        if calls[-1][1] is not size.sentence:
            chance = None  # it would be of a size that does not count
        if size.verdict in (Verdict.KEEP, Verdict.WATCH) and coming is not None and _will_cross(coming, record.sheet.school):
            calls.append((Verdict.WATCH, _crossing_words(coming)))
    bent = bent_at(record, feature, phase) if result is not None and coverage.complete else None
    if bent is not None and bent[1]:
        calls.append((Verdict.CHANGE, bent[0]))
    if new.wrong is not None:
        is_wrong = new.judgement is not None and new.judgement.verdict is Verdict.CHANGE
        calls.append((Verdict.CHANGE if is_wrong else Verdict.MEASURE_AGAIN, new.wrong))
    if not calls:
        return None
    verdict = max((c for c, _ in calls), key=_WORSE.index)
    told = [words for c, words in calls if c is verdict] + [words for c, words in calls if c is not verdict]
    told += [bent[0]] if bent is not None and not bent[1] else []
    told += _faults(record, feature, phase) if result is not None else ()
    if size is not None and size.verdict is Verdict.MEASURE_AGAIN and verdict is Verdict.MEASURE_AGAIN and result is not None:
        told.append(settle(result, size.margin_mm, None if feature.kind is FeatureKind.PAIR else cabinet))
    return PartJudgement(verdict, told[0], tuple(told[1:]), chance, size.working if size else None)


def _by_size(feature: Feature, result: Result, size: Judgement, coverage: Coverage) -> tuple[Verdict, Sentence]:
    """The verdict of the size. A part that was not measured at every station can only be found worn out."""
    if feature.kind is FeatureKind.PAIR and result.value_mm < 0:
        return Verdict.MEASURE_AGAIN, Sentence("A running clearance below zero cannot be: a reading is wrong, or of another part.")
    if not coverage.complete and size.verdict is not Verdict.CHANGE:
        # Nothing of "inside" or "sure": the stations that are left may say otherwise.
        return Verdict.MEASURE_AGAIN, Sentence("{taken} only: it is not measured yet.", {"taken": coverage.sentence})
    return size.verdict, size.sentence


def _faults(record: JobRecord, feature: Feature, phase: Phase) -> tuple[Sentence, ...]:
    """What there is against the gauges a size was taken with; a pair's are those of its parts."""
    keys = (feature.bore, feature.shaft) if feature.kind is FeatureKind.PAIR else (feature.key,)
    faults = [fault for key in keys for reading in record.readings.get((key, phase), ()) for fault in reading.faults]
    return tuple({fault.render(Units.MM): fault for fault in faults}.values())


def _will_cross(coming: Forecast, school: School) -> bool:
    return coming.crosses or (school is School.GUARDED and coming.may_cross)


def _crossing_words(coming: Forecast) -> Sentence:
    verb = "is predicted past" if coming.crosses else "could be past"
    at = coming.hours_left if coming.crosses else coming.early
    when = "the limit before the next planned overhaul, {planned} h away" if at else "the limit already, by the line of its sizes"
    told = Sentence(when, {"planned": grouped(coming.planned_h or 0)})
    return Sentence("It {verb} {when}. {rate}", {"verb": verb, "when": told, "rate": coming.sentence})


def seen(feature: Feature, look: SeenDamage | None) -> tuple[Damage, ...]:
    """The damage seen, in the family's words."""
    return tuple(d for d in feature.damages if look and d.key in look.damages)


def _by_damage(feature: Feature, look: SeenDamage | None) -> list[tuple[Verdict, Sentence]]:
    if look is None:
        return []
    damages = seen(feature, look)
    if not damages:
        return [(Verdict.KEEP, Sentence("Looked at, and sound."))] if feature.kind is FeatureKind.CHECK else []
    return [(d.verdict, Sentence("{damage}. {meaning}", {"damage": d.name.capitalize(), "meaning": d.meaning})) for d in damages]


def _missing(record: JobRecord, feature: Feature, found: Result | None) -> Sentence | None:
    """What a result still lacks: stations without a reading, and the statistics they would give."""
    if found is None or len(feature.stations) < 2:
        return None
    taken = {r.station for r in record.readings.get((feature.key, Phase.FOUND), ())}
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


def _options(record: JobRecord, feature: Feature, results: Mapping[tuple[str, Phase], Result | None]) -> tuple[PairOption, ...]:
    """What the clearance would be with the one part new, with the other, with both."""
    if feature.kind is not FeatureKind.PAIR:
        return ()
    limit = record.sheet.spec(feature.key).limit
    bore, shaft = results.get((feature.bore, Phase.FOUND)), results.get((feature.shaft, Phase.FOUND))
    new_bore, new_shaft = (record.sheet.spec(key).new_mm for key in (feature.bore, feature.shaft))
    if bore is None or shaft is None or limit is None or new_bore is None or new_shaft is None:
        return ()
    names = record.family.by_key
    options = []
    for new in ((feature.shaft,), (feature.bore,), (feature.bore, feature.shaft)):
        low_b, high_b = new_bore if feature.bore in new else (bore.value_mm, bore.value_mm)
        low_s, high_s = new_shaft if feature.shaft in new else (shaft.value_mm, shaft.value_mm)
        low, high = low_b - high_s, high_b - low_s
        spread = sum((h - lo) ** 2 / 12 for lo, h in ((low_b, high_b), (low_s, high_s)))
        known = sum(r.u_mm**2 for key, r in ((feature.bore, bore), (feature.shaft, shaft)) if key not in new)
        judgement = judge((low + high) / 2, (spread + known) ** 0.5, float("inf"), limit, record.sheet.school)
        both = "both new" if len(new) == 2 else f"new {names[new[0]].part.lower()}"
        options.append(PairOption(new, both, low, high, judgement))
    return tuple(options)


def _by_parts(record: JobRecord, feature: Feature, options: tuple[PairOption, ...]) -> bool:
    """Whether what was decided for a pair's parts puts its clearance right."""
    new = tuple(k for k in (feature.bore, feature.shaft) if k in record.changed)
    return any(o.new == new and o.judgement.verdict in (Verdict.KEEP, Verdict.WATCH) for o in options)


def option_words(option: PairOption, fine: bool) -> Sentence:
    """An option in one line."""
    amounts: Amounts = {
        "low": Bare(length(option.low_mm, fine)),
        "high": length(option.high_mm, fine),
        "name": option.name.capitalize(),
    }
    return Sentence("{name}: {low} to {high}", amounts)
