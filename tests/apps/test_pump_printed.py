"""What is printed of a pump: labels, read back by a decoder, and the blank bench sheet."""

import io
import re
import uuid

import pypdfium2
import zxingcpp
from pypdf import PdfReader

from finegap.bench import changes, services
from finegap.core.errors import FieldError
from finegap.formats.labels import SHEETS, Label, as_pdf
from finegap.pumps.models import CODE_LETTERS, Pump, new_code
from finegap.pumps.services import retire_pump
from tests.apps.base import Asking


class Labels(Asking):
    def decoded(self, data):
        """What a decoder reads on the rendered pages (zxing-cpp on pdfium's pictures, 200 dots an inch)."""
        pages = pypdfium2.PdfDocument(data)
        return [code.text for page in pages for code in zxingcpp.read_barcodes(page.render(scale=200 / 72).to_pil())]

    def test_every_size_of_sheet_is_read_back_by_a_decoder(self):
        labels = [Label(f"P-{i}", "Tallow transfer", "88", new_code(), "") for i in range(3)]
        labels = [Label(one.tag, one.service, one.serial, one.code, f"https://pumps.works.example/p/{one.code}") for one in labels]
        for sheet in SHEETS:
            with self.subTest(sheet.key):
                self.assertEqual(
                    sorted(self.decoded(as_pdf(labels, sheet, sheet.count - 1))), sorted(one.address for one in labels)
                )

    def test_labels_lie_inside_the_page_and_on_none_other(self):
        for sheet in SHEETS:
            with self.subTest(sheet.key):
                for axis, count in ((0, sheet.across), (1, sheet.down)):
                    self.assertGreaterEqual(sheet.step[axis] + 1e-9, sheet.label[axis])
                    self.assertLessEqual(
                        sheet.first[axis] + (count - 1) * sheet.step[axis] + sheet.label[axis], sheet.page[axis] + 0.6
                    )

    def test_the_code_opens_its_pump_or_the_open_job_whatever_its_tag_is_now(self):
        (address,) = self.decoded(self.get("/api/labels.pdf?tag=H-1").content)
        code = re.fullmatch(r"http://testserver/p/(\w{6})", address)[1]
        self.assertTrue(set(code) <= set(CODE_LETTERS))
        Pump.objects.filter(tag="H-1").update(tag="H-100")
        self.assertEqual(self.get(f"/api/labels/{code.lower()}").json(), {"tag": "H-100", "job": None, "retired": None})
        number = self.open("H-100")
        self.assertEqual(self.get(f"/api/labels/{code}").json()["job"], number)
        services.abandon(self.seen(number), changes.Abandon(uuid.uuid4(), reason="x"))
        retire_pump(self.lena, "H-100", True)
        self.assertTrue(self.get(f"/api/labels/{code}").json()["retired"])
        self.get("/api/labels/ZZZZZZ", 404)

    def test_what_cannot_be_printed_says_why(self):
        for asked, status in (("size=a5", 422), ("first=22", 422), ("first=x", 422), ("q=nothing", 404), ("sort=colour", 422)):
            with self.subTest(asked):
                self.get(f"/api/labels.pdf?{asked}", status)
        with self.assertRaisesRegex(FieldError, "too fine to be read"):
            as_pdf([Label("P", "", "", "ABCDEF", "https://" + "x" * 900)], SHEETS[4])


class BlankSheet(Asking):
    def test_it_has_every_size_its_limits_and_a_box_a_station_in_either_unit(self):
        number = self.open()
        features = [f for f in self.family(number).features if f.stations]
        for unit, pin in (("mm", "29.9"), ("in", "1.18")):
            pages = PdfReader(io.BytesIO(self.get(f"/api/pumps/H-1/bench-sheet.pdf?unit={unit}").content)).pages
            text = "\n".join(page.extract_text() for page in pages)
            self.assertIn(pin, text)
            for feature in features:
                self.assertIn(feature.name.split(",")[0], text)
            self.assertIn("Isolate, lock and tag", text)
            self.assertIn({"mm": "Sizes, in mm", "in": "Sizes, in inches"}[unit], text)
            for station in (station for feature in features for station in feature.stations):
                self.assertIn(station.label, text, "A place that is cut could be another.")
        self.get("/api/pumps/none/bench-sheet.pdf", 404)
