"""The JSON Schema of the signed record, from the shapes it is written from (``docs/formats/job-record.schema.json``)."""

from __future__ import annotations

import datetime as dt
import inspect
import uuid
from collections.abc import Mapping
from dataclasses import fields, is_dataclass
from enum import Enum
from types import NoneType
from typing import Any, get_args, get_origin, get_type_hints

from finegap.bench import responses
from finegap.bench.presenters.layout import KINDS
from finegap.bench.record import RECORD_VERSION
from finegap.bench.record.document import FORMAT, LAYOUT
from finegap.core.formatting import Text

_AMOUNT = {
    "type": "object",
    "description": "A number with its unit, and how it was shown. Null: without end.",
    "required": ["value", "unit", "mm", "in"],
    "properties": {
        "value": {"type": ["number", "null"]},
        "unit": {"type": "string"},
        "mm": {"type": "string"},
        "in": {"type": "string"},
    },
}
_TEXT = {
    "description": "Words or a number: plain, a number as it was shown, a sentence by the key of its template, or several.",
    "anyOf": [
        {"type": "string"},
        _AMOUNT,
        {"type": "object", "required": ["mm", "in"], "properties": {"mm": {"type": "string"}, "in": {"type": "string"}}},
        {
            "type": "object",
            "required": ["template"],
            "properties": {"template": {"type": "string"}, "values": {"additionalProperties": {"$ref": "#/$defs/Text"}}},
        },
        {
            "type": "object",
            "required": ["texts", "apart"],
            "properties": {"texts": {"items": {"$ref": "#/$defs/Text"}}, "apart": {"type": "string"}},
        },
    ],
}
_PLAIN: dict[Any, dict[str, Any]] = {
    str: {"type": "string"},
    int: {"type": "integer"},
    float: {"type": "number"},
    bool: {"type": "boolean"},
    dt.datetime: {"type": "string", "format": "date-time"},
    dt.date: {"type": "string", "format": "date"},
    uuid.UUID: {"type": "string", "format": "uuid"},
}


def record_schema() -> dict[str, Any]:
    """The schema of the present version; what is empty is left out of a record."""
    defs: dict[str, Any] = {"Text": _TEXT}
    job = _shape(responses.JobResponse, "", defs)
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Signed record of a job",
        "description": "Canonical JSON (RFC 8785). What is empty is left out. Lengths named _mm are in mm, angles in degrees.",
        "type": "object",
        "additionalProperties": False,
        "required": ["format", "version", "core", "templates", "job"],
        "properties": {
            "format": {"const": FORMAT},
            "version": {"const": RECORD_VERSION},
            "core": {"type": "string", "description": "The version of the rules that worked it out."},
            "templates": {
                "type": "object",
                "description": "The sentences it uses, by key, in their words of that day; values stand in braces.",
                "additionalProperties": {"type": "string"},
            },
            "job": job,
        },
        "$defs": dict(sorted(defs.items())),
    }


def _shape(shape: type, name: str, defs: dict[str, Any]) -> dict[str, Any]:
    """A shape as it stands under a name: what is layout there is not in the record."""
    left = LAYOUT.get(name, ())
    key = shape.__name__.removesuffix("Response")
    if key not in defs:
        defs[key] = {}
        hints = get_type_hints(shape)
        kept = (field.name for field in fields(shape) if field.name not in left)
        defs[key] = {
            "type": "object",
            "description": inspect.cleandoc(shape.__doc__ or "").split("\n\n")[0],
            "additionalProperties": False,
            "properties": {one: _of(hints[one], one, defs) for one in kept},
        }
    return {"$ref": f"#/$defs/{key}"}


def _of(hint: Any, name: str, defs: dict[str, Any]) -> dict[str, Any]:
    args = [one for one in get_args(hint) if one is not NoneType]
    if set(args) == set(get_args(Text)):
        return {"$ref": "#/$defs/Text"}
    if get_origin(hint) in (list, tuple):
        return {"type": "array", "items": _of(args[0], name, defs)}
    if isinstance(get_origin(hint), type) and issubclass(get_origin(hint), Mapping):
        return {"type": "object"}
    of = args[0] if args else hint
    if of in KINDS:
        return {"oneOf": [_kind(kind, shape, name, defs) for kind, shape in KINDS[of].items()]}
    if of in _PLAIN:
        return _PLAIN[of]
    if isinstance(of, type) and issubclass(of, Enum):
        return {"enum": [one.value for one in of]}
    if isinstance(of, type) and is_dataclass(of) and of not in get_args(Text):
        return _shape(of, name, defs)
    return {"$ref": "#/$defs/Text"}


def _kind(kind: str, shape: type, name: str, defs: dict[str, Any]) -> dict[str, Any]:
    ref = _shape(shape, name, defs)["$ref"].rpartition("/")[2]
    defs[ref]["required"] = ["kind"]
    defs[ref]["properties"]["kind"] = {"const": kind}
    return {"$ref": f"#/$defs/{ref}"}
