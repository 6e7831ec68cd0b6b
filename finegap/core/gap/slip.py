"""What goes back through a gap: laminar flow in a slot with its drag, and in an annulus that need not be concentric."""

from __future__ import annotations

import math
from dataclasses import dataclass

from finegap.core.errors import FieldError
from finegap.core.showing import Amount, Kind, Sentence, length
from finegap.core.working import Given, Working

_TURBULENT = 1000.0
"""Reynolds number, on the mean speed and twice the gap, past which laminar slip is no longer sure. Common practice."""

_BAR = 1e5


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


def _positive(**sizes: float) -> None:
    for name, value in sizes.items():
        if value <= 0:
            raise FieldError(name, "it must be more than zero.", "Expected a length.")


@dataclass(frozen=True)
class Slot:
    """A flat gap: gap, width across the flow and length along it in mm; pressure difference in bar.

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

    @property
    def pressure_m3_s(self) -> float:
        """Flow the pressure drives (plane Poiseuille)."""
        h, w, length_m = self.gap_mm / 1000, self.width_mm / 1000, self.length_mm / 1000
        return w * h**3 * self.pressure_bar * _BAR / (12 * self.fluid.pa_s * length_m)

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
        """On the mean speed and the hydraulic diameter, twice the gap."""
        return 2 * self.fluid.density_kg_m3 * abs(self.flow_m3_s) / (self.width_mm / 1000 * self.fluid.pa_s)

    @property
    def working(self) -> Working:
        """How the slip is reached."""
        return Working(
            "Slip through a flat gap",
            "Q = w·h³·Δp / (12·μ·L) + w·h·U/2",
            (
                Given("h", "gap", length(self.gap_mm, fine=True)),
                Given("w", "width across the flow", length(self.width_mm)),
                *_driven(self.length_mm, self.pressure_bar, self.fluid),
                Given("U", "speed of the moving wall", f"{self.wall_m_s:g} m/s"),
            ),
            Amount(self.flow_m3_s * 60_000, Kind.FLOW),
            "Plane Poiseuille and Couette flow (White, Viscous Fluid Flow; from memory)",
            _notes(self.reynolds),
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

    @property
    def factor(self) -> float:
        """How much more passes than in the middle: up to 2.5."""
        return 1 + 1.5 * self.eccentricity**2

    @property
    def flow_m3_s(self) -> float:
        """Flow along the shaft, on the mean diameter of the gap."""
        c, mean = self.clearance_mm / 2000, (self.shaft_mm + self.clearance_mm / 2) / 1000
        concentric = math.pi * mean * c**3 * self.pressure_bar * _BAR / (12 * self.fluid.pa_s * self.length_mm / 1000)
        return concentric * self.factor

    @property
    def reynolds(self) -> float:
        """On the mean speed and the hydraulic diameter."""
        mean = (self.shaft_mm + self.clearance_mm / 2) / 1000
        return 2 * self.fluid.density_kg_m3 * self.flow_m3_s / (math.pi * mean * self.fluid.pa_s)

    @property
    def working(self) -> Working:
        """How the slip is reached."""
        return Working(
            "Slip along a shaft",
            "Q = π·D·c³·Δp / (12·μ·L) · (1 + 1.5·ε²)",
            (
                Given("c", "clearance on the radius, half of that on the diameter", length(self.clearance_mm / 2, fine=True)),
                Given("D", "mean diameter of the gap", length(self.shaft_mm + self.clearance_mm / 2)),
                *_driven(self.length_mm, self.pressure_bar, self.fluid),
                Given("ε", "eccentricity", f"{self.eccentricity:g}"),
            ),
            Amount(self.flow_m3_s * 60_000, Kind.FLOW),
            "Narrow annulus (White, Viscous Fluid Flow; from memory)",
            _notes(self.reynolds),
        )


def _driven(length_mm: float, pressure_bar: float, fluid: Fluid) -> tuple[Given, ...]:
    return (
        Given("L", "length along the flow", length(length_mm)),
        Given("Δp", "pressure difference", Amount(pressure_bar, Kind.PRESSURE)),
        Given("ν", "kinematic viscosity", Amount(fluid.viscosity_mm2_s, Kind.FINE_VISCOSITY)),
        Given("ρ", "density", f"{fluid.density_kg_m3:g} kg/m³"),
        Given("μ", "dynamic viscosity, ν·ρ", f"{fluid.pa_s:.6g} Pa·s"),
    )


def is_laminar(of: Slot | Annulus) -> bool:
    """Whether the cube law holds."""
    return of.reynolds < _TURBULENT


def _notes(reynolds: float) -> tuple[Sentence, ...]:
    if reynolds < _TURBULENT:
        return (Sentence("Laminar: Reynolds number {re}.", {"re": f"{reynolds:.0f}"}),)
    return (Sentence("Reynolds number {re}: no longer surely laminar, less passes than this says.", {"re": f"{reynolds:.0f}"}),)
