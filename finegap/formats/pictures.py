"""Photographs: checked, made small, stripped of everything but the picture."""

from __future__ import annotations

import io
from typing import IO, Any

from finegap.core.errors import FieldError

_MOST_PIXELS = 80_000_000
_FORMATS = ("JPEG", "PNG", "WEBP")


def small(file: IO[bytes] | Any, side: int, field: str, expected: str) -> tuple[bytes, int, int]:
    """A photograph as a JPEG no longer than ``side`` px, upright, without anything it said of camera or place.

    Raises
    ------
    FieldError
        It is none, whatever its name says, or larger than a camera takes.
    """
    from PIL import Image, ImageOps, UnidentifiedImageError

    file.seek(0)
    try:
        with Image.open(file, formats=_FORMATS) as image:
            if image.width * image.height > _MOST_PIXELS:
                raise FieldError(field, f"{image.width} by {image.height} is larger than a camera takes.", expected)
            image.draft("RGB", (2 * side, 2 * side))
            upright = ImageOps.exif_transpose(image).convert("RGB")
            upright.thumbnail((side, side))
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Image.DecompressionBombError) as error:
        if isinstance(error, FieldError):
            raise
        raise FieldError(field, "this is not a photograph, whatever its name says.", expected) from None
    buffer = io.BytesIO()
    upright.save(buffer, "JPEG", quality=82, optimize=True)
    return buffer.getvalue(), upright.width, upright.height
