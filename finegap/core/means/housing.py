"""A threaded bearing housing: turned by an arc laid off along its outside, from zero."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any, ClassVar, Self

from finegap.core.errors import FieldError
from finegap.core.families.family import Family, GapWords
from finegap.core.formatting import Amount, Amounts, Bare, Kind, Sentence, Shown, Text, Units, length
from finegap.core.gap import housing, mismatch
from finegap.core.gap.declared import length_of
from finegap.core.gap.housing import Housing, SheetCheck, ThreadHand, Zero, check_sheet
from finegap.core.gap.move import Move, Way, Window
from finegap.core.gap.table import Row
from finegap.core.gap.tape import Tape
from finegap.core.gap.tries import Setting, TryMade, judged, settled
from finegap.core.means.base import MeansView, Moved, PlainMeans, SetNow, asked_one
from finegap.core.means.schemas import LENGTH
from finegap.core.quantities import AllowedSign
from finegap.core.units import Dimension
from finegap.core.working import Working

_ZERO_SCHOOLS = {"first drag": Zero.FIRST_DRAG, "back off": Zero.BACK_OFF}


@dataclass(frozen=True)
class HousingView(MeansView):
    """The end view, with both marks. Angles are from the zero line, opening positive.

    ``degrees_per_mm`` is how far it turns for a millimetre of gap; ``lash_does`` says what the play does to the gap set from this
    zero; ``lash_seen`` is the play the last try shows, where it is not the one in use.
    """

    diameter: Text
    lead: Text
    hand: str
    per_step: Text
    school: str
    zero_found: bool
    prescribed: str
    lash: Text
    lash_does: Text
    lash_seen: Text | None
    position_deg: float
    target_deg: float
    degrees_per_mm: float
    arc: Text
    check: Text | None
    check_agrees: bool
    check_working: Working | None


@dataclass(frozen=True)
class HousingState:
    """``lash_seen_mm`` is the play the last try shows, where it is not the one in use."""

    lash_seen_mm: float | None


@dataclass(frozen=True)
class HousingMeans(PlainMeans):
    """Threaded bearing housing, with the sheet's own check against itself where it prints an arc."""

    kind: ClassVar[str] = "housing"
    view_type: ClassVar[type[MeansView]] = HousingView
    moved: ClassVar[Moved | None] = Moved("arc", Dimension.LENGTH, (Way.OPEN.value, Way.CLOSE.value))
    schema: ClassVar[Mapping[str, Any]] = {
        "required": ["outside_diameter", "lead"],
        "properties": {
            "outside_diameter": LENGTH,
            "lead": {**LENGTH, "description": "Advance for one turn: starts times pitch."},
            "thread": {"enum": ["right", "left"]},
            "arc": LENGTH,
            "for_clearance": LENGTH,
            "zero": {"enum": list(_ZERO_SCHOOLS)},
            "lash": LENGTH,
            "travel": {**LENGTH, "description": "How far the thread can be turned out, along the shaft."},
        },
        "dependentRequired": {"arc": ["for_clearance"], "for_clearance": ["arc"]},
    }

    housing: Housing
    zero: Zero = Zero.FIRST_DRAG
    lash_mm: float = 0.0
    check: SheetCheck | None = None
    odd: tuple[tuple[str, Text], ...] = ()

    @classmethod
    def columns(cls, family: Family) -> tuple[str, ...]:
        """Some tables print the arc of each row."""
        return ("arc",)

    def remarks(self) -> tuple[tuple[str, Text], ...]:
        """Arcs of the table that diameter and lead do not bear out."""
        return self.odd

    @classmethod
    def read(cls, data: Mapping[str, Any], family: Family, rows: tuple[Row, ...]) -> Self:
        """Raises FieldError for a lead, diameter or lash that cannot be, and a clearance beyond the thread's travel."""
        of = Housing(
            length_of(data["outside_diameter"], "adjustment.outside_diameter"),
            length_of(data["lead"], "adjustment.lead"),
            ThreadHand(data.get("thread", "right")),
        )
        if "travel" in data:
            _check_reach(length_of(data["travel"], "adjustment.travel"), rows)
        lash = length_of(data.get("lash", "0 mm"), "adjustment.lash", AllowedSign.NOT_NEGATIVE)
        check = None
        if "arc" in data:
            printed = length_of(data["arc"], "adjustment.arc")
            check = check_sheet(of, printed, length_of(data["for_clearance"], "adjustment.for_clearance"))
        return cls(of, _ZERO_SCHOOLS[data.get("zero", "first drag")], lash, check, tuple(_odd_arcs(of, rows)))

    def set(self, now: SetNow) -> Setting:
        """Next turn after the tries so far, from zero."""
        zero, lash_mm = now.zero or self.zero, now.lash_mm

        def correct(gap_mm: float, last_way: Way | None, measured: float | None) -> Move:
            return housing.move_for(self.housing, now.window.target_mm - gap_mm, last_way, lash_mm, measured)

        move, last_way, lash_seen = correct(0.0, zero.ends, None), zero.ends, None
        gap, odd = 0.0, None
        for made in now.tries:
            arc, is_now = made.moved or 0.0, made.check.value_mm
            way = last_way if arc == 0 else (Way.OPEN if arc > 0 else Way.CLOSE)
            reverses = way is not last_way
            seen = housing.lash_from(abs(arc), is_now, gap, self.housing)
            # Too large a play is as wrong as too small a one; what the check cannot tell apart is not reported.
            lash_seen = seen if reverses and abs(seen - lash_mm) > 2 * made.check.u_mm else None
            promised = self.housing.clearance_mm(arc) - (lash_mm if reverses else 0.0) * (1 if arc > 0 else -1)
            odd = mismatch.mismatch(promised, is_now - gap, made.check.u_mm, mismatch.HOUSING)
            gap, last_way = is_now, way
            move = correct(gap, last_way, gap)
        asked = asked_one(now)
        state = HousingState(lash_seen)
        return settled(Setting(asked, judged(asked, now.tries, now.school), move, state=state, mismatch=odd))

    def show(self, setting: Setting, now: SetNow) -> HousingView:
        """The end view: where it stands, and where the move takes it."""
        of, zero = self.housing, now.zero or self.zero
        assert isinstance(setting.state, HousingState)
        seen = setting.state.lash_seen_mm
        position = of.angle_deg(of.clearance_mm(math.fsum(made.moved or 0.0 for made in now.tries)))
        return HousingView(
            kind=self.kind,
            diameter=length(of.diameter_mm),
            lead=length(of.lead_mm, fine=True),
            hand=of.hand.value,
            per_step=_per_step(of),
            school=zero.value,
            zero_found=now.zero is not None,
            prescribed=self.zero.value,
            lash=length(now.lash_mm, fine=True),
            lash_does=_lash_does(zero, now.lash_mm),
            lash_seen=None if seen is None else length(seen, fine=True),
            position_deg=position,
            target_deg=position + _turn_deg(setting, of),
            degrees_per_mm=of.angle_deg(1.0),
            arc=Bare(Amount(of.arc_mm(setting.move.travel_mm), Kind.ARC)),
            check=self.check.sentence if self.check else None,
            check_agrees=self.check is None or self.check.agrees,
            check_working=self.check.working if self.check else None,
        )

    def lines(self, words: GapWords) -> list[tuple[str, Text]]:
        """As the sheet prints them."""
        of = self.housing
        thread = {"hand": of.hand.value, "lead": length(of.lead_mm, fine=True)}
        return [
            ("Means", "threaded bearing housing"),
            ("Outside diameter", length(of.diameter_mm)),
            ("Thread", Sentence("{hand}-hand, lead {lead}", thread)),
            ("Zero", self.zero.value),
            ("Axial play", length(self.lash_mm, fine=True)),
        ]

    def against_itself(self) -> tuple[Text, bool] | None:
        """The printed arc against diameter and lead."""
        return (self.check.sentence, self.check.agrees) if self.check else None

    def set_by(self, made: TryMade, typed: str) -> Text:
        """By its arc, and which way; beside it what was typed, in the other unit system."""
        moved = made.moved or 0.0
        side = "" if not moved else "opened" if moved > 0 else "closed"
        return arc_words(Amount(abs(moved), Kind.ARC), side, typed)

    def lash_by(self, moved: float) -> float:
        """Of the arc turned before the rotor followed, in mm."""
        return self.housing.clearance_mm(moved)

    def tape(self, window: Window, units: Units) -> Tape | None:
        """The tape that is laid round it."""
        return Tape(self.housing, window, units)


