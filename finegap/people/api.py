"""People and their PINs over HTTP."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass

from django.contrib.auth.models import User
from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.api import fields as sent
from finegap.api.answers import Error, answer, response_serializer
from finegap.api.permissions import LeadWrites
from finegap.api.requests import actor_of, checked, request_serializer
from finegap.api.roles import LEAD, ROLES, role_of
from finegap.people.models import PinEvent
from finegap.people.pins import clear_pin, set_pin

_ERRORS = {409: Error, 422: Error}
_MOST_PEOPLE, _MOST_LINES = 200, 40


@dataclass(frozen=True)
class PersonResponse:
    """Somebody who works here."""

    username: str
    name: str
    role: str
    has_pin: bool


@dataclass(frozen=True)
class PinEventResponse:
    """A line of the log of PINs."""

    person: str
    by: str
    at: dt.datetime
    what: str


@dataclass(frozen=True)
class PeopleResponse:
    """Oneself; and for a lead everybody, and what was done with PINs, the newest first."""

    me: PersonResponse
    people: list[PersonResponse]
    log: list[PinEventResponse]


PeopleAnswer = response_serializer(PeopleResponse)


@dataclass(frozen=True)
class SetPin:
    """A PIN set or changed by oneself."""

    password: str = sent.secret(200, as_written=True)
    pin: str = sent.secret()


SetPinRequest = request_serializer(SetPin)


class People(APIView):
    """Who works here, and who has a PIN."""

    @extend_schema(responses=PeopleAnswer)
    def get(self, request: Request) -> Response:
        """Oneself; for a lead everybody."""
        return answer(_people(actor_of(request)))


class OwnPin(APIView):
    """One's own PIN."""

    @extend_schema(request=SetPinRequest, responses={200: PeopleAnswer, **_ERRORS})
    def post(self, request: Request) -> Response:
        """Set or change it, with one's password."""
        new = SetPin(**checked(SetPinRequest, request))
        set_pin(actor_of(request), new.password, new.pin)
        return answer(_people(actor_of(request)))


class PinCleared(APIView):
    """Somebody's PIN, cleared."""

    permission_classes = [LeadWrites]

    @extend_schema(request=None, responses={200: PeopleAnswer, **_ERRORS})
    def post(self, request: Request, username: str) -> Response:
        """By a lead; the log says so."""
        clear_pin(actor_of(request), username)
        return answer(_people(actor_of(request)))


def _people(me: User) -> PeopleResponse:
    is_lead = role_of(me) == LEAD
    rows = User.objects.filter(groups__name__in=ROLES, is_active=True).select_related("pin").prefetch_related("groups")
    everybody = rows.distinct().order_by("first_name", "username")[:_MOST_PEOPLE] if is_lead else []
    log = PinEvent.objects.select_related("person", "by")[:_MOST_LINES] if is_lead else []
    return PeopleResponse(
        _person(me),
        [_person(one) for one in everybody],
        [PinEventResponse(_name(e.person), _name(e.by), e.at, e.what) for e in log],
    )


def _person(user: User) -> PersonResponse:
    pin = getattr(user, "pin", None)
    names = {group.name for group in user.groups.all()}
    role = next((one for one in reversed(ROLES) if one in names), "")
    return PersonResponse(user.username, _name(user), role, bool(pin and pin.hashed))


def _name(user: User) -> str:
    return user.get_full_name() or user.username
