"""A sliding vane pump cut along its shaft, and across its rotor; gaps are drawn wide."""

from finegap.core.drawing.end_view import Centre, meets
from finegap.core.drawing.marks import Style
from finegap.core.drawing.section import Axis, joined, slab
from finegap.core.drawing.spots import Spot
from finegap.core.drawing.views import Pump, Spots, View

_LEAN = 24
"""A vane leans back from the radius, so that its slot passes the shaft."""


def views(pump: Pump) -> tuple[View, ...]:
    """The rotor lies high in its cylinder and all but touches it there."""
    bore, long, rotor_long, vane_long, high, thick, brg, wide = pump.sized(
        cylinder_bore=124, cylinder_length=180, rotor_length=180, vane_length=180, vane_height=38, vane_thickness=5,
        bearing_outside=62, bearing_width=16,
    )  # fmt: skip
    gap, rotor, shaft, outside, cover = 0.024 * bore, 0.84 * bore, 0.26 * bore, 1.34 * bore, 0.2 * bore
    off, half = (bore - rotor) / 2 - gap / 3, 0.53 * outside
    left, right, count, filtered = -long / 2 - 0.8 * gap, long / 2 + 0.8 * gap, pump.count("vanes", 4), pump.has("filter", "fitted")
    start, end = left - 1.6 * cover, right + 3.3 * cover
    main, cylinder, wheel, around = Axis(-off), Axis(), Centre(0, -off), Centre()
    face, top, bottom = rotor_long / 2 - gap, gap - off - rotor / 2, (bore - gap) / 2
    along = (
        *cylinder.solid(Style.LIQUID, left, right - left, bore),
        *cylinder.body(-long / 2, (long, bore, outside)),
        *joined(cylinder.ring(Style.PACKING, x, 0.8 * gap, bore, outside) for x in (left, long / 2)),
        *joined(cylinder.solid(Style.HATCHED_OTHER, x, cover, outside) for x in (left - cover, right)),
        *main.solid(Style.STEEL_LIGHT, -face, 2 * face, rotor),
        *joined(slab(Style.STEEL, gap - vane_long / 2, y, vane_long - 2 * gap, high) for y in (top, bottom - high)),
        *joined(main.shaft(x, to - x, shaft) for x, to in ((start, -face), (face, end))),
        *joined(main.ball_bearing(x, wide, shaft, brg) for x in (left - cover + 3, right + cover - wide - 3)),
        *main.lip_seal(right + 2, 0.3 * cover, shaft, (shaft + brg) / 2),
        *main.ring(Style.STEEL, end - 1.2 * cover, cover, shaft, 0.62 * bore),
        *(slab(Style.HATCHED_OTHER, -0.3 * long, -0.68 * outside, 0.34 * long, 0.18 * outside) if filtered else ()),
        *(slab(Style.PACKING, -0.26 * long, -0.65 * outside, 0.26 * long, 0.15 * outside) if filtered else ()),
        *main.line(start - 8, end + 8),
    )  # fmt: skip
    places = [360 / count * (i + 0.5) for i in range(count)]
    tips = [meets(wheel.at(at, rotor / 2), at + _LEAN, (0, 0), (bore - gap / 2) / 2) for at in places]
    vanes = [wheel.vane(Style.STEEL, tip, at + _LEAN, thick, high, "vane_height") for tip, at in zip(tips, places, strict=True)]
    across = (
        *around.ring(Style.HATCHED, bore, outside, "cylinder_bore"),
        *joined(around.port(at, 0.3 * bore, 0.98 * bore, 1.04 * outside) for at in (-62, 62)),
        *wheel.disc(Style.STEEL_LIGHT, rotor),
        *joined(
            wheel.vane(Style.LIQUID, wheel.at(at, rotor / 2 + 1), at + _LEAN, thick + gap, high + 0.02 * bore) for at in places
        ),
        *joined(vanes),
        *wheel.disc(Style.BRIGHT, shaft),
        *around.cross(0.55 * outside),
    )
    spots: Spots = {
        "side_gap": (-face - gap / 2, -off), "vane_length": (-long / 3, bottom - high / 2),
        "filter": (-0.13 * long, -0.58 * outside), "covers": cylinder.on(left - 2, 0, 0.7 * bore, below=True),
        "cylinder_bore": cylinder.on(-long / 2, long, bore, 0.8),
        "bearings": (right + cover - wide / 2 - 3, -off + (shaft + brg) / 4), "port_depth": (long / 3, -(bore + outside) / 4),
        "port_line": (long / 5, top + 3),
    }  # fmt: skip
    mid, first, last = (tips[i] for i in (count // 2, 0, -1))
    seen: Spots = {
        "vane_height": Spot(0.8 * mid[0], 0.8 * mid[1], each=tuple(tips)), "vanes": (0.9 * last[0], 0.9 * last[1]),
        "vane_thickness": Spot(0.94 * first[0], 0.94 * first[1], each=tuple(tips)),
        "slots": wheel.at(places[0] + 14, (rotor - high) / 2), "rotor_length": wheel.on(200, 0.5 * rotor),
        "cylinder_length": around.on(150, (bore + outside) / 2),
    }  # fmt: skip
    cut = View("cut along the shaft", (start - 8, -0.69 * outside if filtered else -half, end + 8, half), along, spots)
    return cut, View("cut across the rotor", (-half, -half, half, half), across, seen)
