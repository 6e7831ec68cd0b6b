"""Signed records of every version, as old commits of main stored them: each prints for ever what it said on its day.

``tests/references/records`` holds them, compressed, with the commit that made them; jobs that commit could not finish were signed
past everything open, to have their family in it. ``statements.json`` beside them is what their pages say, statement by statement.
Where a statement stands on the page is not compared, so that the layout may improve.
"""

import copy
import io
import json
import lzma
import re
import uuid
from importlib import import_module
from pathlib import Path
from unittest import mock

from django.test import SimpleTestCase
from pypdf import PdfReader

from finegap.bench import services
from finegap.bench.models import SignOff
from finegap.bench.queries import job_view
from finegap.bench.record import RECORD_VERSION, upgraded
from finegap.core.families import FAMILIES
from finegap.core.showing import Units
from finegap.exchange import order, report
from tests.apps.base import Works
from tests.apps.test_schema import problems_against

RECORDS = Path(__file__).parents[1] / "references" / "records"
STATEMENTS = json.loads((RECORDS / "statements.json").read_text())
NAMES = sorted(path.name.removesuffix(".json.xz") for path in RECORDS.glob("*.xz"))
version_of = import_module("finegap.bench.migrations.0008_versions_and_certificates").version_of
VERSIONS = {"4ed79ad": 1, "2ee1988": 2, "f2c6d71": 3, "bff3347": 4, "686e246": 4, "2689a8e": 5, "ec828c2": 6}


def stored(name):
    """A record as its commit stored it, with what stood beside it in the row."""
    return json.loads(lzma.open(RECORDS / f"{name}.json.xz").read())


def shown(name, units):
    kept = stored(name)
    return upgraded(kept["record"][units.value], VERSIONS[kept["commit"]])


def printed(record):
    """The text of all pages without its blanks: cells wrap where the layout wraps them. What stands under each page comes last."""
    pages = [page.extract_text() for page in PdfReader(io.BytesIO(report.as_pdf(record))).pages]
    foot = re.compile(r"Local law, .*?Lengths in \w+\.", re.DOTALL)
    feet = [match.group(0) for page in pages for match in foot.finditer(page)]
    return squeezed("".join(foot.sub("", page) for page in pages) + "".join(feet))


def squeezed(text):
    return "".join(text.split())


class EveryVersion(SimpleTestCase):
    def test_each_version_there_was_has_a_record(self):
        self.assertEqual({VERSIONS[stored(name)["commit"]] for name in NAMES}, set(range(1, RECORD_VERSION)))
        self.assertEqual(set(STATEMENTS), set(NAMES))

    def test_it_is_told_once_from_its_keys_and_by_its_version_ever_after(self):
        told_by_keys = [name for name in NAMES if VERSIONS[stored(name)["commit"]] <= 5]
        for name in told_by_keys:
            kept = stored(name)
            self.assertEqual(version_of(kept["record"]["mm"]), VERSIONS[kept["commit"]], name)

    def test_every_statement_of_its_page_is_printed_in_both_units(self):
        for name in NAMES:
            for units in Units:
                record, page = shown(name, units), None
                page = printed(record)
                for statement in STATEMENTS[name][units.value]:
                    with self.subTest(record=name, units=units):
                        self.assertIn(squeezed(statement), page)
                self.assertIn(squeezed(f"core {stored(name)['core_version']}. Lengths in {units.value}."), page)

    def test_nothing_that_was_frozen_is_changed(self):
        for name in NAMES:
            kept = stored(name)
            before = copy.deepcopy(kept["record"]["mm"])
            after = upgraded(kept["record"]["mm"], VERSIONS[kept["commit"]])
            self.assertEqual(kept["record"]["mm"], before, name)
            for key in ("number", "reason", "sheet", "pump", "opened_at", "log"):
                self.assertEqual(after[key], before[key], (name, key))
            self.assertEqual(after["signed"], {"own": False} | before["signed"], name)

    def test_it_has_the_shape_that_is_published_now(self):
        for name in NAMES:
            for units in Units:
                with self.subTest(record=name, units=units):
                    self.assertEqual(problems_against("JobShape", shown(name, units)), [])

    def test_it_depends_on_nothing_but_the_record(self):
        """Families, the core's version and its rounding are others later: the page is the same."""
        name = "2689a8e-6"
        before = printed(shown(name, Units.IN))
        with (
            mock.patch.dict(FAMILIES, clear=True),
            mock.patch("finegap.core.VERSION", "99"),
            mock.patch("finegap.core.showing.round_half_away", return_value="never"),
        ):
            self.assertEqual(printed(shown(name, Units.IN)), before)

    def test_the_order_of_an_old_record_is_still_made(self):
        for name in NAMES:
            record = shown(name, Units.MM)
            if record["order"] is not None:
                self.assertTrue(order.MAKERS["csv"](record), name)


class Now(Works):
    def test_a_record_signed_now_has_the_version_of_now_and_its_page_is_its_own(self):
        number = self.finished()
        services.sign_off(self.seen(number), uuid.uuid4(), is_lead=False)
        self.assertEqual(SignOff.objects.get().record_version, RECORD_VERSION)
        record = job_view(number, Units.MM)
        self.assertEqual(problems_against("JobShape", record, closed=True), [])
        page = printed(record)
        with mock.patch("finegap.core.VERSION", "99"), mock.patch.dict(FAMILIES, clear=True):
            self.assertEqual(printed(job_view(number, Units.MM)), page)
        self.assertIn(squeezed("Lock washer and nut"), page)
        self.assertIn(squeezed("new, Tom,"), page)
        self.assertEqual(len(record["log"]), record["log_total"])
