"""A job as a whole, and as a line in the list."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass

from finegap.bench.shapes.building import BuildingShape
from finegap.bench.shapes.inspecting import FeatureShape
from finegap.bench.shapes.preparing import KnownShape, OrderShape, ReadyShape, StepShape
from finegap.bench.shapes.setting import ChoiceShape, SetShape, SlipShape
from finegap.core.formatting import Text
from finegap.core.tasks.base import TaskView
from finegap.inventory.shapes import GaugeShape
from finegap.site.shapes import MarkShape


@dataclass(frozen=True)
class StageShape:
    """A stage of the ribbon: what is done of what."""

    key: str
    done: int
    of: int


@dataclass(frozen=True)
class BlockerShape:
    """Why the job cannot be signed yet; ``feature`` is the line of the report it is printed at."""

    stage: str
    sentence: Text
    lead_may: bool
    feature: str


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
    viscosity: Text
    viscosity_typed: str
    temperature: Text
    casing: Text
    pressure: Text
    speed: str


@dataclass(frozen=True)
class ExplainedShape:
    """Why it came in, and what explains it."""

    name: str
    sentence: Text
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
    own: bool


@dataclass(frozen=True)
class AbandonedShape:
    """Who gave the job up, when and why."""

    by: str
    at: dt.datetime
    reason: str


@dataclass(frozen=True)
class AmendmentShape:
    """What a lead put right after the signature; ``own`` when that lead had worked on the job."""

    number: int
    what: str
    reason: str
    void: bool
    belongs_to: str
    by: str
    at: dt.datetime
    own: bool


@dataclass(frozen=True)
class StruckShape:
    """Something struck out that no longer stands anywhere else; when is not known of the oldest."""

    what: Text
    by: str
    at: dt.datetime
    struck_by: str
    struck_at: dt.datetime | None
    reason: str


@dataclass(frozen=True)
class EventShape:
    """A line of the log."""

    version: int
    what: str
    by: str
    at: dt.datetime


@dataclass(frozen=True)
class JobShape:
    """Everything the bench shows of a job, in one answer.

    ``tasks`` are what its steps are done with, each once; steps name them by their key. ``used_gauges`` are those something was
    measured with, each under the certificate of that moment; ``meanwhile`` are verdicts that changed by something else than an act
    at the bench; ``log`` holds the newest lines of ``log_total``, all of them once signed. ``struck`` holds what was struck out,
    but for readings, torques and tries, which are shown where they stood. ``amendments`` are of after the signature, and not of
    its record.
    """

    number: int
    version: int
    unit: Text
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
    mesh: SetShape | None
    slip: SlipShape
    tasks: list[TaskView]
    building: BuildingShape
    gauges: list[GaugeShape]
    used_gauges: list[GaugeShape]
    blockers: list[BlockerShape]
    meanwhile: list[str]
    log: list[EventShape]
    log_total: int
    core: str
    signed: SignedShape | None
    struck: list[StruckShape]
    abandoned: AbandonedShape | None
    amendments: list[AmendmentShape]


@dataclass(frozen=True)
class JobLine:
    """A job in a list; ``ended`` says “abandoned” or “void” of one that does not count."""

    number: int
    pump: str
    service: str
    reason: str
    opened_by: str
    opened_at: dt.datetime
    signed_at: dt.datetime | None
    ended: str
    last: str
