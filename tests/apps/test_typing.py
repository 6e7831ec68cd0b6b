"""Sheets typed, read by a second person, corrected; and what rests on them."""

import io
import json
import tempfile
import uuid
import zipfile
from unittest import mock

from django.contrib.auth.models import User
from django.core.files.base import ContentFile
from openpyxl import Workbook
from PIL import Image

from finegap.api.errors import Conflict, Refused
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.families import FAMILIES
from finegap.core.formatting import Units
from finegap.core.numerals import DecimalMark
from finegap.core.sheet import read_sheet
from finegap.sheets import draft_queries, drafting, drafts, pages, reading
from finegap.sheets.changes import AttachPage, BeginDraft, DraftSeen, ReadLine, RowCells, SaveDraft, TableRows
from finegap.sheets.models import ManualPage, SheetDraft, SheetRevision
from tests.apps.base import Works, person, sheet_data
from tests.core.test_typed_sheet import SHEETS

ROWS = "clearance_table.rows"
MODEL = {"model": "T9", "revision": "1", "title": "Nobody T9"}


def typed_whole(lead: User, content, entry=None) -> SheetDraft:
    """A sheet typed field by field and table by table, as the editor sends it."""
    entry = entry or Entry(drafts.system_of_sheet(content))
    draft = drafting.begin(lead, BeginDraft(content["family"]), entry)
    source = drafts.typed_again(SheetRevision(content=content))
    choices = {path: text for path, text in source.fields.items() if path.startswith(("build.", "adjustment.means"))}
    draft = drafting.save(lead, draft.pk, SaveDraft(draft.version, fields=choices))
    draft = drafting.save(lead, draft.pk, SaveDraft(draft.version, fields=source.fields, units=source.units))
    for path, rows in source.grids.items():
        table = TableRows(path, [RowCells(row) for row in rows])
        draft = drafting.save(lead, draft.pk, SaveDraft(draft.version, grids=[table]))
    return draft


def finish(lead: User, draft: SheetDraft) -> SheetRevision:
    """A draft kept as it was seen last."""
    return drafting.finish(lead, draft.pk, DraftSeen(draft.version))


def read_all(kept: SheetRevision, reader: User) -> SheetRevision:
    """Every line that is not read yet, one by one."""
    kept = SheetRevision.objects.select_related("sheet").get(pk=kept.pk)
    lines = drafts.lines_of(kept)
    done = reading.standing(kept, lines)
    for line in lines:
        if line.path not in done or not done[line.path].agrees:
            kept = reading.read_line(reader, kept.sheet.slug, kept.revision, ReadLine(line.path, drafts.said_of(line), True))
    return kept


