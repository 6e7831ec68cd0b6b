"""Prepare to Decide as it is really worked: gauges that send, pasted sets, damage, photos, wear, orders, cabinet, procedure."""

from __future__ import annotations

import io
import json
import random
import threading
from pathlib import Path
from tempfile import TemporaryDirectory

from django.contrib.auth.models import User
from django.test import override_settings
from PIL import Image
from playwright.sync_api import expect

from finegap.bench.models import Job, Photo, Reading
from finegap.inventory import stand_in
from finegap.inventory.models import Gauge
from finegap.sheets.changes import SheetFile
from tests.apps.base import SIZES, Works, add_revision, sheet_data
from tests.apps.test_inspection import CATALOGUE, OnRecord
from tests.apps.test_receiver import GAUGE
from tests.browser.base import Bench


def bench() -> Works:
    works = OnRecord()
    works.tom, works.lena = User.objects.get(username="tom"), User.objects.get(username="lena")
    return works


class Gauges(Bench):
    def setUp(self) -> None:
        super().setUp()
        self.number = bench().open()
        sizes = {f"{p}/{d}": 30.05 for p in ("front", "back") for d in ("12–6", "3–9")}
        self.played = stand_in.Played({"B-1": GAUGE}, {"H-1": {"idler_bore": sizes}}, draw=random.Random(3))
        server = stand_in.Receiver(0, self.played)
        thread = threading.Thread(target=server.serve_forever, kwargs={"poll_interval": 0.02})
        thread.start()
        for undo in (thread.join, server.server_close, server.shutdown):
            self.addCleanup(undo)
        port = override_settings(RECEIVER_PORT=server.port)
        port.enable()
        self.addCleanup(port.disable)

    def test_a_bore_is_measured_with_one_key_a_station(self):
        page = self.page
        self.go(f"/bench/{self.number}/inspect?gap=idler_bore")
        expect(page.get_by_label("Gauge in hand")).to_have_value("B-1")
        for count in range(1, 4):
            page.keyboard.press("p")
            expect(page.locator(".reading-list .fold")).to_contain_text(f"{count} reading")
        page.keyboard.press("p")
        self.go_on()
        expect(page.locator(".pad h2")).to_contain_text("Idler pin")
        taken = Reading.objects.values_list("station", "taken", "value_mm")
        self.assertEqual({t[1] for t in taken}, {"receiver"})
        self.assertEqual(len({t[0] for t in taken}), 4)
        self.assertTrue(all(abs(t[2] - 30.054) < 0.01 for t in taken))

    def test_a_receiver_in_trouble_is_said_and_the_bench_goes_on_by_hand(self):
        page = self.page
        self.go(f"/bench/{self.number}/inspect?gap=idler_bore")
        self.played.mood = "rubbish"
        page.get_by_role("button", name="Pull", exact=True).click()
        expect(page.get_by_role("alert")).to_contain_text("sent something that is no reading")
        page.locator(".big-field input").fill("30.05")
        page.keyboard.press("Enter")
        expect(page.locator(".reading-list .fold")).to_contain_text("1 reading")
        self.played.mood = "inches"
        page.get_by_role("button", name="Pull", exact=True).click()
        expect(page.locator(".notice")).to_contain_text("It came in inches")
        expect(page.locator(".reading-list .fold")).to_contain_text("2 readings")
        self.assertAlmostEqual(Reading.objects.last().value_mm, 30.054, delta=0.01)

    def test_a_pasted_set_lands_in_its_stations_or_says_where_it_is_wrong(self):
        page = self.page
        self.go(f"/bench/{self.number}/inspect?gap=idler_bore")
        page.get_by_role("button", name="Paste", exact=True).click()
        cells = page.get_by_label("Cells")
        cells.fill("Bore (mm)\n30,05\n30,06\n\t\n30,07\tx")
        page.get_by_role("button", name="Save all of them").click()
        expect(page.get_by_role("alert")).to_contain_text("row 3, column 2: “x” is not a number")
        cells.fill("Bore (mm)\n30,05\t30,051\n30,06\n30,07\n30,05")
        page.get_by_role("button", name="Save all of them").click()
        expect(page.get_by_role("dialog")).to_have_count(0)
        expect(page.locator(".figures")).to_contain_text("30.070")
        expect(page.get_by_role("button", name="front, 12–6: 30.051")).to_contain_text("×2")

    def test_damage_a_photo_and_a_warm_part(self):
        page = self.page
        self.go(f"/bench/{self.number}/inspect?gap=idler_pin")
        expect(page.locator(".big-field input")).to_be_focused()
        page.keyboard.press("d")
        page.get_by_role("checkbox", name="scored").check()
        page.get_by_label("In your words").fill("two rings, a nail catches")
        page.get_by_role("button", name="Save what you saw").click()
        expect(page.locator(".judgement .verdict")).to_have_text("Change")
        expect(page.locator(".judgement")).to_contain_text("Score marks a fingernail catches on")
        with TemporaryDirectory() as folder, override_settings(MEDIA_ROOT=folder):
            picture = io.BytesIO()
            Image.new("RGB", (2400, 1200), "grey").save(picture, "JPEG")
            page.locator("input[type=file]").set_input_files(
                {"name": "p.jpg", "mimeType": "image/jpeg", "buffer": picture.getvalue()}
            )
            expect(page.locator(".photos img")).to_have_count(1)
            page.locator(".photos img").evaluate("i => i.decode()")
            self.assertEqual((Photo.objects.get().width, Photo.objects.get().by.username), (1600, "tom"))
            page.locator("input[type=file]").set_input_files({"name": "p.jpg", "mimeType": "image/jpeg", "buffer": b"<svg/>"})
            expect(page.get_by_role("alert")).to_contain_text("no picture, whatever its name says")
            page.get_by_role("button", name="Take off this photo").click()
            expect(page.locator(".photos img")).to_have_count(0)
        page.get_by_role("button", name="Warm part").click()
        page.get_by_label("Part is at").fill("40")
        page.get_by_label("It is made of").select_option("steel")
        page.locator(".big-field input").fill("29.98")
        page.keyboard.press("Enter")
        expect(page.locator(".outcome")).to_contain_text("Measured at 40 °C, corrected to 20 °C")
        expect(page.locator(".figures")).to_contain_text("29.973")


