"""A sheet read against the manual by a second person, corrected later; and jobs on one that is not read."""

import datetime as dt
import json
import uuid
from unittest import mock

from django.contrib.auth.models import User
from django.utils import timezone

from finegap.api.errors import Refused
from finegap.bench import changes, services
from finegap.bench.services.news import note_verdicts
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.formatting import Units
from finegap.pumps.changes import AddPump
from finegap.pumps.services import add_pump
from finegap.sheets import draft_queries, drafting, drafts, reading
from finegap.sheets.changes import BeginDraft, ReadLine, RowCells, SaveDraft, SheetFile, TableRows
from finegap.sheets.models import SheetRevision
from finegap.sheets.queries import sheet_detail
from tests.apps.base import Works, add_unread, job_view, person, sheet_data, shown
from tests.apps.test_typing import MODEL, ROWS, finish, read_all, typed_whole
from tests.core.test_typed_sheet import SHEETS


class Reading(Works):
    def setUp(self):
        self.kept = finish(self.lena, typed_whole(self.lena, sheet_data(slug="nobody-t9", **MODEL)))

    def line(self, path="features.idler_bore"):
        return next(one for one in drafts.lines_of(self.kept) if one.path == path)

    def say(self, who, agrees=True, note="", path="features.idler_bore"):
        line = self.line(path)
        return reading.read_line(who, "nobody-t9", "1", ReadLine(line.path, drafts.said_of(line), agrees, note))

    def test_who_typed_it_does_not_read_it(self):
        with self.assertRaisesRegex(Refused, "somebody else reads it"):
            self.say(self.lena)
        self.say(self.tom)
        self.assertFalse(SheetRevision.objects.get(pk=self.kept.pk).may_be_signed_on)
        kept = read_all(self.kept, self.tom)
        self.assertEqual((kept.read_names, kept.read_alone), ("Tom", False))
        with self.assertRaisesRegex(Refused, "was read"):
            self.say(self.tom)

    def test_in_a_works_of_one_the_same_person_later_and_that_is_said(self):
        User.objects.exclude(pk=self.lena.pk).update(is_active=False)
        with self.assertRaisesRegex(Refused, "less than 10 minutes ago"):
            self.say(self.lena)
        later = timezone.now() + dt.timedelta(minutes=11)
        with mock.patch("django.utils.timezone.now", return_value=later):
            kept = read_all(self.kept, self.lena)
        self.assertEqual((kept.read_names, kept.read_alone), ("Lena", True))
        self.assertTrue(sheet_detail(kept, Units.MM).read_alone)

    def test_a_line_that_differs_is_put_right_and_only_that_is_read_again(self):
        with self.assertRaisesRegex(FieldError, "say what the manual prints"):
            self.say(self.tom, agrees=False)
        for line in drafts.lines_of(self.kept):
            self.say(self.tom, agrees=line.path != "features.idler_bore", note="30.16", path=line.path)
        self.kept.refresh_from_db()
        self.assertFalse(self.kept.may_be_signed_on)
        draft = drafting.begin(self.lena, BeginDraft("", "nobody-t9", "1", "unread"), Entry())
        draft = drafting.save(self.lena, draft.pk, SaveDraft(draft.version, fields={"features.idler_bore.maximum": "30.16"}))
        self.kept = finish(self.lena, draft)
        self.assertEqual((self.kept.edition, SheetRevision.objects.filter(sheet=self.kept.sheet).count()), (1, 1))
        page = draft_queries.reading_page(self.kept, self.tom)
        self.assertEqual([line.path for line in page.lines if line.agrees is None], ["features.idler_bore"])
        with self.assertRaisesRegex(FieldError, "something else by now"):
            reading.read_line(self.tom, "nobody-t9", "1", ReadLine("features.idler_bore", "0" * 64, True))
        self.say(self.tom)
        self.assertTrue(SheetRevision.objects.get(pk=self.kept.pk).may_be_signed_on)

    def test_rows_go_with_who_typed_them_when_others_are_put_in(self):
        lou = person("lou", "lead")
        draft = drafting.begin(self.lena, BeginDraft("", "nobody-t9", "1", "unread"), Entry())
        rows = [RowCells(row) for row in draft.content["grids"]["clearance_table.rows"]]
        first = RowCells(rows[0].cells | {"setting": "thinnest", "viscosity": "up to 20"})
        draft = drafting.save(lou, draft.pk, SaveDraft(draft.version, grids=[TableRows("clearance_table.rows", [first, *rows])]))
        self.kept = finish(lou, draft)
        new, old = (drafts.typed_by(self.kept, self.line(f"{ROWS}[{i}]"))[0] for i in (0, 1))
        self.assertIn(lou.pk, new)
        self.assertEqual(old, {self.lena.pk})
        self.say(lou, path=f"{ROWS}[1]")
        for who, path in ((lou, f"{ROWS}[0]"), (self.lena, f"{ROWS}[1]")):
            with self.assertRaises(Refused):
                self.say(who, path=path)

    def test_a_line_is_typed_by_all_who_typed_a_cell_of_it(self):
        lou = person("lou", "lead")
        draft = drafting.begin(lou, BeginDraft("", "nobody-t9", "1", "unread"), Entry())
        draft = drafting.save(lou, draft.pk, SaveDraft(draft.version, fields={"features.idler_bore.maximum": "30.2"}))
        draft = drafting.save(lou, draft.pk, SaveDraft(draft.version, units={f"{ROWS}.end_clearance": "in"}))
        draft = drafting.save(lou, draft.pk, SaveDraft(draft.version, units={f"{ROWS}.end_clearance": ""}))
        self.kept = finish(lou, draft)
        self.assertEqual(drafts.typed_by(self.kept, self.line(f"{ROWS}[0]"))[0], {self.lena.pk, lou.pk})
        self.assertEqual(drafts.typed_by(self.kept, self.line())[0], {self.lena.pk, lou.pk})
        self.assertEqual(drafts.typed_by(self.kept, self.line("features.idler_pin"))[0], {self.lena.pk})

    def test_what_is_read_is_put_right_by_a_correction_alone_and_what_is_not_in_place(self):
        with self.assertRaisesRegex(FieldError, "nobody has read it yet"):
            drafting.begin(self.lena, BeginDraft("", "nobody-t9", "1", "correction"), Entry())
        draft = drafting.begin(self.lena, BeginDraft("", "nobody-t9", "1", "unread"), Entry())
        read_all(self.kept, self.tom)
        with self.assertRaisesRegex(FieldError, "was read against the manual"):
            drafting.begin(self.lena, BeginDraft("", "nobody-t9", "1", "unread"), Entry())
        with self.assertRaisesRegex(FieldError, "read meanwhile"):
            finish(self.lena, draft)

    def test_a_file_is_read_like_what_is_typed(self):
        kept = add_unread(self.lena, SheetFile(json.dumps(sheet_data(revision="7"))))
        self.assertTrue(sheet_detail(kept, Units.MM).unread)
        with self.assertRaises(Refused):
            reading.read_line(self.lena, kept.sheet.slug, "7", ReadLine("maker", drafts.said_of(drafts.lines_of(kept)[0]), True))


