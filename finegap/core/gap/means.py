"""From tries to the next move: one function for each means of setting a gap."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import replace
from itertools import pairwise

from finegap.core.families.model import DEFAULT_WORDS, GapWords
from finegap.core.gap import fixed, gaskets, housing, ring, shims, surprise, timing
from finegap.core.gap.declared import GasketMeans, HousingMeans, MeshMeans, RingMeans, ShimMeans
from finegap.core.gap.gaskets import Known
from finegap.core.gap.move import Move, Way, Window
from finegap.core.gap.setting import Asked, Check, Held, Setting, TryJudged, TryMade, hold, judged, settled
from finegap.core.gap.stock import Stack
from finegap.core.gap.surprise import LEAST_ODD_MM
from finegap.core.measuring.verdict import School, guard_of
from finegap.core.showing import Sentence, length


def _asked(window: Window, words: GapWords) -> tuple[Asked, ...]:
    return (Asked("gap", words.name, window),)


def set_by_housing(
    means: HousingMeans,
    window: Window,
    tries: Sequence[TryMade],
    school: School,
    zero: housing.Zero,
    lash_mm: float,
    words: GapWords = DEFAULT_WORDS,
) -> Setting:
    """Next turn of a bearing housing after the tries so far, from zero."""

    def correct(gap_mm: float, last_way: Way | None, measured: float | None) -> Move:
        return housing.move_for(means.housing, window.target_mm - gap_mm, last_way, lash_mm, measured)

    move, last_way, lash_seen = correct(0.0, zero.ends, None), zero.ends, None
    gap, odd = 0.0, None
    for made in tries:
        arc, now = made.arc_mm or 0.0, made.check.value_mm
        way = last_way if arc == 0 else (Way.OPEN if arc > 0 else Way.CLOSE)
        reverses = way is not last_way
        seen = housing.lash_from(abs(arc), now, gap, means.housing)
        # Too large a play is as wrong as too small a one; what the check cannot tell apart is not reported.
        lash_seen = seen if reverses and abs(seen - lash_mm) > 2 * made.check.u_mm else None
        promised = means.housing.clearance_mm(arc) - (lash_mm if reverses else 0.0) * (1 if arc > 0 else -1)
        odd = surprise.surprise(promised, now - gap, made.check.u_mm, surprise.HOUSING)
        gap, last_way = now, way
        move = correct(gap, last_way, gap)
    asked = _asked(window, words)
    return settled(Setting(asked, judged(asked, tries, school), move, lash_seen_mm=lash_seen, surprise=odd))


def set_by_gaskets(
    means: GasketMeans,
    window: Window,
    tries: Sequence[TryMade],
    school: School,
    box: Mapping[int, int],
    words: GapWords = DEFAULT_WORDS,
    known: Known | None = None,
) -> Setting:
    """Next stack of gaskets after the tries so far; ``box`` is stock without what is fitted.

    ``known`` is the gap the metal alone leaves, where sizes tell it before any trial.
    """
    odd = None
    for before, made in pairwise(tries):
        promised = (sum(made.stack) - sum(before.stack)) / 1000
        u = math.hypot(before.check.u_mm, made.check.u_mm)
        odd = surprise.surprise(promised, made.check.value_mm - before.check.value_mm, u, surprise.GASKETS)
    if tries:
        now, gap, available = tries[-1].stack, tries[-1].check.value_mm, Counter(box) + Counter(tries[-1].stack)
        for share in _SHARES:
            guard = share * _guard(tries[-1].checks, school)
            sold = () if share else means.sold_um
            move, following, choice = gaskets.move_for(now, gap, _drawn_in(window, guard), available, sold, words)
            if choice.stack is not None:
                move = _told(move, share, school)
                break
        change = following or gaskets.change_between(now, now)
    else:
        move, choice = gaskets.first_move(box, means.start_um, window, words, known, means.sold_um)
        change = gaskets.change_between((), choice.stack or ())
    asked = _asked(window, words)
    return settled(Setting(asked, judged(asked, tries, school), move, change=change, choice=choice, surprise=odd))


def _guard(checks: Sequence[Check], school: School) -> float:
    """How far inside its window a gap has to be for checks as good as these to leave no doubt, in whole micrometres, as mm."""
    if school is School.PLAIN:
        return 0.0
    return math.ceil(1000 * max(guard_of(check.u_mm, check.dof, check.half_mm) for check in checks)) / 1000


_SHARES = {
    1.0: "Kept inside every edge by the doubt of the last check, so that the next can call it right.",
    0.5: "Kept inside every edge by half the doubt of the last check; the stock allows no more.",
    0.0: "Inside every edge, but nearer than the last check is good: the stock allows no more.",
}
"""Shares of that guard, the best that can be had first, and what is said of them."""


def _told(move: Move, share: float, school: School) -> Move:
    notes = () if school is School.PLAIN else (Sentence(_SHARES[share]),)
    return replace(move, working=replace(move.working, notes=(*move.working.notes, *notes)))


def _drawn_in(window: Window, guard_mm: float) -> Window:
    """A window less a guard at both ends; to its target where it is too narrow for that."""
    low, high = window.low_mm + guard_mm, window.high_mm - guard_mm
    return Window(window.target_mm, min(low, window.target_mm), max(high, window.target_mm))


def set_by_ring(
    means: RingMeans, window: Window, tries: Sequence[TryMade], school: School, words: GapWords = DEFAULT_WORDS
) -> Setting:
    """Next position of a shaft held by an adjusting ring or sleeve coupling after the tries so far."""
    last = tries[-1].check.value_mm if tries else None
    move = ring.move_for(last, window, words, means.coupling, means.depth_mm)
    asked = _asked(window, words)
    return settled(Setting(asked, judged(asked, tries, school), move, surprise=_further(window, tries)))


def _further(window: Window, tries: Sequence[TryMade]) -> Sentence | None:
    """A ring set by hand promises nothing but to come nearer."""
    if len(tries) < 2:
        return None
    before, now = (abs(t.check.value_mm - window.target_mm) for t in tries[-2:])
    if now - before <= max(2 * tries[-1].check.u_mm, LEAST_ODD_MM):
        return None
    words = (
        "Further off than before, by {off}. Usual reasons: moved the wrong way, the shaft crept while the screws were tightened, "
    )
    return Sentence(words + "or the leaves were not on both sides.", {"off": length(now - before)})


def set_by_nothing(window: Window, tries: Sequence[TryMade], school: School, words: GapWords = DEFAULT_WORDS) -> Setting:
    """A gap that cannot be adjusted: only checked."""
    last = tries[-1].check.value_mm if tries else None
    asked = _asked(window, words)
    return settled(Setting(asked, judged(asked, tries, school), fixed.move_for(last, window, words)))


def set_by_shims(
    means: ShimMeans, front: Window, back: Window, tries: Sequence[TryMade], school: School, box: Mapping[int, int]
) -> Setting:
    """Next shims for both shafts after the tries so far; ``box`` is stock without what is in the pump."""
    asked = tuple(
        Asked(f"{side}:{i + 1}", f"{side}, {shaft}", window, means.difference_mm)
        for i, shaft in enumerate(shims.SHAFTS)
        for side, window in (("front", front), ("back", back))
    )
    odd = next((found for pair in [tries[-2:]] if len(pair) == 2 for found in _shims_odd(*pair)), None)
    spread = Window(0.0, -means.difference_mm, means.difference_mm)
    differ = (
        Asked("differ:front", "front, one rotor to the other", spread),
        Asked("differ:back", "back, one rotor to the other", spread),
    )
    all_held = tuple(
        TryJudged(
            one.made,
            (
                *one.held,
                hold(differ[0], _difference(one.held[0], one.held[2]), school, derived=True),
                hold(differ[1], _difference(one.held[1], one.held[3]), school, derived=True),
            ),
        )
        for one in judged(asked, tries, school)
    )
    if not tries:
        trial = _trial(means.start_um, box)
        first = shims.first_move(trial, means.start_um)
        return Setting(asked, (), first, changes=(gaskets.change_between((), trial[0]), gaskets.change_between((), trial[1])))
    last = tries[-1]
    stock = Counter(box) + Counter(last.stacks[0]) + Counter(last.stacks[1])
    rotors = shims.faces([c.value_mm for c in last.checks], last.stacks)
    doubts = [_guard(checks, school) for checks in (last.checks[::2], last.checks[1::2])]
    doubt = _guard([h.check for h in all_held[-1].held if h.derived], school)
    for share in _SHARES:
        f, b = (_drawn_in(window, share * guard) for window, guard in zip((front, back), doubts, strict=True))
        apart = _drawn_in(spread, share * doubt).high_mm
        move, changes, choice = shims.move_for(rotors, f, b, apart, stock, () if share else means.sold_um)
        if choice.stacks is not None:
            move = _told(move, share, school)
            break
    changes = changes or (gaskets.change_between(*2 * (last.stacks[0],)), gaskets.change_between(*2 * (last.stacks[1],)))
    return settled(Setting(asked, all_held, move, changes=changes, shims=choice, surprise=odd))


def _trial(start_um: int, box: Mapping[int, int]) -> tuple[Stack, ...]:
    """The starting shims of each shaft, the second's from what the first leaves."""
    left, trial = Counter(box), []
    for _ in shims.SHAFTS:
        stack = (gaskets.best_stack(left, start_um, 0, 0).stack or ()) if start_um else ()
        left -= Counter(stack)
        trial.append(stack)
    return tuple(trial)


