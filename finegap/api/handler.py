"""One mapping from what can go wrong to HTTP, one shape to show it."""

from __future__ import annotations

from typing import Any

from rest_framework import exceptions
from rest_framework.response import Response
from rest_framework.views import exception_handler

from finegap.api.errors import Conflict, Locked, OtherPerson, ReadOnly, Refused
from finegap.api.shape import body
from finegap.core.errors import Ambiguous, FieldError, Unlikely

_CODES: tuple[tuple[type[FieldError], str], ...] = ((Unlikely, "unlikely"), (Ambiguous, "ambiguous"))


def handle(error: Exception, context: dict[str, Any]) -> Response | None:
    """DRF's exception handler: domain errors first, then DRF's own in the same shape."""
    match error:
        case FieldError():
            suggestions = [{"typed": s.typed, "meaning": s.meaning} for s in error.suggestions]
            code = next((name for kind, name in _CODES if isinstance(error, kind)), "field")
            wanted = isinstance(error, Unlikely) and error.reason_wanted
            told = body(code, error.problem, field=error.field, hint=error.hint, suggestions=suggestions, reason_wanted=wanted)
            return Response(told, status=422)
        case Conflict():
            return Response(body("conflict", str(error), reasons=error.changes), status=409)
        case OtherPerson():
            return Response(body("person", str(error), reasons=["Load this page anew before you go on."]), status=409)
        case ReadOnly():
            return Response(body("signed", str(error)), status=409)
        case Locked():
            return Response(body("locked", str(error), reasons=error.reasons), status=429)
        case Refused():
            return Response(body("refused", str(error), reasons=error.reasons), status=409)
        case exceptions.ValidationError():
            field, problem = _first_problem(error.detail)
            return Response(body("field", problem, field=field), status=422)
    response = exception_handler(error, context)
    if response is not None:
        code = {401: "signed-out", 403: "not-allowed", 404: "not-found"}.get(response.status_code, "bad-request")
        response.data = body(code, str(response.data.get("detail", "")) if isinstance(response.data, dict) else str(response.data))
    return response


def _first_problem(detail: Any) -> tuple[str, str]:
    """The first field and message of DRF's nested validation errors."""
    path: list[str] = []
    while isinstance(detail, dict | list) and detail:
        if isinstance(detail, dict):
            key, detail = next(iter(detail.items()))
            path.append(str(key))
        else:
            detail = detail[0]
    return ".".join(p for p in path if p != "non_field_errors"), str(detail)
