"""What the works decides for itself: each setting has its effect, and what was signed stays as it was signed."""

import datetime as dt
import io
import json
import tempfile
import uuid

from django.core.files.uploadedfile import SimpleUploadedFile
from django.http import HttpResponse
from django.test import RequestFactory, SimpleTestCase, override_settings
from django.utils import timezone
from PIL import Image
from pypdf import PdfReader

from finegap.bench import services as services_of_jobs
from finegap.bench.changes import Sign
from finegap.bench.models import Abandonment, Event, Job, Photo
from finegap.bench.services.retention import let_go
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.formats import days
from finegap.formats.letterhead import Letterhead
from finegap.sheets.changes import SheetFile
from finegap.site.middleware import AsTheWorks
from finegap.works import services
from finegap.works.changes import KeepLogo, KeepSettings
from finegap.works.queries import present, works_settings
from tests.apps.base import Works, add_revision, sheet_data


def picture(width, height, kind="PNG"):
    into = io.BytesIO()
    Image.new("RGB", (width, height), "navy").save(into, kind)
    return SimpleUploadedFile(f"a.{kind.lower()}", into.getvalue())


class Days(SimpleTestCase):
    def test_each_form_says_which_is_the_month(self):
        fifth = dt.date(2026, 11, 5)
        written = [days.written(fifth, form) for form in days.DateForm]
        self.assertEqual(written, ["5 Nov 2026", "Nov 5, 2026", "2026-11-05", "05.11.2026"])

    def test_a_moment_kept_in_utc_is_in_the_zone_of_the_works_one_of_a_clock_as_it_showed_it(self):
        with timezone.override("Europe/Lisbon"):  # an hour ahead of UTC until the last Sunday of October
            self.assertEqual(days.moment("2026-10-24T23:30:00+00:00"), "25 Oct 2026 00:30 (+01:00)")
            self.assertEqual(days.moment("2026-10-25T23:30:00+00:00"), "25 Oct 2026 23:30")
            self.assertEqual(days.moment("2026-10-24T23:30:00-05:00"), "24 Oct 2026 23:30 (-05:00)")


