"""What falls due: kept beside the records, made anew whenever they change, whichever way; lists, ribbon, files, feed."""

import csv
import datetime as dt
import io
import json
import uuid
from unittest import mock

import vobject
from django.db import OperationalError, connection, transaction
from django.utils import timezone
from pypdf import PdfReader

from finegap.api.errors import Refused
from finegap.bench import changes, services
from finegap.bench.models import Amendment, Job, SizeOnRecord
from finegap.core.entry import Entry
from finegap.core.formatting import Units
from finegap.core.wear.lives import Instead
from finegap.due import services as due
from finegap.due.models import DueLine, Stale, Standing
from finegap.due.services import catch_up
from finegap.due.stale import mark_unknown
from finegap.inventory.models import Certificate, Gauge
from finegap.pumps.changes import AddEarlier, AddPump, EarlierPart, Lubricate, MovePart, MovePump, ReadMeter, Strike
from finegap.pumps.history import add_earlier, move_pump
from finegap.pumps.models import EarlierSize, MeterReading, Pump
from finegap.pumps.parts import move_part
from finegap.pumps.services import add_pump, lubricate, read_meter, retire_pump, strike
from finegap.sheets.changes import SheetFile
from finegap.sheets.models import SheetRevision
from tests.apps.base import Asking, add_revision, pump_lines, pump_page, sheet_data
from tests.apps.test_fleet import add_oiled_pump

CATALOGUE = {
    "currency": "EUR",
    "parts": [{"number": "T1-42", "name": "Gasket", "price": 1.0, "lead_days": 21, "always": True}],
}


class Fleet(Asking):
    """O-1 beside H-1 and G-1: oil and grease every 500 and 750 h, overhauled every 1,000 h, a gasket 21 days away."""

    @classmethod
    def setUpTestData(cls):
        super().setUpTestData()
        add_oiled_pump(cls.lena)
        data = sheet_data(slug="oiled", title="Oiled", revision="2", date="2024-06-01", catalogue=CATALOGUE)
        data["lubrication"] = [{"name": "Gear-case oil", "every_hours": 750, "wet_hours": 500}]
        add_revision(cls.lena, SheetFile(json.dumps(data)))
        Pump.objects.filter(tag="O-1").update(overhaul_every_h=1000)
        catch_up(100, 60)

    def read_on(self, hours, days_ago, tag="O-1"):
        day = timezone.localdate() - dt.timedelta(days=days_ago)
        new = ReadMeter(uuid.uuid4(), str(hours), day.isoformat())
        read_meter(self.tom, tag, new, Entry(meant=True))
        return new.id

    def get(self, address, status=200):
        return super().get(address, status).json()

    def stale(self):
        return set(Stale.objects.filter(pump__isnull=False).values_list("pump__tag", flat=True))


