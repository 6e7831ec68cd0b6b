"""A second factor of a lead: a code of six digits from a telephone (TOTP, RFC 6238), and ten codes on paper for when it is lost."""

from __future__ import annotations

import base64
import io
from binascii import unhexlify
from dataclasses import dataclass

import segno
from django.contrib.auth.models import User
from django.db import transaction
from django_otp import devices_for_user, match_token
from django_otp.plugins.otp_static.models import StaticDevice, StaticToken
from django_otp.plugins.otp_totp.models import TOTPDevice

from finegap.api.errors import Refused
from finegap.api.roles import LEAD, role_of
from finegap.core.errors import FieldError
from finegap.people.pins import try_secret
from finegap.people.services import log_person

_ON_PAPER = 10
_MOST = 200


@dataclass(frozen=True)
class BegunResponse:
    """What a telephone needs: the key, by a picture to scan (SVG) or to be typed (base 32)."""

    picture: str
    key: str


@dataclass(frozen=True)
class PaperResponse:
    """Codes that count once each, for when the telephone is lost. They are shown this once."""

    codes: list[str]


def has_second(person: User) -> bool:
    """Whether somebody signs in with a code, too."""
    return next(iter(devices_for_user(person)), None) is not None


def who_has(person: User | None) -> set[int]:
    """Keys of the people who do; of one alone where it is said who."""
    rows = TOTPDevice.objects.filter(confirmed=True)
    return set((rows if person is None else rows.filter(user=person)).values_list("user_id", flat=True)[:_MOST])


def is_code(person: User, code: str) -> bool:
    """Whether it is the code of now, or one of those on paper that was not used."""
    given = "".join(code.split()).lower()
    return bool(given) and match_token(person, given) is not None


def begin(person: User, password: str) -> BegunResponse:
    """A new key; nothing is asked for at the sign-in until a code of it was right.

    Raises
    ------
    Refused
        Not a lead, or one that has a second factor already.
    FieldError
        A wrong password.
    """
    if role_of(person) != LEAD:
        raise Refused("A second factor is for leads.", ["A lead's sign-in opens people and settings."])
    if has_second(person):
        raise Refused("You have a second factor already.", ["Take it off first."])
    try_secret(person, lambda: person.check_password(password), "password")
    with transaction.atomic():
        TOTPDevice.objects.filter(user=person).delete()
        device = TOTPDevice.objects.create(user=person, name="telephone", confirmed=False)
    into = io.BytesIO()
    segno.make(device.config_url, error="m").save(into, kind="svg", scale=5, border=4, xmldecl=False)
    return BegunResponse(into.getvalue().decode(), base64.b32encode(unhexlify(device.key)).decode())


def confirm(person: User, code: str) -> PaperResponse:
    """The first right code: from now on one is asked for.

    Raises
    ------
    Refused
        Nothing was begun.
    FieldError
        A wrong code.
    """
    device = TOTPDevice.objects.filter(user=person, confirmed=False).first()
    if device is None:
        raise Refused("There is no key yet.", ["Begin with your password."])
    if not device.verify_token("".join(code.split())):
        raise FieldError("code", "it is not the one of now.", "Expected six digits; both clocks have to be right.")
    with transaction.atomic():
        device.confirmed = True
        device.save()
        paper = StaticDevice.objects.create(user=person, name="paper")
        codes = [StaticToken.random_token() for _ in range(_ON_PAPER)]
        StaticToken.objects.bulk_create(StaticToken(device=paper, token=one) for one in codes)
        log_person(person, person, "second factor set up")
    return PaperResponse(codes)


def take_off(person: User, password: str, code: str) -> None:
    """One's own, with password and code, which are one try: neither can be guessed with the other in hand.

    Raises
    ------
    FieldError
        A wrong password, or a wrong code.
    Refused
        Too many wrong tries.
    """
    try_secret(person, lambda: person.check_password(password) and is_code(person, code), "password or code")
    remove(person, person)


def clear_second(lead: User, username: str) -> None:
    """Somebody else's, whose telephone and paper are lost.

    Raises
    ------
    FieldError
        Nobody with one; oneself.
    """
    person = User.objects.filter(username=username).exclude(pk=lead.pk).first()
    if person is None or not has_second(person):
        raise FieldError("person", f"{username[:40]} has no second factor, or is yourself.", "Expected somebody else with one.")
    remove(person, lead)


def remove(person: User, by: User, what: str = "second factor taken off") -> None:
    """Forget the key and the codes on paper; the log says so."""
    with transaction.atomic():
        TOTPDevice.objects.filter(user=person).delete()
        StaticDevice.objects.filter(user=person).delete()
        log_person(person, by, what)
