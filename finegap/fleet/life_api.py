"""A pump's life over HTTP: its drawing, wear, timeline, overhauls, photographs and papers, and its label."""

from __future__ import annotations

import csv
import io
import json
import uuid
from collections.abc import Callable
from typing import Any

from django.http import Http404, HttpResponse
from django.utils.text import slugify
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.api.answers import Error, answer, response_serializer
from finegap.api.lists import Page, filtered, one_of, page_of
from finegap.api.plain import plain
from finegap.api.requests import UNIT, units_of
from finegap.api.screens import SCREEN, screen_of
from finegap.bench.responses import WearResponse
from finegap.core.errors import FieldError
from finegap.due.services import catch_up
from finegap.fleet import life, page, paper, queries, responses
from finegap.fleet.api import PUMPS_ASKED, PumpFilter
from finegap.formats import labels
from finegap.formats.tables import safe
from finegap.pumps.models import Pump, PumpDocument
from finegap.sheets.drawn import DrawingResponse
from finegap.works.queries import paper as works_paper
from finegap.works.queries import present

WearAnswer = response_serializer(WearResponse)
DrawingAnswer = response_serializer(DrawingResponse)
LabelAnswer = response_serializer(responses.LabelOf)
PAGE_ASKED = OpenApiParameter("page", OpenApiTypes.INT, default=1)
_PAPER_POLICY = "default-src 'none'; style-src 'unsafe-inline'; img-src 'self'; sandbox"

Paged = Callable[[Pump, int], tuple[list[Any], bool]]


class PumpDrawing(APIView):
    """The drawing of a pump."""

    @extend_schema(parameters=[UNIT, SCREEN], responses={200: DrawingAnswer, 404: Error, 422: Error})
    def get(self, request: Request, tag: str) -> Response:
        """As it is built."""
        found = page.pump_drawing(tag, units_of(request), screen_of(request))
        return answer(_there(found), units=units_of(request))


class PumpWear(APIView):
    """How a part of a pump wears."""

    @extend_schema(parameters=[UNIT], responses={200: WearAnswer, 404: Error})
    def get(self, request: Request, tag: str, feature: str) -> Response:
        """Every one that was fitted."""
        return answer(_there(page.pump_wear(tag, feature, units_of(request))), units=units_of(request))


class Life(APIView):
    """What was done to a pump."""

    @extend_schema(
        operation_id="life_list", parameters=[UNIT, PAGE_ASKED], responses={200: page_of(responses.LifeLine), 404: Error}
    )
    def get(self, request: Request, tag: str) -> Response:
        """A page, the newest first."""
        return _paged(request, tag, life.life_of)


class LifeFile(APIView):
    """All that was done to a pump, as a file."""

    @extend_schema(
        parameters=[UNIT],
        responses={(200, "text/csv"): OpenApiTypes.STR, (200, "application/json"): OpenApiTypes.OBJECT, 404: Error},
    )
    def get(self, request: Request, tag: str, kind: str) -> HttpResponse:
        """A table, or JSON."""
        pump = _there(life.pump_of(tag))
        lines = [plain(line, units_of(request)) for line in life.whole_life(pump)]
        body = _as_csv(lines) if kind == "csv" else _as_json(pump, lines)
        response = HttpResponse(body, content_type="text/csv; charset=utf-8" if kind == "csv" else "application/json")
        response["Content-Disposition"] = f'attachment; filename="{slugify(tag)}-life.{kind}"'
        return response


class Overhauls(APIView):
    """The signed overhauls of a pump."""

    @extend_schema(
        operation_id="overhauls_list",
        parameters=[UNIT, PAGE_ASKED],
        responses={200: page_of(responses.OverhaulResponse), 404: Error},
    )
    def get(self, request: Request, tag: str) -> Response:
        """A page with sizes found and left, the newest first."""
        return _paged(request, tag, life.overhauls_of)


class PumpPhotos(APIView):
    """Photographs from the jobs on a pump."""

    @extend_schema(
        operation_id="pump_photos_list", parameters=[PAGE_ASKED], responses={200: page_of(responses.PumpPhoto), 404: Error}
    )
    def get(self, request: Request, tag: str) -> Response:
        """A page, the newest first."""
        return _paged(request, tag, life.photos_of)


