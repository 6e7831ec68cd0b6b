"""A circumferential piston pump cut through both shafts, and across its rotors; gaps are drawn wide."""

from finegap.core.drawing.end_view import Centre
from finegap.core.drawing.fittings import sleeve_seal, timed_shaft
from finegap.core.drawing.marks import Style
from finegap.core.drawing.section import Axis, joined, slab
from finegap.core.drawing.views import Pump, Spots, View

_SPAN = 100
"""Of a wing, in degrees."""


def views(pump: Pump) -> tuple[View, ...]:
    """Cover on the left, gear case on the right, the drive shaft above; the driven rotor's wing is drawn turned into the cut."""
    apart, outer, wide = pump.sized(pitch_diameter=84, bearing_outside=76, bearing_width=20)
    gap, shaft, length, wall, hub = 0.03 * apart, 0.36 * apart, 0.62 * apart, 0.17 * apart, 0.78 * apart
    tip, brg = 2 * (apart - gap) - hub, min(outer, 0.9 * apart)  # a wing sweeps past the other's hub
    half, back, thick = (apart + tip) / 2 + gap, length + 2 * gap, (tip - hub) / 2 - gap
    seal, case, first = back + wall, back + wall + 0.5 * apart, back + wall + 0.66 * apart
    second = case + 0.34 * apart + wide
    wheel, high, side = second + 1.2 * wide, half + wall + 2, tip / 2 + gap + wall + 2
    end, box = wheel + 0.4 * apart, 2 * half - wall
    middle, pair = Axis(), (Centre(0, -apart / 2), Centre(0, apart / 2))
    upper, lower = pair
    faces, double = not pump.has("seal", "single_o", "double_o"), pump.has("seal", "double_o", "double_m", "double_b")
    along = (
        *slab(Style.LIQUID, 0, -half, back, 2 * half),
        *middle.body(0, (back, 2 * half, 2 * (half + wall))),
        *middle.solid(Style.HATCHED, back, wall, 2 * (half + wall)),
        *middle.solid(Style.HATCHED_OTHER, -wall, wall, 2 * (half + wall)),
        *middle.body(seal, (case - seal, box - 2 * wall, box)),
        *middle.body(
            case, (0.08 * apart, 0, box + 0.4 * wall), (end - case - 0.18 * apart, box - 0.8 * wall, box + 0.4 * wall), other=True
        ),
        *joined(slab(Style.STEEL, gap, y, length, thick) for y in (gap - half, (hub - apart) / 2 + gap, half - thick - gap)),
        *joined(
            parts
            for axis in (Axis(upper.y), Axis(lower.y))
            for parts in (
                axis.body(gap + 0.26 * length, (back - gap - 0.26 * length, 1.2 * shaft, hub)),
                axis.solid(Style.STEEL, gap, 0.2 * length, hub + 2 * gap),
                timed_shaft(axis, gap, end, shaft, (first, second), (brg, wide), wheel, apart),
                axis.nut(-0.6 * wall, 0.6 * wall + gap, 0.7 * shaft, 1.3 * shaft),
                sleeve_seal(axis, seal, case - seal, shaft, faces, double),
                axis.line(-wall - 6, end + 8),
            )
        ),
    )
    wings = ((upper, 0), (upper, 180), (lower, 90), (lower, 270))
    across = (
        *joined(centre.disc(*one) for one in ((Style.HATCHED, 2 * side - 4), (Style.OUTLINE, tip + 2 * gap)) for centre in pair),
        *joined(Centre().port(turn, 0.5 * apart, 0.66 * apart, 2.1 * side) for turn in (90, 270)),
        *joined(centre.disc(Style.LIQUID, tip + 2 * gap - 0.5) for centre in pair),
        *joined(centre.sector(Style.STEEL, hub + 2 * gap, tip, turn, _SPAN) for centre, turn in wings),
        *joined(centre.disc(*one) for centre in pair for one in ((Style.HATCHED_OTHER, hub), (Style.BRIGHT, shaft))),
        *joined(centre.cross(0.62 * tip) for centre in pair),
    )
    wing, low, corner = (hub + tip) / 4 + gap / 2, apart / 2, upper.at(180 + _SPAN / 2, tip / 2 - 1)
    spots: Spots = {
        "front_drive": (gap / 2, -low - wing), "back_drive": (back - gap / 2, -low - wing), "front_driven": (gap / 2, low + wing),
        "back_driven": (back - gap / 2, low + wing), "shoulders": (seal + 2, -low - shaft / 2),
        "o_ring_zones": (seal + 0.2 * apart, low + 0.66 * shaft), "bearings": (first + wide / 2, -low - (shaft + brg) / 4),
        "backlash": (wheel + 0.12 * apart, 0),
    }  # fmt: skip
    seen: Spots = {
        "radial_drive": upper.on(-20, tip + gap), "radial_driven": lower.on(100, tip + gap), "hubs": lower.at(150, hub / 2 - 3),
        "wings": lower.at(250, wing), "mesh_left": (corner[0] - 1.5 * gap, corner[1] + gap),
        "mesh_right": (1.5 * gap - corner[0], corner[1] + gap),
    }  # fmt: skip
    cut = View("cut through both shafts", (-wall - 6, -high, end + 8, high), along, spots)
    return cut, View("cut across the rotors, seen from the gear end", (-side, -high, side, high), across, seen)
