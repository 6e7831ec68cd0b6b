"""A pump's page as its life: timeline, overhauls, parts that move, meters that count, papers."""

import csv
import datetime as dt
import io
import json
import uuid

from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.test import Client
from django.test.utils import CaptureQueriesContext
from django.utils import timezone
from jsonschema import Draft202012Validator
from PIL import Image

from finegap.bench import changes, services
from finegap.bench.models import Job, SignOff, SizeOnRecord
from finegap.core.entry import Entry
from finegap.core.errors import Ambiguous, FieldError, Unlikely
from finegap.core.formatting import Units
from finegap.core.wear.hours import Counts
from finegap.core.wear.lives import Instead
from finegap.pumps import meter
from finegap.pumps.changes import AddEarlier, AddPump, EarlierPart, EditPump, MovePart, MovePump, ReadMeter, Strike, WriteNote
from finegap.pumps.history import add_earlier, move_pump
from finegap.pumps.models import MeterReading, PartMoved, Pump
from finegap.pumps.papers import write_note
from finegap.pumps.parts import move_part
from finegap.pumps.services import add_pump, edit_pump, read_meter, strike
from finegap.sheets.changes import SheetFile
from tests.apps.base import Asking, add_revision, pump_page, sheet_data

DUTY = {"viscosity": "50 mm2/s", "temperature": "60 C", "pressure": "5 bar", "speed": "300"}


def another(lead, tag, sheet="test-pump", **more):
    """A pump like H-1."""
    new = AddPump(tag, "twin", "here", f"S-{tag}", sheet, "cast iron", "oil", medium="mineral oil", **(DUTY | more))
    return add_pump(lead, new, Entry(meant=True))


class Lives(Asking):
    def overhaul(self, tag, day, hours, **parts):
        """From before this record: found, left, renewed, by part."""
        given = [EarlierPart(key, *sizes) for key, sizes in parts.items()]
        add_earlier(self.lena, tag, AddEarlier(uuid.uuid4(), day, str(hours), "5 bar", "300", "book", given), Entry())

    def read_meter(self, tag, hours, day, **more):
        new = ReadMeter(uuid.uuid4(), str(hours), day, **more)
        read_meter(self.tom, tag, new, Entry(meant=True))
        return new.id

    def points(self, tag, feature="idler_pin"):
        wear = self.get(f"/api/pumps/{tag}/wear/{feature}").json()
        return [[(round(p["hours"]), p["text"]) for p in life] for life in (*wear["lives"], wear["points"])]


