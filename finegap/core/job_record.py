"""A job as it was recorded: everything that was, and nothing that follows from it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import Enum
from functools import cached_property

from finegap.core.assembly.stacking import Fitted, Used, stacks_of
from finegap.core.assembly.tightening import Tightened, Wrench
from finegap.core.families.builds import Build
from finegap.core.families.family import Family, stack_worded
from finegap.core.families.features import FeatureKind
from finegap.core.families.stack import Stack
from finegap.core.families.steps import Stage, Task
from finegap.core.formatting import Sentence
from finegap.core.gap.duty_range import DutyRange
from finegap.core.gap.housing import Zero
from finegap.core.gap.tries import TryMade
from finegap.core.gap.viscosity import Liquid
from finegap.core.gauges import CabinetGauge, made_for
from finegap.core.measuring.readings import StationReading
from finegap.core.procedure import ShopStep, in_force, needed, reopened
from finegap.core.proof.first_hour import FirstHourItem, Running
from finegap.core.proof.run_in import Note
from finegap.core.proof.seen import Proof
from finegap.core.sheet import SpecSheet
from finegap.core.wear.hours import HoursRead
from finegap.core.wear.lives import Visit


class Phase(Enum):
    """When a part was measured: as found, or as left after Build."""

    FOUND = "found"
    LEFT = "left"


NEW_SHARE = 0.1
"""How far a new part may be from its one new size before it is asked about: a share of its wear allowance (no source)."""


class Decided(Enum):
    """What the technician decided for a part."""

    KEEP = "keep"
    CHANGE = "change"


@dataclass(frozen=True)
class FeatureDecision:
    """A decision with the reason it needed, if it went against the verdict.

    ``parts`` are the features whose parts are new where a pair is to be changed; of an older record, none: both.
    """

    decided: Decided
    reason: str = ""
    parts: tuple[str, ...] = ()


@dataclass(frozen=True)
class SeenDamage:
    """What was seen on a part: keys of damage; none means sound."""

    damages: tuple[str, ...] = ()


@dataclass(frozen=True)
class Duty:
    """What the pump does: viscosity at pumping temperature [mm2/s], temperatures [C], pressure [bar], speed [r/min].

    ``medium`` is the kind of liquid, as the table of elastomers knows it; empty where nobody has said. ``liquid`` has its two
    points where they are known, ``start_c`` and ``hot_c`` the coldest start and the hottest running, ``density_kg_m3`` the density.
    """

    material: str
    viscosity_mm2_s: float
    temperature_c: float
    casing_c: float
    pressure_bar: float = 0.0
    speed_r_min: float = 0.0
    medium: str = ""
    liquid: Liquid | None = None
    density_kg_m3: float | None = None
    start_c: float | None = None
    hot_c: float | None = None

    @property
    def duty_range(self) -> DutyRange:
        """Its range, from the coldest start to the hottest running; a point where neither is known."""
        start = self.temperature_c if self.start_c is None else min(self.start_c, self.temperature_c)
        hot = self.temperature_c if self.hot_c is None else max(self.hot_c, self.temperature_c)
        return DutyRange(self.viscosity_mm2_s, self.temperature_c, start, hot, self.liquid)

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
    meter: HoursRead = field(default_factory=lambda: HoursRead(None))
    planned_h: float | None = None


@dataclass(frozen=True)
class JobRecord:
    """Everything recorded on a job.

    ``readings`` leave out what was struck, ``tightened`` holds it marked so; ``steps_done`` holds steps skipped with a reason,
    too, and ``skipped`` those alone; ``zero`` is ``None`` until zero is found; ``box`` is gasket stock by thickness [um];
    ``gauge_faults`` are the sentences against gauges that were used; ``lubricant`` is what is on the bench, and
    ``grams_per_ten_strokes`` what ten strokes of its grease gun weigh. ``mesh_tries`` are those of a timing gear, ``opened``
    the means that had the pump opened again to set a gap. ``proofs`` are what was seen at steps of Prove, ``run_in`` is the log
    of its packing, ``wrenches`` the torque wrenches of the cabinet. ``on_hand`` says of what the job needs whether it is there.
    ``confirmed_new`` are features whose new part was confirmed as in; ``new_share`` is how far a new part may be from its one
    new size, as a share of its allowance, before it is asked about. ``renewed`` is when it was last decided which parts are
    new, counted like what is ``made``. ``sheet_unread`` while nobody has read the sheet against the manual.
    """

    sheet: SpecSheet
    duty: Duty
    readings: Mapping[tuple[str, Phase], tuple[StationReading, ...]]
    steps_done: frozenset[str]
    decisions: Mapping[str, FeatureDecision]
    zero: Zero | None
    lash_mm: float
    tries: tuple[TryMade, ...]
    box: Mapping[int, int]
    build: Build = field(default_factory=dict)
    shop: tuple[ShopStep, ...] = ()
    looks: Mapping[tuple[str, Phase], SeenDamage] = field(default_factory=dict)
    past: Past = field(default_factory=Past)
    gauges: tuple[CabinetGauge, ...] = ()
    gauge_faults: tuple[Sentence, ...] = ()
    symptom: str = ""
    skipped: frozenset[str] = frozenset()
    fitted: tuple[Fitted, ...] = ()
    tightened: tuple[Tightened, ...] = ()
    lubricant: str = ""
    grams_per_ten_strokes: float | None = None
    mesh_tries: tuple[TryMade, ...] = ()
    opened: frozenset[str] = frozenset()
    proofs: tuple[Proof, ...] = ()
    wrenches: tuple[Wrench, ...] = ()
    on_hand: Mapping[str, bool] = field(default_factory=dict)
    run_in: tuple[Note, ...] = ()
    sheet_unread: bool = False
    confirmed_new: frozenset[str] = frozenset()
    new_share: float = NEW_SHARE
    renewed: int = 0

    @cached_property
    def whole(self) -> Family:
        """The family as this pump is built, stationed as the sheet says, with every step the shop follows."""
        return in_force(self.sheet.family_of(self.build), self.shop)

    @cached_property
    def family(self) -> Family:
        """The same with only the steps this job needs."""
        # What a step of another scope or build is done with is not done in this one.
        declared = {task for step in self.sheet.family.steps for task in step.tasks} if self.builds else set()
        torques = tuple((t.key, t.fastener) for t in self.sheet.torques if self.builds and Task("torque", t.key) not in declared)
        stacks = tuple(
            (s.place, s.name) for s in self.sheet.building.stacks if self.builds and Task("stack", s.place) not in declared
        )
        return reopened(needed(self.whole, self.changed, self.skipped, torques, stacks), self.opened)

    @property
    def builds(self) -> bool:
        """Whether the job builds or sets anything. A job that only looks leaves what it decides to the next one."""
        return self.sets_a_gap or any(step.stage is Stage.BUILD for step in self.whole.steps)

    @property
    def sets_a_gap(self) -> bool:
        """A check that leaves the pump closed sets none."""
        return any(feature.is_set for feature in self.whole.features)

    @cached_property
    def changed(self) -> frozenset[str]:
        """Features whose part is renewed; of a pair those of its parts that are; and what is measured of such a part and others."""
        family = self.sheet.family
        settled = one_decision(family, self.decisions)
        new = {key for key, decision in settled.items() if decision.decided is Decided.CHANGE}
        measured = (f for f in family.features if f.of_parts and self.sheet.spec(f.key).new_mm is not None)
        return frozenset(new | {feature.key for feature in measured if new & set(feature.of_parts)})

    @cached_property
    def stacks(self) -> dict[str, Stack]:
        """What goes onto the shaft, by place."""
        found = stacks_of(self.family.stacks, self.sheet.building, self.sheet.details)
        return {place: stack_worded(stack, self.family.said) for place, stack in found.items()}

    @cached_property
    def never_twice(self) -> dict[str, tuple[str, ...]]:
        """Parts of stacks that this job builds and that are never used twice, by the feature they stand for."""
        places = dict.fromkeys(place for step in self.family.steps for place in step.of("stack"))
        parts = [part for place in places if place in self.stacks for part in self.stacks[place].parts]
        once: dict[str, tuple[str, ...]] = {}
        for part in parts:
            if part.feature and part.always_new and part.key not in self.sheet.building.reusable:
                once[part.feature] = (*once.get(part.feature, ()), part.key)
        return once

    @cached_property
    def made_for(self) -> dict[FeatureKind, tuple[CabinetGauge, ...]]:
        """The gauges of the cabinet made for each kind of feature, least doubt first."""
        return {kind: made_for(self.gauges, kind) for kind in FeatureKind}

    def tightens(self, torque: str) -> bool:
        """Whether a step of this job tightens a line of the torque table."""
        return any(torque in step.of("torque") for step in self.family.steps)

    def seen_at(self, step: str, seen: str) -> Proof | None:
        """Something seen at a step."""
        return next((p for p in self.proofs if (p.step, p.seen) == (step, seen)), None)

    def first_hour(self, step: str) -> tuple[Proof, ...]:
        """What was seen of the first hour at a step; of the oldest jobs no step was kept."""
        items = {item.value for item in FirstHourItem}
        return tuple(p for p in self.proofs if p.seen in items and p.step in (step, ""))

    def running(self, step: str) -> Running:
        """The same, in numbers."""
        proofs = self.first_hour(step)
        values = {FirstHourItem(p.seen): p.value for p in proofs if p.value is not None}
        return Running(values, next((p.typed for p in proofs if p.seen == FirstHourItem.NOISE.value), ""))

    @property
    def used(self) -> Used:
        """What its elastomers meet."""
        return Used(self.duty.medium, self.duty.temperature_c, self.lubricant)


def one_decision(family: Family, decisions: Mapping[str, FeatureDecision]) -> dict[str, FeatureDecision]:
    """Decisions in which no part contradicts its pair. A pair that is changed decides its parts."""
    settled = dict(decisions)
    for pair in family.features:
        decision = settled.get(pair.key)
        if pair.kind is not FeatureKind.PAIR or decision is None or decision.decided is not Decided.CHANGE:
            continue
        new = decision.parts or (pair.bore, pair.shaft)
        for key in (pair.bore, pair.shaft):
            wanted = Decided.CHANGE if key in new else Decided.KEEP
            if key not in settled or settled[key].decided is not wanted:
                settled[key] = FeatureDecision(wanted, decision.reason or f"decided for {pair.name.lower()}")
    return settled
