"""What waits to be saved, and two people on one job."""

import uuid

from django.contrib.auth.models import User
from playwright.sync_api import expect

from finegap.bench import changes, services
from finegap.bench.models import Job, Reading, StepMark
from tests.apps.base import Works
from tests.browser.base import Bench


class Waiting(Bench):
    def setUp(self):
        super().setUp()
        self.works = Works()
        self.works.tom = User.objects.get(username="tom")
        self.number = self.works.open("H-1")

    def down(self):
        """The server answers nothing that is written."""
        self.page.context.route("**/api/jobs/*/*", lambda r: r.abort() if r.request.method == "POST" else r.continue_())

    def up(self):
        self.page.context.unroute("**/api/jobs/*/*")

    def test_readings_and_a_step_survive_an_outage_a_reload_and_an_ended_session(self):
        page = self.page
        self.go(f"/bench/{self.number}/inspect?gap=idler_bore")
        page.locator(".big-field input").wait_for()
        self.down()
        for typed in ("30.05", "30.06"):
            page.keyboard.type(typed)
            page.keyboard.press("Enter")
        expect(page.locator(".here")).to_contain_text("2 on the way")
        expect(page.locator(".waits-to-be-saved")).to_contain_text("2 changes wait to be saved")
        page.get_by_role("link", name="Prepare").click()
        self.read()
        page.keyboard.press("d")
        expect(page.get_by_role("button", name="Waiting to be saved")).to_be_visible()
        expect(page.locator(".waits-to-be-saved")).to_contain_text("3 changes")
        # leaving asks; somebody who goes all the same loses nothing, signed out meanwhile or not
        asked = []
        page.once("dialog", lambda dialog: (asked.append(dialog.type), dialog.accept()))
        page.reload()
        self.assertEqual(asked, ["beforeunload"])
        expect(page.locator(".waits-to-be-saved")).to_contain_text("3 changes")
        self.assertEqual(Reading.objects.count(), 0)
        page.once("dialog", lambda dialog: dialog.accept())
        page.context.clear_cookies()
        page.goto(self.live_server_url + "/sign-in")
        self.up()
        # another person's queue is another's
        self.sign_in("lena")
        self.go(f"/bench/{self.number}/inspect?gap=idler_bore")
        page.locator(".big-field input").wait_for()
        page.wait_for_timeout(1000)
        self.assertEqual(Reading.objects.count(), 0)
        self.sign_in("tom")
        self.go(f"/bench/{self.number}/inspect?gap=idler_bore")
        expect(page.locator(".reading-list .fold")).to_contain_text("2 readings")
        expect(page.locator(".ribbon")).to_contain_text("1 of 8")  # the step, which was the last
        expect(page.locator(".waits-to-be-saved")).to_have_count(0)
        kept = [(r.station, r.typed, r.by.username) for r in Reading.objects.order_by("order")]
        self.assertEqual(kept, [("front/12–6", "30.05", "tom"), ("front/3–9", "30.06", "tom")])
        self.assertEqual(StepMark.objects.get().step, "identify")

    def test_another_ones_work_appears_and_is_in_the_way_only_on_the_same_part(self):
        page = self.page
        self.go(f"/bench/{self.number}/inspect?gap=idler_bore")
        reading = page.locator(".big-field input")
        reading.wait_for()
        lena = User.objects.get(username="lena")

        def by_lena(feature, typed):
            seen = services.JobRef(lena, self.number, Job.objects.get(number=self.number).version)
            services.record_reading(seen, changes.RecordReading(uuid.uuid4(), feature, "front/12–6", typed, "B-1"))

        by_lena("bushing_bore", "40.10")
        reading.fill("30.05")
        page.keyboard.press("Enter")
        expect(page.locator(".reading-list .fold")).to_contain_text("1 reading")
        expect(page.get_by_role("alert")).to_have_count(0)
        by_lena("idler_bore", "30.07")
        # nothing is pressed: it appears
        expect(page.locator(".reading-list .fold")).to_contain_text("2 readings")
        page.locator(".reading-list .fold").click()
        expect(page.locator(".reading-list")).to_contain_text("Lena")
