"""Queries that every save asks again: their SQL is made once, and what was not written meanwhile is not read twice.

Django makes the SQL of a queryset anew each time it is asked, which takes ten times what SQLite needs to answer. A job is read by
some fifteen queries that differ in one number.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from functools import cached_property
from typing import Any, Generic, TypeVar

from django.db import models

M = TypeVar("M", bound=models.Model)

_STAND_IN = 1_913_771_377
"""Stands for what is asked for while the SQL is made."""


class Compiled(Generic[M]):
    """A queryset that depends on one key alone, as a call: ``rows(key)``."""

    def __init__(self, of: Callable[[Any], models.QuerySet[M]]) -> None:
        self._of = of

    @cached_property
    def _made(self) -> tuple[models.QuerySet[M], str, tuple[Any, ...]]:
        asked = self._of(_STAND_IN)
        sql, values = asked.query.sql_with_params()
        return asked, sql, values

    @cached_property
    def tables(self) -> frozenset[str]:
        """The tables it reads."""
        return frozenset(re.findall(r'(?:FROM|JOIN) "(\w+)"', self._made[1]))

    def __call__(self, key: int = 0) -> list[M]:
        """The rows, as the queryset would answer them."""
        asked, sql, values = self._made
        return list(asked.model._default_manager.raw(sql, [key if one == _STAND_IN else one for one in values]))


class Reader:
    """Reads rows within one transaction: those of tables that nobody wrote since are there already.

    The transaction keeps everybody else from writing, and its own statements are ``seen``.
    """

    def __init__(self) -> None:
        self._rows: dict[tuple[Compiled[Any], int], list[Any]] = {}

    def __call__(self, rows: Compiled[M], key: int = 0) -> list[M]:
        """The rows, as they stand."""
        if (rows, key) not in self._rows:
            self._rows[rows, key] = rows(key)
        return list(self._rows[rows, key])

    def seen(self, execute: Any, sql: str, values: Any, many: bool, context: Any) -> Any:
        """Forget what a statement may have changed (a wrapper for ``connection.execute_wrapper``)."""
        verb = sql.split(None, 1)[0].upper()
        if verb != "SELECT":
            written = re.match(r'(?:INSERT INTO|UPDATE|DELETE FROM) "(\w+)"', sql)
            self._rows = {at: kept for at, kept in self._rows.items() if written and written[1] not in at[0].tables}
        return execute(sql, values, many, context)
