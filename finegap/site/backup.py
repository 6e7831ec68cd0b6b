"""A works in one archive and back: its database, copied while it is in use, and its photographs.

The database is copied by SQLite's own online backup, so that a copy made while somebody saves holds all of the change or nothing
of it. Photographs are copied after it: each one the copy names is there. The key of sessions stays where it is: whoever was
signed in signs in again.
"""

from __future__ import annotations

import json
import shutil
import sqlite3
import tempfile
import zipfile
from contextlib import closing
from pathlib import Path, PurePosixPath

from finegap.core import VERSION
from finegap.site.folder import DATABASE, DEMO, WORKS, OtherFolder, held, keep_apart

FORMAT = "fine-gap/backup"
MEDIA, MANIFEST = "media", "manifest.json"
_MOST_FILES = 1_000_000
_MOST_BYTES = 200 * 1024**3
"""An archive that unpacks to more is none of ours."""


class BackupFault(Exception):
    """An archive cannot be made, or not be restored here; the message is a sentence."""


def back_up(works: Path, archive: Path) -> int:
    """Copy a works into an archive.

    Parameters
    ----------
    works : Path
        Its data folder.
    archive : Path
        Where the archive is to be; it must not be there yet.

    Returns
    -------
    int
        How many photographs are in it.

    Raises
    ------
    BackupFault
        There is no works in the folder, or the archive is there already.
    """
    if not (works / DATABASE).exists():
        raise BackupFault(f"{works} holds no works.")
    if archive.exists():
        raise BackupFault(f"{archive} is there already: choose another name.")
    with tempfile.TemporaryDirectory(dir=archive.parent) as made:
        copy = Path(made) / DATABASE
        with closing(sqlite3.connect(works / DATABASE)) as source, closing(sqlite3.connect(copy)) as target:
            source.backup(target)
            applied = [list(row) for row in target.execute("SELECT app, name FROM django_migrations ORDER BY app, name")]
        photos = sorted(path for path in (works / MEDIA).rglob("*") if path.is_file())
        part = Path(made) / "archive"
        with zipfile.ZipFile(part, "w", zipfile.ZIP_DEFLATED) as into:
            into.writestr(MANIFEST, json.dumps({"format": FORMAT, "core": VERSION, "holds": held(works), "migrations": applied}))
            into.write(copy, DATABASE)
            for photo in photos:
                # Already packed: a second time costs time and saves nothing.
                into.write(photo, f"{MEDIA}/{photo.relative_to(works / MEDIA).as_posix()}", zipfile.ZIP_STORED)
        part.replace(archive)
    return len(photos)


def restore(archive: Path, works: Path, known: set[tuple[str, str]]) -> int:
    """Put a works back from its archive, into a folder that holds none.

    Parameters
    ----------
    archive : Path
        As ``back_up`` made it.
    works : Path
        The data folder; all of the works is there afterwards, or nothing.
    known : set of (app, name)
        The migrations this version has. An archive with others is of a later one.

    Returns
    -------
    int
        How many photographs came back.

    Raises
    ------
    BackupFault
        It is no archive of a works, or damaged, or of a later version; or the folder holds a works.
    """
    if (works / DATABASE).exists():
        raise BackupFault(f"{works} holds a works already: restore into an empty folder.")
    works.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory(dir=works) as unpacked:
        kind, photos = _unpack(archive, Path(unpacked), known)
        _check_database(archive, Path(unpacked) / DATABASE)
        try:
            keep_apart(works, kind)
        except OtherFolder as other:
            raise BackupFault(f"{other}: restore into an empty folder.") from None
        if (Path(unpacked) / MEDIA).exists():
            shutil.copytree(Path(unpacked) / MEDIA, works / MEDIA, dirs_exist_ok=True)
        # Last of all: a folder without it holds no works yet.
        (Path(unpacked) / DATABASE).replace(works / DATABASE)
    return photos


def _unpack(archive: Path, into: Path, known: set[tuple[str, str]]) -> tuple[str, int]:
    try:
        with zipfile.ZipFile(archive) as packed:
            entries = packed.infolist()
            _check(archive, entries)
            manifest = json.loads(packed.read(MANIFEST))
            if manifest["holds"] not in (DEMO, WORKS):
                raise ValueError("it says neither demo nor works")
            later = {(app, name) for app, name in manifest["migrations"]} - known
            if manifest["format"] != FORMAT or later:
                raise BackupFault(f"{archive} is of a later version of Fine Gap ({manifest['core']}): bring this one up to date.")
            for entry in entries:
                packed.extract(entry, into)
    except (OSError, zipfile.BadZipFile, KeyError, ValueError, TypeError) as wrong:
        raise BackupFault(f"{archive} is no archive of a works, or it is damaged ({wrong}).") from None
    return str(manifest["holds"]), sum(entry.filename.startswith(f"{MEDIA}/") for entry in entries)


def _check_database(archive: Path, database: Path) -> None:
    try:
        with closing(sqlite3.connect(database)) as copy:
            (found,) = copy.execute("PRAGMA integrity_check").fetchone()
    except sqlite3.DatabaseError as wrong:
        found = str(wrong)
    if found != "ok":
        raise BackupFault(f"The database in {archive} is damaged: {found}.")


def _check(archive: Path, entries: list[zipfile.ZipInfo]) -> None:
    """Nothing in it but what is ours, in its place, and no more than there can be."""
    names = [entry.filename for entry in entries]
    inside = all(".." not in PurePosixPath(name).parts and not name.startswith("/") for name in names)
    ours = all(name in (DATABASE, MANIFEST) or name.startswith(f"{MEDIA}/") for name in names)
    if not (inside and ours and DATABASE in names and MANIFEST in names and len(set(names)) == len(names)):
        raise BackupFault(f"{archive} is no archive of a works.")
    if len(names) > _MOST_FILES or sum(entry.file_size for entry in entries) > _MOST_BYTES:
        raise BackupFault(f"{archive} unpacks to more than a works can be.")
