"""What Build shows, as plain data: lines of sums, stacks, press fits, torques, packing, grease, pictures."""

from __future__ import annotations

import datetime as dt
import uuid
from dataclasses import dataclass

from finegap.site.shapes import LineShape, MarkShape, NamedShape
from finegap.toolbox.shapes import GunShape


@dataclass(frozen=True)
class StackPartShape:
    """A part of a stack; ``fresh`` when it was decided new."""

    id: uuid.UUID | None
    key: str
    name: str
    shape: str
    points: str
    directions: list[str]
    note: str
    must_be_new: bool
    fresh: bool
    lines: list[LineShape]
    picture: str
    fitted: bool
    reused: bool
    reason: str
    by: str
    at: dt.datetime | None


@dataclass(frozen=True)
class StackShape:
    """A stack in the order of fitting; ``next`` is the part in hand. ``ends`` are empty where it is on the shaft."""

    place: str
    name: str
    parts: list[StackPartShape]
    next: str
    ends: list[str]
    advice: str


@dataclass(frozen=True)
class PressShape:
    """A press fit: which features are measured before it, and what it comes to."""

    key: str
    name: str
    said: str
    features: list[str]
    bore: str
    lines: list[LineShape]
    ready: bool


@dataclass(frozen=True)
class PassShape:
    """A pass: its torque at the nut, and how many of the fasteners are done."""

    number: int
    torque: str
    done: int


@dataclass(frozen=True)
class TorqueMarkShape:
    """A line of the torque log."""

    id: uuid.UUID
    pass_number: int
    bolts: list[int]
    typed: str
    at_nut: str
    adapter: str
    wrench: str
    certificate: str
    overdue: bool
    by: str
    at: dt.datetime
    struck_reason: str


@dataclass(frozen=True)
class TighteningShape:
    """A line of the torque table with its passes and its log.

    ``pass_number`` is the pass in hand, ``left`` what is left of it, ``wrench`` the first one that reaches its ``middle``.
    """

    key: str
    fastener: str
    torque: str
    condition: str
    page: str
    count: int
    order: list[int]
    passes: list[PassShape]
    pass_number: int | None
    left: list[int]
    middle: str
    wrench: str
    lines: list[LineShape]
    log: list[TorqueMarkShape]


@dataclass(frozen=True)
class PackingShape:
    """Packing: its lines, and where the joint of each ring goes, in degrees clockwise from the top."""

    lines: list[LineShape]
    joints_deg: list[int]
    lantern_after: int
    school: str


@dataclass(frozen=True)
class BearingShape:
    """A bearing to be lubricated."""

    name: str
    oil: bool
    lines: list[LineShape]


@dataclass(frozen=True)
class LabelShape:
    """A word in a picture."""

    x: float
    y: float
    text: str


@dataclass(frozen=True)
class PictureShape:
    """Which way round, right and wrong; the labels stand in both."""

    key: str
    name: str
    right: list[MarkShape]
    right_words: str
    wrong: list[MarkShape]
    wrong_words: str
    labels: list[LabelShape]


@dataclass(frozen=True)
class BuildingShape:
    """Everything the steps of Build are done with, in one answer."""

    stacks: list[StackShape]
    presses: list[PressShape]
    tightenings: list[TighteningShape]
    packing: PackingShape | None
    bearings: list[BearingShape]
    pictures: list[PictureShape]
    lubricant: str
    lubricants: list[NamedShape]
    gun: str
    guns: list[GunShape]
