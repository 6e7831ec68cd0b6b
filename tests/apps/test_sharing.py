"""Links for people without an account: what they lead to, for how long, and nothing else."""

import datetime as dt
import io
import logging
import uuid

import vobject
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.utils import timezone
from PIL import Image
from pypdf import PdfReader

from finegap.bench import changes, services
from finegap.core.entry import Entry
from finegap.core.families.steps import Stage
from finegap.core.job_record import Decided, Phase
from finegap.formats.days import written
from finegap.pumps.changes import ReadMeter
from finegap.pumps.models import Pump
from finegap.pumps.services import read_meter
from finegap.sharing.models import Link, LinkUse, digest_of
from finegap.sharing.services import _USES_KEPT, note_use
from finegap.sheets.models import ManualPage, SheetRevision
from tests.apps.base import GOOD, Works

HOW = {"unit": "mm", "mark": "point"}


class Sharing(Works):
    def setUp(self):
        self.lead, self.technician, self.stranger = Client(), Client(), Client()
        self.lead.force_login(self.lena)
        self.technician.force_login(self.tom)
        self.today = timezone.localdate()

    def post(self, client, address, status, **body):
        person = "lena" if client is self.lead else "tom"
        given = {"person": person, **HOW} | body
        answered = client.post(address, given, content_type="application/json")
        self.assertEqual(answered.status_code, status, answered.content[:300])
        return answered.json()

    def share(self, number, days=30, status=201, client=None, **more):
        until = str(self.today + dt.timedelta(days=days))
        given = {"id": str(uuid.uuid4()), "whom": "Harl, owner", "until": until} | more
        return self.post(client or self.lead, f"/api/jobs/{number}/links", status, **given)

    def signed(self):
        """A job whose idler pin was found worn and is new."""
        number = self.open()
        self.measure_all(number, {**GOOD, "idler_pin": 29.85})
        self.look_all(number)
        services.decide(self.seen(number), changes.Decide(uuid.uuid4(), "idler_pin", Decided.CHANGE, "", []))
        self.steps(number, Stage.PREPARE, Stage.STRIP)
        self.measure_all(number, {"idler_pin": 29.99}, Phase.LEFT)
        self.together(number)
        services.sign_off(self.seen(number, self.lena), changes.Sign(uuid.uuid4(), reason="as it is"))
        return number


