"""Adding spec sheets: a revision is kept whole, and never edited."""

from __future__ import annotations

import datetime as dt

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from finegap.core.errors import FieldError
from finegap.core.sheet import GasketMeans
from finegap.exchange.sheet_file import parse_file
from finegap.sheets.models import Sheet, SheetRevision
from finegap.toolbox.models import GasketStock


def add_revision(actor: User, text: str) -> SheetRevision:
    """Read a sheet file and keep it as a new revision. Jobs already open stay with the revision they began with.

    Raises
    ------
    FieldError
        Anything wrong with the file; or a revision that is there already with other contents.
    """
    content, sheet = parse_file(text)
    with transaction.atomic():
        line, _ = Sheet.objects.get_or_create(slug=content["slug"], defaults={"title": sheet.title})
        existing = line.revisions.filter(revision=sheet.revision).first()
        if existing is not None:
            if existing.content == content:
                return existing
            problem = f"revision {sheet.revision} is there already, with other contents."
            raise FieldError("revision", problem, "Expected a new revision for a changed sheet.")
        if line.title != sheet.title:
            line.title = sheet.title
            line.save(update_fields=["title"])
        if isinstance(sheet.means, GasketMeans):
            for thickness in sheet.means.sold_um:
                GasketStock.objects.get_or_create(sheet=line, thickness_um=thickness, defaults={"count": 0})
        return SheetRevision.objects.create(
            sheet=line,
            revision=sheet.revision,
            date=dt.date.fromisoformat(sheet.date),
            content=content,
            added_by=actor,
            added_at=timezone.now(),
        )
