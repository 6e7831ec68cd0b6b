"""Names for builds of an internal gear pump, as its steps, stacks and features use them."""

from __future__ import annotations

from dataclasses import replace
from typing import TypeVar

from finegap.core.families.builds import When
from finegap.core.families.features import Feature
from finegap.core.families.steps import Step

COMPACT_SEALS = ("bellows", "wedge", "oring")
PACKED: When = {"seal": ("packed",)}
SEALED: When = {"seal": ("mechanical", *COMPACT_SEALS)}
COMPACT: When = {"seal": COMPACT_SEALS}
HOUSING: When = {"means": ("housing",)}
COUPLED: When = {"means": ("ring", "coupling")}
UNCOUPLED: When = {"means": ("housing", "gaskets", "fixed")}
GASKETS: When = {"means": ("gaskets",)}
BEHIND_ROTOR: When = {"seal": ("mechanical",), "means": ("housing",)}
"""A mechanical seal behind the rotor in a bracket with a threaded housing: its spring has a say in the order."""
RELIEF: When = {"relief": ("fitted",)}
NUT: When = {"nut": ("tang", "plain")}

OVERHAUL, SEAL, REPACK, BEARING, CHECK = "overhaul", "seal", "repack", "bearing", "check"
OPENED = (OVERHAUL, SEAL)
"""Scopes that draw the rotor."""
HEAD_OFF = (OVERHAUL, SEAL, CHECK)
HOUSING_OUT = (OVERHAUL, SEAL, BEARING)

T = TypeVar("T", Step, Feature)


def within(scopes: tuple[str, ...], *things: T) -> tuple[T, ...]:
    """Steps or features that only these scopes of a job have."""
    return tuple(replace(one, when={**one.when, "scope": scopes}) for one in things)
