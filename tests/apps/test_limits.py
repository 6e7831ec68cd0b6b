"""What cannot be: too deep, too large, no letter, a full disk. Always the one shape of an error, never a traceback."""

import errno
import json
import sqlite3
from unittest import mock

from django.db import DatabaseError, OperationalError
from django.test import Client, SimpleTestCase
from django.urls import get_resolver

from finegap.api.parsers import DEEPEST, place_of
from finegap.api.plain import plain
from finegap.core.calculators import CALCULATORS
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.site.faults import BROKEN, BUSY, DAMAGED, FULL, READ_ONLY, fault_of
from tests.apps.base import Works, sheet_data
from tests.core.test_edges import TYPED

SHAPE = {"code", "problem", "field", "hint", "suggestions", "reasons", "reason_wanted"}
ENTERED = {"unit": "mm", "mark": "point", "person": "lena"}


class Bodies(Works):
    def setUp(self):
        super().setUp()
        self.client.force_login(self.lena)
        self.client.raise_request_exception = False

    def refused(self, answer, status):
        self.assertEqual(answer.status_code, status, answer.content[:300])
        told = answer.json()
        self.assertEqual(set(told), SHAPE)
        self.assertTrue(told["problem"])
        return told

    def send(self, body, path="/api/sums/viscosity", kind="application/json"):
        return self.client.post(path, body, kind)

    def test_a_body_that_cannot_be_read_is_refused_in_the_one_shape(self):
        for body in ("[" * 300_000 + "]" * 300_000, "[" * 2000 + "]" * 2000, "{", b"\xff\xfe", "[1", '{"a": 1,}'):
            with self.subTest(body[:40]):
                self.assertIn("JSON", self.refused(self.send(body), 400)["problem"])
        just = json.dumps(ENTERED | {"given": {}})[:-1] + ', "more": ' + "[" * DEEPEST + "]" * DEEPEST + "}"
        for body, field in (
            (just, "more" + ".0" * (DEEPEST - 1)),
            ('{"given": {"first": "\\ud800"}}', "given.first"),
            ('{"given": {"\\udfff": "1"}}', "given.?"),
            ('{"given": {"first": [1, 1e999]}}', "given.first.1"),
            ('{"unit": NaN}', "unit"),
        ):
            with self.subTest(body[:60]):
                self.assertEqual(self.refused(self.send(body), 422)["field"], field)
        self.assertIsNone(place_of(json.loads("[" * DEEPEST + "]" * DEEPEST), lambda value: False))
        self.refused(self.send(json.dumps("a" * 3_000_000)), 413)
        self.refused(self.client.post("/api/sums/x", "{}", "application/json", CONTENT_LENGTH="many"), 400)
        self.refused(self.send("a=1", kind="text/plain"), 415)

    def test_a_sheet_file_is_no_way_round_that(self):
        usual = json.dumps(sheet_data())
        for text in ("[" * 200_000, '{"a":' * 5000 + "1" + "}" * 5000, '"\\ud800"', "[1e999]", f"[{'9' * 5000}]"):
            with self.subTest(text[:20]):
                self.refused(self.send(json.dumps({"text": text}), "/api/sheets"), 422)
        odd = usual.replace("Test pump", "\\udfff pump", 1)
        self.assertIn("half of a letter", self.refused(self.send(json.dumps({"text": odd}), "/api/sheets"), 422)["problem"])

    def test_every_address_that_is_none_says_so_in_the_one_shape(self):
        for path in ("/api/nothing", "/api/", "/api/jobs/99999", "/api/pumps/none", "/api/sheets/no/1", "/api/jobs/1/report.exe"):
            for client in (self.client, Client()):
                answer = client.get(path)
                self.assertIn(answer.status_code, (401, 404), path)
                self.refused(answer, answer.status_code)
        self.assertContains(self.client.get("/static/none.js"), "nothing at this address", status_code=404)

    def test_a_page_of_before_says_to_load_it_anew(self):
        strict = Client(enforce_csrf_checks=True)
        self.assertContains(strict.post("/sign-in", {}), "Load the page anew", status_code=403)
        strict.force_login(self.lena)
        self.refused(strict.post("/api/people/pin", {}, "application/json"), 403)

    def test_a_fault_of_the_server_is_one_page_and_one_shape(self):
        for error, fault in ((OperationalError("database or disk is full"), FULL), (ValueError("secret detail"), BROKEN)):
            with mock.patch("finegap.works.queries.works_settings", side_effect=error):
                told = self.refused(self.client.get("/api/settings"), fault.status)
                self.assertEqual((told["code"], told["problem"]), (fault.code, fault.what))
                self.assertNotIn("secret", json.dumps(told))
            # In the middleware, before any view.
            with mock.patch("finegap.site.middleware.works_settings", side_effect=error):
                page = self.client.get("/bench")
                self.assertContains(page, fault.what, status_code=fault.status)
                self.assertNotIn("secret", page.content.decode())
                self.refused(self.client.get("/api/me"), fault.status)

    def test_every_answer_says_how_long_it_may_be_kept(self):
        stranger = Client()
        number = self.open()
        for path in ("/api/me", "/api/jobs", f"/api/jobs/{number}", f"/api/jobs/{number}/report.pdf", "/api/nothing", "/bench",
                     "/sign-in", "/sign-in/code", "/first-visit", "/authority.crt", "/works.zip", "/static/none.js"):  # fmt: skip
            for client in (self.client, stranger):
                said = client.get(path).headers.get("Cache-Control", "")
                self.assertRegex(said, "no-store|no-cache", path)
                self.assertNotIn("public", said, path)


