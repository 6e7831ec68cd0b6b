"""Build at the bench: stacks, the torque log, press fits, grease guns, quick figures; what is refused leaves nothing behind."""

import io
import json
import os
import subprocess
import sys
import uuid
from unittest import mock

import jsonschema
from django.conf import settings
from django.core.management import call_command
from django.test import Client
from django.utils import timezone

from finegap.api.errors import Refused
from finegap.api.plain import plain
from finegap.bench import changes, services
from finegap.bench.models import Event, Job, PartFitted, StepMark, TorqueMark
from finegap.core.calculators import CALCULATORS
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.families.steps import Stage
from finegap.core.formatting import Units
from finegap.core.job_record import Decided, Phase
from finegap.inventory.changes import WeighGun
from finegap.inventory.models import Certificate, GreaseGun
from finegap.inventory.services import weigh_gun
from finegap.sheets.changes import SheetFile
from finegap.sheets.models import Sheet
from finegap.sheets.queries import revision_of, sheet_detail
from tests.apps.base import SYSTEMS, Works, add_revision, job_view, sheet_data, text_of
from tests.core.test_build_work import PRESS
from tests.core.test_building import TYPED
from tests.references import VALUES


class Building(Works):
    def setUp(self):
        self.number = self.open()
        services.use_at_bench(self.seen(self.number), changes.UseAtBench("mineral grease"))

    def view(self, unit=Units.MM):
        return job_view(self.number, unit)

    def stack(self, place="bearing"):
        return next(s for s in self.view().tasks if s.key == f"stack:{place}")

    def fit(self, part, place="bearing", **more):
        services.fit_part(self.seen(self.number), changes.FitPart(uuid.uuid4(), place, part, **{"confirmed": True} | more))

    def log(self, typed="85", fastener="lock nut", number=1, bolts=(1,), unit=Units.MM, **more):
        new = changes.LogTorque(uuid.uuid4(), fastener, number, list(bolts), typed, **({"wrench": "W-1"} | more))
        seen = services.JobRef(self.tom, self.number, Job.objects.get(number=self.number).version, Entry(unit))
        services.log_torque(seen, new)
        return new.id

    def unchanged_by(self, what, said, error=FieldError):
        before = Job.objects.get(number=self.number).version, PartFitted.objects.count(), TorqueMark.objects.count()
        with self.assertRaises(error) as caught:
            what()
        self.assertIn(said, str(caught.exception))
        after = Job.objects.get(number=self.number).version, PartFitted.objects.count(), TorqueMark.objects.count()
        self.assertEqual(after, before)

    def before(self, step):
        """What a step stands on is there: recorded plainly, as it is not what is tested."""
        needs = next(s for s in self.family(self.number).steps if s.key == step).needs
        job = Job.objects.get(number=self.number)
        StepMark.objects.bulk_create(
            StepMark(id=uuid.uuid4(), job=job, step=key, by=self.tom, at=timezone.now(), zone_min=0) for key in needs
        )


