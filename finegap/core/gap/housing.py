"""Setting the end clearance with a threaded bearing housing.

Turning the housing moves the shaft by the thread's lead: c = lead * angle / 360, and the arc along the outside diameter D is
s = c * pi * D / lead. Arc, not chord: a tape or paper strip laid round the housing.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import Enum

from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Kind, Sentence, length, rule_fraction
from finegap.core.gap.move import Move, Way, way_of
from finegap.core.working import Given, Working

_GEOMETRY = "screw geometry: one turn moves the shaft by one lead"
_AGREEMENT = 0.02
"""How far a sheet's printed arc may differ from its own diameter and lead (rounding on paper; common practice, no source)."""


class ThreadHand(Enum):
    """Hand of the housing thread."""

    RIGHT = "right"
    LEFT = "left"


class Zero(Enum):
    """Schools for finding zero; they leave the thread's and bearing's axial play loaded opposite ways."""

    FIRST_DRAG = "close to first drag"
    BACK_OFF = "back off from bind"

    @property
    def ends(self) -> Way:
        """The way the housing was last turned when zero is called."""
        return Way.CLOSE if self is Zero.FIRST_DRAG else Way.OPEN


_MOST_LASH_MM = 1.0
"""More play than this a thread or a bearing has only when it is broken (common practice, no source)."""


def zero_by(school: str) -> Zero:
    """The way zero was found, by its words.

    Raises
    ------
    FieldError
        No such way.
    """
    try:
        return Zero(school)
    except ValueError:
        expected = " or ".join(z.value for z in Zero)
        raise FieldError("school", f"“{school}” is not a way to find zero.", f"Expected: {expected}.") from None


def check_lash(lash_mm: float) -> None:
    """Refuse a play in mm that no sound pump has.

    Raises
    ------
    FieldError
        Too much.
    """
    if lash_mm > _MOST_LASH_MM:
        raise FieldError("play (lash)", f"{lash_mm:g} mm is not play, it is damage.", "Expected up to 1 mm.")


@dataclass(frozen=True)
class Housing:
    """A threaded bearing housing: outside diameter and thread lead in mm (lead = starts x pitch)."""

    diameter_mm: float
    lead_mm: float
    hand: ThreadHand = ThreadHand.RIGHT

    def __post_init__(self) -> None:
        if self.diameter_mm <= 0:
            raise FieldError("outside_diameter", "it must be more than zero.", "Expected the diameter the arc is laid on.")
        if self.lead_mm <= 0:
            raise FieldError("lead", "it must be more than zero.", "Expected the advance per turn (starts x pitch).")

    @property
    def arc_per_mm(self) -> float:
        """Arc along the outside per mm of clearance (dimensionless)."""
        return math.pi * self.diameter_mm / self.lead_mm

    def arc_mm(self, clearance_mm: float) -> float:
        """Arc along the outside for a change of clearance."""
        return clearance_mm * self.arc_per_mm

    def angle_deg(self, clearance_mm: float) -> float:
        """Turn for a change of clearance."""
        return clearance_mm / self.lead_mm * 360.0

    def chord_mm(self, clearance_mm: float) -> float:
        """Straight from mark to mark, as a caliper reads it: less than the arc; of less than half a turn."""
        return self.diameter_mm * math.sin(math.radians(self.angle_deg(clearance_mm)) / 2)

    def clearance_mm(self, arc_mm: float) -> float:
        """Change of clearance for an arc: the inverse."""
        return arc_mm / self.arc_per_mm

    def turns(self, way: Way) -> str:
        """Which way to turn, seen from the shaft end. Right-hand thread: clockwise closes."""
        clockwise = (way is Way.CLOSE) == (self.hand is ThreadHand.RIGHT)
        return "clockwise" if clockwise else "counterclockwise"


@dataclass(frozen=True)
class SheetCheck:
    """Whether a sheet agrees with itself."""

    agrees: bool
    ratio: float
    working: Working

    @property
    def sentence(self) -> Sentence:
        """Whether it does, and by how much it is off."""
        if self.agrees:
            return Sentence("The printed arc agrees with diameter and lead.")
        words = "The printed arc is {off} % off diameter and lead: measure the housing before trusting either."
        return Sentence(words, {"off": f"{(self.ratio - 1) * 100:+.1f}"})


