"""Copy the works into one archive, while it is in use."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser

from finegap.site.backup import BackupFault, back_up


class Command(BaseCommand):
    """``manage.py backup FILE``."""

    help = "Copy the works, database and photographs, into one archive, while it is in use."

    def add_arguments(self, parser: CommandParser) -> None:
        """Where to."""
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        """Copy, and say what was copied."""
        try:
            photos = back_up(settings.VAR, options["file"])
        except BackupFault as fault:
            raise CommandError(str(fault)) from None
        size = options["file"].stat().st_size / 1e6
        self.stdout.write(f"{options['file']}: the database and {photos} photographs, {size:.1f} MB.")
