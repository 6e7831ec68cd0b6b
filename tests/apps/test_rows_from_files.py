"""Many gauges and pumps at once from CSV and XLSX: every row tried, all kept or none; what people's spreadsheets really write."""

import datetime as dt
import io
import zipfile
from dataclasses import replace

from django.contrib.auth.models import User
from django.core.files.uploadedfile import SimpleUploadedFile
from openpyxl import Workbook

from finegap.core.entry import Entry
from finegap.core.errors import FieldError, Unlikely
from finegap.core.formatting import Units, render
from finegap.core.numerals import DecimalMark
from finegap.fleet.tables import pumps
from finegap.inventory.changes import KeepGauge
from finegap.inventory.many import MOST_ROWS, keep_rows
from finegap.inventory.models import Gauge, ShelfLine
from finegap.inventory.services import keep_gauge, retire_gauge
from finegap.inventory.tables import gauges, shelf
from finegap.pumps.changes import AddPump, EditPump
from finegap.pumps.models import Pump
from finegap.pumps.services import add_pump, edit_pump, retire_pump
from finegap.sheets.changes import SheetFile
from finegap.sheets.models import Sheet
from tests.apps.base import Works, add_revision, job_view
from tests.apps.test_setting import piston

HEAD = "Tag,Kind,From,To,Resolution,U,k,Calibrated,Due,Certificate"
M_7 = "M-7,outside micrometer,0,25,0.001,0.002,2,2026-01-10,2027-01-10,C 4711"
READ = "outside micrometer, 0.00 to 25.00 mm, step 0.001 mm, U 0.002 mm"
B_7 = "B-7,bore gauge,18,50,0.001,0.003,2,2026-02-01,2027-02-01,"

CALIPER = KeepGauge("C-9", "caliper", "0", "150", "0.01", "0.02", "2", dt.date(2026, 1, 1), dt.date(2027, 1, 1))


def workbook(*rows):
    book = Workbook()
    for row in rows:
        book.active.append(row)
    into = io.BytesIO()
    book.save(into)
    return into.getvalue()


