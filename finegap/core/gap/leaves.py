"""Which feeler leaves make a thickness: from the technician's own set, the fewest, three at most."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations

from finegap.core.errors import FieldError
from finegap.core.measuring.feeler import MOST_LEAVES, check_leaves
from finegap.core.showing import Amount, Sentence, length
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
    """Piles that prove a gap inside its window: the thinnest in it that must go and the thickest in it that must not.

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
