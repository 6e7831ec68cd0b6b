"""What differs between two long texts."""

from __future__ import annotations

MOST, ROUND = 4000, 40
"""Letters of it that are said at the most, and letters beside it that show where it is."""


def differing(one: str | None, other: str | None, second: int) -> str | None:
    """What differs between two texts, and a little round it; of the ``second`` where that is 1, else of the first.

    Where more than ``MOST`` letters differ it is cut there. A dash of three points says that something is left out.
    """
    text = other if second else one
    if text is None:
        return None
    before, after = one or "", other or ""
    begins = _alike(before, after)
    ends = min(_alike(before[::-1], after[::-1]), min(len(before), len(after)) - begins)
    first, last = max(0, begins - ROUND), min(len(text), len(text) - ends + ROUND)
    last = min(last, first + MOST)
    return f"{'… ' if first else ''}{text[first:last]}{' …' if last < len(text) else ''}"


def _alike(one: str, other: str) -> int:
    """How many letters both begin with."""
    shorter = min(len(one), len(other))
    return next((i for i in range(shorter) if one[i] != other[i]), shorter)
