"""From records to the core's job record, in a fixed number of SQL queries."""

from __future__ import annotations

import json
import math
import uuid
from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property, lru_cache
from typing import TypeVar

from django.contrib.auth.models import User
from django.utils import timezone

from finegap.bench.changes import TryOf
from finegap.bench.compiled import Compiled
from finegap.bench.models import (
    Decision,
    Job,
    Look,
    NewPart,
    OnHand,
    PartFitted,
    Photo,
    ProofMark,
    Reading,
    RunInNote,
    SizeOnRecord,
    StepMark,
    TorqueMark,
    Try,
    TryCheck,
    ZeroFound,
)
from finegap.bench.recorded import Recorded
from finegap.core import job_record as core
from finegap.core.assembly.stacking import Fitted
from finegap.core.assembly.tightening import Tightened, Wrench
from finegap.core.families.family import Family
from finegap.core.formatting import Sentence
from finegap.core.gap.housing import Zero
from finegap.core.gap.leaves import pair_piles
from finegap.core.gap.tries import Check, TryMade
from finegap.core.gap.viscosity import has_points
from finegap.core.gauges import CabinetGauge, GaugeKind
from finegap.core.job import Assessment, assess
from finegap.core.means.registry import GEAR
from finegap.core.measuring import readings as measuring
from finegap.core.measuring.temperature import Warm
from finegap.core.procedure import ShopStep, in_force
from finegap.core.proof.run_in import Note
from finegap.core.proof.seen import Proof
from finegap.core.sheet import SpecSheet, read_sheet
from finegap.core.stamp import Stamp
from finegap.core.units import Dimension
from finegap.core.wear.hours import HoursRead
from finegap.core.wear.lives import MeasuredSize, Visit
from finegap.inventory.models import Certificate, GasketStock, Gauge
from finegap.inventory.queries import works_settings
from finegap.pumps.duty import read_again


@dataclass(frozen=True)
class Records:
    """A job's rows, each kind read once, and the job record made of them when it is asked for.

    ``names`` are people by key, ``certificates`` those that something on the job was measured under. Readings, torques and tries
    hold what was struck out, too; of all others it is in ``struck``.
    """

    job: Job
    gauges: list[Gauge]
    certificates: dict[int, Certificate]
    new_parts: list[NewPart]
    names: dict[int, str]
    readings: list[Reading]
    steps: list[StepMark]
    decisions: list[Decision]
    looks: list[Look]
    on_hand: list[OnHand]
    photos: list[Photo]
    tries: list[Try]
    checks: dict[uuid.UUID, list[TryCheck]]
    fitted: list[PartFitted]
    torques: list[TorqueMark]
    proofs: list[ProofMark]
    run_in: list[RunInNote]
    zero: ZeroFound | None
    struck: list[Struck]

    def stamp(self, row: Recorded) -> Stamp:
        """By whom a row was recorded, and when."""
        return Stamp(str(row.id), self.names[row.by_id], row.when.isoformat())

    @cached_property
    def assessment(self) -> Assessment:
        """Everything the core says about the job, worked out once."""
        return assess(self.job_record)

    @cached_property
    def job_record(self) -> core.JobRecord:
        """What the rows say, as the core takes it."""
        return _facts(self)


Struck = StepMark | Decision | NewPart | PartFitted | ProofMark | RunInNote | ZeroFound
"""A row that can be struck out, of a kind that is then shown nowhere else."""

S = TypeVar("S", StepMark, Decision, NewPart, PartFitted, ProofMark, RunInNote, ZeroFound)


@lru_cache(maxsize=64)
def _sheet(content: str) -> SpecSheet:
    return read_sheet(json.loads(content))


def sheet_of(job: Job) -> SpecSheet:
    """The spec sheet a job works to; the same contents are read once."""
    return _sheet(json.dumps(job.revision.content))


def family_of(job: Job) -> Family:
    """The family as the job's pump is built, with the procedure the job goes by."""
    return in_force(sheet_of(job).family_of(job.build), shop_of(job))


def shop_of(job: Job) -> tuple[ShopStep, ...]:
    """The shop's version of the procedure that the job keeps; none where the family's own is followed."""
    return tuple(ShopStep(**step) for step in job.procedure.steps) if job.procedure else ()


def core_gauge(certificate: Certificate) -> measuring.CertifiedGauge:
    """A gauge as the core knows it, under one of its certificates."""
    given = certificate
    return measuring.CertifiedGauge(given.gauge.tag, given.resolution, given.expanded, given.k, given.repeatability)


