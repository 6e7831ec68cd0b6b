"""Notes on a job, its hand-over, who is on it, and what changed since somebody looked."""

import datetime as dt
import uuid

from django.test import Client
from django.utils import timezone

from finegap.api.roles import TECHNICIAN
from finegap.bench import changes, services
from finegap.bench.models import Job, JobLook, JobNote
from tests.apps.base import Works, person

HOW = {"unit": "mm", "mark": "point"}


class Talk(Works):
    @classmethod
    def setUpTestData(cls):
        super().setUpTestData()
        cls.ann = person("ann", TECHNICIAN)

    def setUp(self):
        self.number = self.open()
        self.clients = {}
        for user in (self.tom, self.lena, self.ann):
            self.clients[user.username] = Client()
            self.clients[user.username].force_login(user)

    def talk(self, who="tom"):
        return self.clients[who].get(f"/api/jobs/{self.number}/talk").json()

    def post(self, what, who="tom", status=200, **body):
        given = body if what == "looked" else {"person": who, **HOW} | body
        answered = self.clients[who].post(f"/api/jobs/{self.number}/{what}", given, content_type="application/json")
        self.assertEqual(answered.status_code, status, answered.content[:200])
        return answered.json() if answered.content else None

    def note(self, who="tom", status=200, **more):
        return self.post("notes", who, status, **{"id": str(uuid.uuid4()), "text": "burr at the front"} | more)

    def test_a_note_touches_neither_the_job_nor_its_record(self):
        before = Job.objects.get(number=self.number).version
        told = self.note()
        self.assertEqual([(one["text"], one["by"]) for one in told["notes"]], [("burr at the front", "Tom")])
        self.assertEqual(Job.objects.get(number=self.number).version, before)
        same = {"id": told["notes"][0]["id"]}
        self.assertEqual(len(self.note(**same)["notes"]), 1)
        self.note(status=409, text="other", **same)
        self.note(status=422, text="  ")
        self.post(f"notes/{same['id']}/strike", status=422, reason=" ")
        self.assertEqual(
            self.post(f"notes/{same['id']}/strike", reason="of another job")["notes"][0]["struck_reason"], "of another job"
        )

    def test_a_hand_over_is_taken_once_by_whom_it_is_for(self):
        self.note(handover=True, to="nobody", status=422)
        self.note(to="ann", status=422)
        told = self.note(handover=True, to="ann", text="pin in the drawer")
        key = told["notes"][0]["id"]
        self.assertEqual((told["notes"][0]["may_take"], self.talk("ann")["notes"][0]["may_take"]), (False, True))
        self.assertIn("meant for Ann", self.post(f"notes/{key}/take", "lena", 422)["problem"])
        self.assertIn("your own", self.post(f"notes/{key}/take", "tom", 422)["problem"])
        taken = self.post(f"notes/{key}/take", "ann")
        self.assertEqual(taken["notes"][0]["taken_by"], "Ann")
        self.post(f"notes/{key}/take", "ann")
        self.assertIn("Ann", [one["name"] for one in taken["here"]])
        open_to_all = self.note(handover=True)["notes"][0]["id"]
        self.post(f"notes/{open_to_all}/take", "lena")
        self.assertIn("Lena took it over already", self.post(f"notes/{open_to_all}/take", "ann", 422)["problem"])

    def test_a_job_that_has_ended_is_noted_on_and_not_handed_over(self):
        key = self.note(handover=True)["notes"][0]["id"]
        services.abandon(self.seen(self.number), changes.Abandon(uuid.uuid4(), reason="x"))
        self.note(handover=True, status=409)
        self.note()
        self.assertFalse(any(one["may_take"] for one in self.talk("ann")["notes"]))
        self.post(f"notes/{key}/take", "ann", 409)

    def test_what_others_did_since_one_looked_and_not_ones_own(self):
        self.assertIsNone(self.talk("lena")["since"])  # who never looked has missed nothing of it
        self.post("looked", "lena", 204, version=Job.objects.get(number=self.number).version)
        services.set_details(self.seen(self.number), changes.SetDetails(room="bay 3"))
        services.set_details(self.seen(self.number, self.lena), changes.SetDetails(room="bay 4"))
        since = self.talk("lena")["since"]
        self.assertEqual([(one["by"], "bay 3" in one["what"]) for one in since["lines"]], [("Tom", True)])
        version = Job.objects.get(number=self.number).version
        self.post("looked", "lena", 204, version=version)
        self.assertIsNone(self.talk("lena")["since"])
        self.post("looked", "lena", 204, version=1)
        self.assertEqual(JobLook.objects.get(person=self.lena).version, version)
        self.assertEqual(self.post("looked", "lena", 422, version=version + 1)["field"], "version")

    def test_who_is_on_it_by_what_they_did_and_who_has_it_open(self):
        self.post("looked", "ann", 204, version=1)
        here = {one["name"]: (one["last"] is not None, one["looking"]) for one in self.talk()["here"]}
        self.assertEqual(here, {"Tom": (True, False), "Ann": (False, True)})
        JobLook.objects.update(at=timezone.now() - dt.timedelta(hours=1))
        self.assertEqual([one["name"] for one in self.talk()["here"]], ["Tom"])

    def test_only_the_newest_are_answered(self):
        job = Job.objects.get(number=self.number)
        for i in range(70):
            JobNote.objects.create(id=uuid.uuid4(), job=job, text=str(i), by=self.tom, at=timezone.now() + dt.timedelta(seconds=i))
        told = self.talk()
        self.assertEqual((len(told["notes"]), told["notes"][0]["text"], told["more"]), (60, "69", True))
