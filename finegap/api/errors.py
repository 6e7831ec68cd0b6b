"""What a service refuses, beside the core's own errors about a field."""

from __future__ import annotations


class Conflict(Exception):
    """Somebody else changed the same part or step since it was looked at. ``changes`` says who did what, newest last."""

    def __init__(self, changes: list[str]) -> None:
        super().__init__("Somebody else changed this while you were looking at it.")
        self.changes = changes


class OtherPerson(Exception):
    """The page was opened by somebody else than who is signed in now."""

    def __init__(self, name: str) -> None:
        super().__init__(f"{name} is signed in now, in another tab or window of this browser. Nothing was saved.")


class ReadOnly(Exception):
    """The job is signed, or was abandoned."""

    def __init__(self, problem: str = "This job is signed: it can be read, not changed.") -> None:
        super().__init__(problem)


class Refused(Exception):
    """The rules of the job do not allow it now; the reasons are sentences."""

    def __init__(self, problem: str, reasons: list[str] | None = None) -> None:
        super().__init__(problem)
        self.reasons = reasons or []


class Locked(Refused):
    """Too many wrong tries, or too many at once: nothing is tried for a while."""
