"""What heat does to an end clearance that was set cold: when all is warm, and in the worst moment of warming up."""

from __future__ import annotations

import math
from dataclasses import dataclass

from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Amounts, Kind, Sentence, length
from finegap.core.kept import kept
from finegap.core.materials import Expansion
from finegap.core.measuring.temperature import REFERENCE_C
from finegap.core.working import Given, Working

_SOURCE = "trade: differential growth; lengths at 20 C (ISO 1)"
_LOOKS = 200
_SETTLED = 12.0
"""Time constants after which nothing moves any more: what is left is e^-12."""


@dataclass(frozen=True)
class HeatedPart:
    """A part between the thrust location and the gap: length in mm, and what is known of its expansion."""

    length_mm: float
    expansion: Expansion

    def growth_mm(self, temperature_c: float) -> tuple[float, float]:
        """How much longer it is than at 20 C, least and most."""
        least, most = self.expansion.grows(temperature_c)
        return 1e-6 * self.length_mm * least, 1e-6 * self.length_mm * most


NO_PART = HeatedPart(0.0, Expansion.of(0.0))


@dataclass(frozen=True)
class Warming:
    """How fast parts follow the liquid: time in minutes after which rotor and casing have made 63 % of the way."""

    rotor_min: float
    casing_min: float

    def __post_init__(self) -> None:
        for name, value in (("rotor", self.rotor_min), ("casing", self.casing_min)):
            if value <= 0:
                raise FieldError(f"minutes of the {name}", "they must be more than zero.", "Expected how long it takes to follow.")


@dataclass(frozen=True)
class Body:
    """What makes a gap: casing and rotor from the thrust location, and how far a head reaches in from the casing's end.

    ``least_mm`` is the hot gap that must be left.
    """

    casing: HeatedPart
    rotor: HeatedPart
    head: HeatedPart = NO_PART
    warming: Warming | None = None
    least_mm: float = 0.0

    def narrowed_mm(self, casing_c: float, rotor_c: float) -> float:
        """By how much the gap is narrower than at 20 C, of what is known of the expansions the most."""
        least, _ = self.casing.growth_mm(casing_c)
        return self.rotor.growth_mm(rotor_c)[1] + self.head.growth_mm(rotor_c)[1] - least

    def unknown(self, *temperatures_c: float) -> Sentence | None:
        """What is outside the temperatures its expansion is known for; casing and rotor at any of them."""
        for name, part in (("casing", self.casing), ("rotor", self.rotor), ("head", self.head)):
            at = next((t for t in temperatures_c if part.length_mm and not part.expansion.knows(t)), None)
            if at is not None:
                spans = part.expansion.spans
                amounts: Amounts = {
                    "at": Amount(at, Kind.TEMPERATURE),
                    "low": Amount(spans[0].from_c, Kind.TEMPERATURE),
                    "high": Amount(spans[-1].upto_c, Kind.TEMPERATURE),
                }
                known = "up to {high}" if math.isinf(spans[0].from_c) else "from {low} to {high}"
                words = (
                    f"The expansion of the {name} is known {known}, not at {{at}}: ask for its material's, the hot gap is a guess."
                )
                return Sentence(words, amounts)
        return None


@dataclass(frozen=True)
class HotGap:
    """The gap predicted at pumping temperature, and the cold gap that would leave the least, in mm.

    ``unknown`` says what lies outside the temperatures its expansion is known for.
    """

    gap_mm: float
    least_mm: float
    cold_needed_mm: float
    working: Working
    unknown: Sentence | None = None

    @property
    def touches(self) -> bool:
        """Blocks sign-off."""
        return self.gap_mm <= 0 or self.gap_mm < self.least_mm

    @property
    def says(self) -> Sentence:
        """What is wrong with it, and the cold gap that would do."""
        amounts: Amounts = {
            "hot": length(self.gap_mm, fine=True), "cold": length(self.cold_needed_mm), "least": length(self.least_mm),
        }  # fmt: skip
        why = "at or below zero the pump seizes" if self.gap_mm <= 0 else "at least {least} has to be left"
        return Sentence("Hot, the gap would be {hot}: {why}. Set {cold} cold.", {"why": why} | amounts)


