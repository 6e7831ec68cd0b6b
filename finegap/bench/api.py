"""The bench over HTTP: parse, call a service or a query, answer with the whole job."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable
from typing import Any

from django.http import Http404
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.parsers import MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.bench import queries, responses, services
from finegap.bench.requests import (
    Abandon,
    Amend,
    AttachPhoto,
    Change,
    ConfirmNew,
    Decide,
    FitPart,
    JobVersion,
    LogTorque,
    LookAt,
    MarkStep,
    NoteRunIn,
    OpenJob,
    Pulled,
    PullReading,
    ReadMeanwhile,
    RecordReading,
    RecordSet,
    RecordTry,
    RemovePhoto,
    SayOnHand,
    SeeProof,
    SetDetails,
    SetZero,
    Sign,
    StrikeOut,
    UseAtBench,
)
from finegap.core.errors import FieldError
from finegap.core.means import registry as registered_means
from finegap.core.means.base import MeansView
from finegap.core.tasks import registry as registered_tasks
from finegap.core.tasks.base import TaskView
from finegap.inventory import receiver
from finegap.people.pins import check_pin
from finegap.site.api import UNIT, Error, actor_of, answer, any_kind_of, checked, entered, response_serializer, units_of
from finegap.site.security import LEAD, role_of

any_kind_of(MeansView, registered_means.VIEWS)
any_kind_of(TaskView, registered_tasks.VIEWS)
JobAnswer = response_serializer(responses.JobResponse)
JobLineAnswer = response_serializer(responses.JobLine)
WearAnswer = response_serializer(responses.WearResponse)
LogAnswer = response_serializer(responses.EventResponse)
_MOST_DIGITS = 10
_ERRORS = {409: Error, 422: Error}


class Jobs(APIView):
    """The list of jobs."""

    @extend_schema(responses=JobLineAnswer(many=True))
    def get(self, request: Request) -> Response:
        """All jobs, newest first."""
        return answer(queries.job_lines())

    @extend_schema(request=OpenJob, parameters=[UNIT], responses={201: JobAnswer, **_ERRORS})
    def post(self, request: Request) -> Response:
        """Open a job on a pump."""
        entry, data = entered(OpenJob, request)
        job = services.open_job(actor_of(request), data["pump"], data["reason"], data["hours_run"], data["symptom"], entry)
        return _job(job.number, request, 201)


class JobDetail(APIView):
    """One job."""

    @extend_schema(parameters=[UNIT], responses={200: JobAnswer, 404: Error})
    def get(self, request: Request, number: int) -> Response:
        """Everything the bench shows of a job."""
        return _job(number, request)


def _job(number: int, request: Request, status: int = 200) -> Response:
    units = units_of(request)
    view = queries.job_view(number)
    if view is None:
        raise Http404
    return answer(view, status, units)


class _ChangeJob(APIView):
    """A change to a job; the answer is the job as it stands after it."""

    serializer: type[Change]

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """Call the service."""
        raise NotImplementedError

    def post(self, request: Request, number: int) -> Response:
        """Make the change."""
        entry, data = entered(self.serializer, request)
        ref = services.JobRef(actor_of(request), number, data.pop("version"), entry, _moment(data.pop("at")))
        services.catch_up(number)
        self.change(ref, data, request)
        view = queries.job_view(number)
        if isinstance(view, responses.JobResponse):
            services.note_verdicts(view)
        return answer(view, units=units_of(request))


def _moment(typed: str) -> dt.datetime:
    expected = "Expected such as 2026-03-31T14:05:00+02:00."
    try:
        moment = dt.datetime.fromisoformat(typed)
    except ValueError:
        raise FieldError("time", f"“{typed}” is no moment.", expected) from None
    if moment.tzinfo is None:
        raise FieldError("time", "the zone is missing.", expected)
    return moment


def _documented(serializer: type[Change]) -> Callable[[type[_ChangeJob]], type[_ChangeJob]]:
    def wrap(view: type[_ChangeJob]) -> type[_ChangeJob]:
        view.serializer = serializer
        return extend_schema(request=serializer, parameters=[UNIT], responses={200: JobAnswer, **_ERRORS})(view)

    return wrap


@_documented(MarkStep)
class StepDone(_ChangeJob):
    """Mark a step done."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """By name and time."""
        is_lead = bool(data["skip"] or data["past"]) and role_of(ref.actor) == LEAD
        if is_lead and (data["past"] or queries.needs_lead(ref.number, data["step"])):
            check_pin(ref.actor, data["pin"])
        services.mark_step(ref, data["id"], data["step"], data["note"], data["skip"], data["past"], is_lead)


@_documented(RecordReading)
class Readings(_ChangeJob):
    """Record a reading."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """As typed."""
        services.record_reading(ref, services.NewReading(**data))


@_documented(Decide)
class Decisions(_ChangeJob):
    """Decide keep or change."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """Against the verdict only with a reason."""
        services.decide(ref, data["id"], data["feature"], data["decided"], data["reason"], data["parts"])


@_documented(ConfirmNew)
class NewParts(_ChangeJob):
    """Confirm that a new part is in."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """Where no size shows it."""
        services.confirm_new(ref, data["id"], data["feature"])


@_documented(ReadMeanwhile)
class MeanwhileRead(_ChangeJob):
    """Say that verdicts which changed by themselves were read."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """By name and time, in the log."""
        services.read_meanwhile(ref)


class Log(APIView):
    """The log of a job."""

    @extend_schema(
        parameters=[OpenApiParameter("before", OpenApiTypes.INT, default=0)], responses={200: LogAnswer(many=True), 404: Error}
    )
    def get(self, request: Request, number: int) -> Response:
        """Fifty lines before a version, newest first; 0 is the newest."""
        before = request.query_params.get("before", "0")
        lines = queries.log_lines(number, int(before) if before.isdigit() and len(before) < _MOST_DIGITS else 0)
        if lines is None:
            raise Http404
        return answer(lines)


@_documented(SetDetails)
class Details(_ChangeJob):
    """Put right what has to be known."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """All of it or nothing."""
        services.set_details(ref, services.NewDetails(**data))


@_documented(SayOnHand)
class OnHand(_ChangeJob):
    """Say what is on hand."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """Here, or missing."""
        services.say_on_hand(ref, data["id"], data["items"], data["here"])


@_documented(LookAt)
class Looks(_ChangeJob):
    """Record what was seen on a part."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """No damage means sound."""
        services.look_at(ref, data["id"], data["feature"], data["damages"], data["note"], data["phase"])


@_documented(RecordSet)
class ReadingSets(_ChangeJob):
    """Record a pasted set of readings."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """All of it or nothing."""
        services.record_set(ref, services.NewSet(**data))


@_documented(AttachPhoto)
class Photos(_ChangeJob):
    """Attach a photograph."""

    parser_classes = [MultiPartParser]

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """Checked and made small."""
        services.attach_photo(ref, services.NewPhoto(**data))


@_documented(RemovePhoto)
class PhotoRemoved(_ChangeJob):
    """Take a photograph off."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """The log says so."""
        services.remove_photo(ref, data["photo"])


class Wear(APIView):
    """How one part wears."""

    @extend_schema(parameters=[UNIT], responses={200: WearAnswer, 404: Error})
    def get(self, request: Request, number: int, feature: str) -> Response:
        """Its lives, band and limit."""
        view = queries.wear_view(number, feature, units_of(request))
        if view is None:
            raise Http404
        return answer(view)


class Pull(APIView):
    """Ask the receiver for a gauge's reading."""

    @extend_schema(request=PullReading, parameters=[UNIT], responses={200: Pulled, 409: Error, 422: Error})
    def post(self, request: Request, number: int) -> Response:
        """The reading as text, to be saved as if typed; nothing is recorded here."""
        data = checked(PullReading, request)
        pump = queries.pump_of(number)
        if pump is None:
            raise Http404
        pulled = receiver.pull(data["gauge"], receiver.Place(pump, data["feature"], data["station"]))
        return answer({"typed": pulled.typed, "note": pulled.note})


