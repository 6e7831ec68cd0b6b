"""External gear and roller pumps in the browser: what is asked, what is set and tried again, and the signature."""

import re
import uuid

from django.contrib.auth.models import User
from playwright.sync_api import expect

from finegap.bench import changes, services
from finegap.core.entry import Entry
from finegap.core.families.steps import Stage
from finegap.inventory.changes import CountPieces
from finegap.inventory.services import count_pieces
from tests.browser.family_jobs import FamilyJob, add

SIZES = {
    "end": "0.150 mm", "width": "34.020 mm", "length": "44.000 mm", "plate": "4.980 mm", "tips": "47.915 mm", "bore": "48.095 mm", "backlash": "0.150 mm",
    "shaft": "19.985 mm", "runout": "0.010 mm",
}  # fmt: skip
IN_INCHES = {
    "side": "0.0024 in", "rotor": "1.6512 in", "housing_depth": "1.6562 in", "housing_bore": "3.8620 in", "roller_length": "1.6508 in",
    "roller_diameter": "0.6235 in", "shaft": "0.9371 in",
}  # fmt: skip


class GearAndRoller(FamilyJob):
    def test_two_gears_get_a_pair_of_gaskets_and_another(self):
        page = self.page
        slug = add("fenwade-g30-3", "E-1", viscosity="28 mm2/s", temperature="70 C", pressure="8 bar", speed="960")
        for thickness, count in (("0.04 mm", 4), ("0.06 mm", 4)):
            count_pieces(User.objects.get(username="lena"), CountPieces(slug, thickness, count), Entry())
        self.opened("E-1")
        self.works.steps(self.number, Stage.PREPARE)
        self.at("strip")
        asked = page.get_by_role("group", name="Lock ring came out by turning it, answers")
        for key in [s.key for s in self.works.family(self.number).steps_of(Stage.STRIP)][:9]:
            services.mark_step(self.works.seen(self.number), changes.MarkStep(uuid.uuid4(), key))
        expect(page.locator(".present-step")).to_contain_text("Not known yet")
        asked.get_by_role("button", name="counterclockwise").click()
        expect(page.locator(".present-step .waits")).to_have_count(0)
        self.works.steps(self.number, Stage.STRIP)
        self.measured(SIZES)
        self.together()
        self.at("set")
        # 44.00 less 4.98, 4.98 and 34.02 leaves 0.02 at either gear
        expect(page.locator(".headline")).to_have_text("Front: 0.04 mm. Back: 0.04 mm")
        expect(page.locator(".details").first).to_contain_text("0.100 mm at the drive gear, 0.100 mm at the idler gear")
        self.tried("0.060", "0.062", "checked as it was built")
        expect(page.locator(".headline")).to_have_text("Front: 0.06 mm. Back: 0.06 mm")
        page.get_by_label("Tightened for the trial").check()
        self.tried("0.100", "0.102")
        expect(page.locator(".headline")).to_contain_text("Right on trial")
        page.get_by_role("button", name="To the steps").click()
        self.together()
        page.get_by_role("button", name=re.compile("Total end gap")).click()
        expect(page.locator(".headline")).to_contain_text("Check once more, as it stands")
        self.tried("0.100", "0.102")
        expect(page.locator(".headline")).to_contain_text("All are right")
        self.works.build(self.number)
        self.works.steps(self.number, Stage.SET)
        self.assertEqual(self.proved_and_signed(), ["front 0.04, back 0.04", *["front 0.06, back 0.06"] * 2])

    def tried(self, first, second, built=""):
        page, tries = self.page, self.page.locator(".tries tbody tr").count()
        for name, text in (("drive gear", first), ("idler gear", second)):
            page.get_by_role("group", name=f"end gap, {name}").get_by_label("reads (mm)").fill(text)
        if built:
            page.get_by_label(built).check()
        page.get_by_role("button", name=f"Record try {tries + 1}").click()
        expect(page.locator(".tries tbody tr")).to_have_count(tries + 1)

    def test_a_rotor_is_pressed_in_turned_and_tapped_in_inches_by_keys(self):
        page = self.page
        add(
            "wickermere-r4-b",
            "R-1",
            viscosity="40 SSU",
            temperature="60 F",
            pressure="70 psi",
            speed="540",
            build={"rotation": "unknown"},
        )
        self.opened("R-1")
        self.at("prepare")
        page.keyboard.press("u")
        self.mark_all(self.steps_of(Stage.PREPARE), until=2)
        expect(page.locator(".present-step")).to_contain_text("Not known yet: shaft turns, seen from the drive end")
        self.tab_to(page.get_by_role("button", name="clockwise", exact=True))
        page.keyboard.press("Enter")
        expect(page.locator(".present-step .waits")).to_have_count(0)
        page.evaluate("document.activeElement.blur()")
        self.mark_all(self.steps_of(Stage.PREPARE), begin=2, until=3)
        expect(page.locator(".present-step")).to_contain_text("suction is the port on the right of the narrow place")
        self.works.steps(self.number, Stage.PREPARE, Stage.STRIP)
        self.measured(IN_INCHES)
        services.use_at_bench(self.works.seen(self.number), changes.UseAtBench("mineral grease"))
        self.at("build")
        self.build_by_keys()
        self.at("set")
        expect(page.locator(".headline")).to_have_text("By the sizes each side comes to 0.0025 in")
        self.sides(("0.07", "0.08"), ("0.04", "0.05"))
        expect(page.locator(".headline")).to_contain_text("Tap the shaft on its back end: the rotor has to go 0.0006 in")
        self.sides(("0.06", "0.07"), ("0.05", "0.06"))
        expect(page.locator(".headline")).to_contain_text("All are right")
        self.assertEqual(self.proved_and_signed(), ["as bolted, not tapped", "tapped on the back end"])

    def build_by_keys(self):
        """Part by part, turned before the bolts and after them."""
        page = self.page
        while not page.locator(".steps > .all-done").count():
            self.fit_parts()
            if page.get_by_label("Torque the wrench is set to").count():
                self.works.tighten(self.number, "housing bolts")
                expect(page.get_by_label("Torque the wrench is set to")).to_have_count(0)
            turned = page.get_by_role("button", name="Turns freely all the way round")
            if turned.count() and not page.locator(".found-free").count():
                page.keyboard.press("f")
                expect(page.locator(".found-free")).to_be_visible()
            self.read()
            text = page.locator(".present-step .step-text").inner_text()
            self.step_done()
            expect(page.get_by_text(text, exact=True).and_(page.locator(".present-step .step-text"))).to_have_count(0)

    def sides(self, front, back):
        page, tries = self.page, self.page.locator(".tries tbody tr").count()
        for name, (goes, stops) in (("front", front), ("back", back)):
            row = page.get_by_role("group", name=f"side gap, {name}")
            row.get_by_label("goes (in)").fill(f"{goes} mm")
            row.get_by_label("does not (in)").fill(f"{stops} mm")
        page.keyboard.press("Enter")
        expect(page.locator(".tries tbody tr")).to_have_count(tries + 1)
