"""Sheets that are typed, read against the manual and compared, over HTTP."""

from __future__ import annotations

import uuid

from django.http import Http404, HttpResponse
from django_filters import CharFilter
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework.parsers import MultiPartParser
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from finegap.api.answers import Error, answer, response_serializer
from finegap.api.lists import ListFilter, list_schema, listed
from finegap.api.permissions import LeadWrites
from finegap.api.requests import UNIT, Entered, actor_of, checked, entered, request_serializer, units_of
from finegap.api.screens import SCREEN, screen_of
from finegap.core.formatting import Units
from finegap.formats.tables import MOST_BYTES
from finegap.sheets import changes, draft_queries, drafting, pages, queries, reading
from finegap.sheets import draft_responses as responses
from finegap.sheets.drawn import DrawingResponse
from finegap.sheets.models import SheetDraft, SheetRevision

BeginDraft, SaveDraft, ReadLine = (
    request_serializer(one, Entered) for one in (changes.BeginDraft, changes.SaveDraft, changes.ReadLine)
)
PasteRows, RowsOfFile, AttachPage, DraftSeen = (
    request_serializer(one) for one in (changes.PasteRows, changes.RowsOfFile, changes.AttachPage, changes.DraftSeen)
)
DraftPageAnswer, DraftStateAnswer, PastedAnswer, ReadingAnswer, ComparisonAnswer, KeptAnswer, FamilyAnswer = (
    response_serializer(one)
    for one in (
        responses.DraftPage,
        responses.DraftState,
        responses.PastedResponse,
        responses.ReadingPage,
        responses.ComparisonResponse,
        responses.KeptResponse,
        responses.FamilyResponse,
    )
)
DrawnAnswer = response_serializer(DrawingResponse)


_PAGE_POLICY = "default-src 'none'; object-src 'self'; style-src 'unsafe-inline'; frame-ancestors 'self'"
"""A PDF from anywhere runs nothing here, and is framed by nobody else."""


class Families(APIView):
    """The families a sheet can be of."""

    @extend_schema(responses=FamilyAnswer(many=True))
    def get(self, request: Request) -> Response:
        """By name."""
        return answer(draft_queries.families())


class DraftFilter(ListFilter):
    """Words of its title."""

    searched = ("title",)
    purpose = CharFilter(max_length=12)


class Drafts(APIView):
    """Sheets that are being typed; a lead begins them."""

    permission_classes = [LeadWrites]

    @list_schema("drafts", responses.DraftLine)
    def get(self, request: Request) -> Response:
        """A page of them, the last saved first."""
        rows = SheetDraft.objects.select_related("base__sheet", "by").order_by("-saved_at")
        return answer(listed(DraftFilter, request, rows, draft_queries.draft_lines))

    @extend_schema(request=BeginDraft, responses={201: DraftPageAnswer, 403: Error, 422: Error})
    def post(self, request: Request) -> Response:
        """Begin one: from nothing, or from a revision."""
        entry, data = entered(BeginDraft, request)
        draft = drafting.begin(actor_of(request), changes.BeginDraft(**data), entry)
        return answer(draft_queries.draft_page(draft), 201, Units(draft.content["system"]))


class Draft(APIView):
    """One sheet that is being typed."""

    permission_classes = [LeadWrites]

    @extend_schema(responses={200: DraftPageAnswer, 404: Error})
    def get(self, request: Request, pk: int) -> Response:
        """All of it."""
        draft = _draft(pk)
        return answer(draft_queries.draft_page(draft), units=Units(draft.content["system"]))

    @extend_schema(request=SaveDraft, responses={200: DraftStateAnswer, 403: Error, 409: Error, 422: Error})
    def put(self, request: Request, pk: int) -> Response:
        """Keep what was typed."""
        _, data = entered(SaveDraft, request)
        draft = drafting.save(actor_of(request), pk, changes.SaveDraft(**data))
        return answer(draft_queries.draft_state(draft), units=Units(draft.content["system"]))

    @extend_schema(responses={204: None, 403: Error, 422: Error})
    def delete(self, request: Request, pk: int) -> Response:
        """Throw it away."""
        drafting.drop(pk)
        return Response(status=204)


class DraftKept(APIView):
    """A draft becomes a revision; a lead keeps it."""

    permission_classes = [LeadWrites]

    @extend_schema(request=DraftSeen, responses={201: KeptAnswer, 403: Error, 409: Error, 422: Error})
    def post(self, request: Request, pk: int) -> Response:
        """Whole, or not at all."""
        kept = drafting.finish(actor_of(request), pk, changes.DraftSeen(**checked(DraftSeen, request)))
        return answer(responses.KeptResponse(kept.sheet.slug, kept.revision), 201)


class DraftApart(APIView):
    """A table of several sizes."""

    permission_classes = [LeadWrites]

    @extend_schema(request=DraftSeen, responses={201: DraftPageAnswer, 403: Error, 409: Error, 422: Error})
    def post(self, request: Request, pk: int) -> Response:
        """A draft of its own for each other size."""
        drafting.apart(actor_of(request), pk, changes.DraftSeen(**checked(DraftSeen, request)))
        draft = _draft(pk)
        return answer(draft_queries.draft_page(draft), 201, Units(draft.content["system"]))