class Files(Works):
    def keep(self, data, dry=False, mark=DecimalMark.POINT):
        data = data if isinstance(data, bytes) else data.encode()
        return keep_rows(gauges(self.lena), data, Entry(Units.MM, mark), dry)

    def refused(self, data):
        before = Gauge.objects.count()
        with self.assertRaises(FieldError) as caught:
            self.keep(data)
        self.assertEqual((caught.exception.field, Gauge.objects.count()), ("file", before))
        return caught.exception.problem

    def test_all_are_kept_or_none_and_each_row_says_what_is_wrong(self):
        before = Gauge.objects.count()
        good = "\r\n".join((HEAD, M_7, "", B_7))
        self.assertEqual([(r.number, r.name, r.wrong) for r in self.keep(good, dry=True).rows], [(1, "M-7", ""), (2, "B-7", "")])
        self.assertEqual(Gauge.objects.count(), before)
        wrong = "\n".join(
            (
                HEAD,
                M_7,
                M_7,
                B_7.replace("bore gauge", "bore"),
                B_7.replace("2026-02-01", "01.02.2026"),
                B_7.replace("18,50", "50,18"),
            )
        )
        result = self.keep(wrong)
        self.assertEqual((result.kept, Gauge.objects.count()), (0, before))
        for row, words in zip(
            result.rows, ("", "in the cabinet already", "not a kind", "Calibrated: “01.02.2026” is no day", "reversed"), strict=True
        ):
            self.assertIn(words, row.wrong) if words else self.assertEqual(row.wrong, "")
        self.assertEqual(self.keep(good).kept, 2)
        kept = Gauge.objects.get(tag="M-7").current
        self.assertEqual((kept.number, kept.resolution, kept.by), ("C 4711", 0.001, self.lena))

    def test_what_spreadsheets_write_is_read(self):
        head, row = HEAD.replace(",", ";"), "M-8;outside micrometer;0;25;0,001;0,002;2;2026-01-10;2027-01-10;Prüfstelle"
        comma = f"{head}\r\n{row}\r\n"
        written = {"utf-8": f"\ufeff{comma}".encode(), "latin-1": comma.encode("cp1252"), "tabs": comma.replace(";", "\t").encode()}
        for name, data in written.items():
            with self.subTest(name):
                self.assertEqual(self.keep(data, dry=True, mark=DecimalMark.COMMA).rows[0].wrong, "")
        cells = ("M-9", "outside micrometer", 0, 25, 0.001, 0.002, 2, dt.datetime(2026, 1, 10), dt.date(2027, 1, 10), None)
        for mark in DecimalMark:
            self.assertEqual(self.keep(workbook(HEAD.split(","), cells), dry=True, mark=mark).rows[0].wrong, "")

    def test_what_is_no_table_of_gauges_is_refused_with_its_reason(self):
        bomb = io.BytesIO()
        with zipfile.ZipFile(bomb, "w", zipfile.ZIP_DEFLATED) as packed:
            packed.writestr("xl/worksheets/sheet1.xml", bytes(60 * 1024 * 1024))
        for data, words in (
            (b"", "twice, or there is none"),
            (HEAD, "no row"),
            (HEAD.replace("Kind", "Colour") + "\n" + M_7, "no column “Colour”"),
            (HEAD.replace("Kind", "Tag") + "\n" + M_7, "twice"),
            ("\n".join((HEAD, *(M_7 for _ in range(MOST_ROWS + 1)))), f"{MOST_ROWS + 1} rows"),
            (b"x" * (1024 * 1024 + 1), "larger than 1 MB"),
            (b"PK not a workbook", "damaged"),
            (bomb.getvalue(), "unpacks to more"),
        ):
            with self.subTest(words):
                self.assertIn(words, self.refused(data))

    def test_a_merged_cell_leaves_its_row_without_what_it_lacks(self):
        book = Workbook()
        for row in (HEAD.split(","), M_7.split(","), B_7.split(",")):
            book.active.append(row)
        book.active.merge_cells("A2:A3")
        into = io.BytesIO()
        book.save(into)
        rows = self.keep(into.getvalue()).rows
        self.assertIn("tag", rows[1].wrong)

    def test_over_http_by_a_lead_with_the_template_to_fill_in(self):
        self.client.force_login(self.lena)
        template = self.client.get("/api/gauges/file")
        self.assertEqual(template.content.decode("utf-8-sig").strip().split(",")[:3], ["Tag", "Kind", "From"])

        def send(dry):
            file = SimpleUploadedFile("gauges.csv", f"{HEAD}\n{M_7}".encode())
            body = {"file": file, "dry": dry, "unit": "mm", "mark": "point", "person": "lena"}
            return self.client.post("/api/gauges/file", body)

        self.assertEqual(send("true").json(), {"rows": [{"number": 1, "name": "M-7", "read": READ, "wrong": ""}], "kept": 0})
        self.assertEqual(send("false").json()["kept"], 1)
        self.client.force_login(self.tom)
        self.assertEqual(send("true").status_code, 403)

    def test_the_shelf_is_counted_from_a_file_under_the_right_names(self):
        slug = add_revision(self.lena, SheetFile(piston(slug="shims-1", title="Shim {pump}"))).sheet.slug
        text = "Sheet;Thickness;Count\nGASKET PUMP;0,10 mm;9\nshims-1;0,05;3\n"

        def count(text, dry=False):
            return keep_rows(shelf(self.lena), text.encode(), Entry(Units.MM, DecimalMark.COMMA), dry)

        read = [render(row.read, Units.MM) for row in count(text, dry=True).rows]
        self.assertEqual(read, ["9 of the gasket 0.10 mm for Gasket pump", "3 of the shim 0.05 mm for Shim {pump}"])
        self.assertEqual(ShelfLine.objects.get(sheet__slug="gasket-pump", thickness_um=100).count, 4)
        self.assertEqual(count(text).kept, 2)
        counts = {(x.sheet.slug, x.thickness_um): x.count for x in ShelfLine.objects.select_related("sheet")}
        self.assertEqual((counts["gasket-pump", 100], counts[slug, 50]), (9, 3))
        for row, words in (
            ("none;0,10;9", "no sheet “none”"), ("Gasket pump;0,10;-1", "no count"), ("Gasket pump;0,10;1000", "cannot be"),
            ("Test pump;0,10;1", "set without gaskets or shims"),
            ("Gasket pump;1.750;1", "thickness"), ("Gasket pump;;1", "thickness"),
        ):  # fmt: skip
            with self.subTest(row):
                told = count(f"{text}{row}\n")
                self.assertEqual(([bool(r.wrong) for r in told.rows], told.kept), ([False, False, True], 0))
                self.assertIn(words, told.rows[2].wrong)


