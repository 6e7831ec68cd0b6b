"""The record is true of what was done, undone and signed."""

import datetime as dt
import io
import json
import uuid

from django.contrib.auth.models import User
from django.core.files.base import ContentFile
from django.utils import timezone
from pypdf import PdfReader

from finegap.api.errors import Conflict, ReadOnly, Refused
from finegap.api.plain import plain
from finegap.bench import changes, services
from finegap.bench.models import Decision, Job, PartFitted, ProofMark, Reading, SignOff, StepMark, TorqueMark, Try, ZeroFound
from finegap.bench.queries import job_lines, jobs
from finegap.bench.services.news import note_verdicts
from finegap.core.entry import Entry
from finegap.core.errors import FieldError, Unlikely
from finegap.core.families.steps import Stage
from finegap.core.formatting import Units
from finegap.core.job_record import Decided
from finegap.formats import report
from finegap.inventory.models import ShelfLine
from finegap.people.models import PersonEvent, Pin
from finegap.people.pins import MOST_WRONG, check_pin, clear_pin, set_pin
from tests.apps.base import GOOD, PIN, Works, feeler, job_view, pump_page, shown, text_of
from tests.apps.test_inspection import picture


class Undoing(Works):
    pump = "G-1"

    def setUp(self):
        self.number = self.open(self.pump)

    def view(self):
        return job_view(self.number, Units.MM)

    def step(self, key):
        return next(s for s in self.view().steps if s.key == key)

    def mark(self, key, actor=None, **more):
        services.mark_step(self.seen(self.number, actor), changes.MarkStep(uuid.uuid4(), key, **more))

    def trial(self, stack, goes="0.11", stops="0.13", **more):
        new = changes.RecordTry(uuid.uuid4(), [feeler(goes, stops)], stacks_um=[stack], **({"trial": True} | more))
        services.record_try(self.seen(self.number), new)
        return new.id

    def built(self):
        """Measured, and put together at Build with its head tight."""
        self.measure_all(self.number)
        self.look_all(self.number)
        self.steps(self.number, Stage.PREPARE, Stage.STRIP, Stage.BUILD)

    def last(self):
        return self.view().log[0].what


class TakenApart(Undoing):
    """Head tight, then opened for gaskets: what was opened is not tight any more."""

    def test_a_try_that_opens_the_head_takes_back_what_stood_on_it_and_keeps_both(self):
        self.built()
        torques = TorqueMark.objects.filter(fastener="head bolts").count()
        self.trial([250], "0.19", "0.21", opened=False)
        self.assertEqual(TorqueMark.objects.standing().filter(fastener="head bolts").count(), torques, "nothing was opened")
        opens = self.view().setting.opens
        self.assertTrue(any(text.startswith("Head on") for text in opens), "said before it is done")
        self.trial([100, 50])
        self.assertEqual(TorqueMark.objects.standing().filter(fastener="head bolts").count(), 0)
        self.assertEqual(TorqueMark.objects.filter(fastener="head bolts", struck_reason="opened for try 2").count(), torques)
        self.assertFalse(PartFitted.objects.standing().filter(stack="head").exists())
        self.assertTrue(TorqueMark.objects.standing().filter(fastener="lock nut").exists(), "the nut was not touched")
        self.assertIn("is to be done again at Set", self.last())
        again = [s for s in self.view().steps if s.reopened]
        self.assertEqual({s.key for s in again}, {"pin", "crescent", "head_on"})
        self.assertEqual({(s.stage, s.by) for s in again}, {("set", None)})
        self.assertIn("Done: Head on to its marks", " ".join(s.what for s in self.view().struck))

    def test_it_is_right_when_what_was_opened_is_tight_and_checked_once_more(self):
        self.built()
        self.trial([250], "0.19", "0.21", opened=False)
        self.trial([100, 50])
        self.assertIn("Right on trial", self.view().setting.headline)
        self.steps(self.number, Stage.BUILD)
        for key in ("pin", "crescent", "head_on"):
            self.mark(key)
        self.assertIn("Check once more", self.view().setting.headline)
        self.assertFalse(self.view().setting.right)
        self.trial([50, 100], trial=False)  # the same stack, in another order
        self.assertTrue(self.view().setting.right)
        self.assertEqual([s.by for s in self.view().steps if s.reopened], ["Tom"] * 3)
        self.trial([100])
        self.assertFalse(self.view().setting.right)
        self.assertEqual([s.by for s in self.view().steps if s.reopened], [None] * 3, "a later change reopens them")

    def test_a_gap_under_what_is_loose_is_none(self):
        with self.assertRaisesRegex(FieldError, "what is loose is none"):
            self.trial([250], trial=False)
        self.assertEqual(Try.objects.count(), 0)
        self.assertEqual(dict(ShelfLine.objects.values_list("thickness_um", "count"))[250], 2)

    def test_of_the_first_try_only_the_technician_knows_whether_it_was_opened(self):
        self.built()
        self.assertTrue(self.view().setting.asks_opened)
        with self.assertRaisesRegex(FieldError, "nobody says whether it was opened"):
            self.trial([250])
        self.trial([250], opened=True)
        self.assertTrue(self.view().setting.tries[0].opened)
        self.assertFalse(self.view().setting.asks_opened)

    def test_what_was_proved_of_another_gap_is_proved_no_more(self):
        self.built()
        self.trial([100, 50], opened=False)
        self.steps(self.number, Stage.PROVE)
        self.trial([100, 50], trial=False)
        self.assertEqual(StepMark.objects.standing().filter(step="free_turn").count(), 0)
        self.assertEqual(ProofMark.objects.standing().count(), 0)
        self.assertGreater(ProofMark.objects.count(), 0, "the record keeps both")

    def test_what_was_seen_at_one_step_proves_no_other(self):
        with self.assertRaisesRegex(FieldError, "not looked at there"):
            services.see(self.seen(self.number), changes.SeeProof(uuid.uuid4(), "first_hour", "turning"))


