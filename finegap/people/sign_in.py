"""Signing in: one password at a time, slowed by address, locked by account and address; and who has one, by a second factor."""

from __future__ import annotations

import datetime as dt
import fcntl
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any

from axes.handlers.proxy import AxesProxyHandler
from axes.models import AccessAttempt, AccessFailureLog
from axes.signals import user_locked_out
from axes.utils import reset
from django.conf import settings
from django.contrib.auth.models import User
from django.contrib.auth.signals import user_login_failed
from django.dispatch import receiver
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import render
from django.utils import timezone

from finegap.api.address import client_address
from finegap.api.errors import Locked
from finegap.api.shape import body
from finegap.core.errors import FieldError
from finegap.people.models import PersonEvent

BACKEND = "django.contrib.auth.backends.ModelBackend"
"""By which a session knows its person."""

PACE = 20
"""Wrong tries of an address within a minute, of whatever accounts; after so many the next waits until the minute is over."""

_MINUTE = dt.timedelta(minutes=1)
_WAIT_S = 3.0
_AT_THE_DOOR = threading.BoundedSemaphore(2)
"""Requests of a worker that try a password or wait to: the other threads of it serve who is signed in."""


def paced(request: HttpRequest) -> None:
    """Let an address go on that has not tried too much within a minute.

    Raises
    ------
    Locked
        It has.
    """
    tried = AccessFailureLog.objects.filter(ip_address=client_address(request)).order_by("-pk")
    # The last so many alone: an address may have tried for weeks.
    earliest = next(iter(tried.values_list("attempt_time", flat=True)[PACE - 1 : PACE]), None)
    if earliest and earliest > timezone.now() - _MINUTE:
        raise Locked("Too many wrong tries from here within a minute.", ["Try again in a minute. Nobody is locked by that."])


@contextmanager
def one_at_a_time() -> Iterator[None]:
    """A password takes a third of a second of a processor to try, by design: one is tried at a time in the whole server.

    Raises
    ------
    Locked
        Others are being tried all the time.
    """
    busy = Locked("Many sign in at this moment.", ["Try again in a few seconds."])
    if not _AT_THE_DOOR.acquire(blocking=False):
        raise busy
    try:
        with open(settings.VAR / "trying", "a") as turn:
            until = time.monotonic() + _WAIT_S
            while True:
                try:
                    fcntl.flock(turn, fcntl.LOCK_EX | fcntl.LOCK_NB)
                    break
                except BlockingIOError:
                    if time.monotonic() > until:
                        raise busy from None
                    time.sleep(0.02)
            yield
    finally:
        _AT_THE_DOOR.release()


def try_at(request: HttpRequest, person: User, is_right: Callable[[], bool], name: str) -> None:
    """One try of somebody's PIN, password or code where the request comes from; a wrong one counts there alone.

    Raises
    ------
    Locked
        Too many wrong tries there.
    FieldError
        A wrong one.
    """
    credentials = {"username": person.get_username()}
    paced(request)
    with one_at_a_time():
        if not AxesProxyHandler.is_allowed(request, credentials):
            raise locked_here()
        right = is_right()
    if not right:
        user_login_failed.send(sender=__name__, credentials=credentials, request=request)
        if getattr(request, "axes_locked_out", False):
            raise locked_here()
        raise FieldError(name, f"the {name} is wrong.", "Expected theirs.")


def locked_here() -> Locked:
    """What is said of an account that is locked where somebody tries it."""
    minutes = int(settings.AXES_COOLOFF_TIME.total_seconds() // 60)
    return Locked(
        f"Too many wrong tries of this account from here: it is locked here for {minutes} minutes.",
        [
            "Anybody else can sign in here, and this account elsewhere.",
            "A lead unlocks it at once, on the page behind the lead's own name.",
        ],
    )


def locked_out(request: HttpRequest, _response: HttpResponse | None = None, _credentials: Any = None) -> HttpResponse:
    """What a locked account is answered where it is locked."""
    locked = locked_here()
    if request.path.startswith("/api/"):
        return JsonResponse(body("locked", str(locked), reasons=locked.reasons), status=429)
    return render(request, "site/sign_in.html", {"locked": locked, "next": request.POST.get("next", "")}, status=429)


@receiver(user_locked_out)
def _log_lock(username: str = "", ip_address: str = "", **_: Any) -> None:
    person = User.objects.filter(username=username).first()
    if person is not None:
        PersonEvent.objects.create(person=person, by=person, at=timezone.now(), what=f"locked at {ip_address}"[:60])


def locks() -> dict[str, list[str]]:
    """Where accounts are locked now: addresses by user name."""
    since = timezone.now() - settings.AXES_COOLOFF_TIME
    rows = AccessAttempt.objects.filter(failures_since_start__gte=settings.AXES_FAILURE_LIMIT, attempt_time__gt=since)
    found: dict[str, list[str]] = {}
    for username, address in rows.values_list("username", "ip_address")[:200]:
        found.setdefault(username, []).append(address)
    return found


def unlock_everywhere(username: str) -> None:
    """Forget the wrong tries of an account."""
    reset(username=username)
