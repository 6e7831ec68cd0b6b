"""What the steps of Build are done with: stacks, press fits, torques, packing, grease, pictures."""

from __future__ import annotations

from django.utils import timezone

from finegap.bench import shapes
from finegap.bench.facts import Records
from finegap.bench.models import PartFitted
from finegap.core.build.declared import PressSpec
from finegap.core.build.elastomers import MEDIA
from finegap.core.build.grease import Greased
from finegap.core.build.packing import Packing
from finegap.core.build.pressing import PressState
from finegap.core.build.stacking import StackState
from finegap.core.build.tightening import Tightening, Wrench, pass_words, wrench_for
from finegap.core.families.model import Mark, Picture
from finegap.core.families.stack import Points, Shape, StackPart
from finegap.core.gauges import GaugeKind
from finegap.core.inspection import FeatureState
from finegap.core.job import Assessment
from finegap.core.procedure import filled
from finegap.core.reckoned import Line, Stand
from finegap.core.showing import Amount, Kind, between
from finegap.site.shapes import MarkShape, NamedShape
from finegap.site.words import Words
from finegap.toolbox.models import GreaseGun
from finegap.toolbox.queries import gun_shapes

_FACES = {"dry": "Faces wiped clean and fitted dry.", "film": "A film of a lubricant that suits on the faces."}
_PICTURED = {Shape.LIP_SEAL: "lip", Shape.DISC_SPRING: "cone"}


_ONE_STROKE = "Carbon graphite: lubricate, start straight, one continuous stroke. Stopping cracks it."


def one_stroke(press: PressSpec) -> str:
    """The warning for a bushing that must not be stopped on its way; empty for others."""
    return _ONE_STROKE if press.in_one_stroke else ""


