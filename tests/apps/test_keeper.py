"""What a served works does by itself, and what leads see of it: backups by the clock, the certificate, warnings."""

import datetime as dt
import sqlite3
import tempfile
from contextlib import closing
from pathlib import Path
from unittest import mock

from axes.models import AccessFailureLog
from django.contrib.sessions.models import Session
from django.test import Client
from django.utils import timezone

from finegap.people.models import PersonEvent
from finegap.site import backups, keeper, tls
from finegap.site.backup import BackupFault
from finegap.site.folder import WORKS, keep_apart
from finegap.site.keeper import Keeper
from finegap.works.models import WorksSettings
from tests.apps.base import Works

NOW = dt.datetime(2026, 11, 29, 12, tzinfo=dt.UTC)
HOUR, DAY = dt.timedelta(hours=1), dt.timedelta(days=1)


class InAFolder(Works):
    def setUp(self):
        super().setUp()
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.works = Path(folder.name)
        keep_apart(self.works, WORKS)
        with closing(sqlite3.connect(self.works / "finegap.sqlite3")) as database:
            database.execute("CREATE TABLE django_migrations (app, name)")
        self.kept = self.works / "backups"
        here = self.settings(VAR=self.works, BACKUPS=self.kept)
        here.enable()
        self.addCleanup(here.disable)
        closing_ = mock.patch.object(keeper.connection, "close")  # that of the tests is not the keeper's
        closing_.start()
        self.addCleanup(closing_.stop)


class Looks(InAFolder):
    def test_a_backup_is_made_when_it_is_due_by_the_hours_of_the_settings(self):
        keeps = Keeper(self.works)
        for after, count in ((0 * HOUR, 1), (5 * HOUR, 1), (24 * HOUR, 2)):
            keeps.look(NOW + after)
            self.assertEqual(len(backups.listed(self.kept)), count, after)
        WorksSettings.objects.update_or_create(pk=1, defaults={"backup_hours": 2})
        keeps.look(NOW + 27 * HOUR)
        self.assertEqual(len(backups.listed(self.kept)), 3)
        backups.ask(self.kept)
        keeps.look(NOW + 27.5 * HOUR)
        self.assertEqual(len(backups.listed(self.kept)), 4)

    def test_what_fails_is_said_and_keeps_nothing_else_from_being_done(self):
        keeps = Keeper(self.works)
        old = AccessFailureLog.objects.create(username="x", ip_address="10.0.0.1", locked_out=False)
        AccessFailureLog.objects.filter(pk=old.pk).update(attempt_time=timezone.now() - 91 * DAY)
        Session.objects.create(session_key="old", session_data="", expire_date=timezone.now() - DAY)
        with (
            mock.patch.object(backups, "back_up", side_effect=BackupFault("there is no room for it")),
            mock.patch.object(keeper, "read", side_effect=RuntimeError("odd")),
            self.assertLogs("finegap.site.keeper", "WARNING") as said,
        ):
            keeps.look(NOW)
        self.assertIn("no room", " ".join(said.output))
        self.assertIn("odd", " ".join(said.output))
        self.assertFalse(AccessFailureLog.objects.exists() or Session.objects.exists())
        self.assertEqual(backups.state_of(self.kept).fault, "there is no room for it")

    def test_a_full_disk_is_not_tried_all_the_time(self):
        keeps, full = Keeper(self.works), BackupFault("there is no room for it")
        with (
            mock.patch.object(backups, "back_up", side_effect=full) as tried,
            mock.patch.object(backups, "_say"),  # not even that can be written
            self.assertLogs("finegap.site.keeper", "ERROR"),
        ):
            for minutes, count in ((0, 1), (1, 1), (59, 1), (61, 2)):
                keeps.back_up(NOW + minutes * HOUR / 60)
                self.assertEqual(tried.call_count, count, minutes)
            backups.ask(self.kept)
            keeps.back_up(NOW + 62 * HOUR / 60)
            self.assertEqual(tried.call_count, 3)

    def test_the_certificate_is_renewed_before_it_ends_and_not_sooner(self):
        made = tls.make(self.works / "tls", ["pumps.local"])
        keeps = Keeper(self.works)
        keeps.renew(made.ends - 31 * DAY)
        self.assertEqual(tls.read(self.works / "tls"), made)
        before = (self.works / "tls/server.crt").read_bytes()
        with self.assertLogs("finegap.site.keeper", "WARNING"):
            keeps.renew(made.ends - 29 * DAY)
        self.assertNotEqual((self.works / "tls/server.crt").read_bytes(), before)
        again = tls.read(self.works / "tls")
        self.assertEqual((again.hosts, again.authority), (made.hosts, made.authority))  # tablets need nothing
        Keeper(self.kept).renew(NOW)  # where there is none, none is made


class Seen(InAFolder):
    def test_a_lead_sees_asks_for_and_takes_out(self):
        self.client.force_login(self.lena)
        told = self.client.get("/api/backups").json()
        self.assertEqual((told["good"], told["backups"], told["asked"], told["encrypted"]), (None, [], False, False))
        self.assertGreater(told["free"], 0)
        self.assertTrue(self.client.post("/api/backups").json()["asked"])
        Keeper(self.works).look(NOW)
        told = self.client.get("/api/backups").json()
        (one,) = told["backups"]
        self.assertEqual((told["asked"], told["good"], one["at"]), (False, NOW.isoformat(), NOW.isoformat()))
        answer = self.client.get(f"/api/backups/{one['name']}")
        self.assertEqual(len(b"".join(answer.streaming_content)), one["size"])
        self.assertEqual(answer["Cache-Control"], "private, no-store")
        self.assertEqual(PersonEvent.objects.first().what, "took a backup out")
        for name in ("state.json", "..%2Ffinegap.sqlite3", "works-20200101T000000Z.zip"):
            self.assertEqual(self.client.get(f"/api/backups/{name}").status_code, 404)

    def test_what_is_to_be_warned_of_is_told_to_leads_on_every_page(self):
        backups._say(self.kept.parent / "nowhere", backups.State())  # cannot be written, and is no error
        self.kept.mkdir()
        backups._say(self.kept, backups.State(timezone.now(), timezone.now() - 9 * DAY, "no room"))
        for person, count in ((self.lena, 1), (self.tom, 0)):
            client = Client()
            client.force_login(person)
            warnings = client.get("/api/me").json()["warnings"]
            self.assertEqual(len(warnings), count)
        self.client.force_login(self.lena)
        self.assertIn("9 days old. The last try failed: no room", self.client.get("/api/me").json()["warnings"][0])
        with self.settings(DEMO=True):
            self.assertTrue(self.client.get("/api/backups").json()["of_demo"])
            self.assertEqual(self.client.post("/api/backups").status_code, 409)
            self.assertFalse(backups.is_asked(self.kept))
            self.assertEqual(self.client.get("/api/me").json()["warnings"], [])
