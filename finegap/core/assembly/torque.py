"""Torque: what the wrench is set to with an adapter, the preload it makes, the order of the bolts, and a lock nut's tang."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from fractions import Fraction

from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Kind, Sentence, between, length
from finegap.core.numerals import spelled_out
from finegap.core.working import Given, Working

COARSE_MM = {
    4: 0.7, 5: 0.8, 6: 1.0, 8: 1.25, 10: 1.5, 12: 1.75, 14: 2.0, 16: 2.0, 18: 2.5, 20: 2.5, 22: 2.5, 24: 3.0, 27: 3.0, 30: 3.5,
    33: 3.5, 36: 4.0,
}  # fmt: skip
"""Pitches of the coarse metric series (ISO 261), by nominal diameter, mm."""

FRICTION = {
    "dry": (0.14, 0.24),
    "oiled": (0.10, 0.16),
    "anti-seize": (0.06, 0.12),
}
"""Friction in thread and under the head from and to, by condition: after the classes of VDI 2230-1, table A5, from memory."""

DEFAULT_PASSES = (0.4, 0.7, 1.0)
"""Shares of the torque in passes over several fasteners. Common practice, no source."""

_MOST_SHARE = 2.0
"""A setting further above the torque hangs on how far the hand's pull passes the nut. Common practice, no source."""

_HEAD_MEAN = 1.27
"""Mean diameter of the bearing face of a hexagon head over its nominal diameter. Common practice."""

_COS_FLANK = math.cos(math.radians(30))
_METRIC = re.compile(r"^M(\d+(?:[.,]\d+)?)(?:\s*[x×]\s*(\d+(?:[.,]\d+)?))?$", re.IGNORECASE)
_INCH = re.compile(r"^(?:(\d+)(?:\s+|-))?(\d+)/(\d+)\s*-\s*(\d+)$|^(\d+)\s*-\s*(\d+)$")


@dataclass(frozen=True)
class Thread:
    """A thread of 60 degrees: nominal diameter and pitch in mm (ISO 68-1, ISO 724)."""

    name: str
    diameter_mm: float
    pitch_mm: float

    @property
    def pitch_diameter_mm(self) -> float:
        """Mean diameter on which thread friction acts."""
        return self.diameter_mm - 0.64952 * self.pitch_mm


def thread_of(text: str, field: str = "thread") -> Thread:
    """Read a thread: ``M12``, ``M40x1.5``, ``1/2-13``, ``1-8``.

    Raises
    ------
    FieldError
        Not a thread, a coarse pitch not kept here, or a pitch no thread of that size has.
    """
    expected = "Expected one such as M12, M40x1.5 or 1/2-13."
    metric, inch = _METRIC.match(text.strip()), _INCH.match(spelled_out(text.strip()))
    if metric:
        diameter = float(metric[1].replace(",", "."))
        pitch = float(metric[2].replace(",", ".")) if metric[2] else COARSE_MM.get(int(diameter), 0.0)
        if not pitch:
            raise FieldError(field, f"the pitch of {text} is not kept here.", expected)
    elif inch and all(g != "0" for g in inch.groups()):
        whole, top, bottom, turns, alone, alone_turns = inch.groups()
        size = Fraction(int(alone)) if alone else int(whole or 0) + Fraction(int(top), int(bottom))
        diameter, pitch = float(size * Fraction("25.4")), 25.4 / int(turns or alone_turns)
    else:
        raise FieldError(field, f"“{text[:30]}” is not a thread.", expected)
    if not 0.02 < pitch / max(diameter, 1e-9) < 0.35:
        raise FieldError(field, f"no thread of {diameter:g} mm has a pitch of {pitch:g} mm.", expected)
    return Thread(text.strip(), diameter, pitch)


def thread_arm_mm(thread: Thread, friction: float) -> float:
    """Torque in the thread over preload, in mm: the wedge of the lead, steeper by friction on flanks of 60 degrees."""
    d2 = thread.pitch_diameter_mm
    lead = math.atan(thread.pitch_mm / (math.pi * d2))
    return d2 / 2 * math.tan(lead + math.atan(friction / _COS_FLANK))


