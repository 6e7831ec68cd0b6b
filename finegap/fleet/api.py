"""The fleet over HTTP."""

from __future__ import annotations

from django.http import Http404, HttpResponse
from django.utils import timezone
from django.utils.text import slugify
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.fleet import queries, responses, services
from finegap.formats.calendar import as_ics
from finegap.site.api import UNIT, Entered, Error, actor_of, answer, entered, response_serializer, units_of
from finegap.site.security import LeadWrites

PumpLineAnswer = response_serializer(responses.PumpLine)
PumpPageAnswer = response_serializer(responses.PumpPage)


class AddPump(Entered):
    """A pump as typed."""

    tag = serializers.CharField(max_length=30)
    service = serializers.CharField(max_length=120)
    location = serializers.CharField(max_length=120)
    serial = serializers.CharField(max_length=60)
    sheet = serializers.CharField(max_length=80)
    material = serializers.CharField(max_length=60)
    liquid = serializers.CharField(max_length=80)
    viscosity = serializers.CharField(max_length=120)
    temperature = serializers.CharField(max_length=40)
    pressure = serializers.CharField(max_length=40)
    speed = serializers.CharField(max_length=40)
    casing = serializers.CharField(max_length=40, allow_blank=True, default="")
    density = serializers.CharField(max_length=40, allow_blank=True, default="")
    start = serializers.CharField(max_length=40, allow_blank=True, default="")
    hot = serializers.CharField(max_length=40, allow_blank=True, default="")
    hazards = serializers.CharField(max_length=200, allow_blank=True, default="")
    medium = serializers.CharField(max_length=40, allow_blank=True, default="")
    overhaul_every = serializers.CharField(max_length=20, allow_blank=True, default="")
    hours_per_week = serializers.CharField(max_length=20, allow_blank=True, default="")
    wet = serializers.BooleanField(default=False)
    build = serializers.DictField(child=serializers.CharField(max_length=40), required=False)


class Pumps(APIView):
    """The pumps; a lead adds them."""

    permission_classes = [LeadWrites]

    @extend_schema(parameters=[UNIT], responses=PumpLineAnswer(many=True))
    def get(self, request: Request) -> Response:
        """Every pump with its jobs."""
        return answer(queries.pump_lines(), units=units_of(request))

    @extend_schema(request=AddPump, parameters=[UNIT], responses={201: PumpLineAnswer(many=True), 403: Error, 422: Error})
    def post(self, request: Request) -> Response:
        """Add a pump."""
        entry, data = entered(AddPump, request)
        services.add_pump(actor_of(request), services.NewPump(**data), entry)
        return answer(queries.pump_lines(), 201, units_of(request))


class ReadMeter(Entered):
    """The hours meter as read; the day empty means today. A replaced one comes with the old one's last reading."""

    id = serializers.UUIDField()
    hours = serializers.CharField(max_length=20, allow_blank=True)
    day = serializers.CharField(max_length=10, allow_blank=True, default="")
    old_last = serializers.CharField(max_length=20, allow_blank=True, default="")
    new_first = serializers.CharField(max_length=20, allow_blank=True, default="")


class EditPump(AddPump):
    """A pump put right."""

    version = serializers.IntegerField(min_value=1)


class Strike(Entered):
    """A line struck out."""

    record = serializers.UUIDField()
    reason = serializers.CharField(max_length=200, allow_blank=True)


class Lubricate(Entered):
    """Oil or grease done."""

    id = serializers.UUIDField()
    name = serializers.CharField(max_length=120)
    hours = serializers.CharField(max_length=20, allow_blank=True)


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
        version = data.pop("version")
        pump = services.edit_pump(actor_of(request), tag, version, services.NewPump(**data), entry)
        return _page(pump.tag, request)


class Meter(APIView):
    """The hours meter of a pump."""

    @extend_schema(request=ReadMeter, parameters=[UNIT], responses={200: PumpPageAnswer, 422: Error})
    def post(self, request: Request, tag: str) -> Response:
        """Record a reading."""
        entry, data = entered(ReadMeter, request)
        services.read_meter(actor_of(request), tag, services.NewMeterReading(**data), entry)
        return _page(tag, request)


class Lubrication(APIView):
    """Oil and grease of a pump."""

    @extend_schema(request=Lubricate, parameters=[UNIT], responses={200: PumpPageAnswer, 422: Error})
    def post(self, request: Request, tag: str) -> Response:
        """Record it as done."""
        entry, data = entered(Lubricate, request)
        services.lubricate(actor_of(request), data["id"], tag, data["name"], data["hours"], entry)
        return _page(tag, request)


class Struck(APIView):
    """A reading of the meter, or oil or grease, recorded by mistake."""

    @extend_schema(request=Strike, parameters=[UNIT], responses={200: PumpPageAnswer, 422: Error})
    def post(self, request: Request, tag: str) -> Response:
        """Strike it out, with a reason."""
        _, data = entered(Strike, request)
        services.strike(actor_of(request), tag, data["record"], data["reason"])
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


def _page(tag: str, request: Request) -> Response:
    page = queries.pump_page(tag)
    if page is None:
        raise Http404
    return answer(page, units=units_of(request))
