from typing import Any

from django.apps import AppConfig
from django.db.backends.signals import connection_created
from django.db.models.signals import post_migrate, pre_migrate


class Config(AppConfig):
    name = "finegap.audit"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Every connection writes its changes down, but while tables are made anew."""
        from django.db import connections

        from finegap.audit.triggers import install, remove

        def created(connection: Any, **_: Any) -> None:
            install(connection)

        def before(using: str, **_: Any) -> None:
            remove(connections[using])

        def after(using: str, **_: Any) -> None:
            install(connections[using])

        connection_created.connect(created, weak=False)
        pre_migrate.connect(before, sender=self, weak=False)
        post_migrate.connect(after, sender=self, weak=False)