class Wear(Bench):
    def test_the_third_overhaul_knows_the_rate_the_kit_and_the_order(self):
        sheet = sheet_data(revision="9", date="2026-01-01", catalogue=CATALOGUE)
        works = bench()
        add_revision(works.lena, SheetFile(json.dumps(sheet)))
        works.overhaul(4000, {"idler_bore": 30.07}, day=0)
        works.overhaul(8000, {"idler_bore": 30.11}, day=300)
        page = self.page
        Job.objects.first().pump.__class__.objects.update(overhaul_every_h=6000)
        self.go("/bench")
        page.get_by_role("radio", name="H-1").check()
        page.get_by_label("Symptom").select_option(label="Low flow, worst when thin")
        page.get_by_label("Hours run").fill("10 000")
        page.get_by_role("button", name="Open job").click()
        expect(page.locator(".job-details")).to_contain_text("Not known yet: hazards of the liquid, site or workshop")
        expect(page.locator(".ready")).to_contain_text("By the forecast have 1 × Kit")
        page.get_by_role("button", name="to look for").click()
        page.get_by_role("button", name="gloves: missing").click()
        expect(page.locator(".ready .problem")).to_contain_text("Missing: gloves")
        page.get_by_role("link", name="Inspect").click()
        expect(page.locator(".pad h2")).to_contain_text("End clearance")  # the symptom's first suspect
        expect(page.locator('[aria-label^="1 End clearance"]')).to_have_attribute(
            "aria-label", "1 End clearance found: measure first, suspect"
        )
        self.go(page.url.split("?")[0].replace(self.live_server_url, "") + "?gap=idler_bore")
        for count in range(1, 5):
            page.locator(".big-field input").fill("30.13")
            page.keyboard.press("Enter")
            expect(page.locator(".reading-list .fold")).to_contain_text(f"{count} reading")
            expect(page.locator(".judgement .verdict")).to_have_text("Watch" if count == 4 else "Measure again")
        expect(page.locator(".judgement")).to_contain_text("before the next planned overhaul, 6 000 h away")
        page.keyboard.press("h")
        chart = page.get_by_role("dialog").locator(".wear-chart")
        expect(chart).to_have_attribute("aria-label", page_says("at 4000 h", "at 8000 h", "at 10000 h"))
        expect(chart.locator(".limit-text")).to_have_text("limit 30.150")
        page.keyboard.press("Escape")
        page.get_by_role("link", name="Decide").click()
        line = page.get_by_role("article", name="Idler, bore")
        line.get_by_role("button", name="Change").click()
        expect(page.locator(".order")).to_contain_text("450.00 EUR")
        expect(page.locator(".order")).to_contain_text("goes with idler")
        with page.expect_download() as saved:
            page.get_by_role("link", name="CSV").click()
        self.assertIn("K,Kit,1,450.00 EUR", Path(saved.value.path()).read_text(encoding="utf-8-sig"))


