"""Reading and writing spec sheet files (``docs/formats/spec-sheet.schema.json``).

Everything wrong with a file is said with its line, and nothing of a wrong file is kept.
"""

from __future__ import annotations

import datetime as dt
import json
import math
import re
from dataclasses import dataclass
from functools import cache
from typing import Any, NoReturn

from django.conf import settings

from finegap.core.errors import FieldError
from finegap.core.means.registry import KINDS, schema_of
from finegap.core.measuring.verdict import School
from finegap.core.sheet import PartlySheet, SpecSheet, read_partly, read_sheet

FORMAT, VERSION = "fine-gap/spec-sheet", 1
LARGEST_BYTES = 512 * 1024
SCHEMA_PATH = settings.FORMATS / "spec-sheet.schema.json"


@dataclass(frozen=True)
class SheetUsual:
    """What a works takes for a sheet that does not say: its decision school, and the currency of prices."""

    school: School = School.GUARDED
    currency: str = ""


def parse_file(text: str, usual: SheetUsual = SheetUsual()) -> tuple[dict[str, Any], SpecSheet]:
    """Read a sheet file.

    Parameters
    ----------
    text : str
        The file's contents.
    usual : SheetUsual
        What counts where the file states none.

    Returns
    -------
    tuple of dict and SpecSheet
        The content to keep, and the sheet it makes.

    Raises
    ------
    FieldError
        Too large, not JSON, of a newer version, not of the published shape, or with values that cannot be.
    """
    if len(text.encode()) > LARGEST_BYTES:
        raise FieldError("file", "it is too large for a spec sheet.", f"Expected up to {LARGEST_BYTES // 1024} kB.")
    content = _json(text)
    if not isinstance(content, dict) or content.get("format") != FORMAT:
        raise FieldError("line 1", "this is not a spec sheet.", f'Expected "format": "{FORMAT}".')
    version = content.get("version")
    if isinstance(version, int) and version > VERSION:
        problem = f"the file is of format version {version}, newer than this application."
        raise FieldError("version", problem, f"Expected version {VERSION}; update Fine Gap to read it.")
    try:
        _check_shape(content)
        _complete(content, usual)
        sheet = read_sheet(content)
        _check_date(content["date"])
    except FieldError as error:
        line = _line_of(text, error.field)
        where = f"line {line}, {error.field}" if line else error.field
        raise FieldError(where, error.problem, error.hint) from None
    return content, sheet


def _complete(content: dict[str, Any], usual: SheetUsual) -> None:
    """What the works takes becomes part of what is kept: a later choice changes no sheet that is there."""
    if usual.school is not School.GUARDED:  # the format's own default needs no words
        content.setdefault("school", usual.school.value)
    catalogue = content.get("catalogue")
    if catalogue is not None and not catalogue.setdefault("currency", usual.currency):
        raise FieldError("catalogue.currency", "prices have no currency.", "Expected it here, or in the settings of the works.")


@dataclass(frozen=True)
class Problem:
    """What is wrong with a sheet that is being typed; ``missing`` where something it has to say is not there yet."""

    path: str
    problem: str
    hint: str
    missing: bool = False


def problems_of(content: dict[str, Any], usual: SheetUsual = SheetUsual()) -> tuple[PartlySheet, list[Problem]]:
    """All that is wrong with a sheet that is being typed, each at its place in the file, and the sheet as far as it can be read.

    ``content`` gets what the works takes where it does not say.

    Raises
    ------
    FieldError
        Its family is not known.
    """
    every = (problem for error in _draft_validator(content).iter_errors(content) for problem in _said_of(error))
    found = list({problem.path: problem for problem in every}.values())
    told = {problem.path for problem in found}
    wrong: list[FieldError] = []
    try:
        _complete(content, usual)
    except FieldError as error:
        wrong.append(error)
    partly, unread = read_partly(content)
    if "date" in content:
        try:
            _check_date(content["date"])
        except FieldError as error:
            wrong.append(error)
    found += [Problem(e.field, e.problem, e.hint) for e in (*wrong, *unread) if e.field not in told]
    return partly, found


def _draft_validator(content: dict[str, Any]) -> Any:
    """The schema as it is for what sets the gap of this sheet: what is wrong is said of that, and not of every other."""
    kind = content.get("adjustment", {}).get("means", "")
    return _validator_for(kind if kind in KINDS else "")


@cache
def _validator_for(kind: str) -> Any:
    from jsonschema import Draft202012Validator

    schema = sheet_schema()
    schema["properties"]["adjustment"] = schema_of(kind) if kind else {"type": "object", "required": ["means"]}
    return Draft202012Validator(schema)


