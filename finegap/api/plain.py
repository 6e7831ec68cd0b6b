"""Shapes to JSON values: one walk for answers, reports and signed records."""

from __future__ import annotations

import datetime as dt
import uuid
from collections.abc import Callable
from dataclasses import fields, is_dataclass
from enum import Enum
from functools import cache
from typing import Any

from finegap.core.formatting import Amount, Bare, Joined, Sentence, Shown, Text, Units, render
from finegap.core.working import Working

TEXTS = (Sentence, Amount, Bare, Joined, Shown)
"""What is written out as text, beside a plain text itself."""


_WORKING = {f.name for f in fields(Working)}


def is_working(value: Any) -> bool:
    """Whether it is a working; one of a frozen record is known by its fields."""
    return isinstance(value, Working) or (isinstance(value, dict) and value.keys() == _WORKING)


@cache
def _names(kind: type) -> tuple[str, ...]:
    return tuple(f.name for f in fields(kind))


def plain(value: Any, units: Units = Units.MM) -> Any:
    """A shape as dicts, lists, texts and numbers; days, moments and identities as text, all else in a unit system.

    ``dataclasses.asdict`` copies every leaf and is several times slower on a whole job.
    """
    return walked(value, lambda text: render(text, units))


def placed(value: Any, units: Units, place: str) -> Any:
    """As ``plain``, but for workings: each is its title and the place where it is asked for, below the place of the value."""
    if is_working(value):
        return {"title": value["title"] if isinstance(value, dict) else value.title, "at": place}
    if isinstance(value, list | tuple):
        return [placed(one, units, f"{place}/{i}") for i, one in enumerate(value)]
    if isinstance(value, dict):
        return {key: placed(one, units, f"{place}/{key}") for key, one in value.items()}
    if is_dataclass(value) and not isinstance(value, TEXTS):
        return {name: placed(getattr(value, name), units, f"{place}/{name}") for name in _names(type(value))}  # type: ignore[arg-type]  # every class is hashable
    return plain(value, units)


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
