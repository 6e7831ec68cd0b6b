"""Changing what the works decided for itself."""

from __future__ import annotations

import hashlib
import io
from typing import Any

from django.contrib.auth.models import User
from django.core.files.base import ContentFile, File
from django.core.files.storage import default_storage
from django.utils import timezone

from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.formats.days import time_zones
from finegap.formats.pictures import opened
from finegap.works.changes import KeepLogo, KeepSettings
from finegap.works.models import WorksSettings, logo_file

_MOST_DAYS = 3650
_MOST_HOURS = 168
_LARGEST_LOGO = 1024 * 1024
_LOGO_SIDES = (600, 200)


def keep_settings(actor: User, new: KeepSettings, entry: Entry) -> WorksSettings:
    """Keep what the works decided for itself.

    Raises
    ------
    FieldError
        A share that is not between 0 and 100 %, a time zone there is not, no currency, a number of days that cannot be.
    """
    given: dict[str, Any] = {
        name: value
        for name in ("name", "lengths", "date_form", "paper", "school")
        if (value := getattr(new, name)) is not None
    }  # fmt: skip
    if new.decimal_mark is not None:
        given["decimal_mark"] = new.decimal_mark.value
    if new.address is not None:
        given["address"] = "\n".join(line.strip() for line in new.address.splitlines() if line.strip())
    if new.new_share is not None:
        given["new_share"] = entry.number(new.new_share.strip().removesuffix("%"), "share of the wear allowance", 0.1, 100) / 100
    if new.time_zone is not None:
        given["time_zone"] = _zone(new.time_zone)
    if new.currency is not None:
        given["currency"] = _currency(new.currency)
    if new.photo_side is not None:
        given["photo_side"] = int(new.photo_side)
    if new.abandoned_days is not None:
        text = new.abandoned_days.strip()
        given["abandoned_days"] = _days(text, "photographs of abandoned jobs", entry) if text else None
    if new.idle_days is not None:
        given["idle_days"] = _days(new.idle_days, "signed in without use", entry)
    if new.backup_hours is not None:
        given["backup_hours"] = int(entry.number(new.backup_hours, "hours from one backup to the next", 1, _MOST_HOURS, whole=True))
    return WorksSettings.objects.update_or_create(pk=1, defaults=given | {"by": actor, "at": timezone.now()})[0]


def _zone(text: str) -> str:
    if text and text not in time_zones():
        raise FieldError("time zone", f"“{text[:60]}” is none.", "Expected one of the list, such as Europe/Lisbon.")
    return text


def _currency(text: str) -> str:
    name = text.strip()
    if name and not (name.isascii() and name.isalpha()):
        raise FieldError("currency", f"“{name}” is none.", "Expected letters alone, such as EUR.")
    return name


def _days(text: str, name: str, entry: Entry) -> int:
    return int(entry.number(text, name, 1, _MOST_DAYS, whole=True))


def keep_logo(actor: User, new: KeepLogo) -> WorksSettings:
    """Keep the picture on reports, small. That of records signed before stays.

    Raises
    ------
    FieldError
        Too large, or no picture.
    """
    if (new.file.size or 0) > _LARGEST_LOGO:
        raise FieldError("logo", "it is larger than 1 MB.", "Expected a small picture: PNG, JPEG or WebP.")
    picture = _small(new.file)
    digest = hashlib.sha256(picture).hexdigest()
    if not default_storage.exists(logo_file(digest)):
        default_storage.save(logo_file(digest), ContentFile(picture))
    return _with_logo(actor, digest)


def remove_logo(actor: User) -> WorksSettings:
    """Reports from now on have no picture."""
    return _with_logo(actor, "")


def _with_logo(actor: User, digest: str) -> WorksSettings:
    kept = {"logo": digest, "by": actor, "at": timezone.now()}
    return WorksSettings.objects.update_or_create(pk=1, defaults=kept)[0]


def _small(file: File) -> bytes:  # type: ignore[type-arg]
    with opened(file, "logo", "Expected a small picture: PNG, JPEG or WebP.") as image:
        shown = image.convert("RGBA")
        shown.thumbnail(_LOGO_SIDES)
    into = io.BytesIO()
    shown.save(into, "PNG", optimize=True)
    return into.getvalue()
