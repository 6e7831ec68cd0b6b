"""What a page is sent of a job: the sections it does not hold, small whatever the cabinet; together they are the whole job."""

import gzip
import json
import uuid

from django.utils import timezone

from finegap.api import sections
from finegap.bench import changes, services
from finegap.core.families.steps import Stage
from finegap.core.job_record import Decided
from finegap.inventory.models import Gauge
from tests.apps.base import PIN, Works

WORKING = {"title", "formula", "given", "result", "source", "notes"}
KEYS = {"features": "key", "steps": "key", "tasks": "key", "log": "version"}


def placed(value, at):
    """A job, or a part of it, with its workings as the bench has them, and each working by its place."""
    workings = {}

    def walk(value, at, key=""):
        if isinstance(value, list):
            return [walk(one, f"{at}/{one[key] if key else i}") for i, one in enumerate(value)]
        if not isinstance(value, dict):
            return value
        if value.keys() == WORKING:
            workings[at] = value
            return {"title": value["title"], "at": at}
        return {name: walk(one, f"{at}/{name}") for name, one in value.items()}

    return {name: walk(one, f"{at}/{name}", KEYS.get(name, "")) for name, one in value.items()}, workings


class Page:
    """A page in one unit: it holds sections, and puts a job together of them."""

    def __init__(self, case, number, unit="mm"):
        self.case, self.unit, self.address = case, unit, f"/api/jobs/{number}"
        self.held = {}

    @property
    def headers(self):
        return {"Held": ",".join(tag for tag, _ in self.held.values()), "accept-encoding": "gzip"}

    def take(self, answer):
        self.case.assertEqual(answer.status_code, 200, answer.content[:300])
        body = gzip.decompress(answer.content) if answer.get("Content-Encoding") == "gzip" else answer.content
        sent = json.loads(body)["sections"]
        self.held |= {name: (one["tag"], one["value"]) for name, one in sent.items()}
        return len(body), len(answer.content), sent

    def ask(self):
        return self.take(self.case.client.get(f"{self.address}?unit={self.unit}", headers=self.headers))

    def change(self, kind, version, **body):
        body = {"version": version, "unit": self.unit, "mark": "point", "person": "tom", "at": timezone.now().isoformat(), **body}
        address = f"{self.address}/{kind}?unit={self.unit}"
        return self.take(self.case.client.post(address, json.dumps(body), "application/json", headers=self.headers))

    @property
    def job(self):
        values = {name: value for name, (_, value) in self.held.items()}
        job = {**values["self"], **{name: value for name, value in values.items() if "/" not in name and name != "self"}}
        for name, value in values.items():
            of, _, key = name.partition("/")
            if of == "lists":
                job[key] = [{"at": f"{key}/{one}"} for one in value]
        for entries in [job[name] for name in KEYS]:
            for entry in entries:
                at = entry.pop("at")
                entry |= values[at] | {name.removeprefix(f"{at}/"): v for name, v in values.items() if name.startswith(f"{at}/")}
        return job


