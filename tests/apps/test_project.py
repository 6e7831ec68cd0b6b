"""What the project promises about itself: demo data, docstrings, contracts."""

import importlib
import inspect
import json
import pkgutil
import re
from pathlib import Path

from django.conf import settings
from django.test import SimpleTestCase

import finegap.core
from finegap.core.families import FAMILIES
from finegap.core.families.features import FeatureKind
from tools import engine

ROOT = Path(settings.BASE_DIR)


def public_functions():
    for module in pkgutil.walk_packages(finegap.core.__path__, "finegap.core."):
        loaded = importlib.import_module(module.name)
        for name, thing in vars(loaded).items():
            if inspect.isfunction(thing) and thing.__module__ == module.name and not name.startswith("_"):
                yield f"{module.name}.{name}", thing


class Docstrings(SimpleTestCase):
    def test_parameters_named_are_parameters_there(self):
        for name, function in public_functions():
            with self.subTest(name):
                text = inspect.getdoc(function)
                self.assertTrue(text)
                block = re.search(r"Parameters\n-+\n(.*?)(\n\n\w+\n-+|\Z)", text, re.S)
                if not block:
                    continue
                named = [n.strip() for line in re.findall(r"^(\w[\w, ]*) :", block[1], re.M) for n in line.split(",")]
                self.assertEqual(named, list(inspect.signature(function).parameters))

    def test_a_length_or_an_angle_has_its_unit_in_its_name(self):
        for name, function in public_functions():
            for parameter in inspect.signature(function).parameters.values():
                if parameter.annotation in ("float", float) and re.search(r"gap|clearance|diameter|arc|angle", parameter.name):
                    self.assertRegex(parameter.name, r"_(mm|um|deg)$", f"{name}({parameter.name})")


class Glossary(SimpleTestCase):
    def test_every_place_it_names_is_there_and_every_package_has_a_term(self):
        rows = re.findall(r"^\| (?!Term|---)(.+?) \| .+ \| (.+) \|$", (ROOT / "docs/glossary.md").read_text(), re.MULTILINE)
        self.assertGreater(len(rows), 50)
        terms = [term for term, _ in rows]
        self.assertEqual(len(terms), len(set(terms)), "a term stands twice")
        named = {place for _, where in rows for place in re.findall(r"`([^`]+)`", where)}
        for place in named:
            self.assertTrue((ROOT / "finegap" / place).exists() or (ROOT / place).exists(), place)
        packages = [f.parent.relative_to(ROOT / "finegap") for f in (ROOT / "finegap").glob("*/**/__init__.py")]
        families = Path("core/families")
        djangos = {"migrations", "management", "templatetags"}  # called so by Django, and no word of ours
        packages = [p for p in packages if djangos.isdisjoint(p.parts) and families not in p.parents]
        lacking = (
            {str(p) for p in packages}
            - {"core"}
            - {str(Path(place)) for place in named}
            - {str(Path(place).parent) for place in named}
        )
        self.assertEqual(lacking, set())


class Decisions(SimpleTestCase):
    def test_each_says_when_whether_it_stands_and_what_was_not_taken(self):
        for path in sorted((ROOT / "docs/decisions").glob("*.md")):
            with self.subTest(decision=path.name):
                text = path.read_text()
                self.assertRegex(text, r"^# .+\n\n\d{1,2} [A-Z][a-z]+ 20\d\d\. Accepted\.")
                self.assertIn("\nNot taken: ", text)


class Families(SimpleTestCase):
    def test_declarations_hold_together(self):
        for family in FAMILIES.values():
            self.assertEqual([f.number for f in family.features], list(range(1, len(family.features) + 1)))
            self.assertEqual(len({s.key for s in family.steps}), len(family.steps))
            for feature in family.features:
                pair = feature.kind is FeatureKind.PAIR
                self.assertEqual(feature.kind.taken, bool(feature.stations))
                self.assertTrue(feature.damages or feature.kind is not FeatureKind.CHECK)
                if pair:
                    bore, shaft = family.by_key[feature.bore], family.by_key[feature.shaft]
                    self.assertTrue(bore.kind.is_inside and shaft.kind is FeatureKind.EXTERNAL)
                    self.assertLess(max(bore.number, shaft.number), feature.number)


class Engine(SimpleTestCase):
    def test_the_linter_sees_a_familys_name_and_counts_what_a_family_adds(self):
        self.assertEqual(engine.families(), sorted(FAMILIES))
        self.assertGreater(len(engine.engine()), 200)
        planted = [
            ("a.py", 'if key == "sliding_vane":'),
            ("b.tsx", "<p>A Circumferential-piston pump</p>"),
            ("c.py", "vanes slide"),
        ]
        self.assertEqual(engine.named(planted), ["a.py names sliding_vane", "b.tsx names circumferential_piston"])
        self.assertEqual(set(engine.shares()), set(FAMILIES))
        self.assertGreater(min(engine.shares().values()), 0.001)
        self.assertEqual(
            engine.too_large({"internal_gear": 0.05, "sliding_vane": 0.031}), ["sliding_vane is 3.1% of the code, more than 3.0%"]
        )


class Demo(SimpleTestCase):
    def test_no_check_value_of_the_trade_is_in_it(self):
        text = "".join(p.read_text() for p in (ROOT / "demo").rglob("*.json"))
        for value in ("1.4995", "1.4800", "1.472", '"0.005 in"', '0.010 in", "0.015', '"50 lbf.ft", "70', "750 h"):
            self.assertNotIn(value, text)
        self.assertTrue(json.loads((ROOT / "demo/works.json").read_text())["about"])
