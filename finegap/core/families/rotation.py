"""Which way a shaft turns: asked before anything moves, where it decides which port is suction. Common practice, no source."""

from __future__ import annotations

from collections.abc import Mapping

from finegap.core.drawing.end_view import Centre
from finegap.core.drawing.section import Marks
from finegap.core.drawing.views import Pump
from finegap.core.families.builds import NOT_KNOWN, Option
from finegap.core.families.steps import Stage, Step, Task

ROTATION = Option(
    "rotation",
    "Shaft turns, seen from the drive end",
    {NOT_KNOWN: "not known yet", "clockwise": "clockwise", "counterclockwise": "counterclockwise"},
    names=("suction", "discharge"),
)
WAYS = ("clockwise", "counterclockwise")


def rotation(suction: Mapping[str, str]) -> tuple[Step, ...]:
    """The steps that ask for it, and say which side is suction then; ``suction`` is that side for each way."""
    asked = Step(
        Stage.PREPARE,
        "rotation_known",
        "Which way the shaft turns is known: by the arrow on the pump, by its motor, or by the works' list.",
        "It decides which port is suction, and which sides wear. Once the pump is apart nobody can tell.",
        hold=True,
        tasks=(Task("asked", "rotation"),),
    )
    told = (
        Step(
            Stage.PREPARE,
            f"suction_{way}",
            f"It turns {way}, seen from the drive end: suction is {suction[way]}. Both ports marked so.",
            "Pressure pushes what turns towards suction: bores and tips are worn there, and measured there.",
            tools=("paint marker",),
            when={"rotation": (way,)},
        )
        for way in WAYS
    )
    return (asked, *told)


def arrows(pump: Pump, wheel: Centre, d: float, ports: Centre, reach: float, suction: float) -> Marks:
    """How it turns, and where the liquid goes in and out; nothing while that is not known.

    ``d`` is the diameter of the bow round ``wheel``, ``reach`` that of the ports' mouths; ``suction`` is the angle of the port that
    is suction when it turns clockwise. The other lies across from it.
    """
    clockwise = pump.has("rotation", "clockwise")
    if not clockwise and not pump.has("rotation", "counterclockwise"):
        return ()
    into = suction if clockwise else -suction
    return (*wheel.turning(d, clockwise), *ports.flow(into, reach, inward=True), *ports.flow(-into, reach, inward=False))