@dataclass(frozen=True)
class Adapter:
    """A wrench with an adapter, in mm: drive to the hand's grip, drive to the nut, and the angle between them in degrees.

    0 degrees carries straight on from the wrench, 90 stands square to it, 180 is folded back.
    """

    wrench_mm: float
    adapter_mm: float
    angle_deg: float

    def __post_init__(self) -> None:
        if self.wrench_mm <= 0:
            raise FieldError("wrench, length", "it must be more than zero.", "Expected from the drive to the middle of the grip.")
        if self.adapter_mm < 0:
            raise FieldError("adapter, length", "it cannot be negative.", "Expected from the drive to the nut.")
        if self.adapter_mm >= self.wrench_mm:
            raise FieldError("adapter, length", "it is not shorter than the wrench.", "Expected less than the wrench's length.")
        if not 0 <= self.angle_deg <= 180:
            raise FieldError("adapter, angle", f"{self.angle_deg:g}° cannot be.", "Expected 0 (straight on) to 180 (folded back).")
        if self.share > _MOST_SHARE:
            problem = f"folded back so far the wrench is set to {self.share:.1f} times the torque: a hand's breadth decides."
            raise FieldError("adapter, angle", problem, "Expected a shorter adapter, or one that stands further out.")

    @property
    def share(self) -> float:
        """What the wrench is set to over what the nut gets."""
        return self.wrench_mm / (self.wrench_mm + self.adapter_mm * math.cos(math.radians(self.angle_deg)))

    def working(self, nut_n_m: float) -> Working:
        """How the setting is reached."""
        return Working(
            "Wrench setting with an adapter",
            "Tₛ = T·L / (L + E·cos φ)",
            (
                Given("T", "at the nut", Amount(nut_n_m, Kind.FINE_TORQUE)),
                Given("L", "drive to grip", length(self.wrench_mm)),
                Given("E", "drive to nut", length(self.adapter_mm)),
                Given("φ", "angle of the adapter", Amount(self.angle_deg, Kind.ANGLE)),
            ),
            Amount(nut_n_m * self.share, Kind.FINE_TORQUE),
            "Moments about the nut, the hand's force square to the wrench",
            (Sentence("At 90° nothing changes; folded back the setting rises."),),
        )


@dataclass(frozen=True)
class Joint:
    """A fastener for its preload: thread, friction from and to, and mean diameter of the face under head or nut in mm."""

    thread: Thread
    friction: tuple[float, float]
    face_mm: float | None = None

    def __post_init__(self) -> None:
        low, high = self.friction
        if not 0 < low <= high <= 1:
            raise FieldError("friction", f"{low:g} to {high:g} cannot be.", "Expected more than 0, up to 1, the lower first.")
        if self.face_mm is not None and self.face_mm <= self.thread.diameter_mm:
            raise FieldError("face", "it is inside the thread.", "Expected the mean diameter of the face under head or nut.")

    @property
    def _face_mm(self) -> float:
        return self.face_mm if self.face_mm is not None else _HEAD_MEAN * self.thread.diameter_mm

    def arm_mm(self, friction: float) -> float:
        """Torque over preload, in mm: the wedge of the thread, and the face."""
        return thread_arm_mm(self.thread, friction) + friction * self._face_mm / 2

    def preload_n(self, low_n_m: float, high_n_m: float) -> tuple[float, float]:
        """Least and most preload: the lower torque with the higher friction, and the other way round."""
        slow, fast = self.friction
        return 1000 * low_n_m / self.arm_mm(fast), 1000 * high_n_m / self.arm_mm(slow)

    def working(self, low_n_m: float, high_n_m: float, condition: str) -> Working:
        """How the preload is reached."""
        low, high = self.preload_n(low_n_m, high_n_m)
        return Working(
            "Preload from torque",
            "F = T / ( d₂/2·tan(φ+ρ′) + μ·Dₖ/2 ),   tan φ = P/(π·d₂),   tan ρ′ = μ/cos 30°",
            (
                Given("T", "torque, from and to", between(low_n_m, high_n_m, Kind.FINE_TORQUE)),
                Given("P", f"pitch of {self.thread.name}", length(self.thread.pitch_mm)),
                Given("d₂", "pitch diameter", length(self.thread.pitch_diameter_mm, fine=True)),
                Given("Dₖ", "mean diameter of the face", length(self._face_mm)),
                Given("μ", f"friction, {condition}", f"{self.friction[0]:g} to {self.friction[1]:g}"),
            ),
            between(low, high, Kind.FORCE),
            "Equilibrium on the thread's wedge; friction classes of VDI 2230-1, table A5 (from memory)",
        )


