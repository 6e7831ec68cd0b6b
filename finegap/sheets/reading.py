"""Reading a revision against the manual, line by line, by somebody who did not type it."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from finegap.api.errors import Refused
from finegap.api.roles import ROLES
from finegap.core.errors import FieldError
from finegap.core.typed_sheet.printed import Line
from finegap.sheets import drafts
from finegap.sheets.changes import ReadLine
from finegap.sheets.models import LineRead, SheetRevision


def is_alone(person: User) -> bool:
    """Whether there is nobody else in the works who could read."""
    return not User.objects.filter(is_active=True, groups__name__in=ROLES).exclude(pk=person.pk).exists()


def why_not(revision: SheetRevision, line: Line, person: User, alone: bool) -> str:
    """Why somebody cannot read a line now; empty where they can."""
    by, at = drafts.typed_by(revision, line)
    if person.pk not in by:
        return ""
    if not alone:
        return "You typed it: somebody else reads it."
    if timezone.now() - at < drafts.ALONE:
        return "You typed it less than 10 minutes ago."
    return ""


def read_line(actor: User, slug: str, revision: str, new: ReadLine) -> SheetRevision:
    """Record that a line was held against the manual. With the last of them the revision is read.

    Raises
    ------
    FieldError
        No such revision or line; it says something else by now; it differs and nobody says how.
    Refused
        The revision is read already, or this person typed the line.
    """
    with transaction.atomic():
        kept = SheetRevision.objects.filter(sheet__slug=slug, revision=revision).select_related("sheet").first()
        if kept is None:
            raise FieldError("revision", "there is no such revision.", "Expected one from Sheets.")
        if kept.may_be_signed_on:
            raise Refused("This revision was read against the manual. A correction of it is a revision of its own.")
        lines = drafts.lines_of(kept)
        line = next((one for one in lines if one.path == new.path), None)
        if line is None or drafts.said_of(line) != new.said:
            raise FieldError(new.path, "it says something else by now.", "Expected it read again.")
        if not new.agrees and not new.note.strip():
            raise FieldError("note", "say what the manual prints.", "Expected a few words.")
        why = why_not(kept, line, actor, is_alone(actor))
        if why:
            raise Refused(why)
        LineRead.objects.update_or_create(
            revision=kept,
            path=line.path,
            defaults={
                "said": new.said,
                "agrees": new.agrees,
                "note": "" if new.agrees else new.note.strip(),
                "by": actor,
                "at": timezone.now(),
            },
        )
        finish_if_read(kept, lines)
        return kept


def standing(kept: SheetRevision, lines: tuple[Line, ...]) -> dict[str, LineRead]:
    """The readings that count: of lines that still say what they said."""
    said = {line.path: drafts.said_of(line) for line in lines}
    rows = kept.lines_read.select_related("by")
    return {row.path: row for row in rows if said.get(row.path) == row.said}


def finish_if_read(kept: SheetRevision, lines: tuple[Line, ...]) -> None:
    """A revision whose last line has been read is read."""
    rows = standing(kept, lines)
    if kept.read_at or len(rows) < len(lines) or not all(row.agrees for row in rows.values()):
        return
    readers = dict.fromkeys(row.by for row in rows.values())
    kept.read_at = timezone.now()
    kept.read_names = ", ".join(one.get_full_name() or one.username for one in readers)[:400]
    kept.read_alone = any(rows[line.path].by_id in drafts.typed_by(kept, line)[0] for line in lines)
    kept.save(update_fields=["read_at", "read_names", "read_alone"])
