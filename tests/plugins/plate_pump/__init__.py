"""A made-up pump: a plate over a hole, and a slit set with a wedge."""

from finegap.core.drawing.marks import Style
from finegap.core.drawing.section import slab
from finegap.core.drawing.views import View
from finegap.core.families.builds import Option
from finegap.core.families.family import Family
from finegap.core.families.features import Damage, Feature, FeatureKind, stations
from finegap.core.families.steps import Stage, Step, Task
from finegap.core.measuring.verdict import Verdict

SPOTS = {"plate": (10, 9), "hole": (50, 50), "slit": (60, 5)}
FAMILY = Family(
    key="plate_pump",
    name="Plate pump",
    features=(
        Feature(
            "plate", 1, "Plate", "Plate", FeatureKind.EXTERNAL, stations(("",), ("left", "right")),
            damages=(Damage("holed", "holed", Verdict.CHANGE, "It leaks."),),
        ),
        Feature("hole", 2, "Hole", "Body", FeatureKind.INTERNAL, stations(("",), ("12–6",))),
        Feature("slit", 3, "Slit", "Body", FeatureKind.GAP, stations(("",), ("gap",)), set_as="gap"),
    ),
    steps=(
        Step(Stage.STRIP, "open", "Open it."),
        Step(Stage.BUILD, "plate_on", "Plate on.", hold=True, changed=("plate",), tasks=(Task("both-sides", "plate"),)),
        Step(Stage.PROVE, "spin", "It spins.", hold=True, tasks=(Task("turning"),)),
    ),
    options=(Option("means", "Slit set by", {"wedge": "a wedge"}),),
    views=lambda _: (View("the plate", (0, 0, 300, 200), slab(Style.STEEL, 10, 10, 50, 50), SPOTS),),
)  # fmt: skip
