"""Setting and proving through the services: several gaps at once, timing, cover gaskets, the run-in, the first hour."""

import json
import uuid

from django.db.models import Sum

from finegap.api.errors import Refused
from finegap.api.plain import plain
from finegap.bench import changes, services
from finegap.bench.models import PartFitted, ProofMark, RunInNote, SignOff, SizeOnRecord, TorqueMark, Try, TryCheck
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.families.steps import Stage
from finegap.core.formatting import Units
from finegap.formats import report
from finegap.inventory.changes import CountPieces
from finegap.inventory.models import Certificate, ShelfLine
from finegap.inventory.services import count_pieces
from finegap.pumps.changes import AddPump
from finegap.pumps.models import Pump
from finegap.pumps.services import add_pump
from finegap.sheets.changes import SheetFile
from finegap.sheets.queries import sheet_detail
from tests.apps.base import SYSTEMS, Works, add_revision, feeler, job_view, sheet_data

ANY = {"material": "stainless 316", "viscosity": ["any lower", "and up"], "setting": "all"}
PISTON = {
    "slug": "piston",
    "title": "Piston",
    "family": "circumferential_piston",
    "features": {key: {"new": ["0.10 mm", "0.20 mm"]} for key in ("front_drive", "back_drive", "front_driven", "back_driven")},
    "clearance_table": {
        "page": "1",
        "tolerance": {"minus": "0.03 mm", "plus": "0.03 mm"},
        "rows": [
            ANY | {"temperature": ["0 C", "70 C"], "end_clearance": "0.14 mm", "back_clearance": "0.20 mm"},
            ANY | {"setting": "hot", "temperature": ["60 C", "120 C"], "end_clearance": "0.18 mm", "back_clearance": "0.20 mm"},
        ],
    },
    "adjustment": {"means": "shims", "thicknesses": ["0.05 mm", "0.10 mm"], "starting_shims": "0.10 mm", "difference": "0.04 mm"},
    "timing": {"pitch_diameter": "84 mm", "marked_diameter": "132 mm", "gap": ["0.15 mm", "0.35 mm"], "difference": "0.05 mm"},
    "torques": [{"fastener": "Rotor nuts", "torque": ["80 N.m", "90 N.m"], "condition": "dry"}],
    "details": {},
    "slip": {"displacement": "0.6 L", "paths": [{"feature": "front_drive", "width": "90 mm", "length": "20 mm"}]},
}
NONE, TOUCHING = {"minus": "0 mm", "plus": "0 mm"}, {"minus": "0.14 mm", "plus": "0 mm"}
DUTY = {"viscosity": "50 mm2/s", "temperature": "40 C", "pressure": "5 bar", "speed": "300"}


def piston(**changes):
    data = sheet_data(**(PISTON | changes))
    data.pop("heat")
    return json.dumps(data)


