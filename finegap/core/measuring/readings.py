"""From readings at stations to one result."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from enum import Enum

from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Kind, Sentence, Units, length, uncertainty
from finegap.core.kept import kept
from finegap.core.measuring.temperature import Warm
from finegap.core.measuring.uncertainty import (
    CONFIDENCE,
    Combined,
    Component,
    combine,
    coverage_factor,
    expanded,
    from_interval,
    from_resolution,
    pooled_repeatability,
)
from finegap.core.working import Given, Working

_FINE_STEP_MM = 0.01


class Statistic(Enum):
    """Which station is held against the limit."""

    SMALLEST = "smallest station"
    LARGEST = "largest station"
    AS_MEASURED = "as measured"


@dataclass(frozen=True)
class CertifiedGauge:
    """What a gauge is good for.

    ``expanded_mm`` and ``k`` come from its certificate; ``repeatability_mm`` is the standard deviation of this gauge in trained
    hands, used where nothing was repeated.
    """

    name: str
    resolution_mm: float
    expanded_mm: float
    k: float
    repeatability_mm: float | None = None

    def __post_init__(self) -> None:
        if self.resolution_mm <= 0:
            raise FieldError("resolution", "it must be more than zero.", "Expected the smallest step the gauge shows.")
        if self.expanded_mm < 0 or self.k <= 0:
            raise FieldError("certificate", "U must not be negative and k must be more than zero.", "As on the certificate.")

    @property
    def systematic(self) -> tuple[Component, Component]:
        """What repeating a reading does not average away."""
        return (
            Component(f"resolution of {self.name}", from_resolution(self.resolution_mm)),
            Component(f"calibration of {self.name}", self.expanded_mm / self.k),
        )


@dataclass(frozen=True)
class StationReading:
    """One reading: where on the part (``plane`` along it, ``station`` within all), what, with which gauge.

    ``half_mm`` is half the interval of a feeler reading, 0 for any other, and ``pile`` how many leaves the larger of its piles has;
    ``warm`` is the temperature of a part not measured at 20 C; ``faults`` are words against the gauge when it was taken (out of
    date, out of its range); ``reason`` why an odd one is meant.
    """

    station: str
    plane: str
    value_mm: float
    gauge: CertifiedGauge
    half_mm: float = 0.0
    warm: Warm | None = None
    faults: tuple[Sentence, ...] = ()
    reason: str = ""
    pile: int = 1

    @property
    def at_20c_mm(self) -> float:
        """The size at the reference temperature."""
        return self.warm.corrected(self.value_mm) if self.warm else self.value_mm

    @property
    def systematic(self) -> tuple[Component, ...]:
        """What repeating this reading does not average away."""
        step, calibration = self.gauge.systematic
        if self.half_mm:
            step = Component("leaf that goes to leaf that does not", from_interval(0, 2 * self.half_mm))
            # Leaves of one certificate are off together, so they add up.
            calibration = Component(calibration.name, self.pile * calibration.u)
        warm = (self.warm.component(self.value_mm),) if self.warm else ()
        return (step, calibration, *warm)


@dataclass(frozen=True)
class Scatter:
    """How the deciding reading would scatter if it were repeated: standard deviation of one reading, degrees, repeats so far."""

    s_mm: float
    dof: float
    repeats: int


@dataclass(frozen=True)
class Result:
    """What a set of readings says about a feature; lengths in mm, ``None`` where too little was measured.

    ``half_mm`` is half the interval of a feeler reading that decides, 0 for any other: it is not spread normally.
    """

    count: int
    value_mm: float
    deciding: str
    mean_mm: float
    spread_mm: float
    out_of_round_mm: float | None
    taper_mm: float | None
    uncertainty: Combined
    working: Working
    fine: bool = False
    notes: tuple[Sentence, ...] = ()
    scatter: tuple[Scatter, ...] = ()
    half_mm: float = 0.0

    @property
    def u_mm(self) -> float:
        """Combined standard uncertainty."""
        return self.uncertainty.u

    @property
    def dof(self) -> float:
        """Effective degrees of freedom."""
        return self.uncertainty.dof

    @property
    def expanded_mm(self) -> float:
        """Expanded uncertainty, two-sided 95 %."""
        return expanded(self.u_mm, self.dof, self.half_mm)


@kept(512)
def summarize(readings: Sequence[StationReading], statistic: Statistic, title: str, fine: bool = False) -> Result:
    """Reduce readings to the one value that is held against the limit.

    Repeats at a station are averaged; the statistic picks the station. Repeatability is pooled over all stations with repeats,
    so two readings here and three there serve every station.

    Parameters
    ----------
    readings : sequence of Reading
        At least one; repeats share a station.
    statistic : Statistic
        Which station decides.
    title : str
        Name of the feature, for the working.
    fine : bool
        Show a decimal more; so are readings all taken with gauges that step less than 0.01 mm.

    Raises
    ------
    FieldError
        No reading.
    """
    if not readings:
        raise FieldError(title, "there is no reading yet.", "Expected one reading or more.")
    fine = fine or all(reading.gauge.resolution_mm < _FINE_STEP_MM for reading in readings)
    groups: dict[str, list[StationReading]] = {}
    for reading in readings:
        groups.setdefault(reading.station, []).append(reading)
    means = {station: _mean([r.at_20c_mm for r in group]) for station, group in groups.items()}
    deciding = _deciding(means, statistic)
    value = _mean(list(means.values())) if statistic is Statistic.AS_MEASURED else means[deciding]
    spread, dof = pooled_repeatability([[r.at_20c_mm for r in g] for g in groups.values()])
    repeats = len(readings) if statistic is Statistic.AS_MEASURED else len(groups[deciding])
    worst = max(groups[deciding], key=lambda r: sum(c.u**2 for c in r.systematic))
    repeatability, notes = _repeatability(spread, dof, repeats, worst)
    notes += _remarks(readings)
    combined = combine((repeatability, *worst.systematic))
    values = list(means.values())
    planes = _by_plane(groups, means)
    return Result(
        count=len(readings),
        value_mm=value,
        deciding=deciding,
        mean_mm=_mean(values),
        spread_mm=max(values) - min(values),
        out_of_round_mm=max((max(p) - min(p) for p in planes if len(p) > 1), default=None),
        taper_mm=_taper(planes),
        uncertainty=combined,
        working=_working(title, statistic, value, combined, worst.half_mm, repeats, fine, notes),
        fine=fine,
        notes=notes,
        scatter=(Scatter(repeatability.u * math.sqrt(repeats), repeatability.dof, repeats),),
        half_mm=worst.half_mm,
    )


BORE_WORDS = ("bore, largest station", "shaft or pin, smallest station")
"""What the two parts of a running clearance are called; others are of a recess and what lies in it."""


@kept(256)
def running_clearance(bore: Result, shaft: Result, title: str, words: tuple[str, str] = BORE_WORDS) -> Result:
    """Clearance of a pair: largest bore minus smallest shaft, uncertainties combined as independent.

    Readings of both parts with one gauge share its calibration error, which a difference largely cancels; counting it twice
    errs on the safe side (JCGM 100:2008, 5.2.2).
    """
    value = bore.value_mm - shaft.value_mm
    combined = combine((*bore.uncertainty.components, *shaft.uncertainty.components))
    working = Working(
        title=title,
        formula="c = B − d,   u(c) = √(u(B)² + u(d)²)",
        given=(
            Given("B", words[0], length(bore.value_mm, fine=True)),
            Given("u(B)", "its standard uncertainty", uncertainty(bore.u_mm)),
            Given("d", words[1], length(shaft.value_mm, fine=True)),
            Given("u(d)", "its standard uncertainty", uncertainty(shaft.u_mm)),
        ),
        result=length(value, fine=True),
        source="definition of running clearance; JCGM 100:2008, 5.1.2",
        notes=bore.notes + shaft.notes,
    )
    return Result(
        count=bore.count + shaft.count,
        value_mm=value,
        deciding=f"{bore.deciding} over {shaft.deciding}",
        mean_mm=bore.mean_mm - shaft.mean_mm,
        spread_mm=bore.spread_mm + shaft.spread_mm,
        out_of_round_mm=None,
        taper_mm=None,
        uncertainty=combined,
        working=working,
        fine=bore.fine and shaft.fine,
        notes=working.notes,
        scatter=bore.scatter + shaft.scatter,
        # Of two feeler readings the wider stays an interval, the other spreads it.
        half_mm=max(bore.half_mm, shaft.half_mm),
    )


def _mean(values: list[float]) -> float:
    return math.fsum(values) / len(values)


def _deciding(means: dict[str, float], statistic: Statistic) -> str:
    pick = min if statistic is Statistic.SMALLEST else max
    return pick(means, key=lambda station: means[station])


def _by_plane(groups: dict[str, list[StationReading]], means: dict[str, float]) -> list[list[float]]:
    planes: dict[str, list[float]] = {}
    for station, group in groups.items():
        planes.setdefault(group[0].plane, []).append(means[station])
    return list(planes.values())


def _taper(planes: list[list[float]]) -> float | None:
    if len(planes) < 2:
        return None
    means = [_mean(p) for p in planes]
    return max(means) - min(means)


def _remarks(readings: Sequence[StationReading]) -> tuple[Sentence, ...]:
    """What the readings say against themselves, each once."""
    warm = [r.warm for r in readings if r.warm]
    remarks = [fault for r in readings for fault in r.faults] + [w.sentence for w in warm]
    return tuple({remark.render(Units.MM): remark for remark in remarks}.values())


def _repeatability(spread: float, dof: int, repeats: int, worst: StationReading) -> tuple[Component, tuple[Sentence, ...]]:
    gauge = worst.gauge
    if worst.half_mm:
        # Leaves go or do not go: repeating them tells nothing the interval does not hold already.
        return Component("repeatability", spread / math.sqrt(repeats) if dof else 0.0, dof or math.inf), ()
    if dof:
        return Component("repeatability", spread / math.sqrt(repeats), dof), ()
    if gauge.repeatability_mm is not None:
        note = Sentence("No station was repeated: the repeatability kept for {gauge} is used.", {"gauge": gauge.name})
        return Component("repeatability", gauge.repeatability_mm / math.sqrt(repeats)), (note,)
    note = Sentence("No station was repeated, so repeatability is not in U. Take the deciding station twice more.")
    return Component("repeatability", 0.0), (note,)


def _working(
    title: str,
    statistic: Statistic,
    value: float,
    combined: Combined,
    half: float,
    repeats: int,
    fine: bool,
    notes: tuple[Sentence, ...],
) -> Working:
    repeatability, *systematic = combined.components
    doubt = expanded(combined.u, combined.dof, half)
    reach = "U = F⁻¹(97.5%), F: alike from leaf to leaf, smeared by the rest" if half else f"U = k·u,   k = t({CONFIDENCE:.0%}, ν)"
    return Working(
        title=title,
        formula=f"x = {statistic.value},   u = √(Σ uᵢ²),   {reach}",
        given=(
            Given("x", statistic.value, length(value, fine)),
            Given("u₁", f"repeatability, mean of {repeats}", uncertainty(repeatability.u)),
            *(Given(f"u{sub}", c.name, uncertainty(c.u)) for sub, c in zip("₂₃₄₅", systematic, strict=False)),
            Given("u", "combined standard uncertainty", uncertainty(combined.u)),
            Given("ν", "effective degrees of freedom", Amount(combined.dof, Kind.NUMBER)),
            *(() if half else (Given("k", "coverage factor", Amount(coverage_factor(combined.dof), Kind.NUMBER)),)),
        ),
        result=Sentence("{x} ± {U}", {"x": length(value, fine), "U": length(doubt, fine=True)}),
        source="JCGM 100:2008 (GUM), 4.2, 4.3, 5.1.2, G.4" + ("; JCGM 101:2008, 6.4.2 and 7.7" if half else ""),
        notes=notes,
    )
