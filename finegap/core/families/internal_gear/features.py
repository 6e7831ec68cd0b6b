"""The numbered gaps and sizes of an internal gear pump, with their damage and their places on the section drawing.

What each damage means is common practice, no source; the maker's manual rules.
"""

from finegap.core.families.damages import BURR, CRACKED, GALLED, METAL, PITTED, POLISHED, SCORED, TEETH
from finegap.core.families.features import Damage, Feature, FeatureKind, Station, stations
from finegap.core.families.internal_gear.builds import BEARING, CHECK, OVERHAUL, REPACK, SEAL, within
from finegap.core.measuring.verdict import Verdict

_ACROSS = ("12–6", "3–9")
_PIN = ("loaded side", "at right angles")
_ROUND = ("12", "3", "6", "9")
_FRONT_BACK = ("front", "back")

_ALL = (
    Feature(
        "end_clearance",
        1,
        "End clearance found",
        "Rotor to head",
        FeatureKind.GAP,
        label="End clearance",
        stations=(Station("gap", "", ""),),
        set_as="gap",
        between=("head", "rotor"),
    ),
    Feature(
        "idler_bore",
        2,
        "Idler, bore",
        "Idler",
        FeatureKind.INTERNAL,
        stations=stations(_FRONT_BACK, _ACROSS),
        damages=(POLISHED, SCORED, PITTED, CRACKED, GALLED),
    ),
    Feature("idler_pin", 3, "Idler pin", "Idler pin", FeatureKind.EXTERNAL, stations=stations(_FRONT_BACK, _PIN), damages=METAL),
    Feature("idler_clearance", 4, "Idler on its pin", "Idler and pin", FeatureKind.PAIR, bore="idler_bore", shaft="idler_pin"),
    Feature(
        "bushing_bore",
        5,
        "Bushing, bore",
        "Bushing",
        FeatureKind.INTERNAL,
        stations=stations(_FRONT_BACK, _ACROSS),
        damages=(
            POLISHED,
            SCORED,
            CRACKED,
            Damage("turned", "turned in its seat", Verdict.CHANGE, "It has lost its grip: measure the seat, too, before pressing."),
            Damage("grooved", "groove not at 12 o'clock", Verdict.WATCH, "The new one goes in with its groove at 12 o'clock."),
        ),
    ),
    Feature(
        "shaft_at_bushing",
        6,
        "Shaft at the bushing",
        "Shaft",
        FeatureKind.EXTERNAL,
        label="Shaft at bushing",
        stations=stations(_FRONT_BACK, _ACROSS),
        damages=METAL,
    ),
    Feature(
        "shaft_clearance",
        7,
        "Shaft in its bushing",
        "Shaft and bushing",
        FeatureKind.PAIR,
        label="Shaft in bushing",
        bore="bushing_bore",
        shaft="shaft_at_bushing",
    ),
    Feature(
        "rotor_outside", 8, "Rotor, outside", "Rotor", FeatureKind.EXTERNAL, stations=stations(_FRONT_BACK, _ACROSS), damages=METAL
    ),
    Feature(
        "casing_bore", 9, "Casing, bore", "Casing", FeatureKind.INTERNAL, stations=stations(_FRONT_BACK, _ACROSS), damages=METAL
    ),
    Feature(
        "rotor_clearance",
        10,
        "Rotor in the casing",
        "Rotor and casing",
        FeatureKind.PAIR,
        label="Rotor in casing",
        bore="casing_bore",
        shaft="rotor_outside",
    ),
    Feature("rotor_teeth", 11, "Rotor tooth ends", "Rotor", FeatureKind.EXTERNAL, stations=stations(("",), _ROUND), damages=TEETH),
    Feature("idler_teeth", 12, "Idler tooth ends", "Idler", FeatureKind.EXTERNAL, stations=stations(("",), _ROUND), damages=TEETH),
    Feature(
        "idler_tips",
        13,
        "Idler tooth tips",
        "Idler",
        FeatureKind.EXTERNAL,
        stations=stations(("front", "back"), _ACROSS),
        damages=TEETH,
    ),
    Feature(
        "crescent",
        14,
        "Crescent",
        "Head",
        FeatureKind.EXTERNAL,
        stations=stations(_FRONT_BACK, ("middle",)),
        damages=(POLISHED, BURR, SCORED, CRACKED, GALLED),
    ),
    Feature(
        "head_face",
        15,
        "Head face, flatness",
        "Head",
        FeatureKind.FLATNESS,
        label="Head face",
        stations=stations(("",), ("along", "across")),
        damages=(POLISHED, BURR, SCORED, PITTED, GALLED),
    ),
    Feature(
        "shaft_at_seal",
        16,
        "Shaft at the seal",
        "Shaft",
        FeatureKind.EXTERNAL,
        stations=stations(("",), _ACROSS),
        damages=(
            POLISHED,
            BURR,
            SCORED,
            Damage("pitted", "pitted", Verdict.CHANGE, "A new seal does not seal on a pitted shaft."),
            Damage("grooved", "worn groove under the lip", Verdict.CHANGE, "The new lip runs in the old groove and leaks."),
        ),
    ),
    Feature(
        "shaft_runout",
        17,
        "Shaft, runout",
        "Shaft",
        FeatureKind.RUNOUT,
        stations=stations(("",), ("at the bushing", "at the seal", "at the coupling")),
        damages=(Damage("bent", "bent", Verdict.CHANGE, "A straightened shaft bends again."),),
    ),
    Feature(
        "bearings",
        18,
        "Bearings",
        "Bearings",
        FeatureKind.CHECK,
        damages=(
            Damage("rough", "rough or noisy", Verdict.CHANGE, "Turned slowly by hand it must not be felt."),
            Damage("loose", "loose, or play to feel", Verdict.CHANGE, "Play here is play at the end clearance."),
            Damage("grease", "grease dry or dirty", Verdict.WATCH, "Wash it, look again, and find where the dirt came from."),
            Damage("hot", "blue from heat", Verdict.CHANGE, "It has lost its hardness."),
        ),
    ),
    Feature(
        "set_screws",
        19,
        "Set screws",
        "Set screws",
        FeatureKind.CHECK,
        damages=(
            Damage("rounded", "rounded", Verdict.CHANGE, "It will not come out the next time."),
            Damage("thread", "thread damaged", Verdict.CHANGE, "Chase the hole before the new one goes in."),
        ),
        when={"means": ("housing", "ring", "coupling")},
    ),
    Feature(
        "lock_washer",
        20,
        "Lock washer and nut",
        "Lock washer",
        FeatureKind.CHECK,
        label="Lock washer",
        damages=(
            Damage("bent", "tang bent before", Verdict.CHANGE, "A tang bends once."),
            Damage("not_engaged", "tang was not in a slot", Verdict.CHANGE, "The nut could turn: look at the bearing again."),
            Damage("nut_thread", "nut thread damaged", Verdict.CHANGE, "The torque would not reach the bearing."),
        ),
        when={"nut": ("tang", "plain")},
    ),
    Feature(
        "half_rings",
        21,
        "Half rings and collars",
        "Half rings",
        FeatureKind.CHECK,
        label="Half rings",
        damages=(
            Damage("worn", "worn step", Verdict.CHANGE, "A step here is axial play: the gap moves with the load."),
            Damage("bent", "bent or opened", Verdict.CHANGE, "It cannot hold the bearing square."),
        ),
        when={"means": ("housing",)},
    ),
    Feature(
        "bearing_depth",
        22,
        "Bearing, depth",
        "Bearing",
        FeatureKind.GAP,
        stations=(Station("depth", "", ""),),
        printed_as="depth",
        when={"means": ("ring", "coupling")},
        between=("bearing", "bracket"),
    ),
)
_IN_SCOPE = {
    **dict.fromkeys(("bushing_bore", "shaft_at_bushing", "shaft_clearance", "shaft_runout", "set_screws"), (OVERHAUL, SEAL)),
    **dict.fromkeys(
        ("idler_bore", "idler_pin", "idler_clearance", "rotor_teeth", "idler_teeth", "idler_tips", "crescent", "head_face"),
        (OVERHAUL, CHECK),
    ),
    **dict.fromkeys(("bearings", "lock_washer", "half_rings", "bearing_depth"), (OVERHAUL, SEAL, BEARING)),
    "end_clearance": (OVERHAUL, SEAL, BEARING, CHECK),
    "shaft_at_seal": (OVERHAUL, SEAL, REPACK),
}
"""What is measured or looked at in which scope of a job; all else in an overhaul alone."""

FEATURES = tuple(one for feature in _ALL for one in within(_IN_SCOPE.get(feature.key, (OVERHAUL,)), feature))
