"""The trail: every change to everything, whichever way it came, with who, when, the old value and the new."""

import csv
import io
import json
import uuid
from unittest import mock

from django.contrib.auth.models import User
from django.db import connection, models, transaction
from django.test import Client
from django.utils import timezone

from finegap.audit import api
from finegap.audit.differing import differing
from finegap.audit.models import Change, whole_works
from finegap.audit.queries import fields, lines
from finegap.audit.triggers import install, kept, remove
from finegap.audit.who import acting, who
from finegap.bench import changes, services
from finegap.bench.models import Reading
from finegap.inventory.models import Gauge, ShelfLine
from finegap.people.changes import AddPerson, ChangePerson
from finegap.people.pins import set_pin
from finegap.people.services import add_person, change_person
from finegap.pumps.models import Pump
from finegap.sheets.models import Sheet, SheetRevision
from tests.apps.base import PIN, Works, person
from tests.apps.test_api import ROUTES, OnRoutes

NO_TRACE = (
    "/api/people/switch", "/api/sums/", "/meanwhile", "/api/sheet-drafts", "/sign-out", "/works.zip", "/api/backups",
    "/api/people/tom/unlock", "/retire", "/looked",
)  # fmt: skip
"""What changes no row of the works, or none that is kept: drafts are typing until they are kept; who is retired is so already."""


