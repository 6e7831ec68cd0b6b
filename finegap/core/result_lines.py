"""What a sum comes to, said in lines: each with its working, and whether the work may go on."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import Enum

from finegap.core.formatting import Text
from finegap.core.working import Working


class Status(Enum):
    """Whether the work may go on: yes, with care, not before somebody was asked, or no."""

    GOOD = "good"
    CARE = "care"
    ASK = "ask"
    STOP = "stop"


_WORSE = (Status.GOOD, Status.CARE, Status.ASK, Status.STOP)


@dataclass(frozen=True)
class ResultLine:
    """One result: what it is, the result in words or as a number, how it stands, and how it was reached."""

    name: str
    text: Text
    status: Status = Status.GOOD
    working: Working | None = None


def worst(lines: Iterable[ResultLine]) -> Status:
    """How all of them together stand."""
    return max((line.status for line in lines), key=_WORSE.index, default=Status.GOOD)
