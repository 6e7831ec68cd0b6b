"""Spec sheet files: what is right goes in and comes out the same, what is wrong is refused with its line, whole."""

import copy
import json

from jsonschema import Draft202012Validator

from finegap.core.errors import FieldError
from finegap.core.sheet import read_sheet
from finegap.formats.sheet_file import LARGEST_BYTES, SCHEMA_PATH, parse_file, write_file
from finegap.sheets.changes import SheetFile
from finegap.sheets.models import Sheet, SheetRevision
from tests.apps.base import Works, add_revision, sheet_data


def changed(path: str, value: object) -> str:
    """The good sheet as an indented file, with one thing changed."""
    data = copy.deepcopy(sheet_data())
    *way, last = path.split("/")
    place = data
    for name in way:
        place = place[int(name)] if isinstance(place, list) else place[name]
    place[int(last) if isinstance(place, list) else last] = value
    return json.dumps(data, indent=1)


ROW = "clearance_table/rows/1"
WRONG = [
    ("clearance_table/rows", [], "clearance_table.rows", "empty"),
    (f"{ROW}/end_clearance", None, "rows[1].end_clearance", "cell is empty"),
    (f"{ROW}/end_clearance", "", "rows[1].end_clearance", "cell is empty"),
    (f"{ROW}/end_clearance", "0.2 bar", "rows[1].end_clearance", "a pressure"),
    (f"{ROW}/end_clearance", "-0.2 mm", "rows[1].end_clearance", "negative"),
    (f"{ROW}/viscosity", ["900 mm2/s", "90 mm2/s"], "rows[1].viscosity", "reversed"),
    (f"{ROW}/viscosity", ["200 mm2/s", "and up"], "rows[0].viscosity", "hole"),
    (f"{ROW}/temperature", ["120 C", "-20 C"], "rows[1].temperature", "reversed"),
    ("features/idler_bore/new", ["30.04 mm", "30.02 mm"], "idler_bore.new", "reversed"),
    ("features/idler_bore/maximum", "30.03 mm", "idler_bore", "outside its own limit"),
    ("features/idler_bore/maximum", "nan mm", "idler_bore.maximum", "not a number"),
    ("features/wing", {"new": ["1 mm", "2 mm"]}, "features.wing", "no such feature"),
    ("adjustment/lead", "0 mm", "adjustment.lead", "more than zero"),
    ("adjustment/travel", "0.15 mm", "rows[1].end_clearance", "the thread reaches 0.15 mm"),
    ("heat/casing", "cheese", "heat.casing", "not known"),
    ("family", "screw", "family", "not a family"),
    ("title", "=HYPERLINK(1)", "title", "formula"),
    ("source", "@SUM(A1)", "source", "formula"),
    ("date", "2024-02-31", "date", "not a day"),
    ("version", 2, "version", "newer"),
    ("format", "something", "line 1", "not a spec sheet"),
    ("torques/0/torque", ["90 N.m", "80 N.m"], "torques[0].torque", "reversed"),
    ("extra", 1, "file", "extra"),
]


class Files(Works):
    def test_wrong_files_are_refused_with_the_place_and_nothing_is_kept(self):
        before = SheetRevision.objects.count()
        for path, value, where, says in WRONG:
            with self.subTest(path=path, value=value), self.assertRaises(FieldError) as caught:
                add_revision(self.lena, SheetFile(changed(path, value)))
            self.assertIn(where, caught.exception.field)
            self.assertIn(says, caught.exception.problem)
        self.assertEqual(SheetRevision.objects.count(), before)
        self.assertFalse(Sheet.objects.filter(revisions__isnull=True).exists())

    def test_the_line_is_the_one_in_the_file(self):
        text = changed(f"{ROW}/end_clearance", "2 bar")
        line = 1 + next(i for i, row in enumerate(text.splitlines()) if "2 bar" in row)
        with self.assertRaises(FieldError) as caught:
            parse_file(text)
        self.assertTrue(caught.exception.field.startswith(f"line {line},"), caught.exception.field)

    def test_what_is_no_sheet_file_at_all(self):
        for text, says in {
            "{": "not JSON",
            "": "not JSON",
            "[1, 2": "not JSON",
            "[]": "not a spec sheet",
            '{"a": NaN}': "not a number",
            '{"format": 1, "format": 2}': "given twice",
            "[" * 100_000: "",
            " " * (LARGEST_BYTES + 1): "too large",
        }.items():
            with self.subTest(text=text[:20]), self.assertRaises(FieldError) as caught:
                parse_file(text)
            self.assertIn(says, caught.exception.problem)
        with self.assertRaises(FieldError) as caught:
            parse_file('{\n "format": "fine-gap/spec-sheet",\n oops')
        self.assertEqual(caught.exception.field, "line 3")

    def test_round_trip(self):
        content, sheet = parse_file(json.dumps(sheet_data()))
        again, same = parse_file(write_file(content))
        self.assertEqual(content, again)
        self.assertEqual(sheet.rows, same.rows)
        self.assertEqual(read_sheet(content).features, same.features)

    def test_units_of_a_file_may_be_mixed(self):
        data = sheet_data()
        data["clearance_table"]["rows"][0]["end_clearance"] = ".005 in"
        _, sheet = parse_file(json.dumps(data))
        self.assertAlmostEqual(sheet.rows[0].clearance_mm, 0.127)

    def test_a_revision_is_never_replaced(self):
        same = add_revision(self.lena, SheetFile(json.dumps(sheet_data())))
        self.assertEqual(SheetRevision.objects.filter(sheet=same.sheet).count(), 1)
        with self.assertRaisesRegex(FieldError, "other contents"):
            add_revision(self.lena, SheetFile(json.dumps(sheet_data(source="another book"))))
        newer = add_revision(self.lena, SheetFile(json.dumps(sheet_data(revision="2", date="2025-01-01"))))
        self.assertEqual(newer.sheet.revisions.first(), newer)

    def test_the_published_schema_is_itself_right(self):
        Draft202012Validator.check_schema(json.loads(SCHEMA_PATH.read_text()))