class Parts(Lives):
    """An idler pin of H-1, new at 0 h (29.99), 29.95 at 4,000 h, goes at 5,000 into H-2, which ran 1,000 h with 29.97 at 900."""

    def setUp(self):
        super().setUp()
        another(self.lena, "H-2")
        self.overhaul("H-1", "2020-01-01", 4000, idler_pin=("29.95", "", False))
        self.overhaul("H-2", "2020-01-01", 900, idler_pin=("29.97", "", False))

    def move(self, tag="H-1", taker="H-2", hours="5000", there="1000", day="2020-06-01", instead=Instead.NEW, part="Idler pin"):
        new = MovePart(uuid.uuid4(), part, taker, hours, there, instead, day)
        move_part(self.lena, tag, new, Entry())
        return new.id

    def test_its_wear_goes_with_it_and_ends_where_it_was(self):
        moved = self.move()
        self.assertEqual(self.points("H-2"), [[(0, "29.99"), (900, "29.97")], [(0, "29.99"), (4000, "29.95")]])
        self.assertEqual(self.points("H-1"), [[(0, "29.99"), (4000, "29.95")], [(0, "29.99")]])
        self.read_meter("H-2", 3000, "2021-06-01")
        pin = next(one for one in pump_page("H-2", Units.MM).parts if one.key == "idler_pin")
        # 5,000 h of its life from 29.95 at 4,000: 5,000 to the limit, of which 1,000 ran in H-1 and 2,000 here
        self.assertIn("2\u00a0000\u00a0h to the limit", pin.left)
        self.assertEqual(str(pin.day), "2020-01-01")  # measured in H-1, not the day it came
        said = [one.said for one in pump_page("H-2", Units.MM).parts_moved]
        self.assertEqual(said, ["Idler pin: came from H-1, where the meter read 5\u00a0000\u00a0h"])
        strike(self.lena, "H-2", Strike(moved, "of another pump"))
        self.assertEqual(self.points("H-2"), [[(0, "29.99"), (900, "29.97")]])
        self.assertEqual(self.points("H-1"), [[(0, "29.99"), (4000, "29.95")]])

    def test_on_the_bench_the_same_life_is_judged(self):
        self.move()
        number = services.open_job(self.tom, changes.OpenJob("H-2", "test", "3000")).number
        self.read(number, "idler_pin", self.family(number).by_key["idler_pin"].stations[0].key, "29.930 mm")
        wear = self.get(f"/api/jobs/{number}/wear/idler_pin").json()
        self.assertEqual([(round(p["hours"]), p["text"]) for p in wear["points"]], [(0, "29.990"), (4000, "29.950")])
        for station in self.family(number).by_key["idler_pin"].stations[1:]:
            self.read(number, "idler_pin", station.key, "29.930 mm")
        wear = self.get(f"/api/jobs/{number}/wear/idler_pin").json()
        self.assertEqual((round(wear["points"][-1]["hours"]), wear["points"][-1]["text"]), (7000, "29.930"))

    def test_back_and_on_again_through_three_pumps(self):
        another(self.lena, "H-3")
        self.move()
        self.move("H-2", "H-3", "1500", "0", "2020-07-01", Instead.UNKNOWN)
        self.move("H-3", "H-1", "250", "5100", "2020-08-01", Instead.NOTHING)
        self.read_meter("H-1", 6100, "2021-08-01")
        pin = next(one for one in pump_page("H-1", Units.MM).parts if one.key == "idler_pin")
        # 5,000 + 500 + 250 h when it came back, 1,000 since: 9,000 in all at the limit, 6,750 run
        self.assertIn("2\u00a0250\u00a0h to the limit", pin.left)
        # H-3 began with a pin of its own, taken as new; what came in its place nobody knows
        self.assertEqual(self.points("H-3"), [[(0, "29.99")], [(0, "29.99"), (4000, "29.95")], []])

    def test_what_cannot_be_is_refused_with_its_sentence(self):
        add_revision(self.lena, SheetFile(json.dumps(self.other_pin())))
        another(self.lena, "H-9", "other-pin")
        for given, says in (
            ({"taker": "H-1"}, "is this pump"),
            ({"taker": "nobody"}, "there is no pump"),
            ({"taker": "H-9"}, "prints another new size"),
            ({"part": "Hat"}, "no “Hat” that is measured"),
            ({"hours": "3000"}, "were read on H-1 before that day"),
            ({"there": ""}, "nothing was entered"),
            ({"day": "2999-01-01"}, "still to come"),
        ):
            with self.subTest(**given), self.assertRaisesRegex(FieldError, says):
                self.move(**given)
        self.assertEqual(PartMoved.objects.count(), 0)

    def test_a_part_is_in_one_pump_at_a_time(self):
        another(self.lena, "H-3")
        moved = self.move(instead=Instead.NOTHING)
        with self.assertRaisesRegex(FieldError, "went into H-2 on 1 Jun 2020, and nothing took its place"):
            self.move(taker="H-3", there="0", day="2020-07-01")
        with self.assertRaisesRegex(FieldError, "moved on H-1 on 1 Jun 2020, later than that"):
            self.move(taker="H-3", there="0", day="2020-05-01")
        self.move("H-2", "H-3", "1500", "0", "2020-07-01")  # from where it is now it goes on
        strike(self.lena, "H-1", Strike(moved, "of another pump"))
        self.move(taker="H-3", there="0", day="2020-07-01")

    def test_what_an_open_job_has_measured_is_not_moved_under_it(self):
        number = services.open_job(self.tom, changes.OpenJob("H-2", "test", "3000")).number
        self.read(number, "idler_pin", self.family(number).by_key["idler_pin"].stations[0].key, "29.930 mm")
        today = str(timezone.localdate())
        for tag, taker, hours, there in (("H-1", "H-2", "5000", "3000"), ("H-2", "H-1", "3000", "5000")):
            with self.assertRaisesRegex(FieldError, f"job {number} on H-2 is open, and has measured it"):
                self.move(tag, taker, hours, there, today)
        Job.objects.get(number=number).readings.update(struck_reason="slip", struck_by=self.tom)
        self.move(there="3000", day=today)

    def test_a_pump_on_loan_is_asked_about(self):
        move_pump(self.lena, "H-2", MovePump(uuid.uuid4(), "North works", lent=True), Entry())
        with self.assertRaisesRegex(Unlikely, "on loan, at North works"):
            self.move()

    def test_a_job_is_of_its_day_at_the_works_not_in_greenwich(self):
        services.open_job(self.tom, changes.OpenJob("H-2", "test", "3000"))
        job = Job.objects.get()
        job.opened_at = dt.datetime(2026, 3, 1, 20, 0, tzinfo=dt.UTC)
        job.save(update_fields=["opened_at"])
        with timezone.override("Pacific/Auckland"):  # 2 March there
            self.assertEqual(meter.readings(job.pump)[-1].day, dt.date(2026, 3, 2).toordinal())

    @staticmethod
    def other_pin():
        data = sheet_data(slug="other-pin", title="Other pin")
        data["features"] = data["features"] | {"idler_pin": {"new": ["28.98 mm", "29.00 mm"], "minimum": "28.90 mm"}}
        return data