class Several(Works):
    """A pump with shims for two rotors and a timing gear."""

    @classmethod
    def setUpTestData(cls):
        super().setUpTestData()
        add_revision(cls.lena, SheetFile(piston()))
        add_pump(cls.lena, AddPump("C-1", "test", "here", "1", "piston", "stainless 316", "oil", **DUTY), Entry())
        for thickness, count in (("0.05 mm", 6), ("0.10 mm", 4)):
            count_pieces(cls.lena, CountPieces("piston", thickness, count), Entry(Units.MM))

    def setUp(self):
        self.number = self.open("C-1")

    def view(self, units=Units.MM):
        return job_view(self.number, units)

    def shim(self, stacks, *gaps, **more):
        checks = [feeler(f"{g - 0.005:.3f}", f"{g + 0.005:.3f}") for g in gaps]
        services.record_try(self.seen(self.number), changes.RecordTry(uuid.uuid4(), checks, stacks_um=stacks, trial=True, **more))

    def mesh(self, left, right, moved="0", way="left"):
        checks = [feeler(f"{g - 0.005:.3f}", f"{g + 0.005:.3f}") for g in (left, right)]
        services.record_try(self.seen(self.number), changes.RecordTry(uuid.uuid4(), checks, changes.TryOf.MESH, moved, way))

    def on_shelf(self):
        return ShelfLine.objects.aggregate(n=Sum("count"))["n"]

    def test_from_the_trial_to_a_signature_with_one_shelf_for_both_shafts(self):
        before = self.on_shelf()
        self.shim([[100], [100]], 0.19, 0.15, 0.14, 0.20)
        setting = self.view().setting
        self.assertEqual(setting.headline, "Drive shaft: put in 0.05 mm")
        self.assertEqual([g.key for g in setting.gaps[:4]], ["front:1", "back:1", "front:2", "back:2"])
        self.assertIn("Drive shaft: put in 0.0020 in", self.view(Units.IN).setting.headline)
        self.assertEqual(self.on_shelf(), before - 2)
        self.shim([[100, 50], [100]], 0.14, 0.20, 0.14, 0.20)
        self.assertEqual(self.on_shelf(), before - 3)
        self.assertIn("Right on trial: now the torque of the rotor nuts", self.view().setting.headline)
        stage = next(s for s in self.view().stages if s.key == "set")
        self.assertEqual((stage.done, stage.of), (0, 2 + len(self.family(self.number).steps_of(Stage.SET))))
        self.assertIn("mesh gap has not been set", " ".join(b.sentence for b in self.view().blockers))
        self.mesh(0.28, 0.20)
        self.assertEqual((self.view().mesh.means.toward, self.view().mesh.means.arc), ("left", "0.06"))
        self.mesh(0.24, 0.24, "0.06")
        self.assertTrue(self.view().mesh.right)
        self.assertEqual(self.view().mesh.tries[-1].set_by, "arc 0.06 left")
        for feature in ("front_drive", "back_drive", "front_driven", "back_driven"):
            self.read(self.number, feature, "gap", "0.18", gauge="F-1")
        self.look_all(self.number)
        self.steps(self.number, Stage.PREPARE, Stage.STRIP, Stage.BUILD)
        self.assertIn("Check once more", self.view().setting.headline)
        self.shim([[100, 50], [100]], 0.14, 0.20, 0.14, 0.20)
        self.assertTrue(self.view().setting.right)
        self.steps(self.number, Stage.SET)
        self.steps(self.number, Stage.PROVE)
        self.assertEqual([b.sentence for b in self.view().blockers], [])
        services.sign_off(self.seen(self.number), changes.Sign(uuid.uuid4()))
        # each face goes on record with its own last check
        left = dict(SizeOnRecord.objects.filter(job__number=self.number).values_list("feature", "left_mm"))
        for feature, gap in (("front_drive", 0.14), ("back_drive", 0.20), ("mesh_left", 0.24)):
            self.assertAlmostEqual(left[feature], gap)
        record = plain(SignOff.objects.get().shown())
        self.assertEqual((record["mesh"]["means"]["kind"], record["setting"]["means"]["kind"]), ("timing", "shims"))
        self.assertTrue(report.as_pdf(self.view()).startswith(b"%PDF"))

    def test_a_cover_that_was_off_for_a_check_is_not_tight_any_more(self):
        self.shim([[100], [100]], 0.14, 0.20, 0.14, 0.20)
        self.build(self.number)
        cover = TorqueMark.objects.standing().filter(fastener="cover nuts")
        nuts = TorqueMark.objects.standing().filter(fastener="rotor nuts")
        before = nuts.count()
        self.assertTrue(PartFitted.objects.standing().filter(stack="cover_plate").exists())
        self.shim([[100], [100]], 0.14, 0.20, 0.14, 0.20)
        self.assertFalse(PartFitted.objects.standing().filter(stack="cover_plate").exists())
        self.assertEqual((cover.count(), nuts.count()), (0, before), "the rotors stay where they are")

    def test_each_face_is_told_the_leaves_that_prove_it(self):
        Certificate.objects.filter(gauge__tag="F-1").update(leaves_um=[30, 40, 50, 60, 70, 80, 90, 100, 120, 150, 200])
        for units in SYSTEMS:
            with self.subTest(units=units):
                gaps = self.view(units).setting.gaps
                told = [next(p for p in g.proofs if p.gauge == "F-1") for g in gaps if not g.derived]
                self.assertEqual(len(told), 4)
                checks = [changes.CheckGap(p.go.thickness, p.stop.thickness, gauge="F-1") for p in told]
                new = changes.RecordTry(uuid.uuid4(), checks, stacks_um=[[100], [100]], trial=True)
                services.record_try(self.seen(self.number, entry=Entry(units)), new)
                after = self.view(units).setting.gaps
                self.assertTrue(all(g.verdict == "Keep" for g in after), [(g.name, g.gap, g.verdict) for g in after])
                self.assertFalse(any(g.proofs for g in after if g.derived))
        # meshes are made alike: the leaves are told about what they come to
        self.mesh(0.28, 0.20)
        told = [next(p for p in g.proofs if p.gauge == "F-1") for g in self.view().mesh.gaps if not g.derived]
        checks = [changes.CheckGap(p.go.thickness, p.stop.thickness, gauge="F-1") for p in told]
        services.record_try(self.seen(self.number), changes.RecordTry(uuid.uuid4(), checks, changes.TryOf.MESH, "0.06", "left"))
        self.assertEqual(
            [(g.gap, g.verdict) for g in self.view().mesh.gaps], [("0.240", "Keep"), ("0.240", "Keep"), ("0.000", "Keep")]
        )
        # a thickness the set cannot make is asked about, and nothing is kept
        count = Try.objects.count()
        with self.assertRaisesRegex(FieldError, "no leaf of F-1"):
            checks = [changes.CheckGap("0.215", "0.26", gauge="F-1")] * 2
            services.record_try(self.seen(self.number), changes.RecordTry(uuid.uuid4(), checks, "mesh"))
        self.assertEqual(Try.objects.count(), count)

    def test_what_cannot_be_keeps_nothing(self):
        before = self.on_shelf()
        four = (0.14, 0.20, 0.14, 0.20)
        for stacks, gaps, says in (
            ([[100]], four, "Expected 2"), ([[100], [100, 100, 100, 100]], four, "the shelf has 4"),
            ([[-5], []], four, "above zero"),
            ([[100], [100]], four[:3], "Expected 4"), ([[100], [75]], four, "the shelf has 0"),
        ):  # fmt: skip
            with self.subTest(stacks=stacks), self.assertRaisesRegex(FieldError, says):
                self.shim(stacks, *gaps)
        with self.assertRaisesRegex(FieldError, "leaf that does not, back, driven shaft"):
            checks = [feeler("0.10", "0.11")] * 3 + [feeler("0.10", "")]
            services.record_try(self.seen(self.number), changes.RecordTry(uuid.uuid4(), checks, stacks_um=[[], []]))
        self.assertEqual((Try.objects.count(), TryCheck.objects.count(), self.on_shelf()), (0, 0, before))

    def test_at_or_above_the_body_face_nothing_is_signed(self):
        self.shim([[100], [100]], 0.14, 0.20, 0.14, 0.20)
        checks = [changes.CheckGap(read="-0.02", gauge="F-1")] + [feeler("0.19", "0.21")] * 3
        with self.assertRaises(FieldError):
            services.record_try(self.seen(self.number), changes.RecordTry(uuid.uuid4(), checks, stacks_um=[[100], [100]]))
        checks[0] = changes.CheckGap(read="0", gauge="F-1")
        services.record_try(self.meant(self.number), changes.RecordTry(uuid.uuid4(), checks, stacks_um=[[100], [100]]))
        hard = [b.sentence for b in self.view().blockers if not b.lead_may]
        self.assertTrue(any("never run at zero" in s for s in hard), hard)

    def test_a_pump_without_a_timing_gear_has_no_mesh_to_set(self):
        self.number = self.open("H-1")
        with self.assertRaises(Refused):
            self.mesh(0.2, 0.2)

    def test_the_range_of_the_duty_takes_the_wider_setting_and_slip_is_told(self):
        self.assertEqual(self.view().choice.target, "0.14 mm")
        services.set_details(
            self.seen(self.number), changes.SetDetails(start="20 C", hot="80 C", viscosity="VG 68; 8.6 mm2/s at 100 C")
        )
        view = self.view()
        self.assertEqual(view.choice.target, "0.18 mm")
        self.assertIn("the larger counts", view.choice.over)
        self.assertEqual((view.choice.map.way[0][1], view.choice.map.way[-1][1]), (20, 80))
        self.assertEqual(view.duty.viscosity, "68 mm²/s")  # read at the pumping temperature
        services.set_details(self.seen(self.number), changes.SetDetails(temperature="60 C"))
        self.assertNotEqual(self.view().duty.viscosity, "68 mm²/s")
        self.read(self.number, "front_drive", "gap", "0.30", gauge="F-1")
        found = self.view().slip.found
        self.assertIn("as new (0.150 mm) it gives", found[0].text)
        for wrong in ({"start": "70 C"}, {"hot": "20 C"}, {"viscosity": "90 cP"}, {"density": "9"}, {"viscosity": "VG 68"}):
            with self.subTest(wrong=wrong), self.assertRaises(FieldError):
                services.set_details(self.seen(self.number), changes.SetDetails(**wrong))
        self.assertEqual(self.view().choice.target, "0.18 mm")


