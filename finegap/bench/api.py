"""The bench over HTTP: parse, call a service or a query, answer with the whole job."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from django.http import Http404, HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.bench import queries, services, shapes
from finegap.core.job import Decided, Phase
from finegap.site.api import UNIT, Error, actor_of, answer, checked, shape_serializer, units_of
from finegap.site.plain import plain
from finegap.site.security import LEAD, role_of

JobAnswer = shape_serializer(shapes.JobShape)
JobLineAnswer = shape_serializer(shapes.JobLine)
_ERRORS = {409: Error, 422: Error}


class OpenJob(serializers.Serializer[Any]):
    """A pump comes to the bench."""

    pump = serializers.CharField(max_length=30, allow_blank=True)
    reason = serializers.CharField(max_length=200, allow_blank=True)
    hours_run = serializers.CharField(max_length=20, allow_blank=True, default="")


class Change(serializers.Serializer[Any]):
    """What every change carries: the version it was made from and, if it makes a record, the record's identity."""

    version = serializers.IntegerField(min_value=1)


class MarkStep(Change):
    """A step done."""

    id = serializers.UUIDField()
    step = serializers.CharField(max_length=40)


class ClearStep(Change):
    """A step taken back."""

    step = serializers.CharField(max_length=40)


class RecordReading(Change):
    """A reading as typed."""

    id = serializers.UUIDField()
    feature = serializers.CharField(max_length=40)
    station = serializers.CharField(max_length=40)
    phase = serializers.ChoiceField([p.value for p in Phase], default="found")
    typed = serializers.CharField(max_length=40, allow_blank=True)
    gauge = serializers.CharField(max_length=20, allow_blank=True)
    confirmed = serializers.BooleanField(default=False)


class StrikeReading(Change):
    """A reading struck out."""

    reading = serializers.UUIDField()
    reason = serializers.CharField(max_length=200, allow_blank=True)


class Decide(Change):
    """A decision."""

    id = serializers.UUIDField()
    feature = serializers.CharField(max_length=40)
    decided = serializers.ChoiceField([d.value for d in Decided])
    reason = serializers.CharField(max_length=300, allow_blank=True, default="")


class SetZero(Change):
    """Zero found."""

    school = serializers.CharField(max_length=40)
    lash = serializers.CharField(max_length=40, allow_blank=True, default="")


class RecordTry(Change):
    """A try at the gap."""

    id = serializers.UUIDField()
    arc = serializers.CharField(max_length=40, allow_blank=True, default="")
    way = serializers.ChoiceField(["open", "close", "stay"], default="open")
    stack_um = serializers.ListField(child=serializers.IntegerField(max_value=100_000), max_length=60, default=list)
    goes = serializers.CharField(max_length=40, allow_blank=True, default="")
    stops = serializers.CharField(max_length=40, allow_blank=True, default="")
    read = serializers.CharField(max_length=40, allow_blank=True, default="")
    gauge = serializers.CharField(max_length=20, allow_blank=True, default="")
    confirmed = serializers.BooleanField(default=False)


class Sign(Change):
    """A signature."""

    id = serializers.UUIDField()
    reason = serializers.CharField(max_length=300, allow_blank=True, default="")


class Jobs(APIView):
    """The list of jobs."""

    @extend_schema(responses=JobLineAnswer(many=True))
    def get(self, request: Request) -> Response:
        """All jobs, newest first."""
        return answer(queries.job_lines())

    @extend_schema(request=OpenJob, parameters=[UNIT], responses={201: JobAnswer, **_ERRORS})
    def post(self, request: Request) -> Response:
        """Open a job on a pump."""
        data = checked(OpenJob, request)
        job = services.open_job(actor_of(request), data["pump"], data["reason"], data["hours_run"])
        return _job(job.number, request, 201)


class JobDetail(APIView):
    """One job."""

    @extend_schema(parameters=[UNIT], responses={200: JobAnswer, 404: Error})
    def get(self, request: Request, number: int) -> Response:
        """Everything the bench shows of a job."""
        return _job(number, request)


class Report(APIView):
    """The job's report."""

    @extend_schema(
        parameters=[UNIT],
        responses={(200, "application/pdf"): OpenApiTypes.BINARY, (200, "application/json"): OpenApiTypes.OBJECT, 404: Error},
    )
    def get(self, request: Request, number: int, kind: str) -> HttpResponse:
        """One page as PDF, or the same as JSON."""
        from finegap.exchange import report

        units = units_of(request)
        view = queries.job_view(number, units)
        if view is None:
            raise Http404
        record = plain(view)
        body = report.as_pdf(record) if kind == "pdf" else report.as_json(record)
        response = HttpResponse(body, content_type="application/pdf" if kind == "pdf" else "application/json")
        response["Content-Disposition"] = f'inline; filename="job-{number}.{kind}"'
        return response


def _job(number: int, request: Request, status: int = 200) -> Response:
    view = queries.job_view(number, units_of(request))
    if view is None:
        raise Http404
    return answer(view, status)


class _ChangeJob(APIView):
    """A change to a job; the answer is the job as it stands after it."""

    serializer: type[Change]

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """Call the service."""
        raise NotImplementedError

    def post(self, request: Request, number: int) -> Response:
        """Make the change."""
        data = checked(self.serializer, request)
        seen = services.Seen(actor_of(request), number, data.pop("version"), units_of(request))
        self.change(seen, data, request)
        return _job(number, request)


def _documented(serializer: type[Change]) -> Callable[[type[_ChangeJob]], type[_ChangeJob]]:
    def wrap(view: type[_ChangeJob]) -> type[_ChangeJob]:
        view.serializer = serializer
        return extend_schema(request=serializer, parameters=[UNIT], responses={200: JobAnswer, **_ERRORS})(view)

    return wrap


@_documented(MarkStep)
class StepDone(_ChangeJob):
    """Mark a step done."""

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """By name and time."""
        services.mark_step(seen, data["id"], data["step"])


@_documented(ClearStep)
class StepCleared(_ChangeJob):
    """Take a step back."""

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """The log keeps both."""
        services.clear_step(seen, data["step"])


@_documented(RecordReading)
class Readings(_ChangeJob):
    """Record a reading."""

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """As typed."""
        services.record_reading(seen, services.NewReading(**data))


@_documented(StrikeReading)
class ReadingStruck(_ChangeJob):
    """Strike out a reading."""

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """With a reason."""
        services.strike_reading(seen, data["reading"], data["reason"])


@_documented(Decide)
class Decisions(_ChangeJob):
    """Decide keep or change."""

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """Against the verdict only with a reason."""
        services.decide(seen, data["id"], data["feature"], data["decided"], data["reason"])


@_documented(SetZero)
class ZeroFound(_ChangeJob):
    """Say that zero is found."""

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """By which school, with which play."""
        services.set_zero(seen, data["school"], data["lash"])


@_documented(RecordTry)
class Tries(_ChangeJob):
    """Record a try at the gap."""

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """What was done and what the check read."""
        services.record_try(seen, services.NewTry(**data))


@_documented(Sign)
class Signature(_ChangeJob):
    """Sign the job."""

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """Technicians when nothing is open; leads past some of it with a reason."""
        services.sign_off(seen, data["id"], role_of(seen.actor) == LEAD, data["reason"])