class DraftPasted(APIView):
    """A table that is pasted."""

    permission_classes = [LeadWrites]

    @extend_schema(request=PasteRows, responses={200: PastedAnswer, 403: Error, 422: Error})
    def post(self, request: Request, pk: int) -> Response:
        """Where its cells go; nothing is kept by it."""
        new = changes.PasteRows(**checked(PasteRows, request))
        return answer(draft_queries.pasted_rows(drafting.paste(pk, new.table, new.text, new.column)))


class DraftFromFile(APIView):
    """A table from a file."""

    permission_classes = [LeadWrites]
    parser_classes = [MultiPartParser]

    @extend_schema(request=RowsOfFile, responses={200: PastedAnswer, 403: Error, 422: Error})
    def post(self, request: Request, pk: int) -> Response:
        """CSV or XLSX: where its cells go; nothing is kept by it."""
        new = changes.RowsOfFile(**checked(RowsOfFile, request))
        return answer(draft_queries.pasted_rows(drafting.from_file(pk, new.table, new.file.read(MOST_BYTES + 1))))


class DraftDrawing(APIView):
    """The pump of a draft."""

    @extend_schema(parameters=[SCREEN], responses={200: DrawnAnswer, 404: Error, 422: Error})
    def get(self, request: Request, pk: int) -> Response:
        """As far as its sheet is typed."""
        draft = _draft(pk)
        return answer(draft_queries.draft_drawing(draft, screen_of(request)), units=Units(draft.content["system"]))


class DraftPages(APIView):
    """Pages of the manual beside a draft."""

    permission_classes = [LeadWrites]
    parser_classes = [MultiPartParser]

    @extend_schema(request=AttachPage, responses={201: DraftPageAnswer, 403: Error, 422: Error})
    def post(self, request: Request, pk: int) -> Response:
        """Put one there."""
        pages.attach_page(actor_of(request), pk, changes.AttachPage(**checked(AttachPage, request)))
        draft = _draft(pk)
        return answer(draft_queries.draft_page(draft), 201, Units(draft.content["system"]))


class ManualPageFile(APIView):
    """A page of a manual."""

    permission_classes = [LeadWrites]

    @extend_schema(responses={(200, "image/jpeg"): OpenApiTypes.BINARY, (200, "application/pdf"): OpenApiTypes.BINARY, 404: Error})
    def get(self, request: Request, pk: uuid.UUID) -> HttpResponse:
        """The picture, or the PDF."""
        page = draft_queries.page_of_manual(str(pk))
        if page is None:
            raise Http404
        with page.file.open("rb") as file:
            pdf = page.kind == "pdf"
            response = HttpResponse(file.read(), content_type="application/pdf" if pdf else "image/jpeg")
        response["Content-Disposition"] = f'inline; filename="page.{page.kind}"'
        # It stands beside what is typed from it, in our own pages and nobody else's.
        response["X-Frame-Options"] = "SAMEORIGIN"
        response["Content-Security-Policy"] = _PAGE_POLICY
        response["Cache-Control"] = "private, max-age=31536000, immutable"
        return response

    @extend_schema(responses={204: None, 403: Error, 422: Error})
    def delete(self, request: Request, pk: uuid.UUID) -> Response:
        """Take it off a draft."""
        pages.remove_page(str(pk))
        return Response(status=204)


class Reading(APIView):
    """A revision that is read against the manual, by anybody who did not type it."""

    @extend_schema(responses={200: ReadingAnswer, 404: Error})
    def get(self, request: Request, slug: str, revision: str) -> Response:
        """Line by line."""
        return answer(draft_queries.reading_page(_revision(slug, revision), actor_of(request)))

    @extend_schema(request=ReadLine, responses={200: ReadingAnswer, 409: Error, 422: Error})
    def post(self, request: Request, slug: str, revision: str) -> Response:
        """A line was held against the manual."""
        _, data = entered(ReadLine, request)
        kept = reading.read_line(actor_of(request), slug, revision, changes.ReadLine(**data))
        return answer(draft_queries.reading_page(kept, actor_of(request)))


class Comparison(APIView):
    """Two revisions of a sheet."""

    @extend_schema(parameters=[UNIT], responses={200: ComparisonAnswer, 404: Error})
    def get(self, request: Request, slug: str, revision: str, other: str) -> Response:
        """What the later prints otherwise than the other."""
        return answer(draft_queries.comparison(_revision(slug, other), _revision(slug, revision)), units=units_of(request))


def _draft(pk: int) -> SheetDraft:
    draft = draft_queries.draft_of(pk)
    if draft is None:
        raise Http404
    return draft


def _revision(slug: str, revision: str) -> SheetRevision:
    kept = queries.revision_of(slug, None if revision == "latest" else revision)
    if kept is None:
        raise Http404
    return kept
