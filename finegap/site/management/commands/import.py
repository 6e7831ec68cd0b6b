"""Put a works back from an archive of open files."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser

from finegap.audit.models import whole_works
from finegap.site.archive.back import put_back
from finegap.site.backup import BackupFault


class Command(BaseCommand):
    """``manage.py import FILE``."""

    help = "Put a works back from an archive of open files, into a data folder that holds none."
    requires_system_checks = []

    def add_arguments(self, parser: CommandParser) -> None:
        """Where from."""
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        """Put it back, and say what came back."""
        try:
            rows = put_back(options["file"])
        except BackupFault as fault:
            raise CommandError(str(fault)) from None
        whole_works("put back from", options["file"].name)
        self.stdout.write(f"{settings.VAR}: the works is back, {rows} rows.")
