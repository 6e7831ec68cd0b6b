"""A works in one archive and back, equal; and that a folder holds the demo or a works, and never both."""

import datetime as dt
import errno
import json
import os
import shutil
import sqlite3
import subprocess
import sys
import tempfile
import zipfile
from contextlib import closing
from pathlib import Path
from unittest import mock

from django.apps import apps
from django.conf import settings
from django.db.models import FileField
from django.test import SimpleTestCase

from finegap.site import backup, backups, checking, restoring
from finegap.site.backup import BackupFault, back_up, check_archive, make_key
from finegap.site.backups import Backup, State
from finegap.site.folder import DEMO, WORKS, EmptyKey, InUse, OtherFolder, alone, held, hold, keep_apart, secret_key
from finegap.site.restoring import WouldLose, recover, restore

KNOWN = {("bench", "0001_initial"), ("bench", "0002_more")}


def dumped(works):
    with closing(sqlite3.connect(works / "finegap.sqlite3")) as database:
        return list(database.iterdump())


class Folders(SimpleTestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)


class AWorks(Folders):
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


class Archives(AWorks):
    def test_a_works_comes_back_equal_while_somebody_is_saving(self):
        with closing(sqlite3.connect(self.works / "finegap.sqlite3")) as saving:
            saving.execute("INSERT INTO reading VALUES (34.143)")  # begun, and not acknowledged
            self.assertEqual(back_up(self.works, self.archive).photos, 1)
            saving.rollback()
        self.assertEqual(restore(self.archive, self.new, KNOWN), 1)
        self.assertEqual(dumped(self.new), dumped(self.works))
        self.assertEqual((self.new / "media/photos/one.jpg").read_bytes(), b"\xff\xd8 a photograph")
        self.assertFalse((self.new / "secret_key").exists())
        self.assertEqual(held(self.new), WORKS)
        self.assertEqual(sorted(path.name for path in self.new.iterdir()), ["finegap.sqlite3", "holds", "in-use", "media"])

    def test_nothing_is_overwritten(self):
        back_up(self.works, self.archive)
        for act in (lambda: back_up(self.works, self.archive), lambda: restore(self.archive, self.works, KNOWN)):
            with self.assertRaises(BackupFault):
                act()
        with self.assertRaisesRegex(BackupFault, "holds no works"):
            back_up(self.new, self.folder / "x.zip")
        keep_apart(self.new, DEMO)
        with self.assertRaisesRegex(BackupFault, "holds the other"):
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
            made("photo-altered.zip", **{"media/photos/one.jpg": "another"}),
            made("photo-gone.zip", leave=("media/photos/one.jpg",)),
            made("photo-more.zip", **{"media/photos/two.jpg": "x"}),
        ):
            with self.subTest(path.name), self.assertRaises(BackupFault):
                restore(path, self.new, KNOWN)
            self.assertFalse((self.new / "finegap.sqlite3").exists())
            self.assertFalse((self.folder / "evil").exists())
            shutil.rmtree(self.new, ignore_errors=True)

    def test_an_archive_of_before_there_were_digests_still_comes_back(self):
        back_up(self.works, self.archive)
        old = self.folder / "old.zip"
        with zipfile.ZipFile(self.archive) as now, zipfile.ZipFile(old, "w") as then:
            for name in now.namelist():
                content = now.read(name)
                if name == "manifest.json":
                    content = json.dumps({key: value for key, value in json.loads(content).items() if key != "sha256"})
                then.writestr(name, content)
        self.assertEqual(restore(old, self.new, KNOWN), 1)

    def test_wherever_an_archive_is_cut_or_a_byte_of_it_changed_it_is_refused_or_gives_the_same(self):
        back_up(self.works, self.archive)
        whole, part = self.archive.read_bytes(), self.folder / "part.zip"
        for at in range(0, len(whole), 97):
            for altered in (whole[:at], whole[:at] + bytes([whole[at] ^ 0x55]) + whole[at + 1 :]):
                part.write_bytes(altered)
                with self.subTest(at=at, cut=len(altered) < len(whole)):
                    try:
                        restore(part, self.new, KNOWN)
                    except BackupFault:
                        self.assertFalse((self.new / "finegap.sqlite3").exists())
                    else:  # a moment or a right of an entry, which nothing is made of
                        self.assertEqual(dumped(self.new), dumped(self.works))
                        self.assertEqual((self.new / "media/photos/one.jpg").read_bytes(), b"\xff\xd8 a photograph")
                shutil.rmtree(self.new, ignore_errors=True)

    def test_a_damaged_database_is_not_backed_up_as_a_good_one(self):
        path = self.works / "finegap.sqlite3"
        with closing(sqlite3.connect(path)) as database:
            database.executescript("CREATE INDEX by_mm ON reading (mm); PRAGMA writable_schema=1; PRAGMA wal_checkpoint(TRUNCATE);")
            database.execute("UPDATE sqlite_master SET rootpage = 2 WHERE name = 'by_mm'")
            database.commit()
        with self.assertRaisesRegex(BackupFault, "damaged"):
            back_up(self.works, self.archive)
        self.assertFalse(self.archive.exists())
        self.assertFalse(checking.checked(self.works).is_whole)

    def test_a_full_disk_leaves_nothing_half_done(self):
        full = OSError(errno.ENOSPC, "No space left on device")
        with mock.patch.object(backup, "_put", side_effect=full), self.assertRaisesRegex(BackupFault, "no room"):
            back_up(self.works, self.archive)
        self.assertEqual(sorted(path.name for path in self.folder.iterdir()), ["works"])
        back_up(self.works, self.archive)
        with mock.patch.object(zipfile.ZipFile, "extract", side_effect=full), self.assertRaisesRegex(BackupFault, "No space"):
            restore(self.archive, self.new, KNOWN)
        self.assertEqual(sorted(path.name for path in self.new.iterdir()), ["in-use"])

    def test_only_the_key_reads_an_encrypted_archive(self):
        key, other = self.folder / "key", self.folder / "other"
        make_key(self.folder / "elsewhere", other)
        public = make_key(self.works, key)
        self.assertEqual((key.stat().st_mode & 0o077, public[:4]), (0, "age1"))
        with self.assertRaisesRegex(BackupFault, "there already"):
            make_key(self.works, key)
        back_up(self.works, self.archive)
        sealed = self.archive.read_bytes()
        self.assertNotIn(b"a photograph", sealed)
        self.assertFalse(zipfile.is_zipfile(self.archive))
        for wrong, words in ((None, "is encrypted"), (other, "does not read"), (self.archive, "no key of backups")):
            with self.assertRaisesRegex(BackupFault, words):
                restore(self.archive, self.new, KNOWN, wrong)
        cut = self.folder / "cut.age"
        for altered in (sealed[:-1], sealed[:300], sealed[:-40] + b"x" + sealed[-39:]):
            cut.write_bytes(altered)
            with self.assertRaisesRegex(BackupFault, "altered or cut off"):
                restore(cut, self.new, KNOWN, key)
            self.assertFalse((self.new / "finegap.sqlite3").exists())
        self.assertEqual(restore(self.archive, self.new, KNOWN, key), 1)
        self.assertEqual(dumped(self.new), dumped(self.works))


