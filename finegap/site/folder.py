"""A data folder: what it holds, once and for all, who has it in hand, and the key of its sessions."""

from __future__ import annotations

import datetime as dt
import fcntl
import os
import secrets
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import IO

DATABASE = "finegap.sqlite3"
MEDIA = "media"
DEMO, WORKS = "demo", "works"
_MARK, _IN_USE, _KEY = "holds", "in-use", "secret_key"
_LETTERS = "abcdefghijklmnopqrstuvwxyz0123456789!@#$%^&*(-_=+)"
_KEY_LENGTH, _KEY_LEAST = 50, 20


class OtherFolder(Exception):
    """The folder holds the other; the message says which."""


class InUse(Exception):
    """Somebody serves the folder, restores into it or brings it up to date."""


class EmptyKey(Exception):
    """The file of the key is there, and has no key in it."""


def held(folder: Path) -> str | None:
    """What a folder holds; a database without a mark is of the demo, which had none at first."""
    mark = folder / _MARK
    if mark.exists():
        return mark.read_text().strip()
    return DEMO if (folder / DATABASE).exists() else None


def keep_apart(folder: Path, kind: str) -> None:
    """Make the folder one of this kind, or say that it is of the other: nothing invented comes into a works.

    Raises
    ------
    OtherFolder
        It holds the other.
    """
    folder.mkdir(parents=True, exist_ok=True)
    now = held(folder)
    if now not in (None, kind):
        raise OtherFolder(f"{folder} holds {'the demo' if now == DEMO else 'a works'}")
    if not (folder / _MARK).exists():
        (folder / _MARK).write_text(f"{kind}\n")


def since(folder: Path) -> dt.datetime | None:
    """When it was made one of its kind: its mark is written once."""
    mark = folder / _MARK
    return dt.datetime.fromtimestamp(mark.stat().st_mtime, dt.UTC) if mark.exists() else None


def hold(folder: Path) -> IO[str]:
    """Have the folder in use, beside others who do, until the file that comes back is closed by the last process that has it.

    Raises
    ------
    InUse
        Somebody has it alone.
    """
    file = open(folder / _IN_USE, "a")  # noqa: SIM115 - open for as long as it is in use
    try:
        fcntl.flock(file, fcntl.LOCK_SH | fcntl.LOCK_NB)
    except BlockingIOError:
        file.close()
        raise InUse(f"Somebody restores into {folder}, or brings it up to date") from None
    return file


@contextmanager
def alone(folder: Path) -> Iterator[None]:
    """Have the folder alone: nobody serves it meanwhile.

    Raises
    ------
    InUse
        Somebody has it in use.
    """
    with open(folder / _IN_USE, "a") as file:
        try:
            fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            raise InUse(f"{folder} is being served") from None
        yield


def secret_key(folder: Path) -> str:
    """The key of this installation: made once, kept beside the data, readable by its owner alone.

    Raises
    ------
    EmptyKey
        Its file has no key in it.
    """
    path = folder / _KEY
    if not path.exists():
        # Whole or not at all: a disk that is full in the middle of it leaves no empty key.
        write_whole(path, "".join(secrets.choice(_LETTERS) for _ in range(_KEY_LENGTH)).encode())
    key = path.read_text(errors="replace").strip()
    if len(key) < _KEY_LEAST:
        raise EmptyKey(f"{path} is empty, or cut off.")
    return key


def write_whole(path: Path, content: bytes) -> None:
    """Write a file so that it is there whole or as it was before, whatever happens meanwhile; readable by its owner alone."""
    part = path.with_name(f".{path.name}.{os.getpid()}.part")
    try:
        with os.fdopen(os.open(part, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "wb") as file:
            file.write(content)
            file.flush()
            os.fsync(file.fileno())
        part.replace(path)
    finally:
        part.unlink(missing_ok=True)
    synced(path.parent)


def synced(folder: Path) -> None:
    """Names in a folder are on the disk, not only what they name."""
    descriptor = os.open(folder, os.O_RDONLY)
    try:
        os.fsync(descriptor)
    finally:
        os.close(descriptor)
