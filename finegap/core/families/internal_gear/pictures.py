"""Which way round: the directions that wreck an internal gear pump, drawn right and wrong. Common practice, no source."""

from finegap.core.drawing.end_view import Centre
from finegap.core.drawing.marks import Mark, Picture, Style, circle, rect
from finegap.core.families.pictures import CONE, LIP

_X, _Y, _R = 150, 112, 84
_CASING = Centre(_X, _Y)


def _head(degrees: float) -> tuple[Mark, ...]:
    """The head seen from inside: idler on its pin, offset towards ``degrees``, the crescent opposite."""
    idler = Centre(*_CASING.at(degrees, 26))
    return (
        *_CASING.disc(Style.OUTLINE, 2 * _R),
        *idler.disc(Style.STEEL_LIGHT, 92),
        *idler.disc(Style.HATCHED, 30),
        *_CASING.crescent(Style.STEEL, 140, (idler.x, idler.y), 104, degrees + 180, 116),
    )


_PORTS = (*_CASING.port(-45, 38, 2 * _R - 6, 2 * _R + 40), *_CASING.port(45, 38, 2 * _R - 6, 2 * _R + 40))
_PORT_NAMES = ((40, 30, "port"), (260, 30, "port"))
_AXIS = Mark(Style.AXIS, f"M{_X} 8 V{_Y + _R + 6}")


def _valve(adjusting_left: bool) -> tuple[Mark, ...]:
    screw = rect(68, 30, 24, 12) if adjusting_left else rect(208, 30, 24, 12)
    return (
        Mark(Style.STEEL_LIGHT, circle(_X, 146, 58)),
        Mark(Style.LIQUID, rect(64, 126, 38, 40)),
        Mark(Style.LIQUID, rect(198, 126, 38, 40)),
        Mark(Style.OUTLINE, "M16 146 H52 M40 136 L52 146 L40 156"),
        Mark(Style.OUTLINE, "M246 146 H284 M272 136 L284 146 L272 156"),
        Mark(Style.HATCHED, rect(92, 18, 116, 36)),
        Mark(Style.BRIGHT, screw),
        Mark(Style.HATCHED_OTHER, rect(110, 54, 22, 40)),
        Mark(Style.HATCHED_OTHER, rect(168, 54, 22, 40)),
    )


PICTURES = {
    "pin": Picture(
        "Idler pin",
        (*_PORTS, *_head(0), _AXIS),
        "Towards the ports, as far from the one as from the other.",
        (*_PORTS, *_head(90), _AXIS),
        "A quarter turn round: it pumps next to nothing.",
        _PORT_NAMES,
    ),
    "crescent": Picture(
        "Crescent",
        (*_PORTS, *_head(0)),
        "On the side away from the ports, pointing at neither.",
        (*_PORTS, *_head(180)),
        "Under the ports: the teeth run into it, or the pump runs backwards.",
        _PORT_NAMES,
    ),
    "relief": Picture(
        "Relief valve",
        _valve(True),
        "What shows its suction side over the suction port, where the liquid goes in.",
        _valve(False),
        "Over the discharge it never opens.",
        ((32, 186, "suction"), (264, 186, "discharge"), (150, 152, "pump")),
    ),
    "lip": LIP,
    "cone": CONE,
}
