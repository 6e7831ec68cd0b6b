"""The other places and the other states: sheets through a file, counts, empty, signed, failing, dim, and fingers."""

from __future__ import annotations

import json
import uuid
from pathlib import Path
from tempfile import TemporaryDirectory

from django.contrib.auth.models import User
from playwright.sync_api import expect

from finegap.bench import changes, services
from finegap.bench.models import Job
from finegap.inventory.models import ShelfLine
from finegap.sheets.models import SheetRevision
from tests.apps.base import GOOD, Works, sheet_data
from tests.browser.base import Bench


class Signed(Works):
    """The helpers of the application tests, on the browser's own database."""

    @classmethod
    def job(cls, finished: bool) -> int:
        works = cls()
        works.tom = User.objects.get(username="tom")
        return works.finished() if finished else works.open()

    @classmethod
    def end(cls, number: int) -> None:
        """Give its record a signature, whatever is open in it."""
        works = cls()
        works.tom, works.lena = (User.objects.get(username=name) for name in ("tom", "lena"))
        works.measure_all(number, {key: size for key, size in GOOD.items() if key != "idler_pin"})
        works.look_all(number)
        works.together(number)
        services.sign_off(works.seen(number, works.lena), changes.Sign(uuid.uuid4(), reason="as it is"))


class Sheets(Bench):
    def test_a_lead_adds_a_sheet_from_a_file_and_a_wrong_one_is_refused_whole(self):
        self.sign_in("lena")
        page = self.page
        with TemporaryDirectory() as folder:
            wrong, right = Path(folder) / "wrong.json", Path(folder) / "right.json"
            data = sheet_data(revision="2", date="2025-05-05")
            right.write_text(json.dumps(data, indent=1))
            data["clearance_table"]["rows"][1]["end_clearance"] = ""
            wrong.write_text(json.dumps(data, indent=1))
            self.go("/sheets")
            page.get_by_label("Sheet file").set_input_files(wrong)
            line = 1 + next(i for i, row in enumerate(wrong.read_text().splitlines()) if '"end_clearance": ""' in row)
            expect(page.get_by_role("alert")).to_contain_text(f"Line {line}, clearance_table.rows[1]")
            expect(page.get_by_role("alert")).to_contain_text("the cell is empty")
            self.assertFalse(SheetRevision.objects.filter(revision="2").exists())
            page.get_by_label("Sheet file").set_input_files(right)
            expect(page.get_by_role("heading", name="Test pump")).to_be_visible()
            expect(page.locator(".sheet-head")).to_contain_text("Revision 2 of 5 May 2025")
        expect(page.locator("table", has_text="Clearance table")).to_contain_text("90 mm2/s and up")
        with page.expect_download() as saved:
            page.get_by_role("link", name="Save as a file").click()
        self.assertEqual(json.loads(Path(saved.value.path()).read_text())["revision"], "2")

    def test_a_technician_is_told_that_a_lead_does_it(self):
        self.go("/sheets")
        expect(self.page.get_by_text("A lead types sheets and revisions")).to_be_visible()
        expect(self.page.get_by_label("Sheet file")).to_have_count(0)
        expect(self.page.get_by_role("region", name="Type a sheet")).to_have_count(0)


class Toolbox(Bench):
    def test_gaskets_are_counted_by_touch_and_a_wrong_thickness_is_kept_as_typed(self):
        page = self.page
        self.go("/toolbox")
        page.get_by_role("button", name="one more gasket of 0.05 mm").tap()
        expect(page.locator(".shelf li").first.locator("output")).to_have_text("7")
        self.assertEqual(ShelfLine.objects.get(thickness_um=50).count, 7)
        page.get_by_role("radio", name="Gasket pump").check()
        page.get_by_label("Thickness").fill("0.5 bar")
        page.get_by_label("On the shelf").fill("4")
        page.get_by_role("button", name="Save count").tap()
        expect(page.get_by_role("alert")).to_contain_text("makes this a pressure")
        expect(page.get_by_label("Thickness")).to_have_value("0.5 bar")
        page.get_by_label("Thickness").fill("0.3")
        page.locator(".unit-switch").tap()
        expect(page.get_by_label("Thickness")).to_have_value("0.3 mm")
        page.get_by_role("button", name="Save count").tap()
        expect(page.locator(".shelf")).to_contain_text("0.012 in")
        expect(page.locator("table")).to_contain_text("out of date")


