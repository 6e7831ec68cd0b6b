"""A twin screw pump cut through both shafts, and across its screws; gaps are drawn wide."""

from finegap.core.drawing.end_view import Centre
from finegap.core.drawing.fittings import sleeve_seal, timed_shaft
from finegap.core.drawing.marks import Mark, Point, Style, lines
from finegap.core.drawing.section import Axis, Marks, joined, slab
from finegap.core.drawing.views import Pump, Spots, View

_TURNS = 5
"""Crests drawn on a screw."""
_STARTS = (2, 1, 4)
"""Where the sheet does not count them; and the fewest and the most that are drawn."""


def views(pump: Pump) -> tuple[View, ...]:
    """Cover on the left, gear case on the right, the drive shaft above."""
    bore, outer, wide = pump.sized(bore_drive=100, bearing_outside=62, bearing_width=18)
    gap, tip, apart, length, wall = 0.03 * bore, 0.94 * bore, 0.72 * bore, 1.5 * bore, 0.14 * bore
    root, shaft, brg = 2 * apart - tip - 2 * gap, 0.3 * bore, min(outer, 0.8 * apart)
    half, back = (apart + bore) / 2, length + 2 * gap
    seal, case, first = back + 0.5 * wall, back + 0.62 * bore, back + 0.72 * bore
    second = first + 2.2 * wide
    wheel = second + 1.3 * wide
    end, box, top = wheel + 0.36 * bore, 2 * half - wall, half + wall + 2
    middle, pair = Axis(), (Axis(-apart / 2), Axis(apart / 2))
    along = (
        *slab(Style.LIQUID, 0, -half, back, 2 * half),
        *middle.body(0, (back, 2 * half, 2 * (half + wall))),
        *middle.solid(Style.HATCHED_OTHER, -wall, wall, 2 * (half + wall)),
        *middle.solid(Style.HATCHED, back, 0.5 * wall, 2 * (half + wall)),
        *middle.body(seal, (case - seal, box - 2 * wall, box), other=True),
        *middle.body(case, (0.1 * bore, 0, box + 0.4 * wall), (end - case - 0.2 * bore, box - 0.8 * wall, box + 0.4 * wall)),
        *joined(
            parts
            for axis, begin in zip(pair, (0.0, 0.8), strict=True)
            for parts in (
                timed_shaft(axis, gap, end, shaft, (first, second), (brg, wide), wheel, apart),
                axis.solid(Style.STEEL_LIGHT, gap, length, root),
                _crests(axis, gap, length, tip, begin),
                axis.nut(-0.4 * wall, 0.4 * wall + gap, 0.6 * shaft, 1.2 * shaft),
                sleeve_seal(axis, seal, case - seal, shaft, faces=True, double=False),
                axis.line(-wall - 6, end + 8),
            )
        ),
    )
    upper, lower = Centre(0, -apart / 2), Centre(0, apart / 2)
    side = bore / 2 + wall
    across = (
        *joined(centre.disc(Style.HATCHED, 2 * side) for centre in (upper, lower)),
        *joined(centre.disc(Style.OUTLINE, bore, of) for centre, of in ((upper, "bore_drive"), (lower, ""))),
        *joined(centre.disc(Style.LIQUID, bore - 0.5) for centre in (upper, lower)),
        *_screw(upper, pump, root, tip, 0),
        *_screw(lower, pump, root, tip, 180 / _starts(pump)),
        *joined(centre.disc(Style.BRIGHT, shaft) for centre in (upper, lower)),
        *joined(centre.cross(0.56 * bore) for centre in (upper, lower)),
    )
    low = apart / 2
    spots: Spots = {
        "flank_left": (gap + 0.492 * length, -0.04 * bore), "flank_right": (gap + 0.592 * length, 0.04 * bore),
        "radial_drive": (0.1 * length, -low - (tip + gap) / 2), "radial_driven": (0.1 * length, low + (tip + gap) / 2),
        "screw_drive": pair[0].on(gap, length, tip), "screw_driven": pair[1].on(gap, length, tip, below=True),
        "ends_cover": (gap / 2, -low - 0.35 * tip), "ends_back": (back - gap / 2, low + 0.35 * tip),
        "play": (gap + 0.9 * length, low), "backlash": (wheel + 0.4 * wide, 0), "flanks": (gap + 0.62 * length, -low - 0.4 * tip),
        "splines": (gap + 0.2 * length, -low), "cartridges": (seal + 0.45 * (case - seal), -low - 0.75 * shaft),
        "bearings": (first + wide / 2, -low - (shaft + brg) / 4),
    }  # fmt: skip
    seen: Spots = {
        "bore_drive": upper.on(-60, bore), "bore_driven": lower.on(240, bore),
        "clearance_drive": upper.at(60, (bore + tip) / 4), "clearance_driven": lower.at(120, (bore + tip) / 4),
    }  # fmt: skip
    cut = View("cut through both shafts", (-wall - 6, -top, end + 8, top), along, spots)
    high = low + side + 2
    return cut, View("cut across the screws, seen from the gear end", (-side - 4, -high, side + 4, high), across, seen)


def _starts(pump: Pump) -> int:
    usual, fewest, most = _STARTS
    return min(max(pump.count("starts", usual), fewest), most)


def _screw(centre: Centre, pump: Pump, root: float, tip: float, turn: float) -> Marks:
    """A screw cut across: its core, and a crest a start."""
    starts = _starts(pump)
    crests = (centre.sector(Style.STEEL, root - 1, tip, turn + i * 360 / starts, 150 / starts) for i in range(starts))
    return (*centre.disc(Style.STEEL_LIGHT, root), *joined(crests))


def _crests(axis: Axis, x: float, length: float, tip: float, begin: float) -> Marks:
    """The crests of a screw seen from the side, as they lean; ``begin`` is where the first stands, of a pitch."""
    pitch, lean = length / _TURNS, -0.3 if begin else 0.3
    high = tip / 2
    outlines: list[list[Point]] = []
    for i in range(_TURNS):
        left = x + (i + begin) * pitch
        corners = [(left, high), (left + 0.42 * pitch, high), (left + (0.42 + lean) * pitch, -high), (left + lean * pitch, -high)]
        outlines.append([(min(max(at, x), x + length), axis.y + up) for at, up in corners])
    return tuple(Mark(Style.STEEL, lines(outline)) for outline in outlines)
