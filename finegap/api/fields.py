"""Bounds of what is sent: declared at the field of a dataclass, read by validation, service and schema alike."""

from __future__ import annotations

from dataclasses import MISSING, field
from typing import Any


def required() -> Any:
    """Anything that has to be sent; its type says what it may be."""
    return field()


def text(most: int, default: str | None = None, *, filled: bool = False, as_written: bool = False) -> Any:
    """A text of up to ``most`` letters.

    It has to be sent unless it has a ``default``. A service refuses an empty one in its own words, unless it has to be ``filled``.
    Blanks at its ends are cut off unless it is kept ``as_written``.
    """
    return _bounded({"max_length": most, "allow_blank": not filled, "trim_whitespace": not as_written}, default)


def left_out(most: int, *, secret: bool = False) -> Any:
    """A text that may be left out. ``None`` means that nothing is changed. A ``secret`` is kept as written and out of every log."""
    given = {"max_length": most, "allow_blank": True, "required": False, "allow_null": False, "trim_whitespace": not secret}
    return field(default=None, repr=not secret, metadata=_kwargs(given))


def secret(most: int = 20, default: str | None = None, *, as_written: bool = False) -> Any:
    """A text that is kept out of every log and digest."""
    return _bounded({"max_length": most, "allow_blank": True, "trim_whitespace": not as_written}, default, shown=False)


def number(low: float, high: float, default: float | None = None, *, kw_only: bool = False) -> Any:
    """A number between two bounds, both included."""
    given = _kwargs({"min_value": low, "max_value": high})
    return field(default=MISSING if default is None else default, metadata=given, kw_only=kw_only)


def several(most: int, each: dict[str, Any], *, required: bool = True) -> Any:
    """A list of up to ``most``, each within bounds of its own."""
    given = _kwargs({"max_length": most, "child_kwargs": each})
    return field(metadata=given) if required else field(default_factory=list, metadata=given)


def by_name(most: int, *, required: bool = False, blank: bool = False) -> Any:
    """Texts of up to ``most`` letters by name; none where they are left out, unless they are ``required``."""
    given = _kwargs({"child_kwargs": {"max_length": most, "allow_blank": required or blank}})
    return field(metadata=given) if required else field(default_factory=dict, metadata=given)


def _bounded(given: dict[str, Any], default: Any, *, shown: bool = True) -> Any:
    return field(default=MISSING if default is None else default, metadata=_kwargs(given), repr=shown)


def _kwargs(given: dict[str, Any]) -> dict[str, Any]:
    return {"serializer_kwargs": given}
