"""What stands in the way of the whole works: a full disk, a read-only or damaged folder. Said on one page, and to the terminal.

A fault says what happened, what is safe and what to do. It needs no Django: its settings may be what cannot be read.
"""

from __future__ import annotations

import errno
import os
import shutil
import sqlite3
from collections.abc import Iterator
from dataclasses import dataclass
from html import escape
from typing import Any

from finegap.api.shape import body


@dataclass(frozen=True)
class Fault:
    """Something the server cannot get past: its HTTP ``status``, its ``code`` in answers of the API, and what is said."""

    code: str
    status: int
    what: str
    safe: str
    do: str

    @property
    def line(self) -> str:
        """For the terminal."""
        return f"{self.what} {self.safe} {self.do}"


_SAFE = "What was acknowledged before is safe."
FULL = Fault(
    "disk-full", 507, "The disk of the server is full.", f"{_SAFE} Nothing more is saved: what is typed waits on the tablet.",
    "Whoever keeps the server makes room: old backups, logs, files of others.",
)  # fmt: skip
READ_ONLY = Fault(
    "read-only", 503, "The server cannot write its data.", f"{_SAFE} Nothing more is saved: what is typed waits on the tablet.",
    "Whoever keeps the server looks whether the data folder and its files belong to the account that serves, and whether the disk"
    " was mounted read-only, which happens when it fails.",
)  # fmt: skip
DAMAGED = Fault(
    "damaged", 503, "The database of the server is damaged.", "The backups are safe. Nothing is saved now.",
    "Whoever keeps the server stops it, keeps the data folder as it is, and restores the newest good backup into another folder:"
    " fine-gap restore FILE --works FOLDER. It says what is in it before it does anything.",
)  # fmt: skip
FAILING = Fault(
    "damaged", 503, "The disk of the server does not do what it is asked to.", "The backups are safe. Nothing is saved now.",
    "Whoever keeps the server looks at the log of the system and at the disk. If it fails: another disk, and on it the newest good"
    " backup, fine-gap restore FILE --works FOLDER.",
)  # fmt: skip
NO_KEY = Fault(
    "fault", 503, "The key of sessions is empty.", "Jobs, photographs and backups are safe.",
    "Whoever keeps the server deletes the file secret_key in the data folder and starts the server anew: it makes another, and"
    " everybody signs in again.",
)  # fmt: skip
NOT_UPGRADED = Fault(
    "fault", 503, "The data could not be brought up to this version of the program.", "It is as it was, and backed up.",
    "Whoever keeps the server goes on with the version before; where the server was started it says why.",
)  # fmt: skip
BUSY = Fault(
    "busy", 503, "The server is busy with a long change.", f"{_SAFE} This one was not saved.", "Try again in a few seconds.",
)  # fmt: skip
BROKEN = Fault(
    "fault", 500, "The server could not do that, through a fault of its own.",
    "What was acknowledged before is safe. This one was not saved.",
    "Try again; if it stays, tell whoever keeps the server: its log says more.",
)  # fmt: skip

_NOTHING = 1024 * 1024
"""Less room than that, in bytes, is none."""

_BY_NUMBER = {errno.ENOSPC: FULL, errno.EDQUOT: FULL, errno.EROFS: READ_ONLY, errno.EACCES: READ_ONLY, errno.EPERM: READ_ONLY}
_BY_WORDS = (
    ("database or disk is full", FULL),
    ("readonly database", READ_ONLY),
    ("unable to open database file", READ_ONLY),
    ("malformed", DAMAGED),
    ("not a database", DAMAGED),
    ("disk I/O error", FAILING),
    ("database is locked", BUSY),
)
"""SQLite has a number for each, which Django's errors have not; its words are fixed (sqlite3_errstr)."""


def fault_of(error: BaseException | None) -> Fault:
    """Which fault an error comes of."""
    for one in _chain(error):
        if isinstance(one, sqlite3.Error) or type(one).__module__ == "django.db.utils":
            found = next((fault for words, fault in _BY_WORDS if words in str(one)), None)
        else:
            found = _BY_NUMBER.get(one.errno or 0) if isinstance(one, OSError) else None
        if found:
            return FULL if found is FAILING and _is_full() else found
    return BROKEN


def _is_full() -> bool:
    """SQLite calls it an I/O error, too, where its log cannot be made."""
    folder = os.environ.get("FINEGAP_VAR", "")
    try:
        return bool(folder) and shutil.disk_usage(folder).free < _NOTHING
    except OSError:
        return False


def _chain(error: BaseException | None) -> Iterator[BaseException]:
    for _ in range(10):
        if error is None:
            return
        yield error
        error = error.__cause__ or error.__context__


_STYLE = """
body { font: 18px/1.5 "Source Sans 3", sans-serif; max-width: 36rem; margin: 12vh auto; padding: 0 1.5rem; color: #20262b;
  background: #f7f6f2 }
h1 { font-size: 1.5rem } p { margin: .8rem 0 } a { color: inherit; display: inline-block; padding: .8rem 0 }
"""


def shown(fault: Fault) -> str:
    """A page of its own, with the way on: the same again after a fault of the server, the bench after one of the address."""
    way = '<a href="">Try again</a>' if fault.status >= 500 else '<a href="/">To the bench</a>'
    return f"""<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>Fine Gap</title><style>{_STYLE}</style></head>
<body><main><h1>{escape(fault.what)}</h1><p><b>{escape(fault.safe)}</b></p><p>{escape(fault.do)}</p>
<p>{way}</p></main></body></html>"""


def as_answer(fault: Fault) -> dict[str, Any]:
    """In the one shape of errors."""
    return body(fault.code, fault.what, hint=fault.do, reasons=[fault.safe])
