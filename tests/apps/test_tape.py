"""The tape measured from a 300 dpi rendering (pdfium), and what cannot be printed."""

import io
import itertools
import json
import math
import unittest

import numpy as np
import pypdfium2
from django.test import Client
from hypothesis import given
from hypothesis import strategies as st
from pypdf import PdfReader

from finegap.core.errors import FieldError
from finegap.core.formatting import Units
from finegap.core.gap.housing import Housing, ThreadHand
from finegap.core.gap.move import Window
from finegap.core.gap.tape import Printed, Tape
from finegap.formats import tape as paper
from finegap.sheets.changes import SheetFile
from tests.apps.base import HOUSING, Works, add_revision, sheet_data

MM_PER_DOT = 25.4 / 300
NEAR = Window(0.15, 0.13, 0.18)


def printed(housing, window=NEAR, units=Units.MM):
    return paper.as_pdf(Printed(Tape(housing, window, units), "P-1", "Test pump, revision 7", 3))


def dark_columns(pdf, page, from_top_mm, to_mm):
    """Middles of the vertical lines that are dark all the way from one height of a page to another, in mm from its left edge."""
    bitmap = pypdfium2.PdfDocument(pdf)[page].render(scale=300 / 72).to_numpy()
    band = bitmap[round(from_top_mm / MM_PER_DOT) : round(to_mm / MM_PER_DOT), :, :3].max(axis=2)
    dots = np.flatnonzero((band < 190).all(axis=0))
    groups = np.split(dots, np.flatnonzero(np.diff(dots) > 1) + 1)
    return [(g[0] + g[-1] + 1) / 2 * MM_PER_DOT for g in groups if g.size]


def marks_of(pdf, row=0, page=0):
    """Places of every mark of a row: just under the upper edge of the strip, where all of them are."""
    top = paper.TOP_MM + row * paper.ROW_MM
    return dark_columns(pdf, page, top + 1, top + 4)


