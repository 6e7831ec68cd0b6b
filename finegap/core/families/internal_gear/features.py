"""The numbered gaps of an internal gear pump, with their places on the section drawing."""

from finegap.core.families.model import Feature, FeatureKind, Station, stations

_ACROSS = ("12–6", "3–9")
_PIN = ("loaded side", "at right angles")

FEATURES = (
    Feature(
        "end_clearance",
        1,
        "End clearance, as found",
        "Rotor to head",
        FeatureKind.GAP,
        anchor=(124, 262),
        label=(92, 66),
        stations=(Station("gap", "", ""),),
    ),
    Feature(
        "idler_bore",
        2,
        "Idler, bore",
        "Idler",
        FeatureKind.INTERNAL,
        anchor=(206, 332),
        label=(268, 66),
        stations=stations(("front", "back"), _ACROSS),
    ),
    Feature(
        "idler_pin",
        3,
        "Idler pin",
        "Idler pin",
        FeatureKind.EXTERNAL,
        anchor=(150, 346),
        label=(50, 560),
        stations=stations(("front", "back"), _PIN),
    ),
    Feature(
        "idler_clearance",
        4,
        "Idler on its pin",
        "Idler and pin",
        FeatureKind.PAIR,
        anchor=(186, 364),
        label=(190, 560),
        bore="idler_bore",
        shaft="idler_pin",
    ),
    Feature(
        "bushing_bore",
        5,
        "Bracket bushing, bore",
        "Bracket bushing",
        FeatureKind.INTERNAL,
        anchor=(372, 352),
        label=(432, 130),
        stations=stations(("front", "back"), _ACROSS),
    ),
    Feature(
        "shaft_at_bushing",
        6,
        "Shaft at the bushing",
        "Shaft",
        FeatureKind.EXTERNAL,
        anchor=(392, 400),
        label=(372, 560),
        stations=stations(("front", "back"), _ACROSS),
    ),
    Feature(
        "shaft_clearance",
        7,
        "Shaft in its bushing",
        "Shaft and bushing",
        FeatureKind.PAIR,
        anchor=(350, 424),
        label=(540, 560),
        bore="bushing_bore",
        shaft="shaft_at_bushing",
    ),
)
