"""Whether a works is whole: its database by SQLite's own checks, and each photograph it names in its place. Needs no Django."""

from __future__ import annotations

import sqlite3
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path

from finegap.site.folder import DATABASE, MEDIA

_NAMED = (("bench_photo", "file"), ("sheets_manualpage", "file"), ("fleet_pumpdocument", "file"))
"""Tables and columns that name files of the media folder; a test holds them against the models."""
_LOGO = "SELECT 'works/' || logo || '.png' FROM works_workssettings WHERE logo <> ''"
_SIGNED_WITH = "works/"
"""Pictures of headings: a signed record finds the one it was signed with, so that none of them is stray."""
_SHOWN = 20


@dataclass(frozen=True)
class Found:
    """What a check found: what is ``wrong``, a sentence each, and files nothing names, which only take room."""

    wrong: list[str]
    missing: list[str]
    stray: list[str]

    @property
    def is_whole(self) -> bool:
        """Nothing is wrong and nothing is missing."""
        return not self.wrong and not self.missing


def checked(works: Path) -> Found:
    """Check a works, while it is in use or not.

    Parameters
    ----------
    works : Path
        Its data folder.
    """
    database = works / DATABASE
    if not database.exists():
        return Found([f"{works} holds no works."], [], [])
    try:
        with closing(sqlite3.connect(f"file:{database}?mode=ro", uri=True)) as connection:
            wrong = damage_in(connection) or loose_in(connection)
            named = files_named(connection)
    except sqlite3.Error as error:
        return Found([f"the database cannot be read: {error}"], [], [])
    root = works / MEDIA
    there = {path.relative_to(root).as_posix() for path in root.rglob("*") if path.is_file()} if root.exists() else set()
    stray = sorted(name for name in there - named if not name.startswith(_SIGNED_WITH))
    return Found(wrong, sorted(named - there), stray)


def damage_in(connection: sqlite3.Connection) -> list[str]:
    """What SQLite finds wrong with a database: its pages, indexes and constraints; nothing where it is whole."""
    try:
        found = [str(row[0]) for row in connection.execute(f"PRAGMA integrity_check({_SHOWN})")]
    except sqlite3.DatabaseError as error:
        return [str(error)]
    return [] if found == ["ok"] else found


def loose_in(connection: sqlite3.Connection) -> list[str]:
    """Rows that point to none; a few of them."""
    rows = connection.execute("PRAGMA foreign_key_check").fetchmany(_SHOWN)
    return [f"row {row} of {table} points to a row of {parent} there is not" for table, row, parent, _ in rows]


def files_named(connection: sqlite3.Connection) -> set[str]:
    """Files of the media folder that the database names; an older one has not every table."""
    there = {name for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
    named = {
        str(name)
        for table, column in _NAMED
        if table in there
        for (name,) in connection.execute(f"SELECT {column} FROM {table} WHERE {column} <> ''")
    }
    if "works_workssettings" in there and "logo" in {
        row[1] for row in connection.execute("PRAGMA table_info(works_workssettings)")
    }:
        named |= {str(name) for (name,) in connection.execute(_LOGO)}
    return named
