"""What is seen at Prove: how the shaft turns, the run-in of packing, the first hour."""

from __future__ import annotations

import datetime as dt

from finegap.api.errors import Refused
from finegap.bench.changes import NoteRunIn, SeeProof
from finegap.bench.models import Job, ProofMark, RunInNote
from finegap.bench.services.changing import AHEAD, JobInHand, JobRef, changes
from finegap.bench.services.steps import step_of
from finegap.core.entry import Entry
from finegap.core.errors import FieldError, Unlikely
from finegap.core.proof.run_in import Note, check_note, count_drops
from finegap.core.tasks.base import TypedSight
from finegap.core.tasks.registry import KINDS
from finegap.core.tasks.run_in import RunInTask
from finegap.core.tasks.turning import TurningTask


@changes(lambda new, now: f"step:{new.step}", ProofMark)
def see(now: JobInHand, new: SeeProof) -> None:
    """Record something seen at a step; seeing it again replaces it there, and the record keeps both.

    Raises
    ------
    FieldError
        A step that is not done with it, a quantity that cannot be, a place that is no hour of the clock.
    Refused
        What the step stands on is open: nothing can be seen there yet.
    """
    job, record = now.job, now.before.job_record
    step = step_of(record.family, new.step)
    missing = [s.text for s in record.family.steps if s.key in step.needs and s.key not in record.steps_done]
    if missing:
        raise Refused("Something comes before this.", [f"First: {text}" for text in missing])
    task = next((KINDS[one.kind] for one in step.tasks if new.seen in KINDS[one.kind].sights), None)
    if task is None:
        raise FieldError("step", f"{new.seen} is not looked at there.", "Expected the step that is done with it.")
    if new.places and task is not TurningTask:
        raise FieldError("tight spot", "only the turning of a shaft has one.", f"Expected none with {new.seen}.")
    value, typed = task.observe(new.seen, TypedSight(new.typed.strip(), new.seconds, tuple(new.places)), now.ref.entry)
    now.strike(job.proofs.filter(step=new.step, seen=new.seen), "seen again")
    ProofMark.objects.create(
        id=new.id, job=job, step=new.step, seen=new.seen, value=value, typed=typed, places=sorted(set(new.places), key=int),
        **now.ref.stamp,
    )  # fmt: skip
    now.log(f"{new.seen.capitalize()}: {typed}")


@changes(lambda new, now: "run-in", RunInNote)
def note_run_in(now: JobInHand, new: NoteRunIn) -> None:
    """Add a line to the log of the run-in.

    Raises
    ------
    FieldError
        Nothing entered, drops given twice, or what the core refuses of the line.
    Refused
        This pump has no packing to run in.
    """
    job, ref = now.job, now.ref
    if not now.before.assessment.tasks.of_kind(RunInTask):
        raise Refused("There is no packing to run in.", ["This pump is sealed otherwise."])
    drops, expanded = _drops(new, ref.entry)
    box = ref.entry.read("box", new.box).value if new.box.strip() else None
    note = Note(_minute(job, new.minute, ref), drops, box, new.eighths)
    check_note(note, now.before.job_record.run_in)
    RunInNote.objects.create(
        id=new.id, job=job, number=job.run_in.count() + 1, minute=note.minute, drops=drops, drops_expanded=expanded, box_c=box,
        eighths=note.eighths, **ref.stamp,
    )  # fmt: skip
    words = [
        f"{drops:.1f} drops a minute" if drops is not None else "",
        f"box {box:.0f} C" if box is not None else "",
        f"gland {'tightened' if note.eighths > 0 else 'backed off'} {abs(note.eighths) / 8:g} turn" if note.eighths else "",
    ]
    now.log(f"Run-in, minute {note.minute:.0f}: " + ", ".join(filter(None, words)))


def _drops(new: NoteRunIn, entry: Entry) -> tuple[float | None, float | None]:
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
