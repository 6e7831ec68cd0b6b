"""The backups of a works: when the next is due, which are kept, which was the last good one, what is to be said of it."""

from __future__ import annotations

import datetime as dt
import json
import re
import shutil
from collections.abc import Callable, Iterable
from contextlib import suppress
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from finegap.site.backup import BackedUp, BackupFault, back_up, public_key
from finegap.site.folder import since, write_whole

_NAME = re.compile(r"(?P<kind>works|before)-(?:(?P<version>[\w.]+)-)?(?P<at>\d{8}T\d{6}Z)\.(?:zip|zip\.age)")
_STATE, _ASKED = "state.json", "asked"
_FORM = "%Y%m%dT%H%M%SZ"
_DAYS, _WEEKS, _MONTHS, _NEWEST, _BEFORE = 7, 5, 12, 3, 3
_MOST = 500
AGAIN = dt.timedelta(hours=1)
"""After one that failed."""

LOW_BYTES = 1024**3
"""Below this much room the page warns."""


@dataclass(frozen=True)
class Backup:
    """A backup that is there; its size in bytes."""

    name: str
    at: dt.datetime
    size: int


@dataclass(frozen=True)
class State:
    """What became of backups: the last try, the last good one, and why the last try failed; empty where it did not."""

    tried: dt.datetime | None = None
    good: dt.datetime | None = None
    fault: str = ""


def state_of(folder: Path) -> State:
    """The state of a folder of backups; that of nothing where it cannot be read."""
    try:
        said: dict[str, Any] = json.loads((folder / _STATE).read_text())
        tried, good = (dt.datetime.fromisoformat(said[name]) if said[name] else None for name in ("tried", "good"))
        return State(tried, good, str(said["fault"]))
    except (OSError, ValueError, KeyError, TypeError):
        return State()


def _say(folder: Path, state: State) -> None:
    said = {name: moment.isoformat() if moment else "" for name, moment in (("tried", state.tried), ("good", state.good))}
    # Where not even that can be written, the age of the last good one says it.
    with suppress(OSError):
        write_whole(folder / _STATE, json.dumps(said | {"fault": state.fault}).encode())


def listed(folder: Path) -> list[Backup]:
    """The backups of a folder, the newest first."""
    found = []
    for path in folder.glob("*.zip*") if folder.exists() else ():
        named = _NAME.fullmatch(path.name)
        if named:
            with suppress(FileNotFoundError, ValueError):
                at = dt.datetime.strptime(named["at"], _FORM).replace(tzinfo=dt.UTC)
                found.append(Backup(path.name, at, path.stat().st_size))
    return sorted(found, key=lambda one: (one.at, one.name), reverse=True)[:_MOST]


def path_of(folder: Path, name: str) -> Path | None:
    """Where a backup of the list is."""
    path = folder / name
    return path if _NAME.fullmatch(name) and path.is_file() else None


def ask(folder: Path) -> None:
    """Have one made as soon as may be."""
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    write_whole(folder / _ASKED, b"")


def is_asked(folder: Path) -> bool:
    """Whether one was asked for and is not there yet."""
    return (folder / _ASKED).exists()


def is_due(folder: Path, every: dt.timedelta, now: dt.datetime) -> bool:
    """Whether it is time: one was asked for, or the last good one is ``every`` old; a failed one is tried again in an hour."""
    if is_asked(folder):
        return True
    state = state_of(folder)
    if state.fault and state.tried and now - state.tried < min(AGAIN, every):
        return False
    # One of the future was made under a clock that was wrong.
    return state.good is None or not dt.timedelta(0) <= now - state.good < every


def make(works: Path, folder: Path, now: dt.datetime, kind: str = "works") -> BackedUp:
    """Make one, check it, and let go of what is kept no longer.

    Parameters
    ----------
    kind : str
        ``works``, or ``before-VERSION`` for one that is made before data is brought up to date.

    Raises
    ------
    BackupFault
        As ``back_up`` does; the state says so, too.
    """
    before = state_of(folder)
    try:
        folder.mkdir(parents=True, exist_ok=True, mode=0o700)
        made = back_up(works, folder / f"{kind}-{now:{_FORM}}.zip{'.age' if public_key(works) else ''}")
    except (BackupFault, OSError) as wrong:
        _say(folder, State(now, before.good, str(wrong)))
        raise BackupFault(str(wrong)) from None
    finally:
        with suppress(OSError):
            (folder / _ASKED).unlink(missing_ok=True)
    _say(folder, State(now, now))
    for one in let_go(listed(folder)):
        (folder / one.name).unlink(missing_ok=True)
    return made


def let_go(backups: Iterable[Backup]) -> list[Backup]:
    """Which of them are kept no longer.

    The newest three stay, and of those made by the clock the last of each of seven days, five weeks and twelve months that have
    one; of those made before data was brought up to date three.
    """
    every = sorted(backups, key=lambda one: one.at, reverse=True)
    by_clock = [one for one in every if not one.name.startswith("before-")]
    before = [one for one in every if one.name.startswith("before-")]
    keep = {one.name for one in [*by_clock[:_NEWEST], *before[:_BEFORE]]}
    ways: tuple[tuple[int, Callable[[dt.datetime], object]], ...] = (
        (_DAYS, lambda at: at.date()), (_WEEKS, lambda at: at.isocalendar()[:2]), (_MONTHS, lambda at: (at.year, at.month)),
    )  # fmt: skip
    for most, of in ways:
        last: dict[object, str] = {}
        for one in by_clock:
            last.setdefault(of(one.at), one.name)
        keep |= set(list(last.values())[:most])
    return [one for one in every if one.name not in keep]


def warnings(works: Path, folder: Path, every: dt.timedelta, now: dt.datetime) -> list[str]:
    """What a lead is to be told, whatever page is open: the last good backup is old, the disk is nearly full."""
    state, said = state_of(folder), []
    because = f" The last try failed: {state.fault}" if state.fault else ""
    if state.good is None:
        begun = since(works) or now
        if because or now - begun > 2 * every:
            said.append(f"There is no backup of this works yet.{because}")
    elif now - state.good > 2 * every:
        said.append(f"The last good backup is {_age(now - state.good)} old.{because}")
    free = shutil.disk_usage(works).free
    if free < LOW_BYTES:
        said.append(f"The disk of the server has {free / 1e6:.0f} MB left. Make room before it is full.")
    return said


def _age(gone: dt.timedelta) -> str:
    hours = int(gone.total_seconds() // 3600)
    return f"{hours} hours" if hours < 72 else f"{gone.days} days"