class Measured(unittest.TestCase):
    def arcs(self, pdf, row=0, page=0, left_hand=False):
        """Arcs from the right edge of the strip (the left for a left-hand thread), its two cut lines left out."""
        edge = paper.MARGIN_MM if left_hand else paper.PAGE_MM[0] - paper.MARGIN_MM
        found = sorted(abs(at - edge) for at in marks_of(pdf, row, page))
        return [arc for arc in found if arc > 1]

    def test_every_mark_lies_where_its_clearance_is(self):
        """Right to 0.1 mm: c·pi·D/lead from the zero line, for both units and both hands."""
        for housing, units, step in (
            (Housing(124, 1.25), Units.MM, 0.01),
            (Housing(124, 1.25, ThreadHand.LEFT), Units.MM, 0.01),
            (Housing(127, 25.4 / 12), Units.IN, 0.0254),
        ):
            tape = Tape(housing, NEAR, units)
            arcs = self.arcs(printed(housing, units=units), left_hand=housing.hand is ThreadHand.LEFT)
            zero = 12.0  # mm of paper before it
            expected = sorted(
                {round(zero + n * step * math.pi * housing.diameter_mm / housing.lead_mm, 3) for n in range(tape.steps + 1)}
                | {round(zero + 0.15 * math.pi * housing.diameter_mm / housing.lead_mm, 3)}
            )
            for arc in expected:
                self.assertLess(min(abs(arc - found) for found in arcs), 0.1, (housing, arc))
            # the last is the far cut line; in inches target and nearest mark touch, and are seen as one line between them
            for found in arcs[:-1]:
                self.assertLess(min(abs(arc - found) for arc in expected), 0.1 + (units is Units.IN) * 0.3, (housing, found))

    def test_the_ruler_is_100_mm(self):
        for pdf in (printed(Housing(124, 1.25)), printed(Housing(300, 1.0), Window(0.6, 0.5, 0.7))):
            lines = dark_columns(pdf, 0, 35.4, 36.4)
            ticks = [at for at in lines if at < 120]
            self.assertEqual(len(ticks), 101)
            self.assertAlmostEqual(ticks[-1] - ticks[0], 100, delta=0.1)
            self.assertAlmostEqual(ticks[37] - ticks[0], 37, delta=0.1)

    def test_pieces_laid_join_on_join_carry_on(self):
        """On a tape over four pieces and two pages, the same mark of two pieces is as far from their common join."""
        housing, window = Housing(300, 1.0), Window(0.6, 0.5, 0.7)
        pieces = Tape(housing, window, Units.MM).segments(paper.FITS_MM, paper.OVERLAP_MM, 12, 14)
        self.assertEqual((len(pieces), paper.ROWS), (4, 3))
        pdf = printed(housing, window)
        step = 0.01 * math.pi * 300
        for index, piece in enumerate(pieces):
            page, row = divmod(index, paper.ROWS)
            for arc in self.arcs(pdf, row, page):
                at = arc + piece.start_mm
                if arc < piece.end_mm - piece.start_mm - 1 and abs(arc - paper.OVERLAP_MM / 2) > 1:
                    joins = abs(at - (piece.end_mm - paper.OVERLAP_MM / 2)) < 1
                    self.assertTrue(joins or abs(at / step - round(at / step)) * step < 0.1, (index, at))

    @given(st.floats(30, 400), st.floats(0.5, 6), st.floats(0.05, 0.6))
    def test_pieces_cover_the_tape_and_overlap(self, diameter, lead, target):
        try:
            tape = Tape(Housing(diameter, lead), Window(target, 0.9 * target, 1.1 * target), Units.MM)
        except FieldError as error:
            self.assertTrue("round the housing" in error.problem or "told apart" in error.problem)
            return
        pieces = tape.segments(paper.FITS_MM, paper.OVERLAP_MM, 12, 14)
        self.assertEqual(pieces[0].start_mm, -12)
        self.assertAlmostEqual(pieces[-1].end_mm, tape.length_mm + 14)
        for one, other in itertools.pairwise(pieces):
            self.assertAlmostEqual(one.end_mm - other.start_mm, paper.OVERLAP_MM)
        self.assertTrue(all(p.end_mm - p.start_mm <= paper.FITS_MM + 1e-9 for p in pieces))
        self.assertGreater(tape.length_mm, tape.window_arc_mm[1])

    def test_words_and_that_no_viewer_scales_it(self):
        reader = PdfReader(io.BytesIO(printed(Housing(124, 1.25))))
        self.assertEqual(reader.trailer["/Root"]["/ViewerPreferences"]["/PrintScaling"], "/None")
        text = " ".join(reader.pages[0].extract_text().split())
        for said in ("P-1", "Test pump, revision 7", "set here: 0.15 mm", "← opens (counterclockwise)", "100 mm apart", "Job 3"):
            self.assertIn(said, text)
        left = PdfReader(io.BytesIO(printed(Housing(124, 1.25, ThreadHand.LEFT)))).pages[0].extract_text()
        self.assertIn("opens (clockwise) →", left)

    def test_what_cannot_be_laid_round(self):
        for housing, window, said in (
            (Housing(60, 0.2), NEAR, "times round"), (Housing(20, 6), NEAR, "told apart"),
            (Housing(124, 1.25), Window(0, -1, 0), "no gap"),
        ):  # fmt: skip
            with self.assertRaisesRegex(FieldError, said):
                Tape(housing, window, Units.MM)


class FromTheJob(Works):
    def test_the_tape_of_a_job_in_its_unit_and_none_for_gaskets(self):
        client = Client()
        client.force_login(self.tom)
        number = self.open()
        answer = client.get(f"/api/jobs/{number}/tape.pdf?unit=in")
        self.assertEqual(answer["Content-Type"], "application/pdf")
        text = PdfReader(io.BytesIO(answer.content)).pages[0].extract_text()
        self.assertIn("A mark every 0.001 in", text)
        self.assertIn("Test pump, revision 1", text)
        self.assertEqual(client.get(f"/api/jobs/{self.open('G-1')}/tape.pdf").status_code, 404)
        self.assertEqual(client.get("/api/jobs/99/tape.pdf").status_code, 404)

    def test_one_that_cannot_be_printed_says_why(self):
        fine = HOUSING | {"outside_diameter": "40 mm", "lead": "0.1 mm", "arc": "12.57 mm"}
        add_revision(self.lena, SheetFile(json.dumps(sheet_data(revision="2", adjustment=fine))))
        client = Client()
        client.force_login(self.tom)
        answer = client.get(f"/api/jobs/{self.open()}/tape.pdf")
        self.assertEqual(answer.status_code, 422)
        self.assertIn("times round the housing", answer.json()["problem"])
