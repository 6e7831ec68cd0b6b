"""Lubrication due over the services, the page and the calendar file."""

import contextlib
import datetime as dt
import json
import uuid
from dataclasses import replace

import icalendar
from django.test import Client
from django.utils import timezone

from finegap.api.errors import Conflict
from finegap.bench import changes
from finegap.bench import services as bench
from finegap.bench.models import Job
from finegap.bench.records import load
from finegap.bench.services.news import note_verdicts
from finegap.core.entry import Entry
from finegap.core.errors import FieldError, Unlikely
from finegap.core.formatting import Units
from finegap.core.numerals import DecimalMark
from finegap.inventory.models import Gauge
from finegap.pumps.changes import AddEarlier, AddPump, EarlierPart, EditPump, Lubricate, MovePump, ReadMeter, Strike
from finegap.pumps.history import add_earlier, move_pump
from finegap.pumps.models import EarlierOverhaul, Lubricated, MeterReading, Pump
from finegap.pumps.services import add_pump, edit_pump, lubricate, read_meter, strike
from finegap.sheets.changes import SheetFile
from tests.apps.base import Works, add_revision, job_view, overhauls, pump_page, sheet_data, shown

DUE = [
    {"name": "Gear-case oil", "every_hours": 750, "wet_hours": 500, "with": "gear oil"},
    {"name": "Bearing grease", "every_hours": 750},
]


def add_vane_pump(lead):
    """V-1, a lubricated vane pump whose vanes are seen through a check port, and a depth gauge for it."""
    small = {"resolution": 0.001, "expanded": 0.002, "k": 2, "repeatability": 0.001}
    Gauge.objects.put("D-1", "depth gauge", low=0, high=50, calibrated="2000-01-01", due="2999-01-01", **small)
    data = sheet_data(
        slug="vane",
        title="Vane",
        family="sliding_vane",
        features={"port_depth": {"new": ["1.0 mm", "2.0 mm"], "maximum": "9.0 mm"}, "side_gap": {"new": ["0.1 mm", "0.3 mm"]}},
        details={},
        build={"service": "lubricated"},
        adjustment={"means": "gaskets", "thicknesses": ["0.1 mm"], "starting_gasket": "0.1 mm"},
        torques=[{"fastener": "Cover bolts", "torque": ["20 N.m", "24 N.m"], "condition": "dry"}],
    )
    data.pop("heat")
    add_revision(lead, SheetFile(json.dumps(data)))
    duty = {"viscosity": "50 mm2/s", "temperature": "60 C", "pressure": "1 bar", "speed": "900"}
    add_pump(lead, AddPump("V-1", "test", "here", "1", "vane", "cast iron", "air", **duty), Entry())


def add_oiled_pump(lead):
    """O-1, in a wet place, with oil and grease by the hours."""
    add_revision(lead, SheetFile(json.dumps(sheet_data(slug="oiled", title="Oiled", lubrication=DUE))))
    duty = {"viscosity": "50 mm2/s", "temperature": "60 C", "pressure": "5 bar", "speed": "300"}
    add_pump(lead, AddPump("O-1", "test", "here", "1", "oiled", "cast iron", "oil", wet=True, **duty), Entry())


