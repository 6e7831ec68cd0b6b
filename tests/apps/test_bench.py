"""The bench's services: what is recorded, refused, blocked, signed, and what two people see of each other."""

import io
import json
import uuid
from dataclasses import asdict
from unittest import mock

from django.db import connection
from django.test.utils import CaptureQueriesContext
from pypdf import PdfReader

from finegap.api.errors import ReadOnly, Refused
from finegap.api.plain import plain
from finegap.api.retry import digest
from finegap.bench import changes, queries, services
from finegap.bench.models import Event, Job, Reading, SignOff, StepMark, Try, TryCheck
from finegap.bench.queries import job_lines, jobs
from finegap.bench.records import load
from finegap.bench.services import changing
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.families.steps import Stage
from finegap.core.formatting import Units
from finegap.core.job_record import Decided
from finegap.formats import report
from finegap.inventory.models import ShelfLine
from finegap.sheets.changes import SheetFile
from tests.apps.base import GOOD, SYSTEMS, Works, feeler, job_view, pump_lines


class Readings(Works):
    def test_as_typed_and_as_converted(self):
        number = self.open()
        self.read(number, "idler_bore", "front/12–6", "1.1835 in")
        reading = Reading.objects.get()
        self.assertEqual((reading.typed, reading.unit), ("1.1835 in", "in"))
        self.assertAlmostEqual(reading.value_mm, 30.0609, 6)
        shown = {u: job_view(number, u).features[1].readings[0].text for u in SYSTEMS}
        self.assertEqual(shown, {Units.MM: "30.061", Units.IN: "1.1835"})

    def test_wrong_readings_are_refused_and_nothing_is_saved(self):
        number = self.open()
        for typed, feature, says in (
            ("30 bar", "idler_bore", "a pressure"),
            ("1.18", "idler_bore", "far from"),
            ("30.1", "idler_clearance", "not measured by itself"),
            ("-30", "idler_bore", "negative"),
            ("12 mm", "end_clearance", "far from"),
        ):
            station = "gap" if feature == "end_clearance" else "front/12–6"
            with self.subTest(typed=typed), self.assertRaisesRegex(FieldError, says):
                self.read(number, feature, station, typed)
        for station, gauge in (("side", "M-1"), ("front/12–6", "nope")):
            with self.assertRaises(FieldError):
                self.read(number, "idler_bore", station, "30.05", gauge)
        self.assertEqual(Reading.objects.count(), 0)
        self.assertEqual(Job.objects.get(number=number).version, 1)
        self.read(number, "idler_bore", "front/12–6", "1.18", meant=True)
        self.assertEqual(Reading.objects.get().value_mm, 1.18)

    def test_a_retry_is_the_same_reading(self):
        number = self.open()
        new = changes.RecordReading(uuid.uuid4(), "idler_bore", "front/12–6", "30.05", "B-1")
        seen = self.seen(number)
        for _ in range(3):
            services.record_reading(seen, new)
        self.assertEqual(Reading.objects.count(), 1)
        other = self.open("G-1")
        with self.assertRaisesRegex(FieldError, "taken"):
            services.record_reading(self.seen(other), new)

    def test_struck_out_it_stays_and_no_longer_counts(self):
        number = self.open()
        self.read(number, "idler_bore", "front/12–6", "30.05")
        wrong = self.read(number, "idler_bore", "front/12–6", "30.14")
        with self.assertRaisesRegex(FieldError, "why"):
            self.strike(number, "reading", wrong, " ")
        self.strike(number, "reading", wrong, "slipped")
        feature = job_view(number, Units.MM).features[1]
        self.assertEqual(len(feature.readings), 2)
        self.assertEqual(feature.found.text, "30.050")
        with self.assertRaises(FieldError):
            self.strike(number, "reading", wrong, "again")


