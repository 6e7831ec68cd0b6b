"""The toolbox over HTTP."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import ClassVar

from django.contrib.auth.models import User
from django.http import HttpResponse
from django.utils import timezone
from django_filters import BooleanFilter, CharFilter, OrderingFilter
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
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
from finegap.inventory import changes, queries, responses, services, tables
from finegap.inventory.many import RowsResponse, Table, keep_rows
from finegap.inventory.models import Gauge, GreaseGun

CountPieces, KeepGauge, KeepRows = (
    request_serializer(one, Entered) for one in (changes.CountPieces, changes.KeepGauge, changes.KeepRows)
)
WeighGun, Calculate = (request_serializer(one, Entered) for one in (changes.WeighGun, changes.Calculate))
RowsAnswer = response_serializer(RowsResponse)
RetireGauge = request_serializer(changes.RetireGauge, Entered)
GaugeAnswer = response_serializer(responses.CabinetResponse)
ShelfAnswer = response_serializer(responses.ShelfResponse)
GunAnswer = response_serializer(responses.GunResponse)
SumAnswer = response_serializer(responses.SumResponse)
LineAnswer = response_serializer(ResultLine)


class GaugeFilter(ListFilter):
    """Words of a gauge or its certificate; in use or retired; by tag, or by when its calibration is due."""

    searched = ("tag", "kind", "current__number")
    retired = BooleanFilter(field_name="retired", lookup_expr="isnull", exclude=True)
    apart = "tag"
    sort = OrderingFilter(fields={"tag": "tag", "current__due": "due"})


class GunFilter(ListFilter):
    """Words of a gun or its grease."""

    searched = ("tag", "grease")


class ShelfFilter(ListFilter):
    """Words of the sheet, or one sheet by its short name."""

    searched = ("sheet__title",)
    sheet = CharFilter(field_name="sheet__slug")


class Gauges(APIView):
    """The gauge cabinet; a lead keeps it."""

    permission_classes = [LeadWrites]

    @list_schema(
        "gauges", responses.CabinetResponse, one_of("sort", "tag", "due"), OpenApiParameter("retired", OpenApiTypes.BOOL), UNIT
    )
    def get(self, request: Request) -> Response:
        """A page of gauges with their certificates."""
        return answer(listed(GaugeFilter, request, Gauge.objects.all(), _gauges), units=units_of(request))

    @extend_schema(request=KeepGauge, parameters=[UNIT], responses={201: GaugeAnswer, 403: Error, 422: Error})
    def post(self, request: Request) -> Response:
        """Put a gauge into the cabinet."""
        entry, new = _gauge(request)
        return answer(_gauges([services.keep_gauge(actor_of(request), new, entry)])[0], 201, units_of(request))


class FromFile(APIView):
    """Many rows at once; a lead puts them in."""

    permission_classes = [LeadWrites]
    parser_classes = [MultiPartParser]
    table: ClassVar[Callable[[User], Table]]

    @extend_schema(responses={(200, "text/csv"): OpenApiTypes.BINARY})
    def get(self, request: Request) -> HttpResponse:
        """The table to fill in: its columns."""
        table = type(self).table(actor_of(request))
        text = "\ufeff" + ",".join(table.columns) + "\r\n"
        named = {"Content-Disposition": f'attachment; filename="{table.name}.csv"'}
        return HttpResponse(text, content_type="text/csv; charset=utf-8", headers=named)

    @extend_schema(request=KeepRows, responses={200: RowsAnswer, 403: Error, 422: Error})
    def post(self, request: Request) -> Response:
        """Try every row; keep all or none."""
        entry, data = entered(KeepRows, request)
        table = type(self).table(actor_of(request))
        return answer(keep_rows(table, data["file"].read(MOST_BYTES + 1), entry, data["dry"]), units=entry.units)


class GaugesFromFile(FromFile):
    """Many gauges."""

    table = tables.gauges


class ShelfFromFile(FromFile):
    """Many thicknesses of gaskets and shims."""

    table = tables.shelf


class GaugeDetail(APIView):
    """One gauge; a lead puts a new certificate to it."""

    permission_classes = [LeadWrites]

    @extend_schema(request=KeepGauge, parameters=[UNIT], responses={200: GaugeAnswer, 403: Error, 422: Error})
    def put(self, request: Request, tag: str) -> Response:
        """A new certificate, or its data put right."""
        entry, new = _gauge(request)
        return answer(_gauges([services.keep_gauge(actor_of(request), new, entry, replacing=tag)])[0], 200, units_of(request))


class GaugeRetired(APIView):
    """Whether a gauge is in use; a lead says so."""

    permission_classes = [LeadWrites]

    @extend_schema(request=RetireGauge, parameters=[UNIT], responses={200: GaugeAnswer, 403: Error, 422: Error})
    def post(self, request: Request, tag: str) -> Response:
        """Out of use, or back."""
        _, data = entered(RetireGauge, request)
        gauge = services.retire_gauge(actor_of(request), tag, data["retired"])
        return answer(_gauges([gauge])[0], 200, units_of(request))


def _gauge(request: Request) -> tuple[Entry, changes.KeepGauge]:
    entry, data = entered(KeepGauge, request)
    return entry, changes.KeepGauge(**data)


def _gauges(rows: Iterable[Gauge]) -> list[responses.CabinetResponse]:
    return queries.cabinet(rows, timezone.localdate())


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


class Shelf(APIView):
    """Gaskets and shims on the shelf."""

    @list_schema("shelf", responses.ShelfResponse, OpenApiParameter("sheet"), UNIT)
    def get(self, request: Request) -> Response:
        """A page of the stock."""
        return answer(listed(ShelfFilter, request, queries.shelf(), queries.shelf_responses), units=units_of(request))

    @extend_schema(request=CountPieces, parameters=[UNIT], responses={200: ShelfAnswer, 422: Error})
    def post(self, request: Request) -> Response:
        """Count one thickness."""
        entry, data = entered(CountPieces, request)
        line = services.count_pieces(actor_of(request), changes.CountPieces(**data), entry)
        return answer(queries.shelf_responses(queries.shelf().filter(pk=line.pk))[0], units=units_of(request))
