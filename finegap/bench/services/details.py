"""What has to be known of a job before the pump is opened."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping

from django.utils import timezone

from finegap.bench.changes import SetDetails
from finegap.bench.models import Job
from finegap.bench.records import build_of, family_of, sheet_of
from finegap.bench.services.changing import JobInHand, changes
from finegap.bench.services.opening import symptom_name
from finegap.core.assembly.elastomers import MEDIA
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.families.builds import NOT_KNOWN, OF_THE_JOB
from finegap.core.families.family import Family
from finegap.core.job_record import JobRecord
from finegap.core.wear.hours import check_replaced
from finegap.formats.days import written
from finegap.pumps.duty import read_maybe, settle_viscosity, usual_of
from finegap.pumps.meter import as_read, last_hours, typed_hours

PLACES = ("workshop", "site")


@changes(lambda new, now: "details")
def set_details(now: JobInHand, new: SetDetails) -> None:
    """Put right what is known of a job: all of what is given, or nothing.

    Raises
    ------
    FieldError
        A quantity that cannot be, a symptom, build or place that is none, or an old meter's last reading without the new one's.
    """
    job, entry = now.job, now.ref.entry
    if new.build:
        _check_build(now, new.build)
    before = {name: getattr(job, name) for name in _FIELDS}
    _set_texts(job, new)
    _set_chosen(job, new)
    _set_duty(job, new, entry)
    _set_hours(job, new, entry)
    changed = [name for name in _FIELDS if getattr(job, name) != before[name]]
    if not changed:
        return
    job.save(update_fields=changed)
    said = [f"{_WORDS[name]} {getattr(job, name)}" for name in changed if name in _WORDS]
    read = as_read(job.pump, new.hours_run or "") if "hours_run" in changed and new.hours_run else ""
    said += [f"the meter shows {read}"] if read else []
    now.log("Details: " + "; ".join([*said, *(_built(job, before["build"]) if "build" in changed else ())]))


def _built(job: Job, before: Mapping[str, str]) -> list[str]:
    """What the pump is built with now, in the words of the page; only what is another choice than it was."""
    was = sheet_of(job).family_of(before).build or {}
    now = family_of(job)
    return [
        f"{option.name.lower()}: {option.choices[choice]}"
        for option in now.options
        for choice in [(now.build or {}).get(option.key, "")]
        if choice in option.choices and choice != was.get(option.key)
    ]


def _set_texts(job: Job, new: SetDetails) -> None:
    """What is written freely; some of it cannot be left empty."""
    for name, needed in (("serial", True), ("liquid", True), ("reason", True), ("hazards", False), ("room", False)):
        text = getattr(new, name)
        if text is None:
            continue
        if needed and not text.strip():
            raise FieldError(name, "it cannot be left empty.", "Expected what the nameplate or the works calls it.")
        setattr(job, name, text.strip())


def _set_chosen(job: Job, new: SetDetails) -> None:
    """What is chosen from a list: the kind of liquid, the symptom, the place, the build."""
    if new.medium is not None:
        if new.medium and new.medium not in MEDIA:
            raise FieldError("kind of liquid", f"“{new.medium}” is not in the table.", f"Expected one of: {', '.join(MEDIA)}.")
        job.medium = new.medium
    if new.symptom is not None:
        symptom_name(sheet_of(job).family.symptoms, new.symptom)
        job.symptom = new.symptom
    if new.place is not None:
        if new.place not in ("", *PLACES):
            raise FieldError("place", f"“{new.place}” is neither.", f"Expected {' or '.join(PLACES)}.")
        job.place = new.place
    if new.build:
        job.build = {**job.build, **new.build}
        sheet_of(job).family_of(job.build)


def _check_build(now: JobInHand, build: Mapping[str, str]) -> None:
    """A job is not made one of another scope, nor its pump one of another build, that lacks what was done on it.

    What was opened would be shown nowhere, and its hold points would be gone.

    Raises
    ------
    FieldError
        A step done, a part fitted or a size taken that such a job does not have.
    """
    job = now.job
    other = sheet_of(job).family_of({**build_of(job), **build})
    if other.build == family_of(job).build:
        return
    record = now.before.job_record
    steps, stacks, built = {s.key for s in other.steps}, {s.key for s in other.stacks}, {one.stack for one in record.fitted}
    taken = {feature for feature, _ in (*record.readings, *record.looks)}
    if record.tries or record.mesh_tries:
        taken |= {f.key for f in record.whole.features if f.is_set}
    own = {stack.key for stack in record.sheet.building.stacks}
    marked = record.steps_done - record.skipped - steps
    done = [s.text for s in record.sheet.family.steps if s.key in marked]
    done += [stack.name for stack in record.stacks.values() if stack.key in built - stacks - own]
    done += [f.name for f in record.whole.features if f.key in taken - other.by_key.keys()]
    # What turns a gap stays shut in a job that has no step to close it again.
    for means, tries in ((record.sheet.means, record.tries), (record.sheet.mesh, record.mesh_tries)):
        if means is not None and any(made.moved for made in tries) and means.opens(record.whole) and not means.opens(other):
            done.append("The gear was turned")
    was = family_of(job).build or {}
    _check_places(record, was, other)
    if done:
        changed = next((key for key in build if (other.build or {}).get(key) != was.get(key)), OF_THE_JOB)
        problem = f"“{done[0][:80]}” was done, and is no part of that."
        raise FieldError(f"build.{changed}", problem, "Expected what has it; or take it back first.")


def _check_places(record: JobRecord, was: Mapping[str, str], other: Family) -> None:
    """Refuse another answer once sizes were taken by the one there is.

    What lay towards suction would lie towards discharge, and a third lobe measured on a pump of two would be nowhere.
    """
    build = other.build or {}
    stations = {f.key: {s.key for s in f.stations} for f in other.features}
    tried = bool(record.tries or record.mesh_tries)
    for option in record.whole.options:
        if was.get(option.key) in (None, NOT_KNOWN, build.get(option.key)):
            continue
        for (key, _), readings in record.readings.items():
            gone = any(reading.station not in stations[key] for reading in readings if key in stations)
            if gone or any(word in reading.station for reading in readings for word in option.names):
                problem = f"{record.whole.by_key[key].name} was measured by the answer there is."
                raise FieldError(f"build.{option.key}", problem, "Expected those readings struck out first.")
        for feature in record.family.features:
            if tried and feature.is_set and stations.get(feature.key) != {s.key for s in feature.stations}:
                problem = f"{feature.name} was checked by the answer there is."
                raise FieldError(f"build.{option.key}", problem, "Expected those tries struck out first.")


_WORDS = {
    "serial": "serial",
    "liquid": "liquid",
    "medium": "kind of liquid",
    "hazards": "hazards",
    "viscosity_typed": "viscosity",
    "temperature_c": "temperature [C]",
    "casing_c": "casing [C]",
    "density_kg_m3": "density [kg/m3]",
    "start_c": "coldest start [C]",
    "hot_c": "hottest running [C]",
    "pressure_bar": "pressure [bar]",
    "speed_r_min": "speed [r/min]",
    "hours_run": "hours",
    "old_meter_last": "old meter's last reading",
    "new_meter_first": "new meter began at",
    "reason": "came in for",
    "symptom": "symptom",
    "place": "place",
    "room": "room",
}
_FIELDS = (*_WORDS, "build", "viscosity_mm2_s", "viscosity_units", "viscosity_mark")


def _set_duty(job: Job, new: SetDetails, entry: Entry) -> None:
    usual = usual_of(sheet_of(job))
    if new.density is not None:
        job.density_kg_m3 = read_maybe(entry, "density", new.density, usual)
    if new.start is not None:
        job.start_c = read_maybe(entry, "start", new.start, usual)
    if new.hot is not None:
        job.hot_c = read_maybe(entry, "hot", new.hot, usual)
    if new.temperature is not None:
        follows = job.casing_c == job.temperature_c
        job.temperature_c = entry.read("temperature", new.temperature, usual.get("temperature")).value
        if follows and new.casing is None:
            job.casing_c = job.temperature_c
    if new.casing is not None:
        job.casing_c = entry.read("casing", new.casing, usual.get("casing")).value
    if new.viscosity is not None or any(v is not None for v in (new.temperature, new.density, new.start, new.hot)):
        settle_viscosity(job, new.viscosity, entry)
    if new.pressure is not None:
        job.pressure_bar = entry.read("pressure", new.pressure, usual.get("pressure")).value
    if new.speed is not None:
        job.speed_r_min = entry.read("speed", new.speed, usual.get("speed")).value


def _set_hours(job: Job, new: SetDetails, entry: Entry) -> None:
    if new.hours_run is not None:
        job.hours_run = typed_hours(job.pump, new.hours_run, "hours run", entry, labelled=False)
    if new.old_meter_last is not None:
        job.old_meter_last = typed_hours(job.pump, new.old_meter_last, "old meter's last reading", entry, labelled=False)
    if new.new_meter_first is not None:
        job.new_meter_first = typed_hours(job.pump, new.new_meter_first, "new meter's first reading", entry, labelled=False) or 0
    if all(value is None for value in (new.hours_run, new.old_meter_last, new.new_meter_first)):
        return
    before = last_hours(job.pump, timezone.localdate(job.opened_at), job.pk)
    if before is not None or job.old_meter_last is not None:
        on = written(dt.date.fromordinal(before.day)) if before else ""
        check_replaced(job.hours_run, job.old_meter_last, job.new_meter_first, before.hours if before else None, on)
