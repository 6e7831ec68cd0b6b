"""A lobe pump cut through both shafts, and across its rotors; gaps are drawn wide."""

from finegap.core.drawing.end_view import Centre
from finegap.core.drawing.fittings import sleeve_seal, timed_shaft
from finegap.core.drawing.marks import Style
from finegap.core.drawing.section import Axis, Marks, joined, slab
from finegap.core.drawing.views import Pump, Spots, View
from finegap.core.families.rotation import arrows


def views(pump: Pump) -> tuple[View, ...]:
    """Cover on the left, gear case on the right, the drive shaft above."""
    apart, outer, wide = pump.sized(pitch_diameter=84, bearing_outside=76, bearing_width=20)
    gap, shaft, length, wall, high = 0.03 * apart, 0.34 * apart, 0.62 * apart, 0.17 * apart, 0.26 * apart
    lobes, brg, tip = _lobes(pump), min(outer, 0.9 * apart), (1.2 if _lobes(pump) > 3 else 1.46) * apart
    half, back = (apart + tip) / 2 + gap, length + 2 * gap
    seal, case, first = back + wall, back + wall + 0.5 * apart, back + wall + 0.66 * apart
    second = case + 0.34 * apart + wide
    wheel, side, top = second + 1.2 * wide, tip / 2 + gap + wall + 2, half + wall + 2
    end, box = wheel + 0.4 * apart, 2 * half - wall
    middle, pair = Axis(), (Axis(-apart / 2), Axis(apart / 2))
    held = pump.has("outer", "bearing")
    cover = 2.2 * wall if held else wall
    begin, room = gap - cover * held, tip + 2 * gap
    along = (
        *slab(Style.LIQUID, 0, -half, back, 2 * half),
        *middle.body(0, (back, 2 * half, 2 * (half + wall))),
        *middle.solid(Style.HATCHED, back, wall, 2 * (half + wall)),
        *middle.solid(Style.HATCHED_OTHER, -cover, cover, 2 * (half + wall)),
        *middle.body(seal, (case - seal, box - 2 * wall, box)),
        *middle.body(
            case, (0.08 * apart, 0, box + 0.4 * wall), (end - case - 0.18 * apart, box - 0.8 * wall, box + 0.4 * wall), other=True
        ),
        *pair[0].solid(Style.STEEL, gap, length, tip),
        *slab(Style.STEEL_LIGHT, gap, pair[1].y - high, length, 2 * high),
        *joined(timed_shaft(axis, begin, end, shaft, (first, second), (brg, wide), wheel, apart) for axis in pair),
        *joined(sleeve_seal(axis, seal, case - seal, shaft, *_faces(pump)) for axis in pair),
        *joined(_on_shaft(pump, axis, begin, end, cover, wall, shaft) for axis in pair),
    )
    upper, lower = Centre(0, -apart / 2), Centre(0, apart / 2)
    across = _across(pump, upper, lower, apart, (tip, room, shaft, side))
    low, out = apart / 2, room / 2
    spots: Spots = {
        "front_drive": (gap / 2, -low - 0.6 * out), "back_drive": (back - gap / 2, -low - 0.6 * out),
        "front_driven": (gap / 2, low + 0.5 * high), "back_driven": (back - gap / 2, low + 0.5 * high),
        "length_drive": (0.5 * length, -low - 0.4 * out), "length_driven": (0.5 * length, low + 0.7 * high),
        "depth": (0.75 * back, half + wall / 3),
        "o_ring_zones": (seal + 0.2 * apart, low + 0.66 * shaft), "bearings": (first + wide / 2, -low - (shaft + brg) / 4),
        "play_drive": (gap + 0.2 * length, -low), "play_driven": (gap + 0.2 * length, low), "backlash": (wheel + 0.12 * apart, 0),
        "faces": (gap + 2, -low + 0.4 * high),
    }  # fmt: skip
    seen: Spots = {
        "tip_drive": upper.at(0, out - gap / 2), "tip_driven": lower.at(180, out - gap / 2) if lobes % 2 else lower.at(100, out),
        "bore_drive": upper.on(-40, 2 * out), "bore_driven": lower.on(220, 2 * out), "over_drive": upper.at(4, 0.9 * out),
        "over_driven": lower.at(94, 0.8 * out), "lobes": upper.at(160, 0.3 * apart),
        "mesh_left": (-0.2 * apart, 0.02 * apart), "mesh_right": (0.2 * apart, 0.02 * apart),
    }  # fmt: skip
    cut = View("cut through both shafts", (-cover - 6, -top, end + 8, top), along, spots)
    return cut, View("cut across the rotors, seen from the gear end", (-1.12 * side, -top, 1.12 * side, top), across, seen)


def _lobes(pump: Pump) -> int:
    """Of each rotor."""
    return int(pump.build.get("lobes", "2"))


def _faces(pump: Pump) -> tuple[bool, bool]:
    """Whether its shaft seals have faces, and whether there are two of them."""
    return not pump.has("seal", "single_o", "double_o"), pump.has("seal", "double_o", "double_m", "double_b")


def _on_shaft(pump: Pump, axis: Axis, begin: float, end: float, cover: float, wall: float, d: float) -> Marks:
    """What holds the front of a shaft: its nut, or a bearing in the cover."""
    if pump.has("outer", "bearing"):
        held = axis.ball_bearing(-0.8 * cover, 0.6 * cover, d, 1.7 * d)
    else:
        held = axis.nut(-0.6 * wall, 0.6 * wall + begin, 0.7 * d, 1.3 * d)
    return (*held, *axis.line(-cover - 6, end + 8))


def _across(pump: Pump, upper: Centre, lower: Centre, apart: float, sizes: tuple[float, float, float, float]) -> Marks:
    """Both rotors in their body; ``sizes`` are over the tips, of the bores, of the shafts, and from the middle out to the side."""
    tip, room, shaft, side = sizes
    lobes = _lobes(pump)
    return (
        *joined(centre.disc(Style.HATCHED, 2 * side - 4) for centre in (upper, lower)),
        *joined(centre.disc(Style.OUTLINE, room) for centre in (upper, lower)),
        *joined(Centre().port(turn, 0.5 * apart, 0.6 * apart, 2.1 * side) for turn in (90, 270)),
        *joined(centre.disc(Style.LIQUID, room - 0.5) for centre in (upper, lower)),
        *upper.lobes(Style.STEEL, lobes, tip, 0.97 * apart),
        *lower.lobes(Style.STEEL_LIGHT, lobes, tip, 0.97 * apart, 180 + 180 / lobes),
        *joined(centre.disc(Style.BRIGHT, shaft) for centre in (upper, lower)),
        *arrows(pump, upper, 0.62 * apart, Centre(), 2 * side, -90),
        *joined(centre.cross(0.62 * tip) for centre in (upper, lower)),
    )