class Heard(Works):
    def setUp(self):
        super().setUp()
        Change.objects.all().delete()

    def last(self, **asked):
        return Change.objects.filter(**asked).first()

    def test_whichever_way_a_row_is_changed_it_is_written_down(self):
        gauge = Gauge.objects.get(tag="M-1")
        for change in (
            lambda: Gauge.objects.filter(pk=gauge.pk).update(mark="comma"),
            lambda: Gauge.objects.filter(pk=gauge.pk).update(mark=models.Value("point")),
            lambda: Gauge(pk=gauge.pk, tag="M-1", kind=gauge.kind, mark="comma", current=gauge.current).save(),
            lambda: Gauge.objects.bulk_update([Gauge(pk=gauge.pk, mark="point")], ["mark"]),
            lambda: connection.cursor().execute("UPDATE toolbox_gauge SET mark = 'comma' WHERE tag = 'M-1'"),
        ):
            was = Gauge.objects.get(pk=gauge.pk).mark
            with acting("lena"):
                change()
            now = Gauge.objects.get(pk=gauge.pk).mark
            line = Change.objects.get()
            self.assertEqual((line.who, line.about, line.kind, line.act), ("lena", "gauge M-1", "toolbox.gauge", "changed"))
            self.assertEqual((line.old, line.new), ({"mark": was}, {"mark": now}))
            self.assertLess(abs(timezone.now() - line.at).total_seconds(), 60)
            Change.objects.all().delete()
        Gauge.objects.filter(pk=gauge.pk).update(mark=models.F("mark"))
        self.assertFalse(Change.objects.exists(), "nothing differs")
        made = ShelfLine.objects.bulk_create([ShelfLine(sheet=Sheet.objects.get(slug="gasket-pump"), thickness_um=33, count=4)])
        line = Change.objects.get()
        self.assertEqual((line.about, line.act, line.old), ("sheet gasket-pump", "added", {}))
        self.assertEqual(line.new, {"sheet": "sheet gasket-pump", "thickness_um": 33, "count": 4})
        ShelfLine.objects.filter(pk=made[0].pk).delete()
        gone = self.last()
        self.assertEqual((gone.act, gone.old, gone.new, gone.row), ("removed", line.new, {}, line.row))

    def test_of_a_long_text_what_differs_is_said_wherever_it_is(self):
        revision = SheetRevision.objects.get(sheet__slug="test-pump")
        content = revision.content | {"cautions": ["x" * 900]}
        SheetRevision.objects.filter(pk=revision.pk).update(content=content)
        Change.objects.all().delete()
        SheetRevision.objects.filter(pk=revision.pk).update(content=content | {"cautions": ["x" * 450 + "Y" + "x" * 449]})
        line = Change.objects.get()
        self.assertLess(len(line.was) + len(line.now), 400)
        self.assertEqual((line.old["content"].count("Y"), line.new["content"].count("Y")), (0, 1))
        self.assertTrue(line.new["content"].startswith("… x") and line.new["content"].endswith("x …"))
        for one, other, expected in (
            ("abc", "abc", ("abc", "abc")),
            (None, "z" * 9000, (None, "z" * 4000 + " …")),
            ("a" * 100, "a" * 100 + "b", ("… " + "a" * 40, "… " + "a" * 40 + "b")),
            ("aa", "aaa", ("aa", "aaa")),
        ):
            self.assertEqual((differing(one, other, 0), differing(one, other, 1)), expected)

    def test_two_numbers_that_differ_do_not_look_alike(self):
        with acting("lena"):
            Pump.objects.filter(tag="H-1").update(viscosity_mm2_s=1234567.25)
            Pump.objects.filter(tag="H-1").update(viscosity_mm2_s=1234567.5)
        self.assertEqual([(f.was, f.now) for f in fields(self.last())], [("1234567.25", "1234567.5")])

    def test_what_changes_everything_at_once_has_a_line_too(self):
        whole_works("restored from", "works-20261129T120000Z.zip")
        (line,) = lines(list(Change.objects.all()))
        self.assertEqual((line.who, line.about, line.kind, line.act), ("server", "works", "works", "changed"))
        self.assertEqual([(f.field, f.now) for f in line.fields], [("restored from", "works-20261129T120000Z.zip")])

    def test_what_is_undone_leaves_no_line(self):
        with transaction.atomic():
            Pump.objects.update(service="another")
            self.assertEqual(Change.objects.count(), 2)
            transaction.set_rollback(True)
        self.assertEqual(Change.objects.count(), 0)

    def test_no_secret_is_in_it(self):
        bo = add_person(self.lena, AddPerson("bo", "Bo", "Reed", "technician", "vice-and-bench"))
        set_pin(bo, "vice-and-bench", "2708")
        change_person(self.lena, "bo", ChangePerson(role="lead", password="another-and-bench"))
        bo.refresh_from_db()
        said = json.dumps(list(Change.objects.values("was", "now")))
        for secret in (bo.password, bo.pin.hashed, "vice", "2708"):
            self.assertNotIn(secret, said)
        self.assertEqual(self.last(kind="auth.user", act="changed").new, {"password": "(kept secret)"})
        self.assertEqual(self.last(kind="auth.user_groups", act="added").new, {"user": "person bo", "group": "lead"})
        self.assertEqual({one.about for one in Change.objects.all()}, {"person bo"})

    def test_every_table_is_kept_or_is_said_not_to_be(self):
        from django.apps import apps

        not_of_the_works = ("axes", "otp_totp", "otp_static", "contenttypes", "sessions")
        every = {one for one in apps.get_models(include_auto_created=True) if one._meta.app_label not in not_of_the_works}
        self.assertEqual(
            {one._meta.label_lower for one in every - set(kept())},
            {"auth.permission", "auth.group", "auth.group_permissions", "auth.user_user_permissions", "audit.change",
             "bench.event", "bench.sectionversion", "sheets.sheetdraft", "bench.joblook", "sharing.linkuse",
             "due.standing", "due.dueline", "due.stale"},
        )  # fmt: skip

    def test_every_row_says_what_it_is_about(self):
        number = self.finished()
        services.sign_off(self.seen(number), changes.Sign(uuid.uuid4(), pin=PIN))
        self.assertGreater(Change.objects.filter(about=f"job {number}").count(), 30)
        self.assertEqual(set(Change.objects.filter(about="").values_list("kind", flat=True)), set())
        signed = self.last(kind="bench.signoff")
        self.assertRegex(signed.new["document"], r"^\d+ bytes$")
        reading = Reading.objects.filter(job__number=number).first()
        line = Change.objects.get(kind="bench.reading", row=reading.pk.hex)
        self.assertEqual((line.new["typed"], line.new["gauge"]), (reading.typed, f"gauge {reading.gauge.tag}"))
        self.assertLess(max(len(one.now) for one in Change.objects.all()), 3000)

    def test_it_can_be_left_off_and_put_on_again(self):
        remove(connection)
        Pump.objects.update(service="one")
        self.assertEqual(Change.objects.count(), 0)
        install(connection)
        install(connection)
        Pump.objects.update(service="two")
        self.assertEqual(Change.objects.count(), 2)

    def test_who_acts_is_who_is_signed_in_and_the_server_otherwise(self):
        self.assertEqual(who(), "server")
        with acting("tom"):
            self.assertEqual(who(), "tom")
        client = Client()
        client.force_login(self.lena)
        answer = client.post("/api/people/tom/change", {"works_here": False}, "application/json")
        self.assertEqual(answer.status_code, 200)
        line = self.last(kind="auth.user")
        self.assertEqual((line.who, line.old, line.new), ("lena", {"is_active": 1}, {"is_active": 0}))
        self.assertEqual(self.last(kind="people.personevent").new["what"], "works here no more")
        self.assertEqual(who(), "server")


