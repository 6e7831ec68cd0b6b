"""The backups of a works: when one is due, which are kept, what is said of them; whether a works is whole; its key."""

import datetime as dt
import os
import sqlite3
import subprocess
import sys
from contextlib import closing
from unittest import mock

from django.apps import apps
from django.conf import settings
from django.db.models import FileField

from finegap.site import backups, checking
from finegap.site.backup import BackupFault, back_up
from finegap.site.backups import Backup, State
from finegap.site.folder import WORKS, EmptyKey, keep_apart, secret_key
from tests.apps.test_backup import AWorks, Folders


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
            (State(hours(-9), hours(-9)), False, True),
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
        keep_apart(self.folder, WORKS)
        begun = dt.datetime.now(dt.UTC)
        os.utime(self.folder / "holds", (begun.timestamp(), begun.timestamp()))
        (self.folder / "finegap.sqlite3").touch()
        usual = backups.shutil.disk_usage(self.folder)

        def said(state, now=self.NOW, free=10**12):
            backups._say(self.folder, state)
            with mock.patch.object(backups.shutil, "disk_usage", return_value=usual._replace(free=free)):
                return " ".join(backups.warnings(self.folder, self.folder, self.DAY, now))

        self.assertEqual(said(State(), begun), "")
        os.utime(self.folder / "finegap.sqlite3", (begun.timestamp() + 3 * 86_400,) * 2)  # saved in all the time
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
