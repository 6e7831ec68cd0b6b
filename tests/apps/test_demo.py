"""The demo works: it loads, and its pumps of every build go from an opened job to the end of Prove, step after step."""

import io
import math
import uuid

from django.contrib.auth.models import User
from django.core.management import call_command
from django.db import transaction
from django.test import TestCase

from finegap.api.errors import Refused
from finegap.bench import changes, services
from finegap.bench.models import Event, Job
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.families.steps import Stage
from finegap.core.formatting import Units
from finegap.core.job import assess
from finegap.core.job_record import Phase
from finegap.pumps.models import Pump
from finegap.site.management.commands.load_demo import _Script
from tests.apps.base import job_view

STARTED = {
    "housing": {"moved": "49.8 mm", "way": "open"}, "shims": {"stacks": [["0.25 mm"], ["0.25 mm"]]},
    "gasket_pair": {"stacks": [["0.06 mm"], ["0.06 mm"]]}, "tap": {"way": ""}, "helix": {"moved": "0"},
    "L": {"stacks": [["0.20 mm"], ["0.20 mm"]]},
}  # fmt: skip
"""What is done for the first try, by means, or by the letter of a pump; the demo's sheets ask for it."""


class WholeJob(_Script):
    """A job of one scope, every step of every stage in its order, everything new and asked about."""

    def __init__(self, actor, pump, **build):
        super().__init__(actor, {"pump": pump, "unit": "mm"})
        self.build = build

    def run(self):
        tag = self.script["pump"]
        hours = "99 999" if Pump.objects.get(tag=tag).per_hour is None else "99 999 h"  # one of them counts starts
        # one is on loan: it is here
        job = services.open_job(self.actor, changes.OpenJob(tag, "by the book", hours, "planned"), Entry(meant=True))
        self.number = job.number
        services.set_details(self.seen, changes.SetDetails(place="workshop", build=self.build))
        rubber = self._loaded().job_record.sheet.details.get("elastomer")
        services.use_at_bench(self.seen, changes.UseAtBench("silicone" if rubber == "EPDM" else "mineral grease", "GG-1"))
        self._on_hand([])
        self._steps(job, [Stage.PREPARE])
        for stage in (Stage.STRIP, Stage.BUILD, Stage.SET, Stage.PROVE):
            if stage is Stage.BUILD:
                self.measure()
            if stage is Stage.SET and self._loaded().job_record.sets_a_gap:
                self.set_gap()
            if stage is Stage.PROVE:
                self._prove()
            self._build(job, stage)
        return job_view(self.number, Units.MM)

    def measure(self):
        """What can only be measured while the unit is open."""
        if "bearing_depth" in self._loaded().job_record.family.by_key:
            new = changes.RecordReading(uuid.uuid4(), "bearing_depth", "depth", "1.2", "D-08", Phase.LEFT)
            services.record_reading(self.seen, new)

    def set_gap(self):
        now = assess(self._loaded().job_record).gap
        means = now.now.means if hasattr(now.now, "means") else self._loaded().job_record.sheet.means
        if means.kind == "housing":
            services.set_zero(self.seen, changes.SetZero(uuid.uuid4(), "close to first drag", ""))
        checks = [between(target.window.target_mm) for target in now.setting.targets]
        if means.kind == "shims":  # in front by depth gauge, behind by leaves
            checks = [{"read": "0.19", "gauge": "T-05"}, between(0.105)] * 2
        if means.kind in ("gasket_pair", "tap", "helix") or self.script["pump"].startswith("L"):  # by an indicator
            checks = [{"read": f"{target.window.target_mm:.3f}", "gauge": "D-08"} for target in now.setting.targets]
        given = STARTED.get(self.script["pump"][0]) or STARTED.get(means.kind, {})
        if means.kind == "gaskets":
            given = {"stacks": [["0.006 in" if self.script["pump"].startswith("P") else "0.20 mm"]]}
        asked = {"opened": False} if job_view(self.number, Units.MM).setting.asks_opened else {}
        self._tries(None, [{"checks": checks, **given, **asked}])
        if now.mesh is not None:
            asked = {"opened": False} if job_view(self.number, Units.MM).mesh.asks_opened else {}
            self._tries(None, [{"sets": "mesh", "moved": "0", "checks": [between(0.245)] * len(now.mesh.targets), **asked}])


