"""Adding spec sheets: a revision is kept whole, and never edited."""

from __future__ import annotations

import datetime as dt
from dataclasses import asdict

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from finegap.api.errors import Conflict
from finegap.core.errors import FieldError
from finegap.core.families import FAMILIES
from finegap.core.measuring.verdict import School
from finegap.core.procedure import read_conventions, read_steps
from finegap.core.sheet import SpecSheet
from finegap.formats.sheet_file import SheetUsual, parse_file
from finegap.sheets.changes import KeepProcedure, SheetFile
from finegap.sheets.models import Sheet, SheetRevision, ShopProcedure
from finegap.works.queries import works_settings


def add_revision(actor: User, new: SheetFile) -> SheetRevision:
    """Read a sheet file and keep it as a new revision. Jobs already open stay with the revision they began with.

    Raises
    ------
    FieldError
        Anything wrong with the file; or a revision that is there already with other contents.
    """
    content, sheet = parse_file(new.text, usual_now())
    check_counts(sheet)
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
        return SheetRevision.objects.create(
            sheet=line,
            revision=sheet.revision,
            date=dt.date.fromisoformat(sheet.date),
            content=content,
            added_by=actor,
            added_at=timezone.now(),
            typed={"": {"by": [actor.pk], "at": timezone.now().isoformat()}},
        )


def usual_now() -> SheetUsual:
    """What this works takes where a sheet does not say."""
    kept = works_settings()
    return SheetUsual(School(kept.school), kept.currency)


def check_counts(sheet: SpecSheet) -> None:
    """A new sheet says how many there are of what it prints a size of; one kept before was read with the usual number."""
    for feature in sheet.family.features:
        count = feature.counted
        if count is None or count.detail not in sheet.family.details or feature.key not in sheet.features:
            continue
        if not sheet.details.get(count.detail):
            problem = f"it prints {feature.name.lower()}, and not how many there are."
            raise FieldError(f"details.{count.detail}", problem, f"Expected the {sheet.family.details[count.detail]}.")


def keep_procedure(actor: User, family_key: str, new: KeepProcedure) -> ShopProcedure:
    """Keep a shop's version of a family's procedure; jobs already open stay with the one they began with.

    Raises
    ------
    FieldError
        No such family, a step left out, without words or out of place, or somebody else has saved a version since its ``version``.
    """
    family = FAMILIES.get(family_key)
    if family is None:
        raise FieldError("family", f"there is no family {family_key}.", f"Expected one of: {', '.join(FAMILIES)}.")
    read = read_steps([asdict(step) for step in new.steps], family)
    conventions = read_conventions(new.conventions, family)
    with transaction.atomic():
        last = ShopProcedure.objects.filter(family=family_key).first()
        if (last.version if last else 0) != new.version:
            by = f"{last.by.get_full_name() or last.by.username}: version {last.version}" if last else ""
            raise Conflict([by])
        return ShopProcedure.objects.create(
            family=family_key,
            version=new.version + 1,
            steps=[asdict(s) for s in read],
            conventions=conventions,
            by=actor,
            at=timezone.now(),
        )
