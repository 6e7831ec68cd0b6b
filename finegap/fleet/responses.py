"""What Fleet shows, as plain data."""

from __future__ import annotations

import datetime as dt
import uuid
from dataclasses import dataclass

from finegap.api.shown import NamedResponse
from finegap.core.formatting import Text
from finegap.core.working import Working


@dataclass(frozen=True)
class BarResponse:
    """A size between new and its limit, in mm, as a small bar draws it. ``later`` is where its wear has brought it by forecast."""

    key: str
    number: int
    name: str
    new: list[float]
    limit: float
    limit_text: Text
    mm: float
    expanded_mm: float
    text: Text
    later: float | None
    measured: bool
    verdict: str
    left: str


@dataclass(frozen=True)
class NextResponse:
    """What falls due first, and when."""

    what: str
    day: dt.date
    late: bool


@dataclass(frozen=True)
class PumpLine:
    """A pump in a line of the fleet: where it is, its meter, its sizes with the least left, what falls due first.

    ``read`` is the day its meter showed ``hours``; ``left`` says how long until the next inspection.
    """

    tag: str
    service: str
    location: str
    serial: str
    sheet: str
    slug: str
    liquid: str
    on_bench: int | None
    retired: dt.date | None
    lent: bool
    hours: str
    read: dt.date | None
    rate: str
    overhauls: int
    overhauled: dt.date | None
    worst: list[BarResponse]
    next: NextResponse | None
    left: str


@dataclass(frozen=True)
class PumpDuty:
    """What a pump does, and of what it is made."""

    material: str
    viscosity: Text
    temperature: Text
    pressure: Text
    speed: str


@dataclass(frozen=True)
class PartNowResponse:
    """A size of a pump between overhauls. ``size`` is the one last known, ``left`` what its wear leaves of it, in words."""

    key: str
    number: int
    name: str
    part: str
    size: Text
    measured: bool
    day: dt.date | None
    verdict: str
    sentence: Text
    left: Text
    date: str
    odd: list[Text]
    bar: BarResponse | None
    working: Working | None


@dataclass(frozen=True)
class ComingResponse:
    """The next inspection, with its reason and its working."""

    sentence: Text
    day: dt.date | None
    late: bool
    working: Working


@dataclass(frozen=True)
class NeededPart:
    """A kit or a part to have for the next inspection."""

    number: str
    name: str
    count: int
    lead_days: int
    reasons: list[str]


@dataclass(frozen=True)
class StockResponse:
    """Gaskets or shims on the shelf for pumps of this sheet."""

    thickness: Text
    count: int


@dataclass(frozen=True)
class NoteResponse:
    """A note on a pump."""

    id: uuid.UUID
    text: str
    at: dt.datetime
    by: str
    struck_reason: str


@dataclass(frozen=True)
class DocumentResponse:
    """A paper of a pump."""

    id: uuid.UUID
    name: str
    kind: str
    size: str
    url: str
    at: dt.datetime
    by: str
    struck_reason: str


@dataclass(frozen=True)
class PartMovedResponse:
    """A part that came to this pump from another, or went into one."""

    id: uuid.UUID
    said: str
    day: dt.date
    by: str
    note: str
    struck_reason: str


@dataclass(frozen=True)
class RevisionResponse:
    """A revision of the pump's sheet, and whether it was read against the manual."""

    revision: str
    day: dt.date
    read: bool


@dataclass(frozen=True)
class DueResponse:
    """Oil or grease that falls due, with its day where the meter tells the rate."""

    name: str
    sentence: Text
    day: dt.date | None
    late: bool
    working: Working


@dataclass(frozen=True)
class MeterResponse:
    """The meter as it was read. ``replaced`` says with which readings a meter was replaced, ``read`` what a counter showed."""

    id: uuid.UUID
    hours: int
    read: str
    day: dt.date
    by: str
    replaced: str
    struck_reason: str


@dataclass(frozen=True)
class LubricatedResponse:
    """Oil or grease done, at so many hours of the meter."""

    id: uuid.UUID
    name: str
    hours: int
    at: dt.datetime
    by: str
    struck_reason: str


