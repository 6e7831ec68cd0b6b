"""What falls due over HTTP."""

from __future__ import annotations

from django.db.models import QuerySet
from django.http import HttpResponse, StreamingHttpResponse
from django_filters import BooleanFilter, CharFilter, ChoiceFilter
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.api.answers import Error, answer, response_serializer
from finegap.api.lists import ListFilter, filtered, list_schema, listed
from finegap.due import queries, responses
from finegap.due.models import DueKind, DueLine
from finegap.due.services import catch_up
from finegap.works.queries import paper, present

AheadAnswer = response_serializer(responses.DueAhead)
_KINDS = [kind.value for kind in DueKind]
ASKED = (
    OpenApiParameter("kind", OpenApiTypes.STR, enum=_KINDS),
    OpenApiParameter("place", OpenApiTypes.STR, description="At this place."),
    OpenApiParameter("undated", OpenApiTypes.BOOL, description="What has no day, instead of what falls due in twelve weeks."),
)


class DueFilter(ListFilter):
    """Twelve weeks ahead with what is past due, or what has no day; of a kind, at a place, with words."""

    kind = ChoiceFilter(choices=[(kind, kind) for kind in _KINDS])
    place = CharFilter(field_name="pump__location", max_length=120)
    undated = BooleanFilter(method="without_a_day")

    def has_words(self, rows: QuerySet[DueLine], _name: str, value: str) -> QuerySet[DueLine]:
        """Of its pump, or what it is."""
        return rows.filter(queries.having(value))

    def without_a_day(self, rows: QuerySet[DueLine], _name: str, value: bool) -> QuerySet[DueLine]:
        """Which of the two."""
        return rows.filter(day=None) if value else rows.filter(day__isnull=False)

    def filter_queryset(self, queryset: QuerySet[DueLine]) -> QuerySet[DueLine]:
        """With no word of days, those of the twelve weeks."""
        rows: QuerySet[DueLine] = super().filter_queryset(queryset)
        return rows if self.form.cleaned_data.get("undated") else queries.in_weeks(rows)


class DueAheadFilter(DueFilter):
    """All of it, to be counted."""

    def filter_queryset(self, queryset: QuerySet[DueLine]) -> QuerySet[DueLine]:
        """Whatever day it has."""
        rows: QuerySet[DueLine] = ListFilter.filter_queryset(self, queryset)
        return rows


class DueList(APIView):
    """What falls due."""

    @list_schema("due", responses.DueLineResponse, *ASKED)
    def get(self, request: Request) -> Response:
        """A page, the soonest first."""
        catch_up()
        return answer(listed(DueFilter, request, queries.lines(), queries.due_lines))


class Ahead(APIView):
    """Twelve weeks ahead."""

    @extend_schema(parameters=[OpenApiParameter("q", OpenApiTypes.STR), *ASKED[:2]], responses={200: AheadAnswer, 422: Error})
    def get(self, request: Request) -> Response:
        """How much of what, week by week."""
        behind = catch_up()
        return answer(queries.ahead(filtered(DueAheadFilter, request, DueLine.objects.all()), behind))


class DueFile(APIView):
    """What falls due, as a file."""

    @extend_schema(
        parameters=[OpenApiParameter("q", OpenApiTypes.STR), *ASKED],
        responses={(200, "text/csv"): OpenApiTypes.STR, (200, "application/pdf"): OpenApiTypes.BINARY, 422: Error},
    )
    def get(self, request: Request, kind: str) -> HttpResponse | StreamingHttpResponse:
        """A table, or on paper."""
        from finegap.formats import due_list

        catch_up()
        rows = filtered(DueFilter, request, queries.lines()).order_by("day", "pk")
        if kind == "csv":
            table = StreamingHttpResponse(queries.as_csv(rows), content_type="text/csv; charset=utf-8")
            table["Content-Disposition"] = 'attachment; filename="due.csv"'
            return table
        lines = queries.due_lines(rows[: due_list.MOST + 1])
        told = [due_list.Line(one.day, one.late, one.pump or one.gauge, one.name, one.place, one.lent, one.said) for one in lines]
        response = HttpResponse(due_list.as_pdf(told, present(), paper()), content_type="application/pdf")
        response["Content-Disposition"] = 'inline; filename="due.pdf"'
        return response
