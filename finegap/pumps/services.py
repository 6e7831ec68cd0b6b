"""Changing the fleet."""

from __future__ import annotations

import datetime as dt
import uuid

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from finegap.api.errors import Conflict, Refused
from finegap.api.retry import digest
from finegap.api.roles import LEAD, role_of
from finegap.api.tags import read_tag
from finegap.core.assembly.elastomers import MEDIA
from finegap.core.entry import Entry
from finegap.core.errors import FieldError, Unlikely
from finegap.core.sheet import SpecSheet, read_sheet
from finegap.core.wear.hours import Counts, check_replaced
from finegap.formats.days import written
from finegap.pumps import meter
from finegap.pumps.changes import AddPump, EditPump, Lubricate, ReadMeter, Strike
from finegap.pumps.duty import read_maybe, settle_viscosity, usual_of
from finegap.pumps.models import Logged, Lubricated, MeterReading, Moved, Pump
from finegap.sheets.models import Sheet

METER = "hours on the meter"
"""The field of what a meter shows, in errors."""
_HOURS_OF_A_DAY = 24
_MOST_SERIALS = 20
"""So many pumps of one serial are looked at; no works has more (no source)."""


def add_pump(actor: User, new: AddPump, entry: Entry) -> Pump:
    """Add a pump to the fleet.

    Raises
    ------
    FieldError
        A quantity that cannot be, an unknown sheet, a material its clearance table does not know, a tag taken or that cannot be.
    Unlikely
        A quantity outside what is usual for pumps of this sheet.
    """
    with transaction.atomic():
        pump = Pump()
        _fill(pump, new, entry)
        pump.save()
        return pump


def edit_pump(actor: User, tag: str, new: EditPump, entry: Entry) -> Pump:
    """Put right what is kept of a pump, its tag too. A job on the bench keeps the duty it was opened with.

    Raises
    ------
    FieldError
        As for a new pump; or another sheet while the pump is on the bench.
    Conflict
        Somebody else saved it in between.
    """
    with transaction.atomic():
        pump = pump_named(tag)
        if pump.version != new.version:
            raise Conflict([f"{pump.tag} was changed since."])
        if new.sheet != pump.sheet.slug and pump.jobs.filter(ended="").exists():
            raise FieldError(
                "sheet", f"{pump.tag} is on the bench with {pump.sheet}.", "Expected the same until its job is signed or abandoned."
            )
        was = pump.location
        _fill(pump, new, entry)
        pump.version += 1
        pump.save()
        if pump.location != was:
            _put_right(actor, pump, was)
        return pump


def _put_right(actor: User, pump: Pump, was: str) -> None:
    """A place that was put right: what it was before stays on record."""
    today = timezone.localdate()
    Moved.objects.create(
        id=uuid.uuid4(), pump=pump, was=was, to=pump.location, day=today, note="put right", by=actor, at=timezone.now()
    )


def retire_pump(actor: User, tag: str, retired: bool) -> Pump:
    """Take a pump out of the fleet, or back into it. What was done on it stands.

    Raises
    ------
    FieldError
        No such pump, or one that is on the bench.
    """
    with transaction.atomic():
        pump = pump_named(tag)
        if retired and pump.jobs.filter(ended="").exists():
            raise FieldError("retired", f"{pump.tag} is on the bench.", "Expected its job signed or abandoned first.")
        if bool(pump.retired) != retired:
            pump.retired, pump.retired_by = (timezone.localdate(), actor) if retired else (None, None)
            pump.version += 1
            pump.save(update_fields=["retired", "retired_by", "version"])
    return pump


def _fill(pump: Pump, new: AddPump, entry: Entry) -> None:
    tag, was = read_tag(new.tag, "tag", "P-112"), (pump.serial, pump.sheet_id)
    if Pump.objects.filter(tag=tag).exclude(pk=pump.pk).exists():
        raise FieldError("tag", f"{tag} is taken.", "Expected a tag of its own.")
    for name in ("service", "location", "serial", "liquid"):
        text = getattr(new, name).strip()
        if not text:
            raise FieldError(name, "nothing was entered.", "Expected what the nameplate or the works calls it.")
        setattr(pump, name, text)
    spec = _set_sheet(pump, new)
    if (pump.serial, pump.sheet.pk) != was:
        _check_serial(pump, spec.maker, entry)
    usual = usual_of(spec)
    pump.tag, pump.hazards, pump.wet = tag, new.hazards.strip(), new.wet
    pump.temperature_c = entry.read("temperature", new.temperature, usual.get("temperature")).value
    casing = read_maybe(entry, "casing", new.casing, usual)
    pump.casing_c = pump.temperature_c if casing is None else casing
    pump.density_kg_m3 = read_maybe(entry, "density", new.density, usual)
    pump.start_c, pump.hot_c = read_maybe(entry, "start", new.start, usual), read_maybe(entry, "hot", new.hot, usual)
    pump.pressure_bar = entry.read("pressure", new.pressure, usual.get("pressure")).value
    pump.speed_r_min = entry.read("speed", new.speed, usual.get("speed")).value
    pump.overhaul_every_h = entry.hours(new.overhaul_every, "overhaul every", least=1)
    _set_meter(pump, new, entry)
    pump.hours_per_week = entry.number(new.hours_per_week, "hours a week", 0.1, 168) if new.hours_per_week.strip() else None
    # The same words again are not read again: unit system or decimal mark may be others than when they were typed.
    settle_viscosity(pump, None if new.viscosity.strip() == pump.viscosity_typed else new.viscosity, entry)


