"""The whole main job through the real interface: by keyboard alone, and by touch."""

import re

from django.contrib.auth.models import User
from playwright.sync_api import expect

from finegap.bench.models import Job
from finegap.core.families.steps import Stage
from tests.apps.base import PIN, Works
from tests.browser.base import Bench

TORQUES = {
    "80 N·m to 90 N·m": "85", "16.0 N·m to 17.6 N·m": "16.8", "28 N·m to 31 N·m": "29.4", "40 N·m to 44 N·m": "42",
    "59 lbf·ft to 66 lbf·ft": "63", "11.8 lbf·ft to 13.0 lbf·ft": "12.4", "21 lbf·ft to 23 lbf·ft": "21.7",
    "30 lbf·ft to 32 lbf·ft": "31",
}  # fmt: skip
SIZES = {"Idler, bore": 30.06, "Idler pin": 29.97, "Bushing, bore": 40.10, "Shaft at the": 39.97}


class ByKeyboard(Bench):
    def test_from_opened_job_to_signed_with_a_bearing_housing(self):
        page = self.page
        self.go("/bench")
        # one Tab goes to the group of pumps, arrows go within it
        expect(page.get_by_label("H-1")).to_be_visible()
        self.tab_to(page.get_by_role("radio").first)
        self.tab_to(page.get_by_label("H-1"), "ArrowDown")
        page.keyboard.press("Space")
        self.tab_to(page.get_by_label("Why it came in"))
        page.keyboard.type("planned overhaul")
        page.keyboard.press("Enter")
        expect(page.locator(".big-number")).to_have_text("0.12 mm")
        self.tab_to(page.get_by_label("Where the work is done"))
        page.keyboard.type("on")
        self.tab_to(page.get_by_label("Its hazards"))
        page.keyboard.type("burns")
        page.keyboard.press("Tab")
        page.keyboard.type("14 380")
        page.keyboard.press("Enter")
        expect(page.locator(".job-details")).to_contain_text("Not known yet: symptom.")
        self.tab_to(page.get_by_role("button", name="all that is known"), "Shift+Tab")
        self.mark_all(8, until=1)
        self.tab_to(page.locator(".ready .fold"), "Shift+Tab")
        page.keyboard.press("Enter")
        self.tab_to(page.get_by_role("button", name="I have looked"))
        page.keyboard.press("Enter")
        expect(page.locator(".ready .fold")).to_contain_text("looked for ▴")
        page.evaluate("document.activeElement.blur()")
        self.mark_all(8, begin=1)
        page.keyboard.press("n")
        self.mark_all(14)
        page.keyboard.press("n")
        expect(page.locator(".pad h2")).to_contain_text("End clearance")
        page.keyboard.type("0.17")
        page.keyboard.press("Enter")
        expect(page.locator(".here")).to_have_text("0.17 goes; leaf that does not")
        page.keyboard.type("0.19")
        page.keyboard.press("Enter")
        self.go_on()
        for name, size in SIZES.items():
            expect(page.locator(".pad h2")).to_contain_text(name)
            expect(page.locator(".big-field input")).to_be_focused()
            expect(page.locator(".big-field input")).to_have_value("")
            # as fast as a gauge that types: no reading waits for the answer to the one before
            for _ in range(4):
                page.keyboard.type(f"{size}")
                page.keyboard.press("Enter")
            expect(page.locator(".pad h2")).to_contain_text(name)
            self.go_on()
        for name in ("18 Bearings", "19 Set screws", "20 Lock washer", "21 Half rings"):
            expect(page.locator(".pad h2")).to_contain_text(name[3:])
            page.wait_for_timeout(50)  # a hand is not faster
            page.keyboard.press("s")
            expect(page.locator(f'[aria-label^="{name}"]')).to_have_attribute("aria-label", re.compile("sound, Keep"))
            if not name.startswith("21"):
                expect(page.get_by_role("button", name="Next part")).to_be_focused()
                page.keyboard.press("Enter")
        expect(page.locator(".ribbon")).to_contain_text("9 of 9")
        expect(page.locator(".judgement .verdict")).to_have_text("Keep")
        page.keyboard.press("n")
        expect(page.locator(".decide")).to_be_visible()
        page.keyboard.press("n")
        self.build_by_keyboard()
        page.keyboard.press("n")
        expect(page.locator(".headline")).to_contain_text("Find zero")
        self.tab_to(page.get_by_role("button", name="Zero is found"))
        page.keyboard.press("Enter")
        expect(page.locator(".headline")).to_contain_text("Open 0.12 mm: turn the housing counterclockwise 18.8 mm")
        self.check("0.18", "0.20")
        expect(page.locator(".headline")).to_contain_text("Close 0.07 mm: turn the housing clockwise 11.0 mm")
        self.check("0.11", "0.13")
        expect(page.locator(".headline")).to_contain_text("0.12 mm is right")
        self.tab_to(page.locator(".unit-switch"), "Shift+Tab")
        page.keyboard.press("u")
        expect(page.locator(".headline")).to_contain_text("0.005 in is right")
        # on a slow tablet too, the key after "next stage" is the new stage's
        tablet = page.context.new_cdp_session(page)
        tablet.send("Emulation.setCPUThrottlingRate", {"rate": 20})
        page.keyboard.press("n")
        page.keyboard.press("f")
        tablet.send("Emulation.setCPUThrottlingRate", {"rate": 1})
        expect(page.locator(".found-free")).to_contain_text("turns freely all the way round")
        self.mark_all(6, until=1)
        self.tab_to(page.get_by_label("Pushed and pulled (in)"))
        page.keyboard.type("0.0004")
        page.keyboard.press("Enter")
        expect(page.locator(".present-step .waits")).to_have_count(0)
        page.evaluate("document.activeElement.blur()")
        self.mark_all(6, begin=1, until=4)
        self.run_in()
        self.mark_all(6, begin=4, until=5)
        self.tab_to(page.get_by_role("combobox", name="Noise"))
        page.keyboard.type("even")
        page.keyboard.press("Tab")
        page.keyboard.press("Enter")
        expect(page.locator(".seen")).to_contain_text("noise even")
        page.evaluate("document.activeElement.blur()")
        self.mark_all(6, begin=5)
        page.keyboard.press("n")
        expect(page.get_by_role("heading", name="Nothing is open")).to_be_visible()
        self.tab_to(page.get_by_label("Your PIN"))
        page.keyboard.type("1234")
        page.keyboard.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("the PIN is wrong")
        self.tab_to(page.get_by_label("Your PIN"))
        page.keyboard.type(PIN)
        page.keyboard.press("Enter")
        expect(page.locator(".signed-note")).to_contain_text("Signed by Tom")
        self.tab_to(page.get_by_role("link", name="Report"))
        with page.context.expect_page():
            page.keyboard.press("Enter")
        report = page.request.get(f"{self.live_server_url}/api/jobs/1/report.pdf")
        self.assertTrue(report.body().startswith(b"%PDF"))

    def build_by_keyboard(self):
        """Packing and thrust bearings; what is on the bench has to be said before an elastomer goes in."""
        page = self.page
        expect(page.locator(".page-picker")).to_contain_text("Nothing to calculate")
        expect(page.locator(".key-strip")).to_contain_text("work")
        for wanted in (
            page.get_by_role("heading", name="Packing with a one-piece gland"),
            page.get_by_label("Lubricant on the bench"),
        ):
            for _ in range(10):
                page.keyboard.press("ArrowDown")
                page.wait_for_timeout(50)
                if wanted.count():
                    break
            expect(wanted).to_be_visible()
        self.tab_to(page.get_by_label("Lubricant on the bench"))
        page.keyboard.type("mineral g")
        page.keyboard.press("Tab")
        expect(page.get_by_label("Lubricant on the bench")).to_have_value("mineral grease")
        self.build(TORQUES)

    def step_done(self):
        self.page.keyboard.press("d")

    def confirm_and_fit(self):
        for _ in self.page.locator(".directions input:not(:checked)").all():
            self.page.keyboard.press("c")
        expect(self.page.locator(".directions input:not(:checked)")).to_have_count(0)
        self.page.keyboard.press("f")

    def log_pass(self, field, typed):
        self.page.keyboard.type(typed)
        expect(field).to_have_value(typed)
        self.page.keyboard.press("Shift+Enter")

    def run_in(self):
        """Three taps of a key for three drops, and the box: it leaks and is cool."""
        page = self.page
        expect(page.locator(".coach")).to_contain_text("let it leak freely")
        for _ in range(3):
            page.keyboard.press("k")
            page.wait_for_timeout(150)
        self.tab_to(page.get_by_label("Box (°F)"))
        page.keyboard.type("88")
        page.keyboard.press("Enter")
        expect(page.locator(".coach")).to_contain_text("is still too much")
        page.get_by_role("button", name="strike out: line at minute 0").focus()
        page.keyboard.press("Enter")
        page.keyboard.type("three drops are too few")
        page.keyboard.press("Enter")
        expect(page.locator(".coach")).to_contain_text("let it leak freely")
        self.tab_to(page.get_by_label("Or drops a minute"))
        page.keyboard.type("6")
        self.tab_to(page.get_by_label("Box (°F)"))
        page.keyboard.type("88")
        page.keyboard.press("Enter")
        expect(page.locator(".coach")).to_contain_text("6 drops a minute at 88 °F is right")
        page.keyboard.press("Escape")
        page.evaluate("document.activeElement.blur()")

    def mark(self, button):
        self.page.keyboard.press("d")

    def check(self, goes, stops):
        page = self.page
        tries = page.locator(".tries tbody tr").count()
        self.tab_to(page.get_by_label("Leaf that goes"))
        page.keyboard.type(goes)
        page.keyboard.press("Tab")
        page.keyboard.type(stops)
        page.keyboard.press("Enter")
        expect(page.locator(".tries tbody tr")).to_have_count(tries + 1)


