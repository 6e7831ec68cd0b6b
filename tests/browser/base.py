"""The real interface in Debian's Chromium, against a live server with the test works."""

from __future__ import annotations

import atexit
import os
from functools import cache
from typing import Any

os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "1")

from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from playwright.sync_api import Browser, sync_playwright

from tests.apps.base import furnish

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


@cache
def browser() -> Browser:
    """One browser a process."""
    playwright = sync_playwright().start()
    started = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=ARGUMENTS)
    atexit.register(lambda: (started.close(), playwright.stop()))
    return started


class Bench(StaticLiveServerTestCase):
    """A page signed in as the technician, and what went wrong in it."""

    viewport = {"width": 1280, "height": 800}

    def setUp(self) -> None:
        furnish()
        context = browser().new_context(viewport=self.viewport, has_touch=True)
        self.addCleanup(context.close)
        self.page = context.new_page()
        self.page.set_default_timeout(10_000)
        self.faults: list[str] = []
        self.page.on("pageerror", lambda error: self.faults.append(str(error)))
        self.page.on("request", self._only_here)
        self.sign_in("tom")

    def _only_here(self, request: Any) -> None:
        if not request.url.startswith((self.live_server_url, "data:", "blob:")):
            self.faults.append(f"asked another host: {request.url}")

    def sign_in(self, name: str) -> None:
        from django.contrib.auth.models import User
        from django.test import Client

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

    def go(self, path: str) -> None:
        self.page.goto(self.live_server_url + path)

    def tearDown(self) -> None:
        self.assertEqual(self.faults, [])