def _set_meter(pump: Pump, new: AddPump, entry: Entry) -> None:
    """What its meter counts; not another once it was read: those readings would come to mean something else."""
    per_hour = None
    if new.counts is not Counts.HOURS:
        per_hour = entry.number(new.per_hour, f"{new.counts.sign} an hour", 0.001, 1e6)
    elif new.per_hour.strip():
        raise FieldError("an hour of running", "the meter counts hours.", "Expected nothing here.")
    if (new.counts.value, per_hour) == (pump.counts, pump.per_hour):
        return
    if pump.pk and meter.is_read(pump):
        problem = f"the meter of {pump.tag} was read already, and those readings would mean something else."
        raise FieldError("what the meter counts", problem, "Expected its readings struck out first; those of jobs stand.")
    pump.counts, pump.per_hour = new.counts.value, per_hour


def _check_serial(pump: Pump, maker: str, entry: Entry) -> None:
    """Two pumps of one maker with one serial are asked about: it may be one pump, entered twice."""
    if entry.meant:
        return
    others = Pump.objects.filter(serial__iexact=pump.serial).exclude(pk=pump.pk).select_related("sheet")
    for other in others[:_MOST_SERIALS]:
        revision = other.sheet.revisions.first()
        if revision and revision.content.get("maker", "").casefold() == maker.casefold():
            raise Unlikely("serial", f"{other.tag} has serial {pump.serial} of {maker} already.", "Is it the same pump?")


def _set_sheet(pump: Pump, new: AddPump) -> SpecSheet:
    sheet = Sheet.objects.filter(slug=new.sheet).first()
    revision = sheet.revisions.first() if sheet else None
    if sheet is None or revision is None:
        raise FieldError("sheet", f"there is no sheet {new.sheet}.", "Expected one from Sheets.")
    spec = read_sheet(revision.content)
    spec.family_of(new.build)
    materials = list(dict.fromkeys(row.material for row in spec.rows))
    if new.material not in materials:
        known = ", ".join(materials)
        raise FieldError("material", f"the clearance table has no row for {new.material or 'it'}.", f"Expected: {known}.")
    if new.medium and new.medium not in MEDIA:
        raise FieldError("kind of liquid", f"“{new.medium}” is not in the table.", f"Expected one of: {', '.join(MEDIA)}.")
    pump.sheet, pump.material, pump.medium, pump.build = sheet, new.material, new.medium, new.build
    return spec


def read_meter(actor: User, tag: str, new: ReadMeter, entry: Entry) -> None:
    """Record the hours meter of a pump, today or on a day that is past.

    Raises
    ------
    FieldError
        No such pump, hours that are no count or less than were read before, a day that is none or still to come, or a replaced
        meter that cannot be.
    Unlikely
        More hours than have passed since the reading before.
    Conflict
        The same identity with another number.
    """
    with transaction.atomic():
        pump = pump_named(tag)
        sent = digest((tag, new), actor, entry)
        if is_retry(MeterReading.objects.filter(id=new.id).first(), sent):
            return
        count = meter.typed_hours(pump, new.hours, METER, entry)
        if count is None:
            raise FieldError(METER, "nothing was entered.", "Expected digits, such as 14380.")
        old_last = meter.typed_hours(pump, new.old_last, "old meter's last reading", entry)
        new_first = meter.typed_hours(pump, new.new_first, "new meter's first reading", entry) or 0
        on = day_of(new.day)
        _check_meter(pump, count, old_last, new_first, on, entry)
        MeterReading.objects.create(
            id=new.id,
            pump=pump,
            hours=count,
            old_last=old_last,
            new_first=new_first,
            day=on,
            read=meter.as_read(pump, new.hours),
            by=actor,
            at=timezone.now(),
            sent=sent,
        )


