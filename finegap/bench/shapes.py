"""What the bench shows, as plain data: the shape of the API's answers and of the signed record.

Texts are already rendered in the unit system asked for; ``*_mm`` and ``*_deg`` are for drawing.
"""

from __future__ import annotations

import datetime as dt
import uuid
from dataclasses import dataclass

from finegap.bench.building_shapes import BuildingShape
from finegap.site.shapes import GivenShape, LineShape, MarkShape, NamedShape, WorkingShape
from finegap.toolbox.shapes import GaugeShape

__all__ = ["BuildingShape", "GaugeShape", "GivenShape", "LineShape", "MarkShape", "NamedShape", "WorkingShape"]


@dataclass(frozen=True)
class JudgedShape:
    """The call on a feature, the sentence that decides it, the other reasons, and the working of its size where it has one."""

    call: str
    sentence: str
    reasons: list[str]
    probability: float | None
    working: WorkingShape | None


@dataclass(frozen=True)
class DamageShape:
    """A kind of damage to choose, and what it means."""

    key: str
    name: str
    call: str
    meaning: str


@dataclass(frozen=True)
class LookShape:
    """What was seen on a part; no damage means sound."""

    damages: list[str]
    words: str
    note: str
    by: str
    at: dt.datetime


@dataclass(frozen=True)
class FitShape:
    """Whether a gauge can decide a feature, said beforehand."""

    tag: str
    decides: bool
    sentence: str
    working: WorkingShape | None


@dataclass(frozen=True)
class ForecastShape:
    """How a part wears. ``size_at_planned_mm`` is where the line is at the next planned overhaul."""

    sentence: str
    date: str
    crosses: bool
    may_cross: bool
    size_at_planned_mm: float | None
    working: WorkingShape


@dataclass(frozen=True)
class OptionShape:
    """What a running clearance would be with some of its parts new."""

    new: list[str]
    text: str
    call: str


@dataclass(frozen=True)
class PhotoShape:
    """A photograph of a part or a step."""

    id: uuid.UUID
    url: str
    note: str
    by: str
    at: dt.datetime


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
    faults: list[str]
    part: str
    taken: str
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
    ``gauge`` is the one to offer first and ``fits`` what each gauge made for it can do; ``missing`` is what the result still lacks;
    ``suspect`` is its place among what the symptom points at, 0 for none; ``by_parts`` says that its parts decide it.
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
    judged: JudgedShape | None
    left: ResultShape | None
    judged_left: JudgedShape | None
    decision: DecisionShape | None
    open_decision: bool
    reason_to_keep: bool
    reason_to_change: bool
    by_parts: bool
    wanted: bool
    done: bool
    gauge: str
    fits: list[FitShape]
    expansion: str
    damages: list[DamageShape]
    look: LookShape | None
    look_left: LookShape | None
    forecast: ForecastShape | None
    odd: list[str]
    missing: str
    options: list[OptionShape]
    suspect: int
    press: str
    photos: list[PhotoShape]


@dataclass(frozen=True)
class StepShape:
    """A step with who did it and when.

    ``works`` is what it is done with, ``measures`` the features measured or looked at as fitted, ``waits`` why it cannot be
    marked done yet.
    """

    key: str
    stage: str
    text: str
    why: str
    caution: bool
    hold: bool
    look: str
    tells: list[str]
    tools: list[str]
    consumables: list[str]
    works: list[str]
    measures: list[str]
    waits: list[str]
    by: str | None
    at: dt.datetime | None
    note: str
    skipped: str
    photos: list[PhotoShape]


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
class RegionShape:
    """A row on the map; ends as drawn, and whether the row goes on past them (low, high)."""

    setting: str
    clearance: str
    mm2_s: list[float]
    c: list[float]
    open_mm2_s: list[bool]
    open_c: list[bool]
    matches: bool
    chosen: bool


@dataclass(frozen=True)
class AxisTickShape:
    """A line of the grid with its number."""

    value: float
    text: str


@dataclass(frozen=True)
class MapShape:
    """The table as a map, viscosity across and temperature up; ``duty`` is where the pump works."""

    mm2_s: list[float]
    c: list[float]
    regions: list[RegionShape]
    duty: list[float]
    mm2_s_ticks: list[AxisTickShape]
    c_ticks: list[AxisTickShape]