def _said_of(error: Any) -> list[Problem]:
    """An error of the schema in words a person who types a sheet can do something with."""
    path = re.sub(r"^\$\.?", "", error.json_path)
    if error.validator in ("required", "dependentRequired"):
        names = error.validator_value
        if isinstance(names, dict):
            names = [one for key, those in names.items() if key in error.instance for one in those]
        lacking = [name for name in names if name not in error.instance]
        return [Problem(f"{path}.{name}".lstrip("."), "it is not given yet.", "Expected it.", True) for name in lacking]
    if error.validator in ("oneOf", "anyOf") and error.context and isinstance(error.instance, dict):
        ways: dict[int, list[Any]] = {}
        for one in error.context:
            ways.setdefault(one.schema_path[0], []).append(one)
        # Of several ways to say it, the one that lacks least is what was begun.
        return [said for one in min(ways.values(), key=len) for said in _said_of(one)]
    if error.validator in ("minItems", "minProperties") and not error.instance:
        return [Problem(path, "there is nothing in it yet.", "Expected one or more.", True)]
    if error.validator == "pattern" and re.match(r"[=+\-@\t\r]", str(error.instance)):
        return [Problem(path, "the text begins like a formula.", "Expected plain text; put a letter first.")]
    shown = json.dumps(error.instance, ensure_ascii=False)[:60]
    hint = error.schema.get("description", "Expected something else.")
    if error.validator in ("minimum", "exclusiveMinimum", "maximum", "exclusiveMaximum"):
        hint = f"Expected {'at least' if 'inimum' in error.validator else 'at most'} {error.validator_value:g}."
    if error.validator == "maxLength":
        hint = f"Expected up to {error.validator_value} letters."
    if error.validator == "enum":
        hint = f"Expected one of: {', '.join(map(str, error.validator_value))}."
    return [Problem(path, f"{shown} does not fit.", hint)]


def write_file(content: dict[str, Any]) -> str:
    """A kept sheet as a file: reading it back gives the same sheet."""
    return json.dumps(content, ensure_ascii=False, indent=2) + "\n"


def _json(text: str) -> Any:
    def no_constant(name: str) -> NoReturn:
        raise FieldError("file", f"{name} is not a number.", "Expected plain JSON.")

    def no_repeats(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
        seen = dict(pairs)
        if len(seen) < len(pairs):
            repeated = next(k for i, (k, _) in enumerate(pairs) if k in dict(pairs[:i]))
            raise FieldError(repeated, "it is given twice.", "Expected each name once.")
        return seen

    def finite(digits: str) -> float:
        if not math.isfinite(value := float(digits)):
            raise FieldError("file", f"{digits[:20]} is beyond all numbers.", "Expected plain JSON.")
        return value

    try:
        read = json.loads(text, parse_constant=no_constant, object_pairs_hook=no_repeats, parse_float=finite)
        json.dumps(read, ensure_ascii=False).encode()
        return read
    except json.JSONDecodeError as error:
        raise FieldError(f"line {error.lineno}", "this is not JSON from here on.", f"{error.msg}.") from None
    except FieldError:
        raise
    except UnicodeEncodeError:
        raise FieldError("file", "it has half of a letter in it, which cannot be written down.", "Expected UTF-8.") from None
    except ValueError:
        raise FieldError("file", "a number in it has thousands of digits.", "Expected a spec sheet.") from None
    except RecursionError:
        raise FieldError("file", "it is nested too deeply.", "Expected a spec sheet.") from None


@cache
def _validator() -> Any:
    from jsonschema import Draft202012Validator

    return Draft202012Validator(sheet_schema())


def sheet_schema() -> dict[str, Any]:
    """The published schema, with what each means there is says of its own part."""
    schema: dict[str, Any] = json.loads(SCHEMA_PATH.read_text())
    schema["properties"]["adjustment"] = {"oneOf": [schema_of(kind) for kind in KINDS]}
    return schema


def _check_shape(content: dict[str, Any]) -> None:
    from jsonschema.exceptions import best_match

    error = best_match(_validator().iter_errors(content))
    if error is None:
        return
    path = re.sub(r"^\$\.?", "", error.json_path) or "file"
    if error.validator == "pattern" and re.match(r"[=+\-@\t\r]", str(error.instance)):
        raise FieldError(path, "the text begins like a formula.", "Expected plain text; put a letter first.")
    if error.validator == "additionalProperties" or error.validator == "required":
        raise FieldError(path, f"{error.message}.", "Expected the names of the published format.")
    if error.instance is None or error.instance == "":
        raise FieldError(path, "the cell is empty.", "Expected a value; a hole in a table is never guessed.")
    shown = json.dumps(error.instance, ensure_ascii=False)
    problem = "it is empty." if error.instance in ([], {}) else f"{shown[:60]} does not fit."
    raise FieldError(path, problem, error.schema.get("description", f"{error.message[:200]}."))


def _check_date(text: str) -> None:
    try:
        dt.date.fromisoformat(text)
    except ValueError:
        raise FieldError("date", f"{text} is not a day.", "Expected year-month-day.") from None


def _line_of(text: str, path: str) -> int | None:
    """Line of a path in a JSON text: JSON is YAML, and YAML's nodes know where they stand."""
    import yaml

    try:
        node = yaml.compose(text, Loader=getattr(yaml, "CSafeLoader", yaml.SafeLoader))
    except yaml.YAMLError:
        return None
    line: int | None = None
    for name, index in re.findall(r"([\w-]+)|\[(\d+)\]", path):
        if isinstance(node, yaml.MappingNode) and name:
            match = next(((k, v) for k, v in node.value if k.value == name), None)
            if match is None:
                break
            line, node = match[0].start_mark.line + 1, match[1]
        elif isinstance(node, yaml.SequenceNode) and index and int(index) < len(node.value):
            node = node.value[int(index)]
            line = node.start_mark.line + 1
        else:
            break
    return line
