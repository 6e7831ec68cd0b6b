"""Pages of the manual: a photograph, made small, or a PDF as it is."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.core.files.base import ContentFile
from django.db import transaction
from django.utils import timezone

from finegap.core.errors import FieldError
from finegap.formats.pictures import small
from finegap.sheets.changes import AttachPage
from finegap.sheets.models import ManualPage, SheetDraft

_LARGEST_BYTES = 15 * 1024 * 1024
_MOST_PAGES = 20
_SIDE_PX = 2400
"""A printed page is still read at that (no source)."""
_EXPECTED = "Expected a photograph (JPEG, PNG, WebP) up to 25 megapixels, or a PDF; up to 15 MB."


def attach_page(actor: User, pk: int, new: AttachPage) -> SheetDraft:
    """Put a page of the manual beside a draft; the same one again is kept once.

    Raises
    ------
    FieldError
        No such draft, too many pages, too large, or neither picture nor PDF whatever its name says.
    """
    if (new.file.size or 0) > _LARGEST_BYTES:
        raise FieldError("page", f"it is {(new.file.size or 0) / 1e6:.0f} MB.", _EXPECTED)
    draft, there = _draft_for(pk, new)
    if there:
        return draft
    data = new.file.read(_LARGEST_BYTES + 1)
    kind = "pdf" if data.startswith(b"%PDF-") else "jpeg"
    if kind == "jpeg":
        data = small(new.file, _SIDE_PX, "page", _EXPECTED)[0]
    with transaction.atomic():
        draft, there = _draft_for(pk, new)  # anew: a picture took its time
        if there:
            return draft
        name = (new.file.name or "page").rpartition("/")[2][:120]
        page = ManualPage(id=new.id, draft=draft, name=name, kind=kind, by=actor, at=timezone.now())
        page.file.save(f"{new.id}.{kind}", ContentFile(data), save=False)
        page.save(force_insert=True)
    return draft


def _draft_for(pk: int, new: AttachPage) -> tuple[SheetDraft, bool]:
    """The draft, which has room for the page, and whether the page is there already."""
    draft = SheetDraft.objects.filter(pk=pk).first()
    if draft is None:
        raise FieldError("draft", "it is not there any more.", "Expected one from Sheets.")
    there = ManualPage.objects.filter(pk=new.id).exists()
    if not there and draft.pages.count() >= _MOST_PAGES:
        raise FieldError("page", f"it has {_MOST_PAGES} already.", "Expected those that are typed from.")
    return draft, there


def remove_page(pk: str) -> None:
    """Take a page off a draft; what is with a revision stays.

    Raises
    ------
    FieldError
        It is not beside a draft.
    """
    with transaction.atomic():
        page = ManualPage.objects.filter(pk=pk, draft__isnull=False).first()
        if page is None:
            raise FieldError("page", "it is not beside a sheet that is being typed.", "Expected one of those.")
        file = page.file
        page.delete()
        transaction.on_commit(lambda: file.delete(save=False))
