"""Data of an earlier version, brought up to this one: beside the old data, which stays as it is until all of it went well."""

from __future__ import annotations

import datetime as dt
import sqlite3
from collections.abc import Callable
from contextlib import closing
from pathlib import Path

from django.conf import settings
from django.core.management import call_command
from django.db import connection
from django.db.migrations.loader import MigrationLoader

from finegap.audit.models import whole_works
from finegap.core import VERSION
from finegap.site.backup import BackupFault
from finegap.site.backups import make
from finegap.site.checking import damage_in, loose_in
from finegap.site.folder import DATABASE, InUse, alone, synced

_BESIDE = f"{DATABASE}.upgrade"


class UpgradeFault(Exception):
    """The data cannot be used by this version; the message is a sentence, and the data is as it was."""


class LaterVersion(UpgradeFault):
    """It is of a later one."""


def bring_up_to_date(works: Path, tell: Callable[[str], None] = lambda line: None) -> None:
    """Make the database of a data folder, or bring it up to this version; a backup is made before.

    Raises
    ------
    UpgradeFault
        It is of a later version (``LaterVersion``), somebody serves it, no backup can be made, or a migration failed.
    """
    applied = applied_in(works / DATABASE) if (works / DATABASE).exists() else set()
    if not applied:  # none yet, or broken off before there was anything to keep
        call_command("migrate", verbosity=0)
        return
    on_disk = set(MigrationLoader(None).disk_migrations)
    if later := sorted(applied - on_disk):
        app, name = later[-1]
        raise LaterVersion(
            f"The data in {works} is of a later version of Fine Gap than this one, {VERSION} (it has {app} {name}): bring the"
            " program up to date. The data was not touched."
        )
    if on_disk <= applied:
        return
    try:
        with alone(works):
            _upgrade(works, tell)
    except InUse as use:
        raise UpgradeFault(f"{use} by another version: stop it first, then its data is brought up to date.") from None


def applied_in(database: Path) -> set[tuple[str, str]]:
    """The migrations a database has; none where it was broken off before the first."""
    with closing(sqlite3.connect(database)) as opened:
        # Not by mode=ro: what a killed server left in the log is put in its place first.
        tables = {name for (name,) in opened.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
        if "django_migrations" not in tables:
            return set()
        return {(app, name) for app, name in opened.execute("SELECT app, name FROM django_migrations")}


def _upgrade(works: Path, tell: Callable[[str], None]) -> None:
    tell(f"Bringing the data up to {VERSION} ...")
    try:
        make(works, settings.BACKUPS, dt.datetime.now(dt.UTC), f"before-{VERSION}")
    except BackupFault as fault:
        raise UpgradeFault(f"No backup can be made, and without one the data is not brought up to date: {fault}") from None
    beside = works / _BESIDE
    usual = connection.settings_dict["NAME"]
    connection.close()
    try:
        _clear(works)
        with closing(sqlite3.connect(works / DATABASE)) as source, closing(sqlite3.connect(beside)) as target:
            source.backup(target)
            (busy, *_) = source.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchone()
        if busy:
            raise UpgradeFault("somebody has the database open")
        connection.settings_dict["NAME"] = str(beside)
        call_command("migrate", verbosity=0)
        whole_works("brought up to", VERSION)
        connection.close()
        with closing(sqlite3.connect(beside)) as done:
            wrong = damage_in(done) or loose_in(done)
            done.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        if wrong:
            raise UpgradeFault(f"after it, {wrong[0]}")
    except Exception as wrong:
        connection.close()
        _clear(works)
        because = f"{type(wrong).__name__}: {wrong}"
        raise UpgradeFault(
            f"The data in {works} could not be brought up to {VERSION} ({because}). It is as it was, and a backup of it is in"
            f" {settings.BACKUPS}: go on with the version before, and tell whoever keeps the program."
        ) from wrong
    finally:
        connection.settings_dict["NAME"] = usual
    for log in ("wal", "shm"):
        (works / f"{DATABASE}-{log}").unlink(missing_ok=True)  # empty: all of it is in the database, and the copy has it
    beside.replace(works / DATABASE)
    synced(works)


def _clear(works: Path) -> None:
    for left in works.glob(f"{_BESIDE}*"):
        left.unlink()