class Over(AWorks):
    """A works restored over another: what would be lost is said, what was there is set aside."""

    def setUp(self):
        super().setUp()
        with closing(sqlite3.connect(self.works / "finegap.sqlite3")) as database:
            database.executescript(
                "".join(f"CREATE TABLE {table} (id INTEGER PRIMARY KEY, file TEXT);" for table, _ in restoring._COUNTED)
                + "INSERT INTO bench_job (id) VALUES (1), (2); INSERT INTO bench_signoff (id) VALUES (1);"
            )
        back_up(self.works, self.archive)
        with closing(sqlite3.connect(self.works / "finegap.sqlite3")) as database:
            database.executescript("INSERT INTO bench_job (id) VALUES (3); INSERT INTO bench_reading (id) VALUES (7), (8);")
        (self.works / "media/photos/two.jpg").write_bytes(b"later")
        self.after = dumped(self.works)

    def test_what_would_be_lost_is_said_and_nothing_is_touched(self):
        told = []
        for answer in ({}, {"meant": lambda loss: told.append(loss)}):
            with self.assertRaisesRegex(WouldLose, "has not: 1 jobs, 2 readings"):
                restore(self.archive, self.works, KNOWN, **answer)
        self.assertEqual(told, ["The archive has not: 1 jobs, 2 readings."])
        self.assertEqual(dumped(self.works), self.after)
        back_up(self.works, self.folder / "now.zip")
        with self.assertRaisesRegex(WouldLose, "has every job"):
            restore(self.folder / "now.zip", self.works, KNOWN)

    def test_what_was_there_is_set_aside(self):
        restore(self.archive, self.works, KNOWN, meant=lambda loss: True)
        self.assertNotEqual(dumped(self.works), self.after)
        self.assertFalse((self.works / "media/photos/two.jpg").exists())
        (aside,) = self.works.glob("before-restore-*")
        self.assertEqual(dumped(aside), self.after)
        self.assertTrue((aside / "media/photos/two.jpg").exists())

    def test_a_works_that_is_served_is_left_alone(self):
        with closing(hold(self.works)), self.assertRaisesRegex(BackupFault, "is being served"):
            restore(self.archive, self.works, KNOWN, meant=lambda loss: True)
        with alone(self.works), self.assertRaises(InUse):
            hold(self.works)
        self.assertEqual(dumped(self.works), self.after)
        self.assertEqual(restore(self.archive, self.new, KNOWN), 1)  # beside it

    def test_killed_anywhere_in_a_restore_what_was_there_is_there_again(self):
        """A child dies in the middle, without any tidying up, at each of the moves of files in turn."""
        for into, before in ((self.works, self.after), (self.new, None)):
            died = 0
            for n in range(30):
                died = self.dies(lambda into=into: restore(self.archive, into, KNOWN, meant=lambda loss: True), n)
                if not died:
                    break
                recover(into)
                with self.subTest(into=into.name, n=n):
                    self.assertEqual([path.name for path in into.glob("*restor*")], [])
                    if before is None:
                        self.assertEqual([name for name in ("media", "finegap.sqlite3") if (into / name).exists()], [])
                    else:
                        self.assertEqual(dumped(into), before)
                        self.assertTrue((into / "media/photos/two.jpg").exists())
            self.assertGreater(n, 4)
            self.assertFalse(died)
            self.assertNotEqual(dumped(into), self.after)

    def test_killed_anywhere_in_a_backup_there_is_none_and_the_next_tidies_up(self):
        for n in range(20):
            target = self.folder / f"k{n}.zip"
            if not self.dies(lambda target=target: back_up(self.works, target), n):
                break
            if target.exists():  # killed after it was whole
                check_archive(target)
                continue
            self.assertEqual(len(list(self.folder.glob(".unfinished-*"))), 1)  # of this child alone
        check_archive(target)
        self.assertGreater(n, 2)
        self.assertEqual(list(self.folder.glob(".unfinished-*")), [])

    def dies(self, act, n):
        """Whether a child that is killed at the n-th of its renames, unlinks, writes and makings of folders dies of it."""
        child = os.fork()
        if child == 0:
            count = iter(range(1000))

            def deadly(real):
                def at(*args, **kwargs):
                    if next(count) == n:
                        os._exit(9)
                    return real(*args, **kwargs)

                return at

            for owner, name in ((Path, "rename"), (Path, "replace"), (Path, "mkdir"), (Path, "unlink"), (backup, "_put"),
                                (zipfile.ZipFile, "extract"), (os, "fsync")):  # fmt: skip
                setattr(owner, name, deadly(getattr(owner, name)))
            try:
                act()
            finally:
                os._exit(0)
        return os.waitstatus_to_exitcode(os.waitpid(child, 0)[1]) == 9


