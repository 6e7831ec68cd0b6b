"""Tries at a gap, or at several gaps set at once: what was done, what the checks read, and how that stands against the windows."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from finegap.core.formatting import Amounts, Sentence, length, uncertainty
from finegap.core.gap.move import Move, Way, Window
from finegap.core.gap.stock import Stack
from finegap.core.measuring.feeler import interval
from finegap.core.measuring.uncertainty import expanded, from_interval
from finegap.core.measuring.verdict import Judgement, Limit, School, Verdict, judge
from finegap.core.working import Given, Working


@dataclass(frozen=True)
class Check:
    """A check reading of a gap, in mm; ``half_mm`` is half the way from leaf to leaf of a feeler reading, 0 for any other."""

    value_mm: float
    u_mm: float
    dof: float
    half_mm: float = 0.0

    @property
    def expanded_mm(self) -> float:
        """Expanded uncertainty, two-sided 95 %."""
        return expanded(self.u_mm, self.dof, self.half_mm)


@dataclass(frozen=True)
class GapTarget:
    """A gap, or a difference of two gaps, that a try has to bring into its window.

    ``apart_mm`` is how far it may be from its like on the other side, where that is asked for. ``of`` is the gap it is a place of,
    where a gap is checked at several.
    """

    key: str
    name: str
    window: Window
    apart_mm: float = math.inf
    of: str = ""

    @property
    def gap(self) -> str:
        """The gap it is, or is one place of, by its key."""
        return self.of or self.key

    @property
    def proof(self) -> Limit:
        """The limits a check of it is judged against, in mm.

        They are its window. Where both sides may differ by only so much, each has to lie within half of that of the target as
        well: then no pair of checks that passes can be too far apart.
        """
        window, near = self.window, self.apart_mm / 2
        return Limit(max(window.low_mm, window.target_mm - near), min(window.high_mm, window.target_mm + near))


@dataclass(frozen=True)
class TryMade:
    """One try: what was done, and what the checks then read, in the order the gaps are asked for.

    ``moved`` is by how much its means moved, with the sign that means gives it (an arc in mm, opening or to the left positive);
    ``None`` where no number says so. There is one stack a place. ``made`` counts what was done on the job: the larger was done
    later.
    """

    checks: tuple[Check, ...]
    moved: float | None = None
    stacks: tuple[Stack, ...] = ()
    made: int = 0

    @property
    def check(self) -> Check:
        """The check, of a means that sets one gap."""
        return self.checks[0]

    @property
    def stack(self) -> Stack:
        """The stack, of a means that has one."""
        return self.stacks[0] if self.stacks else ()


@dataclass(frozen=True)
class GapResult:
    """A number held against its window. ``derived`` when it follows from others and was not measured itself."""

    target: GapTarget
    check: Check
    judgement: Judgement
    derived: bool = False

    @property
    def wanted_mm(self) -> float:
        """Change still wanted."""
        return self.target.window.target_mm - self.check.value_mm


@dataclass(frozen=True)
class TryJudged:
    """A try with everything it is held against."""

    made: TryMade
    results: tuple[GapResult, ...]

    @property
    def verdict(self) -> Verdict:
        """The worst of all verdicts."""
        return max((h.judgement.verdict for h in self.results), key=_WORSE.index)

    @property
    def worst(self) -> GapResult:
        """The number that stands worst."""
        return max(self.results, key=lambda h: _WORSE.index(h.judgement.verdict))

    @property
    def judgement(self) -> Judgement:
        """The verdict on the number that stands worst."""
        return self.worst.judgement

    @property
    def leans_out(self) -> bool:
        """Rather outside than inside, if not beyond doubt: moving it costs less than another check."""
        return self.verdict is Verdict.MEASURE_AGAIN and any(h.judgement.margin_mm < -_ON_THE_EDGE_MM for h in self.results)


_ON_THE_EDGE_MM = 1e-6
_WORSE = (Verdict.KEEP, Verdict.WATCH, Verdict.MEASURE_AGAIN, Verdict.CHANGE)


@dataclass(frozen=True)
class Setting:
    """Where setting stands.

    ``targets`` are the gaps that are checked, in order; ``state`` is what its means keeps for its own picture. ``mismatch`` is what
    an unexpected check reading usually means. ``unproved`` says why a last check that reads right does not count: what was opened
    for it has not got its torque, or got it afterwards.
    """

    targets: tuple[GapTarget, ...]
    tries: tuple[TryJudged, ...]
    move: Move
    right: bool = False
    state: object = None
    mismatch: Sentence | None = None
    unproved: Sentence | None = None

    @property
    def window(self) -> Window:
        """The window of the gap, or of the first of them."""
        return self.targets[0].window

    @property
    def gap_mm(self) -> float | None:
        """The gap as last checked; of several the narrowest."""
        return min(c.value_mm for c in self.tries[-1].made.checks) if self.tries else None


def feeler_check(goes_mm: float, stops_mm: float, leaf_u_mm: float = 0.0, field: str = "feeler") -> tuple[Check, Working]:
    """A feeler reading is an interval: this leaf goes, the next does not. Value in the middle, a rectangle between.

    ``leaf_u_mm`` is the standard uncertainty of the leaves themselves, from the set's certificate.
    """
    value, half = interval(goes_mm, stops_mm, field)
    u = math.hypot(from_interval(goes_mm, stops_mm), leaf_u_mm)
    working = Working(
        title="Feeler reading",
        formula="x = (a + b)/2,   u² = (b − a)²/12 + u₁²",
        given=(
            Given("a", "leaf that goes", length(goes_mm, fine=True)),
            Given("b", "leaf that does not", length(stops_mm, fine=True)),
            Given("u₁", "of the leaves, U/k of the certificate", uncertainty(leaf_u_mm)),
            Given("u", "standard uncertainty", uncertainty(u)),
        ),
        result=Sentence("{x} ± {h}", {"x": length(value, fine=True), "h": length((stops_mm - goes_mm) / 2, fine=True)}),
        source="JCGM 100:2008, 4.3.7 (rectangular distribution) and 5.1.2",
    )
    return Check(value, u, float("inf"), half), working


def judged(asked: Sequence[GapTarget], tries: Sequence[TryMade], school: School) -> tuple[TryJudged, ...]:
    """Every try with its gaps held against their windows."""
    return tuple(
        TryJudged(made, tuple(hold(one, check, school) for one, check in zip(asked, made.checks, strict=True))) for made in tries
    )


def hold(asked: GapTarget, check: Check, school: School, derived: bool = False) -> GapResult:
    """One number against its window."""
    limit = Limit(asked.window.low_mm, asked.window.high_mm)
    return GapResult(asked, check, judge(check.value_mm, check.u_mm, check.dof, limit, school, half_mm=check.half_mm), derived)


def settled(setting: Setting) -> Setting:
    """Replace the last move by words when the gap is right, or the check too coarse to say."""
    if not setting.tries:
        return setting
    last, move = setting.tries[-1], setting.move
    worst = last.worst
    several = len(last.results) > 1
    low, high, gap = worst.target.window.shown(worst.check.value_mm)
    amounts: Amounts = {"name": worst.target.name, "gap": gap, "low": low, "high": high}
    details: tuple[Sentence, ...]
    if last.verdict is Verdict.CHANGE:
        return setting
    if last.leans_out:
        doubt = Sentence("By this check it is outside, though not beyond doubt.")
        return replace(setting, move=replace(move, details=(*move.details, doubt)))
    if last.verdict is Verdict.MEASURE_AGAIN:
        which = Sentence("{name}, {gap},", amounts) if several else gap
        details = (
            Sentence("{which} is nearer to the edge of {low} to {high} than this check is good.", {"which": which} | amounts),
            Sentence("Or move towards the middle: {move}.", {"move": move.headline}),
        )
        headline = Sentence("Check again with a finer gauge", amounts)
        return replace(setting, move=replace(move, headline=headline, details=details, working=last.judgement.working))
    if several:
        headline = Sentence("All are right: go on")
        details = (Sentence("Every gap is inside its window. Tighten up, and turn the shafts by hand."),)
    else:
        headline = Sentence("{gap} is right: go on to Prove", amounts)
        details = (Sentence("Inside {low} to {high}. Tighten up, and turn the shaft by hand.", amounts),)
    return replace(setting, move=Move(Way.STAY, 0.0, headline, details, last.judgement.working), right=True)
