"""The fleet over HTTP."""

from __future__ import annotations

import datetime as dt

from django.db.models import F, QuerySet
from django.http import Http404, HttpResponse
from django.utils import timezone
from django.utils.text import slugify
from django_filters import BooleanFilter, CharFilter, ChoiceFilter, NumberFilter
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.parsers import MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.api.answers import Error, answer, response_serializer
from finegap.api.lists import ListFilter, list_schema, listed, one_of
from finegap.api.permissions import LeadWrites
from finegap.api.requests import UNIT, Entered, actor_of, checked, entered, request_serializer, units_of
from finegap.api.shown import NamedResponse
from finegap.due.queries import as_entries, lines
from finegap.due.services import catch_up, work_out
from finegap.fleet import page, queries, responses, tables
from finegap.formats.calendar import as_ics
from finegap.inventory.api import FromFile
from finegap.pumps import changes, history, papers, parts, services
from finegap.pumps.models import Pump

AddPump, EditPump, RetirePump, ReadMeter, Strike, Lubricate, MovePump, MovePart, AddEarlier, WriteNote = (
    request_serializer(one, Entered)
    for one in (
        changes.AddPump,
        changes.EditPump,
        changes.RetirePump,
        changes.ReadMeter,
        changes.Strike,
        changes.Lubricate,
        changes.MovePump,
        changes.MovePart,
        changes.AddEarlier,
        changes.WriteNote,
    )
)
AttachDocument = request_serializer(changes.AttachDocument)
SymptomAnswer = response_serializer(NamedResponse)
PumpPageAnswer = response_serializer(responses.PumpPage)
PumpChoicesAnswer = response_serializer(responses.PumpChoices)


_SORTS = ("tag", "location", "due", "left", "overhauled")
_ORDERS = {"due": "standing__day", "left": "standing__left_h", "overhauled": "standing__overhauled"}
PUMPS_ASKED = (
    one_of("sort", *_SORTS),
    OpenApiParameter("free", OpenApiTypes.BOOL, description="Those that are on no bench stand first."),
    OpenApiParameter("retired", OpenApiTypes.BOOL),
    OpenApiParameter("lent", OpenApiTypes.BOOL, description="On loan, or not."),
    OpenApiParameter("due", OpenApiTypes.INT, description="Something falls due in so many weeks, or is past due."),
    OpenApiParameter("bench", OpenApiTypes.BOOL, description="On the bench, or not."),
    OpenApiParameter("sheet", OpenApiTypes.STR, description="Of this sheet."),
    OpenApiParameter("place", OpenApiTypes.STR, description="At this place."),
)
"""What a list of pumps can be asked for."""


class PumpFilter(ListFilter):
    """Words of a pump, and what a list of them is narrowed to."""

    apart = "tag"
    lines = 25
    sort = ChoiceFilter(choices=[(one, one) for one in _SORTS], method="in_order")
    retired = BooleanFilter(field_name="retired", lookup_expr="isnull", exclude=True)
    lent = BooleanFilter(field_name="lent")
    bench = BooleanFilter(field_name="on_bench", lookup_expr="isnull", exclude=True)
    due = NumberFilter(method="falls_due", min_value=0, max_value=520, decimal_places=0)
    sheet = CharFilter(field_name="sheet__slug", max_length=80)
    place = CharFilter(field_name="location", max_length=120)
    free = BooleanFilter(method="stands_first")

    def has_words(self, rows: QuerySet[Pump], _name: str, value: str) -> QuerySet[Pump]:
        """By what was worked out of each."""
        return rows.filter(queries.found_by(value))

    def in_order(self, rows: QuerySet[Pump], _name: str, value: str) -> QuerySet[Pump]:
        """By tag where nothing else is known of them."""
        return rows.order_by(F(_ORDERS[value]).asc(nulls_last=True), "tag") if value in _ORDERS else rows.order_by(value)

    def falls_due(self, rows: QuerySet[Pump], _name: str, value: int) -> QuerySet[Pump]:
        """Something of them."""
        return rows.filter(standing__day__lte=timezone.localdate() + dt.timedelta(weeks=int(value)))

    def stands_first(self, rows: QuerySet[Pump], _name: str, value: bool) -> QuerySet[Pump]:
        """What can be opened."""
        return rows.order_by(F("on_bench").asc(nulls_first=True), "tag") if value else rows


class Pumps(APIView):
    """The pumps; a lead adds them."""

    permission_classes = [LeadWrites]

    @list_schema("pumps", responses.PumpLine, *PUMPS_ASKED, UNIT)
    def get(self, request: Request) -> Response:
        """A page of pumps, each with its sizes that have the least left."""
        catch_up()
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


class PartsMoved(APIView):
    """Parts of a pump that go into another; a lead says so."""

    permission_classes = [LeadWrites]

    @extend_schema(request=MovePart, parameters=[UNIT], responses={200: PumpPageAnswer, 403: Error, 409: Error, 422: Error})
    def post(self, request: Request, tag: str) -> Response:
        """Its wear goes with it."""
        entry, data = entered(MovePart, request)
        parts.move_part(actor_of(request), tag, changes.MovePart(**data), entry)
        return _page(tag, request)


class Notes(APIView):
    """Notes on a pump."""

    @extend_schema(request=WriteNote, parameters=[UNIT], responses={200: PumpPageAnswer, 409: Error, 422: Error})
    def post(self, request: Request, tag: str) -> Response:
        """Write one."""
        entry, data = entered(WriteNote, request)
        papers.write_note(actor_of(request), tag, changes.WriteNote(**data), entry)
        return _page(tag, request)


class Documents(APIView):
    """Papers of a pump; a lead adds them."""

    permission_classes = [LeadWrites]
    parser_classes = [MultiPartParser]

    @extend_schema(request=AttachDocument, parameters=[UNIT], responses={201: PumpPageAnswer, 403: Error, 422: Error})
    def post(self, request: Request, tag: str) -> Response:
        """Put one there."""
        units_of(request)
        papers.attach_document(actor_of(request), tag, changes.AttachDocument(**checked(AttachDocument, request)))
        return _page(tag, request, 201)


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
    """What falls due of a pump, as a calendar file."""

    @extend_schema(responses={(200, "text/calendar"): bytes, 404: Error})
    def get(self, request: Request, tag: str) -> HttpResponse:
        """Whole days, reminded of a week before."""
        work_out(tag)
        if not Pump.objects.filter(tag=tag).exists():
            raise Http404
        entries = as_entries(lines().filter(pump__tag=tag))
        answered = HttpResponse(as_ics(entries, timezone.localtime()), content_type="text/calendar")
        answered["Content-Disposition"] = f'attachment; filename="{slugify(tag)}-due.ics"'
        return answered


def _page(tag: str, request: Request, status: int = 200) -> Response:
    work_out(tag)
    found = page.pump_page(tag)
    if found is None:
        raise Http404
    return answer(found, status, units_of(request))
