"""The works over HTTP."""

from __future__ import annotations

from django.core.files.storage import default_storage
from django.http import Http404, HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.parsers import MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.api.answers import Error, answer, response_serializer
from finegap.api.permissions import LeadWrites
from finegap.api.requests import Entered, actor_of, checked, entered, request_serializer
from finegap.formats.days import time_zones
from finegap.works import changes, queries, services
from finegap.works.models import logo_file
from finegap.works.responses import SettingsResponse

KeepSettings = request_serializer(changes.KeepSettings, Entered)
KeepLogo = request_serializer(changes.KeepLogo)
SettingsAnswer = response_serializer(SettingsResponse)


class Settings(APIView):
    """Settings of the works; a lead changes them."""

    permission_classes = [LeadWrites]

    @extend_schema(responses=SettingsAnswer)
    def get(self, _: Request) -> Response:
        """As they stand, with the units of bare numbers in both systems."""
        return answer(queries.settings_shape())

    @extend_schema(request=KeepSettings, responses={200: SettingsAnswer, 403: Error, 422: Error})
    def put(self, request: Request) -> Response:
        """Keep them; what was typed before keeps the mark it was typed with."""
        entry, data = entered(KeepSettings, request)
        services.keep_settings(actor_of(request), changes.KeepSettings(**data), entry)
        return answer(queries.settings_shape())


class TimeZones(APIView):
    """The time zones a works can be in."""

    @extend_schema(responses=serializers.ListSerializer(child=serializers.CharField()))
    def get(self, _: Request) -> Response:
        """By their IANA names."""
        return Response(time_zones())


class Logo(APIView):
    """The picture on reports; a lead changes it."""

    permission_classes = [LeadWrites]
    parser_classes = [MultiPartParser]

    @extend_schema(responses={(200, "image/png"): OpenApiTypes.BINARY, 404: Error})
    def get(self, _: Request) -> HttpResponse:
        """The one in force."""
        digest = queries.works_settings().logo
        if not digest or not default_storage.exists(logo_file(digest)):
            raise Http404
        with default_storage.open(logo_file(digest)) as file:
            return HttpResponse(file.read(), content_type="image/png", headers={"Cache-Control": "private, no-cache"})

    @extend_schema(request=KeepLogo, responses={200: SettingsAnswer, 403: Error, 422: Error})
    def post(self, request: Request) -> Response:
        """Another one; that of records signed before stays."""
        services.keep_logo(actor_of(request), changes.KeepLogo(**checked(KeepLogo, request)))
        return answer(queries.settings_shape())

    @extend_schema(responses={200: SettingsAnswer, 403: Error})
    def delete(self, request: Request) -> Response:
        """None from now on."""
        services.remove_logo(actor_of(request))
        return answer(queries.settings_shape())