class Deciding(Works):
    def test_against_the_verdict_only_with_a_reason(self):
        number = self.open()
        self.measure_all(number, GOOD | {"idler_bore": 30.19})
        self.assertEqual(job_view(number, Units.MM).features[1].judged.verdict, "Change")
        with self.assertRaisesRegex(FieldError, "goes against"):
            services.decide(self.seen(number), changes.Decide(uuid.uuid4(), "idler_bore", Decided.KEEP))
        services.decide(self.seen(number), changes.Decide(uuid.uuid4(), "idler_bore", Decided.KEEP, "spare is six weeks away"))
        services.decide(self.seen(number), changes.Decide(uuid.uuid4(), "idler_bore", Decided.CHANGE))
        feature = job_view(number, Units.MM).features[1]
        self.assertEqual(feature.decision.decided, "change")
        self.assertIn("measured after", " ".join(b.sentence for b in job_view(number, Units.MM).blockers))
        for station in self.family(number).by_key["idler_bore"].stations:
            self.read(number, "idler_bore", station.key, "30.03", phase="left")
        view = job_view(number, Units.MM)
        self.assertEqual(view.features[1].judged_left.verdict, "Keep")
        # the running clearance as left takes the new idler with the pin as found
        self.assertEqual(view.features[3].left.text, "0.060")


class Setting(Works):
    def test_zero_comes_first_and_stands(self):
        number = self.open()
        with self.assertRaisesRegex(Refused, "Zero has not been found"):
            services.record_try(
                self.seen(number), changes.RecordTry(uuid.uuid4(), moved="10", way="open", checks=[feeler("0.1", "0.12")])
            )
        for school, lash in (("by feel", ""), ("back off from bind", "-1"), ("back off from bind", "3 mm")):
            with self.assertRaises(FieldError):
                services.set_zero(self.seen(number), changes.SetZero(uuid.uuid4(), school, lash))
        self.set_housing(number)
        with self.assertRaisesRegex(Refused, "tried from this zero"):
            services.set_zero(self.seen(number), changes.SetZero(uuid.uuid4(), "back off from bind", ""))
        services.set_zero(self.seen(number), changes.SetZero(uuid.uuid4(), "close to first drag", "0.03 mm"))
        self.assertEqual(job_view(number, Units.MM).setting.means.lash, "0.030 mm")

    def test_the_next_move_follows_the_check(self):
        number = self.open()
        self.set_housing(number, goes="0.18", stops="0.20")
        view = job_view(number, Units.MM).setting
        # 0.19 to 0.12 with 1.5708 mm of arc a hundredth: geometry
        self.assertIn("Close 0.07 mm: turn the housing clockwise 11.0 mm", view.headline)
        self.assertIn("Close 0.003 in", job_view(number, Units.IN).setting.headline)

    def test_gaskets_go_from_shelf_to_pump_and_back(self):
        number = self.open("G-1")
        shelf = lambda: dict(ShelfLine.objects.values_list("thickness_um", "count"))  # noqa: E731
        services.record_try(
            self.seen(number), changes.RecordTry(uuid.uuid4(), stacks_um=[[250]], checks=[feeler("0.19", "0.21")], trial=True)
        )
        self.assertEqual(shelf(), {50: 6, 100: 4, 250: 1})
        setting = job_view(number, Units.MM).setting
        self.assertIn("Close 0.08 mm: take out 0.25 mm, put in", setting.headline)
        following = [p.um for p in setting.means.next for _ in range(p.count)]
        self.assertAlmostEqual(sum(following), 170, delta=20)
        services.record_try(
            self.seen(number), changes.RecordTry(uuid.uuid4(), stacks_um=[following], checks=[feeler("0.11", "0.13")], trial=True)
        )
        self.assertEqual(shelf()[250], 2)
        self.assertEqual(sum(t * n for t, n in shelf().items()) + sum(following), 6 * 50 + 4 * 100 + 2 * 250)
        for bad in ([], [0], [-5], [250] * 3, [77]):
            with self.subTest(stack=bad), self.assertRaises(FieldError):
                services.record_try(
                    self.seen(number), changes.RecordTry(uuid.uuid4(), stacks_um=[bad], checks=[feeler("0.1", "0.12")], trial=True)
                )
        with self.assertRaisesRegex(FieldError, "600 mm of it cannot be"):
            thick = changes.RecordTry(uuid.uuid4(), stacks_um=[[10_000] * 60], checks=[feeler("0.1", "0.12")], trial=True)
            services.record_try(self.seen(number), thick)
        self.assertEqual(Try.objects.count(), 2)
        self.assertEqual(shelf()[250], 2)
        # one that was recorded before it was refused still opens, and says that nothing makes it
        Try.objects.filter(number=2).update(stacks_um=[[10_000] * 60])
        TryCheck.objects.filter(made__number=2).update(value_mm=0.3)
        self.assertIn("cannot be made", job_view(number, Units.MM).setting.headline)