class Kept(Fleet):
    def test_whatever_changes_a_pump_marks_it_and_it_is_worked_out_anew(self):
        """By services, ``update()``, ``bulk_create()`` and raw rows; each is tried alone, with nothing marked before it."""
        number = services.open_job(self.tom, changes.OpenJob("H-1", "test", "900")).number
        overhaul = uuid.uuid4()
        earlier = AddEarlier(overhaul, "2020-05-04", "400", "5 bar", "300", "book", [EarlierPart("idler_pin", "29.95", "", False)])
        record = SheetRevision.objects.get(sheet__slug="gasket-pump")
        acts = {
            "a meter read": (lambda: self.read_on(1000, 3), {"O-1"}),
            "a reading struck out": (lambda: MeterReading.objects.update(struck_reason="slip", struck_by=self.tom), {"O-1"}),
            "oil": (
                lambda: lubricate(self.tom, "O-1", Lubricate(uuid.uuid4(), "Gear-case oil", "900"), Entry(meant=True)),
                {"O-1"},
            ),
            "an earlier overhaul": (lambda: add_earlier(self.lena, "G-1", earlier, Entry()), {"G-1"}),
            "its size": (lambda: EarlierSize.objects.update(found_mm=29.9), {"G-1"}),
            "hours of a job": (lambda: Job.objects.filter(number=number).update(hours_run=950), {"H-1"}),
            "sizes of a signature": (
                lambda: SizeOnRecord.objects.bulk_create(
                    [SizeOnRecord(job=self.row(number), feature="idler_pin", found_mm=29.9, found_u_mm=0.001, changed=False)]
                ),
                {"H-1"},
            ),
            "its end": (lambda: self.row(number).end("signed"), {"H-1"}),
            "an amendment": (
                lambda: Amendment.objects.create(
                    id=uuid.uuid4(),
                    job=self.row(number),
                    number=1,
                    what="x",
                    reason="y",
                    void=True,
                    by=self.lena,
                    at=timezone.now(),
                ),
                {"H-1"},
            ),
            "a place": (lambda: move_pump(self.lena, "G-1", MovePump(uuid.uuid4(), "yard"), Entry()), {"G-1"}),
            "a sheet": (
                lambda: SheetRevision.objects.filter(pk=record.pk).update(content=record.content | {"title": "x"}),
                {"G-1"},
            ),
            "retired": (lambda: retire_pump(self.lena, "H-1", True), {"H-1"}),
        }
        for name, (act, tags) in acts.items():
            with self.subTest(name):
                catch_up(100, 60)
                act()
                self.assertEqual(self.stale(), tags)
        self.assertEqual(catch_up(100, 60), 0)

    def test_what_changes_nothing_of_how_a_pump_stands_marks_none(self):
        number = services.open_job(self.tom, changes.OpenJob("H-1", "test", "900")).number
        catch_up(100, 60)
        self.read(number, "idler_pin", self.family(number).by_key["idler_pin"].stations[0].key, "29.95 mm")
        self.look_all(number)
        self.assertEqual(self.stale(), set())

    def test_a_pump_that_is_deleted_with_all_it_has_leaves_no_mark(self):
        self.read_on(1000, 3)
        Pump.objects.filter(tag="O-1").delete()
        self.assertFalse(Stale.objects.filter(pump__isnull=False).exists())
        connection.check_constraints()

    def test_a_change_that_is_rolled_back_marks_nothing(self):
        with self.assertRaises(ZeroDivisionError), transaction.atomic():
            Pump.objects.update(location="elsewhere")
            raise ZeroDivisionError
        self.assertFalse(Stale.objects.exists())

    def test_a_part_that_moved_passes_a_change_on_to_the_pump_that_has_it(self):
        add_pump(self.lena, self.twin("H-2"), Entry(meant=True))
        self.read_on(1000, 5, "H-1")
        self.read_on(500, 5, "H-2")
        catch_up(100, 60)
        new = MovePart(uuid.uuid4(), "Idler pin", "H-2", "1000", "500", Instead.NEW)
        move_part(self.lena, "H-1", new, Entry())
        self.assertEqual(self.stale(), {"H-1", "H-2"})
        catch_up(100, 60)
        MeterReading.objects.filter(pump__tag="H-1").update(hours=1100)
        worked = []
        with mock.patch("finegap.due.services._pump", side_effect=lambda pump: worked.append(pump.tag)):
            catch_up(100, 60)
        self.assertEqual(worked, ["H-1", "H-2"])
        self.assertFalse(Stale.objects.exists())

    @staticmethod
    def twin(tag):
        duty = {"viscosity": "50 mm2/s", "temperature": "60 C", "pressure": "5 bar", "speed": "300"}
        return AddPump(tag, "twin", "here", f"S-{tag}", "test-pump", "cast iron", "oil", medium="mineral oil", **duty)

    def test_where_nothing_can_be_written_lists_are_answered_and_say_that_they_are_behind(self):
        self.read_on(1000, 3)
        with mock.patch("finegap.due.services._one", side_effect=OperationalError("disk I/O error")), self.assertLogs("finegap"):
            self.assertEqual(self.get("/api/due/ahead")["behind"], 1)
            self.get("/api/pumps")
            self.get("/api/pumps/O-1")

    def test_a_pump_that_cannot_be_worked_out_keeps_no_other_from_it(self):
        Stale.objects.bulk_create(Stale(pump=pump) for pump in Pump.objects.order_by("tag"))
        whole = due._pump
        faulty = mock.patch.object(due, "_pump", lambda pump: whole(pump) if pump.tag != "G-1" else {}["as a fault would"])
        with faulty, self.assertLogs("finegap.due.services", "ERROR") as told:
            self.assertEqual(self.get("/api/due/ahead")["behind"], 1)
        self.assertIn("How G-1 stands cannot be worked out.", told.output[0])
        self.assertEqual(self.stale(), {"G-1"})
        self.assertEqual(self.get("/api/due/ahead")["behind"], 0)

    def test_other_rules_and_new_rows_are_worked_out_anew(self):
        Standing.objects.filter(pump__tag="O-1").update(core="0.0.1")
        Standing.objects.filter(pump__tag="G-1").delete()
        mark_unknown(connection)
        self.assertEqual(self.stale(), {"O-1", "G-1"})

    def test_a_sheet_that_cannot_be_read_any_more_stops_no_list(self):
        SheetRevision.objects.filter(sheet__slug="oiled").update(content={"family": "no such"})
        with self.assertLogs("finegap"):
            line = next(one for one in pump_lines(Units.MM) if one.tag == "O-1")
        self.assertEqual((line.worst, line.next), ([], None))


