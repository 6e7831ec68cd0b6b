"""A gap nothing adjusts: it follows from the parts, and is only checked."""

from __future__ import annotations

from finegap.core.families.family import GapWords
from finegap.core.formatting import Amounts, Sentence, length
from finegap.core.gap.move import Move, Way, Window
from finegap.core.working import Given, Working


def move_for(gap_mm: float | None, window: Window, words: GapWords) -> Move:
    """Check it; outside its window, look for what makes it. Lengths in mm."""
    low, high, gap = window.shown(gap_mm)
    amounts: Amounts = {"gap": gap, "low": low, "high": high}
    working = Working(
        f"{words.name.capitalize()}, as built",
        "low ≤ c ≤ high",
        (
            Given("low", "smallest", low),
            Given("high", "largest", high),
            *(() if gap_mm is None else (Given("c", "as checked", length(gap_mm, fine=True)),)),
        ),
        Sentence("not adjustable"),
        "the sheet: no means of adjustment",
    )
    if gap_mm is None:
        headline = Sentence("Check the {name}: nothing adjusts it", {"name": words.name})
        details = (Sentence("It has to come out between {low} and {high} with everything tightened.", amounts),)
        return Move(Way.STAY, 0.0, headline, details, working)
    wide = gap_mm > window.target_mm
    why = (
        f"Worn faces make it wide: look again at {words.faces}."
        if wide
        else "A face not clean, a burr, a part not home or a wrong gasket makes it narrow. Take it apart and look."
    )
    headline = Sentence("{gap} is too {how}, and nothing adjusts it", {"how": "wide" if wide else "narrow"} | amounts)
    return Move(Way.STAY, window.target_mm - gap_mm, headline, (Sentence(why),), working)
