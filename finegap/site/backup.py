"""A works in one archive: its database, copied while it is in use, and its photographs; checked after it was written.

The database is copied by SQLite's own online backup, so that a copy made while somebody saves holds all of the change or nothing
of it. Photographs are copied after it: each one the copy names is there. The key of sessions stays where it is: whoever was
signed in signs in again. With a key of its own an archive is encrypted (age, X25519): only who has the other half reads it.
"""

from __future__ import annotations

import errno
import hashlib
import json
import os
import sqlite3
import tempfile
import zipfile
import zlib
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import IO, Any

import pyrage

from finegap.core import VERSION
from finegap.site.checking import damage_in, files_named
from finegap.site.folder import DATABASE, MEDIA, held, synced, write_whole

FORMAT = "fine-gap/backup"
MANIFEST = "manifest.json"
PUBLIC_KEY = "backup.pub"
_UNFINISHED = ".unfinished-"
_AGE = b"age-encryption.org/v1"
DAMAGED = (zipfile.BadZipFile, zlib.error, KeyError, ValueError, TypeError, EOFError, RuntimeError)
"""What reading an archive fails with where it was cut off or altered."""
_PIECE = 1024 * 1024
_TRIES = 3


class BackupFault(Exception):
    """An archive cannot be made, or not be restored here; the message is a sentence."""


@dataclass(frozen=True)
class BackedUp:
    """How many photographs are in an archive, and its size."""

    photos: int
    size: int


def back_up(works: Path, archive: Path) -> BackedUp:
    """Copy a works into an archive, and check it.

    Parameters
    ----------
    works : Path
        Its data folder.
    archive : Path
        Where the archive is to be; it must not be there yet. It is there whole, or not at all.

    Raises
    ------
    BackupFault
        There is no works in the folder, the archive is there already, no room, or something in the works is damaged.
    """
    if not (works / DATABASE).exists():
        raise BackupFault(f"{works} holds no works.")
    if archive.exists():
        raise BackupFault(f"{archive} is there already: choose another name.")
    try:
        with _unfinished(archive.parent) as made:
            part = Path(made) / "archive"
            photos = _packed(works, Path(made), part)
            check_archive(part)
            part = _encrypted(works, part)
            size = part.stat().st_size
            with open(part, "rb") as written:
                os.fsync(written.fileno())
            part.replace(archive)
    except sqlite3.Error as wrong:
        raise BackupFault(f"The database of {works} cannot be copied: {wrong}.") from None
    except OSError as wrong:
        full = wrong.errno in (errno.ENOSPC, errno.EDQUOT)
        raise BackupFault(f"{archive} cannot be written: {'there is no room for it' if full else wrong}.") from None
    synced(archive.parent)
    return BackedUp(photos, size)


@contextmanager
def _unfinished(folder: Path) -> Iterator[str]:
    """A folder that goes with whoever made it: what a killed one left is removed by the next."""
    for left in folder.glob(f"{_UNFINISHED}*"):
        pid = left.name.removeprefix(_UNFINISHED).partition("-")[0]
        if pid.isdigit() and not Path(f"/proc/{pid}").exists():
            for path in left.iterdir():
                path.unlink()
            left.rmdir()
    with tempfile.TemporaryDirectory(prefix=f"{_UNFINISHED}{os.getpid()}-", dir=folder) as made:
        yield made


def _packed(works: Path, made: Path, part: Path) -> int:
    """Write the archive; anew where a photograph was removed between the copy of the database and its own."""
    for _ in range(_TRIES):
        copy = made / DATABASE
        copy.unlink(missing_ok=True)
        with closing(sqlite3.connect(works / DATABASE)) as source, closing(sqlite3.connect(copy)) as target:
            source.backup(target)
        with closing(sqlite3.connect(copy)) as target:
            damage = damage_in(target)
            if damage:
                raise BackupFault(f"The database of {works} is damaged, and is not backed up: {damage[0]}.")
            applied = [list(row) for row in target.execute("SELECT app, name FROM django_migrations ORDER BY app, name")]
            named = files_named(target)
        photos = _write(works, copy, part, {"format": FORMAT, "core": VERSION, "holds": held(works), "migrations": applied})
        if all((works / MEDIA / name).exists() == (name in photos) for name in named):
            return len(photos)
    raise BackupFault(f"Photographs of {works} come and go too fast: try again.")


