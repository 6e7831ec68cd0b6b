"""Photographs of parts and steps: checked, made small, stripped of everything but the picture."""

from __future__ import annotations

import hashlib
import io
import uuid
from dataclasses import dataclass

from django.core.files.base import ContentFile, File
from django.db import transaction

from finegap.bench.models import Job, Photo
from finegap.bench.records import family_of, load
from finegap.bench.services.changing import JobRef, changing, log, recording
from finegap.bench.services.steps import step_of
from finegap.core.errors import FieldError

LARGEST_BYTES = 15 * 1024 * 1024
LONGEST_SIDE = 1600
_MOST_PIXELS = 80_000_000
_FORMATS = ("JPEG", "PNG", "WEBP")
_MOST_PHOTOS = 60
_EXPECTED = "Expected a photograph: JPEG, PNG or WebP, up to 15 MB."


@dataclass(frozen=True)
class NewPhoto:
    """A photograph as it came, of a feature or of a step."""

    id: uuid.UUID
    file: File  # type: ignore[type-arg]
    feature: str = ""
    step: str = ""
    note: str = ""


def attach_photo(ref: JobRef, new: NewPhoto) -> None:
    """Keep a photograph of a part or of a step.

    Raises
    ------
    FieldError
        Too large, not a photograph whatever its name says, or of nothing this job has.
    """
    if (new.file.size or 0) > LARGEST_BYTES:
        raise FieldError("photo", f"it is {(new.file.size or 0) / 1e6:.0f} MB.", _EXPECTED)
    picture, width, height = _small(new.file)
    with recording(
        ref, Photo, new.id, (new.feature, new.step, new.note, hashlib.sha256(picture).hexdigest()), f"photo:{new.id}"
    ) as job:
        if job is None:
            return
        of = _of(job, new)
        if job.photos.count() >= _MOST_PHOTOS:
            raise FieldError("photo", f"the job has {_MOST_PHOTOS} already.", "Expected the telling ones.")
        photo = Photo(
            id=new.id, job=job, feature=new.feature, step=new.step, note=new.note.strip(), width=width, height=height,
            **ref.stamp,
        )  # fmt: skip
        photo.file.save(f"{new.id}.jpg", ContentFile(picture), save=False)
        photo.save(force_insert=True)
        log(job, ref, f"Photo of {of}")


def remove_photo(ref: JobRef, photo_id: uuid.UUID) -> None:
    """Take a photograph off an unsigned job; the log says so."""
    with changing(ref, f"photo:{photo_id}") as job:
        photo = job.photos.filter(id=photo_id).first()
        if photo is None:
            raise FieldError("photo", "it is not there.", "Expected a photo of this job.")
        file = photo.file
        photo.delete()
        log(job, ref, "Photo taken off")
        transaction.on_commit(lambda: file.delete(save=False))


def _of(job: Job, new: NewPhoto) -> str:
    if bool(new.feature) == bool(new.step):
        raise FieldError("photo", "it is of no part and no step, or of both.", "Expected one of them.")
    if new.step:
        return step_of(load(job).job_record.family, new.step).text
    feature = family_of(job).by_key.get(new.feature)
    if feature is None:
        raise FieldError("feature", f"there is no feature {new.feature}.", "Expected a feature of this pump.")
    return feature.name


def _small(file: File) -> tuple[bytes, int, int]:  # type: ignore[type-arg]
    """A photograph as a JPEG no longer than 1600 on its side, upright, without anything it said of camera or place."""
    from PIL import Image, ImageOps, UnidentifiedImageError

    try:
        with Image.open(file, formats=_FORMATS) as image:
            if image.width * image.height > _MOST_PIXELS:
                raise FieldError("photo", f"{image.width} by {image.height} is larger than a camera takes.", _EXPECTED)
            image.draft("RGB", (2 * LONGEST_SIDE, 2 * LONGEST_SIDE))
            upright = ImageOps.exif_transpose(image).convert("RGB")
            upright.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Image.DecompressionBombError) as error:
        if isinstance(error, FieldError):
            raise
        raise FieldError("photo", "this is not a photograph, whatever its name says.", _EXPECTED) from None
    buffer = io.BytesIO()
    upright.save(buffer, "JPEG", quality=82, optimize=True)
    return buffer.getvalue(), upright.width, upright.height
