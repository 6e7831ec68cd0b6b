"""Numbers round a drawing: a column on either side, each number joined to its spot by a straight leader.

Of all ways to give the spots a place in the columns, the one with the least length of leaders is taken. Two straight leaders that
crossed could be uncrossed by changing their places, and both would be shorter: so with the least length none cross. All that is
written stands outside the leaders' ends, so no leader runs through a number or a word.

The least length is found as an assignment (Kuhn 1955, Munkres 1957; by SciPy). A leader ends in a dot where it points into a part,
as ISO 128-2 has it (from memory).
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from enum import Enum

from finegap.core.drawing.letters import BOLD, LETTERS, REGULAR
from finegap.core.drawing.marks import Point
from finegap.core.errors import FieldError

TEXT_PX = 14
"""Size of what is written at a number: the least that is legible at arm's length."""
RING_PX = 17
"""Radius of the ring round a number."""
BESIDE_PX = 6
"""Between a ring and its words."""
EDGE_PX = 2
"""Between the words and the edge of the drawing."""
APART_PX = 14
"""Between the leaders' ends at the rings and the drawing."""
_LEAST_ROW_PX = 2 * RING_PX + 3
"""Rows nearer than this would touch."""
_GLOVE_PX = 44
"""A row this high is hit with a glove on."""

_REGULAR = dict(zip(LETTERS, REGULAR, strict=True))
_BOLD = dict(zip(LETTERS, BOLD, strict=True))


def width_px(text: str, bold: bool = False) -> float:
    """How wide a text is set; a letter that is not in the table counts as the widest."""
    table = _BOLD if bold else _REGULAR
    widest = max(table.values())
    return sum(table.get(letter, widest) for letter in text) * TEXT_PX / 1000


class Screen(Enum):
    """What a drawing is laid out for: width and height of its room in px, and whether names stand beside the numbers."""

    WIDE = (694, 462, True)
    """A panel of 1280 by 800."""
    NARROW = (512, 407, False)
    """A tablet of 1024 by 768: the part in hand is named beside the drawing."""

    @property
    def width(self) -> int:
        """Of the room, in px."""
        return self.value[0]

    @property
    def height(self) -> int:
        """Of the room, in px."""
        return self.value[1]

    @property
    def named(self) -> bool:
        """Names stand beside the numbers."""
        return self.value[2]


@dataclass(frozen=True)
class Columns:
    """Where numbers can stand: their leaders begin at ``left`` and ``right``, in ``rows`` rows on either side, all in px."""

    left: float
    right: float
    height: float
    rows: int

    @property
    def ports(self) -> list[Point]:
        """Where a leader can begin, the left column first, from the top down."""
        row = self.height / self.rows
        return [(x, row * (i + 0.5)) for x in (self.left, self.right) for i in range(self.rows)]


def columns(screen: Screen, numbers: int, words_px: float) -> Columns:
    """The two columns of a drawing.

    Parameters
    ----------
    screen : Screen
        What it is laid out for.
    numbers : int
        How many there are.
    words_px : float
        The widest that is written beside any of them.

    Raises
    ------
    FieldError
        There are more numbers than the screen has room for.
    """
    rows = max(math.ceil(numbers / 2), int(screen.height // _GLOVE_PX))
    if screen.height / rows < _LEAST_ROW_PX:
        most = 2 * int(screen.height // _LEAST_ROW_PX)
        raise FieldError("features", f"{numbers} numbers do not go round a drawing.", f"Expected {most} or fewer in any one build.")
    side = EDGE_PX + words_px + BESIDE_PX + 2 * RING_PX
    return Columns(side, screen.width - side, screen.height, rows)


def placed(spots: Mapping[str, Point], at: Columns) -> dict[str, Point]:
    """Where the leader to each spot begins.

    Parameters
    ----------
    spots : mapping of str to (x, y)
        What the numbers mean on the drawing, by key, between the columns.
    at : Columns
        With a place for each.

    Returns
    -------
    dict of str to (x, y)
        A place of the columns for each key: those with the least length of leaders altogether.
    """
    from scipy.optimize import linear_sum_assignment

    if not spots:
        return {}
    ports = at.ports
    lengths = [[math.dist(spot, port) for port in ports] for spot in spots.values()]
    _, chosen = linear_sum_assignment(lengths)
    return {key: ports[int(port)] for key, port in zip(spots, chosen, strict=True)}
