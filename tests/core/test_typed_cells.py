"""Every way people write a range, a size with its tolerance, a list; and tables as they are pasted."""

import math

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from finegap.core.entry import bare_unit
from finegap.core.errors import Ambiguous, FieldError
from finegap.core.formatting import Units
from finegap.core.numerals import DecimalMark
from finegap.core.quantities import parse
from finegap.core.sheet_parts import OPEN_HIGH, OPEN_LOW
from finegap.core.typed_sheet.asks import Ask, Kind, Many
from finegap.core.typed_sheet.cells import How, read_cell, written
from finegap.core.typed_sheet.pasted import MOST_LETTERS, read_pasted
from finegap.core.units import Dimension
from tests.core.test_typed_sheet import grid

LENGTH = Ask("x", "x", Kind.QUANTITY, dimension=Dimension.LENGTH)
SPAN = Ask("x", "x", Kind.QUANTITY, Many.RANGE, Dimension.LENGTH)
THICK = Ask("x", "x", Kind.QUANTITY, Many.LIST, Dimension.LENGTH)
VISCOSITY = Ask("x", "x", Kind.QUANTITY, Many.RANGE, Dimension.VISCOSITY, open_ends=True)
WARM = Ask("x", "x", Kind.QUANTITY, Many.RANGE, Dimension.TEMPERATURE, open_ends=True)
INCH, MM = How("in", DecimalMark.POINT), How("mm", DecimalMark.POINT)
SSU, F = How("SSU", DecimalMark.POINT, True), How("F", DecimalMark.POINT, True)
COMMA = How("mm", DecimalMark.COMMA)


