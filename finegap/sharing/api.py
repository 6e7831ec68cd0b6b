"""Links over HTTP, for people with an account."""

from __future__ import annotations

import uuid

from django.db.models import QuerySet
from django.http import Http404
from django_filters import ChoiceFilter, NumberFilter
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.api.answers import Error, answer, response_serializer
from finegap.api.lists import ListFilter, list_schema, listed
from finegap.api.permissions import LeadWrites
from finegap.api.requests import Entered, actor_of, entered, request_serializer
from finegap.sharing import changes, queries, responses, services
from finegap.sharing.models import Link, LinkTo

ShareReport = request_serializer(changes.ShareReport, Entered)
ShareCalendar = request_serializer(changes.ShareCalendar, Entered)
RevokeLink = request_serializer(changes.RevokeLink, Entered)
MadeAnswer = response_serializer(responses.MadeLink)
LinkAnswer = response_serializer(responses.LinkResponse)
UsesAnswer = response_serializer(responses.LinkUseResponse)


class LinkFilter(ListFilter):
    """Links to reports or calendars, of a job, with words of whom they are for."""

    searched = ("whom", "pump__tag", "place")
    to = ChoiceFilter(choices=[(one.value, one.value) for one in LinkTo])
    job = NumberFilter(field_name="job__number", min_value=1, max_value=10**9, decimal_places=0)


class JobLinks(APIView):
    """Links to the report of a job; a lead makes them."""

    permission_classes = [LeadWrites]

    @extend_schema(request=ShareReport, responses={201: MadeAnswer, 403: Error, 409: Error, 422: Error})
    def post(self, request: Request, number: int) -> Response:
        """Its address is answered this once."""
        _, data = entered(ShareReport, request)
        link, secret = services.share_report(actor_of(request), number, changes.ShareReport(**data))
        return _made(request, link, f"/shared/{secret}")


class Links(APIView):
    """All links."""

    @list_schema(
        "links", responses.LinkResponse, OpenApiParameter("to", enum=[one.value for one in LinkTo]),
        OpenApiParameter("job", OpenApiTypes.INT),
    )  # fmt: skip
    def get(self, request: Request) -> Response:
        """A page of them, the newest first."""

        def shown(rows: list[Link]) -> list[responses.LinkResponse]:
            return queries.link_lines(rows, actor_of(request))

        rows: QuerySet[Link] = queries.links()
        return answer(listed(LinkFilter, request, rows, shown))

    @extend_schema(request=ShareCalendar, responses={201: MadeAnswer, 409: Error, 422: Error})
    def post(self, request: Request) -> Response:
        """A calendar's feed; its address is answered this once."""
        _, data = entered(ShareCalendar, request)
        link, secret = services.share_calendar(actor_of(request), changes.ShareCalendar(**data))
        return _made(request, link, f"/calendar/{secret}.ics")


class LinkUses(APIView):
    """What was fetched by a link."""

    @extend_schema(operation_id="link_uses_list", responses={200: UsesAnswer(many=True), 404: Error})
    def get(self, request: Request, pk: uuid.UUID) -> Response:
        """The newest first."""
        found = queries.uses_of(str(pk))
        if found is None:
            raise Http404
        return answer(found)


class LinkRevoked(APIView):
    """A link that is taken back."""

    @extend_schema(request=RevokeLink, responses={200: LinkAnswer, 409: Error, 422: Error})
    def post(self, request: Request, pk: uuid.UUID) -> Response:
        """From now on it leads nowhere."""
        entered(RevokeLink, request)
        link = services.revoke(actor_of(request), str(pk))
        return answer(queries.link_lines([link], actor_of(request))[0])


def _made(request: Request, link: Link, path: str) -> Response:
    shown = queries.link_lines([link], actor_of(request))[0]
    return answer(responses.MadeLink(shown, request.build_absolute_uri(path)), 201)
