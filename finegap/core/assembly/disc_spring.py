"""Disc springs (Belleville) under a nut: load by Almen and Laszlo, stacks, and what a wrong one leaves of the nut's preload."""

from __future__ import annotations

import math
from dataclasses import dataclass

from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Amounts, Kind, Sentence, length
from finegap.core.result_lines import ResultLine, Status
from finegap.core.working import Given, Working

STEEL_MPA = 206_000.0
STEEL_POISSON = 0.3
_SOURCE = "Almen and Laszlo, 1936, as DIN 2092 writes it with K₁; no contact flats (from memory)"
_THICKEST_MM = 6.0
_LOOKS = 200
_SNAPS = math.sqrt(2)
"""Cone over thickness from which the load has a peak: the slope of the formula is zero there (Almen and Laszlo)."""

_SURE_SHARE = 0.75
"""Share of its travel to which a disc follows the formula; nearly flat it rolls on its edge (DIN 2092, from memory)."""


@dataclass(frozen=True)
class DiscSpring:
    """One disc: outside and inside diameter, thickness and free cone height in mm; modulus in MPa."""

    outside_mm: float
    inside_mm: float
    thickness_mm: float
    cone_mm: float
    modulus_mpa: float = STEEL_MPA
    poisson: float = STEEL_POISSON

    def __post_init__(self) -> None:
        if not 0 < self.inside_mm < self.outside_mm:
            raise FieldError("inside diameter", "it is not smaller than the outside.", "Expected a disc with a hole.")
        if self.thickness_mm <= 0 or self.thickness_mm > _THICKEST_MM:
            raise FieldError(
                "thickness", f"{self.thickness_mm:g} mm is outside this formula.", f"Expected up to {_THICKEST_MM:g} mm."
            )
        if self.cone_mm <= 0:
            raise FieldError("cone height", "it must be more than zero.", "Expected the free height less the thickness.")

    @property
    def k1(self) -> float:
        """K1 of DIN 2092, of the ratio of the diameters."""
        d = self.outside_mm / self.inside_mm
        return ((d - 1) / d) ** 2 / ((d + 1) / (d - 1) - 2 / math.log(d)) / math.pi

    def load_n(self, travel_mm: float) -> float:
        """The load of the stack at a deflection. Packets share the travel, discs of a packet share the load; friction is left
        out.

        Raises
        ------
        FieldError
            Further than flat, or the wrong way.
        """
        if not 0 <= travel_mm <= self.cone_mm * (1 + 1e-9):
            raise FieldError("deflection", f"{travel_mm:g} mm is past flat.", f"Expected 0 to {self.cone_mm:g} mm.")
        t, h, s = self.thickness_mm, self.cone_mm, travel_mm
        stiffness = 4 * self.modulus_mpa / (1 - self.poisson**2) * t**4 / (self.k1 * self.outside_mm**2)
        return stiffness * (s / t) * ((h / t - s / t) * (h / t - s / (2 * t)) + 1)

    @property
    def flat_n(self) -> float:
        """Load that presses it flat."""
        return self.load_n(self.cone_mm)

    def travel_mm(self, load_n: float) -> float | None:
        """The least deflection that carries a load; ``None`` where it is pressed flat before, or has no load."""
        from scipy.optimize import brentq

        steps = [self.cone_mm * i / _LOOKS for i in range(_LOOKS + 1)]
        over = next((i for i, s in enumerate(steps) if self.load_n(s) >= load_n), None)
        if over is None or load_n < 0:
            return None
        if over == 0:
            return 0.0
        return float(brentq(lambda s: self.load_n(s) - load_n, steps[over - 1], steps[over], xtol=1e-12))

    def working(self, travel_mm: float) -> Working:
        """How the load is reached."""
        return Working(
            "Load of a disc spring",
            "F = 4E/(1−μ²) · t⁴/(K₁·Dₑ²) · s/t · [(h₀/t − s/t)·(h₀/t − s/2t) + 1]",
            (
                Given("Dₑ", "outside diameter", length(self.outside_mm)),
                Given("Dᵢ", "inside diameter", length(self.inside_mm)),
                Given("t", "thickness", length(self.thickness_mm, fine=True)),
                Given("h₀", "free cone height", length(self.cone_mm, fine=True)),
                Given("s", "deflection", length(travel_mm, fine=True)),
                Given("E", "modulus", Amount(self.modulus_mpa / 1000, Kind.NUMBER)),
                Given("K₁", "of the diameters", Amount(self.k1, Kind.FINE_NUMBER)),
            ),
            Amount(self.load_n(travel_mm), Kind.FORCE),
            _SOURCE,
        )


