"""Sums of the means of setting: gaskets, cover gaskets, shims, the timing gear."""

from __future__ import annotations

import re
from collections import Counter

from finegap.core.calculators.model import Calculator, Input, TypedInputs, mm
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.families.family import GapWords
from finegap.core.formatting import Amounts, Bare, Sentence, length
from finegap.core.gap import end_gap, gasket_pair, gaskets, shims, stack_choice, tap, timing
from finegap.core.gap.move import Move, Window
from finegap.core.gap.stock import MOST_IN_STACK, Stack, ordered, refuse_too_much
from finegap.core.measuring.uncertainty import expanded
from finegap.core.quantities import AllowedSign
from finegap.core.result_lines import ResultLine, Status
from finegap.core.units import Dimension

_TIMES = re.compile(r"^(?P<size>.+?)\s*[x×*]\s*(?P<count>\d+)$")

_MOST_OF_ONE, _WIDEST_MM = 999, 1.0
_ALIKE_MM = 0.05
"""Leaves on both sides add up no nearer than that."""


def _um(text: str, field: str, entry: Entry) -> int:
    return round(entry.quantity(text, Dimension.LENGTH, field, AllowedSign.POSITIVE).value * 1000)


def _pieces(given: TypedInputs, key: str, name: str) -> Counter[int]:
    """Thicknesses with counts, as typed: “0.05 x 6; 0.10 x 4”. One without a count is one piece.

    Raises
    ------
    FieldError
        More of it than any shelf has.
    """
    found: Counter[int] = Counter()
    for text in filter(None, re.split(r"\s*;\s*", given.text(key).strip())):
        match = _TIMES.match(text)
        thickness = _um(match["size"] if match else text, name, given.entry)
        found[thickness] += int(match["count"]) if match else 1
        if found[thickness] > _MOST_OF_ONE:
            raise FieldError(name, f"{text} is more than any shelf has.", f"Expected up to {_MOST_OF_ONE} of a thickness.")
        refuse_too_much(found, thickness)
    return found


def _stock(given: TypedInputs) -> Counter[int]:
    stock = _pieces(given, "stock", "stock")
    if not stock:
        raise FieldError("stock", "nothing was entered.", "Expected thicknesses and counts, such as: 0.05 x 6; 0.10 x 4.")
    return stock


def _stack(given: TypedInputs, key: str, name: str) -> Stack:
    pieces = _pieces(given, key, name)
    if pieces.total() > MOST_IN_STACK:
        raise FieldError(name, f"{pieces.total()} pieces are no stack.", f"Expected up to {MOST_IN_STACK}.")
    return ordered(pieces.elements())


def _window(given: TypedInputs, prefix: str = "") -> Window:
    window = Window(*(given.value(f"{prefix}{name}") for name in ("target", "low", "high")))
    if not window.low_mm <= window.target_mm <= window.high_mm:
        raise FieldError(
            f"{prefix}target".replace("_", " "), "it is not between the smallest and the largest.", "Expected it inside."
        )
    return window


def _move(move: Move, possible: bool) -> tuple[ResultLine, ...]:
    lines = [ResultLine("What to do", move.headline, Status.GOOD if possible else Status.STOP, move.working)]
    return (*lines, *(ResultLine("And then", detail) for detail in move.details))


def _gaskets(given: TypedInputs) -> tuple[ResultLine, ...]:
    now = _stack(given, "now", "fitted now")
    if not now:
        raise FieldError("fitted now", "nothing was entered.", "Expected what is under the head.")
    available = _stock(given) + Counter(now)
    measured, window = given.value("measured"), _window(given)
    refuse_too_much({}, stack_choice.StackWanted.of(window, measured - sum(now) / 1000).high_um)
    move, change, _ = gaskets.move_for(now, measured, window, available, tuple(available))
    return _move(move, change is not None)


_SIDE = GapWords("total side gap", "under the cover", "rotor and end covers")


def _cover(given: TypedInputs) -> tuple[ResultLine, ...]:
    known = gaskets.MetalGap(given.value("cylinder"), given.value("rotor"), "cylinder length", "rotor length")
    stock, window = _stock(given), _window(given)
    refuse_too_much({}, stack_choice.StackWanted.of(window, known.offset_mm).high_um)
    move, choice = gaskets.first_move(stock, 0, window, _SIDE, known, tuple(stock))
    lines = _move(move, choice.stack is not None)
    vane = given.maybe("vane")
    if vane is None:
        return lines
    short = vane < known.inner_mm
    words = (
        "The vanes are shorter than the rotor: they do not carry the covers."
        if short
        else ("A vane as long as the rotor or longer rubs on the covers whatever the gasket is.")
    )
    return (*lines, ResultLine("Vanes", words, Status.GOOD if short else Status.STOP))


