"""The fleet, a pump's life, what falls due, labels; a job's notes, its numbers from paper, its report by a link."""

from __future__ import annotations

import datetime as dt
import uuid

from django.contrib.auth.models import User
from django.utils import timezone
from playwright.sync_api import expect

from finegap.bench.models import Reading
from finegap.core.entry import Entry
from finegap.pumps.changes import ReadMeter
from finegap.pumps.models import Pump
from finegap.pumps.services import read_meter
from tests.browser.base import Bench
from tests.browser.test_places import Signed


class Fleet(Bench):
    def furnished(self) -> None:
        """H-1 has run 4,350 h, 35 a week, and is overhauled every 4,700; two hundred more pumps stand beside it."""
        super().furnished()
        Pump.objects.update(overhaul_every_h=4700)
        tom = User.objects.get(username="tom")
        for hours, days in ((4000, 70), (4350, 0)):
            day = (timezone.localdate() - dt.timedelta(days=days)).isoformat()
            read_meter(tom, "H-1", ReadMeter(uuid.uuid4(), str(hours), day), Entry(meant=True))
        like = {f.attname: getattr(Pump.objects.get(tag="H-1"), f.attname) for f in Pump._meta.fields}
        like = {name: value for name, value in like.items() if name not in ("id", "tag", "code")}
        Pump.objects.bulk_create(Pump(**like | {"location": "hall"}, tag=f"N-{i:03}") for i in range(200))

    def test_a_pump_is_found_while_it_is_typed_and_only_lines_on_screen_are_in_the_page(self):
        page = self.page
        self.go("/fleet")
        rows = page.locator(".fleet-row")
        expect(rows.first).to_contain_text("G-1")
        far = page.get_by_role("link", name="N-120", exact=True)
        page.mouse.move(600, 500)
        for _ in range(60):  # more is fetched before the end of what is there is reached
            if far.count():
                break
            page.mouse.wheel(0, 600)
            page.wait_for_timeout(100)
        expect(far).to_be_visible()
        self.assertLess(rows.count(), 40)
        self.assertLess(page.evaluate("document.querySelectorAll('*').length"), 3000)
        page.get_by_label("Find by tag").fill("h-1 test")
        expect(rows).to_have_count(1)
        expect(rows.first).to_contain_text("350 h left")
        self.assertIn("q=h-1+test", page.url)
        page.reload()
        expect(rows).to_have_count(1)
        page.get_by_label("Find by tag").fill("")
        page.get_by_label("Due in twelve weeks").check()
        expect(rows).to_have_count(1)

    def test_the_weeks_ahead_lead_to_the_pump_and_its_page_says_why(self):
        page = self.page
        self.go("/fleet/due")
        week = page.get_by_role("listitem", name="Week of").filter(has_text="1")
        expect(week.first).to_be_visible()
        page.get_by_role("row", name="Planned overhaul").get_by_role("link").click()
        expect(page.get_by_role("region", name="What comes next")).to_contain_text("Planned overhaul: in 350 h, at 4 700 h")
        expect(page.get_by_text("No overhaul is on record yet")).to_be_visible()
        page.get_by_label("What the next one should know").fill("drips when cold")
        page.get_by_role("button", name="Save note").click()
        expect(page.get_by_role("region", name="What was done")).to_contain_text("drips when cold")

    def test_a_hand_scanner_and_a_typed_label_open_the_pump_or_its_job(self):
        page = self.page
        code = Pump.objects.get(tag="H-1").code
        self.go("/toolbox")
        page.locator("h1").first.wait_for()
        page.keyboard.type(f"{self.live_server_url}/p/{code}")
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name="H-1 test")).to_be_visible()
        number = Signed.job(finished=False)
        self.go("/fleet/scan")
        page.get_by_label("Label: scanned").fill(code.lower())
        page.keyboard.press("Enter")
        page.wait_for_url(f"**/bench/{number}*")
        Pump.objects.filter(tag="G-1").update(retired=timezone.localdate())
        self.go(f"/p/{Pump.objects.get(tag='G-1').code}")
        expect(page.get_by_text("comes to the bench no more")).to_be_visible()

    def test_no_serious_finding_of_axe_light_and_dim(self):
        from axe_playwright_python.sync_playwright import Axe

        for address in ("/fleet", "/fleet/due", "/fleet/H-1", "/fleet/labels", "/fleet/scan"):
            self.go(address)
            self.page.locator("h1").first.wait_for()
            self.page.wait_for_load_state("networkidle")
            for sheet in ("Dim sheet", "Light sheet"):
                found = Axe().run(self.page).response["violations"]
                serious = [(one["id"], one["nodes"][0]["target"]) for one in found if one["impact"] in ("serious", "critical")]
                with self.subTest(address, sheet=sheet):
                    self.assertEqual(serious, [])
                self.page.get_by_role("button", name=sheet).click()
                self.page.wait_for_timeout(400)  # until its colours have changed


class Among(Bench):
    def test_notes_numbers_from_paper_and_a_report_by_a_link(self):
        page = self.page
        number = Signed.job(finished=False)
        self.go(f"/bench/{number}/inspect?paper=1")
        page.get_by_label("Gauge for Idler pin").select_option("M-1")
        boxes = page.get_by_role("row", name="Idler pin").first.locator("input[data-paper]")
        count = boxes.count()
        boxes.first.focus()
        for _ in range(count):
            page.keyboard.type("29.97")
            page.keyboard.press("Enter")
        expect(page.get_by_role("row", name="Idler pin").first.locator("output")).to_have_count(count)
        expect(page.get_by_text("being saved")).to_have_count(0)
        self.assertEqual(Reading.objects.filter(feature="idler_pin", gauge__tag="M-1", taken="paper").count(), count)
        page.get_by_role("button", name="Notes, hand over").click()
        page.get_by_label("Hand the job over").check()
        page.get_by_label("What is done, what is open").fill("pin measured")
        page.locator(".talk-panel select").select_option(label="Lena")
        page.get_by_role("button", name="Hand over", exact=True).click()
        expect(page.locator(".notes")).to_contain_text("Hand-over to Lena")
        self.sign_in("lena")
        page.reload()
        page.get_by_role("button", name="Notes (1)").click()
        page.get_by_role("button", name="Take it over").click()
        expect(page.locator(".notes")).to_contain_text("taken over by Lena")
        self.go("/fleet/H-1")
        page.get_by_role("link", name=f"On the bench: job {number}").click()
        page.get_by_role("button", name="Notes (1)").wait_for()
        Signed.end(number)
        self.go("/fleet/H-1")
        expect(page.locator(".overhaul").get_by_role("row", name="End clearance")).to_contain_text("mmset")
        self.go(f"/bench/{number}/close")
        page.get_by_role("button", name="Give the report out by a link").click()
        page.get_by_label("For whom").fill("the owner")
        page.get_by_label("Can be opened until").fill((timezone.localdate() + dt.timedelta(days=9)).isoformat())
        page.get_by_role("button", name="Make the link").click()
        address = page.get_by_label("Its address, shown this once").input_value()
        stranger = page.context.browser.new_context().new_page()
        stranger.goto(address)
        expect(stranger.get_by_role("heading", name="What came in")).to_be_visible()
        page.get_by_role("button", name="take it back").click()
        page.get_by_role("button", name="It leads nowhere").click()
        expect(page.get_by_text("taken back by Lena")).to_be_visible()
        stranger.reload()
        expect(stranger.get_by_role("heading", name="This link was taken back.")).to_be_visible()
        stranger.context.close()
