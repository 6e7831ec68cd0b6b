"""The roles of people: Django groups."""

from __future__ import annotations

from django.contrib.auth.models import AbstractBaseUser, AnonymousUser, User

TECHNICIAN, LEAD = "technician", "lead"
ROLES = (TECHNICIAN, LEAD)
"""Django groups. A lead may do all a technician may."""


def role_of(user: AbstractBaseUser | AnonymousUser | None) -> str | None:
    """The highest role of a user, or ``None``."""
    if not isinstance(user, User):
        return None
    groups = set(user.groups.values_list("name", flat=True))
    return next((role for role in (LEAD, TECHNICIAN) if role in groups), None)
