"""Facts of a job for tests of the core alone: no database. Numbers of no meaning."""

from __future__ import annotations

import math
from typing import Any

from finegap.core.assembly.tightening import Tightened
from finegap.core.assembly.torque import DEFAULT_PASSES
from finegap.core.families.features import FeatureKind
from finegap.core.gap.housing import Zero
from finegap.core.gap.tries import Check, TryMade
from finegap.core.job_record import Duty, JobRecord, Phase, SeenDamage
from finegap.core.measuring.readings import CertifiedGauge, StationReading
from finegap.core.sheet import SpecSheet, read_sheet
from tests.apps.base import GASKETS, GOOD, sheet_data

GAUGE = CertifiedGauge("M", 0.001, 0.002, 2, repeatability_mm=0.001)


def sheet(**changes: Any) -> SpecSheet:
    """The test sheet, with changes."""
    return read_sheet(sheet_data(**changes))


def gasket_sheet() -> SpecSheet:
    """The test sheet set by gaskets."""
    return sheet(adjustment=GASKETS)


def readings(sizes: dict[str, float], of: SpecSheet, phase: Phase = Phase.FOUND) -> dict[Any, Any]:
    """Each feature read once at each of its stations."""
    return {
        (key, phase): tuple(StationReading(s.key, s.plane, mm, GAUGE) for s in of.family.by_key[key].stations)
        for key, mm in sizes.items()
    }


TORQUES = (
    Tightened("lock nut", 1, (1,), 85.0),
    *(Tightened("head bolts", n + 1, (1, 3, 2, 4), 42 * share) for n, share in enumerate(DEFAULT_PASSES)),
)


def job_record(**changes: Any) -> JobRecord:
    """A finished job: all steps done, all sizes good, the gap tried once and right."""
    of = changes.pop("sheet", None) or sheet()
    given: dict[str, Any] = {
        "sheet": of,
        "duty": Duty("cast iron", 50, 60, 60),
        "readings": readings({k: mm for k, mm in GOOD.items() if k in of.family.by_key}, of),
        "steps_done": frozenset(s.key for s in of.family.steps),
        "decisions": {},
        "zero": Zero.BACK_OFF,
        "lash_mm": 0.0,
        "tries": (TryMade((Check(0.12, 0.003, math.inf),), moved=18.85),),
        "box": {},
        "tightened": TORQUES,
        "confirmed_new": frozenset({"lock_washer"}),
        "looks": {(f.key, Phase.FOUND): SeenDamage() for f in of.family_of({}).features if f.kind is FeatureKind.CHECK},
    }
    return JobRecord(**(given | changes))
