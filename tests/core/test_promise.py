"""The promise of the guarded rule: of parts at their limit at most one in twenty is kept.

True sizes are drawn, read with declared gauges, and judged by the rule itself against limits they are outside of by so much; the
share kept is held against an integral over the distributions of the errors. The forecast is left out: it can only keep fewer.
"""

import math
import unittest
from dataclasses import dataclass, replace

import numpy as np
from scipy import integrate, optimize
from scipy.stats import chi2, norm, t

from finegap.core.measuring.feeler import interval
from finegap.core.measuring.readings import CertifiedGauge, Result, StationReading, Statistic, running_clearance, summarize
from finegap.core.measuring.verdict import PROOF, Limit, Verdict, conformance_probability, judge

PARTS = 10_000
OUTSIDE = (0.0, 0.5, 1.0, 2.0, 3.0)
"""Standard uncertainties outside the limit."""


@dataclass(frozen=True)
class Reads:
    """How a size is read: the gauge as it is (step, standard uncertainty of its calibration, scatter of one reading), how often."""

    step: float
    calibration: float
    scatter: float
    repeats: int = 1

    def gauge(self, told: float = 1.0) -> CertifiedGauge:
        """The gauge as declared; ``told`` of its uncertainty."""
        return CertifiedGauge(
            "g", self.step * told, 2 * self.calibration * told, 2.0, self.scatter * told if self.repeats == 1 else None
        )

    @property
    def u(self) -> float:
        """Standard uncertainty of the mean, as it truly is."""
        return math.sqrt(self.calibration**2 + self.scatter**2 / self.repeats + self.step**2 / 12)

    def errors(self, rng: np.random.Generator, true: np.ndarray) -> np.ndarray:
        """Readings of parts of these sizes: one error of calibration a part, one of scatter a reading, rounded to the step."""
        off = rng.normal(0, self.calibration, (len(true), 1)) + rng.normal(0, self.scatter, (len(true), self.repeats))
        return np.round((true[:, None] + off) / self.step) * self.step


SINGLE = Reads(0.001, 0.0015, 0.002)
COARSE = Reads(0.01, 0.002, 0.001)
THREE = Reads(0.0005, 0.0015, 0.003, 3)
FIVE = Reads(0.0005, 0.001, 0.004, 5)


def single(reads: Reads, outside: float) -> float:
    """Kept where reading <= limit - g: a normal error and a rounding that is alike over a step, integrated."""
    sigma, guard = math.hypot(reads.calibration, reads.scatter), float(norm.ppf(PROOF)) * reads.u
    total, _ = integrate.quad(lambda r: norm.cdf((-guard - outside - r) / sigma), -reads.step / 2, reads.step / 2)
    return total / reads.step


def repeated(parts: tuple[Reads, ...], outside: float) -> float:
    """The same with scatter told from the repeats: integrated over what they may show, Welch and Satterthwaite for the factor."""
    fixed = sum(p.calibration**2 + p.step**2 / 12 for p in parts)
    sigma = math.sqrt(sum(p.u**2 for p in parts))

    def kept(shares: tuple[float, ...]) -> float:
        seen = [
            p.scatter**2 / p.repeats * float(chi2.ppf(s, p.repeats - 1)) / (p.repeats - 1)
            for p, s in zip(parts, shares, strict=True)
        ]
        u2 = fixed + sum(seen)
        dof = u2**2 / sum(s**2 / (p.repeats - 1) for p, s in zip(parts, seen, strict=True))
        return float(norm.cdf((-t.ppf(PROOF, dof) * math.sqrt(u2) - outside) / sigma))

    # Gauss and Legendre over the probability that the repeats scatter less
    nodes, weights = np.polynomial.legendre.leggauss(60 if len(parts) == 1 else 24)
    shares, weights = (nodes + 1) / 2, weights / 2
    if len(parts) == 1:
        return sum(w * kept((s,)) for s, w in zip(shares, weights, strict=True))
    return sum(w * v * kept((s, r)) for s, w in zip(shares, weights, strict=True) for r, v in zip(shares, weights, strict=True))