def core_choice(gauge: Gauge) -> CabinetGauge:
    """A gauge as the core chooses among them."""
    now = gauge.now
    overdue = now.due < timezone.localdate()
    return CabinetGauge(core_gauge(now), GaugeKind(gauge.kind), now.low, now.high, overdue, tuple(now.leaves_um))


def reads_lengths(gauge: Gauge) -> bool:
    """Whether it can measure a part at all: a torque wrench cannot."""
    return GaugeKind(gauge.kind).dimension is Dimension.LENGTH


_READINGS = Compiled(lambda job: Reading.objects.filter(job=job))
_TRIES = Compiled(lambda job: Try.objects.filter(job=job))
_CHECKS = Compiled(lambda job: TryCheck.objects.filter(made__job=job))
_PROOFS = Compiled(lambda job: ProofMark.objects.filter(job=job))
_RUN_IN = Compiled(lambda job: RunInNote.objects.filter(job=job))
_FITTED = Compiled(lambda job: PartFitted.objects.filter(job=job))
_TORQUES = Compiled(lambda job: TorqueMark.objects.filter(job=job))
_STEPS = Compiled(lambda job: StepMark.objects.filter(job=job))
_DECISIONS = Compiled(lambda job: Decision.objects.filter(job=job))
_LOOKS = Compiled(lambda job: Look.objects.filter(job=job))
_NEW_PARTS = Compiled(lambda job: NewPart.objects.filter(job=job))
_ON_HAND = Compiled(lambda job: OnHand.objects.filter(job=job))
_ZEROS = Compiled(lambda job: ZeroFound.objects.filter(job=job))
_PHOTOS = Compiled(lambda job: Photo.objects.filter(job=job))
_GAUGES = Compiled(lambda _: Gauge.objects.select_related(None))
_CERTIFICATES = Compiled(lambda _: Certificate.objects.filter(pk__in=Gauge.objects.select_related(None).values("current")))
_PEOPLE = Compiled(lambda _: User.objects.only("first_name", "last_name", "username"))


def load(job: Job) -> Records:
    """Read a job's rows, each kind once."""
    key = job.pk
    readings, tries, torques = _READINGS(key), _TRIES(key), _TORQUES(key)
    checks: dict[uuid.UUID, list[TryCheck]] = {one.pk: [] for one in tries}
    for check in _CHECKS(key):
        checks[check.made_id].append(check)
    struck: list[Struck] = []
    proofs, run_in = _standing(_PROOFS(key), struck), _standing(_RUN_IN(key), struck)
    fitted = _standing(_FITTED(key), struck)
    gauges, certificates = _join_gauges(readings, [c for of in checks.values() for c in of], torques)
    steps, decisions, looks = _standing(_STEPS(key), struck), _standing(_DECISIONS(key), struck), _LOOKS(key)
    new_parts, on_hand = _standing(_NEW_PARTS(key), struck), _ON_HAND(key)
    zero = next(iter(_standing(_ZEROS(key), struck)), None)
    photos = _PHOTOS(key)
    return Records(
        job=job,
        gauges=list(gauges.values()),
        certificates=certificates,
        new_parts=new_parts,
        names=_names(),
        readings=readings,
        steps=steps,
        decisions=decisions,
        looks=looks,
        on_hand=on_hand,
        photos=photos,
        tries=tries,
        checks=checks,
        fitted=fitted,
        torques=torques,
        proofs=proofs,
        run_in=run_in,
        zero=zero,
        struck=struck,
    )


