"""A family, and what it names of means and tasks, checks itself: each kind of reference is broken once, and refused."""

import unittest
from dataclasses import replace

from finegap.core.drawing.marks import Picture
from finegap.core.drawing.views import View
from finegap.core.errors import FieldError
from finegap.core.families import FAMILIES
from finegap.core.families.builds import Option
from finegap.core.families.check import every_build
from finegap.core.families.family import Family, Press, ReplacedWith, Symptom
from finegap.core.families.features import Damage, Feature, FeatureKind, SheetCount, stations
from finegap.core.families.stack import Shape, Stack, StackPart
from finegap.core.families.steps import Stage, Step, Task
from finegap.core.means.registry import ALL, check_means
from finegap.core.measuring.verdict import Verdict
from finegap.core.tasks.registry import KINDS, check_tasks

WHERE = stations(("",), ("left", "right"))


def size(key, number, kind=FeatureKind.EXTERNAL, **more):
    return Feature(key, number, key, key, kind, WHERE, **more)


FEATURES = (
    size("hole", 1, FeatureKind.INTERNAL),
    size("pin", 2),
    Feature("running", 3, "Running", "Pair", FeatureKind.PAIR, bore="hole", shaft="pin"),
    size("slit", 4, FeatureKind.GAP, set_as="gap"),
    size("outside", 5, press="bush"),
    size("seat", 6, FeatureKind.INTERNAL, press="bush"),
    size("free", 7, FeatureKind.INTERNAL, press="bush"),
)
SPOTS = dict.fromkeys(("hole", "pin", "running", "slit"), (10, 10))


def seen(spots):
    """A drawing of one view."""
    return (View("a view", (0, 0, 100, 100), (), spots),)


STEPS = (
    Step(Stage.STRIP, "open", "Open."),
    Step(
        Stage.BUILD,
        "close",
        "Close.",
        hold=True,
        tells=("{bolts} bolts to {torque:bolts}.",),
        tasks=(Task("stack", "lid"), Task("torque", "bolts"), Task("press", "bush"), Task("picture", "lid"), Task("grease")),
        opened=("open",),
        changed=("hole",),
        undone_by=("gaskets",),
    ),
    Step(Stage.PROVE, "turn", "Turn.", hold=True, after=("close",), tasks=(Task("turning"),)),
)
LID = Stack(
    "lid", "Lid", "lid", (StackPart("lid", "Lid", Shape.CAP, feature="hole", elastomer="elastomer", note="{one_stroke:bush}"),)
)
FIELDS = {
    "key": "made_up",
    "name": "Made-up pump",
    "features": FEATURES,
    "steps": STEPS,
    "options": (
        Option("means", "Set by", {"gaskets": "gaskets", "fixed": "nothing"}),
        Option("seal", "Seal", {"a": "A", "b": "B"}),
    ),
    "symptoms": (Symptom("hot", "Hot", ("slit",)),),
    "replaced_with": (ReplacedWith("hole", ("pin",), "They wear together."),),
    "details": {"bolts": "number of bolts", "elastomer": "elastomer"},
    "stacks": (LID,),
    "presses": (Press("bush", "Bushing", "outside", "seat", "free", "hole", "running"),),
    "pictures": {"lid": Picture("Lid", (), "Right.", (), "Wrong.")},
    "views": lambda _: seen(SPOTS),
    "torques": ("bolts",),
}


def whole(**changes):
    """The family with changes, checked as at start."""
    family = Family(**(FIELDS | changes))
    check_means(family)
    check_tasks(family)
    return family


def step(i, **changes):
    return {"steps": (*STEPS[:i], replace(STEPS[i], **changes), *STEPS[i + 1 :])}


def feature(i, **changes):
    return {"features": (*FEATURES[:i], replace(FEATURES[i], **changes), *FEATURES[i + 1 :])}


def part(**changes):
    return {"stacks": (replace(LID, parts=(replace(LID.parts[0], **changes),)),)}


def press(**changes):
    return {"presses": (replace(FIELDS["presses"][0], **changes),)}


