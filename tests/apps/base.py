"""A small works for tests: people, one housing pump and one gasket pump, gauges, stock. Numbers of no meaning."""

from __future__ import annotations

import io
import json
import uuid
from typing import Any

from django.contrib.auth.hashers import make_password
from django.contrib.auth.models import Group, User
from django.test import Client, TestCase, override_settings
from django.utils import timezone
from pypdf import PdfReader

from finegap.api.plain import plain
from finegap.api.roles import LEAD, ROLES, TECHNICIAN
from finegap.bench import changes, queries, services
from finegap.bench.models import Job
from finegap.bench.presenters.job import job_response
from finegap.bench.records import load
from finegap.core.entry import Entry
from finegap.core.families.family import Family
from finegap.core.families.features import FeatureKind
from finegap.core.families.steps import Stage
from finegap.core.formatting import Units
from finegap.core.job import assess
from finegap.core.job_record import Phase
from finegap.core.tasks.end_play import EndPlayTask
from finegap.core.tasks.first_hour import FirstHourTask
from finegap.core.tasks.run_in import RunInTask
from finegap.core.tasks.stack import StackTask
from finegap.core.tasks.torque import TorqueTask
from finegap.core.tasks.turning import TurningTask
from finegap.due.services import catch_up, work_out
from finegap.fleet import life
from finegap.fleet import page as one_pump
from finegap.fleet import queries as fleet
from finegap.formats import report
from finegap.inventory.changes import CountPieces
from finegap.inventory.models import Gauge
from finegap.inventory.services import count_pieces
from finegap.people.models import Pin
from finegap.pumps.changes import AddPump
from finegap.pumps.models import Pump
from finegap.pumps.services import add_pump
from finegap.sheets.changes import SheetFile
from finegap.sheets.models import SheetRevision
from finegap.sheets.services import add_revision as add_unread
from finegap.site.demo import read_as_it_is

SIZES = {
    "end_clearance": {"new": ["0.10 mm", "0.20 mm"]},
    "idler_bore": {"new": ["30.02 mm", "30.04 mm"], "maximum": "30.15 mm"},
    "idler_pin": {"new": ["29.98 mm", "30.00 mm"], "minimum": "29.90 mm"},
    "idler_clearance": {"new": ["0.02 mm", "0.06 mm"], "maximum": "0.20 mm"},
    "bushing_bore": {"new": ["40.05 mm", "40.08 mm"], "maximum": "40.20 mm"},
    "shaft_at_bushing": {"new": ["39.98 mm", "40.00 mm"], "minimum": "39.90 mm"},
    "shaft_clearance": {"new": ["0.05 mm", "0.10 mm"], "maximum": "0.30 mm"},
}
HOUSING = {"means": "housing", "outside_diameter": "100 mm", "lead": "2 mm", "arc": "1.57 mm", "for_clearance": "0.01 mm"}
GASKETS = {"means": "gaskets", "thicknesses": ["0.05 mm", "0.10 mm", "0.25 mm"], "starting_gasket": "0.25 mm"}


def sheet_data(**changes: Any) -> dict[str, Any]:
    """A sheet that is right, with changes."""
    return {
        "format": "fine-gap/spec-sheet",
        "version": 1,
        "slug": "test-pump",
        "title": "Test pump",
        "maker": "Nobody",
        "model": "T1",
        "revision": "1",
        "date": "2024-01-02",
        "source": "made up",
        "family": "internal_gear",
        "features": SIZES,
        "clearance_table": {
            "page": "1",
            "tolerance": {"minus": "0.02 mm", "plus": "0.02 mm"},
            "rows": [
                {
                    "setting": "thin",
                    "material": "cast iron",
                    "viscosity": ["any lower", "100 mm2/s"],
                    "temperature": ["-20 C", "120 C"],
                    "end_clearance": "0.12 mm",
                },
                {
                    "setting": "thick",
                    "material": "cast iron",
                    "viscosity": ["90 mm2/s", "and up"],
                    "temperature": ["-20 C", "120 C"],
                    "end_clearance": "0.20 mm",
                },
            ],
        },
        "adjustment": HOUSING,
        "torques": [
            {"fastener": "Lock nut", "torque": ["80 N.m", "90 N.m"], "condition": "dry"},
            {"fastener": "Head bolts", "torque": ["40 N.m", "44 N.m"], "condition": "oiled", "thread": "M10", "count": 4},
        ],
        "heat": {"thrust_to_head": "150 mm", "casing": "cast iron", "rotor": "steel"},
        "details": {"elastomer": "FKM"},
    } | changes