def colleague():
    """The technician at another tablet: what is tried by the keyboard is not tried by touch once more."""
    works = Works()
    works.tom = User.objects.get(username="tom")
    return works


class ByTouch(Bench):
    """Fingers only: text goes in through the field that was touched, everything else is a tap."""

    viewport = {"width": 1024, "height": 768}

    def test_from_opened_job_to_a_leads_signature_with_gaskets_in_inches(self):
        page = self.page
        self.go("/bench")
        page.locator(".unit-switch").tap()
        page.get_by_text("G-1").tap()
        self.write(page.get_by_label("Why it came in"), "noise")
        page.get_by_role("button", name="Open job").tap()
        expect(page.locator(".big-number")).to_have_text("0.005 in")
        page.locator(".ready .fold").tap()
        page.get_by_role("button", name="I have looked").tap()
        expect(page.locator(".ready .fold")).to_contain_text("looked for ▴")
        self.mark_all(8)
        # Strip is done by a colleague at another tablet; here it shows by itself.
        works, number = colleague(), Job.objects.get().number
        page.get_by_role("link", name="Strip").tap()
        works.steps(number, Stage.STRIP)
        expect(page.locator(".all-done")).to_be_visible()
        page.get_by_role("link", name="Inspect").tap()
        self.write(page.locator(".big-field input"), "0.0065")
        page.get_by_role("button", name="It goes").tap()
        self.write(page.locator(".big-field input"), "0.0075")
        page.get_by_role("button", name="Save reading").tap()
        # typed in millimetres while inches are on screen: asked about, nothing lost, put right with one tap
        page.locator('[aria-label^="2 Idler, bore"] .touch').tap()
        expect(page.locator(".pad h2")).to_contain_text("Idler, bore")
        reading = page.locator(".big-field input")
        self.write(reading, "30.19")
        page.get_by_role("button", name="Save reading").tap()
        expect(page.get_by_role("alert")).to_contain_text("Did you mean millimetres?")
        expect(page.locator(".not-saved")).to_contain_text("front, 12–6: 30.19 is not saved")
        page.get_by_role("button", name="It is millimetres").tap()
        expect(page.locator(".judgement .verdict")).to_have_text("Change")
        expect(page.locator(".figures")).to_contain_text("1.1886")
        for count in range(2, 5):
            self.write(reading, "1.1886")
            page.get_by_role("button", name="Save reading").tap()
            expect(page.locator(".reading-list .fold")).to_contain_text(f"{count} reading")
        self.measure("3 Idler pin", ["1.1799"] * 4)
        self.measure("5 Bushing, bore", ["1.5787"] * 4)
        # it stays on the part until it is told to go on
        expect(page.locator(".taken-all")).to_contain_text("All 4 stations are taken")
        expect(page.locator(".pad h2")).to_contain_text("Bushing, bore")
        page.get_by_role("button", name="Next part").tap()
        expect(page.locator(".pad h2")).to_contain_text("Shaft at the bushing")
        # begun in inches, finished after the switch: it keeps the unit it was typed in
        self.measure("6 Shaft at the bushing", ["1.5736"] * 3)
        self.write(reading, "1.5735")
        page.locator(".unit-switch").tap()
        expect(reading).to_have_value("1.5735 in")
        expect(page.locator(".figures")).to_contain_text("39.969")
        page.get_by_role("button", name="Save reading").tap()
        page.get_by_role("button", name="Next part").tap()
        expect(page.locator(".pad h2")).to_contain_text("Bearings")
        page.locator(".unit-switch").tap()
        for balloon in ("18 Bearings", "20 Lock washer"):
            page.locator(f'[aria-label^="{balloon}"] .touch').tap()
            expect(page.locator(".pad h2")).to_contain_text(balloon[3:])
            page.get_by_role("button", name="Sound: nothing to see").tap()
            expect(page.locator(f'[aria-label^="{balloon}"]')).to_have_attribute("aria-label", re.compile("sound"))

        page.get_by_role("link", name="Decide").tap()
        pair = page.get_by_role("article", name="Idler on its pin", exact=True)
        # 30.02 to 30.04 mm as new, on a pin of 1.1799 in: 0.0020 to 0.0028 in
        expect(pair).to_contain_text("New idler: 0.0020 to 0.0028")
        page.get_by_role("article", name="Idler, bore", exact=True).get_by_role("button", name="Change").tap()
        expect(page.get_by_text("Nothing is open")).to_be_visible()
        expect(pair).to_contain_text("Decided by what is changed of its parts")
        page.get_by_role("link", name="Build").tap()
        page.get_by_role("button", name="Next work").tap()
        for count in range(1, 5):
            self.write(page.locator(".big-field input"), "1.1822")
            page.get_by_role("button", name="Save reading").tap()
            expect(page.locator(".judgement .verdict")).to_have_text("Keep" if count == 4 else "Measure again")
        page.get_by_role("button", name="Next work").tap()
        page.get_by_label("Lubricant on the bench").select_option("soap")
        expect(page.get_by_label("Lubricant on the bench")).to_have_value("soap")
        works.build(number)
        self.build(TORQUES)

        page.get_by_role("link", name="Set").tap()
        expect(page.locator(".headline")).to_contain_text("Start with 0.010 in under the head")
        # put together at Build: whether the first try opened it, only the technician knows
        page.get_by_role("button", name="Record try 1").tap()
        expect(page.get_by_role("alert")).to_contain_text("nothing was entered")
        page.get_by_label("checked as it was built").tap()
        self.check("0.0075", "0.0083")
        expect(page.locator(".headline")).to_contain_text("Close 0.003 in: take out 0.010 in, put in")
        expect(page.locator(".opens")).to_contain_text("Head on to its marks with a new gasket")
        page.get_by_label("Tightened for the trial").tap()
        self.check("0.0045", "0.0049")
        expect(page.locator(".headline")).to_contain_text("Right on trial: now the torque of the head bolts")
        page.get_by_role("button", name="To the steps").tap()
        self.build(TORQUES)
        page.get_by_role("button", name="End clearance").tap()
        expect(page.locator(".headline")).to_contain_text("Check once more, as it stands")
        self.check("0.0045", "0.0049")
        expect(page.locator(".headline")).to_contain_text("0.005 in is right")
        page.get_by_role("link", name="Prove").tap()
        page.get_by_role("button", name="tight at 3 o'clock").tap()
        page.get_by_role("button", name="Record: tight at 3").tap()
        expect(page.locator(".present-step")).to_contain_text("tight at 3 o'clock: never run it like that")
        page.get_by_role("button", name="tight at 3 o'clock").tap()
        page.get_by_role("button", name="Turns freely all the way round").tap()
        self.mark_all(5, until=1)
        self.write(page.get_by_label("Pushed and pulled"), "0.0004")
        page.get_by_role("button", name="Save").tap()
        expect(page.locator(".present-step .waits")).to_have_count(0)
        self.mark_all(5, begin=1, until=4)
        page.get_by_role("combobox", name="Noise").select_option("even")
        page.get_by_role("form", name="noise").get_by_role("button", name="Save").tap()
        expect(page.locator(".present-step .waits")).to_have_count(0)
        self.mark_all(5, begin=4)

        # a reading by a gauge past its date: the technician is stopped, the lead signs with a reason
        page.get_by_role("link", name="Inspect").tap()
        page.locator('[aria-label^="3 Idler pin"] .touch').tap()
        expect(page.locator(".pad h2")).to_contain_text("Idler pin")
        page.get_by_label("Gauge in hand").select_option("OLD")
        expect(page.get_by_text("a lead has to sign")).to_be_visible()
        self.write(page.locator(".big-field input"), "1.1799")
        page.get_by_role("button", name="Save reading").tap()
        expect(page.locator(".reading-list .fold")).to_contain_text("5 readings")
        page.get_by_role("link", name="Close").tap()
        expect(page.locator(".blockers")).to_contain_text("OLD was past its calibration date")
        expect(page.get_by_role("button", name="Sign off")).to_be_disabled()
        self.sign_in("lena")
        page.reload()
        sign = page.get_by_role("button", name="Sign off as Lena")
        self.write(page.get_by_label("Your PIN"), PIN)
        sign.tap()
        expect(page.get_by_role("alert")).to_contain_text("only with a reason")
        self.write(page.get_by_label("Reason"), "checked on the block this morning")
        self.write(page.get_by_label("Your PIN"), PIN)
        sign.tap()
        expect(page.get_by_text("Signed by Lena").first).to_be_visible()
        expect(page.locator("section", has_text="End clearance as left").first).to_contain_text("checked on the block")

    def write(self, field, text):
        field.tap()
        field.fill(text)

    def measure(self, balloon, values):
        page = self.page
        page.wait_for_timeout(250)  # a hand is not faster: the sheet may still be settling under it
        page.locator(f'[aria-label^="{balloon}"] .touch').tap()
        expect(page.locator(".pad h2")).to_contain_text(balloon[2:])
        for count, value in enumerate(values, start=1):
            self.write(page.locator(".big-field input"), value)
            page.get_by_role("button", name="Save reading").tap()
            if count < len(values) or len(values) == 3:
                expect(page.locator(".reading-list .fold")).to_contain_text(f"{count} reading")
                expect(page.locator(".big-field input")).to_have_value("")

    def step_done(self):
        self.page.locator(".present-step .btn").first.tap()

    def confirm_and_fit(self):
        for _ in self.page.locator(".directions input:not(:checked)").all():
            self.page.locator(".directions input:not(:checked)").first.tap()
        self.page.get_by_role("button", name="Fitted", exact=True).tap()

    def log_pass(self, field, typed):
        self.write(field, typed)
        self.page.locator(".torque-work form .choices .btn").last.tap()

    def mark(self, button):
        button.tap()

    def check(self, goes, stops):
        page = self.page
        tries = page.locator(".tries tbody tr").count()
        self.write(page.get_by_label("Leaf that goes"), goes)
        self.write(page.get_by_label("Leaf that does not"), stops)
        page.get_by_role("button", name=f"Record try {tries + 1}").tap()
        expect(page.locator(".tries tbody tr")).to_have_count(tries + 1)


