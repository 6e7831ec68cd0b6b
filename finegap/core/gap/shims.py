"""Shims behind the front bearings of two shafts at once, for the face clearances of both rotors.

A shim of thickness s behind the front bearing moves the rotor forward: front f - s, back b + s. Both clearances of both rotors
have to fall into their windows, the two rotors may differ by no more than the sheet says, and all shims come from one stock.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import combinations_with_replacement

from finegap.core.errors import FieldError
from finegap.core.formatting import Amounts, Sentence, length
from finegap.core.gap.dealing import Deal
from finegap.core.gap.gaskets import StackChange, change_between, out_and_in
from finegap.core.gap.move import Move, Way, Window
from finegap.core.gap.stock import Layers, Stack, any_number, bits, check_stock, describe, growing, stock_text
from finegap.core.working import Given, Working

SHAFTS = ("drive shaft", "driven shaft")
_MOST_BOUGHT = 2


@dataclass(frozen=True)
class Faces:
    """One rotor as measured, in micrometres: clearance in front and behind, with the shims its shaft has."""

    front_um: int
    back_um: int
    stack: Stack = ()

    def moved(self, total_um: int) -> tuple[int, int]:
        """Front and back with shims of another total."""
        forward = total_um - sum(self.stack)
        return self.front_um - forward, self.back_um + forward


@dataclass(frozen=True)
class Wanted:
    """Where both rotors have to end up, in micrometres: (low, target, high) in front and behind, and how far they may differ."""

    front_um: tuple[int, int, int]
    back_um: tuple[int, int, int]
    difference_um: int

    def totals(self, faces: Faces) -> tuple[int, int]:
        """The least and the most shims of a shaft that bring both its clearances into their windows. Least is above most where
        none do."""
        now = sum(faces.stack)
        low = max(faces.front_um + now - self.front_um[2], self.back_um[0] - faces.back_um + now, 0)
        high = min(faces.front_um + now - self.front_um[0], self.back_um[2] - faces.back_um + now)
        return low, high

    def error_um(self, front_um: int, back_um: int) -> int:
        """How far a rotor is from both its targets together."""
        return abs(front_um - self.front_um[1]) + abs(back_um - self.back_um[1])

    def apart(self, one: Faces, other: Faces) -> tuple[int, int]:
        """By how much more the shims of the one shaft may be, least and most, for both rotors to stand alike enough.

        Least is above most where no shims make them alike: front and back together differ too much.
        """
        front = one.moved(0)[0] - other.moved(0)[0]
        back = other.moved(0)[1] - one.moved(0)[1]
        return max(front, back) - self.difference_um, min(front, back) + self.difference_um


@dataclass(frozen=True)
class ShimChoice:
    """Shims for both shafts, or why there are none. ``error_um`` is that of both rotors together.

    ``totals`` are the least and most shims each shaft could take; ``buy`` the fewest further shims that would do. ``unlike``: no
    shims make both rotors stand alike.
    """

    stacks: tuple[Stack, Stack] | None
    error_um: int
    totals: tuple[tuple[int, int], tuple[int, int]]
    buy: Stack = ()
    unlike: bool = False

    @property
    def shut(self) -> tuple[int, ...]:
        """Shafts no shim at all would help: front and back together do not fit the windows."""
        return tuple(i for i, (low, high) in enumerate(self.totals) if low > high)


def choose_shims(stock: Mapping[int, int], rotors: Sequence[Faces], wanted: Wanted) -> ShimChoice:
    """The shims to use: fewest in all, then the least error of both rotors together.

    Exact. For each number of pieces, the totals either shaft can reach come from bit sets; pairs of totals are tried from the
    least error on, until one can be dealt from the one stock.

    Parameters
    ----------
    stock : mapping of int to int
        Thickness [um] -> count, the shims in the pump included.
    rotors : sequence of Faces
        Both rotors.
    wanted : Wanted
        Windows, targets, and how far the rotors may differ.

    Raises
    ------
    FieldError
        A thickness or count that cannot be.
    """
    check_stock(stock)
    one, other = rotors
    totals = (wanted.totals(one), wanted.totals(other))
    least, most = wanted.apart(one, other)
    if least > most or any(low > high for low, high in totals):
        return ShimChoice(None, 0, totals, unlike=least > most)
    pieces = {t: n for t, n in stock.items() if n}
    if not _could(any_number(pieces, totals[0][1] + totals[1][1]), (), totals, (least, most), set()):
        return ShimChoice(None, 0, totals)
    for counts, layers in growing(pieces, totals[0][1] + totals[1][1], stacks=2):
        found = _dealt(counts, layers, pieces, rotors, wanted)
        if found:
            return ShimChoice(*found, totals)
    return ShimChoice(None, 0, totals)


def _dealt(
    counts: range, layers: Layers, pieces: Mapping[int, int], rotors: Sequence[Faces], wanted: Wanted
) -> tuple[tuple[Stack, Stack], int] | None:
    """The first of these numbers of pieces that does, with its stacks and their error."""
    one, other = rotors
    sums = layers[-1]
    (low1, high1), (low2, high2) = wanted.totals(one), wanted.totals(other)
    least, most = wanted.apart(one, other)
    firsts = [bits(_window(of, low1, high1), low1) for of in sums]
    deal = Deal(layers, list(pieces.items()))
    for count in counts:
        both = sums[count]
        pairs = sorted(
            (wanted.error_um(*one.moved(s1)) + wanted.error_um(*other.moved(s2)), first, s1, s2)
            for first in range(count + 1)
            if firsts[first] and sums[count - first]
            for s1 in firsts[first]
            for low in [max(low2, s1 - most)]
            for s2 in bits(_window(sums[count - first] & (both >> s1), low, min(high2, s1 - least)), low)
        )
        for error, first, s1, s2 in pairs:
            dealt = deal.out((first, s1), (count - first, s2))
            if dealt:
                return dealt, error
    return None


def _window(sums: int, low: int, high: int) -> int:
    """The sums from ``low`` to ``high``, moved down by ``low``; none where ``high`` is below it."""
    return (sums >> low) & ((1 << max(high - low + 1, 0)) - 1)


def what_to_buy(stock: Mapping[int, int], sold_um: Collection[int], rotors: Sequence[Faces], wanted: Wanted) -> Stack:
    """The fewest shims of the maker's thicknesses that, added to stock, do it; empty if two do not, or no shim does."""
    totals = [wanted.totals(rotor) for rotor in rotors]
    least, most = wanted.apart(*rotors)
    if not sold_um or least > most or any(low > high for low, high in totals):
        return ()
    makes, tried = any_number(stock, sum(high for _, high in totals)), set[tuple[int, int]]()
    for bought in range(1, _MOST_BOUGHT + 1):
        fits = []
        for extra in combinations_with_replacement(sorted(sold_um), bought):
            if not _could(makes, extra, totals, (least, most), tried):
                continue
            choice = choose_shims(Counter(stock) + Counter(extra), rotors, wanted)
            if choice.stacks is not None:
                fits.append((sum(map(len, choice.stacks)), choice.error_um, extra))
        if fits:
            return min(fits)[2]
    return ()


