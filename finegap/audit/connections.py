"""Temporary triggers of every connection: made when it is, taken off while tables are made anew."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from django.apps import AppConfig
from django.db import connections
from django.db.backends.base.base import BaseDatabaseWrapper
from django.db.backends.signals import connection_created
from django.db.models.signals import post_migrate, pre_migrate

Act = Callable[[BaseDatabaseWrapper], None]


def on_every_connection(app: AppConfig, install: Act, remove: Act, after: Act | None = None) -> None:
    """Have every connection do something of its own.

    Parameters
    ----------
    app : AppConfig
        For whose migrations it is taken off and made anew.
    install, remove : callable
        Make the triggers of a connection, and take them off.
    after : callable, optional
        What is done once tables were made anew.
    """

    def created(connection: Any, **_: Any) -> None:
        install(connection)

    def before(using: str, **_: Any) -> None:
        remove(connections[using])

    def anew(using: str, **_: Any) -> None:
        install(connections[using])
        if after is not None:
            after(connections[using])

    connection_created.connect(created, weak=False)
    pre_migrate.connect(before, sender=app, weak=False)
    post_migrate.connect(anew, sender=app, weak=False)