class Checks(AWorks):
    """``fine-gap check``: damage, rows that point to none, files that are named and missing, files nothing names."""

    def setUp(self):
        super().setUp()
        with closing(sqlite3.connect(self.works / "finegap.sqlite3")) as database:
            database.executescript(
                "CREATE TABLE bench_job (id INTEGER PRIMARY KEY); CREATE TABLE works_workssettings (logo TEXT);"
                "CREATE TABLE bench_photo (id INTEGER PRIMARY KEY, file TEXT, job_id INTEGER REFERENCES bench_job (id));"
                "INSERT INTO bench_photo (file) VALUES ('photos/one.jpg'); INSERT INTO works_workssettings VALUES ('abc');"
            )
        (self.works / "media/works").mkdir()
        for name in ("abc", "of-a-signed-record"):
            (self.works / f"media/works/{name}.png").touch()

    def test_a_whole_works_is_whole(self):
        self.assertEqual(checking.checked(self.works), checking.Found([], [], []))

    def test_each_thing_that_is_wrong_is_found(self):
        (self.works / "media/photos/one.jpg").rename(self.works / "media/photos/two.jpg")
        (self.works / "media/works/abc.png").unlink()
        found = checking.checked(self.works)
        self.assertEqual((found.missing, found.stray), (["photos/one.jpg", "works/abc.png"], ["photos/two.jpg"]))
        self.assertFalse(found.is_whole)
        back_up(self.works, self.archive)  # what is there is worth keeping
        with closing(sqlite3.connect(self.works / "finegap.sqlite3")) as database:
            database.execute("INSERT INTO bench_photo (file, job_id) VALUES ('', 77)")
            database.commit()
        self.assertIn("points to a row of bench_job there is not", checking.checked(self.works).wrong[0])
        self.assertIn("holds no works", checking.checked(self.new).wrong[0])

    def test_it_looks_at_every_column_that_names_a_file(self):
        columns = {
            (model._meta.db_table, field.column)
            for model in apps.get_models()
            for field in model._meta.concrete_fields
            if isinstance(field, FileField)
        }
        self.assertEqual(set(checking._NAMED), columns)

    def test_the_command_says_it_and_leaves_with_one(self):
        def run():
            words = [sys.executable, "-m", "finegap.command", "check", "--works", str(self.works)]
            told = subprocess.run(words, cwd=settings.BASE_DIR, capture_output=True, text=True, check=False)
            return told.returncode, told.stdout

        self.assertEqual(run(), (0, "The database is whole, and every file it names is there.\n"))
        (self.works / "media/photos/one.jpg").unlink()
        self.assertEqual(run(), (1, "photos/one.jpg is named, and not there\n"))


