"""A result that can show how it was reached: formula, numbers put in, result, source."""

from __future__ import annotations

from dataclasses import dataclass

from finegap.core.formatting import Sentence, Text


@dataclass(frozen=True)
class Given:
    """One number that went into a formula."""

    symbol: str
    meaning: str
    text: Text


@dataclass(frozen=True)
class Working:
    """The margin of the bench sheet for one number.

    ``formula`` is in the symbols of ``given``; ``source`` names the standard, the sheet page or “common practice”.
    """

    title: str
    formula: str
    given: tuple[Given, ...]
    result: Text
    source: str
    notes: tuple[Sentence, ...] = ()
