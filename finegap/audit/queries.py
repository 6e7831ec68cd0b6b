"""Reading the trail: its lines in words, and the same as a table for a spreadsheet."""

from __future__ import annotations

import csv
from collections.abc import Iterator
from typing import Any

from django.apps import apps
from django.contrib.auth.models import User
from django.core.exceptions import FieldDoesNotExist
from django.db import models
from django.db.models import QuerySet

from finegap.audit.models import WORKS, Change
from finegap.audit.responses import FieldChangeResponse, TrailLineResponse
from finegap.audit.triggers import kept

MOST_EXPORTED = 100_000
_AT_ONCE = 500
_IN_WORDS = {
    "auth.user": "person", "auth.user_groups": "role", "works.workssettings": "settings", "people.pin": "PIN",
    "sheets.sheetrevision": "revision of a sheet", "sheets.shopprocedure": "procedure", "toolbox.shelfline": "shelf",
    "people.personevent": "log of people", WORKS: "works",
    "bench.onhand": "what is on hand", "bench.trycheck": "check of a try", "bench.signoff": "signature",
    "bench.partfitted": "part fitted",
}  # fmt: skip
HEADINGS = ("when (UTC)", "who", "about", "what", "row", "act", "field", "was", "is")


def trail() -> QuerySet[Change]:
    """Every change, the newest first."""
    return Change.objects.all()


def kinds() -> dict[str, str]:
    """What can be changed, in words, by the name of its model."""
    return {model._meta.label_lower: str(model._meta.verbose_name) for model in kept()} | _IN_WORDS


def lines(changes: list[Change]) -> list[TrailLineResponse]:
    """Changes in words, with the names of who made them."""
    names, said = dict(_names(changes)), kinds()
    return [
        TrailLineResponse(
            one.pk, one.at, names.get(one.who, one.who), one.about, said.get(one.kind, one.kind), one.act, fields(one)
        )
        for one in changes
    ]


def _names(changes: list[Change]) -> Iterator[tuple[str, str]]:
    for person in User.objects.filter(username__in={one.who for one in changes}):
        yield person.username, person.get_full_name() or person.username


def fields(change: Change) -> list[FieldChangeResponse]:
    """What differs, field by field."""
    model, old, new = _model(change.kind), change.old, change.new
    return [
        FieldChangeResponse(name.replace("_", " "), _said(model, name, old.get(name)), _said(model, name, new.get(name)))
        for name in dict.fromkeys([*old, *new])
    ]


def _model(kind: str) -> type[models.Model] | None:
    try:
        return apps.get_model(kind)
    except (LookupError, ValueError):
        return None  # a model of an earlier version


def _said(model: type[models.Model] | None, name: str, value: Any) -> str:
    if value is None:
        return ""
    try:
        field = model._meta.get_field(name) if model else None
    except FieldDoesNotExist:
        field = None
    if isinstance(field, models.BooleanField):
        return "yes" if value else "no"
    # All digits there are: two values that differ must not look alike.
    return f"{value:.15g}" if isinstance(value, float) else str(value)


class _Echo:
    """What ``csv`` writes to, line by line."""

    def write(self, line: str) -> str:
        return line


def as_csv(changes: QuerySet[Change]) -> Iterator[str]:
    """The trail as CSV, a line a field; at most ``MOST_EXPORTED`` changes, the newest first."""
    writer = csv.writer(_Echo())
    yield writer.writerow(HEADINGS)
    said = kinds()
    for one in changes[:MOST_EXPORTED].iterator(_AT_ONCE):
        known = (one.at.isoformat(), one.who, one.about, said.get(one.kind, one.kind), one.row, one.act)
        for field in fields(one) or [FieldChangeResponse("", "", "")]:
            yield writer.writerow(_plain(cell) for cell in (*known, field.field, field.was, field.now))


def _plain(cell: str) -> str:
    """No cell is a formula to a spreadsheet, whatever somebody typed."""
    return f"'{cell}" if cell[:1] in "=+-@\t\r" and not _is_number(cell) else cell


def _is_number(cell: str) -> bool:
    try:
        float(cell)
    except ValueError:
        return False
    return True
