"""Who may do what, and what a page may load."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from django.conf import settings
from django.contrib.auth.models import AbstractBaseUser, AnonymousUser, User
from django.http import HttpRequest, HttpResponse, JsonResponse
from rest_framework.authentication import SessionAuthentication
from rest_framework.permissions import BasePermission
from rest_framework.request import Request

if TYPE_CHECKING:
    from rest_framework.views import APIView

TECHNICIAN, LEAD = "technician", "lead"
ROLES = (TECHNICIAN, LEAD)
"""Django groups. A lead may do all a technician may."""


def role_of(user: AbstractBaseUser | AnonymousUser | None) -> str | None:
    """The highest role of a user, or ``None``."""
    if not isinstance(user, User):
        return None
    groups = set(user.groups.values_list("name", flat=True))
    return next((role for role in (LEAD, TECHNICIAN) if role in groups), None)


class Session(SessionAuthentication):
    """Django's session; answers 401 rather than 403 to a stranger, so that the bench can ask to sign in again."""

    def authenticate_header(self, request: Request) -> str:
        """Any value turns the answer into a 401."""
        return "Session"


class IsTechnician(BasePermission):
    """Technicians and leads."""

    def has_permission(self, request: Request, view: APIView) -> bool:
        """Whether the user has any role."""
        return role_of(request.user) in ROLES


class LeadWrites(IsTechnician):
    """Everybody with a role reads, leads write."""

    message = "This needs a lead."

    def has_permission(self, request: Request, view: APIView) -> bool:
        """Reading for either role, writing for leads."""
        allowed = (LEAD,) if request.method not in ("GET", "HEAD", "OPTIONS") else ROLES
        return role_of(request.user) in allowed


class BodyLimit:
    """Refuse a body beyond all measure before any of it is read."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer 413 in the shape every error has, or go on."""
        photo = request.path.endswith("/photos") and request.content_type == "multipart/form-data"
        most = settings.LARGEST_PHOTO_BODY if photo else settings.DATA_UPLOAD_MAX_MEMORY_SIZE
        if int(request.META.get("CONTENT_LENGTH") or 0) > most:
            from finegap.site.errors import body

            return JsonResponse(body("bad-request", "That is too large to be taken."), status=413)
        return self.get_response(request)


class ContentSecurityPolicy:
    """Tell the browser to ask nothing of any other host."""

    POLICY = (
        "default-src 'self'; img-src 'self' data: blob:; style-src 'self' 'unsafe-inline'; font-src 'self' data:; "
        "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
    )

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Set the policy on the answer."""
        response = self.get_response(request)
        if not settings.DEBUG:
            response["Content-Security-Policy"] = self.POLICY
        return response