class SigningOff(Works):
    def sign(self, number, actor=None, reason=""):
        services.sign_off(self.seen(number, actor), changes.Sign(uuid.uuid4(), reason))

    def test_a_finished_job_is_signed_and_then_read_only(self):
        number = self.finished()
        live = job_view(number, Units.IN)
        self.assertEqual(live.blockers, [])
        self.sign(number)
        frozen = job_view(number, Units.IN)
        self.assertEqual(frozen["signed"]["by"], "Tom")
        for key in ("headline", "low", "high", "target"):
            self.assertEqual(frozen["setting"][key], live["setting"][key])
        texts = [
            [one[key] for key in ("gap", "set_by", "checked", "by")] for of in (frozen, live) for one in of["setting"]["tries"]
        ]
        self.assertEqual(texts[0], texts[1])
        with self.assertRaises(ReadOnly):
            self.read(number, "idler_bore", "front/12–6", "30.05")
        with self.assertRaises(ReadOnly):
            self.sign(number)
        # the tool's rules may change later; what was signed does not
        ShelfLine.objects.all().delete()
        self.assertEqual(job_view(number, Units.IN), frozen)

    def test_an_undone_hold_point_blocks_even_a_lead(self):
        number = self.finished()
        self.strike(number, "step", StepMark.objects.get(job__number=number, step="free_turn").id)
        with self.assertRaises(Refused) as caught:
            self.sign(number, self.lena, reason="in a hurry")
        self.assertIn("turns freely", caught.exception.reasons[0])

    def test_a_gap_moved_after_it_was_proved_has_to_be_proved_again(self):
        number = self.finished()
        self.assertEqual(job_view(number, Units.MM).blockers, [])
        services.record_try(
            self.seen(number), changes.RecordTry(uuid.uuid4(), moved="0", way="open", checks=[feeler("0.11", "0.13")])
        )
        self.assertEqual({b.stage for b in job_view(number, Units.MM).blockers}, {"prove"})
        with self.assertRaises(Refused) as caught:
            self.sign(number, self.lena, reason="it turned freely before")
        self.assertIn("turns freely", " ".join(caught.exception.reasons))
        self.assertIn("to be proved again", Event.objects.filter(job__number=number).last().what)

    def test_a_gap_of_zero_blocks_even_a_lead(self):
        number = self.open()
        self.measure_all(number)
        self.look_all(number)
        services.set_zero(self.seen(number), changes.SetZero(uuid.uuid4(), "close to first drag", ""))
        services.record_try(
            self.meant(number), changes.RecordTry(uuid.uuid4(), [changes.CheckGap(read="0", gauge="F-1")], moved="1 mm", way="open")
        )
        with self.assertRaises(Refused) as caught:
            self.sign(number, self.lena, reason="x")
        self.assertIn("never run at zero", " ".join(caught.exception.reasons))

    def test_a_predicted_hot_gap_of_zero_blocks(self):
        number = self.finished()
        Job.objects.filter(number=number).update(casing_c=20.0, temperature_c=115.0)
        # steel rotor at 115 C in a casing at 20 C: 0.150 m * 11.5 um/(m K) * 95 K = 0.164 mm, more than the 0.12 set
        self.assertTrue(job_view(number, Units.MM).setting.hot.touches)
        with self.assertRaises(Refused) as caught:
            self.sign(number, self.lena, reason="x")
        self.assertIn("seizes", " ".join(caught.exception.reasons))

    def test_a_gauge_out_of_date_needs_a_leads_reason(self):
        number = self.finished()
        self.read(number, "idler_bore", "front/12–6", "30.06", gauge="OLD")
        with self.assertRaisesRegex(Refused, "cannot be signed"):
            self.sign(number)
        with self.assertRaisesRegex(FieldError, "only with a reason"):
            self.sign(number, self.lena)
        self.sign(number, self.lena, reason="checked against the block that morning")
        self.assertIn("block", SignOff.objects.get().reason)

    def test_every_blocker_in_an_empty_job_names_its_stage(self):
        stages = {b.stage for b in job_view(self.open(), Units.MM).blockers}
        self.assertEqual(stages, {s.value for s in (Stage.PREPARE, Stage.INSPECT, Stage.BUILD, Stage.SET, Stage.PROVE)})