class Sheets(Works):
    def test_means_heat_and_slip_that_cannot_be_name_their_place(self):
        rows = PISTON["clearance_table"]["rows"]
        bare = [{k: v for k, v in rows[0].items() if k != "back_clearance"}]
        for change, field in (
            ({"clearance_table": PISTON["clearance_table"] | {"rows": bare}}, "clearance_table.rows[0].back_clearance"),
            ({"clearance_table": PISTON["clearance_table"] | {"tolerance": NONE}}, "clearance_table.tolerance"),
            ({"clearance_table": PISTON["clearance_table"] | {"tolerance": TOUCHING}}, "clearance_table.tolerance.minus"),
            ({"adjustment": PISTON["adjustment"] | {"difference": "-1 mm"}}, "adjustment.difference"),
            ({"adjustment": PISTON["adjustment"] | {"difference": "0 mm"}}, "adjustment.difference"),
            ({"timing": PISTON["timing"] | {"pitch_diameter": "0 mm"}}, "timing.pitch_diameter"),
            ({"timing": PISTON["timing"] | {"gap": ["0.3 mm", "0.1 mm"]}}, "timing.gap"),
            ({"slip": {"displacement": "0 L", "paths": [{"feature": "front_drive"}]}}, "slip.displacement"),
            ({"slip": {"displacement": "1 L", "paths": [{"feature": "front_drive"}]}}, "slip.paths"),
            ({"slip": {"displacement": "1 L", "paths": [{"feature": "wings"}]}}, "slip.paths[0].feature"),
            ({"packing": {"section": "8 mm", "rings": 4, "drops": [9, 3]}}, "packing.drops"),
            ({"adjustment": {"means": "gaskets", "thicknesses": ["1 mm"], "starting_gasket": "1 mm", "between": ["wings", "hubs"]}},
             "adjustment.between[0]"),
        ):  # fmt: skip
            with self.subTest(field=field), self.assertRaises(FieldError) as caught:
                add_revision(self.lena, SheetFile(piston(**change)))
            self.assertTrue(caught.exception.field.endswith(field), caught.exception.field)

    def test_every_means_is_told_on_the_sheets_page(self):
        add_revision(self.lena, SheetFile(piston()))
        told = {}
        for slug, adjustment in (("ring", {"means": "ring"}), ("coupling", {"means": "coupling", "depth": ["1 mm", "1.5 mm"]}),
                                 ("fixed", {"means": "fixed"})):  # fmt: skip
            revision = add_revision(self.lena, SheetFile(json.dumps(sheet_data(slug=slug, title=slug, adjustment=adjustment))))
            told[slug] = dict(sheet_detail(revision, Units.MM).adjustment)["Means"]
        self.assertEqual(len(set(told.values())), 3)
        self.assertIn("sleeve coupling", told["coupling"])


