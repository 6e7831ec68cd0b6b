"""How far an overhung shaft bends under the pressure on its rotor, and what that leaves of a gap.

A round shaft on two bearings, the rotor at its free end. The pressure's force is spread evenly along the rotor. Bending alone
counts, of the overhang and of the shaft between its bearings; shear adds a few percent on a short shaft and is left out.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Amounts, Kind, Sentence, length
from finegap.core.working import Given, Working

STEEL_MPA = 206_000.0
"""Modulus of steel (EN 10088-1 and handbooks give 200,000 to 210,000; from memory)."""

_BAR_MPA = 0.1


@dataclass(frozen=True)
class Overhung:
    """A shaft: between its bearings, from the front one to its end, the rotor on that end, and its diameter, all in mm.

    ``across_mm`` is the width the pressure acts on: the diameter over the rotor's tips.
    """

    span_mm: float
    overhang_mm: float
    rotor_mm: float
    diameter_mm: float
    across_mm: float
    modulus_mpa: float = STEEL_MPA

    def __post_init__(self) -> None:
        for name, value in (
            ("between the bearings", self.span_mm), ("overhang", self.overhang_mm), ("rotor, length", self.rotor_mm),
            ("shaft", self.diameter_mm), ("over the tips", self.across_mm), ("modulus", self.modulus_mpa),
        ):  # fmt: skip
            if value <= 0:
                raise FieldError(name, "it must be more than zero.", "Expected a size.")
        if self.rotor_mm > self.overhang_mm:
            raise FieldError(
                "rotor, length", "it is longer than the overhang.", "Expected from the front bearing to the end, or less."
            )

    @property
    def stiffness_n_mm2(self) -> float:
        """Modulus times second moment of area."""
        return self.modulus_mpa * math.pi * self.diameter_mm**4 / 64

    def force_n(self, pressure_bar: float) -> float:
        """On the rotor."""
        return pressure_bar * _BAR_MPA * self.rotor_mm * self.across_mm

    def bend_mm(self, pressure_bar: float) -> float:
        """At the free end."""
        force, inner = self.force_n(pressure_bar), self.overhang_mm - self.rotor_mm
        spread = force / self.rotor_mm
        long = self.overhang_mm
        held = spread / 6 * (long * long**3 - long**4 / 4 - long * inner**3 + inner**4 / 4)
        tilted = force * (long - self.rotor_mm / 2) * self.span_mm / 3 * long
        return (held + tilted) / self.stiffness_n_mm2

    def leaves(self, gap_mm: float, pressure_bar: float, place: str) -> tuple[Sentence, bool]:
        """What the bend leaves of a gap on the side it bends to, in words; and whether they touch."""
        bend = self.bend_mm(pressure_bar)
        amounts: Amounts = {
            "place": place, "gap": length(gap_mm), "bend": length(bend, fine=True), "pressure": Amount(pressure_bar, Kind.PRESSURE),
            "left": length(gap_mm - bend, fine=True),
        }  # fmt: skip
        if gap_mm <= bend:
            return Sentence("At the {place} {pressure} bends the shaft by {bend}, all of its {gap}: they touch.", amounts), True
        return Sentence("At the {place} {pressure} bends the shaft by {bend}: {left} of {gap} is left.", amounts), False

    def working(self, pressure_bar: float) -> Working:
        """How the bend is reached."""
        return Working(
            "Bend of an overhung shaft",
            "y = ( w/6·[L·x³ − x⁴/4] from L−b to L  +  F·(L − b/2)·s·L/3 ) / (E·I),   I = π·d⁴/64",
            (
                Given("F", "pressure on the rotor, Δp·b·D", Amount(self.force_n(pressure_bar), Kind.FORCE)),
                Given("w", "spread evenly, F/b", f"{self.force_n(pressure_bar) / self.rotor_mm:.4g} N/mm"),
                Given("s", "between the bearings", length(self.span_mm)),
                Given("L", "front bearing to the end", length(self.overhang_mm)),
                Given("b", "rotor, length", length(self.rotor_mm)),
                Given("d", "shaft", length(self.diameter_mm)),
                Given("E", "modulus", Amount(self.modulus_mpa, Kind.STRESS)),
            ),
            length(self.bend_mm(pressure_bar), fine=True),
            "beam theory, Euler and Bernoulli: bearings as knife edges, force spread along the rotor, without shear",
            (Sentence("A force at one point, or shear counted as well, comes to 5 to 15 % more or less."),),
        )
