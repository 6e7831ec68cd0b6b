"""Fleet and toolbox: what goes in, what is refused, what is shown in either unit."""

from dataclasses import asdict, replace

from django.db import IntegrityError, transaction
from django.utils import timezone

from finegap.api.plain import plain
from finegap.bench.models import Reading
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.formatting import Units
from finegap.inventory.changes import CountPieces
from finegap.inventory.models import Certificate, Gauge, ShelfLine
from finegap.inventory.queries import gauge_responses, shelf, shelf_responses
from finegap.inventory.services import count_pieces
from finegap.pumps.changes import AddPump
from finegap.pumps.models import Pump
from finegap.pumps.services import add_pump
from finegap.sheets.queries import revision_of, sheet_detail, sheet_lines, sheets
from tests.apps.base import SYSTEMS, Works, job_view, overhauls, pump_lines, pump_page, seen

GOOD = AddPump("N-9", "s", "here", "7", "test-pump", "cast iron", "oil", "300 SSU", "140 F", "75 psi", "400")


class Fleet(Works):
    def test_a_pump_is_kept_as_typed_and_as_converted(self):
        pump = add_pump(self.lena, GOOD, Entry())
        self.assertEqual(pump.viscosity_typed, "300 SSU")
        # 300 SSU at 100 F is 64.7 mm2/s (ASTM D2161: 4.632 SSU a mm2/s above 75, a little more below)
        self.assertAlmostEqual(pump.viscosity_mm2_s, 64.7, delta=0.2)
        self.assertAlmostEqual(pump.temperature_c, 60.0)
        self.assertAlmostEqual(pump.casing_c, 60.0)
        self.assertAlmostEqual(pump.pressure_bar, 5.171, 3)

    def test_what_cannot_be_is_refused_by_its_field(self):
        before = Pump.objects.count()
        for change, field in (
            ({"sheet": "nope"}, "sheet"),
            ({"material": "brass"}, "material"),
            ({"viscosity": "46 cP"}, "viscosity"),
            ({"viscosity": "0 mm2/s"}, "viscosity"),
            ({"temperature": "warm"}, "temperature"),
            ({"temperature": "-300 C"}, "temperature"),
            ({"pressure": "-1 bar"}, "pressure"),
            ({"pressure": "5 mm"}, "pressure"),
            ({"casing": "5 bar"}, "casing temperature"),
            ({"tag": "H/9"}, "tag"),
            ({"tag": ".."}, "tag"),
            ({"speed": "1,750 rpm"}, "speed"),
            ({"pressure": "500 bar"}, "pressure"),
            ({"tag": "H-1"}, "tag"),
        ):
            with self.subTest(change=change), self.assertRaises(FieldError) as caught:
                add_pump(self.lena, replace(GOOD, **change), Entry())
            self.assertEqual(caught.exception.field, field)
        self.assertEqual(Pump.objects.count(), before)

    def test_the_database_itself_refuses_what_cannot_be(self):
        pump = Pump.objects.get(tag="H-1")
        for name in ("viscosity_mm2_s", "speed_r_min"):
            with self.assertRaises(IntegrityError), transaction.atomic():
                Pump.objects.filter(pk=pump.pk).update(**{name: 0})
        gauge = Gauge.objects.first()
        for change in ({"resolution": 0}, {"k": 0}, {"low": 99, "high": 1}):
            with self.assertRaises(IntegrityError), transaction.atomic():
                Certificate.objects.filter(gauge=gauge).update(**change)
        with self.assertRaises(IntegrityError), transaction.atomic():
            ShelfLine.objects.update(count=-1)
        number = self.open()
        self.read(number, "idler_bore", "front/12–6", "30.05")
        with self.assertRaises(IntegrityError), transaction.atomic():
            Reading.objects.update(struck_at=timezone.now())

    def test_duty_is_shown_in_either_unit_and_a_job_keeps_its_own(self):
        number = self.open()
        Pump.objects.filter(tag="H-1").update(temperature_c=90.0)
        shown = {u: pump_page("H-1", u) for u in SYSTEMS}
        self.assertEqual((shown[Units.MM].duty.temperature, shown[Units.IN].duty.temperature), ("90 °C", "194 °F"))
        self.assertEqual(shown[Units.MM].line.on_bench, number)

        self.assertEqual(job_view(number, Units.MM).duty.temperature, "60 °C")

    def test_a_signed_overhaul_shows_the_gap_it_was_left_with(self):
        import uuid

        from finegap.bench import changes, services

        number = self.finished()
        services.sign_off(self.seen(number), changes.Sign(uuid.uuid4()))
        line = next(p for p in pump_lines(Units.IN) if p.tag == "H-1")
        self.assertEqual((line.on_bench, overhauls("H-1", Units.IN)[0].gap), (None, "0.005 in"))


