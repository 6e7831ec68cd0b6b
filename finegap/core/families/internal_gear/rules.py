"""Builds of an internal gear pump, what its symptoms point to, and which parts go together. Common practice, no source."""

from finegap.core.families.builds import Option, convention
from finegap.core.families.conventions import seal_faces
from finegap.core.families.family import ReplacedWith, Side, Symptom
from finegap.core.families.internal_gear.builds import COMPACT, HOUSING, PACKED, RELIEF, SEALED, UNCOUPLED

_SCOPES = {
    "overhaul": "an overhaul",
    "bearing": "the bearings only",
    "check": "a wear check, head or front cover off",
}
OPTIONS = (
    Option(
        "seal",
        "Shaft seal",
        {
            "packed": "packing and gland",
            "mechanical": "mechanical seal behind the rotor",
            "bellows": "bellows seal, compact build",
            "wedge": "wedge seal, compact build",
            "oring": "O-ring seal, compact build",
        },
    ),
    Option("gland", "Gland", {"one-piece": "in one piece", "split": "split, with clips"}, PACKED),
    Option(
        "means",
        "End clearance set by",
        {
            "housing": "threaded bearing housing",
            "gaskets": "head gaskets",
            "ring": "adjusting ring on the shaft",
            "coupling": "sleeve coupling between pump and motor",
            "fixed": "nothing: it follows from the parts",
        },
    ),
    Option(
        "bearing",
        "Bearings",
        {"ball": "ball or roller", "tapered": "a pair of tapered ones, preloaded", "none": "none: the shaft runs in its bushing"},
        UNCOUPLED,
    ),
    Option(
        "collar",
        "Under the bearing housing",
        {"half rings": "half rings and their collar", "plain": "a plain collar, as on small sizes"},
        {"seal": ("packed", "mechanical"), **HOUSING},
    ),
    Option(
        "nut",
        "Lock nut",
        {"tang": "with a lock washer and its tang", "plain": "alone"},
        {"bearing": ("ball", "tapered"), **UNCOUPLED},
    ),
    Option(
        "inner",
        "Inner bearing held by",
        {"ring": "a retaining ring", "washer": "a retainer washer and a collar"},
        {**COMPACT, **HOUSING},
    ),
    Option("outer", "Outer bearing held by", {"ring": "a retaining ring", "cap": "an end cap"}, {**COMPACT, **HOUSING}),
    Option("bushing", "Shaft bushing in", {"bracket": "the bracket", "casing": "the casing"}),
    Option("relief", "Relief valve", {"none": "none", "fitted": "on the pump"}),
    Option("scope", "This job", _SCOPES | {"repack": "new packing, the pump stays closed"}, PACKED),
    Option("scope", "This job", _SCOPES | {"seal": "a new seal"}, SEALED),
    seal_faces(SEALED),
    convention(
        "head_gasket",
        "Head gasket",
        {"dry": "fitted dry", "sealant": "fitted with sealant on both sides"},
        {"dry": "The gasket goes in dry.", "sealant": "Sealant on both sides of the gasket."},
        "Dry or with sealant, as the maker's manual says.",
    ),
    convention(
        "lips_inner",
        "Lip of the housing's inner seal",
        {"outward": "towards the shaft end", "inward": "towards the pump"},
        {"outward": "lip towards the shaft end", "inward": "lip towards the pump"},
        "lip as the maker's manual shows it",
    ),
    convention(
        "lips_outer",
        "Lip of the end cap's seal",
        {"outward": "towards the shaft end", "inward": "towards the pump"},
        {"outward": "lip towards the shaft end", "inward": "lip towards the pump"},
        "lip as the maker's manual shows it",
    ),
    convention(
        "packing_when",
        "Packing goes in",
        {"before": "before the gap is set", "after": "after the gap is set"},
        {"before": "", "after": ""},
        when={**PACKED, "means": ("housing", "ring", "coupling", "fixed")},
    ),
    convention(
        "relief_sign",
        "What shows the suction side of a relief valve",
        {"arrow": "its arrow", "cap": "its cap", "end": "its adjusting end"},
        {"arrow": "its arrow", "cap": "its cap", "end": "its adjusting end"},
        "what the maker's manual names",
        RELIEF,
    ),
)

SYMPTOMS = (
    Symptom(
        "low_flow",
        "Low flow, worst when thin",
        ("end_clearance", "rotor_clearance", "idler_clearance", "shaft_clearance", "idler_tips", "crescent", "head_face"),
        "Relief valve passing, air drawn in at the suction side.",
        Side.WIDER,
    ),
    Symptom(
        "hot",
        "Runs hot, or draws too much power",
        ("end_clearance", "rotor_clearance", "shaft_clearance", "shaft_runout", "bearings"),
        "Packing too tight, misalignment, liquid thicker than the pump was set for.",
        Side.TIGHTER,
    ),
    Symptom(
        "noise",
        "Noise or vibration",
        ("bearings", "shaft_clearance", "idler_clearance", "shaft_runout", "half_rings"),
        "Starved suction, relief valve chattering, coupling out of line.",
    ),
    Symptom(
        "leak",
        "Leaks at the shaft",
        ("shaft_at_seal", "shaft_clearance", "shaft_runout", "bearings"),
        "Seal faces damaged, elastomer swollen, spring without travel, gland not square.",
    ),
    Symptom(
        "seized",
        "Seized, or will not turn",
        ("end_clearance", "lock_washer", "idler_clearance", "shaft_clearance", "rotor_teeth", "head_face"),
        "Gap set at zero, dirt drawn in, growth with heat, lock nut loose.",
        Side.TIGHTER,
    ),
    Symptom(
        "bearing_gone",
        "Bearing gone early",
        ("bearings", "lock_washer", "half_rings", "shaft_clearance", "shaft_runout"),
        "Dirty or wrong grease, coupling out of line, belt too tight.",
    ),
    Symptom("planned", "Planned overhaul", ()),
)

REPLACED_WITH = (
    ReplacedWith("idler_bore", ("idler_pin",), "A new idler on a worn pin wears out of line."),
    ReplacedWith("bearings", ("lock_washer",), "The lock washer comes off with the bearing and is not used again."),
)