class InTurn(Undoing):
    pump = "H-1"

    def test_a_bump_with_nothing_made_safe_and_no_gap_set_is_refused_by_name(self):
        with self.assertRaises(Refused) as caught:
            self.mark("rotation")
        told = " ".join(caught.exception.reasons)
        self.assertIn("First: Isolated, locked and tagged", told)
        self.assertIn("has not been set and checked", told)
        self.assertTrue(self.step("rotation").early)
        self.assertEqual(self.step("match_marks").early, [], "no hold point, no order but its place")

    def test_a_lead_may_with_a_reason_and_it_says_that_the_job_is_the_leads_own(self):
        for actor, past in ((self.tom, "in a hurry"), (self.lena, " ")):
            with self.assertRaisesRegex(Refused, "comes before"):
                self.mark("rotation", actor, past=past)
        self.mark("rotation", self.lena, past="seen by the maker's fitter")
        shown = self.step("rotation")
        self.assertEqual((shown.past, shown.own, shown.by), ("seen by the maker's fitter", False, "Lena"))
        self.read(self.number, "idler_bore", "front/12–6", "30.05")
        self.mark("guards", self.lena, past="again")
        self.assertTrue(self.step("guards").own)
        self.assertIn("that lead's own job", self.last())
        self.assertIn("OUT OF ITS TURN, because: again, Lena", " ".join(text_of(plain(self.view())).split()))

    def test_a_hold_point_taken_back_takes_what_hangs_on_it(self):
        number = self.number
        self.measure_all(number)
        self.look_all(number)
        self.together(number)
        guards = StepMark.objects.get(job__number=number, step="guards")
        self.strike(number, "step", guards.id, "the wrong pump")
        self.assertEqual((self.step("guards").by, self.step("rotation").by), (None, None))
        self.assertIn("and what comes after it", self.last())
        self.assertEqual(self.step("free_turn").by, "Tom")

    def test_a_step_taken_back_takes_what_stands_on_it(self):
        """The head is not on where the idler is not; what was logged at it stays, and is told again with its step."""
        self.measure_all(self.number)
        self.look_all(self.number)
        self.together(self.number)
        idler = StepMark.objects.get(job__number=self.number, step="idler_on")
        self.strike(self.number, "step", idler.id, "another pump's")
        for key in ("idler_on", "head_on", "nut_torque", "tang", "block_out", "packing_now", "thrust_built"):
            self.assertIsNone(self.step(key).by, key)
        self.assertEqual(self.step("rotor_in").by, "Tom")
        self.assertTrue(TorqueMark.objects.standing().filter(fastener="lock nut").exists())
        self.assertTrue(self.view().blockers)

    def test_another_part_decided_on_after_the_proof_leaves_nothing_set_or_proved(self):
        """Found while trying to sign what was not so: the gap and the proof were of a pump with other parts in it."""
        self.measure_all(self.number)
        self.look_all(self.number)
        self.together(self.number)
        self.assertEqual(self.view().blockers, [])
        services.decide(self.seen(self.number), changes.Decide(uuid.uuid4(), "bearings", Decided.CHANGE, "while it is open"))
        services.confirm_new(self.seen(self.number), changes.ConfirmNew(uuid.uuid4(), "bearings"))
        self.assertIsNone(self.step("free_turn").by)
        self.assertIn("Which parts are new was decided after", " ".join(b.sentence for b in self.view().blockers))
        services.record_try(
            self.seen(self.number), changes.RecordTry(uuid.uuid4(), [feeler("0.11", "0.13")], moved="0", way="open")
        )
        self.steps(self.number, Stage.PROVE)
        self.assertEqual(self.view().blockers, [])
        before = Decision.objects.get(feature="bearings").id
        self.strike(self.number, "decision", before, "they were good")
        self.assertIsNone(self.step("free_turn").by, "with the old ones back in it is another pump again")

    def test_what_holds_the_gap_taken_out_again_takes_the_proof_with_it(self):
        self.measure_all(self.number)
        self.look_all(self.number)
        self.together(self.number)
        self.strike(self.number, "part", PartFitted.objects.get(part="outer_lip").id, "lip turned")
        self.assertIsNone(self.step("free_turn").by)
        self.build(self.number)
        self.assertIn("put together after the last check", self.view().setting.details[0])
        self.mark("thrust_built")
        self.assertIn("put together after the last check", " ".join(self.step("free_turn").early))

    def test_what_is_found_missing_later_is_not_ready(self):
        self.steps(self.number, Stage.PREPARE)
        services.say_on_hand(self.seen(self.number), changes.SayOnHand(uuid.uuid4(), ["gloves"], here=False))
        self.assertIsNone(self.step("ready").by)
        self.assertIn("its step is open again", self.last())

    def test_a_new_part_not_measured_holds_the_step_it_goes_in_at(self):
        self.measure_all(self.number, GOOD | {"bushing_bore": 40.25})
        services.decide(self.seen(self.number), changes.Decide(uuid.uuid4(), "bushing_bore", Decided.CHANGE))
        self.steps(self.number, Stage.PREPARE)
        self.build(self.number)
        with self.assertRaises(Refused) as caught:
            self.mark("bushings")
        self.assertIn("changed, but not measured after", " ".join(caught.exception.reasons))
        for station in self.family(self.number).by_key["bushing_bore"].stations:
            last = self.read(self.number, "bushing_bore", station.key, "40.06", phase="left")
        self.mark("bushings")
        self.strike(self.number, "reading", last, "slipped")
        self.assertIsNone(self.step("bushings").by, "its evidence is gone, and so is the step")

    def test_what_somebody_else_found_missing_is_not_overwritten_by_all_is_here(self):
        seen = self.seen(self.number)
        services.say_on_hand(self.seen(self.number, self.lena), changes.SayOnHand(uuid.uuid4(), ["gloves"], here=False))
        with self.assertRaises(Conflict) as caught:
            services.say_on_hand(seen, changes.SayOnHand(uuid.uuid4(), ["gloves", "rags"], here=True))
        self.assertEqual(caught.exception.changes, ["Lena: Missing: gloves"])
        services.say_on_hand(seen, changes.SayOnHand(uuid.uuid4(), ["rags"], here=True))

    def test_a_signature_dated_before_the_work_is_asked_about(self):
        number = self.open("G-1")
        self.read(number, "idler_bore", "front/12–6", "30.05")
        Job.objects.filter(number=number).update(opened_at=timezone.now() - dt.timedelta(days=1))
        before = timezone.now() - dt.timedelta(hours=3)
        version = Job.objects.get(number=number).version
        for act in (
            lambda seen: services.sign_off(seen, changes.Sign(uuid.uuid4(), reason="x")),
            lambda seen: services.abandon(seen, changes.Abandon(uuid.uuid4(), "x")),
        ):
            with self.assertRaisesRegex(Unlikely, "before what was last done"):
                act(services.JobRef(self.lena, number, version, Entry(), before))
        services.abandon(services.JobRef(self.lena, number, version, Entry(meant=True), before), changes.Abandon(uuid.uuid4(), "x"))

    def test_torques_after_one_are_told_by_their_order_not_by_their_clocks(self):
        early = timezone.now() + dt.timedelta(minutes=4)
        ids = [uuid.uuid4(), uuid.uuid4()]
        for n, (key, at) in enumerate(zip(ids, (early, early - dt.timedelta(minutes=3)), strict=True)):
            seen = services.JobRef(self.tom, self.number, Job.objects.get(number=self.number).version, Entry(), at)
            bolts = [1, 3] if n == 0 else [2, 4]
            services.log_torque(seen, changes.LogTorque(key, "head bolts", 1, bolts, "16.8 N.m", "W-1"))
        self.strike(self.number, "torque", ids[0])
        self.assertEqual(TorqueMark.objects.standing().count(), 0)

    def test_a_time_to_come_is_asked_about(self):
        ahead = timezone.now() + dt.timedelta(minutes=6)
        for meant in (False, True):
            seen = services.JobRef(self.tom, self.number, 1, Entry(meant=meant), ahead)
            new = changes.RecordReading(uuid.uuid4(), "idler_bore", "front/12–6", "30.05", "B-1")
            if not meant:
                with self.assertRaisesRegex(Unlikely, "clock of this device is ahead"):
                    services.record_reading(seen, new)
                continue
            services.record_reading(seen, new)
        services.note_run_in(self.seen(self.number), changes.NoteRunIn(uuid.uuid4(), drops="5", box="30 C"))
        with self.assertRaisesRegex(Unlikely, "still to come"):
            services.note_run_in(self.seen(self.number), changes.NoteRunIn(uuid.uuid4(), drops="5", box="30 C", minute="30"))


