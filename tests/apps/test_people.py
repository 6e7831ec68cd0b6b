"""Who works here: the first visit of an empty works, people added and changed, passwords."""

import tempfile
from pathlib import Path
from unittest import mock

from django.contrib.auth.models import User
from django.contrib.sessions.models import Session
from django.test import Client, TestCase

from finegap.api.errors import Refused
from finegap.api.roles import role_of
from finegap.core.errors import FieldError
from finegap.core.formatting import Units
from finegap.people.changes import AddPerson, ChangePassword, ChangePerson
from finegap.people.models import PersonEvent, Pin
from finegap.people.pins import MOST_WRONG
from finegap.people.services import add_person, change_password, change_person, first_lead
from finegap.site import first_visit
from tests.apps.base import PIN, QUICK_HASHES, Works, job_view

BO = AddPerson("bo", "Bo", "Reed", "technician", "vice-and-bench")
ADA = {
    "first_name": "Ada", "last_name": "Orme", "username": "ada", "password": "lathe-and-lamp", "again": "lathe-and-lamp",
    "decimal_mark": "comma", "name": "Wold Pump Room", "lengths": "thou", "date_form": "iso", "time_zone": "Europe/Lisbon",
    "paper": "Letter", "currency": "EUR", "school": "plain",
}  # fmt: skip

SETTINGS = ("name", "lengths", "decimal_mark", "date_form", "time_zone", "paper", "currency", "school")


