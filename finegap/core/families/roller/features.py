"""The numbered sizes of a roller pump, with their damage. What each damage means is common practice, no source."""

from finegap.core.families.damages import BURR, CRACKED, GALLED, PITTED, POLISHED, ROUGH, SCORED
from finegap.core.families.features import Damage, Feature, FeatureKind, SheetCount, Station, stations
from finegap.core.measuring.verdict import Verdict

ROLLERS = SheetCount("rollers", "roller {n}", 6)
_ROUND = stations(("",), ("12", "3", "6", "9"))


def _side(key: str, number: int, end: str, set_as: str) -> Feature:
    return Feature(
        key,
        number,
        f"Side gap found, {end}",
        "Rotor",
        FeatureKind.GAP,
        (Station("gap", "", ""),),
        set_as=set_as,
        label=f"Side gap, {end}",
        between=("housing" if end == "front" else "cover", "rotor"),
    )


FEATURES = (
    _side("side_front", 1, "front", "side:1"),
    _side("side_back", 2, "back", "side:2"),
    Feature("rotor_width", 3, "Rotor, thickness", "Rotor", FeatureKind.EXTERNAL, _ROUND, flat=True),
    Feature("housing_depth", 4, "Housing, depth", "Housing", FeatureKind.DEPTH, _ROUND),
    Feature(
        "both_sides",
        5,
        "Both side gaps together",
        "Rotor in its housing",
        FeatureKind.PAIR,
        bore="housing_depth",
        shaft="rotor_width",
        label="Both sides",
    ),
    Feature(
        "roller_length",
        6,
        "Rollers, length",
        "Rollers",
        FeatureKind.EXTERNAL,
        stations(("",), ("along",)),
        flat=True,
        counted=ROLLERS,
    ),
    Feature(
        "roller_diameter",
        7,
        "Rollers, diameter",
        "Rollers",
        FeatureKind.EXTERNAL,
        stations(("",), ("middle", "end")),
        counted=ROLLERS,
    ),
    Feature(
        "roller_clearance",
        8,
        "Rollers, end clearance",
        "Rollers in their housing",
        FeatureKind.PAIR,
        bore="housing_depth",
        shaft="roller_length",
        label="Rollers, ends",
    ),
    Feature(
        "housing_bore",
        9,
        "Housing, bore",
        "Housing",
        FeatureKind.INTERNAL,
        stations(("near the rim", "at the bottom"), ("towards suction", "at right angles")),
        damages=(POLISHED, SCORED, PITTED),
    ),
    Feature(
        "step",
        10,
        "Housing, near its rim",
        "Housing",
        FeatureKind.CHECK,
        damages=(
            Damage("step", "a step, about 1.5 mm from the rim", Verdict.CHANGE, "Heavy wear: the rollers have cut themselves in."),
            POLISHED,
            SCORED,
        ),
    ),
    Feature(
        "cover_track",
        11,
        "Cover, where the rollers run",
        "Cover",
        FeatureKind.CHECK,
        damages=(
            POLISHED,
            Damage("track", "a track a fingernail feels", Verdict.CHANGE, "Liquid goes past every roller in it."),
            GALLED,
        ),
    ),
    Feature(
        "rollers",
        12,
        "Rollers, looked at",
        "Rollers",
        FeatureKind.CHECK,
        damages=(
            CRACKED,
            Damage("flat", "a flat worn on", Verdict.CHANGE, "It slides where it has to roll: the whole set is changed."),
            Damage("swollen", "swollen, or stuck in its pocket", Verdict.CHANGE, "The liquid does not suit what they are made of."),
        ),
    ),
    Feature("pockets", 13, "Rotor pockets", "Rotor", FeatureKind.CHECK, damages=(POLISHED, BURR, SCORED, CRACKED)),
    Feature(
        "shaft_at_seal",
        14,
        "Shaft at the seals",
        "Shaft",
        FeatureKind.EXTERNAL,
        stations(("front", "back"), ("12–6", "3–9")),
    ),
    Feature(
        "seal_zone",
        15,
        "Shaft under the lips",
        "Shaft",
        FeatureKind.CHECK,
        damages=(
            Damage(
                "pitted", "pitted or corroded", Verdict.CHANGE, "A new seal does not seal on it, whatever its size: the shaft goes."
            ),
            Damage("groove", "a groove worn by the lip", Verdict.CHANGE, "The new lip would run in it."),
            POLISHED,
        ),
    ),
    Feature(
        "weep_holes",
        16,
        "Weep holes",
        "Housing and cover",
        FeatureKind.CHECK,
        damages=(
            Damage("blocked", "blocked", Verdict.WATCH, "Opened now: what a seal lets by would go into the bearing."),
            Damage(
                "wet", "wet, or a trail below", Verdict.WATCH, "That seal leaked: look at the shaft under it, and at its bearing."
            ),
        ),
    ),
    Feature(
        "bearings",
        17,
        "Bearings",
        "Bearings",
        FeatureKind.CHECK,
        damages=(
            ROUGH,
            Damage("water", "rusty, or water in the grease", Verdict.CHANGE, "It was reached by what the seal let by."),
        ),
    ),
)
"""In the order they are reached; both side gaps are set again at Set."""
