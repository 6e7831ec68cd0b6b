"""Builds for tests: each procedure a family has in any build, once."""

from functools import cache

from finegap.core.families import FAMILIES
from finegap.core.families.builds import Build, belonging
from finegap.core.families.check import every_convention
from finegap.core.families.family import Family


@cache
def distinct(family: Family) -> tuple[Build, ...]:
    """Every build, and every convention in it, that differs in its steps or stacks from those before."""
    seen: set[tuple[str, ...]] = set()
    found = []
    for build in every_convention(family):
        key = (*(s.key for s in belonging(build, family.steps)), "|", *(s.key for s in belonging(build, family.stacks)))
        if key not in seen:
            seen.add(key)
            found.append(build)
    return tuple(found)


@cache
def procedures() -> tuple[Family, ...]:
    """Every family in every build that has steps of its own."""
    found = []
    for family in FAMILIES.values():
        seen: set[tuple[str, ...]] = set()
        for build in distinct(family):
            key = tuple(s.key for s in belonging(build, family.steps))
            if key not in seen:
                seen.add(key)
                found.append(family.built(build))
    return tuple(found)