class PutRight(Undoing):
    pump = "H-1"

    def test_a_try_a_zero_and_what_rests_on_them(self):
        self.set_housing(self.number)
        self.set_housing_again()
        first, second = Try.objects.order_by("number")
        self.strike(self.number, "try", second.id, "the wrong leaf")
        shown = self.view().setting.tries
        self.assertEqual([(t.number, t.struck_reason) for t in shown], [(1, ""), (2, "the wrong leaf")])
        self.assertEqual(self.view().setting.gaps[0].gap, "0.12")
        self.strike(self.number, "zero", ZeroFound.objects.get().id, "the shaft was locked")
        self.assertEqual(Try.objects.standing().count(), 0)
        self.assertFalse(self.view().setting.means.zero_found)
        self.assertIn("with its 1 tries", self.last())
        self.set_housing_again(zero="back off from bind")
        self.assertEqual(self.view().setting.tries[-1].number, 3, "numbers are not used twice")
        with self.assertRaisesRegex(FieldError, "struck out already"):
            self.strike(self.number, "try", first.id)

    def set_housing_again(self, zero=""):
        if zero:
            services.set_zero(self.seen(self.number), changes.SetZero(uuid.uuid4(), zero))
        services.record_try(
            self.seen(self.number), changes.RecordTry(uuid.uuid4(), [feeler("0.14", "0.16")], moved="3 mm", way="open")
        )

    def test_gaskets_go_back_to_the_shelf_with_the_try_that_took_them(self):
        self.number = self.open("G-1")
        before = dict(ShelfLine.objects.values_list("thickness_um", "count"))
        one, two = self.trial([250]), self.trial([100, 50])
        self.strike(self.number, "try", one)
        self.assertEqual(dict(ShelfLine.objects.values_list("thickness_um", "count")), before | {100: 3, 50: 5})
        self.strike(self.number, "try", two)
        self.assertEqual(dict(ShelfLine.objects.values_list("thickness_um", "count")), before)

    def test_a_decision_goes_with_its_pair_and_what_was_measured_as_new(self):
        self.measure_all(self.number, GOOD | {"idler_bore": 30.14, "idler_pin": 29.91})
        services.decide(
            self.seen(self.number),
            changes.Decide(uuid.uuid4(), "idler_clearance", Decided.CHANGE, parts=["idler_bore", "idler_pin"]),
        )
        for station in self.family(self.number).by_key["idler_bore"].stations:
            self.read(self.number, "idler_bore", station.key, "30.03", phase="left")
        self.strike(self.number, "decision", Decision.objects.get(feature="idler_bore").id, "another pump")
        self.assertEqual(Decision.objects.standing().count(), 0)
        self.assertEqual(Reading.objects.standing().filter(phase="left").count(), 0)
        self.assertTrue(all(f.decision is None for f in self.view().features))
        self.assertEqual(len([s for s in self.view().struck if "another pump" in s.reason]), 3)

    def test_a_proof_struck_out_opens_its_step(self):
        number = self.number
        self.measure_all(number)
        self.look_all(number)
        self.together(number)
        self.strike(number, "proof", ProofMark.objects.get(seen="turning").id, "the other shaft")
        self.assertEqual((self.step("free_turn").by, self.step("rotation").by), (None, None))
        self.assertIn("open again: The shaft turns freely", self.last())

    def test_each_asks_for_a_reason_and_knows_its_own_job(self):
        other = self.open("G-1")
        mine = self.read(self.number, "idler_bore", "front/12–6", "30.05")
        for kind, record, reason in (("reading", mine, " "), ("reading", uuid.uuid4(), "x")):
            with self.assertRaises(FieldError):
                self.strike(self.number, kind, record, reason)
        with self.assertRaises(FieldError):
            self.strike(other, "reading", mine, "x")
        self.assertEqual(Reading.objects.standing().count(), 1)

    def test_everything_struck_is_printed_with_its_reason(self):
        self.set_housing(self.number)
        self.strike(self.number, "zero", ZeroFound.objects.get().id, "locked shaft")
        text = " ".join(text_of(plain(self.view())).split())
        self.assertIn("STRUCK OUT, because: its zero was struck out: locked shaft", text)
        self.assertIn("Zero by close to first drag, play 0.000 mm", text)


