"""Shapes to JSON values: one walk for answers, reports and signed records."""

from __future__ import annotations

import datetime as dt
import uuid
from collections.abc import Callable
from dataclasses import fields
from enum import Enum
from functools import cache
from typing import Any

from finegap.core.formatting import Amount, Bare, Joined, Sentence, Shown, Text, Units, render

TEXTS = (Sentence, Amount, Bare, Joined, Shown)
"""What is written out as text, beside a plain text itself."""


@cache
def _names(kind: type) -> tuple[str, ...]:
    return tuple(f.name for f in fields(kind))


def plain(value: Any, units: Units = Units.MM) -> Any:
    """A shape as dicts, lists, texts and numbers; days, moments and identities as text, all else in a unit system.

    ``dataclasses.asdict`` copies every leaf and is several times slower on a whole job.
    """
    return walked(value, lambda text: render(text, units))


def walked(value: Any, write: Callable[[Text], Any]) -> Any:
    """A shape as dicts, lists and numbers, with each text that has numbers in it as ``write`` has it."""
    if value is None or isinstance(value, str | int | float):
        return value
    if isinstance(value, TEXTS):
        return write(value)
    if isinstance(value, list | tuple):
        return [walked(one, write) for one in value]
    if isinstance(value, dict):
        return {key: walked(one, write) for key, one in value.items()}
    if isinstance(value, dt.datetime | dt.date):
        return value.isoformat()
    if isinstance(value, uuid.UUID):
        return str(value)
    if isinstance(value, Enum):
        return value.value
    names = _names(type(value))  # type: ignore[arg-type]  # every class is hashable
    return {name: walked(getattr(value, name), write) for name in names}
