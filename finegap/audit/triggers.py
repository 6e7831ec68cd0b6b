"""Every change to every row of the works, written down by the database itself, whichever way it came.

History packages listen to ``save()`` and ``delete()``; here rows are also struck, counted and signed by ``update()`` and
``bulk_create()``, which they do not hear. So each connection has SQLite's temporary triggers, which belong to it alone: a
migration, or another program that opens the file, meets none of them.
"""

from __future__ import annotations

from collections.abc import Iterator
from functools import cache
from typing import Any

from django.apps import apps
from django.contrib.auth.models import User
from django.db import models
from django.db.backends.base.base import BaseDatabaseWrapper
from django.utils import timezone

from finegap.audit.differing import differing
from finegap.audit.models import Change
from finegap.audit.who import who

_OURS = ("people", "works", "sheets", "pumps", "fleet", "inventory", "toolbox", "bench", "sharing")
_NOT_KEPT = {
    "bench.event",  # a log itself, on the page of its job
    "bench.sectionversion",  # counts, of no meaning but to a page
    "bench.joblook",  # how far somebody has read
    "sharing.linkuse",  # a log itself, beside its link
    "sheets.sheetdraft",  # typing, until it is kept; a revision says who typed each cell
}  # fmt: skip
_NOT_SAID = {
    "id", "sent", "made", "at", "zone_min", "by", "struck_by", "struck_at", "retired_by", "job", "version", "last_login",
    "date_joined", "verdicts", "verdicts_version", "outside", "meanwhile", "renewed", "wrong", "locked_until", "overhaul",
}  # fmt: skip
"""Fields that say who and when once more, or what the program counts for itself."""
_SECRET = {("auth.user", "password"), ("people.pin", "hashed")}
_NAMED = {
    "bench.job": ("job", "number"), "fleet.pump": ("pump", "tag"), "toolbox.gauge": ("gauge", "tag"),
    "toolbox.greasegun": ("grease gun", "tag"), "sheets.sheet": ("sheet", "slug"), "sheets.shopprocedure": ("procedure", "family"),
    "sheets.sheetdraft": ("draft of a sheet,", "title"),
    "auth.user": ("person", "username"), "auth.group": ("", "name"), "toolbox.certificate": ("", "number"),
    "sheets.sheetrevision": ("", "revision"), "works.workssettings": ("settings", ""),
}  # fmt: skip
"""What a row is called, by its model: a word, and the column that tells it from others."""
_ABOUT = ("bench.job", "fleet.pump", "toolbox.gauge", "toolbox.greasegun", "sheets.sheet", "sheets.shopprocedure", "auth.user",
          "works.workssettings", "sheets.sheetdraft")  # fmt: skip
_WAYS = ("job", "made", "pump", "overhaul", "gauge", "sheet", "revision", "draft", "person", "user")
"""Foreign keys that lead to what a row is about, the nearest first."""
_LONGEST = 200
"""Letters of a text that is said whole; of a longer one its beginning, and where it changes what differs."""


def kept() -> list[type[models.Model]]:
    """Models whose changes are kept."""
    ours = (one for one in apps.get_models(include_auto_created=True) if one._meta.app_label in _OURS)
    return [*(one for one in ours if one._meta.label_lower not in _NOT_KEPT), User, User.groups.through]


def install(connection: BaseDatabaseWrapper) -> None:
    """Have a connection write down what it changes; where there is no trail yet, it does not."""
    there = set(connection.introspection.table_names())
    if Change._meta.db_table not in there:
        return
    remove(connection)
    for name, count, function in (("who", 0, who), ("now", 0, _now), ("differing", 3, differing)):
        connection.connection.create_function(f"finegap_{name}", count, function)
    with connection.cursor() as cursor:
        for table, statements in _statements().items():
            if table in there:
                for statement in statements:
                    cursor.execute(statement)


