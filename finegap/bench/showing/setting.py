"""The number, and where setting the gap stands."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterable

from finegap.bench import shapes
from finegap.bench.facts import GAP, Records
from finegap.bench.models import Job, Try
from finegap.core.families.model import Step
from finegap.core.gap.declared import TIMING, GasketMeans, HousingMeans, MeshMeans, ShimMeans, means_key
from finegap.core.gap.gaskets import StackChange
from finegap.core.gap.heat import HotGap, WarmingUp
from finegap.core.gap.housing import Housing, Zero
from finegap.core.gap.leaves import Pile, proving, uncertainty_mm
from finegap.core.gap.map import TableMap, map_of
from finegap.core.gap.move import Way, Window, way_of
from finegap.core.gap.setting import Asked, Check, Held, Setting, TryJudged
from finegap.core.gap.shims import SHAFTS
from finegap.core.gap.stock import piece
from finegap.core.gap.table import Candidate, Choice
from finegap.core.gapping import Gapping
from finegap.core.gauges import Choice as InCabinet
from finegap.core.gauges import GaugeKind
from finegap.core.job import Assessment
from finegap.core.measuring.verdict import Call, Limit, School
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

    def choice(self, choice: Choice, records: Records) -> shapes.ChoiceShape:
        """The number, and every row with its reason and its place on the map."""
        duty = records.facts.duty
        return shapes.ChoiceShape(
            sentence=self.say(choice.sentence),
            over=self.say(choice.over) if choice.over else None,
            hole=self.say(choice.hole) if choice.hole else None,
            target=length(choice.chosen.clearance_mm).text(self.units) if choice.chosen else None,
            candidates=[self._candidate(c, c.row is choice.chosen) for c in choice.candidates],
            map=self._map(map_of(choice, duty.viscosity_mm2_s, duty.temperature_c, duty.sweep)),
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
            way=[list(point) for point in drawn.way],
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

    def setting(self, records: Records, assessment: Assessment, sets: str) -> shapes.SetShape | None:
        """Where the gap of the table, or the mesh of a timing gear, stands; ``None`` where there is none to set."""
        gapping = assessment.gapping
        setting = gapping.setting if sets == GAP else gapping.mesh
        if setting is None:
            return None
        sheet, window, move = records.facts.sheet, setting.window, setting.move
        means, words = sheet.means, records.facts.family.gap
        rows = [row for row in records.tries if row.sets == sets]
        standing = zip((row for row in rows if not row.struck_reason), setting.tries, strict=True)
        judged = {row.pk: one for row, one in standing}
        of_gap = sets == GAP
        ends = [amount.bare(self.units) for amount in window.shown()]
        undone = [s for s in records.facts.family.steps if (means_key(means) if of_gap else TIMING) in s.undone_by]
        return shapes.SetShape(
            sets=sets,
            name=words.name if of_gap else "mesh gaps",
            place=words.place,
            faces=words.faces.split(" and ") if of_gap else [],
            means=means_key(means) if of_gap else TIMING,
            target=ends[2],
            low=ends[0],
            high=ends[1],
            target_mm=window.target_mm,
            low_mm=window.low_mm,
            high_mm=window.high_mm,
            headline=self.say(move.headline),
            details=[self.say(d) for d in move.details],
            way=move.way.value,
            right=setting.right,
            working=self.working(move.working),
            gaps=self._gaps(setting, records),
            tries=[self._try(row, judged.get(row.pk), records) for row in rows],
            hot=self._hot(gapping.hot) if of_gap else None,
            warming=self._warming(gapping.warming) if of_gap else None,
            housing=self._housing(means, records, setting) if of_gap and isinstance(means, HousingMeans) else None,
            gaskets=self._gaskets(records, setting) if of_gap and isinstance(means, GasketMeans) else None,
            shims=self._shims(means, records, setting) if of_gap and isinstance(means, ShimMeans) else None,
            timing=None if of_gap or sheet.mesh is None else self._timing(sheet.mesh, setting),
            feelers=[g.tag for g in records.gauges if g.kind == GaugeKind.FEELER.value],
            surprise=self.say(setting.surprise) if setting.surprise else None,
            opens=[s.text for s in undone if s.puts_in],
            asks_opened=not setting.tries and _is_together([s for s in undone if s.puts_in], assessment),
            outside=[self.say(sentence) for sentence in gapping.outside],
        )

    def slip(self, gapping: Gapping) -> shapes.SlipShape:
        """What the gaps cost, as found and as left."""
        return shapes.SlipShape(*(self.lines(p.lines() if p else ()) for p in (gapping.found, gapping.left)))

    def _gaps(self, setting: Setting, records: Records) -> list[shapes.HeldShape]:
        """What a try is held against, with the last one's numbers, and the leaves that prove it."""
        several = len(setting.asked) > 1
        held = [(h.asked, h) for h in setting.tries[-1].held] if setting.tries else [(asked, None) for asked in setting.asked]
        return [self._held(asked, one, several, records) for asked, one in held]

    def _held(self, asked: Asked, held: Held | None, several: bool, records: Records) -> shapes.HeldShape:
        window, derived = asked.window, held is not None and held.derived
        low, high, gap = window.shown(held.check.value_mm if held else None, fine=derived or several)
        return shapes.HeldShape(
            key=asked.key,
            name=asked.name,
            low=low.bare(self.units),
            high=high.bare(self.units),
            target=self.bare(window.target_mm),
            low_mm=window.low_mm,
            high_mm=window.high_mm,
            target_mm=window.target_mm,
            derived=derived,
            gap=gap.bare(self.units) if held else "",
            gap_mm=held.check.value_mm if held else None,
            expanded_mm=held.check.expanded_mm if held else 0.0,
            call=held.verdict.call.value if held else "",
            proofs=[
                self._proof(choice, asked.proof, records.facts.sheet.school)
                for choice in records.facts.gauges
                if choice.leaves_um and not derived
            ],
        )

    def _proof(self, choice: InCabinet, limit: Limit, school: School) -> shapes.ProofShape:
        """Leaves of a set that prove a gap."""
        go, stop = proving(choice.leaves_um, limit, choice.gauge.expanded_mm, choice.gauge.k, school)
        return shapes.ProofShape(choice.tag, *(self._pile(pile, choice) if pile else None for pile in (go, stop)))

    def _pile(self, pile: Pile, choice: InCabinet) -> shapes.PileShape:
        u = uncertainty_mm(pile, choice.gauge.expanded_mm, choice.gauge.k)
        return shapes.PileShape(
            leaves=" + ".join(self.bare(leaf / 1000, fine=True) for leaf in pile.leaves_um),
            thickness=self.bare(pile.sum_um / 1000, fine=True),
            expanded=self.bare(_K * u, fine=True),
        )

    def _try(self, row: Try, judged: TryJudged | None, records: Records) -> shapes.TryShape:
        checks = records.checks[row.pk]
        gauges = dict.fromkeys(c.gauge.tag for c in checks if c.gauge)
        read = [Check(c.value_mm, c.u_mm, math.inf if c.dof is None else c.dof, c.half_mm) for c in checks]
        narrowest = min(read, key=lambda check: check.value_mm)
        return shapes.TryShape(
            id=row.id,
            number=row.number,
            set_by=self._set_by(row),
            checked="; ".join(c.read_typed or f"{c.goes_typed} goes, {c.stops_typed} does not" for c in checks),
            gauge=", ".join(gauges),
            gap=" · ".join(self.bare(check.value_mm, fine=len(read) > 1) for check in read),
            gap_mm=narrowest.value_mm,
            expanded_mm=narrowest.expanded_mm,
            call=judged.call.value if judged else "",
            next="struck out" if judged is None else "right" if judged.call is Call.KEEP else self._short(judged),
            by=records.names[row.by_id],
            at=row.when,
            working=self.working(judged.verdict.working) if judged else None,
            opened=row.opened,
            struck_reason=row.struck_reason,
        )

    def _set_by(self, row: Try) -> str:
        if row.arc_mm is not None:
            side = "" if row.sets == GAP or not row.arc_mm else (" left" if row.arc_mm > 0 else " right")
            arc = row.arc_mm if row.sets == GAP else abs(row.arc_mm)
            typed = "" if not row.arc_typed or self.units.value in row.arc_typed else f", typed {row.arc_typed}"
            return f"arc {Amount(arc, Kind.ARC if row.sets == GAP else Kind.LENGTH).bare(self.units)}{side}{typed}"
        if row.stacks_um:
            return " | ".join(self._stack(stack) or "none" for stack in row.stacks_um)
        return "leaves"

    def _short(self, judged: TryJudged) -> str:
        if judged.call is Call.MEASURE_AGAIN and not judged.leans_out:
            return "check again"
        if len(judged.held) > 1:
            return f"outside: {judged.worst.asked.name}"
        wanted = judged.worst.wanted_mm
        return f"{way_of(wanted).value} {self.bare(abs(wanted))}"

    def _stack(self, stack: Iterable[int]) -> str:
        pieces = sorted(Counter(stack).items(), reverse=True)
        return " + ".join((f"{n} × " if n > 1 else "") + piece(t).bare(self.units) for t, n in pieces)

    def _hot(self, hot: HotGap | None) -> shapes.HotShape | None:
        if hot is None:
            return None
        gap = length(hot.gap_mm, fine=True).text(self.units) + (", a guess" if hot.unknown else "")
        return shapes.HotShape(gap, hot.touches, self.say(hot.says), self.working(hot.working))

    def _warming(self, warming: WarmingUp | None) -> shapes.WarmingShape | None:
        if warming is None:
            return None
        words = " ".join(self.say(s) for s in (warming.says, warming.unknown) if s is not None)
        return shapes.WarmingShape(words, warming.touches, warming.is_known, self.working(warming.working))

    def _shims(self, means: ShimMeans, records: Records, setting: Setting) -> shapes.ShimsShape:
        assert setting.changes is not None
        checks = [h.check.value_mm for h in setting.tries[-1].held if not h.derived] if setting.tries else []
        front, back = setting.asked[0].window, setting.asked[1].window
        return shapes.ShimsShape(
            shafts=[self._shaft(i, change, checks) for i, change in enumerate(setting.changes)],
            front=self._window(front),
            back=self._window(back),
            difference=length(means.difference_mm).text(self.units),
            box=self._box(records),
        )

    def _window(self, window: Window) -> str:
        low, high, _ = window.shown()
        return f"{low.bare(self.units)} to {high.text(self.units)}"

    def _shaft(self, i: int, change: StackChange, checks: list[float]) -> shapes.ShaftShape:
        forward = (sum(change.next) - sum(change.now)) / 1000
        front, back = (checks[2 * i], checks[2 * i + 1]) if checks else (None, None)
        return shapes.ShaftShape(
            name=SHAFTS[i],
            now=self._pieces(change.now),
            next=self._pieces(change.next),
            out=self._pieces(change.out),
            into=self._pieces(change.into),
            front_mm=front,
            back_mm=back,
            next_front_mm=None if front is None else front - forward,
            next_back_mm=None if back is None else back + forward,
        )

    def _timing(self, means: MeshMeans, setting: Setting) -> shapes.TimingShape:
        shift, timing = setting.move.change_mm if setting.move.travel_mm else 0.0, means.timing
        return shapes.TimingShape(
            toward="" if not shift else "left" if shift > 0 else "right",
            arc=Amount(timing.arc_mm(abs(shift)), Kind.LENGTH).bare(self.units),
            angle_deg=timing.angle_deg(abs(shift)),
            pitch=length(timing.pitch_mm).text(self.units),
            marked=length(timing.marked_mm).text(self.units),
        )

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
            zero=records.zero.id if records.zero else None,
            zero_found=facts.zero is not None,
            prescribed=means.zero.value,
            lash=length(facts.lash_mm, fine=True).text(self.units),
            lash_does=self._lash_does(facts.zero or means.zero, facts.lash_mm),
            lash_seen=None if setting.lash_seen_mm is None else length(setting.lash_seen_mm, fine=True).text(self.units),
            position_deg=position,
            target_deg=position + travel,
            arc=Amount(housing.arc_mm(setting.move.travel_mm), Kind.ARC).bare(self.units),
            ticks=self._ticks(housing, max(position, position + travel, 0.0)),
            check=check_words(means.check),
            check_agrees=means.check is None or means.check.agrees,
            check_working=self.working(means.check.working) if means.check else None,
        )

    def _lash_does(self, zero: Zero, lash_mm: float) -> str:
        """What the play does to the gap set from a zero."""
        amount = length(lash_mm, fine=True).text(self.units)
        if lash_mm == 0:
            return ""
        if zero.ends is Way.CLOSE:
            return (
                f"This zero leaves the play loaded closed: the first {amount} of opening only takes it up, and is added to the arc."
            )
        return f"This zero leaves the play loaded open: opening needs nothing more, closing takes {amount} up first."

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
        change = setting.change
        assert change is not None
        return shapes.GasketsShape(
            now=self._pieces(change.now),
            next=self._pieces(change.next),
            out=self._pieces(change.out),
            into=self._pieces(change.into),
            box=self._box(records),
            possible=setting.choice is None or setting.choice.stack is not None or setting.right,
        )

    def _box(self, records: Records) -> list[shapes.PieceShape]:
        """What is on the shelf."""
        return [shapes.PieceShape(t, piece(t).bare(self.units), n) for t, n in sorted(records.facts.box.items())]

    def _pieces(self, stack: Iterable[int]) -> list[shapes.PieceShape]:
        return [shapes.PieceShape(t, piece(t).bare(self.units), n) for t, n in sorted(Counter(stack).items(), reverse=True)]


def _is_together(undone: Iterable[Step], assessment: Assessment) -> bool:
    """Whether something of what a try takes apart was put together already."""
    works, done = assessment.works, assessment.facts.steps_done
    keys = [(step.key, *work.partition(":")[::2]) for step in undone for work in step.works or ("",)]
    return any(
        step in done
        or (kind == "stack" and key in works.stacks and bool(works.stacks[key].fitted))
        or (kind == "torque" and key in works.tightenings and bool(works.tightenings[key].log))
        for step, kind, key in keys
    )


def _turn_of(setting: Setting, housing: Housing) -> float:
    """Degrees from where the housing stands to where the move takes it, opening positive."""
    if setting.right or setting.move.way is Way.STAY:
        return 0.0
    return setting.move.travel_mm / housing.lead_mm * 360 * (1 if setting.move.way is Way.OPEN else -1)
