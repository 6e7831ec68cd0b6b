"""A works put back from its archive: into an empty folder, or over what is there, which is set aside and not deleted.

All of it is unpacked and checked beside what is there; then names are exchanged, with a journal: who is killed in the middle of
that leaves what was there before, to be found by whoever opens the folder next.
"""

from __future__ import annotations

import datetime as dt
import json
import shutil
import sqlite3
import zipfile
from collections.abc import Callable
from contextlib import closing
from pathlib import Path, PurePosixPath

from finegap.site.backup import DAMAGED, FORMAT, MANIFEST, BackupFault, check_archive, decrypted
from finegap.site.checking import damage_in
from finegap.site.folder import DATABASE, DEMO, MEDIA, WORKS, InUse, alone, held, keep_apart, synced, write_whole

_JOURNAL, _UNPACKED, ASIDE = "restoring.json", ".restoring", "before-restore-"
_NAMES = (MEDIA, f"{DATABASE}-wal", f"{DATABASE}-shm", DATABASE)
"""What is exchanged, the database last: a folder without it holds no works."""
_MOST_FILES = 1_000_000
_MOST_BYTES = 200 * 1024**3
"""An archive that unpacks to more is none of ours."""
_COUNTED = (
    ("bench_job", "job", "jobs"), ("bench_signoff", "signature", "signatures"), ("bench_reading", "reading", "readings"),
    ("bench_photo", "photograph", "photographs"), ("fleet_pump", "pump", "pumps"), ("toolbox_gauge", "gauge", "gauges"),
    ("sheets_sheetrevision", "revision of a sheet", "revisions of sheets"), ("auth_user", "person", "people"),
)  # fmt: skip
"""What somebody would miss, by its table."""


class WouldLose(BackupFault):
    """There is a works in the folder; the message says what of it the archive does not have."""


def restore(
    archive: Path,
    works: Path,
    known: set[tuple[str, str]],
    key: Path | None = None,
    meant: Callable[[str], bool] = lambda loss: False,
) -> int:
    """Put a works back from its archive.

    Parameters
    ----------
    archive : Path
        As ``back_up`` made it.
    works : Path
        The data folder; all of the works is there afterwards, or what was there before.
    known : set of (app, name)
        The migrations this version has. An archive with others is of a later one.
    key : Path, optional
        The key of an encrypted archive.
    meant : callable
        Told what would be lost where the folder holds a works, answers whether to go on.

    Returns
    -------
    int
        How many photographs came back.

    Raises
    ------
    BackupFault
        It is no archive of a works, or damaged, or of a later version; or somebody serves the folder, or it holds the other kind.
    WouldLose
        The folder holds a works, and it is not meant.
    """
    if not archive.exists():
        raise BackupFault(f"{archive} is not there.")
    works.mkdir(parents=True, exist_ok=True)
    try:
        with alone(works):
            recover(works)
            unpacked = works / _UNPACKED
            unpacked.mkdir()
            try:
                return _restore(decrypted(archive, key, unpacked / "decrypted"), works, known, meant)
            finally:
                shutil.rmtree(unpacked, ignore_errors=True)
    except InUse as use:
        raise BackupFault(f"{use}: stop it first, or restore into another folder.") from None
    except OSError as wrong:
        raise BackupFault(f"{archive} cannot be restored into {works}: {wrong}.") from None


def _restore(archive: Path, works: Path, known: set[tuple[str, str]], meant: Callable[[str], bool]) -> int:
    unpacked = works / _UNPACKED
    kind, photos = _unpack(archive, unpacked, known)
    with closing(sqlite3.connect(unpacked / DATABASE)) as database:
        damage = damage_in(database)
        if not damage:
            _sign_out(database)
    if damage:
        raise BackupFault(f"The database in {archive} is damaged: {damage[0]}.")
    if held(works) not in (None, kind):
        raise BackupFault(f"{archive} is of {'the demo' if kind == DEMO else 'a works'}, and {works} holds the other.")
    if (works / DATABASE).exists():
        loss = _loss(works / DATABASE, unpacked / DATABASE)
        if not meant(loss):
            raise WouldLose(f"{works} holds a works already. {loss} Restore into another folder, or over it by --over.")
    keep_apart(works, kind)
    _exchange(works, unpacked)
    return photos


