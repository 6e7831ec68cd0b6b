"""Build in the browser: what stops a stack, the torque log with an adapter, a press fit, a gun weighed, quick figures."""

import json
import re
import uuid

from django.contrib.auth.models import User
from playwright.sync_api import expect

from finegap.bench import changes, services
from finegap.bench.models import Job, PartFitted, TorqueMark
from finegap.core.job_record import Decided
from finegap.inventory.models import Certificate, GreaseGun
from finegap.sheets.changes import SheetFile
from tests.apps.base import Works, add_revision, sheet_data
from tests.browser.base import Bench
from tests.core.test_build_work import PRESS

BEARING = [{"name": "Thrust bearing", "outside": "90 mm", "width": "34 mm"}]


class Build(Bench):
    def setUp(self):
        super().setUp()
        self.works = Works()
        self.works.tom = User.objects.get(username="tom")
        self.lena = User.objects.get(username="lena")

    def open(self, work, stage="build", **sheet):
        """A job on a sheet with changes, at the page of a step of a stage."""
        if sheet:
            add_revision(self.lena, SheetFile(json.dumps(sheet_data(revision="2", **sheet))))
        number = self.works.open("H-1")
        self.go(f"/bench/{number}/{stage}")
        if stage == "set":
            self.page.get_by_role("button", name=re.compile("Steps at Set")).click()
        self.page.locator(".page-picker select").select_option(work)
        return number

    def test_a_wrong_order_an_unconfirmed_direction_and_an_unfit_lubricant_stop_the_stack(self):
        page = self.page
        self.open("thrust_built", details={"elastomer": "EPDM"})
        fitted = page.get_by_role("button", name="Fitted", exact=True)
        part = page.locator(".part-in-hand .step-text")
        expect(part).to_have_text("Lip seal of the housing")
        page.locator(".stack-part").nth(1).click()
        expect(part).to_have_text("Thrust bearing")
        expect(page.locator(".part-in-hand")).to_contain_text("not its turn yet")
        page.locator(".directions input").first.check()
        fitted.click()
        expect(page.get_by_role("alert")).to_contain_text("out of order. Next comes: Lip seal of the housing")
        page.locator(".stack-part").nth(0).click()
        fitted.click()
        expect(page.get_by_role("alert")).to_contain_text("Lip seal of the housing: not confirmed")
        self.assertEqual(PartFitted.objects.count(), 0)
        page.get_by_label("Lubricant on the bench").select_option("mineral grease")
        expect(page.locator(".part-in-hand")).to_contain_text("stop: Is destroyed by it")
        page.locator(".directions input").first.check()
        fitted.click()
        expect(page.get_by_role("alert")).to_contain_text("EPDM in mineral oil: Is destroyed by it")

    def test_sub_assemblies_one_after_the_other_and_a_part_taken_out_again(self):
        page = self.page
        self.open("thrust_built", details={"elastomer": "FKM"})
        fitted = page.get_by_role("button", name="Fitted", exact=True)
        part = page.locator(".part-in-hand .step-text")
        page.get_by_label("Lubricant on the bench").select_option("mineral grease")
        expect(page.get_by_role("button", name="Housing on the bench 0/6")).to_have_attribute("aria-pressed", "true")
        for name in ("Lip seal of the housing", "Lip seal of the end cap", "Thrust bearing"):
            expect(part).to_have_text(name)
            page.wait_for_timeout(450)
            for box in page.locator(".directions input").all():
                box.check()
            fitted.click()
        expect(part).to_have_text("Nylon plugs under the radial screws")
        expect(page.get_by_role("button", name="Housing on the bench 2/6")).to_be_visible()
        page.get_by_role("button", name="Together").click()
        expect(page.get_by_role("img", name="Thrust bearing housing, half rings, together")).to_be_visible()
        page.get_by_role("button", name="take out again: Lip seal of the end cap").click()
        page.get_by_label("Why is it struck out?").fill("the lip looked inward")
        page.keyboard.press("Enter")
        expect(part).to_have_text("Lip seal of the end cap")
        self.assertEqual([p.part for p in PartFitted.objects.standing()], ["inner_lip"])

    def test_a_torque_through_an_adapter_and_one_struck_out(self):
        page = self.page
        self.open("nut_torque")
        page.get_by_role("button", name="With an adapter").click()
        page.get_by_label("Wrench, drive to grip").fill("400")
        page.get_by_label("Adapter, drive to nut").fill("25")
        expect(page.locator(".torque-work")).to_contain_text("For 85.0 N·m at the nut")
        expect(page.locator(".torque-work")).to_contain_text("80.0 N·m")
        page.get_by_label("Torque the wrench is set to").fill("95")
        page.get_by_role("button", name="Log it").click()
        expect(page.get_by_role("alert")).to_contain_text("100.9 N·m at the nut is outside this pass. Expected 80 N·m to 90 N·m.")
        page.get_by_label("Torque the wrench is set to").fill("80")
        page.keyboard.press("Enter")
        expect(page.locator(".torque-log")).to_contain_text("85.0 N·m")
        self.assertEqual(round(TorqueMark.objects.get().at_nut_n_m, 6), 85)
        page.get_by_role("button", name="strike out: Lock nut").click()
        page.get_by_label("Why is it struck out?").fill("washer in backwards")
        page.keyboard.press("Enter")
        expect(page.locator(".torque-log .struck")).to_contain_text("washer in backwards")
        expect(page.get_by_label("Torque the wrench is set to")).to_be_visible()

    def test_a_press_fit_is_reckoned_as_it_is_measured(self):
        Certificate.objects.filter(gauge__tag__in=["M-1", "B-1"]).update(high=60)
        add_revision(self.lena, SheetFile(json.dumps(sheet_data(revision="2", press_fits=PRESS))))
        number = self.works.open("H-1")
        self.works.measure_all(number)
        self.works.read(number, "bushing_bore", "front/12–6", "40.25")
        seen = services.JobRef(self.works.tom, number, Job.objects.get(number=number).version)
        services.decide(seen, changes.Decide(uuid.uuid4(), "bushing_bore", Decided.CHANGE))
        page = self.page
        self.go(f"/bench/{number}/build")
        page.locator(".page-picker select").select_option("bushings")
        lines = page.locator(".sum-lines").first
        expect(lines).to_contain_text("ask: Measure first")
        for name, size in (("Bushing, outside", "50.042"), ("Seat of the bushing", "50.01"), ("before pressing", "40.09")):
            expect(page.locator(".pad h2")).to_contain_text(name)
            for _ in range(4):
                page.locator(".big-field input").fill(size)
                page.keyboard.press("Enter")
            page.get_by_role("button", name="Next part").click()
        expect(lines).to_contain_text(re.compile(r"Interference\s*0\.032 mm"))
        expect(lines).to_contain_text("Running clearance to expect")
        expect(page.locator(".pad h2")).to_contain_text("Bushing, bore, as left")
        page.get_by_role("button", name="working: Contact pressure").click()
        expect(page.get_by_role("dialog")).to_contain_text("Lamé")

    def test_a_gun_is_weighed_at_the_bench_and_its_strokes_are_told(self):
        page = self.page
        self.open("grease_after", "set", bearings=BEARING)
        expect(page.locator(".works")).to_contain_text("15.3 g")
        page.get_by_role("button", name="Weigh a gun").click()
        page.get_by_label("Written on the gun").fill("G-1")
        page.get_by_label("Ten strokes weigh").fill("0")
        page.get_by_label("Grease in it").fill("lithium")
        page.get_by_role("button", name="Save weight").click()
        expect(page.get_by_role("alert")).to_contain_text("Ten strokes")
        page.get_by_label("Ten strokes weigh").fill("5")
        page.get_by_role("button", name="Save weight").click()
        expect(page.locator(".works")).to_contain_text("Ten strokes of G-1 weighed 5.0 g")
        expect(page.locator(".sum-lines")).to_contain_text("31")  # 15.3 g by 0.5 g
        self.assertEqual(GreaseGun.objects.count(), 1)

    def test_an_arrangement_of_the_sheet_in_its_place(self):
        parts = [{"key": "cup", "name": "Cup", "shape": "washer", "facing": "open side up", "points": "drive"}]
        self.open("packing_now", stacks=[{"key": "cup", "name": "Cup seal", "place": "seal", "parts": parts}])
        page = self.page
        expect(page.get_by_role("img", name="Cup seal")).to_be_visible()
        page.locator(".directions input").check()
        page.get_by_role("button", name="Fitted", exact=True).click()
        expect(page.locator(".stack-work > .all-done")).to_have_text("All 1 in.")

    def test_quick_figures_by_name_in_both_units_with_their_working(self):
        page = self.page
        self.go("/toolbox")
        page.get_by_role("link", name="Quick figures").click()
        page.get_by_role("link", name="Packing", exact=True).click()
        page.get_by_label("Shaft").fill("50")
        page.get_by_label("Section").fill("60")
        page.get_by_label("Rings").fill("4")
        page.get_by_role("button", name="Calculate").click()
        expect(page.get_by_role("alert")).to_contain_text("Section: it is thicker than the shaft.")
        page.get_by_label("Section").fill("10")
        page.keyboard.press("Enter")
        expect(page.locator(".sum-lines")).to_contain_text("188.50 mm")
        page.get_by_role("button", name="working: Length to cut a ring").click()
        expect(page.get_by_role("dialog")).to_contain_text("L = π·(d + s)")
        page.keyboard.press("Escape")
        page.locator(".unit-switch").click()
        expect(page.get_by_label("Shaft (in)")).to_be_visible()
