"""Links, as plain data."""

from __future__ import annotations

import datetime as dt
import uuid
from dataclasses import dataclass


@dataclass(frozen=True)
class LinkResponse:
    """A link: for whom, where it leads, how long, who made it, how often it was used. ``state`` is open, ended or revoked."""

    id: uuid.UUID
    to: str
    of: str
    job: int | None
    whom: str
    until: dt.date | None
    by: str
    at: dt.datetime
    state: str
    revoked_by: str
    revoked_at: dt.datetime | None
    uses: int
    last_used: dt.datetime | None
    may_revoke: bool


@dataclass(frozen=True)
class MadeLink:
    """A new link with its address, which is shown this once: only a digest of it is kept."""

    link: LinkResponse
    address: str


@dataclass(frozen=True)
class LinkUseResponse:
    """What was fetched by a link, when, from which address."""

    at: dt.datetime
    address: str
    what: str
