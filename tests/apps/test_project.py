"""What the project promises about itself: demo data, docstrings, contracts."""

import importlib
import inspect
import io
import json
import pkgutil
import re
from pathlib import Path

from django.conf import settings
from django.core.management import call_command
from django.test import SimpleTestCase, TestCase

import finegap.core
from finegap.bench.models import Job
from finegap.bench.queries import job_view
from finegap.core.families import FAMILIES
from finegap.core.families.model import FeatureKind
from finegap.core.showing import Units

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
                    self.assertEqual((bore.kind, shaft.kind), (FeatureKind.INTERNAL, FeatureKind.EXTERNAL))
                    self.assertLess(max(bore.number, shaft.number), feature.number)

    def test_the_engine_names_no_family(self):
        engine = [p for p in (ROOT / "finegap").rglob("*.py") if "families" not in p.parts and "migrations" not in p.parts]
        for path in engine:
            self.assertNotIn("internal_gear", path.read_text(), path)


class Engine(SimpleTestCase):
    def test_no_name_of_a_family_outside_its_own_folder(self):
        """One engine: a family is data it reads, never a case it knows."""
        sources = [*(ROOT / "finegap").rglob("*.py"), *(ROOT / "frontend/src").rglob("*.ts*")]
        engine = [p for p in sources if ".test." not in p.name and not set(FAMILIES) & set(p.parts)]
        self.assertGreater(len(engine), 200)
        named = [
            (p.name, key)
            for p in engine
            for key in FAMILIES
            if re.search(rf"{key}|{key.replace('_', '[ -]?')} pump", p.read_text(), re.I)
        ]
        self.assertEqual(named, [])

    def test_what_a_family_adds_is_a_small_share(self):
        """Counted, so that it is seen to grow."""
        core = ROOT / "finegap/core"
        lines = {key: sum(len(p.read_text().splitlines()) for p in (core / "families" / key).rglob("*.py")) for key in FAMILIES}
        whole = sum(len(p.read_text().splitlines()) for p in (ROOT / "finegap").rglob("*.py"))
        for key, count in lines.items():
            self.assertLess(count / whole, 0.12, (key, count, whole))


class Demo(TestCase):
    def test_it_loads_with_one_job_half_done_and_one_signed(self):
        call_command("load_demo", stdout=io.StringIO())
        jobs = list(Job.objects.order_by("number"))
        self.assertEqual([hasattr(j, "sign_off") for j in jobs], [True, True, True, *[False] * 6])
        calls = {f.judged.call for f in job_view(4, Units.MM).features if f.judged}
        self.assertEqual(calls, {"Keep", "Watch", "Change", "Measure again"})
        before = Job.objects.count()
        call_command("load_demo", stdout=io.StringIO())
        self.assertEqual(Job.objects.count(), before)

    def test_no_check_value_of_the_trade_is_in_it(self):
        text = "".join(p.read_text() for p in (ROOT / "demo").rglob("*.json"))
        for value in ("1.4995", "1.4800", "1.472", '"0.005 in"', '0.010 in", "0.015', '"50 lbf.ft", "70', "750 h"):
            self.assertNotIn(value, text)
        self.assertTrue(json.loads((ROOT / "demo/works.json").read_text())["about"])