def feeler(goes: str, stops: str, gauge: str = "") -> changes.CheckGap:
    """A check by feeler: this leaf goes, the next does not."""
    return changes.CheckGap(goes=goes, stops=stops, gauge=gauge)


def text_of(record: dict[str, Any]) -> str:
    """What the pages of a report say."""
    return "\n".join(page.extract_text() for page in PdfReader(io.BytesIO(report.as_pdf(record))).pages)


PIN = "2708"
SYSTEMS = (Units.MM, Units.IN)
"""What a record keeps of every number."""


def person(name: str, role: str | None) -> User:
    """An account, with a role or without."""
    user = User.objects.create(username=name, first_name=name.title())
    if role:
        user.groups.add(Group.objects.get_or_create(name=role)[0])
    return user


def add_revision(lead: User, file: SheetFile) -> SheetRevision:
    """A revision that somebody else has read against the manual."""
    kept = add_unread(lead, file)
    if not kept.read_at:
        reader = User.objects.exclude(pk=lead.pk).first() or lead
        read_as_it_is(kept, reader, timezone.now())
    return kept


def furnish() -> None:
    """Fill an empty database with the test works."""
    for role in ROLES:
        Group.objects.get_or_create(name=role)
    lead, technician = person("lena", LEAD), person("tom", TECHNICIAN)
    Pin.objects.bulk_create(Pin(person=one, hashed=make_password(PIN)) for one in (lead, technician))
    add_revision(lead, SheetFile(json.dumps(sheet_data())))
    gaskets = sheet_data(slug="gasket-pump", title="Gasket pump", adjustment=GASKETS, build={"seal": "mechanical"})
    add_revision(lead, SheetFile(json.dumps(gaskets)))
    for tag, kind, low, high, due in (
        ("M-1", "outside micrometer", 25, 50, "2999-01-01"),
        ("B-1", "bore gauge", 18, 50, "2999-01-01"),
        ("F-1", "feeler set", 0.03, 1, "2999-01-01"),
        ("OLD", "caliper", 0, 150, "2001-01-01"),
        ("W-1", "torque wrench", 10, 250, "2999-01-01"),
    ):
        Gauge.objects.put(
            tag, kind, low=low, high=high, resolution=0.001, expanded=0.002, k=2,
            repeatability=0.001, calibrated="2000-01-01", due=due,
        )  # fmt: skip
    duty = {"viscosity": "50 mm2/s", "temperature": "60 C", "pressure": "5 bar", "speed": "300"}
    for tag, serial, sheet in (("H-1", "1001", "test-pump"), ("G-1", "1002", "gasket-pump")):
        add_pump(
            lead, AddPump(tag, "test", "here", serial, sheet, "cast iron", "oil", medium="mineral oil", **duty), Entry(meant=True)
        )
    for thickness, count in (("0.05 mm", 6), ("0.10 mm", 4), ("0.25 mm", 2)):
        count_pieces(lead, CountPieces("gasket-pump", thickness, count), Entry())


GOOD = {
    "end_clearance": 0.18,
    "idler_bore": 30.06,
    "idler_pin": 29.97,
    "bushing_bore": 40.10,
    "shaft_at_bushing": 39.97,
}


QUICK_HASHES = {"PASSWORD_HASHERS": ["django.contrib.auth.hashers.MD5PasswordHasher"]}
"""A hash takes long by design, and tests sign often."""


TURNING, END_PLAY, RUN_IN, FIRST_HOUR = TurningTask.kind, EndPlayTask.kind, RunInTask.kind, FirstHourTask.kind


