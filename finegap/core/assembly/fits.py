"""Limits of size by ISO 286: holes D to U, shafts d to u, to 500 mm.

The tables are those of ISO 286-1:2010 (standard tolerance grades, fundamental deviations), from memory; micrometres.
"""

from __future__ import annotations

import re
from bisect import bisect_left
from dataclasses import dataclass

from finegap.core.errors import FieldError

_STEPS = (3, 6, 10, 18, 30, 50, 80, 120, 180, 250, 315, 400, 500)
"""Nominal sizes up to and including, mm."""

_GRADES = {
    5: (4, 5, 6, 8, 9, 11, 13, 15, 18, 20, 23, 25, 27),
    6: (6, 8, 9, 11, 13, 16, 19, 22, 25, 29, 32, 36, 40),
    7: (10, 12, 15, 18, 21, 25, 30, 35, 40, 46, 52, 57, 63),
    8: (14, 18, 22, 27, 33, 39, 46, 54, 63, 72, 81, 89, 97),
    9: (25, 30, 36, 43, 52, 62, 74, 87, 100, 115, 130, 140, 155),
    10: (40, 48, 58, 70, 84, 100, 120, 140, 160, 185, 210, 230, 250),
    11: (60, 75, 90, 110, 130, 160, 190, 220, 250, 290, 320, 360, 400),
}
_UPPER = {
    "d": (-20, -30, -40, -50, -65, -80, -100, -120, -145, -170, -190, -210, -230),
    "e": (-14, -20, -25, -32, -40, -50, -60, -72, -85, -100, -110, -125, -135),
    "f": (-6, -10, -13, -16, -20, -25, -30, -36, -43, -50, -56, -62, -68),
    "g": (-2, -4, -5, -6, -7, -9, -10, -12, -14, -15, -17, -18, -20),
    "h": (0,) * 13,
}
_LOWER = {
    "k": (0, 1, 1, 1, 2, 2, 2, 3, 3, 4, 4, 4, 5),
    "m": (2, 4, 6, 7, 8, 9, 11, 13, 15, 17, 20, 21, 23),
    "n": (4, 8, 10, 12, 15, 17, 20, 23, 27, 31, 34, 37, 40),
    "p": (6, 12, 15, 18, 22, 26, 32, 37, 43, 50, 56, 62, 68),
}
_FINE_STEPS = (
    3, 6, 10, 14, 18, 24, 30, 40, 50, 65, 80, 100, 120, 140, 160, 180, 200, 225, 250, 280, 315, 355, 400, 450, 500,
)  # fmt: skip
"""The tighter shafts go by finer steps."""

_FINE_LOWER = {
    "r": (10, 15, 19, 23, 23, 28, 28, 34, 34, 41, 43, 51, 54, 63, 65, 68, 77, 80, 84, 94, 98, 108, 114, 126, 132),
    "s": (14, 19, 23, 28, 28, 35, 35, 43, 43, 53, 59, 71, 79, 92, 100, 108, 122, 130, 140, 158, 170, 190, 208, 232, 252),
    "u": (18, 23, 28, 33, 33, 41, 48, 60, 70, 87, 102, 124, 144, 170, 190, 210, 236, 258, 284, 315, 350, 390, 435, 490, 540),
}
_K_GRADES = (5, 6, 7)
_DELTA_TO = {"k": 8, "m": 8, "n": 8}
_DELTA_ELSE = 7
"""Holes tighter than js are moved up by the step from one grade to the next, to these grades (ISO 286-1, delta rule)."""

_ODD_HOLES = {("m", 6): (250, 315, -9)}
"""Holes whose upper deviation no rule gives, by letter and grade: over a size, up to a size [mm], and what it is there [um]."""

_LETTERS = (*_UPPER, "js", *_LOWER, *_FINE_LOWER)
_FIT = re.compile(r"^([A-Z]{1,2})(\d{1,2})\s*/\s*([a-z]{1,2})(\d{1,2})$")

SOURCE = "ISO 286-1:2010, tables of grades and deviations (from memory)"