def between(mm):
    """The leaves of the demo a gap lies between."""
    goes = math.floor(100 * mm + 1e-6) / 100
    return {"goes": f"{goes:.2f}", "stops": f"{goes + 0.01:.2f}", "gauge": "F-02"}


class Demo(TestCase):
    @classmethod
    def setUpTestData(cls):
        call_command("load_demo", stdout=io.StringIO())

    def test_it_loads_with_one_job_half_done_and_one_signed(self):
        jobs = list(Job.objects.order_by("number"))
        self.assertEqual(
            [hasattr(j, "sign_off") for j in jobs],
            [True, True, True, *[False] * 6, *[True] * 3, False, False, True, True, False, False],
        )
        calls = {f.judged.verdict for f in job_view(4, Units.MM).features if f.judged}
        self.assertEqual(calls, {"Keep", "Watch", "Change", "Measure again"})
        before = Job.objects.count()
        call_command("load_demo", stdout=io.StringIO())
        self.assertEqual(Job.objects.count(), before)

    def test_where_suction_was_is_not_changed_under_what_was_measured_there(self):
        otto = WholeJob(User.objects.get(username="otto"), "G-411")
        otto.number = 13
        step = Job.objects.get(number=13).steps.standing().get(step="suction_clockwise")
        services.strike(otto.seen, changes.StrikeOut(changes.Struck.STEP, step.id, "the arrow was misread"))
        with self.assertRaisesRegex(FieldError, "was measured by the answer there is"):
            services.set_details(otto.seen, changes.SetDetails(build={"rotation": "counterclockwise"}))
        services.set_details(otto.seen, changes.SetDetails(build={"ring": "left"}))

    def test_a_lobe_that_was_measured_is_not_counted_away(self):
        otto = WholeJob(User.objects.get(username="otto"), "L-611")
        otto.number = Job.objects.get(pump__tag="L-611", ended="").number
        with self.assertRaisesRegex(FieldError, "Mesh, left was measured by the answer there is"):
            services.set_details(otto.seen, changes.SetDetails(build={"lobes": "2"}))
        services.set_details(otto.seen, changes.SetDetails(build={"held": "plate"}))
        view = job_view(otto.number, Units.MM)
        self.assertEqual(
            Event.objects.filter(job__number=otto.number).last().what, "Details: each rotor held by: a front plate with bolts"
        )
        tells = {step.key: step.tells for step in view.steps}
        self.assertIn("The sheet gives no torque for the plate bolts.", tells["plate_bolts"])
        self.assertEqual([line for line in tells["cover_up"] if "no torque" in line], [])

    def test_with_the_gear_case_shut_no_turn_of_its_gear_is_recorded(self):
        """What was not opened was not turned, whoever says so."""
        job = WholeJob(User.objects.get(username="otto"), "T-711", scope="wet_end")
        Job.objects.filter(pump__tag="T-711", ended="").update(ended="abandoned")
        job.number = services.open_job(job.actor, changes.OpenJob("T-711", "shaking", "99 999", "noise")).number
        services.set_details(job.seen, changes.SetDetails(place="workshop"))
        checks = [{"read": "0.230", "gauge": "D-08"}] * 8
        with self.assertRaisesRegex(FieldError, "stays shut"):
            job._tries(None, [{"checks": checks, "moved": "0.3", "way": "left"}])
        job._tries(None, [{"checks": checks, "moved": "0"}])
        self.assertEqual([t.set_by for t in job_view(job.number, Units.MM).setting.tries], ["as built, not turned"])

    def test_what_was_turned_with_its_case_open_is_not_made_a_job_that_left_it_shut(self):
        otto = User.objects.get(username="otto")
        Job.objects.filter(pump__tag="T-711", ended="").update(ended="abandoned")
        job = WholeJob(otto, "T-711")
        job.number = services.open_job(otto, changes.OpenJob("T-711", "shaking", "99 999", "noise")).number
        services.set_details(job.seen, changes.SetDetails(place="workshop", build={"scope": "opened"}))
        job._tries(None, [{"checks": [{"read": "0.230", "gauge": "D-08"}] * 8, "moved": "0.3", "way": "left"}])
        with self.assertRaisesRegex(FieldError, "The gear was turned"):
            services.set_details(job.seen, changes.SetDetails(build={"scope": "wet_end"}))

    def test_how_it_turned_is_not_said_before_it_is_together_nor_kept_once_it_is_apart_again(self):
        """A turn by hand proves the pump it was made on, and no other."""
        job = WholeJob(User.objects.get(username="otto"), "R-521")
        job.number = 14
        turned = lambda: changes.SeeProof(uuid.uuid4(), "free_unbolted", "turning")  # noqa: E731
        with self.assertRaises(Refused):
            services.see(job.seen, turned())
        services.use_at_bench(job.seen, changes.UseAtBench("mineral grease"))
        row = Job.objects.get(number=14)
        job._build(row, Stage.BUILD)
        self.assertEqual(row.proofs.standing().count(), 2)
        step = row.steps.standing().get(step="pressed_together")
        services.strike(job.seen, changes.StrikeOut(changes.Struck.STEP, step.id, "a roller was forgotten"))
        self.assertEqual(row.proofs.standing().count(), 0)
        services.mark_step(job.seen, changes.MarkStep(uuid.uuid4(), "pressed_together"))
        with self.assertRaisesRegex(Refused, "."):
            services.mark_step(job.seen, changes.MarkStep(uuid.uuid4(), "free_unbolted"))

    def test_each_build_goes_to_the_end_of_prove_in_its_order(self):
        """No step has to wait, no part is refused, nothing is left: a build of each kind, in one of its scopes."""
        Job.objects.filter(ended="").update(ended="abandoned")
        otto, fit = User.objects.get(username="otto"), changes.FitPart
        self.addCleanup(setattr, changes, "FitPart", fit)
        changes.FitPart = lambda *given, **more: fit(*given, **{"reason": "asked", **more})
        turns = {"rotation": "clockwise"}
        for pump, build in (
            ("P-208", {"scope": "overhaul"}), ("P-209", {"scope": "bearing"}), ("P-210", {"scope": "seal"}),
            ("P-114", {"scope": "check"}), ("P-140", {"scope": "overhaul"}), ("P-207", {"scope": "repack"}),
            ("V-019", {"scope": "overhaul"}), ("C-307", {"scope": "overhaul"}), ("C-310", {"scope": "rotors"}),
            ("G-411", {"ring": "left", **turns}), ("R-521", turns), ("R-522", {"shaft": "plain", **turns}),
            ("L-611", {"lobes": "2", "outer": "bearing", "scope": "overhaul"}),
            ("L-612", {"lobes": "4", "held": "plate", "seal": "double_b", "rotor": "key", "scope": "rotors"}),
            ("T-711", {"scope": "opened"}), ("T-712", {"scope": "wet_end"}),
        ):  # fmt: skip
            with self.subTest(pump=pump, **build), transaction.atomic():
                view = WholeJob(otto, pump, **build).run()
                transaction.set_rollback(True)  # the shelf is as it was
                self.assertEqual([s.key for s in view.steps if s.by is None], [])
                self.assertEqual([t.next for t in view.tasks if t.kind == "stack" and t.next], [])
                self.assertTrue(view.setting is None or view.setting.right)
                hard = {b.stage for b in view.blockers if not b.lead_may}
                self.assertLessEqual(hard, {"inspect", "decide"}, "nothing but what was not measured is open")