class DocumentFile(APIView):
    """A paper of a pump."""

    @extend_schema(responses={(200, "image/jpeg"): OpenApiTypes.BINARY, (200, "application/pdf"): OpenApiTypes.BINARY, 404: Error})
    def get(self, request: Request, pk: uuid.UUID) -> HttpResponse:
        """The picture, or the PDF."""
        kept = _there(PumpDocument.objects.filter(pk=pk).first())
        try:
            with kept.file.open("rb") as file:
                data = file.read()
        except FileNotFoundError:
            raise Http404 from None
        response = HttpResponse(data, content_type="application/pdf" if kept.kind == "pdf" else "image/jpeg")
        response["Content-Disposition"] = f'inline; filename="{slugify(kept.name)}.{kept.kind}"'
        response["Content-Security-Policy"] = _PAPER_POLICY
        response["Cache-Control"] = "private, max-age=31536000, immutable"
        return response


class BenchSheet(APIView):
    """A blank bench sheet of a pump, on paper."""

    @extend_schema(parameters=[UNIT], responses={(200, "application/pdf"): OpenApiTypes.BINARY, 404: Error})
    def get(self, request: Request, tag: str) -> HttpResponse:
        """Its drawing, gaps, limits, and boxes to fill in."""
        from finegap.formats import bench_sheet

        sheet = _there(paper.blank_sheet(tag, units_of(request)))
        response = HttpResponse(bench_sheet.as_pdf(sheet, present(), works_paper()), content_type="application/pdf")
        response["Content-Disposition"] = f'inline; filename="{slugify(tag)}-bench-sheet.pdf"'
        return response


class Labels(APIView):
    """Labels for pumps, on paper."""

    @extend_schema(
        parameters=[
            one_of("size", *(one.key for one in labels.SHEETS)),
            OpenApiParameter("first", OpenApiTypes.INT, default=1, description="The first free label of the first sheet."),
            OpenApiParameter("tag", OpenApiTypes.STR, description="Of this pump alone."),
            OpenApiParameter("q", OpenApiTypes.STR, description="Words; a pump has all of them."),
            *PUMPS_ASKED,
        ],
        responses={(200, "application/pdf"): OpenApiTypes.BINARY, 404: Error, 422: Error},
    )
    def get(self, request: Request) -> HttpResponse:
        """Of the pumps a list would show, in its order."""
        catch_up()
        rows = filtered(PumpFilter, request, queries.pumps())
        tag = request.query_params.get("tag", "")
        found = list((rows.filter(tag=tag) if tag else rows)[: labels.MOST + 1])
        if not found:
            raise Http404
        if len(found) > labels.MOST:
            raise FieldError("pumps", f"there are more than {labels.MOST}.", "Expected fewer: look for a place, or a sheet.")
        size, first = request.query_params.get("size", labels.SHEETS[0].key), request.query_params.get("first", "1")
        if not first.isascii() or not first.isdigit() or len(first) > 4:
            raise FieldError("first label", f"“{first[:20]}” is no count.", "Expected 1 or more.")
        origin = request.build_absolute_uri("/").rstrip("/")
        body = labels.as_pdf(paper.labels_of(found, origin), labels.sheet_named(size), int(first))
        response = HttpResponse(body, content_type="application/pdf")
        response["Content-Disposition"] = 'inline; filename="labels.pdf"'
        return response


class Label(APIView):
    """The code of a label."""

    @extend_schema(responses={200: LabelAnswer, 404: Error})
    def get(self, request: Request, code: str) -> Response:
        """The pump it is on, and its open job."""
        return answer(_there(queries.label_of(code)))


def _paged(request: Request, tag: str, read: Paged) -> Response:
    asked = request.query_params.get("page", "1")
    if not asked.isascii() or not asked.isdigit() or not 1 <= int(asked) <= life.LAST_PAGE:
        raise FieldError("page", f"“{asked[:20]}” cannot be asked for.", f"Expected 1 to {life.LAST_PAGE}.")
    lines, more = read(_there(life.pump_of(tag)), int(asked))
    return answer(Page(lines, more), units=units_of(request))


def _there(found: Any) -> Any:
    if found is None:
        raise Http404
    return found


_COLUMNS = {"on": "When", "kind": "Kind", "said": "What", "by": "Who", "job": "Job", "struck": "Struck out because"}


def _as_csv(lines: list[dict[str, Any]]) -> bytes:
    text = io.StringIO()
    written = csv.writer(text)
    written.writerow(_COLUMNS.values())
    written.writerows([safe("" if line[name] is None else str(line[name])) for name in _COLUMNS] for line in lines)
    return text.getvalue().encode("utf-8-sig")


def _as_json(pump: Pump, lines: list[dict[str, Any]]) -> bytes:
    whole = {"format": "fine-gap/pump-life", "version": 1, "pump": pump.tag, "serial": pump.serial, "lines": lines}
    return json.dumps(whole, ensure_ascii=False, indent=2).encode()
