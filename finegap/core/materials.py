"""Expansion and stiffness of the metals pumps are made of.

Mean expansion between 20 C and the stated upper temperature, from memory of the named sources; Young's modulus and Poisson's
ratio as handbooks give them, from memory. A material that is not here (carbon graphite, PTFE: they vary by grade) is entered on
the spec sheet.
"""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Material:
    """A material of construction.

    ``expansion_um_m_k`` in micrometres per metre and kelvin, valid to ``upto_c``; ``modulus_mpa`` is Young's modulus.
    """

    name: str
    expansion_um_m_k: float
    upto_c: float
    modulus_mpa: float
    poisson: float
    source: str


_EN_1561 = "EN 1561, informative table (from memory)"
_EN_10088 = "EN 10088-1 (from memory)"

MATERIALS = {
    m.name: m
    for m in (
        Material("cast iron", 11.7, 200, 110_000, 0.26, _EN_1561),
        Material("ductile iron", 12.5, 400, 169_000, 0.275, "EN 1563, informative table (from memory)"),
        Material("steel", 11.5, 100, 206_000, 0.30, "handbooks; JCGM 100 H.1 uses the same (from memory)"),
        Material("stainless 316", 16.0, 100, 200_000, 0.30, _EN_10088),
        Material("duplex stainless", 13.0, 100, 200_000, 0.30, _EN_10088),
        Material("tin bronze", 18.5, 200, 110_000, 0.34, "handbooks (from memory)"),
    )
}
