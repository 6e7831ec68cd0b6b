"""The toolbox over HTTP."""

from __future__ import annotations

from django.utils import timezone
from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.api.answers import Error, answer, response_serializer
from finegap.api.permissions import LeadWrites
from finegap.api.requests import UNIT, Entered, actor_of, entered, request_serializer, units_of
from finegap.core.calculators import calculator
from finegap.core.entry import Entry
from finegap.core.formatting import Units
from finegap.core.result_lines import ResultLine
from finegap.inventory import changes, queries, responses, services
from finegap.inventory.models import Gauge, GreaseGun

CountGaskets, KeepGauge, WeighGun, Calculate, KeepSettings = (
    request_serializer(one, Entered)
    for one in (changes.CountGaskets, changes.KeepGauge, changes.WeighGun, changes.Calculate, changes.KeepSettings)
)
GaugeAnswer = response_serializer(responses.GaugeResponse)
StockAnswer = response_serializer(responses.StockResponse)
GunAnswer = response_serializer(responses.GunResponse)
SumAnswer = response_serializer(responses.SumResponse)
LineAnswer = response_serializer(ResultLine)
SettingsAnswer = response_serializer(responses.SettingsResponse)


class Gauges(APIView):
    """The gauge cabinet; a lead keeps it."""

    permission_classes = [LeadWrites]

    @extend_schema(parameters=[UNIT], responses=GaugeAnswer(many=True))
    def get(self, request: Request) -> Response:
        """Every gauge with its certificate."""
        return _cabinet(units_of(request))

    @extend_schema(request=KeepGauge, parameters=[UNIT], responses={201: GaugeAnswer(many=True), 403: Error, 422: Error})
    def post(self, request: Request) -> Response:
        """Put a gauge into the cabinet."""
        entry, new = _gauge(request)
        services.keep_gauge(actor_of(request), new, entry)
        return _cabinet(units_of(request), 201)


class GaugeDetail(APIView):
    """One gauge; a lead puts a new certificate to it."""

    permission_classes = [LeadWrites]

    @extend_schema(request=KeepGauge, parameters=[UNIT], responses={200: GaugeAnswer(many=True), 403: Error, 422: Error})
    def put(self, request: Request, tag: str) -> Response:
        """A new certificate, or its data put right."""
        entry, new = _gauge(request)
        services.keep_gauge(actor_of(request), new, entry, replacing=tag)
        return _cabinet(units_of(request))


def _gauge(request: Request) -> tuple[Entry, changes.KeepGauge]:
    entry, data = entered(KeepGauge, request)
    return entry, changes.KeepGauge(**data)


def _cabinet(units: Units, status: int = 200) -> Response:
    return answer(queries.gauge_responses(Gauge.objects.all(), timezone.localdate()), status, units)


class Guns(APIView):
    """Grease guns; whoever greases weighs them."""

    @extend_schema(parameters=[UNIT], responses=GunAnswer(many=True))
    def get(self, request: Request) -> Response:
        """Every gun."""
        return answer(queries.gun_responses(GreaseGun.objects.all()), units=units_of(request))

    @extend_schema(request=WeighGun, parameters=[UNIT], responses={200: GunAnswer(many=True), 422: Error})
    def post(self, request: Request) -> Response:
        """Keep what ten strokes weigh."""
        entry, data = entered(WeighGun, request)
        services.weigh_gun(actor_of(request), changes.WeighGun(**data), entry)
        return answer(queries.gun_responses(GreaseGun.objects.all()), units=units_of(request))


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

    @extend_schema(parameters=[UNIT], responses=StockAnswer(many=True))
    def get(self, request: Request) -> Response:
        """Every line of stock."""
        return answer(queries.stock_responses(), units=units_of(request))

    @extend_schema(request=CountGaskets, parameters=[UNIT], responses={200: StockAnswer(many=True), 422: Error})
    def post(self, request: Request) -> Response:
        """Count one thickness."""
        entry, data = entered(CountGaskets, request)
        services.count_gaskets(actor_of(request), changes.CountGaskets(**data), entry)
        return answer(queries.stock_responses(), units=units_of(request))


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
