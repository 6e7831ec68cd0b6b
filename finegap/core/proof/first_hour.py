"""The first hour of running: what was measured, set against what gaps and slip say."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import Enum

from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Amounts, Kind, Sentence, length
from finegap.core.gap.performance import Performance
from finegap.core.result_lines import ResultLine, Status
from finegap.core.working import Given, Working

_FLOW_SHARE = 0.05
_PRESSURE_SHARE = 0.10
_LEAST_OVERALL = 0.35
_BEARING_RISE_K = 40.0
"""How far off is still as it should be. Common practice, no source."""


class FirstHourItem(Enum):
    """What is looked at in the first hour."""

    FLOW = "flow"
    PRESSURE = "pressure"
    POWER = "power"
    TEMPERATURE = "temperature"
    NOISE = "noise"


NOISES = {
    "even": "even, as it should be",
    "crackle": "crackling, like gravel",
    "rumble": "a rumble from the bearings",
    "rub": "a rub once a turn",
    "chatter": "chatter from the relief valve",
}
"""Noises that are told apart, by key."""

_MEANS_NOISE = {
    "crackle": "Starved suction or air in the liquid: look at strainer, valves and the level.",
    "rumble": "A bearing: lock nut, tang, grease.",
    "rub": "Metal on metal: stop, turn it by hand, and open the gap.",
    "chatter": "The relief valve lifts: pressure too high, or its spring set too low.",
}


@dataclass(frozen=True)
class Running:
    """What was seen, in internal units: flow in L/min, pressure in bar, power in kW, temperature of the bearing in C; a noise."""

    values: Mapping[FirstHourItem, float]
    noise: str = ""


def by_bucket(volume_l: float, seconds: float) -> float:
    """Flow in L/min of a bucket filled in so many seconds."""
    if seconds <= 0:
        raise FieldError("seconds", "they must be more than zero.", "Expected how long the bucket took.")
    return volume_l / seconds * 60


def first_hour(
    running: Running, predicted: Performance | None, set_gap: str, pressure_bar: float, pumping_c: float
) -> tuple[ResultLine, ...]:
    """What was seen, in lines; each held against what is predicted, where something is.

    Parameters
    ----------
    running : Running
        What was seen.
    predicted : Performance or None
        Of the pump as left; ``None`` where the sheet says nothing of slip.
    set_gap : str
        The feature that was set, to say what gap the slip would mean.
    pressure_bar, pumping_c : float
        The duty.
    """
    lines = []
    values = running.values
    if FirstHourItem.FLOW in values:
        lines.append(_flow(values[FirstHourItem.FLOW], values.get(FirstHourItem.PRESSURE, pressure_bar), predicted, set_gap))
    if FirstHourItem.PRESSURE in values:
        lines.append(_pressure(values[FirstHourItem.PRESSURE], pressure_bar))
    if FirstHourItem.POWER in values:
        lines.append(_power(values[FirstHourItem.POWER], values, pressure_bar, predicted))
    if FirstHourItem.TEMPERATURE in values:
        lines.append(_temperature(values[FirstHourItem.TEMPERATURE], pumping_c))
    if running.noise:
        odd = _MEANS_NOISE.get(running.noise, "")
        status = Status.GOOD if not odd else Status.STOP if running.noise == "rub" else Status.CARE
        lines.append(ResultLine("Noise", f"{NOISES[running.noise].capitalize()}. {odd}".strip(), status))
    return tuple(lines)


def _flow(flow: float, pressure_bar: float, predicted: Performance | None, set_gap: str) -> ResultLine:
    shown = Amount(flow, Kind.FLOW_ABOUT)
    if predicted is None:
        return ResultLine("Flow", Sentence("{q}; the sheet says nothing of slip to hold it against.", {"q": shown}))
    # What the pressure drives goes with it, what the walls drag does not: it is calculated at the pressure it was measured at.
    there = predicted.at_pressure(pressure_bar)
    if there.untold is not None:
        return ResultLine("Flow", Sentence("{q}; nothing to hold it against. {why}", {"q": shown, "why": there.untold}), Status.ASK)
    expected = there.flow_l_min
    off = flow - expected
    amounts: Amounts = {
        "q": shown,
        "expected": Amount(expected, Kind.FLOW_ABOUT),
        "off": Amount(abs(off), Kind.FLOW_ABOUT),
        "most": Amount(there.theoretical_l_min, Kind.FLOW_ABOUT),
    }
    working = Working(
        "Flow against slip",
        "Q = V·n − S",
        (
            Given("V·n", "displaced", Amount(there.theoretical_l_min, Kind.FLOW)),
            Given("S", "slip of all gaps at that pressure", Amount(there.slip_l_min, Kind.FLOW)),
            Given("p", "pressure difference when it was measured", Amount(pressure_bar, Kind.PRESSURE)),
        ),
        Amount(expected, Kind.FLOW),
        "slip of each gap, as on the card of what the gaps cost",
    )
    if flow > there.theoretical_l_min * (1 + _FLOW_SHARE):
        words = "{q}: more than the {most} it displaces. Measure again: bucket, watch, meter, speed."
        return ResultLine("Flow", Sentence(words, amounts), Status.ASK, working)
    if abs(off) <= _FLOW_SHARE * there.theoretical_l_min:
        return ResultLine("Flow", Sentence("{q}, {expected} expected.", amounts), Status.GOOD, working)
    if off > 0:
        words = "{q}, {off} more than the gaps let expect: they are finer, or the liquid thicker, than entered."
        return ResultLine("Flow", Sentence(words, amounts), Status.CARE, working)
    words = "{q}, {off} less than expected: a relief valve passing, air, a starved suction"
    wide = there.gap_for(set_gap, flow)
    if wide is not None:
        amounts["gap"] = length(wide)
        words += ", or a gap as wide as {gap}"
    return ResultLine("Flow", Sentence(words + ".", amounts), Status.CARE, working)


def _pressure(bar: float, duty_bar: float) -> ResultLine:
    amounts: Amounts = {"p": Amount(bar, Kind.PRESSURE), "duty": Amount(duty_bar, Kind.PRESSURE)}
    if abs(bar - duty_bar) <= _PRESSURE_SHARE * duty_bar:
        return ResultLine("Pressure difference", Sentence("{p}, {duty} is the duty.", amounts))
    why = "a valve not open, or the line blocked" if bar > duty_bar else "the relief valve passing, air, or slip"
    return ResultLine("Pressure difference", Sentence("{p}, and {duty} is the duty: {why}.", {"why": why} | amounts), Status.CARE)


def _power(kw: float, values: Mapping[FirstHourItem, float], pressure_bar: float, predicted: Performance | None) -> ResultLine:
    flow = values.get(FirstHourItem.FLOW, predicted.flow_l_min if predicted and not predicted.untold else None)
    if flow is None or not flow:
        return ResultLine("Power", Sentence("{p}; without a flow it says little.", {"p": Amount(kw, Kind.POWER)}))
    bar = values.get(FirstHourItem.PRESSURE, pressure_bar)
    hydraulic = flow / 60_000 * bar * 100
    overall = hydraulic / kw
    amounts: Amounts = {"p": Amount(kw, Kind.POWER), "eta": Amount(100 * overall, Kind.SHARE), "h": Amount(hydraulic, Kind.POWER)}
    working = Working(
        "Overall efficiency",
        "η = Q·Δp / P",
        (
            Given("Q", "flow", Amount(flow, Kind.FLOW)),
            Given("Δp", "pressure difference", Amount(bar, Kind.PRESSURE)),
            Given("P", "power taken", Amount(kw, Kind.POWER)),
        ),
        Amount(100 * overall, Kind.SHARE),
        "definition (ISO 4391: overall efficiency; from memory)",
    )
    if overall > 1:
        words = "{p} is less than the {h} it delivers: measure again, at the coupling or at the motor's terminals."
        return ResultLine("Power", Sentence(words, amounts), Status.ASK, working)
    if overall < _LEAST_OVERALL:
        words = "{p}, of which {eta} comes out: gap too small, packing too tight, misalignment, or thicker liquid than entered."
        return ResultLine("Power", Sentence(words, amounts), Status.CARE, working)
    return ResultLine("Power", Sentence("{p}, of which {eta} comes out.", amounts), Status.GOOD, working)


def _temperature(bearing_c: float, pumping_c: float) -> ResultLine:
    most = max(pumping_c, 20.0) + _BEARING_RISE_K
    amounts: Amounts = {"t": Amount(bearing_c, Kind.TEMPERATURE), "most": Amount(most, Kind.TEMPERATURE)}
    if bearing_c <= most:
        return ResultLine("Bearing temperature", Sentence("{t}, below {most}.", amounts))
    words = "{t}, over {most}: grease, preload, alignment or a gap too small. Stop if it goes on rising."
    return ResultLine("Bearing temperature", Sentence(words, amounts), Status.CARE)
