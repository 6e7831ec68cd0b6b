"""A roller pump cut along its shaft, and across its rotor; gaps are drawn wide."""

from finegap.core.drawing.end_view import Centre, meets
from finegap.core.drawing.marks import Style
from finegap.core.drawing.section import Axis, joined, slab
from finegap.core.drawing.spots import Spot
from finegap.core.drawing.views import Pump, Spots, View
from finegap.core.families.rotation import arrows


def views(pump: Pump) -> tuple[View, ...]:
    """Housing on the left, cover on the right, drive end to the right; the rotor lies high in its eccentric bore."""
    bore, wide, depth, long, thick, shaft, brg, brg_wide = pump.sized(
        housing_bore=98, rotor_width=42, housing_depth=42.2, roller_length=42, roller_diameter=16, shaft_at_seal=24,
        bearing_outside=47, bearing_width=14,
    )  # fmt: skip
    gap, rotor, outside = 0.02 * bore, 0.87 * bore, 1.36 * bore
    off, half, wall = (bore - rotor) / 2 - gap / 3, 0.56 * outside, 0.16 * bore
    left, right, seal = -depth / 2 - gap, depth / 2 + gap, 0.6 * brg_wide
    hub, face = wall + seal + 1.3 * brg_wide + 3, wide / 2
    start, end = left - hub - 0.14 * bore, right + hub + 0.42 * bore
    count, main, body, around = pump.count("rollers", 6), Axis(-off), Axis(), Centre()
    wheel = Centre(0, -off)
    top, bottom, across = -off - rotor / 2, bore / 2 - gap / 2, 1.12 * brg
    weeps = (left - wall - seal - 0.25 * brg_wide, right + wall + seal + 0.05 * brg_wide)
    along = (
        *body.solid(Style.LIQUID, left, right - left, bore),
        *body.body(left - wall, (wall, 0, outside), (right - left, bore, outside)),
        *body.solid(Style.HATCHED_OTHER, right, wall, outside),
        *main.body(left - hub, (hub - wall, brg, 1.4 * brg)),
        *main.body(right + wall, (hub - wall, brg, 1.4 * brg), other=True),
        *main.solid(Style.STEEL_LIGHT, -face, wide, rotor),
        *joined(slab(Style.BUSHING, -long / 2, y, long, thick) for y in (top + 0.02 * bore, bottom - thick)),
        *main.shaft(start, end - start, shaft),
        *joined(main.ball_bearing(x, brg_wide, shaft, brg) for x in (left - hub + 3, right + hub - brg_wide - 3)),
        *main.lip_seal(left - wall - seal, 0.8 * seal, shaft, across, leftward=False),
        *main.lip_seal(right + wall + 0.2 * seal, 0.8 * seal, shaft, across),
        *joined(slab(Style.LIQUID, x, -off + brg / 2, 0.2 * brg_wide, 0.2 * brg) for x in weeps),
        *body.o_ring(right - 0.05 * bore, 0.045 * bore, 1.1 * bore),
        *main.line(start - 6, end + 6),
    )  # fmt: skip
    places = [360 / count * (i + 0.5) for i in range(count)]
    rolls = [_roll(wheel, around, at, thick, bore, gap) for at in places]
    seen_across = (
        *around.ring(Style.HATCHED, bore, outside, "housing_bore"),
        *joined(around.port(at, 0.3 * bore, 0.98 * bore, 1.06 * outside) for at in (-62, 62)),
        *wheel.disc(Style.STEEL_LIGHT, rotor),
        *joined(wheel.pocket(at, 1.16 * thick, rotor, 0.8 * thick) for at in places),
        *joined(Centre(*at).disc(Style.BUSHING, thick, "roller_diameter") for at in rolls),
        *wheel.disc(Style.BRIGHT, shaft),
        *arrows(pump, wheel, 0.62 * rotor, around, 1.02 * outside, 62),
        *around.cross(0.55 * outside),
    )
    spots: Spots = {
        "side_front": (-face - gap, -off - 0.3 * rotor), "side_back": (face + gap, -off - 0.42 * rotor),
        "roller_length": (0.3 * long, bottom - thick / 2), "both_sides": (left + 1, bottom - 1.2 * thick),
        "roller_clearance": (right - gap / 2, bottom - thick / 3),
        "step": (right - 0.1 * bore, bore / 2 + 2), "cover_track": (right + 2, bore / 2 - thick),
        "shaft_at_seal": main.on(left - wall - seal, seal, shaft, below=True),
        "seal_zone": (right + wall + seal / 2, -off + shaft / 2),
        "bearings": (right + hub - brg_wide / 2, -off - (shaft + brg) / 4),
        "weep_holes": (weeps[0] + 1, -off + 0.6 * brg), "housing_depth": (left + 2, -0.58 * bore),
    }  # fmt: skip
    mid, last = rolls[count // 2], rolls[-1]
    seen: Spots = {
        "roller_diameter": Spot(*mid, each=tuple(rolls)), "rollers": last, "rotor_width": wheel.on(200, 0.55 * rotor),
        "pockets": wheel.at(places[0] + 15, 0.42 * rotor), "housing_bore": around.on(150, bore),
    }  # fmt: skip
    cut = View("cut along the shaft", (start - 6, -half, end + 6, half), along, spots)
    return cut, View("cut across the rotor", (-half, -half, half, half), seen_across, seen)


def _roll(wheel: Centre, around: Centre, at: float, thick: float, bore: float, gap: float) -> tuple[float, float]:
    """Where a roller lies: out against the bore, in the direction of its pocket."""
    return meets(wheel.at(at, 1), at, (around.x, around.y), (bore - thick - gap / 2) / 2)
