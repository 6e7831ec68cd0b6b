"""Choosing a row of a clearance table (a pump's own manual, entered on its sheet)."""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Amounts, Bare, Kind, Sentence, Text, length
from finegap.core.gap.duty_range import DutyRange
from finegap.core.kept import kept
from finegap.core.working import Given, Working


@dataclass(frozen=True)
class Range:
    """A closed range; an open end is infinite (or zero for viscosity)."""

    low: float
    high: float

    def __contains__(self, value: float) -> bool:
        return self.low <= value <= self.high

    def miss(self, value: float) -> float:
        """How far ``value`` lies outside: negative below, positive above, zero inside."""
        return min(value - self.low, 0.0) or max(value - self.high, 0.0)

    def said(self, kind: Kind) -> Text:
        """In words, its open ends too."""
        low_open = math.isinf(self.low) or (kind is Kind.VISCOSITY and self.low == 0)
        if low_open:
            return "any" if math.isinf(self.high) else Sentence("up to {high}", {"high": Amount(self.high, kind)})
        if math.isinf(self.high):
            return Sentence("{low} and up", {"low": Amount(self.low, kind)})
        return Sentence("{low} to {high}", {"low": Bare(Amount(self.low, kind)), "high": Amount(self.high, kind)})


@dataclass(frozen=True)
class Row:
    """One row as the manual prints it. Viscosity in mm2/s, temperature in C, clearances in mm.

    ``back_mm`` is the clearance behind the rotor, in tables of pumps whose rotors have a front and a back; ``arc_mm`` the arc on
    the housing that makes the clearance, as some tables print it.
    """

    setting: str
    material: str
    viscosity_mm2_s: Range
    temperature_c: Range
    clearance_mm: float
    back_mm: float | None = None
    arc_mm: float | None = None


@dataclass(frozen=True)
class Candidate:
    """A row seen from a duty. ``misses`` is empty for a match; ``slip_ratio`` is slip against the chosen row (cube law).

    ``passed`` when the duty's range passes through it.
    """

    row: Row
    misses: tuple[Sentence, ...]
    slip_ratio: float | None
    reason: Sentence
    passed: bool = False

    @property
    def matches(self) -> bool:
        """Both viscosity and temperature are inside."""
        return not self.misses


@dataclass(frozen=True)
class RowChoice:
    """The row to use, or ``None`` with every near miss explained; nearest first.

    ``over`` says what the duty's range from cold start to hot running does to the choice, and ``hole`` where no row covers it.
    """

    chosen: Row | None
    candidates: tuple[Candidate, ...]
    sentence: Sentence
    working: Working
    over: Sentence | None = None
    hole: Sentence | None = None


def check_rows(rows: Sequence[Row], holes_as_printed: bool = False) -> None:
    """Refuse a table that cannot be right.

    Raises
    ------
    FieldError
        Empty; or, unless the sheet says the manual prints it so, with a spot of viscosity and temperature between covered
        ones that no row of the same material covers.
    """
    if not rows:
        raise FieldError("rows", "the clearance table is empty.", "Expected one row or more.")
    if holes_as_printed:
        return
    for material in dict.fromkeys(row.material for row in rows):
        mine = [(i, row) for i, row in enumerate(rows) if row.material == material]
        _check_holes(mine)


def _check_holes(rows: list[tuple[int, Row]]) -> None:
    for across, up, what, unit in (
        (_viscosity, _temperature, "viscosity", "mm2/s"),
        (_temperature, _viscosity, "temperature", "C"),
    ):
        _check_lines(rows, across, up, what, unit)


def _viscosity(row: Row) -> Range:
    return row.viscosity_mm2_s


def _temperature(row: Row) -> Range:
    return row.temperature_c


