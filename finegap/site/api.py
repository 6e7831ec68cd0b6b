"""What every API module shares: the unit asked for, the caller, answers made of dataclasses."""

from __future__ import annotations

from collections.abc import Mapping
from functools import cache
from typing import Any, ClassVar, TypeVar, get_args

from django.contrib.auth.models import User
from django.core.files.base import File
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, PolymorphicProxySerializer, extend_schema_field
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework_dataclasses.field_utils import TypeInfo
from rest_framework_dataclasses.serializers import DataclassSerializer

from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.formatting import Text, Units
from finegap.core.numerals import MARKS, Mark
from finegap.site.errors import OtherPerson
from finegap.site.plain import TEXTS, plain

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


class ResponseSerializer(DataclassSerializer[Any]):
    """A serializer of a shape: a ``Text`` is a text, whatever numbers are in it; a base of several kinds is any one of them."""

    serializer_field_mapping = {**DataclassSerializer.serializer_field_mapping, **dict.fromkeys(TEXTS, serializers.CharField)}

    kinds: ClassVar[dict[type, Mapping[str, type]]] = {}
    """Shapes that stand for several: the base, and by ``kind`` what it may be."""

    def build_typed_field(self, field_name: str, type_info: TypeInfo, extra_kwargs: dict[str, Any]) -> tuple[Any, dict[str, Any]]:
        """An answer has every field, also one whose dataclass has a default."""
        kind, given = super().build_typed_field(field_name, type_info, extra_kwargs)
        given.pop("required", None)
        return kind, given

    def build_dataclass_field(self, field_name: str, type_info: TypeInfo) -> tuple[Any, dict[str, Any]]:
        """One of several kinds where its type is a base of them."""
        base = type_info.base_type
        if base in self.kinds:
            return _one_of(base), {}
        if base in self.serializer_field_mapping:
            return serializers.CharField, {}
        return response_serializer(base), {"many": type_info.is_many}

    def build_standard_field(self, field_name: str, type_info: TypeInfo) -> tuple[Any, dict[str, Any]]:
        """The kind of a shape that is one of several is a text of its own."""
        if field_name == "kind":
            shape = self.dataclass_definition.dataclass_type
            kind = next((kind for kinds in self.kinds.values() for kind, one in kinds.items() if one is shape), None)
            if kind is not None:
                return _kind_field(kind), {}
        field: tuple[Any, dict[str, Any]] = super().build_standard_field(field_name, type_info)
        return field

    def build_enum_field(self, field_name: str, type_info: TypeInfo) -> tuple[Any, dict[str, Any]]:
        """Its value, as text."""
        return serializers.CharField, {}

    def build_union_field(self, field_name: str, type_info: TypeInfo, extra_kwargs: dict[str, Any]) -> tuple[Any, dict[str, Any]]:
        """Of all unions, shapes have this one alone."""
        if set(get_args(type_info.base_type)) != set(get_args(Text)):
            raise NotImplementedError(f"{field_name}: a shape has no other union than Text.")
        return serializers.CharField, {}


def any_kind_of(base: type, kinds: Mapping[str, type]) -> None:
    """Say that a shape stands for several, told apart by their ``kind``."""
    ResponseSerializer.kinds[base] = kinds


@cache
def _kind_field(kind: str) -> type[serializers.CharField]:
    return extend_schema_field({"type": "string", "enum": [kind]})(type("Kind", (serializers.CharField,), {}))


@cache
def _one_of(base: type) -> type[serializers.Field[Any, Any, Any, Any]]:
    of: dict[str, Any] = {kind: response_serializer(shape) for kind, shape in ResponseSerializer.kinds[base].items()}
    proxy = PolymorphicProxySerializer(component_name=base.__name__, serializers=of, resource_type_field_name="kind", many=False)
    return extend_schema_field(proxy)(type(base.__name__, (serializers.JSONField,), {}))


@cache
def response_serializer(shape: type) -> type[DataclassSerializer[Any]]:
    """A serializer class for a shape: the schema's component carries the shape's name."""
    meta = type("Meta", (), {"dataclass": shape})
    return type(shape.__name__.removesuffix("Response"), (ResponseSerializer,), {"Meta": meta, "__doc__": shape.__doc__})


class RequestSerializer(DataclassSerializer[Any]):
    """A serializer of what is sent: a dataclass whose fields say their bounds (``site.fields``)."""

    serializer_field_mapping = {**DataclassSerializer.serializer_field_mapping, File: serializers.FileField}

    def build_dataclass_field(self, field_name: str, type_info: TypeInfo) -> tuple[Any, dict[str, Any]]:
        """Of a dataclass in a dataclass."""
        return _sent(type_info.base_type), {"many": type_info.is_many}


@cache
def _sent(declared: type) -> type[DataclassSerializer[Any]]:
    meta = type("Meta", (), {"dataclass": declared})
    return type(declared.__name__, (RequestSerializer,), {"Meta": meta, "__doc__": declared.__doc__})


def request_serializer(declared: type, base: type[serializers.Serializer[Any]] = serializers.Serializer) -> type[Any]:
    """A serializer class for a dataclass that is sent, beside what ``base`` says comes with it, if anything does."""
    fields = _sent(declared)().get_fields()
    return type(declared.__name__, (base,), {**fields, "__doc__": declared.__doc__})


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


def answer(shape: Any, status: int = 200, units: Units = Units.MM) -> Response:
    """A shape, a list of shapes, or a frozen record, as JSON; its texts in a unit system."""
    return Response(plain(shape, units), status=status)