class States(Bench):
    def test_a_signed_job_is_shown_and_not_changed(self):
        number = Signed.job(finished=True)
        user = User.objects.get(username="tom")
        services.sign_off(services.JobRef(user, number, Job.objects.get(number=number).version), changes.Sign(uuid.uuid4()))
        page = self.page
        self.go(f"/bench/{number}")
        expect(page.locator(".signed-note")).to_contain_text("Signed by Tom")
        self.go(f"/bench/{number}/inspect?gap=idler_bore")
        expect(page.locator(".big-field input")).to_be_disabled()
        expect(page.get_by_role("button", name="Save reading")).to_be_disabled()
        page.locator(".reading-list .fold").click()
        expect(page.locator(".reading-list tr")).to_have_count(4)
        expect(page.get_by_role("button", name="strike out")).to_have_count(0)
        self.go(f"/bench/{number}/set")
        expect(page.locator(".try-form")).to_have_count(0)
        self.go(f"/bench/{number}/decide")
        for button in page.locator(".decision .btn").all():
            expect(button).to_be_disabled()
        page.get_by_role("button", name="kept beyond doubt").click()
        page.get_by_role("button", name="working: Verdict").first.click()
        expect(page.get_by_role("dialog")).to_contain_text("JCGM 106:2012")

    def test_struck_out_with_a_reason_it_stays_on_the_sheet(self):
        number = Signed.job(finished=False)
        page = self.page
        self.go(f"/bench/{number}/inspect?gap=idler_pin")
        page.locator(".big-field input").fill("29.95")
        page.keyboard.press("Enter")
        expect(page.locator(".reading-list .fold")).to_contain_text("1 reading")
        expect(page.locator(".big-field input")).to_have_value("")
        page.keyboard.press("x")
        expect(page.get_by_role("dialog")).to_contain_text("Strike out 29.95 mm")
        page.keyboard.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("say why")
        page.get_by_label("Why").fill("slipped off the edge")
        page.keyboard.press("Enter")
        expect(page.get_by_role("dialog")).to_have_count(0)
        page.locator(".reading-list .fold").click()
        expect(page.locator(".struck")).to_contain_text("slipped off the edge")
        expect(page.locator(".figures")).to_contain_text("No result yet")

    def test_against_the_verdict_it_asks_why(self):
        number = Signed.job(finished=False)
        works = Signed()
        works.tom = User.objects.get(username="tom")
        works.read(number, "idler_bore", "front/12–6", "30.19")
        page = self.page
        self.go(f"/bench/{number}/decide")
        line = page.get_by_role("article", name="Idler, bore")
        expect(line).to_contain_text("Outside by 0.040 mm, beyond doubt")
        line.get_by_role("button", name="Keep, with a reason").click()
        line.get_by_label("goes against the verdict").fill("spare is six weeks away")
        page.keyboard.press("Enter")
        expect(line).to_contain_text("keep, because: spare is six weeks away")
        line.get_by_role("button", name="Change").click()
        expect(line).to_contain_text("Tom: change")

    def test_empty_and_failing_are_said(self):
        page = self.page
        self.go("/bench")
        expect(page.get_by_text("Nothing on the bench")).to_be_visible()
        expect(page.get_by_text("No job has been signed yet")).to_be_visible()
        self.go("/bench/99")
        expect(page.get_by_role("alert")).to_contain_text("could not be read")
        self.go("/nowhere")
        expect(page.get_by_text("There is no such page")).to_be_visible()
        page.get_by_role("link", name="Bench", exact=True).click()
        page.get_by_role("button", name="Open job").click()
        expect(page.get_by_role("alert")).to_contain_text("Pump: none was chosen.")

    def test_signed_out_meanwhile_it_asks_to_sign_in_and_comes_back(self):
        self.go("/fleet")
        expect(self.page.get_by_role("table", name="Pumps")).to_contain_text("H-1")
        self.page.context.clear_cookies()
        self.page.locator(".unit-switch").click()
        self.page.wait_for_url("**/sign-in?next=%2Ffleet")


class Fingers(Bench):
    viewport = {"width": 1024, "height": 768}

    def test_targets_are_large_and_nothing_runs_off_the_side(self):
        number = Signed.job(finished=True)
        stages = ("prepare", "strip", "inspect", "decide", "build", "set", "prove", "close")
        small = (
            "els => els.filter(e => e.offsetParent && !e.closest('.key-strip, .strip, p, td, .done-steps'))"
            ".map(e => [e.textContent.slice(0, 30), e.getBoundingClientRect()])"
            ".filter(([, r]) => r.height < 44 || r.width < 24).map(([t, r]) => `${t} ${r.width}x${r.height}`)"
        )
        for path in [f"/bench/{number}/{s}" for s in stages] + [
            "/bench",
            "/fleet",
            "/sheets",
            "/toolbox",
            "/toolbox/sums/press-fit",
        ]:
            with self.subTest(path=path):
                self.go(path)
                self.page.locator("h1").first.wait_for()
                self.page.wait_for_load_state("networkidle")
                self.assertEqual(self.page.locator("button, input[type=text], select, a.btn").evaluate_all(small), [])
                wide = self.page.evaluate("document.querySelector('main').scrollWidth - document.querySelector('main').clientWidth")
                self.assertLessEqual(wide, 0)

    def test_the_dim_sheet_has_the_same_contrast(self):
        from axe_playwright_python.sync_playwright import Axe

        number = Signed.job(finished=True)
        self.go("/bench")
        self.page.get_by_role("button", name="Dim sheet").tap()
        for path in (
            f"/bench/{number}/inspect",
            f"/bench/{number}/decide",
            f"/bench/{number}/build",
            f"/bench/{number}/set",
            "/toolbox",
        ):
            self.go(path)
            self.page.locator("h1").first.wait_for()
            found = Axe().run(self.page).response["violations"]
            self.assertEqual([v["id"] for v in found if v["impact"] in ("serious", "critical")], [])