class Retired(Works):
    def test_a_retired_gauge_measures_nothing_more_and_what_it_measured_stands(self):
        number = self.open()
        station = self.family(number).by_key["idler_pin"].stations[0].key
        self.read(number, "idler_pin", station, "29.970 mm")
        retire_gauge(self.lena, "M-1", True)
        view = job_view(number, Units.MM)
        self.assertNotIn("M-1", [gauge.tag for gauge in view.gauges])
        pin = next(f for f in view.features if f.key == "idler_pin")
        self.assertEqual((pin.readings[0].gauge, [g.tag for g in view.used_gauges]), ("M-1", ["M-1"]))
        for refused in (
            lambda: self.read(number, "idler_pin", station, "29.970 mm"),
            lambda: keep_gauge(self.lena, replace(CALIPER, tag="M-1"), Entry()),
            lambda: keep_gauge(self.lena, CALIPER, Entry(), replacing="M-1"),
            lambda: retire_gauge(self.lena, "none", True),
        ):
            with self.assertRaises(FieldError):
                refused()
        retire_gauge(self.lena, "W-1", True)
        with self.assertRaises(FieldError) as caught:
            self.build(number)
        self.assertEqual((caught.exception.field, caught.exception.problem), ("wrench", "W-1 is retired."))
        retire_gauge(self.lena, "M-1", False)
        self.read(number, "idler_pin", station, "29.970 mm")

    def retire(self, retired, person):
        body = {"retired": retired, "unit": "mm", "mark": "point", "person": person}
        return self.client.post("/api/gauges/M-1/retire", body, "application/json")

    def test_the_list_is_of_those_in_use_unless_it_is_asked_for_the_others(self):
        self.client.force_login(self.lena)
        self.assertEqual(self.retire(True, "lena").status_code, 200)
        tags = {
            asked: {line["tag"] for line in self.client.get("/api/gauges", {"retired": asked}).json()["lines"]}
            for asked in ("true", "false")
        }
        self.assertEqual((tags["true"], "M-1" in tags["false"], len(tags["false"])), ({"M-1"}, False, 4))
        self.assertEqual(self.retire(False, "tom").json()["code"], "person")  # a page of somebody else
        self.client.force_login(self.tom)
        self.assertEqual(self.retire(False, "tom").status_code, 403)


PUMPS_HEAD = (
    "Tag;What it does;Place;Serial;Sheet;Material;Liquid;Kind of liquid;Hazards;Viscosity;Temperature;Casing;Coldest start;Hottest;"
    "Density;Pressure;Speed;Overhauled every;Hours a week;Wet;Built"
)


def pump_row(**cells):
    given = {
        "Tag": "P-7", "What it does": "wash", "Place": "hall", "Serial": "77", "Sheet": "TEST PUMP", "Material": "cast iron",
        "Liquid": "oil", "Viscosity": "50", "Temperature": "60", "Pressure": "5", "Speed": "300",
    } | cells  # fmt: skip
    return ";".join(given.get(column, "") for column in PUMPS_HEAD.split(";"))


