"""Every change to a job, declared once: what is sent, within which bounds; validation, service and schema read it here.

A change that makes a record carries the record's identity, given by the client: a retry is the same record, not a second one.
How it was typed, by whom, when, and from which version of the job come beside it (``JobRef``).
"""

from __future__ import annotations

import uuid
from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum

from django.core.files.base import File

from finegap.api import fields as sent
from finegap.core.gap.stock import MOST_IN_STACK
from finegap.core.job_record import Decided, Phase

_KEY = {"max_length": 40}


class TryOf(StrEnum):
    """What a try sets: the gap of the clearance table, or the mesh of a timing gear."""

    GAP = "gap"
    MESH = "mesh"


class Taken(StrEnum):
    """How a reading came to be in its field."""

    TYPED = "typed"
    RECEIVER = "receiver"
    PAPER = "paper"
    """Typed from a bench sheet that was filled in by hand: its time is when it was typed, not when it was measured."""


class Struck(StrEnum):
    """Kinds of records that are struck out."""

    READING = "reading"
    TORQUE = "torque"
    STEP = "step"
    DECISION = "decision"
    TRY = "try"
    ZERO = "zero"
    PROOF = "proof"
    RUN_IN = "run-in"
    PART = "part"
    NEW_PART = "new part"


@dataclass(frozen=True)
class OpenJob:
    """A pump comes to the bench."""

    pump: str = sent.text(30)
    reason: str = sent.text(200)
    hours_run: str = sent.text(20, "")
    symptom: str = sent.text(40, "")


@dataclass(frozen=True)
class MarkStep:
    """A step done; or, with the reason in ``skip``, skipped. ``past`` is a lead's reason for a hold point out of its turn."""

    id: uuid.UUID
    step: str = sent.text(40)
    note: str = sent.text(300, "")
    skip: str = sent.text(300, "")
    past: str = sent.text(300, "")
    pin: str = sent.secret(default="")


@dataclass(frozen=True)
class SetDetails:
    """What is put right of the job's details, as typed; what is left out stays as it is.

    ``old_meter_last`` says that the hours meter was replaced.
    """

    serial: str | None = sent.left_out(60)
    liquid: str | None = sent.left_out(80)
    medium: str | None = sent.left_out(40)
    hazards: str | None = sent.left_out(200)
    viscosity: str | None = sent.left_out(120)
    temperature: str | None = sent.left_out(40)
    casing: str | None = sent.left_out(40)
    density: str | None = sent.left_out(40)
    start: str | None = sent.left_out(40)
    hot: str | None = sent.left_out(40)
    pressure: str | None = sent.left_out(40)
    speed: str | None = sent.left_out(20)
    hours_run: str | None = sent.left_out(20)
    old_meter_last: str | None = sent.left_out(20)
    new_meter_first: str | None = sent.left_out(20)
    reason: str | None = sent.left_out(200)
    symptom: str | None = sent.left_out(40)
    place: str | None = sent.left_out(10)
    room: str | None = sent.left_out(200)
    build: Mapping[str, str] = sent.by_name(40)


@dataclass(frozen=True)
class SayOnHand:
    """Whether things the job needs are on hand."""

    id: uuid.UUID
    items: list[str] = sent.several(300, {"max_length": 120, "allow_blank": True})
    here: bool = sent.required()


@dataclass(frozen=True)
class LookAt:
    """What was seen on a part; no damage means that it is sound."""

    id: uuid.UUID
    feature: str = sent.text(40)
    damages: list[str] = sent.several(30, _KEY)
    note: str = sent.text(300, "")
    phase: Phase = Phase.FOUND


@dataclass(frozen=True)
class RecordReading:
    """A reading as typed: a size, or with ``stops`` the leaf that goes and the one that does not.

    ``part`` is the temperature of a part that is not at 20 C, ``material`` what it is made of where the sheet does not say.
    ``reason`` is why an odd one is meant.
    """

    id: uuid.UUID
    feature: str = sent.text(40)
    station: str = sent.text(40)
    typed: str = sent.text(40)
    gauge: str = sent.text(20)
    phase: Phase = Phase.FOUND
    stops: str = sent.text(40, "")
    part: str = sent.text(20, "")
    material: str = sent.text(40, "")
    taken: Taken = Taken.TYPED
    reason: str = sent.text(200, "")


@dataclass(frozen=True)
class RecordSet:
    """Readings of one feature pasted from a spreadsheet."""

    id: uuid.UUID
    feature: str = sent.text(40)
    text: str = sent.text(20_000, as_written=True)
    gauge: str = sent.text(20)
    phase: Phase = Phase.FOUND
    reason: str = sent.text(200, "")


@dataclass(frozen=True)
class AttachPhoto:
    """A photograph as it came, of a feature or of a step."""

    id: uuid.UUID
    file: File  # type: ignore[type-arg]
    feature: str = sent.text(40, "")
    step: str = sent.text(40, "")
    note: str = sent.text(200, "")


@dataclass(frozen=True)
class RemovePhoto:
    """A photograph taken off."""

    photo: uuid.UUID


@dataclass(frozen=True)
class Decide:
    """Keep or change; of a pair to be changed, ``parts`` are those of its features whose parts are new."""

    id: uuid.UUID
    feature: str = sent.text(40)
    decided: Decided = sent.required()
    reason: str = sent.text(300, "")
    parts: list[str] = sent.several(2, _KEY, required=False)


