"""The numbered sizes of an external gear pump, with their damage. What each damage means is common practice, no source."""

from finegap.core.families.damages import BURR, GALLED, PITTED, POLISHED, ROUGH, SCORED, TEETH
from finegap.core.families.features import Damage, Feature, FeatureKind, Station, stations
from finegap.core.measuring.verdict import Verdict

GEARS = ("drive gear", "idler gear")
_ROUND = ("12", "3", "6", "9")
_ACROSS = ("towards suction", "at right angles")


def _of_gear(i: int, gear: str) -> tuple[Feature, ...]:
    """Its end gap, its width and its housing's length, its tips and its bore; numbers alternate between the gears."""
    key, name = gear.split()[0], gear.capitalize()
    return (
        Feature(
            f"end_{key}", 1 + i, f"{name}, end gap found", name, FeatureKind.GAP, (Station("gap", "", ""),), set_as=f"end:{i + 1}",
            label=f"{name}, end gap", between=("wear plates", "gear"), sides=2,
        ),
        Feature(f"width_{key}", 3 + i, f"{name}, width", name, FeatureKind.EXTERNAL, stations(("",), _ROUND), flat=True),
        Feature(
            f"length_{key}", 5 + i, f"Housing, length at the {gear}", "Housing", FeatureKind.EXTERNAL, stations(("",), _ROUND),
            flat=True, label=f"Length, {key}",
        ),
        Feature(
            f"tips_{key}", 9 + i, f"{name}, over its tips", name, FeatureKind.EXTERNAL,
            stations(("front", "back"), ("12–6", "3–9")),
            label=f"Tips, {key}",
        ),
        Feature(
            f"bore_{key}", 11 + i, f"Housing, bore of the {gear}", "Housing", FeatureKind.INTERNAL,
            stations(("front", "back"), _ACROSS),
            damages=(POLISHED, SCORED, PITTED, GALLED), label=f"Bore, {key}",
        ),
        Feature(
            f"tip_clearance_{key}", 13 + i, f"{name}, tips to bore", name, FeatureKind.PAIR,
            bore=f"bore_{key}", shaft=f"tips_{key}",
            label=f"Tip gap, {key}",
        ),
    )  # fmt: skip


_SIDES = (
    Damage("turned", "worn on both sides: turned before", Verdict.CHANGE, "There is no fresh side left to turn to the gear."),
    Damage("unknown", "which side faced the gear is not known", Verdict.WATCH, "Measured where it is thinnest on both sides."),
)


def _plate(end: str, number: int) -> Feature:
    """A wear plate, measured where each gear ran; its planes bear the names of the gears."""
    return Feature(
        f"plate_{end}", number, f"{end.capitalize()} wear plate, thickness", f"{end.capitalize()} wear plate", FeatureKind.EXTERNAL,
        stations(GEARS, ("suction side", "discharge side")), flat=True, damages=(POLISHED, SCORED, GALLED, PITTED, *_SIDES),
        label=f"Plate, {end}",
    )  # fmt: skip


_SHAFTS = (
    Feature(
        "shaft_drive", 16, "Drive shaft", "Drive shaft", FeatureKind.EXTERNAL,
        stations(("front bearing", "seal", "back bearing"), ("12–6", "3–9")), damages=(POLISHED, BURR, SCORED, PITTED),
    ),
    Feature(
        "shaft_idler", 17, "Idler shaft", "Idler shaft", FeatureKind.EXTERNAL,
        stations(("front bearing", "back bearing"), ("12–6", "3–9")), damages=(POLISHED, BURR, SCORED, PITTED),
    ),
    Feature(
        "runout", 18, "Shafts, runout", "Shafts", FeatureKind.RUNOUT, stations(("",), ("drive shaft", "idler shaft")),
        label="Runout", of_parts=("shaft_drive", "shaft_idler"),
    ),
)  # fmt: skip
_LOOKED_AT = (
    *(
        Feature(
            f"teeth_{gear.split()[0]}",
            19 + i,
            f"{gear.capitalize()}, teeth and faces",
            gear.capitalize(),
            FeatureKind.CHECK,
            damages=TEETH,
            label=f"Teeth, {gear.split()[0]}",
        )
        for i, gear in enumerate(GEARS)
    ),
    Feature(
        "bearings",
        21,
        "Bearings",
        "Bearings",
        FeatureKind.CHECK,
        damages=(ROUGH, Damage("loose", "loose, or play to feel", Verdict.CHANGE, "Play lets the tips into the bore.")),
    ),
    Feature(
        "seal_faces",
        22,
        "Mechanical seal, its faces",
        "Mechanical seal",
        FeatureKind.CHECK,
        label="Seal faces",
        damages=(
            Damage(
                "chipped", "chipped or cracked", Verdict.CHANGE, "Silicon carbide does not run in again: both faces are changed."
            ),
            Damage("grooved", "a groove across a face", Verdict.CHANGE, "It leaks there at once."),
        ),
    ),
)
_OF_GEARS = tuple(_of_gear(i, gear) for i, gear in enumerate(GEARS))
_ALL = (
    *(feature for both in zip(*_OF_GEARS, strict=True) for feature in both),
    _plate("front", 7),
    _plate("back", 8),
    Feature(
        "backlash",
        15,
        "Backlash of the gears",
        "Gears",
        FeatureKind.GAP,
        stations(("",), _ROUND),
        label="Backlash",
        between=("tooth", "tooth"),
        of_parts=("teeth_drive", "teeth_idler"),
    ),
    *_SHAFTS,
    *_LOOKED_AT,
)
FEATURES = tuple(sorted(_ALL, key=lambda feature: feature.number))
"""In the order they are reached; the end gap of each gear is set again at Set."""