class GivenUp(Undoing):
    def test_an_abandoned_job_is_kept_marked_and_frees_its_pump_and_shelf(self):
        before = dict(ShelfLine.objects.values_list("thickness_um", "count"))
        self.trial([250])
        with self.assertRaisesRegex(FieldError, "why"):
            services.abandon(self.seen(self.number), changes.Abandon(uuid.uuid4(), " "))
        services.abandon(self.seen(self.number), changes.Abandon(uuid.uuid4(), "opened on the wrong pump"))
        self.assertEqual(dict(ShelfLine.objects.values_list("thickness_um", "count")), before)
        self.assertEqual(self.view().abandoned.reason, "opened on the wrong pump")
        self.assertIn("ABANDONED", text_of(plain(self.view())))
        for act in (lambda: self.trial([250]), lambda: self.mark("isolate"), lambda: self.mark("isolate", self.lena, skip="x")):
            with self.assertRaises(ReadOnly):
                act()
        self.assertEqual({line.ended for line in job_lines(jobs()) if line.number == self.number}, {"abandoned"})
        self.assertIsNone(pump_page("G-1", Units.MM).line.on_bench)
        self.assertNotEqual(self.open("G-1"), self.number)

    def test_a_signed_job_is_not_abandoned(self):
        number = self.finished("H-1")
        services.sign_off(self.seen(number), changes.Sign(uuid.uuid4()))
        with self.assertRaises(ReadOnly):
            services.abandon(self.seen(number), changes.Abandon(uuid.uuid4(), "x"))


