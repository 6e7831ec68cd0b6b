"""What is shown of the trail, as plain data."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass


@dataclass(frozen=True)
class FieldChangeResponse:
    """A field that differs: as it was and as it is; empty where it had or has no value."""

    field: str
    was: str
    now: str


@dataclass(frozen=True)
class TrailLineResponse:
    """A line of the trail. ``who`` is a name, ``about`` what it belongs to, ``kind`` what was added, changed or removed."""

    id: int
    at: dt.datetime
    who: str
    about: str
    kind: str
    act: str
    fields: list[FieldChangeResponse]
