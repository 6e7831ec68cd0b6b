"""Assemblies that pumps of more than one kind have, cut along their shaft. Lengths and diameters are in mm."""

from __future__ import annotations

from finegap.core.drawing.marks import Style
from finegap.core.drawing.section import Axis, Marks, joined, slab


def packed_box(axis: Axis, x: float, section: float, shaft: float, rings: int = 4) -> Marks:
    """Rings of packing and the gland on them."""
    across = shaft + 2 * section
    gland = axis.gland(x + rings * section, section, 0.6 * section, 1.06 * shaft, 0.95 * across, 1.4 * across)
    return (*axis.packing(x, rings, section, shaft), *gland)


def face_seal(axis: Axis, x: float, section: float, shaft: float) -> Marks:
    """A mechanical seal: its seat on an O-ring, the turning face, the spring behind it and what that stands on."""
    across, clear = shaft + 2 * section, 1.06 * shaft
    return (
        *axis.ring(Style.BUSHING, x, 0.8 * section, clear, across),
        *axis.o_ring(x + 0.4 * section, 0.3 * section, across - 0.3 * section),
        *axis.ring(Style.BRIGHT, x + 0.8 * section, section, clear, 0.93 * across),
        *axis.spring(x + 1.8 * section, 2 * section, clear, 0.9 * across),
        *axis.ring(Style.STEEL_LIGHT, x + 3.8 * section, 0.8 * section, shaft, 0.93 * across),
    )


def sleeve_seal(axis: Axis, x: float, length: float, shaft: float, faces: bool, double: bool) -> Marks:
    """A sleeve with O-rings, or with turning faces and their seats; one of them, or two."""
    on = 1.3 * shaft
    parts: list[Marks] = [axis.ring(Style.STEEL_LIGHT, x, 0.9 * length, shaft, on)]
    for place in (x + at * length for at in ((0.2, 0.6) if double else (0.4,))):
        if faces:
            parts.append(axis.ring(Style.BUSHING, place, 0.1 * length, on, 1.7 * shaft))
            parts.append(axis.ring(Style.BRIGHT, place + 0.1 * length, 0.12 * length, on, 1.6 * shaft))
        parts.append(axis.o_ring(place + 0.05 * length, (0.1 if faces else 0.16) * shaft, 1.7 * shaft if faces else on))
    return joined(parts)


def timed_shaft(
    axis: Axis, x: float, end: float, d: float, bearings: tuple[float, ...], size: tuple[float, float], gear: float, pitch: float
) -> Marks:
    """A shaft in its bearings (places; outside and width), with a shim behind the first and a timing gear of a pitch diameter."""
    outside, wide = size
    return (
        *axis.shaft(x, end - x, d),
        *joined(axis.ball_bearing(place, wide, d, outside) for place in bearings),
        *axis.ring(Style.PACKING, bearings[0] - 0.2 * wide, 0.2 * wide, 1.5 * d, outside),
        *axis.solid(Style.STEEL, gear, wide, pitch, "pitch_diameter"),
    )


def thrust_bearing(axis: Axis, x: float, outside: float, wide: float, shaft: float, threaded: bool, ring: bool) -> Marks:
    """A bearing in its housing and what holds it: a lock nut, or a ring that sets it; ``threaded`` where the housing sets it."""
    over = 1.35 * outside
    held = axis.ring(Style.STEEL_LIGHT, x + 2.1 * wide, 0.4 * wide, shaft, 1.4 * shaft) if ring else ()
    screwed = (
        *axis.thread(x, 1.6 * wide, over),
        *slab(Style.STEEL, x + 1.3 * wide, axis.y - over / 2 - 4, 0.3 * wide, (over - outside) / 2 + 4),
        *axis.lip_seal(x + 1.32 * wide, 0.24 * wide, shaft, outside),
    )
    return (
        *axis.body(x, (1.6 * wide, outside, over)),
        *(screwed if threaded else ()),
        *axis.ball_bearing(x + 0.3 * wide, wide, shaft, outside),
        *axis.ring(Style.STEEL_LIGHT, x, 0.25 * wide, shaft, 1.35 * shaft),
        *(held or axis.nut(x + 1.75 * wide, 0.5 * wide, shaft, 1.7 * shaft)),
    )


def relief_valve(axis: Axis, x: float, high: float) -> Marks:
    """Its body, the spring on its valve, and the screw that sets it."""
    long = 4 * high
    return (
        *axis.body(x, (long, 0.6 * high, high), other=True),
        *axis.solid(Style.STEEL, x, 0.25 * long, 0.6 * high),
        *axis.spring(x + 0.25 * long, 0.6 * long, 0, 0.5 * high, 5),
        *axis.shaft(x + 0.85 * long, 0.4 * long, 0.3 * high),
    )