class Answer(dict):
    """A job as the API answers it, in one unit system; its fields are attributes, too."""

    def __getattr__(self, name):
        try:
            return self[name]
        except KeyError:
            raise AttributeError(name) from None


def seen(value):
    """Every dict in an answer as attributes."""
    if isinstance(value, list):
        return [seen(one) for one in value]
    return Answer({key: seen(one) for key, one in value.items()}) if isinstance(value, dict) else value


def pump_page(tag, units):
    """A pump's page."""
    work_out(tag)
    page = one_pump.pump_page(tag)
    return page and seen(plain(page, units))


def pump_lines(units):
    """Every pump, a line each, as it stands."""
    catch_up()
    return seen(plain(fleet.pump_lines(list(fleet.pumps())), units))


def shown(job):
    """A job's records, and what they show."""
    records = load(job)
    return records, job_response(records)


def overhauls(tag, units):
    """The signed overhauls of a pump, the newest first."""
    return seen(plain(life.overhauls_of(Pump.objects.select_related("sheet").get(tag=tag), 1)[0], units))


def job_view(number, units):
    """What the bench shows of a job."""
    return seen(plain(queries.job_view(number), units))


@override_settings(**QUICK_HASHES)
class Works(TestCase):
    """The test works, with helpers that act as the technician Tom unless told otherwise."""

    @classmethod
    def setUpTestData(cls) -> None:
        furnish()
        cls.tom, cls.lena = User.objects.get(username="tom"), User.objects.get(username="lena")

    def open(self, pump: str = "H-1") -> int:
        return services.open_job(self.tom, changes.OpenJob(pump, "test", "14 380")).number

    def seen(self, number: int, actor: User | None = None, entry: Entry | None = None) -> services.JobRef:
        return services.JobRef(actor or self.tom, number, Job.objects.get(number=number).version, entry or Entry())

    def meant(self, number: int, actor: User | None = None) -> services.JobRef:
        """As ``seen``, by somebody who has said that the odd is meant."""
        return self.seen(number, actor, Entry(meant=True))

    def read(self, number: int, feature: str, station: str, typed: str, gauge: str = "", **more: Any) -> uuid.UUID:
        gauge = gauge or ("F-1" if feature == "end_clearance" else "M-1")
        entry = Entry(meant=more.pop("meant", False))
        phase = Phase(more.pop("phase", Phase.FOUND))
        reading = changes.RecordReading(uuid.uuid4(), feature, station, typed, gauge, phase, **more)
        services.record_reading(self.seen(number, entry=entry), reading)
        return reading.id

    def build(self, number: int) -> None:
        """Every stack part by part, every torque pass by pass."""
        services.use_at_bench(self.seen(number), changes.UseAtBench("mineral grease"))
        tasks = assess(load(self.row(number)).job_record).tasks
        for place, task in tasks.of_kind(StackTask).items():
            for part in [p for p in task.state.stack.parts if p.key not in task.state.fitted]:
                services.fit_part(
                    self.seen(number), changes.FitPart(uuid.uuid4(), place, part.key, confirmed=True, reason="the maker was asked")
                )
        for key in tasks.of_kind(TorqueTask):
            self.tighten(number, key)

    def tighten(self, number: int, key: str) -> None:
        """All passes of a fastener, in the middle of their range."""
        one = assess(load(self.row(number)).job_record).tasks.of_kind(TorqueTask)[key].tightening
        for n in range(one.pass_number or len(one.torque.passes) + 1, len(one.torque.passes) + 1):
            middle = sum(one.range_n_m(n)) / 2
            wrench = next(g.tag for g in Gauge.objects.filter(kind="torque wrench") if g.now.low <= middle <= g.now.high)
            new = changes.LogTorque(uuid.uuid4(), key, n, list(one.order), f"{middle:.3f} N.m", wrench)
            services.log_torque(self.seen(number), new)

    def steps(self, number: int, *stages: Stage) -> None:
        if not stages or {Stage.BUILD, Stage.PROVE} & set(stages):
            self.build(number)
        if not stages or Stage.PROVE in stages:
            self.prove(number)
        if not stages or Stage.PREPARE in stages:
            self.have_ready(number)
        done = self.done(number)
        for step in self.family(number).steps:
            if (not stages or step.stage in stages) and step.key not in done:
                services.mark_step(self.seen(number), changes.MarkStep(uuid.uuid4(), step.key))

    def done(self, number: int) -> frozenset[str]:
        return load(self.row(number)).job_record.steps_done

    def have_ready(self, number: int) -> None:
        """Everything the job needs is on hand."""
        wanted = [item for item, _ in assess(load(self.row(number)).job_record).needs]
        if wanted:
            services.say_on_hand(self.seen(number), changes.SayOnHand(uuid.uuid4(), wanted, here=True))

    def see(self, number: int, seen: str, typed: str = "", actor: User | None = None, **more: Any) -> uuid.UUID:
        """Something seen at the step that is done with it."""
        kind = seen if seen in (TURNING, END_PLAY) else FIRST_HOUR
        step = next(s.key for s in self.family(number).steps if s.has(kind))
        new = changes.SeeProof(uuid.uuid4(), step, seen, typed, **more)
        services.see(self.seen(number, actor), new)
        return new.id

    def prove(self, number: int) -> None:
        """All that the steps of Prove are done with."""
        kinds = {task.kind for step in self.family(number).steps for task in step.tasks}
        for seen, typed in ((TURNING, ""), (END_PLAY, "0.01 mm"), ("noise", "even")):
            if (seen if seen != "noise" else FIRST_HOUR) in kinds:
                self.see(number, seen, typed)
        if RUN_IN in kinds:
            services.note_run_in(self.seen(number), changes.NoteRunIn(uuid.uuid4(), drops="5", box="30 C"))

    def strike(self, number: int, kind: str, record: uuid.UUID, reason: str = "a slip", actor: User | None = None) -> None:
        services.strike(self.seen(number, actor), changes.StrikeOut(changes.Struck(kind), record, reason))

    def measure_all(self, number: int, sizes: dict[str, float] = GOOD, phase: Phase = Phase.FOUND) -> None:
        family = self.family(number)
        for key, size in sizes.items():
            for station in family.by_key[key].stations:
                self.read(number, key, station.key, f"{size:.3f} mm", phase=phase)

    def look_all(self, number: int) -> None:
        """Everything that is looked at, and not measured, is sound."""
        for feature in self.family(number).features:
            if feature.kind is FeatureKind.CHECK:
                services.look_at(self.seen(number), changes.LookAt(uuid.uuid4(), feature.key, []))

    def row(self, number: int) -> Job:
        return Job.objects.select_related("pump", "revision__sheet", "procedure", "gun").get(number=number)

    def family(self, number: int) -> Family:
        """The family as this pump is built, with the steps this job needs."""
        return load(self.row(number)).job_record.family

    def set_housing(self, number: int, arc: str = "18.85 mm", goes: str = "0.11", stops: str = "0.13") -> None:
        services.set_zero(self.seen(number), changes.SetZero(uuid.uuid4(), "close to first drag", ""))
        services.record_try(self.seen(number), changes.RecordTry(uuid.uuid4(), moved=arc, way="open", checks=[feeler(goes, stops)]))

    def finished(self, pump: str = "H-1") -> int:
        """A job with nothing open."""
        number = self.open(pump)
        self.measure_all(number)
        self.look_all(number)
        self.together(number)
        return number

    def together(self, number: int) -> None:
        """Put together, set and proved, in that order."""
        self.steps(number, Stage.PREPARE, Stage.STRIP, Stage.BUILD)
        self.set_housing(number)
        self.steps(number, Stage.SET)
        self.steps(number, Stage.PROVE)


class Asking(Works):
    """The test works, asked over HTTP by Tom."""

    def setUp(self) -> None:
        self.client = Client()
        self.client.force_login(self.tom)

    def get(self, address: str, status: int = 200) -> Any:
        """What is answered, with the status that is expected."""
        answered = self.client.get(address)
        self.assertEqual(answered.status_code, status, answered.content[:300])
        return answered
