"""Features with their readings, verdicts, forecasts and what was seen."""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache

from finegap.bench import responses
from finegap.bench.as_core import reading_faults
from finegap.bench.models import Decision, Look, NewPart, PartFitted, Photo
from finegap.bench.presenters.wearing import forecast, hours_a_week
from finegap.bench.records import Records
from finegap.core.families.features import Feature, FeatureKind
from finegap.core.formatting import Amount, Amounts, Bare, Joined, Kind, Sentence, Text, bare, between_edges
from finegap.core.gap.tries import Check
from finegap.core.gauges import Cabinet, CabinetGauge
from finegap.core.inspection import Coverage, FeatureState, PartJudgement, option_words, reason_needed
from finegap.core.job import Assessment
from finegap.core.job_record import Decided, Phase
from finegap.core.materials import Expansion
from finegap.core.measuring.readings import Result
from finegap.core.quantities import said
from finegap.core.renewing import never_twice
from finegap.formats.days import moment


def _sizes(state: FeatureState) -> tuple[float, ...]:
    """What a feature measured, as found and as left."""
    return tuple(result.value_mm for result in (state.found, state.left) if result is not None)


_WARM_PART_C = 40.0
"""At which the expansion of a part is shown: about as warm as parts are measured."""


def features(records: Records, assessment: Assessment) -> list[responses.FeatureResponse]:
    """Every feature of the build."""
    suspects = assessment.explained.suspects if assessment.explained else ()
    rank = {key: i for i, key in enumerate(suspects, 1)}
    week_h = hours_a_week(records)
    checked = assessment.gap.checked
    return [_feature(state, records, rank.get(state.feature.key, 0), week_h, checked) for state in assessment.features]


def _feature(
    state: FeatureState, records: Records, suspect: int, week_h: float | None, checked: Mapping[str, Check]
) -> responses.FeatureResponse:
    feature, spec, limit = state.feature, state.spec, state.spec.limit
    decision = _decided(state, records)
    verdict = state.found_judgement.verdict if state.found_judgement else None
    return responses.FeatureResponse(
        key=feature.key,
        number=feature.number,
        name=feature.name,
        part=feature.part,
        kind=feature.kind.name.lower(),
        stations=[responses.StationResponse(s.key, s.plane, s.direction, s.label) for s in feature.stations],
        parts=[part for part in (feature.bore, feature.shaft) if part],
        new_text=_new(state),
        limit_text=limit.shown(*_sizes(state), fine=state.fine) if limit else "no limit on the sheet",
        page=spec.page,
        new_mm=list(spec.new_mm or ()),
        lower_mm=limit.lower_mm if limit else None,
        upper_mm=limit.upper_mm if limit else None,
        readings=_readings(state, records),
        found=_result(state.found, state),
        judged=_judged(state.found_judgement),
        left=_result(state.left, state),
        judged_left=_judged(state.left_judgement),
        decision=_decision(decision, records.names),
        open_decision=state.open_decision,
        reason_to_keep=reason_needed(verdict, Decided.KEEP),
        reason_to_change=reason_needed(verdict, Decided.CHANGE),
        by_parts=state.by_parts,
        wanted=state.wanted,
        done=state.done,
        gauge=state.cabinet.pick,
        made=[one.tag for one in state.cabinet.choices] if feature.kind.taken else [],
        fits=_likely(state, records) if feature.kind.taken else [],
        expansion=_expansion(spec.expansion),
        damages=[responses.DamageResponse(d.key, d.name, d.verdict.value, d.meaning) for d in feature.damages],
        look=_look(feature, Phase.FOUND, records),
        look_left=_look(feature, Phase.LEFT, records),
        forecast=forecast(state.forecast, week_h),
        odd=list(state.odd),
        missing=state.missing if state.missing else "",
        options=[
            responses.OptionResponse(list(o.new), option_words(o, state.fine), o.judgement.verdict.value) for o in state.options
        ],
        suspect=suspect,
        press=feature.press,
        photos=photos([p for p in records.photos if p.feature == feature.key], records),
        partial=_partial(state.found, state.coverage),
        partial_left=_partial(state.left, state.coverage_left),
        to_confirm=state.to_confirm,
        renewed=_renewed(state, records) if state.to_confirm and state.confirmed else None,
        left_text=_left(state, records, checked),
        left_note=state.left_note if state.left_note else "",
    )


