"""Nothing lands on another part, unit, person or moment than it was meant for; and nothing changes under a signature unseen."""

import datetime as dt
import json
import uuid

from django.test import Client
from django.utils import timezone

from finegap.api.errors import Conflict, Refused
from finegap.bench import changes, services
from finegap.bench.models import SIGNED, Decision, Job, NewPart, PartFitted, Reading, SignOff, ZeroFound
from finegap.bench.services.news import note_verdicts
from finegap.core.entry import FIELDS, Entry
from finegap.core.errors import Ambiguous, FieldError, Unlikely
from finegap.core.formatting import Units
from finegap.core.job_record import Decided, Phase
from finegap.core.numerals import DecimalMark
from finegap.core.quantities import parse
from finegap.core.units import Dimension
from finegap.inventory.changes import CountPieces, KeepGauge, WeighGun
from finegap.inventory.models import Certificate, Gauge
from finegap.inventory.services import count_pieces, keep_gauge, weigh_gun
from finegap.pumps.changes import AddPump, EditPump
from finegap.pumps.models import Pump
from finegap.pumps.services import edit_pump
from finegap.works.changes import KeepSettings
from finegap.works.models import WorksSettings
from finegap.works.services import keep_settings
from tests.apps.base import GOOD, Works, job_view, pump_page, shown

COMMA = Entry(mark=DecimalMark.COMMA)


class Bench(Works):
    def setUp(self):
        self.number = self.open()

    def view(self, units=Units.MM):
        return job_view(self.number, units)

    def feature(self, key):
        return next(f for f in self.view().features if f.key == key)

    def record(self, typed, entry=None, feature="idler_bore", station="front/12–6", **more):
        new = changes.RecordReading(more.pop("id", uuid.uuid4()), feature, station, typed, more.pop("gauge", "M-1"), **more)
        services.record_reading(self.seen(self.number, entry=entry or Entry()), new)
        return Reading.objects.get(id=new.id)

    def measure_left(self, key, size, **more):
        for station in self.family(self.number).by_key[key].stations:
            self.read(self.number, key, station.key, size, phase="left", **more)


