"""When oil and grease fall due: by running hours off the meter, sooner where it is wet, with another grease where it is cold."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

from finegap.core.formatting import Sentence, grouped
from finegap.core.working import Given, Working

_TOGETHER_DAYS = 14
"""What falls due within so many days of one another is done together. Common practice, no source."""

_HOURS_OF_A_DAY = 24
_FORESEEN_DAYS = 20 * 365
"""No day is foretold further off."""


@dataclass(frozen=True)
class Plan:
    """What a sheet asks for: every so many running hours, fewer in wet or condensing places; what with, and what when cold [C]."""

    name: str
    every_h: float
    wet_h: float | None = None
    lubricant: str = ""
    cold_below_c: float | None = None
    cold_lubricant: str = ""

    def hours(self, wet: bool) -> float:
        """Hours between two, in this place."""
        return self.wet_h if wet and self.wet_h is not None else self.every_h

    def using(self, coldest_c: float | None) -> str:
        """What it is done with, in this cold."""
        if self.cold_below_c is not None and coldest_c is not None and coldest_c < self.cold_below_c:
            return self.cold_lubricant
        return self.lubricant


@dataclass(frozen=True)
class Metered:
    """An hours meter as read: day as an ordinal of the calendar.

    ``old_last`` is the last reading of a meter that was replaced since the reading before, ``new_first`` what the new one began at.
    """

    day: int
    hours: float
    old_last: float | None = None
    new_first: float = 0.0


@dataclass(frozen=True)
class Due:
    """One thing that falls due: at so many hours, in so many, on a day where the rate is known. ``done_h`` is ``None`` if never."""

    plan: Plan
    at_h: float
    left_h: float
    day: int | None
    lubricant: str
    done_h: float | None
    sentence: Sentence
    working: Working

    @property
    def late(self) -> bool:
        """It is past."""
        return self.left_h < 0


def chained(readings: Sequence[Metered]) -> tuple[tuple[Metered, float], ...]:
    """Readings, oldest first, each with the hours run in all by then; the first counts what its meter shows.

    A replaced meter is counted through. One that went back without a word begins anew with what it shows.
    """
    run: list[tuple[Metered, float]] = []
    for one in readings:
        more = _since(run[-1][0] if run else None, one)
        run.append((one, run[-1][1] + more if run and more >= 0 else one.hours if run else more))
    return tuple(run)


def gone_back(readings: Sequence[Metered]) -> Metered | None:
    """The last reading with which a meter went back without a word that it was replaced; ``None`` where none did."""
    return next((b for a, b in reversed(list(pairwise(readings))) if _since(a, b) < 0), None)


def totals(readings: Sequence[Metered]) -> tuple[tuple[Metered, float], ...]:
    """The same from where the meter went back without a word, if it did: what was before is left out."""
    run = chained(readings)
    begins = [i for i in range(1, len(run)) if _since(run[i - 1][0], run[i][0]) < 0]
    return run[begins[-1] :] if begins else run


def _since(before: Metered | None, one: Metered) -> float:
    """Hours between two readings; below zero where the meter went back without a word."""
    if one.old_last is None:
        return one.hours - (before.hours if before else 0.0)
    return (one.old_last - (before.hours if before else 0.0)) + (one.hours - one.new_first)


def total_at(readings: Sequence[Metered], day: int, hours: float) -> float:
    """Hours run in all when a meter showed so many on a day, by its last reading until then.

    Parameters
    ----------
    readings : sequence of Metered
        Oldest first.
    day : int
        Ordinal of the calendar.
    hours : float
        What the meter showed.
    """
    until = [(one, total) for one, total in chained(readings) if one.day <= day]
    exact = [total for one, total in until if one.day == day and one.hours == hours]
    if exact:
        return exact[-1]
    if not until:
        return hours
    last, total = until[-1]
    return total + hours - last.hours


def hours_a_week(readings: Sequence[Metered], fallback: float | None = None) -> float | None:
    """Running hours a week from the first to the last reading that can be counted through."""
    run = totals(readings)
    if len(run) < 2 or run[-1][0].day == run[0][0].day:
        return fallback
    (first, at_first), (last, at_last) = run[0], run[-1]
    return (at_last - at_first) / (last.day - first.day) * 7


def due(
    plans: Sequence[Plan],
    readings: Sequence[Metered],
    done: Mapping[str, Metered],
    wet: bool,
    coldest_c: float | None,
    fallback: float | None = None,
) -> tuple[Due, ...]:
    """What falls due, the soonest first.

    Parameters
    ----------
    plans : sequence of Plan
        The sheet's.
    readings : sequence of Metered
        The meter, oldest first; the last tells where it stands.
    done : mapping of str to Metered
        By name, the day it was last done and what the meter showed then.
    wet : bool
        A wet or condensing place.
    coldest_c : float or None
        The coldest the pump stands in.
    fallback : float or None
        Hours a week where the meter does not tell.
    """
    if not readings:
        return ()
    rate, run = hours_a_week(readings, fallback), totals(readings)
    found = [_one(plan, run[-1][0], rate, _on_this_meter(done.get(plan.name), run), wet, coldest_c) for plan in plans]
    return tuple(sorted(found, key=lambda one: one.left_h))


def _on_this_meter(done: Metered | None, run: Sequence[tuple[Metered, float]]) -> float | None:
    """What the present meter would have shown when something was done; ``None`` if it never was."""
    if done is None:
        return None
    last, now = run[-1]
    ends = [after.hours if after.old_last is None else after.old_last for after, _ in run[1:]]
    ends.append(last.hours + _HOURS_OF_A_DAY * (max(done.day - last.day, 0) + 1))
    on = [(one, t) for (one, t), end in zip(run, ends, strict=True) if one.day <= done.day and one.hours <= done.hours <= end]
    before, total = on[-1] if on else run[0]
    return last.hours - (now - (total + done.hours - before.hours))


def _one(plan: Plan, last: Metered, rate: float | None, done: float | None, wet: bool, coldest_c: float | None) -> Due:
    every, using = plan.hours(wet), plan.using(coldest_c)
    at = (done or 0.0) + every
    left = at - last.hours
    day = day_after(last, left, rate)
    said = {"name": plan.name, "left": grouped(abs(left)), "at": grouped(at), "with": f" with {using}" if using else ""}
    late = "{name}{with}: {left}\u00a0h past due, it was due at {at}\u00a0h."
    words = late if left < 0 else "{name}{with}: in {left}\u00a0h, at {at}\u00a0h."
    never = Sentence("never recorded, counted from 0 h")
    working = Working(
        f"{plan.name}, due",
        "at = last + every;   left = at − now;   days = 7·left / rate",
        (
            Given("last", "the meter when it was last done", f"{grouped(done)} h" if done is not None else never),
            Given(
                "every",
                "running hours between two" + (", wet place" if wet and plan.wet_h is not None else ""),
                f"{grouped(every)} h",
            ),
            Given("now", "the meter now", f"{grouped(last.hours)} h"),
            Given("rate", "hours a week, from the meter", f"{rate:.1f}" if rate else "not known"),
        ),
        Sentence("{left} h left", {"left": grouped(left)}),
        "the sheet; common practice: sooner in wet or condensing places, another grease in deep cold",
    )
    return Due(plan, at, left, day, using, done, Sentence(words, said), working)


def day_after(last: Metered, left: float, rate: float | None) -> int | None:
    """The day on which the hours are up at this rate. What is past due is due now; a day more than twenty years off is not
    told."""
    if left <= 0:
        return last.day
    if not rate or left / rate * 7 > _FORESEEN_DAYS:
        return None
    return last.day + round(left / rate * 7)


def together(found: Sequence[Due]) -> tuple[tuple[Due, ...], ...]:
    """What can be done in one visit: each group within two weeks of its first; only what has a day."""
    dated = sorted((one for one in found if one.day is not None), key=lambda one: one.day or 0)
    groups: list[list[Due]] = []
    for one in dated:
        if groups and (one.day or 0) - (groups[-1][0].day or 0) <= _TOGETHER_DAYS:
            groups[-1].append(one)
        else:
            groups.append([one])
    return tuple(tuple(group) for group in groups)
