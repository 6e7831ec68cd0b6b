"""A press fit of a job: from what was measured to force, closing-in, and the clearance to expect."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

from finegap.core.assembly.declared import PressSpec
from finegap.core.assembly.press import PressFit
from finegap.core.errors import FieldError
from finegap.core.families.family import Press
from finegap.core.formatting import Amounts, Sentence, edges, length
from finegap.core.inspection import FeatureState
from finegap.core.measuring.readings import Result
from finegap.core.measuring.uncertainty import coverage_factor
from finegap.core.result_lines import ResultLine, Status
from finegap.core.working import Given, Working


@dataclass(frozen=True)
class PressState:
    """A press fit with its lines. ``ready`` when everything before pressing is measured."""

    press: Press
    spec: PressSpec
    lines: tuple[ResultLine, ...]
    ready: bool


@dataclass(frozen=True)
class _Sizes:
    """Results of the sizes before pressing, and of the shaft the bore runs on."""

    outside: Result
    seat: Result
    free: Result | None
    shaft: Result | None

    @property
    def interference_mm(self) -> float:
        return self.outside.value_mm - self.seat.value_mm

    @property
    def u_mm(self) -> float:
        return math.hypot(self.outside.u_mm, self.seat.u_mm)

    @property
    def expanded_mm(self) -> float:
        return coverage_factor(min(self.outside.dof, self.seat.dof)) * self.u_mm


def press_state(press: Press, spec: PressSpec, states: Mapping[str, FeatureState], liquid_c: float, casing_c: float) -> PressState:
    """Work out a press fit from the features' results; temperatures of liquid and casing in service, C."""
    outside, seat, free = (states[key].left if key else None for key in (press.outside, press.seat, press.free))
    if outside is None or seat is None:
        before = filter(None, (press.outside, press.seat, press.free))
        lacking = [states[k].feature.name.lower() for k in before if states[k].left is None]
        line = ResultLine("Interference", f"Measure first: {'; '.join(lacking)}.", Status.ASK)
        return PressState(press, spec, (line,), ready=False)
    pair = states.get(press.pair)
    on = states[pair.feature.shaft] if pair else None
    sizes = _Sizes(outside, seat, free, (on.left or on.found) if on else None)
    interference = _interference(spec, sizes)
    if sizes.interference_mm <= 0:
        return PressState(press, spec, (interference,), ready=free is not None)
    if press.free and free is None:
        line = ResultLine("Running clearance to expect", f"Measure first: {states[press.free].feature.name.lower()}.", Status.ASK)
        return PressState(press, spec, (interference, line), ready=False)
    try:
        fit = PressFit(
            free.value_mm if free else 0.0,
            sizes.seat.value_mm,
            spec.seat_outside_mm,
            spec.length_mm,
            spec.bushing,
            spec.seat,
            spec.friction,
        )
    except FieldError as error:
        return PressState(
            press, spec, (interference, ResultLine("Press fit", f"{error.field}: {error.problem}", Status.STOP)), ready=False
        )
    lines = (
        interference,
        *fit.lines(sizes.interference_mm),
        *((_expected(fit, sizes, pair),) if pair else ()),
        fit.hot_line(sizes.interference_mm, liquid_c, liquid_c if press.wet_seat else casing_c),
    )
    return PressState(press, spec, lines, ready=True)


def _interference(spec: PressSpec, sizes: _Sizes) -> ResultLine:
    value, guard = sizes.interference_mm, sizes.expanded_mm
    low, high = spec.interference_mm
    of = edges(low, high, high - low, (value,), fine=True)
    amounts: Amounts = {
        "value": of.sizes[0],
        "u": length(guard, fine=True),
        "low": of.low or length(low),
        "high": of.high or length(high),
        "said": spec.said,
    }
    status, words = Status.GOOD, "{value} ± {u}; {said} gives {low} to {high}."
    if value <= 0:
        status, words = Status.STOP, "None: the bushing is {gap} smaller than its seat, and would turn in it."
        amounts["gap"] = length(-value, fine=True)
    elif not low - guard <= value <= high + guard:
        status, words = Status.STOP, "{value} ± {u}: outside {said}, {low} to {high}."
    elif not low + guard <= value <= high - guard:
        status = Status.CARE
        words = "{value} ± {u}: measured too roughly to tell from outside {said}, {low} to {high}. A better gauge, or repeats."
    working = Working(
        "Interference",
        "δ = D₁ − D₂,   U = k·√(u₁² + u₂²)",
        (
            Given("D₁", "bushing, outside, smallest station", length(sizes.outside.value_mm, fine=True)),
            Given("D₂", "seat, largest station", length(sizes.seat.value_mm, fine=True)),
            Given("u₁", "standard uncertainty", length(sizes.outside.u_mm, fine=True)),
            Given("u₂", "standard uncertainty", length(sizes.seat.u_mm, fine=True)),
        ),
        Sentence("{value} ± {u}", amounts),
        f"{spec.source}; the least interference of all stations",
    )
    return ResultLine("Interference", Sentence(words, amounts), status, working)


def _expected(fit: PressFit, sizes: _Sizes, pair: FeatureState) -> ResultLine:
    name = "Running clearance to expect"
    shaft, free = sizes.shaft, sizes.free
    if shaft is None or free is None:
        return ResultLine(name, "The shaft is not measured.", Status.ASK)
    closing = fit.closing_mm(sizes.interference_mm)
    value = free.value_mm - closing - shaft.value_mm
    u = math.sqrt(free.u_mm**2 + shaft.u_mm**2 + (fit.closing_share * sizes.u_mm) ** 2)
    guard = 2 * u
    amounts: Amounts = {"value": length(value, fine=True), "u": length(guard, fine=True)}
    status, words = Status.GOOD, "{value} ± {u}"
    new = pair.spec.new_mm
    if value <= 0:
        status, words = Status.STOP, "{value} ± {u}: the shaft would not go in."
    elif new is not None:
        of = edges(*new, new[1] - new[0], (value,), fine=True)
        amounts |= {"value": of.sizes[0], "low": of.low or length(new[0]), "high": of.high or length(new[1])}
        inside = new[0] <= value <= new[1]
        status = Status.GOOD if inside else Status.CARE
        words += "; new is {low} to {high}." if inside else ": new is {low} to {high}. Ream, or take another, before pressing."
    working = Working(
        name,
        "c = d − Δd − s",
        (
            Given("d", "bore before pressing", length(free.value_mm, fine=True)),
            Given("Δd", "closes in by", length(closing, fine=True)),
            Given("s", "shaft or pin", length(shaft.value_mm, fine=True)),
        ),
        Sentence("{value} ± {u}", amounts),
        "Thick cylinders (Lamé); uncertainties by JCGM 100:2008, 5.1.2, k = 2",
        (Sentence("Measured after pressing, the measured one counts."),),
    )
    return ResultLine(name, Sentence(words, amounts), status, working)
