"""Days on the pages that links lead to, in the works' own form."""

from __future__ import annotations

import datetime as dt

from django import template
from django.utils import timezone

from finegap.formats.days import written as in_form

register = template.Library()


@register.filter
def written(day: dt.date) -> str:
    """A day, or the day of a moment where the works is."""
    return in_form(timezone.localdate(day) if isinstance(day, dt.datetime) else day)
