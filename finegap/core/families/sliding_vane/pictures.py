"""Which way round a vane goes, drawn right and wrong. Common practice, no source."""

from finegap.core.drawing.marks import Mark, Picture, Style, circle


def _vane(bevel_out: bool) -> tuple[Mark, ...]:
    """A slot of the rotor with a vane in it, seen along the shaft, under a piece of the cylinder."""
    out, slot = ("M136 34 L164 46 V168 H136 Z", "") if bevel_out else ("M136 34 H164 V156 L136 168 Z", "")
    return (
        Mark(Style.HATCHED, "M10 34 Q150 8 290 34 V10 Q150 -14 10 10 Z"),
        Mark(Style.STEEL_LIGHT, "M40 214 Q60 96 132 84 V178 H168 V84 Q240 96 260 214 Z"),
        Mark(Style.STEEL, out + slot),
        Mark(Style.OUTLINE, "M206 62 q22 6 36 22 m-6 -14 l6 14 l-15 -2"),
        Mark(Style.BRIGHT, circle(150, 206, 10)),
    )


PICTURES = {
    "vane": Picture(
        "Vane",
        _vane(True),
        "Bevelled edge to the cylinder, its longer side trailing; square end in the slot.",
        _vane(False),
        "Square edge to the cylinder: it digs in, and the bevel in the slot lets it tilt.",
        ((270, 122, "turns"),),
    ),
}
