"""The section of a circumferential piston pump through both shafts; gaps are drawn wide."""

from finegap.core.drawing.marks import Drawing, Mark, Style, circle, rect

_LEFT = 120
"""Room for names on either side."""


def _rect(x: float, y: float, width: float, height: float) -> str:
    return rect(_LEFT + x, y, width, height)


def _circle(x: float, y: float, radius: float) -> str:
    return circle(_LEFT + x, y, radius)


_SHAFTS = (206, 434)

DRAWING = Drawing(
    (1020, 660),
    (
        # body with its hubs, and the cover in front
        Mark(Style.HATCHED, _rect(214, 86, 160, 28)),
        Mark(Style.HATCHED, _rect(214, 526, 160, 28)),
        Mark(Style.HATCHED, _rect(360, 86, 40, 468)),
        Mark(Style.LIQUID, _rect(214, 114, 146, 412)),
        Mark(Style.HATCHED_OTHER, _rect(160, 86, 54, 468)),
        *(Mark(Style.HATCHED, _rect(310, y - 52, 50, 104)) for y in _SHAFTS),
        # rotors: wings out to the body, reaching from cover to back face
        *(Mark(Style.STEEL, _rect(230, y - 86, 116, 36)) for y in _SHAFTS),
        *(Mark(Style.STEEL, _rect(230, y + 50, 116, 36)) for y in _SHAFTS),
        *(Mark(Style.STEEL_LIGHT, _rect(230, y - 50, 66, 100)) for y in _SHAFTS),
        # gear case, bearings, timing gears
        Mark(Style.HATCHED_OTHER, _rect(440, 110, 250, 26)),
        Mark(Style.HATCHED_OTHER, _rect(440, 504, 250, 26)),
        Mark(Style.HATCHED_OTHER, _rect(440, 110, 22, 420)),
        *(Mark(Style.BRIGHT, _rect(230, y - 20, 470, 40)) for y in _SHAFTS),
        *(Mark(Style.BRIGHT, _rect(x, y + dy, 44, 30)) for x in (486, 568) for y in _SHAFTS for dy in (-54, 24)),
        *(Mark(Style.BRIGHT, _circle(x + 22, y + dy + 15, 11)) for x in (486, 568) for y in _SHAFTS for dy in (-54, 24)),
        *(Mark(Style.PACKING, _rect(478, y + dy, 8, 30)) for y in _SHAFTS for dy in (-54, 24)),
        *(Mark(Style.STEEL, _rect(628, y - 108, 26, 216)) for y in _SHAFTS),
        *(Mark(Style.STEEL_LIGHT, _rect(216, y - 16, 14, 32)) for y in _SHAFTS),
        *(Mark(Style.AXIS, f"M{_LEFT + 130} {y} H{_LEFT + 730}") for y in _SHAFTS),
    ),
    {
        "front_drive": (342, 206),
        "back_drive": (474, 206),
        "front_driven": (342, 434),
        "back_driven": (474, 434),
        "radial_drive": (410, 116),
        "radial_driven": (410, 524),
        "mesh_left": (382, 320),
        "mesh_right": (438, 320),
        "wings": (410, 150),
        "hubs": (450, 246),
        "shoulders": (492, 220),
        "o_ring_zones": (518, 420),
        "backlash": (760, 320),
        "bearings": (640, 220),
    },
)