class Sections(Works):
    def setUp(self):
        self.client.force_login(self.tom)
        sections._written.clear()

    def agrees(self, *pages):
        """Each page, asked for what it does not hold, is the whole job."""
        for page in pages:
            page.ask()
            whole, workings = placed(self.client.get(f"{page.address}?unit={page.unit}").json(), f"{page.address}/workings")
            self.assertEqual(page.job, whole)
            self.assertEqual(page.ask()[2], {})
        return workings

    def are_found(self, workings, unit):
        self.assertGreater(len(workings), 10)
        for at, working in workings.items():
            self.assertEqual(self.client.get(f"{at}?unit={unit}").json(), working, at)

    def test_they_are_the_whole_job_at_every_stage_of_it(self):
        number = self.open()
        pages = Page(self, number), Page(self, number, "in")
        self.agrees(*pages)
        self.measure_all(number)
        self.look_all(number)
        self.agrees(*pages)
        # no row of the table for it: what there was to set is there no more, and comes back
        for temperature, is_set in (("180 C", False), ("60 C", True)):
            services.set_details(self.meant(number), changes.SetDetails(temperature=temperature))
            self.agrees(*pages)
            self.assertEqual(pages[0].job["setting"] is not None, is_set)
        services.decide(self.seen(number), changes.Decide(uuid.uuid4(), "idler_clearance", Decided.CHANGE, "x", ["idler_bore"]))
        self.agrees(*pages)
        sections._written.clear()  # another worker
        self.steps(number, Stage.PREPARE, Stage.STRIP)
        self.build(number)
        self.set_housing(number)
        self.are_found(self.agrees(*pages), "in")
        services.abandon(self.seen(number), changes.Abandon(uuid.uuid4(), "x"))
        self.agrees(*pages)

    def test_of_a_signed_job_too(self):
        number = self.finished()
        pages = Page(self, number), Page(self, number, "in")
        self.agrees(*pages)
        services.sign_off(self.seen(number), changes.Sign(uuid.uuid4(), PIN))
        self.agrees(*pages)
        self.are_found(self.agrees(*pages), "in")

    def test_what_is_not_known_as_held_is_sent(self):
        page = Page(self, self.open())
        page.ask()
        every = set(page.held)
        page.held = {"self": ("AAAAAAAA", 0), "explained": ("", 0), "nonsense": ("é", 0)}
        self.assertEqual(set(page.ask()[2]), every)

    def test_a_change_is_answered_in_15_kb_and_4_packed_whatever_the_cabinet(self):
        for i in range(300):
            Gauge.objects.put(
                f"X-{i}", "outside micrometer", low=25 * (i % 8), high=25 * (i % 8) + 25, resolution=0.001, expanded=0.002, k=2,
                repeatability=0.001, calibrated="2000-01-01", due="2999-01-01",
            )  # fmt: skip
        number = self.open()
        self.measure_all(number)
        page = Page(self, number)
        page.ask()

        def change(kind, **body):
            size, packed, _ = page.change(kind, page.job["version"], id=str(uuid.uuid4()), **body)
            self.assertLessEqual(size, 15_000, kind)
            self.assertLessEqual(packed, 4_000, kind)

        change("readings", feature="idler_bore", station="front/12–6", typed="30.05", gauge="B-1")
        change("steps", step="identify")
        change("decisions", feature="idler_clearance", decided="change", reason="x", parts=["idler_bore"])
        self.steps(number, Stage.PREPARE, Stage.STRIP)
        page.ask()
        change("parts", stack="seal", part="retainer", confirmed=True)

    def test_a_gauge_that_is_not_likely_in_hand_is_asked_for_and_no_other_is_made_for_it(self):
        number = self.open()
        feature = next(f for f in self.client.get(f"/api/jobs/{number}").json()["features"] if f["key"] == "idler_pin")
        self.assertEqual(feature["made"], ["M-1", "OLD"])
        self.assertEqual([fit["tag"] for fit in feature["fits"]], ["M-1"])
        address = f"/api/jobs/{number}/fits/idler_pin"
        self.assertEqual(self.client.get(f"{address}/M-1").json(), feature["fits"][0])
        self.assertIn("In doubt within", self.client.get(f"{address}/OLD").json()["sentence"])
        for wrong in (f"{address}/B-1", f"/api/jobs/{number}/fits/nothing/M-1", "/api/jobs/99/fits/idler_pin/M-1"):
            self.assertEqual(self.client.get(wrong).status_code, 404)

    def test_a_place_without_a_working_is_not_found(self):
        number = self.open()
        for place in (
            "features",
            "features/idler_bore",
            "choice/working/title",
            "log/0",
            "tasks/nothing/lines/0/working",
            "a//b",
            "0",
        ):
            self.assertEqual(self.client.get(f"/api/jobs/{number}/workings/{place}").status_code, 404, place)
        self.assertEqual(self.client.get(f"/api/jobs/{number}/workings/choice/working").status_code, 200)