class Stacks(Building):
    def test_part_by_part_and_the_step_waits_for_the_last(self):
        self.steps(self.number, Stage.PREPARE)
        self.before("thrust_built")
        keys = [p.key for p in self.stack().parts]
        self.unchanged_by(lambda: self.fit(keys[1]), "out of order")
        self.unchanged_by(lambda: self.fit(keys[0], confirmed=False), "not confirmed")
        self.unchanged_by(lambda: self.fit(keys[0], place="roof"), "nothing is stacked")
        step = lambda: services.mark_step(self.seen(self.number), changes.MarkStep(uuid.uuid4(), "thrust_built"))  # noqa: E731
        self.unchanged_by(step, "not complete", Refused)
        for key in keys:
            self.fit(key)
        step()
        self.assertEqual((self.stack().next, StepMark.objects.filter(step="thrust_built").count()), ("", 1))
        self.assertIn("lip as the maker's manual shows it", PartFitted.objects.get(part="outer_lip").directions)
        self.unchanged_by(lambda: self.fit(keys[0]), "in already")

    def test_the_same_tick_twice_is_one(self):
        seen, key = self.seen(self.number), uuid.uuid4()
        for _ in range(2):
            services.fit_part(seen, changes.FitPart(key, "bearing", "inner_lip", confirmed=True, reason="asked"))
        self.assertEqual(PartFitted.objects.count(), 1)

    def test_taken_out_again_with_what_came_after_and_its_step_is_open(self):
        self.steps(self.number, Stage.PREPARE)
        self.before("thrust_built")
        for part in self.stack().parts:
            self.fit(part.key)
        services.mark_step(self.seen(self.number), changes.MarkStep(uuid.uuid4(), "thrust_built"))
        out = PartFitted.objects.get(part="outer_lip").id
        self.strike(self.number, "part", out)
        self.assertEqual(self.stack().next, "outer_lip")
        self.assertEqual([p.fitted for p in self.stack().parts], [True] + [False] * (len(self.stack().parts) - 1))
        self.assertFalse(StepMark.objects.standing().filter(step="thrust_built").exists())
        self.assertIn("open again: Bearing housing built on the bench", Event.objects.last().what)
        self.unchanged_by(lambda: self.strike(self.number, "part", out), "struck out already")

    def test_a_wrong_lubricant_stops_it_and_the_reason_says_why(self):
        services.set_details(self.seen(self.number), changes.SetDetails(medium="water"))
        of = json.loads(json.dumps(sheet_data(revision="2", details={"elastomer": "EPDM"})))
        add_revision(self.lena, SheetFile(json.dumps(of)))
        Job.objects.update(revision=Sheet.objects.get(slug="test-pump").revisions.get(revision="2"))
        self.unchanged_by(lambda: self.fit("inner_lip", reason="it was all we had"), "Is destroyed by it")
        services.use_at_bench(self.seen(self.number), changes.UseAtBench("silicone"))
        self.fit("inner_lip")
        with self.assertRaisesRegex(FieldError, "not in the table"):
            services.use_at_bench(self.seen(self.number), changes.UseAtBench("butter"))

    def test_an_arrangement_declared_on_a_sheet_is_on_the_bench_and_a_wrong_one_is_refused_with_its_line(self):
        parts = [
            {"key": "cup", "name": "Cup", "shape": "washer", "facing": "open side up", "points": "drive", "marks": ["pip"],
             "lines_up": [{"mark": "pip", "to": "keyway", "of": "shaft"}], "always_new": True},
            {"key": "cone", "name": "Cone", "shape": "disc spring", "points": "rotor"},
        ]  # fmt: skip
        stack = {"key": "cup_seal", "name": "Cup seal", "place": "seal", "fixed": {"shaft": ["keyway"]}, "parts": parts}
        add_revision(self.lena, SheetFile(json.dumps(sheet_data(revision="2", stacks=[stack]))))
        Job.objects.update(revision=Sheet.objects.get(slug="test-pump").revisions.get(revision="2"))
        shown = self.stack("seal")
        self.assertEqual((shown.name, [p.name for p in shown.parts]), ("Cup seal", ["Cup", "Cone"]))
        self.assertEqual(shown.parts[0].directions, ["open side up", "pip to the keyway of the shaft"])
        parts[0]["lines_up"][0]["to"] = "flat"
        text = json.dumps(sheet_data(revision="3", stacks=[stack]), indent=1)
        with self.assertRaises(FieldError) as caught:
            add_revision(self.lena, SheetFile(text))
        self.assertIn("lines up with nothing: shaft has no flat", caught.exception.problem)
        line = int(caught.exception.field.split(",")[0].removeprefix("line "))
        self.assertIn("stacks[0].parts[0].lines_up[0]", caught.exception.field)
        self.assertIn('"mark": "pip"', "\n".join(text.splitlines()[line - 1 : line + 2]))


