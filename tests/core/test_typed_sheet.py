"""A sheet typed as a manual prints it: every way a cell can be written, and every sheet of the demo typed and read back."""

import json
import math
import re
from itertools import product
from pathlib import Path

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from finegap.core import typed_sheet
from finegap.core.entry import bare_unit
from finegap.core.errors import Ambiguous, FieldError
from finegap.core.families import FAMILIES
from finegap.core.formatting import Units
from finegap.core.gap.table import overlaps
from finegap.core.means.registry import KINDS
from finegap.core.numerals import DecimalMark
from finegap.core.quantities import parse
from finegap.core.sheet import read_partly, read_sheet
from finegap.core.sheet_parts import OPEN_HIGH, OPEN_LOW
from finegap.core.typed_sheet.asks import SIZE, Ask, Grid, Kind, Many, form_of
from finegap.core.typed_sheet.cells import How, read_cell, written
from finegap.core.typed_sheet.draft import Typed, content_of, sizes_of, typed_of
from finegap.core.typed_sheet.pasted import MOST_LETTERS, read_pasted
from finegap.core.typed_sheet.printed import changes_between, printed_lines
from finegap.core.units import Dimension
from finegap.formats.sheet_file import parse_file, problems_of, sheet_schema

SHEETS = {path.stem: json.loads(path.read_text()) for path in sorted(Path("demo/sheets").glob("*.json"))}
SCHEMA = sheet_schema()
LENGTH = Ask("x", "x", Kind.QUANTITY, dimension=Dimension.LENGTH)
SPAN = Ask("x", "x", Kind.QUANTITY, Many.RANGE, Dimension.LENGTH)
THICK = Ask("x", "x", Kind.QUANTITY, Many.LIST, Dimension.LENGTH)
VISCOSITY = Ask("x", "x", Kind.QUANTITY, Many.RANGE, Dimension.VISCOSITY, open_ends=True)
WARM = Ask("x", "x", Kind.QUANTITY, Many.RANGE, Dimension.TEMPERATURE, open_ends=True)
INCH, MM = How("in", DecimalMark.POINT), How("mm", DecimalMark.POINT)
SSU, F = How("SSU", DecimalMark.POINT, True), How("F", DecimalMark.POINT, True)
COMMA = How("mm", DecimalMark.COMMA)


def family_of(content):
    return FAMILIES[content["family"]]


def retyped(content, system=Units.MM):
    typed = typed_of(content, SCHEMA, family_of(content), system)
    return typed, content_of(typed, typed.form(SCHEMA, family_of(content)))


def grid(path, family="internal_gear", means="housing") -> Grid:
    sections = form_of(SCHEMA, FAMILIES[family], {}, means)
    return next(one for section in sections for one in section.grids if one.path == path)


class EverySheet(SimpleTestCase):
    def test_typed_and_read_it_is_the_same_file(self):
        """All seven families, in either unit system: what the editor asks is all there is to say of them."""
        self.assertEqual({content["family"] for content in SHEETS.values()}, set(FAMILIES))
        for (name, content), system in product(SHEETS.items(), (Units.MM, Units.IN)):
            with self.subTest(sheet=name, system=system):
                typed, (again, wrong) = retyped(content, system)
                self.assertEqual(wrong, [])
                whole = json.loads(json.dumps(content))
                if whole.get("catalogue", {}).get("kits") == []:
                    del whole["catalogue"]["kits"]
                self.assertEqual(again, whole)
                left = typed.rest.keys() - {"format", "version", "slug", "family"}
                self.assertLessEqual(left, {"stacks", "build"}, "what nothing asks for is kept, and is no size")

    def test_nothing_is_asked_twice_and_everything_has_a_name(self):
        for family in FAMILIES.values():
            for means in [*next((list(o.choices) for o in family.options if o.key == "means"), list(KINDS)), ""]:
                sections = form_of(SCHEMA, family, {}, means)
                paths = [ask.path for s in sections for ask in s.asks]
                paths += [grid.place(0, column.path) for s in sections for grid in s.grids for column in grid.columns]
                self.assertEqual(len(paths), len(set(paths)))
                self.assertFalse([one for s in sections for one in (*s.asks, *s.grids) if not one.label])

    def test_only_what_the_build_has_is_asked(self):
        def keys(family, build, means):
            return {section.key for section in form_of(SCHEMA, FAMILIES[family], build, means)}

        self.assertIn("packing", keys("internal_gear", {"seal": "packed"}, "housing"))
        self.assertNotIn("packing", keys("internal_gear", {"seal": "mechanical"}, "housing"))
        self.assertIn("bend", keys("lobe", {}, "shims"))
        self.assertNotIn("bend", keys("internal_gear", {}, "housing"))
        self.assertIn("timing", keys("circumferential_piston", {}, "shims"))
        self.assertNotIn("timing", keys("sliding_vane", {}, "gaskets"))
        rows = {
            means: {c.path for c in grid("clearance_table.rows", "circumferential_piston", means).columns}
            for means in ("shims", "fixed")
        }
        self.assertIn("back_clearance", rows["shims"] & rows["fixed"])
        self.assertNotIn("back_clearance", {c.path for c in grid("clearance_table.rows").columns})

    def test_it_names_no_family_and_no_means(self):
        words = {*FAMILIES, *(kind for kind in KINDS if kind not in ("fixed", "tap", "ring")), "scope"}
        for path in Path(typed_sheet.__path__[0]).glob("*.py"):
            found = {word for word in words if re.search(rf"[\"'.]{word}[\"'.]", path.read_text())}
            self.assertEqual(found, set(), path.name)


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
        units = {"temperature": "°F", "viscosity": "SSU", "end_clearance": "in", "also": "mm", "arc": "in"}
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