class Cells(SimpleTestCase):
    def test_ranges_as_people_write_them(self):
        for text, ask, how, expected in (
            ("100-500", VISCOSITY, SSU, ["100 SSU", "500 SSU"]),
            ("100 – 500", VISCOSITY, SSU, ["100 SSU", "500 SSU"]),
            ("100 to 500 SSU", VISCOSITY, SSU, ["100 SSU", "500 SSU"]),
            ("1,750-7,500 cSt", VISCOSITY, How("mm2/s", DecimalMark.COMMA), ["1.750 cSt", "7.500 cSt"]),
            ("up to 90", WARM, F, [OPEN_LOW, "90 F"]),
            ("≤ 90", WARM, F, [OPEN_LOW, "90 F"]),
            ("90 max.", WARM, F, [OPEN_LOW, "90 F"]),
            (">= 750", VISCOSITY, SSU, ["750 SSU", OPEN_HIGH]),
            ("over 750", VISCOSITY, SSU, ["750 SSU", OPEN_HIGH]),
            ("750 and up", VISCOSITY, SSU, ["750 SSU", OPEN_HIGH]),
            ("750+", VISCOSITY, SSU, ["750 SSU", OPEN_HIGH]),
            ("all", WARM, F, [OPEN_LOW, OPEN_HIGH]),
            ("-10-90", WARM, F, ["-10 F", "90 F"]),
            ("-20--5", WARM, F, ["-20 F", "-5 F"]),
            ("-10 to 90", WARM, F, ["-10 F", "90 F"]),
            (".003-.009", SPAN, INCH, [".003 in", ".009 in"]),
            ("0.80-1.40 mm", SPAN, INCH, ["0.80 mm", "1.40 mm"]),
            ("12.70", SPAN, MM, ["12.70 mm", "12.70 mm"]),
            ("12.70 ±0.02", SPAN, MM, ["12.68 mm", "12.72 mm"]),
            ("1.2525 ± .0005", SPAN, INCH, ["1.2520 in", "1.2530 in"]),
            ("1.25 ± .0005", SPAN, INCH, ["1.2495 in", "1.2505 in"]),
            ("12.70 +0.02 -0.01", SPAN, MM, ["12.69 mm", "12.72 mm"]),
            ("12.70 +0.02/-0.00", SPAN, MM, ["12.70 mm", "12.72 mm"]),
            ("12.70 -0.01 -0.03 mm", SPAN, INCH, ["12.67 mm", "12.69 mm"]),
            ("0,80-1,40", SPAN, COMMA, ["0.80 mm", "1.40 mm"]),
            ("1 1/4-1 3/8", SPAN, INCH, ["1 1/4 in", "1 3/8 in"]),
        ):
            with self.subTest(text=text):
                self.assertEqual(read_cell(ask, text, how, "here"), expected)

    def test_lists(self):
        for text, how, expected in (
            ("0.05, 0.10, 0.25", MM, ["0.05 mm", "0.10 mm", "0.25 mm"]),
            ("0.05 0.10 0.25 mm", INCH, ["0.05 mm", "0.10 mm", "0.25 mm"]),
            (".002; .003 ;.005", INCH, [".002 in", ".003 in", ".005 in"]),
            ("0,05; 0,10", COMMA, ["0.05 mm", "0.10 mm"]),
            ("2 thou", INCH, ["2 thou"]),
        ):
            with self.subTest(text=text):
                self.assertEqual(read_cell(THICK, text, how, "here"), expected)
        parts = Ask("renews", "Renews", Kind.CHOICE, Many.LIST, choices={"bore": "2 Idler, bore", "pin": "3 Idler pin"})
        for text in ("2, 3", "bore; pin", "2 Idler, bore; 3 Idler pin", "idler, bore; IDLER PIN"):
            self.assertEqual(read_cell(parts, text, MM, "here"), ["bore", "pin"])
        self.assertEqual(read_cell(parts, "Idler, bore", MM, "here"), ["bore"])
        kit = Ask("contents", "Contents", many=Many.COUNTS)
        self.assertEqual(read_cell(kit, "A-1, 2 × B-4; C-9 x3", MM, "here"), {"A-1": 1, "B-4": 2, "C-9": 3})

    def test_what_cannot_be_is_said_at_its_place(self):
        for ask, text, how, says in (
            (SPAN, "1-2-3", MM, "no range"),
            (SPAN, "about 3", MM, "not a number"),
            (SPAN, "3 bar", MM, "a pressure"),
            (SPAN, "=A1*2", MM, "formula"),
            (SPAN, "up to 3", MM, "not a number"),
            (LENGTH, "3 in", How("mm", DecimalMark.POINT, True), "the column is in mm"),
            (VISCOSITY, "28-1750", SSU, "below the scale"),
            (THICK, ", ".join(["0.1"] * 61), MM, "more than it has"),
            (LENGTH, "1" * 50, MM, "too long"),
            (Ask("d", "d", Kind.DAY), "31.3.2026", MM, "not a day"),
            (Ask("d", "d", Kind.YES), "perhaps", MM, "neither"),
            (Ask("d", "d", Kind.CHOICE, choices={"a": "one"}), "two", MM, "not among them"),
            (Ask("d", "d", Kind.NUMBER, whole=True, low=1, high=60), "61", MM, "cannot be"),
            (Ask("d", "d", many=Many.COUNTS), "2 ×", MM, "not clear"),
        ):
            with self.subTest(text=text), self.assertRaises(FieldError) as caught:
                read_cell(ask, text, how, "here")
            self.assertEqual(caught.exception.field, "here")
            self.assertIn(says, caught.exception.problem)

    def test_two_meanings_are_asked_about(self):
        for ask, text, how, meanings in (
            (SPAN, "1-23/32", INCH, ["1 23/32", "1 to 23/32"]),
            (LENGTH, "1,750", MM, ["1.750 mm", "1750 mm"]),
            (SPAN, "1.750-1.760", COMMA, ["1,750 mm", "1750 mm"]),
        ):
            with self.subTest(text=text), self.assertRaises(Ambiguous) as caught:
                read_cell(ask, text, how, "here")
            self.assertEqual([one.typed for one in caught.exception.suggestions], meanings)

    @given(st.decimals("0.001", 900, places=3), st.decimals(0, 9, places=3), st.sampled_from(["-", " - ", "–", " to ", "...", "÷"]))
    def test_two_ends_in_any_dress_are_those_two(self, low, more, between):
        low_text, high_text = read_cell(SPAN, f"{low}{between}{low + more}", MM, "here")
        self.assertEqual(
            [parse(text, Dimension.LENGTH, "").value for text in (low_text, high_text)], [float(low), float(low + more)]
        )

    @given(st.decimals("0.1", 900, places=4), st.decimals("0.0001", "0.05", places=4), st.decimals("0.0001", "0.05", places=4))
    def test_a_size_with_its_tolerance_is_its_two_limits(self, size, over, under):
        low, high = (parse(text, Dimension.LENGTH, "").value for text in read_cell(SPAN, f"{size} +{over} -{under}", MM, "here"))
        self.assertTrue(
            math.isclose(low, float(size - under), abs_tol=1e-9) and math.isclose(high, float(size + over), abs_tol=1e-9)
        )

    @given(
        st.sampled_from([SPAN, VISCOSITY, WARM]), st.decimals(40, 900, places=2), st.decimals(0, 90, places=2), st.integers(0, 3)
    )
    def test_what_is_written_out_is_read_back(self, ask, low, more, ends):
        unit = bare_unit(ask.dimension, Units.MM)
        value = [f"{low} {unit}", f"{low + more} {unit}"]
        if ask.open_ends:
            value = [OPEN_LOW if ends & 1 else value[0], OPEN_HIGH if ends & 2 else value[1]]
        self.assertEqual(read_cell(ask, written(ask, value), How(None, DecimalMark.POINT), "here"), value)


