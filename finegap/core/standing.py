"""How a pump stands between two overhauls: each size as last known, what is left of it by its wear, and when to open the pump next.

Nothing here is measured. What was measured last is told with its day; how far it has worn since is a forecast, and said as one.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

from finegap.core.families.family import Family
from finegap.core.families.features import Feature, FeatureKind
from finegap.core.formatting import Amounts, Sentence, grouped, length
from finegap.core.measuring.verdict import Limit, School, Verdict, judge
from finegap.core.ordering import Order, order_for
from finegap.core.renewing import wears_up
from finegap.core.sheet import SpecSheet
from finegap.core.sheet_parts import FeatureSpec
from finegap.core.wear.forecast import Forecast, borrowed, forecast
from finegap.core.wear.lives import Life, MeasuredSize, Visit, trace
from finegap.core.wear.lubrication import Metered, chained, day_after, hours_a_week, totals
from finegap.core.working import Given, Working

_NEAR_H = 1.0
"""What is due within an hour of the inspection is due at it."""


@dataclass(frozen=True)
class PartNow:
    """A size of a pump as it is known between overhauls.

    ``last`` is the size last known, ``measured`` whether anybody measured it: of a new part only the sheet is known. ``day`` is
    that of the overhaul it was measured at or came in, ``run_h`` the hours since. ``left_h``, ``early_h`` and ``late_h`` are from
    the last reading of the meter to the limit by its wear; 0 is now, ``None`` never or not known. ``share`` of its wear allowance
    is used.
    """

    feature: Feature
    spec: FeatureSpec
    lives: tuple[Life, ...]
    odd: tuple[Sentence, ...]
    last: MeasuredSize | None
    measured: bool
    day: int | None
    run_h: float | None
    coming: Forecast | None
    left_h: float | None
    early_h: float | None
    late_h: float | None
    share: float | None
    verdict: Verdict | None
    sentence: Sentence

    @property
    def fine(self) -> bool:
        """Whether it is shown with a decimal more."""
        return self.spec.fine

    @property
    def worn_mm(self) -> float | None:
        """Where its wear has brought it by the last reading of the meter, on the line of the forecast."""
        if self.coming is None or self.run_h is None or self.coming.life.now is None:
            return None
        return self.coming.line.size(self.coming.life.now + self.run_h)

    def due_h(self, school: School) -> float | None:
        """Hours until it should be measured: when it could be at its limit, under the plain school when it is predicted there."""
        return self.early_h if school is School.GUARDED else self.left_h


@dataclass(frozen=True)
class Coming:
    """What comes next at a pump: in so many hours, at so many on its meter, on a day where the rate is known.

    ``key`` is the part it is for, empty for the planned overhaul.
    """

    key: str
    left_h: float
    at_h: float
    day: int | None
    sentence: Sentence
    working: Working


@dataclass(frozen=True)
class Standing:
    """A pump between overhauls. ``readings`` of its meter are oldest first; ``overhauls`` are days and hours run in all."""

    sheet: SpecSheet
    family: Family
    parts: tuple[PartNow, ...]
    readings: tuple[Metered, ...]
    rate: float | None
    overhauls: tuple[tuple[int, float], ...]
    planned_h: float | None

    @property
    def last(self) -> Metered | None:
        """The last reading of the meter."""
        return self.readings[-1] if self.readings else None

    @property
    def run_h(self) -> float | None:
        """Hours since the last overhaul, or in all where there was none; ``None`` where they cannot be told."""
        if not self.overhauls:
            return totals(self.readings)[-1][1] if self.readings else None
        return since(self.readings, *self.overhauls[-1])

    @cached_property
    def next(self) -> Coming | None:
        """The next inspection, and why; ``None`` where nothing tells when."""
        found = [one for one in (self._planned(), *map(self._of_part, self.parts)) if one is not None]
        return min(found, key=lambda one: one.left_h, default=None)

    @cached_property
    def needs(self) -> Order | None:
        """What the next inspection will need: what is never used twice, and what by its wear does not last to the one after it."""
        if self.next is None:
            return None
        until = self.next.left_h + (self.planned_h or _NEAR_H)
        reasons = {}
        for part in self.parts:
            due = part.due_h(self.sheet.school)
            if due is not None and due < until and part.feature.kind is not FeatureKind.PAIR:
                reasons[part.feature.key] = f"{part.feature.name}: by its wear"
        return order_for(self.family, reasons, self.sheet.catalogue)

    @property
    def worst(self) -> tuple[PartNow, ...]:
        """Parts with a limit whose size is known, the least left first."""
        known = [part for part in self.parts if part.share is not None]
        return tuple(sorted(known, key=lambda part: (part.left_h is None, part.left_h or 0.0, -(part.share or 0.0))))

    def _planned(self) -> Coming | None:
        run = self.run_h
        if self.planned_h is None or run is None or self.last is None:
            return None
        left = self.planned_h - run
        never = Sentence("no overhaul on record, counted from 0 h")
        given = (
            Given("every", "hours between overhauls, of the pump", f"{grouped(self.planned_h)} h"),
            Given("run", "hours since the last overhaul", f"{grouped(run)} h" if self.overhauls else never),
            *self._given(),
        )
        return self._coming("", left, Sentence("Planned overhaul"), "left = every − run;   days = 7·left / rate", given)

    def _of_part(self, part: PartNow) -> Coming | None:
        left = part.due_h(self.sheet.school)
        if left is None or part.coming is None or self.last is None:
            return None
        guarded = self.sheet.school is School.GUARDED
        words = "{name} could be at its limit" if guarded else "{name} is predicted at its limit"
        given = (
            Given("limit", "hours to the limit when it was measured last", part.coming.sentence),
            Given("run", "hours since then", f"{grouped(part.run_h or 0.0)} h"),
            *self._given(),
        )
        formula = f"left = {'earliest' if guarded else 'predicted'} − run;   days = 7·left / rate"
        return self._coming(part.feature.key, left, Sentence(words, {"name": part.feature.name}), formula, given)

    def _given(self) -> tuple[Given, ...]:
        assert self.last is not None
        return (
            Given("now", "the meter when it was read last", f"{grouped(self.last.hours)} h"),
            Given("rate", "hours a week, from the meter", f"{self.rate:.1f}" if self.rate else "not known"),
        )

    def _coming(self, key: str, left: float, what: Sentence, formula: str, given: tuple[Given, ...]) -> Coming:
        assert self.last is not None
        at = self.last.hours + left
        said: Amounts = {"what": what, "left": grouped(abs(left)), "at": grouped(max(at, 0.0))}
        words = "{what}: in {left}\u00a0h, at {at}\u00a0h." if left > 0 else "{what}: {left}\u00a0h ago, at {at}\u00a0h."
        if not round(left):
            words = "{what}: now."
        return Coming(
            key,
            left,
            at,
            day_after(self.last, left, self.rate),
            Sentence(words, said),
            Working(
                "Next inspection",
                formula,
                given,
                Sentence("{left} h left", {"left": grouped(left)}),
                "the pump's interval; wear forecast (least squares with prediction band); the meter",
            ),
        )


def stand(
    sheet: SpecSheet,
    family: Family,
    visits: Mapping[str, Sequence[Visit]],
    overhauls: Sequence[tuple[int, float]],
    readings: Sequence[Metered],
    work: float,
    planned_h: float | None,
    hours_per_week: float | None = None,
) -> Standing:
    """How a pump stands by what is on record.

    Parameters
    ----------
    sheet, family : SpecSheet, Family
        The pump's sheet as it is now, and its family as the pump is built.
    visits : mapping
        By feature the overhauls it was measured at, oldest first; hours are those run in all.
    overhauls : sequence of tuple
        Day (ordinal) and hours run in all of each, oldest first.
    readings : sequence of Metered
        The meter, oldest first.
    work : float
        Pressure times speed of the pump's present duty [bar r/min].
    planned_h : float or None
        Hours between overhauls, where they are planned.
    hours_per_week : float or None
        Where the meter does not tell.
    """
    measured = [f for f in family.features if f.kind is not FeatureKind.CHECK and not f.press]
    parts = [_part(sheet, f, tuple(visits.get(f.key, ())), readings, work, planned_h) for f in measured]
    return Standing(
        sheet,
        family,
        tuple(parts),
        tuple(readings),
        hours_a_week(readings, hours_per_week),
        tuple(overhauls),
        planned_h,
    )


def since(readings: Sequence[Metered], day: int, total: float) -> float | None:
    """Hours run since a day on which so many had been run in all; ``None`` where the meter went back since, or was not read."""
    run = chained(readings)
    unbroken = totals(readings)
    if not run or (unbroken[0][0].day > day and len(unbroken) < len(run)):
        return None
    more = run[-1][1] - total
    return more if more >= 0 else None


def _part(
    sheet: SpecSheet, feature: Feature, visits: tuple[Visit, ...], readings: Sequence[Metered], work: float, planned_h: float | None
) -> PartNow:
    spec = sheet.spec(feature.key)
    up = wears_up(feature, spec.limit)
    lives, odd = trace(visits, spec.new_mm, up, work) if visits else ((), ())
    known = lives[-1].points[-1] if lives and lives[-1].points else None
    at = next((v for v in reversed(visits) if v.found or v.changed), None)
    measured = known is not None and known.measured
    run = since(readings, visits[-1].day, visits[-1].meter.hours) if visits and visits[-1].meter.hours is not None else None
    coming = _coming(lives, spec.limit, up, planned_h)
    left, early, late = (_from_now(h, run) for h in (coming.hours_left, coming.early, coming.late)) if coming else (None,) * 3
    # A size off the sheet is that of a part that is new, and of no other that nobody measured.
    is_new = at is not None and at.changed and at.brought is None
    last = known.size if known and (known.measured or is_new) else None
    verdict, sentence = _judged(sheet, spec, last, measured, coming, (left, early), run, planned_h)
    return PartNow(
        feature=feature,
        spec=spec,
        lives=lives,
        odd=odd,
        last=last,
        measured=measured and last is not None,
        # A part that came from another pump was measured there, before it came.
        day=known.day if known and measured else at.day if at else None,
        run_h=run,
        coming=coming,
        left_h=left,
        early_h=early,
        late_h=late,
        share=_share(spec, last, up),
        verdict=verdict,
        sentence=sentence,
    )


def _coming(lives: tuple[Life, ...], limit: Limit | None, up: bool, planned_h: float | None) -> Forecast | None:
    """By its own sizes, else by how the part before it wore."""
    if not lives:
        return None
    own = forecast(lives[-1], limit, up, planned_h)
    before = next((one for one in reversed(lives[:-1]) if len(one.points) > 1), None)
    return own if own is not None or before is None else borrowed(lives[-1], before, limit, up, planned_h)


def _from_now(hours: float | None, run: float | None) -> float | None:
    if hours is None or run is None:
        return None
    return hours - run


def _share(spec: FeatureSpec, last: MeasuredSize | None, up: bool) -> float | None:
    """How much of the wear allowance is used: 0 as new, 1 at the limit."""
    limit = spec.limit
    bound = None if limit is None else (limit.upper_mm if up else limit.lower_mm)
    if bound is None or last is None or spec.new_mm is None:
        return None
    fresh = (spec.new_mm[0] + spec.new_mm[1]) / 2
    return (last.value_mm - fresh) / (bound - fresh) if bound != fresh else None


def _judged(
    sheet: SpecSheet,
    spec: FeatureSpec,
    last: MeasuredSize | None,
    measured: bool,
    coming: Forecast | None,
    hours: tuple[float | None, float | None],
    run: float | None,
    planned_h: float | None,
) -> tuple[Verdict | None, Sentence]:
    """The verdict of the size last measured, and no better one by its forecast; ``None`` where nobody measured it."""
    if last is None:
        return None, Sentence("Its size is not known: it was not measured.")
    size = length(last.value_mm, spec.fine)
    if not measured:
        return None, Sentence("A new part, taken as the sheet has it: {size}. Not measured.", {"size": size})
    told = Sentence("{size} when last measured.", {"size": size})
    if spec.limit is None:
        return None, told
    call = judge(last.value_mm, last.u_mm, math.inf, spec.limit, sheet.school, sheet.near_share, spec.fine)
    left = hours[1] if sheet.school is School.GUARDED else hours[0]
    if call.verdict is Verdict.KEEP and coming is not None and left is not None:
        until = None if planned_h is None or run is None else planned_h - run
        if left <= 0:
            return Verdict.WATCH, Sentence("{told} By its wear it could be at its limit now.", {"told": told})
        if until is not None and left < until:
            return Verdict.WATCH, Sentence("{told} By its wear it could be at its limit before the next overhaul.", {"told": told})
    return call.verdict, Sentence("{told} {call}", {"told": told, "call": call.sentence})
