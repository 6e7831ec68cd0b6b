"""From records to the core's job record, in a fixed number of SQL queries."""

from __future__ import annotations

import json
import uuid
from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property, lru_cache
from typing import TypeVar

from django.contrib.auth.models import User

from finegap.bench.as_core import core_choice, core_wrench, duty_of, gauge_faults, grouped, reads_lengths, try_made
from finegap.bench.changes import TryOf
from finegap.bench.compiled import Compiled, Reader
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
    StepMark,
    TorqueMark,
    Try,
    TryCheck,
    ZeroFound,
)
from finegap.bench.past import past_of
from finegap.bench.recorded import Recorded
from finegap.core import job_record as core
from finegap.core.assembly.stacking import Fitted
from finegap.core.assembly.tightening import Tightened
from finegap.core.families.family import Family
from finegap.core.gap.housing import Zero
from finegap.core.gauges import GaugeKind
from finegap.core.job import Assessment, assess
from finegap.core.means.registry import GEAR
from finegap.core.procedure import ShopStep, in_force
from finegap.core.proof.run_in import Note
from finegap.core.proof.seen import Proof
from finegap.core.sheet import SpecSheet, read_sheet
from finegap.core.stamp import Stamp
from finegap.inventory.models import Certificate, Gauge, ShelfLine
from finegap.works.queries import works_settings


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
def sheet_from(content: str) -> SpecSheet:
    """The sheet of its contents as JSON; the same ones are read once."""
    return read_sheet(json.loads(content))


def sheet_of(job: Job) -> SpecSheet:
    """The spec sheet a job works to."""
    return sheet_from(json.dumps(job.revision.content))


def family_of(job: Job) -> Family:
    """The family as the job's pump is built, with the procedure the job goes by."""
    return in_force(sheet_of(job).family_of(build_of(job)), shop_of(job))


def build_of(job: Job) -> dict[str, str]:
    """How the job's pump is built, and which conventions hold: the job's word before the sheet's, that before the shop's."""
    return {**(job.procedure.conventions if job.procedure else {}), **sheet_of(job).build, **job.build}


def shop_of(job: Job) -> tuple[ShopStep, ...]:
    """The shop's version of the procedure that the job keeps; none where the family's own is followed."""
    return tuple(ShopStep(**step) for step in job.procedure.steps) if job.procedure else ()


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


def load(job: Job, read: Reader | None = None) -> Records:
    """Read a job's rows, each kind once; with a reader, only what was written since it read them last."""
    key, read = job.pk, read or Reader()
    readings, tries, torques = read(_READINGS, key), read(_TRIES, key), read(_TORQUES, key)
    checks: dict[uuid.UUID, list[TryCheck]] = {one.pk: [] for one in tries}
    for check in read(_CHECKS, key):
        checks[check.made_id].append(check)
    struck: list[Struck] = []
    proofs, run_in = _standing(read(_PROOFS, key), struck), _standing(read(_RUN_IN, key), struck)
    fitted = _standing(read(_FITTED, key), struck)
    gauges, certificates = _join_gauges(read, readings, [c for of in checks.values() for c in of], torques)
    steps, decisions, looks = _standing(read(_STEPS, key), struck), _standing(read(_DECISIONS, key), struck), read(_LOOKS, key)
    new_parts, on_hand = _standing(read(_NEW_PARTS, key), struck), read(_ON_HAND, key)
    zero = next(iter(_standing(read(_ZEROS, key), struck)), None)
    photos = read(_PHOTOS, key)
    return Records(
        job=job,
        gauges=[gauge for gauge in gauges.values() if not gauge.retired],
        certificates=certificates,
        new_parts=new_parts,
        names={user.pk: name_of(user) for user in read(_PEOPLE)},
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
    stock = ShelfLine.objects.filter(sheet=job.revision.sheet_id).values_list("thickness_um", "count")
    sheet = sheet_of(job)
    build = build_of(job)
    return core.JobRecord(
        sheet=sheet,
        duty=duty_of(job),
        readings=grouped(sheet.family_of(build), records.readings),
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
        past=past_of(job, sheet),
        gauges=tuple(core_choice(gauge) for gauge in records.gauges if reads_lengths(gauge)),
        gauge_faults=gauge_faults(
            records.readings, [c for t in tries if not t.struck_reason for c in checks[t.pk]], records.torques
        ),
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
        sheet_unread=not job.revision.may_be_signed_on,
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
    read: Reader, readings: list[Reading], checks: list[TryCheck], torques: list[TorqueMark]
) -> tuple[dict[int, Gauge], dict[int, Certificate]]:
    """The cabinet, and the certificates of what was measured. A few serve many rows: joined here once, not row by row in SQL."""
    newest = {one.gauge_id: one for one in read(_CERTIFICATES)}
    gauges = {gauge.pk: gauge for gauge in read(_GAUGES)}
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


def name_of(user: User) -> str:
    """A person's name as it is shown and signed."""
    return user.get_full_name() or user.username


def _names() -> dict[int, str]:
    return {user.pk: name_of(user) for user in _PEOPLE()}