class Reports(Sharing):
    def test_a_signed_report_goes_out_in_plain_words_and_as_it_was_signed(self):
        number = self.signed()
        made = self.share(number)
        path = made["address"].removeprefix("http://testserver")
        page = self.stranger.get(path)
        text = page.content.decode()
        for said in (
            "H-1",
            "What came in",
            "It had run 14\u00a0380 hours",
            f"can be opened until {written(self.today + dt.timedelta(days=30))}",
            f"Signed by Lena, {written(self.today)}",
            "What we found and did",
            "Idler pin",
            "29.850 mm",
            "Replaced; it now measures 29.990 mm",
            "How it left",
            "Harl, owner",
        ):
            self.assertIn(said, text)
        self.assertIn("no-referrer", page["Referrer-Policy"])
        self.assertIn("noindex", page["X-Robots-Tag"])
        self.assertIn("no-store", page["Cache-Control"])
        inches = self.stranger.get(f"{path}?unit=in").content.decode()
        self.assertIn("1.175 in", inches.replace("1.1752", "1.175"))
        report = self.stranger.get(f"{path}/report.pdf")
        self.assertEqual(report["Content-Type"], "application/pdf")
        self.assertIn(f"Job {number}", PdfReader(io.BytesIO(report.content)).pages[0].extract_text())
        uses = self.lead.get(f"/api/links/{made['link']['id']}").json()
        self.assertEqual(
            [(one["what"], one["address"]) for one in uses], [("report", "127.0.0.1"), *[("summary", "127.0.0.1")] * 2]
        )

    def test_a_record_that_does_not_count_says_so_first(self):
        number = self.signed()
        services.amend(self.seen(number, self.lena), changes.Amend(uuid.uuid4(), "It was H-7.", "two tags", void=True))
        text = self.stranger.get(self.share(number)["address"].removeprefix("http://testserver")).content.decode()
        self.assertLess(text.index("does not count for this pump"), text.index("What came in"))

    def test_nothing_but_that_report_is_open_to_who_has_it_and_no_page_of_a_manual(self):
        number = self.signed()
        picture = io.BytesIO()
        Image.new("RGB", (40, 40), "red").save(picture, "JPEG")
        revision = SheetRevision.objects.get(sheet__slug="test-pump")
        page = ManualPage(id=uuid.uuid4(), revision=revision, name="p. 1", kind="jpeg", by=self.lena, at=timezone.now())
        page.file.save("x.jpg", SimpleUploadedFile("x.jpg", picture.getvalue()), save=True)
        path = self.share(number)["address"].removeprefix("http://testserver")
        body = self.stranger.get(f"{path}/report.pdf").content
        self.assertEqual([image for one in PdfReader(io.BytesIO(body)).pages for image in one.images], [])
        self.assertEqual(self.stranger.get(f"/api/manual-pages/{page.id}").status_code, 401)
        for other in (f"/api/jobs/{number}", f"/api/jobs/{number}/report.pdf", "/api/pumps", "/api/due", "/api/links"):
            self.assertEqual(self.stranger.get(other).status_code, 401, other)
        self.assertEqual(self.stranger.post(path).status_code, 405)
        self.assertNotIn("sessionid", self.stranger.cookies)

    def test_it_ends_with_its_day_and_is_taken_back_at_any_time(self):
        number = self.signed()
        made = self.share(number)
        path = made["address"].removeprefix("http://testserver")
        Link.objects.update(until=self.today - dt.timedelta(days=1))
        gone = self.stranger.get(path)
        self.assertEqual((gone.status_code, "has ended" in gone.content.decode()), (410, True))
        self.assertEqual(self.stranger.get(f"{path}/report.pdf").status_code, 410)
        Link.objects.update(until=self.today)
        self.assertEqual(self.stranger.get(path).status_code, 200)
        shown = self.post(self.lead, f"/api/links/{made['link']['id']}/revoke", 200)
        self.assertEqual((shown["state"], shown["revoked_by"]), ("revoked", "Lena"))
        console = logging.getLogger().handlers[0]
        was = console.setStream(log := io.StringIO())
        self.addCleanup(console.setStream, was)
        gone = self.stranger.get(path)
        self.assertEqual((gone.status_code, "was taken back" in gone.content.decode()), (410, True))
        self.assertEqual(log.getvalue(), "Gone: /shared/…\n", "The log would open what the link shares.")
        self.assertEqual(self.stranger.get("/shared/" + "x" * 43).status_code, 404)
        self.assertEqual(self.stranger.get("/shared/ü").status_code, 404)

    def test_its_secret_is_shown_once_and_kept_nowhere(self):
        number = self.signed()
        made = self.share(number)
        secret = made["address"].rsplit("/", 1)[1]
        self.assertGreaterEqual(len(secret), 43)
        self.assertEqual(Link.objects.get().digest, digest_of(secret))
        listed = self.lead.get(f"/api/links?job={number}").content.decode() + self.lead.get("/api/changes?q=harl").content.decode()
        self.assertNotIn(secret, listed)
        self.assertNotIn(secret, str(Link.objects.values()[0]))
        again = self.share(number, 30, 422, id=made["link"]["id"])
        self.assertIn("made already", again["problem"])

    def test_what_cannot_go_out_is_refused_by_its_field(self):
        number = self.open()
        self.assertIn("not signed", self.share(number, status=409)["problem"])
        done = self.signed_elsewhere()
        for days, more, field in (
            (-1, {}, "until"),
            (400, {}, "until"),
            (1, {"until": "soon"}, "until"),
            (1, {"whom": " "}, "for"),
        ):
            with self.subTest(days=days, **more):
                self.assertEqual(self.share(done, days, 422, **more)["field"], field)
        self.share(done, status=403, client=self.technician)
        self.assertFalse(Link.objects.exists())

    def signed_elsewhere(self):
        Pump.objects.filter(tag="H-1").update(tag="H-0")
        Pump.objects.filter(tag="G-1").update(tag="G-0")
        number = services.open_job(self.tom, changes.OpenJob("G-0", "test", "1")).number
        self.row(number).end("signed")
        return number

    def test_uses_are_counted_and_the_oldest_let_go(self):
        number = self.signed()
        self.share(number)
        link = Link.objects.get()
        for i in range(_USES_KEPT + 5):
            note_use(link, "10.0.0.1", f"{i}")
        self.assertEqual(LinkUse.objects.count(), _USES_KEPT)
        self.assertFalse(LinkUse.objects.filter(what="0").exists())


