"""A job as a whole, and as a line in the list."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass

from finegap.bench.responses.building import BuildingResponse
from finegap.bench.responses.gaps import ChoiceResponse, SetResponse, SlipResponse
from finegap.bench.responses.inspecting import FeatureResponse
from finegap.bench.responses.preparing import JobDetailsResponse, OrderResponse, ReadyResponse, StepResponse
from finegap.core.formatting import Text
from finegap.core.tasks.base import TaskView
from finegap.inventory.responses import GaugeResponse


@dataclass(frozen=True)
class StageResponse:
    """A stage of the ribbon: what is done of what."""

    key: str
    done: int
    of: int


@dataclass(frozen=True)
class BlockerResponse:
    """Why the job cannot be signed yet; ``feature`` is the line of the report it is printed at."""

    stage: str
    sentence: Text
    lead_may: bool
    feature: str


@dataclass(frozen=True)
class PumpResponse:
    """The pump on the bench."""

    tag: str
    service: str
    location: str
    serial: str
    maker: str
    model: str


@dataclass(frozen=True)
class DutyResponse:
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
class ExplainedResponse:
    """Why it came in, and what explains it."""

    name: str
    sentence: Text
    explains: list[str]


@dataclass(frozen=True)
class SignedResponse:
    """The signature."""

    by: str
    at: dt.datetime
    reason: str
    core_version: str
    own: bool


@dataclass(frozen=True)
class HeadingResponse:
    """What headed the reports of the works at the signature; ``logo`` is the digest of the picture."""

    name: str
    address: str
    logo: str


@dataclass(frozen=True)
class AbandonedResponse:
    """Who gave the job up, when and why."""

    by: str
    at: dt.datetime
    reason: str


@dataclass(frozen=True)
class AmendmentResponse:
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
class StruckResponse:
    """Something struck out that no longer stands anywhere else; when is not known of the oldest."""

    what: Text
    by: str
    at: dt.datetime
    struck_by: str
    struck_at: dt.datetime | None
    reason: str


@dataclass(frozen=True)
class FormerResponse:
    """Something marked before the procedure changed: a step or part it no longer has, in its words of then."""

    what: Text
    by: str
    at: dt.datetime


@dataclass(frozen=True)
class EventResponse:
    """A line of the log."""

    version: int
    what: str
    by: str
    at: dt.datetime


@dataclass(frozen=True)
class SheetReadResponse:
    """Who read the sheet against the manual, and when; ``alone`` when some of it was typed by the same person."""

    names: str
    when: dt.datetime
    alone: bool


@dataclass(frozen=True)
class CautionResponse:
    """What the maker warns of at a stage."""

    stage: str
    text: str


@dataclass(frozen=True)
class CorrectedResponse:
    """A correction of the sheet after the signature, and the numbers of this record it makes doubtful."""

    revision: str
    by: str
    at: dt.datetime
    numbers: list[str]


@dataclass(frozen=True)
class JobResponse:
    """Everything the bench shows of a job, in one answer.

    ``tasks`` are what its steps are done with, each once; steps name them by their key. ``used_gauges`` are those something was
    measured with, each under the certificate of that moment; ``meanwhile`` are verdicts that changed by something else than an act
    at the bench; ``log`` holds the newest lines of ``log_total``, all of them once signed. ``struck`` holds what was struck out,
    but for readings, torques and tries, which are shown where they stood; ``former`` what was marked of steps and parts the
    procedure no longer has.
    ``amendments`` and ``corrected`` are of after the signature, and not of its record. Nothing is signed while the sheet is
    ``sheet_unread``; one added before reading was asked for is neither read nor unread.
    """

    number: int
    version: int
    unit: Text
    reason: str
    hours_run: int | None
    opened_by: str
    opened_at: dt.datetime
    pump: PumpResponse
    duty: DutyResponse
    sheet: str
    slug: str
    sheet_read: SheetReadResponse | None
    sheet_unread: bool
    cautions: list[CautionResponse]
    family: str
    school: str
    stages: list[StageResponse]
    details: JobDetailsResponse
    ready: ReadyResponse
    procedure: str
    steps: list[StepResponse]
    drawing: str
    features: list[FeatureResponse]
    explained: ExplainedResponse | None
    order: OrderResponse | None
    materials: list[str]
    choice: ChoiceResponse
    setting: SetResponse | None
    mesh: SetResponse | None
    slip: SlipResponse
    tasks: list[TaskView]
    building: BuildingResponse
    gauges: list[GaugeResponse]
    used_gauges: list[GaugeResponse]
    blockers: list[BlockerResponse]
    meanwhile: list[str]
    log: list[EventResponse]
    log_total: int
    core: str
    signed: SignedResponse | None
    struck: list[StruckResponse]
    former: list[FormerResponse]
    abandoned: AbandonedResponse | None
    works: HeadingResponse | None
    amendments: list[AmendmentResponse]
    corrected: list[CorrectedResponse]


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
