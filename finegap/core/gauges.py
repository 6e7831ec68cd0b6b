"""Which gauge for which size, and whether it can decide it at all. Common practice, no source, where not said otherwise."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from enum import Enum
from functools import cached_property

from finegap.core.families.features import FeatureKind
from finegap.core.formatting import Amount, Amounts, Kind, Sentence, length
from finegap.core.measuring.readings import CertifiedGauge
from finegap.core.measuring.uncertainty import Component, combine
from finegap.core.measuring.verdict import Limit, guard_of
from finegap.core.units import Dimension
from finegap.core.working import Given, Working


class GaugeKind(Enum):
    """Kinds of gauge."""

    BORE = "bore gauge"
    OUTSIDE = "outside micrometer"
    CALIPER = "caliper"
    DEPTH = "depth gauge"
    INDICATOR = "dial indicator"
    FEELER = "feeler set"
    STRAIGHTEDGE = "straightedge"
    TORQUE_WRENCH = "torque wrench"
    THERMOMETER = "thermometer"

    @property
    def dimension(self) -> Dimension:
        """What it reads."""
        others = {GaugeKind.TORQUE_WRENCH: Dimension.TORQUE, GaugeKind.THERMOMETER: Dimension.TEMPERATURE}
        return others.get(self, Dimension.LENGTH)

    def suits(self, feature: FeatureKind) -> bool:
        """Whether it is made for such a feature."""
        return feature in _MADE_FOR.get(self, ())


_MADE_FOR = {
    GaugeKind.BORE: (FeatureKind.INTERNAL,),
    GaugeKind.OUTSIDE: (FeatureKind.EXTERNAL,),
    GaugeKind.CALIPER: (FeatureKind.INTERNAL, FeatureKind.EXTERNAL, FeatureKind.DEPTH),
    GaugeKind.DEPTH: (FeatureKind.GAP, FeatureKind.DEPTH),
    GaugeKind.FEELER: (FeatureKind.GAP, FeatureKind.FLATNESS),
    GaugeKind.INDICATOR: (FeatureKind.GAP, FeatureKind.RUNOUT),
}


@dataclass(frozen=True)
class CabinetGauge:
    """A gauge of the cabinet with its range in mm and, for a feeler set, its leaves in micrometres."""

    gauge: CertifiedGauge
    kind: GaugeKind
    low_mm: float
    high_mm: float
    overdue: bool
    leaves_um: tuple[int, ...] = ()

    @property
    def tag(self) -> str:
        """Its name."""
        return self.gauge.name

    def reaches(self, size_mm: float, half_mm: float = 0.0) -> bool:
        """Whether a size lies in its range. Of a feeler pair, ``half_mm`` apart from its middle, the leaf that goes has to."""
        if self.kind is GaugeKind.FEELER:
            return size_mm - half_mm <= self.high_mm
        return self.low_mm <= size_mm <= self.high_mm

    def covers(self, new_mm: tuple[float, float], is_gap: bool = False) -> bool:
        """Whether the new sizes lie in its range; a gap may be anything up to its range."""
        return new_mm[1] <= self.high_mm if is_gap else self.low_mm <= new_mm[0] and new_mm[1] <= self.high_mm

    @cached_property
    def guard_mm(self) -> float:
        """Distance from a limit at which one reading with it is in doubt: 95 % one-sided (ISO 14253-1:2017)."""
        repeat = Component("repeatability", self.gauge.repeatability_mm or 0.0)
        combined = combine((repeat, *self.gauge.systematic))
        return guard_of(combined.u, combined.dof)

    @property
    def expanded_mm(self) -> float:
        """U of its certificate."""
        return self.gauge.expanded_mm


@dataclass(frozen=True)
class GaugeAbility:
    """Whether a gauge can decide a feature, said before it is picked up. ``ratio`` is wear allowance, or tolerance, over doubt."""

    tag: str
    decides: bool
    ratio: float | None
    sentence: Sentence
    working: Working | None


def made_for(gauges: Iterable[CabinetGauge], feature: FeatureKind) -> tuple[CabinetGauge, ...]:
    """Those made for a kind of feature, least doubt first."""
    return tuple(sorted((g for g in gauges if g.kind.suits(feature)), key=lambda g: g.guard_mm))


@dataclass(frozen=True)
class Cabinet:
    """The gauges made for one feature, least doubt first. ``limit`` is ``None`` where the sheet gives none."""

    feature: FeatureKind
    new_mm: tuple[float, float] | None
    limit: Limit | None
    choices: tuple[CabinetGauge, ...]

    @classmethod
    def of(
        cls, gauges: Sequence[CabinetGauge], feature: FeatureKind, new_mm: tuple[float, float] | None, limit: Limit | None
    ) -> Cabinet:
        """Those made for such a feature."""
        return cls(feature, new_mm, limit, made_for(gauges, feature))

    def in_range(self, choice: CabinetGauge) -> bool:
        """Whether the new size lies in a gauge's range; unknown counts as yes."""
        return self.new_mm is None or choice.covers(self.new_mm, self.feature.is_gap)

    @property
    def pick(self) -> str:
        """The tag of the gauge to offer first: in range, in date, least doubt; empty if there is none."""
        return next((g.tag for g in self.choices if self.in_range(g) and not g.overdue), "")

    def first_that_proves(self, margin_mm: float) -> str:
        """A gauge in range and in date whose doubt is less than a distance from the limit."""
        return next((g.tag for g in self.choices if self.in_range(g) and not g.overdue and g.guard_mm < margin_mm), "")

    def fit(self, choice: CabinetGauge, margin_mm: float | None = None) -> GaugeAbility:
        """What a gauge can do for this feature; ``margin_mm`` is how far from its limit it was measured, where it was."""
        if not self.in_range(choice):
            words = "This size is outside the range of {gauge}; a reading with it needs a lead's reason."
            return GaugeAbility(choice.tag, False, None, Sentence(words, {"gauge": choice.tag}), None)
        if self.limit is None or self.new_mm is None:
            return GaugeAbility(choice.tag, True, None, Sentence("The sheet gives no limit to decide against."), None)
        allowance = self.limit.tolerance_mm or min(abs(self.limit.margin(edge)) for edge in self.new_mm)
        ratio = allowance / choice.guard_mm if choice.guard_mm else float("inf")
        ratio_words = f"{ratio:.0f} to 1" if ratio >= 3 else f"{ratio:.1f} to 1"
        amounts: Amounts = {
            "gauge": choice.tag,
            "guard": length(choice.guard_mm, fine=True),
            "allowance": length(allowance, fine=True),
            "ratio": ratio_words,
        }
        amounts["of"] = "to wear" if self.limit.tolerance_mm is None else "between the limits"
        words = "In doubt within {guard} of the limit, of {allowance} {of}: {ratio}."
        if ratio <= 1:
            better = self.first_that_proves(allowance / 3)
            words = "Cannot decide this: in doubt within {guard} of the limit, and there is only {allowance} {of}."
            words += " {better} could." if better else " Nor could any other gauge of the cabinet."
            amounts["better"] = better
        elif ratio < 3:
            words = "Decides only far from the limit: " + words[0].lower() + words[1:]
        if margin_mm is not None and ratio > 1:
            near = abs(margin_mm) <= choice.guard_mm
            words += " Measured {margin} from it: " + ("too near for this gauge." if near else "it decides that.")
            amounts["margin"] = length(abs(margin_mm), fine=True)
        return GaugeAbility(choice.tag, ratio > 1, ratio, Sentence(words, amounts), _working(choice, allowance, ratio_words))


def _working(choice: CabinetGauge, allowance: float, ratio: str) -> Working:
    gauge = choice.gauge
    step, calibration = gauge.systematic
    fine = Kind.UNCERTAINTY
    return Working(
        title=f"Can {choice.tag} decide this?",
        formula="g = 1.64·√(u₁² + u₂² + s²),   ratio = W/g",
        given=(
            Given("W", "wear allowance: new size to limit; or tolerance between two limits", length(allowance, fine=True)),
            Given("u₁", "resolution, d/√12", Amount(step.u, fine)),
            Given("u₂", "calibration, U/k", Amount(calibration.u, fine)),
            Given("s", "repeatability of one reading", Amount(gauge.repeatability_mm or 0.0, fine)),
            Given("g", "nearer than this to the limit is in doubt", Amount(choice.guard_mm, fine)),
        ),
        result=ratio,
        source="ISO 14253-1:2017 (one-sided 95 %); JCGM 100:2008, 5.1.2",
    )
