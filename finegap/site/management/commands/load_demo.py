"""Load the invented works from ``demo/``, through the same services the application uses."""

from __future__ import annotations

import datetime as dt
import json
import uuid
from typing import Any
from unittest import mock

from django.conf import settings
from django.contrib.auth.hashers import make_password
from django.contrib.auth.models import Group, User
from django.core.management.base import BaseCommand
from django.db import transaction
from django.utils import timezone

from finegap.api.roles import ROLES
from finegap.audit.who import acting
from finegap.bench import changes
from finegap.bench import services as bench
from finegap.bench.models import Job
from finegap.bench.records import Records
from finegap.bench.records import load as load_job
from finegap.bench.services import talking
from finegap.core.entry import Entry
from finegap.core.families.steps import Stage, Task
from finegap.core.formatting import Units
from finegap.core.gap.viscosity import AS_WRITTEN
from finegap.core.job import assess
from finegap.core.job_record import Decided, Phase
from finegap.core.quantities import parse
from finegap.core.tasks.end_play import EndPlayTask
from finegap.core.tasks.first_hour import FirstHourTask
from finegap.core.tasks.run_in import RunInTask
from finegap.core.tasks.stack import StackTask
from finegap.core.tasks.torque import TorqueTask
from finegap.core.tasks.turning import TurningTask
from finegap.core.units import Dimension
from finegap.core.wear.hours import Counts
from finegap.core.wear.lives import Instead
from finegap.inventory.changes import CountPieces
from finegap.inventory.models import Gauge, GreaseGun
from finegap.inventory.services import count_pieces
from finegap.people.models import Pin
from finegap.pumps.changes import AddEarlier, AddPump, EarlierPart, Lubricate, MovePart, MovePump, ReadMeter, WriteNote
from finegap.pumps.history import add_earlier, move_pump
from finegap.pumps.papers import write_note
from finegap.pumps.parts import move_part
from finegap.pumps.services import add_pump, lubricate, read_meter
from finegap.sheets.changes import SheetFile
from finegap.sheets.models import Sheet, SheetRevision
from finegap.sheets.services import add_revision
from finegap.site.demo import PEOPLE, read_as_it_is
from finegap.works.changes import KeepSettings
from finegap.works.services import keep_settings

_WRENCHES = (("W-02", 9.0), ("W-08", 50.0), ("W-15", 250.0))
"""The demo's wrenches, each with the torque [N.m] up to which it is taken."""
DEMO = settings.DEMO_FOLDER


class Command(BaseCommand):
    """``manage.py load_demo``: does nothing where there is data already."""

    help = "Load the invented works from demo/, unless there is data already."

    def handle(self, *args: Any, **options: Any) -> None:
        """Load everything, or nothing."""
        if Sheet.objects.exists():
            self.stdout.write("There is data already: nothing loaded.")
            return
        with transaction.atomic(), acting("otto"):
            load(json.loads((DEMO / "works.json").read_text()))
        self.stdout.write("Loaded the demo works.")


def load(works: dict[str, Any]) -> None:
    """Load a works: people, sheets, gauges, pumps, stock, jobs."""
    people = {person["username"]: _person(**person) for person in works["people"]}
    lead = people["otto"]
    keep_settings(lead, KeepSettings(**works["settings"]), AS_WRITTEN)
    for path in sorted((DEMO / "sheets").glob("*.json")):
        _read(add_revision(lead, SheetFile(path.read_text())), people["ines"])
    for gauge in works["gauges"]:
        gauge["number"] = gauge.pop("certificate", "")
        Gauge.objects.put(**gauge)
    for gun in works["guns"]:
        GreaseGun.objects.create(**gun)
    for pump in works["pumps"]:
        add_pump(lead, AddPump(**pump | {"counts": Counts(pump.get("counts", Counts.HOURS.value))}), AS_WRITTEN)
    for line in works["stock"]:
        count_pieces(lead, CountPieces(line["sheet"], line["thickness"], line["count"]), AS_WRITTEN)
    for one in works["meter"]:
        read_meter(lead, one["pump"], ReadMeter(uuid.uuid4(), one["hours"], one["day"]), AS_WRITTEN)
    for one in works["lubricated"]:
        lubricate(lead, one["pump"], Lubricate(uuid.uuid4(), one["name"], one["hours"]), AS_WRITTEN)
    _lives(works, lead, people)
    for job in works["jobs"]:
        _Clock(dt.datetime.fromisoformat(job["opened"])).run(_Script(people[job["by"]], job))
    for one in works["job_notes"]:
        new = changes.WriteJobNote(uuid.uuid4(), one["text"], one["handover"], one["to"])
        talking.write_note(people[one["by"]], one["job"], new, AS_WRITTEN)