def criss_cross(count: int) -> tuple[int, ...]:
    """Order in which fasteners on a circle are tightened, numbered clockwise from 1.

    An even number goes by opposite pairs, each pair as far as can be from those before it; an odd one by a star.
    """
    if count < 1:
        raise FieldError("fasteners", f"{count} cannot be.", "Expected one or more.")
    if count % 2:
        step = max((count - 1) // 2, 1)
        return tuple(i * step % count + 1 for i in range(count))
    half, starts = count // 2, [0]
    while len(starts) < half:
        left = [i for i in range(half) if i not in starts]
        starts.append(max(left, key=lambda i: (min(_apart(i, j, half) for j in starts), _apart(i, starts[-1], half), -i)))
    return tuple(place + 1 for i in starts for place in (i, i + half))


def _apart(one: int, other: int, round_: int) -> int:
    return min((one - other) % round_, (other - one) % round_)


@dataclass(frozen=True)
class Tang:
    """A lock nut's slots, its washer's tangs, both evenly spaced, and the turn in degrees between lower and upper torque."""

    slots: int
    tangs: int
    turn_deg: float | None = None

    def __post_init__(self) -> None:
        for name, value in (("slots", self.slots), ("tangs", self.tangs)):
            if value < 1:
                raise FieldError(name, f"{value} cannot be.", "Expected one or more.")
            if value > 100:
                raise FieldError(name, f"{value} are more than any nut has.", "Expected up to 100.")
        if self.turn_deg is not None and not 0 < self.turn_deg <= 360:
            raise FieldError("turn", f"{self.turn_deg:g}° cannot be.", "Expected more than 0, up to 360.")

    @property
    def furthest_deg(self) -> float:
        """How far at most to turn on until a tang lies in a slot."""
        return 360 / math.lcm(self.slots, self.tangs)

    @property
    def sentence(self) -> Sentence:
        """What to do at the nut."""
        words = "A tang meets a slot every {far}: from the lower torque turn on, never back, at most that far."
        amounts = {"far": Amount(self.furthest_deg, Kind.ANGLE)}
        if self.turn_deg is None:
            return Sentence(words + " The wrench must not pass the upper torque before they meet.", amounts)
        amounts["turn"] = Amount(self.turn_deg, Kind.ANGLE)
        if self.turn_deg >= self.furthest_deg:
            return Sentence(words + " Lower to upper torque is {turn} of turn: there is always one in range.", amounts)
        return Sentence(
            words + " Lower to upper torque is only {turn}: if none lies in a slot by then, take it off and try another washer.",
            amounts,
        )

    @property
    def always(self) -> bool | None:
        """Whether a tang meets a slot within the torque range from any starting angle. ``None`` where the turn is not known."""
        return None if self.turn_deg is None else self.turn_deg >= self.furthest_deg

    @property
    def working(self) -> Working:
        """How the angle is reached."""
        return Working(
            "Turn to the next tang",
            "θ = 360° / lcm(z₁, z₂)",
            (Given("z₁", "slots of the nut", str(self.slots)), Given("z₂", "tangs of the washer", str(self.tangs))),
            Amount(self.furthest_deg, Kind.ANGLE),
            "Counting: evenly spaced slots and tangs",
        )
