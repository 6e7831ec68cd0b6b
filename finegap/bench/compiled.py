"""Queries that every save asks again: their SQL is made once.

Django makes the SQL of a queryset anew each time it is asked, which takes ten times what SQLite needs to answer. A job is read by
some fifteen queries that differ in one number.
"""

from __future__ import annotations

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

    def __call__(self, key: int = 0) -> list[M]:
        """The rows, as the queryset would answer them."""
        asked, sql, values = self._made
        return list(asked.model._default_manager.raw(sql, [key if one == _STAND_IN else one for one in values]))
