"""What a job gives out as a file: report, order, tape, photographs."""

from __future__ import annotations

import uuid
from contextlib import nullcontext

from django.http import Http404, HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.views import APIView

from finegap.api.answers import Error
from finegap.api.plain import plain
from finegap.api.requests import UNIT, units_of
from finegap.bench import queries
from finegap.core.formatting import Units
from finegap.formats.letterhead import Letterhead
from finegap.works.queries import letterhead, paper, present


class Report(APIView):
    """The job's report."""

    @extend_schema(
        parameters=[UNIT],
        responses={(200, "application/pdf"): OpenApiTypes.BINARY, (200, "application/json"): OpenApiTypes.OBJECT, 404: Error},
    )
    def get(self, request: Request, number: int, kind: str) -> HttpResponse:
        """As PDF, or the same as JSON."""
        from finegap.formats import report

        units = units_of(request)
        if kind == "pdf":
            body = printed(number, units)
        else:
            view = queries.job_view(number)
            body = None if view is None else report.as_json(plain(view, units))
        if body is None:
            raise Http404
        response = HttpResponse(body, content_type="application/pdf" if kind == "pdf" else "application/json")
        response["Content-Disposition"] = f'inline; filename="job-{number}.{kind}"'
        return response


def printed(number: int, units: Units) -> bytes | None:
    """The report of a job, if there is one, under the heading it was signed with; of work in progress under that of now."""
    from finegap.formats import report

    view = queries.job_view(number)
    if view is None:
        return None
    record = plain(view, units.system if isinstance(view, dict) else units)
    signed = record["works"]
    head = letterhead(**signed) if signed else Letterhead() if record["signed"] else present()
    return report.as_pdf(record, lambda photo: _file_of(number, photo), head, paper())


def _file_of(number: int, photo: str) -> bytes | None:
    kept = queries.photo_of(number, uuid.UUID(photo))
    try:
        with kept.file.open("rb") if kept else nullcontext() as picture:
            return bytes(picture.read()) if picture else None
    except FileNotFoundError:
        return None


class PhotoFile(APIView):
    """One photograph, to whoever may see the job."""

    @extend_schema(responses={(200, "image/jpeg"): OpenApiTypes.BINARY, 404: Error})
    def get(self, request: Request, number: int, photo: uuid.UUID) -> HttpResponse:
        """The picture itself."""
        kept = queries.photo_of(number, photo)
        if kept is None:
            raise Http404
        with kept.file.open("rb") as picture:
            response = HttpResponse(picture.read(), content_type="image/jpeg")
        response["Cache-Control"] = "private, max-age=31536000, immutable"
        return response


class TapeFile(APIView):
    """The tape for a bearing housing."""

    @extend_schema(parameters=[UNIT], responses={(200, "application/pdf"): OpenApiTypes.BINARY, 404: Error, 422: Error})
    def get(self, request: Request, number: int) -> HttpResponse:
        """True to scale, as PDF."""
        from finegap.formats import tape

        printed = queries.tape_view(number, units_of(request))
        if printed is None:
            raise Http404
        response = HttpResponse(tape.as_pdf(printed, paper()), content_type="application/pdf")
        response["Content-Disposition"] = f'inline; filename="tape-{number}.pdf"'
        return response


class OrderFile(APIView):
    """What to order for a job."""

    @extend_schema(
        parameters=[UNIT],
        responses={
            (200, "application/pdf"): OpenApiTypes.BINARY,
            (200, "text/csv"): OpenApiTypes.STR,
            (200, "text/plain"): OpenApiTypes.STR,
            404: Error,
        },
    )
    def get(self, request: Request, number: int, kind: str) -> HttpResponse:
        """As a table, a page, or text for the clipboard."""
        from finegap.formats import order

        view = queries.job_view(number)
        record = plain(view, units_of(request))
        if view is None or record["order"] is None:
            raise Http404
        return HttpResponse(
            order.made(kind, record, present(), paper()),
            content_type=order.TYPES[kind],
            headers={"Content-Disposition": f'inline; filename="order-job-{number}.{kind}"'},
        )