def page_says(*parts):
    import re

    return re.compile(".*".join(parts))


class Cabinet(Bench):
    def test_a_lead_adds_a_gauge_and_the_bench_says_what_it_can_decide(self):
        number = bench().open()
        self.sign_in("lena")
        page = self.page
        self.go("/toolbox")
        page.get_by_role("button", name="Add a gauge").click()
        for label, text in (
            ("Its name", "C-9"), ("Range from", "0"), ("Range to", "150"), ("Smallest step", "0.05"), ("U of the certificate", "0.2"),
            ("k of the certificate", ""), ("Calibrated on", "2026-01-01"), ("Due again", "2030-01-01"),
        ):  # fmt: skip
            page.get_by_label(label).fill(text)
        page.get_by_role("dialog").get_by_label("Kind").select_option("caliper")
        page.get_by_role("button", name="Put it into the cabinet").click()
        expect(page.get_by_role("alert")).to_contain_text("K: U says nothing without its coverage factor")
        page.get_by_label("k of the certificate").fill("2")
        page.get_by_role("button", name="Put it into the cabinet").click()
        expect(page.locator("table")).to_contain_text("C-9")
        self.assertEqual(Gauge.objects.get(tag="C-9").now.expanded, 0.2)
        self.go(f"/bench/{number}/inspect?gap=idler_bore")
        page.get_by_label("Gauge in hand").select_option("C-9")
        expect(page.locator(".gauge-note")).to_contain_text("Cannot decide this")
        expect(page.locator(".gauge-note")).to_contain_text("B-1 could")

    def test_a_lead_words_the_procedure_and_the_next_job_follows_it(self):
        self.sign_in("lena")
        page = self.page
        self.go("/sheets/procedures/internal_gear")
        page.get_by_label("Step: Nameplate and kit tag read").fill("Read the plate aloud.")
        page.get_by_role("button", name="Later: Read the plate aloud.").click()
        page.get_by_role("button", name="Add a step of our own to Prepare").click()
        page.get_by_label("Step of our own").fill("Tell the shift leader.")
        page.get_by_role("button", name="Save as version 1").click()
        expect(page.locator(".sheet-head")).to_contain_text("version 1, by Lena")
        number = bench().open()
        self.go(f"/bench/{number}/prepare")
        expect(page.locator(".step-text")).to_contain_text("Kit, tools, gauges and consumables")
        expect(page.locator(".later-steps li").first).to_contain_text("Read the plate aloud.")
        expect(page.locator(".later-steps li").last).to_contain_text("Tell the shift leader.")
        self.sign_in("tom")
        self.go("/sheets/procedures/internal_gear")
        expect(page.get_by_role("button", name="Save as version")).to_have_count(0)

    def test_a_step_is_skipped_noted_and_a_hold_point_is_not(self):
        number = bench().open()
        page = self.page
        self.go(f"/bench/{number}/strip")
        self.read()
        page.get_by_role("button", name="Note", exact=True).click()
        page.get_by_label("Note, kept with the step").fill("old marks do not meet")
        page.get_by_role("button", name="Done", exact=True).click()
        expect(page.locator(".ribbon .present")).to_contain_text("1 of 14")
        self.read()
        page.get_by_role("button", name="Skip …").click()
        page.get_by_label("Why is it skipped?").fill("studs, no bolts")
        page.get_by_role("button", name="Skip it, for this reason").click()
        expect(page.locator(".ribbon .present")).to_contain_text("2 of 14")
        page.get_by_role("button", name="2 of 14 done").click()
        expect(page.locator(".done-steps")).to_contain_text("“old marks do not meet”")
        expect(page.locator(".done-steps")).to_contain_text("Skipped: studs, no bolts")
        page.get_by_role("button", name="Skip …").click()
        page.get_by_label("Only a lead may").fill("it is light")
        page.get_by_role("button", name="Skip it, for this reason").click()
        expect(page.get_by_role("alert")).to_contain_text("not skipped without a lead")


