"""The drawings as Chromium shows them, against the places, widths and sizes the core works out."""

from __future__ import annotations

import json
import math
from itertools import product

from django.contrib.auth.models import User
from playwright.sync_api import expect

from finegap.bench.models import Job
from finegap.bench.queries import drawing_view
from finegap.bench.records import sheet_of
from finegap.core.drawing.labels import Screen, width_px
from finegap.core.entry import Entry
from finegap.core.formatting import Units
from finegap.pumps.changes import AddPump
from finegap.pumps.services import add_pump
from finegap.sheets.changes import SheetFile
from tests.apps.base import GASKETS, add_revision, sheet_data
from tests.apps.test_setting import DUTY, piston
from tests.browser.base import Bench
from tests.browser.test_inspecting import bench
from tests.core.test_drawing import overlap

VANE = {
    "slug": "vane",
    "title": "Vane",
    "family": "sliding_vane",
    "features": {
        "side_gap": {"new": ["0.1 mm", "0.3 mm"]},
        "vane_height": {"new": ["30.0 mm", "30.2 mm"]},
        "vane_thickness": {"new": ["4.0 mm", "4.1 mm"]},
        "cylinder_bore": {"new": ["100.0 mm", "100.1 mm"]},
    },
    "details": {"vanes": "5"},
    "torques": [],
    "adjustment": GASKETS,
}


class Drawn(Bench):
    """What the core placed stands there in Chromium: places and widths within a pixel, and nothing over anything."""

    SCREENS = (("wide", 1280, 800), ("narrow", 1024, 768))
    MEASURED = """(svg) => {
      const scale = svg.viewBox.baseVal.width / svg.getBoundingClientRect().width;
      const [left, top] = [svg.getBoundingClientRect().left, svg.getBoundingClientRect().top];
      const box = (e, trim = 0) => { const b = e.getBoundingClientRect(); return [b.left, b.top + trim, b.right, b.bottom - trim]; };
      // A line of 14 px is set 20 px high: 3 px above and below are empty.
      return {
        scale,
        rings: [...svg.querySelectorAll('.ring')].map((e) => box(e)).map(([a, b, c, d]) => [((a + c) / 2 - left) * scale, ((b + d) / 2 - top) * scale]),
        texts: [...svg.querySelectorAll('text:not(.balloon-number)')].map((e) => [e.textContent, e.classList.contains('balloon-value'), e.getBoundingClientRect().width, parseFloat(getComputedStyle(e).fontSize), box(e, 3)]),
        sizes: [...svg.querySelectorAll('[data-of]')].map((e) => { const b = e.getBBox(); const k = e.getCTM().a * scale; return [e.dataset.of, [b.width * k, b.height * k, e.getTotalLength() * k]]; }),
        leaders: [...svg.querySelectorAll('.leader')].map((e) => { const b = e.getBoundingClientRect(); return [b.width * scale, b.height * scale]; }),
      };
    }"""

    def test_numbers_stand_where_the_core_put_them_with_room_for_their_words(self) -> None:
        works = bench()
        lena = User.objects.get(username="lena")
        add_revision(lena, SheetFile(json.dumps({k: v for k, v in sheet_data(**VANE).items() if k != "heat"})))
        add_pump(
            lena,
            AddPump("V-1", "test", "here", "1", "vane", "cast iron", "air", **(DUTY | {"pressure": "1 bar", "speed": "900"})),
            Entry(),
        )
        add_revision(lena, SheetFile(piston()))
        add_pump(lena, AddPump("C-1", "test", "here", "2", "piston", "stainless 316", "oil", **DUTY), Entry())
        jobs = [works.open(pump) for pump in ("H-1", "V-1", "C-1")]
        works.read(jobs[0], "idler_bore", "front/12–6", "30.05", "B-1")
        for number, (screen, width, height) in product(jobs, self.SCREENS):
            self.page.set_viewport_size({"width": width, "height": height})
            for unit in ("mm", "in"):
                with self.subTest(job=number, screen=screen, unit=unit):
                    self.check(number, screen, unit)

        for screen, width, height in self.SCREENS:
            self.page.set_viewport_size({"width": width, "height": height})
            with self.subTest(pump="C-1", screen=screen):
                self.uncut("/fleet/C-1", Screen[screen.upper()])

    def uncut(self, page: str, screen: Screen) -> None:
        """No word beside a number runs over the edge of the drawing: a number without its first figure is another number."""
        self.go(page)
        svg = self.page.locator(f'.pump-drawing[viewBox="0 0 {screen.width} {screen.height}"]')
        expect(svg.locator(".balloon-value", has_text="not").first).to_be_visible()
        left, right, edges = svg.evaluate("""(svg) => { const of = svg.getBoundingClientRect();
          return [of.left, of.right, [...svg.querySelectorAll('text')].map((e) => { const b = e.getBoundingClientRect(); return [e.textContent, b.left, b.right]; })]; }""")
        self.assertEqual([text for text, begins, ends in edges if begins < left or ends > right], [])

    def check(self, number: int, screen: str, unit: str) -> None:
        self.go(f"/bench/{number}/inspect")
        if self.page.locator(".unit-switch .on").inner_text() != unit:
            self.page.locator(".unit-switch").click()
        drawing = drawing_view(number, Units(unit), Screen[screen.upper()])
        assert drawing is not None
        svg = self.page.locator(f'.pump-drawing[viewBox="0 0 {drawing.width} {drawing.height}"]')
        expect(svg.locator(".balloon")).to_have_count(len(drawing.numbers))
        of = svg.evaluate(self.MEASURED)
        self.assertLess(abs(of["scale"] - 1), 0.03, "a text is 14 px or more")
        for x, y in ((n.x, n.y) for n in drawing.numbers):
            self.assertLess(min(math.dist((x, y), ring) for ring in of["rings"]), 1)
        boxes = [box for *_, box in of["texts"]]
        for text, bold, wide, size, box in of["texts"]:
            self.assertEqual(size, 14)
            self.assertLess(abs(wide * of["scale"] - width_px(text, bold)), 1, text)
            self.assertLessEqual(wide * of["scale"], drawing.words_px + 1, text)
            self.assertFalse([one for one in boxes if one is not box and overlap(one, box)], text)
        expected = sorted(math.dist(n.port, n.spot) for n in drawing.numbers)
        for length, (wide, high) in zip(expected, sorted(of["leaders"], key=lambda one: math.hypot(*one)), strict=True):
            self.assertLess(abs(length - math.hypot(wide, high)), 1)
        self.sized(number, of["sizes"], drawing.views[0].scale)

    def sized(self, number: int, drawn: list[tuple[str, tuple[float, float, float]]], scale: float) -> None:
        """A part is as large as the sheet prints it: across, along, or round the edge of a vane, which lies slanted."""
        sheet = sheet_of(Job.objects.get(number=number))
        checked = 0
        for key, (wide, high, round_it) in drawn:
            new = sheet.spec(key).new_mm
            printed = sum(new) / 2 if new else sheet.mesh.timing.pitch_mm if sheet.mesh and key == "pitch_diameter" else None
            if printed is None:
                continue
            thick = sum(sheet.spec("vane_thickness").new_mm or ()) / 2
            sizes = [wide, high, round_it / 2 - thick * scale]
            self.assertLess(min(abs(size - printed * scale) for size in sizes), 0.5, key)
            checked += 1
        self.assertGreater(checked, 0)