@dataclass(frozen=True)
class WarmingUp:
    """The narrowest moment of a warm-up: gap in mm, minutes after the liquid came in; ``at_min`` is ``None`` for the worst that
    could be, with the rotor hot and the casing still as it was."""

    gap_mm: float
    at_min: float | None
    cold_needed_mm: float
    working: Working
    unknown: Sentence | None = None

    @property
    def touches(self) -> bool:
        """The rotor would reach the head."""
        return self.gap_mm <= 0

    @property
    def is_known(self) -> bool:
        """Calculated from how fast the parts follow, not the worst that could be."""
        return self.at_min is not None

    @property
    def says(self) -> Sentence:
        """What it comes to."""
        amounts: Amounts = {"gap": length(self.gap_mm, fine=True), "cold": length(self.cold_needed_mm)}
        if self.at_min is None:
            if self.touches:
                return Sentence(
                    "Hot liquid into a cold pump could close it ({gap} if the rotor heats first): warm it up slowly.", amounts
                )
            return Sentence("Even with the rotor hot and the casing still cold {gap} would be left.", amounts)
        amounts["at"] = f"{self.at_min:.0f}"
        if self.touches:
            return Sentence("Warming up, it closes after {at} min ({gap}): warm it slowly, or set {cold} cold.", amounts)
        return Sentence("Narrowest while warming up: {gap}, after {at} min.", amounts)


@kept(256)
def hot_gap(cold_mm: float, body: Body, casing_c: float, rotor_c: float, source: str = _SOURCE) -> HotGap:
    """Gap at temperature: cold gap plus casing growth less the growth of rotor and head.

    The head stands in the liquid and is taken to be as warm as the rotor. Of each expansion the side that leaves the smaller gap is
    taken.

    Parameters
    ----------
    cold_mm : float
        End clearance as set at 20 C.
    body : Body
        Lengths and expansions.
    casing_c, rotor_c : float
        Temperatures when pumping.
    source : str
        Sheet and revision, for the working.
    """
    gap = _gap(cold_mm, body, casing_c, rotor_c)
    least, unknown = body.least_mm, body.unknown(casing_c, rotor_c)
    working = Working(
        title="Predicted gap when hot",
        formula="h = c + α₁·L₁·(T₁ − 20) − α₂·L₂·(T₂ − 20)" + (" − α₃·L₃·(T₂ − 20)" if body.head.length_mm else ""),
        given=_given(cold_mm, body, casing_c, rotor_c),
        result=length(gap, fine=True),
        source=source,
        notes=(Sentence("Steady state: all parts at the temperatures they run at."), *_sides(body), *_asked(unknown)),
    )
    return HotGap(gap, least, _rounded_up(cold_mm - gap + least), working, unknown)


@kept(256)
def warming_up(cold_mm: float, body: Body, start_c: float, casing_c: float, rotor_c: float, source: str = _SOURCE) -> WarmingUp:
    """The narrowest moment of a warm-up from ``start_c``, when liquid at ``rotor_c`` comes in at once.

    Rotor and casing follow it as first-order lags, with the sheet's time constants. Without those: the worst that could be, the
    rotor hot while the casing is as cold as it started.
    """
    if body.warming is None:
        gap = _gap(cold_mm, body, start_c, rotor_c)
        at = None
        lag: tuple[Given, ...] = ()
        formula = "h = c + α₁·L₁·(T₀ − 20) − α₂·L₂·(T₂ − 20) − …"
        note = Sentence("How fast the parts follow is not on the sheet: the casing is taken not to have moved at all.")
    else:
        gap, at = _narrowest(cold_mm, body, body.warming, start_c, casing_c, rotor_c)
        lag = (
            Given("τ₁", "casing follows in", f"{body.warming.casing_min:g} min"),
            Given("τ₂", "rotor follows in", f"{body.warming.rotor_min:g} min"),
            Given("t", "narrowest after", f"{at:.1f} min"),
        )
        formula = "h(t) = c + growth at T₀ + (Tᵢ − T₀)·(1 − exp(−t/τᵢ)) of casing less rotor and head; least over t"
        note = Sentence("First-order lags: liquid at full temperature from the first minute on.")
    unknown = body.unknown(start_c, casing_c, rotor_c)
    given = (*_given(cold_mm, body, casing_c, rotor_c), Given("T₀", "start", Amount(start_c, Kind.TEMPERATURE)), *lag)
    working = Working(
        "Narrowest gap while warming up", formula, given, length(gap, fine=True), source, (note, *_sides(body), *_asked(unknown))
    )
    return WarmingUp(gap, at, _rounded_up(cold_mm - gap + body.least_mm), working, unknown)