def _shims(given: TypedInputs) -> tuple[ResultLine, ...]:
    stacks = [_stack(given, f"shims_{i}", f"shims of shaft {i}") for i in (1, 2)]
    checks = [given.value(f"{side}_{i}") for i in (1, 2) for side in ("front", "back")]
    available = _stock(given) + Counter(stacks[0]) + Counter(stacks[1])
    rotors = shims.faces(checks, stacks)
    front, back, difference = _window(given, "front_"), _window(given, "back_"), given.value("difference")
    for name, wide in (
        ("front high", front.high_mm - front.low_mm),
        ("back high", back.high_mm - back.low_mm),
        ("difference", difference),
    ):
        if wide > _WIDEST_MM:
            raise FieldError(name, f"{wide:g} mm is too wide to try.", f"Expected up to {_WIDEST_MM:g} mm from the smallest.")
    move, changes, _ = shims.move_for(rotors, front, back, difference, available, tuple(available))
    above = next((i for i, rotor in enumerate(rotors) if rotor.front_um <= 0), None)
    lines = _move(move, changes is not None)
    if above is None:
        return lines
    words = Sentence("The {how}'s rotor stands at or above the body face: never assemble like that.", {"how": shims.SHAFTS[above]})
    return (ResultLine("Body face", words, Status.STOP), *lines)


def _pair(given: TypedInputs) -> tuple[ResultLine, ...]:
    plates = given.value("front_plate") + given.value("back_plate")
    gears = [
        gasket_pair.Measured(given.value(f"housing_{i}"), plates, given.value(f"gear_{i}"), given.maybe(f"ahead_{i}") or 0.0)
        for i in (1, 2)
    ]
    for i, gear in enumerate(gears, 1):
        if abs(gear.ahead_mm) > _WIDEST_MM:
            raise FieldError(f"gear {i}: in front more", f"{gear.ahead_mm:g} mm cannot be.", f"Expected up to {_WIDEST_MM:g} mm.")
    move, choice = gasket_pair.move_for(gears, _window(given), gasket_pair.Gaskets(_stock(given)))
    return _move(move, choice.stacks is not None)


_ABOUT = (
    ("housing", "H", "housing length", 1), ("front", "f", "front gasket, as compressed", 1),
    ("back", "b", "back gasket, as compressed", 1), ("front_plate", "P₁", "front wear plate", -1),
    ("back_plate", "P₂", "back wear plate", -1), ("gear", "w", "gear width", -1),
)  # fmt: skip
_K_OF_GAUGES = 2


def _end_gap(given: TypedInputs) -> tuple[ResultLine, ...]:
    doubt = given.value("expanded") / _K_OF_GAUGES
    sizes = tuple(end_gap.Size(symbol, name, given.value(key), doubt, sign) for key, symbol, name, sign in _ABOUT)
    found = end_gap.end_gap(sizes, given.maybe("ahead") or 0.0)
    working = end_gap.working_of(sizes, found)
    if found.total_mm <= 0:
        words = Sentence("{g}: the gear does not turn between its plates", {"g": length(found.total_mm, fine=True)})
        return (ResultLine("Total end gap", words, Status.STOP, working),)
    u = expanded(found.combined.u, found.combined.dof)
    said = Sentence("{g} ± {u}", {"g": Bare(length(found.total_mm, fine=True)), "u": length(u, fine=True)})
    ends = Sentence("{front} in front, {back} behind, with the gear where it was measured", {
        "front": length(found.front_mm, fine=True), "back": length(found.back_mm, fine=True),
    })  # fmt: skip
    touching = min(found.front_mm, found.back_mm) <= 0
    return (
        ResultLine("Total end gap", said, Status.GOOD, working),
        ResultLine("Its two ends", ends, Status.STOP if touching else Status.GOOD),
    )


def _tap(given: TypedInputs) -> tuple[ResultLine, ...]:
    front, back, difference = (given.value(key) for key in ("front", "back", "difference"))
    move = tap.move_for(front, back, difference)
    depth, rotor = given.maybe("depth"), given.maybe("rotor")
    if (depth is None) != (rotor is None):
        raise FieldError("rotor width" if rotor is None else "housing depth", "nothing was entered.", "Expected both, or neither.")
    lines = _move(move, not move.details)
    if depth is None or rotor is None:
        return lines
    if rotor >= depth:
        words = Sentence("The rotor is as wide as the housing is deep, or wider: it cannot turn.")
        return (ResultLine("Both sides together", words, Status.STOP), *lines)
    amounts: Amounts = {"both": length(depth - rotor, fine=True), "read": length(front + back, fine=True)}
    alike = abs(front + back - (depth - rotor)) <= _ALIKE_MM
    words = Sentence("{both} by the sizes, {read} as read." + ("" if alike else " Something lies between the halves."), amounts)
    return (*lines, ResultLine("Both sides together", words, Status.GOOD if alike else Status.CARE))


