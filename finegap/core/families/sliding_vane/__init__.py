"""Sliding vane pump: vanes slide in the slots of a rotor that runs close to its end covers. Common practice, no source."""

from finegap.core.families.builds import Option, convention
from finegap.core.families.family import Family, GapWords, ReplacedWith, Side, Symptom
from finegap.core.families.sliding_vane.drawing import views
from finegap.core.families.sliding_vane.features import FEATURES
from finegap.core.families.sliding_vane.pictures import PICTURES
from finegap.core.families.sliding_vane.procedure import DETAILS, STEPS
from finegap.core.families.sliding_vane.stacks import STACKS

FAMILY = Family(
    key="sliding_vane",
    name="Sliding vane pump",
    features=FEATURES,
    steps=STEPS,
    options=(
        Option("means", "Total side gap set by", {"gaskets": "cover gaskets", "fixed": "nothing: it follows from the parts"}),
        Option("service", "Build", {"dry": "dry", "lubricated": "lubricated, with check ports"}),
        Option("scope", "This job", {"overhaul": "an overhaul", "check": "a wear check through the port"}),
        Option("filter", "Inlet filter", {"fitted": "on the pump", "none": "none"}),
        convention(
            "serviced",
            "Serviced",
            {"site": "where it stands", "away": "in the shop, or sent away"},
            {"site": "where it stands", "away": "in the shop; or the pump is sent away"},
            "where it stands, or in the shop",
            {"scope": ("overhaul",)},
        ),
    ),
    symptoms=(
        Symptom(
            "vacuum",
            "Vacuum falls off",
            ("vane_height", "side_gap", "vane_thickness", "cylinder_bore", "covers", "filter"),
            gap=Side.WIDER,
        ),
        Symptom("noise", "Knocks or rattles", ("vanes", "slots", "bearings", "cylinder_bore")),
        Symptom("hot", "Runs hot", ("side_gap", "vane_length", "bearings", "filter")),
        Symptom("planned", "Planned overhaul", ()),
    ),
    replaced_with=(ReplacedWith("vane_height", ("vane_thickness", "vane_length", "vanes"), "A set of vanes is changed as a set."),),
    one_piece=(
        ("vane_height", "vane_thickness", "vane_length", "vanes"),
        ("rotor_length", "slots"),
        ("cylinder_length", "cylinder_bore"),
    ),
    details=DETAILS,
    stacks=STACKS,
    pictures=PICTURES,
    usual={"pressure": (0, 4)},
    gap=GapWords("total side gap", "under the cover", "rotor and end cover"),
    views=views,
)
