"""Lists of bench, fleet, sheets and toolbox: paged, searched, filtered and sorted, at the same cost however long."""

import json
import uuid
from unittest import mock

from django.db import connection
from django.test.utils import CaptureQueriesContext

from finegap.api import lists
from finegap.bench import changes, services
from finegap.bench.models import SIGNED, Amendment, Job, SignOff
from finegap.core.errors import FieldError
from finegap.due.services import catch_up
from finegap.inventory.models import Gauge, GreaseGun
from finegap.pumps.models import Pump
from finegap.sheets.changes import SheetFile
from tests.apps.base import Works, add_revision, sheet_data


class Lists(Works):
    def setUp(self):
        self.client.force_login(self.lena)

    def ask(self, address, status=200, **what):
        answer = self.client.get(f"/api/{address}", what)
        self.assertEqual(answer.status_code, status, answer.content[:300])
        return answer.json()

    def said(self, address, key, **what):
        return [line[key] for line in self.ask(address, **what)["lines"]]

    def fleet(self, count):
        """More pumps, alike but for their names and places."""
        one = Pump.objects.get(tag="H-1")
        Pump.objects.bulk_create(
            Pump(**{f.name: getattr(one, f.name) for f in Pump._meta.fields if f.name not in ("id", "tag", "location", "code")},
                 tag=f"N-{i:03}", location=f"hall {9 - i % 10}")
            for i in range(count)
        )  # fmt: skip

    def history(self, tag, count):
        """Signed jobs of a pump, as lists read them."""
        pump = Pump.objects.get(tag=tag)
        first = Job.objects.count() + 1
        like = Job(
            **{f.name: getattr(pump, f.name) for f in Pump._meta.fields if hasattr(Job, f.name) and f.name not in ("id", "version")}
        )
        jobs = [
            replace_row(like, number=first + i, pump=pump, revision=pump.sheet.revisions.first(), opened_by=self.tom,
                        opened_at="2024-01-02T08:00:00Z", ended=SIGNED)
            for i in range(count)
        ]  # fmt: skip
        kept = Job.objects.bulk_create(jobs)
        SignOff.objects.bulk_create(
            SignOff(id=uuid.uuid4(), job=job, by=self.tom, at="2024-01-03T08:00:00Z", document=b"", core_version="x", gap_mm="0.12")
            for job in kept
        )
        return kept


def replace_row(row, **changed):
    """A new row like another."""
    kept = {f.name: getattr(row, f.attname) for f in row._meta.fields if f.name not in ("id", *changed) and not f.is_relation}
    return type(row)(**kept, **changed)


class Jobs(Lists):
    def test_open_signed_and_abandoned_each_apart_newest_first(self):
        self.history("H-1", 3)
        number = self.open()
        given_up = services.open_job(self.tom, changes.OpenJob("G-1", "wrong")).number
        services.abandon(self.seen(given_up), changes.Abandon(uuid.uuid4(), "wrong pump"))
        self.assertEqual(self.said("jobs", "number"), [given_up, number, 3, 2, 1])
        for state, expected in (("open", [number]), ("signed", [3, 2, 1]), ("abandoned", [given_up])):
            self.assertEqual(self.said("jobs", "number", state=state), expected)

    def test_what_is_void_says_so(self):
        (job,) = self.history("H-1", 1)
        self.assertEqual(self.said("jobs", "ended"), [""])
        Amendment.objects.create(
            id=uuid.uuid4(), job=job, number=1, what="x", reason="x", void=True, by=self.lena, at="2024-02-03T08:00:00Z"
        )
        self.assertEqual(self.said("jobs", "ended"), ["void"])
        self.assertEqual(self.said("pumps/H-1/overhauls", "ended"), ["void"])
        self.assertEqual(self.said("pumps", "overhauls", q="H-1"), [0])  # what counts no more is no overhaul of it

    def test_it_is_found_by_every_word_of_its_pump_or_by_its_number(self):
        self.fleet(12)
        self.history("N-003", 2)
        self.history("N-011", 2)
        self.assertEqual(self.said("jobs", "pump", q="n-003"), ["N-003", "N-003"])
        self.assertEqual(self.said("jobs", "pump", q="hall  N-0"), ["N-011", "N-011", "N-003", "N-003"])
        self.assertEqual(self.said("jobs", "pump", q="hall H-1"), [])
        self.assertEqual(self.said("jobs", "number", q="4"), [4])
        for nothing in ("%", "_", "'", "99999999999999999999", "²"):
            self.assertEqual(self.said("jobs", "number", q=nothing), [], nothing)

    def test_the_same_cost_with_any_number_of_signed_ones(self):
        self.open()
        asks = [("jobs", {"state": "open"}), ("jobs", {"state": "signed"}), ("jobs", {"q": "H-1"}), ("pumps", {}), ("sheets", {})]

        def cost():
            spent = []
            for address, what in asks:
                with CaptureQueriesContext(connection) as asked:
                    self.ask(address, **what)
                spent.append(len(asked))
            return spent

        self.history("H-1", 2)
        cost()  # the first answer of a day has the session run on
        few = cost()
        self.history("H-1", 120)
        self.history("G-1", 30)
        catch_up()
        self.assertEqual(cost(), few)