class Promise(unittest.TestCase):
    def setUp(self):
        self.rng = np.random.default_rng(20261128)

    def sizes(self, about: float, step: float) -> np.ndarray:
        """One size a part, lying anyhow to the steps of the gauge."""
        return about + self.rng.uniform(0, step, PARTS)

    def kept(self, reads: Reads, told: float = 1.0) -> list[float]:
        """Share kept by how far the part is outside its limit."""
        true, gauge = self.sizes(30, reads.step), reads.gauge(told)
        results = [
            summarize([StationReading("s", "", float(x), gauge) for x in row], Statistic.LARGEST, "size")
            for row in reads.errors(self.rng, true)
        ]
        return self.shares(results, true, reads.u)

    def shares(self, results: list[Result], true: np.ndarray, u: float) -> list[float]:
        """Every part against a maximum it is outside of; by the probability the rule decides on, of some by the rule as a whole."""
        counts = [0] * len(OUTSIDE)
        for number, (result, size) in enumerate(zip(results, true, strict=True)):
            for i, outside in enumerate(OUTSIDE):
                limit = Limit(None, float(size - outside * u))
                chance = conformance_probability(result.value_mm, result.u_mm, result.dof, limit, result.half_mm)
                counts[i] += chance >= PROOF
                if number % 500 == 0:
                    verdict = judge(result.value_mm, result.u_mm, result.dof, limit, half_mm=result.half_mm).verdict
                    self.assertEqual(verdict is Verdict.KEEP, chance >= PROOF)
        return [count / PARTS for count in counts]

    def held(self, shares: list[float], expected: list[float]) -> None:
        """Equal to the integral within three standard errors; at the limit at most one in twenty."""
        for share, wanted, outside in zip(shares, expected, OUTSIDE, strict=True):
            error = math.sqrt(max(wanted * (1 - wanted), 1 / PARTS) / PARTS)
            self.assertLessEqual(abs(share - wanted), 3 * error, (outside, share, wanted))
        self.assertLessEqual(shares[0], 0.05 + 3 * math.sqrt(0.05 * 0.95 / PARTS))

    def test_read_once_with_a_fine_gauge_and_with_a_coarse_one(self):
        for reads in (SINGLE, COARSE):
            with self.subTest(reads=reads):
                self.held(self.kept(reads), [single(reads, k * reads.u) for k in OUTSIDE])

    def test_repeated_three_and_five_times(self):
        for reads in (THREE, FIVE):
            with self.subTest(reads=reads):
                self.held(self.kept(reads), [repeated((reads,), k * reads.u) for k in OUTSIDE])

    def test_a_pair_of_a_bore_and_a_shaft(self):
        bore, shaft = self.sizes(30, THREE.step), self.sizes(29.9, FIVE.step)
        results = []
        for read in zip(THREE.errors(self.rng, bore), FIVE.errors(self.rng, shaft), strict=True):
            pair = [
                summarize([StationReading("s", "", float(x), reads.gauge()) for x in row], statistic, "size")
                for reads, row, statistic in zip((THREE, FIVE), read, (Statistic.LARGEST, Statistic.SMALLEST), strict=True)
            ]
            results.append(running_clearance(*pair, "clearance"))
        u = math.hypot(THREE.u, FIVE.u)
        self.held(self.shares(results, bore - shaft, u), [repeated((THREE, FIVE), k * u) for k in OUTSIDE])

    def feelers(self, leaf_u: float) -> list[Result]:
        """Leaves 0.02 mm apart, off together by one error a part: the thickest that goes, the thinnest that does not."""
        step, gauge = 0.02, CertifiedGauge("leaves", 0.01, 2 * leaf_u, 2.0)
        self.true = self.sizes(0.25, step)
        read = np.floor((self.true + self.rng.normal(0, leaf_u, PARTS)) / step) * step
        pairs = [interval(float(goes), float(goes) + step, "gap") for goes in read]
        return [summarize([StationReading("gap", "", mm, gauge, half_mm=h)], Statistic.AS_MEASURED, "gap") for mm, h in pairs]

    def test_a_feeler_pair(self):
        """Alike anywhere between its leaves, smeared by what the leaves are off."""
        leaf_u, half = 0.002, 0.01
        u = math.hypot(half / math.sqrt(3), leaf_u)

        def below(error: float) -> float:
            total, _ = integrate.quad(lambda r: norm.cdf((error - r) / leaf_u), -half, half, limit=200)
            return total / (2 * half)

        guard = optimize.brentq(lambda x: below(x) - PROOF, 0, 0.05)
        self.held(self.shares(self.feelers(leaf_u), self.true, u), [below(-guard - k * u) for k in OUTSIDE])

    def test_a_halved_uncertainty_would_be_caught(self):
        """The power of all this: with half of what the gauges are off, far more than one in twenty is kept at the limit."""
        for shares in (self.kept(SINGLE, told=0.5), self.kept(replace(COARSE, calibration=0.004), told=0.5)):
            self.assertGreater(shares[0], 0.05 + 3 * math.sqrt(0.05 * 0.95 / PARTS))
            with self.assertRaises(AssertionError):
                self.held(shares, [single(SINGLE, k * SINGLE.u) for k in OUTSIDE])
