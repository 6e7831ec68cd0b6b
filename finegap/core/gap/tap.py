"""The shaft of a rotor between two pressed halves, tapped across until the rotor has the same gap on either side.

Both side gaps together are housing depth less rotor width, whatever is tapped. Where the rotor is tight on one side, the shaft is
driven from that side's end (no source: reckoned from the layout). By a drift, never by the hammer itself.
"""

from __future__ import annotations

from finegap.core.formatting import Amounts, Sentence, length
from finegap.core.gap.move import Move, Way, Window
from finegap.core.working import Given, Working

ENDS = ("front", "back")
WAYS = tuple(f"{end} end" for end in ENDS)
"""The ends of the shaft a drift is put to."""
_SAME_MM = 1e-9


def move_for(front_mm: float, back_mm: float, difference_mm: float, window: Window | None = None) -> Move:
    """Which end is tapped, and how far the rotor has to go.

    Parameters
    ----------
    front_mm, back_mm : float
        The gap between rotor and housing on either side, after the bolts.
    difference_mm : float
        By how much they may differ.
    window : Window, optional
        What either may be; both together are given by the parts.
    """
    apart = abs(front_mm - back_mm)
    end = ENDS[back_mm < front_mm]
    way = length(apart / 2, fine=True)
    middle = (front_mm + back_mm) / 2
    details: tuple[Sentence, ...] = ()
    impossible = window is not None and not window.low_mm - _SAME_MM <= middle <= window.high_mm + _SAME_MM
    if impossible:
        headline = Sentence("No tap puts it right: both gaps together are the parts'")
        details = (_of_parts(middle, window),) if window else ()
    elif apart <= difference_mm + _SAME_MM:
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


def foretold(depth_mm: float, rotor_mm: float, window: Window) -> Move:
    """What either side comes to by the sizes, before anything is pressed together.

    Parameters
    ----------
    depth_mm, rotor_mm : float
        Depth of the housing where it is least, width of the rotor where it is most.
    window : Window
        What either side may be.
    """
    middle = (depth_mm - rotor_mm) / 2
    amounts: Amounts = {"gap": length(middle, fine=True)}
    right = window.low_mm <= middle <= window.high_mm
    headline = Sentence("By the sizes each side comes to {gap}" if middle > 0 else "The rotor is wider than its housing", amounts)
    details = (Sentence("The check after the bolts judges."),) if right else (_of_parts(middle, window),)
    working = Working(
        "Side gaps by the sizes",
        "s = (D − w) / 2",
        (
            Given("D", "depth of the housing, least", length(depth_mm, fine=True)),
            Given("w", "width of the rotor, most", length(rotor_mm, fine=True)),
        ),
        Sentence("{s}", {"s": length(middle, fine=True)}),
        "geometry of a rotor between two faces",
    )
    return Move(Way.STAY, 0.0, headline, details, working)


def _of_parts(middle_mm: float, window: Window) -> Sentence:
    low, high, each = window.shown(middle_mm, fine=True)
    words = "Shared alike, each side has {each}, and {low} to {high} is wanted: {look}."
    wide = middle_mm > window.high_mm
    look = "rotor or housing is worn, or something lies between the halves" if wide else "the wrong rotor, or a burr on a face"
    return Sentence(words, {"each": each, "low": low, "high": high, "look": look})
