"""What a sum comes to, said in lines: each with its working, and whether the work may go on."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import Enum

from finegap.core.showing import Text
from finegap.core.working import Working


class Stand(Enum):
    """Whether the work may go on: yes, with care, not before somebody was asked, or no."""

    GOOD = "good"
    CARE = "care"
    ASK = "ask"
    STOP = "stop"


_WORSE = (Stand.GOOD, Stand.CARE, Stand.ASK, Stand.STOP)


@dataclass(frozen=True)
class Line:
    """One result: what it is, the result in words or as a number, how it stands, and how it was reached."""

    name: str
    text: Text
    stand: Stand = Stand.GOOD
    working: Working | None = None


def worst(lines: Iterable[Line]) -> Stand:
    """How all of them together stand."""
    return max((line.stand for line in lines), key=_WORSE.index, default=Stand.GOOD)
