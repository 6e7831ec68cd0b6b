"""The fleet over HTTP."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.fleet import queries, services, shapes
from finegap.site.api import UNIT, Error, actor_of, answer, checked, shape_serializer, units_of
from finegap.site.security import LeadWrites

PumpLineAnswer = shape_serializer(shapes.PumpLine)


class AddPump(serializers.Serializer[Any]):
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
    speed_r_min = serializers.FloatField(min_value=0.1, max_value=20_000)
    casing = serializers.CharField(max_length=40, allow_blank=True, default="")
    density = serializers.CharField(max_length=40, allow_blank=True, default="")
    start = serializers.CharField(max_length=40, allow_blank=True, default="")
    hot = serializers.CharField(max_length=40, allow_blank=True, default="")
    hazards = serializers.CharField(max_length=200, allow_blank=True, default="")
    medium = serializers.CharField(max_length=40, allow_blank=True, default="")
    overhaul_every = serializers.CharField(max_length=20, allow_blank=True, default="")
    hours_per_week = serializers.FloatField(min_value=0.1, max_value=168, required=False)
    build = serializers.DictField(child=serializers.CharField(max_length=40), required=False)


class Pumps(APIView):
    """The pumps; a lead adds them."""

    permission_classes = [LeadWrites]

    @extend_schema(parameters=[UNIT], responses=PumpLineAnswer(many=True))
    def get(self, request: Request) -> Response:
        """Every pump with its jobs."""
        return answer(queries.pump_lines(units_of(request)))

    @extend_schema(request=AddPump, parameters=[UNIT], responses={201: PumpLineAnswer(many=True), 403: Error, 422: Error})
    def post(self, request: Request) -> Response:
        """Add a pump."""
        services.add_pump(actor_of(request), services.NewPump(**checked(AddPump, request)))
        return answer(queries.pump_lines(units_of(request)), 201)
