"""What a works prints on, and what stands at the head of it."""

from __future__ import annotations

from dataclasses import dataclass
from enum import Enum


class Paper(Enum):
    """A size of paper (ISO 216 and ANSI/ASME Y14.1); the value is its name."""

    A4 = "A4"
    LETTER = "Letter"

    @property
    def mm(self) -> tuple[float, float]:
        """Width and height upright [mm]."""
        return (210.0, 297.0) if self is Paper.A4 else (215.9, 279.4)


@dataclass(frozen=True)
class Letterhead:
    """Whose report it is: name, lines of the address, and a picture as PNG; each may be empty."""

    name: str = ""
    address: str = ""
    picture: bytes = b""
