"""Something seen at a step of Prove."""

from __future__ import annotations

from dataclasses import dataclass

from finegap.core.proof.first_hour import NOISES
from finegap.core.stamp import NOBODY, Stamp


@dataclass(frozen=True)
class Proof:
    """What was seen at one step, which proves nothing at another.

    ``value`` is in the internal unit of what was seen; ``places`` are clock positions where the shaft dragged.
    """

    step: str
    seen: str
    value: float | None = None
    typed: str = ""
    places: tuple[str, ...] = ()
    stamp: Stamp = NOBODY


@dataclass(frozen=True)
class Sight:
    """The same as it is shown."""

    id: str
    step: str
    seen: str
    typed: str
    places: list[str]
    by: str
    at: str


def sight(proof: Proof) -> Sight:
    """Something seen, with a noise in words."""
    typed = NOISES.get(proof.typed, proof.typed)
    return Sight(proof.stamp.id, proof.step, proof.seen, typed, list(proof.places), proof.stamp.by, proof.stamp.at)