class OneMeaning(Bench):
    """A works states its decimal mark; what has two meanings at the pad is taken only where one of them can be of the part."""

    def test_the_only_size_the_part_can_have_is_taken_and_shown_as_understood(self):
        reading = self.record("30,051")
        self.assertEqual((reading.value_mm, reading.understood), (30.051, "30.051 mm"))
        shown = self.feature("idler_bore").readings[0]
        self.assertEqual((shown.typed, shown.understood), ("30,051 mm", "30.051 mm"))
        self.assertIn("read as 30.051 mm", self.view().log[0].what)

    def test_in_a_works_with_a_comma_it_is_the_other_way_round(self):
        self.assertEqual((self.record("30,051", COMMA).value_mm, self.record("30,051", COMMA).understood), (30.051, ""))
        self.assertEqual(self.record("30.051", COMMA).understood, "30,051 mm")

    def test_without_a_size_to_go_by_it_is_asked(self):
        with self.assertRaises(Ambiguous):
            self.record("41,951", feature="shaft_at_seal", station="12–6")

    def test_a_gauge_whose_own_mark_is_stated_is_never_asked(self):
        Gauge.objects.filter(tag="M-1").update(mark="comma")
        self.assertEqual(self.record("41,951", feature="shaft_at_seal", station="12–6").value_mm, 41.951)

    def test_a_change_of_the_works_mark_alters_nothing_typed_before(self):
        before = self.record("30.051").value_mm
        keep_settings(self.lena, KeepSettings(DecimalMark.COMMA, "10"), Entry())
        self.assertEqual(Reading.objects.get().value_mm, before)
        # a page that was loaded before goes on with the mark it was loaded with
        self.assertEqual((self.record("30.052").value_mm, self.record("30.052").understood), (30.052, ""))
        self.assertEqual(Reading.objects.first().value_mm, before)

    def test_everywhere_else_it_is_asked(self):
        seen = self.seen(self.number)
        asked = {
            "viscosity": lambda: services.set_details(seen, changes.SetDetails(viscosity="5,000 cSt")),
            "speed": lambda: services.set_details(seen, changes.SetDetails(speed="1,750")),
            "pressure": lambda: services.set_details(seen, changes.SetDetails(pressure="1,500 psi")),
            "torque": lambda: services.log_torque(seen, changes.LogTorque(uuid.uuid4(), "lock nut", 1, [1], "1,200 lbf.in", "W-1")),
            "thickness": lambda: count_pieces(self.tom, CountPieces("gasket-pump", "1,250", 1), Entry()),
            "ten strokes": lambda: weigh_gun(self.tom, WeighGun("G-9", "lithium", "9,800"), Entry()),
            "range": lambda: keep_gauge(self.lena, gauge("X-1", high="1,000"), Entry()),
            "leaves": lambda: keep_gauge(self.lena, gauge("F-7", kind="feeler set", leaves="1,500 2,000 um"), Entry()),
            "end play": lambda: services.see(seen, changes.SeeProof(uuid.uuid4(), "end_play", "end-play", "1,125")),
        }
        for field, act in asked.items():
            with self.subTest(field=field), self.assertRaises(Ambiguous) as caught:
                act()
            self.assertEqual(caught.exception.field, field)
        self.assertEqual(Job.objects.get(number=self.number).version, 1)

    def test_the_viscosity_is_read_again_with_the_mark_and_unit_it_was_typed_with(self):
        inch = Entry(Units.IN, DecimalMark.COMMA, meant=True)
        services.set_details(self.seen(self.number, entry=inch), changes.SetDetails(viscosity="68,125 at 104 F; 8,625 at 212 F"))
        first = Job.objects.get(number=self.number)
        services.set_details(self.seen(self.number), changes.SetDetails(temperature="100 C"))
        again = Job.objects.get(number=self.number)
        self.assertAlmostEqual(again.viscosity_mm2_s, 8.625, 6)
        self.assertLess(first.viscosity_mm2_s, 68.125)
        self.assertIsNotNone(self.view().choice)


def gauge(tag, **changes):
    given = {"kind": "outside micrometer", "low": "0", "high": "25", "resolution": "0.001", "expanded": "0.002", "k": "2"} | changes
    return KeepGauge(tag, calibrated=dt.date(2026, 1, 1), due=dt.date(2999, 1, 1), **given)


