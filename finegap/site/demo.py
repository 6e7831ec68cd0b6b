"""The people of the demo, and how each says who it is; there is nobody like that outside the demo."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass

from django.contrib.auth.models import User

from finegap.sheets.drafts import lines_of, said_of
from finegap.sheets.models import LineRead, SheetRevision


@dataclass(frozen=True)
class DemoPerson:
    """What the demo's sign-in page shows of a person."""

    password: str
    pin: str


PEOPLE = {"ines": DemoPerson("bench-and-vice", "2708"), "otto": DemoPerson("lock-and-tag", "5163")}
"""By user name: a technician and a lead."""


def read_as_it_is(kept: SheetRevision, reader: User, at: dt.datetime, lines: int | None = None) -> None:
    """Read an invented sheet against itself, whole or its first lines: there is no manual of it.

    The demo and tests alone do that. In a works every line goes through ``sheets.reading``.
    """
    every = lines_of(kept)
    LineRead.objects.bulk_create(
        LineRead(revision=kept, path=line.path, said=said_of(line), agrees=True, by=reader, at=at) for line in every[:lines]
    )
    if lines is None:
        kept.read_at, kept.read_names = at, reader.get_full_name() or reader.username
        kept.save(update_fields=["read_at", "read_names"])
