"""Data of every version that landed opens after it was brought up to date; where that fails, or may not be, nothing changed."""

import json
import os
import shutil
import sqlite3
import subprocess
import sys
import tarfile
import tempfile
from contextlib import closing
from pathlib import Path
from unittest import mock

from django.conf import settings
from django.db import connection, connections
from django.db.migrations.loader import MigrationLoader
from django.test import SimpleTestCase

from finegap.site import upgrading
from finegap.site.backup import BackupFault
from finegap.site.backups import listed
from finegap.site.folder import hold
from finegap.site.restoring import restore
from finegap.site.upgrading import UpgradeFault, applied_in, bring_up_to_date
from tests.references.databases.upgrade import KEPT

SOME = ("4ed79ad", "113ffc7", "a9da885", "3da529c")
"""The oldest, the newest, and some between; FINEGAP_ALL=1 takes every one (two minutes)."""


class Landed(SimpleTestCase):
    def test_each_opens_with_everything_it_had(self):
        with tarfile.open(KEPT) as kept:
            every = [Path(name).stem for name in kept.getnames()]
        names = every if os.environ.get("FINEGAP_ALL") else SOME
        self.assertEqual(len(every), 19)
        self.assertLessEqual(set(names), set(every))
        with tempfile.TemporaryDirectory() as folder:
            told = subprocess.run(
                [sys.executable, "-m", "tests.references.databases.upgrade", folder, *names],
                cwd=settings.BASE_DIR, capture_output=True, text=True, check=False,
            )  # fmt: skip
        self.assertEqual(told.returncode, 0, told.stderr[-3000:])
        lines = [json.loads(line) for line in told.stdout.splitlines()]
        self.assertEqual([one["name"] for one in lines], list(names))
        for one in lines:
            with self.subTest(one["name"]):
                self.assertEqual(one["after"], one["before"])
                self.assertEqual((one["opened"], one["signed"]), (one["before"]["bench_job"], one["before"]["bench_signoff"]))
                self.assertGreater(one["opened"], 1)
                self.assertEqual((one["wrong"], one["backups"], one["left"]), ([], 1, []))


class Refused(SimpleTestCase):
    """Data of the version before this one, by a connection of its own."""

    databases = {"default"}

    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        with tarfile.open(KEPT) as kept:
            cls.content = kept.extractfile(f"{SOME[-1]}.sqlite3").read()

    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.works = Path(folder.name) / "works"
        self.works.mkdir()
        self.database = self.works / "finegap.sqlite3"
        self.database.write_bytes(self.content)
        usual = connections["default"]
        connections["default"] = own = usual.copy()
        own.settings_dict = usual.settings_dict | {"NAME": str(self.database)}
        self.addCleanup(connections.__setitem__, "default", usual)
        self.addCleanup(own.close)
        here = self.settings(BACKUPS=self.works / "backups")
        here.enable()
        self.addCleanup(here.disable)
        self.before = self.dumped()

    def dumped(self):
        with closing(sqlite3.connect(self.database)) as database:
            return list(database.iterdump())

    def test_it_goes_well_and_the_backup_before_it_comes_back(self):
        bring_up_to_date(self.works)
        self.assertEqual(applied_in(self.database), set(MigrationLoader(None).disk_migrations))
        (kept,) = listed(settings.BACKUPS)
        self.assertTrue(kept.name.startswith("before-"))
        restore(settings.BACKUPS / kept.name, self.works / "again", set(MigrationLoader(None).disk_migrations))
        self.database = self.works / "again/finegap.sqlite3"
        self.assertEqual(self.dumped(), self.before)
        bring_up_to_date(self.works)  # nothing to do
        self.assertEqual(len(listed(settings.BACKUPS)), 1)

    def test_a_migration_that_fails_leaves_the_data_as_it_was(self):
        def half(*args, **kwargs):
            with connection.cursor() as cursor:
                cursor.execute("DROP TABLE bench_photo")
            raise sqlite3.IntegrityError("in the middle")

        for how in (mock.patch.object(upgrading, "call_command", side_effect=half),
                    mock.patch.object(upgrading, "loose_in", return_value=["row 1 points nowhere"])):  # fmt: skip
            with how, self.assertRaisesRegex(UpgradeFault, "It is as it was, and a backup of it is in"):
                bring_up_to_date(self.works)
            self.assertEqual(self.dumped(), self.before)
            shutil.rmtree(settings.BACKUPS)
            self.assertEqual([path.name for path in self.works.glob("*upgrade*")], [])
            self.assertEqual(connection.settings_dict["NAME"], str(self.database))

    def test_a_first_start_that_was_broken_off_begins_again(self):
        self.database.write_bytes(b"")
        bring_up_to_date(self.works)
        self.assertEqual(applied_in(self.database), set(MigrationLoader(None).disk_migrations))
        self.assertEqual(listed(settings.BACKUPS), [])

    def test_without_a_backup_nothing_is_begun(self):
        with (
            mock.patch.object(upgrading, "make", side_effect=BackupFault("no room")),
            self.assertRaisesRegex(UpgradeFault, "no room"),
        ):
            bring_up_to_date(self.works)
        self.assertEqual(self.dumped(), self.before)

    def test_a_database_somebody_else_has_open_is_left_alone(self):
        with closing(sqlite3.connect(self.database)) as other:
            other.execute("PRAGMA journal_mode=WAL")
            other.execute("CREATE TABLE more (a)")
            other.commit()
            with closing(sqlite3.connect(self.database)) as reader:
                reader.execute("BEGIN")
                reader.execute("SELECT count(*) FROM more").fetchone()
                other.execute("INSERT INTO more VALUES (1)")
                other.commit()
                before = self.dumped()
                with self.assertRaisesRegex(UpgradeFault, "somebody has the database open"):
                    bring_up_to_date(self.works)
                self.assertEqual(self.dumped(), before)

    def test_data_of_a_later_version_is_left_alone(self):
        with closing(sqlite3.connect(self.database)) as database:
            database.execute("INSERT INTO django_migrations (app, name, applied) VALUES ('bench', '9999_later', '2099-01-01')")
            database.commit()
        before = self.dumped()
        with self.assertRaisesRegex(UpgradeFault, "is of a later version of Fine Gap than this one"):
            bring_up_to_date(self.works)
        self.assertEqual(self.dumped(), before)
        self.assertEqual(listed(settings.BACKUPS), [])

    def test_what_is_served_by_the_version_before_is_left_alone(self):
        with closing(hold(self.works)), self.assertRaisesRegex(UpgradeFault, "stop it first"):
            bring_up_to_date(self.works)
        self.assertEqual(self.dumped(), self.before)