class BareNumbers(Bench):
    """Every field of every form, in both systems: a bare number is in the unit that stands beside it."""

    KNOWN = {"temperature": "temperature_c", "casing": "casing_c", "start": "start_c", "hot": "hot_c", "pressure": "pressure_bar",
             "speed": "speed_r_min", "density": "density_kg_m3"}  # fmt: skip
    TYPED = {"temperature": "70", "casing": "65", "start": "40", "hot": "80", "pressure": "4", "speed": "320", "density": "870"}
    INCH = {"temperature": "150", "casing": "140", "start": "100", "hot": "170", "pressure": "60", "speed": "320", "density": "870"}

    def test_what_is_known_of_a_job_and_a_pump(self):
        for units, typed in ((Units.MM, self.TYPED), (Units.IN, self.INCH)):
            entry = Entry(units)
            services.set_details(self.seen(self.number, entry=entry), changes.SetDetails(**typed))
            job, pump = Job.objects.get(number=self.number), Pump.objects.get(tag="G-1")
            given = pump_page("G-1", units).entered
            new = AddPump("G-1", "s", "l", "1", given.choices.sheet, given.material, "oil", given.viscosity, **typed)
            edit_pump(self.lena, "G-1", EditPump(**vars(new), version=pump.version), entry)
            pump.refresh_from_db()
            for name, column in self.KNOWN.items():
                expected = parse(typed[name], FIELDS[name].dimension, name, entry.unit(FIELDS[name].dimension)).value
                for row in (job, pump):
                    with self.subTest(field=name, units=units, row=row):
                        self.assertAlmostEqual(getattr(row, column), expected, 6)

    def test_readings_torques_tries_and_what_is_seen(self):
        inch = Entry(Units.IN)
        self.assertAlmostEqual(self.record("1.1835", inch).value_mm, 30.0609, 4)
        warm = self.record("1.1835", inch, part="104", material="steel")
        self.assertAlmostEqual(warm.part_c, 40, 6)
        services.set_zero(self.seen(self.number, entry=inch), changes.SetZero(uuid.uuid4(), "close to first drag", lash="0.002"))
        self.assertAlmostEqual(ZeroFound.objects.get(job__number=self.number).lash_mm, 0.0508, 6)
        for seen, typed, dimension in (("pressure", "60", Dimension.PRESSURE), ("temperature", "150", Dimension.TEMPERATURE),
                                       ("flow", "12", Dimension.FLOW), ("power", "3", Dimension.POWER)):  # fmt: skip
            services.see(self.seen(self.number, entry=inch), changes.SeeProof(uuid.uuid4(), "first_hour", seen, typed))
            kept = Job.objects.get(number=self.number).proofs.get(seen=seen)
            self.assertAlmostEqual(kept.value, parse(typed, dimension, "x", inch.unit(dimension)).value, 6)

    def test_gauges_in_the_unit_of_what_they_read(self):
        for units, unit in ((Units.MM, "N.m"), (Units.IN, "lbf.ft")):
            wrench = keep_gauge(
                self.lena, gauge(f"W-{units.value}", kind="torque wrench", low="20", high="150", resolution="1", expanded="2"),
                Entry(units),
            )  # fmt: skip
            self.assertAlmostEqual(wrench.now.high, parse(f"150 {unit}", Dimension.TORQUE, "x").value, 6)
        cold = keep_gauge(self.lena, gauge("T-1", kind="thermometer", low="32", high="212", resolution="0.9"), Entry(Units.IN))
        self.assertAlmostEqual(cold.now.high, 100)
        self.assertAlmostEqual(cold.now.resolution, 0.5)

    def test_the_settings_tell_the_units_beside_the_fields(self):
        client = Client()
        client.force_login(self.tom)
        told = {one["key"]: one for one in client.get("/api/settings").json()["units"]}
        for field in FIELDS.values():
            signs = told[field.dimension.name.lower()]
            for units, sign in ((Units.MM, signs["mm"]), (Units.IN, signs["inches"]), (Units.THOU, signs["thou"])):
                with self.subTest(field=field.key, units=units):
                    typed, entry = "37.5", Entry(units)
                    shown = parse(f"{typed} {sign}", field.dimension, "x").value
                    self.assertAlmostEqual(entry.quantity(typed, field.dimension, "x").value, shown, 9)


