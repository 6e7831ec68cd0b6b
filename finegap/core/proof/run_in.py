"""Running packing in: what the gland leaks and how warm the box is, and from that to tighten, to wait, or to back off.

Common practice, no source: the gland is turned an eighth of a turn at a time at most, time is left between, it leaks a few drops a
minute for life, and when it heats it is backed off, left to cool, and begun again. The maker's manual rules over it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import Enum
from itertools import pairwise
from statistics import fmean, stdev

from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Amounts, Kind, Sentence
from finegap.core.measuring.uncertainty import coverage_factor
from finegap.core.stamp import NOBODY, Stamp
from finegap.core.working import Given, Working

MOST_EIGHTHS = 1.0
"""A gland is tightened by an eighth of a turn at a time at most."""

_SLIGHT = 0.5
_STEADY_NOTES, _STEADY_MIN = 3, 20.0
_COOLED_K = 5.0
_RISING_K = 5.0
_NEAR_K = 10.0
_DANGER_K = 15.0
_LEAST_TAPS = 3
_LONGEST_H = 72
_BOX_C = (-60.0, 300.0)


@dataclass(frozen=True)
class Rules:
    """What packing may do: drops a minute from and to, how warm the box may get [C], minutes between two turns of the gland."""

    drops: tuple[float, float] = (2.0, 10.0)
    hottest_c: float = 60.0
    settle_min: float = 10.0


def rules_for(pumping_c: float, drops: tuple[float, float] | None = None, hottest_c: float | None = None) -> Rules:
    """The sheet's own, or the usual: 2 to 10 drops a minute, and a box no more than 20 K above the warmer of liquid and 40 C."""
    usual = Rules()
    return Rules(drops or usual.drops, max(pumping_c, 40.0) + 20.0 if hottest_c is None else hottest_c)


@dataclass(frozen=True)
class Note:
    """One line of the log: minutes since the start, drops a minute, the box [C], and by how many eighths the gland was turned after
    looking (tightened positive, backed off negative). What was not looked at is ``None``. ``drops_expanded`` is the expanded
    uncertainty of drops that were tapped; ``number`` the line's."""

    minute: float
    drops: float | None
    box_c: float | None
    eighths: float = 0.0
    number: int = 0
    drops_expanded: float | None = None
    stamp: Stamp = NOBODY


class Say(Enum):
    """What the coach says."""

    BEGIN = "begin"
    TIGHTEN = "tighten"
    WAIT = "wait"
    BACK_OFF = "back off"
    STOP = "stop"
    DONE = "run in"


@dataclass(frozen=True)
class Advice:
    """The next move: in a word and in sentences; by how many eighths, or how long to wait in minutes."""

    say: Say
    headline: Sentence
    why: Sentence
    eighths: float = 0.0
    wait_min: float = 0.0


def check_note(note: Note, before: Sequence[Note]) -> None:
    """Refuse a line that cannot be.

    Raises
    ------
    FieldError
        Nothing looked at, a time before the last one, a temperature no box has, or a gland tightened by more than an eighth.
    """
    if note.drops is None and note.box_c is None and not note.eighths:
        raise FieldError(
            "run-in", "nothing was entered.", "Expected drops a minute, the box's temperature, or a turn of the gland."
        )
    if not 0 <= note.minute <= _LONGEST_H * 60:
        raise FieldError("minute", f"{note.minute:g} cannot be.", f"Expected minutes since the start, up to {_LONGEST_H} hours.")
    if before and note.minute < before[-1].minute:
        raise FieldError("minute", f"the last line was at {before[-1].minute:g} min.", "Expected a time after it.")
    if note.eighths > MOST_EIGHTHS:
        raise FieldError(
            "turn of the gland", "that is more than an eighth of a turn.", "Expected an eighth at a time at most, then a wait."
        )
    if note.box_c is not None and not _BOX_C[0] <= note.box_c <= _BOX_C[1]:
        low, high = (f"{c:g} °C ({c * 1.8 + 32:g} °F)" for c in _BOX_C)
        raise FieldError("box temperature", "that is no stuffing box.", f"Expected {low} to {high}.")
    if note.drops is not None and note.drops < 0:
        raise FieldError("drops a minute", "it cannot be negative.", "Expected a count.")


