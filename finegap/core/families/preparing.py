"""What comes before a pump is opened, whatever its family. Common practice, no source; local rules and the maker's manual rule."""

from __future__ import annotations

from finegap.core.families.steps import Stage, Step, Task

IDENTIFY = Step(
    Stage.PREPARE,
    "identify",
    "Nameplate and kit tag read: model, serial, seal, materials and elastomer agree with the sheet.",
    "The wrong sheet is the wrong gap; the wrong kit is found when the pump is apart.",
    tells=("Sheet: {maker} {model}, serial {serial}.", "Seal: {seal}. Elastomer by the sheet: {elastomer}."),
)
READY = Step(
    Stage.PREPARE,
    "ready",
    "Kit, tools, gauges and consumables are on the bench: nothing in the list beside this is missing.",
    "Opened and waiting for a part, a pump rusts and its parts go astray. Kits are opened by tearing, not with a blade.",
    tasks=(Task("ready"),),
)
ISOLATE = Step(
    Stage.PREPARE,
    "isolate",
    "Isolated, locked and tagged at every source; start tried and dead.",
    caution=True,
    hold=True,
    tools=("lock and tag",),
)
PRESSURE = Step(
    Stage.PREPARE,
    "pressure",
    "Pressure relieved on both sides and in any jacket; hot surfaces cooled.",
    caution=True,
    hold=True,
    tells=("It pumps {liquid} at {temperature}, {pressure}.",),
)
FLUSH = Step(
    Stage.PREPARE,
    "flush",
    "Flushed where the liquid asks for it, and ventilated; its data sheet read by everyone here.",
    caution=True,
    hold=True,
    consumables=("flushing liquid that suits the seals",),
)
PROTECT = Step(
    Stage.PREPARE,
    "protect",
    "Eye protection on; gloves for edges, none near a turning shaft.",
    caution=True,
    hold=True,
    tools=("eye protection", "gloves"),
)


def drain(text: str, why: str) -> Step:
    """Drained, in the words of a family."""
    return Step(
        Stage.PREPARE,
        "drain",
        text,
        why,
        caution=True,
        hold=True,
        tells=("{liquid}: {hazards}.",),
        consumables=("drain pan", "rags"),
    )


def lift(*tells: str) -> Step:
    """The lift planned; ``tells`` say what is heavy."""
    return Step(
        Stage.PREPARE,
        "lift",
        "Lift planned: sling, path and where it is set down; two people or a hoist for what is heavy.",
        caution=True,
        hold=True,
        tells=tells,
        tools=("sling and hoist",),
    )
