"""Where a stack stands: what is fitted, what comes next, and what stops it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from finegap.core.assembly.declared import Building
from finegap.core.assembly.elastomers import ENCAPSULATED, against_liquid, against_lubricant, elastomer_of, lubricants_for
from finegap.core.assembly.oring import ORing
from finegap.core.assembly.packing import Joints
from finegap.core.errors import FieldError
from finegap.core.families.stack import LinesUp, Ring, Shape, Stack, StackPart
from finegap.core.formatting import Units, render
from finegap.core.result_lines import ResultLine, Status, worst
from finegap.core.stamp import NOBODY, Stamp


@dataclass(frozen=True)
class Fitted:
    """A part of a stack in place: new, or used again with a reason where it usually is new.

    ``made`` counts what was done on the job: the larger was done later.
    """

    stack: str
    part: str
    reused: bool = False
    reason: str = ""
    made: int = 0
    stamp: Stamp = NOBODY


@dataclass(frozen=True)
class Used:
    """What the elastomers of a job meet: the kind of liquid, its temperature in C, and the lubricant on the bench."""

    medium: str
    temperature_c: float
    lubricant: str


@dataclass(frozen=True)
class StackState:
    """A stack with what is fitted.

    ``lines`` are what its elastomers stand and how its rings sit in their grooves, by part key; ``advice`` names lubricants that
    suit all of its elastomers.
    """

    stack: Stack
    fitted: Mapping[str, Fitted]
    lines: Mapping[str, tuple[ResultLine, ...]]
    advice: str
    reusable: frozenset[str]

    @property
    def next(self) -> StackPart | None:
        """The part to be fitted now."""
        return next((p for p in self.stack.parts if p.key not in self.fitted), None)

    @property
    def complete(self) -> bool:
        """All of it is in."""
        return self.next is None

    def must_be_new(self, part: StackPart) -> bool:
        """Not used a second time without a reason."""
        return part.always_new and part.key not in self.reusable

    def check(self, key: str, confirmed: bool, reused: bool, reason: str, units: Units) -> StackPart:
        """Whether a part may go in now; ``units`` are those of the error.

        Raises
        ------
        FieldError
            Not a part of the stack, out of order, its direction not confirmed, used again without a reason though it has to be
            new, a ring that does not fit its groove, an elastomer that is destroyed, or one nobody has asked about.
        """
        part = next((p for p in self.stack.parts if p.key == key), None)
        if part is None:
            raise FieldError("part", f"there is no {key} in this stack.", "Expected a part of it.")
        if part.key in self.fitted:
            raise FieldError("part", f"{part.name} is in already.", "Take it back first, with all that came after it.")
        if self.next is not None and part is not self.next:
            raise FieldError("part", f"{part.name} is out of order.", f"Next comes: {self.next.name}.")
        if part.directed and not confirmed:
            said = "; ".join(self.stack.directions(part))
            raise FieldError("direction", f"{part.name}: not confirmed.", f"Look, and confirm: {said}.")
        if reused and self.must_be_new(part) and not reason.strip():
            raise FieldError(
                "reason", f"{part.name} is not used a second time without a reason.", "Expected a new one, or why not."
            )
        lines = self.lines.get(part.key, ())
        stands = worst(lines)
        if stands is Status.STOP:
            line = next(one for one in lines if one.status is Status.STOP)
            raise FieldError(
                part.name, f"{line.name}: {render(line.text, units)}", "Expected another ring, elastomer or lubricant."
            )
        if stands is Status.ASK and not reason.strip():
            line = next(one for one in lines if one.status is Status.ASK)
            raise FieldError("reason", f"{line.name}: {render(line.text, units)}", "Expected who was asked, and what they said.")
        return part


def stack_state(
    stack: Stack,
    fitted: tuple[Fitted, ...],
    details: Mapping[str, str],
    used: Used,
    reusable: frozenset[str],
    spring: tuple[ResultLine, ...] = (),
) -> StackState:
    """A stack as it stands in a job; ``spring`` is told at its disc springs."""
    codes = {part.key: _code(part, details) for part in stack.parts if part.elastomer}
    rings = {part.key: _in_groove(part.ring, codes.get(part.key, "")) for part in stack.parts if part.ring}
    lines = {key: (*_against(codes[key], used), *rings.get(key, ())) if key in codes else rings[key] for key in codes | rings}
    lines |= {part.key: spring for part in stack.parts if part.shape is Shape.DISC_SPRING and spring}
    suiting = [set(lubricants_for(code)) for code in codes.values()]
    shared = set.intersection(*suiting) if suiting else set()
    advice = f"Lubricants that suit: {', '.join(sorted(shared))}." if shared else ""
    return StackState(stack, {f.part: f for f in fitted if f.stack == stack.key}, lines, advice, reusable)


def _code(part: StackPart, details: Mapping[str, str]) -> str:
    if part.elastomer == "lip":
        return details.get("lip") or details.get("elastomer", "")
    return details.get("elastomer", "") if part.elastomer == "elastomer" else part.elastomer


def _against(code: str, used: Used) -> tuple[ResultLine, ...]:
    return against_liquid(code, used.medium, used.temperature_c), against_lubricant(code, used.lubricant)


def _in_groove(ring: Ring, code: str) -> tuple[ResultLine, ...]:
    elastomer = elastomer_of(code)
    jacketed = elastomer is not None and elastomer.code == ENCAPSULATED
    return ORing.of(ring, jacketed).lines()


def stacks_of(declared: tuple[Stack, ...], building: Building, details: Mapping[str, str]) -> dict[str, Stack]:
    """The stacks of a build by place: the sheet's where it has one, else the family's with its rings; packing ring by ring."""
    sized = (_sized(stack, building.rings) for stack in declared)
    places = {stack.place: stack for stack in (*sized, *building.stacks)}
    return {place: _ring_by_ring(_each(stack, details), building, details) for place, stack in places.items()}


def _sized(stack: Stack, rings: Mapping[str, Ring]) -> Stack:
    """A stack with the sheet's sizes of its rings."""
    if not any(part.key in rings for part in stack.parts):
        return stack
    return replace(stack, parts=tuple(replace(part, ring=rings.get(part.key, part.ring)) for part in stack.parts))


