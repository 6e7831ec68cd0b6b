"""Who acts: whoever is signed in with the request that is answered, or “server”."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar

from django.contrib.auth.models import User
from django.http import HttpRequest

SERVER = "server"
_acting: ContextVar[HttpRequest | str] = ContextVar("acting", default=SERVER)


@contextmanager
def acting(by: HttpRequest | str) -> Iterator[None]:
    """What is written meanwhile was done by the person of a request, or by a user name."""
    before = _acting.set(by)
    try:
        yield
    finally:
        _acting.reset(before)


def who() -> str:
    """The user name; called in the middle of a statement, so that nothing is asked of the database for it."""
    by = _acting.get()
    if isinstance(by, str):
        return by
    # Django keeps whom it has looked up in the first; whoever signs in with this very request is the second.
    person = by.__dict__.get("_cached_user") or by.__dict__.get("user")
    return person.get_username() if isinstance(person, User) and person.pk else SERVER
