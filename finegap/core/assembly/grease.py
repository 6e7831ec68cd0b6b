"""How much grease a bearing gets, and how many strokes of this gun that is."""

from __future__ import annotations

import math
from dataclasses import dataclass

from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Kind, Sentence, length
from finegap.core.working import Given, Working

_G_PER_MM2 = 0.005
_LEAST_PER_STROKE_G, _MOST_PER_STROKE_G = 0.05, 20.0


@dataclass(frozen=True)
class Greased:
    """Grease for a bearing of outside diameter and width in mm, by a gun whose ten strokes weigh ``grams_per_ten_strokes``."""

    outside_mm: float
    width_mm: float
    grams_per_ten_strokes: float | None = None

    def __post_init__(self) -> None:
        for name, value in (("bearing, outside", self.outside_mm), ("bearing, width", self.width_mm)):
            if value <= 0:
                raise FieldError(name, "it must be more than zero.", "Expected a length.")
        if self.width_mm > self.outside_mm:
            raise FieldError("bearing, width", "it is wider than its outside.", "Expected the outside diameter first.")
        if (
            self.grams_per_ten_strokes is not None
            and not 10 * _LEAST_PER_STROKE_G <= self.grams_per_ten_strokes <= 10 * _MOST_PER_STROKE_G
        ):
            raise FieldError(
                "ten strokes", f"{self.grams_per_ten_strokes:g} g cannot be.", "Expected what ten strokes weigh together, in grams."
            )

    @property
    def grams(self) -> float:
        """Top-up quantity."""
        return _G_PER_MM2 * self.outside_mm * self.width_mm

    @property
    def strokes(self) -> int | None:
        """Whole strokes of the gun, the nearest and at least one; ``None`` while it is not weighed."""
        return (
            None if self.grams_per_ten_strokes is None else max(1, math.floor(self.grams / (self.grams_per_ten_strokes / 10) + 0.5))
        )

    @property
    def working(self) -> Working:
        """How the amount is reached."""
        notes: tuple[Sentence, ...] = ()
        if self.strokes is not None and self.grams_per_ten_strokes is not None:
            words = "Ten strokes weigh {ten}, one {one}: {n} strokes."
            one = Amount(self.grams_per_ten_strokes / 10, Kind.MASS)
            notes = (Sentence(words, {"ten": Amount(self.grams_per_ten_strokes, Kind.MASS), "one": one, "n": str(self.strokes)}),)
        return Working(
            "Grease for the bearing",
            "G = 0.005·D·B   (g, mm)",
            (Given("D", "outside diameter", length(self.outside_mm)), Given("B", "width", length(self.width_mm))),
            Amount(self.grams, Kind.MASS),
            "Common practice, no source: a top-up, not the first fill",
            notes,
        )
