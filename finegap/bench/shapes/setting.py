"""What Set shows: the clearance table and its map, the move, the means, the tries."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass

from finegap.site.shapes import WorkingShape


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
