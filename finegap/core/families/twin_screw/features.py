"""The numbered gaps and sizes of a twin screw pump, with their damage. What each damage means is common practice, no source."""

from finegap.core.families.damages import BURR, CRACKED, GALLED, PITTED, POLISHED, ROUGH, SCORED
from finegap.core.families.features import Damage, Feature, FeatureKind, stations
from finegap.core.measuring.verdict import Verdict

SHAFTS = ("drive", "driven")
_PLANES = ("front", "middle", "back")
_TURNS = stations(("",), ("mark", "¼ turn", "½ turn", "¾ turn"))


def _flank(side: str, number: int) -> Feature:
    return Feature(
        f"flank_{side}", number, f"Flank gap, {side}", "Screws", FeatureKind.GAP, _TURNS, set_as=f"flank:{side}",
        between=("flank", "flank"), widest=True,
    )  # fmt: skip


def _of_screw(i: int, shaft: str) -> tuple[Feature, ...]:
    name = shaft.capitalize()
    return (
        Feature(
            f"radial_{shaft}", 3 + i, f"{name} screw, radial gap by feeler", f"{name} screw", FeatureKind.GAP,
            stations(_PLANES, ("",)), label=f"Radial, {shaft}", between=("casing", "crest"), widest=True,
            of_parts=(f"screw_{shaft}", f"bore_{shaft}", "flanks"),
        ),
        Feature(
            f"screw_{shaft}", 5 + i, f"{name} screw, outside", f"{name} screw", FeatureKind.EXTERNAL, stations(_PLANES, ("",)),
            label=f"Screw, {shaft}",
        ),
        # Straight across, each bore opens into the other: only these two directions have metal at both ends.
        Feature(
            f"bore_{shaft}", 7 + i, f"Casing, bore of the {shaft} screw", "Casing", FeatureKind.INTERNAL,
            stations(_PLANES, ("10–4", "2–8")), damages=(POLISHED, SCORED, PITTED, GALLED), label=f"Bore, {shaft}",
        ),
        Feature(
            f"clearance_{shaft}", 9 + i, f"{name} screw in its bore", f"{name} screw in its bore", FeatureKind.PAIR,
            bore=f"bore_{shaft}", shaft=f"screw_{shaft}", label=f"In its bore, {shaft}",
        ),
    )  # fmt: skip


def _ends(key: str, number: int, name: str, face: str) -> Feature:
    return Feature(
        f"ends_{key}", number, name, "Screws", FeatureKind.GAP, stations(("",), ("drive screw", "driven screw")),
        between=(face, "screw"), widest=True, of_parts=("screw_drive", "screw_driven", "flanks"),
    )  # fmt: skip


_LOOKED_AT = (
    Feature(
        "flanks",
        15,
        "Flanks, along the whole thread",
        "Screws",
        FeatureKind.CHECK,
        label="Flanks",
        damages=(
            POLISHED,
            Damage("one_flank", "bright on one flank only", Verdict.WATCH, "The pair is out of time, or a nut was loose."),
            SCORED,
            CRACKED,
            GALLED,
        ),
    ),
    Feature(
        "splines",
        16,
        "Shafts and splines",
        "Shafts",
        FeatureKind.CHECK,
        damages=(
            Damage("worn", "splines worn, or a step to feel", Verdict.CHANGE, "The screws would no longer stand to their marks."),
            BURR,
            PITTED,
        ),
    ),
    Feature(
        "cartridges",
        17,
        "Cartridge seals",
        "Cartridge seals",
        FeatureKind.CHECK,
        damages=(
            Damage("faces", "a face chipped or grooved", Verdict.CHANGE, "It leaks there at once: the cartridge is changed whole."),
            Damage("flat", "drive flat worn", Verdict.CHANGE, "It no longer turns with its shaft."),
        ),
    ),
    Feature(
        "bearings",
        18,
        "Bearings and oil",
        "Bearings",
        FeatureKind.CHECK,
        damages=(ROUGH, Damage("water", "water or metal in the oil", Verdict.CHANGE, "It went through every bearing.")),
    ),
)
_ALL = (
    _flank("left", 1),
    _flank("right", 2),
    *(feature for i, shaft in enumerate(SHAFTS) for feature in _of_screw(i, shaft)),
    _ends("cover", 11, "Screws to cover", "cover"),
    _ends("back", 12, "Screws to back", "back"),
    Feature(
        "play", 13, "Shafts, lifted at their screws", "Shafts", FeatureKind.RUNOUT,
        stations(("",), ("drive shaft", "driven shaft")), label="Play", of_parts=("bearings",),
    ),
    Feature(
        "backlash", 14, "Timing gears, backlash", "Timing gears", FeatureKind.GAP, stations(("",), ("12", "3", "6", "9")),
        label="Backlash", between=("tooth", "tooth"), widest=True, when={"scope": ("opened",)},
        damages=(Damage("tooth", "tooth chipped or pitted", Verdict.CHANGE, "It is not a timing gear any more."),),
    ),
    *_LOOKED_AT,
)  # fmt: skip
FEATURES = tuple(sorted(_ALL, key=lambda feature: feature.number))
"""In the order they are reached; both flank gaps are set, or only checked, again at Set."""
