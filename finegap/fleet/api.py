"""The fleet over HTTP."""

from __future__ import annotations

from django.db.models import F, QuerySet
from django.http import Http404, HttpResponse
from django.utils import timezone
from django.utils.text import slugify
from django_filters import BooleanFilter, OrderingFilter
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.api.answers import Error, answer, response_serializer
from finegap.api.lists import ListFilter, list_schema, listed, one_of
from finegap.api.permissions import LeadWrites
from finegap.api.requests import UNIT, Entered, actor_of, entered, request_serializer, units_of
from finegap.api.shown import NamedResponse
from finegap.fleet import queries, responses, tables
from finegap.formats.calendar import as_ics
from finegap.inventory.api import FromFile
from finegap.pumps import changes, history, services
from finegap.pumps.models import PUMP_FIELDS, Pump

AddPump, EditPump, RetirePump, ReadMeter, Strike, Lubricate, MovePump, AddEarlier = (
    request_serializer(one, Entered)
    for one in (
        changes.AddPump,
        changes.EditPump,
        changes.RetirePump,
        changes.ReadMeter,
        changes.Strike,
        changes.Lubricate,
        changes.MovePump,
        changes.AddEarlier,
    )
)
SymptomAnswer = response_serializer(NamedResponse)
PumpPageAnswer = response_serializer(responses.PumpPage)
PumpChoicesAnswer = response_serializer(responses.PumpChoices)


RETIRED = OpenApiParameter("retired", OpenApiTypes.BOOL)
FREE = OpenApiParameter("free", OpenApiTypes.BOOL, description="Those that are on no bench stand first.")


class PumpFilter(ListFilter):
    """Words of a pump; in use or retired; by tag or by location, those on no bench first where asked."""

    searched = PUMP_FIELDS
    apart = "tag"
    sort = OrderingFilter(fields={"tag": "tag", "location": "location"})
    retired = BooleanFilter(field_name="retired", lookup_expr="isnull", exclude=True)
    free = BooleanFilter(method="stands_first")

    def stands_first(self, rows: QuerySet[Pump], _name: str, value: bool) -> QuerySet[Pump]:
        """What can be opened."""
        return rows.order_by(F("on_bench").asc(nulls_first=True), "tag") if value else rows


class Pumps(APIView):
    """The pumps; a lead adds them."""

    permission_classes = [LeadWrites]

    @list_schema("pumps", responses.PumpLine, one_of("sort", "tag", "location"), FREE, RETIRED, UNIT)
    def get(self, request: Request) -> Response:
        """A page of pumps with their newest overhauls."""
        return answer(listed(PumpFilter, request, queries.pumps(), queries.pump_lines), units=units_of(request))

    @extend_schema(request=AddPump, parameters=[UNIT], responses={201: PumpPageAnswer, 403: Error, 422: Error})
    def post(self, request: Request) -> Response:
        """Add a pump."""
        entry, data = entered(AddPump, request)
        pump = services.add_pump(actor_of(request), changes.AddPump(**data), entry)
        return _page(pump.tag, request, 201)


class PumpsFromFile(FromFile):
    """Many pumps."""

    table = tables.pumps


class ChoicesOfPump(APIView):
    """What a pump of a sheet is chosen from."""

    @extend_schema(responses={200: PumpChoicesAnswer, 404: Error})
    def get(self, request: Request, slug: str) -> Response:
        """By the sheet's latest revision."""
        found = queries.pump_choices(slug)
        if found is None:
            raise Http404
        return answer(found)


class PumpSymptoms(APIView):
    """Why a pump may come in."""

    @extend_schema(responses={200: SymptomAnswer(many=True), 404: Error})
    def get(self, request: Request, tag: str) -> Response:
        """By its family."""
        found = queries.symptoms_of(tag)
        if found is None:
            raise Http404
        return answer(found)


