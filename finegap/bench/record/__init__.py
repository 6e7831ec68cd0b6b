"""The signed record: a document of its own, its version, and how older ones are read."""

from __future__ import annotations

from typing import Any

from finegap.bench.record import document
from finegap.bench.record.upgrades import RECORD_VERSION, read_twice, upgraded

__all__ = ["RECORD_VERSION", "shown"]

_DOCUMENTS = 8
"""The first version that is a document of its own."""


def shown(kept: bytes, version: int) -> dict[str, Any]:
    """The job of a record of any version, in the shape of now, its texts as they were shown when it was signed."""
    return read_twice(kept, version) if version < _DOCUMENTS else upgraded(document.read(kept), version)
