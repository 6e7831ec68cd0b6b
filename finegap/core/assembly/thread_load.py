"""What a torque does in a fastener: how much turns it, how much is lost in the thread and under the head; and what it may carry."""

from __future__ import annotations

import math
from dataclasses import dataclass

from finegap.core.assembly.torque import Thread, thread_arm_mm
from finegap.core.errors import FieldError

PROOF_MPA = {
    "4.6": ((math.inf, 225.0),), "4.8": ((math.inf, 310.0),), "5.6": ((math.inf, 280.0),), "5.8": ((math.inf, 380.0),),
    "6.8": ((math.inf, 440.0),), "8.8": ((16.0, 580.0), (math.inf, 600.0)), "9.8": ((16.0, 650.0),), "10.9": ((math.inf, 830.0),),
    "12.9": ((math.inf, 970.0),),
}  # fmt: skip
"""Stress under proof load [MPa] by property class, each up to a nominal diameter [mm] (ISO 898-1:2013, table 3, from memory)."""

_LEAST_MM, _MOST_MM = 3.0, 39.0
"""Threads for which ISO 898-1 gives proof loads lie between these."""


@dataclass(frozen=True)
class Shares:
    """A torque in its three parts [N.m]: what stretches the bolt, friction in the thread, friction under the head."""

    stretch_n_m: float
    thread_n_m: float
    head_n_m: float

    @property
    def torque_n_m(self) -> float:
        """All of it."""
        return self.stretch_n_m + self.thread_n_m + self.head_n_m


def shares_of(preload_n: float, thread: Thread, friction_thread: float, friction_head: float, face_mm: float) -> Shares:
    """The torque for a preload.

    Parameters
    ----------
    preload_n : float
        What the bolt is stretched to.
    thread : Thread
        Of 60 degrees.
    friction_thread, friction_head : float
        In the thread and under the head, apart.
    face_mm : float
        Mean diameter of the bearing face.

    Raises
    ------
    FieldError
        Friction that cannot be, or a face within the thread.
    """
    for name, friction in (("friction in the thread", friction_thread), ("friction under the head", friction_head)):
        if not 0 < friction <= 1:
            raise FieldError(name, f"{friction:g} cannot be.", "Expected more than 0, up to 1.")
    if face_mm <= thread.diameter_mm:
        raise FieldError("face", "it is inside the thread.", "Expected the mean diameter of the face under head or nut.")
    stretch = thread_arm_mm(thread, 0.0)
    arms = (stretch, thread_arm_mm(thread, friction_thread) - stretch, friction_head * face_mm / 2)
    return Shares(*(preload_n * arm / 1000 for arm in arms))


def preload_of(torque_n_m: float, thread: Thread, friction_thread: float, friction_head: float, face_mm: float) -> float:
    """The preload a torque makes [N]; as ``shares_of``."""
    return torque_n_m / shares_of(1.0, thread, friction_thread, friction_head, face_mm).torque_n_m


def stress_area_mm2(thread: Thread) -> float:
    """Where a bolt would part: on the mean of pitch and root diameter (ISO 898-1)."""
    root = thread.diameter_mm - 1.22687 * thread.pitch_mm
    return math.pi / 4 * ((thread.pitch_diameter_mm + root) / 2) ** 2


def proof_load_n(thread: Thread, strength: str) -> float:
    """What a bolt of a property class has to carry without a lasting stretch [N].

    Raises
    ------
    FieldError
        A class or a size the standard has no load for.
    """
    if not _LEAST_MM <= thread.diameter_mm <= _MOST_MM:
        problem = f"{thread.diameter_mm:g} mm is outside the standard."
        raise FieldError("thread", problem, f"Expected {_LEAST_MM:g} mm to {_MOST_MM:g} mm.")
    stress = next((mpa for upto, mpa in PROOF_MPA.get(strength, ()) if thread.diameter_mm <= upto), None)
    if stress is None:
        raise FieldError(
            "property class", f"{strength} has no proof load at that size.", f"Expected one of: {', '.join(PROOF_MPA)}."
        )
    return stress * stress_area_mm2(thread)