def _check_meter(pump: Pump, count: int, old_last: int | None, new_first: int, on: dt.date, entry: Entry) -> None:
    before = meter.last_hours(pump, on)
    after = meter.next_hours(pump, on)
    if before is None:
        check_replaced(count, old_last, new_first, None)
    else:
        since = dt.date.fromordinal(before.day)
        check_replaced(count, old_last, new_first, before.hours, written(since))
        run = count - before.hours if old_last is None else (old_last - before.hours) + (count - new_first)
        most = ((on - since).days + 1) * _HOURS_OF_A_DAY
        if run > most and not entry.meant:
            problem = f"{run:.0f} h since {written(since)} are more than the clock ran, {most} h."
            raise Unlikely(METER, problem, "Is it a digit too many?")
    if after and after.old_last is None and count > after.hours:
        read = f"{after.hours:.0f} h were read on {written(dt.date.fromordinal(after.day))}."
        raise FieldError(METER, read, "Expected no more.")


def lubricate(actor: User, tag: str, new: Lubricate, entry: Entry) -> None:
    """Record oil or grease as done, at so many hours.

    Raises
    ------
    FieldError
        No such pump, nothing of that name on its sheet, or hours that are no count.
    Unlikely
        Hours the meter has not reached by its readings.
    Conflict
        The same identity with other contents.
    """
    with transaction.atomic():
        pump = pump_named(tag)
        sent = digest((tag, new), actor, entry)
        if is_retry(Lubricated.objects.filter(id=new.id).first(), sent):
            return
        revision = pump.sheet.revisions.first()
        plans = read_sheet(revision.content).lubrication if revision else ()
        if all(plan.name != new.name for plan in plans):
            known = ", ".join(plan.name for plan in plans) or "none"
            raise FieldError("name", f"the sheet asks for no “{new.name}”.", f"Expected one of: {known}.")
        count = meter.typed_hours(pump, new.hours, METER, entry)
        if count is None:
            raise FieldError(METER, "nothing was entered.", "Expected digits, such as 14380.")
        last = meter.last_hours(pump, timezone.localdate())
        if last and not entry.meant:
            most = last.hours + (timezone.localdate().toordinal() - last.day + 1) * _HOURS_OF_A_DAY
            if count > most:
                problem = f"the meter read {last.hours:.0f} h on {written(dt.date.fromordinal(last.day))}, and cannot be there yet."
                raise Unlikely(METER, problem, "Is it a digit too many?")
        Lubricated.objects.create(id=new.id, pump=pump, name=new.name, hours=count, by=actor, at=timezone.now(), sent=sent)


def strike(actor: User, tag: str, new: Strike) -> None:
    """Strike out a line of a pump. It stays in sight and no longer counts; the last move struck out takes the pump back."""
    reason = new.reason.strip()
    if not reason:
        raise FieldError("reason", "say why it is struck out.", "Expected a few words, such as “a digit too many”.")
    with transaction.atomic():
        pump = pump_named(tag)
        anybodys = (pump.meter, pump.lubricated, pump.notes)
        leads = (pump.earlier, pump.moves, pump.given, pump.taken, pump.documents)
        if role_of(actor) != LEAD and any(rows.filter(id=new.record).exists() for rows in leads):
            raise Refused("This needs a lead.", ["A lead entered it, and a lead strikes it out."])
        for rows in (one.filter(id=new.record) for one in (*anybodys, *leads)):
            if rows.filter(struck_reason="").update(struck_by=actor, struck_reason=reason):
                if rows.model is Moved:
                    _settle_place(pump)
                return
        raise FieldError("reading", "it is not there, or struck out already.", "Expected one of this pump.")


def _settle_place(pump: Pump) -> None:
    """Where the last move that counts took it; where none does, it is where the first one said that it was."""
    last = pump.moves.filter(struck_reason="").last()
    first = pump.moves.first()
    place, lent = (last.to, last.lent) if last else (first.was if first else pump.location, False)
    if (place, lent) == (pump.location, pump.lent):
        return
    pump.location, pump.lent = place, lent
    pump.version += 1
    pump.save(update_fields=["location", "lent", "version"])


def is_retry(existing: Logged | None, sent: str) -> bool:
    """The same record once more; the same identity with other contents is a conflict."""
    if existing is None:
        return False
    if existing.sent not in ("", sent):
        raise Conflict(["It was saved with other contents before."])
    return True


def pump_named(tag: str) -> Pump:
    """A pump by its tag."""
    pump = Pump.objects.select_related("sheet").filter(tag=tag).first()
    if pump is None:
        raise FieldError("pump", f"there is no pump {tag}.", "Expected a tag from Fleet.")
    return pump


def day_of(typed: str) -> dt.date:
    """A day as typed, today or past; today where nothing is."""
    if not typed.strip():
        return timezone.localdate()
    try:
        day = dt.date.fromisoformat(typed.strip())
    except ValueError:
        raise FieldError("day", f"“{typed}” is not a day.", "Expected it as 2026-03-31.") from None
    if day > timezone.localdate():
        raise FieldError("day", "it is still to come.", "Expected today or a day that is past.")
    return day