class OnTheBench(Works):
    """What rests on a sheet: jobs on one nobody has read, and signed ones on one that is corrected."""

    def unread(self, **content):
        return add_unread(self.lena, SheetFile(json.dumps(sheet_data(revision="2", date="2025-01-02", **content))))

    def signed(self):
        number = self.finished()
        services.sign_off(self.seen(number), changes.Sign(uuid.uuid4()))
        return number

    def test_it_is_measured_and_decided_by_and_not_signed(self):
        kept = self.unread()
        number = self.finished()
        view = job_view(number, Units.MM)
        self.assertTrue(view["sheet_unread"])
        self.assertIn("not yet read against the manual", str(view["blockers"]))
        with self.assertRaises(Refused):
            services.sign_off(self.seen(number, self.lena), changes.Sign(uuid.uuid4(), "I am a lead"))
        read_all(kept, self.tom)
        services.sign_off(self.seen(number), changes.Sign(uuid.uuid4()))
        view = job_view(number, Units.MM)
        self.assertEqual((view["sheet_unread"], view["sheet_read"]["names"], view["sheet_read"]["alone"]), (False, "Tom", False))

    def test_a_number_put_right_under_an_open_job_is_told_there(self):
        self.unread()
        number = self.finished()
        key = job_view(number, Units.MM)["drawing"]
        note_verdicts(*shown(self.row(number)))
        draft = drafting.begin(self.lena, BeginDraft("", "test-pump", "2", "unread"), Entry())
        change = {"features.idler_pin.minimum": "29.995", "features.idler_pin.new": "29.996-30.00"}
        read_all(finish(self.lena, drafting.save(self.lena, draft.pk, SaveDraft(draft.version, fields=change))), self.tom)
        view = job_view(number, Units.MM)
        self.assertNotEqual(view["drawing"], key)
        self.assertIn("Since then changed: the spec sheet", " ".join(view["meanwhile"]))
        with self.assertRaises(Refused):
            services.sign_off(self.seen(number), changes.Sign(uuid.uuid4()))

    def test_a_correction_names_the_signed_jobs_and_their_doubtful_numbers(self):
        number = self.signed()
        base = SheetRevision.objects.get(sheet__slug="test-pump")
        draft = drafting.begin(self.lena, BeginDraft("", "test-pump", "1", "correction"), Entry())
        change = {"features.idler_pin.minimum": "29.93", "source": "the same, printed better"}
        later = finish(self.lena, drafting.save(self.lena, draft.pk, SaveDraft(draft.version, fields=change)))
        self.assertEqual((later.corrects, later.revision), (base, "1.1"))
        (told,) = job_view(number, Units.MM)["corrected"]
        self.assertEqual(told["revision"], "1.1")
        self.assertEqual(len(told["numbers"]), 1)
        self.assertRegex(told["numbers"][0], r"Idler pin.*29\.90 mm.*corrected.*29\.93 mm")
        self.client.force_login(self.tom)
        answer = self.client.get("/api/jobs", {"state": "signed", "sheet": "test-pump", "revision": "1"}).json()
        self.assertEqual([one["number"] for one in answer["lines"]], [number])
        open_lines = {line.path for line in draft_queries.reading_page(later, self.tom).lines if line.agrees is None}
        self.assertEqual(open_lines, {"features.idler_pin", "source", "revision"})
        self.assertTrue(read_all(later, self.tom).may_be_signed_on)

    def test_a_correction_of_what_a_job_did_not_use_leaves_it_in_peace(self):
        number = self.signed()
        draft = drafting.begin(self.lena, BeginDraft("", "test-pump", "1", "correction"), Entry())
        finish(self.lena, drafting.save(self.lena, draft.pk, SaveDraft(draft.version, fields={"source": "x"})))
        self.assertEqual(job_view(number, Units.MM)["corrected"], [])

    def test_cautions_of_the_maker_stand_at_their_stage_and_on_the_page(self):
        kept = self.unread(cautions=[{"stage": "strip", "text": "The spring is under load."}])
        number = self.open()
        self.assertEqual(job_view(number, Units.MM)["cautions"], [{"stage": "strip", "text": "The spring is under load."}])
        self.assertEqual(sheet_detail(kept, Units.MM).cautions, [["strip", "The spring is under load."]])

    def test_older_sheets_count_as_they_did(self):
        kept = self.unread()
        SheetRevision.objects.filter(pk=kept.pk).update(before_reading=True)
        number = self.finished()
        services.sign_off(self.seen(number), changes.Sign(uuid.uuid4()))
        self.assertIsNone(job_view(number, Units.MM)["sheet_read"])

    def test_a_count_put_right_leaves_no_reading_at_a_vane_that_is_not_there(self):
        content = json.loads(json.dumps(SHEETS["ellhaven-v8-2"]))
        add_unread(self.lena, SheetFile(json.dumps(content)))
        row, new = content["clearance_table"]["rows"][0], content["features"]["vane_height"]["new"][0].removesuffix(" mm")
        duty = {"viscosity": "50 mm2/s", "temperature": "60 C", "pressure": "1 bar", "speed": "900"}
        add_pump(self.lena, AddPump("V-1", "s", "l", "7", content["slug"], row["material"], "oil", **duty), Entry(meant=True))
        number = self.open("V-1")
        last = next(f for f in job_view(number, Units.MM)["features"] if f["key"] == "vane_height")["stations"][-1]["key"]
        self.read(number, "vane_height", last, new, "OLD")
        self.assertNotIn("no such place", str(job_view(number, Units.MM)["blockers"]))
        draft = drafting.begin(self.lena, BeginDraft("", content["slug"], content["revision"], "unread"), Entry())
        finish(self.lena, drafting.save(self.lena, draft.pk, SaveDraft(draft.version, fields={"details.vanes": "3"})))
        blocker = next(b for b in job_view(number, Units.MM)["blockers"] if "no such place" in b["sentence"])
        self.assertEqual((blocker["feature"], blocker["lead_may"]), ("vane_height", False))