class Falling(Fleet):
    def test_by_hand_inspection_oil_and_parts_to_order(self):
        """4,000 h 70 days ago, 4,350 today: 35 h a week. Oil every 500 h was never done; the overhaul is due at 4,700."""
        Pump.objects.filter(tag="O-1").update(overhaul_every_h=4700)
        self.read_on(4000, 70)
        self.read_on(4350, 0)
        today = timezone.localdate()
        found = {one["kind"]: one for one in self.get("/api/due?q=O-1")["lines"]}
        self.assertEqual(found["inspection"]["day"], str(today + dt.timedelta(days=70)))  # 350 h left at 35 a week
        self.assertEqual(found["kit"]["day"], str(today + dt.timedelta(days=70 - 21)))
        self.assertIn("1 × T1-42 Gasket. Lead time 21 days", found["kit"]["said"])
        self.assertEqual((found["service"]["day"], found["service"]["late"]), (str(today), True))
        self.assertIn({"kind": "service", "count": 1}, self.get("/api/due/ahead?q=O-1")["late"])
        page = pump_page("O-1", Units.MM)
        self.assertEqual((page.coming.day, page.order_by), (found["inspection"]["day"], found["kit"]["day"]))
        line = next(one for one in self.get("/api/pumps?q=O-1")["lines"])
        self.assertEqual((line["left"], line["next"]["what"]), ("350\u00a0h left", "Gear-case oil"))

    def test_a_pump_on_the_bench_is_being_inspected_and_a_retired_one_needs_nothing(self):
        self.read_on(4000, 70)
        self.read_on(4350, 0)
        number = services.open_job(self.tom, changes.OpenJob("O-1", "test", "4360"), Entry(meant=True)).number
        self.assertEqual({one["kind"] for one in self.get("/api/due?q=O-1")["lines"]}, {"service"})
        self.assertIsNone(pump_page("O-1", Units.MM).coming)
        services.abandon(self.seen(number), changes.Abandon(uuid.uuid4(), reason="by mistake"))
        retire_pump(self.lena, "O-1", True)
        self.assertEqual(self.get("/api/due?q=O-1")["lines"], [])
        page = pump_page("O-1", Units.MM)
        self.assertEqual((page.coming, page.line.next), (None, None))

    def test_without_history_with_one_reading_and_gone_back_each_has_its_sentence(self):
        self.assertEqual(pump_page("O-1", Units.MM).line.hours, "")
        self.assertIn("No overhaul is on record yet", pump_page("O-1", Units.MM).unknown)
        self.read_on(300, 10)
        undated = self.get("/api/due?undated=true&q=O-1")["lines"]
        self.assertEqual({one["kind"] for one in undated}, {"inspection", "service"})
        self.assertEqual(self.get("/api/due?q=O-1")["lines"], [])
        # Nothing but a reading in the past, entered by hand, takes a meter back: the service refuses it.
        MeterReading.objects.create(
            id=uuid.uuid4(), pump=Pump.objects.get(tag="O-1"), hours=20, day=timezone.localdate(), by=self.tom, at=timezone.now()
        )
        page = pump_page("O-1", Units.MM)
        self.assertEqual(page.coming.sentence, "Planned overhaul: in 980\u00a0h, at 1\u00a0000\u00a0h.")
        self.assertIn("The meter went back", page.meter_note)

    def test_new_packing_or_a_look_is_no_overhaul_and_one_without_hours_is_taken_at_the_reading_before(self):
        self.read_on(4000, 70)
        for scope, left in (("repack", -3350), ("overhaul", 1000)):
            with self.subTest(scope):
                number = services.open_job(self.tom, changes.OpenJob("O-1", "test")).number
                Job.objects.filter(number=number).update(build={"seal": "packed", "scope": scope})
                self.row(number).end("signed")
                if scope == "repack":
                    self.read_on(4350, 0)
                catch_up()
                self.assertEqual(Standing.objects.get(pump__tag="O-1").left_h, left)

    def test_what_a_lead_entered_a_lead_strikes_out(self):
        moved = MovePump(uuid.uuid4(), "yard")
        move_pump(self.lena, "O-1", moved, Entry())
        with self.assertRaisesRegex(Refused, "needs a lead"):
            strike(self.tom, "O-1", Strike(moved.id, "slip"))
        strike(self.lena, "O-1", Strike(moved.id, "slip"))
        self.assertEqual(Pump.objects.get(tag="O-1").location, "here")

    def test_moves_struck_out_in_any_order_never_happened(self):
        first, second = MovePump(uuid.uuid4(), "yard"), MovePump(uuid.uuid4(), "North works", lent=True)
        move_pump(self.lena, "O-1", first, Entry())
        move_pump(self.lena, "O-1", second, Entry())
        for moved, place in ((first, ("North works", True)), (second, ("here", False))):
            strike(self.lena, "O-1", Strike(moved.id, "slip"))
            pump = Pump.objects.get(tag="O-1")
            self.assertEqual((pump.location, pump.lent), place)

    def test_a_pump_on_loan_is_somewhere_else_and_comes_back(self):
        back = (timezone.localdate() + dt.timedelta(days=30)).isoformat()
        moved = MovePump(uuid.uuid4(), "North works", lent=True, back=back)
        move_pump(self.lena, "O-1", moved, Entry())
        self.read_on(4000, 70)
        self.read_on(4350, 0)
        line = self.get("/api/pumps?lent=true")["lines"]
        self.assertEqual([(one["tag"], one["location"]) for one in line], [("O-1", "North works")])
        self.assertTrue(all(one["lent"] and one["place"] == "North works" for one in self.get("/api/due?q=O-1")["lines"]))
        with self.assertRaisesRegex(Exception, "on loan, at North works"):
            services.open_job(self.tom, changes.OpenJob("O-1", "test"))
        strike(self.lena, "O-1", Strike(moved.id, "it never went"))
        self.assertEqual(self.get("/api/pumps?q=O-1")["lines"][0]["location"], "here")
        self.assertEqual(self.get("/api/pumps?lent=true")["lines"], [])
        services.open_job(self.tom, changes.OpenJob("O-1", "test"))

    def test_calibrations_fall_due_by_the_newest_certificate_and_not_of_retired_gauges(self):
        soon = timezone.localdate() + dt.timedelta(days=20)
        now = Gauge.objects.get(tag="OLD").now
        given = {f.name: getattr(now, f.name) for f in now._meta.fields if f.name not in ("id", "due")}
        new = Certificate.objects.create(**given, due=soon)
        self.assertEqual(self.get("/api/due?kind=calibration")["lines"][0]["day"], "2001-01-01")
        Gauge.objects.filter(tag="OLD").update(current=new)
        self.assertEqual([one["day"] for one in self.get("/api/due?kind=calibration")["lines"]], [str(soon)])
        Gauge.objects.filter(tag="OLD").update(retired=timezone.localdate())
        self.assertEqual(self.get("/api/due?kind=calibration")["lines"], [])

    def test_the_ribbon_counts_what_the_list_says_week_by_week(self):
        pump = Pump.objects.get(tag="O-1")
        DueLine.objects.all().delete()
        today = timezone.localdate()
        for days, kind in (
            (-1, "kit"),
            (0, "service"),
            (6, "service"),
            (7, "inspection"),
            (83, "kit"),
            (84, "kit"),
            (None, "inspection"),
        ):
            day = None if days is None else today + dt.timedelta(days=days)
            DueLine.objects.create(pump=pump, kind=kind, name="x", said="y", day=day)
        ahead = self.get("/api/due/ahead")
        weeks = [{one["kind"]: one["count"] for one in week["counts"]} for week in ahead["weeks"]]
        self.assertEqual((weeks[0], weeks[1], weeks[11]), ({"service": 2}, {"inspection": 1}, {"kit": 1}))
        self.assertEqual((ahead["late"], ahead["undated"]), ([{"kind": "kit", "count": 1}], [{"kind": "inspection", "count": 1}]))
        self.assertEqual(len(self.get("/api/due")["lines"]), 5)
        self.assertEqual(len(self.get("/api/due?kind=kit")["lines"]), 2)
        self.assertEqual(self.get("/api/due/ahead?kind=kit")["undated"], [])
        self.get("/api/due?kind=tea", 422)

    def test_the_table_runs_no_formula_and_the_print_says_the_same(self):
        Pump.objects.filter(tag="O-1").update(location="=HYPERLINK(1)")
        self.read_on(4000, 70)
        self.read_on(4350, 0)
        table = b"".join(self.client.get("/api/due.csv?q=O-1").streaming_content).decode("utf-8-sig")
        rows = list(csv.DictReader(io.StringIO(table)))
        self.assertEqual({row["Pump"] for row in rows}, {"O-1"})
        self.assertFalse(any(cell.startswith("=") for row in rows for cell in row.values()))
        printed = PdfReader(io.BytesIO(self.client.get("/api/due.pdf?q=O-1").content))
        text = " ".join(page.extract_text() for page in printed.pages)
        for row in rows:
            self.assertIn(row["Name"], text)

    def test_a_calendar_another_library_reads_has_the_days_of_the_list(self):
        """vobject reads what icalendar wrote. What is past due stands on today."""
        self.read_on(4000, 70)
        self.read_on(4350, 0)
        today = timezone.localdate()
        lines = self.get("/api/due?q=O-1")["lines"]
        calendar = vobject.readOne(self.client.get("/api/pumps/O-1/due.ics").content.decode())
        days = sorted(str(event.dtstart.value) for event in calendar.vevent_list)
        self.assertEqual(days, sorted(max(line["day"], str(today)) for line in lines))
        event = calendar.vevent_list[0]
        self.assertEqual((event.dtend.value - event.dtstart.value).days, 1)
        self.assertEqual(event.valarm.trigger.value, dt.timedelta(days=-7))
        self.assertEqual(len({event.uid.value for event in calendar.vevent_list}), len(days))