class Sizes(Works):
    def test_measured_lengths_tell_the_first_cover_gasket(self):
        lengths = {key: {"new": ["179.9 mm", "180.1 mm"]} for key in ("rotor_length", "cylinder_length")}
        data = sheet_data(
            slug="vane", title="Vane", family="sliding_vane", features={"side_gap": {"new": ["0.1 mm", "0.3 mm"]}} | lengths,
            adjustment={"means": "gaskets", "thicknesses": ["0.05 mm", "0.10 mm"], "starting_gasket": "0.10 mm",
                        "between": ["cylinder_length", "rotor_length"]},
            details={},
        )  # fmt: skip
        data.pop("heat")
        counted = data | {"features": data["features"] | {"vane_height": {"new": ["9.9 mm", "10.1 mm"]}}}
        with self.assertRaisesRegex(FieldError, "details.vanes: it prints .*and not how many there are"):
            add_revision(self.lena, SheetFile(json.dumps(counted)))
        add_revision(self.lena, SheetFile(json.dumps(data)))
        add_pump(
            self.lena, AddPump("V-1", "test", "here", "1", "vane", "cast iron", "air", **DUTY | {"pressure": "1 bar"}), Entry()
        )
        for thickness in ("0.05 mm", "0.10 mm"):
            count_pieces(self.lena, CountPieces("vane", thickness, 4), Entry(Units.MM))
        number = self.open("V-1")
        self.assertIn("Start with 0.10 mm under the cover", job_view(number, Units.MM).setting.headline)
        for key, size in (("rotor_length", "179.950"), ("cylinder_length", "179.970")):
            for station in self.family(number).by_key[key].stations:
                self.read(number, key, station.key, size, gauge="OLD")
        told = job_view(number, Units.MM).setting
        self.assertIn("Start with 0.10 mm under the cover", told.headline)
        self.assertIn("179.970 mm less 179.950 mm", told.details[0])
        services.record_try(
            self.seen(number), changes.RecordTry(uuid.uuid4(), [feeler("0.11", "0.13")], stacks_um=[[100]], trial=True)
        )
        after = job_view(number, Units.MM).setting
        self.assertTrue(after.right)
        self.assertEqual(after.name, "total side gap")


