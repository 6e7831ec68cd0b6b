"""The section of an internal gear pump, cut along the shaft; gaps are drawn wide."""

from finegap.core.drawing.marks import Drawing, Mark, Style, circle, rect
from finegap.core.families.builds import When

_LEFT, _TOP = 60, 36


def _box(style: Style, x: float, y: float, width: float, height: float, when: When | None = None) -> Mark:
    return Mark(style, rect(x + _LEFT, y + _TOP, width, height), when or {})


def _line(style: Style, *points: tuple[float, float], closed: bool = True, when: When | None = None) -> Mark:
    first, *rest = ((x + _LEFT, y + _TOP) for x, y in points)
    path = f"M{first[0]:g} {first[1]:g} " + " ".join(f"L{x:g} {y:g}" for x, y in rest) + (" Z" if closed else "")
    return Mark(style, path, when or {})


def _ball(x: float, y: float) -> Mark:
    return Mark(Style.BRIGHT, circle(x + _LEFT, y + _TOP, 14))


_OTHER, _BRIGHT, _LIGHT = Style.HATCHED_OTHER, Style.BRIGHT, Style.STEEL_LIGHT
_IN_BRACKET: When = {"bushing": ("bracket",)}
_IN_CASING: When = {"bushing": ("casing",)}
_PACKED: When = {"seal": ("packed",)}
_SEALED: When = {"seal": ("mechanical", "bellows", "wedge")}
_HOUSING: When = {"means": ("housing",)}
_GASKETS: When = {"means": ("gaskets",)}
_RING: When = {"means": ("ring", "coupling")}

DRAWING = Drawing(
    (860, 684),
    (
        _box(Style.LIQUID, 120, 212, 170, 280),
        _box(Style.LIQUID, 180, 136, 70, 76),
        # casing with its port, and the wall the bracket bolts to
        _box(_OTHER, 120, 172, 60, 40),
        _box(_OTHER, 250, 172, 62, 40),
        _box(_OTHER, 166, 136, 14, 36),
        _box(_OTHER, 250, 136, 14, 36),
        _box(_OTHER, 120, 492, 192, 40),
        _box(_OTHER, 290, 212, 34, 116, _IN_BRACKET),
        _box(_OTHER, 290, 376, 34, 116, _IN_BRACKET),
        _box(_OTHER, 290, 212, 34, 90, _IN_CASING),
        _box(_OTHER, 290, 402, 34, 90, _IN_CASING),
        # relief valve on the port
        _line(_LIGHT, (264, 136), (330, 136), (330, 160), (264, 160), when={"relief": ("fitted",)}),
        _line(Style.OUTLINE, (272, 148), (280, 140), (288, 156), (296, 140), (304, 156), (312, 140), (320, 148),
              closed=False, when={"relief": ("fitted",)}),
        _box(_BRIGHT, 330, 142, 22, 12, {"relief": ("fitted",)}),
        # head with the idler pin and the crescent
        _box(Style.HATCHED, 64, 172, 56, 360),
        _box(Style.HATCHED, 120, 362, 118, 82),
        _box(Style.PACKING, 116, 172, 8, 40, _GASKETS),
        _box(Style.PACKING, 116, 492, 8, 40, _GASKETS),
        # rotor: the disc, and the teeth that reach to the head
        _box(_LIGHT, 128, 220, 124, 34),
        _box(_LIGHT, 128, 450, 124, 34),
        _box(_LIGHT, 252, 220, 34, 264),
        # idler on its pin
        _box(Style.STEEL, 130, 256, 108, 92),
        _box(Style.CLEARANCE, 130, 284, 108, 36),
        _box(_BRIGHT, 84, 288, 158, 28),
        # bracket, bushing
        _box(_OTHER, 324, 262, 236, 40),
        _box(_OTHER, 324, 402, 236, 40),
        _box(Style.BUSHING, 324, 302, 90, 26, _IN_BRACKET),
        _box(Style.BUSHING, 324, 376, 90, 26, _IN_BRACKET),
        _box(Style.BUSHING, 290, 302, 120, 26, _IN_CASING),
        _box(Style.BUSHING, 290, 376, 120, 26, _IN_CASING),
        # packing and gland
        *(_box(Style.PACKING, 424 + i * 23, y, 20, 25, _PACKED) for i in range(4) for y in (304, 375)),
        _line(_LIGHT, (520, 304), (540, 304), (540, 286), (552, 286), (552, 329), (520, 329), when=_PACKED),
        _line(_LIGHT, (520, 400), (540, 400), (540, 418), (552, 418), (552, 375), (520, 375), when=_PACKED),
        # mechanical seal: the seat in the bracket, the turning face, its spring
        *(_box(Style.BUSHING, 424, y, 18, 26, _SEALED) for y in (303, 375)),
        *(_box(_BRIGHT, 444, y, 22, 22, _SEALED) for y in (307, 375)),
        *(_line(Style.OUTLINE, *((468 + 8 * i, y + (0 if i % 2 else 18)) for i in range(8)), closed=False, when=_SEALED)
          for y in (309, 376)),
        *(_box(_LIGHT, 526, y, 16, 24, _SEALED) for y in (305, 375)),
        # bearing housing, or the bracket's own bore with an adjusting ring on the shaft
        _box(Style.HATCHED, 560, 232, 72, 58),
        _box(Style.HATCHED, 560, 414, 72, 58),
        _box(Style.STEEL, 600, 224, 12, 30, _HOUSING),
        _box(_LIGHT, 666, 308, 18, 22, _RING),
        _box(_LIGHT, 666, 374, 18, 22, _RING),
        _box(_BRIGHT, 572, 290, 48, 40),
        _box(_BRIGHT, 572, 374, 48, 40),
        _ball(596, 310),
        _ball(596, 394),
        # shaft, half rings, lock nut
        _box(_BRIGHT, 286, 330, 400, 44),
        _box(_LIGHT, 564, 322, 8, 16, _HOUSING),
        _box(_LIGHT, 564, 366, 8, 16, _HOUSING),
        _box(_LIGHT, 640, 316, 22, 72),
        _line(Style.AXIS, (44, 352), (712, 352), closed=False),
        _line(Style.AXIS, (70, 302), (262, 302), closed=False),
    ),
    {
        "end_clearance": (184, 272),
        "idler_bore": (260, 323),
        "idler_pin": (170, 338),
        "idler_clearance": (265, 353),
        "bushing_bore": (426, 364),
        "shaft_at_bushing": (446, 388),
        "shaft_clearance": (464, 411),
        "rotor_outside": (336, 258),
        "casing_bore": (210, 528),
        "rotor_clearance": (300, 524),
        "rotor_teeth": (205, 282),
        "idler_teeth": (196, 304),
        "idler_tips": (290, 293),
        "crescent": (240, 440),
        "head_face": (179, 404),
        "shaft_at_seal": (530, 367),
        "shaft_runout": (738, 388),
        "bearings": (656, 346),
        "set_screws": (666, 284),
        "lock_washer": (711, 362),
        "half_rings": (632, 376),
        "bearing_depth": (680, 334),
    },
)  # fmt: skip
