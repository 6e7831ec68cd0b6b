"""What a link leads to, for whoever has it: read-only, no account, nothing else of the works."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.shortcuts import render
from django.utils import timezone
from django.views.decorators.http import require_safe

from finegap.api.address import client_address
from finegap.api.plain import plain
from finegap.bench.files import printed
from finegap.bench.queries import job_view
from finegap.core.formatting import Units
from finegap.due.queries import as_entries, lines
from finegap.due.services import catch_up
from finegap.formats.calendar import as_ics
from finegap.formats.summary import summary_of
from finegap.sharing import queries
from finegap.sharing.models import Link, LinkTo
from finegap.sharing.services import note_use
from finegap.works.queries import works_settings

_FETCH_HOURS = 6


@require_safe
def summary(request: HttpRequest, secret: str) -> HttpResponseBase:
    """A signed job in plain words."""
    link = queries.link_by(secret, LinkTo.REPORT)
    if link is None or not link.is_open() or link.job is None:
        return _nothing(request, link)
    units = _units(request)
    view = job_view(link.job.number)
    record: dict[str, Any] = plain(view, units)
    note_use(link, client_address(request), "summary")
    shown = {
        "link": link,
        "secret": secret,
        "told": summary_of(record),
        "record": record,
        "unit": units.value,
        "works": works_settings(),
    }
    return _private(render(request, "sharing/summary.html", shown))


@require_safe
def report(request: HttpRequest, secret: str) -> HttpResponseBase:
    """Its report: the record as it was signed, its photographs, its amendments. No page of a manual is in it."""
    link = queries.link_by(secret, LinkTo.REPORT)
    if link is None or not link.is_open() or link.job is None:
        return _nothing(request, link)
    body = printed(link.job.number, _units(request))
    note_use(link, client_address(request), "report")
    response = HttpResponse(body, content_type="application/pdf")
    response["Content-Disposition"] = f'inline; filename="job-{link.job.number}.pdf"'
    return _private(response)


@require_safe
def calendar(request: HttpRequest, secret: str) -> HttpResponseBase:
    """What falls due, as a calendar program fetches it."""
    link = queries.link_by(secret, LinkTo.CALENDAR)
    if link is None or not link.is_open():
        return _nothing(request, link)
    catch_up()
    rows = lines()
    if link.pump is not None:
        rows = rows.filter(pump=link.pump)
    elif link.place:
        rows = rows.filter(pump__location=link.place)
    name = f"Due: {link.pump.tag if link.pump else link.place or works_settings().name or 'all pumps'}"
    body = as_ics(as_entries(rows), timezone.localtime(), name, _FETCH_HOURS)
    note_use(link, client_address(request), "calendar")
    return _private(HttpResponse(body, content_type="text/calendar; charset=utf-8"))


def _units(request: HttpRequest) -> Units:
    return Units.IN if request.GET.get("unit") == "in" else Units.MM


def _nothing(request: HttpRequest, link: Link | None) -> HttpResponseBase:
    """Why there is nothing: whoever had the secret of a link may know that it ended, and nobody else anything."""
    why = "unknown" if link is None else "revoked" if link.revoked_at else "ended"
    shown = {"why": why, "link": link, "works": works_settings()}
    return _private(render(request, "sharing/nothing.html", shown, status=404 if link is None else 410))


def _private(response: HttpResponse) -> HttpResponse:
    """It is not indexed, and its address goes to no other page."""
    response["X-Robots-Tag"] = "noindex, nofollow"
    response["Referrer-Policy"] = "no-referrer"
    return response
