"""What Set shows: the clearance table and its map, the move, the means, the tries."""

from __future__ import annotations

import datetime as dt
import uuid
from dataclasses import dataclass

from finegap.site.shapes import LineShape, WorkingShape


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
    """The table as a map, viscosity across and temperature up; ``duty`` is where the pump works, ``way`` its range."""

    mm2_s: list[float]
    c: list[float]
    regions: list[RegionShape]
    duty: list[float]
    way: list[list[float]]
    mm2_s_ticks: list[AxisTickShape]
    c_ticks: list[AxisTickShape]


@dataclass(frozen=True)
class ChoiceShape:
    """The number the gap must have; what the duty's range does to it, and where no row covers that."""

    sentence: str
    over: str | None
    hole: str | None
    target: str | None
    candidates: list[CandidateShape]
    map: MapShape | None
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
class HeldShape:
    """A number a try is held against its window by; ``derived`` when it follows from others. Empty before the first try.

    ``proofs`` are the leaves of each feeler set that prove it.
    """

    key: str
    name: str
    low: str
    high: str
    target: str
    low_mm: float
    high_mm: float
    target_mm: float
    derived: bool
    gap: str
    gap_mm: float | None
    expanded_mm: float
    call: str
    proofs: list[ProofShape]


@dataclass(frozen=True)
class TryShape:
    """A try at the gap, or at several at once: ``gap`` says all of them.

    ``opened`` when the pump was opened for it, and tightened for its check alone. One that was struck out has no verdict.
    """

    id: uuid.UUID | None
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
    working: WorkingShape | None
    opened: bool
    struck_reason: str


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
    zero: uuid.UUID | None
    zero_found: bool
    prescribed: str
    lash: str
    lash_does: str
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
class ShaftShape:
    """One shaft of a shimmed pair: shims now and next, and both clearances as they are and as they should come to."""

    name: str
    now: list[PieceShape]
    next: list[PieceShape]
    out: list[PieceShape]
    into: list[PieceShape]
    front_mm: float | None
    back_mm: float | None
    next_front_mm: float | None
    next_back_mm: float | None


@dataclass(frozen=True)
class ShimsShape:
    """Shims behind the front bearings of two shafts, to draw, and what is on the shelf."""

    shafts: list[ShaftShape]
    front: str
    back: str
    difference: str
    box: list[PieceShape]


@dataclass(frozen=True)
class TimingShape:
    """The turn of a timing gear, to draw: towards which side, and its arc as it is typed."""

    toward: str
    arc: str
    angle_deg: float
    pitch: str
    marked: str


@dataclass(frozen=True)
class HotShape:
    """The gap predicted at pumping temperature; ``sentence`` says what is wrong with it."""

    text: str
    touches: bool
    sentence: str
    working: WorkingShape


@dataclass(frozen=True)
class WarmingShape:
    """The narrowest moment of a warm-up."""

    sentence: str
    touches: bool
    known: bool
    working: WorkingShape


@dataclass(frozen=True)
class SlipShape:
    """What the gaps cost: as the pump came in, and as it is put together. Empty where the sheet says nothing of slip."""

    found: list[LineShape]
    left: list[LineShape]


@dataclass(frozen=True)
class SetShape:
    """Where setting stands, with the next move. ``gaps`` are what a try is held against, the asked ones first.

    ``opens`` are the steps a try that opens the pump takes apart; ``asks_opened`` when only the technician knows whether the first
    try did. ``outside`` are other gaps of the pump that are outside their limit.
    """

    sets: str
    name: str
    place: str
    faces: list[str]
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
    gaps: list[HeldShape]
    tries: list[TryShape]
    hot: HotShape | None
    warming: WarmingShape | None
    housing: HousingShape | None
    gaskets: GasketsShape | None
    shims: ShimsShape | None
    timing: TimingShape | None
    feelers: list[str]
    surprise: str | None
    opens: list[str]
    asks_opened: bool
    outside: list[str]
