"""What heat does to an end clearance that was set cold."""

from __future__ import annotations

from dataclasses import dataclass

from finegap.core.measuring.temperature import REFERENCE_C
from finegap.core.showing import Amount, Kind, Sentence, length
from finegap.core.working import Given, Working


@dataclass(frozen=True)
class HotGap:
    """The gap predicted at pumping temperature, in mm. At or below zero the pump seizes."""

    gap_mm: float
    working: Working

    @property
    def touches(self) -> bool:
        """Blocks sign-off."""
        return self.gap_mm <= 0


def hot_gap(
    cold_mm: float,
    span_mm: float,
    casing_um_m_k: float,
    rotor_um_m_k: float,
    casing_c: float,
    rotor_c: float,
    source: str = "trade: differential growth; lengths at 20 C (ISO 1)",
) -> HotGap:
    """Gap at temperature: cold gap plus casing growth less rotor growth over the span from thrust location to head.

    Parameters
    ----------
    cold_mm : float
        End clearance as set at 20 C.
    span_mm : float
        Length between the thrust location and the head.
    casing_um_m_k, rotor_um_m_k : float
        Mean linear expansion, micrometres per metre and kelvin.
    casing_c, rotor_c : float
        Temperatures when pumping.
    source : str
        Sheet and revision, for the working.
    """
    casing = casing_um_m_k * 1e-6 * span_mm * (casing_c - REFERENCE_C)
    rotor = rotor_um_m_k * 1e-6 * span_mm * (rotor_c - REFERENCE_C)
    gap = cold_mm + casing - rotor
    working = Working(
        title="Predicted gap when hot",
        formula="h = c + α₁·L·(T₁ − 20) − α₂·L·(T₂ − 20)",
        given=(
            Given("c", "cold gap", length(cold_mm, fine=True)),
            Given("L", "thrust location to head", length(span_mm)),
            Given("α₁", "casing expansion", Amount(casing_um_m_k, Kind.EXPANSION)),
            Given("T₁", "casing temperature", Amount(casing_c, Kind.TEMPERATURE)),
            Given("α₂", "rotor and shaft expansion", Amount(rotor_um_m_k, Kind.EXPANSION)),
            Given("T₂", "rotor temperature", Amount(rotor_c, Kind.TEMPERATURE)),
        ),
        result=length(gap, fine=True),
        source=source,
        notes=(Sentence("Steady state. A fast warm-up, when the rotor leads the casing, is closer."),),
    )
    return HotGap(gap, working)
