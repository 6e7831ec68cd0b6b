"""What the disc spring of a sheet does under its nut."""

from __future__ import annotations

from collections.abc import Iterable

from finegap.core.assembly.declared import DiscSpec, Torque
from finegap.core.assembly.disc_spring import preload_lines
from finegap.core.assembly.tightening import Tightening
from finegap.core.result_lines import ResultLine


def spring_lines(spec: DiscSpec | None, torques: Iterable[Torque]) -> tuple[ResultLine, ...]:
    """Its lines; none where the sheet has no disc spring. ``torques`` are those that are tightened in the job."""
    if spec is None:
        return ()
    under = next((Tightening(torque, ()) for torque in torques if torque.key == spec.under), None)
    joint = under.joint if under else None
    preload = joint.preload_n(under.torque.low_n_m, under.torque.high_n_m) if under and joint else None
    return preload_lines(spec.disc, spec.settles_mm, preload)
