"""Lubrication due over the services, the page and the calendar file."""

import datetime as dt
import json
import uuid

import icalendar
from django.test import Client
from django.utils import timezone

from finegap.bench import services as bench
from finegap.bench.queries import job_view
from finegap.core.errors import FieldError
from finegap.core.showing import Units
from finegap.fleet.models import Lubricated, MeterReading
from finegap.fleet.queries import pump_lines, pump_page
from finegap.fleet.services import NewPump, add_pump, lubricate, read_meter
from finegap.sheets.services import add_revision
from finegap.toolbox.models import Gauge
from tests.apps.base import Works, sheet_data

DUE = [
    {"name": "Gear-case oil", "every_hours": 750, "wet_hours": 500, "with": "gear oil"},
    {"name": "Bearing grease", "every_hours": 750},
]


def add_vane_pump(lead):
    """V-1, a lubricated vane pump whose vanes are seen through a check port, and a depth gauge for it."""
    small = {"resolution": 0.001, "expanded": 0.002, "k": 2, "repeatability": 0.001}
    Gauge.objects.create(tag="D-1", kind="depth gauge", low=0, high=50, calibrated="2000-01-01", due="2999-01-01", **small)
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
    add_revision(lead, json.dumps(data))
    duty = {"viscosity": "50 mm2/s", "temperature": "60 C", "pressure": "1 bar", "speed_r_min": 900.0}
    add_pump(lead, NewPump("V-1", "test", "here", "1", "vane", "cast iron", "air", **duty))


def add_oiled_pump(lead):
    """O-1, in a wet place, with oil and grease by the hours."""
    add_revision(lead, json.dumps(sheet_data(slug="oiled", title="Oiled", lubrication=DUE)))
    duty = {"viscosity": "50 mm2/s", "temperature": "60 C", "pressure": "5 bar", "speed_r_min": 300.0}
    add_pump(lead, NewPump("O-1", "test", "here", "1", "oiled", "cast iron", "oil", wet=True, **duty))


class Due(Works):
    @classmethod
    def setUpTestData(cls):
        super().setUpTestData()
        add_oiled_pump(cls.lena)

    def read_on(self, hours, days_ago):
        day = timezone.localdate() - dt.timedelta(days=days_ago)
        read_meter(self.tom, uuid.uuid4(), "O-1", str(hours), day.isoformat())

    def test_next_dates_from_meter_readings_and_a_calendar_that_other_programs_read(self):
        self.read_on(4000, 70)
        self.read_on(4350, 0)
        lubricate(self.tom, uuid.uuid4(), "O-1", "Gear-case oil", "4000")
        lubricate(self.tom, uuid.uuid4(), "O-1", "Bearing grease", "4000")
        page = pump_page("O-1", Units.MM)
        oil, grease = page.due
        self.assertEqual((oil.name, oil.day), ("Gear-case oil", timezone.localdate() + dt.timedelta(days=30)))
        self.assertEqual(grease.day, timezone.localdate() + dt.timedelta(days=80))
        self.assertEqual(page.rate, "35 h a week")
        client = Client()
        client.force_login(self.tom)
        answered = client.get("/api/pumps/O-1/due.ics")
        self.assertEqual(answered["Content-Type"], "text/calendar")
        events = icalendar.Calendar.from_ical(answered.content).walk("VEVENT")
        self.assertEqual({e.decoded("dtstart") for e in events}, {oil.day, grease.day})
        self.assertIn("O-1", str(events[0]["summary"]))
        self.assertEqual(events[0].walk("VALARM")[0].decoded("trigger"), dt.timedelta(days=-7))
        self.assertEqual(client.get("/api/pumps/none/due.ics").status_code, 404)
        again = icalendar.Calendar.from_ical(client.get("/api/pumps/O-1/due.ics").content).walk("VEVENT")
        self.assertEqual({e["uid"] for e in again}, {e["uid"] for e in events})

    def test_jobs_tell_the_meter_too_and_what_cannot_be_is_refused(self):
        bench.open_job(self.tom, "O-1", "test", "3 900")
        self.assertIn("never recorded", pump_page("O-1", Units.MM).due[0].working.given[0].text)
        self.read_on(4000, 10)
        for hours, days, field in (
            ("", 0, "hours"),
            ("many", 0, "hours"),
            ("3999", 0, "hours"),
            ("4001", 20, "hours"),
            ("4100", -1, "day"),
        ):
            with self.subTest(hours=hours), self.assertRaises(FieldError) as caught:
                self.read_on(hours, days)
            self.assertIn(field, caught.exception.field)
        with self.assertRaises(FieldError):
            read_meter(self.tom, uuid.uuid4(), "O-1", "4100", "yesterday")
        for name, hours in (("Wax", "4000"), ("Bearing grease", "")):
            with self.subTest(name=name), self.assertRaises(FieldError):
                lubricate(self.tom, uuid.uuid4(), "O-1", name, hours)
        with self.assertRaises(FieldError):
            read_meter(self.tom, uuid.uuid4(), "none", "1")
        self.assertEqual((MeterReading.objects.count(), Lubricated.objects.count()), (1, 0))
        same = uuid.uuid4()
        for _ in range(2):
            lubricate(self.tom, same, "O-1", "Bearing grease", "4000")
        self.assertEqual(Lubricated.objects.count(), 1)
        with self.assertRaisesRegex(FieldError, "longer than in a dry place"):
            add_revision(
                self.lena, json.dumps(sheet_data(revision="7", lubrication=[{"name": "Oil", "every_hours": 5, "wet_hours": 9}]))
            )


class WearCheck(Works):
    def test_a_check_through_the_port_is_signed_in_minutes_and_sets_nothing(self):
        add_vane_pump(self.lena)
        number = self.open("V-1")
        self.assertIn("total side gap has not been set", " ".join(b.sentence for b in job_view(number, Units.MM).blockers))
        bench.set_known(self.seen(number), bench.NewKnown(build={"scope": "check"}))
        view = job_view(number, Units.MM)
        self.assertIsNone(view.setting)
        self.assertEqual([f.key for f in view.features], ["port_depth", "port_line"])
        self.assertNotIn("build", {s.stage for s in view.steps})  # the cover stays on: no bolt of the sheet is asked for
        self.read(number, "port_depth", "port", "6.20 mm", gauge="OLD")
        self.look_all(number)
        for step in self.family(number).steps:
            bench.mark_step(self.seen(number), uuid.uuid4(), step.key)
        bench.sign_off(self.seen(number), uuid.uuid4(), is_lead=True, reason="caliper out of date")
        self.assertTrue(next(line for line in pump_lines(Units.MM) if line.tag == "V-1").jobs[0].signed_at)
