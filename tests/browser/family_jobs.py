"""Whole jobs on pumps of the demo's sheets: what a colleague does at another tablet, and what is done on the page."""

import json
import uuid
from pathlib import Path

from django.contrib.auth.models import User
from playwright.sync_api import expect

from finegap.bench import changes, services
from finegap.bench.records import load
from finegap.core.entry import Entry
from finegap.core.families.steps import Stage
from finegap.core.formatting import Units
from finegap.core.job import assess
from finegap.inventory.models import Gauge
from finegap.pumps.changes import AddPump
from finegap.pumps.services import add_pump
from finegap.sheets.changes import SheetFile
from tests.apps.base import PIN, add_revision, job_view
from tests.browser.base import Bench
from tests.browser.test_main_job import colleague

SHEETS = Path(__file__).parents[2] / "demo" / "sheets"


def add(sheet, tag, material="cast iron", **pump):
    """A pump of a sheet of the demo, and gauges for it."""
    lead = User.objects.get(username="lena")
    of = json.loads((SHEETS / f"{sheet}.json").read_text())
    add_revision(lead, SheetFile(json.dumps(of)))
    for name, kind, low, high in (
        ("M-0", "outside micrometer", 0, 25), ("D-1", "dial indicator", 0, 1), ("T-1", "depth gauge", 0, 150),
        ("C-1", "caliper", 0, 150), ("W-2", "torque wrench", 2, 12),
    ):  # fmt: skip
        given = {"resolution": 0.001, "expanded": 0.002, "k": 2, "repeatability": 0.001, "calibrated": "2000-01-01"}
        Gauge.objects.put(name, kind, low=low, high=high, due="2999-01-01", **given)
    add_pump(lead, AddPump(tag, "test", "here", "1", of["slug"], material, "oil", medium="mineral oil", **pump), Entry())
    return of["slug"]


class FamilyJob(Bench):
    """A job on a pump of a sheet of the demo."""

    def opened(self, tag):
        """A job on a pump, with what is asked before anything moves still open."""
        job = services.open_job(User.objects.get(username="tom"), changes.OpenJob(tag, "planned overhaul", "100", "planned"))
        self.number, self.works = job.number, colleague()
        services.set_details(self.works.seen(self.number), changes.SetDetails(place="workshop", hazards="none"))
        self.works.have_ready(self.number)

    def measured(self, sizes):
        """Every part measured and looked at by a colleague: the pad is tried elsewhere."""
        for state in assess(load(self.works.row(self.number)).job_record).features:
            key = state.feature.key
            typed = next((mm for begin, mm in sizes.items() if key.startswith(begin)), "")
            for station in state.feature.stations if typed else ():
                self.works.read(self.number, key, station.key, typed, state.cabinet.pick)
        self.works.look_all(self.number)

    def steps_of(self, stage):
        return len([s for s in self.works.family(self.number).steps if s.stage is stage])

    def at(self, stage):
        self.go(f"/bench/{self.number}/{stage}")
        expect(self.page.locator(".ribbon .present")).to_contain_text(stage.capitalize())
        # The ribbon comes before the stage itself, which has its own file: a key pressed between them is nobody's.
        expect(self.page.locator(".stage")).to_be_visible()

    def step_done(self):
        self.page.keyboard.press("d")

    def confirm_and_fit(self):
        for _ in self.page.locator(".directions input:not(:checked)").all():
            self.page.keyboard.press("c")
        expect(self.page.locator(".directions input:not(:checked)")).to_have_count(0)
        self.page.keyboard.press("f")

    def proved_and_signed(self, begin=0):
        """From how it turns by hand to the report; answers how each try was set. ``begin`` steps of Prove are done."""
        page = self.page
        self.at("prove")
        page.keyboard.press("f")
        expect(page.locator(".found-free")).to_contain_text("turns freely all the way round")
        count = self.steps_of(Stage.PROVE)
        self.mark_all(count, begin=begin, until=count - 1)
        page.get_by_role("combobox", name="Noise").select_option("even")
        page.get_by_role("form", name="noise").get_by_role("button", name="Save").click()
        self.mark_all(count, begin=count - 1)
        self.at("close")
        page.get_by_label("Your PIN").fill(PIN)
        page.get_by_role("button", name="Sign off as Tom").click()
        expect(page.locator(".signed-note")).to_contain_text("Signed by Tom")
        report = page.request.get(f"{self.live_server_url}/api/jobs/{self.number}/report.pdf")
        self.assertTrue(report.body().startswith(b"%PDF"))
        return [made.set_by for made in job_view(self.number, Units.MM).setting.tries]

    def together(self):
        """All that is built or opened again put together, and turned where a step asks for it, by a colleague."""
        self.works.build(self.number)
        done = self.works.done(self.number)
        for step in self.works.family(self.number).steps:
            if step.puts_in and step.after != ("gap",) and step.key not in done:
                if step.has("turning"):
                    services.see(self.works.seen(self.number), changes.SeeProof(uuid.uuid4(), step.key, "turning"))
                services.mark_step(self.works.seen(self.number), changes.MarkStep(uuid.uuid4(), step.key))
