"""Who may ask for what."""

from __future__ import annotations

from typing import TYPE_CHECKING

from rest_framework.authentication import SessionAuthentication
from rest_framework.permissions import BasePermission
from rest_framework.request import Request

from finegap.api.roles import LEAD, ROLES, role_of

if TYPE_CHECKING:
    from rest_framework.views import APIView


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


class IsLead(IsTechnician):
    """Leads alone, for reading, too."""

    message = "This needs a lead."

    def has_permission(self, request: Request, view: APIView) -> bool:
        """Whether the user is one."""
        return role_of(request.user) == LEAD