def _gap(cold_mm: float, body: Body, casing_c: float, rotor_c: float) -> float:
    return cold_mm - body.narrowed_mm(casing_c, rotor_c)


def _asked(unknown: Sentence | None) -> tuple[Sentence, ...]:
    return () if unknown is None else (unknown,)


def _sides(body: Body) -> tuple[Sentence, ...]:
    """That a side was taken, where there is one to take."""
    if all(part.expansion.is_one_value for part in (body.casing, body.rotor, body.head)):
        return ()
    return (Sentence("Where handbooks differ, or the mean rises on the way, the side that leaves the smaller gap is taken."),)


def _narrowest(
    cold_mm: float, body: Body, warming: Warming, start_c: float, casing_c: float, rotor_c: float
) -> tuple[float, float]:
    """Least gap in mm and its minute."""
    from scipy.optimize import minimize_scalar

    slowest, fastest = sorted((warming.rotor_min, warming.casing_min), reverse=True)

    def at(minute: float) -> float:
        casing = start_c + (casing_c - start_c) * -math.expm1(-minute / warming.casing_min)
        rotor = start_c + (rotor_c - start_c) * -math.expm1(-minute / warming.rotor_min)
        return _gap(cold_mm, body, casing, rotor)

    # The dip is sharp where one part is much faster, and the expansions step from span to span: looked for on a grid that is
    # logarithmic in time, then near the best of it.
    end = slowest * _SETTLED
    steps = [fastest / 1000 * (1000 * end / fastest) ** (i / _LOOKS) for i in range(_LOOKS + 1)]
    best = min(range(1, _LOOKS), key=lambda i: at(steps[i]))
    found = minimize_scalar(at, bounds=(steps[best - 1], steps[best + 1]), method="bounded", options={"xatol": 1e-9 * end})
    settled = (_gap(cold_mm, body, casing_c, rotor_c), end)
    return min(settled, *((at(minute), minute) for minute in (0.0, steps[best], float(found.x))))


def _rounded_up(mm: float) -> float:
    """A cold gap that would do, up to the next hundredth."""
    return math.ceil(round(mm * 100, 6)) / 100


def _given(cold_mm: float, body: Body, casing_c: float, rotor_c: float) -> tuple[Given, ...]:
    numbers = (
        Given("c", "cold gap", length(cold_mm, fine=True)),
        Given("L₁", "casing, thrust location to head", length(body.casing.length_mm)),
        _expansion("α₁", "casing", body.casing, casing_c, least=True),
        Given("T₁", "casing temperature", Amount(casing_c, Kind.TEMPERATURE)),
        Given("L₂", "rotor and shaft, thrust location to rotor face", length(body.rotor.length_mm)),
        _expansion("α₂", "rotor and shaft", body.rotor, rotor_c),
        Given("T₂", "rotor temperature", Amount(rotor_c, Kind.TEMPERATURE)),
    )
    if not body.head.length_mm:
        return numbers
    return (
        *numbers,
        Given("L₃", "head, reaching into the casing", length(body.head.length_mm)),
        _expansion("α₃", "head", body.head, rotor_c),
    )


def _expansion(symbol: str, name: str, part: HeatedPart, temperature_c: float, least: bool = False) -> Given:
    """The expansion that leaves less gap: the least of the casing, the most of what stands against it."""
    bounds = part.expansion.bounds(temperature_c)
    taken = bounds[0 if least == (temperature_c >= REFERENCE_C) else 1]
    if bounds[0] == bounds[1]:
        return Given(symbol, f"{name}, expansion", Amount(taken, Kind.EXPANSION))
    low, high = (f"{b:g}" for b in bounds)
    source = part.expansion.span(temperature_c).source
    return Given(symbol, f"{name}, expansion; known as {low} to {high}: {source}", Amount(taken, Kind.EXPANSION))