def _write(works: Path, copy: Path, part: Path, manifest: dict[str, Any]) -> set[str]:
    digests: dict[str, str] = {}
    photos = set()
    with zipfile.ZipFile(part, "w", zipfile.ZIP_DEFLATED) as into:
        digests[DATABASE] = _put(into, DATABASE, copy, zipfile.ZIP_DEFLATED)
        for path in sorted(one for one in (works / MEDIA).rglob("*") if one.is_file()):
            name = path.relative_to(works / MEDIA).as_posix()
            try:
                # Already packed: a second time costs time and saves nothing.
                digests[f"{MEDIA}/{name}"] = _put(into, f"{MEDIA}/{name}", path, zipfile.ZIP_STORED)
                photos.add(name)
            except FileNotFoundError:
                continue  # removed meanwhile
        into.writestr(MANIFEST, json.dumps(manifest | {"sha256": digests}))
    return photos


def _put(into: zipfile.ZipFile, name: str, path: Path, how: int) -> str:
    digest = hashlib.sha256()
    with open(path, "rb") as source:
        entry = zipfile.ZipInfo.from_file(path, name)
        entry.compress_type = how
        with into.open(entry, "w", force_zip64=True) as target:
            while piece := source.read(_PIECE):
                digest.update(piece)
                target.write(piece)
    return digest.hexdigest()


def check_archive(archive: Path) -> None:
    """Every entry is what the manifest says it is.

    Raises
    ------
    BackupFault
        One is not, or is missing, or one is there of which it says nothing.
    """
    try:
        with zipfile.ZipFile(archive) as packed:
            said: dict[str, str] = json.loads(packed.read(MANIFEST))["sha256"]
            if set(said) != set(packed.namelist()) - {MANIFEST}:
                raise BackupFault(f"{archive} does not hold what its manifest says.")
            for name, digest in said.items():
                with packed.open(name) as entry:
                    if digest_of(entry) != digest:
                        raise BackupFault(f"{archive} was altered or is damaged: {name} is not what it was.")
    except DAMAGED as wrong:
        raise BackupFault(f"{archive} is damaged: {wrong}.") from None


def digest_of(file: IO[bytes]) -> str:
    """SHA-256 of all of it."""
    digest = hashlib.sha256()
    while piece := file.read(_PIECE):
        digest.update(piece)
    return digest.hexdigest()


def make_key(works: Path, file: Path) -> str:
    """Make a key for backups: the secret half into a file, the public half into the works, which encrypts by it from now on.

    Raises
    ------
    BackupFault
        The file is there already: it may be the key of backups there are.
    """
    if file.exists():
        raise BackupFault(f"{file} is there already: choose another name.")
    works.mkdir(parents=True, exist_ok=True)
    identity = pyrage.x25519.Identity.generate()
    public = str(identity.to_public())
    write_whole(
        file,
        f"# The key of backups of a Fine Gap works. Without it they cannot be read.\n# public: {public}\n{identity}\n".encode(),
    )
    write_whole(works / PUBLIC_KEY, f"{public}\n".encode())
    return public


def public_key(works: Path) -> str:
    """The public half, or nothing: then backups are not encrypted."""
    path = works / PUBLIC_KEY
    return path.read_text().strip() if path.exists() else ""


def _encrypted(works: Path, part: Path) -> Path:
    key = public_key(works)
    if not key:
        return part
    into = part.with_name("encrypted")
    try:
        pyrage.encrypt_file(str(part), str(into), [pyrage.x25519.Recipient.from_str(key)])
    except pyrage.RecipientError:
        raise BackupFault(f"{works / PUBLIC_KEY} holds no public key.") from None
    if into.stat().st_size <= part.stat().st_size or not is_encrypted(into):
        raise BackupFault(f"{part} could not be encrypted.")
    return into


def is_encrypted(archive: Path) -> bool:
    """Whether only the key of it reads an archive."""
    with open(archive, "rb") as file:
        return file.read(len(_AGE)) == _AGE


def decrypted(archive: Path, key: Path | None, into: Path) -> Path:
    """An archive that can be read: itself, or a copy of it that was decrypted.

    Raises
    ------
    BackupFault
        It is encrypted, and there is no key, another key, or it was altered or cut off.
    """
    if not is_encrypted(archive):
        return archive
    if key is None:
        raise BackupFault(f"{archive} is encrypted: say which key reads it, as --key FILE.")
    try:
        lines = [line for line in key.read_text().splitlines() if line and not line.startswith("#")]
        identities = [pyrage.x25519.Identity.from_str(line.strip()) for line in lines]
        pyrage.decrypt_file(str(archive), str(into), identities)
    except (pyrage.IdentityError, UnicodeDecodeError):
        raise BackupFault(f"{key} holds no key of backups.") from None
    except (pyrage.DecryptError, OSError) as wrong:
        if isinstance(wrong, OSError) and wrong.errno:
            raise  # of the disk, not of what was sealed
        raise BackupFault(f"{key} does not read {archive}, or the archive was altered or cut off ({wrong}).") from None
    return into