def remove(connection: BaseDatabaseWrapper) -> None:
    """Have it write down nothing: tables are about to be made anew, or filled from an archive that has its own trail."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT name FROM temp.sqlite_master WHERE type = 'trigger' AND name LIKE 'audit\\_%' ESCAPE '\\'")
        for (name,) in cursor.fetchall():
            cursor.execute(f'DROP TRIGGER temp."{name}"')


def _now() -> str:
    return timezone.now().replace(tzinfo=None).isoformat(" ")


def fields_of(model: type[models.Model]) -> list[models.Field[Any, Any]]:
    """Fields of a model that are said."""
    return [field for field in model._meta.concrete_fields if field.name not in _NOT_SAID]


@cache
def _statements() -> dict[str, list[str]]:
    """The triggers of each table."""
    return {model._meta.db_table: list(_triggers(model)) for model in kept()}


def _triggers(model: type[models.Model]) -> Iterator[str]:
    table, fields = model._meta.db_table, fields_of(model)

    def trigger(act: str, event: str, at: str, of: str) -> str:
        key, kind = f'{at}."{model._meta.pk.column}"', model._meta.label_lower
        known = f"'{act}', finegap_now(), finegap_who(), '{kind}', {key}, {about(model, at)}"
        into = f"INSERT INTO {Change._meta.db_table} (act, at, who, kind, row, about, was, now) SELECT {known}, {of};"
        return f'CREATE TEMP TRIGGER "audit_{act}_{table}" AFTER {event} ON main."{table}" BEGIN {into} END'

    yield trigger("added", "INSERT", "NEW", f"'{{}}', {_whole(model, fields, 'NEW')}")
    yield trigger("removed", "DELETE", "OLD", f"{_whole(model, fields, 'OLD')}, '{{}}'")
    if fields:
        columns = ", ".join(f'"{field.column}"' for field in fields)
        differs = " OR ".join(f'OLD."{field.column}" IS NOT NEW."{field.column}"' for field in fields)
        event = f'UPDATE OF {columns} ON main."{table}" WHEN {differs}'
        yield trigger("changed", "UPDATE", "NEW", _differing(model, fields)).replace(f'UPDATE ON main."{table}"', event, 1)


def _whole(model: type[models.Model], fields: list[models.Field[Any, Any]], at: str) -> str:
    """All fields that have a value, as JSON."""
    each = " UNION ALL ".join(f"SELECT '{field.name}' AS k, {_value(model, field, at)} AS v" for field in fields)
    return f"(SELECT json_group_object(k, v) FROM ({each}) WHERE v IS NOT NULL AND v <> '')" if fields else "'{}'"


def _differing(model: type[models.Model], fields: list[models.Field[Any, Any]]) -> str:
    """The fields that differ, as JSON: as they were, and as they are."""

    def value(field: models.Field[Any, Any], at: str) -> str:
        if not _is_long(field):
            return _value(model, field, at)
        old, new = f'OLD."{field.column}"', f'NEW."{field.column}"'
        longest = f"max(coalesce(length({old}), 0), coalesce(length({new}), 0))"
        part = f"finegap_differing({old}, {new}, {0 if at == 'OLD' else 1})"
        return f'CASE WHEN {longest} > {_LONGEST} THEN {part} ELSE {at}."{field.column}" END'

    each = " UNION ALL ".join(
        f"SELECT '{field.name}' AS k, {value(field, 'OLD')} AS was, {value(field, 'NEW')} AS now"
        f' WHERE OLD."{field.column}" IS NOT NEW."{field.column}"'
        for field in fields
    )
    return f"json_group_object(k, was), json_group_object(k, now) FROM ({each})"


def _value(model: type[models.Model], field: models.Field[Any, Any], at: str) -> str:
    column = f'{at}."{field.column}"'
    if (model._meta.label_lower, field.name) in _SECRET:
        return f"CASE WHEN {column} <> '' THEN '(kept secret)' ELSE '' END"
    if isinstance(field, models.ForeignKey):
        parent = field.related_model
        assert isinstance(parent, type)
        named = parent._meta.label_lower in _NAMED
        return _looked_up(parent, column, _name(parent, "p"), "p") if named else column
    if isinstance(field, models.BinaryField):
        return f"length({column}) || ' bytes'"
    if _is_long(field):
        return f"CASE WHEN length({column}) > {_LONGEST} THEN substr({column}, 1, {_LONGEST}) || ' …' ELSE {column} END"
    return column


def _is_long(field: models.Field[Any, Any]) -> bool:
    return isinstance(field, models.TextField | models.JSONField) or (field.max_length or 0) > _LONGEST


def _name(model: type[models.Model], at: str) -> str:
    word, column = _NAMED[model._meta.label_lower]
    if not column:
        return f"'{word}'"
    return f"'{word} ' || {at}.\"{column}\"" if word else f'{at}."{column}"'


def _looked_up(parent: type[models.Model], key: str, what: str, alias: str) -> str:
    return f'(SELECT {what} FROM main."{parent._meta.db_table}" AS {alias} WHERE {alias}."{parent._meta.pk.column}" = {key})'


def about(model: type[models.Model], at: str, depth: int = 0) -> str:
    """An expression of SQL for what a row is about; empty where nothing leads to it."""
    if model._meta.label_lower in _ABOUT:
        return _name(model, at)
    by_name = {field.name: field for field in model._meta.concrete_fields if isinstance(field, models.ForeignKey)}
    ways = [by_name[way] for way in _WAYS if way in by_name]
    if not ways:
        return "''"
    found = []
    for way in ways[:2]:
        parent = way.related_model
        assert isinstance(parent, type)
        alias = f"a{depth}"
        found.append(_looked_up(parent, f'{at}."{way.column}"', about(parent, alias, depth + 1), alias))
    return f"coalesce({', '.join([*found, repr('')])})"
