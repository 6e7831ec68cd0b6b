"""Shapes that more than one page shows."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class NamedResponse:
    """One of a list to choose from."""

    key: str
    name: str