class Zero(Works):
    def test_play_by_the_arc_turned_before_the_rotor_follows(self):
        number = self.open()
        services.set_zero(
            self.seen(number), changes.SetZero(uuid.uuid4(), "close to first drag", lash_arc="6.28 mm")
        )  # 100 mm housing, lead 2 mm
        housing = job_view(number, Units.MM).setting.means
        self.assertEqual((housing.lash, housing.prescribed), ("0.040 mm", "close to first drag"))
        self.assertIn("0.040 mm", housing.lash_does)
        services.set_zero(self.seen(number), changes.SetZero(uuid.uuid4(), "back off from bind", lash="0.03 mm"))
        self.assertIn("closing takes 0.030 mm up first", job_view(number, Units.MM).setting.means.lash_does)
        for given in ({"lash": "0.1", "lash_arc": "1"}, {"lash_arc": "-1"}, {"lash_arc": "500 mm"}):
            with self.subTest(given=given), self.assertRaises(FieldError):
                services.set_zero(self.seen(number), changes.SetZero(uuid.uuid4(), "back off from bind", **given))

    def test_an_arc_that_was_cleared_is_no_arc_of_nothing(self):
        number = self.open()
        services.set_zero(self.seen(number), changes.SetZero(uuid.uuid4(), "close to first drag"))
        for typed, way, field in (("", "open", "arc"), (" ", "close", "arc"), ("5 mm", "", "way"), ("5 mm", "in", "way")):
            with self.subTest(typed=typed, way=way), self.assertRaises(FieldError) as caught:
                new = changes.RecordTry(uuid.uuid4(), [feeler("0.13", "0.15")], moved=typed, way=way)
                services.record_try(self.seen(number), new)
            self.assertEqual(caught.exception.field, field)
        self.assertEqual(job_view(number, Units.MM).setting.tries, [])
        for typed, way in (("30 mm", "open"), ("5 mm", "close"), ("0", "open")):
            new = changes.RecordTry(uuid.uuid4(), [feeler("0.17", "0.19")], moved=typed, way=way)
            services.record_try(self.meant(number), new)
        told = [one.set_by for one in job_view(number, Units.MM).setting.tries]
        self.assertEqual(told, ["arc 30.0 opened", "arc 5.0 closed", "arc 0.0"])