ONLY_A = {"seal": ("a",)}
WRONG = (
    ("features", {"features": (*FEATURES, FEATURES[0])}, "hole is given twice"),
    ("features", feature(1, number=9), "one is left out"),
    ("features[pin].when", feature(1, when={"sael": ("a",)}), "no option sael"),
    ("features[pin].when.seal", feature(1, when={"seal": ("c",)}), "no choice c"),
    ("features[pin].damages", feature(1, damages=(Damage("x", "x", Verdict.CHANGE, "x"),) * 2), "x is given twice"),
    ("features[pin].stations", feature(1, stations=()), "it is measured, and has none"),
    ("features[running].bore, shaft", feature(2, bore="hoel"), "no size hoel"),
    ("features[pin].bore, shaft", feature(1, bore="hole"), "only the running clearance"),
    ("features[pin].counted", feature(1, counted=SheetCount("vnaes", "vane {n}", 4)), "no detail vnaes"),
    ("features[outside].press", feature(4, press="bsuh"), "no press fit bsuh"),
    ("features[slit].set_as", feature(3, set_as="gpa"), "no means of it sets gpa"),
    ("views[pin]", {"views": lambda _: seen(SPOTS | {"pin": (101, 10)})}, "outside its view"),
    ("views[pin]", {"views": lambda _: seen({k: v for k, v in SPOTS.items() if k != "pin"})}, "no view has a spot for it"),
    ("views[pin]", {"views": lambda _: (*seen(SPOTS), *seen({"pin": (1, 1)}))}, "two views have a spot for it"),
    ("views", {"views": lambda _: seen(SPOTS | {"pni": (1, 1)})}, "no feature pni"),
    ("options[means]", {"options": (Option("means", "Set by", {"gakset": "x"}), FIELDS["options"][1]), **step(1, undone_by=())}, "no means gakset"),
    ("options[bare].choices", {"options": (*FIELDS["options"], Option("bare", "Bare", {}))}, "there is none"),
    ("options[late].when", {"options": (*FIELDS["options"], Option("late", "Late", {"x": "X"}, {"later": ("y",)}))}, "no option before it later"),
    ("geared", {"geared": ("tmiing",)}, "no means tmiing"),
    ("steps", {"steps": (*STEPS, STEPS[0])}, "open is given twice"),
    ("steps[close].changed", step(1, changed=("hoel",)), "no feature hoel"),
    ("steps[close].opened", step(1, opened=("opne",)), "no step of Strip opne"),
    ("steps[close].undone_by", step(1, undone_by=("gaksets",)), "no means gaksets"),
    ("steps[close].tells", step(1, tells=("{boltz} bolts.",)), "no value boltz"),
    ("steps[close].tells", step(1, tells=("To {torque:nuts}.",)), "no value torque:nuts"),
    ("steps[turn].after", step(2, after=("colse",)), "no step colse"),
    ("steps[turn].tasks", step(2, tasks=(Task("trunning"),)), "no task trunning"),
    ("steps[close].tasks", step(1, tasks=(Task("stack", "ldi"),)), "no stack"),
    ("steps[close].tasks", step(1, tasks=(*STEPS[1].tasks, Task("torque", "nuts"))), "no torque nuts"),
    ("steps[close].tasks", step(1, tasks=(*STEPS[1].tasks, Task("press", "bsuh"))), "no press bsuh"),
    ("steps[close].tasks", step(1, tasks=(*STEPS[1].tasks, Task("picture", "ldi"))), "no picture ldi"),
    ("steps[turn].tasks", step(2, tasks=(Task("turning", "shaft"),)), "no turning shaft"),
    ("stacks[lid].when", {"stacks": (replace(LID, when={"seal": ("c",)}),)}, "no choice c"),
    ("stacks[lid].parts[lid].feature", part(feature="hoel"), "no feature hoel"),
    ("stacks[lid].parts[lid].note", part(note="{one_stroke:bsuh}"), "no value one_stroke:bsuh"),
    ("stacks[lid].parts[lid].elastomer", part(elastomer="elsatomer"), "no detail elsatomer"),
    ("stacks[lid].parts[lid].counted", part(counted=SheetCount("vnaes", "Vane {n}", 4)), "no detail vnaes"),
    ("stacks[other].place", {"stacks": (LID, Stack("other", "Other", "elsewhere", LID.parts))}, "no step that puts together elsewhere"),
    ("presses[bush]", press(seat="hole"), "no size before pressing hole"),
    ("presses[bush]", press(free=""), "a solid one none"),
    ("presses[bush].bore", press(bore="hoel"), "no feature hoel"),
    ("presses[bush].pair", press(pair="hole"), "no running clearance hole"),
    ("symptoms[hot].suspects", {"symptoms": (Symptom("hot", "Hot", ("silt",)),)}, "no feature silt"),
    ("replaced_with[hoel].changed", {"replaced_with": (ReplacedWith("hoel", ("pin",), ""),)}, "no feature hoel"),
    ("replaced_with[hole].also", {"replaced_with": (ReplacedWith("hole", ("pni",), ""),)}, "no feature pni"),
)  # fmt: skip
IN_A_BUILD = (
    (feature(1, when=ONLY_A), "no size pin"),
    ({"stacks": (LID, replace(LID, key="again"))}, "lid is given twice"),
    ({"stacks": (replace(LID, when=ONLY_A),)}, "no stack lid"),
    (step(0, when=ONLY_A) | step(1, opened=("open",), changed=()), "could never be reached"),
    (
        {"steps": (*STEPS[:2], replace(STEPS[2], after=("later",)), Step(Stage.PROVE, "later", "L", after=("turn",)))},
        "after each other",
    ),
)