def _facts(records: Records) -> core.JobRecord:
    """The record of a job, from its rows and what lies beside them: its sheet, the shelf, earlier overhauls, the works."""
    job, zero, tries, checks, proofs = records.job, records.zero, records.tries, records.checks, records.proofs
    stock = GasketStock.objects.filter(sheet=job.revision.sheet_id).values_list("thickness_um", "count")
    sheet = sheet_of(job)
    build = {**sheet.build, **job.build}
    return core.JobRecord(
        sheet=sheet,
        duty=_duty(job),
        readings=_grouped(sheet.family_of(build), records.readings),
        steps_done=frozenset(s.step for s in records.steps),
        decisions=core.one_decision(
            sheet.family,
            {d.feature: core.FeatureDecision(core.Decided(d.decided), d.reason, tuple(d.parts)) for d in records.decisions},
        ),
        zero=Zero(zero.school) if zero else None,
        lash_mm=zero.lash_mm if zero else sheet.means.lash_mm,
        tries=tuple(try_made(t, checks[t.pk]) for t in tries if t.sets == TryOf.GAP and not t.struck_reason),
        mesh_tries=tuple(try_made(t, checks[t.pk]) for t in tries if t.sets == TryOf.MESH and not t.struck_reason),
        opened=frozenset(sheet.means.kind if t.sets == TryOf.GAP else GEAR for t in tries if t.opened and not t.struck_reason),
        box=dict(stock),
        build=build,
        shop=shop_of(job),
        looks={(k.feature, core.Phase(k.phase)): core.SeenDamage(tuple(k.damages)) for k in records.looks},
        past=_past(job),
        gauges=tuple(core_choice(gauge) for gauge in records.gauges if reads_lengths(gauge)),
        gauge_faults=_faults(records.readings, [c for t in tries if not t.struck_reason for c in checks[t.pk]], records.torques),
        symptom=job.symptom,
        skipped=frozenset(s.step for s in records.steps if s.skipped),
        fitted=tuple(Fitted(row.stack, row.part, row.reused, row.reason, row.made, records.stamp(row)) for row in records.fitted),
        tightened=tuple(_tightened(row, records) for row in records.torques),
        wrenches=tuple(core_wrench(gauge) for gauge in records.gauges if gauge.kind == GaugeKind.TORQUE_WRENCH.value),
        lubricant=job.lubricant,
        grams_per_ten_strokes=job.gun.grams_per_ten_strokes if job.gun else None,
        proofs=tuple(Proof(p.step, p.seen, p.value, p.typed, tuple(p.places), records.stamp(p)) for p in proofs),
        on_hand={row.item: row.here for row in records.on_hand},
        run_in=tuple(
            Note(n.minute, n.drops, n.box_c, n.eighths, n.number, n.drops_expanded, records.stamp(n)) for n in records.run_in
        ),
        confirmed_new=frozenset(one.feature for one in records.new_parts),
        new_share=works_settings().new_share,
        renewed=job.renewed,
    )


def _standing(rows: Iterable[S], struck: list[Struck]) -> list[S]:
    """Rows that count; the others go to ``struck``."""
    standing: list[S] = []
    for row in rows:
        (struck if row.struck_reason else standing).append(row)
    return standing


def _join_gauges(
    readings: list[Reading], checks: list[TryCheck], torques: list[TorqueMark]
) -> tuple[dict[int, Gauge], dict[int, Certificate]]:
    """The cabinet, and the certificates of what was measured. A few serve many rows: joined here once, not row by row in SQL."""
    newest = {one.gauge_id: one for one in _CERTIFICATES()}
    gauges = {gauge.pk: gauge for gauge in _GAUGES()}
    for gauge in gauges.values():
        gauge.current = newest[gauge.pk]
    used = {row.certificate_id for rows in (readings, checks, torques) for row in rows if row.certificate_id}
    certificates = {g.now.pk: g.now for g in gauges.values() if g.now.pk in used}
    certificates |= {one.pk: one for one in Certificate.objects.filter(pk__in=used - certificates.keys())} if used else {}
    for certificate in (*certificates.values(), *(g.now for g in gauges.values())):
        certificate.gauge = gauges[certificate.gauge_id]
    for reading in readings:
        reading.gauge, reading.certificate = gauges[reading.gauge_id], certificates[reading.certificate_id]
    for check in checks:
        check.gauge = gauges[check.gauge_id] if check.gauge_id else None
        check.certificate = certificates[check.certificate_id] if check.certificate_id else None
    for mark in torques:
        mark.wrench, mark.certificate = gauges[mark.wrench_id], certificates[mark.certificate_id]
    return gauges, certificates


def _duty(job: Job) -> core.Duty:
    """What the pump does; the liquid's two points are read anew from what was typed, where two were."""
    known = read_again(job) if has_points(job.viscosity_typed) else None
    return core.Duty(
        job.material,
        job.viscosity_mm2_s,
        job.temperature_c,
        job.casing_c,
        job.pressure_bar,
        job.speed_r_min,
        job.medium,
        known.liquid if known else None,
        job.density_kg_m3,
        job.start_c,
        job.hot_c,
    )


def _tightened(row: TorqueMark, records: Records) -> Tightened:
    return Tightened(
        row.fastener,
        row.pass_number,
        tuple(row.bolts),
        row.at_nut_n_m,
        row.made,
        typed=row.typed,
        adapter=row.adapter,
        wrench=row.wrench.tag,
        certificate=row.certificate.number,
        overdue=row.wrench_overdue,
        struck_reason=row.struck_reason,
        stamp=records.stamp(row),
    )