class TorqueLog(Building):
    def test_with_an_adapter_the_nut_gets_more_than_the_wrench_says(self):
        # T = Ts (L + E cos 0) / L: 80 at the wrench, 400 and 25 mm, is 85 at the nut
        self.log("80", wrench_length="400", adapter="25", angle="0")
        mark = TorqueMark.objects.get()
        self.assertEqual((round(mark.set_n_m, 6), round(mark.at_nut_n_m, 6)), (80, 85))
        shown = next(t for t in self.view().tasks if t.key == "torque:lock nut").log[0]
        self.assertEqual((shown.typed, shown.at_nut, shown.adapter), ("80 N.m", "85.0 N·m", "adapter 25 mm at 0° on 400 mm"))

    def test_a_bare_number_is_in_the_unit_on_screen(self):
        self.log("63", unit=Units.IN)
        self.assertAlmostEqual(TorqueMark.objects.get().at_nut_n_m, 63 * 1.3558179483314, 6)  # NIST SP 811

    def test_what_cannot_be_logged(self):
        for change, said in (
            ({"typed": ""}, "torque"), ({"typed": "85 bar"}, "torque"), ({"typed": "-85"}, "torque"), ({"typed": "95"}, "outside"),
            ({"typed": "300"}, "does not reach"), ({"typed": "5"}, "does not reach"), ({"wrench": ""}, "none was chosen"),
            ({"wrench": "M-1"}, "outside micrometer"), ({"wrench": "W-9"}, "no W-9"), ({"bolts": (2,)}, "out of order"),
            ({"number": 2}, "pass 2 is not in hand"), ({"fastener": "wheel nut"}, "not tightened in this job"),
            ({"adapter": "25"}, "wrench, length"), ({"adapter": "500", "wrench_length": "400"}, "not shorter than the wrench"),
            ({"adapter": "25", "wrench_length": "400", "angle": "200"}, "angle"),
        ):  # fmt: skip
            with self.subTest(change=change):
                self.unchanged_by(lambda change=change: self.log(**change), said)

    def test_struck_out_with_what_came_after_and_the_log_keeps_it(self):
        first = self.log("16.8", "head bolts", 1, (1, 3))
        self.log("16.8", "head bolts", 1, (2, 4))
        self.unchanged_by(lambda: self.strike(self.number, "torque", first, " "), "reason")
        self.strike(self.number, "torque", first, "gasket slipped")
        self.assertEqual(TorqueMark.objects.exclude(struck_reason="").count(), 2)
        one = next(t for t in self.view().tasks if t.key == "torque:head bolts")
        self.assertEqual((one.pass_number, one.left, len(one.log)), (1, [1, 3, 2, 4], 2))
        self.unchanged_by(lambda: self.strike(self.number, "torque", first, "again"), "struck out already")

    def test_a_wrench_past_its_date_needs_a_lead_and_is_printed_so(self):
        Certificate.objects.filter(gauge__tag="W-1").update(due="2001-01-01")
        self.log()
        blocker = next(b for b in self.view().blockers if "W-1" in b.sentence)
        self.assertTrue(blocker.lead_may)
        text = text_of(plain(self.view()))
        self.assertIn("OVERDUE", text)


class Whole(Building):
    def test_a_nut_that_is_not_logged_cannot_be_signed_past_even_by_a_lead(self):
        Job.objects.all().delete()
        self.number = self.finished()
        mark = TorqueMark.objects.filter(fastener="lock nut").get()
        self.strike(self.number, "torque", mark.id, "the wrong wrench")
        with self.assertRaises(Refused) as caught:
            services.sign_off(self.seen(self.number, self.lena), changes.Sign(uuid.uuid4(), reason="never mind"))
        self.assertTrue(any("Lock nut: torque not logged." in r for r in caught.exception.reasons))

    def test_the_report_holds_what_was_fitted_and_tightened(self):
        self.fit("retainer", "seal")
        self.fit("packing", "seal", reused=True, reason="spare on order")
        self.log("80", wrench_length="400", adapter="25", angle="0")
        text = " ".join(text_of(plain(self.view())).split())
        self.assertIn("Packing with a one-piece gland: 2 of 3 parts in order, Tom.", text)
        self.assertIn("Packing ring used again: spare on order", text)
        self.assertIn("W-1 torque wrench 10 to 250 N·m", text)
        self.assertIn("85.0 N·m with W-1 (no certificate, adapter 25 mm at 0° on 400 mm)", text)

    def test_a_press_fit_from_its_sizes_to_the_bore_after_pressing(self):
        add_revision(self.lena, SheetFile(json.dumps(sheet_data(revision="2", press_fits=PRESS))))
        Job.objects.all().delete()
        self.number = self.open()
        self.measure_all(self.number)
        self.read(self.number, "bushing_bore", "front/12–6", "40.25")
        services.decide(self.seen(self.number), changes.Decide(uuid.uuid4(), "bushing_bore", Decided.CHANGE))
        step = next(s for s in self.view().steps if s.key == "bushings")
        self.assertEqual(step.measures, ["bushing_bore"])
        Certificate.objects.filter(gauge__tag__in=["M-1", "B-1"]).update(high=60)
        for key, mm in (("bushing_outside", 50.042), ("bushing_seat", 50.010), ("bushing_free", 40.090)):
            for station in self.family(self.number).by_key[key].stations:
                self.read(self.number, key, station.key, f"{mm} mm", phase=Phase.LEFT.value)
        press = next(t for t in self.view().tasks if t.kind == "press")
        self.assertTrue(press.ready)
        self.assertEqual([line.status for line in press.lines], ["good"] * len(press.lines))
        inches = next(t for t in job_view(self.number, Units.IN).tasks if t.kind == "press")
        self.assertIn("ksi", inches.lines[1].text)

    def test_only_steps_of_what_was_opened_can_be_marked(self):
        services.mark_step(self.seen(self.number, self.lena), changes.MarkStep(uuid.uuid4(), "packing_out", skip="not touched"))
        self.assertNotIn("packing_now", [s.key for s in self.view().steps])
        with self.assertRaisesRegex(FieldError, "packing_now"):
            services.mark_step(self.seen(self.number), changes.MarkStep(uuid.uuid4(), "packing_now"))