class Amended(Undoing):
    pump = "H-1"

    def setUp(self):
        self.number = self.finished("H-1")
        services.sign_off(self.seen(self.number), changes.Sign(uuid.uuid4()))

    def amend(self, what="The seal was FFKM.", reason="read from the box later", actor=None, **more):
        record = more.pop("record", None) or uuid.uuid4()
        services.amend(self.seen(self.number, actor or self.lena), changes.Amend(record, what, reason, **more))

    def pages(self):
        return [page.extract_text() for page in PdfReader(io.BytesIO(report.as_pdf(self.view()))).pages]

    def test_the_signed_pages_stay_as_they_were_and_a_page_is_added(self):
        before, record = self.pages(), SignOff.objects.get().signed_bytes
        self.amend()
        self.amend("And the pin was turned.", "seen in the photograph")
        self.assertEqual(SignOff.objects.get().signed_bytes, record)
        after = self.pages()
        self.assertEqual(after[: len(before)], before)
        self.assertEqual(len(after), len(before) + 2)
        self.assertIn("Amended by Lena", after[-1])
        self.assertIn("amendment 2", after[-1])
        self.assertNotIn("had worked", after[len(before)])

    def test_only_a_lead_with_a_reason_of_a_signed_job(self):
        with self.assertRaisesRegex(Refused, "by a lead"):
            self.amend(actor=self.tom)
        for given in ({"reason": " "}, {"what": " "}, {"belongs_to": "G-1"}, {"void": True, "belongs_to": "H-1"},
                      {"void": True, "belongs_to": "X-9"}, {"what": "x" * 2001}):  # fmt: skip
            with self.subTest(given=given), self.assertRaises(FieldError):
                self.amend(**given)
        number = self.open("G-1")
        with self.assertRaisesRegex(Refused, "Only a signed job"):
            services.amend(self.seen(number, self.lena), changes.Amend(uuid.uuid4(), "x", "x"))
        self.assertEqual(self.view()["amendments"], [])

    def test_a_lead_of_that_leads_own_job_is_marked_so(self):
        first = self.number
        self.number = self.open("H-1")
        self.measure_all(self.number)
        self.look_all(self.number)
        self.together(self.number)
        self.read(self.number, "idler_bore", "front/12–6", "30.06", gauge="OLD")
        services.look_at(self.seen(self.number, self.lena), changes.LookAt(uuid.uuid4(), "bearings", []))
        services.sign_off(self.seen(self.number, self.lena), changes.Sign(uuid.uuid4(), reason="checked on the block"))
        self.assertTrue(self.view()["signed"]["own"])
        self.assertIn("By a lead who had worked on this job", self.pages()[0])
        self.amend()
        self.assertTrue(self.view()["amendments"][0]["own"])
        self.number = first
        self.amend()
        self.assertFalse(self.view()["amendments"][0]["own"])
        self.amend("again", "x")
        self.assertTrue(self.view()["amendments"][1]["own"], "the first amendment was that lead's")

    def test_a_void_record_leaves_the_wear_of_its_pump_and_open_jobs_are_told(self):
        after = self.open("H-1")
        before = next(f for f in job_view(after, Units.MM).features if f.key == "idler_bore")
        self.assertIsNotNone(before.forecast)
        self.measure_all(after)
        note_verdicts(*shown(self.row(after)))
        self.amend("", "the tags were swapped", void=True, belongs_to="G-1")
        self.assertTrue(self.view()["amendments"][0]["void"])
        from finegap.bench.records import load

        self.assertEqual(load(self.row(after)).job_record.past.visits, {})
        self.assertIn("It belongs to G-1", self.pages()[-1])
        with self.assertRaisesRegex(Refused, "void already"):
            self.amend("", "again", void=True)
        self.assertEqual({line.ended for line in job_lines(jobs()) if line.number == self.number}, {"void"})

    def test_the_same_amendment_sent_twice_is_one(self):
        record = uuid.uuid4()
        seen = self.seen(self.number, self.lena)
        for _ in range(2):
            services.amend(seen, changes.Amend(record, "once", "x"))
        with self.assertRaises(Conflict):
            services.amend(seen, changes.Amend(record, "otherwise", "x"))
        self.assertEqual(len(self.view()["amendments"]), 1)


