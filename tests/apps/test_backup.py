"""A works in one archive and back, equal; and that a folder holds the demo or a works, and never both."""

import json
import shutil
import sqlite3
import tempfile
import zipfile
from contextlib import closing
from pathlib import Path

from django.test import SimpleTestCase

from finegap.site.backup import BackupFault, back_up, restore
from finegap.site.folder import DEMO, WORKS, OtherFolder, held, keep_apart

KNOWN = {("bench", "0001_initial"), ("bench", "0002_more")}


def dumped(works):
    with closing(sqlite3.connect(works / "finegap.sqlite3")) as database:
        return list(database.iterdump())


class Folders(SimpleTestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)


class Archives(Folders):
    def setUp(self):
        super().setUp()
        self.works, self.archive, self.new = self.folder / "works", self.folder / "w.zip", self.folder / "new"
        keep_apart(self.works, WORKS)
        (self.works / "media/photos").mkdir(parents=True)
        (self.works / "media/photos/one.jpg").write_bytes(b"\xff\xd8 a photograph")
        (self.works / "secret_key").write_text("not to be copied")
        with closing(sqlite3.connect(self.works / "finegap.sqlite3")) as database:
            database.executescript(
                "PRAGMA journal_mode=WAL; CREATE TABLE django_migrations (app, name); CREATE TABLE reading (mm);"
                "INSERT INTO django_migrations VALUES ('bench', '0001_initial'); INSERT INTO reading VALUES (34.142);"
            )

    def test_a_works_comes_back_equal_while_somebody_is_saving(self):
        with closing(sqlite3.connect(self.works / "finegap.sqlite3")) as saving:
            saving.execute("INSERT INTO reading VALUES (34.143)")  # begun, and not acknowledged
            self.assertEqual(back_up(self.works, self.archive), 1)
            saving.rollback()
        self.assertEqual(restore(self.archive, self.new, KNOWN), 1)
        self.assertEqual(dumped(self.new), dumped(self.works))
        self.assertEqual((self.new / "media/photos/one.jpg").read_bytes(), b"\xff\xd8 a photograph")
        self.assertFalse((self.new / "secret_key").exists())
        self.assertEqual(held(self.new), WORKS)
        self.assertEqual(sorted(path.name for path in self.new.iterdir()), ["finegap.sqlite3", "holds", "media"])

    def test_nothing_is_overwritten(self):
        back_up(self.works, self.archive)
        for act in (lambda: back_up(self.works, self.archive), lambda: restore(self.archive, self.works, KNOWN)):
            with self.assertRaises(BackupFault):
                act()
        with self.assertRaisesRegex(BackupFault, "holds no works"):
            back_up(self.new, self.folder / "x.zip")
        keep_apart(self.new, DEMO)
        with self.assertRaisesRegex(BackupFault, "holds the demo"):
            restore(self.archive, self.new, KNOWN)
        self.assertFalse((self.new / "finegap.sqlite3").exists())

    def test_what_is_no_archive_of_ours_is_refused_and_leaves_nothing(self):
        back_up(self.works, self.archive)

        def made(name, *, leave=(), **entries):
            path = self.folder / name
            with zipfile.ZipFile(self.archive) as good, zipfile.ZipFile(path, "w") as bad:
                for entry in good.namelist():
                    if entry not in (*leave, *entries):
                        bad.writestr(entry, good.read(entry))
                for entry, content in entries.items():
                    bad.writestr(entry, content)
            return path

        manifest = json.loads(zipfile.ZipFile(self.archive).read("manifest.json"))
        text = self.folder / "text.zip"
        text.write_text("not packed")
        cut = self.folder / "cut.zip"
        cut.write_bytes(self.archive.read_bytes()[:-200])
        later = manifest | {"migrations": [["bench", "0099_later"]]}
        for path in (
            self.folder / "missing.zip",
            text,
            cut,
            made("no-database.zip", leave=("finegap.sqlite3",)),
            made("outside.zip", **{"../evil": "x"}),
            made("other.zip", **{"settings.py": "x"}),
            made("manifest.zip", **{"manifest.json": "[]"}),
            made("kind.zip", **{"manifest.json": json.dumps(manifest | {"holds": "else"})}),
            made("later.zip", **{"manifest.json": json.dumps(later)}),
            made("damaged.zip", **{"finegap.sqlite3": b"SQLite format 3\0" + bytes(4096)}),
        ):
            with self.subTest(path.name), self.assertRaises(BackupFault):
                restore(path, self.new, KNOWN)
            self.assertFalse((self.new / "finegap.sqlite3").exists())
            self.assertFalse((self.folder / "evil").exists())
            shutil.rmtree(self.new, ignore_errors=True)


class Apart(Folders):
    def test_a_folder_holds_the_demo_or_a_works_and_never_both(self):
        for first, other in ((DEMO, WORKS), (WORKS, DEMO)):
            here = self.folder / first
            keep_apart(here, first)
            keep_apart(here, first)
            with self.assertRaises(OtherFolder):
                keep_apart(here, other)
        old = self.folder / "old"
        old.mkdir()
        self.assertIsNone(held(old))
        (old / "finegap.sqlite3").touch()
        with self.assertRaisesRegex(OtherFolder, "holds the demo"):
            keep_apart(old, WORKS)