@dataclass(frozen=True)
class EarlierResponse:
    """An overhaul from before this record: how many sizes are known of it, and how many parts were renewed."""

    id: uuid.UUID
    day: dt.date
    hours: int
    sizes: int
    changed: int
    source: str
    by: str
    struck_reason: str


@dataclass(frozen=True)
class MovedResponse:
    """A pump went from one place to another; lent, it is expected ``back`` on a day, if one was agreed."""

    id: uuid.UUID
    was: str
    to: str
    day: dt.date
    lent: bool
    back: dt.date | None
    by: str
    note: str
    struck_reason: str


@dataclass(frozen=True)
class MeasuredPart:
    """A part a size can be written down of."""

    key: str
    number: int
    name: str


@dataclass(frozen=True)
class PumpOption:
    """A way in which pumps of a sheet differ; ``usual`` is the sheet's choice. Only pumps with the choices of ``when`` have it."""

    key: str
    name: str
    choices: list[NamedResponse]
    usual: str
    when: dict[str, list[str]]


@dataclass(frozen=True)
class PumpChoices:
    """What has to be chosen for a pump of a sheet, and from what: materials as its clearance table names them, kinds of liquid."""

    sheet: str
    title: str
    materials: list[str]
    media: list[NamedResponse]
    options: list[PumpOption]


@dataclass(frozen=True)
class PumpEntered:
    """A pump as it would be typed: every quantity with its unit, by the decimal mark of the works."""

    version: int
    material: str
    choices: PumpChoices
    liquid: str
    medium: str
    viscosity: str
    temperature: str
    casing: str
    density: str
    start: str
    hot: str
    pressure: str
    speed: str
    hazards: str
    overhaul_every: str
    hours_per_week: str
    counts: str
    per_hour: str
    build: dict[str, str]


@dataclass(frozen=True)
class PumpPage:
    """A pump: how it stands, what comes next, its meter, its papers. ``visits`` say what can be done together.

    ``counts`` is how what its meter counts is written. ``code`` is that of its label. ``unknown`` says why nothing is known of its
    sizes, where nothing is, ``meter_note`` what is odd about its meter.
    """

    line: PumpLine
    code: str
    duty: PumpDuty
    wet: bool
    counts: str
    rate: str
    meter_note: str
    parts: list[PartNowResponse]
    unknown: str
    coming: ComingResponse | None
    needs: list[NeededPart]
    order_by: dt.date | None
    stock: list[StockResponse]
    meter: list[MeterResponse]
    lubricated: list[LubricatedResponse]
    entered: PumpEntered
    due: list[DueResponse]
    earlier: list[EarlierResponse]
    moves: list[MovedResponse]
    parts_moved: list[PartMovedResponse]
    movable: list[str]
    notes: list[NoteResponse]
    documents: list[DocumentResponse]
    revisions: list[RevisionResponse]
    measured: list[MeasuredPart]
    visits: list[str]


@dataclass(frozen=True)
class LifeLine:
    """Something that was done to a pump, or written of it: when it happened, what kind of thing it is, who did it."""

    on: dt.datetime
    kind: str
    said: Text
    by: str
    job: int | None
    struck: str


@dataclass(frozen=True)
class OverhaulSize:
    """A size at an overhaul, as found and as left. One that ``is_set`` is new by how it was set, not by a part."""

    number: int
    name: str
    found: Text
    left: Text
    changed: bool
    is_set: bool


@dataclass(frozen=True)
class OverhaulResponse:
    """A signed overhaul of a pump, with its sizes; ``ended`` says “void” of one that does not count."""

    number: int
    signed_at: dt.datetime
    hours: str
    reason: str
    ended: str
    gap: Text
    sizes: list[OverhaulSize]


@dataclass(frozen=True)
class PumpPhoto:
    """A photograph from a job on a pump."""

    url: str
    job: int
    of: str
    note: str
    at: dt.datetime


@dataclass(frozen=True)
class LabelOf:
    """Where the code of a label leads: the pump, and the job it is on the bench for."""

    tag: str
    job: int | None
    retired: dt.date | None
