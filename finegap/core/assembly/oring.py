"""O-rings: stretch, squeeze and how full the groove is."""

from __future__ import annotations

import math
from dataclasses import dataclass

from finegap.core.errors import FieldError
from finegap.core.families.stack import Ring
from finegap.core.formatting import Amount, Kind, Sentence, length
from finegap.core.result_lines import ResultLine, Status
from finegap.core.working import Given, Working

SOURCE = "ISO 3601-2 (limits from memory)"
MOST_FILL = 85.0
SQUEEZE = {"static": (15.0, 30.0), "moving": (8.0, 20.0)}
"""Least and most squeeze in percent, for a ring that stands still and for one that something slides on."""

_STRETCH = ((13.5, 8.0), (39.5, 6.0), (99.0, 5.0), (135.0, 4.0), (math.inf, 3.0))
"""Most stretch in percent for rings up to an inside diameter in mm."""

_STRONG_SQUEEZE = 40.0


@dataclass(frozen=True)
class ORing(Ring):
    """A ring in its groove, in mm. The depth holds the gap between the metals, too; ``encapsulated`` in PTFE."""

    encapsulated: bool = False

    def __post_init__(self) -> None:
        names = {"inside": "ring, inside", "section": "ring, section", "groove": "groove, diameter"}
        for key in ("inside", "section", "groove", "depth", "width"):
            if getattr(self, f"{key}_mm") <= 0:
                raise FieldError(names.get(key, f"groove, {key}"), "it must be more than zero.", "Expected a length.")
        if self.section_mm >= self.inside_mm:
            raise FieldError("ring, section", "it is thicker than the ring is wide.", "Expected less than the inside diameter.")
        if not 0.5 < self.groove_mm / self.inside_mm < 2:
            raise FieldError("groove, diameter", "this ring does not belong to it.", "Expected near the ring's inside diameter.")

    @classmethod
    def of(cls, ring: Ring, encapsulated: bool = False) -> ORing:
        """A ring as declared, in ordinary rubber or encapsulated."""
        return cls(ring.inside_mm, ring.section_mm, ring.groove_mm, ring.depth_mm, ring.width_mm, ring.moving, encapsulated)

    @property
    def stretch_pct(self) -> float:
        """How much longer it is made at the inside; negative when the groove is smaller than the ring."""
        return 100 * (self.groove_mm / self.inside_mm - 1)

    @property
    def stretched_mm(self) -> float:
        """Section in the groove: rubber keeps its volume."""
        if self.groove_mm <= self.inside_mm:
            return self.section_mm
        from scipy.optimize import brentq

        volume = (self.inside_mm + self.section_mm) * self.section_mm**2
        return float(brentq(lambda d: (self.groove_mm + d) * d**2 - volume, 0.0, self.section_mm))

    @property
    def squeeze_pct(self) -> float:
        """How much of its section is squeezed away."""
        return 100 * (self.stretched_mm - self.depth_mm) / self.stretched_mm

    @property
    def fill_pct(self) -> float:
        """How much of the groove it fills, cold and unswollen."""
        return 100 * math.pi / 4 * self.stretched_mm**2 / (self.width_mm * self.depth_mm)

    @property
    def most_stretch_pct(self) -> float:
        """How far a ring of this size may be stretched for good."""
        return 0.0 if self.encapsulated else next(most for upto, most in _STRETCH if self.inside_mm <= upto)

    def lines(self) -> tuple[ResultLine, ...]:
        """Stretch, squeeze and fill, each against its limit."""
        return self._stretch_line(), self._squeeze_line(), self._fill_line()

    def _stretch_line(self) -> ResultLine:
        most = self.most_stretch_pct
        stretch = max(self.stretch_pct, 0.0)
        words = "{stretch}, at most {most}."
        if stretch > most:
            words = "{stretch}: over {most}. It thins and lets by."
        if self.encapsulated and stretch > 0:
            words = "{stretch}: an encapsulated ring is never stretched, its jacket cracks."
        status = Status.STOP if stretch > most else Status.GOOD
        if self.stretch_pct < 0:
            words, status = (
                "None: it is {loose} looser than its groove, falls out or is pinched. Ask for the right one.",
                Status.ASK,
            )
        amounts = {"stretch": _percent(stretch), "most": _percent(most), "loose": length(self.inside_mm - self.groove_mm)}
        working = Working(
            "Stretch",
            "S = D/d₁ − 1",
            (Given("D", "groove", length(self.groove_mm)), Given("d₁", "ring, inside", length(self.inside_mm))),
            _percent(self.stretch_pct),
            SOURCE,
        )
        return ResultLine("Stretch", Sentence(words, amounts), status, working)

    def _squeeze_line(self) -> ResultLine:
        low, high = SQUEEZE["moving" if self.moving else "static"]
        squeeze, status = self.squeeze_pct, Status.GOOD
        words = "{squeeze}, between {low} and {high}."
        if squeeze <= 0:
            words, status = "None: the groove is deeper than the ring, it does not seal.", Status.STOP
        elif squeeze < low:
            words, status = "{squeeze}: under {low}. It may leak cold.", Status.CARE
        elif squeeze > _STRONG_SQUEEZE:
            words, status = "{squeeze}: far over {high}. It is crushed or cut going in.", Status.STOP
        elif squeeze > high:
            words, status = "{squeeze}: over {high}. Hard to fit, and it sets early.", Status.CARE
        amounts = {"squeeze": _percent(squeeze), "low": _percent(low), "high": _percent(high)}
        working = Working(
            "Squeeze",
            "(D + d₂′)·d₂′² = (d₁ + d₂)·d₂²,   s = (d₂′ − t)/d₂′",
            (
                Given("d₂", "section of the ring", length(self.section_mm)),
                Given("d₂′", "section when stretched, volume kept", length(self.stretched_mm, fine=True)),
                Given("t", "depth of the groove with the gap", length(self.depth_mm)),
            ),
            _percent(squeeze),
            SOURCE + "; handbooks' rule for the section takes off more",
        )
        return ResultLine("Squeeze", Sentence(words, amounts), status, working)

    def _fill_line(self) -> ResultLine:
        fill = self.fill_pct
        words, status = "{fill}, at most {most}.", Status.GOOD
        if fill >= 100:
            words, status = "{fill}: it does not go in. The ring has no room.", Status.STOP
        elif fill > MOST_FILL:
            words, status = "{fill}: over {most}. Swollen or hot, it has no room.", Status.CARE
        working = Working(
            "Fill of the groove",
            "f = (π/4)·d₂′² / (w·t)",
            (
                Given("d₂′", "section when stretched", length(self.stretched_mm, fine=True)),
                Given("w", "width of the groove", length(self.width_mm)),
                Given("t", "depth of the groove with the gap", length(self.depth_mm)),
            ),
            _percent(fill),
            SOURCE + "; add swelling and heat",
        )
        return ResultLine("Fill", Sentence(words, {"fill": _percent(fill), "most": _percent(MOST_FILL)}), status, working)


def _percent(value: float) -> Amount:
    return Amount(value, Kind.SHARE)
