"""Two gaps on either side of one part, made alike by moving it: what holds for every means that does so."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import replace
from itertools import pairwise

from finegap.core.formatting import Sentence
from finegap.core.gap.mismatch import Usual, mismatch
from finegap.core.gap.move import Window
from finegap.core.gap.tries import Check, GapTarget, TryJudged, TryMade, hold, judged
from finegap.core.means.base import SetNow, less


def halves(made: TryMade) -> tuple[tuple[Check, ...], tuple[Check, ...]]:
    """The checks of a try, each side at as many places: those of the first, and those of the second."""
    middle = len(made.checks) // 2
    return made.checks[:middle], made.checks[middle:]


def narrowest(made: TryMade) -> tuple[Check, Check]:
    """The least of either side's places."""
    first, second = (min(side, key=lambda check: check.value_mm) for side in halves(made))
    return first, second


def shared(window: Window, tries: Sequence[TryMade]) -> Window:
    """The window with what both sides would come to, alike, as its target: moving the part changes nothing of their sum."""
    if not tries:
        return window
    middle = sum(check.value_mm for check in narrowest(tries[-1])) / 2
    return replace(window, target_mm=min(max(middle, window.low_mm), window.high_mm))


def held(asked: Sequence[GapTarget], alike: GapTarget, now: SetNow) -> tuple[TryJudged, ...]:
    """Every try held against its windows, and the difference of its two sides against ``alike``."""
    return tuple(
        TryJudged(one.made, (*one.results, hold(alike, less(*narrowest(one.made)), now.school, derived=True)))
        for one in judged(asked, now.tries, now.school)
    )


def odd(tries: Sequence[TryMade], promised: Callable[[float], float], usual: Usual) -> Sentence | None:
    """Why the difference of the sides did not go as the last move says; ``promised`` is what a move does to it, in mm."""
    for before, made in pairwise(tries[-2:]):
        was, now = (less(*narrowest(one)) for one in (before, made))
        return mismatch(promised(made.moved or 0.0), now.value_mm - was.value_mm, math.hypot(was.u_mm, now.u_mm), usual)
    return None
