"""Quick figures from the shell: JSON in, JSON with the working out. Neither way to call it starts Django.

``python -m finegap.calc NAME < input.json``, or ``manage.py calc NAME < input.json``; with ``--list`` it tells what there is.
"""

from __future__ import annotations

import json
import sys
from argparse import ArgumentParser
from typing import Any

from finegap.api.plain import plain
from finegap.core.calculators import CALCULATORS, Calculator, Input, calculator
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Sentence, Units, system_of
from finegap.core.numerals import DecimalMark
from finegap.core.quantities import from_internal
from finegap.core.result_lines import ResultLine

HELP = "Calculate one of the quick figures: JSON on standard input, JSON with its working on standard output."


def add_arguments(parser: ArgumentParser) -> None:
    """A name, or the list."""
    parser.add_argument("name", nargs="?", help="which one")
    parser.add_argument("--list", action="store_true", help="all of them with the JSON schemas of input and output")
    parser.add_argument("--units", choices=[u.value for u in Units], default=Units.MM.value, help="unit system of bare numbers")
    parser.add_argument(
        "--mark", choices=[m.value for m in DecimalMark], default=DecimalMark.POINT.value, help="decimal mark you write"
    )


def answer(name: str | None, listed: bool, units: Units, mark: DecimalMark) -> tuple[str, bool]:
    """What to print, as JSON, and whether it could be calculated; standard input is read where a sum is asked for."""
    if listed or not name:
        return _dumped([described(one, units) for one in CALCULATORS.values()]), True
    try:
        lines = calculator(name).run(_given(sys.stdin.read(), mark), Entry(units, mark))
    except FieldError as error:
        return _dumped({"error": {"field": error.field, "problem": error.problem, "hint": error.hint}}), False
    return _dumped({"name": name, "units": units.value, "lines": [answered(one, units) for one in lines]}), True


def main(arguments: list[str]) -> int:
    """Print, or say on standard error what is wrong and leave with 2."""
    parser = ArgumentParser(prog="calc", description=HELP)
    add_arguments(parser)
    given = parser.parse_args(arguments)
    told, done = answer(given.name, given.list, Units(given.units), DecimalMark(given.mark))
    print(told, file=sys.stdout if done else sys.stderr)
    return 0 if done else 2


def _dumped(data: Any) -> str:
    return json.dumps(data, ensure_ascii=False, indent=2)


def _given(text: str, mark: DecimalMark) -> dict[str, str]:
    """What was asked, as it would have been typed; a number of JSON has a point whatever the works writes."""
    expected = 'Expected such as {"shaft": "50 mm", "rings": 4}.'
    try:
        data = json.loads(text or "{}")
    except ValueError as error:
        raise FieldError("input", f"it is no JSON: {error}.", expected) from None
    if not isinstance(data, dict):
        raise FieldError("input", "it is not an object.", expected)
    return {key: _typed(key, value, mark) for key, value in data.items()}


def _typed(key: str, value: Any, mark: DecimalMark) -> str:
    if isinstance(value, list):
        return " ".join(_typed(key, one, mark) for one in value)
    if isinstance(value, float):
        return str(value).replace(".", mark.sign)
    if value is None or isinstance(value, bool | dict):
        raise FieldError(key, f"{json.dumps(value)} is neither text nor number.", "Expected a number, or text with its unit.")
    return str(value)


def described(one: Calculator, units: Units) -> dict[str, Any]:
    """A sum with the JSON schemas of what it asks for and answers."""
    needed = [i.key for i in one.inputs if not i.optional and not i.usual]
    return {
        "name": one.key,
        "title": one.name,
        "input": {
            "type": "object",
            "additionalProperties": False,
            "required": needed,
            "properties": {i.key: _schema(i, units) for i in one.inputs},
        },
        "output": _OUTPUT,
    }


def _schema(one: Input, units: Units) -> dict[str, Any]:
    if one.choices:
        told: dict[str, Any] = {"enum": [key for key, _ in one.choices]}
    elif one.number is not None:
        kind = "integer" if one.whole else "number"
        told = {"type": [kind, "string"], "minimum": one.number[0], "maximum": one.number[1]}
    elif one.dimension is not None:
        told = {
            "type": ["array" if one.long else "number", "string"],
            "x-unit-of-a-bare-number": one.bare(units),
        }
    else:
        told = {"type": ["string", "array"] if one.long else "string"}
    return {"description": one.name, **told} | ({"default": one.usual} if one.usual else {})


_TEXT = {"type": "string"}
_AMOUNT = {
    "type": "object",
    "required": ["value", "unit"],
    "properties": {"value": {"type": "number"}, "unit": _TEXT},
}
_OUTPUT = {
    "type": "object",
    "required": ["name", "units", "lines"],
    "properties": {
        "name": _TEXT,
        "units": {"enum": [u.value for u in Units]},
        "lines": {
            "type": "array",
            "items": {
                "type": "object",
                "required": ["name", "text", "status", "working"],
                "properties": {
                    "name": _TEXT,
                    "text": _TEXT,
                    "status": {"enum": ["good", "care", "ask", "stop"]},
                    "amounts": {"type": "object", "additionalProperties": _AMOUNT},
                    "working": {"type": ["object", "null"]},
                },
            },
        },
    },
}


def answered(line: ResultLine, units: Units) -> dict[str, Any]:
    """A line as it is shown, and its numbers unrounded."""
    shown: dict[str, Any] = plain(line, units)
    if isinstance(line.text, Amount):
        amounts = {"value": line.text}
    else:
        named = line.text.amounts if isinstance(line.text, Sentence) else {}
        amounts = {key: amount for key, amount in named.items() if isinstance(amount, Amount)}
    return shown | {"amounts": {key: _number(amount, units) for key, amount in amounts.items()}}


def _number(amount: Amount, units: Units) -> dict[str, Any]:
    dimension, unit = amount.kind.value[0], system_of(amount.kind, units)[0]
    value = from_internal(amount.value, dimension, unit) if dimension else amount.value
    return {"value": float(value), "unit": unit}


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
