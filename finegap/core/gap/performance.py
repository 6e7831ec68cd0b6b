"""What the gaps of a pump cost: slip of each, flow at the duty, power lost, and what a new part would give back."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

from finegap.core.formatting import Amount, Amounts, Kind, Sentence, length
from finegap.core.gap.losses import L_MIN, Losses, Path
from finegap.core.gap.slip import Fluid
from finegap.core.result_lines import ResultLine, Status
from finegap.core.working import Given, Working

HEAT_J_KG_K = 1900.0
"""Specific heat taken for the liquid: mineral oil near 40 C, handbooks (from memory)."""

_LAYERS_TO = 1000.0
"""Reynolds number of a running wall, on its speed and the gap, to which liquid shears in layers: plane Couette flow turns turbulent
at 1,300 to 1,500 (common knowledge of fluid mechanics, from memory); a good third less is taken."""

_WIDEST = 10.0


@dataclass(frozen=True)
class Passing:
    """What passes one path, in L/min; against the new gap, too, where that is known. ``assumed``: not measured, taken as new.

    ``untold`` says why there is no number, where there is none; the slip is then not to be used.
    """

    path: Path
    gap_mm: float
    slip_l_min: float
    new_mm: float | None
    new_slip_l_min: float | None
    assumed: bool = False
    untold: Sentence | None = None

    @property
    def gives_back_l_min(self) -> float:
        """What a part as new would give back."""
        return 0.0 if self.new_slip_l_min is None else max(self.slip_l_min - self.new_slip_l_min, 0.0)


@dataclass(frozen=True)
class Performance:
    """What the pump does at its duty with the gaps it has. Flow, efficiency and power mean nothing where it is ``untold``."""

    losses: Losses
    passing: tuple[Passing, ...]
    pressure_bar: float
    speed_r_min: float
    fluid: Fluid
    shear_w: float | None

    @cached_property
    def untold(self) -> Sentence | None:
        """Why no flow is told: a path has no number, or the slip is more than the displacement or less than zero."""
        path = next((p.untold for p in self.passing if p.untold is not None), None)
        amounts: Amounts = {
            "slip": Amount(self.slip_l_min, Kind.FLOW_ABOUT),
            "most": Amount(self.theoretical_l_min, Kind.FLOW_ABOUT),
            "forward": Amount(-self.slip_l_min, Kind.FLOW_ABOUT),
        }
        if path is not None:
            return path
        if self.slip_l_min >= self.theoretical_l_min:
            words = (
                "Not told: at this pressure the gaps would let {slip} back, of {most} displaced. It cannot make the pressure, or"
            )
            return Sentence(words + " a gap, the liquid or the pressure is not so.", amounts)
        if self.slip_l_min < 0:
            words = "Not told: the running walls would carry {forward} more forward than slips back. Look at lands and pressure."
            return Sentence(words, amounts)
        return None

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
        """What comes out."""
        return self.theoretical_l_min - self.slip_l_min

    @property
    def efficiency(self) -> float:
        """Volumetric, as a share."""
        return self.flow_l_min / self.theoretical_l_min

    @property
    def lost_w(self) -> float:
        """Power that slips back: displaced less delivered."""
        return self.slip_l_min / L_MIN * self.pressure_bar * 1e5

    @property
    def warmer_k(self) -> float | None:
        """By how many kelvins the losses and the shearing warm the outgoing liquid. ``None`` where the shearing is not known."""
        mass = self.flow_l_min / L_MIN * self.fluid.density_kg_m3
        return None if self.shear_w is None else (self.lost_w + self.shear_w) / (mass * HEAT_J_KG_K)

    def at_pressure(self, pressure_bar: float) -> Performance:
        """The same pump at another pressure difference: what the walls drag stays."""
        return self._with({p.path.feature: p.gap_mm for p in self.passing}, pressure_bar)

    def with_gap(self, feature: str, gap_mm: float) -> Performance:
        """The same duty with one gap another."""
        return self._with({p.path.feature: p.gap_mm for p in self.passing} | {feature: gap_mm}, self.pressure_bar)

    def _with(self, gaps_mm: Mapping[str, float], pressure_bar: float) -> Performance:
        done = perform(self.losses, gaps_mm, {}, pressure_bar, self.speed_r_min, self.fluid)
        assert done is not None
        return done

    def gap_for(self, feature: str, flow_l_min: float) -> float | None:
        """How wide one gap has to be before the outlet gets less than it does now [mm]. ``None`` where ten times as wide does
        not do it."""
        gap = next((p.gap_mm for p in self.passing if p.path.feature == feature), 0.0)
        if gap <= 0:
            return None

        from scipy.optimize import brentq

        def over(wide_mm: float) -> float:
            return self.with_gap(feature, wide_mm).flow_l_min - flow_l_min

        widest = gap * _WIDEST
        return float(brentq(over, gap, widest, xtol=1e-9)) if over(gap) >= 0 >= over(widest) else None

    def lines(self) -> tuple[ResultLine, ...]:
        """The duty in lines, each with its working."""
        if self.untold is not None:
            return (*self.path_lines(), ResultLine("Flow at the duty", self.untold, Status.ASK))
        return (*self.path_lines(), *self._flow_lines(), *self._power_lines())

    def path_lines(self) -> tuple[ResultLine, ...]:
        """What each gap costs, the most costly first, and what a new part gives back."""
        lines = []
        for one in sorted(self.passing, key=lambda p: -p.slip_l_min):
            if one.untold is not None:
                lines.append(ResultLine(one.path.name, one.untold, Status.ASK))
                continue
            amounts: Amounts = {
                "gap": length(one.gap_mm, fine=True),
                "slip": Amount(abs(one.slip_l_min), Kind.FLOW_ABOUT),
                "new": length(one.new_mm or 0.0, fine=True),
                "back": Amount(one.gives_back_l_min, Kind.FLOW_ABOUT),
            }
            words = "{slip} at {gap}" if one.slip_l_min >= 0 else "at {gap} its wall carries {slip} forward, more than slips back"
            if one.assumed:
                words += ", taken as new: not measured"
            elif one.new_slip_l_min is not None:
                words += "; as new ({new}) it gives {back} back" if one.gives_back_l_min > 0 else "; no more than as new"
            # Without a land nobody knows whether the law of its ratio holds; what was not measured is not good.
            status = Status.GOOD if one.path.has_land and not one.assumed else Status.CARE
            lines.append(ResultLine(one.path.name, Sentence(words, amounts), status, self._path(one)))
        return tuple(lines)

    def _path(self, one: Passing) -> Working:
        if one.gap_mm <= 0:
            gap = (Given("h", "gap", length(one.gap_mm, fine=True)),)
            return Working(f"Slip, {one.path.name.lower()}", "h ≤ 0: the faces touch", gap, Amount(0.0, Kind.FLOW), "definition")
        by_test = self.losses.test is not None
        calibrated = (Given("k", "from the test of the sheet", Amount(self.losses.factor, Kind.FINE_NUMBER)),) if by_test else ()
        slip = Amount(one.slip_l_min, Kind.FLOW)
        if not one.path.has_land:
            given = (
                Given("h", "gap", length(one.gap_mm, fine=True)),
                Given("Δp", "pressure difference", Amount(self.pressure_bar, Kind.PRESSURE)),
                Given("μ", "dynamic viscosity, ν·ρ", f"{self.fluid.pa_s:.6g} Pa·s"),
            )
            note = Sentence("The sheet has no land: it is taken as laminar, which nothing here can check.")
            source = "cube law, from a test of the pump"
            return Working(f"Slip, {one.path.name.lower()}", "k·h³·Δp / μ", (*given, *calibrated), slip, source, (note,))
        of = one.path.slot(one.gap_mm, self.pressure_bar, self.speed_r_min, self.fluid).working
        formula = of.formula.replace("w·h·v", "k·w·h·v") if by_test else of.formula
        return Working(f"Slip, {one.path.name.lower()}", formula, (*of.given, *calibrated), slip, of.source, of.notes)

    def _flow_lines(self) -> tuple[ResultLine, ...]:
        flows = {
            "V": Given("V", "displacement", f"{self.losses.displacement_l:g} L a turn"),
            "n": Given("n", "speed", f"{self.speed_r_min:g} r/min"),
            "S": Given("S", "slip of all gaps", Amount(self.slip_l_min, Kind.FLOW)),
        }
        flow = Amount(self.flow_l_min, Kind.FLOW_ABOUT)
        source = "definition (ISO 4391: volumetric efficiency; from memory)"
        efficiency = Amount(100 * self.efficiency, Kind.SHARE)
        return (
            ResultLine("Flow at the duty", flow, Status.GOOD,
                 Working("Flow at the duty", "Q = V·n − S", tuple(flows.values()), flow, source)),
            ResultLine("Volumetric efficiency", efficiency, Status.GOOD,
                 Working("Volumetric efficiency", "η = (V·n − S) / (V·n)", tuple(flows.values()), efficiency, source)),
        )  # fmt: skip

    def _power_lines(self) -> tuple[ResultLine, ...]:
        lost = Amount(self.lost_w / 1000, Kind.POWER)
        given = (
            Given("S", "slip of all gaps", Amount(self.slip_l_min, Kind.FLOW)),
            Given("Δp", "pressure difference", Amount(self.pressure_bar, Kind.PRESSURE)),
        )
        slips = ResultLine(
            "Power that slips back", lost, working=Working("Power that slips back", "P = S·Δp", given, lost, "definition")
        )
        if self.shear_w is None or self.warmer_k is None:
            words = "Not told: between running walls the liquid no longer shears in layers."
            return (slips, ResultLine("Power sheared in the gaps", words, Status.ASK))
        sheared = Amount(self.shear_w / 1000, Kind.POWER)
        shears: tuple[ResultLine, ...] = ()
        walls = tuple(
            Given(
                "Pₛ",
                f"{p.path.name.lower()}: μ·U²·w·L/h",
                Amount((_shear_w(p.path, p.gap_mm, self.speed_r_min, self.fluid) or 0.0) / 1000, Kind.POWER),
            )
            for p in self.passing
            if p.path.wall_mm
        )
        shearing = Working("Power sheared in the gaps", "Σ μ·U²·w·L/h", walls, sheared, "Couette flow (White; from memory)")
        warmer = Amount(self.warmer_k, Kind.TEMPERATURE_STEP)
        heat = Working(
            "What the lost power warms",
            "ΔT = (P + Pₛ) / (ρ·c·Q)",
            (
                Given("P", "power that slips back", lost),
                Given("Pₛ", "power sheared in the gaps", sheared),
                Given("ρ", "density", f"{self.fluid.density_kg_m3:g} kg/m³"),
                Given("c", "specific heat", f"{HEAT_J_KG_K:g} J/(kg·K)"),
                Given("Q", "flow at the duty", Amount(self.flow_l_min, Kind.FLOW)),
            ),
            warmer,
            "heat balance, all of it carried off by what comes out; specific heat of mineral oil (from memory)",
        )
        if walls:
            shears = (ResultLine("Power sheared in the gaps", sheared, working=shearing),)
        return (
            slips,
            *shears,
            ResultLine("Which warms what comes out by", warmer, working=heat),
        )


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
    passing = []
    for path in losses.paths:
        gap, fresh = gaps[path.feature], new_mm.get(path.feature)
        now = path.flows(gap, pressure_bar, speed_r_min, fluid)
        new = path.flows(fresh, pressure_bar, speed_r_min, fluid) if fresh else None
        new_slip = None if new is None or new.untold else k * new.driven + new.dragged
        assumed = path.feature not in gaps_mm
        passing.append(Passing(path, gap, k * now.driven + now.dragged, fresh, new_slip, assumed, now.untold))
    shears = [_shear_w(path, gaps[path.feature], speed_r_min, fluid) for path in losses.paths]
    shear = None if any(s is None for s in shears) else math.fsum(s for s in shears if s is not None)
    return Performance(losses, tuple(passing), pressure_bar, speed_r_min, fluid, shear)


def _shear_w(path: Path, gap_mm: float, speed_r_min: float, fluid: Fluid) -> float | None:
    """Power that shears the liquid of a path whose wall runs, mu U^2 w L / h; ``None`` where it no longer shears in layers."""
    if not path.wall_mm or gap_mm <= 0 or path.width_mm is None or path.length_mm is None:
        return 0.0
    wall_m_s = math.pi * path.wall_mm / 1000 * speed_r_min / 60
    gap_m = gap_mm * path.share / 1000
    if wall_m_s * gap_m / (fluid.viscosity_mm2_s * 1e-6) > _LAYERS_TO:
        return None
    return fluid.pa_s * wall_m_s**2 * path.width_mm * path.length_mm / 1e6 / gap_m