def _sign_out(database: sqlite3.Connection) -> None:
    """Sessions of then are over: who was signed out since, or works here no more, does not come back by one."""
    if database.execute("SELECT 1 FROM sqlite_master WHERE name = 'django_session'").fetchone():
        database.execute("DELETE FROM django_session")
        database.commit()


def _exchange(works: Path, unpacked: Path) -> None:
    """What is there is set aside, and what came takes its place."""
    before = [name for name in _NAMES if (works / name).exists()]
    aside = works / f"{ASIDE}{dt.datetime.now(dt.UTC):%Y%m%dT%H%M%SZ}"
    write_whole(works / _JOURNAL, json.dumps({"before": before, "aside": aside.name}).encode())
    aside.mkdir()
    for name in before:
        (works / name).rename(aside / name)
    for name in _NAMES:
        if (unpacked / name).exists():
            (unpacked / name).rename(works / name)
    synced(works)
    (works / _JOURNAL).unlink()
    if not before:
        aside.rmdir()


def recover(works: Path) -> bool:
    """Undo a restore that was broken off: what was there before is there again.

    Returns
    -------
    bool
        Whether there was one.
    """
    shutil.rmtree(works / _UNPACKED, ignore_errors=True)
    for part in works.glob(f".{_JOURNAL}.*.part"):
        part.unlink()
    journal = works / _JOURNAL
    if not journal.exists():
        return False
    said = json.loads(journal.read_text())
    aside = works / str(said["aside"])
    for name in _NAMES:
        there, kept = works / name, aside / name
        if name not in said["before"] or kept.exists():
            if there.is_dir():
                shutil.rmtree(there)
            else:
                there.unlink(missing_ok=True)
        if kept.exists():
            kept.rename(there)
    if aside.exists():
        aside.rmdir()
    journal.unlink()
    return True


def _loss(here: Path, there: Path) -> str:
    """What one database has and the other has not, in words."""
    missing = []
    with closing(sqlite3.connect(here)) as database:
        try:
            database.execute("ATTACH ? AS other", (str(there),))
            for table, one, several in _COUNTED:
                counted = f"SELECT count(*) FROM main.{table} WHERE id NOT IN (SELECT id FROM other.{table})"
                (count,) = database.execute(counted).fetchone()
                if count:
                    missing.append(f"{count} {one if count == 1 else several}")
        except sqlite3.DatabaseError as wrong:
            return f"What would be lost cannot be told: its database cannot be read ({wrong})."
    if not missing:
        return "The archive has every job, reading, photograph, pump, gauge, sheet and person of it; of changes to them it may not."
    again = " Numbers of jobs it has not are given again." if missing[0].endswith(("job", "jobs")) else ""
    return f"The archive has not: {', '.join(missing)}.{again}"


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
            if "sha256" in manifest:  # archives of 0.10 have none
                check_archive(archive)
            for entry in entries:
                packed.extract(entry, into)
    except DAMAGED as wrong:
        raise BackupFault(f"{archive} is no archive of a works, or it is damaged ({wrong}).") from None
    return str(manifest["holds"]), sum(entry.filename.startswith(f"{MEDIA}/") for entry in entries)


def _check(archive: Path, entries: list[zipfile.ZipInfo]) -> None:
    """Nothing in it but what is ours, in its place, and no more than there can be."""
    names = [entry.filename for entry in entries]
    inside = all(".." not in PurePosixPath(name).parts and not name.startswith("/") for name in names)
    ours = all(name in (DATABASE, MANIFEST) or name.startswith(f"{MEDIA}/") for name in names)
    if not (inside and ours and DATABASE in names and MANIFEST in names and len(set(names)) == len(names)):
        raise BackupFault(f"{archive} is no archive of a works.")
    if len(names) > _MOST_FILES or sum(entry.file_size for entry in entries) > _MOST_BYTES:
        raise BackupFault(f"{archive} unpacks to more than a works can be.")
