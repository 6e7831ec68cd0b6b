"""No function is longer than can be seen at once, no file than can be known: says which are, and which may be and why."""

from __future__ import annotations

import ast
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
LONGEST_FUNCTION, LONGEST_FILE = 60, 400

_SUBJECT = "checks of one subject beside each other; each stands alone"
MAY_BE_LONG = {
    "tests/apps/test_inspection.py": _SUBJECT,
    "tests/apps/test_setting.py": _SUBJECT,
    "tests/apps/test_truth.py": _SUBJECT,
    "tests/apps/test_undoing.py": _SUBJECT,
    "tests/browser/test_main_job.py": "whole jobs, step after step",
    "tests/core/test_building.py": _SUBJECT,
    "tests/core/test_edges.py": _SUBJECT,
    "tests/core/test_gap.py": _SUBJECT,
    "tests/core/test_inspecting.py": _SUBJECT,
    "tests/core/test_orders.py": _SUBJECT,
    "tests/core/test_tables.py": "every number of every table with its source",
    "test_from_opened_job_to_signed_with_a_bearing_housing": "a whole job, step after step",
    "test_from_opened_job_to_a_leads_signature_with_gaskets_in_inches": "a whole job, step after step",
}
"""Files and functions over the limit, each with the reason. One that is not over it any more is taken off."""


def too_long(name: str, text: str) -> list[str]:
    """What of a file is over a limit: the file, or functions of it."""
    lines = len(text.splitlines())
    found = [name] if lines > LONGEST_FILE else []
    functions = (node for node in ast.walk(ast.parse(text)) if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef))
    return found + [one.name for one in functions if (one.end_lineno or 0) - one.lineno + 1 > LONGEST_FUNCTION]


def main() -> int:
    """Name what is too long, or is excused and no longer is."""
    listed = subprocess.run(
        ["git", "ls-files", "-co", "--exclude-standard", "*.py"], cwd=ROOT, capture_output=True, text=True, check=True
    ).stdout.split()
    sources = [name for name in listed if "migrations" not in name and (ROOT / name).exists()]
    found = {long: name for name in sources for long in too_long(name, (ROOT / name).read_text())}
    wrong = [f"{long} in {name} is too long" for long, name in found.items() if long not in MAY_BE_LONG]
    wrong += [f"{name} is excused for its length, and is not too long" for name in MAY_BE_LONG if name not in found]
    print("\n".join(wrong), end="\n" if wrong else "")
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main())
