"""What is answered: shapes as JSON, written out in a unit system; one shape for every error.

A ``Text`` is written out when the answer is made (``api.plain``); shapes have no unit. Workings and lines of sums are the core's
own.
"""

from __future__ import annotations

from collections.abc import Mapping
from functools import cache
from typing import Any, ClassVar, get_args

from drf_spectacular.utils import PolymorphicProxySerializer, extend_schema_field
from rest_framework import serializers
from rest_framework.response import Response
from rest_framework_dataclasses.field_utils import TypeInfo
from rest_framework_dataclasses.serializers import DataclassSerializer

from finegap.api.plain import TEXTS, plain
from finegap.core.formatting import Text, Units
from finegap.core.working import Working


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
            "locked",
            "busy",
            "disk-full",
            "read-only",
            "damaged",
            "fault",
        ]
    )
    problem = serializers.CharField()
    field = serializers.CharField(allow_blank=True)
    hint = serializers.CharField(allow_blank=True)
    suggestions = ErrorSuggestion(many=True)
    reasons = serializers.ListField(child=serializers.CharField())
    reason_wanted = serializers.BooleanField()


class ResponseSerializer(DataclassSerializer[Any]):
    """A serializer made from a shape. A ``Text`` is written as text; a base of several kinds is any one of them."""

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
        if base is Working:
            return _working_field(), {}
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


class WorkingPlace(serializers.Serializer[Any]):
    """A working that is asked for when it is looked at: its title, and the place of it."""

    title = serializers.CharField()
    at = serializers.CharField()


@cache
def _working_field() -> type[serializers.Field[Any, Any, Any, Any]]:
    either: list[Any] = [response_serializer(Working), WorkingPlace]
    proxy = PolymorphicProxySerializer("WorkingOrPlace", either, resource_type_field_name=None, many=False)
    return extend_schema_field(proxy)(type("WorkingOrPlace", (serializers.JSONField,), {}))


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


def answer(shape: Any, status: int = 200, units: Units = Units.MM) -> Response:
    """A shape, a list of shapes, or a frozen record, as JSON; its texts in a unit system."""
    return Response(plain(shape, units), status=status)