class BuildingWords(Words):
    """Build in one unit system."""

    def building(self, records: Records, assessment: Assessment) -> shapes.BuildingShape:
        """Everything the steps of Build are done with."""
        job, works = records.job, assessment.works
        states = {s.feature.key: s for s in assessment.features}
        wanted = {work for step in records.facts.family.steps for work in step.works}
        return shapes.BuildingShape(
            stacks=[self._stack(place, state, records) for place, state in works.stacks.items()],
            presses=[self._press(state) for state in works.presses.values()],
            tightenings=[self._tightening(key, one, records) for key, one in works.tightenings.items()],
            packing=self._packing(records, states) if "packing" in wanted else None,
            bearings=self._bearings(records) if "grease" in wanted else [],
            pictures=[_picture(key, picture) for key, picture in records.facts.family.pictures.items()],
            lubricant=job.lubricant,
            lubricants=[NamedShape(key, m.name) for key, m in MEDIA.items() if m.lubricates],
            gun=job.gun.tag if job.gun else "",
            guns=gun_shapes(GreaseGun.objects.all(), self.units),
        )

    def _stack(self, place: str, state: StackState, records: Records) -> shapes.StackShape:
        rows = {row.part: row for row in records.fitted if row.stack == state.stack.key}
        return shapes.StackShape(
            place=place,
            name=state.stack.name,
            parts=[self._part(part, state, rows.get(part.key), records) for part in state.stack.parts],
            next=state.next.key if state.next else "",
            ends=list(state.stack.ends or ()),
            advice=state.advice,
        )

    def _part(self, part: StackPart, state: StackState, row: PartFitted | None, records: Records) -> shapes.StackPartShape:
        sheet = records.facts.sheet
        told = {
            "faces": _FACES.get(sheet.details.get("faces", ""), "Faces clean; dry or with a film, as the seal maker says."),
            **{f"one_stroke:{key}": one_stroke(press) for key, press in sheet.building.presses.items()},
        }
        return shapes.StackPartShape(
            id=row.id if row else None,
            key=part.key,
            name=part.name,
            shape=part.shape.value,
            points="" if part.points is Points.NEITHER else part.points.value,
            directions=list(state.stack.directions(part)),
            note=filled(part.note, told),
            must_be_new=state.must_be_new(part),
            fresh=part.feature in records.facts.changed,
            lines=self.lines(state.lines.get(part.key, ())),
            picture=_PICTURED.get(part.shape, ""),
            fitted=row is not None,
            reused=row.reused if row else False,
            reason=row.reason if row else "",
            by=records.names[row.by_id] if row else "",
            at=row.when if row else None,
        )

    def _press(self, state: PressState) -> shapes.PressShape:
        press = state.press
        return shapes.PressShape(
            key=press.key,
            name=press.name,
            said=state.spec.said,
            features=[press.outside, press.seat, press.free],
            bore=press.bore,
            lines=self.lines(state.lines),
            ready=state.ready,
        )

    def _tightening(self, key: str, one: Tightening, records: Records) -> shapes.TighteningShape:
        torque = one.torque
        now = one.range_n_m(one.pass_number or len(torque.passes))
        return shapes.TighteningShape(
            key=key,
            fastener=torque.fastener,
            torque=self.say(torque.span),
            condition=torque.condition,
            page=torque.page,
            count=torque.count,
            order=list(one.order),
            passes=[shapes.PassShape(n + 1, self.say(pass_words(one, n + 1)), done) for n, done in enumerate(one.done)],
            pass_number=one.pass_number,
            left=list(one.left),
            middle=Amount(sum(now) / 2, Kind.FINE_TORQUE).text(self.units),
            wrench=wrench_for(sum(now) / 2, _wrenches(records)),
            lines=self.lines(_torque_lines(one)),
            log=[
                shapes.TorqueMarkShape(
                    id=row.id,
                    pass_number=row.pass_number,
                    bolts=row.bolts,
                    typed=row.typed,
                    at_nut=Amount(row.at_nut_n_m, Kind.FINE_TORQUE).text(self.units),
                    adapter=row.adapter,
                    wrench=row.wrench.tag,
                    certificate=row.certificate.number,
                    overdue=row.wrench_overdue,
                    by=records.names[row.by_id],
                    at=row.when,
                    struck_reason=row.struck_reason,
                )
                for row in records.torques
                if row.fastener == key
            ],
        )

    def _packing(self, records: Records, states: dict[str, FeatureState]) -> shapes.PackingShape | None:
        spec, shaft = records.facts.sheet.building.packing, states.get("shaft_at_seal")
        if spec is None or shaft is None:
            return None
        size = shaft.left or shaft.found
        new = shaft.spec.new_mm
        shaft_mm = size.value_mm if size else new[1] if new else None
        if shaft_mm is None:
            return None
        packing = Packing(shaft_mm, spec.section_mm, spec.rings, spec.joints, spec.lantern_after)
        lines = [
            *packing.lines(),
            Line("Rings", str(packing.rings)),
        ]
        if packing.lantern_after:
            lines.append(Line("Lantern ring", f"after ring {packing.lantern_after} from the bottom, under the flush port"))
        return shapes.PackingShape(
            self.lines(lines),
            [packing.joints.at_deg(ring) for ring in range(1, packing.rings + 1)],
            packing.lantern_after,
            packing.joints.value,
        )

    def _bearings(self, records: Records) -> list[shapes.BearingShape]:
        shown = []
        for bearing in records.facts.sheet.building.bearings:
            lines = [Line("Oil", "to the middle of the sight glass, standing still and level.")]
            if not bearing.oil:
                greased = Greased(bearing.outside_mm, bearing.width_mm, records.facts.ten_g)
                strokes = str(greased.strokes) if greased.strokes is not None else "weigh ten strokes of the gun first"
                lines = [
                    Line("Grease", Amount(greased.grams, Kind.MASS), working=greased.working),
                    Line("Strokes", strokes, Stand.GOOD if greased.strokes is not None else Stand.ASK),
                    Line("Or", "until clean grease shows, where there is a way out."),
                ]
            shown.append(shapes.BearingShape(bearing.name, bearing.oil, self.lines(lines)))
        return shown


def _wrenches(records: Records) -> list[Wrench]:
    today, kind = timezone.localdate(), GaugeKind.TORQUE_WRENCH.value
    return [Wrench(g.tag, g.now.low, g.now.high, g.now.due < today) for g in records.gauges if g.kind == kind]


def _torque_lines(one: Tightening) -> list[Line]:
    torque = one.torque
    lines = []
    if one.joint is not None:
        low, high = one.joint.preload_n(torque.low_n_m, torque.high_n_m)
        words = between(low, high, Kind.FORCE)
        lines.append(Line("Preload", words, working=one.joint.working(torque.low_n_m, torque.high_n_m, torque.condition)))
    if torque.tang is not None:
        stand = Stand.CARE if torque.tang.always is False else Stand.GOOD
        lines.append(Line("Tang", torque.tang.sentence, stand, torque.tang.working))
    return lines


def _picture(key: str, picture: Picture) -> shapes.PictureShape:
    return shapes.PictureShape(
        key=key,
        name=picture.name,
        right=_marks(picture.right),
        right_words=picture.right_words,
        wrong=_marks(picture.wrong),
        wrong_words=picture.wrong_words,
        labels=[shapes.LabelShape(*label) for label in picture.labels],
    )


def _marks(marks: tuple[Mark, ...]) -> list[MarkShape]:
    return [MarkShape(mark.style.value, mark.path) for mark in marks]