@dataclass(frozen=True)
class IsoFit:
    """A fit at a nominal size: limits of hole and shaft in mm."""

    code: str
    nominal_mm: float
    hole_mm: tuple[float, float]
    shaft_mm: tuple[float, float]

    @property
    def interference_mm(self) -> tuple[float, float]:
        """Least and most interference; negative is clearance."""
        return self.shaft_mm[0] - self.hole_mm[1], self.shaft_mm[1] - self.hole_mm[0]


def fit_of(code: str, nominal_mm: float, field: str = "fit") -> IsoFit:
    """Limits of a fit such as ``H7/r6`` at a nominal size in mm.

    Raises
    ------
    FieldError
        Not such a code, a letter or grade not kept here, or a size over 500 mm.
    """
    match = _FIT.match(code.strip())
    if not match or match[1].lower() not in _LETTERS or match[3] not in _LETTERS:
        known = ", ".join(_LETTERS)
        raise FieldError(field, f"“{code}” is not a fit known here.", f"Expected one such as H7/r6, of {known}; holes as capitals.")
    if not 0 < nominal_mm <= _STEPS[-1]:
        raise FieldError("nominal", f"{nominal_mm:g} mm is outside the tables.", f"Expected up to {_STEPS[-1]} mm.")
    (hole, shaft), (of_hole, of_shaft) = (match[1].lower(), match[3]), (int(match[2]), int(match[4]))
    for letter, grade in ((hole, of_hole), (shaft, of_shaft)):
        if grade not in _GRADES or (letter == "k" and grade not in _K_GRADES):
            raise FieldError(field, f"“{code}”: that grade is not kept here.", f"Expected grades {min(_GRADES)} to {max(_GRADES)}.")
    limits = (_hole(hole, of_hole, nominal_mm), _shaft(shaft, of_shaft, nominal_mm))
    at_hole, at_shaft = ((nominal_mm + low / 1000, nominal_mm + high / 1000) for low, high in limits)
    return IsoFit(code.strip(), nominal_mm, at_hole, at_shaft)


def tolerance_um(grade: int, nominal_mm: float) -> int:
    """Width of a standard tolerance grade at a nominal size, in micrometres."""
    return _GRADES[grade][bisect_left(_STEPS, nominal_mm)]


def _shaft(letter: str, grade: int, nominal_mm: float) -> tuple[float, float]:
    """Lower and upper deviation, in micrometres."""
    width = tolerance_um(grade, nominal_mm)
    if letter == "js":
        return -width / 2, width / 2
    if letter in _UPPER:
        upper = _UPPER[letter][bisect_left(_STEPS, nominal_mm)]
        return upper - width, upper
    lower = _tight(letter, nominal_mm)
    return lower, lower + width


def _tight(letter: str, nominal_mm: float) -> int:
    """The deviation of a shaft tighter than js nearest to nominal."""
    if letter in _LOWER:
        return _LOWER[letter][bisect_left(_STEPS, nominal_mm)]
    return _FINE_LOWER[letter][bisect_left(_FINE_STEPS, nominal_mm)]


def _hole(letter: str, grade: int, nominal_mm: float) -> tuple[float, float]:
    """A loose hole is the shaft of its letter mirrored at nominal; a tight one as well, but for the step to the grade below."""
    width = tolerance_um(grade, nominal_mm)
    if letter in _UPPER or letter == "js":
        low, high = _shaft(letter, grade, nominal_mm)
        return -high, -low
    over, upto, odd = _ODD_HOLES.get((letter, grade), (0, 0, 0))
    upper = odd if over < nominal_mm <= upto else -_tight(letter, nominal_mm) + _delta(letter, grade, nominal_mm)
    return upper - width, upper


def _delta(letter: str, grade: int, nominal_mm: float) -> int:
    applies = grade <= _DELTA_TO.get(letter, _DELTA_ELSE) and grade > min(_GRADES) and nominal_mm > _STEPS[0]
    return tolerance_um(grade, nominal_mm) - tolerance_um(grade - 1, nominal_mm) if applies else 0
