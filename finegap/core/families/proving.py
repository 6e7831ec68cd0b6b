"""What ends a job, whatever the family. Common practice, no source; local rules and the maker's manual rule."""

from __future__ import annotations

from finegap.core.families.steps import Stage, Step, Task

GUARDS = Step(Stage.PROVE, "guards", "Guards back on; hands away; locks removed by those who set them.", caution=True, hold=True)
BUMP = Step(
    Stage.PROVE,
    "rotation",
    "Valves open; rotation right by a bump, and suction where it was marked.",
    caution=True,
    hold=True,
    after=("guards", "free_turn"),
)
FIRST_HOUR = Step(
    Stage.PROVE,
    "first_hour",
    "First hour: flow, pressure, power, noise and temperature as they should be.",
    tasks=(Task("first-hour"),),
    tools=("bucket and watch, or flow meter", "thermometer"),
)


def seals_watched(text: str, why: str) -> Step:
    """The seals in their first minutes, in the words of a family."""
    return Step(
        Stage.PROVE,
        "seals_watched",
        text,
        why,
        caution=True,
        look="Sleeves and rags away from the turning shaft.",
        tools=("thermometer",),
        needs=("rotation",),
    )
