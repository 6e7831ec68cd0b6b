"""How many lobes, and how the second rotor stands to the first: half the way from lobe to lobe. General knowledge, no source."""

from finegap.core.drawing.end_view import Centre
from finegap.core.drawing.marks import Mark, Picture, Style
from finegap.core.drawing.section import joined
from finegap.core.families.builds import Option
from finegap.core.families.pictures import CONE

LOBES = Option("lobes", "Lobes of each rotor", {"2": "two", "3": "three", "4": "four", "1": "one"})
_LEFT, _RIGHT, _Y = 96, 204, 110


def turned(lobes: int) -> str:
    """By which angle the second rotor stands turned to the first."""
    return f"{180 / lobes:g}°"


def _tip(lobes: int) -> float:
    """Out to a lobe: where there are many they are low, or their flanks would cross."""
    return 72 if lobes < 4 else 63


def _pair(lobes: int, driven: float) -> tuple[Mark, ...]:
    """Both rotors seen from the cover, the first with a lobe upright."""
    places = ((Centre(_LEFT, _Y), 0.0), (Centre(_RIGHT, _Y), driven))
    return (
        *joined(centre.lobes(Style.STEEL, lobes, 2 * _tip(lobes), 0.97 * (_RIGHT - _LEFT), at) for centre, at in places),
        *joined(centre.disc(Style.BRIGHT, 24) for centre, _ in places),
    )


def _meeting(lobes: int) -> Picture:
    # The second turns the other way, as a mirror would: with a lobe of the first upright it stands so much further.
    return Picture(
        "The second rotor",
        _pair(lobes, 180 / lobes),
        f"Turned by {turned(lobes)}: each lobe points into the other's hollow.",
        _pair(lobes, 0),
        "Lobe to lobe: they meet as soon as a shaft turns.",
        ((_LEFT, 206, "first"), (_RIGHT, 206, "second")),
    )


PICTURES = {"cone": CONE, **{f"phase_{key}": _meeting(int(key)) for key in LOBES.choices}}