class Pins(Works):
    def test_set_and_changed_by_oneself_with_the_password(self):
        self.tom.set_password("vice")
        self.tom.save()
        for password, pin, said in (("vice", "123", "no PIN"), ("vice", "123456789", "no PIN"), ("vice", "12a4", "no PIN"),
                                    ("vice", "1234", "try first"), ("vice", "7777", "try first"), ("vice", "9876", "try first"),
                                    ("vise", "4825", "password is wrong"), ("vice", "٤٨٢٥", "no PIN")):  # fmt: skip
            with self.subTest(pin=pin), self.assertRaisesRegex(FieldError, said):
                set_pin(self.tom, password, pin)
        check_pin(self.tom, PIN)
        set_pin(self.tom, "vice", "4825")
        check_pin(self.tom, "4825")
        with self.assertRaisesRegex(FieldError, "PIN is wrong"):
            check_pin(self.tom, PIN)
        self.assertNotIn("4825", Pin.objects.get(person=self.tom).hashed)

    def test_wrong_tries_are_limited_and_the_count_outlives_the_refusal(self):
        for _ in range(MOST_WRONG):
            with self.assertRaisesRegex(FieldError, "wrong"):
                check_pin(self.tom, "0000")
        with self.assertRaisesRegex(Refused, "Too many"):
            check_pin(self.tom, PIN)
        Pin.objects.filter(person=self.tom).update(locked_until=timezone.now() - dt.timedelta(seconds=1))
        check_pin(self.tom, PIN)
        self.assertIn("locked", PersonEvent.objects.first().what)

    def test_a_lead_clears_it_and_never_sets_it(self):
        clear_pin(self.lena, "tom")
        with self.assertRaisesRegex(Refused, "no PIN yet"):
            check_pin(self.tom, PIN)
        event = PersonEvent.objects.get()
        self.assertEqual((event.person, event.by, event.what), (self.tom, self.lena, "PIN cleared"))
        with self.assertRaises(FieldError):
            clear_pin(self.lena, "tom")

    def test_it_is_asked_for_at_signature_amendment_and_override(self):
        number = self.finished()
        self.client.force_login(self.tom)

        def post(kind, user, **body):
            self.client.force_login(User.objects.get(username=user))
            how = {"unit": "mm", "mark": "point", "person": user, "at": timezone.now().isoformat()}
            version = Job.objects.get(number=number).version
            given = {"version": version, "id": str(uuid.uuid4())} | how | body
            return self.client.post(f"/api/jobs/{number}/{kind}", json.dumps(given), content_type="application/json")

        mark = StepMark.objects.get(job__number=number, step="guards")
        self.strike(number, "step", mark.id)
        for pin, status in (("", 422), ("9999", 422), (PIN, 200)):
            self.assertEqual(post("steps", "lena", step="guards", skip="taken off", pin=pin).status_code, status, pin)
        self.strike(number, "step", StepMark.objects.standing().get(job__number=number, step="guards").id)
        for step in ("guards", "rotation"):
            self.assertEqual(post("steps", "tom", step=step).status_code, 200, "a step that is its turn asks for none")
        for pin, status in (("", 422), ("9999", 422), (PIN, 200)):
            self.assertEqual(post("signature", "tom", pin=pin).status_code, status, pin)
        for pin, status in (("", 422), (PIN, 200)):
            self.assertEqual(post("amendments", "lena", what="x", reason="y", pin=pin).status_code, status, pin)

    def test_a_lead_sees_everybody_a_technician_only_oneself(self):
        for name, count in (("tom", 0), ("lena", 2)):
            self.client.force_login(User.objects.get(username=name))
            told = self.client.get("/api/people").json()
            self.assertEqual((told["me"]["username"], told["me"]["has_pin"], len(told["people"])), (name, True, count))