def _partial(result: Result | None, coverage: Coverage) -> Text:
    return "" if result is None or coverage.complete else coverage.sentence


def _left(state: FeatureState, records: Records, checked: Mapping[str, Check]) -> Text:
    """What is printed as left; what is new says so, and what was not measured or confirmed says that."""
    gap = checked.get(state.feature.set_as)
    if gap is not None:
        where = "narrowest {gap} as set" if len(state.feature.stations) > 1 else "{gap} as set"
        return Sentence(where, {"gap": bare(gap.value_mm)})
    if state.to_confirm:
        return _confirmed(state, records)
    if state.left is not None:
        sizes: Amounts = {"size": bare(state.left.value_mm, state.fine), "u": bare(state.left.expanded_mm, fine=True)}
        size = Sentence("{size} ± {u}", sizes)
        judged = _judged(state.left_judgement)
        told = (size, _partial(state.left, state.coverage_left), _call_of(judged) or "no limit on the sheet")
        return Sentence("new: {told}" if state.renewed else "{told}", {"told": Joined(told)})
    if state.renewed and state.feature.kind is FeatureKind.PAIR:
        return "not known: its new parts are not measured after"
    if state.renewed:
        return "changed, NOT MEASURED AFTER"
    if not state.done:
        return _partial(state.found, state.coverage) or ""
    return "as found" + (", to be changed" if state.changed else "")


def _confirmed(state: FeatureState, records: Records) -> str:
    again = _used_again(state, records)
    if again:
        return f"used again: {again}"
    seen = _renewed(state, records) if state.confirmed else None
    return f"new, {seen.by}, {moment(seen.at.isoformat())}" if seen else "new part NOT CONFIRMED"


def _new(state: FeatureState) -> Text:
    new = state.spec.new_mm
    return between_edges(*new, state.fine) if new else ""


def _readings(state: FeatureState, records: Records) -> list[responses.ReadingResponse]:
    labels = {station.key: station.label for station in state.feature.stations}
    return [
        responses.ReadingResponse(
            id=r.id,
            phase=r.phase,
            station=r.station,
            where=labels.get(r.station, r.station),
            typed=said(r.typed, r.unit),
            understood=r.understood,
            reason=r.reason,
            text=bare(r.value_mm, state.fine),
            gauge=r.gauge.tag,
            overdue=r.gauge_overdue,
            faults=list(reading_faults(r)),
            part="" if r.part_c is None else Amount(r.part_c, Kind.TEMPERATURE),
            taken=r.taken,
            by=records.names[r.by_id],
            at=r.when,
            struck_reason=r.struck_reason,
        )
        for r in records.readings
        if r.feature == state.feature.key
    ]


def _look(feature: Feature, phase: Phase, records: Records) -> responses.LookResponse | None:
    row: Look | None = next((k for k in records.looks if k.feature == feature.key and k.phase == phase.value), None)
    if row is None:
        return None
    words = ", ".join(d.name for d in feature.damages if d.key in row.damages) or "sound"
    return responses.LookResponse(row.damages, words, row.note, records.names[row.by_id], row.when)


def _decision(row: Decision | None, names: dict[int, str]) -> responses.DecisionResponse | None:
    return (
        None if row is None else responses.DecisionResponse(row.id, row.decided, row.reason, row.parts, names[row.by_id], row.when)
    )


def _beside(value_mm: float, state: FeatureState) -> Text:
    """A size to the places of its limit."""
    if state.spec.limit is None:
        return bare(value_mm, state.fine)
    return Bare(state.spec.limit.beside(value_mm, *_sizes(state), fine=state.fine).sizes[0])


def _result(result: Result | None, state: FeatureState) -> responses.ResultResponse | None:
    if result is None:
        return None
    fine, out_of_round = state.fine, result.out_of_round_mm if state.feature.is_round else None
    return responses.ResultResponse(
        text=_beside(result.value_mm, state),
        expanded_text=bare(result.expanded_mm, fine=True),
        value_mm=result.value_mm,
        expanded_mm=result.expanded_mm,
        mean=bare(result.mean_mm, fine=True),
        spread=bare(result.spread_mm, fine),
        out_of_round=None if out_of_round is None else bare(out_of_round, fine),
        taper=None if result.taper_mm is None or state.feature.flat else bare(result.taper_mm, fine),
        deciding=result.deciding,
        notes=list(result.notes),
        working=result.working,
    )


