"""Packing: cut length, where the joints go, the lantern ring."""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import Enum

from finegap.core.errors import FieldError
from finegap.core.formatting import length
from finegap.core.result_lines import ResultLine
from finegap.core.working import Given, Working


class Joints(Enum):
    """The two schools of staggering joints."""

    OPPOSITE = "opposite sides alternately"
    QUARTER = "every 90 degrees"

    @property
    def step_deg(self) -> int:
        """From one joint to the next."""
        return 180 if self is Joints.OPPOSITE else 90

    def at_deg(self, ring: int) -> int:
        """Where the joint of a ring goes, clockwise from the top; ``ring`` counts from 1, at the bottom of the box."""
        return (ring - 1) * self.step_deg % 360

    def said(self, ring: int) -> str:
        """The same, as the clock says it."""
        return f"{self.at_deg(ring) // 30 or 12} o'clock"


@dataclass(frozen=True)
class Packing:
    """Packing of a stuffing box: shaft and section in mm, rings, school, and after which ring the lantern ring comes (0: none)."""

    shaft_mm: float
    section_mm: float
    rings: int
    joints: Joints = Joints.OPPOSITE
    lantern_after: int = 0

    def __post_init__(self) -> None:
        for name, value in (("shaft", self.shaft_mm), ("section", self.section_mm)):
            if value <= 0:
                raise FieldError(name, "it must be more than zero.", "Expected a length.")
        if self.section_mm > self.shaft_mm:
            raise FieldError("section", "it is thicker than the shaft.", "Expected the side of the packing's square.")
        if self.rings < 1:
            raise FieldError("rings", "there is none.", "Expected one ring or more.")
        if not 0 <= self.lantern_after < self.rings:
            raise FieldError("lantern ring", f"it cannot follow ring {self.lantern_after}.", f"Expected 0 to {self.rings - 1}.")

    @property
    def cut_mm(self) -> float:
        """Length of a ring along its middle."""
        return math.pi * (self.shaft_mm + self.section_mm)

    @property
    def box_mm(self) -> float:
        """Bore of the stuffing box the rings fill."""
        return self.shaft_mm + 2 * self.section_mm

    def lines(self) -> tuple[ResultLine, ...]:
        """Length to cut and bore of the box, each with its working."""
        given = (Given("d", "shaft", length(self.shaft_mm)), Given("s", "section of the packing", length(self.section_mm)))
        source = "Length of the middle line (Pappus); makers add for compression differently, so it is nominal"
        cut = Working("Length to cut a ring", "L = π·(d + s)", given, length(self.cut_mm), source)
        box = Working("Stuffing box bore", "D = d + 2·s", given, length(self.box_mm), "Two sections beside the shaft")
        return (
            ResultLine("Cut each ring", length(self.cut_mm), working=cut),
            ResultLine("Stuffing box bore", length(self.box_mm), working=box),
        )
