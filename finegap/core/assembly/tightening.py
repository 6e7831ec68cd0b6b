"""Tightening: which fastener comes next in which pass, and what was logged."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property

from finegap.core.assembly.declared import Torque
from finegap.core.assembly.torque import Joint, criss_cross
from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Kind, Sentence, Units, between
from finegap.core.stamp import NOBODY, Stamp


@dataclass(frozen=True)
class Wrench:
    """A torque wrench of the cabinet, with its range in N.m."""

    tag: str
    low_n_m: float
    high_n_m: float
    overdue: bool

    def reaches(self, n_m: float) -> bool:
        """Whether a torque lies in its range."""
        return self.low_n_m <= n_m <= self.high_n_m


_LEAST_SHARE, _MOST_SHARE = 0.1, 3.0
"""What a wrench is usually set to, as shares of the sheet's torque: passes begin low, an adapter goes high (no source)."""


def wrench_for(n_m: float, wrenches: Iterable[Wrench]) -> str:
    """The first wrench that reaches a torque, one in date before one that is not; empty where none does."""
    reach = [w for w in wrenches if w.reaches(n_m)]
    return min(reach, key=lambda w: (w.overdue, w.tag)).tag if reach else ""


@dataclass(frozen=True)
class Tightened:
    """A torque as logged: which fasteners, in which pass (from 1), what they got at the nut in N.m.

    ``made`` counts what was done on the job: the larger was done later. ``typed`` is what the wrench was set to, ``adapter`` its
    lengths in words, ``overdue`` that the wrench was past its date. What was struck out stays in the log, and does not count.
    """

    fastener: str
    pass_number: int
    bolts: tuple[int, ...]
    at_nut_n_m: float
    made: int = 0
    typed: str = ""
    adapter: str = ""
    wrench: str = ""
    certificate: str = ""
    overdue: bool = False
    struck_reason: str = ""
    stamp: Stamp = NOBODY


@dataclass(frozen=True)
class Tightening:
    """A line of the torque table with its log."""

    torque: Torque
    log: tuple[Tightened, ...]

    @property
    def usual_n_m(self) -> tuple[float, float]:
        """Between which settings a wrench usually is for it; others are asked about."""
        return _LEAST_SHARE * self.torque.low_n_m, _MOST_SHARE * self.torque.high_n_m

    @cached_property
    def standing(self) -> tuple[Tightened, ...]:
        """What was not struck out."""
        return tuple(mark for mark in self.log if not mark.struck_reason)

    @cached_property
    def order(self) -> tuple[int, ...]:
        """Order of the fasteners, numbered clockwise."""
        return criss_cross(self.torque.count)

    @cached_property
    def done(self) -> tuple[int, ...]:
        """How many of them are done in each pass."""
        return tuple(sum(len(t.bolts) for t in self.standing if t.pass_number == n + 1) for n in range(len(self.torque.passes)))

    @property
    def pass_number(self) -> int | None:
        """The pass in hand, from 1; ``None`` when all are done."""
        return next((n + 1 for n, done in enumerate(self.done) if done < self.torque.count), None)

    @property
    def complete(self) -> bool:
        """The last pass is logged for every fastener."""
        return self.pass_number is None

    @property
    def left(self) -> tuple[int, ...]:
        """What is left of the pass in hand, in order."""
        return () if self.pass_number is None else self.order[self.done[self.pass_number - 1] :]

    def range_n_m(self, pass_number: int) -> tuple[float, float]:
        """Torque of a pass, from and to."""
        share = self.torque.passes[pass_number - 1]
        return share * self.torque.low_n_m, share * self.torque.high_n_m

    def check(self, pass_number: int, bolts: Sequence[int], at_nut_n_m: float, units: Units) -> None:
        """Whether this may be logged now; ``units`` are those of the error.

        Raises
        ------
        FieldError
            Nothing left, another pass than the one in hand, fasteners out of order, or a torque outside that of the pass.
        """
        name = self.torque.fastener
        if self.pass_number is None:
            raise FieldError("fastener", f"{name}: all are logged.", "Strike one out to tighten again.")
        if pass_number != self.pass_number:
            raise FieldError("pass", f"pass {pass_number} is not in hand.", f"Expected pass {self.pass_number}.")
        if not bolts or tuple(bolts) != self.left[: len(bolts)]:
            said = ", ".join(str(b) for b in bolts) or "none"
            raise FieldError("bolts", f"{said}: out of order.", f"Next is number {self.left[0]}.")
        low, high = self.range_n_m(pass_number)
        slack = 1e-6 * high
        if not low - slack <= at_nut_n_m <= high + slack:
            got, expected = Amount(at_nut_n_m, Kind.FINE_TORQUE).text(units), pass_words(self, pass_number).render(units)
            raise FieldError("torque", f"{got} at the nut is outside this pass.", f"Expected {expected}.")

    @property
    def joint(self) -> Joint | None:
        """For the preload; ``None`` where the sheet prints no thread, or its condition no friction."""
        torque = self.torque
        return Joint(torque.thread, torque.friction, torque.face_mm) if torque.thread and torque.friction else None

    @property
    def open_sentence(self) -> Sentence:
        """What is not logged yet."""
        count = self.torque.count
        if count == 1:
            return Sentence("{name}: torque not logged.", {"name": self.torque.fastener})
        lacking = count - self.done[-1]
        return Sentence("{name}: torque of {n} of {of} not logged.", {
            "name": self.torque.fastener, "n": str(lacking), "of": str(count),
        })  # fmt: skip


def pass_words(tightening: Tightening, pass_number: int) -> Sentence:
    """A pass in a line."""
    low, high = tightening.range_n_m(pass_number)
    kind = Kind.FINE_TORQUE if high < 20 else Kind.TORQUE
    return between(low, high, kind)