class Due(Works):
    @classmethod
    def setUpTestData(cls):
        super().setUpTestData()
        add_oiled_pump(cls.lena)

    def read_on(self, hours, days_ago):
        day = timezone.localdate() - dt.timedelta(days=days_ago)
        read_meter(self.tom, "O-1", ReadMeter(uuid.uuid4(), str(hours), day.isoformat()), Entry())

    def test_next_dates_from_meter_readings_and_a_calendar_that_other_programs_read(self):
        self.read_on(4000, 70)
        self.read_on(4350, 0)
        lubricate(self.tom, "O-1", Lubricate(uuid.uuid4(), "Gear-case oil", "4000"), Entry())
        lubricate(self.tom, "O-1", Lubricate(uuid.uuid4(), "Bearing grease", "4000"), Entry())
        page = pump_page("O-1", Units.MM)
        oil, grease = page.due
        self.assertEqual((oil.name, oil.day), ("Gear-case oil", (timezone.localdate() + dt.timedelta(days=30)).isoformat()))
        self.assertEqual(grease.day, (timezone.localdate() + dt.timedelta(days=80)).isoformat())
        self.assertEqual(page.rate, "35 h a week")
        client = Client()
        client.force_login(self.tom)
        answered = client.get("/api/pumps/O-1/due.ics")
        self.assertEqual(answered["Content-Type"], "text/calendar")
        events = icalendar.Calendar.from_ical(answered.content).walk("VEVENT")
        self.assertEqual({e.decoded("dtstart").isoformat() for e in events}, {oil.day, grease.day})
        self.assertIn("O-1", str(events[0]["summary"]))
        self.assertEqual(events[0].walk("VALARM")[0].decoded("trigger"), dt.timedelta(days=-7))
        self.assertEqual(client.get("/api/pumps/none/due.ics").status_code, 404)
        again = icalendar.Calendar.from_ical(client.get("/api/pumps/O-1/due.ics").content).walk("VEVENT")
        self.assertEqual({e["uid"] for e in again}, {e["uid"] for e in events})

    def test_jobs_tell_the_meter_too_and_what_cannot_be_is_refused(self):
        bench.open_job(self.tom, changes.OpenJob("O-1", "test", "4 000"))
        self.assertIn("never recorded", pump_page("O-1", Units.MM).due[0].working.given[0].text)
        self.read_on(3990, 10)
        for hours, days, field in (
            ("", 0, "hours"),
            ("many", 0, "hours"),
            ("3999", 0, "hours"),
            ("3991", 20, "hours"),
            ("4100", -1, "day"),
            ("40000", 0, "hours"),
        ):
            with self.subTest(hours=hours), self.assertRaises(FieldError) as caught:
                self.read_on(hours, days)
            self.assertIn(field, caught.exception.field)
        with self.assertRaises(FieldError):
            read_meter(self.tom, "O-1", ReadMeter(uuid.uuid4(), "4100", "yesterday"), Entry())
        for name, hours in (("Wax", "4000"), ("Bearing grease", "")):
            with self.subTest(name=name), self.assertRaises(FieldError):
                lubricate(self.tom, "O-1", Lubricate(uuid.uuid4(), name, hours), Entry())
        with self.assertRaises(FieldError):
            read_meter(self.tom, "none", ReadMeter(uuid.uuid4(), "1"), Entry())
        self.assertEqual((MeterReading.objects.count(), Lubricated.objects.count()), (1, 0))
        same = uuid.uuid4()
        for _ in range(2):
            lubricate(self.tom, "O-1", Lubricate(same, "Bearing grease", "4000"), Entry())
        self.assertEqual(Lubricated.objects.count(), 1)
        with self.assertRaisesRegex(FieldError, "longer than in a dry place"):
            add_revision(
                self.lena,
                SheetFile(json.dumps(sheet_data(revision="7", lubrication=[{"name": "Oil", "every_hours": 5, "wet_hours": 9}]))),
            )


