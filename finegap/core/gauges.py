"""Which gauge for which size. Common practice, no source."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import Enum

from finegap.core.families.model import FeatureKind


class GaugeKind(Enum):
    """Kinds of gauge, with the kinds of feature each is made for."""

    BORE = "bore gauge"
    OUTSIDE = "outside micrometer"
    CALIPER = "caliper"
    FEELER = "feeler set"
    INDICATOR = "dial indicator"

    def suits(self, feature: FeatureKind) -> bool:
        """Whether it is made for such a feature."""
        return feature in _MADE_FOR[self]


_MADE_FOR = {
    GaugeKind.BORE: (FeatureKind.INTERNAL,),
    GaugeKind.OUTSIDE: (FeatureKind.EXTERNAL,),
    GaugeKind.CALIPER: (FeatureKind.INTERNAL, FeatureKind.EXTERNAL),
    GaugeKind.FEELER: (FeatureKind.GAP,),
    GaugeKind.INDICATOR: (FeatureKind.GAP,),
}


@dataclass(frozen=True)
class Choice:
    """A gauge of the cabinet: range and certified expanded uncertainty in mm."""

    tag: str
    kind: GaugeKind
    low_mm: float
    high_mm: float
    expanded_mm: float
    overdue: bool

    def covers(self, new_mm: tuple[float, float]) -> bool:
        """Whether the new sizes lie in its range."""
        return self.low_mm <= new_mm[0] and new_mm[1] <= self.high_mm


def pick(cabinet: Sequence[Choice], feature: FeatureKind, new_mm: tuple[float, float]) -> str:
    """The tag of the gauge to offer first: made for it, in range, in date, least uncertain; empty if there is none."""
    fitting = [g for g in cabinet if g.kind.suits(feature) and g.covers(new_mm) and not g.overdue]
    return min(fitting, key=lambda g: g.expanded_mm).tag if fitting else ""
