"""What comes from outside the project: reference values, each with its source, tolerance and independence."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

_ENTRIES = json.loads((Path(__file__).parent / "check-values.json").read_text())["entries"]
VALUES: dict[str, dict[str, Any]] = {entry["id"]: entry for entry in _ENTRIES}