def draft(**fields) -> Typed:
    rows = [
        {"setting": "thin", "material": "cast iron", "viscosity": "up to 500", "temperature": "-10-90", "end_clearance": "0.10"},
        {"setting": "thick", "material": "cast iron", "viscosity": "500+", "temperature": "-10-90", "end_clearance": "0.20"},
    ]
    typed = Typed(
        "internal_gear",
        grids={"clearance_table.rows": rows},
        rest={"format": "fine-gap/spec-sheet", "version": 1, "family": "internal_gear"},
    )
    typed.fields = {
        "adjustment.means": "gaskets", "adjustment.thicknesses": "0.05, 0.1", "adjustment.starting_gasket": "0.1",
        "clearance_table.page": "4", "clearance_table.tolerance.minus": "0.02", "clearance_table.tolerance.plus": "0.02",
        "features.idler_pin.new": "30 ±0.01", **fields,
    }  # fmt: skip
    return typed


def problems(typed):
    content, wrong = content_of(typed, typed.form(SCHEMA, FAMILIES["internal_gear"]))
    partly, found = problems_of(content)
    return {e.field: e.problem for e in wrong} | {one.path: one.problem for one in found if not one.missing}, partly, found


class Everything(SimpleTestCase):
    def test_all_that_is_wrong_is_told_at_once_each_at_its_place(self):
        typed = draft(**{
            "features.idler_pin.maximum": "29", "features.idler_bore.new": "30.1-30.0", "clearance_table.tolerance.minus": "0.2",
            "adjustment.starting_gasket": "thin", "heat.casing": "cheese", "date": "2026-02-31",
        })  # fmt: skip
        typed.grids["clearance_table.rows"][1]["viscosity"] = "700+"
        typed.grids["torques"] = [{"fastener": "Head bolts", "torque": "50-40"}, {"fastener": "Lock nut"}]
        wrong, _, found = problems(typed)
        for place, says in {
            "features.idler_pin": "outside its own limit",
            "features.idler_bore.new": "reversed",
            "adjustment.starting_gasket": "not a number",
            "clearance_table.rows[0].viscosity": "hole",
            "torques[0].torque": "reversed",
            "date": "not a day",
        }.items():
            self.assertIn(says, wrong.get(place, ""), place)
        missing = {one.path for one in found if one.missing}
        self.assertLessEqual({"maker", "model", "revision", "source", "torques[1].torque", "heat.thrust_to_head"}, missing)

    def test_a_column_is_in_one_unit(self):
        typed = draft()
        typed.grids["clearance_table.rows"][1]["end_clearance"] = ".008 in"
        wrong, _, _ = problems(typed)
        self.assertIn("the column is in mm above, and in in here", wrong["clearance_table.rows[1].end_clearance"])
        typed.units["clearance_table.rows.end_clearance"] = "in"
        typed.grids["clearance_table.rows"][0]["end_clearance"] = ".004"
        wrong, partly, _ = problems(typed)
        self.assertEqual(wrong, {})
        self.assertAlmostEqual(partly.rows[0].clearance_mm, 0.1016)

    def test_what_is_printed_twice_is_held_against_itself(self):
        """Arcs of a housing of 100 mm and 2 mm lead by geometry: π·100/2 = 157.08 mm of arc for 1 mm."""
        typed = draft(**{"adjustment.means": "housing", "adjustment.outside_diameter": "100", "adjustment.lead": "2"})
        one, other = typed.grids["clearance_table.rows"]
        one |= {"also": ".004 in", "arc": "15.7"}
        other |= {"also": ".009 in", "arc": "36"}
        _, partly, _ = problems(typed)
        self.assertEqual([path for path, _ in partly.remarks], ["clearance_table.rows[1].also", "clearance_table.rows[1].arc"])
        self.assertIn("0.00787 in; the row prints .009 in", partly.remarks[0][1].render(Units.MM))
        self.assertIn("31.416 mm", partly.remarks[1][1].render(Units.MM))

    def test_rows_that_overlap_are_told_with_where(self):
        typed = draft()
        typed.grids["clearance_table.rows"][1]["viscosity"] = "400+"
        _, partly, _ = problems(typed)
        self.assertEqual(
            [one.render(Units.MM) for one in overlaps(partly.rows)], ["Rows 1 and 2 overlap: 400 to 500 mm²/s, at -10 to 90 °C."]
        )
        self.assertEqual(overlaps(problems(draft())[1].rows), ())
        typed.grids["clearance_table.rows"][1]["end_clearance"] = "0.10"
        self.assertEqual(overlaps(problems(typed)[1].rows), (), "with one clearance there is nothing to choose")

    def test_a_row_that_cannot_be_read_leaves_the_others_to_be_drawn(self):
        typed = draft()
        typed.grids["clearance_table.rows"][0]["end_clearance"] = "-1"
        _, partly, _ = problems(typed)
        self.assertEqual((len(partly.rows), len(partly.readable)), (0, 1))

    def test_a_table_of_several_sizes_is_this_ones_rows_and_the_others_sizes(self):
        typed = draft(model="H20")
        rows = typed.grids["clearance_table.rows"]
        rows[1][SIZE] = "h20"
        rows += [{**rows[0], SIZE: "H25"}, {**rows[1], SIZE: "H32"}]
        self.assertEqual(sizes_of(typed), ("H25", "H32"))
        _, partly, _ = problems(typed)
        self.assertEqual(len(partly.rows), 2)

    def test_a_part_reads_as_in_the_whole(self):
        """What is gathered and what is raised are one reading: of a sheet that is right both give the same."""
        for name, content in SHEETS.items():
            with self.subTest(sheet=name):
                partly, found = read_partly(content)
                whole = read_sheet(content)
                self.assertEqual((found, partly.rows, partly.features), ([], whole.rows, whole.features))
                self.assertEqual(parse_file(json.dumps(content))[1].means, partly.means)


