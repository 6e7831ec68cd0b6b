"""Saybolt seconds, universal and Furol, by the equations of ASTM D2161 (from memory)."""

from __future__ import annotations

from collections.abc import Callable
from fractions import Fraction

from finegap.core.errors import FieldError

_UNIVERSAL_BASE_C = float(Fraction(340, 9))
_UNIVERSAL_LEAST_MM2_S = 1.81
_FUROL = {
    50.0: ((0.4717, 13924.0, -72.59, 6816.0), 48.0),
    float(Fraction(890, 9)): ((0.4792, 5610.0, 0.0, 2130.0), 50.0),
}
"""Furol, at 122 F and 210 F: t = a·v + b / (v² + c·v + d), and the viscosity it begins at."""


def saybolt_seconds(viscosity_mm2_s: float, at_c: float | None = None) -> float:
    """Saybolt universal seconds of a kinematic viscosity [mm2/s] at a temperature [C], 100 F where none is said; ASTM D2161.

    Raises
    ------
    FieldError
        Below 1.81 mm2/s (32 s), where the standard has no conversion.
    """
    v = viscosity_mm2_s
    if v < _UNIVERSAL_LEAST_MM2_S:
        raise FieldError("viscosity", f"{v:g} mm2/s is too thin for Saybolt seconds.", "The scale begins at 1.81 mm2/s (32 SSU).")
    seconds = 4.6324 * v + (1.0 + 0.03264 * v) / ((3930.2 + 262.7 * v + 23.97 * v**2 + 1.646 * v**3) * 1e-5)
    at_f = (_UNIVERSAL_BASE_C if at_c is None else at_c) * 9 / 5 + 32
    return seconds * (1 + 0.000061 * (at_f - 100))


def from_saybolt(seconds: float, at_c: float | None = None, field: str = "viscosity") -> float:
    """Kinematic viscosity [mm2/s] of Saybolt universal seconds [s] at a temperature [C]: the inverse."""
    if seconds < saybolt_seconds(_UNIVERSAL_LEAST_MM2_S, at_c):
        raise FieldError(field, f"{seconds:g} SSU is below the scale.", "The scale begins at 32 SSU (1.81 mm2/s).")
    return _inverse(lambda v: saybolt_seconds(v, at_c), seconds, _UNIVERSAL_LEAST_MM2_S)


def furol_seconds(viscosity_mm2_s: float, at_c: float | None) -> float:
    """Saybolt Furol seconds of a kinematic viscosity [mm2/s] at 122 F, or at 210 F; ASTM D2161.

    Raises
    ------
    FieldError
        At another temperature, or thinner than the scale begins.
    """
    (a, b, c, d), least = _furol_at(at_c, "viscosity")
    if viscosity_mm2_s < least:
        raise FieldError("viscosity", f"{viscosity_mm2_s:g} mm2/s is too thin for Furol.", f"Expected {least:g} mm2/s or more.")
    return a * viscosity_mm2_s + b / (viscosity_mm2_s**2 + c * viscosity_mm2_s + d)


def from_furol(seconds: float, at_c: float | None, field: str = "viscosity") -> float:
    """Kinematic viscosity [mm2/s] of Saybolt Furol seconds [s]: the inverse."""
    _, least = _furol_at(at_c, field)
    if seconds < furol_seconds(least, at_c):
        raise FieldError(field, f"{seconds:g} SSF is below the scale.", "The scale begins at 25 SSF; thinner oils are told in SSU.")
    return _inverse(lambda v: furol_seconds(v, at_c), seconds, least)


def _furol_at(at_c: float | None, field: str) -> tuple[tuple[float, float, float, float], float]:
    known = next((of for t, of in _FUROL.items() if at_c is not None and abs(t - at_c) < 0.1), None)
    if known is None:
        problem = "it is not said at which temperature." if at_c is None else f"Furol seconds at {at_c:g} C are not converted here."
        raise FieldError(field, problem, "Expected them at 122 F or at 210 F, such as: 90 SSF at 122 F.")
    return known


def _inverse(seconds_of: Callable[[float], float], seconds: float, least_mm2_s: float) -> float:
    """By bisection: both scales rise with the viscosity."""
    low, high = least_mm2_s, max(3 * seconds, 10.0)
    for _ in range(200):
        middle = (low + high) / 2
        if middle in (low, high):
            break
        low, high = (middle, high) if seconds_of(middle) < seconds else (low, middle)
    return (low + high) / 2
