"""An internal gear pump cut along its shaft, and across its rotor; gaps are drawn wide."""

from finegap.core.drawing.end_view import Centre
from finegap.core.drawing.fittings import face_seal, packed_box, relief_valve, thrust_bearing
from finegap.core.drawing.marks import Style
from finegap.core.drawing.section import Axis, joined, slab
from finegap.core.drawing.views import Pump, Spots, View

_ROTOR_TEETH, _IDLER_TEETH = 11, 7


def views(pump: Pump) -> tuple[View, ...]:
    """Head on the left; the idler towards the ports, above; the crescent below."""
    rotor, tips, length, idle, pin, shaft, seat, section, brg, wide = pump.sized(
        rotor_outside=140, idler_tips=92, rotor_teeth=59, idler_teeth=59, idler_pin=34, shaft_at_bushing=42,
        bushing_seat=52, packing=10, bearing_outside=84, bearing_width=30,
    )  # fmt: skip
    gap, bore, outside, root = 0.02 * rotor, 1.04 * rotor, 1.3 * rotor, 0.62 * tips
    off = (rotor - tips) / 2 - gap / 2  # the idler's tips reach out as far as the rotor's
    inner = 2 * off + root + gap  # the rotor's tips, just clear of the idler's roots
    main, idler, wheel, star = Axis(), Axis(-off), Centre(), Centre(0, -off)
    back, wall, bush = length + 0.14 * rotor + 2 * gap, 0.13 * rotor, 1.1 * shaft
    neck, box, half = back + wall, back + wall + bush, 0.53 * outside
    housing, end = box + gap + 6.6 * section, box + gap + 6.6 * section + 2 * wide + shaft / 2
    relief, threaded, ringed = pump.has("relief", "fitted"), pump.has("means", "housing"), pump.has("means", "ring", "coupling")
    at, above = (neck if pump.has("bushing", "bracket") else back), -half - (0.14 * rotor if relief else 0)
    along = (
        *main.solid(Style.LIQUID, 0, back, bore),
        *main.body(0, (back, bore, outside), (wall, seat, outside), other=True),
        *main.body(neck, (bush, seat, 2.2 * shaft), (housing - box, shaft + 2 * section, 2.2 * shaft)),
        *slab(Style.HATCHED, -wall, -outside / 2, wall, outside),
        *(main.ring(Style.PACKING, -gap, gap, bore, outside) if pump.has("means", "gaskets") else ()),
        *slab(Style.HATCHED, 0, tips / 2 - off + gap, 0.94 * length, (inner - tips) / 2 + off - 2 * gap),
        *main.cup(Style.STEEL_LIGHT, gap, length, inner, rotor, 0.14 * rotor, "rotor_outside"),
        *slab(Style.STEEL, gap, -off - root / 2, idle, root / 2 + tips / 2, "idler_teeth"),
        *idler.solid(Style.CLEARANCE, gap, idle, pin + 2 * gap),
        *idler.shaft(-0.7 * wall, 0.7 * wall + gap + 1.02 * length, pin, "idler_pin"),
        *main.bushing(at, bush if at == neck else wall + 0.6 * bush, shaft + 2 * gap, seat),
        *main.shaft(back - gap, end - back + gap, shaft, "shaft_at_bushing"),
        *(packed_box if pump.has("seal", "packed") else face_seal)(main, box + gap, section, shaft),
        *(thrust_bearing(main, housing, brg, wide, shaft, threaded, ringed) if not pump.has("bearing", "none") else ()),
        *(relief_valve(Axis(-outside / 2 - 0.07 * rotor), 0.3 * back, 0.14 * rotor) if relief else ()),
        *joined(axis.line(-wall - 8, to) for axis, to in ((main, end + 10), (idler, length + 2 * gap))),
    )
    across = (
        *wheel.ring(Style.HATCHED_OTHER, bore, outside),
        *joined(wheel.port(turn, 0.26 * rotor, 0.97 * bore, 1.04 * outside) for turn in (-45, 45)),
        *wheel.teeth(Style.STEEL_LIGHT, _ROTOR_TEETH, inner, rotor, 180 / _ROTOR_TEETH),
        *star.gear(Style.STEEL, _IDLER_TEETH, root, tips),
        *wheel.crescent(Style.HATCHED, inner - 2 * gap, (0, -off), tips + 2 * gap, 180, 130),
        *joined(star.disc(*one) for one in ((Style.CLEARANCE, pin + 2 * gap), (Style.BRIGHT, pin, "idler_pin"))),
        *wheel.cross(0.55 * outside),
    )
    spots: Spots = {
        "end_clearance": (gap / 2, -(inner + rotor) / 4), "head_face": (-2, rotor / 3),
        "idler_pin": idler.on(gap, length, pin, 0.3), "idler_bore": idler.on(gap, idle, pin + 2 * gap, 0.75),
        "idler_tips": idler.on(gap, idle, tips, 0.5, below=True), "shaft_clearance": (at + 0.75 * bush, (shaft + gap) / 2),
        "crescent": Axis((tips + inner) / 4 - off / 2).on(0, 0.94 * length, 0), "rotor_outside": main.on(gap, length, rotor),
        "bushing_bore": main.on(at, bush, shaft + 2 * gap, 0.3), "shaft_at_bushing": main.on(at, bush, shaft, 0.5, below=True),
        "shaft_at_seal": main.on(box + gap, 5 * section, shaft, below=True), "shaft_runout": main.on(neck, end - neck, 0, 0.97),
        "bearings": (housing + 0.8 * wide, -(shaft + brg) / 4), "set_screws": (housing + 1.5 * wide, -brg / 2 - 6),
        "lock_washer": (housing + 2 * wide, -0.62 * shaft), "half_rings": (housing + 1, 0.58 * shaft),
        "bearing_depth": (housing + 0.3 * wide, (shaft + brg) / 4),
    }  # fmt: skip
    seen: Spots = {
        "idler_clearance": (pin / 2 + gap / 2, -off), "rotor_clearance": wheel.at(270, (rotor + gap) / 2),
        "casing_bore": wheel.on(235, bore + 2), "rotor_teeth": wheel.on(540 / _ROTOR_TEETH, (inner + rotor) / 2),
        "idler_teeth": star.on(720 / _IDLER_TEETH, (root + tips) / 2),
    }  # fmt: skip
    long = View("cut along the shaft", (-wall - 8, above, end + 10, half), along, spots)
    return long, View("cut across the rotor", (-half, -half, half, half), across, seen)
