"""What is sent: how it was typed and by whom, checked by what a dataclass declares; the unit asked for, the caller."""

from __future__ import annotations

from functools import cache
from typing import Any, TypeVar

from django.contrib.auth.models import User
from django.core.files.base import File
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework_dataclasses.field_utils import TypeInfo
from rest_framework_dataclasses.serializers import DataclassSerializer

from finegap.api.errors import OtherPerson
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.formatting import UNIT_NAMES, Units
from finegap.core.numerals import MARKS, DecimalMark

UNIT = OpenApiParameter("unit", OpenApiTypes.STR, enum=UNIT_NAMES, default=Units.MM.value)
"""The unit system of the answer's texts."""

S = TypeVar("S", bound=serializers.Serializer)  # type: ignore[type-arg]


class Entered(serializers.Serializer[Any]):
    """What everything that is typed carries: the unit system and decimal mark in force with the keystroke, and who typed it.

    ``person`` is the user name the page believes to be signed in. ``meant`` says that what was asked about is meant.
    """

    unit = serializers.ChoiceField(UNIT_NAMES)
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
    return Entry(Units(data.pop("unit")), DecimalMark(data.pop("mark")), data.pop("meant")), data


class RequestSerializer(DataclassSerializer[Any]):
    """A serializer made from a dataclass whose fields say their bounds (``api.fields``)."""

    serializer_field_mapping = {**DataclassSerializer.serializer_field_mapping, File: serializers.FileField}

    def build_dataclass_field(self, field_name: str, type_info: TypeInfo) -> tuple[Any, dict[str, Any]]:
        """Of a dataclass in a dataclass."""
        return _sent(type_info.base_type), {"many": type_info.is_many}


@cache
def _sent(declared: type) -> type[DataclassSerializer[Any]]:
    meta = type("Meta", (), {"dataclass": declared})
    return type(declared.__name__, (RequestSerializer,), {"Meta": meta, "__doc__": declared.__doc__})


def request_serializer(declared: type, base: type[serializers.Serializer[Any]] = serializers.Serializer) -> type[Any]:
    """A serializer class made from a dataclass that is sent, with the fields of ``base`` beside its own."""
    fields = _sent(declared)().get_fields()
    return type(declared.__name__, (base,), {**fields, "__doc__": declared.__doc__})


def units_of(request: Request) -> Units:
    """The unit system asked for."""
    asked = request.query_params.get("unit", Units.MM.value)
    try:
        return Units(asked)
    except ValueError:
        raise FieldError("unit", f"“{asked}” is not a unit system.", "Expected mm, in or thou.") from None


def actor_of(request: Request) -> User:
    """Who asks; the permission classes have let nobody else through."""
    assert isinstance(request.user, User)
    return request.user


def checked(serializer: type[S], request: Request) -> dict[str, Any]:
    """The request's data, checked by a serializer."""
    instance = serializer(data=request.data)
    instance.is_valid(raise_exception=True)
    return dict(instance.validated_data)