def advise(notes: Sequence[Note], rules: Rules) -> Advice:
    """What to do after the lines so far."""
    if not notes:
        return Advice(
            Say.BEGIN,
            Sentence("Gland nuts finger-tight, square; start the pump and let it leak freely"),
            Sentence("Then count the drops and feel the box. Packing that runs dry from the start burns."),
        )
    last = notes[-1]
    hot = _heat(notes, rules)
    if hot:
        return hot
    if last.box_c is None:
        return _wait(0.0, "Feel the box", "Its temperature is not in the last line.")
    if last.drops is None:
        return _wait(0.0, "Count the drops", "They are not in the last line.")
    return _leak(notes, last.drops, rules)


def _heat(notes: Sequence[Note], rules: Rules) -> Advice | None:
    last = notes[-1]
    felt = [n for n in notes if n.box_c is not None]
    if last.box_c is None or not felt:
        return None
    amounts = _amounts(last, rules)
    before = felt[-2].box_c if len(felt) > 1 else None
    if last.box_c > rules.hottest_c:
        backed_off = any(n.eighths < 0 for n in notes[-2:])
        # The gland is turned after looking: only what was backed off a line ago can have cooled it by now.
        since = len(notes) > 1 and notes[-2].eighths < 0
        in_vain = since and before is not None and before > rules.hottest_c and last.box_c >= before
        if last.box_c > rules.hottest_c + _DANGER_K or in_vain:
            words = "The box is at {box}, over {hottest}, and backing off is not enough. Let it cool, then begin again."
            return Advice(Say.STOP, Sentence("Stop the pump and slacken the gland"), Sentence(words, amounts), -1.0)
        if backed_off:
            return _wait(
                5.0, "Wait: let it cool", "The gland is backed off; the box is at {box} and has to come below {hottest}.", amounts
            )
        words = "The box is at {box}, over {hottest}: it burns the packing and scores the shaft. Let it cool, then begin again."
        return Advice(Say.BACK_OFF, Sentence("Back off an eighth of a turn, both nuts evenly"), Sentence(words, amounts), -1.0)
    was_hot = any(n.box_c is not None and n.box_c > rules.hottest_c for n in notes)
    last_hot = max((n.minute for n in felt if n.box_c is not None and n.box_c > rules.hottest_c), default=None)
    turned_since = last_hot is not None and any(n.eighths > 0 and n.minute > last_hot for n in notes)
    if was_hot and not turned_since and last.box_c > rules.hottest_c - _COOLED_K:
        return _wait(5.0, "Wait: let it cool", "It was too hot, and at {box} it is hardly below {hottest} yet.", amounts)
    if before is not None and last.box_c - before > _RISING_K and last.box_c > rules.hottest_c - _NEAR_K:
        return _wait(
            5.0, "Wait, and feel it again", "The box is at {box} and still warming: a turn now would overheat it.", amounts
        )
    return None


def _leak(notes: Sequence[Note], drops: float, rules: Rules) -> Advice:
    low, high = rules.drops
    last = notes[-1]
    amounts = _amounts(last, rules)
    moved = next((n for n in reversed(notes) if n.eighths), None)
    since = last.minute - moved.minute if moved else last.minute
    left = max(rules.settle_min - since, 0.0)
    if drops < low:
        if moved and moved.eighths < 0 and left:
            return _wait(
                left, "Wait", "It was backed off {since} min ago; give it time to leak again.", amounts | {"since": f"{since:g}"}
            )
        words = "{drops} drops a minute: it must leak {low} to {high} for life, it cools and lubricates the packing."
        return Advice(Say.BACK_OFF, Sentence("Back off an eighth of a turn, both nuts evenly"), Sentence(words, amounts), -1.0)
    if drops > high:
        if left > 0:
            words = "{drops} drops a minute is still too much, but packing needs {settle} min between two turns: {since} have gone."
            return _wait(left, f"Wait {left:.0f} min", words, amounts | {"since": f"{since:g}"})
        eighths = MOST_EIGHTHS if drops > 2 * high else _SLIGHT
        how = "an eighth of a turn" if eighths == MOST_EIGHTHS else "a sixteenth of a turn"
        words = "{drops} drops a minute, {low} to {high} are wanted; the box is at {box}."
        return Advice(Say.TIGHTEN, Sentence("Tighten {how}, both nuts evenly", {"how": how}), Sentence(words, amounts), eighths)
    return _steady(notes, rules, amounts)