class Lines(SimpleTestCase):
    def test_every_size_of_a_sheet_stands_in_a_line(self):
        for name, content in SHEETS.items():
            lines = printed_lines(content, SCHEMA, family_of(content))
            self.assertEqual(len({line.path for line in lines}), len(lines))
            said = " ".join(line.said for line in lines)
            for key, spec in content["features"].items():
                texts = [*spec["new"], *(spec[side] for side in ("minimum", "maximum") if side in spec)]
                shown = any(line.path == f"features.{key}" for line in lines)
                with self.subTest(sheet=name, feature=key):
                    self.assertTrue(not shown or all(text.split(" ")[0] in said for text in texts))

    def test_what_changed_is_what_was_changed(self):
        content = SHEETS["aldery-h40-c"]
        later = json.loads(json.dumps(content))
        later["features"]["idler_bore"]["maximum"] = "99.9 mm"
        later["torques"].pop()
        before, after = (printed_lines(one, SCHEMA, family_of(content)) for one in (content, later))
        found = changes_between(before, after)
        self.assertEqual([one.line.path for one in found], ["features.idler_bore", f"torques[{len(later['torques'])}]"])
        self.assertEqual(found[0].after, "Maximum: 99.9 mm")
        self.assertEqual(found[1].after, "")
        self.assertEqual(changes_between(before, before), ())
