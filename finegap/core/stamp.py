"""By whom something was done, and when."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Stamp:
    """By whom and when, as ISO 8601 with the zone; ``id`` is what it is struck out by, empty where nothing is."""

    id: str = ""
    by: str = ""
    at: str = ""


NOBODY = Stamp()
