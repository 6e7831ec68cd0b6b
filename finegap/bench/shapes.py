"""What the bench shows, as plain data: the shape of the API's answers and of the signed record.

Texts are already rendered in the unit system asked for; ``*_mm`` and ``*_deg`` are for drawing.
"""

from __future__ import annotations

import datetime as dt
import uuid
from dataclasses import dataclass

from finegap.toolbox.shapes import GaugeShape


@dataclass(frozen=True)
class GivenShape:
    """A number put into a formula."""

    symbol: str
    meaning: str
    text: str


@dataclass(frozen=True)
class WorkingShape:
    """How a number was reached."""

    title: str
    formula: str
    given: list[GivenShape]
    result: str
    source: str
    notes: list[str]


@dataclass(frozen=True)
class VerdictShape:
    """A call and the sentence that explains it."""

    call: str
    sentence: str
    probability: float
    working: WorkingShape


@dataclass(frozen=True)
class ResultShape:
    """What a set of readings says."""

    text: str
    expanded_text: str
    value_mm: float
    expanded_mm: float
    mean: str
    spread: str
    out_of_round: str | None
    taper: str | None
    deciding: str
    notes: list[str]
    working: WorkingShape
    verdict: VerdictShape | None


@dataclass(frozen=True)
class ReadingShape:
    """One reading, as typed and as shown."""

    id: uuid.UUID
    phase: str
    station: str
    typed: str
    text: str
    gauge: str
    overdue: bool
    by: str
    at: dt.datetime
    struck_reason: str


@dataclass(frozen=True)
class StationShape:
    """A place on the part."""

    key: str
    plane: str
    direction: str
    label: str


@dataclass(frozen=True)
class DecisionShape:
    """What was decided."""

    decided: str
    reason: str
    by: str
    at: dt.datetime


@dataclass(frozen=True)
class FeatureShape:
    """A numbered gap or size with all that is known about it.

    ``parts`` are the features a running clearance is made of; ``reason_to_*`` says whether deciding so needs a reason;
    ``gauge`` is the one to offer first and ``out_of_range`` those whose range this size lies outside of.
    """

    key: str
    number: int
    name: str
    part: str
    kind: str
    anchor: list[int]
    label: list[int]
    stations: list[StationShape]
    parts: list[str]
    new_text: str
    limit_text: str
    page: str
    new_mm: list[float]
    lower_mm: float | None
    upper_mm: float | None
    readings: list[ReadingShape]
    found: ResultShape | None
    left: ResultShape | None
    decision: DecisionShape | None
    open_decision: bool
    reason_to_keep: bool
    reason_to_change: bool
    gauge: str
    out_of_range: list[str]


@dataclass(frozen=True)
class StepShape:
    """A step with who did it and when."""

    key: str
    stage: str
    text: str
    why: str
    caution: bool
    hold: bool
    by: str | None
    at: dt.datetime | None


@dataclass(frozen=True)
class StageShape:
    """A stage of the ribbon: what is done of what."""

    key: str
    done: int
    of: int


@dataclass(frozen=True)
class CandidateShape:
    """A row of the clearance table seen from the duty."""

    setting: str
    viscosity: str
    temperature: str
    clearance: str
    matches: bool
    chosen: bool
    reason: str


@dataclass(frozen=True)
class ChoiceShape:
    """The number the end clearance must have."""

    sentence: str
    target: str | None
    candidates: list[CandidateShape]
    working: WorkingShape


@dataclass(frozen=True)
class TryShape:
    """A try at the gap."""

    number: int
    set_by: str
    checked: str
    gauge: str
    gap: str
    gap_mm: float
    expanded_mm: float
    call: str
    next: str
    by: str
    at: dt.datetime
    working: WorkingShape


@dataclass(frozen=True)
class TickShape:
    """A tick on the housing's scale; degrees from zero in the opening direction."""

    angle_deg: float
    text: str


@dataclass(frozen=True)
class HousingShape:
    """What the end view draws. Angles from the zero line, opening positive."""

    diameter: str
    lead: str
    hand: str
    per_step: str
    school: str
    zero_found: bool
    lash: str
    lash_seen: str | None
    surprise: str | None
    position_deg: float
    target_deg: float
    arc: str
    ticks: list[TickShape]
    check: str | None
    check_agrees: bool
    check_working: WorkingShape | None


@dataclass(frozen=True)
class PieceShape:
    """A gasket thickness with how many."""

    um: int
    text: str
    count: int


@dataclass(frozen=True)
class GasketsShape:
    """Stacks to draw: under the head now, next, and what is on the shelf."""

    now: list[PieceShape]
    next: list[PieceShape]
    out: list[PieceShape]
    into: list[PieceShape]
    box: list[PieceShape]
    possible: bool


@dataclass(frozen=True)
class HotShape:
    """The gap predicted at pumping temperature."""

    text: str
    touches: bool
    working: WorkingShape


@dataclass(frozen=True)
class SetShape:
    """Where setting the gap stands, with the next move."""

    means: str
    target: str
    low: str
    high: str
    target_mm: float
    low_mm: float
    high_mm: float
    headline: str
    details: list[str]
    way: str
    right: bool
    working: WorkingShape
    tries: list[TryShape]
    hot: HotShape | None
    housing: HousingShape | None
    gaskets: GasketsShape | None
    feelers: list[str]


@dataclass(frozen=True)
class BlockerShape:
    """Why the job cannot be signed yet."""

    stage: str
    sentence: str
    lead_may: bool


@dataclass(frozen=True)
class TorqueShape:
    """A line of the torque table."""

    fastener: str
    torque: str
    condition: str
    page: str


@dataclass(frozen=True)
class PumpShape:
    """The pump on the bench."""

    tag: str
    service: str
    location: str
    serial: str
    maker: str
    model: str


@dataclass(frozen=True)
class DutyShape:
    """What the pump does."""

    liquid: str
    material: str
    viscosity: str
    viscosity_typed: str
    temperature: str
    casing: str
    pressure: str
    speed: str


@dataclass(frozen=True)
class SignedShape:
    """The signature."""

    by: str
    at: dt.datetime
    reason: str
    core_version: str


@dataclass(frozen=True)
class EventShape:
    """A line of the log."""

    version: int
    what: str
    by: str
    at: dt.datetime


@dataclass(frozen=True)
class JobShape:
    """Everything the bench shows of a job, in one answer."""

    number: int
    version: int
    unit: str
    reason: str
    hours_run: int | None
    opened_by: str
    opened_at: dt.datetime
    pump: PumpShape
    duty: DutyShape
    sheet: str
    family: str
    school: str
    stages: list[StageShape]
    steps: list[StepShape]
    features: list[FeatureShape]
    choice: ChoiceShape
    setting: SetShape | None
    torques: list[TorqueShape]
    gauges: list[GaugeShape]
    blockers: list[BlockerShape]
    log: list[EventShape]
    signed: SignedShape | None


@dataclass(frozen=True)
class JobLine:
    """A job in a list."""

    number: int
    pump: str
    service: str
    reason: str
    opened_by: str
    opened_at: dt.datetime
    signed_at: dt.datetime | None
    last: str
