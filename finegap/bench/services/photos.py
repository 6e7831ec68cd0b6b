"""Photographs of parts and steps: checked, made small, stripped of everything but the picture."""

from __future__ import annotations

import uuid
from dataclasses import dataclass

from django.core.files.base import ContentFile
from django.db import transaction

from finegap.bench.changes import AttachPhoto, RemovePhoto
from finegap.bench.models import Photo
from finegap.bench.services.changing import JobInHand, JobRef, changes, look
from finegap.bench.services.steps import step_of
from finegap.core.errors import FieldError
from finegap.formats.pictures import small
from finegap.works.queries import works_settings

LARGEST_BYTES = 15 * 1024 * 1024
_MOST_PHOTOS = 60
_EXPECTED = "Expected a photograph: JPEG, PNG or WebP, up to 15 MB and 25 megapixels."


def attach_photo(ref: JobRef, new: AttachPhoto) -> JobInHand | None:
    """Keep a photograph of a part or of a step. The job is looked at before a pixel is; the transaction begins when it is small.

    Raises
    ------
    FieldError
        Too large, not a photograph whatever its name says, or of nothing this job has.
    """
    if (new.file.size or 0) > LARGEST_BYTES:
        raise FieldError("photo", f"it is {(new.file.size or 0) / 1e6:.0f} MB.", _EXPECTED)
    if not Photo.objects.filter(id=new.id).exists():  # sent again, it is told apart by its picture
        _take(look(ref, _section(new)), new)
    side = works_settings().photo_side
    return _keep(ref, _SmallPhoto(new.id, *small(new.file, side, "photo", _EXPECTED), new.feature, new.step, new.note.strip()))


@dataclass(frozen=True)
class _SmallPhoto:
    """A photograph as it is kept: a JPEG, its width and height in pixels, and what it is of."""

    id: uuid.UUID
    picture: bytes
    width: int
    height: int
    feature: str
    step: str
    note: str


def _section(new: AttachPhoto | _SmallPhoto) -> str:
    return f"photo:{new.id}"


@changes(lambda new, now: _section(new), Photo)
def _keep(now: JobInHand, new: _SmallPhoto) -> None:
    job, of = now.job, _take(now, new)
    photo = Photo(
        id=new.id, job=job, feature=new.feature, step=new.step, note=new.note, width=new.width, height=new.height, **now.ref.stamp
    )
    photo.file.save(f"{new.id}.jpg", ContentFile(new.picture), save=False)
    photo.save(force_insert=True)
    now.log(f"Photo of {of}")


@changes(lambda new, now: f"photo:{new.photo}")
def remove_photo(now: JobInHand, new: RemovePhoto) -> None:
    """Take a photograph off an unsigned job; the log says so."""
    photo = now.job.photos.filter(id=new.photo).first()
    if photo is None:
        raise FieldError("photo", "it is not there.", "Expected a photo of this job.")
    file = photo.file
    photo.delete()
    now.log("Photo taken off")
    transaction.on_commit(lambda: file.delete(save=False))


def _take(now: JobInHand, new: AttachPhoto | _SmallPhoto) -> str:
    """What it is of, in words, where the job takes one more of that."""
    if now.job.photos.count() >= _MOST_PHOTOS:
        raise FieldError("photo", f"the job has {_MOST_PHOTOS} already.", "Expected the telling ones.")
    if bool(new.feature) == bool(new.step):
        raise FieldError("photo", "it is of no part and no step, or of both.", "Expected one of them.")
    if new.step:
        return step_of(now.before.job_record.family, new.step).text
    feature = now.before.job_record.family.by_key.get(new.feature)
    if feature is None:
        raise FieldError("feature", f"there is no feature {new.feature}.", "Expected a feature of this pump.")
    return feature.name