class Finding(Fleet):
    def test_one_field_finds_a_pump_by_whatever_is_known_of_it(self):
        code = Pump.objects.get(tag="O-1").code
        Pump.objects.filter(tag="O-1").update(location="Färberei", liquid="Glycerine", serial="AB-77")
        for said in ("o-1", "ab-77", "nobody t1 färberei", "FÄRBEREI", "glycer", "oiled", "T1-42", code.lower(), "ärb glyc"):
            with self.subTest(said):
                self.assertIn("O-1", [one["tag"] for one in self.get(f"/api/pumps?q={said}")["lines"]])
        self.assertEqual(self.get("/api/pumps?q=färberei+T1-99")["lines"], [])
        self.assertEqual(self.get("/api/pumps?q=%25")["lines"], [])

    def test_orders_and_filters(self):
        self.read_on(4000, 70)
        self.read_on(4350, 0)
        services.open_job(self.tom, changes.OpenJob("G-1", "test"))
        tags = lambda asked: [one["tag"] for one in self.get(f"/api/pumps?{asked}")["lines"]]  # noqa: E731
        self.assertEqual(tags("sort=due"), ["O-1", "G-1", "H-1"])
        self.assertEqual(tags("sort=left"), ["O-1", "G-1", "H-1"])
        self.assertEqual(tags("due=12"), ["O-1"])
        self.assertEqual(tags("bench=true"), ["G-1"])
        self.assertEqual(tags("bench=false"), ["H-1", "O-1"])
        self.assertEqual(tags("sheet=oiled"), ["O-1"])
        self.assertEqual(tags("place=here&retired=false"), ["G-1", "H-1", "O-1"])
        self.get("/api/pumps?sort=colour", 422)
        self.get("/api/pumps?due=-1", 422)
