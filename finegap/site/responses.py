"""Shapes more than one place shows: choices, outlines.

Workings and lines of sums are the core's own. A ``Text`` is written out in the unit system asked for when the answer is made
(``site.plain``); shapes have none.
"""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class NamedResponse:
    """One of a list to choose from."""

    key: str
    name: str


@dataclass(frozen=True)
class MarkResponse:
    """One outline of a drawing."""

    style: str
    path: str
