"""Stacks of pieces from the shelf, as two means have them: thicknesses as they are read, and as they are shown."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from finegap.core.formatting import Bare, Joined, Sentence, Text, bare, length
from finegap.core.gap.declared import length_of
from finegap.core.gap.stock import piece


@dataclass(frozen=True)
class Piece:
    """A thickness [um] with how many."""

    um: int
    text: Text
    count: int


def um_of(text: str, path: str) -> int:
    """A thickness of a sheet, in whole micrometres."""
    return round(length_of(text, path) * 1000)


def sold(data: Mapping[str, Any]) -> tuple[int, ...]:
    """The thicknesses a sheet lists."""
    return tuple(um_of(text, f"adjustment.thicknesses[{i}]") for i, text in enumerate(data["thicknesses"]))


def pieces(stack: Iterable[int]) -> list[Piece]:
    """A stack as it is drawn, the thickest first."""
    return [Piece(t, Bare(piece(t)), n) for t, n in sorted(Counter(stack).items(), reverse=True)]


def shelf(box: Mapping[int, int]) -> list[Piece]:
    """What is on the shelf, the thinnest first."""
    return [Piece(t, Bare(piece(t)), n) for t, n in sorted(box.items())]


def stack_words(stack: Iterable[int]) -> Text:
    """A stack in words: “0.25 + 2 × 0.05”, or none."""
    counted = sorted(Counter(stack).items(), reverse=True)
    if not counted:
        return "none"
    parts = (Sentence("{n} × {piece}", {"n": str(n), "piece": Bare(piece(t))}) if n > 1 else Bare(piece(t)) for t, n in counted)
    return Joined(tuple(parts), " + ")


def stacks_words(stacks: Sequence[Iterable[int]]) -> Text:
    """Every stack of a try."""
    return Joined(tuple(stack_words(stack) for stack in stacks), " | ")


def listed(sold_um: Sequence[int], start_um: int) -> list[tuple[str, Text]]:
    """What a sheet's page tells of thicknesses that are sold, without what they are called."""
    return [("", Joined(tuple(bare(t / 1000) for t in sold_um))), ("Begin with", length(start_um / 1000))]
