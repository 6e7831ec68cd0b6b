"""Equalising the two mesh gaps of a timed pair by turning a clamped timing gear.

The released rotor is turned by half the difference of the two gaps, along the pitch circle.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Amounts, Kind, Sentence, length
from finegap.core.gap.move import Move, Way, Window
from finegap.core.working import Given, Working

SIDES = ("left", "right")


@dataclass(frozen=True)
class Timing:
    """A clamped timing gear: pitch diameter where the gaps are measured, and the diameter its marks are made on, in mm."""

    pitch_mm: float
    marked_mm: float

    def __post_init__(self) -> None:
        for name, value in (("pitch_diameter", self.pitch_mm), ("marked_diameter", self.marked_mm)):
            if value <= 0:
                raise FieldError(name, "it must be more than zero.", "Expected a diameter.")

    def angle_deg(self, along_mm: float) -> float:
        """Turn for a distance along the pitch circle."""
        return math.degrees(along_mm / (self.pitch_mm / 2))

    def arc_mm(self, along_mm: float) -> float:
        """Arc on the marked diameter for a distance along the pitch circle."""
        return along_mm * self.marked_mm / self.pitch_mm

    def along_mm(self, arc_mm: float) -> float:
        """Distance along the pitch circle for an arc on the marked diameter: the inverse."""
        return arc_mm * self.pitch_mm / self.marked_mm


def move_for(
    timing: Timing,
    left_mm: float | None,
    right_mm: float | None,
    window: Window,
    difference_mm: float,
    shut: bool = False,
) -> Move:
    """The turn that makes both gaps alike.

    Parameters
    ----------
    timing : Timing
        Pitch and marked diameter.
    left_mm, right_mm : float or None
        The narrowest of each over all turns, as checked; ``None`` before the first check.
    window : Window
        What each gap may be.
    difference_mm : float
        By how much they may differ.
    shut : bool
        The gear case stays shut in this job.
    """
    if left_mm is None or right_mm is None:
        return _first(difference_mm)
    shift = (left_mm - right_mm) / 2
    wider = SIDES[0] if shift > 0 else SIDES[1]
    arc, angle = timing.arc_mm(abs(shift)), timing.angle_deg(abs(shift))
    amounts: Amounts = {
        "arc": length(arc),
        "angle": Amount(angle, Kind.FINE_ANGLE),
        "mean": length((left_mm + right_mm) / 2, fine=True),
        "least": window.shown((left_mm + right_mm) / 2, fine=True)[0],
    }
    working = _working(timing, left_mm, right_mm, amounts)
    if (left_mm + right_mm) / 2 < window.low_mm:
        words = (
            "Both together are too narrow: alike they would be {mean}, and {least} is the least. Look for a wrong pair or a burr."
        )
        return Move(Way.STAY, shift, Sentence("Turning the gear cannot help"), (Sentence(words, amounts),), working)
    if shut:
        details: tuple[Sentence, ...] = (
            Sentence("The timing gear is reached with the case open: {angle} towards the wider gap.", amounts),
        )
        return Move(Way.STAY, 0.0, Sentence("The gear case stays shut: nothing is set in this job"), details, working)
    if arc < 0.005:
        return Move(Way.STAY, 0.0, Sentence("Leave the timing gear where it is"), (), working)
    headline = Sentence(
        "Release the timing gear and turn its rotor {angle} towards the wider gap, {wider}: {arc} along its marks",
        {"wider": wider} | amounts,
    )
    details = (
        Sentence("Both should come to {mean}. Clamp evenly, turn all the way round, and measure both again.", amounts),
        Sentence("Hands away from the mesh while anyone turns a shaft."),
    )
    return Move(Way.OPEN, shift, headline, details, working, abs(shift))


def _working(timing: Timing, left_mm: float, right_mm: float, amounts: Amounts) -> Working:
    return Working(
        "Turn of the timing gear",
        "e = (left − right)/2,   φ = e / (d/2),   s = e·D/d",
        (
            Given("left", "narrowest at the left", length(left_mm, fine=True)),
            Given("right", "narrowest at the right", length(right_mm, fine=True)),
            Given("d", "pitch diameter", length(timing.pitch_mm)),
            Given("D", "diameter the marks are on", length(timing.marked_mm)),
        ),
        Sentence("{arc} along the marks, {angle}", amounts),
        "geometry: half the difference, turned at the pitch radius",
    )


def _first(difference_mm: float) -> Move:
    """Before the first check nothing is turned."""
    headline = Sentence("Turn the shafts all the way round and measure both mesh gaps")
    details = (Sentence("Left and right at several turns; note the narrowest of each. Nothing is turned yet."),)
    working = Working(
        "Mesh gaps", "left and right alike", (Given("", "they may differ by", length(difference_mm)),), headline, "the sheet"
    )
    return Move(Way.STAY, 0.0, headline, details, working)
