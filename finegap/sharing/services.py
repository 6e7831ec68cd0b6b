"""Making links, taking them back, and noting what is fetched by them."""

from __future__ import annotations

import datetime as dt
import secrets

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from finegap.api.errors import Refused
from finegap.api.roles import LEAD, role_of
from finegap.bench.models import SIGNED, Job
from finegap.core.errors import FieldError
from finegap.pumps.models import Pump
from finegap.sharing.changes import ShareCalendar, ShareReport
from finegap.sharing.models import Link, LinkTo, LinkUse, digest_of

_LONGEST_DAYS = 366
_MOST_OPEN = 200
"""Links of one kind that may be open at once (no source)."""
_USES_KEPT = 200
_SECRET_BYTES = 32
"""256 bits: nobody guesses one."""


def share_report(actor: User, number: int, new: ShareReport) -> tuple[Link, str]:
    """Make a link to the report of a signed job.

    Returns
    -------
    tuple of Link and str
        The link, and its secret, which is kept nowhere.

    Raises
    ------
    FieldError
        No such job, nobody it is for, a day that is none, past, or more than a year off.
    Refused
        The job is not signed, or too many links are open.
    """
    with transaction.atomic():
        job = Job.objects.filter(number=number).first()
        if job is None:
            raise FieldError("job", f"there is no job {number}.", "Expected one from the bench.")
        if job.ended != SIGNED:
            raise Refused(f"Job {number} is not signed.", ["What goes out is a signed record, and nothing else."])
        return _made(actor, Link(id=new.id, to=LinkTo.REPORT, job=job, whom=_whom(new.whom), until=_until(new.until)))


def share_calendar(actor: User, new: ShareCalendar) -> tuple[Link, str]:
    """Make a secret address under which a calendar program fetches what falls due.

    Raises
    ------
    FieldError
        Nobody it is for, no such pump or place, or both of them.
    Refused
        Too many links are open.
    """
    with transaction.atomic():
        pump = Pump.objects.filter(tag=new.pump).first() if new.pump else None
        if new.pump and pump is None:
            raise FieldError("pump", f"there is no pump {new.pump}.", "Expected a tag from Fleet, or nothing.")
        if new.place and (pump or not Pump.objects.filter(location=new.place).exists()):
            raise FieldError("place", f"no pump is at “{new.place}”.", "Expected a place of the fleet, or nothing; not both.")
        return _made(actor, Link(id=new.id, to=LinkTo.CALENDAR, pump=pump, place=new.place, whom=_whom(new.whom)))


def revoke(actor: User, pk: str) -> Link:
    """Take a link back: from now on it leads nowhere. Whoever made it, or a lead.

    Raises
    ------
    FieldError
        There is no such link.
    Refused
        It is somebody else's.
    """
    with transaction.atomic():
        link = Link.objects.select_related("job", "pump", "by", "revoked_by").filter(pk=pk).first()
        if link is None:
            raise FieldError("link", "it is not there.", "Expected one of the list.")
        if link.by_id != actor.pk and role_of(actor) != LEAD:
            raise Refused("That link is somebody else's.", ["Its maker takes it back, or a lead."])
        if link.revoked_at is None:
            link.revoked_by, link.revoked_at = actor, timezone.now()
            link.save(update_fields=["revoked_by", "revoked_at"])
    return link


def note_use(link: Link, address: str, what: str) -> None:
    """Note that something was fetched; the oldest notes of a link are let go."""
    with transaction.atomic():
        LinkUse.objects.create(link=link, at=timezone.now(), address=address[:64], what=what)
        old = list(
            LinkUse.objects.filter(link=link).order_by("-at", "-pk").values_list("pk", flat=True)[_USES_KEPT : _USES_KEPT + 50]
        )
        if old:
            LinkUse.objects.filter(pk__in=old).delete()


def _made(actor: User, link: Link) -> tuple[Link, str]:
    if Link.objects.filter(pk=link.pk).exists():
        raise FieldError("link", "it was made already, and its address is shown once.", "Expected a new one; take that one back.")
    if Link.objects.filter(to=link.to, revoked_at=None).exclude(until__lt=timezone.localdate()).count() >= _MOST_OPEN:
        raise Refused(f"{_MOST_OPEN} links are open already.", ["Take back those nobody needs."])
    secret = secrets.token_urlsafe(_SECRET_BYTES)
    link.digest, link.by, link.at = digest_of(secret), actor, timezone.now()
    link.save(force_insert=True)
    return link, secret


def _whom(text: str) -> str:
    if not text.strip():
        raise FieldError("for", "it is for nobody.", "Expected who gets it: a name, a firm.")
    return text.strip()


def _until(typed: str) -> dt.date:
    try:
        day = dt.date.fromisoformat(typed.strip())
    except ValueError:
        raise FieldError(
            "until", f"“{typed}” is not a day." if typed.strip() else "no day is given.", "Expected it as 2026-03-31."
        ) from None
    today = timezone.localdate()
    if not today <= day <= today + dt.timedelta(days=_LONGEST_DAYS):
        raise FieldError("until", "that is past, or more than a year off.", "Expected a day within a year from now.")
    return day