class Meters(Lives):
    def count(self, tag, counts=Counts.VOLUME, per_hour="4.2"):
        return another(self.lena, tag, counts=counts, per_hour=per_hour)

    def test_cubic_metres_are_hours_by_hand(self):
        """152,000 m³ at 4.2 an hour are 36,190 h; 155,528 are 37,030: 840 in four weeks, 210 a week."""
        self.count("F-1")
        self.read_meter("F-1", "152 000 m3", "2024-01-01")
        self.read_meter("F-1", "155528", "2024-01-29")
        page = pump_page("F-1", Units.MM)
        self.assertEqual([(one.hours, one.read) for one in page.meter], [(37_030, "155528 m³"), (36_190, "152 000 m³")])
        self.assertEqual((page.rate, page.counts), ("210 h a week", "m³"))

    def test_a_job_reads_the_same_meter_and_says_both(self):
        self.count("F-1", Counts.STARTS, "4")
        with self.assertRaises(Ambiguous) as asked:  # the field says hours, the meter starts
            services.open_job(self.tom, changes.OpenJob("F-1", "test", "1200"))
        self.assertEqual([one.typed for one in asked.exception.suggestions], ["1200 starts", "1200 h"])
        number = services.open_job(self.tom, changes.OpenJob("F-1", "test", "1200 starts")).number
        self.assertEqual(Job.objects.get(number=number).hours_run, 300)
        services.set_details(self.seen(number), changes.SetDetails(hours_run="1400 starts"))
        self.assertEqual(Job.objects.get(number=number).hours_run, 350)
        self.assertIn("the meter shows 1400 starts", self.get(f"/api/jobs/{number}/log").json()[0]["what"])
        services.set_details(self.seen(number), changes.SetDetails(hours_run="400 h"))
        self.assertEqual(Job.objects.get(number=number).hours_run, 400)
        self.assertNotIn("shows", self.get(f"/api/jobs/{number}/log").json()[0]["what"])

    def test_what_it_counts_is_not_changed_under_its_readings(self):
        self.count("F-1")
        kept = self.read_meter("F-1", "42000", "2024-01-01")
        entered = {**DUTY, "sheet": "test-pump", "material": "cast iron", "liquid": "oil"}
        entered |= {"version": Pump.objects.get(tag="F-1").version, "per_hour": "4", "counts": Counts.VOLUME}
        edit = EditPump("F-1", "twin", "here", "S-F-1", **entered)
        with self.assertRaisesRegex(FieldError, "was read already"):
            edit_pump(self.lena, "F-1", edit, Entry(meant=True))
        strike(self.lena, "F-1", Strike(kept, "wrong factor"))
        edit_pump(self.lena, "F-1", edit, Entry(meant=True))
        self.read_meter("F-1", "42000", "2024-01-01")
        self.assertEqual(MeterReading.objects.get(struck_reason="").hours, 10_500)
        for per_hour, counts, says in (("", Counts.VOLUME, "an hour"), ("3", Counts.HOURS, "counts hours")):
            with self.subTest(per_hour=per_hour), self.assertRaisesRegex(FieldError, says):
                self.count("F-2", counts, per_hour)

    def test_wear_counts_through_a_meter_replaced_between_two_overhauls(self):
        """4,000 h; the old meter ended at 4,300, the new began at 0; it reads 700 at the next overhaul: 5,000 h of life."""
        self.overhaul("H-1", "2020-01-01", 4000, idler_pin=("29.95", "", False))
        self.read_meter("H-1", 100, "2020-03-01", old_last="4300", new_first="0")
        number = services.open_job(self.tom, changes.OpenJob("H-1", "test", "700")).number
        for station in self.family(number).by_key["idler_pin"].stations:
            self.read(number, "idler_pin", station.key, "29.940 mm")
        wear = self.get(f"/api/jobs/{number}/wear/idler_pin").json()
        self.assertEqual([round(p["hours"]) for p in wear["points"]], [0, 4000, 5000])
        self.assertEqual(wear["odd"], [])
        self.assertEqual([round(one.hours) for one in meter.readings(Pump.objects.get(tag="H-1"))], [4000, 100, 700])