def _each(stack: Stack, details: Mapping[str, str]) -> Stack:
    """A stack with each of a part that the sheet counts, in a row.

    Raises
    ------
    FieldError
        What the sheet gives is no count.
    """
    if not any(part.counted for part in stack.parts):
        return stack
    parts: list[StackPart] = []
    for part in stack.parts:
        names = part.counted.names(details) if part.counted else ()
        each = [replace(part, key=f"{part.key}-{n}", name=name, counted=None) for n, name in enumerate(names, start=1)]
        parts += each or [part]
    return replace(stack, parts=tuple(parts))


def _ring_by_ring(stack: Stack, building: Building, details: Mapping[str, str]) -> Stack:
    packing, counted = building.packing, details.get("packing_rings", "")
    rings = packing.rings if packing else int(counted) if counted.isdigit() else 0
    if not 0 < rings <= 20 or all(p.shape is not Shape.PACKING for p in stack.parts):
        return stack
    joints = packing.joints if packing else Joints.OPPOSITE
    parts: list[StackPart] = []
    for part in stack.parts:
        if part.shape is not Shape.PACKING:
            parts.append(part)
            continue
        for ring in range(1, rings + 1):
            parts.append(
                replace(part, key=f"{part.key}-{ring}", name=f"{part.name} {ring}", facing=f"joint at {joints.said(ring)}")
            )
            if packing and ring == packing.lantern_after:
                parts.append(_LANTERN)
    fixed = {**stack.fixed, "stuffing box": ("flush port",)} if _LANTERN in parts else stack.fixed
    return replace(stack, parts=tuple(parts), fixed=fixed)


_LANTERN = StackPart(
    "lantern", "Lantern ring", Shape.LANTERN, marks=("holes",), lines_up=(LinesUp("holes", "flush port", "stuffing box"),)
)
