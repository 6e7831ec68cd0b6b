"""The one shape of an error."""

from __future__ import annotations

from typing import Any


def body(code: str, problem: str, **more: Any) -> dict[str, Any]:
    """An error as it is answered."""
    empty = {"field": "", "hint": "", "suggestions": [], "reasons": [], "reason_wanted": False}
    return {"code": code, "problem": problem, **empty, **more}
