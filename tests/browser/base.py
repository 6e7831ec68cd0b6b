"""The real interface in Debian's Chromium, against a live server with the test works."""

from __future__ import annotations

import atexit
import os
import re
from functools import cache
from typing import Any

os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "1")

from django.contrib.auth.models import User
from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from django.test import Client, override_settings
from playwright.sync_api import Browser, Locator, TimeoutError, expect, sync_playwright

from tests.apps.base import QUICK_HASHES, furnish

ARGUMENTS = [
    "--headless",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


# A machine that runs the other tests beside it answers late, and no test is about that.
expect.set_options(timeout=15_000)


@cache
def browser() -> Browser:
    """One browser a process."""
    playwright = sync_playwright().start()
    started = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=ARGUMENTS)
    atexit.register(lambda: (started.close(), playwright.stop()))
    return started


@override_settings(**QUICK_HASHES)
class Bench(StaticLiveServerTestCase):
    """A page signed in as the technician, and what went wrong in it."""

    viewport = {"width": 1280, "height": 800}

    def setUp(self) -> None:
        self.furnished()
        context = browser().new_context(viewport=self.viewport, has_touch=True)
        self.addCleanup(context.close)
        self.page = context.new_page()
        self.page.set_default_timeout(10_000)
        self.faults: list[str] = []
        self.page.on("pageerror", lambda error: self.faults.append(str(error)))
        self.page.on("request", self._only_here)
        if User.objects.filter(username="tom").exists():
            self.sign_in("tom")

    def furnished(self) -> None:
        """With the test works."""
        furnish()

    def _only_here(self, request: Any) -> None:
        if not request.url.startswith((self.live_server_url, "data:", "blob:")):
            self.faults.append(f"asked another host: {request.url}")

    def sign_in(self, name: str) -> None:
        client = Client()
        client.force_login(User.objects.get(username=name))
        cookie = client.cookies["sessionid"].value
        self.page.context.add_cookies([{"name": "sessionid", "value": cookie, "url": self.live_server_url}])

    def tab_to(self, target: Any, key: str = "Tab") -> None:
        """Reach something as a person without a mouse does."""
        for _ in range(80):
            if target.evaluate("e => e === document.activeElement"):
                return
            self.page.keyboard.press(key)
        self.fail(f"{target} cannot be reached with {key}")

    def go_on(self) -> None:
        """To the next part by Enter, once all stations are on the sheet; an Enter at once would be a gauge's second one."""
        expect(self.page.locator(".taken-all")).to_contain_text("taken")
        expect(self.page.get_by_text("on the way")).to_have_count(0)
        self.page.wait_for_timeout(750)
        self.page.keyboard.press("Enter")

    def read(self) -> None:
        """Look at the step on screen for long enough that the bench takes it as read."""
        self.page.locator(".present-step").wait_for()
        self.page.wait_for_timeout(450)

    def mark(self, button: Locator) -> None:
        """Mark the step on screen done; ``button`` is the one that does it."""
        button.click()

    def mark_all(self, count: int, begin: int = 0, until: int | None = None) -> None:
        """The steps of the stage on screen, from ``begin`` to ``until`` or to the last."""
        for done in range(begin, until or count):
            expect(self.page.locator(".ribbon .present")).to_contain_text(f"{done} of {count}")
            self.read()
            self.mark(self.page.locator(".present-step .btn").first)
        if until is None:
            expect(self.page.locator(".steps > .all-done")).to_be_visible()
        else:
            expect(self.page.locator(".ribbon .present")).to_contain_text(f"{until} of {count}")

    def build(self, torques: dict[str, str]) -> None:
        """The whole of Build: each stack part by part, each torque pass by pass, each step. ``torques`` by what a pass shows."""
        while not self.page.locator(".steps > .all-done").count():
            self.fit_parts()
            self.log_torques(torques)
            self.read()
            text = self.page.locator(".present-step .step-text").inner_text()
            self.step_done()
            expect(self.page.get_by_text(text, exact=True).and_(self.page.locator(".present-step .step-text"))).to_have_count(0)

    def fit_parts(self) -> None:
        """What is left of the stack at this step, in order, every direction confirmed."""
        part = self.page.locator(".part-in-hand .step-text")
        while part.count():
            name = part.inner_text()
            if not self.page.locator(".directions").count():
                self.read()
            try:
                self.confirm_and_fit()
            except TimeoutError:
                # On a loaded machine the sheet may still be coming when it is looked at: then the part is in, and not in hand.
                self.assertEqual(part.filter(has_text=re.compile(f"^{re.escape(name)}$")).count(), 0)
            expect(part.filter(has_text=re.compile(f"^{re.escape(name)}$"))).to_have_count(0)

    def log_torques(self, torques: dict[str, str]) -> None:
        """What is left of the torques at this step, a pass at a time."""
        field = self.page.get_by_label("Torque the wrench is set to")
        while field.count():
            wanted = self.page.locator(".torque-work .headline").inner_text()
            self.log_pass(field, torques[wanted])
            expect(self.page.locator(".torque-work .headline", has_text=wanted)).to_have_count(0)

    def go(self, path: str) -> None:
        self.page.goto(self.live_server_url + path)

    def tearDown(self) -> None:
        self.assertEqual(self.faults, [])
