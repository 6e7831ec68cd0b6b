"""What Prepare, Strip and the order show: what is known, the steps, what to have ready, what to buy."""

from __future__ import annotations

import datetime as dt
import uuid
from dataclasses import dataclass

from finegap.api.shown import NamedResponse
from finegap.bench.responses.inspecting import PhotoResponse
from finegap.core.formatting import Text
from finegap.core.working import Working


@dataclass(frozen=True)
class StepResponse:
    """A step with who did it and when.

    ``tasks`` are the keys of what it is done with, ``measures`` the features measured or looked at as fitted, ``waits`` why it
    cannot be marked done yet, ``early`` what comes before it and is open: a lead may do it now. ``past`` is the reason of a lead
    who did, ``own`` when that lead had worked on the job. ``reopened`` when setting the gap took it apart. ``id`` is what it is
    struck out by.
    """

    id: uuid.UUID | None
    key: str
    stage: str
    text: str
    why: str
    caution: bool
    hold: bool
    look: str
    tells: list[Text]
    tools: list[str]
    consumables: list[str]
    tasks: list[str]
    measures: list[str]
    waits: list[Text]
    early: list[Text]
    reopened: bool
    by: str | None
    at: dt.datetime | None
    note: str
    skipped: str
    past: str
    own: bool
    photos: list[PhotoResponse]


@dataclass(frozen=True)
class BuildResponse:
    """A way in which pumps of the family differ, and the choice in force. ``fixed`` by the sheet."""

    key: str
    name: str
    choice: str
    choices: list[NamedResponse]
    fixed: bool


@dataclass(frozen=True)
class JobDetailsResponse:
    """What has to be known before anything is opened, as it can be typed again; ``missing`` names what is not known yet."""

    serial: str
    liquid: str
    medium: str
    media: list[NamedResponse]
    hazards: str
    viscosity: str
    temperature: Text
    casing: Text
    density: str
    start: Text
    hot: Text
    pressure: Text
    speed: str
    hours_run: str
    old_meter_last: str
    new_meter_first: str
    reason: str
    symptom: str
    symptoms: list[NamedResponse]
    place: str
    room: str
    build: list[BuildResponse]
    missing: list[str]


@dataclass(frozen=True)
class NeedResponse:
    """A tool, a consumable or a part the job needs; ``here`` is ``None`` until somebody has looked."""

    item: str
    kind: str
    here: bool | None
    by: str


@dataclass(frozen=True)
class OrderLineResponse:
    """A line of the order."""

    number: str
    name: str
    count: int
    price: str
    lead: str
    is_kit: bool
    reasons: list[str]


@dataclass(frozen=True)
class OrderResponse:
    """What to order, what the kits bring besides, and what the catalogue does not have."""

    lines: list[OrderLineResponse]
    total: str
    lead: str
    spare: list[str]
    missing: list[str]
    working: Working


@dataclass(frozen=True)
class ReadyResponse:
    """What the job needs, before anything is opened. ``gauges`` are features nothing in the cabinet can measure."""

    needs: list[NeedResponse]
    kit: OrderResponse | None
    gauges: list[str]
