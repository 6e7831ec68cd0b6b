"""The number, and where setting the gap stands."""

from __future__ import annotations

import math
from collections.abc import Iterable

from finegap.bench import responses
from finegap.bench.as_core import try_made
from finegap.bench.changes import TryOf
from finegap.bench.models import Job, Try
from finegap.bench.records import Records
from finegap.core.families.steps import Step
from finegap.core.formatting import Amount, Bare, Joined, Kind, Sentence, Text, bare, length
from finegap.core.gap.heat import HotGap, WarmingUp
from finegap.core.gap.leaves import Pile, proving, uncertainty_mm
from finegap.core.gap.map import map_of
from finegap.core.gap.move import way_of
from finegap.core.gap.table import Candidate, RowChoice
from finegap.core.gap.tries import Check, GapResult, GapTarget, Setting, TryJudged
from finegap.core.gap_assessment import GapAssessment
from finegap.core.gauges import CabinetGauge, GaugeKind
from finegap.core.job import Assessment
from finegap.core.means.base import Means
from finegap.core.measuring.verdict import Limit, School, Verdict
from finegap.sheets.presenters import map_response

_K = 2.0


def duty(job: Job) -> responses.DutyResponse:
    """What the pump does."""
    return responses.DutyResponse(
        liquid=job.liquid,
        material=job.material,
        viscosity=Amount(job.viscosity_mm2_s, Kind.VISCOSITY),
        viscosity_typed=job.viscosity_typed,
        temperature=Amount(job.temperature_c, Kind.TEMPERATURE),
        casing=Amount(job.casing_c, Kind.TEMPERATURE),
        pressure=Amount(job.pressure_bar, Kind.PRESSURE),
        speed=f"{job.speed_r_min:g} r/min",
    )


def choice(choice: RowChoice, records: Records) -> responses.ChoiceResponse:
    """The number, and every row with its reason and its place on the map."""
    duty = records.job_record.duty
    return responses.ChoiceResponse(
        sentence=choice.sentence,
        over=choice.over or None,
        hole=choice.hole or None,
        target=length(choice.chosen.clearance_mm) if choice.chosen else None,
        candidates=[_candidate(c, c.row is choice.chosen) for c in choice.candidates],
        map=map_response(map_of(choice, duty.viscosity_mm2_s, duty.temperature_c, duty.duty_range)),
        working=choice.working,
    )


def _candidate(candidate: Candidate, chosen: bool) -> responses.CandidateResponse:
    row = candidate.row
    return responses.CandidateResponse(
        setting=row.setting,
        viscosity=row.viscosity_mm2_s.said(Kind.VISCOSITY),
        temperature=row.temperature_c.said(Kind.TEMPERATURE),
        clearance=length(row.clearance_mm),
        matches=candidate.matches,
        chosen=chosen,
        reason=candidate.reason,
    )


def setting(records: Records, assessment: Assessment, sets: str) -> responses.SetResponse | None:
    """Where the gap of the table, or the mesh of a timing gear, stands; ``None`` where there is none to set."""
    gap_assessment, sheet = assessment.gap, records.job_record.sheet
    of_gap = sets == TryOf.GAP
    setting, now = (gap_assessment.setting, gap_assessment.now) if of_gap else (gap_assessment.mesh, gap_assessment.mesh_now)
    means: Means | None = sheet.means if of_gap else sheet.mesh
    if setting is None or now is None or means is None:
        return None
    window, move = setting.window, setting.move
    rows = [row for row in records.tries if row.sets == sets]
    standing = zip((row for row in rows if not row.struck_reason), setting.tries, strict=True)
    judged = {row.pk: one for row, one in standing}
    low, high, target = (Bare(amount) for amount in window.shown())
    undone = means.opens(records.job_record.family)
    return responses.SetResponse(
        sets=sets,
        name=now.words.name,
        place=now.words.place,
        faces=now.words.faces.split(" and ") if now.words.faces else [],
        means=means.show(setting, now),
        zero=records.zero.id if records.zero and means.zero else None,
        target=target,
        low=low,
        high=high,
        target_mm=window.target_mm,
        low_mm=window.low_mm,
        high_mm=window.high_mm,
        headline=move.headline,
        details=list(move.details),
        way=move.way.value,
        right=setting.right,
        working=move.working,
        gaps=_gaps(setting, records),
        tries=[_try(row, judged.get(row.pk), means, records) for row in rows],
        hot=_hot(gap_assessment.hot) if of_gap else None,
        warming=_warming(gap_assessment.warming) if of_gap else None,
        feelers=[g.tag for g in records.gauges if g.kind == GaugeKind.FEELER.value],
        mismatch=setting.mismatch,
        opens=[s.text for s in undone if s.puts_in],
        asks_opened=not setting.tries and _is_together([s for s in undone if s.puts_in], assessment),
        outside=list(gap_assessment.outside),
        bent=list(gap_assessment.bent) if of_gap else [],
    )


