"""Rows of the database as lines of JSON, one file a table, and back.

Each line is an object: the name of every column, and its value. Moments, days and identities are text as ISO 8601 and RFC 9562
have them. What may not leave is not there: the hashes of passwords and PINs stand in a file of their own.
"""

from __future__ import annotations

import datetime as dt
import json
from collections.abc import Callable, Iterable, Iterator
from itertools import islice
from typing import IO, Any

from django.apps.registry import Apps
from django.db import models
from django.db.models.fields.files import FieldFile

_NOT_THE_WORKS = ("contenttypes", "sessions", "messages", "axes", "otp_static", "otp_totp", "due")
"""A second factor is set up anew: its key is never in an archive that is handed on. What falls due is worked out anew."""
_NOBODY_HAS = ("auth.permission", "auth.group_permissions", "auth.user_user_permissions")
"""Django makes its permissions anew; roles are groups here."""
_SECRETS = {("auth", "user"): "password", ("people", "pin"): "hashed"}
"""Columns that stand apart."""
_ELSEWHERE = {("bench", "signoff"): "document"}
"""A signed record is a file of its own."""
_AT_ONCE = 500

Row = dict[str, Any]


def tables(apps: Apps) -> list[type[models.Model]]:
    """Every table of the works, those between two others too, by name."""
    found = apps.get_models(include_auto_created=True)
    ours = (one for one in found if one._meta.app_label not in _NOT_THE_WORKS)
    return sorted((one for one in ours if one._meta.label_lower not in _NOBODY_HAS), key=lambda one: one._meta.label_lower)


def key_of(model: type[models.Model]) -> tuple[str, str]:
    """App and name."""
    return model._meta.app_label, str(model._meta.model_name)


def written(model: type[models.Model], into: IO[bytes]) -> tuple[int, Row]:
    """Write a table.

    Returns
    -------
    tuple of int and dict
        How many rows it has, and what of it stands apart, by the key of its row.
    """
    secret, count, apart = _SECRETS.get(key_of(model)), 0, {}
    fields = [f for f in model._meta.concrete_fields if f.name != _ELSEWHERE.get(key_of(model))]
    for row in model._base_manager.order_by("pk").iterator(_AT_ONCE):
        cells = {field.attname: _cell(field.value_from_object(row)) for field in fields}
        if secret:
            apart[str(row.pk)] = cells.pop(secret)
        into.write(json.dumps(cells, default=_plain, ensure_ascii=False).encode() + b"\n")
        count += 1
    return count, apart


def _cell(value: Any) -> Any:
    return value.name if isinstance(value, FieldFile) else value


def _plain(value: Any) -> str:
    # Django's own encoder cuts moments to the millisecond, and they would not come back as they were.
    return value.isoformat() if isinstance(value, dt.date | dt.time) else str(value)


def read(model: type[models.Model], lines: Iterable[bytes], apart: Row, contents: Callable[[models.Model], bytes]) -> int:
    """Put a table back.

    Parameters
    ----------
    model : type of Model
        The table, empty.
    lines : iterable of bytes
        As ``written`` wrote them.
    apart : dict
        What stood apart, by the key of its row.
    contents : callable
        Tells the contents of the file of a row, for a table that has files.

    Returns
    -------
    int
        How many rows came back.
    """
    secret, elsewhere, count = _SECRETS.get(key_of(model)), _ELSEWHERE.get(key_of(model)), 0
    rows = _rows(model, lines)
    while made := list(islice(rows, _AT_ONCE)):
        for one in made:
            if secret:
                setattr(one, secret, apart.get(str(one.pk), "!" if secret == "password" else ""))
            if elsewhere:
                setattr(one, elsewhere, contents(one))
        model._base_manager.bulk_create(made)
        count += len(made)
    return count


def _rows(model: type[models.Model], lines: Iterable[bytes]) -> Iterator[models.Model]:
    fields = {field.attname: field for field in model._meta.concrete_fields}
    for line in lines:
        cells = json.loads(line)
        yield model(**{name: _value(fields[name], value) for name, value in cells.items()})


def _value(field: models.Field[Any, Any], value: Any) -> Any:
    if isinstance(field, models.ForeignKey):
        return field.target_field.to_python(value)
    return field.to_python(value)