class Slips(Works):
    """A slip of the clerk can be mended: struck out, or said of a meter that was replaced, where it was refused."""

    @classmethod
    def setUpTestData(cls):
        super().setUpTestData()
        add_oiled_pump(cls.lena)

    def read(self, hours, days_ago=0, entry=None, record=None, **more):
        day = timezone.localdate() - dt.timedelta(days=days_ago)
        new = ReadMeter(record or uuid.uuid4(), str(hours), day.isoformat(), **more)
        read_meter(self.tom, "O-1", new, entry or Entry())
        return new.id

    def test_a_digit_too_many_is_asked_about_and_once_struck_blocks_nothing(self):
        self.read(4000, 70)
        with self.assertRaisesRegex(Unlikely, "digit too many"):
            self.read(43500, 10)
        wrong = self.read(43500, 10, Entry(meant=True))
        with self.assertRaisesRegex(FieldError, "43500 h were read"):
            self.read(4350)
        with self.assertRaisesRegex(FieldError, "say why"):
            strike(self.tom, "O-1", Strike(wrong, " "))
        strike(self.tom, "O-1", Strike(wrong, "a digit too many"))
        self.read(4350)
        page = pump_page("O-1", Units.MM)
        self.assertEqual([(m.hours, m.struck_reason) for m in page.meter], [(4350, ""), (43500, "a digit too many"), (4000, "")])
        self.assertEqual(page.rate, "35 h a week")
        with self.assertRaisesRegex(FieldError, "struck out already"):
            strike(self.tom, "O-1", Strike(wrong, "again"))

    def test_a_replaced_meter_is_said_where_it_was_refused_and_hours_go_on(self):
        self.read(4000, 70)
        lubricate(self.tom, "O-1", Lubricate(uuid.uuid4(), "Gear-case oil", "4000"), Entry())
        with self.assertRaisesRegex(FieldError, "meter was replaced"):
            self.read(150)
        for wrong in ({"old_last": "3999"}, {"old_last": "4200", "new_first": "151"}):
            with self.assertRaises(FieldError):
                self.read(150, **wrong)
        self.read(150, old_last="4200")
        page = pump_page("O-1", Units.MM)
        self.assertEqual((page.rate, page.meter[0].replaced[:14]), ("35 h a week", "meter replaced"))
        oil = next(one for one in page.due if one.name == "Gear-case oil")
        self.assertIn("in 150", oil.sentence)  # 200 h on the old meter, 150 on the new, of 500

    def test_the_same_identity_with_another_number_is_a_conflict(self):
        same = self.read(4000, 70)
        self.read(4000, 70, record=same)
        with self.assertRaises(Conflict):
            self.read(4001, 70, record=same)
        done = uuid.uuid4()
        for hours, error in (("4000", None), ("4000", None), ("4010", Conflict)):
            with self.assertRaises(error) if error else contextlib.nullcontext():
                lubricate(self.tom, "O-1", Lubricate(done, "Bearing grease", hours), Entry())
        strike(self.tom, "O-1", Strike(done, "the other pump"))
        self.assertIn("never recorded", pump_page("O-1", Units.MM).due[-1].working.given[0].text)

    def test_a_viscosity_that_is_a_guess_is_asked_about(self):
        """Half of what lies between the two points is followed outside them: 40 and 100 C from 10 C on."""
        page = pump_page("O-1", Units.MM).entered
        new = AddPump(
            "O-1", "test", "here", "1", page.choices.sheet, page.material, page.liquid, "100 cSt at 40 ℃; 11 cSt at 100 °C", "60 C",
            "5 bar", "300", start="9 C", overhaul_every="4000",
        )  # fmt: skip
        with self.assertRaisesRegex(Unlikely, "At 9 °C its viscosity is a guess"):
            edit_pump(self.lena, "O-1", EditPump(**vars(new), version=page.version), Entry())
        self.assertEqual(pump_page("O-1", Units.MM).entered.version, page.version)
        edit_pump(self.lena, "O-1", EditPump(**vars(replace(new, start="10 C")), version=page.version), Entry())
        edit_pump(self.lena, "O-1", EditPump(**vars(new), version=page.version + 1), Entry(meant=True))

    def test_a_pump_is_put_right_and_its_open_job_keeps_its_duty(self):
        number = bench.open_job(self.tom, changes.OpenJob("O-1", "test", "4000")).number
        page = pump_page("O-1", Units.MM).entered
        new = AddPump(
            "O-2", "moved", "there", "9", page.choices.sheet, page.material, page.liquid, page.viscosity, "95", "100 psi",
            "320 rpm",
            start=page.start, overhaul_every="4,000", hours_per_week="40",
        )  # fmt: skip
        edit_pump(self.lena, "O-1", EditPump(**vars(new), version=page.version), Entry(Units.IN))
        pump = Pump.objects.get(tag="O-2")
        self.assertEqual((round(pump.temperature_c, 3), pump.overhaul_every_h, pump.viscosity_mm2_s), (35, 4000, 50))
        self.assertEqual(job_view(number, Units.MM).duty.temperature, "60 °C")
        with self.assertRaises(Conflict):
            edit_pump(self.lena, "O-2", EditPump(**vars(new), version=page.version), Entry())
        for change, error in (
            ({"tag": "H-1"}, "taken"),
            ({"tag": "a/b"}, "cannot stand"),
            ({"sheet": "test-pump"}, "on the bench"),
        ):
            with self.subTest(change=change), self.assertRaisesRegex(FieldError, error):
                edit_pump(self.lena, "O-2", EditPump(**vars(replace(new, **change)), version=page.version + 1), Entry(Units.IN))

    def test_what_was_typed_with_another_mark_is_not_read_again(self):
        page = pump_page("O-1", Units.MM).entered
        comma = Entry(mark=DecimalMark.COMMA)
        points = "60,125 mm2/s at 40 C; 8,125 mm2/s at 100 C"
        new = AddPump("O-1", "s", "l", "1", page.choices.sheet, page.material, page.liquid, points, "40", "5", "300")
        edit_pump(self.lena, "O-1", EditPump(**vars(new), version=page.version), comma)
        edit_pump(self.lena, "O-1", EditPump(**vars(replace(new, temperature="50")), version=page.version + 1), Entry())
        self.assertLess(Pump.objects.get(tag="O-1").viscosity_mm2_s, 60.125)
        number = bench.open_job(self.tom, changes.OpenJob("O-1", "test", "")).number
        bench.set_details(self.seen(number), changes.SetDetails(temperature="100 C"))
        self.assertAlmostEqual(Job.objects.get(number=number).viscosity_mm2_s, 8.125, 6)