def slip(gap_assessment: GapAssessment) -> responses.SlipResponse:
    """What the gaps cost, as found and as left."""
    return responses.SlipResponse(*(list(p.lines() if p else ()) for p in (gap_assessment.found, gap_assessment.left)))


def _gaps(setting: Setting, records: Records) -> list[responses.GapResultResponse]:
    """What a try is held against, with the last one's numbers, and the leaves that prove it."""
    several = len(setting.targets) > 1
    held = [(h.target, h) for h in setting.tries[-1].results] if setting.tries else [(asked, None) for asked in setting.targets]
    return [_held(asked, one, several, records) for asked, one in held]


def _held(asked: GapTarget, held: GapResult | None, several: bool, records: Records) -> responses.GapResultResponse:
    window, derived = asked.window, held is not None and held.derived
    low, high, gap = window.shown(held.check.value_mm if held else None, fine=derived or several)
    return responses.GapResultResponse(
        key=asked.key,
        name=asked.name,
        low=Bare(low),
        high=Bare(high),
        target=bare(window.target_mm),
        low_mm=window.low_mm,
        high_mm=window.high_mm,
        target_mm=window.target_mm,
        derived=derived,
        gap=Bare(gap) if held else "",
        gap_mm=held.check.value_mm if held else None,
        expanded_mm=held.check.expanded_mm if held else 0.0,
        verdict=held.judgement.verdict.value if held else "",
        proofs=[
            _proof(choice, asked.proof, records.job_record.sheet.school)
            for choice in records.job_record.gauges
            if choice.leaves_um and not derived
        ],
    )


def _proof(choice: CabinetGauge, limit: Limit, school: School) -> responses.ProofResponse:
    """Leaves of a set that prove a gap."""
    go, stop = proving(choice.leaves_um, limit, choice.gauge.expanded_mm, choice.gauge.k, school)
    return responses.ProofResponse(choice.tag, *(_pile(pile, choice) if pile else None for pile in (go, stop)))


def _pile(pile: Pile, choice: CabinetGauge) -> responses.PileResponse:
    u = uncertainty_mm(pile, choice.gauge.expanded_mm, choice.gauge.k)
    return responses.PileResponse(
        leaves=Joined(tuple(bare(leaf / 1000, fine=True) for leaf in pile.leaves_um), " + "),
        thickness=bare(pile.sum_um / 1000, fine=True),
        expanded=bare(_K * u, fine=True),
    )


def _try(row: Try, judged: TryJudged | None, means: Means, records: Records) -> responses.TryResponse:
    checks = records.checks[row.pk]
    gauges = dict.fromkeys(c.gauge.tag for c in checks if c.gauge)
    read = [Check(c.value_mm, c.u_mm, math.inf if c.dof is None else c.dof, c.half_mm) for c in checks]
    narrowest = min(read, key=lambda check: check.value_mm)
    return responses.TryResponse(
        id=row.id,
        number=row.number,
        set_by=means.set_by(try_made(row, checks), row.moved_typed),
        checked="; ".join(c.read_typed or f"{c.goes_typed} goes, {c.stops_typed} does not" for c in checks),
        gauge=", ".join(gauges),
        gap=Joined(tuple(bare(check.value_mm, fine=len(read) > 1) for check in read), " · "),
        gap_mm=narrowest.value_mm,
        expanded_mm=narrowest.expanded_mm,
        verdict=judged.verdict.value if judged else "",
        next="struck out" if judged is None else "right" if judged.verdict is Verdict.KEEP else _short(judged),
        by=records.names[row.by_id],
        at=row.when,
        working=judged.judgement.working if judged else None,
        opened=row.opened,
        struck_reason=row.struck_reason,
    )


def _short(judged: TryJudged) -> Text:
    if judged.verdict is Verdict.MEASURE_AGAIN and not judged.leans_out:
        return "check again"
    if len(judged.results) > 1:
        return Sentence("outside: {name}", {"name": judged.worst.target.name})
    wanted = judged.worst.wanted_mm
    return Sentence("{way} {gap}", {"way": way_of(wanted).value, "gap": bare(abs(wanted))})


def _hot(hot: HotGap | None) -> responses.HotResponse | None:
    if hot is None:
        return None
    gap = Joined((length(hot.gap_mm, fine=True), "a guess" if hot.unknown else ""))
    return responses.HotResponse(gap, hot.touches, hot.says, hot.working)


def _warming(warming: WarmingUp | None) -> responses.WarmingResponse | None:
    if warming is None:
        return None
    words = Joined((warming.says, warming.unknown or ""), " ")
    return responses.WarmingResponse(words, warming.touches, warming.is_known, warming.working)


def _is_together(undone: Iterable[Step], assessment: Assessment) -> bool:
    """Whether something of what a try takes apart was put together already."""
    done = assessment.record.steps_done
    return any(step.key in done or any(task.begun for task in assessment.tasks.of_step(step)) for step in undone)
