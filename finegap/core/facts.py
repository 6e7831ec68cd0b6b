"""A job as plain facts: everything that was recorded, nothing that follows from it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import Enum
from functools import cached_property

from finegap.core.families.model import Build, Family
from finegap.core.gap.housing import Zero
from finegap.core.gap.setting import TryMade
from finegap.core.gauges import Choice
from finegap.core.measuring.readings import Reading
from finegap.core.procedure import ShopStep, in_force
from finegap.core.sheet import SpecSheet
from finegap.core.showing import Sentence
from finegap.core.wear.hours import MeterReading
from finegap.core.wear.lives import Visit


class Phase(Enum):
    """When a part was measured: as found, or as left after Build."""

    FOUND = "found"
    LEFT = "left"


class Decided(Enum):
    """What the technician decided for a part."""

    KEEP = "keep"
    CHANGE = "change"


@dataclass(frozen=True)
class Decision:
    """A decision with the reason it needed, if it went against the verdict."""

    decided: Decided
    reason: str = ""


@dataclass(frozen=True)
class Look:
    """What was seen on a part: keys of damage; none means sound."""

    damages: tuple[str, ...] = ()


@dataclass(frozen=True)
class Duty:
    """What the pump does: viscosity at pumping temperature [mm2/s], temperatures [C], pressure [bar], speed [r/min]."""

    material: str
    viscosity_mm2_s: float
    temperature_c: float
    casing_c: float
    pressure_bar: float = 0.0
    speed_r_min: float = 0.0

    @property
    def work(self) -> float:
        """Load times speed: wear follows it (Archard)."""
        return self.pressure_bar * self.speed_r_min


@dataclass(frozen=True)
class Past:
    """What earlier overhauls left on record, and this one's hours.

    ``visits`` by feature, oldest first, the present one not among them; ``planned_h`` hours to the next planned overhaul.
    """

    visits: Mapping[str, tuple[Visit, ...]] = field(default_factory=dict)
    job: int = 0
    day: int = 0
    meter: MeterReading = field(default_factory=lambda: MeterReading(None))
    planned_h: float | None = None


@dataclass(frozen=True)
class Facts:
    """Everything recorded on a job.

    ``readings`` leaves out what was struck; ``steps_done`` holds steps skipped with a reason, too; ``zero`` is ``None`` until zero
    is found; ``box`` is gasket stock by thickness [um]; ``gauge_faults`` are the sentences against gauges that were used.
    """

    sheet: SpecSheet
    duty: Duty
    readings: Mapping[tuple[str, Phase], tuple[Reading, ...]]
    steps_done: frozenset[str]
    decisions: Mapping[str, Decision]
    zero: Zero | None
    lash_mm: float
    tries: tuple[TryMade, ...]
    box: Mapping[int, int]
    build: Build = field(default_factory=dict)
    shop: tuple[ShopStep, ...] = ()
    looks: Mapping[tuple[str, Phase], Look] = field(default_factory=dict)
    past: Past = field(default_factory=Past)
    gauges: tuple[Choice, ...] = ()
    gauge_faults: tuple[Sentence, ...] = ()
    symptom: str = ""

    @cached_property
    def family(self) -> Family:
        """The family as this pump is built, stationed as the sheet says, with the procedure as the shop follows it."""
        return in_force(self.sheet.family_of(self.build), self.shop)
