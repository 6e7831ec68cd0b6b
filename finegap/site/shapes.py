"""Shapes more than one place shows: workings, lines of sums, choices, outlines."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class GivenShape:
    """A number put into a formula."""

    symbol: str
    meaning: str
    text: str


@dataclass(frozen=True)
class WorkingShape:
    """How a number was reached."""

    title: str
    formula: str
    given: list[GivenShape]
    result: str
    source: str
    notes: list[str]


@dataclass(frozen=True)
class LineShape:
    """A line of a sum: ``stand`` is good, care, ask or stop."""

    name: str
    text: str
    stand: str
    working: WorkingShape | None


@dataclass(frozen=True)
class NamedShape:
    """One of a list to choose from."""

    key: str
    name: str


@dataclass(frozen=True)
class MarkShape:
    """One outline of a drawing."""

    style: str
    path: str
