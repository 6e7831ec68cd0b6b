"""The bench over HTTP: parse, call a service or a query, answer with the whole job."""

from __future__ import annotations

import uuid
from collections.abc import Callable
from typing import Any

from django.http import Http404, HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.parsers import MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.bench import queries, services, shapes
from finegap.core.facts import Decided, Phase
from finegap.site.api import UNIT, Error, actor_of, answer, checked, shape_serializer, units_of
from finegap.site.plain import plain
from finegap.site.security import LEAD, role_of
from finegap.toolbox import receiver

JobAnswer = shape_serializer(shapes.JobShape)
JobLineAnswer = shape_serializer(shapes.JobLine)
WearAnswer = shape_serializer(shapes.WearShape)
_ERRORS = {409: Error, 422: Error}


class OpenJob(serializers.Serializer[Any]):
    """A pump comes to the bench."""

    pump = serializers.CharField(max_length=30, allow_blank=True)
    reason = serializers.CharField(max_length=200, allow_blank=True)
    hours_run = serializers.CharField(max_length=20, allow_blank=True, default="")
    symptom = serializers.CharField(max_length=40, allow_blank=True, default="")


class Change(serializers.Serializer[Any]):
    """What every change carries: the version it was made from and, if it makes a record, the record's identity."""

    version = serializers.IntegerField(min_value=1)


class MarkStep(Change):
    """A step done."""

    id = serializers.UUIDField()
    step = serializers.CharField(max_length=40)
    note = serializers.CharField(max_length=300, allow_blank=True, default="")
    skip = serializers.CharField(max_length=300, allow_blank=True, default="")


class SetKnown(Change):
    """What is put right of what has to be known; what is left out stays as it is."""

    serial = serializers.CharField(max_length=60, allow_blank=True, required=False)
    liquid = serializers.CharField(max_length=80, allow_blank=True, required=False)
    medium = serializers.CharField(max_length=40, allow_blank=True, required=False)
    hazards = serializers.CharField(max_length=200, allow_blank=True, required=False)
    viscosity = serializers.CharField(max_length=40, allow_blank=True, required=False)
    temperature = serializers.CharField(max_length=40, allow_blank=True, required=False)
    casing = serializers.CharField(max_length=40, allow_blank=True, required=False)
    pressure = serializers.CharField(max_length=40, allow_blank=True, required=False)
    speed = serializers.CharField(max_length=20, allow_blank=True, required=False)
    hours_run = serializers.CharField(max_length=20, allow_blank=True, required=False)
    old_meter_last = serializers.CharField(max_length=20, allow_blank=True, required=False)
    new_meter_first = serializers.CharField(max_length=20, allow_blank=True, required=False)
    reason = serializers.CharField(max_length=200, allow_blank=True, required=False)
    symptom = serializers.CharField(max_length=40, allow_blank=True, required=False)
    place = serializers.CharField(max_length=10, allow_blank=True, required=False)
    room = serializers.CharField(max_length=200, allow_blank=True, required=False)
    build = serializers.DictField(child=serializers.CharField(max_length=40), required=False)


class SayOnHand(Change):
    """Whether something the job needs is on hand."""

    id = serializers.UUIDField()
    item = serializers.CharField(max_length=120)
    here = serializers.BooleanField()


class LookAt(Change):
    """What was seen on a part."""

    id = serializers.UUIDField()
    feature = serializers.CharField(max_length=40)
    phase = serializers.ChoiceField([p.value for p in Phase], default="found")
    damages = serializers.ListField(child=serializers.CharField(max_length=40), max_length=30)
    note = serializers.CharField(max_length=300, allow_blank=True, default="")


class RecordSet(Change):
    """A set of readings pasted from a spreadsheet."""

    id = serializers.UUIDField()
    feature = serializers.CharField(max_length=40)
    phase = serializers.ChoiceField([p.value for p in Phase], default="found")
    text = serializers.CharField(max_length=20_000, allow_blank=True, trim_whitespace=False)
    gauge = serializers.CharField(max_length=20, allow_blank=True)
    confirmed = serializers.BooleanField(default=False)


class AttachPhoto(Change):
    """A photograph of a part or of a step."""

    id = serializers.UUIDField()
    feature = serializers.CharField(max_length=40, allow_blank=True, default="")
    step = serializers.CharField(max_length=40, allow_blank=True, default="")
    note = serializers.CharField(max_length=200, allow_blank=True, default="")
    file = serializers.FileField()


class RemovePhoto(Change):
    """A photograph taken off."""

    photo = serializers.UUIDField()


class PullReading(serializers.Serializer[Any]):
    """Which gauge is asked, where on which part it stands."""

    feature = serializers.CharField(max_length=40)
    station = serializers.CharField(max_length=40)
    gauge = serializers.CharField(max_length=20)


class Pulled(serializers.Serializer[Any]):
    """What the receiver sent, to be saved as if typed."""

    typed = serializers.CharField()
    note = serializers.CharField(allow_blank=True)


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
    stops = serializers.CharField(max_length=40, allow_blank=True, default="")
    part = serializers.CharField(max_length=20, allow_blank=True, default="")
    material = serializers.CharField(max_length=40, allow_blank=True, default="")
    taken = serializers.ChoiceField(["typed", "receiver"], default="typed")
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


