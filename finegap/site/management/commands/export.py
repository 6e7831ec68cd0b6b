"""Write the whole works into one archive of open files."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from finegap.site.archive.out import take_out


class Command(BaseCommand):
    """``manage.py export FILE``."""

    help = "Write the whole works into one archive of open files: JSON, CSV, PDF, photographs."

    def add_arguments(self, parser: CommandParser) -> None:
        """Where to."""
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        """Write it, and say what is in it."""
        file: Path = options["file"]
        if file.exists():
            raise CommandError(f"{file} is there already: choose another name.")
        part = file.with_name(f"{file.name}.part")
        try:
            out = take_out(part, self._tell)
            part.replace(file)
        finally:
            part.unlink(missing_ok=True)
        size = file.stat().st_size / 1e6
        self.stdout.write(f"{file}: {out.rows} rows, {out.jobs} signed jobs, {out.photos} pictures, {size:.1f} MB.")

    def _tell(self, done: int) -> None:
        if done % 100 == 0:
            self.stdout.write(f"{done} reports printed ...")