class Proving(Works):
    def setUp(self):
        self.number = self.open()

    def view(self, units=Units.MM):
        return job_view(self.number, units)

    def task(self, kind, units=Units.MM):
        return next(task for task in self.view(units).tasks if task.kind == kind)

    def note(self, **given):
        services.note_run_in(self.meant(self.number), changes.NoteRunIn(uuid.uuid4(), **given))

    def test_a_tight_spot_holds_its_step_and_the_signature_until_the_shaft_is_free(self):
        with self.assertRaisesRegex(Refused, "not complete"):
            services.mark_step(self.seen(self.number), changes.MarkStep(uuid.uuid4(), "free_turn"))
        self.see(self.number, "turning", places=["4", "11"])
        self.assertIn("tight at 4, 11 o'clock", " ".join(b.sentence for b in self.view().blockers if not b.lead_may))
        with self.assertRaises(Refused):
            services.mark_step(self.seen(self.number), changes.MarkStep(uuid.uuid4(), "free_turn"))
        self.see(self.number, "turning")
        self.assertEqual((ProofMark.objects.standing().count(), ProofMark.objects.count()), (1, 2))
        with self.assertRaisesRegex(Refused, "comes before") as caught:
            services.mark_step(self.seen(self.number), changes.MarkStep(uuid.uuid4(), "free_turn"))
        self.assertIn("has not been set and checked", " ".join(caught.exception.reasons))
        with self.assertRaisesRegex(FieldError, "no hour of the clock"):
            self.see(self.number, "turning", places=["13"])

    def test_end_play_is_held_against_the_width_of_the_window(self):
        """Common practice, no source: no appreciable end play. The test window is 0.04 mm wide."""
        for typed, status in (("0.03", "good"), ("0.002 in", "care")):
            self.see(self.number, "end-play", typed)
            self.assertEqual(self.task("end-play").line.status, status, typed)
        for wrong in ("-0.1", "", "5 bar"):
            with self.subTest(wrong=wrong), self.assertRaises(FieldError):
                self.see(self.number, "end-play", wrong)
        with self.assertRaisesRegex(FieldError, "only the turning"):
            self.see(self.number, "end-play", "0.03", places=["x"])

    def test_a_gap_moved_afterwards_has_to_be_proved_again(self):
        self.see(self.number, "turning")
        self.see(self.number, "pressure", "5 bar")
        self.set_housing(self.number)
        self.assertEqual(self.task("first-hour").seen, [])
        self.assertEqual(self.task("turning").seen, None)

    def test_a_heating_episode_from_begin_to_run_in(self):
        coach = self.task("run-in")
        self.assertEqual(coach.say, "begin")
        said = []
        for line in (
            {"minute": "0", "drops": "60", "box": "25 C"}, {"minute": "12", "drops": "55", "box": "31 C", "eighths": 1.0},
            {"minute": "24", "drops": "30", "box": "90 C", "eighths": -1.0}, {"minute": "32", "drops": "45", "box": "84 C"},
            {"minute": "50", "drops": "40", "box": "60 C"}, {"minute": "52", "taps_s": [0, 7.5, 15, 22.5], "box": "61 C"},
            {"minute": "64", "drops": "8", "box": "62 C"}, {"minute": "75", "drops": "7", "box": "62 C"},
        ):  # fmt: skip
            self.note(**line)
            said.append(self.task("run-in").say)
        self.assertEqual(said, ["wait", "wait", "wait", "wait", "tighten", "wait", "wait", "run in"])
        self.assertEqual(self.task("run-in").notes[5].drops, 8)
        self.assertEqual(self.task("run-in", Units.IN).notes[0].box, "77 °F")
        self.strike(self.number, "run-in", self.task("run-in").notes[-1].id)
        self.assertEqual(self.task("run-in").say, "wait")
        self.note(minute="76", drops="1", box="62 C")
        with self.assertRaisesRegex(Refused, "not complete"):  # dry: backed off before it is ticked
            services.mark_step(self.seen(self.number), changes.MarkStep(uuid.uuid4(), "run_in"))

    def test_lines_that_cannot_be_leave_the_log_as_it_was(self):
        self.note(minute="10", drops="5", box="30 C")
        for wrong in (
            {"minute": "9", "drops": "5"}, {}, {"drops": "5", "taps_s": [0, 1, 2]}, {"taps_s": [0, 1]}, {"drops": "many"},
            {"box": "900 C"}, {"eighths": 2.0}, {"minute": "1/0", "drops": "5"},
        ):  # fmt: skip
            with self.subTest(wrong=wrong), self.assertRaises(FieldError):
                self.note(**wrong)
        self.assertEqual(RunInNote.objects.count(), 1)
        services.set_details(self.seen(self.number), changes.SetDetails(build={"seal": "mechanical"}))
        with self.assertRaisesRegex(Refused, "no packing"):
            self.note(drops="5")

    def test_the_first_hour_in_either_unit_and_what_stops_it(self):
        self.see(self.number, "flow", "10", seconds="12")
        self.assertEqual(ProofMark.objects.get(seen="flow").value, 50)
        self.see(self.number, "flow", "13.2 gpm")
        self.see(self.number, "pressure", "5 bar")
        self.see(self.number, "power", "0.8 kW")
        self.see(self.number, "noise", "even")
        lines = {line.name: line for line in self.task("first-hour").lines}
        self.assertEqual(set(lines), {"Flow", "Pressure difference", "Power", "Noise"})
        self.assertIn("13.20 US gal/min", next(x for x in self.task("first-hour", Units.IN).lines if x.name == "Flow").text)
        self.see(self.number, "noise", "rub")
        self.assertIn("stop, turn it by hand", " ".join(b.sentence for b in self.view().blockers))
        with self.assertRaises(Refused):
            services.mark_step(self.seen(self.number), changes.MarkStep(uuid.uuid4(), "first_hour"))
        for kind, typed, more in (
            ("flow", "5 bar", {}), ("flow", "0 L", {"seconds": "5"}), ("pressure", "5", {"seconds": "5"}), ("noise", "loud", {}),
            ("colour", "red", {}), ("power", "0 kW", {}), ("flow", "10", {"seconds": "0"}),
        ):  # fmt: skip
            with self.subTest(kind=kind, typed=typed), self.assertRaises(FieldError):
                self.see(self.number, kind, typed, **more)

    def test_a_whole_job_is_signed_with_what_was_seen_in_its_report(self):
        self.measure_all(self.number)
        self.look_all(self.number)
        self.together(self.number)
        services.sign_off(self.seen(self.number), changes.Sign(uuid.uuid4()))
        record = plain(SignOff.objects.get().shown())
        tasks = {task["kind"]: task for task in record["tasks"]}
        self.assertEqual(tasks["turning"]["seen"]["typed"], "turns freely all the way round")
        self.assertEqual(len(tasks["run-in"]["notes"]), 1)


class Pumps(Works):
    def test_a_duty_with_its_range_and_density(self):
        new = AddPump(
            "N-1",
            "s",
            "l",
            "1",
            "test-pump",
            "cast iron",
            "oil",
            "90 cP",
            "40 C",
            "5 bar",
            "300",
            density="900 kg/m3",
            start="5 C",
            hot="60 C",
        )
        add_pump(self.lena, new, Entry())
        pump = Pump.objects.get(tag="N-1")
        self.assertAlmostEqual(pump.viscosity_mm2_s, 100)
        self.assertEqual((pump.density_kg_m3, pump.start_c, pump.hot_c), (900, 5, 60))
        number = self.open("N-1")
        self.assertEqual(job_view(number, Units.MM).details.start, "5 °C")
        self.assertIn("at the one viscosity that is known", job_view(number, Units.MM).choice.over)
        self.assertIn(Stage.SET.value, [b.stage for b in job_view(number, Units.MM).blockers])