class Typing(Works):
    def begin(self, **content):
        return typed_whole(self.lena, sheet_data(slug="nobody-t9", **{**MODEL, **content}))

    def put(self, draft, **fields):
        fields = {path.replace("__", "."): text for path, text in fields.items()}
        return drafting.save(self.lena, draft.pk, SaveDraft(draft.version, fields=fields))

    def test_a_sheet_of_every_family_is_typed_whole_and_read_by_a_second_person(self):
        for name, content in SHEETS.items():
            with self.subTest(sheet=name):
                kept = finish(self.lena, typed_whole(self.lena, content))
                self.assertFalse(kept.may_be_signed_on)
                asked = {key: value for key, value in kept.content.items() if key not in ("slug", "stacks")}
                as_printed = read_sheet(kept.content | {key: content[key] for key in ("stacks",) if key in content})
                whole = read_sheet(content)
                self.assertEqual(as_printed.rows, whole.rows)
                self.assertEqual(as_printed.means, whole.means)
                self.assertEqual(as_printed.torques, whole.torques)
                self.assertEqual(repr(as_printed.catalogue), repr(whole.catalogue))
                self.assertEqual(as_printed.building.presses, whole.building.presses)
                self.assertLessEqual(asked.keys(), content.keys())
                self.assertTrue(read_all(kept, self.tom).may_be_signed_on)
        self.assertEqual({content["family"] for content in SHEETS.values()}, set(FAMILIES))
        self.assertFalse(SheetDraft.objects.exists())

    def test_everything_open_is_told_and_nothing_is_kept_before(self):
        draft = drafting.begin(self.lena, BeginDraft("internal_gear"), Entry())
        state = draft_queries.draft_state(draft)
        missing = {one.path for one in state.problems if one.missing}
        self.assertLessEqual({"maker", "model", "revision", "date", "source", "features", "clearance_table"}, missing)
        self.assertFalse([one for one in state.problems if not one.missing])
        before = SheetRevision.objects.count()
        with self.assertRaises(Refused) as caught:
            finish(self.lena, draft)
        self.assertGreater(len(caught.exception.reasons), 5)
        self.assertEqual((SheetRevision.objects.count(), SheetDraft.objects.count()), (before, 1))

    def test_what_is_asked_follows_the_means_and_what_was_typed_before_is_not_lost(self):
        draft = self.begin()
        form = draft_queries.draft_state(draft).form
        draft = self.put(draft, adjustment__means="gaskets")
        self.assertNotEqual(draft_queries.draft_state(draft).form, form)
        self.assertIn("adjustment.thicknesses", {p.path for p in draft_queries.draft_state(draft).problems if p.missing})
        draft = self.put(draft, adjustment__means="housing")
        self.assertEqual(draft_queries.draft_state(draft).problems, [])

    def test_somebody_elses_typing_is_not_overwritten(self):
        draft = self.begin()
        drafting.save(self.lena, draft.pk, SaveDraft(draft.version, fields={"maker": "Else"}))
        with self.assertRaises(Conflict):
            drafting.save(person("lou", "lead"), draft.pk, SaveDraft(draft.version, fields={"maker": "Lou"}))
        with self.assertRaises(Conflict):
            finish(self.lena, draft)  # nor kept by somebody who has not seen it
        self.assertEqual(SheetDraft.objects.get().content["fields"]["maker"], "Else")

    def test_units_and_mark_are_those_it_was_begun_with(self):
        content = sheet_data(slug="nobody-t9", **MODEL)
        draft = typed_whole(self.lena, content, Entry(Units.IN, DecimalMark.COMMA))
        draft = self.put(draft, adjustment__lead="0,08", adjustment__outside_diameter="3.937")
        told = {one.path: one.problem for one in draft_queries.draft_state(draft).problems}
        self.assertIn("two ways", told["adjustment.outside_diameter"])
        kept, _, _ = drafting.read_draft(drafts.typed_in(draft))
        self.assertEqual(kept["adjustment"]["lead"], "0.08 in")

    def test_more_than_fits_is_refused_and_nothing_of_it_kept(self):
        draft = self.begin()
        for new in (
            SaveDraft(draft.version, fields={f"x.{i}": "1" for i in range(3001)}),
            SaveDraft(draft.version, fields={"maker": "x" * 2001}),
            SaveDraft(draft.version, grids=[TableRows("torques", [RowCells({})] * 101)]),
            SaveDraft(draft.version, grids=[TableRows("torques", [RowCells({"colour": "red"})])]),
            SaveDraft(draft.version, grids=[TableRows("colours", [])]),
        ):
            with self.assertRaises(FieldError):
                drafting.save(self.lena, draft.pk, new)
        self.assertEqual(SheetDraft.objects.get().version, draft.version)

    def test_a_sheet_that_is_there_gets_revisions_and_no_twin(self):
        finish(self.lena, self.begin())
        with self.assertRaisesRegex(FieldError, "there is a sheet for Nobody T9"):
            finish(self.lena, self.begin(revision="2"))

    def test_a_table_of_several_sizes_gives_a_draft_each_without_sizes_of_parts(self):
        draft = self.begin()
        rows = [RowCells(row | {"size": "T9"}) for row in draft.content["grids"]["clearance_table.rows"]]
        other = [RowCells(row.cells | {"size": "T12", "end_clearance": "0.3"}) for row in rows]
        blank = RowCells(rows[0].cells | {"size": ""})
        draft = drafting.save(self.lena, draft.pk, SaveDraft(draft.version, grids=[TableRows(ROWS, [blank, *rows, *other])]))
        told = {one.path: one.problem for one in draft_queries.draft_state(draft).problems}
        self.assertIn("does not say for which pump", told[f"{ROWS}[0].size"])
        draft = drafting.save(
            self.lena, draft.pk, SaveDraft(draft.version, grids=[TableRows("clearance_table.rows", rows + other)])
        )
        with self.assertRaisesRegex(Refused, "other sizes"):
            finish(self.lena, draft)
        lou = person("lou", "lead")
        with self.assertRaises(Conflict):
            drafting.apart(lou, draft.pk, DraftSeen(draft.version - 1))
        with mock.patch("finegap.sheets.drafting._MOST_DRAFTS", 1), self.assertRaisesRegex(FieldError, "1 more would be 2"):
            drafting.apart(lou, draft.pk, DraftSeen(draft.version))
        (made,) = drafting.apart(lou, draft.pk, DraftSeen(draft.version))
        self.assertIn(self.lena.pk, made.typed[""]["by"])  # whoever pressed the button did not type it
        self.assertEqual(made.content["fields"]["model"], "T12")
        self.assertEqual([row["end_clearance"] for row in made.content["grids"]["clearance_table.rows"]], ["0.3", "0.3"])
        self.assertFalse([path for path in made.content["fields"] if path.startswith("features")])
        draft.refresh_from_db()
        kept = finish(self.lena, draft)
        self.assertEqual(len(kept.content["clearance_table"]["rows"]), len(rows))
        self.assertEqual([drafts.typed_by(kept, one)[0] for one in drafts.lines_of(kept) if one.path.startswith(ROWS)],
                         [{self.lena.pk}] * len(rows))  # fmt: skip

    def test_a_copy_for_the_next_size_asks_for_its_name_and_leaves_the_first_alone(self):
        kept = read_all(finish(self.lena, self.begin()), self.tom)
        before = json.dumps(kept.content)
        copy = drafting.begin(self.lena, BeginDraft("", kept.sheet.slug, kept.revision, "size"), Entry())
        self.assertLessEqual({"model", "revision", "date"}, {p.path for p in draft_queries.draft_state(copy).problems})
        copy = self.put(copy, model="T12", revision="1", date="2026-01-01", title="")
        made = finish(self.lena, copy)
        self.assertEqual((made.sheet.slug, made.may_be_signed_on), ("nobody-t12", False))
        kept.refresh_from_db()
        self.assertEqual(json.dumps(kept.content), before)

    def test_a_page_of_the_manual_stays_with_the_revision(self):
        draft, into = self.begin(), io.BytesIO()
        Image.new("RGB", (3000, 200), "white").save(into, "PNG")
        with self.settings(MEDIA_ROOT=self.enterContext(tempfile.TemporaryDirectory())):
            pages.attach_page(self.lena, draft.pk, AttachPage(uuid.uuid4(), ContentFile(into.getvalue(), "p9.png")))
            pages.attach_page(self.lena, draft.pk, AttachPage(uuid.uuid4(), ContentFile(b"%PDF-1.7 x", "../manual.pdf")))
            for what in (b"GIF89a", b"<html>"):
                with self.assertRaisesRegex(FieldError, "no picture"):
                    pages.attach_page(self.lena, draft.pk, AttachPage(uuid.uuid4(), ContentFile(what, "a.pdf")))
            kept = finish(self.lena, draft)
            self.assertEqual([(one.name, one.kind) for one in kept.pages.all()], [("p9.png", "jpeg"), ("manual.pdf", "pdf")])
            self.client.force_login(self.tom)
            page = kept.pages.first()
            answer = self.client.get(f"/api/manual-pages/{page.pk}")
            self.assertEqual(Image.open(io.BytesIO(answer.content)).size, (2400, 160))
            self.assertEqual(answer["X-Frame-Options"], "SAMEORIGIN")
            self.assertIn("default-src 'none'", answer["Content-Security-Policy"])
            self.assertIn("frame-ancestors 'self'", answer["Content-Security-Policy"])
            with self.assertRaises(FieldError):
                pages.remove_page(str(page.pk))
            self.assertEqual(ManualPage.objects.count(), 2)


