"""Signed records of every version, as old commits of main stored them: each prints for ever what it said on its day.

``tests/references/records`` holds them, compressed, with the commit that made them; jobs that commit could not finish were signed
past everything open, to have their family in it. ``statements.json`` beside them is what their pages say, statement by statement.
Where a statement stands on the page is not compared, so that the layout may improve.
"""

import copy
import io
import json
import lzma
import os
import re
import subprocess
import sys
import tempfile
import uuid
from collections import Counter
from importlib import import_module
from pathlib import Path
from unittest import mock

import pint
import rfc8785
from django.conf import settings
from django.test import SimpleTestCase, TransactionTestCase
from hypothesis import given
from hypothesis import strategies as st
from jsonschema import Draft202012Validator
from pypdf import PdfReader

from finegap.api.plain import plain
from finegap.bench import changes, responses, services
from finegap.bench.models import SignOff
from finegap.bench.presenters.layout import laid_out
from finegap.bench.queries import job_lines, jobs
from finegap.bench.record import RECORD_VERSION, complete, document
from finegap.bench.record import shown as record_of
from finegap.bench.record.upgrades import upgraded
from finegap.core.families import FAMILIES
from finegap.core.formatting import Amount, Bare, Joined, Kind, Sentence, Units, render
from finegap.core.kept import forget
from finegap.core.measuring.verdict import School, Verdict
from finegap.formats import order, report
from finegap.formats.letterhead import Letterhead
from tests.apps.base import SYSTEMS, Works, job_view, overhauls, pump_lines
from tests.apps.test_schema import problems_against
from tests.core.test_quantities import PINT

RECORD_SCHEMA = json.loads((settings.BASE_DIR / "docs/formats/job-record.schema.json").read_text())
RECORDS = Path(__file__).parents[1] / "references" / "records"
STATEMENTS = json.loads((RECORDS / "statements.json").read_text())
NAMES = sorted(path.name.removesuffix(".json.xz") for path in RECORDS.glob("*.xz"))
version_of = import_module("finegap.bench.migrations.0008_versions_and_certificates").version_of
VERSIONS = {"4ed79ad": 1, "2ee1988": 2, "f2c6d71": 3, "bff3347": 4, "686e246": 4, "2689a8e": 5, "ec828c2": 6, "6f5aa89": 7}


_SIGNED_BY = ((8, "0750451"), (9, "a9da885"), (10, "e08508f"), (11, "6798b8a"))
DOCUMENTS = {version: sorted((RECORDS.parent / "documents").glob(f"{commit}-*.json.xz")) for version, commit in _SIGNED_BY}
"""Records that are documents, by version, each with the lines its commit printed."""


def stored(name):
    """A record as its commit stored it, with what stood beside it in the row."""
    return json.loads(lzma.open(RECORDS / f"{name}.json.xz").read())


def shown(name, units):
    kept = stored(name)
    return upgraded(kept["record"][units.value], VERSIONS[kept["commit"]])


def printed(record):
    """The text of all pages without its blanks: cells wrap where the layout wraps them. What stands under each page comes last."""
    head = Letterhead(record["works"]["name"], record["works"]["address"]) if record.get("works") else Letterhead()
    pages = [page.extract_text() for page in PdfReader(io.BytesIO(report.as_pdf(record, head=head))).pages]
    foot = re.compile(r"Local law, .*?Lengths in \w+\.", re.DOTALL)
    feet = [match.group(0) for page in pages for match in foot.finditer(page)]
    return squeezed("".join(foot.sub("", page) for page in pages) + "".join(feet))


def squeezed(text):
    return "".join(text.split())


