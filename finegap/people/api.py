"""People and their PINs over HTTP."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass

from django.contrib.auth import SESSION_KEY, login, update_session_auth_hash
from django.contrib.auth.models import User
from django.contrib.sessions.models import Session
from django.utils import timezone
from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.api import fields as sent
from finegap.api.answers import Error, answer, response_serializer
from finegap.api.permissions import LeadWrites
from finegap.api.requests import actor_of, checked, request_serializer
from finegap.api.roles import LEAD, ROLES, role_of
from finegap.people import second_factor, sign_in
from finegap.people.changes import (
    AddPerson,
    BeginSecond,
    ChangePassword,
    ChangePerson,
    ConfirmSecond,
    SwitchPerson,
    TakeOffSecond,
)
from finegap.people.models import PersonEvent
from finegap.people.pins import clear_pin, is_pin, set_pin, unlock
from finegap.people.services import MOST_PEOPLE, add_person, change_password, change_person, says_by, somebody

_ERRORS = {409: Error, 422: Error, 429: Error}
_MOST_LINES, _MOST_SESSIONS = 40, 500


@dataclass(frozen=True)
class PersonResponse:
    """Somebody who works here, or did; ``signed_in`` while a session of theirs is open anywhere.

    ``locked`` says from which addresses too many wrong tries were made, and ``pin_locked`` that of the PIN; ``second_factor`` that
    a code is asked for at the sign-in.
    """

    username: str
    name: str
    role: str
    has_pin: bool
    works_here: bool
    signed_in: bool
    second_factor: bool
    locked: list[str]
    pin_locked: bool


@dataclass(frozen=True)
class PersonEventResponse:
    """A line of the log of people."""

    person: str
    by: str
    at: dt.datetime
    what: str


@dataclass(frozen=True)
class PeopleResponse:
    """Oneself; and for a lead everybody, and the log of people, the newest first."""

    me: PersonResponse
    people: list[PersonResponse]
    log: list[PersonEventResponse]


@dataclass(frozen=True)
class SomebodyResponse:
    """Somebody who can go on at this browser; ``by`` says with what: “PIN”, “password” or “password and code”."""

    username: str
    name: str
    by: str


PeopleAnswer = response_serializer(PeopleResponse)
SomebodyAnswer = response_serializer(SomebodyResponse)


@dataclass(frozen=True)
class SetPin:
    """A PIN set or changed by oneself."""

    password: str = sent.secret(200, as_written=True)
    pin: str = sent.secret()


SetPinRequest = request_serializer(SetPin)


AddPersonRequest = request_serializer(AddPerson)
ChangePersonRequest = request_serializer(ChangePerson)
ChangePasswordRequest = request_serializer(ChangePassword)
SwitchRequest = request_serializer(SwitchPerson)
BeginSecondRequest, ConfirmSecondRequest = request_serializer(BeginSecond), request_serializer(ConfirmSecond)
TakeOffSecondRequest = request_serializer(TakeOffSecond)
BegunAnswer, PaperAnswer = response_serializer(second_factor.BegunResponse), response_serializer(second_factor.PaperResponse)


class People(APIView):
    """Who works here, and who has a PIN."""

    permission_classes = [LeadWrites]

    @extend_schema(responses=PeopleAnswer)
    def get(self, request: Request) -> Response:
        """Oneself; for a lead everybody."""
        return answer(_people(actor_of(request)))

    @extend_schema(request=AddPersonRequest, responses={200: PeopleAnswer, **_ERRORS})
    def post(self, request: Request) -> Response:
        """Add somebody."""
        add_person(actor_of(request), AddPerson(**checked(AddPersonRequest, request)))
        return answer(_people(actor_of(request)))


class PersonChanged(APIView):
    """Somebody's role, password, or end here."""

    permission_classes = [LeadWrites]

    @extend_schema(request=ChangePersonRequest, responses={200: PeopleAnswer, **_ERRORS})
    def post(self, request: Request, username: str) -> Response:
        """By a lead; the log says so."""
        change_person(actor_of(request), username, ChangePerson(**checked(ChangePersonRequest, request)))
        return answer(_people(actor_of(request)))


class Switch(APIView):
    """Somebody else at a browser that is in use."""

    @extend_schema(responses=SomebodyAnswer(many=True))
    def get(self, request: Request) -> Response:
        """Who there is, beside oneself."""
        rows = User.objects.filter(groups__name__in=ROLES, is_active=True).exclude(pk=actor_of(request).pk)
        rows = rows.select_related("pin").prefetch_related("groups").distinct().order_by("first_name", "username")
        return answer([SomebodyResponse(one.username, _name(one), _says(one)) for one in rows[:MOST_PEOPLE]])

    @extend_schema(request=SwitchRequest, responses={200: PeopleAnswer, **_ERRORS})
    def post(self, request: Request) -> Response:
        """Sign in as that person; the session before ends."""
        new = SwitchPerson(**checked(SwitchRequest, request))
        person = somebody(new.username)
        if says_by(person) == "PIN":
            sign_in.try_at(request._request, person, lambda: is_pin(person, new.secret), "PIN")
        else:
            sign_in.try_at(request._request, person, lambda: person.check_password(new.secret), "password")
        if second_factor.has_second(person):
            sign_in.try_at(request._request, person, lambda: second_factor.is_code(person, new.code), "code")
        login(request._request, person, sign_in.BACKEND)
        return answer(_people(person))