def _check_lines(
    rows: list[tuple[int, Row]], across: Callable[[Row], Range], up: Callable[[Row], Range], what: str, unit: str
) -> None:
    """Every line through the table is covered from its first to its last covered cell.

    A line is a number whose bits are its cells between all printed ends: a table of hundreds of rows is looked through at once.
    """
    ends, levels = (sorted({end for _, r in rows for end in (of(r).low, of(r).high)}) for of in (across, up))
    at = {end: i for i, end in enumerate(ends)}
    bits = [((1 << at[across(r).high]) - (1 << at[across(r).low]), r) for _, r in rows]
    for low, high in itertools.pairwise(levels):
        line = 0
        for covered, row in bits:
            if up(row).low <= low and high <= up(row).high:
                line |= covered
        last = line.bit_length()
        hole = next((i for i in range((line & -line).bit_length(), last) if not line >> i & 1), None) if line else None
        if hole is not None:
            here = [(i, r) for i, r in rows if up(r).low <= low and high <= up(r).high]
            before = next(i for i, r in here if across(r).low <= ends[hole - 1] and ends[hole] <= across(r).high)
            raise FieldError(
                f"rows[{before}].{what}",
                f"after this row the table has a hole: {what} {ends[hole]:.4g} to {ends[hole + 1]:.4g} {unit} is in no row.",
                "Expected ranges that meet or overlap; if the manual itself leaves it open, that is said (holes_as_printed).",
            )


_MOST_OVERLAPS = 20


def overlaps(rows: Sequence[Row]) -> tuple[Sentence, ...]:
    """Spots two rows of one material cover with different clearances; where they do, the larger of both is taken."""
    found: list[Sentence] = []
    for (i, one), (k, other) in itertools.combinations(enumerate(rows, 1), 2):
        across = _common(one.viscosity_mm2_s, other.viscosity_mm2_s)
        up = _common(one.temperature_c, other.temperature_c)
        if one.material != other.material or one.clearance_mm == other.clearance_mm or not across or not up:
            continue
        both: Amounts = {
            "one": str(i),
            "other": str(k),
            "viscosity": across.said(Kind.VISCOSITY),
            "temperature": up.said(Kind.TEMPERATURE),
        }
        found.append(Sentence("Rows {one} and {other} overlap: {viscosity}, at {temperature}.", both))
        if len(found) == _MOST_OVERLAPS:
            break
    return tuple(found)


def _common(one: Range, other: Range) -> Range | None:
    low, high = max(one.low, other.low), min(one.high, other.high)
    return Range(low, high) if low < high else None


@kept(256)
def choose(
    rows: Sequence[Row],
    material: str,
    viscosity_mm2_s: float,
    temperature_c: float,
    source: str,
    duty_range: DutyRange | None = None,
) -> RowChoice:
    """Choose the end clearance for a duty.

    Among rows where both viscosity and temperature match, the largest clearance: touching wrecks a pump, slip only costs flow.
    A duty whose range from cold start to hot running passes through more than one setting takes the largest of those. Nothing is
    extrapolated: a pump whose pumping point is in no row has none, whatever its range passes through.

    Parameters
    ----------
    rows : sequence of Row
        The table.
    material : str
        Material of construction as the table names it.
    viscosity_mm2_s, temperature_c : float
        The duty, viscosity at the pumping temperature.
    source : str
        Sheet, revision and page, for the working.
    duty_range : DutyRange, optional
        The duty's range.

    Raises
    ------
    FieldError
        The table has no row for this material.
    """
    mine = [row for row in rows if row.material == material]
    if not mine:
        known = ", ".join(dict.fromkeys(row.material for row in rows)) or "none"
        raise FieldError("material", f"the table has no row for {material}.", f"Expected one of: {known}.")
    misses = {id(row): _misses(row, viscosity_mm2_s, temperature_c) for row in mine}
    matching = [row for row in mine if not misses[id(row)]]
    at_point = max(matching, key=lambda row: row.clearance_mm, default=None)
    passed, holes = _passed(mine, duty_range)
    chosen = max([at_point, *passed], key=lambda row: row.clearance_mm) if at_point else None
    candidates = sorted(
        (_candidate(row, chosen, misses[id(row)], any(row is p for p in passed)) for row in mine),
        key=lambda c: (c.row is not chosen, not c.matches, len(c.misses), _distance(c.row, viscosity_mm2_s, temperature_c)),
    )
    duty = {"v": Amount(viscosity_mm2_s, Kind.VISCOSITY), "t": Amount(temperature_c, Kind.TEMPERATURE)}
    sentence = _sentence(chosen, at_point, len(matching), candidates, duty)
    working = _working(chosen, candidates, material, duty, duty_range, source)
    return RowChoice(
        chosen, tuple(candidates), sentence, working, _over(duty_range, chosen, at_point, passed), _asked(duty_range, holes)
    )