@_documented(FitPart)
class PartsFitted(_ChangeJob):
    """Tick a part of a stack."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """In its turn, its direction confirmed."""
        services.fit_part(ref, data["id"], data["stack"], data["part"], data["confirmed"], data["reused"], data["reason"])


@_documented(LogTorque)
class Torques(_ChangeJob):
    """Log a torque."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """With the wrench it was made with."""
        services.log_torque(ref, services.NewTorque(**data))


@_documented(UseAtBench)
class OnTheBench(_ChangeJob):
    """Say what is on the bench."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """Lubricant and grease gun."""
        services.use_at_bench(ref, data.get("lubricant"), data.get("gun"))


@_documented(SetZero)
class ZeroFound(_ChangeJob):
    """Say that zero is found."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """By which school, with which play."""
        services.set_zero(ref, data["id"], data["school"], data["lash"], data["lash_arc"])


@_documented(RecordTry)
class Tries(_ChangeJob):
    """Record a try at the gap."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """What was done and what the check read."""
        checks = [services.NewCheck(**check) for check in data.pop("checks")]
        services.record_try(ref, services.NewTry(checks=checks, **data))


@_documented(SeeProof)
class Proofs(_ChangeJob):
    """Record something seen at Prove."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """Seen again, it replaces what was seen before."""
        services.see(ref, services.NewProof(**data))


@_documented(NoteRunIn)
class RunIn(_ChangeJob):
    """Add a line to the run-in."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """What the gland leaks, how warm the box is, what was turned."""
        services.note_run_in(ref, services.NewNote(**data))


@_documented(Sign)
class Signature(_ChangeJob):
    """Sign the job."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """Technicians when nothing is open; leads past some of it with a reason."""
        check_pin(ref.actor, data["pin"])
        services.sign_off(ref, data["id"], role_of(ref.actor) == LEAD, data["reason"])


@_documented(StrikeOut)
class Struck(_ChangeJob):
    """Strike a record out."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """With a reason, and with it what rests on it."""
        services.strike(ref, data["kind"], data["record"], data["reason"])


@_documented(Abandon)
class Abandoned(_ChangeJob):
    """Give a job up."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """It is kept and marked."""
        services.abandon(ref, data["id"], data["reason"])


@_documented(Amend)
class Amendments(_ChangeJob):
    """Put a signed job right."""

    def change(self, ref: services.JobRef, data: dict[str, Any], request: Request) -> None:
        """By a lead, who says who it is."""
        check_pin(ref.actor, data["pin"])
        is_lead = role_of(ref.actor) == LEAD
        services.amend(ref, data["id"], data["what"], data["reason"], data["void"], data["belongs_to"], is_lead)


class Version(APIView):
    """How far a job has come."""

    @extend_schema(responses={200: JobVersion, 404: Error})
    def get(self, request: Request, number: int) -> Response:
        """The version of its last change: another screen asks for it every few seconds, and for the job when it has changed."""
        version = queries.version_of(number)
        if version is None:
            raise Http404
        return answer({"version": version})
