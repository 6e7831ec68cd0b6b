"""What Inspect and Decide show of a part: readings, results, verdicts, damage, wear, photographs."""

from __future__ import annotations

import datetime as dt
import uuid
from dataclasses import dataclass

from finegap.core.formatting import Text
from finegap.core.working import Working


@dataclass(frozen=True)
class JudgedResponse:
    """The verdict on a feature, the sentence that decides it, the other reasons, and the working of its size where it has one.

    ``chance`` is the probability that it conforms, as it is written.
    """

    verdict: str
    sentence: Text
    reasons: list[Text]
    probability: float | None
    chance: Text
    working: Working | None


@dataclass(frozen=True)
class DamageResponse:
    """A kind of damage to choose, and what it means."""

    key: str
    name: str
    verdict: str
    meaning: str


@dataclass(frozen=True)
class LookResponse:
    """What was seen on a part; no damage means sound."""

    damages: list[str]
    words: str
    note: str
    by: str
    at: dt.datetime


@dataclass(frozen=True)
class FitResponse:
    """Whether a gauge can decide a feature, said beforehand."""

    tag: str
    decides: bool
    sentence: Text
    working: Working | None


@dataclass(frozen=True)
class ForecastResponse:
    """How a part wears. ``size_at_planned_mm`` is where the line is at the next planned overhaul."""

    sentence: Text
    date: str
    crosses: bool
    may_cross: bool
    size_at_planned_mm: float | None
    working: Working


@dataclass(frozen=True)
class OptionResponse:
    """What a running clearance would be with some of its parts new."""

    new: list[str]
    text: Text
    verdict: str


@dataclass(frozen=True)
class PhotoResponse:
    """A photograph of a part or a step."""

    id: uuid.UUID
    url: str
    note: str
    by: str
    at: dt.datetime


@dataclass(frozen=True)
class ResultResponse:
    """What a set of readings says."""

    text: Text
    expanded_text: Text
    value_mm: float
    expanded_mm: float
    mean: Text
    spread: Text
    out_of_round: Text | None
    taper: Text | None
    deciding: str
    notes: list[Text]
    working: Working


@dataclass(frozen=True)
class ReadingResponse:
    """One reading, as typed and as shown, and where it was taken in words.

    ``understood`` is how a number with two meanings was taken, ``reason`` why it is meant.
    """

    id: uuid.UUID | None
    phase: str
    station: str
    where: str
    typed: str
    understood: str
    text: Text
    reason: str
    gauge: str
    overdue: bool
    faults: list[Text]
    part: Text
    taken: str
    by: str
    at: dt.datetime
    struck_reason: str


@dataclass(frozen=True)
class StationResponse:
    """A place on the part."""

    key: str
    plane: str
    direction: str
    label: str


@dataclass(frozen=True)
class DecisionResponse:
    """What was decided; of a pair, which of its parts are new. ``id`` is what it is struck out by; none in older records."""

    id: uuid.UUID | None
    decided: str
    reason: str
    parts: list[str]
    by: str
    at: dt.datetime


@dataclass(frozen=True)
class RenewedResponse:
    """A new part confirmed as in."""

    id: uuid.UUID | None
    by: str
    at: dt.datetime


@dataclass(frozen=True)
class FeatureResponse:
    """A numbered gap or size with all that is known about it.

    ``parts`` are the features a running clearance is made of; ``reason_to_*`` says whether deciding so needs a reason;
    ``gauge`` is the one to offer first, ``made`` the gauges made for it, least doubt first, and ``fits`` what those can do that are
    likely in hand: the one to offer, and the last one used; ``missing`` is what the result still lacks;
    ``suspect`` is its place among what the symptom points at, 0 for none; ``by_parts`` says that its parts decide it. ``partial``
    and ``partial_left`` say how far a measurement has come that is not complete; ``to_confirm`` that its part is new and somebody
    has to say that it is in, ``renewed`` who did. ``left_text`` is what the report prints as left, ``left_note`` what is to be
    read beside.
    """

    key: str
    number: int
    name: str
    part: str
    kind: str
    stations: list[StationResponse]
    parts: list[str]
    new_text: Text
    limit_text: Text
    page: str
    new_mm: list[float]
    lower_mm: float | None
    upper_mm: float | None
    readings: list[ReadingResponse]
    found: ResultResponse | None
    judged: JudgedResponse | None
    left: ResultResponse | None
    judged_left: JudgedResponse | None
    decision: DecisionResponse | None
    open_decision: bool
    reason_to_keep: bool
    reason_to_change: bool
    by_parts: bool
    wanted: bool
    done: bool
    gauge: str
    made: list[str]
    fits: list[FitResponse]
    expansion: Text
    damages: list[DamageResponse]
    look: LookResponse | None
    look_left: LookResponse | None
    forecast: ForecastResponse | None
    odd: list[Text]
    missing: Text
    options: list[OptionResponse]
    suspect: int
    press: str
    photos: list[PhotoResponse]
    partial: Text
    partial_left: Text
    to_confirm: bool
    renewed: RenewedResponse | None
    left_text: Text
    left_note: Text


@dataclass(frozen=True)
class WearPointResponse:
    """A size in a life: hours since fitted at the present duty, with its expanded uncertainty; the day it is of, if it has one."""

    hours: float
    mm: float
    expanded_mm: float
    text: Text
    job: int
    day: dt.date | None


@dataclass(frozen=True)
class BandResponse:
    """A place on the forecast line, with the edges of its band."""

    hours: float
    mm: float
    low_mm: float
    high_mm: float


@dataclass(frozen=True)
class WearResponse:
    """The lives of one part: what a chart of its wear draws. ``lives`` are earlier ones, oldest first; ``week_h`` hours a week."""

    feature: str
    name: str
    points: list[WearPointResponse]
    lives: list[list[WearPointResponse]]
    band: list[BandResponse]
    limit_mm: float | None
    limit_text: Text
    new_mm: list[float]
    now_h: float | None
    planned_h: float | None
    ticks: list[NamedTickResponse]
    forecast: ForecastResponse | None
    odd: list[Text]
    week_h: float | None


@dataclass(frozen=True)
class NamedTickResponse:
    """A size on the chart's scale, as it is written."""

    mm: float
    text: Text
