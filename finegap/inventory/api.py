"""The toolbox over HTTP."""

from __future__ import annotations

from collections.abc import Iterable

from django.http import HttpResponse
from django.utils import timezone
from django_filters import OrderingFilter
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework.parsers import MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.api.answers import Error, answer, response_serializer
from finegap.api.lists import ListFilter, list_schema, listed, one_of
from finegap.api.permissions import LeadWrites
from finegap.api.requests import UNIT, Entered, actor_of, entered, request_serializer, units_of
from finegap.core.calculators import calculator
from finegap.core.entry import Entry
from finegap.core.result_lines import ResultLine
from finegap.formats.tables import MOST_BYTES
from finegap.inventory import changes, queries, responses, services
from finegap.inventory.gauge_files import COLUMNS, GaugeFileResponse, keep_gauges
from finegap.inventory.models import Gauge, GreaseGun

CountGaskets, KeepGauge, KeepGauges = (
    request_serializer(one, Entered) for one in (changes.CountGaskets, changes.KeepGauge, changes.KeepGauges)
)
WeighGun, Calculate, KeepSettings = (
    request_serializer(one, Entered) for one in (changes.WeighGun, changes.Calculate, changes.KeepSettings)
)
GaugeFileAnswer = response_serializer(GaugeFileResponse)
GaugeAnswer = response_serializer(responses.GaugeResponse)
StockAnswer = response_serializer(responses.StockResponse)
GunAnswer = response_serializer(responses.GunResponse)
SumAnswer = response_serializer(responses.SumResponse)
LineAnswer = response_serializer(ResultLine)
SettingsAnswer = response_serializer(responses.SettingsResponse)


class GaugeFilter(ListFilter):
    """Words of a gauge or its certificate; by tag, or by when its calibration is due."""

    searched = ("tag", "kind", "current__number")
    apart = "tag"
    sort = OrderingFilter(fields={"tag": "tag", "current__due": "due"})


class GunFilter(ListFilter):
    """Words of a gun or its grease."""

    searched = ("tag", "grease")


class StockFilter(ListFilter):
    """Words of the sheet."""

    searched = ("sheet__title",)


class Gauges(APIView):
    """The gauge cabinet; a lead keeps it."""

    permission_classes = [LeadWrites]

    @list_schema("gauges", responses.GaugeResponse, one_of("sort", "tag", "due"), UNIT)
    def get(self, request: Request) -> Response:
        """A page of gauges with their certificates."""
        return answer(listed(GaugeFilter, request, Gauge.objects.all(), _gauges), units=units_of(request))

    @extend_schema(request=KeepGauge, parameters=[UNIT], responses={201: GaugeAnswer, 403: Error, 422: Error})
    def post(self, request: Request) -> Response:
        """Put a gauge into the cabinet."""
        entry, new = _gauge(request)
        return answer(_gauges([services.keep_gauge(actor_of(request), new, entry)])[0], 201, units_of(request))


class GaugesFromFile(APIView):
    """Many gauges at once; a lead puts them in."""

    permission_classes = [LeadWrites]
    parser_classes = [MultiPartParser]

    @extend_schema(responses={(200, "text/csv"): OpenApiTypes.BINARY})
    def get(self, _: Request) -> HttpResponse:
        """The table to fill in: its columns."""
        text = "\ufeff" + ",".join(COLUMNS) + "\r\n"
        named = {"Content-Disposition": 'attachment; filename="gauges.csv"'}
        return HttpResponse(text, content_type="text/csv; charset=utf-8", headers=named)

    @extend_schema(request=KeepGauges, responses={200: GaugeFileAnswer, 403: Error, 422: Error})
    def post(self, request: Request) -> Response:
        """Try every row; keep all or none."""
        entry, data = entered(KeepGauges, request)
        return answer(keep_gauges(actor_of(request), data["file"].read(MOST_BYTES + 1), entry, data["dry"]), units=entry.units)


class GaugeDetail(APIView):
    """One gauge; a lead puts a new certificate to it."""

    permission_classes = [LeadWrites]

    @extend_schema(request=KeepGauge, parameters=[UNIT], responses={200: GaugeAnswer, 403: Error, 422: Error})
    def put(self, request: Request, tag: str) -> Response:
        """A new certificate, or its data put right."""
        entry, new = _gauge(request)
        return answer(_gauges([services.keep_gauge(actor_of(request), new, entry, replacing=tag)])[0], 200, units_of(request))


def _gauge(request: Request) -> tuple[Entry, changes.KeepGauge]:
    entry, data = entered(KeepGauge, request)
    return entry, changes.KeepGauge(**data)


def _gauges(rows: Iterable[Gauge]) -> list[responses.GaugeResponse]:
    return queries.gauge_responses(rows, timezone.localdate())


class Guns(APIView):
    """Grease guns; whoever greases weighs them."""

    @list_schema("guns", responses.GunResponse, UNIT)
    def get(self, request: Request) -> Response:
        """A page of guns."""
        return answer(listed(GunFilter, request, GreaseGun.objects.all(), queries.gun_responses), units=units_of(request))

    @extend_schema(request=WeighGun, parameters=[UNIT], responses={200: GunAnswer, 422: Error})
    def post(self, request: Request) -> Response:
        """Keep what ten strokes weigh."""
        entry, data = entered(WeighGun, request)
        gun = services.weigh_gun(actor_of(request), changes.WeighGun(**data), entry)
        return answer(queries.gun_responses([gun])[0], units=units_of(request))


class Sums(APIView):
    """What can be calculated alone."""

    @extend_schema(parameters=[UNIT], responses=SumAnswer(many=True))
    def get(self, request: Request) -> Response:
        """The register, with what each asks for."""
        return answer(queries.sum_responses(units_of(request)))


class Sum(APIView):
    """One sum."""

    @extend_schema(request=Calculate, parameters=[UNIT], responses={200: LineAnswer(many=True), 422: Error})
    def post(self, request: Request, key: str) -> Response:
        """Its lines for what was typed; nothing is recorded."""
        entry, data = entered(Calculate, request)
        return answer(list(calculator(key).run(data["given"], entry)), units=units_of(request))


class Stock(APIView):
    """Gaskets on the shelf."""

    @list_schema("gaskets", responses.StockResponse, UNIT)
    def get(self, request: Request) -> Response:
        """A page of the stock."""
        return answer(listed(StockFilter, request, queries.stock(), queries.stock_responses), units=units_of(request))

    @extend_schema(request=CountGaskets, parameters=[UNIT], responses={200: StockAnswer, 422: Error})
    def post(self, request: Request) -> Response:
        """Count one thickness."""
        entry, data = entered(CountGaskets, request)
        line = services.count_gaskets(actor_of(request), changes.CountGaskets(**data), entry)
        return answer(queries.stock_responses([line])[0], units=units_of(request))


class Settings(APIView):
    """Settings of the works; a lead changes them."""

    permission_classes = [LeadWrites]

    @extend_schema(responses=SettingsAnswer)
    def get(self, request: Request) -> Response:
        """As they stand, with the units of bare numbers in both systems."""
        return answer(queries.settings_shape())

    @extend_schema(request=KeepSettings, responses={200: SettingsAnswer, 403: Error, 422: Error})
    def put(self, request: Request) -> Response:
        """Keep them; what was typed before keeps the mark it was typed with."""
        entry, data = entered(KeepSettings, request)
        services.keep_settings(actor_of(request), changes.KeepSettings(**data), entry)
        return answer(queries.settings_shape())