class WithTheKeystroke(Bench):
    """Unit, mark, person and moment are those of the press, whatever is on screen when it arrives."""

    def post(self, path, body, who="tom", unit="mm"):
        client = Client()
        client.force_login(self.tom if who == "tom" else self.lena)
        typed = {"unit": "mm", "mark": "point", "person": "tom", "at": timezone.now().isoformat(), "version": 1}
        return client.post(f"/api/jobs/{self.number}/{path}?unit={unit}", json.dumps(typed | body), content_type="application/json")

    READING = {"feature": "idler_bore", "station": "front/12–6", "gauge": "M-1"}

    def test_a_reading_typed_in_millimetres_is_in_millimetres_after_the_switch(self):
        answer = self.post("readings", self.READING | {"id": str(uuid.uuid4()), "typed": "30.05"}, unit="in")
        self.assertEqual((answer.status_code, Reading.objects.get().value_mm), (200, 30.05))
        self.assertEqual(answer.json()["unit"], "in")

    def test_another_person_in_another_tab_is_refused_and_said(self):
        answer = self.post("readings", self.READING | {"id": str(uuid.uuid4()), "typed": "30.05"}, who="lena")
        self.assertEqual((answer.status_code, answer.json()["code"]), (409, "person"))
        self.assertIn("Lena is signed in now", answer.json()["problem"])
        self.assertEqual(Reading.objects.count(), 0)

    def test_the_moment_and_its_zone_are_those_of_the_act(self):
        at = (timezone.now() + dt.timedelta(seconds=30)).astimezone(dt.timezone(dt.timedelta(hours=5, minutes=30)))
        self.post("readings", self.READING | {"id": str(uuid.uuid4()), "typed": "30.05", "at": at.isoformat()})
        reading = Reading.objects.get()
        self.assertEqual((reading.at, reading.zone_min), (at, 330))
        self.assertEqual(reading.when.isoformat(), at.isoformat())
        self.assertEqual(dt.datetime.fromisoformat(self.view().log[0].at).utcoffset(), dt.timedelta(hours=5, minutes=30))

    def test_a_clock_that_is_wrong_is_asked_about_or_refused(self):
        for at in (timezone.now() + dt.timedelta(minutes=6), timezone.now() - dt.timedelta(days=9)):
            answer = self.post("readings", self.READING | {"id": str(uuid.uuid4()), "typed": "30.05", "at": at.isoformat()})
            self.assertEqual((answer.status_code, answer.json()["field"]), (422, "time"))
        naive = self.post("readings", self.READING | {"id": str(uuid.uuid4()), "typed": "30.05", "at": "2026-11-27T10:00:00"})
        self.assertIn("zone is missing", naive.json()["problem"])

    def test_an_identity_sent_again_with_another_number_is_a_conflict(self):
        same = str(uuid.uuid4())
        self.assertEqual(self.post("readings", self.READING | {"id": same, "typed": "30.05"}).status_code, 200)
        self.assertEqual(self.post("readings", self.READING | {"id": same, "typed": "30.05"}).status_code, 200)
        for other in ({"typed": "30.06"}, {"typed": "30.05", "unit": "in"}, {"typed": "30.05", "station": "back/3–9"}):
            answer = self.post("readings", self.READING | {"id": same} | other)
            self.assertEqual((answer.status_code, answer.json()["code"]), (409, "conflict"), other)
        self.assertEqual(Reading.objects.count(), 1)

    def test_the_whole_log_can_be_read_and_is_in_the_record(self):
        for i in range(60):
            services.say_on_hand(self.seen(self.number), changes.SayOnHand(uuid.uuid4(), [f"tool {i}"], here=True))
        self.assertEqual((len(self.view().log), self.view().log_total), (30, 61))
        self.client.force_login(self.tom)
        at = f"/api/jobs/{self.number}/log"
        lines, page = [], self.client.get(at).json()
        while page:
            self.assertLessEqual(len(page), 50)
            lines += page
            page = self.client.get(f"{at}?before={page[-1]['version']}").json()
        self.assertEqual([line["version"] for line in lines], list(range(61, 0, -1)))
        for wrong in ("x", "-1", "1e99"):
            answer = self.client.get(f"{at}?before={wrong}")
            self.assertEqual((answer.status_code, answer.json().get("field")), (422, "before"), wrong)


