"""The whole works out as open files and back, equal; and what is no such archive is refused with nothing left."""

import csv
import io
import json
import os
import shutil
import sqlite3
import subprocess
import sys
import tempfile
import uuid
import zipfile
from contextlib import closing
from pathlib import Path
from unittest import mock

from django.conf import settings
from django.contrib.auth.models import User
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import DatabaseError
from django.test import SimpleTestCase, override_settings
from PIL import Image
from pypdf import PdfReader

from finegap.bench import changes, services
from finegap.core.entry import Entry
from finegap.core.formatting import Units
from finegap.inventory.many import keep_rows
from finegap.inventory.models import Certificate, Gauge
from finegap.inventory.tables import gauges
from finegap.people.models import PersonEvent, Pin
from finegap.site import views
from finegap.site.archive.back import filled, put_back
from finegap.site.archive.out import take_out
from finegap.site.backup import BackupFault
from finegap.works.changes import KeepLogo, KeepSettings
from finegap.works.services import keep_logo, keep_settings
from tests.apps.base import Works, job_view


def entries(data):
    with zipfile.ZipFile(data) as packed:
        return {name: packed.read(name) for name in packed.namelist()}


def picture():
    into = io.BytesIO()
    Image.new("RGB", (80, 40), "teal").save(into, "PNG")
    return SimpleUploadedFile("a.png", into.getvalue())


LATER = {
    ("toolbox", "0007_shelf_and_retired"), ("works", "0002_settings_of_a_works"), ("bench", "0017_record_ten"),
    ("bench", "0018_record_eleven"), ("fleet", "0009_retired"), ("sheets", "0004_typed_and_read"),
    ("bench", "0019_record_twelve"), ("fleet", "0010_history"), ("works", "0003_backup_hours"),
    ("fleet", "0011_life"), ("bench", "0020_talk"), ("due", "0001_initial"), ("sharing", "0001_initial"),
}  # fmt: skip


LATER_COLUMNS = ("retired", "retired_by_id", "code", "counts", "per_hour", "lent", "read")