class FirstVisit(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        here = mock.patch.object(first_visit, "CODE", Path(folder.name) / "first_visit")
        here.start()
        self.addCleanup(here.stop)
        hashes = self.settings(**QUICK_HASHES)
        hashes.enable()
        self.addCleanup(hashes.disable)

    def send(self, **changes):
        return self.client.post("/first-visit", ADA | {"code": first_visit.code()} | changes)

    def test_who_has_the_code_becomes_the_first_lead_and_nobody_after(self):
        self.assertRedirects(self.client.get("/sign-in"), "/first-visit")
        self.assertContains(self.client.get("/first-visit"), "first lead")
        self.assertEqual(first_visit.CODE.exists() and first_visit.CODE.stat().st_mode & 0o077, 0)
        self.assertRedirects(self.send(), "/", fetch_redirect_response=False)
        me = self.client.get("/api/me").json()
        self.assertEqual((me["username"], me["name"], me["role"]), ("ada", "Ada Orme", "lead"))
        told = self.client.get("/api/settings").json()
        self.assertEqual({name: told[name] for name in SETTINGS}, {name: ADA[name] for name in SETTINGS})
        self.assertFalse(first_visit.CODE.exists())
        self.assertEqual([(e.person.username, e.what) for e in PersonEvent.objects.all()], [("ada", "first lead")])
        self.assertEqual(self.client.get("/api/start").json(), {"people": False, "sheet": False, "pump": False, "gauge": False})
        stranger = Client()
        for answer in (stranger.get("/first-visit"), stranger.post("/first-visit", ADA | {"username": "eve", "code": "x"})):
            self.assertRedirects(answer, "/", fetch_redirect_response=False)
        self.assertRedirects(self.send(), "/")  # pressed twice
        self.assertEqual(User.objects.count(), 1)
        with self.assertRaises(Refused):
            first_lead(BO)

    def test_what_cannot_be_is_said_at_its_field_and_nobody_is_made(self):
        wrong = (
            ({"code": "guessed"}, "not the one that was printed"),
            ({"again": "another"}, "The two are not the same"),
            ({"password": "short", "again": "short"}, "too short"),
            ({"password": "password", "again": "password"}, "too common"),
            ({"username": "a b"}, "That is no name"),
            ({"first_name": " "}, "required"),
            ({"currency": "5"}, "Expected letters alone"),
            ({"name": ""}, "required"),
        )
        for change, words in wrong:
            with self.subTest(change=change):
                self.assertContains(self.send(**change), words, status_code=422)
        self.assertFalse(User.objects.exists())


class People(Works):
    def test_a_lead_adds_people_and_the_names_are_checked(self):
        add_person(self.lena, BO)
        bo = User.objects.get(username="bo")
        self.assertEqual((role_of(bo), bo.get_full_name(), bo.check_password("vice-and-bench")), ("technician", "Bo Reed", True))
        self.assertNotIn("vice-and-bench", repr(BO))
        for change, field in (
            ({"username": "BO"}, "name to sign in with"),
            ({"username": "b/o"}, "name to sign in with"),
            ({"username": "cy", "first_name": ""}, "first name"),
            ({"username": "cy", "role": "king"}, "role"),
            ({"username": "cy", "password": "12345678"}, "password"),
        ):
            with self.subTest(change=change), self.assertRaises(FieldError) as caught:
                add_person(self.lena, AddPerson(**(vars(BO) | change)))
            self.assertEqual(caught.exception.field, field)
        self.assertEqual(User.objects.filter(username="cy").count(), 0)

    def test_who_works_here_no_more_is_signed_out_and_stays_in_the_records(self):
        number = self.open()
        client = Client()
        client.force_login(self.tom)
        self.assertEqual(client.get("/api/me").status_code, 200)
        change_person(self.lena, "tom", ChangePerson(works_here=False))
        self.assertEqual(client.get("/api/me").status_code, 401)
        self.assertEqual(job_view(number, Units.MM)["opened_by"], "Tom")
        self.client.force_login(self.lena)
        people = self.client.get("/api/people").json()
        self.assertEqual(
            [(p["username"], p["works_here"], p["signed_in"]) for p in people["people"]],
            [("lena", True, True), ("tom", False, False)],
        )
        change_person(self.lena, "tom", ChangePerson(works_here=True, role="lead"))
        self.assertEqual(role_of(User.objects.get(username="tom")), "lead")
        said = list(PersonEvent.objects.order_by("pk").values_list("what", flat=True))
        self.assertEqual(said, ["works here no more", "made lead", "works here again"])

    def test_a_works_is_never_without_a_lead(self):
        for change in (ChangePerson(role="technician"), ChangePerson(works_here=False)):
            with self.assertRaisesRegex(Refused, "No lead would be left"):
                change_person(self.lena, "lena", change)
        lena = User.objects.get(username="lena")
        self.assertEqual((role_of(lena), lena.is_active, PersonEvent.objects.count()), ("lead", True, 0))
        with self.assertRaises(FieldError):
            change_person(self.lena, "nobody", ChangePerson(role="lead"))

    def test_ones_own_password_needs_the_old_one_and_ends_other_sessions(self):
        self.tom.set_password("old-and-worn")
        self.tom.save()
        with self.assertRaisesRegex(FieldError, "wrong"):
            change_password(self.tom, ChangePassword("guessed", "new-and-sound"))
        with self.assertRaises(FieldError):
            change_password(self.tom, ChangePassword("old-and-worn", "short"))
        here, there = Client(), Client()
        for client in (here, there):
            client.force_login(User.objects.get(username="tom"))
        body = {"old": "old-and-worn", "new": "new-and-sound"}
        self.assertEqual(here.post("/api/people/password", body, content_type="application/json").status_code, 200)
        self.assertEqual([client.get("/api/me").status_code for client in (here, there)], [200, 401])
        for _ in range(MOST_WRONG):
            with self.assertRaises(FieldError):
                change_password(self.tom, ChangePassword("guessed", "new-and-sound"))
        with self.assertRaisesRegex(Refused, "Too many"):
            change_password(self.tom, ChangePassword("new-and-sound", "another-one"))


class Switching(Works):
    """Somebody else goes on at a browser that is in use."""

    def go_on(self, username, secret):
        return self.client.post("/api/people/switch", {"username": username, "secret": secret}, "application/json")

    def test_a_technician_by_pin_a_lead_by_password(self):
        self.lena.set_password("lathe-and-lamp")
        self.lena.save()
        add_person(self.lena, BO)
        self.client.force_login(self.tom)
        told = self.client.get("/api/people/switch").json()
        self.assertEqual([(one["username"], one["by"]) for one in told], [("bo", "password"), ("lena", "password")])
        self.assertEqual(self.go_on("lena", PIN).json()["field"], "password")  # a lead's few digits open no settings
        self.assertEqual(self.client.get("/api/me").json()["username"], "tom")
        before = self.client.session.session_key
        self.assertEqual(self.go_on("lena", "lathe-and-lamp").json()["me"]["username"], "lena")
        self.assertFalse(Session.objects.filter(session_key=before).exists())
        self.assertEqual(self.go_on("tom", "0000").json()["field"], "PIN")
        self.assertEqual(self.go_on("tom", PIN).json()["me"]["username"], "tom")
        self.assertEqual(self.client.get("/api/me").json()["role"], "technician")

    def test_wrong_tries_are_counted_and_who_left_is_not_there(self):
        add_person(self.lena, BO)
        change_person(self.lena, "bo", ChangePerson(works_here=False))
        self.client.force_login(self.lena)
        self.assertEqual(self.go_on("bo", BO.password).json()["field"], "person")
        tries = [self.go_on("tom", f"{i}000").status_code for i in range(7)]
        self.assertEqual(tries, [422] * 4 + [429] * 3)
        self.assertEqual(self.go_on("tom", PIN).json()["code"], "locked")
        self.assertEqual(Pin.objects.get(person=self.tom).wrong, 0)  # where Tom signs himself, nothing was tried