class OnThePart(Bench):
    def test_a_clearance_below_zero_is_asked_about_at_once(self):
        self.measure_all(self.number, {"idler_bore": 30.00})
        with self.assertRaisesRegex(Unlikely, "would be -0.001 mm"):
            self.record("30.001", feature="idler_pin", station="front/loaded side")
        self.record("30.001", Entry(meant=True), feature="idler_pin", station="front/loaded side")
        self.assertEqual(self.feature("idler_clearance").judged.verdict, "Measure again")

    def test_one_station_of_four_is_signed_only_with_a_leads_reason_printed_at_that_line(self):
        number = self.number
        self.measure_all(number, {k: v for k, v in GOOD.items() if k != "idler_bore"})
        self.record("30.06")
        self.look_all(number)
        self.together(number)
        idler = self.feature("idler_bore")
        self.assertEqual((idler.partial, idler.judged.verdict, idler.done), ("1 of 4 stations", "Measure again", False))
        stage = next(s for s in self.view().stages if s.key == "inspect")
        self.assertEqual(stage.of - stage.done, 1)
        with self.assertRaises(Refused):
            services.sign_off(self.seen(number), changes.Sign(uuid.uuid4()))
        reason = "the rest cannot be reached"
        services.sign_off(self.seen(number, self.lena), changes.Sign(uuid.uuid4(), reason=reason))
        from tests.apps.test_records import printed, squeezed

        page = printed(job_view(number, Units.MM))
        said = f"Idler, bore: measured at 1 of 4 stations. Signed so by Lena, because: {reason}"
        self.assertIn(squeezed(said), page)
        size = SignOff.objects.get().job.sizes.get(feature="idler_bore")
        self.assertIsNone(size.found_mm, "what was not measured everywhere says nothing of wear")


class PairsAreOneDecision(Bench):
    def setUp(self):
        super().setUp()
        self.measure_all(self.number, GOOD | {"idler_bore": 30.14, "idler_pin": 29.91})

    def decide(self, feature, decided, reason="", parts=()):
        services.decide(self.seen(self.number), changes.Decide(uuid.uuid4(), feature, Decided(decided), reason, parts))

    def decided(self):
        return dict(Decision.objects.standing().values_list("feature", "decided"))

    def test_from_the_pair_one_press_settles_both_parts(self):
        with self.assertRaisesRegex(FieldError, "which of its two is new"):
            self.decide("idler_clearance", "change", "worn")
        self.decide("idler_clearance", "change", parts=["idler_pin"])
        self.assertEqual(self.decided(), {"idler_clearance": "change", "idler_pin": "change", "idler_bore": "keep"})
        self.decide("idler_clearance", "change", parts=["idler_bore", "idler_pin"])
        self.assertEqual(self.decided(), dict.fromkeys(("idler_clearance", "idler_pin", "idler_bore"), "change"))

    def test_no_keep_stands_beside_change_both(self):
        self.decide("idler_clearance", "change", parts=["idler_bore", "idler_pin"])
        self.decide("idler_pin", "keep", "none in store")
        self.assertEqual(Decision.objects.standing().get(feature="idler_clearance").parts, ["idler_bore"])
        self.decide("idler_bore", "keep", "none in store")
        self.assertNotIn("idler_clearance", self.decided())

    def test_the_clearance_left_waits_for_every_new_part(self):
        self.decide("idler_clearance", "change", parts=["idler_bore", "idler_pin"])
        self.measure_left("idler_bore", "30.03")
        pair = self.feature("idler_clearance")
        self.assertIsNone(pair.left)
        self.assertEqual(pair.left_text, "not known: its new parts are not measured after")
        self.measure_left("idler_pin", "29.99")
        self.assertEqual(self.feature("idler_clearance").left.text, "0.040")

    def test_a_part_kept_after_all_takes_its_new_readings_with_it(self):
        self.decide("idler_clearance", "change", parts=["idler_pin"])
        self.measure_left("idler_pin", "29.99")
        self.assertTrue(self.feature("idler_pin").left_text.startswith("new: 29.990"))
        self.decide("idler_pin", "keep", "the new one is cracked")
        pin = self.feature("idler_pin")
        self.assertEqual((pin.left, pin.left_text), (None, "as found"))
        struck = Reading.objects.filter(feature="idler_pin", phase=Phase.LEFT.value)
        self.assertTrue(all("kept after all" in r.struck_reason for r in struck))


