"""Put a works back from its archive."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import connection
from django.db.migrations.loader import MigrationLoader

from finegap.site.backup import BackupFault, restore


class Command(BaseCommand):
    """``manage.py restore FILE``."""

    help = "Put a works back from its archive, into a data folder that holds none."
    requires_system_checks = []

    def add_arguments(self, parser: CommandParser) -> None:
        """Where from."""
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        """Put it back, bring it up to date, and say what came back."""
        known = set(MigrationLoader(None).disk_migrations)
        try:
            photos = restore(options["file"], settings.VAR, known)
        except BackupFault as fault:
            raise CommandError(str(fault)) from None
        connection.close()
        call_command("migrate", verbosity=0)
        self.stdout.write(f"{settings.VAR}: the works is back, with {photos} photographs.")
