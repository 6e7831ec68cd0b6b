"""Lobe and twin screw pumps in the browser: every lobe, every turn, what is opened and what stays shut, and the signature."""

import re
import uuid

from django.contrib.auth.models import User
from playwright.sync_api import expect

from finegap.bench import changes, services
from finegap.bench.models import SignOff
from finegap.core.entry import Entry
from finegap.core.families.steps import Stage
from finegap.inventory.changes import CountPieces
from finegap.inventory.services import count_pieces
from tests.browser.family_jobs import FamilyJob, add

OF_LOBES = {
    "backlash": "0.050 mm", "front": "0.120 mm", "back": "0.150 mm", "tip": "0.180 mm", "mesh": "0.250 mm", "length": "55.980 mm",
    "depth": "56.260 mm", "bore": "122.030 mm", "play": "0.020 mm",
}  # fmt: skip
OF_SCREWS = {
    "flank": "0.009 in", "radial": "0.0066 in", "screw": "3.9249 in", "bore": "3.9380 in", "ends": "0.020 in", "play": "0.0005 in",
}  # fmt: skip


class LobeAndScrew(FamilyJob):
    def fill(self, row, *read):
        """A row of the checks: a leaf that goes and one that does not, or what a gauge reads."""
        group = self.page.get_by_role("group", name=row, exact=True)
        for name, text in zip(("goes", "does not") if len(read) == 2 else ("reads",), read, strict=True):
            group.get_by_label(re.compile(f"^{name} ")).fill(text)

    def recorded(self):
        tries = self.page.locator(".tries tbody tr").count()
        self.page.get_by_role("button", name=f"Record try {tries + 1}").tap()
        expect(self.page.locator(".tries tbody tr")).to_have_count(tries + 1)

    def mesh(self, left, right):
        for side, goes in (("left", left), ("right", right)):
            for lobe in (1, 2, 3):
                self.fill(f"mesh gap, {side}, lobe {lobe}", f"{goes:.2f}", f"{goes + 0.01:.2f}")

    def proof_begun(self, step):
        """The first step of Prove by a colleague: what is closed before the shaft is turned."""
        services.mark_step(self.works.seen(self.number), changes.MarkStep(uuid.uuid4(), step))

    def test_faces_by_shims_then_every_lobe_by_its_timing_gear_by_touch(self):
        page, lena = self.page, User.objects.get(username="lena")
        duty = {"viscosity": "300 mm2/s", "temperature": "40 C", "pressure": "5 bar", "speed": "360"}
        slug = add("tarnholt-b2-1", "L-1", "stainless 316", **duty)
        for thickness in ("0.20 mm", "0.03 mm"):
            count_pieces(lena, CountPieces(slug, thickness, 4), Entry())
        self.opened("L-1")
        self.works.steps(self.number, Stage.PREPARE, Stage.STRIP)
        self.measured(OF_LOBES)
        self.go(f"/bench/{self.number}/inspect?gap=tip_drive")
        expect(page.locator(".judgement")).to_contain_text("At the suction port edge 5.0 bar bends the shaft by 0.036 mm: 0.144 mm")
        self.together()
        self.at("set")
        for row in ("front, drive shaft", "back, drive shaft", "front, driven shaft", "back, driven shaft"):
            goes = 0.14 if row.startswith("back") else 0.11
            self.fill(row, f"{goes:.2f}", f"{goes + 0.02:.2f}")
        page.get_by_label("checked as it was built").tap()
        self.recorded()
        expect(page.locator(".headline")).to_contain_text("All are right")
        page.get_by_role("button", name=re.compile("Mesh")).tap()
        self.mesh(0.29, 0.19)
        page.get_by_label("checked as it was built").tap()
        self.recorded()
        expect(page.locator(".headline")).to_contain_text("towards the wider gap, left: 0.07 mm along its marks")
        self.mesh(0.24, 0.24)
        page.get_by_label("Tightened for the trial").tap()
        self.recorded()
        expect(page.locator(".headline")).to_contain_text("Right on trial: now the torque of the clamp screws")
        self.together()
        self.mesh(0.24, 0.24)
        self.recorded()
        expect(page.locator(".headline")).to_contain_text("All are right")
        self.works.build(self.number)
        self.works.steps(self.number, Stage.SET)
        self.proof_begun("cover_up")
        self.assertEqual(self.proved_and_signed(begin=1), ["0.20 | 0.20"])

    def test_screws_with_the_gear_case_shut_are_checked_at_every_turn_in_inches(self):
        page = self.page
        duty = {"viscosity": "200 SSU", "temperature": "120 F", "pressure": "110 psi", "speed": "1150"}
        add("oxgarth-t3-c", "S-1", "stainless 316", **duty)
        self.opened("S-1")
        self.works.steps(self.number, Stage.PREPARE, Stage.STRIP)
        self.measured(OF_SCREWS)
        self.together()
        self.at("set")
        page.keyboard.press("u")
        expect(page.locator(".headline")).to_contain_text("measure both flank gaps")
        expect(page.get_by_label("Turned by, along the marks")).to_have_count(0)
        self.flanks("0.0117", "0.0065")
        expect(page.locator(".headline")).to_contain_text("The gear case stays shut: nothing is set in this job")
        self.flanks("0.0090", "0.0088")
        expect(page.locator(".headline")).to_contain_text("All are right")
        self.works.build(self.number)
        self.works.steps(self.number, Stage.SET)
        self.proof_begun("casing_on")
        self.assertEqual(self.proved_and_signed(begin=1), ["as built, not turned"] * 2)
        self.assertEqual(SignOff.objects.get(job__number=self.number).gap_in, "0.0090 · 0.0088")

    def flanks(self, left, right):
        """The gauge taken for the first of them is in hand for the rest."""
        self.page.get_by_label("flank gap, left, mark, checked with").select_option("D-1")
        for side, read in (("left", left), ("right", right)):
            for turn in ("mark", "¼ turn", "½ turn", "¾ turn"):
                self.fill(f"flank gap, {side}, {turn}", read)
        self.page.keyboard.press("Enter")
        expect(self.page.locator(".draft")).to_have_count(0)