class Calendars(Sharing):
    def make(self, client=None, status=201, **more):
        return self.post(
            client or self.technician, "/api/links", status, **{"id": str(uuid.uuid4()), "whom": "bench tablet"} | more
        )

    def setUp(self):
        super().setUp()
        Pump.objects.update(overhaul_every_h=5000)
        for tag in ("H-1", "G-1"):
            for hours, days in ((4000, 70), (4350, 0)):
                day = (self.today - dt.timedelta(days=days)).isoformat()
                read_meter(self.tom, tag, ReadMeter(uuid.uuid4(), str(hours), day), Entry(meant=True))
        Pump.objects.filter(tag="G-1").update(location="yard")

    def events(self, address):
        answered = self.stranger.get(address.removeprefix("http://testserver"))
        self.assertEqual(answered["Content-Type"], "text/calendar; charset=utf-8")
        return [event.summary.value for event in vobject.readOne(answered.content.decode()).vevent_list]

    def test_a_feed_of_all_of_a_place_of_a_pump_and_none_once_it_is_taken_back(self):
        everything = self.make()["address"]
        self.assertTrue(everything.endswith(".ics"))
        told = self.events(everything)
        self.assertTrue(any("H-1" in one for one in told) and any("G-1" in one for one in told))
        self.assertTrue(any("calibration" in one for one in told))
        self.assertEqual(self.events(self.make(place="yard")["address"]), ["G-1 test: Planned overhaul"])
        self.assertEqual(self.events(self.make(pump="H-1")["address"]), ["H-1 test: Planned overhaul"])
        made = self.make()
        self.post(self.technician, f"/api/links/{made['link']['id']}/revoke", 200)
        self.assertEqual(self.stranger.get(made["address"].removeprefix("http://testserver")).status_code, 410)
        secret = everything.rsplit("/", 1)[1].removesuffix(".ics")
        self.assertEqual(self.stranger.get(f"/shared/{secret}").status_code, 404)

    def test_somebody_elses_is_taken_back_by_a_lead_alone(self):
        made = self.make(self.lead)
        problem = self.post(self.technician, f"/api/links/{made['link']['id']}/revoke", 409)
        self.assertIn("somebody else's", problem["problem"])
        own = self.make()
        self.post(self.lead, f"/api/links/{own['link']['id']}/revoke", 200)
        shown = {one["id"]: one["may_revoke"] for one in self.technician.get("/api/links").json()["lines"]}
        self.assertEqual(shown, {made["link"]["id"]: False, own["link"]["id"]: False})

    def test_no_such_pump_or_place(self):
        for more, field in (({"pump": "X"}, "pump"), ({"place": "moon"}, "place"), ({"pump": "H-1", "place": "yard"}, "place")):
            with self.subTest(**more):
                self.assertEqual(self.make(status=422, **more)["field"], field)