class PumpDetail(APIView):
    """One pump; a lead puts it right."""

    permission_classes = [LeadWrites]

    @extend_schema(parameters=[UNIT], responses={200: PumpPageAnswer, 404: Error})
    def get(self, request: Request, tag: str) -> Response:
        """With what falls due."""
        return _page(tag, request)

    @extend_schema(request=EditPump, parameters=[UNIT], responses={200: PumpPageAnswer, 403: Error, 409: Error, 422: Error})
    def put(self, request: Request, tag: str) -> Response:
        """Change it; the tag may change with it."""
        entry, data = entered(EditPump, request)
        pump = services.edit_pump(actor_of(request), tag, changes.EditPump(**data), entry)
        return _page(pump.tag, request)


class PumpRetired(APIView):
    """A pump out of the fleet, or back in it; a lead says so."""

    permission_classes = [LeadWrites]

    @extend_schema(request=RetirePump, parameters=[UNIT], responses={200: PumpPageAnswer, 403: Error, 422: Error})
    def post(self, request: Request, tag: str) -> Response:
        """What was done on it stands."""
        _, data = entered(RetirePump, request)
        services.retire_pump(actor_of(request), tag, data["retired"])
        return _page(tag, request)


class Meter(APIView):
    """The hours meter of a pump."""

    @extend_schema(request=ReadMeter, parameters=[UNIT], responses={200: PumpPageAnswer, 422: Error})
    def post(self, request: Request, tag: str) -> Response:
        """Record a reading."""
        entry, data = entered(ReadMeter, request)
        services.read_meter(actor_of(request), tag, changes.ReadMeter(**data), entry)
        return _page(tag, request)


class Lubrication(APIView):
    """Oil and grease of a pump."""

    @extend_schema(request=Lubricate, parameters=[UNIT], responses={200: PumpPageAnswer, 422: Error})
    def post(self, request: Request, tag: str) -> Response:
        """Record it as done."""
        entry, data = entered(Lubricate, request)
        services.lubricate(actor_of(request), tag, changes.Lubricate(**data), entry)
        return _page(tag, request)


class LineStruck(APIView):
    """A reading of the meter, or oil or grease, recorded by mistake."""

    @extend_schema(request=Strike, parameters=[UNIT], responses={200: PumpPageAnswer, 422: Error})
    def post(self, request: Request, tag: str) -> Response:
        """Strike it out, with a reason."""
        _, data = entered(Strike, request)
        services.strike(actor_of(request), tag, changes.Strike(**data))
        return _page(tag, request)


class Moved(APIView):
    """Where a pump is; a lead says so."""

    permission_classes = [LeadWrites]

    @extend_schema(request=MovePump, parameters=[UNIT], responses={200: PumpPageAnswer, 403: Error, 409: Error, 422: Error})
    def post(self, request: Request, tag: str) -> Response:
        """It goes somewhere else; where it was stays on record."""
        entry, data = entered(MovePump, request)
        history.move_pump(actor_of(request), tag, changes.MovePump(**data), entry)
        return _page(tag, request)


class Earlier(APIView):
    """Overhauls of a pump from before this record; a lead enters them."""

    permission_classes = [LeadWrites]

    @extend_schema(request=AddEarlier, parameters=[UNIT], responses={200: PumpPageAnswer, 403: Error, 409: Error, 422: Error})
    def post(self, request: Request, tag: str) -> Response:
        """Wear begins with it."""
        entry, data = entered(AddEarlier, request)
        history.add_earlier(actor_of(request), tag, changes.AddEarlier(**data), entry)
        return _page(tag, request)


class DueCalendar(APIView):
    """What falls due, as a calendar file."""

    @extend_schema(responses={(200, "text/calendar"): bytes, 404: Error})
    def get(self, request: Request, tag: str) -> HttpResponse:
        """Whole days, reminded of a week before."""
        found = queries.pump_due(tag)
        if found is None:
            raise Http404
        pump, due = found
        answered = HttpResponse(as_ics(pump.tag, pump.service, due, timezone.now()), content_type="text/calendar")
        answered["Content-Disposition"] = f'attachment; filename="{slugify(pump.tag)}-due.ics"'
        return answered


def _page(tag: str, request: Request, status: int = 200) -> Response:
    page = queries.pump_page(tag)
    if page is None:
        raise Http404
    return answer(page, status, units_of(request))