class Pumps(Works):
    def keep(self, *rows, dry=False):
        data = "\n".join((PUMPS_HEAD, *rows)).encode("utf-8-sig")
        return keep_rows(pumps(self.lena), data, Entry(Units.MM), dry)

    def test_a_fleet_is_read_from_a_table_and_each_is_said_as_it_was_read(self):
        sheet = Sheet.objects.get(slug="test-pump")
        rows = pump_row(), pump_row(Tag="P-8", Serial="78", Viscosity="300 SSU", Temperature="140 F", Wet="yes", Sheet=sheet.slug)
        tried = self.keep(*rows, dry=True)
        self.assertEqual((tried.kept, Pump.objects.filter(tag__in=("P-7", "P-8")).count()), (0, 0))
        read = [render(row.read, Units.MM) for row in tried.rows]
        self.assertEqual(read[0], f"{sheet.title}; oil, 50 mm²/s at 60 °C, 5.0 bar, 300 r/min")
        self.assertIn("65 mm²/s at 60 °C", read[1])
        self.assertEqual(self.keep(*rows).kept, 2)
        self.assertTrue(Pump.objects.get(tag="P-8").wet)

    def test_all_are_kept_or_none_and_each_wrong_cell_is_named(self):
        before = Pump.objects.count()
        for cells, words in (
            ({"Sheet": "nothing"}, "there is no sheet “nothing”"), ({"Material": "brass"}, "no row for brass"),
            ({"Wet": "perhaps"}, "neither"), ({"Tag": "H-1"}, "H-1 is taken"), ({"Pressure": "much"}, "pressure"),
            ({"Serial": "1001"}, "has serial 1001 of"), ({"Built": "Colour: red"}, "“Colour” is nothing"),
            ({"Built": "Shaft seal: red"}, "“red” is not a choice"), ({"Tag": "x" * 40}, "longer than 30 letters"),
        ):  # fmt: skip
            with self.subTest(words):
                self.assertIn(words, self.keep(pump_row(Tag="P-6", Serial="66"), pump_row(**cells)).rows[1].wrong)
                self.assertEqual(Pump.objects.count(), before)
        twice = self.keep(pump_row(), pump_row())
        self.assertIn("P-7 is taken", twice.rows[1].wrong)

    def test_where_it_differs_from_its_sheet_is_said_in_the_words_of_the_page(self):
        found = self.client_of("lena").get("/api/sheet-choices/test-pump").json()
        option = next(one for one in found["options"] if len(one["choices"]) > 1 and not one["when"])
        other = next(one for one in option["choices"] if one["key"] != option["usual"])
        self.assertEqual(self.keep(pump_row(Built=f"{option['name']}: {other['name']}")).rows[0].wrong, "")
        self.assertEqual(Pump.objects.get(tag="P-7").build, {option["key"]: other["key"]})
        self.assertFalse({"means", "scope"} & {one["key"] for one in found["options"]})
        self.assertEqual(self.client.get("/api/sheet-choices/none").status_code, 404)

    def client_of(self, name):
        self.client.force_login(User.objects.get(username=name))
        return self.client

    def test_a_retired_pump_comes_to_the_bench_no_more_and_is_found_apart(self):
        number = self.open()
        with self.assertRaisesRegex(FieldError, "H-1 is on the bench"):
            retire_pump(self.lena, "H-1", True)
        retire_pump(self.lena, "G-1", True)
        with self.assertRaisesRegex(FieldError, "G-1 is retired"):
            self.open("G-1")
        client = self.client_of("tom")
        for asked, tags in (("", ["G-1", "H-1"]), ("?retired=false", ["H-1"]), ("?retired=true", ["G-1"])):
            self.assertEqual([line["tag"] for line in client.get(f"/api/pumps{asked}").json()["lines"]], tags)
        self.assertEqual(Pump.objects.get(tag="G-1").retired_by, self.lena)
        retire_pump(self.lena, "G-1", False)
        self.assertEqual(self.open("G-1"), number + 1)

    def test_two_pumps_of_one_maker_with_one_serial_are_asked_about(self):
        new = AddPump("P-9", "wash", "hall", "1001", "test-pump", "cast iron", "oil", "50 mm2/s", "60 C", "5 bar", "300")
        with self.assertRaisesRegex(Unlikely, "has serial 1001 of"):
            add_pump(self.lena, new, Entry())
        self.assertEqual(add_pump(self.lena, new, Entry(meant=True)).serial, "1001")
        edited = EditPump(**{**vars(new), "service": "rinse"}, version=1)
        self.assertEqual(edit_pump(self.lena, "P-9", edited, Entry()).service, "rinse")
