"""A works in one archive and back, equal; and that a folder holds the demo or a works, and never both."""

import errno
import json
import os
import shutil
import sqlite3
import tempfile
import zipfile
from contextlib import closing
from pathlib import Path
from unittest import mock

from django.test import SimpleTestCase

from finegap.site import backup, checking, restoring
from finegap.site.backup import BackupFault, back_up, check_archive, make_key
from finegap.site.folder import DEMO, WORKS, InUse, OtherFolder, alone, held, hold, keep_apart
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
                "".join(f"CREATE TABLE {table} (id INTEGER PRIMARY KEY, file TEXT);" for table, *_ in restoring._COUNTED)
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
            with self.assertRaisesRegex(WouldLose, "has not: 1 job, 2 readings"):
                restore(self.archive, self.works, KNOWN, **answer)
        self.assertEqual(told, ["The archive has not: 1 job, 2 readings. Numbers of jobs it has not are given again."])
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

    def test_nobody_comes_back_signed_in(self):
        with closing(sqlite3.connect(self.works / "finegap.sqlite3")) as database:
            database.executescript("CREATE TABLE django_session (session_key TEXT); INSERT INTO django_session VALUES ('of then');")
        back_up(self.works, self.folder / "sessions.zip")
        restore(self.folder / "sessions.zip", self.works, KNOWN, meant=lambda loss: True)
        with closing(sqlite3.connect(self.works / "finegap.sqlite3")) as database:
            self.assertEqual(database.execute("SELECT count(*) FROM django_session").fetchone(), (0,))

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
