"""The bench over HTTP: parse, call a service or a query, answer with the whole job."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable
from typing import Any, TypeVar

from django.db.models import QuerySet
from django.http import Http404
from django_filters import CharFilter, ChoiceFilter, FilterSet, NumberFilter
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, PolymorphicProxySerializer, extend_schema
from rest_framework import serializers
from rest_framework.parsers import MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.api.answers import Error, answer, any_kind_of, response_serializer
from finegap.api.lists import ListFilter, list_schema, listed
from finegap.api.requests import UNIT, Entered, actor_of, checked, entered, request_serializer, units_of
from finegap.api.screens import SCREEN, screen_of
from finegap.api.sections import HELD, Sections, answer_in_sections, held_by
from finegap.bench import changes, queries, responses, services
from finegap.bench.changes import MarkStep, OpenJob
from finegap.bench.models import ABANDONED, SIGNED
from finegap.bench.services import Service
from finegap.core.errors import FieldError
from finegap.core.formatting import Units
from finegap.core.means import registry as registered_means
from finegap.core.means.base import MeansView
from finegap.core.tasks import registry as registered_tasks
from finegap.core.tasks.base import TaskView
from finegap.core.working import Working
from finegap.inventory import receiver
from finegap.people.pins import check_pin
from finegap.sheets.drawn import DrawingResponse

C = TypeVar("C")

any_kind_of(MeansView, registered_means.VIEWS)
any_kind_of(TaskView, registered_tasks.VIEWS)
OpenJobRequest = request_serializer(OpenJob, Entered)
JobAnswer = response_serializer(responses.JobResponse)
JobInEither = PolymorphicProxySerializer("JobAnswer", [JobAnswer, Sections], resource_type_field_name=None)
"""A job whole, or in the sections a page does not hold."""
WearAnswer = response_serializer(responses.WearResponse)
FitAnswer = response_serializer(responses.FitResponse)
DrawingAnswer = response_serializer(DrawingResponse)
WorkingAnswer = response_serializer(Working)
LogAnswer = response_serializer(responses.EventResponse)
_ERRORS = {409: Error, 422: Error}


class JobFilter(ListFilter):
    """Open, signed or abandoned jobs; words of the pump, or the number."""

    state = ChoiceFilter(choices=[("open", "open"), (SIGNED, SIGNED), (ABANDONED, ABANDONED)], method="has_ended")

    def has_ended(self, rows: QuerySet[Any], _name: str, value: str) -> QuerySet[Any]:
        """So, or not at all."""
        return rows.filter(ended="" if value == "open" else value)

    sheet = CharFilter(field_name="revision__sheet__slug", max_length=80)
    revision = CharFilter(field_name="revision__revision", max_length=20)
    but = CharFilter(field_name="revision__revision", exclude=True, max_length=20)

    def has_words(self, rows: QuerySet[Any], _name: str, value: str) -> QuerySet[Any]:
        """Of its pump, or its number."""
        return queries.jobs_with(rows, value)


class Jobs(APIView):
    """The list of jobs."""

    @list_schema(
        "jobs",
        responses.JobLine,
        OpenApiParameter("state", enum=["open", SIGNED, ABANDONED]),
        OpenApiParameter("sheet", description="By this sheet."),
        OpenApiParameter("revision", description="By this revision of it."),
        OpenApiParameter("but", description="By any revision but this."),
    )
    def get(self, request: Request) -> Response:
        """A page of jobs, newest first."""
        return answer(listed(JobFilter, request, queries.jobs(), queries.job_lines))

    @extend_schema(request=OpenJobRequest, parameters=[UNIT, HELD], responses={201: JobInEither, **_ERRORS})
    def post(self, request: Request) -> Response:
        """Open a job on a pump."""
        entry, data = entered(OpenJobRequest, request)
        job = services.open_job(actor_of(request), OpenJob(**data), entry)
        return _job(job.number, request, 201)


class JobDetail(APIView):
    """One job."""

    @extend_schema(parameters=[UNIT, HELD], responses={200: JobInEither, 404: Error})
    def get(self, request: Request, number: int) -> Response:
        """Everything the bench shows of a job."""
        return _job(number, request)


def _job(number: int, request: Request, status: int = 200) -> Response:
    units = units_of(request)
    view = queries.job_view(number)
    if view is None:
        raise Http404
    return _shown(number, view, request, units, status)


def _shown(number: int, view: Any, request: Request, units: Units, status: int = 200) -> Response:
    """A job: the whole of it, or for a page that says what it holds the sections that are not."""
    if isinstance(view, dict):
        units = units.system  # a signed record has no thousandths
    held = held_by(request)
    if held is None:
        return answer(view, status, units)
    return answer_in_sections(f"/api/jobs/{number}", view, responses.JobResponse, queries.LISTS, units, held, status)


class PullReading(serializers.Serializer[Any]):
    """Which gauge is asked, where on which part it stands."""

    feature = serializers.CharField(max_length=40)
    station = serializers.CharField(max_length=40)
    gauge = serializers.CharField(max_length=20)


class PulledAnswer(serializers.Serializer[Any]):
    """What the receiver sent, to be saved as if typed."""

    typed = serializers.CharField()
    note = serializers.CharField(allow_blank=True)


class JobVersion(serializers.Serializer[Any]):
    """How far a job has come: its version."""

    version = serializers.IntegerField()


class LogFilter(FilterSet):  # type: ignore[misc]  # django-filter has no types
    """Which lines of a log: those before a version; all without one."""

    before = NumberFilter("version", "lt", min_value=1, max_value=2**31)


class Log(APIView):
    """The log of a job."""

    @extend_schema(
        parameters=[OpenApiParameter("before", OpenApiTypes.INT)], responses={200: LogAnswer(many=True), 404: Error, 422: Error}
    )
    def get(self, request: Request, number: int) -> Response:
        """Fifty lines, newest first."""
        events = queries.log_of(number)
        if events is None:
            raise Http404
        chosen = LogFilter(request.query_params, events)
        if not chosen.is_valid():
            raise FieldError("before", f"“{request.query_params['before']}” is no version.", "Expected that of a line of the log.")
        return answer(queries.log_lines(chosen.qs))


class Wear(APIView):
    """How one part wears."""

    @extend_schema(parameters=[UNIT], responses={200: WearAnswer, 404: Error})
    def get(self, request: Request, number: int, feature: str) -> Response:
        """Its lives, band and limit."""
        view = queries.wear_view(number, feature, units_of(request))
        if view is None:
            raise Http404
        return answer(view)


class Drawing(APIView):
    """The drawing of a job's pump."""

    @extend_schema(parameters=[UNIT, SCREEN], responses={200: DrawingAnswer, 404: Error, 422: Error})
    def get(self, request: Request, number: int) -> Response:
        """On one screen, with room beside each number for whatever is measured."""
        units = units_of(request)
        view = queries.drawing_view(number, units, screen_of(request))
        if view is None:
            raise Http404
        return answer(view, units=units)


