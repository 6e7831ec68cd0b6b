"""A works of one's own, from its first visit to a signed job, out into an archive, and the same works again."""

from __future__ import annotations

import json
import re
import tempfile
import zipfile
from pathlib import Path
from unittest import mock

from django.contrib.auth.models import User
from django.test import override_settings
from playwright.sync_api import expect

from finegap.bench.models import Job, SignOff
from finegap.core.sheet import read_sheet
from finegap.inventory.models import Gauge
from finegap.sheets.models import SheetRevision
from finegap.site import first_visit
from finegap.site.archive.back import filled
from finegap.works.models import WorksSettings
from tests.apps.base import HOUSING, PIN, QUICK_HASHES, SIZES, Works, sheet_data
from tests.browser.base import Bench

PASSWORD = "lathe-and-lamp"
GAUGES = """Tag;Kind;From;To;Resolution;U;k;Calibrated;Due;Leaves
M-1;outside micrometer;25;50;0.001;0.002;2;2026-01-10;2999-01-10
M-2;outside micrometer;0;25;0.001;0.002;2;2026-01-10;2999-01-10
B-1;bore gauge;18;50;0.001;0.002;2;2026-01-10;2999-01-10
B-2;bore gauge;50;100;0.001;0.003;2;2026-01-10;2999-01-10
F-1;feeler set;0.03;1;0.01;0.002;2;2026-01-10;2999-01-10;0.05 0.10 0.11 0.13 0.15 0.18 0.20
D-1;dial indicator;0;10;0.01;0.004;2;2026-01-10;2999-01-10
C-1;caliper;0;150;0.01;0.02;2;2026-01-10;2999-01-10
T-1;depth gauge;0;150;0.01;0.01;2;2026-01-10;2999-01-10
W-1;torque wrench;10;250;1;2;2;2026-01-10;2999-01-10
H-1;thermometer;-20;200;0.5 K;0.5 K;2;2026-01-10;2999-01-10
"""
PUMP = {
    "Tag": "P-1", "What it does": "Oil transfer", "Where it stands": "cellar", "Serial, off the nameplate": "4711", "Liquid": "oil",
    "Viscosity when pumping, or two points, each at its temperature in C or F (mm²/s)": "50", "Temperature (°C)": "60",
    "Differential pressure (bar)": "5", "Speed (r/min)": "300",
}  # fmt: skip


KEYS_A_MINUTE, SCREEN_S, NUMBER_S = 40, 5, 10
"""A person at a keyboard beside a paper manual: keys a minute, seconds to take in a screen, and to find a number on paper."""


def bare(texts: list[str]) -> list[str]:
    """Sizes as the manual prints them under its unit."""
    return [text.removesuffix(" mm") for text in texts]


