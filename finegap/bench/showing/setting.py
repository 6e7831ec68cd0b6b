"""The number, and where setting the gap stands."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterable

from finegap.bench import shapes
from finegap.bench.facts import Records
from finegap.bench.models import Job, Try
from finegap.core.gap.gaskets import piece
from finegap.core.gap.heat import HotGap
from finegap.core.gap.housing import Housing
from finegap.core.gap.leaves import Pile, go_and_no_go, uncertainty_mm
from finegap.core.gap.map import TableMap, map_of
from finegap.core.gap.move import Way, Window, way_of
from finegap.core.gap.setting import Setting, TryJudged
from finegap.core.gap.table import Candidate, Choice
from finegap.core.gauges import Choice as InCabinet
from finegap.core.gauges import GaugeKind
from finegap.core.job import Assessment
from finegap.core.sheet import GasketMeans, HousingMeans, RingMeans
from finegap.core.showing import Amount, Kind, Units, length
from finegap.sheets.queries import check_words
from finegap.site.words import Words

_K = 2.0


class SettingWords(Words):
    """The clearance table and the tries, in one unit system."""

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

    def choice(self, choice: Choice, job: Job) -> shapes.ChoiceShape:
        """The number, and every row with its reason and its place on the map."""
        return shapes.ChoiceShape(
            sentence=self.say(choice.sentence),
            target=length(choice.chosen.clearance_mm).text(self.units) if choice.chosen else None,
            candidates=[self._candidate(c, c.row is choice.chosen) for c in choice.candidates],
            map=self._map(map_of(choice, job.viscosity_mm2_s, job.temperature_c)),
            working=self.working(choice.working),
        )

    def _map(self, drawn: TableMap) -> shapes.MapShape:
        return shapes.MapShape(
            mm2_s=list(drawn.viscosity_mm2_s),
            c=list(drawn.temperature_c),
            regions=[
                shapes.RegionShape(
                    setting=region.row.setting,
                    clearance=length(region.row.clearance_mm).text(self.units),
                    mm2_s=list(region.viscosity_mm2_s),
                    c=list(region.temperature_c),
                    open_mm2_s=list(region.open_viscosity),
                    open_c=list(region.open_temperature),
                    matches=region.matches,
                    chosen=region.chosen,
                )
                for region in drawn.regions
            ],
            duty=list(drawn.duty),
            mm2_s_ticks=[shapes.AxisTickShape(v, f"{v:g}") for v in drawn.decades],
            c_ticks=[shapes.AxisTickShape(t, Amount(t, Kind.TEMPERATURE).text(self.units)) for t in drawn.temperatures],
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

    def setting(self, records: Records, assessment: Assessment) -> shapes.SetShape:
        """Where the gap stands."""
        setting = assessment.setting
        assert setting is not None
        sheet, window, move = records.facts.sheet, setting.window, setting.move
        return shapes.SetShape(
            means=_MEANS[type(sheet.means)],
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
            feelers=[g.tag for g in records.gauges if g.kind == GaugeKind.FEELER.value],
            proofs=[self._proof(choice, window) for choice in records.facts.gauges if choice.leaves_um],
            surprise=self.say(setting.surprise) if setting.surprise else None,
        )

    def _proof(self, choice: InCabinet, window: Window) -> shapes.ProofShape:
        """Leaves of a set that prove the window."""
        go, stop = go_and_no_go(choice.leaves_um, math.ceil(window.low_mm * 1000), math.floor(window.high_mm * 1000))
        return shapes.ProofShape(choice.tag, *(self._pile(pile, choice) if pile else None for pile in (go, stop)))

    def _pile(self, pile: Pile, choice: InCabinet) -> shapes.PileShape:
        u = uncertainty_mm(pile, choice.gauge.expanded_mm, choice.gauge.k)
        return shapes.PileShape(
            leaves=" + ".join(self.bare(leaf / 1000, fine=True) for leaf in pile.leaves_um),
            thickness=self.bare(pile.sum_um / 1000, fine=True),
            expanded=self.bare(_K * u, fine=True),
        )

    def _try(self, row: Try, judged: TryJudged, names: dict[int, str]) -> shapes.TryShape:
        check = judged.made.check
        checked = row.read_typed or f"{row.goes_typed} goes, {row.stops_typed} does not"
        gauge = row.gauge.tag if row.gauge else ""
        set_by = f"arc {Amount(row.arc_mm, Kind.ARC).bare(self.units)}" if row.arc_mm is not None else self._stack(row.stack_um)
        set_by = set_by or "leaves"
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


_MEANS = {GasketMeans: "gaskets", HousingMeans: "housing", RingMeans: "ring"}


def _turn_of(setting: Setting, housing: Housing) -> float:
    """Degrees from where the housing stands to where the move takes it, opening positive."""
    if setting.right or setting.move.way is Way.STAY:
        return 0.0
    return setting.move.travel_mm / housing.lead_mm * 360 * (1 if setting.move.way is Way.OPEN else -1)