def _steady(notes: Sequence[Note], rules: Rules, amounts: Amounts) -> Advice:
    """In its range: run in once it has stayed there without a turn."""
    low, high = rules.drops
    calm: list[Note] = []
    for note in reversed(notes):
        fine = note.drops is not None and low <= note.drops <= high and note.box_c is not None and note.box_c <= rules.hottest_c
        if not fine or note.eighths:
            break
        calm.append(note)
    span = calm[0].minute - calm[-1].minute if calm else 0.0
    if len(calm) >= _STEADY_NOTES and span >= _STEADY_MIN:
        words = "{drops} drops a minute and {box}, unchanged for {span} min. It leaks a few drops for life: never close it."
        return Advice(Say.DONE, Sentence("Run in: leave the gland as it is"), Sentence(words, amounts | {"span": f"{span:.0f}"}))
    words = "{drops} drops a minute at {box} is right. Count again; three lines over {steady} min without a turn, and it is run in."
    return _wait(rules.settle_min, f"Wait {rules.settle_min:.0f} min", words, amounts | {"steady": f"{_STEADY_MIN:.0f}"})


def _wait(minutes: float, headline: str, why: str, amounts: Amounts | None = None) -> Advice:
    return Advice(Say.WAIT, Sentence(headline), Sentence(why, amounts or {}), wait_min=minutes)


def _amounts(last: Note, rules: Rules) -> Amounts:
    return {
        "box": "not felt" if last.box_c is None else Amount(last.box_c, Kind.TEMPERATURE),
        "hottest": Amount(rules.hottest_c, Kind.TEMPERATURE),
        "drops": "–" if last.drops is None else f"{last.drops:.0f}",
        "low": f"{rules.drops[0]:g}",
        "high": f"{rules.drops[1]:g}",
        "settle": f"{rules.settle_min:g}",
    }


@dataclass(frozen=True)
class DropCount:
    """Drops counted by tapping: how many a minute, and how good that is."""

    a_minute: float
    expanded: float
    working: Working


def count_drops(taps_s: Sequence[float]) -> DropCount:
    """Drops a minute from the times [s] at which they fell: n drops leave n - 1 times between them.

    Raises
    ------
    FieldError
        Fewer than three drops, or times that do not go on.
    """
    if len(taps_s) < _LEAST_TAPS:
        raise FieldError(
            "drops", f"{len(taps_s)} are too few to tell.", f"Expected {_LEAST_TAPS} drops or more, or type the number."
        )
    if any(later <= sooner for sooner, later in pairwise(taps_s)):
        raise FieldError("drops", "the times do not go on.", "Expected each drop after the one before.")
    times = [later - sooner for sooner, later in pairwise(taps_s)]
    between, span = len(times), taps_s[-1] - taps_s[0]
    rate = 60 * between / span
    expanded = rate * coverage_factor(between - 1) * stdev(times) / between**0.5 / fmean(times)
    working = Working(
        "Drops a minute",
        "60·(n − 1)/t,   U = rate·k·s/(m·√(n − 1))",
        (
            Given("n", "drops counted", str(len(taps_s))),
            Given("t", "from the first to the last", f"{span:.1f} s"),
            Given("m", "mean time between", f"{fmean(times):.3f} s"),
            Given("s", "scatter of the times between", f"{stdev(times):.3f} s"),
            Given("k", "Student t, two-sided 95 %", f"{coverage_factor(between - 1):.2f}"),
        ),
        Sentence("{rate} ± {u}", {"rate": f"{rate:.1f}", "u": f"{expanded:.1f}"}),
        "counting: n drops leave n − 1 times between; their scatter by JCGM 100, 4.2",
    )
    return DropCount(rate, expanded, working)
