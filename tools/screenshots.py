"""One current picture of each main view at 1280x800, from freshly loaded demo data, into docs/screenshots."""

from __future__ import annotations

import os
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

ROOT = Path(__file__).resolve().parents[1]
PORT = 8931
BASE = f"http://127.0.0.1:{PORT}"
ARGUMENTS = ["--headless", "--no-sandbox", "--disable-gpu", "--disable-background-networking"]
VIEWS = {
    "bench": "/bench",
    "prepare": "/bench/4/prepare",
    "inspect": "/bench/17/inspect?gap=tip_drive",
    "decide": "/bench/4/decide",
    "prove": "/bench/3/prove",
    "close": "/bench/3/close",
    "fleet": "/fleet?sort=left",
    "pump": "/fleet/P-112",
    "due": "/fleet/due",
    "sheet": "/sheets/aldery-h40/latest",
    "reading": "/sheets/quillmarsh-q15/2/reading",
    "toolbox": "/toolbox",
    "quick-figures": "/toolbox/sums/packing",
}


OF_A_LEAD = {"settings": "/toolbox/settings", "changes": "/toolbox/changes"}


def main() -> None:
    """Serve the demo from a fresh folder, take the pictures, stop."""
    with tempfile.TemporaryDirectory() as var:
        environment = os.environ | {"FINEGAP_VAR": var, "FINEGAP_DEMO": "1"}
        serve = [sys.executable, "-m", "finegap.command", "demo", "--port", str(PORT)]
        server = subprocess.Popen(serve, cwd=ROOT, env=environment)
        try:
            wait()
            with sync_playwright() as playwright:
                browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=ARGUMENTS)
                take(browser.new_page(viewport={"width": 1280, "height": 800}))
        finally:
            server.terminate()
            server.wait()


def wait() -> None:
    """Until the server answers."""
    for _ in range(240):
        try:
            urllib.request.urlopen(f"{BASE}/sign-in")
            return
        except OSError:
            time.sleep(0.5)
    sys.exit("The demo did not start.")


def take(page: Page) -> None:
    """Every view, then setting the gap by bearing housing after a first try."""
    folder = ROOT / "docs" / "screenshots"
    for person, views in (("Otto", OF_A_LEAD), ("Ines", VIEWS)):
        page.goto(f"{BASE}/sign-in")
        page.get_by_role("button", name=f"Sign in as {person}").click()
        page.wait_for_url("**/bench")
        for name, path in views.items():
            page.goto(BASE + path)
            page.locator("h1").first.wait_for()
            page.wait_for_load_state("networkidle")
            page.screenshot(path=folder / f"{name}.png")
        if person == "Otto":
            typing(page, folder)
    build(page, folder)
    run_in(page, folder)
    page.goto(f"{BASE}/bench/4/set")
    page.get_by_role("button", name="Zero is found").click()
    page.get_by_label("Leaf that goes").fill("0.20")
    page.get_by_label("Leaf that does not").fill("0.22")
    page.get_by_role("button", name="Record try 1").click()
    page.locator(".tries").wait_for()
    page.screenshot(path=folder / "set-housing.png")


def typing(page: Page, folder: Path) -> None:
    """A number put right in a sheet: its clearance table beside its map."""
    page.goto(f"{BASE}/sheets/aldery-h40/latest")
    page.get_by_role("button", name="Correct a number").click()
    page.get_by_role("navigation", name="Sections of the sheet").get_by_role("button", name="Clearance table").click()
    page.get_by_role("grid").wait_for()
    page.locator(".table-map").wait_for()
    page.screenshot(path=folder / "typing.png")


def build(page: Page, folder: Path) -> None:
    """Bearings half in."""
    page.goto(f"{BASE}/bench/4/build")
    page.locator(".page-picker select").select_option("thrust_built")
    page.get_by_label("Lubricant on the bench").select_option("mineral grease")
    for name in ("Lip seal of the housing", "Lip seal of the end cap", "Thrust bearing"):
        page.locator(".part-in-hand .step-text", has_text=name).wait_for()
        for box in page.locator(".directions input").all():
            box.check()
        if name != "Thrust bearing":
            page.get_by_role("button", name="Fitted", exact=True).click()
    page.locator(".work-head").evaluate("e => e.scrollIntoView()")
    page.screenshot(path=folder / "build.png")


LOG = (
    ("0", "70", "28", "not turned"), ("12", "60", "38", "tightened 1/8"), ("24", "46", "49", "tightened 1/8"),
    ("36", "30", "66", "tightened 1/8"), ("48", "14", "91", "not turned"), ("50", "14", "91", "backed off 1/8"),
    ("75", "22", "69", "not turned"), ("86", "22", "66", "tightened 1/16"), ("97", "11", "67", "not turned"),
)  # fmt: skip


def run_in(page: Page, folder: Path) -> None:
    """Packing run in, with a heating on the way."""
    page.goto(f"{BASE}/bench/4/prove")
    page.locator(".page-picker select").select_option("run_in")
    for number, (minute, drops, box, turn) in enumerate(LOG, start=1):
        page.get_by_label("Minute, if not now").fill(minute)
        page.get_by_label("Or drops a minute").fill(drops)
        page.get_by_label("Box (°C)").fill(box)
        page.get_by_role("radio", name=turn).check()
        page.get_by_role("button", name=f"Save line {number}").click()
        if number > 1:  # minutes that have not come yet are asked about
            page.get_by_role("button", name="It is meant as typed").click()
        page.get_by_role("button", name=f"Save line {number + 1}").wait_for()
    page.locator(".coach").evaluate("e => e.scrollIntoView()")
    page.screenshot(path=folder / "run-in.png")


if __name__ == "__main__":
    main()
