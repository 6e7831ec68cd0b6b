"""What the gaps of a pump cost: slip of each, flow at the duty, power lost, and what a new part would give back."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

from finegap.core.errors import FieldError
from finegap.core.gap.slip import Fluid, Slot, is_laminar
from finegap.core.reckoned import Line, Stand
from finegap.core.showing import Amount, Amounts, Kind, Sentence, length
from finegap.core.working import Given, Working

_L_MIN = 60_000.0
HEAT_J_KG_K = 1900.0
"""Specific heat taken for the liquid: mineral oil near 40 C, handbooks (from memory)."""

USUAL_KG_M3 = 900.0
"""Density taken where nobody has said: mineral oil (common practice)."""


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
        """The slot at a gap. Without lands a square one: only ratios of it mean anything then."""
        wall = math.pi * self.wall_mm / 1000 * speed_r_min / 60 * (-1 if self.against else 1)
        return Slot(gap_mm * self.share, self.width_mm or 1.0, self.length_mm or 1.0, pressure_bar, fluid, wall)


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
            if self._modelled(self.test) <= 0:
                raise FieldError("test", "nothing would slip at these gaps.", "Expected a pressure and gaps above zero.")

    def _modelled(self, test: TestPoint) -> float:
        fluid = Fluid(test.viscosity_mm2_s, USUAL_KG_M3)
        return sum(
            p.slot(test.gaps_mm[p.feature], test.pressure_bar, test.speed_r_min, fluid).flow_m3_s * _L_MIN for p in self.paths
        )

    @property
    def factor(self) -> float:
        """How much more slips than the lands say, from the test; 1 without one."""
        if self.test is None:
            return 1.0
        return (self.displacement_l * self.test.speed_r_min - self.test.flow_l_min) / self._modelled(self.test)


@dataclass(frozen=True)
class Passing:
    """What passes one path, in L/min; against the new gap, too, where that is known. ``assumed``: not measured, taken as new."""

    path: Path
    gap_mm: float
    slip_l_min: float
    new_mm: float | None
    new_slip_l_min: float | None
    laminar: bool
    assumed: bool = False

    @property
    def gives_back_l_min(self) -> float:
        """What a part as new would give back."""
        return 0.0 if self.new_slip_l_min is None else max(self.slip_l_min - self.new_slip_l_min, 0.0)


@dataclass(frozen=True)
class Performance:
    """What the pump does at its duty with the gaps it has."""

    losses: Losses
    passing: tuple[Passing, ...]
    pressure_bar: float
    speed_r_min: float
    fluid: Fluid
    shear_w: float

    @property
    def theoretical_l_min(self) -> float:
        """What it displaces."""
        return self.losses.displacement_l * self.speed_r_min

    @property
    def slip_l_min(self) -> float:
        """All paths together."""
        return sum(p.slip_l_min for p in self.passing)

    @property
    def flow_l_min(self) -> float:
        """What comes out: never less than nothing."""
        return max(self.theoretical_l_min - self.slip_l_min, 0.0)

    @property
    def efficiency(self) -> float:
        """Volumetric, as a share."""
        return self.flow_l_min / self.theoretical_l_min

    @property
    def hydraulic_w(self) -> float:
        """Power of what comes out."""
        return self.flow_l_min / _L_MIN * self.pressure_bar * 1e5

    @property
    def lost_w(self) -> float:
        """Power that goes into heat in the gaps: slip through the pressure, and the liquid sheared between the walls."""
        return max(self.slip_l_min, 0.0) / _L_MIN * self.pressure_bar * 1e5 + self.shear_w

    @property
    def warmer_k(self) -> float | None:
        """By how much the lost power warms what comes out; ``None`` where nothing does."""
        mass = self.flow_l_min / _L_MIN * self.fluid.density_kg_m3
        return self.lost_w / (mass * HEAT_J_KG_K) if mass else None

    def lines(self) -> tuple[Line, ...]:
        """The duty in lines, each with its working."""
        return (*self.path_lines(), *self._flow_lines(), *self._power_lines())

    def path_lines(self) -> tuple[Line, ...]:
        """What each gap costs, the most costly first, and what a new part gives back."""
        lines = []
        for one in sorted(self.passing, key=lambda p: -p.slip_l_min):
            amounts: Amounts = {
                "gap": length(one.gap_mm, fine=True),
                "slip": Amount(one.slip_l_min, Kind.FLOW_ABOUT),
                "new": length(one.new_mm or 0.0, fine=True),
                "back": Amount(one.gives_back_l_min, Kind.FLOW_ABOUT),
            }
            words = "{slip} at {gap}"
            if one.assumed:
                words += ", taken as new: not measured"
            elif one.new_slip_l_min is not None:
                words += "; as new ({new}) it gives {back} back" if one.gives_back_l_min > 0 else "; no more than as new"
            lines.append(Line(one.path.name, Sentence(words, amounts), Stand.GOOD if one.laminar else Stand.CARE, self._path(one)))
        return tuple(lines)

    def _path(self, one: Passing) -> Working:
        if one.gap_mm <= 0:
            gap = (Given("h", "gap", length(one.gap_mm, fine=True)),)
            return Working(f"Slip, {one.path.name.lower()}", "h ≤ 0: the faces touch", gap, Amount(0.0, Kind.FLOW), "definition")
        slot = one.path.slot(one.gap_mm, self.pressure_bar, self.speed_r_min, self.fluid)
        by_test = self.losses.test is not None
        calibrated = (Given("k", "from the test of the sheet", Amount(self.losses.factor, Kind.FINE_NUMBER)),) if by_test else ()
        lands = one.path.width_mm is not None
        return Working(
            f"Slip, {one.path.name.lower()}",
            ("k·(w·h³·Δp / (12·μ·L) + w·h·U/2)" if by_test else "w·h³·Δp / (12·μ·L) + w·h·U/2"),
            (*slot.working.given, *calibrated),
            Amount(one.slip_l_min, Kind.FLOW),
            slot.working.source,
            slot.working.notes if lands else (Sentence("The sheet has no land: w and L are one, and k stands for them."),),
        )

    def _flow_lines(self) -> tuple[Line, ...]:
        flows = {
            "V": Given("V", "displacement", f"{self.losses.displacement_l:g} L a turn"),
            "n": Given("n", "speed", f"{self.speed_r_min:g} r/min"),
            "S": Given("S", "slip of all gaps", Amount(self.slip_l_min, Kind.FLOW)),
        }
        flow = Amount(self.flow_l_min, Kind.FLOW_ABOUT)
        none = self.flow_l_min <= 0
        source = "definition (ISO 4391: volumetric efficiency; from memory)"
        efficiency = Amount(100 * self.efficiency, Kind.SHARE)
        return (
            Line("Flow at the duty", Sentence("{q}: all of it slips back.", {"q": flow}) if none else flow,
                 Stand.STOP if none else Stand.GOOD,
                 Working("Flow at the duty", "Q = V·n − S", tuple(flows.values()), flow, source)),
            Line("Volumetric efficiency", efficiency, Stand.GOOD,
                 Working("Volumetric efficiency", "η = (V·n − S) / (V·n)", tuple(flows.values()), efficiency, source)),
        )  # fmt: skip

    def _power_lines(self) -> tuple[Line, ...]:
        lost = Amount(self.lost_w / 1000, Kind.POWER)
        given = (
            Given("S", "slip of all gaps", Amount(self.slip_l_min, Kind.FLOW)),
            Given("Δp", "pressure difference", Amount(self.pressure_bar, Kind.PRESSURE)),
            Given("Pₛ", "liquid sheared between the walls, μ·U²·w·L/h", Amount(self.shear_w / 1000, Kind.POWER)),
        )
        working = Working("Power lost in the gaps", "P = S·Δp + Pₛ", given, lost, "definition; Couette flow (from memory)")
        lines = (Line("Power lost in the gaps", lost, working=working),)
        if self.warmer_k is None:
            return lines
        warmer = Amount(self.warmer_k, Kind.TEMPERATURE_STEP)
        heat = Working(
            "What the lost power warms",
            "ΔT = P / (ρ·c·Q)",
            (
                Given("P", "power lost in the gaps", lost),
                Given("ρ", "density", f"{self.fluid.density_kg_m3:g} kg/m³"),
                Given("c", "specific heat", f"{HEAT_J_KG_K:g} J/(kg·K)"),
                Given("Q", "flow at the duty", Amount(self.flow_l_min, Kind.FLOW)),
            ),
            warmer,
            "heat balance, all of it carried off by what comes out; specific heat of mineral oil (from memory)",
        )
        return (*lines, Line("Which warms what comes out by", warmer, working=heat))


def perform(
    losses: Losses,
    gaps_mm: Mapping[str, float],
    new_mm: Mapping[str, float],
    pressure_bar: float,
    speed_r_min: float,
    fluid: Fluid,
) -> Performance | None:
    """What the pump does at its duty.

    Parameters
    ----------
    losses : Losses
        The sheet's.
    gaps_mm, new_mm : mapping of str to float
        Each gap by feature, as it is and as new.
    pressure_bar, speed_r_min : float
        The duty.
    fluid : Fluid
        The liquid when pumping.

    Returns
    -------
    Performance or None
        ``None`` while no gap of its paths is known, or one neither is nor has a new size, or nothing turns. What was not measured
        is taken as new.
    """
    known = {p.feature: gaps_mm.get(p.feature, new_mm.get(p.feature)) for p in losses.paths}
    if speed_r_min <= 0 or None in known.values() or not any(p.feature in gaps_mm for p in losses.paths):
        return None
    gaps = {key: mm for key, mm in known.items() if mm is not None}
    k = losses.factor

    def passes(path: Path, gap_mm: float) -> tuple[float, bool]:
        if gap_mm <= 0:
            return 0.0, True
        slot = path.slot(gap_mm, pressure_bar, speed_r_min, fluid)
        return k * slot.flow_m3_s * _L_MIN, is_laminar(slot) or path.width_mm is None

    passing = []
    for path in losses.paths:
        gap, fresh = gaps[path.feature], new_mm.get(path.feature)
        slip, laminar = passes(path, gap)
        passing.append(
            Passing(path, gap, slip, fresh, passes(path, fresh)[0] if fresh else None, laminar, path.feature not in gaps_mm)
        )
    shear = sum(_shear_w(path, gaps[path.feature], speed_r_min, fluid) for path in losses.paths)
    return Performance(losses, tuple(passing), pressure_bar, speed_r_min, fluid, shear)


def _shear_w(path: Path, gap_mm: float, speed_r_min: float, fluid: Fluid) -> float:
    """Power that shears the liquid of a path whose wall runs: mu U^2 w L / h."""
    if not path.wall_mm or gap_mm <= 0 or path.width_mm is None or path.length_mm is None:
        return 0.0
    wall_m_s = math.pi * path.wall_mm / 1000 * speed_r_min / 60
    area_m2 = path.width_mm * path.length_mm / 1e6
    return fluid.pa_s * wall_m_s**2 * area_m2 / (gap_mm * path.share / 1000)


def gap_for(slip_ratio: float, gap_mm: float) -> float:
    """The gap that would let ``slip_ratio`` times as much through: the inverse of the cube law."""
    return gap_mm * math.cbrt(slip_ratio)