class References(unittest.TestCase):
    def test_the_family_with_nothing_wrong_is_taken(self):
        whole()

    def test_each_kind_of_reference_is_refused_with_its_place(self):
        for place, changes, says in WRONG:
            with self.subTest(place=place, says=says):
                with self.assertRaises(FieldError) as caught:
                    whole(**changes)
                self.assertIn(f"made_up.{place}", caught.exception.field.replace(", built gaskets, a: ", "."))
                self.assertIn(says, caught.exception.problem)

    def test_what_is_wrong_in_some_build_alone_is_refused_with_that_build(self):
        for changes, says in IN_A_BUILD:
            changed = dict(changes)
            if says == "could never be reached":
                changed["steps"] = (replace(STEPS[0], when=ONLY_A), replace(STEPS[1], changed=()), STEPS[2])
            with self.subTest(says=says):
                with self.assertRaises(FieldError) as caught:
                    whole(**changed)
                self.assertIn("built", caught.exception.field)
                self.assertIn(says, caught.exception.problem)

    def test_a_misspelt_name_no_longer_makes_a_hold_point_vanish(self):
        """Both of those that did so once, in a family that is shipped."""
        gear = FAMILIES["internal_gear"]
        for old, new in ((("bearings",), ("bearngs",)), (("seal",), ("saeal",))):
            steps = tuple(replace(s, changed=new) if s.changed == old else s for s in gear.steps)
            if steps == gear.steps:
                steps = tuple(replace(s, tasks=(Task("stack", new[0]),)) if "seal" in s.of("stack") else s for s in gear.steps)
            with self.subTest(new=new), self.assertRaises(FieldError):
                check_tasks(replace(gear, steps=steps))

    def test_options_depend_on_each_other(self):
        family = whole(options=(*FIELDS["options"], Option("gland", "Gland", {"one": "1", "two": "2"}, {"seal": ("b",)})))
        self.assertEqual(len(list(every_build(family))), 2 * (1 + 2))
        self.assertNotIn("gland", family.complete({"seal": "a"}))
        self.assertEqual(family.complete({"seal": "b"})["gland"], "one")
        self.assertNotIn("gland", [o.key for o in family.built(family.complete({})).options])

    def test_every_kind_there_is_says_what_it_needs(self):
        for kind, means in ALL.items():
            self.assertEqual((means.kind, bool(means.sets), means.view_type.__name__[-4:]), (kind, True, "View"))
        for kind, task in KINDS.items():
            self.assertEqual((task.kind, task.view_type.__name__[-4:]), (kind, "View"))
