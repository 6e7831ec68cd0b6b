"""Write the published JSON Schemas: those of the open formats, from the code that reads and writes them."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from finegap.bench.presenters.record_schema import record_schema
from finegap.formats.sheet_file import sheet_schema


class Command(BaseCommand):
    """``manage.py write_schemas docs/formats``."""

    help = "Write the JSON Schemas of signed records and spec sheets into a folder."

    def add_arguments(self, parser: CommandParser) -> None:
        """The folder."""
        parser.add_argument("folder", type=Path)

    def handle(self, *args: Any, folder: Path, **options: Any) -> None:
        """One file each."""
        for name, schema in (("job-record", record_schema()), ("spec-sheet", sheet_schema())):
            (folder / f"{name}.schema.json").write_text(json.dumps(schema, ensure_ascii=False, indent=2) + "\n")
