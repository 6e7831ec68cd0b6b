"""Decimal marks, groups of thousands and what is usual: what a number is, and when it is asked about.

Checked against ``decimal`` and against the two conventions written out by hand (SI brochure, 9th edition, 5.4.4: groups by blanks;
point or comma as the decimal mark).
"""

import unittest
from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st

from finegap.core.entry import FIELDS, Entry
from finegap.core.errors import Ambiguous, FieldError, Unlikely
from finegap.core.formatting import Units
from finegap.core.gap.viscosity import read_viscosity
from finegap.core.measuring.plausible import plausible
from finegap.core.numerals import DecimalMark
from finegap.core.paste import read_set
from finegap.core.quantities import Quantity, parse, parse_hours, parse_number
from finegap.core.units import Dimension
from tests.core.job_records import sheet

POINT, COMMA = DecimalMark.POINT, DecimalMark.COMMA

READ = [
    # typed, in a works that writes a point, in one that writes a comma; None: it is asked about
    ("5,000", None, 5.0),
    ("1,750", None, 1.75),
    ("37,975", None, 37.975),
    ("37.975", 37.975, None),
    ("1.750", 1.75, None),
    ("0,130", 0.13, 0.13),
    ("0.130", 0.13, 0.13),
    (",005", 0.005, 0.005),
    ("1750,500", 1750.5, 1750.5),
    ("12,5", 12.5, 12.5),
    ("12,50", 12.5, 12.5),
    ("1,2345", 1.2345, 1.2345),
    ("1 750", 1750, 1750),
    ("1\u202f750", 1750, 1750),
    ("1'750", 1750, 1750),
    ("1’750,25", 1750.25, 1750.25),
    ("1 750.250", 1750.25, 1750.25),
    ("1,234.5", 1234.5, 1234.5),
    ("1.234,5", 1234.5, 1234.5),
    ("1 23/32", 1.71875, 1.71875),
    ("-1,5", -1.5, -1.5),
]


class Numbers(unittest.TestCase):
    def test_each_way_of_writing_in_both_kinds_of_works(self):
        for typed, *expected in READ:
            for mark, value in zip((POINT, COMMA), expected, strict=True):
                with self.subTest(typed=typed, mark=mark):
                    if value is None:
                        with self.assertRaises(Ambiguous) as caught:
                            parse(typed, Dimension.LENGTH, "size", "mm", mark=mark)
                        self.assertEqual(len(caught.exception.suggestions), 2)
                    else:
                        self.assertAlmostEqual(parse(typed, Dimension.LENGTH, "size", "mm", mark=mark).value, value, 12)

    def test_what_is_no_number_in_any_works(self):
        for typed in ("1_750", "1 75", "12 3456", "1'7500", "1,23.5", "1,234,56", "1.2.3", "1 750 2", "1,234.567,8", "--1"):
            for mark in DecimalMark:
                with self.subTest(typed=typed, mark=mark), self.assertRaises(FieldError) as caught:
                    parse(typed, Dimension.LENGTH, "size", "mm", mark=mark)
                self.assertNotIsInstance(caught.exception, Ambiguous)

    @given(st.decimals(0, 999, places=3, allow_nan=False), st.sampled_from(DecimalMark), st.sampled_from(["", " ", "'"]))
    def test_written_by_the_convention_of_the_works_it_is_read_by_it(self, number, mark, group):
        """The inverse: every number written with the works' own mark is read as itself and never asked about."""
        large = number * 1000 + Decimal("0.25")
        whole, _, decimals = f"{large:f}".partition(".")
        parts = [whole[max(i - 3, 0) : i] for i in range(len(whole), 0, -3)][::-1]
        typed = group.join(parts) + mark.sign + decimals
        self.assertEqual(Decimal(repr(parse_number(typed, "x", 0, 1e9, mark=mark))), Decimal(repr(float(large))))

    @given(st.integers(1, 999), st.integers(0, 999), st.sampled_from(DecimalMark))
    def test_both_suggestions_are_read_without_another_question(self, before, after, mark):
        typed = f"{before}{mark.other}{after:03d}"
        with self.assertRaises(Ambiguous) as caught:
            parse(typed, Dimension.LENGTH, "size", "in", mark=mark)
        values = [parse(s.typed, Dimension.LENGTH, "size", mark=mark).value for s in caught.exception.suggestions]
        self.assertAlmostEqual(values[1], 1000 * values[0], 6)
        self.assertAlmostEqual(values[1], int(f"{before}{after:03d}") * 25.4, 6)

    def test_a_meter_counts_whole_hours_so_that_one_meaning_is_left(self):
        self.assertEqual([parse_hours(t, "h") for t in ("14,380", "14'380", "14 380", "14,000")], [14380] * 3 + [14000])
        self.assertEqual(parse_hours("14.380", "h", mark=COMMA), 14380)
        for typed in ("14.380", "14.000", "14."):
            with self.assertRaises(FieldError):
                parse_hours(typed, "h")

    def test_the_slips_that_chose_a_tighter_gap(self):
        """5,000 cSt was read as 5, 1,750 r/min as 1.75, 1,500 psi as 0.1 bar, 1,200 lbf.in as 0.12 N.m."""
        entry = Entry(meant=True)
        for typed, dimension, large in (
            ("5,000 cSt", Dimension.VISCOSITY, 5000),
            ("1,750 rpm", Dimension.SPEED, 1750),
            ("1,500 psi", Dimension.PRESSURE, 103.42),
            ("1,200 lbf.in", Dimension.TORQUE, 135.58),
        ):
            with self.subTest(typed=typed), self.assertRaises(Ambiguous) as caught:
                entry.quantity(typed, dimension, "x")
            meant = entry.quantity(caught.exception.suggestions[1].typed, dimension, "x").value
            self.assertAlmostEqual(meant, large, delta=large * 1e-4)


