"""Pumps of other families in the browser: wear seen through a check port, and oil and grease by the hours meter."""

from django.contrib.auth.models import User
from playwright.sync_api import expect

from finegap.bench.models import SizeOnRecord
from tests.apps.base import PIN
from tests.apps.test_fleet import add_oiled_pump, add_vane_pump
from tests.browser.base import Bench


class Elsewhere(Bench):
    def test_vanes_seen_through_the_check_port_from_opened_to_signed(self):
        page = self.page
        add_vane_pump(User.objects.get(username="lena"))
        self.go("/bench")
        page.get_by_text("V-1").click()
        page.get_by_label("Why it came in").fill("yearly check")
        page.get_by_role("button", name="Open job").click()
        expect(page.locator(".ribbon .present")).to_contain_text("Prepare")
        page.get_by_role("button", name="all that is known").click()
        page.get_by_label("This job").select_option("check")
        page.locator(".details-form").get_by_role("button", name="Save").click()
        expect(page.get_by_text("vented to the air", exact=False).first).to_be_visible()
        self.mark_all(2)
        page.get_by_role("link", name="Strip").click()
        self.mark_all(1)
        page.get_by_role("link", name="Inspect").click()
        expect(page.locator(".pad h2")).to_contain_text("Port, depth to the vane")
        page.locator(".big-field input").fill("9.40")
        page.keyboard.press("Enter")
        self.go_on()
        expect(page.locator(".pad h2")).to_contain_text("Port, wear line")
        page.get_by_label("past the line").check()
        page.get_by_role("button", name="Save what you saw").click()
        expect(page.locator(".ribbon .present")).to_contain_text("2 of 2")
        page.get_by_role("link", name="Decide").click()
        expect(page.get_by_role("article", name="Port, depth to the vane")).to_contain_text("9.4")
        for name in ("Port, depth to the vane", "Port, wear line"):
            page.get_by_role("article", name=name).get_by_role("button", name="Change").click()
        page.get_by_role("link", name="Set").click()
        expect(page.get_by_text("Nothing is set in this job")).to_be_visible()
        page.get_by_role("link", name="Prove").click()
        self.mark_all(2)
        page.get_by_role("link", name="Close").click()
        expect(page.get_by_text("Nothing is set in this job")).to_be_visible()
        page.get_by_label("Your PIN").fill(PIN)
        page.get_by_role("button", name="Sign off as Tom").click()
        expect(page.locator(".signed-note")).to_contain_text("Signed by Tom")
        # nothing was renewed: the next check goes on from this depth
        kept = SizeOnRecord.objects.get(feature="port_depth")
        self.assertEqual((kept.found_mm, kept.changed), (9.4, False))

    def test_oil_and_grease_fall_due_by_the_meter_on_the_pumps_page(self):
        page = self.page
        add_oiled_pump(User.objects.get(username="lena"))
        self.go("/fleet")
        page.get_by_role("link", name="O-1").click()
        expect(page.get_by_text("Nothing can fall due before the meter was read")).to_be_visible()
        hours = page.get_by_label("Reads (h)")
        for typed, when in (("4000", "2020-01-01"), ("4 350", "")):
            hours.fill(typed)
            page.get_by_label("Day, if not today").fill(when)
            page.get_by_role("button", name="Save reading").click()
            expect(hours).to_have_value("")
        page.get_by_role("region", name="What comes next").get_by_role("button", name="Done").first.click()
        at = page.get_by_label("Gear-case oil, at (h)")
        at.fill("lots")
        page.keyboard.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("hours")
        expect(at).to_have_value("lots")
        at.fill("4350")
        page.keyboard.press("Enter")
        expect(at).to_have_count(0)
        # in a wet place after 500 h, not 750
        expect(page.locator(".due li").first).to_contain_text("now Bearing grease: 3 600 h past due")
        expect(page.locator(".due li").last).to_contain_text("Gear-case oil with gear oil: in 500 h, at 4 850 h")
        with page.expect_download() as got:
            page.get_by_role("link", name="For a calendar").click()
        self.assertIn("BEGIN:VCALENDAR", got.value.path().read_text())