class OwnPassword(APIView):
    """One's own password."""

    @extend_schema(request=ChangePasswordRequest, responses={200: PeopleAnswer, **_ERRORS})
    def post(self, request: Request) -> Response:
        """Change it, with the old one; this session stays open, and any other ends."""
        person = actor_of(request)
        change_password(person, ChangePassword(**checked(ChangePasswordRequest, request)))
        update_session_auth_hash(request._request, person)
        return answer(_people(person))


class OwnPin(APIView):
    """One's own PIN."""

    @extend_schema(request=SetPinRequest, responses={200: PeopleAnswer, **_ERRORS})
    def post(self, request: Request) -> Response:
        """Set or change it, with one's password."""
        new = SetPin(**checked(SetPinRequest, request))
        set_pin(actor_of(request), new.password, new.pin)
        return answer(_people(actor_of(request)))


class OwnSecond(APIView):
    """One's own second factor, for leads."""

    permission_classes = [LeadWrites]

    @extend_schema(request=BeginSecondRequest, responses={200: BegunAnswer, **_ERRORS})
    def post(self, request: Request) -> Response:
        """Begin it."""
        return answer(second_factor.begin(actor_of(request), BeginSecond(**checked(BeginSecondRequest, request)).password))


class OwnSecondConfirmed(APIView):
    """The first code of it."""

    permission_classes = [LeadWrites]

    @extend_schema(request=ConfirmSecondRequest, responses={200: PaperAnswer, **_ERRORS})
    def post(self, request: Request) -> Response:
        """From now on it is asked for."""
        return answer(second_factor.confirm(actor_of(request), ConfirmSecond(**checked(ConfirmSecondRequest, request)).code))


class OwnSecondTakenOff(APIView):
    """One's own second factor, taken off: also by somebody who is no lead any more."""

    @extend_schema(request=TakeOffSecondRequest, responses={200: PeopleAnswer, **_ERRORS})
    def post(self, request: Request) -> Response:
        """With password and code."""
        given = TakeOffSecond(**checked(TakeOffSecondRequest, request))
        second_factor.take_off(actor_of(request), given.password, given.code)
        return answer(_people(actor_of(request)))


class SecondCleared(APIView):
    """Somebody's second factor, cleared."""

    permission_classes = [LeadWrites]

    @extend_schema(request=None, responses={200: PeopleAnswer, **_ERRORS})
    def post(self, request: Request, username: str) -> Response:
        """By another lead; the log says so."""
        second_factor.clear_second(actor_of(request), username)
        return answer(_people(actor_of(request)))


class Unlocked(APIView):
    """Somebody who may try again."""

    permission_classes = [LeadWrites]

    @extend_schema(request=None, responses={200: PeopleAnswer, **_ERRORS})
    def post(self, request: Request, username: str) -> Response:
        """By a lead, at once and everywhere; the log says so."""
        unlock(actor_of(request), username)
        sign_in.unlock_everywhere(username)
        return answer(_people(actor_of(request)))


class PinCleared(APIView):
    """Somebody's PIN, cleared."""

    permission_classes = [LeadWrites]

    @extend_schema(request=None, responses={200: PeopleAnswer, **_ERRORS})
    def post(self, request: Request, username: str) -> Response:
        """By a lead; the log says so."""
        clear_pin(actor_of(request), username)
        return answer(_people(actor_of(request)))


def _says(one: User) -> str:
    by = says_by(one)
    return f"{by} and code" if second_factor.has_second(one) else by


@dataclass(frozen=True)
class _Now:
    """What is so of everybody at this moment."""

    signed_in: set[str]
    locked: dict[str, list[str]]
    second: set[int]


def _people(me: User) -> PeopleResponse:
    is_lead = role_of(me) == LEAD
    rows = User.objects.filter(groups__name__in=ROLES).select_related("pin").prefetch_related("groups")
    everybody = rows.distinct().order_by("-is_active", "first_name", "username")[:MOST_PEOPLE] if is_lead else []
    log = PersonEvent.objects.select_related("person", "by")[:_MOST_LINES] if is_lead else []
    now = _Now(
        _signed_in() if is_lead else {str(me.pk)},
        sign_in.locks() if is_lead else {},
        second_factor.who_has(None if is_lead else me),
    )
    return PeopleResponse(
        _person(me, now),
        [_person(one, now) for one in everybody],
        [PersonEventResponse(_name(e.person), _name(e.by), e.at, e.what) for e in log],
    )


def _signed_in() -> set[str]:
    """Keys of the people with an open session: of the newest ones, which are those of today."""
    sessions = Session.objects.filter(expire_date__gt=timezone.now()).order_by("-expire_date")[:_MOST_SESSIONS]
    return {str(one.get_decoded().get(SESSION_KEY)) for one in sessions}


def _person(user: User, now: _Now) -> PersonResponse:
    pin = getattr(user, "pin", None)
    names = {group.name for group in user.groups.all()}
    role = next((one for one in reversed(ROLES) if one in names), "")
    pin_locked = bool(pin and pin.locked_until and pin.locked_until > timezone.now())
    return PersonResponse(
        user.username, _name(user), role, bool(pin and pin.hashed), user.is_active,
        user.is_active and str(user.pk) in now.signed_in, user.pk in now.second, now.locked.get(user.username, []), pin_locked,
    )  # fmt: skip


def _name(user: User) -> str:
    return user.get_full_name() or user.username
