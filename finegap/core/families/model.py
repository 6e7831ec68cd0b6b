"""What a family declares: the features to measure and the procedure to follow."""

from __future__ import annotations

from dataclasses import dataclass
from enum import Enum
from functools import cached_property

from finegap.core.measuring.readings import Statistic


class Stage(Enum):
    """The order of work."""

    PREPARE = "prepare"
    STRIP = "strip"
    INSPECT = "inspect"
    DECIDE = "decide"
    BUILD = "build"
    SET = "set"
    PROVE = "prove"
    CLOSE = "close"


class FeatureKind(Enum):
    """What a feature is, which settles how it wears and how it is drawn."""

    EXTERNAL = "external size"
    INTERNAL = "internal size"
    PAIR = "running clearance of a pair"
    GAP = "gap measured directly"

    @property
    def statistic(self) -> Statistic:
        """Which station is held against the limit."""
        picks = {FeatureKind.EXTERNAL: Statistic.SMALLEST, FeatureKind.INTERNAL: Statistic.LARGEST}
        return picks.get(self, Statistic.AS_MEASURED)


@dataclass(frozen=True)
class Station:
    """A place on the part. ``plane`` is along it, ``direction`` across it; both may be empty."""

    key: str
    plane: str
    direction: str

    @property
    def label(self) -> str:
        """How it is said: “front, 12–6 o'clock”."""
        return ", ".join(part for part in (self.plane, self.direction) if part) or "reading"


def stations(planes: tuple[str, ...], directions: tuple[str, ...]) -> tuple[Station, ...]:
    """Every direction in every plane, in the order they are taken."""
    return tuple(Station(f"{p}/{d}".strip("/"), p, d) for p in planes for d in directions)


@dataclass(frozen=True)
class Feature:
    """One numbered gap or size.

    ``bore`` and ``shaft`` name the two features of a pair. ``anchor`` is the spot on the section drawing and ``label`` where its
    number stands, both in drawing units.
    """

    key: str
    number: int
    name: str
    part: str
    kind: FeatureKind
    anchor: tuple[int, int]
    label: tuple[int, int]
    stations: tuple[Station, ...] = ()
    bore: str = ""
    shaft: str = ""


@dataclass(frozen=True)
class Step:
    """One step of the procedure.

    ``why`` is given where a slip is costly; ``caution`` where the work can hurt. A ``hold`` step blocks sign-off until done.
    """

    stage: Stage
    key: str
    text: str
    why: str = ""
    caution: bool = False
    hold: bool = False


@dataclass(frozen=True)
class Family:
    """A family of pumps."""

    key: str
    name: str
    features: tuple[Feature, ...]
    steps: tuple[Step, ...]

    @cached_property
    def by_key(self) -> dict[str, Feature]:
        """Features by key."""
        return {f.key: f for f in self.features}

    def steps_of(self, stage: Stage) -> tuple[Step, ...]:
        """The steps of a stage, in order."""
        return tuple(s for s in self.steps if s.stage is stage)
