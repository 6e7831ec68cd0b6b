"""The signed record: a document of its own, its version, and how older ones are read."""

from __future__ import annotations

from typing import Any

from finegap.bench.record import document
from finegap.bench.record.upgrades import RECORD_VERSION, carried, read_twice

__all__ = ["RECORD_VERSION", "shown"]

_DOCUMENTS = 8
"""The first version that is a document of its own."""

_CARRIED = 9
"""The first version whose stacks have sub-assemblies."""


def shown(kept: bytes, version: int) -> dict[str, Any]:
    """The job of a record of any version, in the shape of now, its texts as they were shown when it was signed."""
    if version < _DOCUMENTS:
        return read_twice(kept, version)
    job = document.read(kept)
    return carried(job) if version < _CARRIED else job