class TwoHands(Undoing):
    """Two people on one job."""

    pump = "H-1"

    def test_on_different_parts_and_steps_neither_is_refused(self):
        """Six saves each from the version both saw at first: five of six were refused once."""
        version = Job.objects.get(number=self.number).version
        self.steps(self.number, Stage.PREPARE)
        tom, lena = (services.JobRef(who, self.number, version) for who in (self.tom, self.lena))
        services.record_reading(tom, changes.RecordReading(uuid.uuid4(), "idler_bore", "front/12–6", "30.05", "B-1"))
        services.record_reading(lena, changes.RecordReading(uuid.uuid4(), "bushing_bore", "front/12–6", "40.10", "B-1"))
        services.record_reading(tom, changes.RecordReading(uuid.uuid4(), "idler_pin", "front/loaded side", "29.97", "M-1"))
        services.mark_step(lena, changes.MarkStep(uuid.uuid4(), "match_marks"))
        services.mark_step(tom, changes.MarkStep(uuid.uuid4(), "bolts"))
        services.look_at(lena, changes.LookAt(uuid.uuid4(), "bearings", []))
        services.use_at_bench(tom, changes.UseAtBench("mineral grease"))
        services.set_zero(lena, changes.SetZero(uuid.uuid4(), "close to first drag"))
        services.fit_part(tom, changes.FitPart(uuid.uuid4(), "bearing", "inner_lip", confirmed=True, reason="asked"))

    def test_on_one_the_second_is_told_what_the_first_did(self):
        version = Job.objects.get(number=self.number).version
        tom, lena = (services.JobRef(who, self.number, version) for who in (self.tom, self.lena))
        self.steps(self.number, Stage.PREPARE)
        services.mark_step(self.seen(self.number, self.lena), changes.MarkStep(uuid.uuid4(), "match_marks"))
        services.record_reading(lena, changes.RecordReading(uuid.uuid4(), "idler_bore", "front/12–6", "30.05", "B-1"))
        services.set_zero(lena, changes.SetZero(uuid.uuid4(), "close to first drag"))
        services.fit_part(lena, changes.FitPart(uuid.uuid4(), "bearing", "inner_lip", confirmed=True, reason="asked"))
        for act, said in (
            (lambda: services.mark_step(tom, changes.MarkStep(uuid.uuid4(), "match_marks")), "Lena: Done: Head to casing"),
            (lambda: services.look_at(tom, changes.LookAt(uuid.uuid4(), "idler_bore", [])), "Lena: Idler, bore"),
            (lambda: services.decide(tom, changes.Decide(uuid.uuid4(), "idler_clearance", Decided.KEEP, "x")), "Lena: Idler, bore"),
            (lambda: services.set_zero(tom, changes.SetZero(uuid.uuid4(), "back off from bind")), "Lena: Zero"),
            (
                lambda: services.fit_part(
                    tom, changes.FitPart(uuid.uuid4(), "bearing", "outer_lip", confirmed=True, reason="asked")
                ),
                "Lena: Fitted",
            ),
            (lambda: services.mark_step(tom, changes.MarkStep(uuid.uuid4(), "thrust_built")), "Lena: Fitted"),
        ):
            with self.assertRaises(Conflict) as caught:
                act()
            self.assertTrue(any(line.startswith(said) for line in caught.exception.changes), caught.exception.changes)

    def test_a_try_meets_what_it_takes_apart(self):
        self.number = self.open("G-1")
        version = Job.objects.get(number=self.number).version
        self.built()
        seen = services.JobRef(self.lena, self.number, version)
        with self.assertRaises(Conflict):
            services.record_try(seen, changes.RecordTry(uuid.uuid4(), [feeler("0.11", "0.13")], stacks_um=[[250]], trial=True))

    def test_a_signature_is_of_everything(self):
        number = self.number
        seen = self.seen(number)
        self.read(number, "idler_bore", "front/12–6", "30.05")
        with self.assertRaises(Conflict):
            services.sign_off(seen, changes.Sign(uuid.uuid4()))

    def test_a_page_far_behind_may_change_what_nobody_touched(self):
        seen = services.JobRef(self.tom, self.number, Job.objects.get(number=self.number).version)
        services.look_at(self.seen(self.number, self.lena), changes.LookAt(uuid.uuid4(), "lock_washer", []))
        Job.objects.filter(number=self.number).update(version=600)
        services.look_at(seen, changes.LookAt(uuid.uuid4(), "bearings", []))
        with self.assertRaisesRegex(Conflict, "Somebody else"):
            services.look_at(seen, changes.LookAt(uuid.uuid4(), "lock_washer", []))
        with self.assertRaises(Conflict) as caught:
            services.look_at(services.JobRef(self.tom, self.number, 602), changes.LookAt(uuid.uuid4(), "bearings", []))
        self.assertIn("another database", caught.exception.changes[0])

    def test_the_version_is_a_small_question(self):
        self.client.force_login(self.tom)
        answer = self.client.get(f"/api/jobs/{self.number}/version")
        self.assertEqual(answer.json(), {"version": 1})
        with self.assertNumQueries(5):  # settings of the works, session, person, role, version
            self.client.get(f"/api/jobs/{self.number}/version")
        self.assertEqual(self.client.get("/api/jobs/999/version").status_code, 404)


class Photographs(Works):
    def test_they_are_printed_with_what_they_are_of(self):
        number = self.open()
        new = changes.AttachPhoto(uuid.uuid4(), ContentFile(picture(), "p.jpg"), feature="idler_bore", note="score at 3 o'clock")
        services.attach_photo(self.seen(number), new)
        self.client.force_login(self.tom)
        answer = self.client.get(f"/api/jobs/{number}/report.pdf")
        pages = PdfReader(io.BytesIO(answer.content)).pages
        self.assertEqual(sum(len(page.images) for page in pages), 1)
        self.assertIn("score at 3 o'clock", " ".join(page.extract_text() for page in pages))