class Toolbox(Works):
    def test_counting_gaskets(self):
        count_pieces(self.tom, CountPieces("gasket-pump", "5 thou", 3), Entry(Units.MM))
        count_pieces(self.tom, CountPieces("gasket-pump", "0.005", 4), Entry(Units.IN))
        line = ShelfLine.objects.get(thickness_um=127)
        self.assertEqual(line.count, 4)
        shown = {u: next(s.text for s in seen(plain(shelf_responses(shelf()), u)) if s.um == 127) for u in SYSTEMS}
        self.assertEqual(shown, {Units.MM: "0.127 mm", Units.IN: "0.0050 in"})
        for slug, thickness, count, field in (
            ("nope", "0.1 mm", 1, "sheet"),
            ("gasket-pump", "0", 1, "thickness"),
            ("gasket-pump", "11 mm", 1, "thickness"),
            ("gasket-pump", "0.1 um", 1, "thickness"),
            ("gasket-pump", "0.1 mm", -1, "count"),
            ("gasket-pump", "0.1 mm", 1000, "count"),
        ):
            with self.subTest(thickness=thickness, count=count), self.assertRaises(FieldError) as caught:
                count_pieces(self.tom, CountPieces(slug, thickness, count), Entry(Units.MM))
            self.assertEqual(caught.exception.field, field)

    def test_a_gauge_past_its_date_says_so(self):
        shapes = {g.tag: g for g in seen(plain(gauge_responses(Gauge.objects.all(), timezone.localdate())))}
        self.assertTrue(shapes["OLD"].overdue)
        self.assertFalse(shapes["M-1"].overdue)
        self.assertEqual(shapes["M-1"].expanded, "0.002 mm")


class Sheets(Works):
    def test_a_sheet_is_laid_out_as_printed_and_in_the_unit_asked_for(self):
        kept = revision_of("test-pump", None)
        metric, imperial = (asdict(sheet_detail(kept, u)) for u in SYSTEMS)
        self.assertEqual([r["viscosity"] for r in metric["rows"]], ["up to 100 mm2/s", "90 mm2/s and up"])
        self.assertEqual([r["printed"] for r in imperial["rows"]], ["0.12 mm", "0.20 mm"])
        self.assertEqual([r["clearance"] for r in imperial["rows"]], ["0.005 in", "0.008 in"])
        self.assertEqual(metric["torques"][:1], [["Lock nut", "80 N·m to 90 N·m", "dry", ""]])
        self.assertEqual(imperial["torques"][:1], [["Lock nut", "59 lbf·ft to 66 lbf·ft", "dry", ""]])
        self.assertEqual(metric["check"], "The printed arc agrees with diameter and lead.")
        self.assertIsNone(revision_of("test-pump", "99"))

    def test_the_list_says_which_pumps_use_a_sheet(self):
        lines = {line.slug: line for line in sheet_lines(list(sheets()))}
        self.assertEqual(lines["test-pump"].pumps, ["H-1"])
        self.assertEqual((lines["gasket-pump"].means, lines["test-pump"].means), ("gaskets", "housing"))
