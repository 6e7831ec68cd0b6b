"""Everything out: rows, sheets, signed records and their reports, photographs, and tables for a spreadsheet."""

from __future__ import annotations

import json
import zipfile
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import IO, Any

from django.apps import apps
from django.conf import settings
from django.db import connection

from finegap.bench.files import printed
from finegap.bench.models import SignOff
from finegap.core import VERSION
from finegap.core.formatting import Units
from finegap.formats.sheet_file import write_file
from finegap.sheets.models import SheetRevision
from finegap.site.archive.readable import write_tables
from finegap.site.archive.rows import tables, written
from finegap.site.folder import held
from finegap.works.queries import works_settings

FORMAT, FORMAT_VERSION = "fine-gap/works", 1
MANIFEST, SECRETS, MEDIA = "manifest.json", "secrets.json", "media"
_AT_ONCE = 50
_README = """This is a whole works, out of Fine Gap, as open files.

data      every table, one line of JSON a row
tables    the same for a spreadsheet, as CSV: gauges, shelf, pumps, jobs, readings
jobs      every signed job: its record as JSON, and its report as PDF
sheets    every revision of every spec sheet, as the file that was read
media     photographs, and the picture on reports

secrets.json holds the hashes of passwords and PINs. Delete it before you hand this on; whoever comes back from here then needs a
new password. `fine-gap import FILE` puts all of it back into an empty folder.
"""


@dataclass(frozen=True)
class TakenOut:
    """How many rows, signed jobs and photographs are in an archive."""

    rows: int
    jobs: int
    photos: int


def take_out(archive: Path | IO[bytes], tell: Callable[[int], None] = lambda done: None) -> TakenOut:
    """Write the works into an archive, as it is at one moment, while it is in use.

    Parameters
    ----------
    archive : Path or file
        Where it is to be. What is there is overwritten.
    tell : callable
        Called with the number of signed jobs that are done: each has its report printed.

    Returns
    -------
    TakenOut
        What is in it.
    """
    with one_moment(), zipfile.ZipFile(archive, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr("README.txt", _README)
        counts, secrets = _rows(packed)
        packed.writestr(SECRETS, json.dumps(secrets))
        write_tables(packed)
        for one in SheetRevision.objects.select_related("sheet").order_by("pk").iterator(_AT_ONCE):
            packed.writestr(f"sheets/{one.sheet.slug}/{one.pk}.json", write_file(one.content))
        jobs = _jobs(packed, tell)
        photos = _media(packed)
        packed.writestr(MANIFEST, json.dumps(_manifest(counts), indent=1))
    return TakenOut(sum(counts.values()), jobs, photos)


@contextmanager
def one_moment() -> Iterator[None]:
    """All that is read is of one moment, and whoever saves does not wait for it: a reader's transaction, in WAL."""
    if connection.in_atomic_block:
        yield  # a moment of its own already
        return
    with connection.cursor() as cursor:
        cursor.execute("BEGIN DEFERRED")
        try:
            yield
        finally:
            cursor.execute("ROLLBACK")


def _rows(packed: zipfile.ZipFile) -> tuple[dict[str, int], dict[str, Any]]:
    counts, secrets = {}, {}
    for model in tables(apps):
        with packed.open(f"data/{model._meta.label_lower}.jsonl", "w", force_zip64=True) as into:
            counts[model._meta.label_lower], apart = written(model, into)
        if apart:
            secrets[model._meta.label_lower] = apart
    return counts, secrets


def record_name(job: int) -> str:
    """Where the record of a signed job is, by its number."""
    return f"jobs/{job:06}/record.json"


def _jobs(packed: zipfile.ZipFile, tell: Callable[[int], None]) -> int:
    units, done = Units(works_settings().lengths), 0
    for signed in SignOff.objects.select_related("job").order_by("job__number").iterator(_AT_ONCE):
        number = signed.job.number
        packed.writestr(record_name(number), signed.signed_bytes)
        report = printed(number, units)
        packed.writestr(f"jobs/{number:06}/report.pdf", report or b"", zipfile.ZIP_STORED)
        done += 1
        tell(done)
    return done


def _media(packed: zipfile.ZipFile) -> int:
    root, count = Path(settings.MEDIA_ROOT), 0
    for path in sorted(root.rglob("*")):
        if path.is_file():
            packed.write(path, f"{MEDIA}/{path.relative_to(root).as_posix()}", zipfile.ZIP_STORED)
            count += 1
    return count


def _manifest(counts: dict[str, int]) -> dict[str, Any]:
    with connection.cursor() as cursor:
        cursor.execute("SELECT app, name FROM django_migrations ORDER BY app, name")
        applied = [list(row) for row in cursor.fetchall()]
    holds = held(settings.VAR)
    return {
        "format": FORMAT, "version": FORMAT_VERSION, "core": VERSION, "holds": holds, "migrations": applied, "rows": counts,
    }  # fmt: skip
