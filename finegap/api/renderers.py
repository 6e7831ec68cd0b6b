"""Answers as bytes."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import orjson
from rest_framework.renderers import JSONRenderer


class JSON(JSONRenderer):
    """JSON, written by orjson: an answer is plain already."""

    def render(self, data: Any, accepted_media_type: str | None = None, renderer_context: Mapping[str, Any] | None = None) -> bytes:
        """As UTF-8; nothing where there is no answer."""
        return b"" if data is None else orjson.dumps(data)