def _lives(works: dict[str, Any], lead: User, people: dict[str, User]) -> None:
    """What happened to pumps between jobs, and before them."""
    for one in works["earlier"]:
        parts = [EarlierPart(**part) for part in one["parts"]]
        told = {name: one[name] for name in ("day", "hours", "pressure", "speed", "source")}
        add_earlier(lead, one["pump"], AddEarlier(uuid.uuid4(), **told, parts=parts), AS_WRITTEN)
    for one in works["parts"]:
        told = {name: one[name] for name in ("part", "taker", "hours", "hours_there", "day", "note")}
        move_part(lead, one["pump"], MovePart(uuid.uuid4(), **told, instead=Instead(one["instead"])), AS_WRITTEN)
    for one in works["moves"]:
        told = {name: one[name] for name in ("to", "lent", "back", "day", "note")}
        move_pump(lead, one["pump"], MovePump(uuid.uuid4(), **told), AS_WRITTEN)
    for one in works["notes"]:
        write_note(people[one["by"]], one["pump"], WriteNote(uuid.uuid4(), one["text"]), AS_WRITTEN)


_UNREAD = "quillmarsh-q15"
"""The sheet of the demo that is still being read."""


def _read(kept: SheetRevision, reader: User) -> None:
    """A sheet is added and read on the day it is of: long before any job that goes by it."""
    kept.added_at = timezone.make_aware(dt.datetime.combine(kept.date, dt.time(9)))
    kept.typed = {"": {"by": [kept.added_by_id], "at": kept.added_at.isoformat()}}
    kept.save(update_fields=["added_at", "typed"])
    read_as_it_is(kept, reader, kept.added_at + dt.timedelta(hours=3), 9 if kept.sheet.slug == _UNREAD else None)


def _person(username: str, first_name: str, last_name: str, role: str) -> User:
    for name in ROLES:
        Group.objects.get_or_create(name=name)
    user = User(username=username, first_name=first_name, last_name=last_name)
    known = PEOPLE[username]
    user.set_password(known.password)
    user.save()
    Pin.objects.create(person=user, hashed=make_password(known.pin))
    user.groups.add(Group.objects.get(name=role))
    return user


class _Clock:
    """Lets a job of the past be recorded in the past, two minutes to an action."""

    def __init__(self, start: dt.datetime) -> None:
        self.now = start

    def tick(self) -> dt.datetime:
        self.now += dt.timedelta(seconds=50)
        return self.now

    def run(self, script: _Script) -> None:
        with mock.patch.object(timezone, "now", self.tick), acting(script.actor.username):
            script.play()


