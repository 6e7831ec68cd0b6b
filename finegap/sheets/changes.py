"""Every change to sheets and procedures, declared once: validation, service and schema read it here."""

from __future__ import annotations

from dataclasses import dataclass

from finegap.api import fields as sent


@dataclass(frozen=True)
class SheetFile:
    """A sheet file's contents."""

    text: str = sent.text(2_000_000, filled=True, as_written=True)


@dataclass(frozen=True)
class StepLine:
    """A step as the shop wants it."""

    key: str = sent.text(40, filled=True)
    stage: str = sent.text(20, filled=True)
    text: str = sent.text(400, "")
    why: str = sent.text(400, "")
    hold: bool = False


@dataclass(frozen=True)
class KeepProcedure:
    """A shop's version of a procedure, made from ``version``; 0 is the family's own. ``conventions`` are its choices by key."""

    version: int = sent.number(0, 2**31)
    steps: list[StepLine] = sent.required()
    conventions: dict[str, str] = sent.by_name(40)