class Dialogs(Bench):
    def test_no_serious_finding_of_axe_in_what_opens_over_the_sheet(self):
        from axe_playwright_python.sync_playwright import Axe

        works = bench()
        works.overhaul(4000, {"idler_bore": 30.07}, day=0)
        number = works.open()
        self.sign_in("lena")
        page = self.page
        inspect = f"/bench/{number}/inspect?gap=idler_bore"
        for path, name in (
            (inspect, "Damage?"), (inspect, "Paste"), (inspect, "wear chart"), (inspect, "working: Can B-1 decide this?"),
            ("/toolbox", "Add a gauge"), (f"/bench/{number}/prepare", "all that is known"), (f"/bench/{number}/prepare", "Skip …"),
        ):  # fmt: skip
            with self.subTest(name=name):
                self.go(path)
                page.get_by_role("button", name=name, exact=True).first.click()
                page.wait_for_timeout(400)
                found = Axe().run(page).response["violations"]
                serious = [(v["id"], v["nodes"][0]["html"][:160]) for v in found if v["impact"] in ("serious", "critical")]
                self.assertEqual(serious, [])

    def test_everything_in_a_dialog_is_reached_with_the_keyboard_and_left_with_escape(self):
        number = bench().open()
        page = self.page
        self.go(f"/bench/{number}/inspect?gap=idler_pin")
        expect(page.locator(".big-field input")).to_be_focused()
        page.keyboard.press("d")
        self.tab_to(page.get_by_role("checkbox", name="pitted or corroded"))
        page.keyboard.press("Space")
        self.tab_to(page.get_by_role("button", name="Save what you saw"))
        page.keyboard.press("Enter")
        expect(page.get_by_role("dialog")).to_have_count(0)
        expect(page.locator(".judgement .verdict")).to_have_text("Change")
        page.keyboard.press("d")
        expect(page.get_by_role("checkbox", name="pitted or corroded")).to_be_checked()
        page.keyboard.press("Escape")
        expect(page.get_by_role("dialog")).to_have_count(0)


class TooMuch(Bench):
    def test_a_part_with_many_stations_and_long_words(self):
        sizes = SIZES | {
            "idler_bore": {
                **SIZES["idler_bore"],
                "stations": {"planes": ["front", "middle", "back"], "directions": [f"tooth {i}" for i in range(1, 9)]},
            }
        }
        works = bench()
        add_revision(works.lena, SheetFile(json.dumps(sheet_data(revision="8", date="2026-03-03", features=sizes))))
        number = works.open()
        page = self.page
        self.go(f"/bench/{number}/inspect?gap=idler_bore")
        expect(page.locator(".station-table .station")).to_have_count(24)
        for i in range(24):
            page.keyboard.type(f"30.0{50 + i % 7}")
            page.keyboard.press("Enter")
        expect(page.locator(".taken-all")).to_contain_text("All 24 stations are taken", timeout=30_000)
        expect(page.get_by_text("on the way")).to_have_count(0, timeout=30_000)
        expect(page.locator(".pad h2")).to_contain_text("Idler, bore")
        self.assertEqual(len(set(Reading.objects.values_list("station", flat=True))), 24)
        wide = page.evaluate("document.querySelector('main').scrollWidth - document.querySelector('main').clientWidth")
        self.assertLessEqual(wide, 0)


class Unsaved(Bench):
    def test_a_reading_that_fails_after_another_part_was_taken_up_is_not_lost(self):
        number = bench().open()
        page = self.page
        self.go(f"/bench/{number}/inspect?gap=idler_bore")
        expect(page.locator(".big-field input")).to_be_focused()

        def refuse_a_while(route):
            page.wait_for_timeout(300)
            body = {
                "code": "conflict",
                "problem": "Somebody else saved.",
                "field": "",
                "hint": "",
                "suggestions": [],
                "reasons": [],
                "reason_wanted": False,
            }
            route.fulfill(status=409, content_type="application/json", body=json.dumps(body))

        page.route("**/readings?*", refuse_a_while)
        page.keyboard.type("30.05")
        page.keyboard.press("Enter")
        page.get_by_role("link", name="Decide").click()
        note = page.get_by_role("status").filter(has_text="Not saved:")
        expect(note).to_contain_text("reading 30.05, Idler, bore")
        page.unroute("**/readings?*")
        note.get_by_role("link").click()
        page.get_by_role("button", name="Save it again").click()
        expect(page.locator(".reading-list .fold")).to_contain_text("1 reading")
        expect(note).to_have_count(0)
        self.assertEqual(Reading.objects.get().station, "front/12–6")
