"""Pictures that are sent: looked at, decoded one at a time, made small, stripped of everything but the picture."""

from __future__ import annotations

import io
import shutil
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from typing import IO, TYPE_CHECKING, Any

from django.conf import settings

from finegap.core.errors import FieldError

if TYPE_CHECKING:
    from PIL.Image import Image

_MOST_PIXELS = 25_000_000
_ROOM = 200 * 1024**2
"""The last of a disk, in bytes, is for readings and signatures."""
_FORMATS = ("JPEG", "PNG", "WEBP")
_one_at_a_time = threading.Lock()
"""A picture of 25 megapixels takes a few hundred MB while it is decoded: a worker takes that once, however many are sent."""


@contextmanager
def opened(file: IO[bytes] | Any, field: str, expected: str) -> Iterator[Image]:
    """A picture of a size that may be decoded; nothing of it is decoded yet. No other is open in this process meanwhile.

    Raises
    ------
    FieldError
        It is none, whatever its name says, or larger than 25 megapixels; or the disk is nearly full.
    """
    from PIL import Image, UnidentifiedImageError

    with _one_at_a_time:
        if shutil.disk_usage(settings.VAR).free < _ROOM:
            raise FieldError(field, "the disk of the server is nearly full.", "Readings go on; pictures wait until there is room.")
        file.seek(0)
        try:
            with Image.open(file, formats=_FORMATS) as image:
                if image.width * image.height > _MOST_PIXELS:
                    raise FieldError(field, f"{image.width} by {image.height} is more than 25 megapixels.", expected)
                yield image
        except FieldError:
            raise
        except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Image.DecompressionBombError):
            raise FieldError(field, "this is no picture, whatever its name says.", expected) from None


def small(file: IO[bytes] | Any, side: int, field: str, expected: str) -> tuple[bytes, int, int]:
    """A photograph as a JPEG no longer than ``side`` px, upright, without anything it said of camera or place.

    Raises
    ------
    FieldError
        As ``opened`` does.
    """
    from PIL import ImageOps

    with opened(file, field, expected) as image:
        image.draft("RGB", (2 * side, 2 * side))
        upright = ImageOps.exif_transpose(image).convert("RGB")
        upright.thumbnail((side, side))
    buffer = io.BytesIO()
    upright.save(buffer, "JPEG", quality=82, optimize=True)
    return buffer.getvalue(), upright.width, upright.height
