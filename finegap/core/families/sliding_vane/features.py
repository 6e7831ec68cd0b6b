"""The numbered sizes of a sliding vane pump, with their damage. What each damage means is common practice, no source."""

from dataclasses import replace

from finegap.core.families.damages import CRACKED, GALLED, PITTED, POLISHED, ROUGH, SCORED
from finegap.core.families.features import Damage, Feature, FeatureKind, SheetCount, Station, stations
from finegap.core.measuring.verdict import Verdict

_VANES = SheetCount("vanes", "vane {n}", 4)
_ENDS = ("left end", "middle", "right end")
_ROUND = ("12", "3", "6", "9")

_OVERHAUL = (
    Feature(
        "side_gap",
        1,
        "Total side gap found",
        "Rotor to covers",
        FeatureKind.GAP,
        (Station("gap", "", ""),),
        set_as="gap",
        label="Side gap",
    ),
    Feature("vane_height", 2, "Vanes, height", "Vanes", FeatureKind.EXTERNAL, stations(("",), _ENDS), flat=True, counted=_VANES),
    Feature(
        "vane_thickness",
        3,
        "Vanes, thickness",
        "Vanes",
        FeatureKind.EXTERNAL,
        stations(("",), ("middle",)),
        flat=True,
        counted=_VANES,
    ),
    Feature(
        "vane_length", 4, "Vanes, length", "Vanes", FeatureKind.EXTERNAL, stations(("",), ("along",)), flat=True, counted=_VANES
    ),
    Feature("rotor_length", 5, "Rotor, length", "Rotor", FeatureKind.EXTERNAL, stations(("",), _ROUND)),
    Feature("cylinder_length", 6, "Cylinder, length", "Cylinder", FeatureKind.EXTERNAL, stations(("",), _ROUND)),
    Feature(
        "cylinder_bore",
        7,
        "Cylinder, bore",
        "Cylinder",
        FeatureKind.INTERNAL,
        stations(("front", "middle", "back"), ("12–6", "3–9")),
        damages=(POLISHED, SCORED, PITTED, GALLED),
    ),
    Feature(
        "vanes",
        8,
        "Vanes, looked at",
        "Vanes",
        FeatureKind.CHECK,
        damages=(
            Damage(
                "chipped",
                "edge chipped",
                Verdict.CHANGE,
                "A chip goes round and takes the others with it: the whole set is changed.",
            ),
            Damage("hollow", "face hollowed", Verdict.CHANGE, "A hollowed face rocks in its slot and wedges."),
            Damage(
                "stuck",
                "does not fall in its slot by its own weight",
                Verdict.WATCH,
                "Clean slot and vane; each must fall by itself.",
            ),
        ),
    ),
    Feature("slots", 9, "Rotor slots", "Rotor", FeatureKind.CHECK, damages=(POLISHED, SCORED, CRACKED)),
    Feature(
        "covers", 10, "End covers", "Covers", FeatureKind.FLATNESS, stations(("",), _ROUND), damages=(POLISHED, SCORED, GALLED)
    ),
    Feature(
        "bearings",
        11,
        "Bearings",
        "Bearings",
        FeatureKind.CHECK,
        damages=(
            ROUGH,
            Damage("loose", "loose, or play to feel", Verdict.CHANGE, "Play lets the rotor touch a cover."),
        ),
    ),
    Feature(
        "filter",
        12,
        "Inlet filter",
        "Filter",
        FeatureKind.CHECK,
        damages=(
            Damage("dusty", "dusty", Verdict.WATCH, "Blown from the clean side outwards, never knocked on a hard edge."),
            Damage("torn", "torn or soaked", Verdict.CHANGE, "What passes it wears every vane."),
        ),
        when={"filter": ("fitted",)},
    ),
)
_CHECK = (
    Feature(
        "port_depth",
        13,
        "Port, depth to the vane",
        "Vanes",
        FeatureKind.GAP,
        (Station("port", "", ""),),
        label="Port, depth",
        when={"scope": ("check",)},
        between=("cylinder", "vane"),
    ),
    Feature(
        "port_line",
        14,
        "Port, wear line",
        "Vanes",
        FeatureKind.CHECK,
        damages=(
            Damage("near", "at the line", Verdict.WATCH, "Order a set of vanes now: the next check may be too late."),
            Damage("past", "past the line", Verdict.CHANGE, "The vanes are below their minimum: no overhaul can wait."),
        ),
        when={"scope": ("check",)},
    ),
)

FEATURES = (*(replace(f, when={**f.when, "scope": ("overhaul",)}) for f in _OVERHAUL), *_CHECK)
"""In the order they are reached."""