class Out(Works):
    """What is in an archive, and who can have it."""

    def setUp(self):
        media = tempfile.TemporaryDirectory()
        self.addCleanup(media.cleanup)
        self.enterContext(override_settings(MEDIA_ROOT=media.name))

    def taken(self):
        into = io.BytesIO()
        told = take_out(into)
        return told, entries(into)

    def test_every_signed_job_is_there_as_it_was_signed_and_every_photograph(self):
        keep_settings(self.lena, KeepSettings(name="Wold Pump Room"), Entry())
        keep_logo(self.lena, KeepLogo(picture()))
        number = self.finished()
        services.attach_photo(self.seen(number), changes.AttachPhoto(uuid.uuid4(), picture(), feature="idler_pin"))
        services.sign_off(self.seen(number), changes.Sign(uuid.uuid4()))
        self.open("G-1")
        told, files = self.taken()
        self.assertEqual((told.jobs, told.photos), (1, 2))
        signed = self.row(number).sign_off
        self.assertEqual(files["jobs/000001/record.json"], signed.signed_bytes)
        self.assertIn("Wold Pump Room", PdfReader(io.BytesIO(files["jobs/000001/report.pdf"])).pages[0].extract_text())
        self.assertEqual(self.taken()[1]["jobs/000001/report.pdf"], files["jobs/000001/report.pdf"])
        photo = self.row(number).photos.get()
        with photo.file.open() as kept:
            self.assertEqual(files[f"media/{photo.file.name}"], kept.read())
        sheet = json.loads(files["sheets/test-pump/1.json"])
        self.assertEqual(sheet, self.row(number).revision.content)
        jobs = list(csv.DictReader(io.StringIO(files["tables/jobs.csv"].decode("utf-8-sig"))))
        self.assertEqual([(job["Number"], job["Pump"], job["Ended"]) for job in jobs], [("1", "H-1", "signed"), ("2", "G-1", "")])
        readings = list(csv.DictReader(io.StringIO(files["tables/readings.csv"].decode("utf-8-sig"))))
        self.assertEqual(len(readings), self.row(number).readings.count())

    def test_no_secret_stands_anywhere_but_in_its_own_file(self):
        self.tom.set_password("vice-and-bench")
        self.tom.save()
        _, files = self.taken()
        for secret in (self.tom.password, self.tom.pin.hashed):
            holding = [name for name, data in files.items() if secret.encode() in data]
            self.assertEqual(holding, ["secrets.json"])
        self.assertNotIn(settings.SECRET_KEY.encode(), b"".join(files.values()))

    def test_the_table_of_gauges_is_read_in_again_as_it_is(self):
        Certificate.objects.filter(gauge__tag="F-1").update(leaves_um=[50, 100, 150])
        _, files = self.taken()
        before = {g.tag: _of(g) for g in Gauge.objects.all()}
        Gauge.objects.update(current=None)
        Gauge.objects.all().delete()
        told = keep_rows(gauges(self.lena), files["tables/gauges.csv"], Entry(), dry=False)
        self.assertEqual([row.wrong for row in told.rows if row.wrong], [])
        self.assertEqual({g.tag: _of(g) for g in Gauge.objects.all()}, before)

    def put_back(self, change):
        """In the same tables, emptied."""
        into = io.BytesIO()
        take_out(into)
        with zipfile.ZipFile(packed_again(entries(into), change)) as packed:
            return filled(packed, json.loads(packed.read("manifest.json")))

    def test_without_its_secrets_everything_but_them_comes_back(self):
        number = self.finished()
        services.sign_off(self.seen(number), changes.Sign(uuid.uuid4()))
        self.tom.set_password("vice-and-bench")
        self.tom.save()
        signed, view = self.row(number).sign_off.signed_bytes, job_view(number, Units.MM)
        with tempfile.TemporaryDirectory() as folder, self.settings(VAR=Path(folder)):
            self.put_back(lambda files: files.pop("secrets.json"))
        self.assertEqual(set(User.objects.values_list("password", flat=True)), {"!"})
        self.assertEqual(set(Pin.objects.values_list("hashed", flat=True)), {""})
        self.assertEqual((self.row(number).sign_off.signed_bytes, job_view(number, Units.MM)), (signed, view))

    def test_what_is_torn_or_lacks_something_brings_back_nothing(self):
        number = self.finished()
        services.sign_off(self.seen(number), changes.Sign(uuid.uuid4()))

        def less(files):
            files["data/bench.reading.jsonl"] = files["data/bench.reading.jsonl"].split(b"\n", 1)[1]

        def torn(files):
            files["data/people.pin.jsonl"] = files["data/people.pin.jsonl"].replace(b'"person_id": ', b'"person_id": 99')

        for change, kind in (
            (less, ValueError),
            (torn, DatabaseError),
            (lambda files: files.pop("jobs/000001/record.json"), KeyError),
        ):
            with self.subTest(kind), tempfile.TemporaryDirectory() as folder, self.settings(VAR=Path(folder)):
                with self.assertRaises(kind):
                    self.put_back(change)
                self.assertEqual(self.row(number).readings.count() > 0, True)  # as before: all or none

    def test_what_is_no_such_archive_is_refused_before_anything_is_made(self):
        def manifest(**change):
            return lambda files: files.update({"manifest.json": json.dumps(json.loads(files["manifest.json"]) | change).encode()})

        _, files = self.taken()
        for change, words in (
            (manifest(migrations=[["bench", "9999_later"]]), "later version"),
            (manifest(version=2), "later version"),
            (manifest(format="other"), "no archive of a works"),
            (lambda files: files.pop("manifest.json"), "no archive of a works"),
            (lambda files: files.update({"../outside": b"x"}), "no archive of a works"),
        ):
            with self.subTest(words), tempfile.TemporaryDirectory() as folder, self.settings(VAR=Path(folder) / "new"):
                made = Path(folder) / "changed.zip"
                made.write_bytes(packed_again(dict(files), change).getvalue())
                with self.assertRaisesRegex(BackupFault, words):
                    put_back(made)
                self.assertEqual([path.name for path in Path(folder).iterdir()], ["changed.zip"])

    def test_a_lead_has_it_from_the_page_and_the_log_says_so(self):
        self.client.force_login(self.tom)
        self.assertEqual(self.client.post("/works.zip").status_code, 403)
        self.client.force_login(self.lena)
        self.assertEqual(self.client.get("/works.zip").status_code, 405)
        answer = self.client.post("/works.zip")
        files = entries(io.BytesIO(b"".join(answer.streaming_content)))
        self.assertEqual(json.loads(files["manifest.json"])["format"], "fine-gap/works")
        self.assertEqual(PersonEvent.objects.get().what, "took the whole works out")

    def test_a_works_of_years_is_sent_to_the_command_line(self):
        number = self.finished()
        services.sign_off(self.seen(number), changes.Sign(uuid.uuid4()))
        self.client.force_login(self.lena)
        with mock.patch.object(views, "MOST_REPORTS", 0):
            self.assertContains(self.client.post("/works.zip"), "fine-gap export", status_code=409)


def _of(gauge):
    now = gauge.now
    return gauge.kind, gauge.mark, now.low, now.high, now.resolution, now.expanded, now.k, now.repeatability, now.due


