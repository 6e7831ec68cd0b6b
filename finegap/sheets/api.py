"""Sheets over HTTP."""

from __future__ import annotations

from typing import Any

from django.db.models import QuerySet
from django.http import Http404, HttpResponse
from django_filters import CharFilter
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.api.answers import Error, answer, response_serializer
from finegap.api.lists import ListFilter, list_schema, listed
from finegap.api.permissions import LeadWrites
from finegap.api.requests import UNIT, actor_of, checked, request_serializer, units_of
from finegap.formats.sheet_file import write_file
from finegap.sheets import changes, queries, responses, services
from finegap.sheets.models import SheetRevision

SheetFile, KeepProcedure = (request_serializer(one) for one in (changes.SheetFile, changes.KeepProcedure))
SheetDetailAnswer = response_serializer(responses.SheetDetail)
ProcedureAnswer = response_serializer(responses.ProcedureResponse)
ProcedureLineAnswer = response_serializer(responses.ProcedureLine)


class Procedures(APIView):
    """The procedures."""

    @extend_schema(responses=ProcedureLineAnswer(many=True))
    def get(self, request: Request) -> Response:
        """Every family's."""
        return answer(queries.procedure_lines())


class Procedure(APIView):
    """One family's procedure; a lead changes it."""

    permission_classes = [LeadWrites]

    @extend_schema(responses={200: ProcedureAnswer, 404: Error})
    def get(self, request: Request, family: str) -> Response:
        """As the shop follows it."""
        return _procedure(family)

    @extend_schema(request=KeepProcedure, responses={200: ProcedureAnswer, 403: Error, 409: Error, 422: Error})
    def put(self, request: Request, family: str) -> Response:
        """A new version; open jobs keep theirs."""
        data = checked(KeepProcedure, request)
        services.keep_procedure(actor_of(request), family, changes.KeepProcedure(**data))
        return _procedure(family)


def _procedure(family: str) -> Response:
    found = queries.procedure(family)
    if found is None:
        raise Http404
    return answer(found)


class SheetFilter(ListFilter):
    """Words of title, maker or model; by what sets the gap."""

    searched = ("title", "maker", "model")
    means = CharFilter(method="set_by", max_length=40)

    def has_words(self, rows: QuerySet[Any], _name: str, value: str) -> QuerySet[Any]:
        """Of its title, or what its latest revision says."""
        return super().has_words(queries.by_the_latest(rows), _name, value)

    def set_by(self, rows: QuerySet[Any], _name: str, value: str) -> QuerySet[Any]:
        """One of several, as its latest revision says."""
        return queries.by_the_latest(rows).filter(means__in=value.split(","))


class Sheets(APIView):
    """The list of sheets; a lead adds revisions."""

    permission_classes = [LeadWrites]

    @list_schema("sheets", responses.SheetLine, OpenApiParameter("means"))
    def get(self, request: Request) -> Response:
        """A page of sheets, each at its latest revision."""
        return answer(listed(SheetFilter, request, queries.sheets(), queries.sheet_lines))

    @extend_schema(request=SheetFile, parameters=[UNIT], responses={201: SheetDetailAnswer, 403: Error, 422: Error})
    def post(self, request: Request) -> Response:
        """Add a revision from a file."""
        kept = services.add_revision(actor_of(request), changes.SheetFile(**checked(SheetFile, request)))
        return answer(queries.sheet_detail(kept, units_of(request)), 201)


class SheetRevisions(APIView):
    """One revision, or the one called latest."""

    @extend_schema(parameters=[UNIT], responses={200: SheetDetailAnswer, 404: Error})
    def get(self, request: Request, slug: str, revision: str) -> Response:
        """A revision as the manual prints it."""
        return answer(queries.sheet_detail(_found(slug, revision), units_of(request)))


class SheetExport(APIView):
    """A revision as a file."""

    @extend_schema(responses={(200, "application/json"): OpenApiTypes.OBJECT, 404: Error})
    def get(self, request: Request, slug: str, revision: str) -> HttpResponse:
        """The same file that was read."""
        kept = _found(slug, revision)
        response = HttpResponse(write_file(kept.content), content_type="application/json")
        response["Content-Disposition"] = f'attachment; filename="{slug}-{revision}.json"'
        return response


def _found(slug: str, revision: str | None) -> SheetRevision:
    kept = queries.revision_of(slug, None if revision == "latest" else revision)
    if kept is None:
        raise Http404
    return kept