def _working(
    chosen: Row | None,
    candidates: Sequence[Candidate],
    material: str,
    duty: dict[str, Amount],
    duty_range: DutyRange | None,
    source: str,
) -> Working:
    """How the clearance was chosen; ``duty`` holds viscosity ``v`` and temperature ``t``."""
    return Working(
        title="End clearance from the table",
        formula="c = largest clearance among rows where ν and T are both inside",
        given=(
            Given("", "material of construction", material),
            Given("ν", "kinematic viscosity at pumping temperature", duty["v"]),
            Given("T", "pumping temperature", duty["t"]),
            *_range_given(duty_range),
            *(Given("", f"row “{c.row.setting}”", c.reason) for c in candidates),
        ),
        result=length(chosen.clearance_mm) if chosen else "no row matches; never extrapolated",
        source=source,
    )


def _passed(rows: Sequence[Row], duty_range: DutyRange | None) -> tuple[list[Row], list[tuple[float, float]]]:
    """Rows the range of a duty passes through, and the stretches of temperature [C] no row covers."""
    if duty_range is None or duty_range.is_point:
        return [], []
    viscosities = {v for r in rows for v in (r.viscosity_mm2_s.low, r.viscosity_mm2_s.high) if v > 0 and math.isfinite(v)}
    temperatures = {t for r in rows for t in (r.temperature_c.low, r.temperature_c.high) if math.isfinite(t)}
    passed: list[Row] = []
    holes: list[tuple[float, float]] = []
    for low, high in duty_range.stretches(viscosities, temperatures):
        # Between two cuts what matches does not change, so that its middle speaks for all of it; at a cut itself both sides do.
        met = _met(rows, duty_range, (low + high) / 2)
        for row in (*met, *_met(rows, duty_range, low), *_met(rows, duty_range, high)):
            if not any(row is p for p in passed):
                passed.append(row)
        if not met:
            joined = holes.pop()[0] if holes and holes[-1][1] == low else low
            holes.append((joined, high))
    return passed, holes


def _met(rows: Sequence[Row], duty_range: DutyRange, at_c: float) -> list[Row]:
    return [row for row in rows if duty_range.at(at_c) in row.viscosity_mm2_s and at_c in row.temperature_c]


def _range_given(duty_range: DutyRange | None) -> tuple[Given, ...]:
    if duty_range is None or duty_range.is_point:
        return ()
    return tuple(
        Given("", name, Sentence("{t}, {v}", {"t": Amount(at, Kind.TEMPERATURE), "v": Amount(duty_range.at(at), Kind.VISCOSITY)}))
        for name, at in (("coldest start", duty_range.start_c), ("hottest running", duty_range.hot_c))
    )


def _over(duty_range: DutyRange | None, chosen: Row | None, at_point: Row | None, passed: list[Row]) -> Sentence | None:
    """What the range does to the choice."""
    if duty_range is None or duty_range.is_point or chosen is None or at_point is None:
        return None
    amounts: Amounts = {
        "cold": Amount(duty_range.start_c, Kind.TEMPERATURE),
        "thick": Amount(duty_range.at(duty_range.start_c), Kind.VISCOSITY),
        "hot": Amount(duty_range.hot_c, Kind.TEMPERATURE),
        "thin": Amount(duty_range.at(duty_range.hot_c), Kind.VISCOSITY),
        "settings": ", ".join(f"“{row.setting}”" for row in sorted(passed, key=lambda row: row.clearance_mm)),
        "c": length(chosen.clearance_mm),
        "point": length(at_point.clearance_mm),
    }
    span = "From a start at {cold} ({thick}) to {hot} ({thin})"
    if not duty_range.viscosity_known:
        span = "From a start at {cold} to {hot}, at the one viscosity that is known,"
    amounts["span"] = Sentence(span, dict(amounts))
    if len(passed) < 2:
        return Sentence("{span} it stays in one setting.", amounts)
    words = "{span} it passes through {settings}: the larger counts, {c}."
    if chosen is not at_point:
        words += " At pumping temperature alone it would be {point}."
    return Sentence(words, amounts)


