"""Setting, clearing and asking for a PIN."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable
from itertools import pairwise

from django.contrib.auth.hashers import check_password, make_password
from django.contrib.auth.models import User
from django.db import models, transaction
from django.utils import timezone

from finegap.api.errors import Refused
from finegap.core.errors import FieldError
from finegap.people.models import PersonEvent, Pin

SHORTEST, LONGEST = 4, 8
MOST_WRONG = 5
PAUSE = dt.timedelta(minutes=15)
"""After so many wrong tries in a row nothing is tried for so long."""


def check_pin(person: User, pin: str) -> None:
    """Lets a person go on who knows the PIN. A wrong try is counted, whatever becomes of the change it came with.

    Raises
    ------
    Refused
        None was set yet, or too many wrong tries.
    FieldError
        None was entered, or a wrong one.
    """
    row = Pin.objects.filter(person=person).first()
    if row is None or not row.hashed:
        raise Refused("You have no PIN yet.", ["Set one on your own page, with your password. Then sign."])
    if not pin:
        raise FieldError("PIN", "none was entered.", "Expected yours.")
    try_secret(person, lambda: check_password(pin, row.hashed), "PIN")


def is_pin(person: User, pin: str) -> bool:
    """Whether it is the person's PIN; a wrong one is counted by whoever asks."""
    row = Pin.objects.filter(person=person).first()
    return bool(row and row.hashed and check_password(pin, row.hashed))


def set_pin(person: User, password: str, pin: str) -> None:
    """Set or change one's own PIN, with one's password.

    Raises
    ------
    Refused
        Too many wrong tries.
    FieldError
        A wrong password; not 4 to 8 digits; digits anybody would try first.
    """
    if not (pin.isascii() and pin.isdigit() and SHORTEST <= len(pin) <= LONGEST):
        raise FieldError("PIN", "that is no PIN.", f"Expected {SHORTEST} to {LONGEST} digits.")
    if _is_obvious(pin):
        raise FieldError(
            "PIN", "that is one anybody would try first.", "Expected other digits than one repeated, or a run of them."
        )
    try_secret(person, lambda: person.check_password(password), "password")
    with transaction.atomic():
        Pin.objects.update_or_create(person=person, defaults={"hashed": make_password(pin), "wrong": 0, "locked_until": None})
        _log(person, person, "PIN set")


def unlock(lead: User, username: str) -> None:
    """Let a PIN be tried again.

    Raises
    ------
    FieldError
        No such person.
    """
    person = User.objects.filter(username=username).first()
    if person is None:
        raise FieldError("person", f"nobody here is called {username[:40]}.", "Expected somebody of the list.")
    with transaction.atomic():
        Pin.objects.filter(person=person).update(wrong=0, locked_until=None)
        _log(person, lead, "unlocked")


def clear_pin(lead: User, username: str) -> None:
    """Clear a person's PIN, who then sets another; nobody sets one for somebody else.

    Raises
    ------
    FieldError
        No such person, or one without a PIN.
    """
    with transaction.atomic():
        row = Pin.objects.select_related("person").filter(person__username=username).exclude(hashed="").first()
        if row is None:
            raise FieldError("person", f"{username} has no PIN.", "Expected somebody with one.")
        row.hashed, row.wrong, row.locked_until = "", 0, None
        row.save()
        _log(row.person, lead, "PIN cleared")


def try_secret(person: User, is_right: Callable[[], bool], name: str) -> None:
    """One try at a PIN or a password.

    It is counted before it is checked, in a transaction of its own, so that none of many at once is free.
    """
    now = timezone.now()
    with transaction.atomic():
        row = Pin.objects.get_or_create(person=person)[0]
        Pin.objects.filter(pk=row.pk).update(wrong=models.F("wrong") + 1)
        row.refresh_from_db()
        if row.locked_until and row.locked_until <= now:
            row.wrong, row.locked_until = 1, None
            row.save()
        if row.wrong > MOST_WRONG and row.locked_until is None:
            row.locked_until = now + PAUSE
            row.save()
            _log(person, person, "locked: too many wrong tries")
    if row.locked_until:
        until = timezone.localtime(row.locked_until)
        raise Refused("Too many wrong tries.", [f"It can be tried again at {until:%H:%M}, or when a lead has cleared it."])
    if not is_right():
        raise FieldError(name, f"the {name} is wrong.", "Expected yours.")
    Pin.objects.filter(pk=row.pk).update(wrong=0)


def _is_obvious(pin: str) -> bool:
    steps = {(int(b) - int(a)) % 10 for a, b in pairwise(pin)}
    return len(steps) == 1 and steps <= {0, 1, 9}


def _log(person: User, by: User, what: str) -> None:
    PersonEvent.objects.create(person=person, by=by, at=timezone.now(), what=what)
