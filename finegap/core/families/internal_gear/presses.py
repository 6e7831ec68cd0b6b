"""The bushings of an internal gear pump that are pressed, and what is measured of them before they are."""

from finegap.core.families.family import Press
from finegap.core.families.features import Feature, FeatureKind, stations
from finegap.core.families.internal_gear.builds import CHECK, OVERHAUL, within

_ACROSS = ("12–6", "3–9")
_FRONT_BACK = ("front", "back")

PRESSES = (
    Press(
        "bushing", "Bushing", "bushing_outside", "bushing_seat", "bushing_free", "bushing_bore", "shaft_clearance",
        how="On a press, by an arbor that fits the bore; the bracket or casing stands square on a ring.",
    ),
    Press(
        "idler_bushing", "Idler bushing", "idler_outside", "idler_seat", "idler_free", "idler_bore", "idler_clearance", True,
        how="On a press, by an arbor that fits the bore; the idler lies on a flat plate, never on its teeth.",
    ),
)  # fmt: skip


def _sizes(press: Press, first: int) -> tuple[Feature, ...]:
    where = stations(_FRONT_BACK, _ACROSS)
    return tuple(
        Feature(key, first + i, name, press.name, kind, where, press=press.key)
        for i, (key, name, kind) in enumerate(
            (
                (press.outside, f"{press.name}, outside", FeatureKind.EXTERNAL),
                (press.seat, f"Seat of the {press.name.lower()}", FeatureKind.INTERNAL),
                (press.free, f"{press.name}, bore before pressing", FeatureKind.INTERNAL),
            )
        )
    )


SIZES = within((OVERHAUL, CHECK), *(feature for i, press in enumerate(PRESSES) for feature in _sizes(press, 23 + 3 * i)))