def _asked(duty_range: DutyRange | None, holes: list[tuple[float, float]]) -> Sentence | None:
    """What a person is asked about the range: a stretch no row covers, or a viscosity that is a guess."""
    asked = [one for one in (_hole(duty_range, holes), duty_range.far if duty_range else None) if one is not None]
    return Sentence("{one} {other}", {"one": asked[0], "other": asked[1]}) if len(asked) > 1 else next(iter(asked), None)


def _hole(duty_range: DutyRange | None, holes: list[tuple[float, float]]) -> Sentence | None:
    if not holes or duty_range is None:
        return None
    low, high = holes[0]
    return Sentence(
        "No row of the table covers it from {low} ({thick}) to {high} ({thin}): ask the maker.",
        {
            "low": Amount(low, Kind.TEMPERATURE),
            "thick": Amount(duty_range.at(low), Kind.VISCOSITY),
            "high": Amount(high, Kind.TEMPERATURE),
            "thin": Amount(duty_range.at(high), Kind.VISCOSITY),
        },
    )


def slip_ratio(clearance_mm: float, reference_mm: float) -> float:
    """Laminar slip through a gap against that through a reference gap: the cube of their ratio (plane Poiseuille flow)."""
    return (clearance_mm / reference_mm) ** 3


def _misses(row: Row, viscosity: float, temperature: float) -> tuple[Sentence, ...]:
    found = []
    for name, span, value, kind in (
        ("viscosity", row.viscosity_mm2_s, viscosity, Kind.VISCOSITY),
        ("temperature", row.temperature_c, temperature, Kind.TEMPERATURE),
    ):
        off = span.miss(value)
        if off:
            bound = span.low if off < 0 else span.high
            words = "{what} is below its {bound}" if off < 0 else "{what} is above its {bound}"
            found.append(Sentence(words, {"what": name, "bound": Amount(bound, kind)}))
    return tuple(found)


def _distance(row: Row, viscosity: float, temperature: float) -> float:
    """How near a miss is: viscosity by its logarithm, temperature in units of 10 K; only for ordering."""
    span = row.viscosity_mm2_s
    nearest = min(max(viscosity, span.low), span.high)
    in_log = abs(math.log(viscosity / nearest)) if viscosity > 0 and nearest > 0 else 0.0
    return in_log + abs(row.temperature_c.miss(temperature)) / 10


def _candidate(row: Row, chosen: Row | None, misses: tuple[Sentence, ...], passed: bool) -> Candidate:
    ratio = slip_ratio(row.clearance_mm, chosen.clearance_mm) if chosen else None
    amounts: Amounts = {"c": length(row.clearance_mm), "r": Amount(ratio or 0.0, Kind.NUMBER)}
    if row is chosen:
        reason = Sentence("{c}: chosen", amounts)
    elif passed:
        reason = Sentence("{c}: met on the way; laminar slip {r} times the chosen", amounts)
    elif misses:
        reason = Sentence("{c}: no, {why}", {"c": amounts["c"], "why": _listed(misses)})
    else:
        reason = Sentence("{c}: matches too; laminar slip {r} times the chosen", amounts)
    return Candidate(row, misses, ratio if passed or not misses else None, reason, passed)


def _listed(misses: tuple[Sentence, ...]) -> Sentence:
    return Sentence("; ".join(f"{{m{i}}}" for i in range(len(misses))), {f"m{i}": m for i, m in enumerate(misses)})


def _sentence(
    chosen: Row | None, at_point: Row | None, matching: int, candidates: list[Candidate], duty: dict[str, Amount]
) -> Sentence:
    if chosen is None:
        near = candidates[0]
        return Sentence(
            "No row matches {v} at {t}. Nearest is “{setting}”, {c}, but {why}. Ask the maker; never extrapolate.",
            {**duty, "setting": near.row.setting, "c": length(near.row.clearance_mm), "why": _listed(near.misses)},
        )
    amounts: Amounts = {**duty, "c": length(chosen.clearance_mm), "setting": chosen.setting}
    if chosen is not at_point:
        return Sentence("{c}, row “{setting}”: the largest of those its range passes through, {v} at {t} among them.", amounts)
    if matching == 1:
        return Sentence("{c}, row “{setting}”: the one row for {v} at {t}.", amounts)
    return Sentence(
        "{c}, row “{setting}”: the largest of {n} rows that match {v} at {t}. Touching wrecks a pump, slip only costs flow.",
        {**amounts, "n": str(matching)},
    )