class Schedule(Folders):
    """When a backup is due, which are kept, and what is said."""

    NOW = dt.datetime(2026, 11, 29, 12, tzinfo=dt.UTC)
    DAY = dt.timedelta(days=1)

    def test_it_is_due_after_its_hours_sooner_when_asked_and_an_hour_after_one_that_failed(self):
        hours = lambda n: self.NOW - dt.timedelta(hours=n)  # noqa: E731
        for state, asked, due in (
            (State(), False, True),
            (State(hours(23), hours(23)), False, False),
            (State(hours(24), hours(24)), False, True),
            (State(hours(1), hours(1)), True, True),
            (State(self.NOW - dt.timedelta(minutes=59), hours(30), "full"), False, False),
            (State(hours(1), hours(30), "full"), False, True),
        ):
            with self.subTest(state=state, asked=asked):
                backups._say(self.folder, state)
                self.assertEqual(backups.state_of(self.folder), state)
                (backups.ask if asked else lambda folder: (folder / "asked").unlink(missing_ok=True))(self.folder)
                self.assertEqual(backups.is_due(self.folder, self.DAY, self.NOW), due)
        (self.folder / "state.json").write_text("{cut")
        self.assertEqual(backups.state_of(self.folder), State())

    def test_after_two_years_of_days_there_are_the_last_of_days_weeks_and_months(self):
        kept = []
        for day in range(730, -1, -1):
            at = self.NOW - day * self.DAY
            kept.append(Backup(f"works-{at:%Y%m%dT%H%M%SZ}.zip", at, 1))
            gone = backups.let_go(kept)
            kept = [one for one in kept if one not in gone]
        ages = [(self.NOW - one.at).days for one in sorted(kept, key=lambda one: one.at, reverse=True)]
        self.assertEqual(ages[:7], list(range(7)))
        weeks = [self.NOW - dt.timedelta(days=self.NOW.weekday() + 1 + 7 * n) for n in range(4)]
        self.assertLessEqual({(self.NOW - one).days for one in weeks}, set(ages))
        ends = [dt.datetime(2026, month, 1, 12, tzinfo=dt.UTC) - self.DAY for month in range(1, 12)]
        self.assertLessEqual({(self.NOW - one).days for one in ends}, set(ages))
        self.assertLessEqual(len(kept), 7 + 5 + 12)
        many = [Backup(f"works-x{n}", self.NOW - n * dt.timedelta(minutes=5), 1) for n in range(9)]
        self.assertEqual([one.name for one in backups.let_go(many)], [f"works-x{n}" for n in range(3, 9)])
        before = [Backup(f"before-{n}", self.NOW - n * self.DAY, 1) for n in range(5)]
        self.assertEqual([one.name for one in backups.let_go([*before, *many[:1]])], ["before-3", "before-4"])

    def test_what_is_old_what_failed_and_a_disk_nearly_full_are_said(self):
        (self.folder / "finegap.sqlite3").touch()
        usual = backups.shutil.disk_usage(self.folder)

        def said(state, now=self.NOW, free=10**12):
            backups._say(self.folder, state)
            with mock.patch.object(backups.shutil, "disk_usage", return_value=usual._replace(free=free)):
                return " ".join(backups.warnings(self.folder, self.folder, self.DAY, now))

        begun = dt.datetime.now(dt.UTC)
        self.assertEqual(said(State(), begun), "")
        self.assertIn("no backup of this works yet", said(State(), begun + 3 * self.DAY))
        self.assertEqual(said(State(self.NOW, self.NOW - 2 * self.DAY)), "")
        self.assertIn("50 hours old", said(State(self.NOW, self.NOW - dt.timedelta(hours=50))))
        told = said(State(self.NOW, self.NOW - 9 * self.DAY, "there is no room for it"))
        self.assertIn("9 days old. The last try failed: there is no room", told)
        self.assertIn("900 MB left", said(State(self.NOW, self.NOW), free=900_000_000))

    def test_one_is_made_listed_and_told_and_one_that_fails_keeps_the_moment_of_the_last_good(self):
        works, folder = self.folder / "works", self.folder / "kept"
        keep_apart(works, WORKS)
        with closing(sqlite3.connect(works / "finegap.sqlite3")) as database:
            database.execute("CREATE TABLE django_migrations (app, name)")
        backups.ask(folder)
        backups.make(works, folder, self.NOW)
        self.assertEqual([one.name for one in backups.listed(folder)], ["works-20261129T120000Z.zip"])
        self.assertFalse(backups.is_asked(folder))
        self.assertIsNotNone(backups.path_of(folder, "works-20261129T120000Z.zip"))
        for name in ("state.json", "../works/finegap.sqlite3", "works-20261129T120001Z.zip", ""):
            self.assertIsNone(backups.path_of(folder, name))
        with mock.patch.object(backups, "back_up", side_effect=BackupFault("no room")), self.assertRaises(BackupFault):
            backups.make(works, folder, self.NOW + self.DAY)
        self.assertEqual(backups.state_of(folder), State(self.NOW + self.DAY, self.NOW, "no room"))
        self.assertEqual((folder.stat().st_mode & 0o077, len(backups.listed(folder))), (0, 1))


class Keys(Folders):
    def test_an_empty_key_is_said_and_a_missing_one_is_made_once(self):
        key = secret_key(self.folder)
        self.assertEqual((secret_key(self.folder), len(key)), (key, 50))
        self.assertEqual((self.folder / "secret_key").stat().st_mode & 0o077, 0)
        for content in ("", "\n", "short"):
            (self.folder / "secret_key").write_text(content)
            with self.assertRaises(EmptyKey):
                secret_key(self.folder)


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
