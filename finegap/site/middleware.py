"""What is done with every request."""

from __future__ import annotations

from collections.abc import Callable

from django.conf import settings
from django.contrib.auth import SESSION_KEY
from django.http import HttpRequest, HttpResponse, HttpResponseBase, JsonResponse
from django.middleware.gzip import GZipMiddleware
from django.utils import timezone

from finegap.api.address import is_trusted
from finegap.api.shape import body
from finegap.audit.who import acting
from finegap.formats.days import DateForm, use
from finegap.works.queries import works_settings, zone_of

_OF_HOPS = ("HTTP_X_FORWARDED_FOR", "HTTP_X_FORWARDED_PROTO", "HTTP_X_FORWARDED_HOST", "HTTP_FORWARDED")
_SEEN = "seen"
_DAY_S = 86_400


class TrustedHops:
    """Drop what a request says of its way here, unless a proxy before this server said it."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Without the headers anybody could write."""
        if not is_trusted(str(request.META.get("REMOTE_ADDR") or "")):
            for name in _OF_HOPS:
                request.META.pop(name, None)
        return self.get_response(request)


class KeptNowhere:
    """No answer lies about in a browser or a proxy, unless it says itself that it may."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """With a ``Cache-Control``, whatever it is an answer to."""
        response = self.get_response(request)
        response.headers.setdefault("Cache-Control", "private, no-store")
        return response


class BodyLimit:
    """Refuse a body beyond all measure before any of it is read."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer 413 in the shape every error has, or go on."""
        photo = request.path.endswith(("/photos", "/pages", "/documents")) and request.content_type == "multipart/form-data"
        most = settings.LARGEST_PHOTO_BODY if photo else settings.DATA_UPLOAD_MAX_MEMORY_SIZE
        length = str(request.META.get("CONTENT_LENGTH") or 0)
        if not length.isascii() or not length.isdigit():
            return JsonResponse(body("bad-request", "The length of the request is no number."), status=400)
        if int(length) > most:
            return JsonResponse(body("bad-request", "That is too large to be taken."), status=413)
        return self.get_response(request)


class AsWhoAsks:
    """What is changed while a request is answered was changed by who is signed in with it."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """For the trail of changes."""
        with acting(request):
            return self.get_response(request)


class AsTheWorks:
    """Days and moments of a request are those of the works, and who is at work stays signed in."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """With its time zone and form of days; a session in use runs on, by one write a day."""
        kept = works_settings()
        use(DateForm(kept.date_form))
        with timezone.override(zone_of(kept)):
            today = timezone.localdate().isoformat()
            if request.session.get(SESSION_KEY) and request.session.get(_SEEN) != today:
                request.session[_SEEN] = today
                request.session.set_expiry(kept.idle_days * _DAY_S)
            return self.get_response(request)


class CompressedJson(GZipMiddleware):
    """Compresses answers of JSON: a job's is a sixth of its size. Pictures and PDFs are compressed in themselves."""

    def process_response(self, request: HttpRequest, response: HttpResponseBase) -> HttpResponseBase:
        """Leave what is no JSON as it is."""
        if response.get("Content-Type", "").partition(";")[0] != "application/json":
            return response
        return super().process_response(request, response)