class AtThePad(unittest.TestCase):
    def test_the_only_meaning_that_can_be_is_taken_and_said(self):
        vane = plausible(38.0, is_gap=False)
        for typed, value, understood in (("37,975", 37.975, "37.975 mm"), ("1,495 in", 37.973, "1.495 in")):
            read = parse(typed, Dimension.LENGTH, "vane", "mm", possible=vane)
            self.assertAlmostEqual(read.value, value, 3)
            self.assertEqual(read.understood, understood)
        self.assertEqual(parse("37.975", Dimension.LENGTH, "vane", "mm", possible=vane).understood, "")

    def test_where_both_or_neither_can_be_it_is_asked(self):
        anything = plausible(1000, is_gap=True)
        for possible in (anything, plausible(3.0, is_gap=False)):
            with self.assertRaises(Ambiguous):
                parse("1,750", Dimension.LENGTH, "x", "mm", possible=possible)

    def test_pasted_cells_go_by_the_mark_of_the_works_and_name_the_cell(self):
        idler = sheet().family.by_key["idler_bore"]
        two = idler.stations[:2]
        self.assertEqual([p.quantity.value for p in read_set("30,051\n30,060", two, "mm", "Idler", mark=COMMA)], [30.051, 30.06])
        with self.assertRaisesRegex(Ambiguous, "row 2, column 1"):
            read_set("30.051\n30,060", two, "mm", "Idler")
        with self.assertRaisesRegex(Ambiguous, "row 1, column 1"):
            read_set("30.051\n30,060", two, "mm", "Idler", mark=COMMA)


class Usual(unittest.TestCase):
    def test_every_field_asks_outside_what_is_usual_and_takes_what_is_meant(self):
        for key, field in FIELDS.items():
            if field.usual is None:
                continue
            unit = Entry().unit(field.dimension)
            for value, asks in ((sum(field.usual) / 2, False), (field.usual[1] * 1.5 + 1, True)):
                typed = f"{value:.6g} {unit}"
                with self.subTest(field=key, typed=typed):
                    if not asks:
                        self.assertAlmostEqual(Entry().read(key, typed).value, value, delta=abs(value) * 1e-5)
                        continue
                    with self.assertRaises(Unlikely) as caught:
                        Entry().read(key, typed)
                    self.assertEqual(caught.exception.field, field.name)
                    self.assertAlmostEqual(Entry(meant=True).read(key, typed).value, value, delta=abs(value) * 1e-5)

    def test_another_unit_is_offered_only_for_a_bare_number(self):
        with self.assertRaises(Unlikely) as caught:
            Entry().read("pressure", "870")
        self.assertIn("870 kPa", [s.typed for s in caught.exception.suggestions])
        with self.assertRaises(Unlikely) as caught:
            Entry().read("pressure", "870 bar")
        self.assertEqual(caught.exception.suggestions, ())

    def test_family_and_sheet_may_say_otherwise(self):
        with self.assertRaises(Unlikely):
            Entry().read("pressure", "20 bar", (0, 4))
        of = sheet(usual={"pressure": ["0 bar", "145 psi"]})
        self.assertAlmostEqual(of.usual["pressure"][1], 9.997, 3)
        with self.assertRaisesRegex(FieldError, "reversed"):
            sheet(usual={"pressure": ["9 bar", "1 bar"]})

    def test_a_bare_number_means_the_unit_beside_it(self):
        """In inches 95 beside F was kept as 95 C, and 36 beside psi as 36 bar."""
        inch = Entry(Units.IN)
        self.assertAlmostEqual(inch.read("temperature", "95").value, 35)
        self.assertAlmostEqual(inch.read("pressure", "36").value, 2.482, 3)
        self.assertAlmostEqual(inch.read("box", "104").value, 40)
        self.assertAlmostEqual(inch.read("torque", "50").value, 67.79, 2)
        self.assertAlmostEqual(read_viscosity("60 at 40 C; 8 at 100 C", 40).pumping_mm2_s, 60)
        # no unit of a temperature stands beside the field of a viscosity
        with self.assertRaisesRegex(FieldError, "unit is missing"):
            read_viscosity("60 at 40; 8 at 100", 40, entry=inch)
        self.assertIsInstance(inch.read("arc", "1 1/2"), Quantity)


if __name__ == "__main__":
    unittest.main()
