"""The shaft of a rotor between two pressed halves, tapped across until the rotor has the same gap on either side.

Both side gaps together are housing depth less rotor width, whatever is tapped. Where the rotor is tight on one side, the shaft is
driven from that side's end (no source: reckoned from the layout). By a drift, never by the hammer itself.
"""

from __future__ import annotations

from finegap.core.formatting import Sentence, length
from finegap.core.gap.move import Move, Way
from finegap.core.working import Given, Working

ENDS = ("front", "back")
_SAME_MM = 1e-9


def move_for(front_mm: float, back_mm: float, difference_mm: float) -> Move:
    """Which end is tapped, and how far the rotor has to go.

    Parameters
    ----------
    front_mm, back_mm : float
        The gap between rotor and housing on either side, after the bolts.
    difference_mm : float
        By how much they may differ.
    """
    apart = abs(front_mm - back_mm)
    end = ENDS[back_mm < front_mm]
    way = length(apart / 2, fine=True)
    details: tuple[Sentence, ...] = ()
    if apart <= difference_mm + _SAME_MM:
        headline = Sentence("Right: leave the shaft where it is")
    else:
        headline = Sentence("Tap the shaft on its {end} end: the rotor has to go {way}", {"end": end, "way": way})
        details = (
            Sentence("A drift between hammer and shaft, light blows, then turn it by hand and measure again."),
            Sentence("Tight before any bolt was in is dirt, not position: apart again, and cleaned."),
        )
    working = Working(
        "The rotor between its two sides",
        "s = |front − back| / 2, towards the wider gap",
        (
            Given("", "front", length(front_mm, fine=True)),
            Given("", "back", length(back_mm, fine=True)),
            Given("d", "they may differ by", length(difference_mm, fine=True)),
        ),
        Sentence("{s}", {"s": way}),
        "geometry of a rotor between two faces; which end is reckoned from the layout (no source)",
    )
    return Move(Way.STAY, apart / 2, headline, details, working)
