"""What is done with every request."""

from __future__ import annotations

from collections.abc import Callable

from django.conf import settings
from django.http import HttpRequest, HttpResponse, HttpResponseBase, JsonResponse
from django.middleware.gzip import GZipMiddleware

from finegap.api.handler import body


class BodyLimit:
    """Refuse a body beyond all measure before any of it is read."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer 413 in the shape every error has, or go on."""
        photo = request.path.endswith("/photos") and request.content_type == "multipart/form-data"
        most = settings.LARGEST_PHOTO_BODY if photo else settings.DATA_UPLOAD_MAX_MEMORY_SIZE
        if int(request.META.get("CONTENT_LENGTH") or 0) > most:
            return JsonResponse(body("bad-request", "That is too large to be taken."), status=413)
        return self.get_response(request)


class CompressedJson(GZipMiddleware):
    """Compresses answers of JSON: a job's is a sixth of its size. Pictures and PDFs are compressed in themselves."""

    def process_response(self, request: HttpRequest, response: HttpResponseBase) -> HttpResponseBase:
        """Leave what is no JSON as it is."""
        if response.get("Content-Type", "").partition(";")[0] != "application/json":
            return response
        return super().process_response(request, response)
