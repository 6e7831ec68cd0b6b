"""An external gear pump cut through both shafts, and across its gears; gaps are drawn wide."""

from finegap.core.drawing.end_view import Centre
from finegap.core.drawing.fittings import face_seal
from finegap.core.drawing.marks import Style
from finegap.core.drawing.section import Axis, Marks, joined, slab
from finegap.core.drawing.views import Pump, Spots, View
from finegap.core.families.rotation import arrows

_TEETH = (11, 6, 30)
"""Where the sheet does not count them; and the fewest and the most that are drawn."""


def views(pump: Pump) -> tuple[View, ...]:
    """Back plate on the left, drive end on the right, the drive gear above."""
    bore, wide, plate, shaft, brg, brg_wide = pump.sized(
        bore_drive=80.2, width_drive=53.8, plate_front=5, shaft_drive=30, bearing_outside=55, bearing_width=13,
    )  # fmt: skip
    gap, tip = 0.022 * bore, 0.972 * bore
    apart, side, wall = 0.86 * bore, 0.16 * bore, 0.2 * bore
    packed, face = 0.8 * gap, wide / 2
    left, right, shut, opened = -face - gap, face + gap, -face - gap - plate, face + gap + plate
    deep = 2 * brg_wide + 0.5 * bore
    back, front = shut - 0.5 * side - deep, opened + 0.5 * side + deep
    half, end = (apart + bore) / 2 + side + 0.08 * bore, front + 0.5 * bore
    pair, middle, box = (Axis(-apart / 2), Axis(apart / 2)), Axis(), 2 * (half - 0.08 * bore)
    along = (
        *slab(Style.LIQUID, shut, -(apart + bore) / 2, opened - shut, apart + bore),
        *middle.body(shut, (opened - shut, apart + bore, box)),
        *joined(middle.ring(Style.PACKING, x, packed, apart + bore, box) for x in (shut - packed, opened)),
        *middle.solid(Style.HATCHED_OTHER, back, shut - packed - back, box),
        *middle.solid(Style.HATCHED_OTHER, opened + packed, front - opened - packed, box),
        *joined(slab(Style.BUSHING, x, -(apart + bore) / 2, plate, apart + bore) for x in (shut, right)),
        *joined(_shaft(axis, back, front, (shut, opened), shaft, brg, brg_wide, driven=axis is pair[0]) for axis in pair),
        *pair[0].shaft(front - 2, end - front + 2, 0.9 * shaft),
        *joined(axis.solid(Style.STEEL_LIGHT, -face, wide, tip) for axis in pair),
        *joined(axis.line(back - 6, (end if axis is pair[0] else front) + 6) for axis in pair),
    )
    upper, lower, teeth = Centre(0, -apart / 2), Centre(0, apart / 2), _teeth(pump)
    over = bore / 2 + wall
    across = (
        *joined(centre.disc(Style.HATCHED, bore + 2 * wall) for centre in (upper, lower)),
        *joined(Centre().port(at, 0.5 * bore, 0.4 * bore, 2 * over + 4) for at in (90, 270)),
        *joined(centre.disc(Style.OUTLINE, bore, of) for centre, of in ((upper, "bore_drive"), (lower, ""))),
        *joined(centre.disc(Style.LIQUID, bore - 0.5) for centre in (upper, lower)),
        *upper.gear(Style.STEEL_LIGHT, teeth, 0.74 * bore, tip, 180),
        *lower.gear(Style.STEEL, teeth, 0.74 * bore, tip, 180 / teeth),
        *joined(centre.disc(Style.BRIGHT, shaft) for centre in (upper, lower)),
        *arrows(pump, upper, 0.56 * bore, Centre(), 2 * over, -90),
        *joined(centre.cross(0.58 * bore) for centre in (upper, lower)),
    )
    at, low = apart / 2, tip / 2
    spots: Spots = {
        "end_drive": (left + gap / 2, -at - 0.3 * bore), "end_idler": (left + gap / 2, at + 0.3 * bore),
        "length_drive": (0.25 * wide, -at - bore / 2 - side / 2), "length_idler": (0.25 * wide, at + bore / 2 + side / 2),
        "width_drive": (-0.2 * wide, -at - 0.4 * low), "width_idler": (-0.2 * wide, at + 0.4 * low),
        "plate_front": (right + plate / 2, -at - 0.38 * bore), "plate_back": (shut + plate / 2, at + 0.38 * bore),
        "bearings": (back + 0.6 * brg_wide, -at - (shaft + brg) / 4), "runout": (end - 3, -at + 0.45 * shaft),
        "seal_faces": (opened + 0.22 * bore + brg_wide, -at - 0.8 * shaft),
        "shaft_drive": pair[0].on(front, end - front, 0.9 * shaft),
        "shaft_idler": pair[1].on(opened + 0.4 * side, deep / 3, shaft, below=True),
    }  # fmt: skip
    seen: Spots = {
        "bore_drive": upper.on(-50, bore), "bore_idler": lower.on(230, bore), "tips_drive": upper.on(40, tip),
        "tips_idler": lower.on(140, tip), "tip_clearance_drive": upper.at(0, (bore + tip) / 4), "backlash": (2, 0),
        "tip_clearance_idler": lower.at(180, (bore + tip) / 4), "teeth_drive": upper.at(200, 0.42 * tip),
        "teeth_idler": lower.at(200, 0.42 * tip),
    }  # fmt: skip
    high, out_to = at + bore / 2 + wall + 2, over + 0.2 * bore
    cut = View("cut through both shafts", (back - 6, -half, end + 6, half), along, spots)
    return cut, View("cut across the gears", (-out_to, -high, out_to, high), across, seen)


def _teeth(pump: Pump) -> int:
    usual, fewest, most = _TEETH
    counted = pump.count("teeth", usual)
    return counted if fewest <= counted <= most else usual


def _shaft(
    axis: Axis, back: float, front: float, plates: tuple[float, float], shaft: float, brg: float, wide: float, *, driven: bool
) -> Marks:
    """A shaft in its chambers: bearings outside and inside with seals between; the drive end has the mechanical seal."""
    shut, opened = plates
    lips = (shut - 2.2 * wide,) if driven else (shut - 2.2 * wide, opened + 1.7 * wide)
    if driven:
        at_front = face_seal(axis, opened + 0.4 * wide, 0.11 * (front - opened), shaft)
    else:
        at_front = axis.ball_bearing(opened + 3, wide, shaft, brg)
    ends = (back,) if driven else (back, front)
    return (
        *axis.solid(Style.LIQUID, back, shut - back, brg),
        *axis.solid(Style.LIQUID, opened, front - opened, brg),
        *axis.shaft(back, front - back, shaft),
        *axis.ball_bearing(back + 3, wide, shaft, brg),
        *axis.ball_bearing(shut - wide - 3, wide, shaft, brg),
        *axis.ball_bearing(front - wide - 3, wide, shaft, brg),
        *at_front,
        *joined(axis.lip_seal(x, 0.5 * wide, shaft, 0.9 * brg) for x in lips),
        *joined(axis.solid(Style.STEEL, x - 0.2 * wide, 0.4 * wide, brg) for x in ends),
    )
