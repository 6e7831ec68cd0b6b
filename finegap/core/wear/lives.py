"""The lives of one part of a pump: fitted, measured at later overhauls, scrapped."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from enum import Enum

from finegap.core.formatting import Amounts, Sentence, length
from finegap.core.kept import kept
from finegap.core.wear.hours import HoursRead, since_before


@dataclass(frozen=True)
class MeasuredSize:
    """A measured size with its standard uncertainty, in mm."""

    value_mm: float
    u_mm: float


class Instead(Enum):
    """What took the place of a part that went into another pump."""

    NEW = "new"
    UNKNOWN = "unknown"
    NOTHING = "nothing"


@dataclass(frozen=True)
class Visit:
    """One overhaul as seen from one part, or the day the part went from one pump into another.

    ``work`` is load times speed of the duty before it (bar r/min), 0 where pressure or speed is not on record: wear follows sliding
    work (Archard). ``left`` is what was measured after Build; ``changed`` says that the part was renewed then. One from
    before this record has a ``name``, and a ``job`` below 0. ``brought`` is the life of a part that came from another pump,
    ``instead`` what took the place of one that went: only a new part has a size nobody measured.
    """

    job: int
    day: int
    meter: HoursRead
    work: float
    found: MeasuredSize | None
    changed: bool = False
    left: MeasuredSize | None = None
    name: str = ""
    brought: Life | None = None
    instead: Instead | None = None

    @property
    def said(self) -> str:
        """How it is named in a sentence."""
        return self.name or f"job {self.job}"


@dataclass(frozen=True)
class Point:
    """A size at hours since fitted, at the present duty. ``job`` is the overhaul and ``day`` its day; 0 for a new part's size off
    the sheet, of which nobody knows when it was fitted. What was not ``measured`` is the sheet's size.
    """

    hours: float
    size: MeasuredSize
    job: int = 0
    day: int = 0
    measured: bool = True


@dataclass(frozen=True)
class Life:
    """One fitted part, from fitting to scrapping. ``now`` is its hours at the last overhaul, ``None`` where hours were lost."""

    points: tuple[Point, ...]
    now: float | None
    ended: bool = False


@dataclass
class _Tracing:
    points: list[Point] = field(default_factory=list)
    hours: float | None = 0.0


@kept(512)
def trace(
    visits: Sequence[Visit], new_mm: tuple[float, float] | None, wears_up: bool, work_now: float
) -> tuple[tuple[Life, ...], tuple[Sentence, ...]]:
    """The lives of a part, oldest first, the last one running; and what was odd on the way.

    Parameters
    ----------
    visits : sequence of Visit
        Overhauls in order, the present one last.
    new_mm : tuple of float, optional
        New size range. A pump is taken as new at 0 h on its meter, and a changed part that was not measured as new.
    wears_up : bool
        Bores and gaps grow, pins and shafts shrink.
    work_now : float
        Load times speed at present: hours at another duty are stretched or shrunk to it. Where either is 0 that share is unknown,
        not nothing: what was measured before does not count, and the duty is asked for.
    """
    fresh = _fresh(new_mm)
    lives: list[Life] = []
    notes: list[Sentence] = []
    life = _Tracing([Point(0.0, fresh, measured=False)] if fresh else [], 0.0)
    before: float | None = 0.0
    for visit in visits:
        run = since_before(before, visit.meter)
        before = visit.meter.hours if visit.meter.hours is not None else before
        if visit.meter.hours is None:
            notes.append(Sentence("Sizes of {visit} are left out: it has no hours.", {"visit": visit.said}))
            life.hours = life.hours if not visit.changed else None
            continue
        lost = _lost(run, visit, work_now)
        if lost is not None:
            notes.append(lost)
            lives.append(Life(tuple(life.points), None, ended=True))
            life = _Tracing([], 0.0)
        elif life.hours is not None and run:
            life.hours += run * visit.work / work_now
        if visit.found:
            life = _measured(life, visit, new_mm, wears_up, lives, notes)
        if visit.changed:
            lives.append(Life(tuple(life.points), life.hours, ended=True))
            life = _fitted(visit, fresh)
    past = [one for one in lives if one.points]
    # The running one is always last, with no size yet where none is known: a scrapped part is never taken for the one in the pump.
    running = [Life(tuple(life.points), life.hours)] if life.points or past else []
    return (*past, *running), tuple(notes)


def _fitted(visit: Visit, fresh: MeasuredSize | None) -> _Tracing:
    """The life that begins when a part is changed: that of a new one, of one from another pump, or of one nobody knows."""
    if visit.brought is not None:
        return _Tracing(list(visit.brought.points), visit.brought.now)
    if visit.instead in (Instead.UNKNOWN, Instead.NOTHING):
        return _Tracing([], None)
    size, measured = visit.left or fresh, visit.left is not None
    return _Tracing([Point(0.0, size, visit.job, visit.day, measured)] if size else [], 0.0)


def carried(
    visits: Sequence[Visit], new_mm: tuple[float, float] | None, wears_up: bool, at: HoursRead, work: float, work_there: float
) -> Life:
    """The life a part takes with it into another pump, in hours at the duty of that one.

    Parameters
    ----------
    visits : sequence of Visit
        Of the pump that gives it, up to the day.
    new_mm : tuple of float, optional
        As for ``trace``.
    wears_up : bool
        As for ``trace``.
    at : HoursRead
        What the meter of that pump showed on the day.
    work : float
        Pressure times speed of that pump [bar r/min].
    work_there : float
        The same of the pump it goes into.
    """
    last = Visit(0, visits[-1].day if visits else 0, at, work, None, name="the day it was taken out")
    lives, _ = trace((*visits, last), new_mm, wears_up, work_there)
    return lives[-1] if lives else Life((), None)


def _lost(run: float | None, visit: Visit, work_now: float) -> Sentence | None:
    """Why the hours before a visit cannot be told, if they cannot."""
    said = {"visit": visit.said}
    if run is None:
        return Sentence("The hours meter goes backwards at {visit} with nothing said of a new one: counted anew from there.", said)
    if run and not (visit.work and work_now):
        words = "At which pressure and speed did it run before {visit}? Wear before cannot be compared: counted anew."
        return Sentence(words, said)
    return None


def _fresh(new_mm: tuple[float, float] | None) -> MeasuredSize | None:
    if new_mm is None:
        return None
    return MeasuredSize((new_mm[0] + new_mm[1]) / 2, (new_mm[1] - new_mm[0]) / math.sqrt(12))


def _measured(
    life: _Tracing, visit: Visit, new_mm: tuple[float, float] | None, wears_up: bool, lives: list[Life], notes: list[Sentence]
) -> _Tracing:
    """Add a size to a life, or begin another where it cannot be the same part."""
    found = visit.found
    assert found is not None
    if life.hours is None:
        return _Tracing([Point(0.0, found, visit.job, visit.day)], 0.0)
    if life.points:
        last = life.points[-1].size
        back = (last.value_mm - found.value_mm) * (1 if wears_up else -1)
        doubt = 2 * math.hypot(last.u_mm, found.u_mm)
        if back > doubt:
            amounts: Amounts = {"back": length(back, fine=True), "visit": visit.said}
            if new_mm and new_mm[0] - 2 * found.u_mm <= found.value_mm <= new_mm[1] + 2 * found.u_mm:
                words = "At {visit} it is {back} better than before, as new: changed without a record. A new life is begun there."
                notes.append(Sentence(words, amounts))
                lives.append(Life(tuple(life.points), life.hours, ended=True))
                return _Tracing([Point(0.0, found, visit.job, visit.day)], 0.0)
            words = "At {visit} it is {back} better than before: parts do not grow back, one of the two was misread."
            notes.append(Sentence(words, amounts))
    life.points.append(Point(life.hours, found, visit.job, visit.day))
    return life
