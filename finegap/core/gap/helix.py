"""Two screws whose flanks do not share their gap alike: one screw is turned, or shifted along, by half the difference.

On a helix both are one move: a turn of φ is a shift of lead·φ/360°. A gap is read along the axis, square to the flank, or round the
pitch circle; the three differ, so which it is has to be said.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import Enum

from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Amounts, Kind, Sentence, Text, length
from finegap.core.gap.move import Move, Way, Window
from finegap.core.working import Given, Working


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


SIDES = ("left", "right")
_LEAST_MM = 0.005
"""A smaller move than this nobody makes on a clamped gear. Common practice, no source."""


@dataclass(frozen=True)
class Geared:
    """A screw that is turned by its clamped timing gear: its flank, the diameter the marks are on in mm, and how gaps are read."""

    flank: Flank
    marked_mm: float
    read: Read

    def __post_init__(self) -> None:
        if self.marked_mm <= 0:
            raise FieldError("marked_diameter", "it must be more than zero.", "Expected a diameter.")

    def arc_mm(self, shift_mm: float) -> float:
        """Arc along the marks for a shift along the axis."""
        return self.flank.turn_deg(shift_mm) / 360 * math.pi * self.marked_mm

    def difference_mm(self, arc_mm: float) -> float:
        """What an arc along the marks takes from left less right, read as they are: the inverse."""
        shift = arc_mm / (math.pi * self.marked_mm) * self.flank.lead_mm
        return 2 * shift / self.flank.along_mm(1.0, self.read)

    def working(self, left_mm: float, right_mm: float, result: Text) -> Working:
        """How the move is reached."""
        return Working(
            "Move over the helix",
            "s = (left − right)/2, along the axis,   φ = 360°·s/lead,   arc = φ/360°·π·D",
            (
                Given("left", "narrowest at the left", length(left_mm, fine=True)),
                Given("right", "narrowest at the right", length(right_mm, fine=True)),
                Given("", "read", self.read.value),
                Given("lead", "pitch times starts", length(self.flank.lead_mm)),
                Given("D", "diameter the marks are on", length(self.marked_mm)),
            ),
            result,
            "geometry of a helix: a turn and a shift along the axis are one move",
        )


def move_for(geared: Geared, left_mm: float, right_mm: float, window: Window, shut: bool) -> Move:
    """What makes both flank gaps alike; nothing where the gear case stays shut, or the pair is too worn or too tight for it.

    Parameters
    ----------
    geared : Geared
        The screw and its timing gear.
    left_mm, right_mm : float
        The narrowest of each over the turns that were checked.
    window : Window
        What each gap may be.
    shut : bool
        The gear case stays shut in this job.
    """
    middle = (left_mm + right_mm) / 2
    shift = geared.flank.shift_mm(left_mm, right_mm, geared.read)
    arc, wider = geared.arc_mm(abs(shift)), SIDES[shift < 0]
    low, high, mean = window.shown(middle, fine=True)
    amounts: Amounts = {
        "wider": wider, "mean": mean, "low": low, "high": high, "arc": length(arc), "shift": length(abs(shift), fine=True),
        "turn": Amount(geared.flank.turn_deg(abs(shift)), Kind.FINE_ANGLE),
    }  # fmt: skip
    working = geared.working(left_mm, right_mm, Sentence("{shift}, {turn}, {arc} along the marks", amounts))
    if not window.low_mm <= middle <= window.high_mm:
        how = "worn" if middle > window.high_mm else "too tight, or not the pair that belongs together"
        words = "Alike they would be {mean}, and {low} to {high} is wanted: the pair is {how}. Screws are changed together."
        return Move(Way.STAY, 0.0, Sentence("No turn puts it right"), (Sentence(words, {**amounts, "how": how}),), working)
    if shut:
        details = (
            Sentence("Look first for a screw off its mark, ends that are not flush, or a nut that is loose."),
            Sentence("If it is the timing, the gear case is opened: {turn} of the driven gear, {shift} along.", amounts),
        )
        return Move(Way.STAY, 0.0, Sentence("The gear case stays shut: nothing is set in this job"), details, working)
    if arc < _LEAST_MM:
        return Move(Way.STAY, 0.0, Sentence("Leave the timing gear where it is"), (), working)
    headline = Sentence("Release the driven gear and turn its screw towards the wider gap, {wider}: {arc} along its marks", amounts)
    details = (
        Sentence("That is {turn}, or {shift} along the axis: on the helix both are one move.", amounts),
        Sentence("Both should come to {mean}. Clamp in passes, and check every turn again, left and right.", amounts),
    )
    return Move(Way.OPEN, shift, headline, details, working, abs(shift))
