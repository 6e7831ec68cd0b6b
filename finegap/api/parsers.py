"""Bodies of requests: JSON of bounded depth, with nothing in it that cannot be written down again."""

from __future__ import annotations

import json
import math
from collections.abc import Callable, Mapping
from typing import IO, Any

import orjson
from rest_framework.exceptions import ParseError
from rest_framework.parsers import JSONParser

from finegap.core.errors import FieldError

DEEPEST = 12
"""Lists and objects in one another; what is sent goes no deeper than six."""

_LONGEST_NAME = 40


class JSON(JSONParser):
    """JSON, read by orjson: no number beyond a double, no half of a pair of surrogates."""

    def parse(self, stream: IO[Any], media_type: str | None = None, parser_context: Mapping[str, Any] | None = None) -> Any:
        """What the body says.

        Raises
        ------
        ParseError
            It is no JSON.
        FieldError
            It goes deeper than ``DEEPEST``, or something in it cannot be written down.
        """
        body = stream.read()
        try:
            read = orjson.loads(body)
        except orjson.JSONDecodeError as wrong:
            _say_field(body)
            raise ParseError(f"The body is no JSON that can be read: {wrong}.") from None
        deep = place_of(read, lambda value: False)
        if deep is not None:
            raise FieldError(deep, f"it goes deeper than {DEEPEST} lists and objects.", "Expected a plain value.")
        return read


def _say_field(body: bytes) -> None:
    """Name the field that orjson does not take and a laxer reader does; nothing where it is no JSON at all."""
    try:
        read = json.loads(body)
    except (ValueError, RecursionError):
        return
    odd = place_of(read, _is_odd)
    if odd is not None:
        raise FieldError(odd, "it cannot be written down.", "Expected whole letters, and numbers there are.")


def _is_odd(value: Any) -> bool:
    if isinstance(value, float):
        return not math.isfinite(value)
    return isinstance(value, str) and any("\ud800" <= letter <= "\udfff" for letter in value)


def place_of(value: Any, is_odd: Callable[[Any], bool], depth: int = DEEPEST) -> str | None:
    """Where in a value of JSON the first odd one is, or the first below ``depth`` lists and objects; None where there is none.

    A place is a path of names and numbers with points between.
    """
    if not isinstance(value, dict | list):
        return "" if is_odd(value) else None
    if not depth:
        return ""
    for name, one in value.items() if isinstance(value, dict) else enumerate(value):
        found = "" if isinstance(name, str) and is_odd(name) else place_of(one, is_odd, depth - 1)
        if found is not None:
            said = str(name).encode(errors="replace").decode()[:_LONGEST_NAME]
            return f"{said}.{found}" if found else said
    return None