@dataclass(frozen=True)
class ConfirmNew:
    """A new part is in."""

    id: uuid.UUID
    feature: str = sent.text(40)


@dataclass(frozen=True)
class ReadMeanwhile:
    """What changed by itself was read."""


@dataclass(frozen=True)
class FitPart:
    """A part of a stack ticked, its direction confirmed."""

    id: uuid.UUID
    stack: str = sent.text(40)
    part: str = sent.text(60)
    confirmed: bool = False
    reused: bool = False
    reason: str = sent.text(300, "")


@dataclass(frozen=True)
class LogTorque:
    """A torque as typed: what the wrench was set to; its length, and the adapter's, where there was one."""

    id: uuid.UUID
    fastener: str = sent.text(120)
    pass_number: int = sent.number(1, 9)
    bolts: list[int] = sent.several(99, {"min_value": 1, "max_value": 99})
    typed: str = sent.text(40)
    wrench: str = sent.text(20)
    wrench_length: str = sent.text(40, "")
    adapter: str = sent.text(40, "")
    angle: str = sent.text(40, "")


@dataclass(frozen=True)
class UseAtBench:
    """What is on the bench at Build; what is left out stays as it is."""

    lubricant: str | None = sent.left_out(40)
    gun: str | None = sent.left_out(20)


@dataclass(frozen=True)
class SetZero:
    """Zero found, by which school; the play if not the one in use, as a length or as the arc turned before the rotor followed."""

    id: uuid.UUID
    school: str = sent.text(40)
    lash: str = sent.text(40, "")
    lash_arc: str = sent.text(40, "")


@dataclass(frozen=True)
class CheckGap:
    """A check of one gap as typed: a feeler pair, or a reading with a gauge."""

    goes: str = sent.text(40, "")
    stops: str = sent.text(40, "")
    read: str = sent.text(40, "")
    gauge: str = sent.text(20, "")


@dataclass(frozen=True)
class RecordTry:
    """A try at a gap: a check of each gap it asks for, in their order; by how much its means was moved and which way, or one stack
    a place.

    ``trial`` says that what was opened for it was tightened for the check; ``opened`` whether it was opened for the first try,
    which only the technician knows.
    """

    id: uuid.UUID
    checks: list[CheckGap]
    sets: TryOf = TryOf.GAP
    moved: str = sent.text(40, "")
    way: str = sent.text(20, "")
    stacks_um: list[list[int]] = sent.several(
        2, {"max_length": MOST_IN_STACK, "child_kwargs": {"max_value": 100_000}}, required=False
    )
    trial: bool = False
    opened: bool | None = None


@dataclass(frozen=True)
class SeeProof:
    """Something seen at a step, as typed. A flow may come as a bucket with the seconds it took; ``places`` are the hours of the
    clock at which the shaft is tight."""

    id: uuid.UUID
    step: str = sent.text(40)
    seen: str = sent.text(20)
    typed: str = sent.text(60, "")
    seconds: str = sent.text(20, "")
    places: list[str] = sent.several(12, {"max_length": 2}, required=False)


@dataclass(frozen=True)
class NoteRunIn:
    """A line of the run-in as typed. Drops are typed as a rate, or tapped: ``taps_s`` are the seconds at which they fell.

    ``minute`` empty means by the clock, since the first line. ``eighths`` tightened is positive, backed off negative.
    """

    id: uuid.UUID
    drops: str = sent.text(20, "")
    taps_s: list[float] = sent.several(2000, {"min_value": 0, "max_value": 36_000}, required=False)
    box: str = sent.text(40, "")
    minute: str = sent.text(20, "")
    eighths: float = sent.number(-8, 8, 0.0)


@dataclass(frozen=True)
class Sign:
    """A signature; with a ``reason`` past what a lead may sign past."""

    id: uuid.UUID
    reason: str = sent.text(300, "")
    pin: str = sent.secret(default="")


@dataclass(frozen=True)
class StrikeOut:
    """A record struck out."""

    kind: Struck
    record: uuid.UUID
    reason: str = sent.text(300)


@dataclass(frozen=True)
class Abandon:
    """A job given up."""

    id: uuid.UUID
    reason: str = sent.text(300)


@dataclass(frozen=True)
class Amend:
    """A signed job put right by a lead. ``void`` takes its sizes out of the pump's wear; ``belongs_to`` is the pump it is of."""

    id: uuid.UUID
    what: str = sent.text(2000)
    reason: str = sent.text(300)
    void: bool = False
    belongs_to: str = sent.text(30, "")
    pin: str = sent.secret(default="")


@dataclass(frozen=True)
class WriteJobNote:
    """A note on a job; a ``handover`` is for whoever goes on, or ``to`` somebody by user name."""

    id: uuid.UUID
    text: str = sent.text(1000)
    handover: bool = False
    to: str = sent.text(150, "")


@dataclass(frozen=True)
class TakeNote:
    """A hand-over is taken over."""


@dataclass(frozen=True)
class StrikeNote:
    """A note struck out."""

    reason: str = sent.text(200)


@dataclass(frozen=True)
class LookedAt:
    """The version of a job somebody has read."""

    version: int = sent.number(1, 2**31)
