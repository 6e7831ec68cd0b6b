"""From tries at the gap to the next move, whatever the means."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from finegap.core.gap import gaskets, housing, ring
from finegap.core.gap.move import Move, Way, Window
from finegap.core.measuring.feeler import interval
from finegap.core.measuring.uncertainty import coverage_factor, from_interval
from finegap.core.measuring.verdict import Call, Limit, School, Verdict, judge
from finegap.core.sheet import GasketMeans, HousingMeans
from finegap.core.showing import Sentence, length, uncertainty
from finegap.core.working import Given, Working


@dataclass(frozen=True)
class Check:
    """A check reading of the gap, in mm."""

    value_mm: float
    u_mm: float
    dof: float

    @property
    def expanded_mm(self) -> float:
        """Expanded uncertainty, two-sided 95 %."""
        return coverage_factor(self.dof) * self.u_mm


@dataclass(frozen=True)
class TryMade:
    """One try: what was done (a signed arc along the housing, opening positive; or a stack) and what the check then read."""

    check: Check
    arc_mm: float | None = None
    stack: gaskets.Stack = ()


@dataclass(frozen=True)
class TryJudged:
    """A try with its verdict against the window and the change of gap still wanted after it, in mm."""

    made: TryMade
    verdict: Verdict
    wanted_mm: float


@dataclass(frozen=True)
class Setting:
    """Where setting the gap stands.

    ``change`` and ``choice`` are for gaskets. For a housing, ``lash_seen_mm`` is the play the last try shows where that
    is not the one in use. ``surprise`` is what an unexpected check reading usually means.
    """

    window: Window
    tries: tuple[TryJudged, ...]
    move: Move
    right: bool
    change: gaskets.StackChange | None = None
    choice: gaskets.StackChoice | None = None
    lash_seen_mm: float | None = None
    surprise: Sentence | None = None

    @property
    def gap_mm(self) -> float | None:
        """The gap as last checked."""
        return self.tries[-1].made.check.value_mm if self.tries else None


def feeler_check(goes_mm: float, stops_mm: float, field: str = "feeler") -> tuple[Check, Working]:
    """A feeler reading is an interval: this leaf goes, the next does not. Value in the middle, a rectangle between."""
    value, _ = interval(goes_mm, stops_mm, field)
    u = from_interval(goes_mm, stops_mm)
    working = Working(
        title="Feeler reading",
        formula="x = (a + b)/2,   u = (b − a)/√12",
        given=(
            Given("a", "leaf that goes", length(goes_mm, fine=True)),
            Given("b", "leaf that does not", length(stops_mm, fine=True)),
            Given("u", "standard uncertainty", uncertainty(u)),
        ),
        result=Sentence("{x} ± {h}", {"x": length(value, fine=True), "h": length((stops_mm - goes_mm) / 2, fine=True)}),
        source="JCGM 100:2008, 4.3.7 (rectangular distribution)",
    )
    return Check(value, u, float("inf")), working


def set_by_housing(
    means: HousingMeans, window: Window, tries: Sequence[TryMade], school: School, zero: housing.Zero, lash_mm: float
) -> Setting:
    """Next turn of a bearing housing after the tries so far, from zero."""

    def correct(gap_mm: float, last_way: Way | None, measured: float | None) -> Move:
        return housing.move_for(means.housing, window.target_mm - gap_mm, last_way, lash_mm, measured)

    move, last_way, lash_seen = correct(0.0, zero.ends, None), zero.ends, None
    gap, surprise = 0.0, None
    for made in tries:
        arc, now = made.arc_mm or 0.0, made.check.value_mm
        way = last_way if arc == 0 else (Way.OPEN if arc > 0 else Way.CLOSE)
        reverses = way is not last_way
        seen = housing.lash_from(abs(arc), now, gap, means.housing)
        # Too large a play is as wrong as too small a one; what the check cannot tell apart is not reported.
        lash_seen = seen if reverses and abs(seen - lash_mm) > 2 * made.check.u_mm else None
        promised = means.housing.clearance_mm(arc) - (lash_mm if reverses else 0.0) * (1 if arc > 0 else -1)
        surprise = _surprise(promised, now - gap, made.check.u_mm, _HOUSING_USUAL)
        gap, last_way = now, way
        move = correct(gap, last_way, gap)
    judged = _judged(window, tries, school)
    return _settled(Setting(window, judged, move, False, lash_seen_mm=lash_seen, surprise=surprise))


_LEAST_ODD_MM = 0.02
"""A check that is off by less than this surprises nobody. Common practice, no source."""


@dataclass(frozen=True)
class _Usual:
    """What it usually means when a gap does not move as the means says it must. Common practice, no source."""

    backwards: str
    ratio: str
    wider: str
    narrower: str


_HOUSING_USUAL = _Usual(
    "Usual reasons: turned the wrong way, a left-hand thread, or the shaft did not follow.",
    "Usual reasons: another lead or diameter than the sheet's, the bearing not seated, or the shaft does not follow the housing.",
    "Usual reasons: play taken up the other way, or the mark misread. Push the shaft towards the head before you check.",
    "Usual reasons: play not taken up, or a face not clean. Check that the shaft follows the housing.",
)
_GASKET_USUAL = _Usual(
    "Usual reasons: the wrong gaskets came out, or the head went on crooked.",
    "Usual reasons: the stack not compressed, bolts not even, or a face not clean.",
    "Usual reasons: the stack not yet compressed, dirt or a burr under it. Tighten evenly in passes and check again.",
    "Usual reasons: a gasket torn or doubled less than counted. Count what is in.",
)


def _surprise(promised_mm: float, moved_mm: float, u_mm: float, usual: _Usual) -> Sentence | None:
    """Why a gap moved otherwise than geometry says: the wrong way, by another ratio, or off by more than the check can be."""
    off = moved_mm - promised_mm
    if abs(off) <= max(2 * u_mm, _LEAST_ODD_MM):
        return None
    amounts = {"off": length(abs(off)), "moved": length(abs(moved_mm)), "promised": length(abs(promised_mm))}
    told = abs(promised_mm) > max(2 * u_mm, _LEAST_ODD_MM)
    if told and promised_mm * moved_mm < 0 and abs(moved_mm) > 2 * u_mm:
        way = "opened" if moved_mm > 0 else "closed"
        return Sentence(f"It {way} by {{moved}}, the other way than it had to. {usual.backwards}", amounts)
    if told and not 0.5 <= moved_mm / promised_mm <= 2:
        return Sentence(f"It moved {{moved}}, where {{promised}} was promised. {usual.ratio}", amounts)
    side, why = ("wider", usual.wider) if off > 0 else ("narrower", usual.narrower)
    return Sentence(f"Came out {{off}} {side} than promised. {why}", amounts)


def set_by_gaskets(means: GasketMeans, window: Window, tries: Sequence[TryMade], school: School, box: Mapping[int, int]) -> Setting:
    """Next stack of head gaskets after the tries so far; ``box`` is stock without what is under the head."""
    tolerance = round((window.high_mm - window.low_mm) * 1000)
    surprise = None
    for before, made in pairwise(tries):
        promised = (sum(made.stack) - sum(before.stack)) / 1000
        u = math.hypot(before.check.u_mm, made.check.u_mm)
        surprise = _surprise(promised, made.check.value_mm - before.check.value_mm, u, _GASKET_USUAL)
    move, choice = gaskets.first_move(box, means.start_um, tolerance)
    change = gaskets.change_between((), choice.stack or ())
    if tries:
        now, gap = tries[-1].stack, tries[-1].check.value_mm
        move, following, choice = gaskets.move_for(now, gap, window, Counter(box) + Counter(now), means.sold_um)
        change = following or gaskets.change_between(now, now)
    return _settled(Setting(window, _judged(window, tries, school), move, False, change, choice, surprise=surprise))


def set_by_ring(window: Window, tries: Sequence[TryMade], school: School) -> Setting:
    """Next position of a shaft held by an adjusting ring or sleeve coupling after the tries so far."""
    last = tries[-1].check.value_mm if tries else None
    move = ring.move_for(last, window)
    return _settled(Setting(window, _judged(window, tries, school), move, False, surprise=_further(window, tries)))


def _further(window: Window, tries: Sequence[TryMade]) -> Sentence | None:
    """A ring set by hand promises nothing but to come nearer."""
    if len(tries) < 2:
        return None
    before, now = (abs(t.check.value_mm - window.target_mm) for t in tries[-2:])
    if now - before <= max(2 * tries[-1].check.u_mm, _LEAST_ODD_MM):
        return None
    words = (
        "Further off than before, by {off}. Usual reasons: moved the wrong way, the shaft crept while the screws were tightened, "
    )
    return Sentence(words + "or the leaves were not on both sides.", {"off": length(now - before)})


def _judged(window: Window, tries: Sequence[TryMade], school: School) -> tuple[TryJudged, ...]:
    limit = Limit(window.low_mm, window.high_mm)
    return tuple(
        TryJudged(
            made,
            judge(made.check.value_mm, made.check.u_mm, made.check.dof, limit, school),
            window.target_mm - made.check.value_mm,
        )
        for made in tries
    )


def _settled(setting: Setting) -> Setting:
    """Replace the last move by words when the gap is right, or the check too coarse to say."""
    if not setting.tries:
        return setting
    last, move = setting.tries[-1], setting.move
    call = last.verdict.call
    if call is Call.CHANGE:
        return setting
    amounts = {
        "gap": length(last.made.check.value_mm),
        "low": length(setting.window.low_mm),
        "high": length(setting.window.high_mm),
    }
    details: tuple[Sentence, ...]
    if call is Call.MEASURE_AGAIN:
        headline = Sentence("Check again with a finer gauge", amounts)
        details = (
            Sentence("{gap} is nearer to the edge of {low} to {high} than this check is good.", amounts),
            Sentence("Or move towards the middle: {move}.", {"move": move.headline}),
        )
        return replace(setting, move=replace(move, headline=headline, details=details, working=last.verdict.working))
    headline = Sentence("{gap} is right: go on to Prove", amounts)
    details = (Sentence("Inside {low} to {high}. Tighten up, and turn the shaft by hand.", amounts),)
    settled = Move(Way.STAY, 0.0, headline, details, last.verdict.working)
    return replace(setting, move=settled, right=True)