class GaugeFit(APIView):
    """What one gauge can do for one part."""

    @extend_schema(parameters=[UNIT], responses={200: FitAnswer, 404: Error})
    def get(self, request: Request, number: int, feature: str, gauge: str) -> Response:
        """For a gauge that is made for it."""
        view = queries.fit_view(number, feature, gauge)
        if view is None:
            raise Http404
        return answer(view, units=units_of(request))


class WorkingOf(APIView):
    """How one number of a job was reached."""

    @extend_schema(parameters=[UNIT], responses={200: WorkingAnswer, 404: Error})
    def get(self, request: Request, number: int, place: str) -> Response:
        """At the place the job names."""
        view = queries.working_view(number, place)
        if view is None:
            raise Http404
        return answer(view, units=units_of(request))


class Pull(APIView):
    """Ask the receiver for a gauge's reading."""

    @extend_schema(request=PullReading, parameters=[UNIT], responses={200: PulledAnswer, 409: Error, 422: Error})
    def post(self, request: Request, number: int) -> Response:
        """The reading as text, to be saved as if typed; nothing is recorded here."""
        data = checked(PullReading, request)
        pump = queries.pump_of(number)
        if pump is None:
            raise Http404
        pulled = receiver.pull(data["gauge"], receiver.Place(pump, data["feature"], data["station"]))
        return answer({"typed": pulled.typed, "note": pulled.note})


class Version(APIView):
    """How far a job has come."""

    @extend_schema(responses={200: JobVersion, 404: Error})
    def get(self, request: Request, number: int) -> Response:
        """The version of its last change: another screen asks for it every few seconds, and for the job when it has changed."""
        version = queries.version_of(number)
        if version is None:
            raise Http404
        return answer({"version": version})