@dataclass(frozen=True)
class SpringStack:
    """Discs nested ``parallel`` in a packet and ``series`` packets on one another."""

    disc: DiscSpring
    parallel: int = 1
    series: int = 1

    def load_n(self, travel_mm: float) -> float:
        """Load of the stack at its whole deflection: packets share the way, discs of a packet share the load; no friction."""
        return self.parallel * self.disc.load_n(travel_mm / self.series)


def preload_lines(disc: DiscSpring, settles_mm: float, nut_n: tuple[float, float] | None) -> tuple[ResultLine, ...]:
    """What the spring under a rotor nut does, and what is left without it or with it reversed.

    Parameters
    ----------
    disc : DiscSpring
        The one under the nut.
    settles_mm : float
        How much the joint settles in service: seats, faces, a gasket ring.
    nut_n : tuple of float or None
        Preload of the nut from its torque, least and most, where it is known.

    It follows by what it is deflected: after settling it still holds the load of what deflection is left. Pressed flat it has no
    travel to say anything of the nut's preload, and the maker is asked. Reversed, with its cone away from the nut, its edge has no
    seat and is crushed; like a missing one it follows nothing.
    """
    pressed = None if nut_n is None else disc.travel_mm(nut_n[0])
    left_mm = max((disc.cone_mm if pressed is None else pressed) - settles_mm, 0.0)
    held = disc.load_n(left_mm)
    amounts: Amounts = {
        "flat": Amount(disc.flat_n, Kind.FORCE),
        "held": Amount(held, Kind.FORCE),
        "settles": length(settles_mm, fine=True),
        "cone": length(disc.cone_mm, fine=True),
    }
    lines = [
        ResultLine("Pressed flat it pushes with", Amount(disc.flat_n, Kind.FORCE), working=disc.working(disc.cone_mm)),
        ResultLine(
            "After the joint has settled",
            Sentence(
                "{held} is still there once {settles} is gone." if held > 0 else "Nothing is left once {settles} is gone.", amounts
            ),
            Status.GOOD if held > 0 else Status.STOP,
            disc.working(left_mm),
        ),
        ResultLine(
            "Missing, or reversed",
            Sentence(
                "Nothing follows: {settles} of settling leaves the nut loose, and a loose rotor nut wrecks the pump.", amounts
            ),
            Status.CARE,
        ),
    ]
    if disc.cone_mm > _SNAPS * disc.thickness_mm:
        lines.append(
            ResultLine("Shape", "So thin for its cone that its load falls before it is flat: it snaps through. Ask.", Status.ASK)
        )
    if nut_n is not None:
        most = disc.travel_mm(nut_n[1])
        told: Amounts = {"least": Amount(nut_n[0], Kind.FORCE), "most": Amount(nut_n[1], Kind.FORCE), **amounts}
        status, words = Status.GOOD, "{least} to {most}, below {flat}: it keeps travel to follow with."
        if most is None or nut_n[1] >= disc.flat_n:
            status, words = (
                Status.ASK,
                "{least} to {most} presses it flat ({flat}), with no travel left: ask whether torque and disc agree.",
            )
        elif most > _SURE_SHARE * disc.cone_mm:
            status, words = Status.CARE, "{least} to {most}: past three quarters of its travel, where it is stiffer than told here."
        lines.insert(1, ResultLine("The nut's preload from its torque", Sentence(words, told), status))
    return tuple(lines)