class Back(SimpleTestCase):
    """As it is done: by commands, in folders of their own."""

    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        cls.folder = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        cls.works, cls.archive = cls.folder / "works", cls.folder / "w.zip"
        cls.run_in(cls.works, "migrate", "-v0")
        cls.run_in(cls.works, "load_demo", demo="1")
        (cls.works / "holds").write_text("demo\n")
        (cls.works / "media/photos").mkdir(parents=True)
        (cls.works / "media/photos/one.jpg").write_bytes(b"\xff\xd8 a photograph")
        cls.run_in(cls.works, "export", str(cls.archive))

    @classmethod
    def run_in(cls, folder, *words, demo="", fails=False):
        environment = os.environ | {"FINEGAP_VAR": str(folder), "FINEGAP_DEMO": demo}
        command = [sys.executable, str(settings.BASE_DIR / "manage.py"), *words]
        done = subprocess.run(command, env=environment, capture_output=True, text=True, check=False)
        if bool(done.returncode) != fails:
            raise AssertionError(done.stdout + done.stderr)
        return done.stdout + done.stderr

    def new(self):
        folder = self.folder / uuid.uuid4().hex
        self.addCleanup(shutil.rmtree, folder, ignore_errors=True)
        return folder

    def test_a_works_comes_back_equal_and_leaves_equal_again(self):
        again, second = self.new(), self.folder / f"{uuid.uuid4().hex}.zip"
        self.run_in(again, "import", str(self.archive))
        with closing(sqlite3.connect(again / "finegap.sqlite3")) as database:
            (line,) = database.execute("SELECT id, now FROM audit_change WHERE kind = 'works'").fetchall()
            self.assertEqual(json.loads(line[1]), {"put back from": self.archive.name})
            database.execute("DELETE FROM audit_change WHERE id = ?", line[:1])  # all else is equal
            database.commit()
        self.assertEqual(dumped(again), dumped(self.works))
        self.assertEqual((again / "media/photos/one.jpg").read_bytes(), b"\xff\xd8 a photograph")
        self.assertEqual((again / "holds").read_text(), "demo\n")
        self.run_in(again, "export", str(second))
        self.assertEqual(entries(second), entries(self.archive))
        self.assertIn("holds a works already", self.run_in(again, "import", str(self.archive), fails=True))

    def test_an_archive_of_older_tables_comes_back_into_those_of_now(self):
        """As main a9da885 would have written it: before the shelf had its name, a gauge could retire, a works had settings."""
        files = entries(self.archive)
        manifest = json.loads(files["manifest.json"])
        before = lambda app, name: (app, name) not in LATER and app not in ("audit", "axes", "otp_static", "otp_totp")  # noqa: E731
        manifest["migrations"] = [one for one in manifest["migrations"] if before(*one)]
        files["data/toolbox.gasketstock.jsonl"] = files.pop("data/toolbox.shelfline.jsonl")
        manifest["rows"]["toolbox.gasketstock"] = manifest["rows"].pop("toolbox.shelfline")
        for name, kept in (
            ("toolbox.gauge", ("id", "tag", "kind", "mark", "current_id")),
            ("works.workssettings", ("id", "decimal_mark", "new_share", "by_id", "at")),
            ("fleet.pump", None),
            ("fleet.meterreading", None),
            ("sheets.sheetrevision", ("id", "sheet_id", "revision", "date", "content", "added_by_id", "added_at")),
        ):
            rows = [json.loads(line) for line in files[f"data/{name}.jsonl"].splitlines()]
            kept = kept or [column for column in rows[0] if column not in LATER_COLUMNS]
            lines = [json.dumps({column: row[column] for column in kept}) for row in rows]
            files[f"data/{name}.jsonl"] = "\n".join(lines).encode()
        new = (
            "sheets.lineread",
            "sheets.sheetdraft",
            "sheets.manualpage",
            "fleet.earlier",
            "fleet.moved",
            "audit.",
            "fleet.part",
            "fleet.pumpnote",
            "fleet.pumpdocument",
            "bench.joblook",
            "bench.jobnote",
            "sharing.",
        )
        for name in [name for name in manifest["rows"] if name.startswith(new)]:
            files.pop(f"data/{name}.jsonl", None)
            del manifest["rows"][name]
        files["manifest.json"] = json.dumps(manifest).encode()
        older, again = self.folder / "older.zip", self.new()
        older.write_bytes(packed_again(files, lambda _: None).getvalue())
        self.run_in(again, "import", str(older))
        there, here = dumped(again), dumped(self.works)
        # There was no trail. Nobody had read a sheet then, and nothing had to be read: they come back as older than that.
        # Nor had pumps labels: each has a code of its own now; nor loans, notes, earlier overhauls, parts that moved.
        later = [
            "audit_change", "bench_jobnote", "fleet_earlieroverhaul", "fleet_earliersize", "fleet_meterreading", "fleet_moved",
            "fleet_partmoved", "fleet_pump", "fleet_pumpnote", "sheets_lineread", "sheets_sheetrevision", "works_workssettings",
        ]  # fmt: skip
        self.assertEqual([name for name in here if there[name] != here[name]], later)


def packed_again(files, change):
    """An archive with a change."""
    change(files)
    into = io.BytesIO()
    with zipfile.ZipFile(into, "w") as packed:
        for name, data in files.items():
            packed.writestr(name, data)
    return into


def dumped(works):
    """Every row of every table, but for who was signed in and when the tables were made."""
    with closing(sqlite3.connect(works / "finegap.sqlite3")) as database:
        names = [name for (name,) in database.execute("SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name")]
        kept = [n for n in names if n not in ("django_session", "django_migrations", "sqlite_sequence", "auth_permission")]
        worked_out = [name for name in kept if name.startswith("due_")]  # made anew from the rest
        return {name: sorted(map(str, database.execute(f"SELECT * FROM {name}"))) for name in kept if name not in worked_out}
