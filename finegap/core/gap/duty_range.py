"""What a pump meets between a cold start and its hottest running: temperatures, and the viscosity at each."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise

from finegap.core.errors import FieldError
from finegap.core.formatting import Sentence
from finegap.core.gap.viscosity import Liquid

_DRAWN_K = 5.0


@dataclass(frozen=True)
class DutyRange:
    """A duty and its range: viscosity in mm2/s when pumping, temperatures in C.

    ``start_c`` is the coldest start and ``hot_c`` the hottest running; where the liquid's two points are not known its viscosity is
    taken to stay what it is when pumping, and ``viscosity_known`` is false.
    """

    viscosity_mm2_s: float
    temperature_c: float
    start_c: float
    hot_c: float
    liquid: Liquid | None = None

    def __post_init__(self) -> None:
        if self.start_c > self.temperature_c:
            raise FieldError(
                "coldest start", f"{self.start_c:g} C is warmer than the pump works at.", "Expected it no warmer than that."
            )
        if self.hot_c < self.temperature_c:
            raise FieldError("hottest running", f"{self.hot_c:g} C is cooler than the pump works at.", "Expected it no cooler.")

    @property
    def is_point(self) -> bool:
        """Nothing is known but the pumping temperature."""
        return self.start_c == self.hot_c

    @property
    def viscosity_known(self) -> bool:
        """The viscosity is known all along."""
        return self.liquid is not None or self.is_point

    def at(self, temperature_c: float) -> float:
        """Viscosity at a temperature of the range, mm2/s."""
        return self.viscosity_mm2_s if self.liquid is None else self.liquid.at(temperature_c)

    @property
    def far(self) -> Sentence | None:
        """Where on its way the viscosity is a guess, if anywhere."""
        ends = (self.temperature_c, self.start_c, self.hot_c)
        return next((far for t in ends if self.liquid for far in [self.liquid.far(t)] if far is not None), None)

    def stretches(self, viscosities: Iterable[float], temperatures: Iterable[float]) -> tuple[tuple[float, float], ...]:
        """The range from cold to hot, cut wherever a printed end of viscosity or temperature is crossed.

        Between two cuts the same rows of a table match; each stretch is (from, to) in C.
        """
        crossings = [self.liquid.where(v) for v in viscosities if self.liquid] + list(temperatures)
        inside = [t for t in crossings if self.start_c < t < self.hot_c]
        cuts = sorted({self.start_c, self.temperature_c, self.hot_c, *inside})
        return tuple(pairwise(cuts)) or ((self.start_c, self.hot_c),)

    def drawn(self) -> tuple[tuple[float, float], ...]:
        """Points (mm2/s, C) of the range, close enough for a line."""
        span = self.hot_c - self.start_c
        steps = max(round(span / _DRAWN_K), 1)
        return tuple((self.at(t), t) for t in (self.start_c + span * i / steps for i in range(steps + 1)))
