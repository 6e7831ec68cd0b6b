"""What a sheet says of slip: the paths back for the liquid, and a test of the pump to calibrate them on."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

from finegap.core.errors import FieldError
from finegap.core.formatting import Sentence
from finegap.core.gap.slip import Fluid, Slot, untold

L_MIN = 60_000.0
"""Litres a minute in a cubic metre a second."""

USUAL_KG_M3 = 900.0
"""Density taken where nobody has said: mineral oil (common practice)."""


@dataclass(frozen=True)
class Flows:
    """What passes a path, in L/min: driven by the pressure, dragged by the wall; and why there is no number, if there is none."""

    driven: float
    dragged: float
    untold: Sentence | None = None


@dataclass(frozen=True)
class Path:
    """One way back for the liquid, through a gap that is measured.

    ``feature`` names the gap; ``share`` of it is the height of the path (a half where a clearance on the diameter is meant); the
    land is ``width_mm`` across the flow and ``length_mm`` along it, both ``None`` where the sheet has none. A wall of
    ``wall_mm`` diameter runs with the pump, carrying liquid against the slip where ``against``.
    """

    feature: str
    name: str
    width_mm: float | None = None
    length_mm: float | None = None
    share: float = 1.0
    wall_mm: float = 0.0
    against: bool = False

    def slot(self, gap_mm: float, pressure_bar: float, speed_r_min: float, fluid: Fluid) -> Slot:
        """The slot at a gap; of a path with lands."""
        wall = math.pi * self.wall_mm / 1000 * speed_r_min / 60 * (-1 if self.against else 1)
        return Slot(gap_mm * self.share, self.width_mm or 1.0, self.length_mm or 1.0, pressure_bar, fluid, wall)

    @property
    def has_land(self) -> bool:
        """Width and length are on the sheet."""
        return self.width_mm is not None and self.length_mm is not None

    def flows(self, gap_mm: float, pressure_bar: float, speed_r_min: float, fluid: Fluid) -> Flows:
        """The flow through a gap. A path without lands has the laminar law of a square land; only ratios of it mean anything."""
        if gap_mm <= 0:
            return Flows(0.0, 0.0)
        if not self.has_land:
            return Flows((gap_mm * self.share) ** 3 * pressure_bar / fluid.pa_s, 0.0)
        slot = self.slot(gap_mm, pressure_bar, speed_r_min, fluid)
        return Flows(slot.pressure_m3_s * L_MIN, slot.drag_m3_s * L_MIN, untold(slot))


@dataclass(frozen=True)
class TestPoint:
    """A test of the pump with known gaps: flow in L/min, pressure in bar, viscosity in mm2/s, speed in r/min, gaps in mm."""

    __test__ = False

    flow_l_min: float
    pressure_bar: float
    viscosity_mm2_s: float
    speed_r_min: float
    gaps_mm: Mapping[str, float]


@dataclass(frozen=True)
class Losses:
    """What a sheet says of slip: displacement in litres a turn, the paths, and a test to calibrate on.

    Raises
    ------
    FieldError
        Neither lands nor a test; several paths of which one has no land; a test that moved more than the pump displaces, or that
        leaves a gap out.
    """

    displacement_l: float
    paths: tuple[Path, ...]
    test: TestPoint | None = None

    def __post_init__(self) -> None:
        bare = [p.feature for p in self.paths if p.width_mm is None or p.length_mm is None]
        if not self.paths:
            raise FieldError("paths", "there is none.", "Expected one gap or more.")
        if bare and (len(self.paths) > 1 or self.test is None):
            problem = f"{bare[0]} has no land, and what passes it cannot be told from the rest."
            raise FieldError("paths", problem, "Expected width and length, or a test of the pump with one path alone.")
        if self.test is not None:
            missing = next((p.feature for p in self.paths if p.feature not in self.test.gaps_mm), None)
            if missing:
                raise FieldError("test.gaps", f"{missing} is missing.", "Expected every gap of the paths, as it was at the test.")
            if self.displacement_l * self.test.speed_r_min <= self.test.flow_l_min:
                raise FieldError("test.flow", "it is more than the pump displaces.", "Expected less than displacement times speed.")
            flows = self._at_the_test(self.test)
            if sum(f.driven for f in flows) <= 0 or any(f.untold for f in flows):
                raise FieldError("test", "what slips at these gaps cannot be told.", "Expected a pressure and gaps above zero.")
            if self.factor <= 0:
                problem = "it is more than the pump displaces and its walls carry back."
                raise FieldError("test.flow", problem, "Expected less.")
        moved = next((p.feature for p in self.paths if p.wall_mm and not p.has_land), None)
        if moved:
            raise FieldError("paths", f"{moved} has a wall that runs, and no land.", "Expected its width and length.")

    def _at_the_test(self, test: TestPoint) -> list[Flows]:
        fluid = Fluid(test.viscosity_mm2_s, USUAL_KG_M3)
        return [p.flows(test.gaps_mm[p.feature], test.pressure_bar, test.speed_r_min, fluid) for p in self.paths]

    @cached_property
    def factor(self) -> float:
        """Slip at the test over the slip the lands give, for what the pressure drives. 1 without a test. Drag of the walls is
        not scaled."""
        if self.test is None:
            return 1.0
        flows = self._at_the_test(self.test)
        lost = self.displacement_l * self.test.speed_r_min - self.test.flow_l_min
        return (lost - sum(f.dragged for f in flows)) / sum(f.driven for f in flows)
