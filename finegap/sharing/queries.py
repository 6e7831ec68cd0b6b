"""Reading links."""

from __future__ import annotations

from collections.abc import Iterable

from django.contrib.auth.models import User
from django.db.models import Count, Max, QuerySet

from finegap.api.roles import LEAD, role_of
from finegap.bench.records import name_of
from finegap.sharing.models import Link, LinkTo, LinkUse, digest_of
from finegap.sharing.responses import LinkResponse, LinkUseResponse

_USES = 50


def links() -> QuerySet[Link]:
    """All of them, the newest first, with how often each was used."""
    rows = Link.objects.select_related("job", "pump", "by", "revoked_by")
    return rows.annotate(used=Count("uses"), last=Max("uses__at"))


def link_lines(rows: Iterable[Link], reader: User) -> list[LinkResponse]:
    """Links as a list says them."""
    lead = role_of(reader) == LEAD
    return [
        LinkResponse(
            id=one.id,
            to=one.to,
            of=_of(one),
            job=one.job.number if one.job else None,
            whom=one.whom,
            until=one.until,
            by=name_of(one.by),
            at=one.at,
            state="revoked" if one.revoked_at else "open" if one.is_open() else "ended",
            revoked_by=name_of(one.revoked_by) if one.revoked_by else "",
            revoked_at=one.revoked_at,
            uses=getattr(one, "used", 0),
            last_used=getattr(one, "last", None),
            may_revoke=one.is_open() and (lead or one.by_id == reader.pk),
        )
        for one in rows
    ]


def uses_of(pk: str) -> list[LinkUseResponse] | None:
    """What was fetched by a link, the newest first; ``None`` where there is no such link."""
    link = Link.objects.filter(pk=pk).first()
    if link is None:
        return None
    return [LinkUseResponse(one.at, one.address, one.what) for one in LinkUse.objects.filter(link=link)[:_USES]]


def link_by(secret: str, to: LinkTo) -> Link | None:
    """The link with a secret, open or not; ``None`` where there never was one."""
    rows = Link.objects.select_related("job__pump", "pump")
    return rows.filter(digest=digest_of(secret), to=to).first() if secret.isascii() and len(secret) < 100 else None


def _of(one: Link) -> str:
    if one.job is not None:
        return f"report of job {one.job.number}"
    if one.pump is not None:
        return f"what falls due of {one.pump.tag}"
    return f"what falls due at {one.place}" if one.place else "what falls due"