class EveryRoute(OnRoutes):
    """The routes of the permission table once more: whatever a lead changes by one of them, the trail says who it was."""

    def test_whatever_a_lead_changes_is_written_down(self):
        silent, heard = [], 0
        for method, path, body, *expected in ROUTES:
            if method == "get" or not 200 <= expected[-1] < 300 or any(one in path for one in NO_TRACE):
                continue
            client = Client()
            client.force_login(User.objects.get(username="lena"))
            before = Change.objects.order_by("-pk").values_list("pk", flat=True).first()
            with transaction.atomic():
                answer = self.ask(client, method, path, self.entered(body, "lena"))
                self.assertEqual(answer.status_code, expected[-1], (path, answer.content[:200]))
                lines = Change.objects.filter(pk__gt=before)
                heard += 1
                if {one.who for one in lines} != {"lena"}:
                    silent.append((method, path, [one.who for one in lines]))
                transaction.set_rollback(True)
        self.assertEqual(silent, [])
        self.assertGreater(heard, 25)


class Read(Works):
    def setUp(self):
        super().setUp()
        Change.objects.all().delete()
        with acting("tom"):
            self.number = self.open()
        with acting("lena"):
            Pump.objects.filter(tag="G-1").update(service="=1+1", wet=True)
            Gauge.objects.filter(tag="M-1").update(mark="comma")
        self.client.force_login(self.lena)

    def ask(self, **asked):
        answer = self.client.get("/api/changes", asked)
        self.assertEqual(answer.status_code, 200, answer.content)
        return answer.json()["lines"]

    def test_it_is_read_by_who_what_when_and_words(self):
        every = self.ask()
        self.assertEqual([one["about"] for one in every], ["gauge M-1", "pump G-1", "job 1"])
        self.assertEqual((every[1]["who"], every[1]["kind"], every[1]["act"]), ("Lena", "pump", "changed"))
        fields = [{"field": "service", "was": "test", "now": "=1+1"}, {"field": "wet", "was": "no", "now": "yes"}]
        self.assertEqual(every[1]["fields"], fields)
        today = timezone.localdate().isoformat()
        for asked, expected in (
            ({"who": "tom"}, ["job 1"]),
            ({"about": "pump G-1"}, ["pump G-1"]),
            ({"kind": "toolbox.gauge"}, ["gauge M-1"]),
            ({"act": "added"}, ["job 1"]),
            ({"since": today, "until": today, "who": "lena"}, ["gauge M-1", "pump G-1"]),
            ({"since": "2999-01-01"}, []),
            ({"until": "2001-01-01"}, []),
            ({"until": "9999-12-31", "act": "added"}, ["job 1"]),
            ({"q": "comma"}, ["gauge M-1"]),
            ({"q": "bench.job"}, ["job 1"]),
            ({"q": "g-1 =1"}, ["pump G-1"]),
            ({"page": 2}, []),
        ):
            with self.subTest(asked):
                self.assertEqual([one["about"] for one in self.ask(**asked)], expected)
        for wrong in ({"act": "x"}, {"since": "yesterday"}, {"page": "0"}, {"who": "x" * 151}, {"q": "x" * 81}):
            self.assertEqual(self.client.get("/api/changes", wrong).status_code, 422, wrong)

    def test_words_are_looked_for_in_the_newest_lines_alone(self):
        with mock.patch.object(api, "NEWEST", 2):
            self.assertEqual([one["about"] for one in self.ask(q="1")], ["gauge M-1", "pump G-1"])
            self.assertEqual([one["about"] for one in self.ask(q="1", who="tom")], ["job 1"])

    def test_it_is_paged(self):
        with acting("lena"):
            for n in range(60):
                Gauge.objects.filter(tag="M-1").update(mark=("point", "comma")[n % 2])
        first = self.client.get("/api/changes").json()
        self.assertEqual((len(first["lines"]), first["more"]), (50, True))
        second = self.client.get("/api/changes", {"page": 2}).json()
        self.assertEqual((len(second["lines"]), second["more"]), (13, False))
        self.assertEqual(len({one["id"] for one in first["lines"] + second["lines"]}), 63)

    def test_it_is_taken_out_as_a_table_with_no_formula_in_it(self):
        answer = self.client.get("/api/changes.csv", {"about": "pump G-1"})
        rows = list(csv.reader(io.StringIO(b"".join(answer.streaming_content).decode())))
        self.assertEqual(len(rows), 3)
        self.assertEqual(
            rows[1][1:], ["lena", "pump G-1", "pump", str(Pump.objects.get(tag="G-1").pk), "changed", "service", "test", "'=1+1"]
        )
        self.assertIn("changes-", answer["Content-Disposition"])
        self.assertEqual(self.client.get("/api/changes.csv", {"act": "x"}).status_code, 422)

    def test_it_is_for_leads(self):
        person("nora", None)
        for name, status in (("tom", 403), ("nora", 403), (None, 401)):
            client = Client()
            if name:
                client.force_login(User.objects.get(username=name))
            for path in ("/api/changes", "/api/changes.csv"):
                self.assertEqual(client.get(path).status_code, status)
