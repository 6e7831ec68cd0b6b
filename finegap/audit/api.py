"""The trail over HTTP, for leads: searched, filtered, paged, and as a file."""

from __future__ import annotations

import datetime as dt
from typing import Any

from django.db.models import QuerySet
from django.http import StreamingHttpResponse
from django.utils import timezone
from django_filters import CharFilter, ChoiceFilter, DateFilter
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.api.answers import Error, answer
from finegap.api.lists import ListFilter, filtered, list_schema, listed, words
from finegap.api.permissions import IsLead
from finegap.audit import queries
from finegap.audit.models import ACTS, Change
from finegap.audit.responses import TrailLineResponse

NEWEST = 20_000
"""Words are looked for in so many lines, the newest."""

_ASKED = [
    OpenApiParameter("who", OpenApiTypes.STR, description="A user name."),
    OpenApiParameter("about", OpenApiTypes.STR, description="What it belongs to, such as “job 12”."),
    OpenApiParameter("kind", OpenApiTypes.STR, description="What was changed, such as “bench.reading”."),
    OpenApiParameter("act", OpenApiTypes.STR, enum=ACTS),
    OpenApiParameter("since", OpenApiTypes.DATE),
    OpenApiParameter("until", OpenApiTypes.DATE),
]


class ChangeFilter(ListFilter):
    """By who, what it is about, its kind, what was done, and days of the works."""

    who = CharFilter(max_length=150)
    about = CharFilter(max_length=200)
    kind = CharFilter(max_length=80)
    act = ChoiceFilter(choices=[(act, act) for act in ACTS])
    since = DateFilter(method="from_day")
    until = DateFilter(method="to_day")

    def has_words(self, rows: QuerySet[Any], _name: str, value: str) -> QuerySet[Any]:
        """Looked for last of all, below."""
        return rows

    def filter_queryset(self, queryset: QuerySet[Any]) -> QuerySet[Any]:
        """Words are looked for in the newest of what the rest finds: the trail has millions of lines in time."""
        rows: QuerySet[Any] = super().filter_queryset(queryset)
        value = self.form.cleaned_data["q"]
        if not value:
            return rows
        oldest = rows.order_by("-pk").values_list("pk", flat=True)[NEWEST - 1 : NEWEST]
        return rows.filter(pk__gte=next(iter(oldest), 0)).filter(words(value, ("about", "who", "kind", "was", "now")))

    def from_day(self, rows: QuerySet[Any], _name: str, day: dt.date) -> QuerySet[Any]:
        """From its first moment."""
        return rows.filter(at__gte=_begins(day))

    def to_day(self, rows: QuerySet[Any], _name: str, day: dt.date) -> QuerySet[Any]:
        """To its last."""
        return rows.filter(at__lt=_begins(day + dt.timedelta(days=1))) if day < dt.date.max else rows

    class Meta:
        model = Change
        fields: tuple[str, ...] = ()


def _begins(day: dt.date) -> dt.datetime:
    return timezone.make_aware(dt.datetime.combine(day, dt.time()))


class Changes(APIView):
    """The trail."""

    permission_classes = [IsLead]

    @list_schema("changes", TrailLineResponse, *_ASKED)
    def get(self, request: Request) -> Response:
        """A page of it, the newest first."""
        return answer(listed(ChangeFilter, request, queries.trail(), queries.lines))


class ChangesFile(APIView):
    """The trail as a file."""

    permission_classes = [IsLead]

    @extend_schema(parameters=_ASKED, responses={(200, "text/csv"): OpenApiTypes.STR, 403: Error, 422: Error})
    def get(self, request: Request) -> StreamingHttpResponse:
        """As CSV, what the same questions find."""
        rows = filtered(ChangeFilter, request, queries.trail())
        day = timezone.localdate()
        head = {"Content-Disposition": f'attachment; filename="changes-{day:%Y-%m-%d}.csv"'}
        return StreamingHttpResponse(queries.as_csv(rows), content_type="text/csv; charset=utf-8", headers=head)