def _mesh(given: TypedInputs) -> tuple[ResultLine, ...]:
    gear = timing.Timing(given.value("pitch"), given.maybe("marked") or given.value("pitch"))
    low = given.value("low")
    left, right = given.value("left"), given.value("right")
    move = timing.move_for(gear, left, right, Window(low, low, low), given.value("difference"))
    return _move(move, (left + right) / 2 >= low)


_STOCK = Input("stock", "stock, thickness x count with ; between", Dimension.LENGTH, long=True)


def _wanted(prefix: str = "", name: str = "") -> tuple[Input, ...]:
    return (
        mm(f"{prefix}target", f"{name}wanted"),
        mm(f"{prefix}low", f"{name}smallest", AllowedSign.NOT_NEGATIVE),
        mm(f"{prefix}high", f"{name}largest"),
    )


def _fitted(key: str, name: str) -> Input:
    return Input(key, name, Dimension.LENGTH, long=True, optional=True)


MEANS = (
    Calculator(
        "gaskets",
        "Gaskets under a head",
        (
            _fitted("now", "fitted now, as compressed, with ; between"),
            mm("measured", "measured gap", AllowedSign.NOT_NEGATIVE),
            *_wanted(),
            _STOCK,
        ),
        _gaskets,
    ),
    Calculator(
        "cover-gasket",
        "Cover gasket for a vane rotor's side gap",
        (
            mm("cylinder", "cylinder length"),
            mm("rotor", "rotor length"),
            mm("vane", "longest vane, along the rotor", optional=True),
            *_wanted(name="total side gap "),
            _STOCK,
        ),
        _cover,
    ),
    Calculator(
        "end-gap",
        "Total end gap of a gear",
        (
            *(
                mm(key, name, AllowedSign.POSITIVE if key in ("housing", "gear") else AllowedSign.NOT_NEGATIVE)
                for key, _, name, _ in _ABOUT
            ),
            mm("ahead", "gap in front more than behind", AllowedSign.ANY, optional=True),
            mm("expanded", "U of each size (k = 2)", AllowedSign.NOT_NEGATIVE, usual="0.004 mm"),
        ),
        _end_gap,
    ),
    Calculator(
        "gasket-pair",
        "A gasket at each end of a gear pump",
        (
            *(
                one
                for i, gear in enumerate(gasket_pair.GEARS, 1)
                for one in (
                    mm(f"housing_{i}", f"{gear}: housing length at its bore"),
                    mm(f"gear_{i}", f"{gear}: width"),
                    mm(f"ahead_{i}", f"{gear}: gap in front more than behind without gaskets", AllowedSign.ANY, optional=True),
                )
            ),
            mm("front_plate", "front wear plate", AllowedSign.NOT_NEGATIVE),
            mm("back_plate", "back wear plate", AllowedSign.NOT_NEGATIVE),
            *_wanted(name="total end gap "),
            Input("stock", "gaskets, thickness as compressed x count with ; between", Dimension.LENGTH, long=True),
        ),
        _pair,
    ),
    Calculator(
        "shims",
        "Shims for two rotors",
        (
            *(
                one
                for i, shaft in ((1, "drive shaft"), (2, "driven shaft"))
                for one in (
                    mm(f"front_{i}", f"{shaft}: front", AllowedSign.ANY),
                    mm(f"back_{i}", f"{shaft}: back", AllowedSign.NOT_NEGATIVE),
                    _fitted(f"shims_{i}", f"{shaft}: shims now, with ; between"),
                )
            ),
            *_wanted("front_", "front "),
            *_wanted("back_", "back "),
            mm("difference", "the rotors may differ by", AllowedSign.NOT_NEGATIVE),
            _STOCK,
        ),
        _shims,
    ),
    Calculator(
        "tap",
        "Rotor between two halves: which end of the shaft is tapped",
        (
            mm("front", "side gap in front", AllowedSign.NOT_NEGATIVE),
            mm("back", "side gap behind", AllowedSign.NOT_NEGATIVE),
            mm("difference", "they may differ by", AllowedSign.NOT_NEGATIVE),
            mm("depth", "housing depth", optional=True),
            mm("rotor", "rotor width", optional=True),
        ),
        _tap,
    ),
    Calculator(
        "mesh-gap",
        "Two mesh gaps made alike",
        (
            mm("left", "narrowest at the left", AllowedSign.NOT_NEGATIVE),
            mm("right", "narrowest at the right", AllowedSign.NOT_NEGATIVE),
            mm("pitch", "pitch diameter"),
            mm("marked", "diameter the marks are on, if another", optional=True),
            mm("low", "least mesh gap", AllowedSign.NOT_NEGATIVE, usual="0"),
            mm("difference", "they may differ by", AllowedSign.NOT_NEGATIVE, usual="0"),
        ),
        _mesh,
    ),
)
