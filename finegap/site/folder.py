"""A data folder holds the demo or a works, once and for all: nothing invented comes into a works."""

from __future__ import annotations

from pathlib import Path

DATABASE = "finegap.sqlite3"
DEMO, WORKS = "demo", "works"
_MARK = "holds"


class OtherFolder(Exception):
    """The folder holds the other; the message says which."""


def held(folder: Path) -> str | None:
    """What a folder holds; a database without a mark is of the demo, which had none at first."""
    mark = folder / _MARK
    if mark.exists():
        return mark.read_text().strip()
    return DEMO if (folder / DATABASE).exists() else None


def keep_apart(folder: Path, kind: str) -> None:
    """Make the folder one of this kind, or say that it is of the other.

    Raises
    ------
    OtherFolder
        It holds the other.
    """
    folder.mkdir(parents=True, exist_ok=True)
    now = held(folder)
    if now not in (None, kind):
        raise OtherFolder(f"{folder} holds {'the demo' if now == DEMO else 'a works'}")
    (folder / _MARK).write_text(f"{kind}\n")