class Pages(Lists):
    def test_no_answer_has_more_than_a_page_and_none_is_left_out(self):
        self.fleet(118)
        seen = []
        for page, count, more in (*((page, 25, True) for page in (1, 2, 3, 4)), (5, 20, False), (6, 0, False)):
            answer = self.ask("pumps", page=page)
            self.assertEqual((len(answer["lines"]), answer["more"]), (count, more))
            seen += [line["tag"] for line in answer["lines"]]
        self.assertEqual(seen, sorted(Pump.objects.values_list("tag", flat=True)))

    def test_just_a_page_is_followed_by_none(self):
        self.fleet(23)
        self.assertEqual(self.ask("pumps")["more"], False)

    def test_what_a_list_cannot_be_asked_for_is_refused_by_name(self):
        for address, what, field in (
            ("jobs", {"page": "0"}, "page"),
            ("jobs", {"page": "1.5"}, "page"),
            ("jobs", {"page": "99999999999"}, "page"),
            ("jobs", {"state": "lost"}, "state"),
            ("pumps", {"sort": "liquid"}, "sort"),
            ("pumps", {"q": "x" * 81}, "q"),
            ("gauges", {"page": "NaN"}, "page"),
            ("gauges", {"q": "\0"}, "q"),
            ("sheets", {"means": "x" * 41}, "means"),
        ):
            error = self.ask(address, status=422, **what)
            self.assertEqual((error["code"], error["field"]), ("field", field), (what, error))

    def test_only_the_first_words_count(self):
        with mock.patch.object(lists, "_MOST_WORDS", 2):
            self.assertEqual(self.said("pumps", "tag", q="H-1 test nothing"), ["H-1"])
            self.assertEqual(self.said("pumps", "tag", q="H-1 nothing test"), [])


class Others(Lists):
    def test_pumps_by_place_and_those_on_no_bench_first(self):
        self.fleet(3)
        self.open("G-1")
        self.assertEqual(self.said("pumps", "tag", sort="location"), ["N-002", "N-001", "N-000", "G-1", "H-1"])
        self.assertEqual(self.said("pumps", "tag", free="true"), ["H-1", "N-000", "N-001", "N-002", "G-1"])
        self.assertEqual(self.said("pumps", "on_bench", q="G-1"), [1])

    def test_a_pump_says_how_many_overhauls_there_were_and_its_page_has_them_all(self):
        for job in self.history("H-1", 8):
            Job.objects.filter(pk=job.pk).update(hours_run=100 * job.number)
        self.assertEqual(self.said("pumps", "overhauls", q="H-1"), [8])
        self.assertEqual(self.said("pumps/H-1/overhauls", "number"), [8, 7, 6, 5, 4, 3])
        self.assertEqual(self.said("pumps/H-1/overhauls", "number", page=2), [2, 1])
        self.assertEqual(self.said("pumps/H-1/overhauls", "gap")[0], "0.12 mm")

    def test_sheets_by_words_and_by_what_sets_the_gap_at_their_latest_revision(self):
        add_revision(self.lena, SheetFile(json.dumps(sheet_data(revision="2", date="2025-01-02"))))
        self.fleet(7)
        line = next(line for line in self.ask("sheets")["lines"] if line["slug"] == "test-pump")
        self.assertEqual((line["revision"], line["revisions"], line["maker"]), ("2", 2, "Nobody"))
        self.assertEqual((line["pumps"], line["used"]), (["H-1", "N-000", "N-001", "N-002", "N-003"], 8))
        self.assertEqual(self.said("sheets", "slug", means="gaskets"), ["gasket-pump"])
        self.assertEqual(self.said("sheets", "slug", q="nobody t1"), ["gasket-pump", "test-pump"])

    def test_gauges_by_words_and_by_what_is_due_next(self):
        self.assertEqual(self.said("gauges", "tag", q="mike"), [])
        self.assertEqual(self.said("gauges", "tag", q="bore"), ["B-1"])
        self.assertEqual(self.said("gauges", "tag", sort="due")[0], "OLD")
        with CaptureQueriesContext(connection) as asked:
            self.ask("gauges")
        Gauge.objects.put(
            "Z", "caliper", low=0, high=1, resolution=0.1, expanded=0.1, k=2, calibrated="2000-01-01", due="2999-01-01"
        )
        with CaptureQueriesContext(connection) as again:
            self.ask("gauges")
        self.assertEqual(len(again), len(asked))

    def test_guns_and_gaskets(self):
        GreaseGun.objects.create(tag="G-7", grease="lithium", grams_per_ten_strokes=8, weighed="2024-01-01")
        self.assertEqual(self.said("guns", "tag", q="lith"), ["G-7"])
        self.assertEqual(self.said("shelf", "slug", q="gasket"), ["gasket-pump"] * 3)
        self.assertEqual(self.said("shelf", "slug", q="no such"), [])

    def test_symptoms_are_those_of_the_family(self):
        keys = [one["key"] for one in self.ask("pumps/H-1/symptoms")]
        self.assertIn("low_flow", keys)
        self.ask("pumps/none/symptoms", status=404)
        with self.assertRaisesRegex(FieldError, "not one this family lists"):
            services.open_job(self.tom, changes.OpenJob("H-1", "in words", symptom="hums in tune"))