class FitPart(Change):
    """A part of a stack ticked."""

    id = serializers.UUIDField()
    stack = serializers.CharField(max_length=40)
    part = serializers.CharField(max_length=60)
    confirmed = serializers.BooleanField(default=False)
    reused = serializers.BooleanField(default=False)
    reason = serializers.CharField(max_length=300, allow_blank=True, default="")


class TakeBackPart(Change):
    """A part of a stack taken out again, with all that came after it."""

    stack = serializers.CharField(max_length=40)
    part = serializers.CharField(max_length=60)


class LogTorque(Change):
    """A torque as typed."""

    id = serializers.UUIDField()
    fastener = serializers.CharField(max_length=120)
    pass_number = serializers.IntegerField(min_value=1, max_value=9)
    bolts = serializers.ListField(child=serializers.IntegerField(min_value=1, max_value=99), max_length=99)
    typed = serializers.CharField(max_length=40, allow_blank=True)
    wrench = serializers.CharField(max_length=20, allow_blank=True)
    wrench_length = serializers.CharField(max_length=40, allow_blank=True, default="")
    adapter = serializers.CharField(max_length=40, allow_blank=True, default="")
    angle = serializers.CharField(max_length=40, allow_blank=True, default="")


class StrikeTorque(Change):
    """A torque struck out."""

    torque = serializers.UUIDField()
    reason = serializers.CharField(max_length=200, allow_blank=True)


class UseAtBench(Change):
    """What is on the bench at Build; what is left out stays as it is."""

    lubricant = serializers.CharField(max_length=40, allow_blank=True, required=False)
    gun = serializers.CharField(max_length=20, allow_blank=True, required=False)


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
        job = services.open_job(actor_of(request), data["pump"], data["reason"], data["hours_run"], data["symptom"])
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
        is_lead = bool(data["skip"]) and role_of(seen.actor) == LEAD
        services.mark_step(seen, data["id"], data["step"], data["note"], data["skip"], is_lead)


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


@_documented(SetKnown)
class Known(_ChangeJob):
    """Put right what has to be known."""

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """All of it or nothing."""
        services.set_known(seen, services.NewKnown(**data))


@_documented(SayOnHand)
class OnHand(_ChangeJob):
    """Say what is on hand."""

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """Here, or missing."""
        services.say_on_hand(seen, data["id"], data["item"], data["here"])


@_documented(LookAt)
class Looks(_ChangeJob):
    """Record what was seen on a part."""

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """No damage means sound."""
        services.look_at(seen, data["id"], data["feature"], data["damages"], data["note"], data["phase"])


@_documented(RecordSet)
class ReadingSets(_ChangeJob):
    """Record a pasted set of readings."""

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """All of it or nothing."""
        services.record_set(seen, services.NewSet(**data))


@_documented(AttachPhoto)
class Photos(_ChangeJob):
    """Attach a photograph."""

    parser_classes = [MultiPartParser]

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """Checked and made small."""
        services.attach_photo(seen, services.NewPhoto(**data))


@_documented(RemovePhoto)
class PhotoRemoved(_ChangeJob):
    """Take a photograph off."""

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """The log says so."""
        services.remove_photo(seen, data["photo"])


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


class Wear(APIView):
    """How one part wears."""

    @extend_schema(parameters=[UNIT], responses={200: WearAnswer, 404: Error})
    def get(self, request: Request, number: int, feature: str) -> Response:
        """Its lives, band and limit."""
        view = queries.wear_view(number, feature, units_of(request))
        if view is None:
            raise Http404
        return answer(view)


class TapeFile(APIView):
    """The tape for a bearing housing."""

    @extend_schema(parameters=[UNIT], responses={(200, "application/pdf"): OpenApiTypes.BINARY, 404: Error, 422: Error})
    def get(self, request: Request, number: int) -> HttpResponse:
        """True to scale, as PDF."""
        from finegap.exchange import tape

        printed = queries.tape_view(number, units_of(request))
        if printed is None:
            raise Http404
        response = HttpResponse(tape.as_pdf(printed), content_type="application/pdf")
        response["Content-Disposition"] = f'inline; filename="tape-{number}.pdf"'
        return response


class Order(APIView):
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
        from finegap.exchange import order

        view = queries.job_view(number, units_of(request))
        record = plain(view)
        if view is None or record["order"] is None:
            raise Http404
        return HttpResponse(
            order.MAKERS[kind](record),
            content_type=order.TYPES[kind],
            headers={"Content-Disposition": f'inline; filename="order-job-{number}.{kind}"'},
        )


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

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """In its turn, its direction confirmed."""
        services.fit_part(seen, data["id"], data["stack"], data["part"], data["confirmed"], data["reused"], data["reason"])


@_documented(TakeBackPart)
class PartTakenBack(_ChangeJob):
    """Take a part of a stack out again."""

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """With all that came after it."""
        services.take_back_part(seen, data["stack"], data["part"])


@_documented(LogTorque)
class Torques(_ChangeJob):
    """Log a torque."""

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """With the wrench it was made with."""
        services.log_torque(seen, services.NewTorque(**data))


@_documented(StrikeTorque)
class TorqueStruck(_ChangeJob):
    """Strike a torque out."""

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """With a reason."""
        services.strike_torque(seen, data["torque"], data["reason"])


@_documented(UseAtBench)
class OnTheBench(_ChangeJob):
    """Say what is on the bench."""

    def change(self, seen: services.Seen, data: dict[str, Any], request: Request) -> None:
        """Lubricant and grease gun."""
        services.use_at_bench(seen, data.get("lubricant"), data.get("gun"))


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
