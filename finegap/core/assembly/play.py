"""Play of a ball bearing along its shaft from its play across, and how far a lip is stretched by its shaft."""

from __future__ import annotations

import math
from dataclasses import dataclass

from finegap.core.errors import FieldError


@dataclass(frozen=True)
class BallBearing:
    """A deep groove ball bearing: ball in mm, the grooves' radii over the ball's diameter, play across on the diameter in mm."""

    ball_mm: float
    inner: float
    outer: float
    radial_mm: float

    def __post_init__(self) -> None:
        for name, share in (("inner groove", self.inner), ("outer groove", self.outer)):
            if not 0.5 < share <= 0.6:
                raise FieldError(name, f"{share:g} of the ball cannot be.", "Expected more than 0.5, up to 0.6.")
        if self.ball_mm <= 0:
            raise FieldError("ball", "it must be more than zero.", "Expected its diameter.")
        if not 0 <= self.radial_mm < self.centres_mm:
            raise FieldError("play across", "no bearing of these grooves has it.", f"Expected less than {self.centres_mm:.3g} mm.")

    @property
    def centres_mm(self) -> float:
        """Between the centres of both grooves: more play than this would let the balls out."""
        return (self.inner + self.outer - 1) * self.ball_mm

    @property
    def axial_mm(self) -> float:
        """Play along, from end to end: sqrt(4 A G - G squared)."""
        return math.sqrt(4 * self.centres_mm * self.radial_mm - self.radial_mm**2)

    @property
    def angle_deg(self) -> float:
        """At which the balls touch when the play is taken up."""
        return math.degrees(math.acos(1 - self.radial_mm / (2 * self.centres_mm)))


def lip_mm(shaft_mm: tuple[float, float], lip_mm: tuple[float, float]) -> tuple[float, float]:
    """Least and most by which a lip is stretched, on the diameter; not above zero it does not seal. All from and to, in mm.

    Raises
    ------
    FieldError
        A range that is reversed.
    """
    for name, (low, high) in (("shaft", shaft_mm), ("lip", lip_mm)):
        if low > high:
            raise FieldError(name, "the range is reversed.", "Expected the smaller first.")
    return shaft_mm[0] - lip_mm[1], shaft_mm[1] - lip_mm[0]
