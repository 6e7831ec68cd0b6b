"""What is shown of the works, as plain data."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass


@dataclass(frozen=True)
class BareUnitResponse:
    """What a bare number means: the unit of a kind of quantity, in each unit system, as it is written beside a field."""

    key: str
    mm: str
    inches: str
    thou: str


@dataclass(frozen=True)
class SettingsResponse:
    """What the works decided for itself, who last changed it, and the units of bare numbers.

    ``time_zone`` is the one in force; ``logo`` is empty where there is none.
    """

    name: str
    address: str
    logo: str
    lengths: str
    decimal_mark: str
    date_form: str
    paper: str
    time_zone: str
    currency: str
    school: str
    new_share: str
    photo_side: str
    abandoned_days: str
    idle_days: str
    backup_hours: str
    by: str
    at: dt.datetime | None
    units: list[BareUnitResponse]
