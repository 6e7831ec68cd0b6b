"""What is seen at Prove: how the shaft turns, the run-in of packing, the first hour."""

from __future__ import annotations

import datetime as dt
import uuid
from collections.abc import Sequence
from dataclasses import dataclass, field

from finegap.bench.models import Job, ProofMark, RunInNote
from finegap.bench.records import load
from finegap.bench.services.changing import AHEAD, JobRef, log, recording
from finegap.bench.services.steps import step_of
from finegap.core.entry import Entry
from finegap.core.errors import FieldError, Unlikely
from finegap.core.job import assess
from finegap.core.proof.first_hour import NOISES, FirstHourItem, by_bucket
from finegap.core.proof.run_in import Note, check_note, count_drops
from finegap.core.tasks.end_play import EndPlayTask
from finegap.core.tasks.first_hour import FirstHourTask
from finegap.core.tasks.run_in import RunInTask
from finegap.core.tasks.turning import CLOCK, TurningTask
from finegap.site.errors import Refused

TURNING, END_PLAY = TurningTask.kind, EndPlayTask.kind

_ASKED = {
    FirstHourItem.FLOW: "flow",
    FirstHourItem.PRESSURE: "discharge",
    FirstHourItem.POWER: "power",
    FirstHourItem.TEMPERATURE: "running",
}
"""The field of each quantity of the first hour."""


@dataclass(frozen=True)
class NewProof:
    """Something seen at a step, as typed. A flow may come as a bucket with the seconds it took; ``places`` are where the shaft is
    tight."""

    id: uuid.UUID
    step: str
    seen: str
    typed: str = ""
    seconds: str = ""
    places: list[str] = field(default_factory=list)


def see(ref: JobRef, new: NewProof) -> None:
    """Record something seen at a step; seeing it again replaces it there, and the record keeps both.

    Raises
    ------
    FieldError
        A step that is not done with it, nothing that is looked at, a quantity that cannot be, a place that is no hour of the clock.
    """
    with recording(ref, ProofMark, new.id, new, f"step:{new.step}") as job:
        if job is None:
            return
        step = step_of(load(job).job_record.family, new.step)
        if not step.has(new.seen if new.seen in (TURNING, END_PLAY) else FirstHourTask.kind):
            raise FieldError("step", f"{new.seen} is not looked at there.", "Expected the step that is done with it.")
        if new.places and new.seen != TURNING:
            raise FieldError("tight spot", "only the turning of a shaft has one.", f"Expected none with {new.seen}.")
        value, typed = None, new.typed.strip()
        if new.seen == TURNING:
            odd = next((place for place in new.places if place not in CLOCK), None)
            if odd is not None:
                raise FieldError("tight spot", f"“{odd}” is no hour of the clock.", "Expected 1 to 12.")
            typed = f"tight at {', '.join(new.places)} o'clock" if new.places else "turns freely all the way round"
        elif new.seen == END_PLAY:
            play = ref.entry.read("end_play", new.typed)
            value, typed = play.value, play.said
        elif new.seen == FirstHourItem.NOISE.value:
            if typed not in NOISES:
                raise FieldError("noise", f"“{typed}” is not in the list.", f"Expected one of: {', '.join(NOISES)}.")
        else:
            value, typed = _measured(new, ref.entry)
        job.proofs.filter(step=new.step, seen=new.seen).strike(ref.actor, ref.moment, "seen again")
        ProofMark.objects.create(
            id=new.id, job=job, step=new.step, seen=new.seen, value=value, typed=typed, places=sorted(set(new.places), key=int),
            **ref.stamp,
        )  # fmt: skip
        log(job, ref, f"{new.seen.capitalize()}: {typed}")