class Opening(Works):
    def test_hours_are_a_count_or_nothing(self):
        self.assertEqual(Job.objects.get(number=self.open()).hours_run, 14380)
        for typed in ("12.5k", "-5", "about 900", "12345678", "١٢"):
            with self.subTest(typed=typed), self.assertRaisesRegex(FieldError, "no count of hours"):
                services.open_job(self.tom, changes.OpenJob("G-1", "x", typed))
        self.assertIsNone(services.open_job(self.tom, changes.OpenJob("G-1", "x", " ")).hours_run)

    def test_the_sheets_own_play_counts_until_another_is_said(self):
        from finegap.pumps.models import Pump
        from tests.apps.base import HOUSING, add_revision, sheet_data

        played = sheet_data(revision="2", date="2025-01-01", adjustment=HOUSING | {"lash": "0.04 mm"})
        add_revision(self.lena, SheetFile(json.dumps(played)))
        number = self.open()
        services.set_zero(self.seen(number), changes.SetZero(uuid.uuid4(), "close to first drag", ""))
        told = job_view(number, Units.MM).setting
        self.assertEqual(told.means.lash, "0.040 mm")
        # 0.12 of clearance and 0.04 of play, at 1.5708 mm of arc a hundredth: geometry
        self.assertIn("25.1 mm", told.headline)
        services.set_zero(self.seen(number), changes.SetZero(uuid.uuid4(), "close to first drag", "0 mm"))
        self.assertIn("18.8 mm", job_view(number, Units.MM).setting.headline)
        self.assertEqual(Pump.objects.get(tag="H-1").duty()["liquid"], "oil")


class Reports(Works):
    def test_the_first_page_says_what_was_found_left_set_and_signed(self):
        number = self.finished()
        services.sign_off(self.seen(number), changes.Sign(uuid.uuid4()))
        for units in SYSTEMS:
            record = job_view(number, units)
            with self.subTest(units=units):
                pages = [page.extract_text() for page in PdfReader(io.BytesIO(report.as_pdf(record))).pages]
                for said in ("H-1", "revision 1", "Signed off by Tom", "turns freely", record["setting"]["tries"][0]["gap"]):
                    self.assertIn(said, pages[0])
                self.assertIn("M-1", pages[1])
                for i, page in enumerate(pages, 1):
                    self.assertIn(f"page {i} of {len(pages)}", page)
            told = json.loads(report.as_json(record))
            self.assertEqual((told["format"], told["job"]["unit"]), ("fine-gap/job-report", units.value))

    def test_unsigned_and_far_too_long_the_first_page_is_still_one_and_all_tries_follow(self):
        number = self.open()
        services.set_zero(self.seen(number), changes.SetZero(uuid.uuid4(), "back off from bind", ""))
        for i in range(30):
            services.record_try(
                self.meant(number),
                changes.RecordTry(uuid.uuid4(), [feeler(f"0.{20 + i}", f"0.{21 + i}")], moved="1 mm", way="open"),
            )
        view = job_view(number, Units.MM)
        wordy = view | {"reason": "<b>ю & " + "long words " * 40}
        pages = PdfReader(io.BytesIO(report.as_pdf(plain(wordy)))).pages
        texts = [page.extract_text() for page in pages]
        self.assertIn("NOT SIGNED", texts[0])
        self.assertIn("Found and left", texts[1])
        self.assertTrue(all(f"0.{20 + i} mm goes" in " ".join(texts) for i in range(30)))

    def test_no_text_is_under_8_pt(self):
        number = self.open()
        sizes = set()
        for page in PdfReader(io.BytesIO(report.as_pdf(plain(job_view(number, Units.MM))))).pages:
            page.extract_text(visitor_text=lambda text, cm, tm, font, size: sizes.add(size) if text.strip() else None)
        self.assertGreaterEqual(min(sizes), 8)


