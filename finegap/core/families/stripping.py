"""What ends a strip, whatever the family. Common practice, no source."""

from __future__ import annotations

from finegap.core.families.steps import Stage, Step

CLEAN = Step(
    Stage.STRIP,
    "clean",
    "Every part cleaned and laid out, faces up.",
    "Dirt reads as size, and hides a crack.",
    consumables=("cleaning liquid", "lint-free cloth"),
)
DISCARD = Step(
    Stage.STRIP,
    "discard",
    "What is never used twice thrown out: O-rings, seals, gaskets that came out.",
    "None of them seals a second time unless the maker says so.",
)
