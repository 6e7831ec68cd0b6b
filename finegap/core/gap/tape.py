"""The tape: a strip laid round the bearing housing, with the clearance printed where its arc is."""

from __future__ import annotations

import math
from dataclasses import dataclass

from finegap.core.errors import FieldError
from finegap.core.formatting import Units, length
from finegap.core.gap.housing import Housing
from finegap.core.gap.move import Window

STEP_MM = {Units.MM: 0.01, Units.IN: 0.0254, Units.THOU: 0.0254}
"""A mark every 0.01 mm, or every thousandth of an inch."""

_LABEL_EVERY = 5
_LEAST_MARKS = 10
_BEYOND = 1.3
_CLOSEST_MM = 0.5
"""Marks nearer than this cannot be told apart on paper."""


@dataclass(frozen=True)
class TapeMark:
    """A mark: where along the tape from zero, in mm of arc, and its label; only the long ones have one."""

    arc_mm: float
    label: str

    @property
    def long(self) -> bool:
        """Drawn longer, with its number."""
        return bool(self.label)


@dataclass(frozen=True)
class Segment:
    """A piece of the tape that fits on the paper, in mm of arc from zero; it shares its last millimetres with the next."""

    start_mm: float
    end_mm: float


@dataclass(frozen=True)
class Tape:
    """A tape for a housing and the window the gap has to end up in."""

    housing: Housing
    window: Window
    units: Units

    def __post_init__(self) -> None:
        if self.window.high_mm <= 0:
            raise FieldError("window", "there is no gap to set.", "Expected a window above zero.")
        if self.length_mm > self.circumference_mm:
            turns = self.length_mm / self.circumference_mm
            raise FieldError("window", f"the tape would go {turns:.1f} times round the housing.", "Expected less than one turn.")
        if self.step_arc_mm < _CLOSEST_MM:
            raise FieldError("lead", f"marks {self.step_arc_mm:.2f} mm apart cannot be told apart.", "Use the arc in figures.")

    @property
    def circumference_mm(self) -> float:
        """Once round the housing."""
        return math.pi * self.housing.diameter_mm

    @property
    def step_arc_mm(self) -> float:
        """From one mark to the next."""
        return self.housing.arc_mm(STEP_MM[self.units])

    @property
    def steps(self) -> int:
        """How many marks after zero: past the window, and enough to see the pattern."""
        return max(math.ceil(_BEYOND * self.window.high_mm / STEP_MM[self.units]), _LEAST_MARKS)

    @property
    def length_mm(self) -> float:
        """From zero to the last mark."""
        return self.steps * self.step_arc_mm

    @property
    def target_arc_mm(self) -> float:
        """Where the housing's line has to come."""
        return self.housing.arc_mm(self.window.target_mm)

    @property
    def window_arc_mm(self) -> tuple[float, float]:
        """Ends of the window on the tape."""
        return self.housing.arc_mm(self.window.low_mm), self.housing.arc_mm(self.window.high_mm)

    def marks(self) -> tuple[TapeMark, ...]:
        """Every mark from zero on."""
        step = STEP_MM[self.units]
        return tuple(
            TapeMark(n * self.step_arc_mm, length(n * step).bare(self.units) if n % _LABEL_EVERY == 0 else "")
            for n in range(self.steps + 1)
        )

    def segments(self, fits_mm: float, overlap_mm: float, before_mm: float, after_mm: float) -> tuple[Segment, ...]:
        """The tape in pieces of at most ``fits_mm``, from ``before_mm`` before zero to ``after_mm`` past the last mark.

        Each shares ``overlap_mm`` with the next, so that they can be laid over one another and joined.
        """
        if not 0 < overlap_mm < fits_mm:
            raise FieldError("overlap", "it is not shorter than the paper.", "Expected less than a piece.")
        start, end = -before_mm, self.length_mm + after_mm
        pieces = [Segment(start, min(start + fits_mm, end))]
        while pieces[-1].end_mm < end:
            start = pieces[-1].end_mm - overlap_mm
            pieces.append(Segment(start, min(start + fits_mm, end)))
        return tuple(pieces)


@dataclass(frozen=True)
class Printed:
    """A tape with what is written on it: the pump's tag, sheet and revision, and the job."""

    tape: Tape
    tag: str
    sheet: str
    job: int
