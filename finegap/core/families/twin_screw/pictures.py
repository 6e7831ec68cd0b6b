"""Which way round: what jams a twin screw pump, drawn right and wrong. Common practice, no source."""

from finegap.core.drawing.marks import Mark, Picture, Style, rect
from finegap.core.drawing.section import joined

_TURNS, _PITCH, _LEFT, _HIGH = 4, 44, 62, 66


def _screw(y: float, shift: float, lean: float) -> tuple[Mark, ...]:
    """A screw seen from the side: its core, its crests, and its ends."""
    crests = (
        f"M{_LEFT + shift + i * _PITCH + 4} {y + _HIGH / 2} l{lean * 18} {-_HIGH} h18 l{-lean * 18} {_HIGH} Z"
        for i in range(_TURNS)
    )
    return (
        Mark(Style.STEEL_LIGHT, rect(_LEFT + shift - 6, y - 15, _TURNS * _PITCH + 12, 30)),
        Mark(Style.STEEL, " ".join(crests)),
    )


def _pair(shift: float) -> tuple[Mark, ...]:
    return (*joined((_screw(66, 0, 1), _screw(140, 22 + shift, -1))), Mark(Style.AXIS, "M30 66 H280 M30 140 H280"))


PICTURES = {
    "flush": Picture(
        "Meshed on a flat surface",
        _pair(-22),
        "Ends flush and marks on marks: then both go on at once.",
        _pair(0),
        "Half a turn out: the ends stand apart, and the flanks meet.",
        ((92, 206, "ends"), (204, 206, "marks")),
    ),
}