@dataclass(frozen=True)
class ChoiceShape:
    """The number the end clearance must have."""

    sentence: str
    target: str | None
    candidates: list[CandidateShape]
    map: MapShape | None
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
class PileShape:
    """Leaves laid together: which, what they come to as it is typed, and how good that is."""

    leaves: str
    thickness: str
    expanded: str


@dataclass(frozen=True)
class ProofShape:
    """What proves the window with a feeler set; ``None`` where the set makes no such pile."""

    gauge: str
    go: PileShape | None
    stop: PileShape | None


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
    proofs: list[ProofShape]
    surprise: str | None


@dataclass(frozen=True)
class BlockerShape:
    """Why the job cannot be signed yet."""

    stage: str
    sentence: str
    lead_may: bool


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
class BuildShape:
    """A way in which pumps of the family differ, and the choice in force. ``fixed`` by the sheet."""

    key: str
    name: str
    choice: str
    choices: list[NamedShape]
    fixed: bool


@dataclass(frozen=True)
class KnownShape:
    """What has to be known before anything is opened, as it can be typed again; ``missing`` names what is not known yet."""

    serial: str
    liquid: str
    medium: str
    media: list[NamedShape]
    hazards: str
    viscosity: str
    temperature: str
    casing: str
    pressure: str
    speed: str
    hours_run: str
    old_meter_last: str
    new_meter_first: str
    reason: str
    symptom: str
    symptoms: list[NamedShape]
    place: str
    room: str
    build: list[BuildShape]
    missing: list[str]


@dataclass(frozen=True)
class NeedShape:
    """A tool, a consumable or a part the job needs; ``here`` is ``None`` until somebody has looked."""

    item: str
    kind: str
    here: bool | None
    by: str


@dataclass(frozen=True)
class OrderLineShape:
    """A line of the order."""

    number: str
    name: str
    count: int
    price: str
    lead: str
    is_kit: bool
    reasons: list[str]


@dataclass(frozen=True)
class OrderShape:
    """What to order, what the kits bring besides, and what the catalogue does not have."""

    lines: list[OrderLineShape]
    total: str
    lead: str
    spare: list[str]
    missing: list[str]
    working: WorkingShape


@dataclass(frozen=True)
class ReadyShape:
    """What the job needs, before anything is opened. ``gauges`` are features nothing in the cabinet can measure."""

    needs: list[NeedShape]
    kit: OrderShape | None
    gauges: list[str]


@dataclass(frozen=True)
class ExplainedShape:
    """Why it came in, and what explains it."""

    name: str
    sentence: str
    explains: list[str]


@dataclass(frozen=True)
class DrawingShape:
    """The section of the pump."""

    width: int
    height: int
    marks: list[MarkShape]


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
    known: KnownShape
    ready: ReadyShape
    procedure: str
    steps: list[StepShape]
    drawing: DrawingShape
    features: list[FeatureShape]
    explained: ExplainedShape | None
    order: OrderShape | None
    materials: list[str]
    choice: ChoiceShape
    setting: SetShape | None
    building: BuildingShape
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


@dataclass(frozen=True)
class WearPointShape:
    """A size in a life: hours since fitted at the present duty, with its expanded uncertainty."""

    hours: float
    mm: float
    expanded_mm: float
    text: str
    job: int


@dataclass(frozen=True)
class BandShape:
    """A place on the forecast line, with the edges of its band."""

    hours: float
    mm: float
    low_mm: float
    high_mm: float


@dataclass(frozen=True)
class WearShape:
    """The lives of one part: what a chart of its wear draws. ``lives`` are earlier ones, oldest first."""

    feature: str
    name: str
    points: list[WearPointShape]
    lives: list[list[WearPointShape]]
    band: list[BandShape]
    limit_mm: float | None
    limit_text: str
    new_mm: list[float]
    now_h: float | None
    planned_h: float | None
    ticks: list[NamedTickShape]
    forecast: ForecastShape | None
    odd: list[str]


@dataclass(frozen=True)
class NamedTickShape:
    """A size on the chart's scale, as it is written."""

    mm: float
    text: str
