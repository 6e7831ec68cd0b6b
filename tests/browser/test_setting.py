"""Shims for two rotors and a timing gear in the browser: from the trial to both right, in both units, and the coach through a heating."""

from django.contrib.auth.models import User
from playwright.sync_api import expect

from finegap.bench.changes import OpenJob
from finegap.bench.services import open_job
from finegap.core.entry import Entry
from finegap.inventory.changes import CountPieces
from finegap.inventory.services import count_pieces
from finegap.pumps.changes import AddPump
from finegap.pumps.services import add_pump
from finegap.sheets.changes import SheetFile
from tests.apps.base import add_revision
from tests.apps.test_setting import DUTY, piston
from tests.browser.base import Bench


class TwoShafts(Bench):
    def setUp(self):
        super().setUp()
        lead = User.objects.get(username="lena")
        add_revision(lead, SheetFile(piston()))
        add_pump(lead, AddPump("C-1", "test", "here", "1", "piston", "stainless 316", "oil", **DUTY), Entry())
        for thickness, count in (("0.05 mm", 6), ("0.10 mm", 4)):
            count_pieces(lead, CountPieces("piston", thickness, count), Entry())

    def opened(self, pump):
        return open_job(User.objects.get(username="tom"), OpenJob(pump, "test", "14 380")).number

    def check(self, **gaps):
        """Each gap as a pair of leaves."""
        for name, (goes, stops) in gaps.items():
            row = self.page.get_by_role("group", name=name.replace("_", " ").replace(" of ", ", "), exact=True)
            row.get_by_label("goes").fill(goes)
            row.get_by_label("does not").fill(stops)
        self.page.get_by_role("button", name="Record try").click()

    def test_both_windows_then_the_mesh_in_millimetres_and_inches(self):
        page = self.page
        number = self.opened("C-1")
        self.go(f"/bench/{number}/set")
        expect(page.locator(".headline")).to_contain_text("0.10 mm behind both front bearings")
        self.check(
            front_of_drive_shaft=("0.185", "0.195"), back_of_drive_shaft=("0.145", "0.155"),
            front_of_driven_shaft=("0.135", "0.145"), back_of_driven_shaft=("0.195", ""),
        )  # fmt: skip
        expect(page.get_by_role("alert")).to_contain_text("Leaf that does not, back, driven shaft: nothing was entered")
        page.get_by_label("Tightened for the trial").check()
        self.check(back_of_driven_shaft=("0.195", "0.205"))
        expect(page.locator(".headline")).to_have_text("Drive shaft: put in 0.05 mm")
        expect(page.locator(".gaps")).to_contain_text("outside")
        page.locator(".unit-switch").click()
        expect(page.locator(".headline")).to_have_text("Drive shaft: put in 0.0020 in")
        page.get_by_label("Tightened for the trial").check()
        self.check(
            front_of_drive_shaft=("0.0053", "0.0057"), back_of_drive_shaft=("0.0077", "0.0081"),
            front_of_driven_shaft=("0.0053", "0.0057"), back_of_driven_shaft=("0.0077", "0.0081"),
        )  # fmt: skip
        expect(page.locator(".headline")).to_contain_text("Right on trial: now the torque of the rotor nuts")
        page.keyboard.press("m")
        expect(page.locator(".headline")).to_contain_text("measure both mesh gaps")
        page.locator(".unit-switch").click()
        self.check(mesh_gap_of_left=("0.275", "0.285"), mesh_gap_of_right=("0.195", "0.205"))
        expect(page.locator(".headline")).to_contain_text("towards the wider gap, left: 0.06 mm along its marks")
        expect(page.get_by_role("combobox", name="towards the")).to_have_value("left")
        self.check(mesh_gap_of_left=("0.235", "0.245"), mesh_gap_of_right=("0.235", "0.245"))
        expect(page.locator(".headline")).to_have_text("All are right: go on")
        page.get_by_role("link", name="Close").click()
        left = page.get_by_role("region", name="Signature")
        for gap in ("front, drive shaft", "back, driven shaft", "mesh gap, left", "mesh gap, right"):
            expect(left.get_by_role("row", name=gap)).to_contain_text("right")

    def test_the_coach_through_a_heating_episode(self):
        page = self.page
        number = self.opened("H-1")
        self.go(f"/bench/{number}/prove")
        page.get_by_role("heading", name="Turned by hand").wait_for()
        page.keyboard.press("ArrowDown")
        page.get_by_role("heading", name="End play").wait_for()
        page.keyboard.press("ArrowDown")
        for number, (line, says) in enumerate((
            (("0", "60", "25", "not turned"), "Wait 10 min"), (("12", "55", "31", "tightened 1/8"), "Wait 10 min"),
            (("24", "30", "90", "not turned"), "Back off an eighth"), (("25", "30", "91", "backed off 1/8"), "let it cool"),
            (("50", "40", "60", "not turned"), "Tighten an eighth"),
        ), start=1):  # fmt: skip
            minute, drops, box, turn = line
            page.get_by_label("Minute, if not now").fill(minute)
            page.get_by_label("Or drops a minute").fill(drops)
            page.get_by_label("Box (°C)").fill(box)
            page.get_by_role("radio", name=turn).check()
            page.get_by_role("button", name="Save line").click()
            if minute != "0":
                # minutes that have not come yet are asked about
                page.get_by_role("button", name="It is meant as typed").click()
            expect(page.get_by_role("button", name=f"Save line {number + 1}")).to_be_visible()
            expect(page.locator(".coach")).to_contain_text(says)
        expect(page.locator(".run-in-plot")).to_be_visible()
        expect(page.locator(".run-in-plot .back-off")).to_have_count(1)

    def test_no_serious_finding_of_axe_on_what_is_new(self):
        from axe_playwright_python.sync_playwright import Axe

        number, other = self.opened("C-1"), self.opened("H-1")
        for place, work in (
            (f"{number}/set", 0),
            (f"{other}/prove", 0),
            (f"{other}/prove", 1),
            (f"{other}/prove", 2),
            (f"{other}/prove", 3),
        ):
            self.go(f"/bench/{place}")
            self.page.locator(".headline, .page-picker").first.wait_for()
            for _ in range(work):
                self.page.keyboard.press("ArrowDown")
            found = Axe().run(self.page).response["violations"]
            serious = [f"{v['id']}: {v['nodes'][0]['html']}" for v in found if v["impact"] in ("serious", "critical")]
            self.assertEqual(serious, [], (place, work))
