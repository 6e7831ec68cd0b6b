"""The toolbox over HTTP."""

from __future__ import annotations

from typing import Any

from django.utils import timezone
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.site.api import UNIT, Error, actor_of, answer, checked, shape_serializer, units_of
from finegap.toolbox import queries, services, shapes
from finegap.toolbox.models import Gauge

GaugeAnswer = shape_serializer(shapes.GaugeShape)
StockAnswer = shape_serializer(shapes.StockShape)


class CountGaskets(serializers.Serializer[Any]):
    """How many are on the shelf."""

    slug = serializers.CharField(max_length=80)
    thickness = serializers.CharField(max_length=40)
    count = serializers.IntegerField()


class Gauges(APIView):
    """The gauges."""

    @extend_schema(parameters=[UNIT], responses=GaugeAnswer(many=True))
    def get(self, request: Request) -> Response:
        """Every gauge with its certificate."""
        return answer(queries.gauge_shapes(Gauge.objects.all(), units_of(request), timezone.localdate()))


class Stock(APIView):
    """Gaskets on the shelf."""

    @extend_schema(parameters=[UNIT], responses=StockAnswer(many=True))
    def get(self, request: Request) -> Response:
        """Every line of stock."""
        return answer(queries.stock_shapes(units_of(request)))

    @extend_schema(request=CountGaskets, parameters=[UNIT], responses={200: StockAnswer(many=True), 422: Error})
    def post(self, request: Request) -> Response:
        """Count one thickness."""
        units = units_of(request)
        services.count_gaskets(actor_of(request), units=units, **checked(CountGaskets, request))
        return answer(queries.stock_shapes(units))
