"""The people of the demo, and how each says who it is; there is nobody like that outside the demo."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class DemoPerson:
    """What the demo's sign-in page shows of a person."""

    password: str
    pin: str


PEOPLE = {"ines": DemoPerson("bench-and-vice", "2708"), "otto": DemoPerson("lock-and-tag", "5163")}
"""By user name: a technician and a lead."""