class EveryVersion(SimpleTestCase):
    def test_each_version_there_was_has_a_record(self):
        before = {VERSIONS[stored(name)["commit"]] for name in NAMES}
        self.assertEqual(before | set(DOCUMENTS), set(range(1, RECORD_VERSION)))
        self.assertEqual(set(STATEMENTS), set(NAMES))

    def test_it_is_told_once_from_its_keys_and_by_its_version_ever_after(self):
        told_by_keys = [name for name in NAMES if VERSIONS[stored(name)["commit"]] <= 5]
        for name in told_by_keys:
            kept = stored(name)
            self.assertEqual(version_of(kept["record"]["mm"]), VERSIONS[kept["commit"]], name)

    def test_every_statement_of_its_page_is_printed_in_both_units(self):
        for name in NAMES:
            for units in SYSTEMS:
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
            for units in SYSTEMS:
                with self.subTest(record=name, units=units):
                    self.assertEqual(problems_against("JobResponse", shown(name, units)), [])

    def test_it_depends_on_nothing_but_the_record(self):
        """Families, the core's version and its rounding are others later: the page is the same."""
        name = "2689a8e-6"
        before = printed(shown(name, Units.IN))
        with (
            mock.patch.dict(FAMILIES, clear=True),
            mock.patch("finegap.core.VERSION", "99"),
            mock.patch("finegap.core.formatting.round_half_away", return_value="never"),
        ):
            self.assertEqual(printed(shown(name, Units.IN)), before)

    def test_the_order_of_an_old_record_is_still_made(self):
        for name in NAMES:
            record = shown(name, Units.MM)
            if record["order"] is not None:
                self.assertTrue(order.as_csv(record), name)


class Numbers(SimpleTestCase):
    def test_every_number_is_in_the_unit_beside_it(self):
        """Against pint: the value, in the unit written beside it, is what was shown of it in mm and in inches."""
        registry = pint.UnitRegistry()
        for kind in (kind for kind in Kind if kind.value[0]):
            dimension, *systems = kind.value
            written = document._Templates().written(Amount(1234.5678, kind))
            for key, (unit, decimals, _) in zip(("mm", "in"), systems, strict=True):
                with self.subTest(kind=kind, units=key):
                    names = PINT[dimension][1]
                    told = registry.Quantity(written["value"], names[written["unit"]]).to(names[unit]).magnitude
                    self.assertAlmostEqual(float(re.match(r"[\d.]+", written[key])[0]), told, delta=0.5001 * 10**-decimals)


class Now(Works):
    def signed(self):
        number = self.finished()
        services.sign_off(self.seen(number), changes.Sign(uuid.uuid4()))
        return number, SignOff.objects.get()

    def test_a_record_signed_now_has_the_version_of_now_and_its_page_is_its_own(self):
        number, signature = self.signed()
        self.assertEqual(signature.record_version, RECORD_VERSION)
        record = job_view(number, Units.MM)
        self.assertEqual(problems_against("JobResponse", record, closed=True), [])
        page = printed(record)
        with mock.patch("finegap.core.VERSION", "99"), mock.patch.dict(FAMILIES, clear=True):
            self.assertEqual(printed(job_view(number, Units.MM)), page)
        self.assertIn(squeezed("Lock washer and nut"), page)
        self.assertIn(squeezed("new, Tom,"), page)
        self.assertEqual(len(record["log"]), record["log_total"])

    def test_other_words_and_another_rounding_change_no_signed_page(self):
        """Later a template is reworded and everything is rounded otherwise: what is not signed shows both."""
        number, _ = self.signed()
        other = self.finished()
        pages, live = ({units: job_view(one, units) for units in SYSTEMS} for one in (number, other))
        said = {School.GUARDED: dict.fromkeys(Verdict, "All is well with it.")}
        with mock.patch.dict("finegap.core.measuring.verdict._SAID", said), mock.patch.object(Amount, "bare", return_value="0.9"):
            forget()
            self.addCleanup(forget)
            for units in SYSTEMS:
                self.assertEqual(job_view(number, units), pages[units])
                judged = next(f["judged"] for f in job_view(other, units)["features"] if f["judged"])
                self.assertEqual(judged["sentence"], "All is well with it.")
                self.assertNotEqual(job_view(other, units)["setting"], live[units]["setting"])

    def test_the_page_signed_is_the_page_that_was_shown(self):
        number = self.finished()
        before = {units: printed(job_view(number, units)) for units in SYSTEMS}
        services.sign_off(self.seen(number), changes.Sign(uuid.uuid4()))
        for units in SYSTEMS:
            after = printed(job_view(number, units))
            sizes = before[units][before[units].index("Foundandleft") : before[units].index("Readings(")]
            self.assertIn(sizes, after)

    def test_it_is_canonical_published_and_small(self):
        _, signature = self.signed()
        kept = signature.signed_bytes
        self.assertEqual(rfc8785.dumps(json.loads(kept)), kept)
        errors = [f"{e.json_path}: {e.message[:120]}" for e in Draft202012Validator(RECORD_SCHEMA).iter_errors(json.loads(kept))]
        self.assertEqual(errors[:3], [])
        self.assertLess(len(signature.document), 20_000)
        said = json.loads(kept)
        used = set(re.findall(r'"template":"(t\d+)"', kept.decode()))
        self.assertEqual(used, set(said["templates"]))

    def test_lists_read_no_record(self):
        number, _ = self.signed()
        verdicts = Counter(feature["judged"]["verdict"] for feature in job_view(number, Units.MM)["features"] if feature["judged"])
        SignOff.objects.update(document=b"not to be read")
        pump_lines(Units.IN)
        self.assertEqual([size.name for size in overhauls("H-1", Units.MM)[0].sizes if size.is_set], ["End clearance found"])
        self.assertEqual((overhauls("H-1", Units.IN)[0].gap, SignOff.objects.get().verdicts), ("0.005 in", verdicts))
        self.assertEqual(job_lines(jobs())[0].signed_at is not None, True)


