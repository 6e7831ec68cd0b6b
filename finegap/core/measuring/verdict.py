"""Holding a result against a limit.

Guarded school: ISO 14253-1:2017, prove it good (95 %) before it goes back. Plain school: the number as read. Under both the
probability that the part conforms is shown (JCGM 106:2012).
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import Enum

from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Bare, Edges, Joined, Kind, Sentence, Text, edges, length, uncertainty
from finegap.core.kept import kept
from finegap.core.measuring.uncertainty import beside, probability_below, quantile, within_below, within_quantile
from finegap.core.working import Given, Working

PROOF = 0.95
"""Probability asked for before a part is called good, or bad, under the guarded school."""


class School(Enum):
    """How near the limit a reading may be and still decide."""

    GUARDED = "guarded"
    PLAIN = "plain"


class Verdict(Enum):
    """The four verdicts."""

    KEEP = "Keep"
    WATCH = "Watch"
    CHANGE = "Change"
    MEASURE_AGAIN = "Measure again"


@dataclass(frozen=True)
class Limit:
    """What a feature may be: a minimum, a maximum or a window, in mm. ``new_mm`` is the new size or size range."""

    lower_mm: float | None = None
    upper_mm: float | None = None
    new_mm: tuple[float, float] | None = None

    def __post_init__(self) -> None:
        if self.lower_mm is None and self.upper_mm is None:
            raise FieldError("limit", "there is neither a minimum nor a maximum.", "Expected one of them, or both.")
        if self.lower_mm is not None and self.upper_mm is not None and self.lower_mm >= self.upper_mm:
            raise FieldError("limit", "the minimum is not below the maximum.", "Expected minimum < maximum.")

    @property
    def tolerance_mm(self) -> float | None:
        """Between the limits of a window; ``None`` for a minimum or a maximum alone."""
        return None if self.lower_mm is None or self.upper_mm is None else self.upper_mm - self.lower_mm

    def margin(self, value_mm: float) -> float:
        """Distance to the nearest limit: positive inside, negative outside."""
        below = math.inf if self.lower_mm is None else value_mm - self.lower_mm
        above = math.inf if self.upper_mm is None else self.upper_mm - value_mm
        return min(below, above)

    @property
    def span_mm(self) -> float:
        """Between both limits; of one limit the wear allowance, or without a new size the limit itself."""
        if self.lower_mm is not None and self.upper_mm is not None:
            return self.upper_mm - self.lower_mm
        allowance = 0.0 if self.new_mm is None else min(self.margin(edge) for edge in self.new_mm)
        return allowance if allowance > 0 else max(abs(mm) for mm in (self.lower_mm, self.upper_mm) if mm is not None)

    def beside(self, *sizes_mm: float, fine: bool = False) -> Edges:
        """Its limits, and sizes held against them, to be shown beside one another."""
        return edges(self.lower_mm, self.upper_mm, self.span_mm, sizes_mm, fine)

    def shown(self, *sizes_mm: float, fine: bool = False) -> Text:
        """“at least 33.90”, “at most 34.16”, or both; without the unit. ``sizes_mm`` are what stands beside it."""
        of = self.beside(*sizes_mm, fine=fine)
        least = Sentence("at least {size}", {"size": Bare(of.low)}) if of.low else ""
        most = Sentence("at most {size}", {"size": Bare(of.high)}) if of.high else ""
        return Joined((least, most))

    def left_share(self, value_mm: float) -> float | None:
        """Share of the wear allowance still there: 1 as new, 0 at the limit; ``None`` for a window or without new size."""
        if self.new_mm is None or (self.lower_mm is not None and self.upper_mm is not None):
            return None
        allowance = min(self.margin(edge) for edge in self.new_mm)
        return self.margin(value_mm) / allowance if allowance > 0 else None


@dataclass(frozen=True)
class Judgement:
    """A verdict with the sentence that explains it. ``guard_mm`` is the distance from the limit at which doubt begins."""

    verdict: Verdict
    probability: float
    margin_mm: float
    guard_mm: float
    sentence: Sentence
    working: Working


def conformance_probability(value_mm: float, u_mm: float, dof: float, limit: Limit, half_mm: float = 0.0) -> float:
    """Probability that the true size is inside the limit (JCGM 106:2012, 7); Student t for few readings, leaves as they are."""

    def below_limit(limit_mm: float) -> float:
        if half_mm:
            return within_below(limit_mm - value_mm, half_mm, beside(u_mm, half_mm))
        return probability_below(limit_mm, value_mm, u_mm, dof)

    below = 1.0 if limit.upper_mm is None else below_limit(limit.upper_mm)
    if limit.lower_mm is None:
        return below
    under = below_limit(limit.lower_mm)
    # A size exactly on the minimum with no uncertainty is still inside.
    if u_mm == 0 and value_mm == limit.lower_mm:
        under = 0.0
    return max(below - under, 0.0)


def guard_of(u_mm: float, dof: float, half_mm: float = 0.0) -> float:
    """How near a limit doubt begins, in mm: what an error stays below with 95 %."""
    if half_mm:
        return within_quantile(PROOF, half_mm, beside(u_mm, half_mm))
    return quantile(PROOF, dof) * u_mm if u_mm else 0.0


@kept(2048)
def judge(
    value_mm: float,
    u_mm: float,
    dof: float,
    limit: Limit,
    school: School = School.GUARDED,
    near_share: float = 0.0,
    fine: bool = False,
    half_mm: float = 0.0,
) -> Judgement:
    """Judge a result against a limit.

    Parameters
    ----------
    value_mm, u_mm, dof : float
        The result, its standard uncertainty and effective degrees of freedom.
    limit : Limit
        Minimum, maximum or window.
    school : School
        Guarded or plain.
    near_share : float
        Share of the wear allowance below which a good part is on Watch (0 to 1; common practice, no source).
    fine : bool
        Show a decimal more.
    half_mm : float
        Half the interval of a feeler reading, which ``u_mm`` holds already; 0 for any other.
    """
    probability = conformance_probability(value_mm, u_mm, dof, limit, half_mm)
    margin = limit.margin(value_mm)
    guard = guard_of(u_mm, dof, half_mm)
    if school is School.PLAIN:
        inside, outside = margin >= 0, margin < 0
    else:
        inside, outside = probability >= PROOF, probability <= 1 - PROOF
    left = limit.left_share(value_mm)
    if inside:
        verdict = Verdict.WATCH if left is not None and left < near_share else Verdict.KEEP
    else:
        verdict = Verdict.CHANGE if outside else Verdict.MEASURE_AGAIN
    return Judgement(
        verdict=verdict,
        probability=probability,
        margin_mm=margin,
        guard_mm=guard,
        sentence=_sentence(verdict, school, margin, guard, probability, left),
        working=_working(value_mm, u_mm, dof, half_mm, limit, guard, probability, school, fine),
    )


def _sentence(verdict: Verdict, school: School, margin: float, guard: float, probability: float, left: float | None) -> Sentence:
    amounts = {
        "margin": length(abs(margin), fine=True),
        "guard": length(guard, fine=True),
        "p": Amount(100 * probability, Kind.PERCENT),
        "bad": Amount(100 * (1 - probability), Kind.PERCENT),
        "left": Amount(100 * (left or 0.0), Kind.COUNT),
    }
    if verdict is Verdict.MEASURE_AGAIN:
        return Sentence(_DOUBT["inside" if margin >= 0 else "outside"], amounts)
    return Sentence(_SAID[school][verdict], amounts)


_SAID = {
    School.PLAIN: {
        Verdict.KEEP: "Inside by {margin} as read; {p} sure that it conforms.",
        Verdict.WATCH: "Inside by {margin} as read, but only {left}% of the wear allowance is left.",
        Verdict.CHANGE: "Outside by {margin} as read; {bad} sure.",
    },
    School.GUARDED: {
        Verdict.KEEP: "Inside by {margin}, beyond doubt ({p} sure).",
        Verdict.WATCH: "Inside by {margin}, beyond doubt, but only {left}% of the wear allowance is left.",
        Verdict.CHANGE: "Outside by {margin}, beyond doubt ({bad} sure).",
    },
}
_DOUBT = {
    "inside": "{margin} inside, but doubt reaches {guard} from the limit: {p} sure that it conforms.",
    "outside": "{margin} outside, but doubt reaches {guard} from the limit: {p} sure that it conforms.",
}


def _working(
    value: float, u: float, dof: float, half: float, limit: Limit, guard: float, probability: float, school: School, fine: bool
) -> Working:
    # To places with which the sum can be done again: a rounded guard's worth would turn the chance over.
    of = edges(limit.lower_mm, limit.upper_mm, guard or limit.span_mm, (value,), fine, sizes_too=True)
    named = (("L", "minimum", of.low), ("M", "maximum", of.high))
    bounds = [Given(symbol, name, bound) for symbol, name, bound in named if bound is not None]
    below = "F({bound} − x)" if half else "F(({bound} − x)/u)"
    parts = [below.format(bound="M") if limit.upper_mm is not None else "1"]
    parts += [below.format(bound="L")] if limit.lower_mm is not None else []
    rule = (
        f"Guarded: good from {PROOF:.0%}, bad to {1 - PROOF:.0%}, between them measure again."
        if school is School.GUARDED
        else "Plain: the reading is compared with the limit as it stands."
    )
    doubt = (
        Given("ν", "effective degrees of freedom (F: Student t, normal where infinite)", Amount(dof, Kind.NUMBER)),
        "t({proof} one-sided, ν)·u",
        "JCGM 106:2012, 7; ISO 14253-1:2017",
    )
    if half:
        doubt = (
            Given(
                "h",
                "half the way from leaf to leaf (F: alike within ± h, smeared by u₁ of the leaves)",
                length(half, fine=True),
            ),
            "F⁻¹({proof})",
            "JCGM 101:2008, 6.4.2; JCGM 106:2012, 7; ISO 14253-1:2017",
        )
    shape, reach, source = doubt
    return Working(
        title="Verdict",
        formula=f"p = {' − '.join(parts)},   g = {reach.format(proof=f'{PROOF:.0%}')}",
        given=(
            Given("x", "result", of.sizes[0]),
            Given("u", "standard uncertainty", uncertainty(u)),
            shape,
            *bounds,
            Given("g", "guard: nearer than this to a limit is in doubt", uncertainty(guard)),
        ),
        result=Sentence("conforms with {p}", {"p": Amount(100 * probability, Kind.PERCENT)}),
        source=source,
        notes=(Sentence(rule),),
    )
