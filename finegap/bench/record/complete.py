"""Fills a shape that was stored without its empty fields: every field of its type is there again."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import fields, is_dataclass
from functools import cache
from types import NoneType
from typing import Any, get_args, get_origin, get_type_hints

_NAMED = "kind"


def completed(shape: type, record: Mapping[str, Any], kinds: Mapping[type, Mapping[str, type]]) -> dict[str, Any]:
    """A record with every field of its shape.

    Parameters
    ----------
    shape : type
        The dataclass it is of.
    record : mapping
        What is there of it.
    kinds : mapping
        For each base of several shapes, those by their ``kind``.
    """
    if shape in kinds:
        shape = kinds[shape].get(record[_NAMED], shape)
    hints = _hints(shape)
    return {name: _field(hint, record[name], kinds) if name in record else _empty(hint) for name, hint in hints.items()}


@cache
def _hints(shape: type) -> dict[str, Any]:
    hints = get_type_hints(shape)
    return {field.name: hints[field.name] for field in fields(shape)}


def _field(hint: Any, value: Any, kinds: Mapping[type, Mapping[str, type]]) -> Any:
    if isinstance(value, list) and get_origin(hint) in (list, tuple):
        (of, *_) = get_args(hint)
        return [_field(of, one, kinds) for one in value]
    if isinstance(value, dict):
        shape = next((one for one in (hint, *get_args(hint)) if is_dataclass(one)), None)
        if isinstance(shape, type):
            return completed(shape, value, kinds)
    return value


def _empty(hint: Any) -> Any:
    if get_origin(hint) in (list, tuple):
        return []
    if NoneType in get_args(hint):
        return None
    return {bool: False, int: 0, float: 0.0}.get(hint, "")
