"""Lists: searched, filtered, sorted and paged in the database; never more than a page in an answer."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cache
from typing import Any, ClassVar, TypeVar

from django.db.models import Model, Q, QuerySet
from django_filters import CharFilter, FilterSet, NumberFilter
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework import serializers
from rest_framework.request import Request

from finegap.api.answers import Error, response_serializer
from finegap.core.errors import FieldError

PAGE = 50
"""Lines of a page."""

_LAST_PAGE = 2000
_MOST_WORDS = 6
_LONGEST = 80

M = TypeVar("M", bound=Model)
L = TypeVar("L")
F = TypeVar("F", bound=Callable[..., Any])


@dataclass(frozen=True)
class Page:
    """Lines of a list, and whether there are more after them."""

    lines: list[Any]
    more: bool


@cache
def page_of(shape: type) -> type[serializers.Serializer[Any]]:
    """A serializer class for a page of a shape."""
    name = shape.__name__.removesuffix("Response").removesuffix("Line")
    fields = {"lines": response_serializer(shape)(many=True), "more": serializers.BooleanField(), "__doc__": Page.__doc__}
    return type(f"{name}List", (serializers.Serializer,), fields)


class ListFilter(FilterSet):  # type: ignore[misc]  # django-filter has no types
    """What any list can be asked for: lines that have every word of ``q`` in one of the ``searched`` fields; the page."""

    q = CharFilter(method="has_words", max_length=_LONGEST)
    page = NumberFilter(method="is_there", min_value=1, max_value=_LAST_PAGE, decimal_places=0)

    searched: ClassVar[Sequence[str]] = ()
    apart: ClassVar[str] = "pk"
    """What tells lines apart that are equal in the order: no page repeats a line or leaves one out."""
    lines: ClassVar[int] = PAGE
    """Lines of a page of this list: fewer where a line says much."""

    def has_words(self, rows: QuerySet[Any], _name: str, value: str) -> QuerySet[Any]:
        """Rows that have every word."""
        return rows.filter(words(value, self.searched))

    def is_there(self, rows: QuerySet[Any], _name: str, _value: Any) -> QuerySet[Any]:
        """The page is cut out last."""
        return rows


def words_in(value: str) -> list[str]:
    """The words of a text that count: the first few."""
    return value.split()[:_MOST_WORDS]


def words(value: str, fields: Sequence[str]) -> Q:
    """Every word of a text, of which only the first few count, is in one of the fields."""
    found = Q()
    for word in words_in(value):
        one = Q()
        for field in fields:
            one |= Q(**{f"{field}__icontains": word})
        found &= one
    return found


def listed(asked: type[ListFilter], request: Request, rows: QuerySet[M], line: Callable[[list[M]], list[L]]) -> Page:
    """The page of a list that a request asks for.

    Parameters
    ----------
    asked : type of ListFilter
        What the list can be asked for.
    request : Request
        With the query.
    rows : QuerySet
        All there is, in its usual order.
    line : callable
        From the rows of the page to its lines.

    Raises
    ------
    FieldError
        Something the list cannot be asked for.
    """
    chosen = _chosen(asked, request, rows)
    size = asked.lines
    first = size * (int(chosen.form.cleaned_data["page"] or 1) - 1)
    order = chosen.qs.query.order_by or chosen.qs.model._meta.ordering
    # First which: what a line says is read of the page's rows alone, not of all that are sorted.
    keys = list(chosen.qs.order_by(*order, asked.apart).values_list("pk", flat=True)[first : first + size + 1])
    found = rows.in_bulk(keys[:size])
    return Page(line([found[key] for key in keys[:size]]), len(keys) > size)


def filtered(asked: type[ListFilter], request: Request, rows: QuerySet[M]) -> QuerySet[M]:
    """All rows of a list that a request asks for, for a file.

    Raises
    ------
    FieldError
        Something the list cannot be asked for.
    """
    found: QuerySet[M] = _chosen(asked, request, rows).qs
    return found


def _chosen(asked: type[ListFilter], request: Request, rows: QuerySet[M]) -> ListFilter:
    chosen = asked(request.query_params, rows)
    if not chosen.is_valid():
        field, wrong = next(iter(chosen.errors.items()))
        said = request.query_params.get(field, "")[:_LONGEST]
        raise FieldError(field, f"“{said}” cannot be asked of this list.", str(wrong[0]))
    return chosen


def list_schema(name: str, shape: type, *more: OpenApiParameter) -> Callable[[F], F]:
    """The schema of a list of shapes: what it can be asked for, and a page of it."""
    asked = [
        OpenApiParameter("q", OpenApiTypes.STR, description="Words; a line has all of them."),
        OpenApiParameter("page", OpenApiTypes.INT, default=1, description=f"Of {PAGE} lines each, or fewer."),
    ]
    documented: Callable[[F], F] = extend_schema(
        operation_id=f"{name}_list", parameters=[*asked, *more], responses={200: page_of(shape), 422: Error}
    )
    return documented


def one_of(name: str, *choices: str) -> OpenApiParameter:
    """A parameter with a few choices, the first of them the usual."""
    return OpenApiParameter(name, OpenApiTypes.STR, enum=choices, default=choices[0])
