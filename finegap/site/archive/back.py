"""Everything back, into a folder that holds no works: the tables of the day it left, filled, then brought up to date."""

from __future__ import annotations

import json
import lzma
import shutil
import tempfile
import zipfile
from collections.abc import Callable
from pathlib import Path, PurePosixPath
from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.db import DatabaseError, connection, transaction
from django.db.migrations.executor import MigrationExecutor
from django.db.migrations.loader import MigrationLoader
from django.db.migrations.state import StateApps

from finegap.site.archive.out import FORMAT, FORMAT_VERSION, MANIFEST, MEDIA, SECRETS, record_name
from finegap.site.archive.rows import read, tables
from finegap.site.backup import BackupFault
from finegap.site.folder import DATABASE, DEMO, WORKS, OtherFolder, keep_apart

_MOST_FILES, _MOST_BYTES = 1_000_000, 200 * 1024**3
_LARGEST_RECORD = 50 * 1024 * 1024

Manifest = dict[str, Any]


def put_back(archive: Path) -> int:
    """Put a works back from its archive, into the data folder of the settings, which must hold none.

    Returns
    -------
    int
        How many rows came back.

    Raises
    ------
    BackupFault
        It is no such archive, is damaged, or is of a later version; or the folder holds a works. Nothing of it is left then.
    """
    works = settings.VAR
    if (works / DATABASE).exists():
        raise BackupFault(f"{works} holds a works already: choose an empty folder.")
    try:
        with zipfile.ZipFile(archive) as packed:
            manifest = _checked(archive, packed)
            try:
                rows = filled(packed, manifest)
            except BaseException:
                connection.close()
                for left in works.glob(f"{DATABASE}*"):
                    left.unlink()
                raise
    except (OSError, zipfile.BadZipFile, KeyError, ValueError, TypeError, DatabaseError) as wrong:
        raise BackupFault(f"{archive} is no archive of a works, or it is damaged ({wrong}).") from None
    call_command("migrate", verbosity=0)
    return rows


def _checked(archive: Path, packed: zipfile.ZipFile) -> Manifest:
    entries = packed.infolist()
    if any(".." in PurePosixPath(one.filename).parts or one.filename.startswith("/") for one in entries):
        raise BackupFault(f"{archive} is no archive of a works.")
    if len(entries) > _MOST_FILES or sum(one.file_size for one in entries) > _MOST_BYTES:
        raise BackupFault(f"{archive} unpacks to more than a works can be.")
    manifest: Manifest = json.loads(packed.read(MANIFEST))
    if manifest["format"] != FORMAT:
        raise ValueError("it is of another kind")
    known = set(MigrationLoader(None).disk_migrations)
    if manifest["version"] > FORMAT_VERSION or {(app, name) for app, name in manifest["migrations"]} - known:
        raise BackupFault(f"{archive} is of a later version of Fine Gap ({manifest['core']}): bring this one up to date.")
    if manifest["holds"] not in (DEMO, WORKS):
        raise ValueError("it says neither demo nor works")
    try:
        keep_apart(settings.VAR, manifest["holds"])
    except OtherFolder as other:
        raise BackupFault(f"{other}: choose an empty folder.") from None
    return manifest


def filled(packed: zipfile.ZipFile, manifest: Manifest) -> int:
    """Make the tables of an archive, and fill them: all of them, or none.

    Raises
    ------
    ValueError, KeyError, DatabaseError
        Something of it is missing, or does not go together.
    """
    models = _tables_of(manifest)
    secrets = json.loads(packed.read(SECRETS)) if SECRETS in packed.namelist() else {}
    records, rows = _records(packed), 0
    with tempfile.TemporaryDirectory(dir=settings.VAR) as unpacked, transaction.atomic():
        for model in tables(models):
            label = model._meta.label_lower
            with connection.cursor() as cursor:  # what a migration put there
                cursor.execute(f"DELETE FROM {connection.ops.quote_name(model._meta.db_table)}")
            with packed.open(f"data/{label}.jsonl") as lines:
                count = read(model, lines, secrets.get(label, {}), records)
            if count != manifest["rows"][label]:
                raise ValueError(f"{label} has {count} rows, not {manifest['rows'][label]}")
            rows += count
        connection.check_constraints()
        _media(packed, Path(unpacked))
    return rows


def _tables_of(manifest: Manifest) -> StateApps:
    """The tables as they were when it left, made in the database; empty."""
    executor = MigrationExecutor(connection)
    applied = {(app, name) for app, name in manifest["migrations"]}
    graph = executor.loader.graph
    ends = [one for one in applied if one in graph.nodes and not {c.key for c in graph.node_map[one].children} & applied]
    executor.migrate(ends)
    return executor.loader.project_state(ends).apps


def _records(packed: zipfile.ZipFile) -> Callable[[Any], bytes]:
    """Tells the record of a signature, compressed as it is kept."""
    with packed.open("data/bench.job.jsonl") as lines:
        numbers = {job["id"]: job["number"] for job in map(json.loads, lines)}

    def record(signature: Any) -> bytes:
        entry = packed.getinfo(record_name(numbers[signature.job_id]))
        if entry.file_size > _LARGEST_RECORD:
            raise ValueError(f"{entry.filename} is larger than a record can be")
        return lzma.compress(packed.read(entry), format=lzma.FORMAT_ALONE, preset=9)

    return record


def _media(packed: zipfile.ZipFile, unpacked: Path) -> None:
    for entry in packed.infolist():
        if entry.filename.startswith(f"{MEDIA}/"):
            packed.extract(entry, unpacked)
    if (unpacked / MEDIA).exists():
        shutil.copytree(unpacked / MEDIA, settings.MEDIA_ROOT, dirs_exist_ok=True)
