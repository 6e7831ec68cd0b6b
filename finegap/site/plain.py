"""Shapes to JSON values: one walk for answers, reports and signed records."""

from __future__ import annotations

import datetime as dt
import uuid
from dataclasses import fields
from functools import cache
from typing import Any


@cache
def _names(kind: type) -> tuple[str, ...]:
    return tuple(f.name for f in fields(kind))


def plain(value: Any) -> Any:
    """A shape as dicts, lists, texts and numbers; days, moments and identities as text.

    ``dataclasses.asdict`` copies every leaf and is several times slower on a whole job.
    """
    if value is None or isinstance(value, str | int | float):
        return value
    if isinstance(value, list):
        return [plain(one) for one in value]
    if isinstance(value, dict):
        return {key: plain(one) for key, one in value.items()}
    if isinstance(value, dt.datetime | dt.date):
        return value.isoformat()
    if isinstance(value, uuid.UUID):
        return str(value)
    names = _names(type(value))  # type: ignore[arg-type]  # every class is hashable
    return {name: plain(getattr(value, name)) for name in names}
