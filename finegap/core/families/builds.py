"""Builds of a family: what a pump may have of each option, and what is there for which build."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Protocol, TypeVar

Build = Mapping[str, str]
"""Which choice of each option a pump has: ``{"seal": "packed"}``."""


When = Mapping[str, tuple[str, ...]]
"""Builds something belongs to: for each option named, the choices it is there for. Empty: every build."""


NOT_KNOWN = "unknown"
"""The choice of an option that is asked at the bench and has not been answered yet."""

OF_THE_JOB = "scope"
"""The option a job is opened with: how far it goes. A pump and a sheet have none of it."""

UNSAID = "unsaid"
"""The choice of a convention that neither sheet nor works has made."""


@dataclass(frozen=True)
class Option:
    """One way in which pumps of the family differ; ``choices`` by key, the usual one first.

    ``when`` names the builds that have it, by other options declared before it; a pump of another build has no such option.
    ``names`` are words of stations that mean another place with another answer (“suction”).
    A convention has ``said``: what is said of each choice where its key stands in braces in the words of a step or part.
    """

    key: str
    name: str
    choices: Mapping[str, str]
    when: When = field(default_factory=dict)
    said: Mapping[str, str] = field(default_factory=dict)
    names: tuple[str, ...] = ()

    @property
    def is_convention(self) -> bool:
        """Practitioners differ on it: sheet or works choose, and nothing is asserted where neither did."""
        return UNSAID in self.choices


def is_overhaul(options: tuple[Option, ...], build: Build) -> bool:
    """Whether a job of this build is an overhaul, after which the interval to the next begins: its usual scope, or one that is
    called so. New packing, a new seal or a look through a port is none (common practice, no source).
    """
    whole = {one.key: next(iter(one.choices)) for one in options if one.key != OF_THE_JOB} | dict(build)
    scope = next((one for one in options if one.key == OF_THE_JOB and belongs(one.when, whole)), None)
    if scope is None:
        return True
    usual = next(iter(scope.choices))
    chosen = build.get(OF_THE_JOB, usual)
    return chosen == usual or "overhaul" in scope.choices.get(chosen, "")


def convention(
    key: str, name: str, choices: Mapping[str, str], said: Mapping[str, str], unsaid: str = "", when: When | None = None
) -> Option:
    """An option on which practitioners differ; ``unsaid`` is what is said where nobody has chosen."""
    return Option(key, name, {UNSAID: "not said", **choices}, when or {}, {UNSAID: unsaid, **said})


class _Conditional(Protocol):
    @property
    def when(self) -> When: ...


_C = TypeVar("_C", bound=_Conditional)


def belongs(when: When, build: Build) -> bool:
    """Whether something of these builds is in this one."""
    return all(build.get(option) in choices for option, choices in when.items())


def belonging(build: Build, things: tuple[_C, ...]) -> tuple[_C, ...]:
    """Those of the things that are in a build."""
    return tuple(t for t in things if belongs(t.when, build))
