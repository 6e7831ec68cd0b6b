"""Reading jobs: from records and the core to what the bench shows, in a fixed number of SQL queries."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterable
from typing import Any

from django.db.models import OuterRef, Subquery
from django.utils import timezone

from finegap.bench import shapes
from finegap.bench.facts import Records, load, name_of
from finegap.bench.models import Decision, Event, Job, SignOff, Try
from finegap.core import gauges
from finegap.core import job as core
from finegap.core.families.model import Stage
from finegap.core.gap.gaskets import piece
from finegap.core.gap.heat import HotGap
from finegap.core.gap.housing import Housing
from finegap.core.gap.move import Way, way_of
from finegap.core.gap.setting import Setting, TryJudged
from finegap.core.gap.table import Candidate, Choice
from finegap.core.measuring.readings import Result
from finegap.core.measuring.verdict import Verdict
from finegap.core.quantities import said
from finegap.core.sheet import GasketMeans, HousingMeans
from finegap.core.showing import Amount, Kind, Sentence, Units, length, render
from finegap.core.working import Working
from finegap.sheets.queries import check_words
from finegap.toolbox.queries import gauge_shapes

_LOG_SHOWN = 30


def job_lines() -> list[shapes.JobLine]:
    """All jobs, newest first."""
    last = Event.objects.filter(job=OuterRef("pk")).order_by("-version").values("what")[:1]
    jobs = Job.objects.select_related("pump", "opened_by", "sign_off").annotate(last=Subquery(last))
    return [
        shapes.JobLine(
            number=job.number,
            pump=job.pump.tag,
            service=job.pump.service,
            reason=job.reason,
            opened_by=name_of(job.opened_by),
            opened_at=job.opened_at,
            signed_at=job.sign_off.at if hasattr(job, "sign_off") else None,
            last=job.last or "",
        )
        for job in jobs
    ]


def job_view(number: int, units: Units) -> shapes.JobShape | dict[str, Any] | None:
    """A job as the bench shows it; a signed one as it was when it was signed."""
    job = Job.objects.select_related("pump", "revision__sheet", "opened_by").filter(number=number).first()
    if job is None:
        return None
    signature = SignOff.objects.filter(job=job).first()
    if signature is not None:
        frozen: dict[str, Any] = signature.record[units.value]
        return frozen
    return job_shape(job, units)


def job_shape(job: Job, units: Units, signature: SignOff | None = None) -> shapes.JobShape:
    """Work out and render everything about a job."""
    records = load(job)
    assessment = core.assess(records.facts)
    sheet = records.facts.sheet
    show = Renderer(units)
    events = list(job.events.order_by("-version")[:_LOG_SHOWN])
    return shapes.JobShape(
        number=job.number,
        version=job.version,
        unit=units.value,
        reason=job.reason,
        hours_run=job.hours_run,
        opened_by=name_of(job.opened_by),
        opened_at=job.opened_at,
        pump=shapes.PumpShape(job.pump.tag, job.pump.service, job.pump.location, job.pump.serial, sheet.maker, sheet.model),
        duty=show.duty(job),
        sheet=sheet.cite(),
        family=sheet.family.key,
        school=sheet.school.value,
        stages=[shapes.StageShape(stage.value, *assessment.progress[stage]) for stage in Stage],
        steps=_steps(records),
        features=[show.feature(state, records) for state in assessment.features],
        choice=show.choice(assessment.choice),
        setting=show.setting(records, assessment) if assessment.setting else None,
        torques=[shapes.TorqueShape(t.fastener, t.span.render(units), t.condition, t.page) for t in sheet.torques],
        gauges=gauge_shapes(records.gauges, units, timezone.localdate()),
        blockers=[shapes.BlockerShape(b.stage.value, show.say(b.sentence), b.lead_may) for b in assessment.blockers],
        log=[shapes.EventShape(e.version, e.what, records.names[e.by_id], e.at) for e in events],
        signed=None
        if signature is None
        else shapes.SignedShape(name_of(signature.by), signature.at, signature.reason, signature.core_version),
    )


def _steps(records: Records) -> list[shapes.StepShape]:
    done = {mark.step: mark for mark in records.steps}
    return [
        shapes.StepShape(
            step.key,
            step.stage.value,
            step.text,
            step.why,
            step.caution,
            step.hold,
            records.names[mark.by_id] if (mark := done.get(step.key)) else None,
            mark.at if mark else None,
        )
        for step in records.facts.sheet.family.steps
    ]


class Renderer:
    """Core results to shapes, in one unit system."""

    def __init__(self, units: Units) -> None:
        self.units = units

    def say(self, words: Sentence | Amount | str) -> str:
        """Words or a number as text."""
        return render(words, self.units)

    def bare(self, mm: float, fine: bool = False) -> str:
        """A length without its unit."""
        return length(mm, fine).bare(self.units)

    def working(self, working: Working) -> shapes.WorkingShape:
        """A working with its numbers written out."""
        return shapes.WorkingShape(
            title=working.title,
            formula=working.formula,
            given=[shapes.GivenShape(g.symbol, g.meaning, self.say(g.amount)) for g in working.given],
            result=self.say(working.result),
            source=working.source,
            notes=[self.say(note) for note in working.notes],
        )

    def duty(self, job: Job) -> shapes.DutyShape:
        """What the pump does."""
        return shapes.DutyShape(
            liquid=job.liquid,
            material=job.material,
            viscosity=Amount(job.viscosity_mm2_s, Kind.VISCOSITY).text(self.units),
            viscosity_typed=job.viscosity_typed,
            temperature=Amount(job.temperature_c, Kind.TEMPERATURE).text(self.units),
            casing=Amount(job.casing_c, Kind.TEMPERATURE).text(self.units),
            pressure=Amount(job.pressure_bar, Kind.PRESSURE).text(self.units),
            speed=f"{job.speed_r_min:g} r/min",
        )

    def feature(self, state: core.FeatureState, records: Records) -> shapes.FeatureShape:
        """A feature with its readings and results."""
        feature, spec, limit = state.feature, state.spec, state.spec.limit
        decision = next((d for d in records.decisions if d.feature == feature.key), None)
        return shapes.FeatureShape(
            key=feature.key,
            number=feature.number,
            name=feature.name,
            part=feature.part,
            kind=feature.kind.name.lower(),
            anchor=list(feature.anchor),
            label=list(feature.label),
            stations=[shapes.StationShape(s.key, s.plane, s.direction, s.label) for s in feature.stations],
            parts=[part for part in (feature.bore, feature.shaft) if part],
            new_text=f"{self.bare(spec.new_mm[0], state.fine)} to {self.bare(spec.new_mm[1], state.fine)}",
            limit_text=limit.shown(self.units, state.fine) if limit else "no limit on the sheet",
            page=spec.page,
            new_mm=list(spec.new_mm),
            lower_mm=limit.lower_mm if limit else None,
            upper_mm=limit.upper_mm if limit else None,
            readings=[
                shapes.ReadingShape(
                    id=r.id,
                    phase=r.phase,
                    station=r.station,
                    typed=said(r.typed, r.unit),
                    text=self.bare(r.value_mm, state.fine),
                    gauge=r.gauge.tag,
                    overdue=r.gauge_overdue,
                    by=records.names[r.by_id],
                    at=r.at,
                    struck_reason=r.struck_reason,
                )
                for r in records.readings
                if r.feature == feature.key
            ],
            found=self._result(state.found, state.found_verdict, state.fine),
            left=self._result(state.left, state.left_verdict, state.fine),
            decision=self._decision(decision, records.names),
            open_decision=state.open_decision,
            reason_to_keep=core.reason_needed(state.found_verdict, core.Decided.KEEP),
            reason_to_change=core.reason_needed(state.found_verdict, core.Decided.CHANGE),
            gauge=gauges.pick(records.cabinet, feature.kind, spec.new_mm),
            out_of_range=[g.tag for g in records.cabinet if not g.covers(spec.new_mm)],
        )

    def _decision(self, row: Decision | None, names: dict[int, str]) -> shapes.DecisionShape | None:
        return None if row is None else shapes.DecisionShape(row.decided, row.reason, names[row.by_id], row.at)

    def _result(self, result: Result | None, verdict: Verdict | None, fine: bool) -> shapes.ResultShape | None:
        if result is None:
            return None
        return shapes.ResultShape(
            text=self.bare(result.value_mm, fine),
            expanded_text=self.bare(result.expanded_mm, fine=True),
            value_mm=result.value_mm,
            expanded_mm=result.expanded_mm,
            mean=self.bare(result.mean_mm, fine=True),
            spread=self.bare(result.spread_mm, fine),
            out_of_round=None if result.out_of_round_mm is None else self.bare(result.out_of_round_mm, fine),
            taper=None if result.taper_mm is None else self.bare(result.taper_mm, fine),
            deciding=result.deciding,
            notes=[self.say(n) for n in result.notes],
            working=self.working(result.working),
            verdict=self._verdict(verdict) if verdict else None,
        )

    def _verdict(self, verdict: Verdict) -> shapes.VerdictShape:
        return shapes.VerdictShape(
            verdict.call.value, self.say(verdict.sentence), verdict.probability, self.working(verdict.working)
        )

    def choice(self, choice: Choice) -> shapes.ChoiceShape:
        """The number, and every row with its reason."""
        return shapes.ChoiceShape(
            sentence=self.say(choice.sentence),
            target=length(choice.chosen.clearance_mm).text(self.units) if choice.chosen else None,
            candidates=[self._candidate(c, c.row is choice.chosen) for c in choice.candidates],
            working=self.working(choice.working),
        )

    def _candidate(self, candidate: Candidate, chosen: bool) -> shapes.CandidateShape:
        row = candidate.row
        return shapes.CandidateShape(
            setting=row.setting,
            viscosity=self._span(row.viscosity_mm2_s.low, row.viscosity_mm2_s.high, Kind.VISCOSITY),
            temperature=self._span(row.temperature_c.low, row.temperature_c.high, Kind.TEMPERATURE),
            clearance=length(row.clearance_mm).text(self.units),
            matches=candidate.matches,
            chosen=chosen,
            reason=self.say(candidate.reason),
        )

    def _span(self, low: float, high: float, kind: Kind) -> str:
        low_open = math.isinf(low) or (kind is Kind.VISCOSITY and low == 0)
        if low_open and math.isinf(high):
            return "any"
        if low_open:
            return f"up to {Amount(high, kind).text(self.units)}"
        if math.isinf(high):
            return f"{Amount(low, kind).text(self.units)} and up"
        return f"{Amount(low, kind).bare(self.units)} to {Amount(high, kind).text(self.units)}"

    def setting(self, records: Records, assessment: core.Assessment) -> shapes.SetShape:
        """Where the gap stands."""
        setting = assessment.setting
        assert setting is not None
        sheet, window, move = records.facts.sheet, setting.window, setting.move
        return shapes.SetShape(
            means="gaskets" if isinstance(sheet.means, GasketMeans) else "housing",
            target=self.bare(window.target_mm),
            low=self.bare(window.low_mm),
            high=self.bare(window.high_mm),
            target_mm=window.target_mm,
            low_mm=window.low_mm,
            high_mm=window.high_mm,
            headline=self.say(move.headline),
            details=[self.say(d) for d in move.details],
            way=move.way.value,
            right=setting.right,
            working=self.working(move.working),
            tries=[self._try(row, judged, records.names) for row, judged in zip(records.tries, setting.tries, strict=True)],
            hot=self._hot(assessment.hot),
            housing=self._housing(sheet.means, records, setting) if isinstance(sheet.means, HousingMeans) else None,
            gaskets=self._gaskets(records, setting) if isinstance(sheet.means, GasketMeans) else None,
            feelers=[g.tag for g in records.cabinet if g.kind is gauges.GaugeKind.FEELER],
        )

    def _try(self, row: Try, judged: TryJudged, names: dict[int, str]) -> shapes.TryShape:
        check = judged.made.check
        checked = row.read_typed or f"{row.goes_typed} goes, {row.stops_typed} does not"
        gauge = row.gauge.tag if row.gauge else ""
        set_by = f"arc {Amount(row.arc_mm, Kind.ARC).bare(self.units)}" if row.arc_mm is not None else self._stack(row.stack_um)
        settled = judged.verdict.call.value == "Keep"
        return shapes.TryShape(
            number=row.number,
            set_by=set_by,
            checked=checked,
            gauge=gauge,
            gap=self.bare(check.value_mm),
            gap_mm=check.value_mm,
            expanded_mm=check.expanded_mm,
            call=judged.verdict.call.value,
            next="right" if settled else self._short(judged),
            by=names[row.by_id],
            at=row.at,
            working=self.working(judged.verdict.working),
        )

    def _short(self, judged: TryJudged) -> str:
        way = way_of(judged.wanted_mm)
        return "check again" if way is Way.STAY else f"{way.value} {self.bare(abs(judged.wanted_mm))}"

    def _stack(self, stack: Iterable[int]) -> str:
        pieces = sorted(Counter(stack).items(), reverse=True)
        return " + ".join((f"{n} × " if n > 1 else "") + piece(t).bare(self.units) for t, n in pieces)

    def _hot(self, hot: HotGap | None) -> shapes.HotShape | None:
        if hot is None:
            return None
        return shapes.HotShape(length(hot.gap_mm, fine=True).text(self.units), hot.touches, self.working(hot.working))

    def _housing(self, means: HousingMeans, records: Records, setting: Setting) -> shapes.HousingShape:
        housing, facts = means.housing, records.facts
        turned = math.fsum(t.arc_mm or 0.0 for t in facts.tries)
        position = housing.angle_deg(housing.clearance_mm(turned))
        travel = _turn_of(setting, housing)
        step_mm = 0.01 if self.units is Units.MM else 0.0254
        return shapes.HousingShape(
            diameter=length(housing.diameter_mm).text(self.units),
            lead=length(housing.lead_mm, fine=True).text(self.units),
            hand=housing.hand.value,
            per_step=(
                f"{Amount(housing.arc_mm(step_mm), Kind.LENGTH).text(self.units)} of arc is "
                f"{length(step_mm).text(self.units)} of clearance"
            ),
            school=facts.zero.value if facts.zero else means.zero.value,
            zero_found=facts.zero is not None,
            lash=length(facts.lash_mm, fine=True).text(self.units),
            lash_seen=None if setting.lash_seen_mm is None else length(setting.lash_seen_mm, fine=True).text(self.units),
            surprise=self.say(setting.surprise) if setting.surprise else None,
            position_deg=position,
            target_deg=position + travel,
            arc=Amount(housing.arc_mm(setting.move.travel_mm), Kind.ARC).bare(self.units),
            ticks=self._ticks(housing, max(position, position + travel, 0.0)),
            check=check_words(means.check),
            check_agrees=means.check is None or means.check.agrees,
            check_working=self.working(means.check.working) if means.check else None,
        )

    def _ticks(self, housing: Housing, furthest_deg: float) -> list[shapes.TickShape]:
        """A tick each 0.01 mm or 0.0005 in, numbered every fifth or second, a little past the furthest mark."""
        step, numbered = (0.01, 5) if self.units is Units.MM else (0.0127, 2)
        last = min(furthest_deg * 1.2 + 8, 300.0)
        count = min(int(last / housing.angle_deg(step)), 120)
        return [
            shapes.TickShape(
                housing.angle_deg(step * i),
                length(step * i).bare(self.units) if i % numbered == 0 and i else "",
            )
            for i in range(1, count + 1)
        ]

    def _gaskets(self, records: Records, setting: Setting) -> shapes.GasketsShape:
        change, facts = setting.change, records.facts
        assert change is not None
        return shapes.GasketsShape(
            now=self._pieces(change.now),
            next=self._pieces(change.next),
            out=self._pieces(change.out),
            into=self._pieces(change.into),
            box=[shapes.PieceShape(t, piece(t).bare(self.units), n) for t, n in sorted(facts.box.items())],
            possible=setting.choice is None or setting.choice.stack is not None or setting.right,
        )

    def _pieces(self, stack: Iterable[int]) -> list[shapes.PieceShape]:
        return [shapes.PieceShape(t, piece(t).bare(self.units), n) for t, n in sorted(Counter(stack).items(), reverse=True)]


def _turn_of(setting: Setting, housing: Housing) -> float:
    """Degrees from where the housing stands to where the move takes it, opening positive."""
    if setting.right or setting.move.way is Way.STAY:
        return 0.0
    return setting.move.travel_mm / housing.lead_mm * 360 * (1 if setting.move.way is Way.OPEN else -1)