def _measured(new: NewProof, entry: Entry) -> tuple[float, str]:
    kinds = {kind.value: kind for kind in _ASKED}
    if new.seen not in kinds:
        known = ", ".join((TURNING, END_PLAY, *kinds, FirstHourItem.NOISE.value))
        raise FieldError("seen", f"“{new.seen}” is not looked at here.", f"Expected one of: {known}.")
    kind = kinds[new.seen]
    if new.seconds.strip():
        if kind is not FirstHourItem.FLOW:
            raise FieldError("seconds", "only a flow is timed.", "Expected them with a bucket.")
        bucket = entry.read("bucket", new.typed)
        seconds = entry.number(new.seconds, "seconds", 0.5, 36_000)
        return by_bucket(bucket.value, seconds), f"{bucket.said} in {seconds:g} s"
    quantity = entry.read(_ASKED[kind], new.typed, name=new.seen)
    return quantity.value, quantity.said


@dataclass(frozen=True)
class NewNote:
    """A line of the run-in as typed. Drops are typed as a rate, or tapped: ``taps_s`` are the seconds at which they fell.

    ``minute`` empty means by the clock, since the first line. ``eighths`` tightened is positive, backed off negative.
    """

    id: uuid.UUID
    drops: str = ""
    taps_s: Sequence[float] = ()
    box: str = ""
    minute: str = ""
    eighths: float = 0.0


def note_run_in(ref: JobRef, new: NewNote) -> None:
    """Add a line to the log of the run-in.

    Raises
    ------
    FieldError
        Nothing entered, drops given twice, or what the core refuses of the line.
    Refused
        This pump has no packing to run in.
    """
    with recording(ref, RunInNote, new.id, new, "run-in") as job:
        if job is None:
            return
        job_record = load(job).job_record
        if not assess(job_record).tasks.of_kind(RunInTask):
            raise Refused("There is no packing to run in.", ["This pump is sealed otherwise."])
        drops, expanded = _drops(new, ref.entry)
        box = ref.entry.read("box", new.box).value if new.box.strip() else None
        note = Note(_minute(job, new.minute, ref), drops, box, new.eighths)
        check_note(note, job_record.run_in)
        RunInNote.objects.create(
            id=new.id, job=job, number=job.run_in.count() + 1, minute=note.minute, drops=drops, drops_expanded=expanded, box_c=box,
            eighths=note.eighths, **ref.stamp,
        )  # fmt: skip
        words = [
            f"{drops:.1f} drops a minute" if drops is not None else "",
            f"box {box:.0f} C" if box is not None else "",
            f"gland {'tightened' if note.eighths > 0 else 'backed off'} {abs(note.eighths) / 8:g} turn" if note.eighths else "",
        ]
        log(job, ref, f"Run-in, minute {note.minute:.0f}: " + ", ".join(filter(None, words)))


def _drops(new: NewNote, entry: Entry) -> tuple[float | None, float | None]:
    if new.drops.strip() and new.taps_s:
        raise FieldError("drops a minute", "they are given twice.", "Expected a number, or taps.")
    if new.taps_s:
        counted = count_drops(new.taps_s)
        return counted.a_minute, counted.expanded
    return (entry.number(new.drops, "drops a minute", 0, 1000), None) if new.drops.strip() else (None, None)


def _ask_of_the_future(first: RunInNote, minute: float, ref: JobRef) -> None:
    """A line of a time that has not come is asked about."""
    at = first.at + dt.timedelta(minutes=minute - first.minute)
    if at > ref.moment + AHEAD:
        raise Unlikely(
            "minute", f"minute {minute:g} is still to come: it would be {at.astimezone(ref.moment.tzinfo):%H:%M}.", "Is it meant?"
        )


def _minute(job: Job, typed: str, ref: JobRef) -> float:
    notes = list(job.run_in.standing())
    if typed.strip():
        minute = ref.entry.number(typed, "minute", 0, 72 * 60)
        if notes and not ref.entry.meant:
            _ask_of_the_future(notes[0], minute, ref)
        return minute
    if not notes:
        return 0.0
    since = (ref.moment - notes[0].at).total_seconds() / 60 + notes[0].minute
    return round(max(since, notes[-1].minute), 1)
