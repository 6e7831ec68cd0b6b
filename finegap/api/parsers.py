"""Bodies of requests: JSON of bounded depth, with nothing in it that cannot be written down again."""

from __future__ import annotations

from collections.abc import Mapping
from typing import IO, Any

import orjson
from rest_framework.exceptions import ParseError
from rest_framework.parsers import JSONParser

DEEPEST = 12
"""Lists and objects in one another; what is sent goes no deeper than six."""


class JSON(JSONParser):
    """JSON, read by orjson: no number beyond a double, no half of a pair of surrogates."""

    def parse(self, stream: IO[Any], media_type: str | None = None, parser_context: Mapping[str, Any] | None = None) -> Any:
        """What the body says.

        Raises
        ------
        ParseError
            It is no JSON, or deeper than ``DEEPEST``.
        """
        try:
            read = orjson.loads(stream.read())
        except orjson.JSONDecodeError as wrong:
            raise ParseError(f"The body is no JSON that can be read: {wrong}.") from None
        if not within(read, DEEPEST):
            raise ParseError(f"The body is no JSON that can be read: it goes deeper than {DEEPEST} lists and objects.")
        return read


def within(value: Any, depth: int) -> bool:
    """Whether a value of JSON has no more than so many lists and objects in one another."""
    if not isinstance(value, dict | list):
        return True
    each = value.values() if isinstance(value, dict) else value
    return depth > 0 and all(within(one, depth - 1) for one in each)