class OnPaper(Building):
    def test_a_sheet_shows_what_it_says_about_building_in_the_unit_asked_for(self):
        packing = {"section": "10 mm", "rings": 4, "joints": "quarter", "lantern_after": 2}
        bearings = [{"name": "Thrust bearing", "outside": "90 mm", "width": "34 mm"}]
        nut = {"fastener": "Nut", "torque": ["9 N.m", "11 N.m"], "thread": "M40x1.5", "slots": 4, "tangs": 15, "turn": "7 deg"}
        sheet = sheet_data(revision="2", press_fits=PRESS, packing=packing, bearings=bearings, torques=[nut])
        add_revision(self.lena, SheetFile(json.dumps(sheet)))
        metric, inch = (sheet_detail(revision_of("test-pump", "2"), units) for units in SYSTEMS)
        self.assertEqual(
            metric.building,
            [
                ["Bushing", "50 H7/r6, 40.00 mm long, tin bronze in cast iron"],
                ["Packing", "4 rings of 10.00 mm, joints every 90 degrees, lantern ring after 2"],
                ["Thrust bearing", "90.00 × 34.00 mm, grease"],
            ],
        )
        self.assertIn("1.575 in long", inch.building[0][1])
        self.assertEqual(metric.torques[0][3], "M40x1.5, 4 slots, 15 tangs")


class Guns(Building):
    def test_weighed_and_weighed_again(self):
        weigh_gun(self.tom, WeighGun("G-1", "lithium", "5"), Entry(Units.MM))
        weigh_gun(self.tom, WeighGun("G-1", "lithium", "0.2"), Entry(Units.IN))
        self.assertAlmostEqual(GreaseGun.objects.get().grams_per_ten_strokes, 5.67, 2)
        services.use_at_bench(self.seen(self.number), changes.UseAtBench(gun="G-1"))
        self.assertEqual(self.view().building.gun, "G-1")
        with self.assertRaisesRegex(FieldError, "no G-2"):
            services.use_at_bench(self.seen(self.number), changes.UseAtBench(gun="G-2"))
        for new, field in (
            (WeighGun("", "lithium", "5"), "gun"), (WeighGun("G", " ", "5"), "grease"),
            (WeighGun("G", "lithium", "0"), "ten strokes"),
            (WeighGun("G", "lithium", "5 bar"), "ten strokes"), (WeighGun("G", "lithium", "5 kg"), "ten strokes"),
        ):  # fmt: skip
            with self.subTest(new=new), self.assertRaises(FieldError) as caught:
                weigh_gun(self.tom, new, Entry(Units.MM))
            self.assertEqual(caught.exception.field, field)
        self.assertEqual(GreaseGun.objects.count(), 1)

    def test_quick_figures_over_http(self):
        client = Client()
        client.force_login(self.tom)
        names = {s["key"] for s in client.get("/api/sums").json()}
        typed = {"unit": "mm", "mark": "point", "person": "tom"}
        for key in names:
            answer = client.post(f"/api/sums/{key}", typed | {"given": {}}, content_type="application/json")
            self.assertEqual(answer.status_code, 422, key)
            self.assertTrue(answer.json()["field"], key)
        given = typed | {"unit": "in", "given": {"shaft": "2", "section": "0,375", "rings": "4"}}
        lines = client.post("/api/sums/packing?unit=in", given, content_type="application/json").json()
        self.assertEqual(lines[0]["name"], "Cut each ring")
        self.assertEqual(client.post("/api/sums/nothing", typed | {"given": {}}, content_type="application/json").status_code, 422)


