"""The numbered gaps of a circumferential piston pump, with their damage. What each damage means is common practice, no source."""

from dataclasses import replace

from finegap.core.families.damages import BURR, CRACKED, GALLED, PITTED, POLISHED, ROUGH, SCORED
from finegap.core.families.features import Damage, Feature, FeatureKind, Station, stations
from finegap.core.families.fluid_end import FLUID_END
from finegap.core.measuring.verdict import Verdict

_ONE = (Station("gap", "", ""),)
_TURNS = stations(("",), ("12", "3", "6", "9"))


def _gap(key: str, number: int, name: str, between: tuple[str, str], set_as: str = "") -> Feature:
    taken = _ONE if set_as else _TURNS
    return Feature(
        key,
        number,
        name,
        name.split(",", maxsplit=1)[0],
        FeatureKind.GAP,
        taken,
        set_as=set_as,
        label=name.replace(" rotor", ""),
        between=between,
        of_parts=() if set_as else ("wings", "hubs"),
    )


_ALL = (
    _gap("front_drive", 1, "Drive rotor, front", ("cover", "rotor"), "front:1"),
    _gap("back_drive", 2, "Drive rotor, back", ("rotor", "body"), "back:1"),
    _gap("front_driven", 3, "Driven rotor, front", ("cover", "rotor"), "front:2"),
    _gap("back_driven", 4, "Driven rotor, back", ("rotor", "body"), "back:2"),
    _gap("radial_drive", 5, "Drive rotor, radial", ("rotor", "body")),
    _gap("radial_driven", 6, "Driven rotor, radial", ("rotor", "body")),
    _gap("mesh_left", 7, "Mesh, left", ("wing", "wing"), "mesh:left"),
    _gap("mesh_right", 8, "Mesh, right", ("wing", "wing"), "mesh:right"),
    Feature("wings", 9, "Rotor wings", "Rotors", FeatureKind.CHECK, damages=(POLISHED, BURR, SCORED, CRACKED, GALLED)),
    Feature("hubs", 10, "Hubs of the body", "Body", FeatureKind.CHECK, damages=(POLISHED, SCORED, PITTED, GALLED)),
    Feature(
        "shoulders",
        11,
        "Shaft shoulders",
        "Shafts",
        FeatureKind.CHECK,
        damages=(BURR, Damage("step", "worn step", Verdict.CHANGE, "The rotor no longer stands where it did."), PITTED),
    ),
    Feature("o_ring_zones", 12, "O-ring zones", "Shafts", FeatureKind.CHECK, damages=(PITTED, SCORED, BURR)),
    Feature(
        "backlash",
        13,
        "Timing gears, rocked",
        "Timing gears",
        FeatureKind.CHECK,
        label="Timing gears",
        damages=(
            Damage(
                "felt", "backlash is felt", Verdict.CHANGE, "Any backlash that can be felt means new gears: the wings would meet."
            ),
            Damage("tooth", "tooth chipped or pitted", Verdict.CHANGE, "It is not a timing gear any more."),
        ),
    ),
    Feature(
        "bearings",
        14,
        "Bearings and oil",
        "Bearings",
        FeatureKind.CHECK,
        damages=(
            ROUGH,
            Damage(
                "water",
                "water or debris at the clean-out plug",
                Verdict.WATCH,
                "Find how it came in before the case is filled again.",
            ),
        ),
    ),
)
"""In the order they are reached; both faces of both rotors, and the mesh, are set again at Set."""

_BEHIND_THE_COVER = {"scope": FLUID_END}
FEATURES = tuple(
    replace(f, when=_BEHIND_THE_COVER) if f.key in ("hubs", "shoulders", "o_ring_zones", "backlash", "bearings") else f
    for f in _ALL
)
"""A wear check takes the cover off, and no more."""
