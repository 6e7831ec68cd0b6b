"""Notes on a job over HTTP."""

from __future__ import annotations

import uuid

from django.http import Http404
from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.api.answers import Error, answer, response_serializer
from finegap.api.requests import Entered, actor_of, checked, entered, request_serializer
from finegap.bench import changes
from finegap.bench.responses.talk import TalkResponse
from finegap.bench.services import talking
from finegap.bench.talk_queries import talk_of

TalkAnswer = response_serializer(TalkResponse)
WriteJobNote = request_serializer(changes.WriteJobNote, Entered)
TakeNote = request_serializer(changes.TakeNote, Entered)
StrikeNote = request_serializer(changes.StrikeNote, Entered)
LookedAt = request_serializer(changes.LookedAt)


class Talk(APIView):
    """What goes on at a job beside its record."""

    @extend_schema(responses={200: TalkAnswer, 404: Error})
    def get(self, request: Request, number: int) -> Response:
        """Who is on it, notes, what changed since the reader looked."""
        return _talk(request, number)


class Notes(APIView):
    """Notes on a job."""

    @extend_schema(request=WriteJobNote, responses={200: TalkAnswer, 409: Error, 422: Error})
    def post(self, request: Request, number: int) -> Response:
        """Write one, or hand the job over."""
        entry, data = entered(WriteJobNote, request)
        talking.write_note(actor_of(request), number, changes.WriteJobNote(**data), entry)
        return _talk(request, number)


class NoteTaken(APIView):
    """A hand-over that was read."""

    @extend_schema(request=TakeNote, responses={200: TalkAnswer, 422: Error})
    def post(self, request: Request, number: int, note: uuid.UUID) -> Response:
        """The job is gone on with by whoever asks."""
        entered(TakeNote, request)
        talking.take_over(actor_of(request), number, str(note))
        return _talk(request, number)


class NoteStruck(APIView):
    """A note written by mistake."""

    @extend_schema(request=StrikeNote, responses={200: TalkAnswer, 422: Error})
    def post(self, request: Request, number: int, note: uuid.UUID) -> Response:
        """Strike it out, with a reason."""
        _, data = entered(StrikeNote, request)
        talking.strike_note(actor_of(request), number, str(note), changes.StrikeNote(**data))
        return _talk(request, number)


class Looked(APIView):
    """How far somebody has read a job."""

    @extend_schema(request=LookedAt, responses={204: None, 422: Error})
    def post(self, request: Request, number: int) -> Response:
        """Up to a version of it."""
        talking.looked_at(actor_of(request), number, changes.LookedAt(**checked(LookedAt, request)))
        return Response(status=204)


def _talk(request: Request, number: int) -> Response:
    found = talk_of(number, actor_of(request))
    if found is None:
        raise Http404
    return answer(found)