def _could(
    makes: int, extra: Stack, totals: Sequence[tuple[int, int]], apart: tuple[int, int], tried: set[tuple[int, int]]
) -> bool:
    """Whether the stock could make what is left of each shaft's total, were these divided between the shafts.

    All that is bought is used, or fewer would do. A sieve only: it does not see that both shafts share one stock. ``tried`` keeps
    the divisions that cannot.
    """
    (low1, high1), (low2, high2) = totals
    for share in range(2 ** len(extra)):
        own1 = sum(t for i, t in enumerate(extra) if share >> i & 1)
        own2 = sum(extra) - own1
        if (own1, own2) in tried:
            continue
        start = max(low1, own1)
        for s1 in bits(_window(makes, start - own1, high1 - own1), start):
            low = max(low2, s1 - apart[1], own2)
            if _window(makes, low - own2, min(high2, s1 - apart[0]) - own2):
                return True
        tried.add((own1, own2))
    return False


def wanted_of(front: Window, back: Window, difference_mm: float) -> Wanted:
    """Windows in mm as whole micrometres, rounded inwards."""

    def um(window: Window) -> tuple[int, int, int]:
        return -(-round(window.low_mm * 1e4) // 10), round(window.target_mm * 1000), round(window.high_mm * 1e4) // 10

    return Wanted(um(front), um(back), round(difference_mm * 1e4) // 10)


def first_move(stacks: Sequence[Stack], start_um: int) -> Move:
    """Before anything is measured: the trial shims, both bearings home, and the measuring."""
    same = Sentence("{stack} behind both front bearings", {"stack": describe(stacks[0])})
    each = Sentence("{one} behind the drive shaft's, {other} behind the driven shaft's front bearing",
                    {"one": describe(stacks[0]), "other": describe(stacks[1])})  # fmt: skip
    fitting = Sentence("Fit {shims}", {"shims": same if stacks[0] == stacks[1] else each})
    headline = fitting if any(stacks) else Sentence("Fit both shafts without a shim, and measure")
    working = Working(
        "Trial shims",
        "shims near the sheet's starting shim, fewest pieces, behind each front bearing",
        (Given("", "starting shims", length(start_um / 1000)),),
        headline,
        "the sheet; common practice: begin with known shims and measure",
    )
    details = (
        Sentence(
            "Bearings fully home, rotors on and drawn up. Then measure in front (rotor face below body face, by depth gauge, or "
            "straightedge and leaves) and behind (leaves) at both rotors."
        ),
        BELOW,
    )
    return Move(Way.STAY, 0.0, headline, details, working)


BELOW = Sentence("Feel it with the thumb: the rotor must lie below the body face. Above it, never assemble.")


def move_for(
    rotors: Sequence[Faces], front: Window, back: Window, difference_mm: float, available: Mapping[int, int], sold_um: Sequence[int]
) -> tuple[Move, tuple[StackChange, StackChange] | None, ShimChoice]:
    """The shims that bring front and back of both rotors to their targets.

    Parameters
    ----------
    rotors : sequence of Faces
        Both as measured, with their shims.
    front, back : Window
        Where the clearances have to end up, in mm.
    difference_mm : float
        How far the rotors may differ.
    available : mapping of int to int
        Thickness [um] -> count, the shims in the pump included.
    sold_um : sequence of int
        Thicknesses the maker sells, for what to buy.
    """
    wanted = wanted_of(front, back, difference_mm)
    choice = choose_shims(available, rotors, wanted)
    given = tuple(
        Given(f"{symbol}{i + 1}", f"{name}, {shaft}", length(um / 1000, fine=True))
        for i, (shaft, rotor) in enumerate(zip(SHAFTS, rotors, strict=True))
        for symbol, name, um in (
            ("f", "front", rotor.front_um), ("b", "back", rotor.back_um), ("S", "shims now", sum(rotor.stack)),
        )
    )  # fmt: skip
    working = Working(
        "Shims behind the front bearings",
        "f′ = f − (S′ − S),   b′ = b + (S′ − S);   both in their windows, both rotors alike within d",
        (
            *given,
            Given("", "front wanted", _span(front)),
            Given("", "back wanted", _span(back)),
            Given("d", "the rotors may differ by", length(difference_mm)),
            Given("", "stock and fitted", stock_text(available)),
        ),
        _result(choice),
        "geometry of a shimmed bearing; exact search of all shims from stock: fewest pieces, then least error",
    )
    if choice.stacks is None:
        choice = replace(choice, buy=what_to_buy(available, sold_um, rotors, wanted))
        headline, details = _cannot(choice, rotors)
        return Move(Way.STAY, 0.0, headline, details, working), None, choice
    changes = tuple(change_between(rotor.stack, stack) for rotor, stack in zip(rotors, choice.stacks, strict=True))
    return Move(Way.STAY, 0.0, _headline(changes), _becomes(rotors, choice.stacks), working), (changes[0], changes[1]), choice


def faces(checks_mm: Sequence[float], stacks: Sequence[Stack]) -> tuple[Faces, Faces]:
    """Both rotors from front and back of the one, then of the other, in mm."""
    um = [round(mm * 1000) for mm in checks_mm]
    if len(um) != 4 or len(stacks) != 2:
        raise FieldError("readings", "front and back of both rotors are needed.", "Expected four readings and two stacks.")
    return Faces(um[0], um[1], stacks[0]), Faces(um[2], um[3], stacks[1])


def _span(window: Window) -> Sentence:
    low, high, target = window.shown()
    return Sentence("{low} to {high}, aim for {target}", {"low": low, "high": high, "target": target})


def _result(choice: ShimChoice) -> Sentence:
    if choice.stacks is None:
        return Sentence("cannot be made from this stock")
    return Sentence("{one}; {other}", {
        name: Sentence("{shaft} {s}", {"shaft": shaft, "s": describe(stack)})
        for name, shaft, stack in zip(("one", "other"), SHAFTS, choice.stacks, strict=True)
    })  # fmt: skip


def _headline(changes: Sequence[StackChange]) -> Sentence:
    parts: Amounts = {
        f"s{i}": Sentence("{shaft}: {doing}", {"shaft": shaft.capitalize(), "doing": doing})
        for i, (shaft, change) in enumerate(zip(SHAFTS, changes, strict=True))
        if (doing := out_and_in(change))
    }
    return Sentence(". ".join(f"{{{name}}}" for name in parts) or "Leave all shims as they are", parts)


def _becomes(rotors: Sequence[Faces], stacks: Sequence[Stack]) -> tuple[Sentence, ...]:
    lines = []
    for shaft, rotor, stack in zip(SHAFTS, rotors, stacks, strict=True):
        front, back = rotor.moved(sum(stack))
        amounts: Amounts = {"f": length(front / 1000, fine=True), "b": length(back / 1000, fine=True)}
        lines.append(Sentence("{shaft} should come to {f} in front, {b} behind.", {"shaft": shaft.capitalize()} | amounts))
    return (*lines, BELOW)


def _cannot(choice: ShimChoice, rotors: Sequence[Faces]) -> tuple[Sentence, tuple[Sentence, ...]]:
    if choice.shut:
        shaft, rotor = SHAFTS[choice.shut[0]], rotors[choice.shut[0]]
        amounts: Amounts = {"sum": length((rotor.front_um + rotor.back_um) / 1000, fine=True)}
        why = Sentence("Front and back together are {sum}: no shim changes that. Look for a worn or a wrong part.", amounts)
        return Sentence("The {shaft}'s rotor fits no shim", {"shaft": shaft}), (why,)
    if choice.unlike:
        sums = [length((rotor.front_um + rotor.back_um) / 1000, fine=True) for rotor in rotors]
        unlike = Sentence(
            "Front and back together are {one} at the drive shaft, {other} at the driven shaft: no shim makes the rotors stand "
            "alike. Look for a worn or a wrong part.",
            {"one": sums[0], "other": sums[1]},
        )
        return Sentence("No shims make the two rotors stand alike"), (unlike,)
    needs = tuple(
        Sentence("{shaft} takes {low} to {high} of shims.",
                 {"shaft": shaft.capitalize(), "low": length(low / 1000, fine=True), "high": length(high / 1000, fine=True)})
        for shaft, (low, high) in zip(SHAFTS, choice.totals, strict=True)
    )  # fmt: skip
    if choice.buy:
        return Sentence("Cannot be made from this stock: buy {buy}", {"buy": describe(choice.buy)}), needs
    return Sentence("Cannot be made from this stock"), needs