class _Script:
    """One job of the works, played through the bench's services."""

    def __init__(self, actor: User, job: dict[str, Any]) -> None:
        self.actor, self.script = actor, job
        self.number = 0

    @property
    def seen(self) -> bench.JobRef:
        version = Job.objects.get(number=self.number).version
        return bench.JobRef(self.actor, self.number, version, Entry(Units(self.script["unit"])))

    def play(self) -> None:
        script = self.script
        job = bench.open_job(
            self.actor, changes.OpenJob(script["pump"], script["reason"], str(script["hours_run"]), script.get("symptom", ""))
        )
        self.number = job.number
        if "details" in script:
            bench.set_details(self.seen, changes.SetDetails(**script["details"]))
        self._on_hand(script.get("missing", []))
        stages = [Stage(name) for name in script["stages"]]
        self._steps(job, [s for s in stages if s in (Stage.PREPARE, Stage.STRIP)])
        self._readings(script["readings"], Phase.FOUND)
        for feature in script.get("sound", []):
            bench.look_at(self.seen, changes.LookAt(uuid.uuid4(), feature, []))
        for look in script.get("damaged", []):
            bench.look_at(self.seen, changes.LookAt(uuid.uuid4(), **look))
        for decision in script.get("decisions", []):
            bench.decide(self.seen, changes.Decide(uuid.uuid4(), **decision | {"decided": Decided(decision["decided"])}))
        self._readings(script.get("left", []), Phase.LEFT)
        if Stage.BUILD in stages:
            bench.use_at_bench(self.seen, changes.UseAtBench("mineral grease", "GG-1"))
            self._build(job, Stage.BUILD)
        if "zero" in script:
            bench.set_zero(self.seen, changes.SetZero(uuid.uuid4(), script["zero"], ""))
        self._tries(job, script.get("tries", []))
        if Stage.PROVE in stages:
            self._build(job, Stage.SET)
            self._prove()
            self._build(job, Stage.PROVE)
        if script.get("sign"):
            reason = script["sign"] if isinstance(script["sign"], str) else ""
            bench.sign_off(self.seen, changes.Sign(uuid.uuid4(), reason=reason))

    def _loaded(self) -> Records:
        return load_job(Job.objects.select_related("pump", "revision__sheet", "procedure", "gun").get(number=self.number))

    def _on_hand(self, missing: list[str]) -> None:
        """Everything the job needs is on hand, but for what is missing."""
        wanted = [item for item, _ in assess(self._loaded().job_record).needs if item not in missing]
        bench.say_on_hand(self.seen, changes.SayOnHand(uuid.uuid4(), wanted, here=True))
        if missing:
            bench.say_on_hand(self.seen, changes.SayOnHand(uuid.uuid4(), missing, here=False))

    def _tries(self, job: Job, tries: list[dict[str, Any]]) -> None:
        """Tries at the gap; before one that changes nothing, what was opened is put together again."""
        before = None
        for one in tries:
            stacks = [[round(parse(t, Dimension.LENGTH, "stack").value * 1000) for t in of] for of in one.get("stacks", [])]
            if stacks and stacks == before:
                self._build(job, Stage.SET)
            before = stacks
            checks = [changes.CheckGap(**check) for check in one["checks"]]
            sets = changes.TryOf(one.get("sets", "gap"))
            given = {name: one[name] for name in ("moved", "way", "opened") if name in one}
            bench.record_try(self.seen, changes.RecordTry(uuid.uuid4(), checks, stacks_um=stacks, trial=True, sets=sets, **given))

    def _prove(self) -> None:
        """What the steps of Prove are done with."""
        job_record = self._loaded().job_record
        at = {task.kind: step.key for step in job_record.family.steps for task in step.tasks}
        if EndPlayTask.kind in at:
            bench.see(self.seen, changes.SeeProof(uuid.uuid4(), at[EndPlayTask.kind], EndPlayTask.kind, "0.01 mm"))
        if RunInTask.kind in at:
            for note in self.script.get("run_in", [{"drops": "8", "box": "40 C"}]):
                bench.note_run_in(self.seen, changes.NoteRunIn(uuid.uuid4(), **note))
        if FirstHourTask.kind in at:
            bench.see(self.seen, changes.SeeProof(uuid.uuid4(), at[FirstHourTask.kind], "noise", "even"))

    def _build(self, job: Job, stage: Stage) -> None:
        """Stacks part by part, torques pass by pass, then the steps, of what is done at a stage."""
        job_record = self._loaded().job_record
        wanted = {task for step in job_record.family.steps_of(stage) for task in step.tasks}
        tasks = assess(job_record).tasks
        for place, stack in tasks.of_kind(StackTask).items():
            for part in stack.state.stack.parts if Task("stack", place) in wanted else ():
                if part.key not in stack.state.fitted:
                    bench.fit_part(self.seen, changes.FitPart(uuid.uuid4(), place, part.key, confirmed=True))
        for key, task in tasks.of_kind(TorqueTask).items():
            tightening = task.tightening
            if Task("torque", key) not in wanted or tightening.complete:
                continue
            for number in range(1, len(tightening.torque.passes) + 1):
                middle = sum(tightening.range_n_m(number)) / 2
                wrench = next(tag for tag, most in _WRENCHES if middle <= most)
                new = changes.LogTorque(uuid.uuid4(), key, number, list(tightening.order), f"{middle:.0f} N.m", wrench)
                bench.log_torque(self.seen, new)
        self._steps(job, [stage])

    def _steps(self, job: Job, stages: list[Stage]) -> None:
        job_record = self._loaded().job_record
        done = job_record.steps_done
        for step in job_record.family.steps:
            if step.stage in stages and step.key not in done:
                if step.has(TurningTask.kind):
                    bench.see(self.seen, changes.SeeProof(uuid.uuid4(), step.key, TurningTask.kind))
                bench.mark_step(
                    self.seen, changes.MarkStep(uuid.uuid4(), step.key, skip=self.script.get("skip", {}).get(step.key, ""))
                )

    def _readings(self, groups: list[dict[str, Any]], phase: Phase) -> None:
        for group in groups:
            for station, values in group["values"].items():
                for typed in values:
                    new = changes.RecordReading(uuid.uuid4(), group["feature"], station, typed, group["gauge"], phase)
                    bench.record_reading(self.seen, new)
