"""Sums of Prove: drops, the run-in of packing, a bucket."""

from __future__ import annotations

import re

from finegap.core.calculators.gap import DENSITY
from finegap.core.calculators.model import Calculator, Input, TypedInputs
from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Kind, Sentence
from finegap.core.proof.first_hour import by_bucket
from finegap.core.proof.run_in import Note, Rules, Say, advise, check_note, rules_for
from finegap.core.quantities import AllowedSign
from finegap.core.result_lines import ResultLine, Status
from finegap.core.units import Dimension
from finegap.core.working import Given, Working


def _drops(given: TypedInputs) -> tuple[ResultLine, ...]:
    count, seconds, per_ml = given.value("count"), given.value("seconds"), given.value("per_ml")
    rate = 60 * (count - 1) / seconds
    an_hour = rate * 60 / per_ml
    counted = (
        Given("n", "drops counted", f"{count:.0f}"),
        Given("t", "from the first to the last", f"{seconds:g} s"),
    )
    a_minute = Working(
        "Drops a minute",
        "60·(n − 1)/t",
        counted,
        Sentence("{r}", {"r": f"{rate:.1f}"}),
        "counting: n drops leave n − 1 times between",
    )
    leak = Working(
        "Leak",
        "60·rate/z",
        (Given("rate", "drops a minute", f"{rate:.3f}"), Given("z", "drops a mL", f"{per_ml:g}")),
        Sentence("{v} mL/h", {"v": f"{an_hour:.1f}"}),
        "about 20 drops of water a mL; oils 25 to 40 (common practice)",
    )
    return (
        ResultLine("Drops a minute", f"{rate:.1f}", working=a_minute),
        ResultLine("Which leaks", f"{an_hour:.1f} mL/h", working=leak),
    )


def _drop_size(given: TypedInputs) -> tuple[ResultLine, ...]:
    count, grams, density = given.value("count"), given.value("grams"), given.value("density")
    each_ml = 1000 * grams / (count * density)
    weighed = (
        Given("n", "drops on the scale", f"{count:.0f}"),
        Given("m", "what they weigh", f"{grams:g} g"),
        Given("ρ", "density", f"{density:g} kg/m³"),
    )
    source = "weighing; 20 drops of water a mL and 25 to 40 of oil are usual (common practice)"
    size = Sentence("{v} mL", {"v": f"{each_ml:.4f}"})
    a_ml = Sentence("{z}", {"z": f"{1 / each_ml:.1f}"})
    return (
        ResultLine("A drop", size, working=Working("Volume of a drop", "V = m/(n·ρ)", weighed, size, source)),
        ResultLine("Drops a mL", a_ml, working=Working("Drops a mL", "z = n·ρ/m", weighed, a_ml, source)),
    )


_STANDS = {Say.STOP: Status.STOP, Say.BACK_OFF: Status.CARE, Say.DONE: Status.GOOD}


def _run_in(given: TypedInputs) -> tuple[ResultLine, ...]:
    usual = rules_for(given.value("pumping"))
    hottest = given.maybe("hottest")
    rules = Rules(
        (given.value("drops_low"), given.value("drops_high")),
        usual.hottest_c if hottest is None else hottest,
        given.value("settle"),
    )
    if rules.drops[0] >= rules.drops[1]:
        raise FieldError("drops wanted", "the range is reversed or empty.", "Expected the fewer first.")
    if not given.text("log"):
        raise FieldError("log", "nothing was entered.", "Expected lines such as: 0 60 25 0; 12 30 30 1/8.")
    notes: list[Note] = []
    for number, text in enumerate(filter(None, re.split(r"\s*;\s*", given.text("log").strip())), start=1):
        note = _note(text, number, given)
        check_note(note, notes)
        notes.append(note)
    advice = advise(notes, rules)
    lines = [
        ResultLine("What to do", advice.headline, _STANDS.get(advice.say, Status.GOOD)),
        ResultLine("Why", advice.why),
        ResultLine("In a word", advice.say.value),
    ]
    if advice.wait_min:
        lines.append(ResultLine("Wait", Sentence("{m} min", {"m": f"{advice.wait_min:g}"})))
    return tuple(lines)


def _note(text: str, number: int, given: TypedInputs) -> Note:
    field = f"log, line {number}"
    parts = text.split()
    if len(parts) != 4:
        raise FieldError(
            field, f"“{text}” is not four things.", "Expected minute, drops, box temperature and turn, such as: 12 40 55 1/8."
        )
    read = given.entry.number
    minute = read(parts[0], field, 0, 72 * 60)
    drops = None if parts[1] == "-" else read(parts[1], field, 0, 1000)
    box = None if parts[2] == "-" else given.entry.quantity(parts[2], Dimension.TEMPERATURE, field).value
    return Note(minute, drops, box, read(parts[3], field, -1, 1) * 8)


def _bucket(given: TypedInputs) -> tuple[ResultLine, ...]:
    volume, seconds = given.value("volume"), given.value("seconds")
    flow = Amount(by_bucket(volume, seconds), Kind.FLOW)
    working = Working(
        "Flow by bucket and watch",
        "Q = 60·V/t",
        (Given("V", "bucket", Amount(volume, Kind.VOLUME)), Given("t", "filled in", f"{seconds:g} s")),
        flow,
        "definition",
    )
    return (ResultLine("Flow", flow, working=working),)


PROOF = (
    Calculator(
        "drops",
        "Drops a minute, and what they leak",
        (
            Input("count", "drops counted", number=(2, 10_000), whole=True),
            Input("seconds", "seconds, first to last", number=(0.1, 36_000)),
            Input("per_ml", "drops a mL", number=(5, 100), usual="20"),
        ),
        _drops,
    ),
    Calculator(
        "drop-size",
        "Volume of a drop, by weighing",
        (
            Input("count", "drops on the scale", number=(5, 10_000), whole=True),
            Input("grams", "grams they weigh", number=(0.01, 10_000)),
            DENSITY,
        ),
        _drop_size,
    ),
    Calculator(
        "run-in",
        "Running packing in",
        (
            Input("log", "log: minute, drops, box, turn; a line each, with ; between", long=True),
            Input("pumping", "pumping temperature", Dimension.TEMPERATURE, sign=AllowedSign.ANY, usual="20 C"),
            Input("hottest", "hottest box, if the sheet says it", Dimension.TEMPERATURE, sign=AllowedSign.ANY, optional=True),
            Input("drops_low", "drops wanted from", number=(0.1, 1000), usual="2"),
            Input("drops_high", "drops wanted to", number=(0.1, 1000), usual="10"),
            Input("settle", "minutes between two turns", number=(1, 600), usual="10"),
        ),
        _run_in,
    ),
    Calculator(
        "bucket",
        "Flow by bucket and watch",
        (
            Input("volume", "bucket", Dimension.VOLUME),
            Input("seconds", "seconds it took", number=(0.5, 36_000)),
        ),
        _bucket,
    ),
)
