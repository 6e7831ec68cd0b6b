"""Rows of the bench as the core takes them: one row, or rows of one kind, at a time."""

from __future__ import annotations

import math

from django.utils import timezone

from finegap.bench.models import Job, Reading, TorqueMark, Try, TryCheck
from finegap.core import job_record as core
from finegap.core.assembly.tightening import Wrench
from finegap.core.families.family import Family
from finegap.core.formatting import Sentence
from finegap.core.gap.leaves import pair_piles
from finegap.core.gap.tries import Check, TryMade
from finegap.core.gap.viscosity import has_points
from finegap.core.gauges import CabinetGauge, GaugeKind
from finegap.core.kept import kept
from finegap.core.measuring import readings as measuring
from finegap.core.measuring.temperature import Warm
from finegap.core.units import Dimension
from finegap.inventory.models import Certificate, Gauge
from finegap.pumps.duty import read_again


def core_gauge(certificate: Certificate) -> measuring.CertifiedGauge:
    """A gauge as the core knows it, under one of its certificates."""
    given = certificate
    return measuring.CertifiedGauge(given.gauge.tag, given.resolution, given.expanded, given.k, given.repeatability)


def core_choice(gauge: Gauge) -> CabinetGauge:
    """A gauge as the core chooses among them."""
    now = gauge.now
    return _choice(core_gauge(now), gauge.kind, now.low, now.high, now.due < timezone.localdate(), tuple(now.leaves_um))


@kept(1024)
def _choice(
    gauge: measuring.CertifiedGauge, kind: str, low: float, high: float, overdue: bool, leaves: tuple[int, ...]
) -> CabinetGauge:
    """The same object for the same gauge: what it has worked out of itself once stays with it."""
    return CabinetGauge(gauge, GaugeKind(kind), low, high, overdue, leaves)


def reads_lengths(gauge: Gauge) -> bool:
    """Whether it can measure a part at all: a torque wrench cannot."""
    return GaugeKind(gauge.kind).dimension is Dimension.LENGTH


def core_wrench(gauge: Gauge) -> Wrench:
    """A torque wrench as the core knows it."""
    return Wrench(gauge.tag, gauge.now.low, gauge.now.high, gauge.now.due < timezone.localdate())


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


def _pile(row: Reading) -> int:
    """How many leaves the larger pile of a feeler reading has."""
    if not row.half_mm:
        return 1
    return pair_piles(row.value_mm - row.half_mm, row.value_mm + row.half_mm, tuple(row.certificate.leaves_um))


def grouped(family: Family, rows: list[Reading]) -> dict[tuple[str, core.Phase], tuple[measuring.StationReading, ...]]:
    """Readings that count, by part and phase."""
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


def duty_of(job: Job) -> core.Duty:
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


def try_made(row: Try, checks: list[TryCheck]) -> TryMade:
    """A try as the core takes it."""
    read = tuple(Check(c.value_mm, c.u_mm, math.inf if c.dof is None else c.dof, c.half_mm) for c in checks)
    return TryMade(read, row.moved, tuple(tuple(stack) for stack in row.stacks_um), row.made)


def gauge_faults(readings: list[Reading], checks: list[TryCheck], torques: list[TorqueMark]) -> tuple[Sentence, ...]:
    """What there is against the gauges used, each said once."""
    faults = [fault for row in readings if not row.struck_reason for fault in reading_faults(row)]
    faults += [_overdue(c.gauge) for c in checks if c.gauge_overdue and c.gauge]
    faults += [_overdue(t.wrench) for t in torques if t.wrench_overdue and not t.struck_reason]
    return tuple({(f.template, *f.amounts.values()): f for f in faults}.values())
