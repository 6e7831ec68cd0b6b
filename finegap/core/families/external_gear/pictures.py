"""What spoils an external gear pump at its build, drawn right and wrong. Common practice, no source."""

from finegap.core.drawing.marks import Mark, Picture, Style, rect


def _drawn(even: bool) -> tuple[Mark, ...]:
    """An end plate on its way over two shafts: square on guide pins, or hung on one side."""
    plate = rect(176, 26, 34, 168) if even else "M168 30 L200 20 L226 186 L194 196 Z"
    pins = (Mark(Style.STEEL, f"{rect(96, 36, 150, 8)} {rect(96, 176, 150, 8)}"),) if even else ()
    return (
        Mark(Style.HATCHED, rect(20, 20, 84, 180)),
        Mark(Style.BRIGHT, f"{rect(40, 62, 216, 24)} {rect(40, 134, 216, 24)}"),
        *pins,
        Mark(Style.HATCHED_OTHER, plate),
    )


PICTURES = {
    "pins": Picture(
        "Plate over the shafts",
        _drawn(True),
        "On guide pins, drawn alternately: it comes on square.",
        _drawn(False),
        "Drawn by one side: it tilts, marks both shafts and cuts the lips.",
        ((62, 214, "housing"), (200, 214, "plate")),
    ),
}