class WearCheck(Works):
    def test_a_check_through_the_port_is_signed_in_minutes_and_sets_nothing(self):
        add_vane_pump(self.lena)
        number = self.open("V-1")
        self.assertIn("total side gap has not been set", " ".join(b.sentence for b in job_view(number, Units.MM).blockers))
        bench.set_details(self.seen(number), changes.SetDetails(build={"scope": "check"}))
        view = job_view(number, Units.MM)
        self.assertIsNone(view.setting)
        self.assertEqual([f.key for f in view.features], ["port_depth", "port_line"])
        self.assertNotIn("build", {s.stage for s in view.steps})  # the cover stays on: no bolt of the sheet is asked for
        self.read(number, "port_depth", "port", "6.20 mm", gauge="OLD")
        self.look_all(number)
        for step in self.family(number).steps:
            bench.mark_step(self.seen(number), changes.MarkStep(uuid.uuid4(), step.key))
        bench.sign_off(self.seen(number, self.lena), changes.Sign(uuid.uuid4(), reason="caliper out of date"))
        self.assertTrue(overhauls("V-1", Units.MM)[0].signed_at)


class BeforeThisRecord(Works):
    """A pump has a life before its first job here: overhauls from the works' own books, and other places."""

    def enter(self, day="2020-05-04", hours="4000", entry=None, record=None, **parts):
        given = [EarlierPart(key, *sizes) for key, sizes in (parts or {"idler_pin": ("29.95", "29.99", True)}).items()]
        new = AddEarlier(record or uuid.uuid4(), day, hours, "5 bar", "300", "green book, page 7", given)
        add_earlier(self.lena, "H-1", new, entry or Entry())
        return new.id

    def lives(self, number):
        record = load(self.row(number)).assessment
        return next(state for state in record.features if state.feature.key == "idler_pin").lives

    def test_wear_begins_with_it_by_hand_sums(self):
        """New pin 29.98 to 30.00 mm, so 29.99 at 0 h; 29.95 found at 4,000 h, renewed; 29.96 found at 6,500 h is 2,500 h later."""
        self.enter()
        self.enter("2022-05-04", "6 500", idler_pin=("29.96", "", False))
        number = bench.open_job(self.tom, changes.OpenJob("H-1", "test", "9000")).number
        first, second = self.lives(number)
        self.assertEqual([(p.hours, round(p.size.value_mm, 3)) for p in first.points], [(0.0, 29.99), (4000.0, 29.95)])
        self.assertEqual([(p.hours, round(p.size.value_mm, 3)) for p in second.points], [(0.0, 29.99), (2500.0, 29.96)])
        self.assertTrue(first.ended and not second.ended)
        # The last digit of 29.95 is worth 0.01 mm; a rectangle of that half width has 0.01/sqrt(3) (JCGM 100:2008, 4.3.7).
        self.assertAlmostEqual(first.points[1].size.u_mm, 0.01 / 3**0.5)

    def test_what_cannot_be_is_refused_and_nothing_kept(self):
        self.enter("2022-05-04", "6500")
        for day, hours, parts, says in (
            ("2020-05-04", "7000", {}, "after that day"),
            ("2023-05-04", "6000", {}, "before that day"),
            ("2022-05-04", "6500", {}, "already"),
            ("2999-01-01", "7000", {}, "still to come"),
            ("4 May", "4000", {}, "not a day"),
            ("2020-05-04", "", {}, "nothing was entered"),
            ("2020-05-04", "4000", {"idler_pin": ("", "", False)}, "nothing is said"),
            ("2020-05-04", "4000", {"bearings": ("1", "", False)}, "has no"),
            ("2020-05-04", "4000", {"idler_pin": ("thin", "", False)}, "not a number"),
        ):
            with self.subTest(day=day, hours=hours), self.assertRaisesRegex(FieldError, says):
                self.enter(day, hours, **parts)
        with self.assertRaises(Unlikely):
            self.enter(idler_pin=("2.995", "", False))
        self.open()
        with self.assertRaisesRegex(FieldError, "was opened before"):
            self.enter(timezone.localdate().isoformat(), "9000")
        self.assertEqual(EarlierOverhaul.objects.count(), 1)

    def test_a_double_press_is_one_and_a_slip_is_struck_out_everywhere(self):
        same = uuid.uuid4()
        for _ in range(2):
            self.enter(record=same)
        with self.assertRaises(Conflict):
            self.enter(record=same, hours="4100")
        number = bench.open_job(self.tom, changes.OpenJob("H-1", "test", "9000")).number
        self.assertEqual(len(self.lives(number)), 2)
        note_verdicts(*shown(self.row(number)))
        strike(self.lena, "H-1", Strike(same, "another pump's page"))
        self.assertEqual(len(self.lives(number)), 1)
        self.assertEqual(pump_page("H-1", Units.MM).earlier[0].struck_reason, "another pump's page")

    def test_where_it_was_stays_on_record(self):
        move_pump(self.lena, "H-1", MovePump(uuid.uuid4(), "boiler house", note="swapped with P-2"), Entry())
        with self.assertRaisesRegex(FieldError, "is at boiler house already"):
            move_pump(self.lena, "H-1", MovePump(uuid.uuid4(), "boiler house"), Entry())
        with self.assertRaisesRegex(FieldError, "later than that"):
            move_pump(self.lena, "H-1", MovePump(uuid.uuid4(), "yard", "2001-01-01"), Entry())
        page = pump_page("H-1", Units.MM)
        self.assertEqual(page.line.location, "boiler house")
        self.assertEqual([(one.was, one.to, one.note) for one in page.moves], [("here", "boiler house", "swapped with P-2")])
