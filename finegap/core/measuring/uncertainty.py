"""Combining what is not known about a measurement (JCGM 100:2008, the GUM).

SciPy takes longer to import than all else together: it is imported where a result needs it.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

CONFIDENCE = 0.95
"""Coverage of every expanded uncertainty shown, two-sided."""


@dataclass(frozen=True)
class Component:
    """One contribution: standard uncertainty ``u`` (in the unit of the result) with its degrees of freedom."""

    name: str
    u: float
    dof: float = math.inf


@dataclass(frozen=True)
class Combined:
    """A combined standard uncertainty with its effective degrees of freedom and the parts it came from."""

    u: float
    dof: float
    components: tuple[Component, ...]


def combine(components: Iterable[Component]) -> Combined:
    """Root sum of squares with Welch-Satterthwaite effective degrees of freedom (JCGM 100:2008, 5.1.2 and G.4.1).

    Components are independent. Degrees of freedom are not truncated.
    """
    parts = tuple(components)
    u = math.sqrt(sum(c.u**2 for c in parts))
    spent = sum(c.u**4 / c.dof for c in parts if math.isfinite(c.dof))
    return Combined(u, u**4 / spent if spent else math.inf, parts)


def coverage_factor(dof: float, confidence: float = CONFIDENCE) -> float:
    """Two-sided Student t factor k (normal where ``dof`` is infinite); JCGM 100:2008, table G.2."""
    return quantile(0.5 + confidence / 2, dof)


def quantile(probability: float, dof: float) -> float:
    """Student t quantile; normal where ``dof`` is infinite."""
    from scipy.special import ndtri, stdtrit

    return float(ndtri(probability) if math.isinf(dof) else stdtrit(dof, probability))


def probability_below(limit: float, value: float, u: float, dof: float) -> float:
    """Probability that the true value lies at or below ``limit``, given ``value`` with standard uncertainty ``u``."""
    if u == 0:
        return 1.0 if value <= limit else 0.0
    from scipy.special import ndtr, stdtr

    z = (limit - value) / u
    return float(ndtr(z) if math.isinf(dof) else stdtr(dof, z))


def within_below(error: float, half: float, u: float) -> float:
    """Probability that an error lies at or below ``error``: all within ``half`` either way are alike, smeared by a normal ``u``.

    A feeler reading is such an error: the gap is between the leaf that goes and the one that does not, and ``u`` is only what the
    leaves themselves may be off. A normal of the same standard deviation would put a tenth of it outside its own leaves
    (JCGM 101:2008, 6.4.2 and 7; JCGM 106:2012 takes the distribution as it is).
    """
    if u <= half * 1e-9:
        return min(max((error + half) / (2 * half), 0.0), 1.0)

    from scipy.special import ndtr

    def area(x: float) -> float:
        """Of the normal distribution function, up to x."""
        return x * float(ndtr(x / u)) + u * math.exp(-((x / u) ** 2) / 2) / math.sqrt(2 * math.pi)

    return min(max((area(error + half) - area(error - half)) / (2 * half), 0.0), 1.0)


def within_quantile(probability: float, half: float, u: float) -> float:
    """The error that ``probability`` of such errors lie at or below."""
    from scipy.optimize import brentq

    far = half + 10 * u
    return float(brentq(lambda x: within_below(x, half, u) - probability, -far, far))


def beside(u: float, half: float) -> float:
    """What is left of a standard uncertainty beside the interval of a feeler reading, which it holds already."""
    return math.sqrt(max(u**2 - half**2 / 3, 0.0))


def expanded(u: float, dof: float, half: float = 0.0, confidence: float = CONFIDENCE) -> float:
    """Expanded uncertainty, two-sided; of a feeler reading that of its interval, smeared by the rest (JCGM 101:2008, 7.7)."""
    if half:
        return within_quantile(0.5 + confidence / 2, half, beside(u, half))
    return coverage_factor(dof, confidence) * u if u else 0.0


def from_resolution(step: float) -> float:
    """Standard uncertainty of a reading rounded to ``step``: a rectangle of half-width step/2 (JCGM 100:2008, F.2.2.1)."""
    return step / math.sqrt(12)


def from_interval(low: float, high: float) -> float:
    """Standard uncertainty of a value known only to lie between two bounds (a feeler: goes, does not go)."""
    return (high - low) / math.sqrt(12)


def pooled_repeatability(groups: Iterable[Sequence[float]]) -> tuple[float, int]:
    """Pooled standard deviation of repeats and its degrees of freedom; (0, 0) when nothing was repeated."""
    squares, dof = 0.0, 0
    for group in groups:
        mean = math.fsum(group) / len(group)
        squares += math.fsum((x - mean) ** 2 for x in group)
        dof += len(group) - 1
    return (math.sqrt(squares / dof), dof) if dof else (0.0, 0)