def _difference(one: Held, other: Held) -> Check:
    """One reading less the other, their doubts together."""
    u = math.hypot(one.check.u_mm, other.check.u_mm)
    return Check(one.check.value_mm - other.check.value_mm, u, min(one.check.dof, other.check.dof))


def _shims_odd(before: TryMade, made: TryMade) -> list[Sentence]:
    """What does not follow the shims, gap by gap: forward closes the front and opens the back."""
    found = []
    for i, shaft in enumerate(shims.SHAFTS):
        forward = (sum(made.stacks[i]) - sum(before.stacks[i])) / 1000
        for side, sign in ((0, -1), (1, 1)):
            was, now = before.checks[2 * i + side], made.checks[2 * i + side]
            u = math.hypot(was.u_mm, now.u_mm)
            odd = surprise.surprise(sign * forward, now.value_mm - was.value_mm, u, surprise.SHIMS)
            if odd:
                name = f"{shaft.capitalize()}, {('front', 'back')[side]}: {{odd}}"
                found.append(Sentence(name, {"odd": odd}))
    return found


def set_by_timing(means: MeshMeans, tries: Sequence[TryMade], school: School) -> Setting:
    """Next turn of a timing gear after the tries so far."""
    left, right = (tries[-1].checks[i].value_mm for i in (0, 1)) if tries else (None, None)
    # Turning the gear makes the two alike; what they come to is given by the pair.
    middle = means.window.target_mm if left is None or right is None else (left + right) / 2
    window = replace(means.window, target_mm=min(max(middle, means.window.low_mm), means.window.high_mm))
    asked = tuple(Asked(f"mesh:{side}", f"mesh gap, {side}", window, means.difference_mm) for side in timing.SIDES)
    alike = Asked("differ:mesh", "left less right", Window(0.0, -means.difference_mm, means.difference_mm))
    all_held = tuple(
        TryJudged(one.made, (*one.held, hold(alike, _difference(one.held[0], one.held[1]), school, derived=True)))
        for one in judged(asked, tries, school)
    )
    odd = None
    for before, now in pairwise(tries):
        # Towards the left closes the left gap and opens the right one, so that their difference falls by twice as much.
        promised = -2 * means.timing.along_mm(now.arc_mm or 0.0)
        was, is_now = (c.checks[0].value_mm - c.checks[1].value_mm for c in (before, now))
        u = math.hypot(*(c.u_mm for one in (before, now) for c in one.checks))
        odd = surprise.surprise(promised, is_now - was, u, surprise.TIMING)
    move = timing.move_for(means.timing, left, right, means.window, means.difference_mm)
    return settled(Setting(asked, all_held, move, surprise=odd))