class DocumentsBefore(SimpleTestCase):
    """Documents of every version since there are any, as the commit that signed them stored and printed them."""

    def pages(self):
        for version, paths in DOCUMENTS.items():
            for path in paths:
                kept = json.loads(lzma.decompress(path.read_bytes()))
                job = mock.Mock(build={}, procedure=None, revision=mock.Mock(content={"family": "gone"}))
                yield path.name, kept, laid_out(record_of(kept["document"].encode(), version), job)

    def test_each_is_printed_line_by_line_as_it_was(self):
        for name, kept, page in self.pages():
            for units in SYSTEMS:
                of_now = printed(plain(page, units))
                foot = re.compile(r"^(Local law|Lengths in|.*page \d+ of|.*Fine Gap)")
                lost = [one for one in kept["lines"][units.value] if not foot.match(one) and squeezed(one) not in of_now]
                self.assertEqual(lost, [], (name, units))

    def test_each_has_the_shape_of_now(self):
        for name, _, page in self.pages():
            for units in SYSTEMS:
                of_now = plain(page, units) | {"amendments": [], "corrected": []}
                self.assertEqual(problems_against("JobResponse", of_now), [], name)


class Documents(SimpleTestCase):
    TEXTS = st.recursive(
        st.text(max_size=8)
        | st.builds(Amount, st.floats(-1e6, 1e6), st.sampled_from(Kind))
        | st.builds(Bare, st.builds(Amount, st.floats(-1e6, 1e6), st.just(Kind.LENGTH))),
        lambda of: (
            st.builds(lambda parts: Joined(tuple(parts)), st.lists(of, max_size=3))
            | st.builds(lambda one, other: Sentence("{one} and {other}.", {"one": one, "other": other}), of, of)
        ),
    )

    @given(TEXTS)
    def test_a_text_is_read_as_it_was_shown(self, text):
        view = {"tasks": [], "log": [{"what": text}]}
        kept = document.write(view, RECORD_VERSION, "x")
        for units in SYSTEMS:
            self.assertEqual(
                render(document.read(kept)["log"][0].get("what", ""), units), render(text, units), json.loads(kept)["job"]
            )

    def test_a_record_with_nothing_in_it_is_laid_out(self):
        """A check through a port has no tasks, no gap, no order."""
        bare = document.read(document.write({"tasks": [], "features": [], "setting": None, "number": 7}, RECORD_VERSION, "x"))
        whole = laid_out(bare, mock.Mock(build={}, procedure=None, revision=mock.Mock(content={"family": "gone"})))
        self.assertEqual((whole["number"], whole["tasks"], whole["setting"], whole["steps"]), (7, [], None, []))

    def test_what_was_empty_is_there_again(self):
        whole = complete.completed(responses.BlockerResponse, {"stage": "set", "sentence": "No."}, {})
        self.assertEqual(whole, {"stage": "set", "sentence": "No.", "lead_may": False, "feature": ""})


