"""Which way round: what is done wrong at a roller pump, drawn right and wrong. Common practice, no source."""

from finegap.core.drawing.marks import Mark, Picture, Style, circle, rect


def _halves(turned: bool) -> tuple[Mark, ...]:
    """Two halves seen from outside, each with its weep hole; the upper is turned where the holes are not in line."""
    hole = 206 if turned else 150
    return (
        Mark(Style.HATCHED, rect(40, 30, 220, 70)),
        Mark(Style.HATCHED_OTHER, rect(40, 104, 220, 70)),
        Mark(Style.BRIGHT, rect(128, 8, 44, 22)),
        Mark(Style.LIQUID, circle(hole, 66, 10)),
        Mark(Style.LIQUID, circle(150, 140, 10)),
        Mark(Style.AXIS, "M150 0 V220"),
    )


_LIPS = (
    "M66 142 H82 L116 160 V172 L78 160 V176 H66 Z",
    "M234 142 H218 L184 160 V172 L222 160 V176 H234 Z",
)


def _press(on_outer: bool) -> tuple[Mark, ...]:
    """A bearing over its seal in a half, and the tool on the outer ring, or on the inner one."""
    tool = (rect(70, 20, 40, 74), rect(190, 20, 40, 74)) if on_outer else (rect(112, 20, 22, 74), rect(166, 20, 22, 74))
    return (
        Mark(Style.HATCHED, "M30 84 H66 V178 H104 V206 H30 Z M270 84 H234 V178 H196 V206 H270 Z"),
        Mark(Style.STEEL_LIGHT, f"{rect(66, 94, 168, 40)}"),
        *(Mark(Style.BRIGHT, circle(x, 114, 13)) for x in (94, 206)),
        Mark(Style.LIQUID, rect(122, 90, 56, 110)),
        *(Mark(Style.RUBBER, path) for path in _LIPS),
        *(Mark(Style.STEEL, path) for path in tool),
    )  # fmt: skip


PICTURES = {
    "weep": Picture(
        "Weep holes",
        _halves(False),
        "In line: what a seal lets by runs out, and is seen.",
        _halves(True),
        "Out of line: it stays inside, and the bearing rusts.",
        ((20, 70, "housing"), (20, 144, "cover")),
    ),
    "tool": Picture(
        "Pressing the bearing",
        _press(True),
        "On its outer ring, until it bottoms.",
        _press(False),
        "On its inner ring: the balls are pressed into their tracks.",
        ((150, 14, "tool"), (150, 216, "seal below")),
    ),
}