class Beyond(SimpleTestCase):
    """A number beyond all measure in a sum is refused by its field, or calculated; never a traceback, never infinity."""

    ODD = ("1e9", "-1e9", "1e308", "1e-300", "9" * 60, "0", "-0", "inf", "nan", "1e999", "\ud800", "\0", "٣")

    def test_any_number_in_any_sum(self):
        done = 0
        for one in CALCULATORS.values():
            good = TYPED[one.key]
            each = [good | {asked.key: typed} for asked in one.inputs for typed in self.ODD]
            for given in [good, *each, *(dict.fromkeys(good, typed) for typed in self.ODD)]:
                with self.subTest(sum=one.key, given={key: text[:12] for key, text in given.items()}):
                    try:
                        lines = one.run(given, Entry())
                    except FieldError as refused:
                        self.assertTrue(refused.field and refused.problem)
                    else:
                        done += 1
                        self.assertNotRegex(json.dumps(plain(lines)), r"(?i)\b(inf|infinity|nan)\b")
        self.assertGreater(done, len(CALCULATORS))


class Told(SimpleTestCase):
    """SQLite's words are those of its own table of results (sqlite3_errstr), provoked here where that is cheap."""

    def test_faults_are_told_apart(self):
        with self.assertRaises(sqlite3.DatabaseError) as no_database:
            base = sqlite3.connect(":memory:")
            base.deserialize(b"not a database at all, by far" * 300)
            base.execute("SELECT * FROM sqlite_master")
        wrapped = DatabaseError("other words")
        wrapped.__cause__ = no_database.exception
        read_only = sqlite3.connect("file:x?mode=memory", uri=True)
        read_only.execute("PRAGMA query_only=1")
        with self.assertRaises(sqlite3.OperationalError) as query_only:
            read_only.execute("CREATE TABLE t (a)")
        small = sqlite3.connect(":memory:")
        small.execute("CREATE TABLE t (a)")
        small.execute("PRAGMA max_page_count=3")
        with self.assertRaises(sqlite3.OperationalError) as full:
            small.execute("INSERT INTO t VALUES (zeroblob(100000))")
        for error, fault in (
            (full.exception, FULL),
            (query_only.exception, READ_ONLY),
            (wrapped, DAMAGED),
            (OperationalError("database is locked"), BUSY),
            (DatabaseError("database disk image is malformed"), DAMAGED),
            (OSError(errno.ENOSPC, "No space left on device"), FULL),
            (OSError(errno.EROFS, "Read-only file system"), READ_ONLY),
            (PermissionError(errno.EACCES, "Permission denied"), READ_ONLY),
            (FileNotFoundError(errno.ENOENT, "No such file"), BROKEN),
            (ValueError("database or disk is full"), BROKEN),
            (None, BROKEN),
        ):
            with self.subTest(repr(error)):
                self.assertIs(fault_of(error), fault)

    def test_the_pages_of_errors_are_ours(self):
        for status in (400, 403, 404, 500):
            self.assertEqual(get_resolver().resolve_error_handler(status).__module__, "finegap.site.error_pages")