class Queries(Works):
    def count(self, what) -> int:
        with CaptureQueriesContext(
            connection,
        ) as captured:
            what()
        return len(captured)

    def test_a_fixed_number_of_queries_however_much_there_is(self):
        number = self.open()
        self.measure_all(number)
        job_view(number, Units.MM)
        one = self.count(lambda: job_view(number, Units.MM))
        pump_lines(Units.MM)
        lists = self.count(lambda: job_lines(jobs())), self.count(lambda: pump_lines(Units.MM))
        for _ in range(3):
            self.measure_all(number)
        services.open_job(self.tom, changes.OpenJob("G-1", "another"))
        pump_lines(Units.MM)  # what was changed is worked out once
        self.assertEqual(self.count(lambda: job_view(number, Units.MM)), one)
        self.assertLessEqual(one, 24)
        self.assertEqual((self.count(lambda: job_lines(jobs())), self.count(lambda: pump_lines(Units.MM))), lists)

    def test_a_change_reads_the_job_as_it_was_and_as_it_is_once_each(self):
        number = self.open()
        self.measure_all(number)
        step = self.family(number).steps[0].key
        for service, new, most in (
            (services.record_reading, changes.RecordReading(uuid.uuid4(), "idler_bore", "front/12–6", "30.05", "B-1"), 1),
            (services.record_reading, changes.RecordReading(uuid.uuid4(), "idler_pin", "front/loaded side", "29.97", "M-1"), 1),
            (services.set_details, changes.SetDetails(serial="77"), 1),
            (services.mark_step, changes.MarkStep(uuid.uuid4(), step), 2),
            (services.decide, changes.Decide(uuid.uuid4(), "idler_bore", Decided.CHANGE, "x"), 2),
        ):
            with self.subTest(change=type(new).__name__), mock.patch.object(changing, "load", wraps=load) as reads:
                view = services.carry_out(service, self.seen(number), new)
                self.assertLessEqual(reads.call_count, most)
            self.assertEqual(plain(view), plain(queries.job_view(number)))

    def test_a_pin_is_no_part_of_what_was_sent(self):
        key = uuid.uuid4()
        one, other, less = (changes.Sign(key, reason, pin) for reason, pin in (("x", "1111"), ("x", "2222"), ("y", "1111")))
        digests = [digest(new, self.tom, Entry()) for new in (one, other, less)]
        self.assertEqual((digests[0] == digests[1], digests[0] == digests[2]), (True, False))
        self.assertNotIn("1111", repr(one))

    def test_a_pump_is_on_one_bench_at_a_time(self):
        self.open()
        with self.assertRaisesRegex(Refused, "already on the bench"):
            self.open()
        for pump, reason in (("nope", "x"), ("G-1", "  ")):
            with self.assertRaises(FieldError):
                services.open_job(self.tom, changes.OpenJob(pump, reason))
        self.assertTrue(asdict(job_lines(jobs())[0]))
