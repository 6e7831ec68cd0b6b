"""Every change to links, declared once."""

from __future__ import annotations

import uuid
from dataclasses import dataclass

from finegap.api import fields as sent


@dataclass(frozen=True)
class ShareReport:
    """A job's report for somebody without an account, up to a day."""

    id: uuid.UUID
    whom: str = sent.text(120)
    until: str = sent.text(10)


@dataclass(frozen=True)
class ShareCalendar:
    """What falls due as a calendar's feed: of one pump, of a place, or of the whole fleet."""

    id: uuid.UUID
    whom: str = sent.text(120)
    pump: str = sent.text(30, "")
    place: str = sent.text(120, "")


@dataclass(frozen=True)
class RevokeLink:
    """A link leads nowhere from now on."""