class FromTheDatabaseBefore(TransactionTestCase):
    """A database of the last commit before records were documents: it migrates, and every job opens with the state it had."""

    KEPT = Path(__file__).parents[1] / "references" / "databases" / "6f5aa89.sqlite3.xz"

    def test_it_migrates_and_each_job_opens_as_it_was(self):
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "finegap.sqlite3"
            path.write_bytes(lzma.decompress(self.KEPT.read_bytes()))
            before = json.loads(lzma.decompress(self.KEPT.with_suffix("").with_suffix(".json.xz").read_bytes()))
            env = os.environ | {"FINEGAP_VAR": folder, "FINEGAP_DEMO": "1"}
            told = subprocess.run(
                [sys.executable, "-c", OPEN_ALL], env=env, cwd=settings.BASE_DIR, capture_output=True, text=True, check=False
            )
            self.assertEqual(told.returncode, 0, told.stderr[-2000:])
            now = json.loads(told.stdout)
            for number, state in before.items():
                # The procedure of a job that is open is that of now; what was recorded on it is as it was.
                changed = () if state["signed"] else ("stages", "blockers", "steps", "stacks")
                both = {one[0] for one in state["features"]} & {one[0] for one in now[number]["features"]}
                was, stands = ({k: v for k, v in of[number].items() if k not in changed} for of in (before, now))
                for one in (was, stands):
                    one["features"] = [f for f in one["features"] if f[0] in both]
                    one["settings"] = [rest for _, *rest in one["settings"]]  # the next move is in the words of now
                self.assertEqual(stands, was, number)
            self.assertEqual(set(now), set(before))

    def test_what_was_marked_of_a_procedure_that_changed_stays_in_its_words_and_counts_for_nothing(self):
        """A database of the commit before the orders were put right, with marks at Build."""
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "finegap.sqlite3"
            path.write_bytes(lzma.decompress(self.KEPT.with_name("0750451.sqlite3.xz").read_bytes()))
            env = os.environ | {"FINEGAP_VAR": folder, "FINEGAP_DEMO": "1"}
            told = subprocess.run(
                [sys.executable, "-c", OPEN_FOUR], env=env, cwd=settings.BASE_DIR, capture_output=True, text=True, check=False
            )
            self.assertEqual(told.returncode, 0, told.stderr[-2000:])
            job = json.loads(told.stdout)
        former = [one["what"] for one in job["former"]]
        for words in (
            "Fitted: Half rings",
            "Fitted: Inner collar",
            "Done: Rotor and shaft in, straight; threads and shoulders taped over.",
            "Done: Bearings greased, or oil filled to the middle of the sight glass. Until clean",
            "Done: Both face screws loosened, bearing housing turned out of the bracket, half rings and collars off.",
        ):
            self.assertTrue(any(one.startswith(words.split(". Until")[0]) for one in former), (words, former))
        steps = {s["key"]: s for s in job["steps"]}
        for key in ("rotor_in", "thrust_built", "grease_after", "housing_out", "idler_on"):
            self.assertIsNone(steps[key]["by"], f"{key} is new, and open")
        self.assertIsNotNone(steps["shaft"]["by"], "what the procedure still has is as it was marked")
        fitted = {t["place"]: [p["key"] for p in t["parts"] if p["fitted"]] for t in job["tasks"] if t["kind"] == "stack"}
        self.assertEqual(fitted["bearing"], [], "half rings of another stack are none of this one")
        self.assertEqual(fitted["seal"], ["retainer", "packing-1"], "the packing is what it was")
        self.assertIn("rotor_in", [s["key"] for s in job["steps"] if s["stage"] == "build"])


OPEN_FOUR = """
import json
import os
os.environ["DJANGO_SETTINGS_MODULE"] = "finegap.site.settings"
import django
django.setup()
from django.core.management import call_command
call_command("migrate", verbosity=0)
from finegap.bench.queries import job_view
from finegap.core.formatting import Units
from finegap.api.plain import plain
print(json.dumps(plain(job_view(4), Units.MM), default=str))
"""

OPEN_ALL = """
import json
import os
os.environ["DJANGO_SETTINGS_MODULE"] = "finegap.site.settings"
import django
django.setup()
from django.core.management import call_command
call_command("migrate", verbosity=0)
from finegap.bench.models import Job
from finegap.bench.queries import job_view
from finegap.core.measuring.verdict import Verdict, School
from finegap.core.formatting import Amount, Bare, Joined, Kind, Sentence, Units, render
from finegap.api.plain import plain
from tests.references.databases.state import state
print(json.dumps({str(job.number): state(plain(job_view(job.number), Units.MM)) for job in Job.objects.all()}))
"""
