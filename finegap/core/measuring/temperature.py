"""A part measured warm reads big: corrected to 20 C (ISO 1) with its own expansion."""

from __future__ import annotations

import math
from dataclasses import dataclass

from finegap.core.formatting import Amount, Kind, Sentence
from finegap.core.measuring.uncertainty import Component

ABSOLUTE_ZERO_C = -273.15
REFERENCE_C = 20.0
"""Sizes are stated at 20 C (ISO 1)."""
PART_HALF_WIDTH_K = 2.0
"""How well a hand thermometer tells the temperature of a whole part (common practice, no source)."""
EXPANSION_HALF_SHARE = 0.1
"""How well a handbook's expansion fits the metal in hand (common practice, no source)."""


@dataclass(frozen=True)
class Warm:
    """Temperature of a part when it was measured, and its linear expansion, each with the half-width of a rectangle.

    ``expansion_um_m_k`` in micrometres per metre and kelvin; the gauge is taken as at 20 C.
    """

    part_c: float
    expansion_um_m_k: float
    half_width_k: float = PART_HALF_WIDTH_K
    expansion_half_width: float | None = None

    @property
    def _growth(self) -> float:
        return self.expansion_um_m_k * 1e-6 * (self.part_c - REFERENCE_C)

    def corrected(self, value_mm: float) -> float:
        """The size at 20 C: x (1 - alpha (t - 20))."""
        return value_mm * (1 - self._growth)

    def component(self, value_mm: float) -> Component:
        """Standard uncertainty of that correction, both rectangles carried through (JCGM 100:2008, 5.1.2)."""
        spread = self.expansion_half_width
        spread = EXPANSION_HALF_SHARE * self.expansion_um_m_k if spread is None else spread
        of_temperature = self.expansion_um_m_k * 1e-6 * self.half_width_k
        of_expansion = spread * 1e-6 * (self.part_c - REFERENCE_C)
        return Component("temperature of the part", abs(value_mm) * math.hypot(of_temperature, of_expansion) / math.sqrt(3))

    @property
    def sentence(self) -> Sentence:
        """How the result says it."""
        return Sentence(
            "Measured at {part}, corrected to 20 °C with {expansion}.",
            {"part": Amount(self.part_c, Kind.TEMPERATURE), "expansion": Amount(self.expansion_um_m_k, Kind.EXPANSION)},
        )
