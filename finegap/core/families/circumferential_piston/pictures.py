"""Which way round: what wrecks a circumferential piston pump, drawn right and wrong. Common practice, no source."""

from finegap.core.drawing.end_view import Centre
from finegap.core.drawing.marks import Mark, Picture, Style
from finegap.core.drawing.section import joined
from finegap.core.families.pictures import CONE

_LEFT, _RIGHT, _Y, _HUB, _TIP = 96, 204, 110, 38, 70


def _pair(driven: float) -> tuple[Mark, ...]:
    """Both rotors seen from the front: two wings of 70 degrees each, opposite one another."""
    first, second = (Centre(x, _Y) for x in (_LEFT, _RIGHT))
    wings = ((first, 0), (first, 180), (second, driven), (second, driven + 180))
    return (
        *joined(centre.disc(Style.HATCHED, 2 * _HUB - 8) for centre in (first, second)),
        *joined(centre.sector(Style.STEEL, 2 * _HUB, 2 * _TIP, at, 70) for centre, at in wings),
        *joined(centre.disc(Style.BRIGHT, 24) for centre in (first, second)),
    )


PICTURES = {
    "cone": CONE,
    "wings": Picture(
        "The second rotor",
        _pair(90),
        "At right angles to the first: each wing sweeps past the other's hub.",
        _pair(0),
        "Alike: the wings meet as soon as a shaft turns.",
        ((_LEFT, 206, "first"), (_RIGHT, 206, "second")),
    ),
}
