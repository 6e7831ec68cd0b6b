"""Results kept by what they follow from.

The core's sums are pure: of equal arguments they say the same, in any job, on any day, in any process. A save changes a few
readings of a job; for all else the result is looked up instead of worked out again. Nothing has to be told when something changes:
other arguments are another result.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import lru_cache, wraps
from typing import Any, ParamSpec, TypeVar

P = ParamSpec("P")
R = TypeVar("R")


_CACHES: list[Callable[[], None]] = []


def forget() -> None:
    """Forget all that was kept: for who changes the rules themselves, as a test does, or measures a sum."""
    for clear in _CACHES:
        clear()


def kept(most: int) -> Callable[[Callable[P, R]], Callable[P, R]]:
    """Keep the results of a pure function, the ``most`` used last. Its arguments are values, or lists of values."""

    def wrap(pure: Callable[P, R]) -> Callable[P, R]:
        # An int is not taken for an equal float: they are written differently.
        known = lru_cache(maxsize=most, typed=True)(pure)
        _CACHES.append(known.cache_clear)

        @wraps(pure)
        def looked_up(*args: P.args, **given: P.kwargs) -> R:
            return known(*map(_value, args), **{name: _value(one) for name, one in given.items()})

        return looked_up

    return wrap


def _value(one: Any) -> Any:
    return tuple(one) if isinstance(one, list) else one
