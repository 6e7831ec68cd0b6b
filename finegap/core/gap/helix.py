"""Two screws whose flanks do not share their gap alike: one screw is turned, or shifted along, by half the difference.

On a helix both are one move: a turn of φ is a shift of lead·φ/360°. A gap is read along the axis, square to the flank, or round the
pitch circle; the three differ, so which it is has to be said.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import Enum

from finegap.core.errors import FieldError


class Read(Enum):
    """The direction in which a flank gap is read."""

    AXIAL = "along the axis"
    NORMAL = "square to the flank"
    ROUND = "round the pitch circle"


@dataclass(frozen=True)
class Flank:
    """A flank of a screw: lead and pitch diameter in mm, and how far it leans in a cut along the axis, in degrees.

    The lead is pitch times starts.
    """

    lead_mm: float
    pitch_mm: float
    lean_deg: float = 0.0

    def __post_init__(self) -> None:
        if self.lead_mm <= 0 or self.pitch_mm <= 0:
            raise FieldError("lead" if self.lead_mm <= 0 else "pitch diameter", "it must be more than zero.", "Expected a length.")
        if not 0 <= self.lean_deg < 80:
            raise FieldError("flank", f"{self.lean_deg:g}° cannot be.", "Expected 0 (square to the axis) to less than 80.")

    @property
    def rise(self) -> float:
        """Along the axis over round the pitch circle: the tangent of the lead angle."""
        return self.lead_mm / (math.pi * self.pitch_mm)

    def along_mm(self, gap_mm: float, read: Read) -> float:
        """A gap as it is along the axis, however it was read."""
        if read is Read.AXIAL:
            return gap_mm
        if read is Read.ROUND:
            return gap_mm * self.rise
        # the unit normal of z = f(r) + lead·θ/2π has this share along the axis
        return gap_mm * math.sqrt(1 + math.tan(math.radians(self.lean_deg)) ** 2 + self.rise**2)

    def shift_mm(self, left_mm: float, right_mm: float, read: Read) -> float:
        """How far a screw is shifted, along the axis, towards the wider gap: half the difference. Positive towards the left."""
        return self.along_mm((left_mm - right_mm) / 2, read)

    def turn_deg(self, shift_mm: float) -> float:
        """The turn that is the same move."""
        return 360 * shift_mm / self.lead_mm

    def after_mm(self, left_mm: float, right_mm: float, read: Read, shift_mm: float) -> tuple[float, float]:
        """Both gaps after a shift, read as they were."""
        by = shift_mm / self.along_mm(1.0, read)
        return left_mm - by, right_mm + by