class TwoHands(Bench):
    def test_a_double_click_and_a_lost_answer_make_one_reading_and_another_person_is_told_of(self):
        import uuid

        from django.contrib.auth.models import User

        from finegap.bench import changes, services
        from finegap.bench.models import Job, Reading
        from tests.apps.base import Works

        works = Works()
        works.tom = User.objects.get(username="tom")
        number = works.open("H-1")
        page = self.page
        self.go(f"/bench/{number}/inspect?gap=idler_bore")
        reading = page.locator(".big-field input")
        reading.fill("30.05")
        page.get_by_role("button", name="Save reading").dblclick()
        expect(page.locator(".reading-list .fold")).to_contain_text("1 reading")
        self.assertEqual(Reading.objects.count(), 1)

        # the server saves, but its answer is lost on the way: the bench asks again with the same identity
        lost = []

        def lose_the_first(route):
            if lost:
                route.continue_()
                return
            lost.append(route.fetch())
            route.abort()

        page.route("**/readings?*", lose_the_first)
        reading.fill("30.06")
        page.get_by_role("button", name="Save reading").click()
        expect(page.locator(".reading-list .fold")).to_contain_text("2 readings")
        self.assertEqual(Reading.objects.count(), 2)
        page.unroute("**/readings?*")

        # somebody else saves in between: nothing is overwritten, what was typed stays, the second try goes in
        page.route("**/version", lambda route: route.abort())  # before the news of it has come
        seen = services.JobRef(User.objects.get(username="lena"), number, Job.objects.get(number=number).version)
        services.record_reading(seen, changes.RecordReading(uuid.uuid4(), "idler_bore", "back/12–6", "30.07", "B-1"))
        reading.fill("30.08")
        page.get_by_role("button", name="Save reading").click()
        expect(page.get_by_role("alert")).to_contain_text("Lena: Idler, bore, back, 12–6: 30.07 mm")
        expect(page.locator(".not-saved")).to_contain_text("30.08 is not saved")
        expect(page.locator(".reading-list .fold")).to_contain_text("3 readings")
        page.get_by_role("button", name="Save it again").click()
        expect(page.locator(".reading-list .fold")).to_contain_text("4 readings")
        self.assertEqual(Reading.objects.count(), 4)

    def test_a_double_press_does_not_acknowledge_the_next_caution(self):
        from django.contrib.auth.models import User

        from finegap.bench.models import StepMark
        from tests.apps.base import Works

        works = Works()
        works.tom = User.objects.get(username="tom")
        page = self.page
        self.go(f"/bench/{works.open('H-1')}/prepare")
        self.read()
        page.locator(".present-step .btn").first.dblclick(delay=60)
        page.keyboard.press("d")
        expect(page.locator(".ribbon .present")).to_contain_text("1 of 8")
        page.wait_for_timeout(300)
        self.assertEqual(StepMark.objects.count(), 1)


class Screens(Bench):
    def test_no_serious_finding_of_axe_on_any_screen(self):
        from axe_playwright_python.sync_playwright import Axe

        from tests.apps.base import Works

        works = Works()
        from django.contrib.auth.models import User

        works.tom = User.objects.get(username="tom")
        number = works.open("H-1")
        works.measure_all(number)
        works.set_housing(number, goes="0.18", stops="0.20")
        stages = ("prepare", "strip", "inspect", "decide", "build", "set", "prove", "close")
        paths = [f"/bench/{number}/{s}" for s in stages] + [
            "/bench",
            "/fleet",
            "/sheets",
            "/sheets/test-pump/latest",
            "/sheets/procedures/internal_gear",
            f"/bench/{number}/inspect?gap=bearings",
            "/toolbox",
            "/toolbox/sums/o-ring",
            "/me",
            "/sign-in",
        ]
        for path in paths:
            with self.subTest(path=path):
                self.go(path)
                self.page.locator("h1").first.wait_for()
                found = Axe().run(self.page).response["violations"]
                serious = [(v["id"], v["nodes"][0]["html"][:160]) for v in found if v["impact"] in ("serious", "critical")]
                self.assertEqual(serious, [])