class NewParts(Bench):
    def test_not_the_new_part_is_asked_holds_the_step_and_says_so(self):
        self.measure_all(self.number, GOOD | {"bushing_bore": 40.25})
        services.decide(self.seen(self.number), changes.Decide(uuid.uuid4(), "bushing_bore", Decided.CHANGE))
        with self.assertRaisesRegex(Unlikely, "Not the new part"):
            self.measure_left("bushing_bore", "40.15")
        self.measure_left("bushing_bore", "40.15", meant=True)
        self.assertEqual(self.feature("bushing_bore").judged_left.verdict, "Change")
        with self.assertRaises(Refused) as caught:
            services.mark_step(self.seen(self.number), changes.MarkStep(uuid.uuid4(), "bushings"))
        self.assertIn("Not the new part", " ".join(caught.exception.reasons))

    def test_a_gauge_is_told_to_decide_from_the_part_that_is_in(self):
        self.measure_all(self.number, GOOD | {"bushing_bore": 40.25})
        self.assertIn("Measured", self.feature("bushing_bore").fits[0].sentence)
        services.decide(self.seen(self.number), changes.Decide(uuid.uuid4(), "bushing_bore", Decided.CHANGE))
        self.assertNotIn("Measured", self.feature("bushing_bore").fits[0].sentence)
        self.measure_left("bushing_bore", "40.06")
        self.assertIn("Measured", self.feature("bushing_bore").fits[0].sentence)

    def test_the_lock_washer_is_new_by_the_stack_it_went_in_with(self):
        self.assertEqual(self.feature("lock_washer").left_text, "new part NOT CONFIRMED")
        self.build(self.number)
        self.assertRegex(self.feature("lock_washer").left_text, r"^new, Tom, ")
        self.strike(self.number, "part", PartFitted.objects.get(part="lock_washer").id)
        self.assertEqual(self.feature("lock_washer").left_text, "new part NOT CONFIRMED")
        services.fit_part(
            self.seen(self.number),
            changes.FitPart(uuid.uuid4(), "bearing", "lock_washer", confirmed=True, reused=True, reason="none in store"),
        )
        self.assertEqual(self.feature("lock_washer").left_text, "used again: none in store, Tom")
        self.assertIn("lock_washer", {b.feature for b in self.view().blockers})

    def test_confirmed_and_taken_back_again(self):
        services.look_at(self.seen(self.number), changes.LookAt(uuid.uuid4(), "bearings", ["rough"]))
        services.decide(self.seen(self.number), changes.Decide(uuid.uuid4(), "bearings", Decided.CHANGE))
        services.confirm_new(self.seen(self.number), changes.ConfirmNew(uuid.uuid4(), "bearings"))
        self.strike(self.number, "new part", NewPart.objects.get().id, "the wrong bearing")
        self.assertEqual(NewPart.objects.standing().count(), 0)
        self.assertIn("the wrong bearing: new part in", self.view().log[0].what)


class Certificates(Bench):
    """A reading keeps the certificate it was taken under."""

    def test_a_new_certificate_changes_no_verdict_of_what_was_measured(self):
        self.measure_all(self.number, {"idler_bore": 30.145})
        before = self.feature("idler_bore")
        wide = gauge("M-1", low="25", high="50", expanded="0.05", certificate="worse")
        keep_gauge(self.lena, wide, Entry(), replacing="M-1")
        after = self.feature("idler_bore")
        self.assertEqual((after.judged, after.found), (before.judged, before.found))
        self.assertEqual(Certificate.objects.filter(gauge__tag="M-1").count(), 2)
        self.record("30.145")
        self.assertNotEqual(self.feature("idler_bore").found.expanded_text, before.found.expanded_text)
        used = [(g.tag, g.certificate) for g in self.view().used_gauges]
        self.assertEqual(used, [("M-1", ""), ("M-1", "worse")])

    def test_a_gauge_that_has_measured_keeps_its_kind(self):
        self.record("30.05")
        other = gauge("M-1", kind="caliper", low="25", high="50")
        with self.assertRaisesRegex(FieldError, "has measured as a outside micrometer"):
            keep_gauge(self.lena, other, Entry(), replacing="M-1")
        keep_gauge(self.lena, gauge("B-1", kind="caliper", low="18", high="50"), Entry(), replacing="B-1")


