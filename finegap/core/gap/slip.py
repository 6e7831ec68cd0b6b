"""What goes back through a gap: friction along it, losses where the liquid enters and leaves it, and what a moving wall drags.

One balance holds from laminar to turbulent: pressure difference = rho v²/2 (K + f L/2h), with f = 96/Re, or by Blasius where that
is more. The two meet at one Reynolds number, without a step. Neither the laminar law nor a loss-free orifice lets less through.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Kind, Sentence, length
from finegap.core.working import Given, Working

ENTRY_EXIT = 1.5
"""Pressure lost at both ends in velocity heads: 0.5 into a sharp edge, 1 out of it (White, Fluid Mechanics, 6.9; from memory)."""

_LAMINAR = 96.0
_BLASIUS = 0.3164
_BLASIUS_TO = 100_000.0
"""Darcy friction between plates, on twice the gap: 96/Re; Blasius, smooth walls, to this Reynolds number (White; from memory)."""

_TURNS_AT = (_LAMINAR / _BLASIUS) ** (4 / 3)
"""Where both are alike: 2,040."""

_BAR = 1e5
_ROUND = 72
"""Places round an eccentric shaft at which the flow is calculated; a smooth periodic sum."""


def dynamic_pa_s(viscosity_mm2_s: float, density_kg_m3: float) -> float:
    """Dynamic viscosity in Pa.s."""
    return viscosity_mm2_s * 1e-6 * density_kg_m3


@dataclass(frozen=True)
class Fluid:
    """The liquid in the gap: kinematic viscosity in mm2/s and density in kg/m3."""

    viscosity_mm2_s: float
    density_kg_m3: float

    def __post_init__(self) -> None:
        if self.viscosity_mm2_s <= 0:
            raise FieldError("viscosity", "it must be more than zero.", "Expected the viscosity when pumping.")
        if not 300 <= self.density_kg_m3 <= 3000:
            raise FieldError("density", f"{self.density_kg_m3:g} kg/m³ is no liquid of a pump.", "Expected 300 to 3000 kg/m³.")

    @property
    def pa_s(self) -> float:
        """Dynamic viscosity."""
        return dynamic_pa_s(self.viscosity_mm2_s, self.density_kg_m3)

    def reynolds(self, speed_m_s: float, gap_m: float) -> float:
        """On the mean speed and the hydraulic diameter, twice the gap."""
        return 2 * gap_m * speed_m_s * self.density_kg_m3 / self.pa_s

    def speed_m_s(self, gap_m: float, length_m: float, pressure_pa: float) -> float:
        """Mean speed that a pressure difference drives through a flat gap; nothing without one."""
        if pressure_pa <= 0:
            return 0.0
        head = self.density_kg_m3 / 2
        slow = 12 * self.pa_s * length_m / gap_m**2
        # the laminar balance head·K·v² + slow·v = Δp, solved without a difference of near equals
        laminar = 2 * pressure_pa / (slow + math.sqrt(slow * slow + 4 * head * ENTRY_EXIT * pressure_pa))
        if self.reynolds(laminar, gap_m) <= _TURNS_AT:
            return laminar

        from scipy.optimize import brentq

        def over(speed: float) -> float:
            losses = ENTRY_EXIT + _friction(self.reynolds(speed, gap_m)) * length_m / (2 * gap_m)
            return head * speed * speed * losses - pressure_pa

        return float(brentq(over, laminar * 1e-3, laminar, xtol=1e-12, rtol=1e-12))


def _friction(reynolds: float) -> float:
    """Darcy friction factor: the more of both laws."""
    return max(_LAMINAR / reynolds, _BLASIUS / math.sqrt(math.sqrt(reynolds)))


def _positive(**sizes: float) -> None:
    for name, value in sizes.items():
        if value <= 0:
            raise FieldError(name, "it must be more than zero.", "Expected a length.")


@dataclass(frozen=True)
class Slot:
    """A flat gap: gap, width across the flow and length along it in mm; pressure difference in bar, not negative.

    ``wall_m_s`` is how fast one wall moves, with the slip positive, against it negative.
    """

    gap_mm: float
    width_mm: float
    length_mm: float
    pressure_bar: float
    fluid: Fluid
    wall_m_s: float = 0.0

    def __post_init__(self) -> None:
        _positive(gap=self.gap_mm, width=self.width_mm, length=self.length_mm)

    @cached_property
    def driven_m_s(self) -> float:
        """Mean speed the pressure drives."""
        return self.fluid.speed_m_s(self.gap_mm / 1000, self.length_mm / 1000, self.pressure_bar * _BAR)

    @property
    def pressure_m3_s(self) -> float:
        """Flow the pressure drives."""
        return self.width_mm * self.gap_mm * 1e-6 * self.driven_m_s

    @property
    def drag_m3_s(self) -> float:
        """Flow the moving wall drags along (Couette)."""
        return self.width_mm / 1000 * self.gap_mm / 1000 * self.wall_m_s / 2

    @property
    def flow_m3_s(self) -> float:
        """Both together; negative when the wall drags more back than the pressure drives."""
        return self.pressure_m3_s + self.drag_m3_s

    @property
    def reynolds(self) -> float:
        """Of the flow the pressure drives."""
        return self.fluid.reynolds(self.driven_m_s, self.gap_mm / 1000)

    @property
    def working(self) -> Working:
        """How the slip is reached."""
        return Working(
            "Slip through a flat gap",
            "Q = w·h·v + w·h·U/2,   Δp = ρ·v²/2·(K + f·L/2h),   f = 96/Re, or 0.3164/Re^¼ if more",
            (
                Given("h", "gap", length(self.gap_mm, fine=True)),
                Given("w", "width across the flow", length(self.width_mm)),
                *_driven(self.length_mm, self.pressure_bar, self.fluid),
                Given("v", "mean speed the pressure drives", f"{self.driven_m_s:.4g} m/s"),
                Given("U", "speed of the moving wall", f"{self.wall_m_s:g} m/s"),
            ),
            Amount(self.flow_m3_s * 60_000, Kind.FLOW),
            "Flow between plates with friction and end losses; Couette (White; from memory)",
            notes(self),
        )

    @property
    def working_of_drag(self) -> Working:
        """How the part the wall drags along is reached."""
        return Working(
            "Flow the wall drags along",
            "Q = w·h·U/2",
            (
                Given("w", "width across the flow", length(self.width_mm)),
                Given("h", "gap", length(self.gap_mm, fine=True)),
                Given("U", "speed of the moving wall", f"{self.wall_m_s:g} m/s"),
            ),
            Amount(self.drag_m3_s * 60_000, Kind.FLOW),
            "Plane Couette flow (White, Viscous Fluid Flow; from memory)",
        )


@dataclass(frozen=True)
class Annulus:
    """A shaft in a bore, in mm: shaft, clearance on the diameter, and length; pressure in bar; eccentricity 0 to 1."""

    shaft_mm: float
    clearance_mm: float
    length_mm: float
    pressure_bar: float
    fluid: Fluid
    eccentricity: float = 0.0

    def __post_init__(self) -> None:
        _positive(shaft=self.shaft_mm, clearance=self.clearance_mm, length=self.length_mm)
        if not 0 <= self.eccentricity <= 1:
            raise FieldError("eccentricity", f"{self.eccentricity:g} cannot be.", "Expected 0 (in the middle) to 1 (touching).")
        if self.clearance_mm > self.shaft_mm / 10:
            raise FieldError("clearance", "it is no fine gap of this shaft.", "Expected less than a tenth of the diameter.")

    @cached_property
    def _round(self) -> tuple[tuple[float, float], ...]:
        """Gap in m and mean speed in m/s at places round the shaft; where it touches nothing passes."""
        c = self.clearance_mm / 2000
        places = range(_ROUND if self.eccentricity else 1)
        # half a step off, so that none stands where the shaft may touch
        gaps = [c * (1 + self.eccentricity * math.cos(2 * math.pi * (i + 0.5) / _ROUND)) for i in places]
        return tuple((h, self.fluid.speed_m_s(h, self.length_mm / 1000, self.pressure_bar * _BAR)) for h in gaps)

    @property
    def flow_m3_s(self) -> float:
        """Flow along the shaft, on the mean diameter of the gap."""
        mean = (self.shaft_mm + self.clearance_mm / 2) / 1000
        return math.pi * mean * math.fsum(h * v for h, v in self._round) / len(self._round)

    @property
    def reynolds(self) -> float:
        """The largest round the shaft."""
        return max(self.fluid.reynolds(v, h) for h, v in self._round)

    @property
    def working(self) -> Working:
        """How the slip is reached."""
        return Working(
            "Slip along a shaft",
            "Q = π·D·mean of h·v,   h = c·(1 + ε·cos θ),   Δp = ρ·v²/2·(K + f·L/2h),   f = 96/Re, or 0.3164/Re^¼ if more",
            (
                Given("c", "clearance on the radius, half of that on the diameter", length(self.clearance_mm / 2, fine=True)),
                Given("D", "mean diameter of the gap", length(self.shaft_mm + self.clearance_mm / 2)),
                *_driven(self.length_mm, self.pressure_bar, self.fluid),
                Given("ε", "eccentricity", f"{self.eccentricity:g}"),
            ),
            Amount(self.flow_m3_s * 60_000, Kind.FLOW),
            "Narrow annulus, unrolled, with friction and end losses (White; from memory)",
            notes(self),
        )


def _driven(length_mm: float, pressure_bar: float, fluid: Fluid) -> tuple[Given, ...]:
    return (
        Given("L", "length along the flow", length(length_mm)),
        Given("Δp", "pressure difference", Amount(pressure_bar, Kind.PRESSURE)),
        Given("ν", "kinematic viscosity", Amount(fluid.viscosity_mm2_s, Kind.FINE_VISCOSITY)),
        Given("ρ", "density", f"{fluid.density_kg_m3:g} kg/m³"),
        Given("μ", "dynamic viscosity, ν·ρ", f"{fluid.pa_s:.6g} Pa·s"),
        Given("K", "lost at the ends, sharp edges", f"{ENTRY_EXIT:g}"),
    )


def is_laminar(of: Slot | Annulus) -> bool:
    """Whether the friction is laminar."""
    return bool(of.reynolds <= _TURNS_AT)


def untold(of: Slot | Annulus) -> Sentence | None:
    """Why there is no number, where there is none."""
    if of.reynolds <= _BLASIUS_TO:
        return None
    words = "Reynolds number {re}: the friction law used here is known to {most} only. No number is told."
    return Sentence(words, {"re": f"{of.reynolds:,.0f}", "most": f"{_BLASIUS_TO:,.0f}"})


def notes(of: Slot | Annulus) -> tuple[Sentence, ...]:
    """By which law it flows."""
    amounts = {"re": f"{of.reynolds:.0f}"}
    if is_laminar(of):
        return (Sentence("Laminar: Reynolds number {re}, of the flow the pressure drives.", amounts),)
    return (Sentence("Turbulent friction: Reynolds number {re}, of the flow the pressure drives.", amounts),)
