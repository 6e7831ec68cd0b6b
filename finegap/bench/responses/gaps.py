"""What Set shows: the clearance table and its map, the move, the means, the tries."""

from __future__ import annotations

import datetime as dt
import uuid
from dataclasses import dataclass

from finegap.core.formatting import Text
from finegap.core.means.base import MeansView
from finegap.core.result_lines import ResultLine
from finegap.core.working import Working
from finegap.sheets.drawn import MapResponse


@dataclass(frozen=True)
class CandidateResponse:
    """A row of the clearance table seen from the duty."""

    setting: str
    viscosity: Text
    temperature: Text
    clearance: Text
    matches: bool
    chosen: bool
    reason: Text


@dataclass(frozen=True)
class ChoiceResponse:
    """The number the gap must have; what the duty's range does to it, and where no row covers that."""

    sentence: Text
    over: Text | None
    hole: Text | None
    target: Text | None
    candidates: list[CandidateResponse]
    map: MapResponse | None
    working: Working


@dataclass(frozen=True)
class PileResponse:
    """Leaves laid together: which, what they come to as it is typed, and how good that is."""

    leaves: Text
    thickness: Text
    expanded: Text


@dataclass(frozen=True)
class ProofResponse:
    """What proves the window with a feeler set; ``None`` where the set makes no such pile."""

    gauge: str
    go: PileResponse | None
    stop: PileResponse | None


@dataclass(frozen=True)
class GapResultResponse:
    """A number a try is held against its window by; ``derived`` when it follows from others. Empty before the first try.

    ``proofs`` are the leaves of each feeler set that prove it.
    """

    key: str
    name: str
    low: Text
    high: Text
    target: Text
    low_mm: float
    high_mm: float
    target_mm: float
    derived: bool
    gap: Text
    gap_mm: float | None
    expanded_mm: float
    verdict: str
    proofs: list[ProofResponse]


@dataclass(frozen=True)
class TryResponse:
    """A try at the gap, or at several at once: ``gap`` says all of them.

    ``opened`` when the pump was opened for it, and tightened for its check alone. One that was struck out has no verdict.
    """

    id: uuid.UUID | None
    number: int
    set_by: Text
    checked: str
    gauge: str
    gap: Text
    gap_mm: float
    expanded_mm: float
    verdict: str
    next: Text
    by: str
    at: dt.datetime
    working: Working | None
    opened: bool
    struck_reason: str


@dataclass(frozen=True)
class HotResponse:
    """The gap predicted at pumping temperature; ``sentence`` says what is wrong with it."""

    text: Text
    touches: bool
    sentence: Text
    working: Working


@dataclass(frozen=True)
class WarmingResponse:
    """The narrowest moment of a warm-up."""

    sentence: Text
    touches: bool
    known: bool
    working: Working


@dataclass(frozen=True)
class SlipResponse:
    """What the gaps cost: as the pump came in, and as it is put together. Empty where the sheet says nothing of slip."""

    found: list[ResultLine]
    left: list[ResultLine]


@dataclass(frozen=True)
class SetResponse:
    """Where setting stands, with the next move.

    ``means`` is what its picture draws, ``zero`` the zero it is set from. ``gaps`` are what a try is held against, the asked ones
    first.
    ``opens`` are the steps a try that opens the pump takes apart; ``asks_opened`` when only the technician knows whether the first
    try did. ``outside`` are other gaps of the pump that are outside their limit, ``bent`` what
    working pressure leaves of those it closes.
    """

    sets: str
    name: str
    place: str
    faces: list[str]
    means: MeansView
    zero: uuid.UUID | None
    target: Text
    low: Text
    high: Text
    target_mm: float
    low_mm: float
    high_mm: float
    headline: Text
    details: list[Text]
    way: str
    right: bool
    working: Working
    gaps: list[GapResultResponse]
    tries: list[TryResponse]
    hot: HotResponse | None
    warming: WarmingResponse | None
    feelers: list[str]
    mismatch: Text | None
    opens: list[str]
    asks_opened: bool
    outside: list[Text]
    bent: list[Text]
