"""From the sizes of one life to its rate, its band, and the hours to the limit.

Straight line through size against hours. The band is for one further size: with three sizes or more the prediction interval of
the least-squares line (Draper and Smith, Applied Regression Analysis, 3.1, from memory); its scatter is never taken as less than
the measuring uncertainty. With two it is that uncertainty carried along the line. The hours to the limit come from where the band
meets the limit (inverse prediction), not from dividing.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from finegap.core.formatting import Amount, Amounts, Bare, Kind, Sentence, grouped, length
from finegap.core.kept import kept
from finegap.core.measuring.uncertainty import quantile
from finegap.core.measuring.verdict import PROOF, Limit
from finegap.core.wear.lives import Life, Point
from finegap.core.working import Given, Working

_SAME_MM = 1e-12
"""Two sizes that differ by rounding only."""


@dataclass(frozen=True)
class WearLine:
    """A fitted line ``at + rate * hours``; its variance for one further size is ``(c0 + c1 t + c2 t²)`` in mm².

    ``dof`` belongs to that variance; ``rate_u`` is the standard uncertainty of the rate; ``scatter`` the residual standard
    deviation, ``nan`` with two points.
    """

    at_mm: float
    rate_mm_h: float
    rate_u: float
    variance: tuple[float, float, float]
    dof: float
    scatter: float

    def size(self, hours: float) -> float:
        """The size on the line, in mm."""
        return self.at_mm + self.rate_mm_h * hours

    def half_width(self, hours: float, one_sided: float = PROOF) -> float:
        """Half-width of the band, in mm."""
        c0, c1, c2 = self.variance
        return quantile(one_sided, self.dof) * math.sqrt(max(c0 + c1 * hours + c2 * hours * hours, 0.0))

    def rate_bounds(self, confidence: float = 0.95) -> tuple[float, float]:
        """Two-sided bounds of the rate, in mm/h."""
        spread = quantile(0.5 + confidence / 2, self.dof) * self.rate_u
        return self.rate_mm_h - spread, self.rate_mm_h + spread


def fit(points: Sequence[Point]) -> WearLine | None:
    """The line of a life; ``None`` where there are not two sizes at different hours."""
    hours = [p.hours for p in points]
    if len(points) < 2 or max(hours) - min(hours) <= 0:
        return None
    return _through_two(*points) if len(points) == 2 else _least_squares(points)


def _through_two(first: Point, second: Point) -> WearLine:
    run = second.hours - first.hours
    rate = (second.size.value_mm - first.size.value_mm) / run
    before, after = first.size.u_mm**2, second.size.u_mm**2
    # var(t) = u1²(1-x)² + u2²x² with x = (t - t1)/run, written out in powers of t
    t1 = first.hours
    both = before + after
    variance = (
        before * (1 + t1 / run) ** 2 + after * (t1 / run) ** 2,
        -2 * before * (1 + t1 / run) / run - 2 * after * t1 / run**2,
        both / run**2,
    )
    return WearLine(first.size.value_mm - rate * t1, rate, math.sqrt(both) / run, variance, math.inf, math.nan)


def _least_squares(points: Sequence[Point]) -> WearLine:
    n = len(points)
    hours = [p.hours for p in points]
    sizes = [p.size.value_mm for p in points]
    mean_t, mean_y = math.fsum(hours) / n, math.fsum(sizes) / n
    apart = [t - mean_t for t in hours]
    sxx = math.fsum(d * d for d in apart)
    rate = math.fsum(d * (y - mean_y) for d, y in zip(apart, sizes, strict=True)) / sxx
    squares = math.fsum((y - mean_y - rate * d) ** 2 for d, y in zip(apart, sizes, strict=True))
    scatter = math.sqrt(squares / (n - 2))
    measured = math.sqrt(math.fsum(p.size.u_mm**2 for p in points) / n)
    s, dof = (scatter, float(n - 2)) if scatter >= measured else (measured, math.inf)
    variance = (s * s * (1 + 1 / n + mean_t**2 / sxx), -2 * s * s * mean_t / sxx, s * s / sxx)
    return WearLine(mean_y - rate * mean_t, rate, s / math.sqrt(sxx), variance, dof, scatter)


def crossings(line: WearLine, limit_mm: float, wears_up: bool, now: float) -> tuple[float | None, float | None, float | None]:
    """The first hour, from ``now`` on, at which the near edge of the band, the line, and the far edge are at the limit or past it.

    Each is ``now`` where it already is, and ``None`` where it never comes to it. Edges are at 95 % one-sided. Where they meet the
    limit is a root of Fieller's quadratic; the near edge is convex, so it meets the limit once at most after ``now``.
    """
    sign = 1.0 if wears_up else -1.0
    rate = sign * line.rate_mm_h
    short = sign * (limit_mm - line.size(now))
    """How far the line is from the limit now: positive before it."""
    half = line.half_width(now)
    k2 = quantile(PROOF, line.dof) ** 2
    _, c1, c2 = line.variance
    roots = [
        t for t in _roots(rate * rate - k2 * c2, -2 * rate * short - k2 * (c1 + 2 * c2 * now), short * short - half * half) if t > 0
    ]
    near = [t for t in roots if rate * t <= short + _SAME_MM]
    far = [t for t in roots if rate * t >= short - _SAME_MM]

    def first(reached: bool, later: float | None) -> float | None:
        return now if reached else None if later is None else now + later

    return (
        first(half >= short, min(near, default=None)),
        first(short <= 0, short / rate if rate > 0 else None),
        first(-half >= short, min(far, default=None)),
    )


def _roots(a: float, b: float, c: float) -> list[float]:
    if abs(a) < 1e-300:
        return [-c / b] if b else []
    inside = b * b - 4 * a * c
    if inside < 0:
        return []
    root = math.sqrt(inside)
    # the stable pair: no difference of near equals
    q = -0.5 * (b + math.copysign(root, b))
    return [q / a, c / q] if q else [0.0, 0.0]


@dataclass(frozen=True)
class Forecast:
    """What a life says of the hours to come, counted from now. ``early`` and ``late`` are at 95 % one-sided; ``None``: never.

    0 is now. ``crosses`` says that it is predicted past the limit before the next planned overhaul, or is now; ``may_cross`` that
    it could be.
    """

    line: WearLine
    life: Life
    hours_left: float | None
    early: float | None
    late: float | None
    planned_h: float | None
    crosses: bool
    may_cross: bool
    sentence: Sentence
    working: Working


@kept(512)
def forecast(life: Life, limit: Limit | None, wears_up: bool, planned_h: float | None) -> Forecast | None:
    """Rate and hours to the limit of the part in the pump now; ``None`` without two sizes to go by.

    Parameters
    ----------
    life : Life
        The running one.
    limit : Limit, optional
        The bound it wears towards counts; without one there is only a rate.
    wears_up : bool
        Bores and gaps grow, pins and shafts shrink.
    planned_h : float, optional
        Hours from now to the next planned overhaul.
    """
    line = fit(life.points)
    if line is None or life.now is None:
        return None
    bound = None if limit is None else (limit.upper_mm if wears_up else limit.lower_mm)
    left = early = late = None
    if bound is not None:
        early, left, late = (None if t is None else t - life.now for t in crossings(line, bound, wears_up, life.now))
    crosses, may_cross = _before(left, planned_h), _before(early, planned_h)
    return Forecast(
        line, life, left, early, late, planned_h, crosses, may_cross,
        _sentence(line, wears_up, bound, left, early, late),
        _working(line, life, bound, left, early, late),
    )  # fmt: skip


@kept(512)
def borrowed(life: Life, before: Life, limit: Limit | None, wears_up: bool, planned_h: float | None) -> Forecast | None:
    """Hours to the limit of a part measured once, or new, at the rate of the one before it; ``None`` where that has none.

    The line goes through its one size; the uncertainties of size and rate are combined (JCGM 100:2008, 5.1.2). That two parts wear
    alike is common practice, no source: whoever reads it is told that the rate is another's.

    Parameters
    ----------
    life : Life
        The running one, with one size.
    before : Life
        An earlier one of the same part.
    limit : Limit, optional
        As for ``forecast``.
    wears_up : bool
        As for ``forecast``.
    planned_h : float, optional
        As for ``forecast``.
    """
    other = fit(before.points)
    if other is None or life.now is None or len(life.points) != 1 or (other.rate_mm_h > 0) is not wears_up:
        return None
    point = life.points[0]
    rate, u_rate = other.rate_mm_h, other.rate_u
    variance = (
        point.size.u_mm**2 + (u_rate * point.hours) ** 2,
        -2 * u_rate**2 * point.hours,
        u_rate**2,
    )
    line = WearLine(point.size.value_mm - rate * point.hours, rate, u_rate, variance, other.dof, math.nan)
    bound = None if limit is None else (limit.upper_mm if wears_up else limit.lower_mm)
    left = early = late = None
    if bound is not None:
        early, left, late = (None if t is None else t - life.now for t in crossings(line, bound, wears_up, life.now))
    own = _working(line, life, bound, left, early, late)
    note = Sentence("It was measured once, or not at all: the rate is that of the part before it.")
    return Forecast(
        line, life, left, early, late, planned_h, _before(left, planned_h), _before(early, planned_h),
        Sentence("Like the part before it: {told}", {"told": _sentence(line, wears_up, bound, left, early, late)}),
        replace(own, formula="a + b·t ± k·√(u₀² + u(b)²·t²) = L,   k = t(95% one-sided, ν)", notes=(note,)),
    )  # fmt: skip


def _before(hours: float | None, planned_h: float | None) -> bool:
    """Whether the limit comes before the next planned overhaul; now is before any."""
    return hours is not None and (hours <= 0 or (planned_h is not None and hours < planned_h))


def _hours(hours: float | None) -> str:
    if hours is not None and hours <= 0:
        return "now"
    return "beyond telling" if hours is None or hours > 500_000 else grouped(round(hours, -1))


def _sentence(
    line: WearLine, wears_up: bool, bound: float | None, left: float | None, early: float | None, late: float | None
) -> Sentence:
    low, high = sorted(1000 * abs(r) if r * line.rate_mm_h > 0 else 0.0 for r in line.rate_bounds())
    amounts: Amounts = {
        "rate": length(1000 * abs(line.rate_mm_h), fine=True),
        "low": Bare(length(low, fine=True)),
        "high": Bare(length(high, fine=True)),
        "left": _hours(left),
        "early": _hours(early),
        "late": _hours(late),
    }
    wearing = line.rate_mm_h > 0 if wears_up else line.rate_mm_h < 0
    if not wearing:
        not_worn = "By its sizes so far it does not wear"
        if left is not None:
            return Sentence(not_worn + ": at the limit now.", amounts)
        return Sentence(not_worn + (", but they scatter past the limit." if early is not None and early <= 0 else "."), amounts)
    rate = "Wears {rate} ({low} to {high}) a thousand hours"
    if bound is None:
        return Sentence(rate + "; the sheet gives no limit to reckon to.", amounts)
    if left is not None and left <= 0:
        return Sentence(rate + ": at the limit now.", amounts)
    return Sentence(rate + ": {left} h to the limit ({early} to {late}).", amounts)


def _working(
    line: WearLine, life: Life, bound: float | None, left: float | None, early: float | None, late: float | None
) -> Working:
    count = len(life.points)
    two = count < 3
    given = [
        Given("n", "sizes in this life", str(count)),
        Given("t", "hours in it, at the present duty", grouped(life.now or 0.0)),
        Given("a", "size at 0 h on the line", length(line.at_mm, fine=True)),
        Given("b", "rate, per 1,000 h", Amount(1000 * line.rate_mm_h, Kind.UNCERTAINTY)),
        Given("u(b)", "its standard uncertainty, per 1,000 h", Amount(1000 * line.rate_u, Kind.UNCERTAINTY)),
    ]
    if not two:
        given.append(Given("s", "scatter about the line", Amount(line.scatter, Kind.UNCERTAINTY)))
    if bound is not None:
        given.append(Given("L", "limit", length(bound, fine=True)))
    shape = "u₁²(1 − t/T)² + u₂²(t/T)²" if two else "s²(1 + 1/n + (t − t̄)²/Σ(tᵢ − t̄)²)"
    notes = [Sentence("Hours at another duty are stretched by pressure times speed: wear follows load and distance (Archard).")]
    if not life.points[0].job:
        notes.append(Sentence("Taken as new, in the middle of its range, at 0 h on the meter."))
    if two:
        notes.append(Sentence("Two sizes give a rate, and say nothing of whether it is steady."))
    elif math.isinf(line.dof):
        notes.append(Sentence("The sizes scatter less than they were measured to: the measuring uncertainty is used for s."))
    return Working(
        title="Hours to the limit",
        formula=f"a + b·t ± k·√({shape}) = L,   k = t(95% one-sided, ν)",
        given=tuple(given),
        result=Sentence(
            "hours from now: {left}, {early} at the earliest, {late} at the latest",
            {"left": _hours(left), "early": _hours(early), "late": _hours(late)},
        )
        if bound is not None
        else Sentence("{rate} a thousand hours", {"rate": length(1000 * line.rate_mm_h, fine=True)}),
        source="least squares with prediction band; JCGM 100:2008, 5.1.2; Archard (load x distance)",
        notes=tuple(notes),
    )
