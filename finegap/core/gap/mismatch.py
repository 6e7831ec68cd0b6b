"""What it usually means when a gap does not move as its means says it must. Common practice, no source."""

from __future__ import annotations

from dataclasses import dataclass

from finegap.core.formatting import Amounts, Sentence, length

LEAST_ODD_MM = 0.02
"""A check that is off by less than this surprises nobody. Common practice, no source."""


@dataclass(frozen=True)
class Usual:
    """Usual reasons for each way of going wrong, and how the move is said."""

    backwards: str
    ratio: str
    wider: str
    narrower: str
    what: str = "It"
    ways: tuple[str, str] = ("opened", "closed")


HOUSING = Usual(
    "Usual reasons: turned the wrong way, a left-hand thread, or the shaft did not follow.",
    "Usual reasons: another lead or diameter than the sheet's, the bearing not seated, or the shaft does not follow the housing.",
    "Usual reasons: play taken up the other way, or the mark misread. Push the shaft towards the head before you check.",
    "Usual reasons: play not taken up, or a face not clean. Check that the shaft follows the housing.",
)
GASKETS = Usual(
    "Usual reasons: the wrong gaskets came out, or the head went on crooked.",
    "Usual reasons: the stack not compressed, bolts not even, or a face not clean.",
    "Usual reasons: the stack not yet compressed, dirt or a burr under it. Tighten evenly in passes and check again.",
    "Usual reasons: a gasket torn or doubled less than counted. Count what is in.",
)


SHIMS = Usual(
    "Usual reasons: the shims went behind the other shaft's bearing, or behind its rear bearing.",
    "Usual reasons: the bearing not fully home, the rotor not drawn up, or a face not clean.",
    "Usual reasons: the rotor not drawn up to its shoulder, or dirt under the gauge.",
    "Usual reasons: the bearing not fully home against its shims, or a burr under one.",
)
TIMING = Usual(
    "Usual reasons: turned away from the wider gap, or left and right taken from different ends.",
    "Usual reasons: the gear crept while it was clamped, or the arc was laid on another diameter than the sheet's.",
    "Usual reasons: the gear crept while it was clamped, or backlash lay the other way when it was checked.",
    "Usual reasons: the gear crept while it was clamped, or backlash lay the other way when it was checked.",
    "The difference",
    ("went", "went"),
)


def mismatch(promised_mm: float, moved_mm: float, u_mm: float, usual: Usual) -> Sentence | None:
    """Why a gap did not move as geometry says: in the wrong direction, by another ratio, or by more than the check can be off."""
    off = moved_mm - promised_mm
    if abs(off) <= max(2 * u_mm, LEAST_ODD_MM):
        return None
    amounts: Amounts = {"off": length(abs(off)), "moved": length(abs(moved_mm)), "promised": length(abs(promised_mm))}
    told = abs(promised_mm) > max(2 * u_mm, LEAST_ODD_MM)
    if told and promised_mm * moved_mm < 0 and abs(moved_mm) > 2 * u_mm:
        way = usual.ways[moved_mm < 0]
        return Sentence(
            "{what} {way} by {moved}, the other way than it had to. {backwards}",
            {"what": usual.what, "way": way, "backwards": usual.backwards, **amounts},
        )
    if told and not 0.5 <= moved_mm / promised_mm <= 2:
        return Sentence(
            "{what} moved {moved}, where {promised} was promised. {ratio}", {"what": usual.what, "ratio": usual.ratio, **amounts}
        )
    side, why = ("wider", usual.wider) if off > 0 else ("narrower", usual.narrower)
    return Sentence("Came out {off} {side} than promised. {why}", {"side": side, "why": why, **amounts})
