"""Django's pages for errors: the one shape under ``/api``, a page elsewhere; no traceback on either."""

from __future__ import annotations

import sys

from django.http import HttpRequest, HttpResponse, JsonResponse

from finegap.site.faults import Fault, as_answer, fault_of, shown


def answered(request: HttpRequest, fault: Fault) -> HttpResponse:
    """The one shape of errors under ``/api``, a page elsewhere."""
    if request.path.startswith("/api/"):
        return JsonResponse(as_answer(fault), status=fault.status)
    return HttpResponse(shown(fault), status=fault.status)


def fault(request: HttpRequest) -> HttpResponse:
    """Django's ``handler500``: called while the error is handled."""
    return answered(request, fault_of(sys.exc_info()[1]))


_NOT_FOUND = Fault("not-found", 404, "There is nothing at this address.", "Nothing was changed.", "Go on from the bench.")
_NOT_ALLOWED = Fault("not-allowed", 403, "This is not for you.", "Nothing was changed.", "Ask a lead, or go on from the bench.")
_BAD = Fault("bad-request", 400, "That was not a request this server knows.", "Nothing was changed.", "Go on from the bench.")
_FORGED = Fault(
    "not-allowed", 403, "This page is from before you signed in, or its cookie is gone.", "Nothing was changed.",
    "Load the page anew, and try again.",
)  # fmt: skip


def not_found(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    """Django's ``handler404``."""
    return answered(request, _NOT_FOUND)


def not_allowed(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    """Django's ``handler403``."""
    return answered(request, _NOT_ALLOWED)


def bad_request(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    """Django's ``handler400``."""
    return answered(request, _BAD)


def forged(request: HttpRequest, reason: str = "") -> HttpResponse:
    """Django's ``CSRF_FAILURE_VIEW``."""
    return answered(request, _FORGED)
