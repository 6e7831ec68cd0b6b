"""The version of the core names what it computes: results over a fixed set of jobs, as a digest, belong to one version."""

import hashlib
import json
import math
import re
import tomllib
import unittest
from collections.abc import Iterator
from dataclasses import fields, is_dataclass
from enum import Enum
from pathlib import Path

from django.conf import settings

import finegap.core
from finegap.core.calculators import calculator
from finegap.core.entry import Entry
from finegap.core.gap.tries import Check, TryMade
from finegap.core.job import assess
from finegap.core.job_record import Decided, Duty, FeatureDecision, Past, Phase
from finegap.core.wear.hours import HoursRead
from finegap.core.wear.lives import MeasuredSize, Visit
from tests.core.job_records import gasket_sheet, job_record, readings, sheet

KEPT = Path(__file__).parents[1] / "references" / "results.json"
DIGITS = 9
DECLARED = ("finegap.core.families", "finegap.core.drawing")
"""What a family declares, and how it is drawn, is no result."""


def jobs() -> Iterator[object]:
    """Jobs of every kind the core works out, and some sums; numbers of no meaning."""
    of = sheet()
    worn = {"end_clearance": 0.19, "idler_bore": 30.148, "idler_pin": 29.93, "bushing_bore": 40.1, "shaft_at_bushing": 39.91}
    past = {
        "idler_bore": (Visit(1, 700_000, HoursRead(4000.0), 1500.0, MeasuredSize(30.06, 0.002)),
                       Visit(2, 700_400, HoursRead(8000.0), 1500.0, MeasuredSize(30.10, 0.002))),
    }  # fmt: skip
    duty = Duty("cast iron", 50, 60, 60, 5.0, 300.0)
    history = Past(past, 3, 700_800, HoursRead(12_000.0), 4000.0)
    change = {"idler_bore": FeatureDecision(Decided.CHANGE, "worn")}
    left = readings(worn, of) | readings({"idler_bore": 30.03}, of, Phase.LEFT)
    yield assess(job_record())
    yield assess(job_record(readings=readings(worn, of), duty=duty, past=history))
    yield assess(job_record(readings=left, decisions=change, duty=duty, past=history))
    tries = (
        TryMade((Check(0.19, 0.004, math.inf, 0.005),), stacks=((250,),)),
        TryMade((Check(0.125, 0.004, math.inf, 0.005),), stacks=((100, 50),)),
    )
    yield assess(job_record(sheet=gasket_sheet(), tries=tries, box={50: 4, 100: 3, 250: 1}))
    yield calculator("packing").run({"shaft": "50", "section": "10", "rings": "4"}, Entry())
    yield calculator("arc").run({"diameter": "100", "lead": "2", "clearance": "0.12"}, Entry())
    yield calculator("grease").run({"outside": "90", "width": "23"}, Entry())


def computed(thing: object) -> Iterator[str]:
    """Every number and choice below a result, floats to so many digits; words are no result."""
    if isinstance(thing, bool | int) or thing is None:
        yield repr(thing)
    elif isinstance(thing, float):
        yield f"{thing:.{DIGITS}g}"
    elif isinstance(thing, Enum):
        yield f"{type(thing).__name__}.{thing.name}"
    elif isinstance(thing, tuple | list):
        for one in thing:
            yield from computed(one)
    elif isinstance(thing, dict):
        for key in sorted(thing, key=str):
            yield from computed(thing[key])
    elif is_dataclass(thing) and not isinstance(thing, type) and not type(thing).__module__.startswith(DECLARED):
        for field in fields(thing):
            yield from computed(getattr(thing, field.name))


def digest() -> str:
    """Of all that is computed, in order."""
    said = "\n".join(line for job in jobs() for line in computed(job))
    return hashlib.sha256(said.encode()).hexdigest()


def kept_now() -> dict[str, str]:
    return {"version": finegap.core.VERSION, "digest": digest()}


class Version(unittest.TestCase):
    def test_what_is_computed_belongs_to_the_version(self):
        now = kept_now()
        self.assertEqual(
            json.loads(KEPT.read_text()),
            now,
            "Another version, or other results. If results changed, raise VERSION in finegap/core/__init__.py; then "
            f"{KEPT.name} holds {json.dumps(now)}.",
        )

    def test_there_is_one_version_in_the_project(self):
        project = tomllib.loads((settings.BASE_DIR / "pyproject.toml").read_text())
        self.assertEqual(project["project"]["dynamic"], ["version"])
        version = project["tool"]["hatch"]["version"]
        found = re.search(version["pattern"], (settings.BASE_DIR / version["path"]).read_text())
        self.assertEqual(found and found["version"], finegap.core.VERSION)
        self.assertEqual(settings.SPECTACULAR_SETTINGS["VERSION"], finegap.core.VERSION)
        self.assertNotIn("version", json.loads((settings.BASE_DIR / "frontend/package.json").read_text()))
        changes = (settings.BASE_DIR / "CHANGELOG.md").read_text()
        self.assertIn(f"## {finegap.core.VERSION},", changes)