def _expansion(known: Expansion | None) -> Text:
    return "" if known is None else Amount(known.middle(_WARM_PART_C), Kind.EXPANSION)


def _judged(judged: PartJudgement | None) -> responses.JudgedResponse | None:
    if judged is None:
        return None
    return responses.JudgedResponse(
        judged.verdict.value,
        judged.sentence,
        list(judged.reasons),
        judged.probability,
        "" if judged.probability is None else Amount(100 * judged.probability, Kind.PERCENT),
        judged.working if judged.working else None,
    )


def _decided(state: FeatureState, records: Records) -> Decision | None:
    """The row a decision stands in: a feature's own, or in an older job that of its pair."""
    own = next((d for d in records.decisions if d.feature == state.feature.key), None)
    if own is not None or state.decision is None:
        return own
    pairs = [f.key for f in records.job_record.family.features if state.feature.key in (f.bore, f.shaft)]
    row = next((d for d in records.decisions if d.feature in pairs), None)
    return row and Decision(
        id=row.id, decided=state.decision.decided.value, reason=state.decision.reason, by_id=row.by_id, at=row.at
    )


def _fitted(state: FeatureState, records: Records) -> list[PartFitted]:
    """Rows of stacks that put in the parts a feature stands for and that are never used twice."""
    keys = never_twice(records.job_record, state.feature.key)
    return [row for row in records.fitted if row.part in keys]


def _renewed(state: FeatureState, records: Records) -> responses.RenewedResponse | None:
    rows: list[NewPart | PartFitted] = [one for one in records.new_parts if one.feature == state.feature.key]
    rows = rows or [row for row in _fitted(state, records) if not row.reused]
    return (
        responses.RenewedResponse(
            rows[-1].id if isinstance(rows[-1], NewPart) else None, records.names[rows[-1].by_id], rows[-1].when
        )
        if rows
        else None
    )


def _used_again(state: FeatureState, records: Records) -> str:
    return "; ".join(f"{row.reason}, {records.names[row.by_id]}" for row in _fitted(state, records) if row.reused)


def _call_of(judged: responses.JudgedResponse | None) -> Text:
    return Joined((judged.verdict, judged.chance)) if judged else ""


def _margin(state: FeatureState) -> float | None:
    """The distance of the part in the pump from its limit [mm]. ``None`` for a new part that was not measured yet."""
    measured = state.left or (None if state.renewed else state.found)
    return state.spec.limit.margin(measured.value_mm) if measured and state.spec.limit else None


def fit(state: FeatureState, tag: str) -> responses.FitResponse | None:
    """What a gauge can do for a feature; ``None`` for one that is not made for it."""
    choice = next((one for one in state.cabinet.choices if one.tag == tag), None)
    return _fit(state.cabinet, choice, _margin(state)) if choice else None


def _likely(state: FeatureState, records: Records) -> list[responses.FitResponse]:
    """Of the gauge to offer first, and of the last one used."""
    last = next((r.gauge.tag for r in reversed(records.readings) if r.feature == state.feature.key), "")
    fits = (fit(state, tag) for tag in dict.fromkeys((state.cabinet.pick, last)))
    return [one for one in fits if one is not None]


@lru_cache(maxsize=512)
def _fit(cabinet: Cabinet, choice: CabinetGauge, margin_mm: float | None) -> responses.FitResponse:
    """It changes with cabinet, sheet and the size only: made once, shown often."""
    found = cabinet.fit(choice, margin_mm)
    return responses.FitResponse(found.tag, found.decides, found.sentence, found.working)


def photos(rows: list[Photo], records: Records) -> list[responses.PhotoResponse]:
    """Photographs with the address they are served from."""
    number = records.job.number
    return [
        responses.PhotoResponse(p.id, f"/api/jobs/{number}/photos/{p.id}", p.note, records.names[p.by_id], p.when) for p in rows
    ]