@override_settings(**QUICK_HASHES)
class OwnWorks(Bench):
    """By keyboard alone as far as the lead sets it up, by touch after that, on a tablet's screen."""

    viewport = {"width": 1024, "height": 768}
    keys = screens = numbers = 0

    def furnished(self) -> None:
        """With nothing: nobody works here yet."""
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory()))
        self.enterContext(override_settings(MEDIA_ROOT=self.folder / "media", VAR=self.folder))
        self.enterContext(mock.patch.object(first_visit, "CODE", self.folder / "first_visit"))

    def test_from_the_first_visit_to_a_signed_job_out_and_back(self) -> None:
        self.first_lead()
        self.people()
        self.gauges()
        self.sheet_typed()
        self.pump()
        self.job()
        archive = self.everything_out()
        self.back(archive)

    def first_lead(self) -> None:
        page = self.page
        self.go("/")
        expect(page).to_have_title("First visit · Fine Gap")
        self.tab_to(page.get_by_label("The code the server printed"))
        for text in (first_visit.code(), "Ada", "Orme", "ada", PASSWORD, PASSWORD, "Wold Pump Room"):
            page.keyboard.type(text)
            page.keyboard.press("Tab")
            self.keys += len(text) + 1
        self.tab_to(page.get_by_role("button", name="Begin"))
        page.keyboard.press("Enter")
        expect(page.get_by_role("region", name="Before the first job").get_by_role("listitem")).to_have_count(4)

    def people(self) -> None:
        page = self.page
        self.press(page.get_by_role("link", name="People"))
        form = page.get_by_role("form", name="Somebody new")
        for name in ("Bo", "Cy"):
            self.tab_to(form.get_by_label("First name"))
            for text in (name, "Reed", name.lower(), PASSWORD):
                page.keyboard.type(text)
                page.keyboard.press("Tab")
            self.press(form.get_by_role("button", name="Add"))
            expect(page.get_by_role("region", name="Everybody")).to_contain_text(f"{name} Reed, technician")

    def gauges(self) -> None:
        page = self.page
        self.press(page.get_by_role("link", name="Toolbox"))
        self.press(page.get_by_role("button", name="Many gauges from a file"))
        self.choose(page.get_by_role("button", name="Choose a file"), "gauges.csv", GAUGES)
        # Typed in a spreadsheet. Two gauges begin to measure; the others, like the people, are added while the pump is stripped.
        self.keys += sum(len(line) for line in GAUGES.splitlines()[:3])
        expect(page.get_by_role("status")).to_have_text("gauges.csv: 10 gauges, nothing wrong.")
        self.press(page.get_by_role("button", name="Keep all 10"))
        expect(page.get_by_role("row", name="W-1")).to_be_visible()
        self.assertEqual(Gauge.objects.count(), 10)

    def sheet_typed(self) -> None:
        """From the printed manual, by keyboard alone; what is typed is counted as a person's keys."""
        page, content = self.page, sheet_data()
        self.press(page.get_by_role("link", name="Sheets"))
        self.field(page.get_by_label("Family"), "Internal")
        self.press(page.get_by_role("button", name="Begin typing"))
        expect(page.get_by_role("heading", name="A new sheet")).to_be_visible()
        for path, text in (("maker", "Nobody"), ("model", "T1"), ("revision", "1"), ("date", "01022024"), ("source", "made up")):
            self.field(self.asked(path), text)
        self.section("Adjustment")
        self.field(self.asked("adjustment.means"), "threaded")
        for name in ("outside_diameter", "lead", "arc", "for_clearance"):
            self.field(self.asked(f"adjustment.{name}"), HOUSING[name].removesuffix(" mm"))
        self.section("Counts and weights")
        self.field(self.asked("details.elastomer"), "FKM")
        self.section("Sizes and limits")
        self.rows(
            [("-".join(bare(spec["new"])), *bare([spec.get("minimum", ""), spec.get("maximum", "")])) for spec in SIZES.values()]
        )
        expect(page.get_by_role("button", name="2 Idler, bore: typed")).to_be_visible()
        self.section("Clearance table")
        for name, text in (("page", "1"), ("tolerance.minus", "0.02"), ("tolerance.plus", "0.02")):
            self.field(self.asked(f"clearance_table.{name}"), text)
        self.rows([("thin", "cast iron", "up to 100", "-20-120", "0.12"), ("thick", "cast iron", "90 and up", "-20-120", "0.20")])
        expect(page.get_by_text("Rows 1 and 2 overlap: 90 to 100")).to_be_visible()
        self.section("Torques")
        self.rows([("Lock nut", "80-90"), ("Head bolts", "40-44", "oiled", "", "4", "", "M10")])
        self.section("Cautions of the maker")
        self.down([("The spring is under load.", "never by hand", "not hot", "no flame"), ("strip", "build", "strip", "prepare")])
        self.section("Heat")
        for name, text in (("thrust_to_head", "150"), ("casing", "cast iron"), ("rotor", "steel")):
            self.field(self.asked(f"heat.{name}"), text)
        expect(page.get_by_text("Everything that has to be there is.")).to_be_visible()
        self.press(page.get_by_role("button", name="Keep the sheet"), "Shift+Tab")
        expect(page.get_by_text("Nothing is signed on it.")).to_be_visible()
        kept = SheetRevision.objects.get()
        whole, said = read_sheet(content), read_sheet(kept.content)
        self.assertEqual((said.features, said.rows, said.means, said.heat), (whole.features, whole.rows, whole.means, whole.heat))

    def sheet_read(self) -> None:
        """Line by line, by somebody who did not type it."""
        page = self.page
        self.go("/sheets/nobody-t1/1/reading")
        lines = page.locator("button[data-agrees]")
        expect(lines.first).to_be_visible()
        lines.first.focus()
        for left in range(lines.count(), 0, -1):
            expect(lines).to_have_count(left)
            page.wait_for_timeout(260)  # a key pressed twice is one answer
            page.keyboard.press("Enter")
        expect(page.get_by_text("Read by Bo Reed")).to_be_visible()

    def pump(self) -> None:
        page = self.page
        self.press(page.get_by_role("link", name="Fleet"))
        self.press(page.get_by_role("button", name="Add a pump"))
        self.tab_to(page.get_by_role("radio"))
        page.keyboard.press("Space")
        for name, text in PUMP.items():
            self.field(page.get_by_label(name, exact=True), text)
        self.tab_to(page.get_by_label("Kind of liquid, for its elastomers"))
        page.keyboard.type("mineral")
        self.press(page.get_by_role("button", name="Add the pump"))
        expect(page.get_by_role("heading", name="P-1 Oil transfer")).to_be_visible()

    def job(self) -> None:
        page = self.page
        self.go("/bench")
        expect(page.get_by_role("region", name="Before the first job")).to_have_count(0)
        self.somebody("Bo Reed", "Password", PASSWORD)
        page.get_by_role("link", name="Bo Reed, technician").tap()
        pin = page.get_by_role("region", name="Your PIN")
        pin.get_by_label("Your password").fill(PASSWORD)
        pin.get_by_label("New PIN").fill(PIN)
        pin.get_by_label("The same again").fill(PIN)
        pin.get_by_role("button", name="Set the PIN").tap()
        expect(page.get_by_text("The PIN is set.")).to_be_visible()
        page.get_by_role("link", name="Bench", exact=True).tap()
        page.get_by_label("P-1").tap()
        page.get_by_label("Why it came in").fill("planned overhaul")
        page.get_by_role("button", name="Open").tap()
        expect(page.locator(".big-number")).to_have_text("0.12 mm")
        self.keys += len("planned overhaul")
        minutes = self.keys / KEYS_A_MINUTE + (self.screens * SCREEN_S + self.numbers * NUMBER_S) / 60
        self.assertLess(
            minutes, 30, f"{self.keys} keys, {self.screens} screens, {self.numbers} numbers: too long until it is measured"
        )
        self.done_at_the_bench(Job.objects.get())
        self.go("/bench/1/close")
        expect(page.get_by_text("Sheet not yet read against the manual")).to_be_visible()
        expect(page.get_by_role("button", name="Sign off")).to_be_disabled()
        self.sheet_read()
        self.go("/bench/1/close")
        page.get_by_label("Your PIN").fill(PIN)
        page.get_by_role("button", name="Sign off").tap()
        expect(page.locator(".signed-note")).to_contain_text("Signed by Bo Reed")

    def done_at_the_bench(self, job: Job) -> None:
        """What other tests do in the browser: measured, built, set and proved."""
        works = Works()
        works.tom = User.objects.get(username="bo")
        works.measure_all(job.number)
        works.look_all(job.number)
        works.together(job.number)

    def everything_out(self) -> Path:
        page = self.page
        self.somebody("Ada Orme", "Password", PASSWORD)
        self.go("/toolbox/settings")
        with page.expect_download() as out:
            page.get_by_role("button", name="Take everything out").tap()
        return Path(out.value.path())

    def back(self, archive: Path) -> None:
        page, signed = self.page, SignOff.objects.get().signed_bytes
        WorksSettings.objects.update(name="Another")
        SignOff.objects.all().delete()
        with zipfile.ZipFile(archive) as packed:
            filled(packed, json.loads(packed.read("manifest.json")))
        self.go("/bench/1/close")
        expect(page.locator(".signed-note")).to_contain_text("Signed by Bo Reed")
        self.assertEqual(SignOff.objects.get().signed_bytes, signed)
        self.go("/toolbox/settings")
        expect(page.get_by_label("What this works is called")).to_have_value("Wold Pump Room")

    def somebody(self, name: str, secret: str, text: str) -> None:
        """Another person goes on at this browser."""
        page = self.page
        page.get_by_role("button", name="Change person").tap()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label(name).tap()
        dialog.get_by_label(secret, exact=True).fill(text)
        dialog.get_by_role("button", name="Go on here").tap()
        expect(page.locator(".me-link")).to_contain_text(name)

    def press(self, target, key: str = "Tab") -> None:
        """As a person without a mouse does."""
        target.wait_for()
        self.tab_to(target, key)
        self.page.keyboard.press("Enter")
        self.screens += 1

    def asked(self, path: str):
        return self.page.locator(f'[data-path="{path}"]')

    def section(self, name: str) -> None:
        """On to it, section by section: what is not in the manual is passed over."""
        head = self.page.locator(".typing-section h2")
        while (before := head.inner_text()) != name:
            self.press(self.page.get_by_role("button", name=re.compile("^Next: ")))
            expect(head).not_to_have_text(before)

    def field(self, target, text: str) -> None:
        """Found on paper, then typed."""
        target.wait_for()
        self.tab_to(target)
        self.page.keyboard.type(text)
        self.keys, self.numbers = self.keys + len(text) + 1, self.numbers + 1

    def down(self, columns) -> None:
        """Column by column, each ended by Enter: more of them than the table has rows at first."""
        keyboard = self.page.keyboard
        self.tab_to(self.page.get_by_role("grid").get_by_role("columnheader").first)
        for i, cells in enumerate(columns):
            keyboard.press("Control+Home")
            for key in ("ArrowDown", "Home", *["ArrowRight"] * (i + 1)):
                keyboard.press(key)
            for text in cells:
                keyboard.type(text)
                keyboard.press("Enter")
        keyboard.press("Escape")
        rows = self.page.get_by_role("grid").get_by_role("row")
        for n, cells in enumerate(zip(*columns, strict=True), 1):
            for text in cells:
                expect(rows.nth(n)).to_contain_text(text)

    def rows(self, rows) -> None:
        """Into the table of the section, a row a line of the manual."""
        keyboard = self.page.keyboard
        self.tab_to(self.page.get_by_role("grid").get_by_role("columnheader").first)
        keyboard.press("ArrowDown")
        for cells in rows:
            keyboard.press("Home")
            keyboard.press("ArrowRight")
            for text in cells:
                keyboard.type(text)
                keyboard.press("Tab")
            keyboard.press("ArrowDown")
            self.keys += sum(len(text) + 1 for text in cells) + 3
            self.numbers += sum(bool(text) for text in cells)
        keyboard.press("Escape")

    def choose(self, button, name: str, text: str) -> None:
        """A file, from the window the browser opens."""
        path = self.folder / name
        path.write_text(text)
        with self.page.expect_file_chooser() as asked:
            self.press(button)
        asked.value.set_files(path)
