"""The section of a sliding vane pump, cut along the shaft; gaps are drawn wide."""

from finegap.core.drawing.marks import Drawing, Mark, Style, circle, rect

_LEFT = 120
"""Room for names on either side."""


def _rect(x: float, y: float, width: float, height: float) -> str:
    return rect(_LEFT + x, y, width, height)


def _circle(x: float, y: float, radius: float) -> str:
    return circle(_LEFT + x, y, radius)


DRAWING = Drawing(
    (1020, 640),
    (
        Mark(Style.HATCHED, _rect(212, 110, 300, 56)),
        Mark(Style.HATCHED, _rect(212, 474, 300, 56)),
        Mark(Style.LIQUID, _rect(212, 166, 300, 308)),
        Mark(Style.HATCHED_OTHER, _rect(150, 96, 52, 448)),
        Mark(Style.PACKING, _rect(202, 110, 10, 56)),
        Mark(Style.PACKING, _rect(202, 474, 10, 56)),
        Mark(Style.HATCHED_OTHER, _rect(512, 96, 60, 448)),
        # rotor with two vanes showing, one at the top of its slot and one at the bottom
        Mark(Style.STEEL_LIGHT, _rect(222, 222, 280, 196)),
        Mark(Style.STEEL, _rect(230, 170, 264, 110)),
        Mark(Style.STEEL, _rect(230, 372, 264, 96)),
        Mark(Style.BRIGHT, _rect(100, 294, 590, 52)),
        *(Mark(Style.BRIGHT, _rect(x, y, 44, 34)) for x in (154, 524) for y in (258, 348)),
        *(Mark(Style.BRIGHT, _circle(x, y, 12)) for x in (176, 546) for y in (275, 365)),
        Mark(Style.HATCHED, _rect(572, 200, 14, 240)),
        *(Mark(Style.STEEL_LIGHT, _rect(640, y, 18, 60)) for y in (226, 354)),
        Mark(Style.HATCHED_OTHER, _rect(232, 70, 96, 40), {"filter": ("fitted",)}),
        Mark(Style.LIQUID, _rect(244, 78, 72, 32), {"filter": ("fitted",)}),
        Mark(Style.AXIS, f"M{_LEFT + 76} 320 H{_LEFT + 716}"),
    ),
    {
        "side_gap": (326, 300),
        "vane_height": (480, 176),
        "vane_thickness": (550, 186),
        "vane_length": (410, 186),
        "rotor_length": (480, 330),
        "cylinder_length": (480, 126),
        "cylinder_bore": (590, 470),
        "vanes": (450, 206),
        "slots": (520, 250),
        "covers": (296, 420),
        "bearings": (740, 320),
        "filter": (360, 96),
        "port_depth": (500, 126),
        "port_line": (520, 170),
    },
)
