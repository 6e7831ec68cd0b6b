"""Adjusting ring or sleeve coupling: the shaft is positioned with leaves of the wanted thickness."""

from __future__ import annotations

from finegap.core.families.family import GapWords
from finegap.core.formatting import Amounts, Kind, Sentence, between, length
from finegap.core.gap.move import Move, Window, way_of
from finegap.core.working import Given, Working

_COUPLING = Sentence("Leaves on both sides of the shaft; screws on the pump side tightened evenly, the motor side never touched.")
_RING = Sentence("Leaves on both sides of the shaft; the ring's screws tightened evenly, and the shaft has not crept.")


def move_for(
    gap_mm: float | None, window: Window, words: GapWords, coupling: bool = False, depth_mm: tuple[float, float] | None = None
) -> Move:
    """The next move: set the shaft with the target's leaves, or correct it by what the check was off. Lengths in mm.

    ``depth_mm`` is how far the bearing has to lie below the cover face.
    """
    wanted = window.target_mm - (gap_mm or 0.0)
    amounts: Amounts = {
        "target": length(window.target_mm),
        "wanted": length(abs(wanted)),
        "way": way_of(wanted).value.capitalize(),
    }
    loosen = "the pump side of the coupling" if coupling else "the ring"
    if gap_mm is None:
        headline = Sentence("Set the shaft with {target} of leaves where the sheet's figure shows", amounts)
    else:
        headline = Sentence("{way} {wanted}: loosen {loosen} and set the shaft again", {"loosen": loosen} | amounts)
    working = Working(
        title="Change wanted",
        formula="Δ = c − m",
        given=(
            Given("c", f"{words.name} wanted", length(window.target_mm)),
            Given("m", "gap as checked", length(gap_mm or 0.0)),
        ),
        result=length(wanted),
        source="definition",
    )
    details: tuple[Sentence, ...] = (_COUPLING if coupling else _RING,)
    if depth_mm:
        lies = {"span": between(*depth_mm, Kind.LENGTH)}
        details = (*details, Sentence("The bearing lies {span} below the cover face: check it first.", lies))
    return Move(way_of(wanted), wanted, headline, details, working)