class Meanwhile(Bench):
    """A verdict that changes by anything but an act at the bench is said before it can be signed."""

    def setUp(self):
        self.number = self.finished()
        self.show()

    def show(self):
        note_verdicts(*shown(self.row(self.number)))

    def change_core(self):
        """As if another core judged the idler otherwise."""
        job = Job.objects.get(number=self.number)
        job.verdicts = job.verdicts | {"Idler, bore": "Watch"}
        job.outside = job.outside | {"core": "0.0.1"}
        job.save()

    def test_it_is_told_with_its_cause_and_blocks_until_read(self):
        self.assertEqual(self.view().meanwhile, [])
        self.change_core()
        told = self.view().meanwhile
        self.assertEqual(len(told), 1)
        self.assertIn("Idler, bore: Watch before, Keep now. Since then changed: the rules of Fine Gap.", told[0])
        with self.assertRaisesRegex(Refused, "Verdicts have changed"):
            services.sign_off(self.seen(self.number, self.lena), changes.Sign(uuid.uuid4(), reason="x"))
        services.read_meanwhile(self.seen(self.number), changes.ReadMeanwhile())
        self.assertEqual(self.view().meanwhile, [])
        services.sign_off(self.seen(self.number), changes.Sign(uuid.uuid4()))

    def test_an_act_does_not_swallow_it(self):
        self.change_core()
        services.say_on_hand(self.seen(self.number), changes.SayOnHand(uuid.uuid4(), ["gloves"], here=True))
        self.show()
        self.assertIn("Watch before", self.view().meanwhile[0])
        services.read_meanwhile(self.seen(self.number), changes.ReadMeanwhile())
        self.assertIn("Read: Idler, bore", self.view().log[0].what)

    def test_the_interval_between_overhauls_is_outside_too(self):
        Pump.objects.filter(tag="H-1").update(overhaul_every_h=400_000)
        told = self.view().meanwhile
        self.assertTrue(told and all("the interval between overhauls" in one for one in told), told)

    def test_the_technicians_own_act_is_no_news(self):
        self.read(self.number, "idler_bore", "front/12–6", "30.19", meant=True)
        self.show()
        self.assertEqual(self.view().meanwhile, [])

    def test_the_share_of_the_works_is_kept_as_a_share(self):
        keep_settings(self.lena, KeepSettings(DecimalMark.POINT, "25 %"), Entry())
        self.assertEqual(WorksSettings.objects.get().new_share, 0.25)
        for wrong in ("0", "101", "much"):
            with self.assertRaises(FieldError):
                keep_settings(self.lena, KeepSettings(DecimalMark.POINT, wrong), Entry())


class Slips(Bench):
    def test_an_old_meters_last_reading_below_the_record_is_refused(self):
        first = self.number
        services.set_details(self.seen(first), changes.SetDetails(hours_run="5 000"))
        Job.objects.filter(number=first).update(opened_at=timezone.now() - dt.timedelta(days=300))
        job = Job.objects.get(number=first)
        SignOff.objects.create(id=uuid.uuid4(), job=job, by=self.tom, at=timezone.now(), document=b"", core_version="x")
        job.end(SIGNED)
        second = services.open_job(self.tom, changes.OpenJob("H-1", "again", "")).number
        for known in ({"hours_run": "4 999"}, {"hours_run": "100", "old_meter_last": "4 999"}):
            with self.subTest(known=known), self.assertRaises(FieldError):
                services.set_details(self.seen(second), changes.SetDetails(**known))
        services.set_details(self.seen(second), changes.SetDetails(hours_run="100", old_meter_last="5 400"))
        with self.assertRaises(Conflict):
            services.set_details(services.JobRef(self.lena, second, 1), changes.SetDetails(hours_run="120"))