def arc_words(arc: Amount, side: str, typed: str) -> Text:
    """An arc in words: to which side, and what was typed where that was in the other unit system."""
    words = "arc {arc}" + (" {side}" if side else "")
    if not typed:
        return Sentence(words, {"arc": Bare(arc), "side": side})
    by_hand = Shown(*("" if unit in typed else f", typed {typed}" for unit in ("mm", "in")))
    return Sentence(words + "{typed}", {"arc": Bare(arc), "side": side, "typed": by_hand})


def _check_reach(travel_mm: float, rows: tuple[Row, ...]) -> None:
    """Every clearance of the table has to lie within what the thread can be turned out."""
    beyond = next((i for i, row in enumerate(rows) if row.clearance_mm > travel_mm), None)
    if beyond is not None:
        problem = f"the thread reaches {travel_mm:g} mm, and this row asks for {rows[beyond].clearance_mm:g} mm."
        raise FieldError(
            f"clearance_table.rows[{beyond}].end_clearance", problem, "Expected a clearance within the thread's travel."
        )


def _odd_arcs(of: Housing, rows: tuple[Row, ...]) -> Iterator[tuple[str, Text]]:
    """Rows whose printed arc is not what diameter and lead make of their clearance."""
    for i, row in enumerate(rows):
        if row.arc_mm is not None and not check_sheet(of, row.arc_mm, row.clearance_mm).agrees:
            words = "Diameter and lead make it {arc}; the row prints {printed}."
            arcs: Amounts = {
                "arc": length(of.arc_mm(row.clearance_mm), fine=True),
                "printed": length(row.arc_mm, fine=True),
            }
            yield f"clearance_table.rows[{i}].arc", Sentence(words, arcs)


def _turn_deg(setting: Setting, of: Housing) -> float:
    """Degrees from where it stands to where the move takes it, opening positive."""
    if setting.right or setting.move.way is Way.STAY:
        return 0.0
    return setting.move.travel_mm / of.lead_mm * 360 * (1 if setting.move.way is Way.OPEN else -1)


def _per_step(of: Housing) -> Text:
    """How much arc a step of clearance is, in round numbers of each unit system."""

    def said(step_mm: float, units: Units) -> str:
        return f"{Amount(of.arc_mm(step_mm), Kind.LENGTH).text(units)} of arc is {length(step_mm).text(units)} of clearance"

    return Shown(said(0.01, Units.MM), said(0.0254, Units.IN), said(0.0254, Units.THOU))


def _lash_does(zero: Zero, lash_mm: float) -> Text:
    """What the play does to the gap set from a zero."""
    if lash_mm == 0:
        return ""
    play = {"play": length(lash_mm, fine=True)}
    if zero.ends is Way.CLOSE:
        words = "This zero leaves the play loaded closed: the first {play} of opening only takes it up, and is added to the arc."
    else:
        words = "This zero leaves the play loaded open: opening needs nothing more, closing takes {play} up first."
    return Sentence(words, play)


MEANS = HousingMeans
