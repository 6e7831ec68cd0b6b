"""Sums of doubt: two sizes together, of any shape and correlated; a mean of readings, and where the next one will lie."""

from __future__ import annotations

import math
import statistics

from finegap.core.calculators.model import Calculator, Input, TypedInputs, mm
from finegap.core.errors import FieldError
from finegap.core.formatting import Amounts, Bare, Sentence, length, uncertainty
from finegap.core.measuring.uncertainty import CONFIDENCE, coverage_factor
from finegap.core.quantities import AllowedSign
from finegap.core.result_lines import ResultLine, Status
from finegap.core.units import Dimension
from finegap.core.working import Given, Working

SHAPES = {
    "normal, k = 2": 2.0,
    "rectangle": math.sqrt(3),
    "triangle": math.sqrt(6),
    "arcsine": math.sqrt(2),
}
"""Half width over standard uncertainty, by the shape of a distribution (JCGM 100:2008, 4.3.7 and 4.3.9; JCGM 101:2008, 6.4.6)."""

_MOST_READINGS = 60
_SIGNS = {"difference": -1, "sum": 1}


def _together(given: TypedInputs) -> tuple[ResultLine, ...]:
    halves = [given.value(f"half_{i}") for i in (1, 2)]
    shapes = [given.text(f"shape_{i}") for i in (1, 2)]
    u = [half / SHAPES[shape] for half, shape in zip(halves, shapes, strict=True)]
    of, correlation = given.text("of"), given.value("correlation")
    squared = u[0] ** 2 + u[1] ** 2 + 2 * _SIGNS[of] * correlation * u[0] * u[1]
    both = math.sqrt(max(squared, 0.0))
    wide = coverage_factor(math.inf) * both
    numbers = (
        *(Given(f"u{i}", f"{shape}, half width over {SHAPES[shape]:.4g}", uncertainty(one)) for i, (one, shape) in
          enumerate(zip(u, shapes, strict=True), 1)),
        Given("r", "correlation", f"{correlation:g}"),
    )  # fmt: skip
    formula = f"u² = u₁² + u₂² {'−' if of == 'difference' else '+'} 2·r·u₁·u₂"
    said, source = uncertainty(both), "JCGM 100:2008, 5.2.2, equation 16"
    expanded = uncertainty(wide)
    taken = Working(
        "Expanded uncertainty", "U = 1.96·u, taken as normal", (Given("u", "of both", said),), expanded, "JCGM 100:2008, G"
    )
    return (
        ResultLine(f"Standard uncertainty of the {of}", said, working=Working("Two doubts", formula, numbers, said, source)),
        ResultLine("Expanded, 95 %", expanded, working=taken),
    )


def _readings(given: TypedInputs) -> list[float]:
    typed = [part for part in given.text("readings").split(";") if part.strip()]
    if not 2 <= len(typed) <= _MOST_READINGS:
        raise FieldError("readings", f"{len(typed)} were given.", f"Expected 2 to {_MOST_READINGS}, with ; between.")
    return [given.entry.quantity(part.strip(), Dimension.LENGTH, "readings", AllowedSign.ANY).value for part in typed]


def _mean(given: TypedInputs) -> tuple[ResultLine, ...]:
    read = _readings(given)
    n, mean, spread = len(read), statistics.fmean(read), statistics.stdev(read)
    t = coverage_factor(n - 1)
    of_mean, of_next = t * spread / math.sqrt(n), t * spread * math.sqrt(1 + 1 / n)
    numbers = (
        Given("n", "readings", str(n)),
        Given("x̄", "mean", length(mean, fine=True)),
        Given("s", "standard deviation", uncertainty(spread)),
        Given("t", f"Student, {n - 1} degrees of freedom, {CONFIDENCE:.0%} two-sided", f"{t:.4g}"),
    )
    lines = [
        ResultLine("Mean", length(mean, fine=True), working=Working("Mean", "x̄", numbers, length(mean, fine=True), "definition"))
    ]
    for name, half, formula in (
        ("The mean lies, at 95 %, within", of_mean, "x̄ ± t·s/√n"),
        ("The next reading lies, at 95 %, within", of_next, "x̄ ± t·s·√(1 + 1/n)"),
    ):
        amounts: Amounts = {"mean": Bare(length(mean, fine=True)), "half": length(half, fine=True)}
        words = Sentence("{mean} ± {half}", amounts)
        working = Working(name, formula, numbers, words, "readings spread normally; JCGM 100:2008, G.3; ISO 16269-8 for the next")
        lines.append(ResultLine(name, words, working=working))
    if spread == 0:
        alike = "All are alike: the gauge's step is coarser than they scatter, and this says nothing of it."
        lines.append(ResultLine("Scatter", alike, Status.ASK))
    return tuple(lines)


def _half(i: int, name: str) -> tuple[Input, Input]:
    shapes = tuple((shape, shape) for shape in SHAPES)
    return (
        mm(f"half_{i}", f"{name}: half width, or U", AllowedSign.NOT_NEGATIVE),
        Input(f"shape_{i}", f"{name}: shape", choices=shapes, usual="rectangle" if i == 2 else "normal, k = 2"),
    )


DOUBTS = (
    Calculator(
        "two-doubts",
        "Doubt of a sum or a difference",
        (
            *_half(1, "the one"),
            *_half(2, "the other"),
            Input("of", "of their", choices=tuple((key, key) for key in _SIGNS), usual="difference"),
            Input("correlation", "correlation", number=(-1, 1), usual="0"),
        ),
        _together,
    ),
    Calculator(
        "readings", "Mean of readings, and the next one", (Input("readings", "readings, with ; between", long=True),), _mean
    ),
)
