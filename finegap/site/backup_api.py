"""Backups over HTTP: what there is, one more at once, and one of them as a file; for leads alone."""

from __future__ import annotations

import datetime as dt
import shutil
from dataclasses import dataclass

from django.conf import settings
from django.http import FileResponse, Http404
from django.utils import timezone
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.api.answers import Error, answer, response_serializer
from finegap.api.errors import Refused
from finegap.api.permissions import IsLead
from finegap.api.requests import actor_of
from finegap.people.services import log_person
from finegap.site import backups
from finegap.site.backup import public_key
from finegap.site.backups import Backup
from finegap.works.queries import works_settings


@dataclass(frozen=True)
class BackupsResponse:
    """What there is, the newest first, and how it stands.

    ``good`` is the moment of the last that was made and checked; ``fault`` says why the last try failed, ``asked`` that one is
    being made. ``free`` is the room left on the disk of the data, in bytes. Of the demo none is made (``of_demo``).
    """

    of_demo: bool
    folder: str
    every_hours: int
    good: dt.datetime | None
    fault: str
    asked: bool
    encrypted: bool
    free: int
    warnings: list[str]
    backups: list[Backup]


BackupsAnswer = response_serializer(BackupsResponse)


class Backups(APIView):
    """The backups of the works."""

    permission_classes = [IsLead]

    @extend_schema(responses={200: BackupsAnswer, 403: Error})
    def get(self, _: Request) -> Response:
        """All that are kept."""
        return answer(_shape())

    @extend_schema(request=None, responses={200: BackupsAnswer, 403: Error, 409: Error})
    def post(self, request: Request) -> Response:
        """Have one made now; the server makes it by itself, and the list has it when it is checked."""
        if settings.DEMO:
            raise Refused("No backup is made of the demo.", ["A works of your own has one every day, while it is served."])
        backups.ask(settings.BACKUPS)
        return answer(_shape())


class BackupFile(APIView):
    """One of them."""

    permission_classes = [IsLead]

    @extend_schema(
        operation_id="backup_file", responses={(200, "application/octet-stream"): OpenApiTypes.BINARY, 403: Error, 404: Error}
    )
    def get(self, request: Request, name: str) -> FileResponse:
        """As a file; the log of people says who took it."""
        path = backups.path_of(settings.BACKUPS, name)
        if path is None:
            raise Http404
        lead = actor_of(request)
        log_person(lead, lead, "took a backup out")
        return FileResponse(path.open("rb"), as_attachment=True, filename=path.name)


def warnings_now() -> list[str]:
    """What is to be said of backups and room, to a lead."""
    every = dt.timedelta(hours=works_settings().backup_hours)
    return backups.warnings(settings.VAR, settings.BACKUPS, every, timezone.now())


def _shape() -> BackupsResponse:
    folder, state = settings.BACKUPS, backups.state_of(settings.BACKUPS)
    return BackupsResponse(
        settings.DEMO, str(folder), works_settings().backup_hours, state.good, state.fault, backups.is_asked(folder),
        bool(public_key(settings.VAR)), shutil.disk_usage(settings.VAR).free, warnings_now(),
        backups.listed(folder),
    )  # fmt: skip
