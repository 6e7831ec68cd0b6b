"""Which feeler leaves make a thickness: from the technician's own set, the fewest, three at most."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations

from finegap.core.errors import FieldError
from finegap.core.formatting import Amount, Sentence, length
from finegap.core.measuring.feeler import MOST_LEAVES, check_leaves
from finegap.core.measuring.uncertainty import from_interval
from finegap.core.measuring.verdict import Limit, School, Verdict, judge
from finegap.core.working import Given, Working


@dataclass(frozen=True)
class Pile:
    """Leaves in micrometres, thinnest first, and what they are off the thickness wanted."""

    leaves_um: tuple[int, ...]
    target_um: int

    @property
    def sum_um(self) -> int:
        """Thickness of the pile."""
        return sum(self.leaves_um)

    @property
    def off_um(self) -> int:
        """Pile less target."""
        return self.sum_um - self.target_um

    @property
    def words(self) -> Sentence:
        """The leaves and what they come to."""
        amounts: dict[str, Amount | str] = {"sum": length(self.sum_um / 1000, fine=True)}
        for n, leaf in enumerate(self.leaves_um):
            amounts[f"l{n}"] = length(leaf / 1000, fine=True)
        leaves = " + ".join(f"{{l{n}}}" for n in range(len(self.leaves_um)))
        return Sentence(leaves if len(self.leaves_um) == 1 else f"{leaves} = {{sum}}", amounts)


def pile_for(leaves_um: Sequence[int], target_um: int, most: int = MOST_LEAVES) -> Pile:
    """The leaves nearest to a thickness; of those the fewest, then the thicker pile.

    Parameters
    ----------
    leaves_um : sequence of int
        The set, each leaf once.
    target_um : int
        Thickness wanted.
    most : int
        How many leaves may lie together.

    Raises
    ------
    FieldError
        No leaf, a leaf twice, or a thickness that cannot be.
    """
    set_um = sorted(check_leaves(list(leaves_um)))
    if target_um <= 0:
        raise FieldError("thickness", "it must be more than zero.", "Expected what the leaves shall make.")
    piles = (Pile(chosen, target_um) for n in range(1, most + 1) for chosen in combinations(set_um, n))
    return min(piles, key=lambda p: (abs(p.off_um), len(p.leaves_um), -p.sum_um))


def go_and_no_go(leaves_um: Sequence[int], low_um: int, high_um: int) -> tuple[Pile | None, Pile | None]:
    """The two piles that prove a gap: the thinnest pile in the window, which must go, and the thickest, which must not.

    ``None`` where the set makes no such pile. The one that goes lies in the lower half of the window, the other in the upper.
    """
    if low_um >= high_um:
        raise FieldError("window", "its lower end is not below its upper.", "Expected the smaller gap first.")
    set_um = sorted(check_leaves(list(leaves_um)))
    middle = (low_um + high_um) / 2
    piles = [chosen for n in range(1, MOST_LEAVES + 1) for chosen in combinations(set_um, n)]
    goes = [Pile(chosen, low_um) for chosen in piles if low_um <= sum(chosen) <= middle]
    stops = [Pile(chosen, high_um) for chosen in piles if middle < sum(chosen) <= high_um]
    # The nearer to the window's own ends, the less a right gap is turned down.
    go, stop = (min(found, key=lambda p: (abs(p.off_um), len(p.leaves_um)), default=None) for found in (goes, stops))
    return go, stop


def uncertainty_mm(pile: Pile, expanded_mm: float, k: float) -> float:
    """Standard uncertainty of a pile in mm: leaves of one certificate are off together, so they add up."""
    if expanded_mm < 0 or k <= 0:
        raise FieldError("certificate", "U and k cannot be these.", "Expected U of a leaf, and its k.")
    return len(pile.leaves_um) * expanded_mm / k


def pair_uncertainty_mm(goes_mm: float, stops_mm: float, leaves_um: Sequence[int], leaf_u_mm: float) -> float:
    """Standard uncertainty in mm that a pair of piles of one set puts into a reading: that of the pile with more leaves."""
    return leaf_u_mm * pair_piles(goes_mm, stops_mm, tuple(leaves_um))


@lru_cache(maxsize=1024)
def pair_piles(goes_mm: float, stops_mm: float, leaves_um: tuple[int, ...]) -> int:
    """How many leaves the larger of two piles of one set has. Kept: it is asked for with every reading of a job.

    A thickness is taken to be made of the fewest leaves it can be made of; of a set whose leaves are not known, of one.
    """
    if not leaves_um:
        return 1
    return max(len(pile_for(leaves_um, max(round(mm * 1000), 1)).leaves_um) for mm in (goes_mm, stops_mm))


@lru_cache(maxsize=256)
def proving(
    leaves_um: tuple[int, ...], limit: Limit, expanded_mm: float, k: float, school: School
) -> tuple[Pile | None, Pile | None]:
    """The pair of piles to prove a gap with. Where the one goes and the other does not, the verdict is beyond doubt.

    ``limit`` is a window; ``expanded_mm`` is U of a leaf of the set. At the window's own ends where that is enough, else inside
    them by U; a pile is ``None`` where the set makes none. Kept: it is told with every answer of a job and seldom changes.
    """
    low, high = limit.lower_mm or 0.0, limit.upper_mm or 0.0
    found: tuple[Pile | None, Pile | None] = (None, None)
    for inside in (0.0, expanded_mm):
        low_um, high_um = math.ceil(1000 * (low + inside) - _HAIR), math.floor(1000 * (high - inside) + _HAIR)
        if low_um >= high_um:
            break
        go, stop = found = go_and_no_go(leaves_um, low_um, high_um)
        if go and stop and _is_right(go, stop, limit, max(uncertainty_mm(p, expanded_mm, k) for p in (go, stop)), school):
            break
    return found


_HAIR = 1e-6
"""A thousandth of a millimetre is not lost to the last digit of a float."""


def _is_right(go: Pile, stop: Pile, limit: Limit, u_mm: float, school: School) -> bool:
    goes, stops = go.sum_um / 1000, stop.sum_um / 1000
    u = math.hypot(from_interval(goes, stops), u_mm)
    return judge((goes + stops) / 2, u, math.inf, limit, school, half_mm=(stops - goes) / 2).verdict is Verdict.KEEP


NEAREST = "the sum nearest to t; of those the fewest leaves, three at most"
INSIDE = "the sum nearest to t that still lies in the window; of those the fewest leaves, three at most"


def pile_working(pile: Pile, rule: str = NEAREST) -> Working:
    """How the pile is chosen."""
    return Working(
        "Leaves for a thickness",
        rule,
        (Given("t", "thickness wanted, or end of the window", length(pile.target_um / 1000, fine=True)),),
        pile.words,
        "Every pile of up to three leaves compared",
        (Sentence("Off by {off}.", {"off": length(pile.off_um / 1000, fine=True)}),) if pile.off_um else (),
    )
