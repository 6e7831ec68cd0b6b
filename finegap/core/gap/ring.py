"""Adjusting ring or sleeve coupling: the shaft is positioned with leaves of the wanted thickness."""

from __future__ import annotations

from finegap.core.gap.move import Move, Window, way_of
from finegap.core.showing import Amounts, Sentence, length
from finegap.core.working import Given, Working

_HOW = Sentence("Leaves on both sides of the shaft; screws on the pump side tightened evenly, the motor side never touched.")


def move_for(gap_mm: float | None, window: Window) -> Move:
    """What to do next: set to the leaves of the target, or correct by what the check was off. Lengths in mm."""
    wanted = window.target_mm - (gap_mm or 0.0)
    amounts: Amounts = {
        "target": length(window.target_mm),
        "wanted": length(abs(wanted)),
        "way": way_of(wanted).value.capitalize(),
    }
    if gap_mm is None:
        headline = Sentence("Set the shaft with {target} of leaves between rotor and head", amounts)
    else:
        headline = Sentence("{way} {wanted}: loosen the pump side and set the shaft again", amounts)
    working = Working(
        title="Change wanted",
        formula="Δ = c − m",
        given=(
            Given("c", "end clearance wanted", length(window.target_mm)),
            Given("m", "gap as checked", length(gap_mm or 0.0)),
        ),
        result=length(wanted),
        source="definition",
    )
    return Move(way_of(wanted), wanted, headline, (_HOW,), working)
