"""What Inspect and Decide show of a part: readings, results, verdicts, damage, wear, photographs."""

from __future__ import annotations

import datetime as dt
import uuid
from dataclasses import dataclass

from finegap.core.formatting import Text
from finegap.core.working import Working


@dataclass(frozen=True)
class JudgedShape:
    """The call on a feature, the sentence that decides it, the other reasons, and the working of its size where it has one.

    ``chance`` is the probability that it conforms, as it is written.
    """

    call: str
    sentence: Text
    reasons: list[Text]
    probability: float | None
    chance: Text
    working: Working | None


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
    sentence: Text
    working: Working | None


@dataclass(frozen=True)
class ForecastShape:
    """How a part wears. ``size_at_planned_mm`` is where the line is at the next planned overhaul."""

    sentence: Text
    date: str
    crosses: bool
    may_cross: bool
    size_at_planned_mm: float | None
    working: Working


@dataclass(frozen=True)
class OptionShape:
    """What a running clearance would be with some of its parts new."""

    new: list[str]
    text: Text
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
class ReadingShape:
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
class StationShape:
    """A place on the part."""

    key: str
    plane: str
    direction: str
    label: str


@dataclass(frozen=True)
class DecisionShape:
    """What was decided; of a pair, which of its parts are new. ``id`` is what it is struck out by; none in older records."""

    id: uuid.UUID | None
    decided: str
    reason: str
    parts: list[str]
    by: str
    at: dt.datetime


@dataclass(frozen=True)
class RenewedShape:
    """A new part confirmed as in."""

    id: uuid.UUID | None
    by: str
    at: dt.datetime


@dataclass(frozen=True)
class FeatureShape:
    """A numbered gap or size with all that is known about it.

    ``parts`` are the features a running clearance is made of; ``reason_to_*`` says whether deciding so needs a reason;
    ``gauge`` is the one to offer first and ``fits`` what each gauge made for it can do; ``missing`` is what the result still lacks;
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
    anchor: list[int]
    label: list[int]
    stations: list[StationShape]
    parts: list[str]
    new_text: Text
    limit_text: Text
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
    expansion: Text
    damages: list[DamageShape]
    look: LookShape | None
    look_left: LookShape | None
    forecast: ForecastShape | None
    odd: list[Text]
    missing: Text
    options: list[OptionShape]
    suspect: int
    press: str
    photos: list[PhotoShape]
    partial: Text
    partial_left: Text
    to_confirm: bool
    renewed: RenewedShape | None
    left_text: Text
    left_note: Text


@dataclass(frozen=True)
class WearPointShape:
    """A size in a life: hours since fitted at the present duty, with its expanded uncertainty."""

    hours: float
    mm: float
    expanded_mm: float
    text: Text
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
    limit_text: Text
    new_mm: list[float]
    now_h: float | None
    planned_h: float | None
    ticks: list[NamedTickShape]
    forecast: ForecastShape | None
    odd: list[Text]


@dataclass(frozen=True)
class NamedTickShape:
    """A size on the chart's scale, as it is written."""

    mm: float
    text: Text
