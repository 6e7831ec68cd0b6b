"""Builds of an internal gear pump, what its symptoms point to, and which parts go together. Common practice, no source."""

from finegap.core.families.builds import Option
from finegap.core.families.family import ReplacedWith, Side, Symptom

OPTIONS = (
    Option(
        "seal",
        "Shaft seal",
        {
            "packed": "packing and gland",
            "mechanical": "mechanical seal behind the rotor",
            "bellows": "bellows seal, compact build",
            "wedge": "wedge seal, compact build",
        },
    ),
    Option("gland", "Gland", {"one-piece": "in one piece", "split": "split, with clips"}),
    Option("bearing", "Bearings", {"ball": "ball or roller", "tapered": "a pair of tapered ones, preloaded"}),
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
    Option("bushing", "Shaft bushing in", {"bracket": "the bracket", "casing": "the casing"}),
    Option("relief", "Relief valve", {"none": "none", "fitted": "on the pump"}),
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
