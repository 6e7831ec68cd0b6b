"""A sheet typed as a manual prints it: every way a cell can be written, and every sheet of the demo typed and read back."""

import json
import re
from itertools import product
from pathlib import Path

from django.test import SimpleTestCase

from finegap.core import typed_sheet
from finegap.core.families import FAMILIES
from finegap.core.formatting import Units
from finegap.core.gap.table import overlaps
from finegap.core.means.registry import KINDS
from finegap.core.sheet import read_partly, read_sheet
from finegap.core.typed_sheet.asks import SIZE, Grid, form_of
from finegap.core.typed_sheet.draft import Typed, content_of, sizes_of, typed_of
from finegap.core.typed_sheet.printed import changes_between, printed_lines
from finegap.formats.sheet_file import parse_file, problems_of, sheet_schema

SHEETS = {path.stem: json.loads(path.read_text()) for path in sorted(Path("demo/sheets").glob("*.json"))}
SCHEMA = sheet_schema()


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
