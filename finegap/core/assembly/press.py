"""Pressing a bushing into its seat: pressure, force, how far the bore closes in, and whether it still holds hot.

Thick cylinders of two materials under plane stress (Lame); interference is on the diameter. Roughness takes a little of it away
and is not counted.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Amounts, Kind, Sentence, between, length
from finegap.core.materials import Expansion, Material
from finegap.core.measuring.temperature import ABSOLUTE_ZERO_C, REFERENCE_C
from finegap.core.result_lines import ResultLine, Status
from finegap.core.working import Given, Working

_NEAR_LETTING_GO_K = 25.0
"""Nearer than this to letting go it is pressed with care. Common practice, no source."""

_LAME = "Thick cylinders, plane stress (Lamé); Young's moduli from memory or the sheet"


@dataclass(frozen=True)
class Solid:
    """What a part is made of; stresses in MPa.

    ``yield_mpa`` is where a metal begins to give way, ``allowed_mpa`` how far a brittle or soft one may be stressed by its sheet.
    With neither it cannot be checked.
    """

    name: str
    modulus_mpa: float
    poisson: float
    expansion: Expansion
    yield_mpa: float | None = None
    allowed_mpa: float | None = None

    @classmethod
    def of(cls, material: Material, allowed_mpa: float | None = None) -> Solid:
        """A metal of the table; ``allowed_mpa`` where the sheet says it."""
        return cls(material.name, material.modulus_mpa, material.poisson, material.expansion, material.yield_mpa, allowed_mpa)


@dataclass(frozen=True)
class PressFit:
    """A part and its seat: inside of the part (0 for a solid one), joint, outside of the seat, length, in mm; friction from and to.

    The part is mostly a bushing, and is called so here.
    """

    inside_mm: float
    joint_mm: float
    seat_outside_mm: float
    length_mm: float
    bushing: Solid
    seat: Solid
    friction: tuple[float, float]

    def __post_init__(self) -> None:
        if not 0 <= self.inside_mm < self.joint_mm:
            raise FieldError("bore", "it is not smaller than the bushing's outside.", "Expected bore < outside diameter.")
        if not self.joint_mm < self.seat_outside_mm:
            raise FieldError("seat, outside", "there is no metal round the bushing.", "Expected more than the bushing's outside.")
        if self.length_mm <= 0:
            raise FieldError("length", "it must be more than zero.", "Expected the pressed length.")
        low, high = self.friction
        if not 0 < low <= high <= 1:
            raise FieldError("friction", f"{low:g} to {high:g} cannot be.", "Expected more than 0, up to 1, the lower first.")

    @property
    def is_solid(self) -> bool:
        """It has no bore that could close in."""
        return self.inside_mm == 0

    @property
    def _seat_term(self) -> float:
        ratio = (self.seat_outside_mm / self.joint_mm) ** 2
        return ((ratio + 1) / (ratio - 1) + self.seat.poisson) / self.seat.modulus_mpa

    @property
    def _bushing_term(self) -> float:
        ratio = (self.inside_mm / self.joint_mm) ** 2
        return ((1 + ratio) / (1 - ratio) - self.bushing.poisson) / self.bushing.modulus_mpa

    def pressure_mpa(self, interference_mm: float) -> float:
        """Contact pressure; nothing without interference."""
        return max(interference_mm, 0.0) / (self.joint_mm * (self._seat_term + self._bushing_term))

    @property
    def closing_share(self) -> float:
        """How much the bore closes in for each unit of interference, both on the diameter."""
        ratio = (self.inside_mm / self.joint_mm) ** 2
        per_mpa = 2 * self.inside_mm / (self.bushing.modulus_mpa * (1 - ratio))
        return self.pressure_mpa(1.0) * per_mpa

    def closing_mm(self, interference_mm: float) -> float:
        """How much the bore closes in, on the diameter."""
        return self.closing_share * max(interference_mm, 0.0)

    def force_n(self, interference_mm: float) -> tuple[float, float]:
        """Press force at the end of the stroke, for the lower and the higher friction."""
        area = math.pi * self.joint_mm * self.length_mm
        low, high = (f * area * self.pressure_mpa(interference_mm) for f in self.friction)
        return low, high

    def bore_stress_mpa(self, interference_mm: float) -> float:
        """Compression round the bore of the bushing, where it is greatest; all through a solid part it is the contact pressure."""
        if self.is_solid:
            return self.pressure_mpa(interference_mm)
        return 2 * self.pressure_mpa(interference_mm) / (1 - (self.inside_mm / self.joint_mm) ** 2)

    def hot_interference_mm(self, interference_mm: float, bushing_c: float, seat_c: float) -> float:
        """The least interference left at a temperature, by both sides of each expansion. At or below zero the bushing is
        loose."""
        least, _ = self.bushing.expansion.grows(bushing_c)
        _, most = self.seat.expansion.grows(seat_c)
        return interference_mm + self.joint_mm * (least - most) * 1e-6

    def lets_go_c(self, interference_mm: float) -> float | None:
        """Temperature of both at which the interference is gone on heating; ``None`` where it grows tighter."""
        tight = max(interference_mm, 0.0)
        # The spans of both expansions, from cold to hot: in each the loss is a line from 20 C.
        ends = sorted({s.upto_c for solid in (self.bushing, self.seat) for s in solid.expansion.spans if s.upto_c > REFERENCE_C})
        start = REFERENCE_C
        for end in [*ends, math.inf] if not ends or ends[-1] < math.inf else ends:
            inside = (start + min(end, start + 2)) / 2
            lost = self.seat.expansion.bounds(inside)[1] - self.bushing.expansion.bounds(inside)[0]
            gone = REFERENCE_C + tight / (self.joint_mm * lost * 1e-6) if lost > 0 else math.inf
            if gone <= end and math.isfinite(gone):
                return max(gone, start)
            start = end
        return None

    def lines(self, interference_mm: float) -> tuple[ResultLine, ...]:
        """Pressure, force and closing-in, and whether the bushing stands it."""
        low, high = self.force_n(interference_mm)
        force = between(low, high, Kind.FORCE)
        closing = length(self.closing_mm(interference_mm), fine=True)
        pressure = Amount(self.pressure_mpa(interference_mm), Kind.STRESS)
        # Elastic sums: past yield none of them holds.
        status = Status.ASK if self.yields(interference_mm) else Status.GOOD
        closes = () if self.is_solid else (ResultLine("Bore closes in by", closing, status, self.closing_working(interference_mm)),)
        return (
            ResultLine("Contact pressure", pressure, status, self.pressure_working(interference_mm)),
            ResultLine("Press force", force, status, self.force_working(interference_mm)),
            *closes,
            self._strength(interference_mm),
        )

    def yields(self, interference_mm: float) -> bool:
        """Whether the bushing may give way at its bore."""
        return self.bushing.yield_mpa is not None and self.bore_stress_mpa(interference_mm) >= self.bushing.yield_mpa

    def _strength(self, interference_mm: float) -> ResultLine:
        """Whether the bushing's material bears the stress at its bore. The round stress is the only one there, so it is the von
        Mises stress.

        In a solid part radial and round stress are alike, and so is their von Mises stress.
        """
        solid, stress = self.bushing, self.bore_stress_mpa(interference_mm)
        most = solid.allowed_mpa if solid.allowed_mpa is not None else solid.yield_mpa
        amounts: Amounts = {"stress": Amount(stress, Kind.STRESS), "most": Amount(most or 0.0, Kind.STRESS), "name": solid.name}
        amounts["where"] = "in it" if self.is_solid else "at the bore"
        status = Status.GOOD
        if most is None:
            words, status = "{stress} {where}; not checked: nothing says how much {name} stands. Ask its maker.", Status.ASK
        elif solid.allowed_mpa is not None:
            words = "{stress} {where}, of {most} allowed."
            if stress >= most:
                words, status = "{stress} {where}, and {most} is allowed: it cracks or gives way.", Status.STOP
        else:
            words = "{stress} {where}; {name} yields from {most}, by its usual grades."
            if stress >= most:
                words, status = (
                    "{stress} {where}; {name} may yield from {most}: nothing told here holds past that. Ask.",
                    Status.ASK,
                )
        working = Working(
            "Stress at the bore",
            "σ = 2·p·D² / (D²−d²), von Mises",
            (
                Given("p", "contact pressure", Amount(self.pressure_mpa(interference_mm), Kind.STRESS)),
                Given("D", "joint", length(self.joint_mm, fine=True)),
                Given("d", "bore of the bushing", length(self.inside_mm, fine=True)),
            ),
            Amount(stress, Kind.STRESS),
            "Thick cylinders (Lamé), plane stress; strength by the sheet, or the least proof stress of its grades (from memory)",
        )
        return ResultLine(
            "Stress in the part" if self.is_solid else "Stress at the bore", Sentence(words, amounts), status, working
        )

    def hot_line(self, interference_mm: float, bushing_c: float, seat_c: float) -> ResultLine:
        """Whether it still holds at temperature, and where it lets go."""
        left = self.hot_interference_mm(interference_mm, bushing_c, seat_c)
        lets_go = self.lets_go_c(interference_mm)
        working = self.hot_working(interference_mm, bushing_c, seat_c)
        amounts = {"left": length(left, fine=True), "at": Amount(bushing_c, Kind.TEMPERATURE)}
        if left <= 0:
            words = "Loose at {at}: it turns in its seat. Ask for a tighter fit, or pin it."
            return ResultLine("Hot", Sentence(words, amounts), Status.STOP, working)
        words, status = "{left} left at {at}", Status.GOOD
        if lets_go is not None:
            amounts["lets_go"] = Amount(lets_go, Kind.TEMPERATURE)
            words += "; both at {lets_go} it lets go"
            if lets_go - bushing_c < _NEAR_LETTING_GO_K:
                status = Status.CARE
        if self.yields(interference_mm):
            status = Status.ASK
            words += ", if it did not yield"
        if working.notes:
            status = Status.ASK
            words += ". Outside the temperatures its expansion is known for: ask"
        return ResultLine("Hot", Sentence(words + ".", amounts), status, working)

    def pressure_working(self, interference_mm: float) -> Working:
        """How the pressure is reached."""
        return Working(
            "Contact pressure",
            "p = δ / ( D·[ (1/E₂)·((Dₒ²+D²)/(Dₒ²−D²)+ν₂) + (1/E₁)·((D²+d²)/(D²−d²)−ν₁) ] )",
            (*self._givens(interference_mm), *self._elastic()),
            Amount(self.pressure_mpa(interference_mm), Kind.STRESS),
            _LAME,
        )

    def closing_working(self, interference_mm: float) -> Working:
        """How the closing-in is reached."""
        return Working(
            "How far the bore closes in",
            "Δd = 2·p·d·D² / ( E₁·(D²−d²) )",
            (
                Given("p", "contact pressure", Amount(self.pressure_mpa(interference_mm), Kind.STRESS)),
                *self._givens(interference_mm)[1:3],
                self._elastic()[0],
            ),
            length(self.closing_mm(interference_mm), fine=True),
            _LAME,
        )

    def force_working(self, interference_mm: float) -> Working:
        """How the press force is reached."""
        low, high = self.force_n(interference_mm)
        return Working(
            "Press force at the end of the stroke",
            "F = f·p·π·D·L",
            (
                Given("f", "friction, from and to", f"{self.friction[0]:g} to {self.friction[1]:g}"),
                Given("p", "contact pressure", Amount(self.pressure_mpa(interference_mm), Kind.STRESS)),
                Given("D", "joint", length(self.joint_mm, fine=True)),
                Given("L", "pressed length", length(self.length_mm)),
            ),
            between(low, high, Kind.FORCE),
            "Coulomb friction on the joint; friction by the sheet or common practice",
        )

    def hot_working(self, interference_mm: float, bushing_c: float, seat_c: float) -> Working:
        """How the interference left at temperature is reached."""
        past = [
            Sentence(
                "The expansion of {name} is known from {low} to {upto}; outside that it is a guess.",
                {
                    "name": solid.name,
                    "low": Amount(max(solid.expansion.spans[0].from_c, ABSOLUTE_ZERO_C), Kind.TEMPERATURE),
                    "upto": Amount(solid.expansion.spans[-1].upto_c, Kind.TEMPERATURE),
                },
            )
            for solid, at in ((self.bushing, bushing_c), (self.seat, seat_c))
            if not solid.expansion.knows(at)
        ]
        return Working(
            "Interference at temperature",
            "δₜ = δ + D·(α₁·(T₁−20) − α₂·(T₂−20))",
            (
                Given("δ", "interference at 20 °C", length(interference_mm, fine=True)),
                Given("D", "joint", length(self.joint_mm, fine=True)),
                Given(
                    "α₁", f"expansion of {self.bushing.name}", between(*self.bushing.expansion.bounds(bushing_c), Kind.EXPANSION)
                ),
                Given("T₁", "bushing", Amount(bushing_c, Kind.TEMPERATURE)),
                Given("α₂", f"expansion of {self.seat.name}", between(*self.seat.expansion.bounds(seat_c), Kind.EXPANSION)),
                Given("T₂", "seat", Amount(seat_c, Kind.TEMPERATURE)),
            ),
            length(self.hot_interference_mm(interference_mm, bushing_c, seat_c), fine=True),
            "A bore grows as if it were solid; expansions from memory of handbooks, or the sheet, the side that leaves least",
            tuple(past),
        )

    def _givens(self, interference_mm: float) -> tuple[Given, ...]:
        return (
            Given("δ", "interference", length(interference_mm, fine=True)),
            Given("d", "bore of the bushing", length(self.inside_mm, fine=True)),
            Given("D", "joint", length(self.joint_mm, fine=True)),
            Given("Dₒ", "outside of the seat", length(self.seat_outside_mm)),
        )

    def _elastic(self) -> tuple[Given, ...]:
        return tuple(
            Given(
                f"E{n}, ν{n}", solid.name, Sentence("{e}, " + f"{solid.poisson:g}", {"e": Amount(solid.modulus_mpa, Kind.STRESS)})
            )
            for n, solid in (("₁", self.bushing), ("₂", self.seat))
        )