class Shell(Works):
    def calc(self, *arguments, given="{}"):
        out, err = io.StringIO(), io.StringIO()
        with mock.patch("sys.stdin", io.StringIO(given)):
            try:
                call_command("calc", *arguments, stdout=out, stderr=err)
            except SystemExit as left:
                return left.code, json.loads(err.getvalue())
        return 0, json.loads(out.getvalue())

    def test_the_same_numbers_as_the_page_unrounded_with_their_working(self):
        code, told = self.calc("packing", given='{"shaft": 50, "section": "10 mm", "rings": 4}')
        line = told["lines"][0]
        self.assertEqual((code, line["name"], line["text"]), (0, "Cut each ring", "188.50 mm"))
        self.assertAlmostEqual(line["amounts"]["value"]["value"], VALUES["packing-ring-01"]["expected"]["length_mm"])
        self.assertEqual(line["working"]["formula"], "L = π·(d + s)")
        _, inch = self.calc("packing", "--units", "in", given='{"shaft": "50 mm", "section": "10 mm", "rings": "4"}')
        self.assertEqual(inch["lines"][0]["amounts"]["value"]["unit"], "in")
        listed = self.calc("leaves", given='{"leaves": [0.05, 0.1], "thickness": 0.15}')[1]
        self.assertEqual(listed["lines"][0]["text"], "0.050 mm + 0.100 mm = 0.150 mm")

    def test_without_django_it_answers_the_same_and_a_sum_loads_what_it_needs(self):
        check = (
            "import sys; from finegap import calc; code = calc.main(sys.argv[1:]); "
            "assert not {'django', 'scipy'} & set(sys.modules); sys.exit(code)"
        )
        for name, given, code in (("packing", '{"shaft": 50, "section": "10 mm", "rings": 4}', 0), ("packing", "[]", 2)):
            for run in (["-c", check, name], ["manage.py", "calc", name]):
                with self.subTest(given=given, run=run[0]):
                    done = subprocess.run(
                        [sys.executable, *run], input=given, capture_output=True, text=True, check=False, cwd=settings.BASE_DIR,
                        env={**os.environ, "DJANGO_SETTINGS_MODULE": "nowhere"},
                    )  # fmt: skip
                    told = json.loads(done.stderr if code else done.stdout)
                    self.assertEqual((done.returncode, told), self.calc(name, given=given))

    def test_each_is_listed_with_schemas_its_answer_keeps(self):
        _, listed = self.calc("--list")
        self.assertEqual({one["name"] for one in listed}, set(CALCULATORS))
        for one in listed:
            jsonschema.Draft202012Validator.check_schema(one["input"])
            typed = TYPED[one["name"]]
            jsonschema.validate(typed, one["input"])
            _, told = self.calc(one["name"], given=json.dumps(typed))
            jsonschema.validate(told, one["output"])

    def test_what_cannot_be_names_the_field_and_leaves_with_2(self):
        for name, given, field in (
            ("packing", "{", "input"), ("packing", "[]", "input"), ("packing", '{"shaft": true}', "shaft"),
            ("packing", '{"shaft": "50"}', "section"), ("nothing", "{}", "sum"), ("packing", '{"colour": "red"}', "colour"),
            ("arc", '{"diameter": 120, "lead": 0, "clearance": 0.1}', "lead, starts × pitch"),
        ):  # fmt: skip
            with self.subTest(given=given):
                code, told = self.calc(name, given=given)
                self.assertEqual((code, told["error"]["field"]), (2, field))
                self.assertTrue(told["error"]["hint"])