def check_sheet(housing: Housing, printed_arc_mm: float, per_clearance_mm: float) -> SheetCheck:
    """Hold a printed arc for a given clearance against diameter and lead.

    Parameters
    ----------
    housing : Housing
        As printed on the sheet.
    printed_arc_mm, per_clearance_mm : float
        As printed: so much arc for so much clearance.
    """
    expected = housing.arc_mm(per_clearance_mm)
    ratio = printed_arc_mm / expected
    working = Working(
        title="Sheet against itself",
        formula="s = c·π·D / lead",
        given=(
            Given("c", "clearance", length(per_clearance_mm, fine=True)),
            Given("D", "outside diameter of the housing", length(housing.diameter_mm)),
            Given("lead", "advance per turn", length(housing.lead_mm, fine=True)),
            Given("", "arc as printed", length(printed_arc_mm, fine=True)),
        ),
        result=length(expected, fine=True),
        source=_GEOMETRY,
    )
    return SheetCheck(abs(ratio - 1) <= _AGREEMENT, ratio, working)


def move_for(
    housing: Housing, change_mm: float, last_way: Way | None, lash_mm: float = 0.0, measured_mm: float | None = None
) -> Move:
    """The turn that changes the clearance by ``change_mm``.

    A change of direction has to take up the axial play (lash) before the shaft follows, so its arc is added. That is also all
    that parts the two schools of zero: one ends closing and the other ends opening.

    Parameters
    ----------
    housing : Housing
        Diameter, lead and hand.
    change_mm : float
        Clearance wanted less clearance now: positive opens.
    last_way : Way or None
        Way the housing was last turned.
    lash_mm : float
        Axial play of thread and bearing, entered or measured.
    measured_mm : float, optional
        The check reading this move corrects, for the working.
    """
    if lash_mm < 0:
        raise FieldError("lash", "play cannot be negative.", "Expected zero or more.")
    way = way_of(change_mm)
    reverses = last_way is not None and way is not Way.STAY and way is not last_way
    travel = abs(change_mm) + (lash_mm if reverses else 0.0) if way is not Way.STAY else 0.0
    arc, angle = housing.arc_mm(travel), housing.angle_deg(travel)
    amounts: dict[str, Amount | str] = {
        "change": length(abs(change_mm)),
        "arc": Amount(arc, Kind.ARC),
        "angle": Amount(angle, Kind.ANGLE),
        "turn": housing.turns(way),
        "lash_arc": Amount(housing.arc_mm(lash_mm), Kind.ARC),
        "rule": rule_fraction(arc),
    }
    working = _working(housing, change_mm, lash_mm if reverses else 0.0, measured_mm, amounts)
    if way is Way.STAY:
        return Move(way, change_mm, Sentence("Leave the housing where it is"), (), working, travel)
    turn, hand = housing.turns(way).capitalize(), housing.hand.value
    headline = Sentence(
        "{value} {change}: turn the housing {turn} {arc} along its outside, {angle}",
        {"value": way.value.capitalize()} | amounts,
    )
    seen = Sentence("{turn}: as seen from the shaft end, with a {hand}-hand thread.", {**amounts, "turn": turn, "hand": hand})
    return Move(way, change_mm, headline, (*_details(amounts, reverses and lash_mm > 0), seen), working, travel)


def _working(
    housing: Housing, change_mm: float, lash_mm: float, measured_mm: float | None, amounts: dict[str, Amount | str]
) -> Working:
    """How the turn was worked out. ``lash_mm`` is the play this turn takes up; it is 0 where the direction stays the same."""
    reading = () if measured_mm is None else (Given("", "check reading", length(measured_mm, fine=True)),)
    return Working(
        title="Turn of the bearing housing",
        formula="s = (c + lash)·π·D / lead,   angle = 360°·(c + lash) / lead",
        given=(
            *reading,
            Given("c", "change of clearance", length(abs(change_mm), fine=True)),
            Given("D", "outside diameter of the housing", length(housing.diameter_mm)),
            Given("lead", "advance per turn", length(housing.lead_mm, fine=True)),
            Given("lash", "play taken up because the direction changes.", length(lash_mm, fine=True)),
        ),
        result=Sentence("{arc} of arc, {angle}", amounts),
        source=_GEOMETRY,
        notes=(Sentence("{hand}-hand thread, seen from the shaft end.", {"hand": housing.hand.value.capitalize()}),),
    )


def lash_from(arc_turned_mm: float, gap_after_mm: float, gap_before_mm: float, housing: Housing) -> float:
    """Play the thread swallowed in a turn that changed direction: clearance promised by the arc less clearance gained, in mm.

    Never negative: a gap that moved further than the arc cannot is a reading to repeat.
    """
    return max(housing.clearance_mm(arc_turned_mm) - abs(gap_after_mm - gap_before_mm), 0.0)


def _details(amounts: dict[str, Amount | str], takes_up_lash: bool) -> tuple[Sentence, ...]:
    rule = Sentence("{rule} in on a steel rule laid round it: an arc, not straight across.", amounts)
    if not takes_up_lash:
        return (rule,)
    return (rule, Sentence("{lash_arc} of it only takes up the play, because the direction changes.", amounts))
