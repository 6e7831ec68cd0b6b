"""Notes and papers of a pump."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.core.files.base import ContentFile
from django.db import transaction
from django.utils import timezone

from finegap.api.retry import digest
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.formats.pictures import small
from finegap.pumps.changes import AttachDocument, WriteNote
from finegap.pumps.models import PumpDocument, PumpNote
from finegap.pumps.services import is_retry, pump_named

_MOST_NOTES, _MOST_DOCUMENTS = 2000, 60
_LARGEST_BYTES = 15 * 1024 * 1024
_SIDE_PX = 2400
"""A photographed page is still read at that (no source)."""
_EXPECTED = "Expected a photograph (JPEG, PNG, WebP) up to 25 megapixels, or a PDF; up to 15 MB."


def write_note(actor: User, tag: str, new: WriteNote, entry: Entry) -> None:
    """Keep a note on a pump.

    Raises
    ------
    FieldError
        No such pump, nothing written, or too many.
    Conflict
        The same identity with other contents.
    """
    with transaction.atomic():
        pump = pump_named(tag)
        sent = digest((tag, new), actor, entry)
        if is_retry(PumpNote.objects.filter(id=new.id).first(), sent):
            return
        if not new.text.strip():
            raise FieldError("note", "nothing was written.", "Expected what the next one should know.")
        if pump.notes.count() >= _MOST_NOTES:
            raise FieldError("note", f"there are {_MOST_NOTES} already.", "Expected fewer.")
        PumpNote.objects.create(id=new.id, pump=pump, text=new.text.strip(), by=actor, at=timezone.now(), sent=sent)


def attach_document(actor: User, tag: str, new: AttachDocument) -> None:
    """Keep a paper of a pump; the same one again is kept once.

    Raises
    ------
    FieldError
        No such pump, no name, too many, too large, or neither picture nor PDF whatever its name says.
    """
    if (new.file.size or 0) > _LARGEST_BYTES:
        raise FieldError("document", f"it is {(new.file.size or 0) / 1e6:.0f} MB.", _EXPECTED)
    if not new.name.strip():
        raise FieldError("name", "it has none.", "Expected what it is, such as “material certificate, rotor”.")
    pump = pump_named(tag)
    if PumpDocument.objects.filter(pk=new.id).exists():
        return
    if pump.documents.filter(struck_reason="").count() >= _MOST_DOCUMENTS:
        raise FieldError("document", f"there are {_MOST_DOCUMENTS} already.", "Expected the telling ones.")
    data = new.file.read(_LARGEST_BYTES + 1)
    kind = "pdf" if data.startswith(b"%PDF-") else "jpeg"
    if kind == "jpeg":
        data = small(new.file, _SIDE_PX, "document", _EXPECTED)[0]
    with transaction.atomic():
        if PumpDocument.objects.filter(pk=new.id).exists():
            return
        kept = PumpDocument(id=new.id, pump=pump, name=new.name.strip(), kind=kind, size=len(data), by=actor, at=timezone.now())
        kept.file.save(f"{new.id}.{kind}", ContentFile(data), save=False)
        kept.save(force_insert=True)