class Settings(Works):
    def setUp(self):
        media = tempfile.TemporaryDirectory()
        self.addCleanup(media.cleanup)
        self.enterContext(override_settings(MEDIA_ROOT=media.name))

    def keep(self, **changes):
        return services.keep_settings(self.lena, KeepSettings(**changes), Entry())

    def test_what_is_left_out_stays_and_what_cannot_be_is_refused(self):
        self.keep(name="Wold Pump Room", address=" Mill Lane 4 \n\n Wold ", currency="EUR", abandoned_days="30")
        self.keep(paper="Letter")
        kept = works_settings()
        self.assertEqual((kept.name, kept.address, kept.paper), ("Wold Pump Room", "Mill Lane 4\nWold", "Letter"))
        for wrong, field in (
            ({"time_zone": "Mars/North"}, "time zone"),
            ({"currency": "5"}, "currency"),
            ({"idle_days": "0"}, "signed in without use"),
            ({"abandoned_days": "4000"}, "photographs of abandoned jobs"),
        ):
            with self.subTest(wrong), self.assertRaises(FieldError) as caught:
                self.keep(**wrong)
            self.assertEqual(caught.exception.field, field)
        self.keep(abandoned_days="")
        self.assertIsNone(works_settings().abandoned_days)

    def test_a_sheet_that_does_not_say_takes_school_and_currency_of_the_works_for_good(self):
        catalogue = {"parts": [{"number": "1", "name": "Pin", "price": 3.5, "renews": ["idler_pin"]}]}
        with self.assertRaises(FieldError) as caught:
            add_revision(self.lena, SheetFile(json.dumps(sheet_data(slug="a", catalogue=catalogue))))
        self.assertIn("catalogue.currency", caught.exception.field)
        self.keep(school="plain", currency="EUR")
        silent = add_revision(self.lena, SheetFile(json.dumps(sheet_data(slug="a", catalogue=catalogue)))).content
        said = sheet_data(slug="b", catalogue=catalogue | {"currency": "SEK"}, school="guarded")
        spoken = add_revision(self.lena, SheetFile(json.dumps(said))).content
        self.keep(school="guarded", currency="USD")
        for content, school, currency in ((silent, "plain", "EUR"), (spoken, "guarded", "SEK")):
            self.assertEqual((content["school"], content["catalogue"]["currency"]), (school, currency))

    def test_the_picture_is_small_and_that_of_before_stays(self):
        first = services.keep_logo(self.lena, KeepLogo(picture(3000, 1000))).logo
        with Image.open(io.BytesIO(present().picture)) as small:
            self.assertEqual((small.size, small.format), ((600, 200), "PNG"))
        second = services.keep_logo(self.lena, KeepLogo(picture(40, 40))).logo
        self.assertNotEqual(first, second)
        for wrong in (SimpleUploadedFile("a.png", b"%PDF-1.7"), SimpleUploadedFile("a.png", b"x" * 1_100_000)):
            with self.assertRaises(FieldError) as caught:
                services.keep_logo(self.lena, KeepLogo(wrong))
            self.assertEqual(caught.exception.field, "logo")
        self.assertEqual(works_settings().logo, second)
        services.remove_logo(self.lena)
        self.assertEqual(present(), Letterhead())

    def test_photographs_of_a_job_abandoned_long_ago_go_and_its_log_says_so(self):
        self.keep(abandoned_days="30")
        now = timezone.now()
        ages = {}
        for age, ended in ((31, "abandoned"), (29, "abandoned"), (400, "signed"), (400, "")):
            job = self.row(self.open())
            Job.objects.filter(pk=job.pk).update(ended=ended)
            at = now - dt.timedelta(days=age)
            if ended == "abandoned":
                Abandonment.objects.create(id=uuid.uuid4(), job=job, reason="r", by=self.tom, at=at)
            Photo.objects.create(id=uuid.uuid4(), job=job, step="isolate", width=1, height=1, by=self.tom, at=at)
            ages[job.pk] = (age, ended)
        with self.captureOnCommitCallbacks(execute=True):
            self.assertEqual((let_go(), let_go()), (1, 0))
        gone = set(ages) - set(Photo.objects.values_list("job", flat=True))
        self.assertEqual([ages[pk] for pk in gone], [(31, "abandoned")])
        last = Event.objects.filter(job__in=gone).order_by("version").last()
        self.assertEqual((last.by, last.what[:24]), (self.lena, "Photographs deleted, 1: "))

    def test_without_a_number_of_days_nothing_goes(self):
        job = self.row(self.open())
        Job.objects.filter(pk=job.pk).update(ended="abandoned")
        Abandonment.objects.create(id=uuid.uuid4(), job=job, reason="r", by=self.tom, at=timezone.now() - dt.timedelta(days=9999))
        Photo.objects.create(id=uuid.uuid4(), job=job, step="isolate", width=1, height=1, by=self.tom, at=timezone.now())
        self.keep(name="x")
        self.assertEqual((let_go(), Photo.objects.count()), (0, 1))

    def test_a_signed_report_keeps_its_heading_on_whatever_paper(self):
        self.keep(name="Wold Pump Room", address="Mill Lane 4", date_form="iso", time_zone="Europe/Lisbon")
        logo = services.keep_logo(self.lena, KeepLogo(picture(60, 20))).logo
        number = self.finished()
        services_of_jobs.sign_off(self.seen(number), Sign(uuid.uuid4()))
        self.keep(name="Fenn Works", paper="Letter")
        services.remove_logo(self.lena)
        page = self.printed(f"/api/jobs/{number}/report.pdf")
        self.assertIn("Wold Pump Room", page.extract_text())
        with timezone.override("Europe/Lisbon"):
            self.assertIn(f"{timezone.localdate():%Y-%m-%d}", page.extract_text())
        self.assertNotIn("Fenn Works", page.extract_text())
        self.assertEqual(len(page.images), 1)
        self.assertEqual([round(float(side)) for side in page.mediabox[2:]], [612, 792])  # 8.5 by 11 in at 72 to the inch
        self.assertEqual(Job.objects.get(number=number).sign_off.shown()["works"]["logo"], logo)
        page = self.printed(f"/api/jobs/{self.open('G-1')}/report.pdf")
        self.assertIn("Fenn Works", page.extract_text())
        self.assertEqual(len(page.images), 0)

    def printed(self, address):
        self.client.force_login(self.tom)
        return PdfReader(io.BytesIO(self.client.get(address).content)).pages[0]

    def test_days_on_screen_are_those_of_the_works_and_no_other_request(self):
        self.keep(date_form="dotted", time_zone="Pacific/Auckland")
        late = "2026-11-04T23:30:00+00:00"
        asked = RequestFactory().get("/api/me")
        asked.session = {}
        told = AsTheWorks(lambda _: HttpResponse(days.moment(late)))(asked)
        self.assertEqual(told.content.decode(), "05.11.2026 12:30 (+13:00)")  # New Zealand is 13 h ahead in its summer
        self.assertEqual(timezone.get_current_timezone_name(), "UTC")

    def test_a_session_in_use_runs_on_from_day_to_day(self):
        self.keep(idle_days="3")
        self.client.force_login(self.tom)
        self.client.get("/api/me")
        left = self.client.session.get_expiry_date() - timezone.now()
        self.assertEqual(round(left.total_seconds() / 86_400), 3)

    def test_each_is_kept_as_it_is_sent(self):
        self.client.force_login(self.lena)
        sent = {
            "name": "Wold Pump Room", "address": "Mill Lane 4", "lengths": "thou", "decimal_mark": "comma", "date_form": "iso",
            "paper": "Letter", "time_zone": "Europe/Lisbon", "currency": "EUR", "school": "plain", "new_share": "12,5",
            "photo_side": "1200", "abandoned_days": "90", "idle_days": "7",
        }  # fmt: skip
        entered = {"unit": "mm", "mark": "comma", "person": "lena"}
        told = self.client.put("/api/settings", sent | entered, "application/json").json()
        self.assertEqual({name: told[name] for name in sent}, sent | {"new_share": "12.5"})
        lengths = next(one for one in told["units"] if one["key"] == "length")
        self.assertEqual(lengths, {"key": "length", "mm": "mm", "inches": "in", "thou": "thou"})

    def test_only_a_lead_changes_them(self):
        self.client.force_login(self.tom)
        entered = {"unit": "mm", "mark": "point", "person": "tom", "name": "x"}
        self.assertEqual(self.client.put("/api/settings", entered, "application/json").status_code, 403)
        self.assertEqual(self.client.delete("/api/settings/logo").status_code, 403)
