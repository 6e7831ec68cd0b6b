"""The numbered gaps and sizes of a lobe pump, with their damage. What each damage means is general knowledge, no source."""

from dataclasses import replace

from finegap.core.families.damages import BURR, CRACKED, GALLED, PITTED, POLISHED, ROUGH, SCORED
from finegap.core.families.features import Damage, Feature, FeatureKind, SheetCount, Station, stations
from finegap.core.families.fluid_end import FLUID_END, OVERHAUL
from finegap.core.measuring.verdict import Verdict

SHAFTS = ("drive", "driven")
SUCTION = ("suction port edge", "suction side")
_ROUND = stations(("",), ("12", "3", "6", "9"))
_EACH = SheetCount("lobes", "lobe {n}", 2)
_EVEN = {"lobes": ("2", "4")}
"""Across two lobes a micrometer spans a diameter; with one or three lobes there is none to span."""


def _face(key: str, number: int, side: str, shaft: str, set_as: str) -> Feature:
    name = f"{shaft.capitalize()} rotor, {side}"
    between = ("cover", "rotor") if side == "front" else ("rotor", "body")
    return Feature(
        key, number, name, f"{shaft.capitalize()} rotor", FeatureKind.GAP, (Station("gap", "", ""),), set_as=set_as,
        label=name.replace(" rotor", ""), between=between,
    )  # fmt: skip


def _of_shaft(i: int, shaft: str) -> tuple[Feature, ...]:
    name = shaft.capitalize()
    return (
        _face(f"front_{shaft}", 1 + 2 * i, "front", shaft, f"front:{i + 1}"),
        _face(f"back_{shaft}", 2 + 2 * i, "back", shaft, f"back:{i + 1}"),
        Feature(
            f"tip_{shaft}", 5 + i, f"{name} rotor, tips to body", f"{name} rotor", FeatureKind.GAP,
            stations(("",), (*SUCTION, "discharge side", "discharge port edge")), label=f"Tips, {shaft}",
            between=("body", "lobe"), widest=True, closes_at=SUCTION,
            of_parts=(f"length_{shaft}", f"over_{shaft}", f"bore_{shaft}", "lobes", "faces"),
        ),
        Feature(f"length_{shaft}", 9 + i, f"{name} rotor, length", f"{name} rotor", FeatureKind.EXTERNAL, _ROUND, flat=True),
        Feature(
            f"over_{shaft}", 12 + i, f"{name} rotor, over its tips", f"{name} rotor", FeatureKind.EXTERNAL,
            stations(("front", "back"), ("across",)), label=f"Over tips, {shaft}", when=_EVEN,
        ),
        Feature(
            f"bore_{shaft}", 14 + i, f"Body, bore of the {shaft} rotor", "Body", FeatureKind.INTERNAL,
            stations(("front", "back"), ("towards suction", "at right angles")), damages=(POLISHED, SCORED, PITTED, GALLED),
            label=f"Bore, {shaft}",
        ),
        Feature(
            f"play_{shaft}", 16 + i, f"{name} shaft, lifted at its rotor", f"{name} shaft", FeatureKind.RUNOUT,
            stations(("",), ("lifted", "across")), label=f"Play, {shaft}", of_parts=("bearings",),
        ),
    )  # fmt: skip


def _mesh(side: str, number: int) -> Feature:
    return Feature(
        f"mesh_{side}", number, f"Mesh, {side}", "Mesh", FeatureKind.GAP, (Station("", "", ""),), set_as=f"mesh:{side}",
        between=("lobe", "lobe"), counted=_EACH,
    )  # fmt: skip


_DEPTH = Feature(
    "depth", 11, "Body, depth", "Body", FeatureKind.DEPTH,
    stations(("at the drive rotor", "at the driven rotor"), ("12", "3", "6", "9")),
)  # fmt: skip
_LOOKED_AT = (
    Feature(
        "lobes",
        19,
        "Lobes, flanks and tips",
        "Rotors",
        FeatureKind.CHECK,
        label="Lobes",
        damages=(
            POLISHED,
            Damage("one_flank", "bright on one flank only", Verdict.WATCH, "Timing has moved: look at the gears and their clamp."),
            Damage(
                "tips",
                "tips scored towards suction",
                Verdict.CHANGE,
                "Pressure above the sheet's, or worn bearings: the shaft bent until they touched.",
            ),
            BURR,
            CRACKED,
            GALLED,
        ),
    ),
    Feature(
        "faces",
        20,
        "Rotor faces, cover and body",
        "Rotors",
        FeatureKind.CHECK,
        label="Faces",
        damages=(
            POLISHED,
            Damage("scored", "front face scored", Verdict.CHANGE, "It ran forward: look at the thrust bearing and the rotor nut."),
            Damage("back", "back face scored", Verdict.CHANGE, "It ran back: look at the shims and the thrust bearing."),
            GALLED,
        ),
    ),
    Feature(
        "o_ring_zones", 21, "Shafts, O-ring zones and shoulders", "Shafts", FeatureKind.CHECK, damages=(PITTED, SCORED, BURR),
        label="O-ring zones",
    ),
    Feature(
        "bearings",
        22,
        "Bearings and oil",
        "Bearings",
        FeatureKind.CHECK,
        damages=(
            ROUGH,
            Damage("water", "water or debris at the clean-out plug", Verdict.WATCH, "Find how it came in."),
        ),
    ),
)  # fmt: skip
_BACKLASH = Feature(
    "backlash", 18, "Timing gears, backlash", "Timing gears", FeatureKind.GAP, _ROUND, label="Backlash", between=("tooth", "tooth"),
    widest=True, when={"scope": (OVERHAUL,)},
    damages=(Damage("tooth", "tooth chipped or pitted", Verdict.CHANGE, "It is not a timing gear any more."),),
)  # fmt: skip
_ALL = (
    *(one for i, shaft in enumerate(SHAFTS) for one in _of_shaft(i, shaft)),
    _mesh("left", 7),
    _mesh("right", 8),
    _DEPTH,
    *_LOOKED_AT,
)
_BEHIND_THE_COVER = ("length", "depth", "over", "bore", "o_ring_zones", "bearings")
FEATURES = tuple(
    sorted(
        (
            *(replace(f, when={**f.when, "scope": FLUID_END}) if f.key.startswith(_BEHIND_THE_COVER) else f for f in _ALL),
            _BACKLASH,
        ),
        key=lambda feature: feature.number,
    )
)
"""In the order they are reached; both faces of both rotors, and the mesh, are set again at Set."""
