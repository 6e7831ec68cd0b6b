"""One engine, no family's name in it: looks for the names, and counts the share of code each family adds."""

from __future__ import annotations

import re
import sys
from collections.abc import Iterable
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
FOLDER = ROOT / "finegap/core/families"
MOST = 0.03
"""Share of the application's Python: a family that needs more is no longer data."""
WIDER = {"internal_gear": 0.055}
"""The first of them has the most builds, and may not grow."""


def families() -> list[str]:
    """Keys of the families: a folder each."""
    return sorted(path.parent.name for path in FOLDER.glob("*/__init__.py"))


def engine() -> list[Path]:
    """Sources of the application outside the families' folders."""
    sources = [*(ROOT / "finegap").rglob("*.py"), *(ROOT / "frontend/src").rglob("*.ts*")]
    return [p for p in sources if ".test." not in p.name and not set(families()) & set(p.parts)]


def named(texts: Iterable[tuple[str, str]]) -> list[str]:
    """Where a name and its text, of a file of the engine, say a family's key or its words before “pump”.

    A key of one word is a part of pumps as well: it counts in quotes alone.
    """
    return [f"{name} names {key}" for name, text in texts for key in families() if re.search(_naming(key), text, re.I)]


def _naming(key: str) -> str:
    literal = key if "_" in key else rf"['\"`]{key}['\"`]"
    return rf"{literal}|\b{key.replace('_', '[ -]?')} pump"


def shares() -> dict[str, float]:
    """Lines of each family to all lines of the application's Python."""

    def lines(folder: Path) -> int:
        return sum(len(p.read_text().splitlines()) for p in folder.rglob("*.py"))

    whole = lines(ROOT / "finegap")
    return {key: lines(FOLDER / key) / whole for key in families()}


def too_large(found: dict[str, float]) -> list[str]:
    """Families with more than their share."""
    most = {key: WIDER.get(key, MOST) for key in found}
    return [f"{key} is {share:.1%} of the code, more than {most[key]:.1%}" for key, share in found.items() if share > most[key]]


def main() -> int:
    """Say the shares and what is wrong."""
    faults = named((str(p.relative_to(ROOT)), p.read_text()) for p in engine())
    found = shares()
    print("\n".join(f"{key}: {share:.1%} of the code" for key, share in found.items()))
    faults += too_large(found)
    print("\n".join(faults), end="\n" if faults else "")
    return 1 if faults else 0


if __name__ == "__main__":
    sys.exit(main())