class Change(Entered):
    """What comes with every change: how it was typed, the version it was made from, and the moment of the act with its zone."""

    version = serializers.IntegerField(min_value=1)
    at = serializers.CharField(max_length=40, help_text="ISO 8601 with the offset of the device's zone")


class ChangeJob(APIView):
    """A change to a job; the answer is the job as it stands after it."""

    serializer: type[Change]
    change: type[Any]
    service: Service[Any]

    def allow(self, ref: services.JobRef, new: Any) -> None:
        """Who it is has to be shown for some changes; a wrong PIN is counted whatever becomes of the change."""

    def post(self, request: Request, number: int) -> Response:
        """Make the change."""
        entry, data = entered(self.serializer, request)
        ref = services.JobRef(actor_of(request), number, data.pop("version"), entry, _moment(data.pop("at")))
        new = self.change(**data)
        self.allow(ref, new)
        return _shown(number, services.carry_out(type(self).service, ref, new), request, units_of(request))


class SignedChange(ChangeJob):
    """A change that is made with one's PIN."""

    def allow(self, ref: services.JobRef, new: Any) -> None:
        """By whoever knows it."""
        check_pin(ref.actor, new.pin)


class StepChange(ChangeJob):
    """A step: a lead who does what only a lead may does it with a PIN."""

    def allow(self, ref: services.JobRef, new: MarkStep) -> None:
        """Out of its turn, or past a hold point or a caution."""
        if ref.is_lead and (new.past or (new.skip and queries.needs_lead(ref.number, new.step))):
            check_pin(ref.actor, new.pin)


def makes(change: type[Any], service: Service[Any], view: type[ChangeJob] = ChangeJob, **more: Any) -> Callable[..., Any]:
    """The address of a change: its declaration is what is checked, what the service takes, and what the schema says."""
    serializer = request_serializer(change, Change)
    given = {"serializer": serializer, "change": change, "service": staticmethod(service), "__doc__": change.__doc__, **more}
    made: type[APIView] = type(change.__name__, (view,), given)
    documented = extend_schema(request=serializer, parameters=[UNIT, HELD], responses={200: JobInEither, **_ERRORS})(made)
    return documented.as_view()


def _moment(typed: str) -> dt.datetime:
    expected = "Expected such as 2026-03-31T14:05:00+02:00."
    try:
        moment = dt.datetime.fromisoformat(typed)
    except ValueError:
        raise FieldError("time", f"“{typed}” is no moment.", expected) from None
    if moment.tzinfo is None:
        raise FieldError("time", "the zone is missing.", expected)
    return moment


CHANGES: dict[str, Callable[..., Any]] = {
    "abandon": makes(changes.Abandon, services.abandon),
    "amendments": makes(changes.Amend, services.amend, SignedChange),
    "decisions": makes(changes.Decide, services.decide),
    "details": makes(changes.SetDetails, services.set_details),
    "looks": makes(changes.LookAt, services.look_at),
    "meanwhile": makes(changes.ReadMeanwhile, services.read_meanwhile),
    "new-parts": makes(changes.ConfirmNew, services.confirm_new),
    "on-hand": makes(changes.SayOnHand, services.say_on_hand),
    "on-the-bench": makes(changes.UseAtBench, services.use_at_bench),
    "parts": makes(changes.FitPart, services.fit_part),
    "photos": makes(changes.AttachPhoto, services.attach_photo, parser_classes=[MultiPartParser]),
    "photos/remove": makes(changes.RemovePhoto, services.remove_photo),
    "proofs": makes(changes.SeeProof, services.see),
    "readings": makes(changes.RecordReading, services.record_reading),
    "readings/set": makes(changes.RecordSet, services.record_set),
    "run-in": makes(changes.NoteRunIn, services.note_run_in),
    "signature": makes(changes.Sign, services.sign_off, SignedChange),
    "steps": makes(changes.MarkStep, services.mark_step, StepChange),
    "strike": makes(changes.StrikeOut, services.strike),
    "torques": makes(changes.LogTorque, services.log_torque),
    "tries": makes(changes.RecordTry, services.record_try),
    "zero": makes(changes.SetZero, services.set_zero),
}
"""Every change to a job, by its address under the job's."""