HEADED = """Rotor\tConstruction\tTemp. (°F)\tViscosity, SSU\tEnd clearance, in.\tClearance (mm)\tArc on the housing, in
thin\tcast iron\tup to 225\t100-500\t.005\t0.13\t.75
thick\tcast iron\tall\t>= 750\t.010\t0.25\t1.51"""


class Pasting(SimpleTestCase):
    def test_columns_in_any_order_each_with_its_unit(self):
        pasted = read_pasted(HEADED, grid("clearance_table.rows"))
        self.assertEqual(
            pasted.rows[1].cells,
            {
                "setting": "thick", "material": "cast iron", "temperature": "all", "viscosity": ">= 750", "end_clearance": ".010",
                "also": "0.25", "arc": "1.51",
            },
        )  # fmt: skip
        units = {"temperature": "F", "viscosity": "SSU", "end_clearance": "in", "also": "mm", "arc": "in"}
        self.assertEqual(pasted.units, units)

    def test_every_way_cells_stand_apart(self):
        expected = [{"setting": "thin", "material": "cast iron"}, {"setting": "thick", "material": "steel"}]
        for text in (
            "thin\tcast iron\nthick\tsteel",
            "thin;cast iron\r\nthick;steel\r\n",
            "| thin | cast iron |\n|---|---|\n| thick | steel |",
            "thin   cast iron\nthick      steel",
            "thin,cast iron\nthick,steel",
            "\ufeffthin\tcast iron\n\n\t\nthick\tsteel",
            '"thin"\t"cast iron"\nthick\tsteel',
        ):
            with self.subTest(text=text):
                self.assertEqual([row.cells for row in read_pasted(text, grid("clearance_table.rows")).rows], expected)

    def test_from_the_cursor_on_or_by_the_names_of_rows(self):
        torques = read_pasted("45-50\toiled\n20\tdry", grid("torques"), "torque")
        self.assertEqual(torques.rows[1].cells, {"torque": "20", "condition": "dry"})
        sizes = read_pasted("Idler pin\t30.0\n5\t40.0-40.1\t\t40.2", grid("features"), "maximum")
        self.assertEqual(
            [(row.row, row.cells.get("new")) for row in sizes.rows], [("idler_pin", "30.0"), ("bushing_bore", "40.0-40.1")]
        )
        self.assertEqual(sizes.rows[1].cells["maximum"], "40.2")
        headed = read_pasted("Part\tMax\tNew (mm)\n3\t\t30.0", grid("features"))
        self.assertEqual(headed.rows[0].cells, {"maximum": "", "new": "30.0"})
        self.assertEqual(headed.units, {"new": "mm"})

    def test_what_is_no_table_of_this_kind_is_refused_whole(self):
        rows = grid("clearance_table.rows")
        for text, says in (
            ("", "nothing was pasted"),
            ("x" * (MOST_LETTERS + 1), "more than a table"),
            ("thin\tcast iron\n" * 501, "501 rows"),
            ("Colour\tMaterial\nred\tcast iron", "Colour"),
            ("Material\tMaterial\na\tb", "Material"),
            ("Material\tSetting", "no row under it"),
            ("\t".join("abcdefghij"), "10 cells"),
        ):
            with self.subTest(text=text[:30]), self.assertRaises(FieldError) as caught:
                read_pasted(text, rows)
            self.assertIn(says, f"{caught.exception.field} {caught.exception.problem}")
        with self.assertRaisesRegex(FieldError, "row 2.*Spindle"):
            read_pasted("Idler pin\t30\nSpindle\t40\n5\t40", grid("features"))
        with self.assertRaisesRegex(FieldError, "merged"):
            read_pasted("Idler pin\t30\n\t40\n5\t40", grid("features"))
