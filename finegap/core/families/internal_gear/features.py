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
        anchor=(124, 236),
        label=(30, 62),
        stations=(Station("gap", "", ""),),
    ),
    Feature(
        "idler_bore",
        2,
        "Idler, bore",
        "Idler",
        FeatureKind.INTERNAL,
        anchor=(200, 287),
        label=(250, 62),
        stations=stations(("front", "back"), _ACROSS),
    ),
    Feature(
        "idler_pin",
        3,
        "Idler pin",
        "Idler pin",
        FeatureKind.EXTERNAL,
        anchor=(140, 302),
        label=(36, 566),
        stations=stations(("front", "back"), _PIN),
    ),
    Feature(
        "idler_clearance",
        4,
        "Idler on its pin",
        "Idler and pin",
        FeatureKind.PAIR,
        anchor=(205, 317),
        label=(262, 566),
        bore="idler_bore",
        shaft="idler_pin",
    ),
    Feature(
        "bushing_bore",
        5,
        "Bracket bushing, bore",
        "Bracket bushing",
        FeatureKind.INTERNAL,
        anchor=(366, 328),
        label=(440, 120),
        stations=stations(("front", "back"), _ACROSS),
    ),
    Feature(
        "shaft_at_bushing",
        6,
        "Shaft at the bushing",
        "Shaft",
        FeatureKind.EXTERNAL,
        anchor=(386, 352),
        label=(440, 566),
        stations=stations(("front", "back"), _ACROSS),
    ),
    Feature(
        "shaft_clearance",
        7,
        "Shaft in its bushing",
        "Shaft and bushing",
        FeatureKind.PAIR,
        anchor=(404, 375),
        label=(548, 506),
        bore="bushing_bore",
        shaft="shaft_at_bushing",
    ),
)
