"""Expansion, stiffness and strength of the metals pumps are made of.

Expansions are means between 20 C and a temperature; where handbooks differ, or the mean rises on the way, both sides are kept,
each with the temperatures it is for. What is not here (carbon graphite, PTFE: they vary by grade) is entered on the sheet.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from finegap.core.errors import FieldError
from finegap.core.measuring.temperature import REFERENCE_C, Warm


@dataclass(frozen=True)
class Span:
    """Mean expansion between 20 C and any temperature from ``from_c`` to ``upto_c``: lower and upper, in µm/(m·K)."""

    from_c: float
    upto_c: float
    low: float
    high: float
    source: str = ""


@dataclass(frozen=True)
class Expansion:
    """What is known of a material's expansion, in spans of temperature from cold to hot."""

    spans: tuple[Span, ...]

    @classmethod
    def of(cls, um_m_k: float, upto_c: float | None = None) -> Expansion:
        """One value, as a sheet or a certificate gives it; for any temperature where it does not say to which."""
        return cls((Span(-math.inf, math.inf if upto_c is None else upto_c, um_m_k, um_m_k),))

    def knows(self, temperature_c: float) -> bool:
        """Whether the temperature lies in its spans."""
        return self.spans[0].from_c <= temperature_c <= self.spans[-1].upto_c

    def span(self, temperature_c: float) -> Span:
        """The span of a temperature; outside all of them the nearest, which is then a guess."""
        return next((span for span in self.spans if temperature_c <= span.upto_c), self.spans[-1])

    def bounds(self, temperature_c: float) -> tuple[float, float]:
        """Lower and upper mean expansion from 20 C to a temperature."""
        span = self.span(temperature_c)
        return span.low, span.high

    def middle(self, temperature_c: float) -> float:
        """Between both."""
        return sum(self.bounds(temperature_c)) / 2

    @property
    def is_one_value(self) -> bool:
        """Nothing to choose from."""
        return all(span.low == span.high for span in self.spans) and len({span.low for span in self.spans}) == 1

    def grows(self, temperature_c: float) -> tuple[float, float]:
        """Least and most growth from 20 C, in micrometres per metre."""
        low, high = sorted(a * (temperature_c - REFERENCE_C) for a in self.bounds(temperature_c))
        return low, high


@dataclass(frozen=True)
class Material:
    """A material of construction.

    ``modulus_mpa`` is Young's modulus. ``yield_mpa`` is the least 0.2 % proof stress of its usual grades; ``None`` for one that
    cracks instead.
    """

    name: str
    expansion: Expansion
    modulus_mpa: float
    poisson: float
    yield_mpa: float | None
    stiffness: str
    strength: str


_EN_1561 = "EN 1561, informative table (from memory)"
_EN_1563 = "EN 1563, informative table (from memory)"
_EN_10088 = "EN 10088-1 (from memory)"
_BOOKS = "handbooks (from memory)"
_COLD_C = -20.0
"""To here the mean from 20 C upwards is used below it, too. Common practice, no source."""

MATERIALS = {
    m.name: m
    for m in (
        Material(
            "cast iron",
            Expansion(
                (
                    Span(-100, 20, 10.0, 10.8, _EN_1561),
                    Span(20, 200, 10.8, 11.7, f"{_EN_1561}; 10.8 near room temperature, {_BOOKS}"),
                    Span(200, 400, 11.7, 13.0, _EN_1561),
                )
            ),
            110_000, 0.26, None, _EN_1561, "EN 1561: it cracks, no proof stress (from memory)",
        ),
        Material(
            "ductile iron",
            Expansion((Span(_COLD_C, 400, 11.0, 12.5, f"{_EN_1563}; lower near room temperature, {_BOOKS}"),)),
            169_000, 0.275, 250, _EN_1563, "EN 1563, EN-GJS-400 (from memory)",
        ),
        Material(
            "steel",
            Expansion(
                (
                    Span(_COLD_C, 100, 11.1, 12.2, f"{_BOOKS}; JCGM 100 H.1 uses 11.5"),
                    Span(100, 300, 11.1, 12.9, f"{_BOOKS}, unalloyed, to 300 °C"),
                )
            ),
            206_000, 0.30, 235, _BOOKS, "EN 10025-2, S235 (from memory)",
        ),
        Material(
            "stainless 316",
            Expansion(
                (
                    Span(_COLD_C, 100, 15.9, 16.0, f"{_EN_10088}; 15.9, {_BOOKS}"),
                    Span(100, 200, 15.9, 16.5, _EN_10088),
                    Span(200, 300, 16.2, 17.0, f"{_EN_10088}; 16.2, {_BOOKS}"),
                )
            ),
            200_000, 0.30, 200, _EN_10088, "EN 10088-2, 1.4401 (from memory)",
        ),
        Material(
            "duplex stainless",
            Expansion(
                (
                    Span(_COLD_C, 100, 13.0, 13.0, _EN_10088),
                    Span(100, 200, 13.0, 13.5, _EN_10088),
                    Span(200, 300, 13.5, 14.0, _EN_10088),
                )
            ),
            200_000, 0.30, 420, _EN_10088, "EN 10283, cast duplex (from memory)",
        ),
        Material(
            "tin bronze",
            Expansion((Span(_COLD_C, 200, 17.5, 18.5, _BOOKS),)),
            110_000, 0.34, 140, _BOOKS, "EN 1982, CuSn12 sand cast (from memory)",
        ),
    )
}  # fmt: skip


_COLDEST_PART_C, _HOTTEST_PART_C = -40.0, 200.0
"""Beyond these nobody measures a part by hand (common practice, no source)."""


def part_expansion(material: str, of_sheet: Expansion | None) -> Expansion:
    """The expansion of what a part is made of: of a material that is named, else as its sheet says.

    Raises
    ------
    FieldError
        A material that is not in the table, or neither a material nor a word of the sheet.
    """
    expected = f"Expected: {', '.join(MATERIALS)}."
    if material and material not in MATERIALS:
        raise FieldError("material", f"the expansion of {material} is not known here.", expected)
    known = MATERIALS[material].expansion if material else of_sheet
    if known is None:
        raise FieldError("material", "the sheet does not say what this part is made of.", expected)
    return known


def warm_part(part_c: float, expansion: Expansion) -> Warm:
    """A part measured at ``part_c`` [C], with the middle of what is known of its expansion at that temperature.

    Raises
    ------
    FieldError
        A temperature no part is measured at, or one for which its expansion is not known.
    """
    if not _COLDEST_PART_C <= part_c <= _HOTTEST_PART_C:
        raise FieldError("part temperature", f"nobody measures a part at {part_c:g} °C.", "Expected −40 to 200 °C.")
    if not expansion.knows(part_c):
        known = f"Expected {expansion.spans[0].from_c:g} to {expansion.spans[-1].upto_c:g} °C."
        raise FieldError("part temperature", f"the expansion of its material is not known at {part_c:g} °C.", known)
    return Warm(part_c, expansion.middle(part_c))