def core_wrench(gauge: Gauge) -> Wrench:
    """A torque wrench as the core knows it."""
    return Wrench(gauge.tag, gauge.now.low, gauge.now.high, gauge.now.due < timezone.localdate())


def name_of(user: User) -> str:
    """A person's name as it is shown and signed."""
    return user.get_full_name() or user.username


def _names() -> dict[int, str]:
    return {user.pk: name_of(user) for user in _PEOPLE()}


def _grouped(family: Family, rows: list[Reading]) -> dict[tuple[str, core.Phase], tuple[measuring.StationReading, ...]]:
    planes = {(f.key, s.key): s.plane for f in family.features for s in f.stations}
    gauges = {row.certificate_id: core_gauge(row.certificate) for row in rows}
    groups: dict[tuple[str, core.Phase], list[measuring.StationReading]] = {}
    for row in rows:
        if not row.struck_reason:
            reading = measuring.StationReading(
                row.station,
                planes.get((row.feature, row.station), ""),
                row.value_mm,
                gauges[row.certificate_id],
                row.half_mm,
                None if row.part_c is None or row.expansion_um_m_k is None else Warm(row.part_c, row.expansion_um_m_k),
                reading_faults(row),
                row.reason,
                _pile(row),
            )
            groups.setdefault((row.feature, core.Phase(row.phase)), []).append(reading)
    return {key: tuple(group) for key, group in groups.items()}


def _pile(row: Reading) -> int:
    """How many leaves the larger pile of a feeler reading has."""
    if not row.half_mm:
        return 1
    return pair_piles(row.value_mm - row.half_mm, row.value_mm + row.half_mm, tuple(row.certificate.leaves_um))


def reading_faults(row: Reading) -> tuple[Sentence, ...]:
    """What there is against the gauge a reading was taken with."""
    faults = []
    if row.gauge_overdue:
        faults.append(_overdue(row.gauge))
    if row.out_of_range:
        faults.append(Sentence("{gauge} was used outside its range.", {"gauge": row.gauge.tag}))
    return tuple(faults)


def _overdue(gauge: Gauge) -> Sentence:
    return Sentence("{gauge} was past its calibration date.", {"gauge": gauge.tag})


def try_made(row: Try, checks: list[TryCheck]) -> TryMade:
    """A try as the core takes it."""
    read = tuple(Check(c.value_mm, c.u_mm, math.inf if c.dof is None else c.dof, c.half_mm) for c in checks)
    return TryMade(read, row.moved, tuple(tuple(stack) for stack in row.stacks_um), row.made)


def _faults(readings: list[Reading], checks: list[TryCheck], torques: list[TorqueMark]) -> tuple[Sentence, ...]:
    faults = [fault for row in readings if not row.struck_reason for fault in reading_faults(row)]
    faults += [_overdue(c.gauge) for c in checks if c.gauge_overdue and c.gauge]
    faults += [_overdue(t.wrench) for t in torques if t.wrench_overdue and not t.struck_reason]
    return tuple({(f.template, *f.amounts.values()): f for f in faults}.values())


_COLUMNS = (
    "job__number", "job__opened_at", "job__hours_run", "job__old_meter_last", "job__new_meter_first", "job__pressure_bar",
    "job__speed_r_min", "feature", "found_mm", "found_u_mm", "left_mm", "left_u_mm", "changed",
)  # fmt: skip


def _past(job: Job) -> core.Past:
    """Earlier overhauls of this pump that were signed, one visit of each feature an overhaul."""
    rows = (
        SizeOnRecord.objects.counting().filter(job__pump=job.pump_id, job__number__lt=job.number).order_by("job__number", "feature")
    )
    visits: dict[str, list[Visit]] = {}
    for number, opened, hours, old_last, new_first, bar, speed, feature, found, found_u, left, left_u, changed in rows.values_list(
        *_COLUMNS
    ):
        visits.setdefault(feature, []).append(
            Visit(
                number,
                opened.toordinal(),
                HoursRead(hours, old_last, new_first),
                bar * speed,
                None if found is None else MeasuredSize(found, found_u),
                changed,
                None if left is None else MeasuredSize(left, left_u),
            )
        )
    return core.Past(
        {key: tuple(of) for key, of in visits.items()},
        job.number,
        job.opened_at.toordinal(),
        HoursRead(job.hours_run, job.old_meter_last, job.new_meter_first),
        job.pump.overhaul_every_h,
    )