class Timeline(Lives):
    def setUp(self):
        super().setUp()
        self.overhaul("H-1", "2020-05-04", 400, idler_pin=("29.95", "29.99", True))
        self.slip = self.read_meter("H-1", 900, "2021-01-01")
        strike(self.tom, "H-1", Strike(self.slip, "read of P-9"))
        write_note(self.tom, "H-1", WriteNote(uuid.uuid4(), "=drips at the gland when cold"), Entry())
        self.number = self.open()
        row = self.row(self.number)
        SizeOnRecord.objects.create(job=row, feature="idler_pin", found_mm=29.97, found_u_mm=0.001, changed=False)
        services.abandon(self.seen(self.number), changes.Abandon(uuid.uuid4(), reason="wrong pump"))

    def test_everything_done_stands_in_it_the_newest_first_and_in_the_file(self):
        lines = self.get("/api/pumps/H-1/life").json()["lines"]
        self.assertEqual([one["on"] for one in lines], sorted((one["on"] for one in lines), reverse=True))
        told = " | ".join(one["said"] for one in lines)
        for said in (
            "opened, at 14",
            "abandoned: wrong pump",
            "drips at the gland",
            "Meter read: 900",
            "before this record",
            "revision 1",
        ):
            self.assertIn(said, told)
        self.assertEqual([one["struck"] for one in lines if one["kind"] == "meter"], ["read of P-9"])
        rows = list(csv.reader(io.StringIO(self.get("/api/pumps/H-1/life.csv").content.decode("utf-8-sig"))))
        self.assertEqual(len(rows) - 1, len(lines))
        self.assertFalse(any(cell.startswith("=") for row in rows for cell in row))
        whole = self.get("/api/pumps/H-1/life.json").json()
        schema = json.loads((settings.BASE_DIR / "docs/formats/pump-life.schema.json").read_text())
        self.assertEqual([error.message for error in Draft202012Validator(schema).iter_errors(whole)], [])
        self.assertEqual(
            (whole["format"], [one["said"] for one in whole["lines"]]), ("fine-gap/pump-life", [one["said"] for one in lines])
        )

    def test_pages_hold_each_line_once_with_a_constant_number_of_queries(self):
        pump = Pump.objects.get(tag="H-1")
        self.get("/api/pumps/H-1/life")
        with CaptureQueriesContext(connection) as few:
            self.get("/api/pumps/H-1/life")
        before = len(few)  # asked for now: the next request forgets what was captured
        for i in range(120):
            MeterReading.objects.create(
                id=uuid.uuid4(), pump=pump, hours=1000 + i, day="2022-01-01", by=self.tom, at=timezone.now()
            )
        pages = [self.get(f"/api/pumps/H-1/life?page={page}").json() for page in (1, 2, 3)]
        self.assertEqual([page["more"] for page in pages], [True, True, False])
        said = [one["said"] for page in pages for one in page["lines"] if one["kind"] == "meter" and not one["struck"]]
        self.assertEqual(sorted(said), sorted(f"Meter read: {1000 + i:,}\u00a0h".replace(",", "\u00a0") for i in range(120)))
        with self.assertNumQueries(before):
            self.get("/api/pumps/H-1/life")
        for page in ("0", "41", "x", "9" * 30):
            self.get(f"/api/pumps/H-1/life?page={page}", 422)
        self.get("/api/pumps/none/life", 404)

    def test_overhauls_say_found_and_left_and_void(self):
        Job.objects.filter(number=self.number).update(ended="")
        row = self.row(self.number)
        self.assertEqual(self.get("/api/pumps/H-1/overhauls").json()["lines"], [])
        gap = {"gap_mm": "0.12", "gap_in": "0.005"}
        SignOff.objects.create(id=uuid.uuid4(), job=row, document=b"", core_version="1", by=self.lena, at=timezone.now(), **gap)
        row.end("signed")
        (one,) = self.get("/api/pumps/H-1/overhauls?unit=in").json()["lines"]
        self.assertEqual(one["gap"], "0.005 in")
        self.assertEqual([(size["name"], size["found"], size["left"]) for size in one["sizes"]], [("Idler pin", "1.180 in", "")])


