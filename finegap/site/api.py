"""What every API module shares: the unit asked for, the caller, answers made of dataclasses."""

from __future__ import annotations

from typing import Any, TypeVar

from django.contrib.auth.models import User
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework_dataclasses.serializers import DataclassSerializer

from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.numerals import MARKS, Mark
from finegap.core.showing import Units
from finegap.site.errors import OtherPerson
from finegap.site.plain import plain

UNIT = OpenApiParameter("unit", OpenApiTypes.STR, enum=[u.value for u in Units], default=Units.MM.value)
"""The unit system of the answer's texts."""

S = TypeVar("S", bound=serializers.Serializer)  # type: ignore[type-arg]


class Entered(serializers.Serializer[Any]):
    """What everything that is typed carries: the unit system and decimal mark in force with the keystroke, and who typed it.

    ``person`` is the user name the page believes to be signed in. ``meant`` says that what was asked about is meant.
    """

    unit = serializers.ChoiceField([u.value for u in Units])
    mark = serializers.ChoiceField(MARKS)
    person = serializers.CharField(max_length=150)
    meant = serializers.BooleanField(default=False)


def entered(serializer: type[Entered], request: Request) -> tuple[Entry, dict[str, Any]]:
    """How a request was typed, and the rest of it.

    Raises
    ------
    OtherPerson
        The page believes somebody else to be signed in.
    """
    units_of(request)  # what cannot be answered is not saved either
    data = checked(serializer, request)
    actor, person = actor_of(request), data.pop("person")
    if person != actor.username:
        raise OtherPerson(actor.get_full_name() or actor.username)
    return Entry(Units(data.pop("unit")), Mark(data.pop("mark")), data.pop("meant")), data


class ErrorSuggestion(serializers.Serializer[Any]):
    """Another way of reading what was typed."""

    typed = serializers.CharField()
    meaning = serializers.CharField()


class Error(serializers.Serializer[Any]):
    """Every error has this shape."""

    code = serializers.ChoiceField(
        [
            "field",
            "unlikely",
            "ambiguous",
            "conflict",
            "person",
            "signed",
            "refused",
            "signed-out",
            "not-allowed",
            "not-found",
            "bad-request",
        ]
    )
    problem = serializers.CharField()
    field = serializers.CharField(allow_blank=True)
    hint = serializers.CharField(allow_blank=True)
    suggestions = ErrorSuggestion(many=True)
    reasons = serializers.ListField(child=serializers.CharField())
    reason_wanted = serializers.BooleanField()


def shape_serializer(shape: type) -> type[DataclassSerializer[Any]]:
    """A serializer class for a shape: the schema's component carries the shape's name."""
    meta = type("Meta", (), {"dataclass": shape})
    return type(shape.__name__.removesuffix("Shape"), (DataclassSerializer,), {"Meta": meta, "__doc__": shape.__doc__})


def units_of(request: Request) -> Units:
    """The unit system asked for."""
    asked = request.query_params.get("unit", Units.MM.value)
    try:
        return Units(asked)
    except ValueError:
        raise FieldError("unit", f"“{asked}” is not a unit system.", "Expected mm or in.") from None


def actor_of(request: Request) -> User:
    """Who asks; the permission classes have let nobody else through."""
    assert isinstance(request.user, User)
    return request.user


def checked(serializer: type[S], request: Request) -> dict[str, Any]:
    """The request's data, checked by a serializer."""
    instance = serializer(data=request.data)
    instance.is_valid(raise_exception=True)
    return dict(instance.validated_data)


def answer(shape: Any, status: int = 200) -> Response:
    """A shape, a list of shapes, or a frozen record, as JSON."""
    return Response(plain(shape), status=status)
