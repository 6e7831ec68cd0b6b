"""What follows from the record of a job: results, verdicts, the gap, what to order, and what still blocks sign-off."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from finegap.core.families.features import FeatureKind
from finegap.core.families.steps import Stage, Step
from finegap.core.formatting import Amounts, Sentence
from finegap.core.gap_assessment import GapAssessment, gap_assessment_of, gap_blockers
from finegap.core.inspection import FeatureState, inspect
from finegap.core.job_record import JobRecord
from finegap.core.job_tasks import JobTasks, tasks_of
from finegap.core.measuring.verdict import Verdict
from finegap.core.ordering import Order, to_have_ready, to_order
from finegap.core.ready import needs
from finegap.core.sequence import out_of_turn
from finegap.core.symptoms import Explained, explain
from finegap.core.tasks.base import TaskNow


@dataclass(frozen=True)
class Blocker:
    """Why the job cannot be signed yet.

    ``lead_may`` when a lead may sign all the same, with a written reason; ``feature`` is the line it is printed at, where it is of
    one.
    """

    stage: Stage
    sentence: Sentence
    lead_may: bool = False
    feature: str = ""


@dataclass(frozen=True)
class Assessment:
    """What follows from the record. ``progress`` is (done, of) for each stage."""

    features: tuple[FeatureState, ...]
    gap: GapAssessment
    explained: Explained | None
    order: Order
    ready: Order
    tasks: JobTasks
    progress: Mapping[Stage, tuple[int, int]]
    blockers: tuple[Blocker, ...]
    needs: tuple[tuple[str, str], ...]
    gap_open: tuple[Sentence, ...]
    record: JobRecord

    def holds_back(self, step: Step) -> tuple[Sentence, ...]:
        """Why a step cannot be marked done yet: what it is done with is not complete."""
        return (*self.tasks.holds_back(step), *self._unmeasured(step))

    def out_of_turn(self, step: Step) -> tuple[Sentence, ...]:
        """Why a hold point may be done by a lead alone, with a reason: what comes before it is open."""
        return out_of_turn(step, self.record.family, self.record.steps_done, self.gap_open)

    def _unmeasured(self, step: Step) -> tuple[Sentence, ...]:
        """Parts put in at this step that are new, and were not measured after, or not everywhere."""
        here = self.tasks.measured_at(step, self.record)
        return tuple(
            Sentence(words, {"name": state.feature.name, **amounts})
            for state in self.features
            if state.feature.key in here and state.spec.new_mm is not None
            for words, amounts in _not_measured_after(state)
        )


def assess(record: JobRecord) -> Assessment:
    """Work out everything the bench shows from what was recorded."""
    features = inspect(record)
    sheet = record.sheet
    gap_assessment = gap_assessment_of(record, features)
    progress = _progress(record, features, gap_assessment)
    ready = to_have_ready(record.family, features, sheet.catalogue)
    # What will have to be changed is not known yet: tools for all of it are looked for.
    wanted = needs(record.whole, ready)
    tasks = tasks_of(TaskNow(record, {state.feature.key: state for state in features}, gap_assessment, wanted))
    held = (Blocker(step.stage, sentence, lead_may) for step, sentence, lead_may in tasks.blockers(record))
    blockers = _in_order((*_blockers(record, features, gap_assessment), *held))
    return Assessment(
        features=features,
        gap=gap_assessment,
        explained=explain(record.family, record.symptom, features, gap_assessment.windows),
        order=to_order(record.family, features, sheet.catalogue),
        ready=ready,
        tasks=tasks,
        progress=progress,
        blockers=blockers,
        needs=wanted,
        gap_open=(*(sentence for sentence, _ in gap_blockers(record, gap_assessment)), *gap_assessment.outside),
        record=record,
    )


def _in_order(blockers: tuple[Blocker, ...]) -> tuple[Blocker, ...]:
    order = list(Stage)
    return tuple(sorted(blockers, key=lambda b: order.index(b.stage)))


def _progress(record: JobRecord, features: tuple[FeatureState, ...], gap_assessment: GapAssessment) -> dict[Stage, tuple[int, int]]:
    def steps(stage: Stage) -> tuple[int, int]:
        every = record.family.steps_of(stage)
        return sum(s.key in record.steps_done for s in every), len(every)

    measured = [f for f in features if f.feature.kind is not FeatureKind.PAIR and f.wanted]
    asking = [f for f in features if f.open_decision or (f.found_judgement and f.found_judgement.verdict is not Verdict.KEEP)]
    return {
        **{stage: steps(stage) for stage in (Stage.PREPARE, Stage.STRIP, Stage.BUILD, Stage.PROVE)},
        Stage.INSPECT: (sum(f.done for f in measured), len(measured)),
        Stage.DECIDE: (sum(not f.open_decision for f in asking), len(asking)),
        Stage.SET: _set_progress(record, gap_assessment, *steps(Stage.SET)),
        Stage.CLOSE: (0, 1),
    }


def _set_progress(record: JobRecord, gap_assessment: GapAssessment, done: int, of: int) -> tuple[int, int]:
    """Every gap that is set, every other that is outside, every step done at Set."""
    right = sum(s.right for s in gap_assessment.settings)
    gaps = max(len(gap_assessment.settings), 1 if record.sets_a_gap else 0)
    return right + done, gaps + len(gap_assessment.outside) + of


def _blockers(record: JobRecord, features: tuple[FeatureState, ...], gap_assessment: GapAssessment) -> tuple[Blocker, ...]:
    found = [
        Blocker(step.stage, Sentence("Hold point not done: {step}", {"step": step.text}))
        for step in record.family.steps
        if step.hold and step.key not in record.steps_done
    ]
    found += [blocker for state in features for blocker in _feature_blockers(state)]
    found += [Blocker(Stage.SET, sentence, lead_may) for sentence, lead_may in gap_blockers(record, gap_assessment)]
    found += [Blocker(Stage.INSPECT, fault, lead_may=True) for fault in record.gauge_faults]
    found += _at_no_place(record)
    if record.sheet_unread:
        words = "The spec sheet is not yet read against the manual: {sheet}."
        found.append(Blocker(Stage.CLOSE, Sentence(words, {"sheet": record.sheet.cite()})))
    return tuple(found)


def _at_no_place(record: JobRecord) -> list[Blocker]:
    """Readings at places the pump does not have, where the count on an unread sheet was put right under the job."""
    elsewhere = "{name}: measured at {place}, and by the sheet there is no such place. Strike it out."
    unplaced = "{name}: measured without a place, and by the sheet it has several. Strike it out."
    found = {}
    for (key, _), readings in record.readings.items():
        feature = record.family.by_key.get(key)
        if feature is None:
            continue  # of another scope
        places = {station.key for station in feature.stations}
        for reading in readings:
            if reading.station not in places:
                said: Amounts = {"name": feature.name, "place": reading.station.replace("/", ", ")}
                words = elsewhere if reading.station else unplaced
                found[key, reading.station] = Blocker(Stage.INSPECT, Sentence(words, said), feature=key)
    return list(found.values())


def _feature_blockers(state: FeatureState) -> list[Blocker]:
    key, name = state.feature.key, {"name": state.feature.name}

    def at(stage: Stage, words: str, lead_may: bool = True, more: Amounts | None = None) -> Blocker:
        return Blocker(stage, Sentence(words, {**name, **(more or {})}), lead_may, key)

    undecided = [at(Stage.DECIDE, "{name}: not decided.", lead_may=False)] if state.open_decision else []
    if state.partless:
        undecided.append(at(Stage.DECIDE, "{name}: to be changed, and no part of it is. Say which part is new.", lead_may=False))
    if not state.done:
        open_ = [at(Stage.INSPECT, *_not_done(state))] if state.wanted else []
        return open_ + undecided + _build_of(state, at)
    return undecided or _build_of(state, at)


def _not_done(state: FeatureState) -> tuple[str, bool, Amounts]:
    if state.feature.kind is FeatureKind.CHECK:
        return "{name}: not looked at.", True, {}
    if state.found is None:
        return "{name}: not measured.", True, {}
    return "{name}: measured at {taken}.", True, {"taken": state.coverage.sentence}


def _not_measured_after(state: FeatureState) -> list[tuple[str, Amounts]]:
    """What is said of a changed part whose new size was not measured, or not at every station."""
    if not state.renewed or state.feature.kind is FeatureKind.PAIR or state.to_confirm or state.done_left:
        return []
    if state.left is None:
        return [("{name}: changed, but not measured after.", {})]
    return [("{name}: changed, but measured after at {taken} only.", {"taken": state.coverage_left.sentence})]


def _build_of(state: FeatureState, at: Callable[..., Blocker]) -> list[Blocker]:
    """What Build still owes a part: a new one measured, right, or confirmed."""
    if state.not_new is not None:
        return [at(Stage.BUILD, "{name}: {why}", True, {"why": state.not_new})]
    if state.to_confirm and not state.confirmed:
        return [at(Stage.BUILD, "{name}: nobody has confirmed that the new part is in.")]
    unmeasured = _not_measured_after(state)
    if unmeasured:
        return [at(Stage.BUILD, words, True, amounts) for words, amounts in unmeasured]
    if state.left_judgement is not None and state.left_judgement.verdict is Verdict.CHANGE:
        return [at(Stage.BUILD, "{name}: outside its limit as left.")]
    return []