class Papers(Lives):
    def attach(self, data, name="certificate", kind="application/pdf", client=None, status=201):
        client = client or Client()
        client.force_login(self.lena)
        file = SimpleUploadedFile("x", data, kind)
        answered = client.post("/api/pumps/H-1/documents", {"id": str(uuid.uuid4()), "name": name, "file": file})
        self.assertEqual(answered.status_code, status, answered.content[:200])
        return answered.json()

    def test_a_pdf_or_a_picture_is_kept_given_out_and_struck(self):
        page = self.attach(b"%PDF-1.4 nothing")
        (kept,) = page["documents"]
        answered = self.get(kept["url"])
        self.assertEqual((answered.content, answered["Content-Type"]), (b"%PDF-1.4 nothing", "application/pdf"))
        self.assertIn("sandbox", answered["Content-Security-Policy"])
        picture = io.BytesIO()
        Image.new("RGB", (30, 20)).save(picture, "PNG")
        self.attach(picture.getvalue(), "photo of the plate", "image/png")
        strike(self.lena, "H-1", Strike(uuid.UUID(kept["id"]), "of another pump"))
        documents = pump_page("H-1", Units.MM).documents
        self.assertEqual([(one.name, one.kind, one.struck_reason) for one in documents],
                         [("photo of the plate", "jpeg", ""), ("certificate", "pdf", "of another pump")])  # fmt: skip
        self.assertEqual(Client().get(kept["url"]).status_code, 401)

    def test_a_paper_of_some_megabytes_is_taken_as_a_photograph_is(self):
        page = self.attach(b"%PDF-1.4" + b" " * 3_000_000)
        self.assertEqual(page["documents"][0]["size"], "3.0 MB")
        self.assertIn("MB", self.attach(b"%PDF-1.4" + b" " * 15_800_000, status=422)["problem"])

    def test_what_is_neither_or_has_no_name_is_refused_by_its_field(self):
        self.assertEqual(self.attach(b"<svg onload=x>", status=422)["field"], "document")
        self.assertEqual(self.attach(b"%PDF-1.4", name=" ", status=422)["field"], "name")
        with self.assertRaisesRegex(FieldError, "nothing was written"):
            write_note(self.tom, "H-1", WriteNote(uuid.uuid4(), "  "), Entry())