class Tables(Works):
    """Tables as spreadsheets really write them."""

    def setUp(self):
        self.draft = drafting.begin(self.lena, BeginDraft("internal_gear"), Entry())

    def read(self, data, table="torques"):
        return drafting.from_file(self.draft.pk, table, data).rows

    def workbook(self, *rows, merge=""):
        book = Workbook()
        for row in rows:
            book.active.append(row)
        if merge:
            book.active.merge_cells(merge)
        into = io.BytesIO()
        book.save(into)
        return into.getvalue()

    def test_any_csv_and_xlsx(self):
        expected = [{"fastener": "Mutter außen", "torque": "20-24"}, {"fastener": "Head bolts", "torque": "45"}]
        text = "Fastener;Torque (N.m)\r\nMutter außen;20-24\r\nHead bolts;45\r\n"
        book = self.workbook(["Fastener", "Torque (N.m)"], ["Mutter außen", "20-24"], ["Head bolts", 45.0])
        for data in (text.encode(), b"\xef\xbb\xbf" + text.encode(), text.encode("cp1252"), text.replace(";", ",").encode(), book):
            self.assertEqual([row.cells for row in self.read(data)], expected)

    def test_what_is_wrong_with_a_cell_is_said_at_its_row(self):
        """Merged cells come empty, and a formula is nobody's number: neither is guessed."""
        head = ["Setting", "Material", "Viscosity", "Temperature", "End clearance"]
        book = self.workbook(
            head,
            ["thin", "cast iron", "up to 500", "all", "0.1"],
            ["thick", "cast iron", "900-500", "all", "0.2"],
            merge="B2:B3",
        )
        rows = self.read(book, "clearance_table.rows")
        table = TableRows("clearance_table.rows", [RowCells(row.cells) for row in rows])
        draft = drafting.save(self.lena, self.draft.pk, SaveDraft(self.draft.version, grids=[table]))
        told = {one.path: one.problem for one in draft_queries.draft_state(draft).problems}
        self.assertIn("not given", told["clearance_table.rows[1].material"])
        self.assertNotIn("clearance_table.rows[0].material", told)
        with self.assertRaisesRegex(FieldError, "B2 holds a formula"):
            self.read(self.workbook(["Fastener", "Torque"], ["Head bolts", "=20+4"]))

    def test_no_book_no_bomb_no_ten_thousand_rows(self):
        rows = b"Fastener,Torque\n" + b"x,1\n" * 10_000
        bomb = io.BytesIO()
        with zipfile.ZipFile(bomb, "w", zipfile.ZIP_DEFLATED) as packed:
            packed.writestr("xl/worksheets/sheet1.xml", b"0" * 60_000_000)
        for data in (rows, bomb.getvalue(), b"PK\x03\x04 torn", b"x" * (1024 * 1024 + 1)):
            with self.assertRaises(FieldError):
                self.read(data)
        with self.assertRaisesRegex(FieldError, "more than a table"):
            drafting.paste(self.draft.pk, "torques", "a page of the book\n" * 15_000, "")
        self.assertEqual(SheetDraft.objects.get().content["grids"], {})
