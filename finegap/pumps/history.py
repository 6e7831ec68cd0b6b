"""What a pump was before: overhauls from before this record, and where it stood."""

from __future__ import annotations

import datetime as dt
import math
import re

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from finegap.api.retry import digest
from finegap.core.entry import Entry
from finegap.core.errors import FieldError
from finegap.core.families.family import Family
from finegap.core.families.features import Feature, FeatureKind
from finegap.core.measuring.plausible import check_plausible
from finegap.core.quantities import AllowedSign
from finegap.core.sheet import SpecSheet, read_sheet
from finegap.core.units import Dimension
from finegap.pumps import meter
from finegap.pumps.changes import AddEarlier, EarlierPart, MovePump
from finegap.pumps.duty import usual_of
from finegap.pumps.models import EarlierOverhaul, EarlierSize, Moved, Pump
from finegap.pumps.services import METER, day_of, is_retry, pump_named

_MOST = 200
"""Overhauls of a pump before this record (no source)."""


def move_pump(actor: User, tag: str, new: MovePump, entry: Entry) -> None:
    """Say where a pump is now; where it was stays on record.

    Raises
    ------
    FieldError
        No such pump, the place it is at already, a day that is none or before it went there.
    Conflict
        The same identity with other contents.
    """
    with transaction.atomic():
        pump = pump_named(tag)
        sent = digest((tag, new), actor, entry)
        if is_retry(Moved.objects.filter(id=new.id).first(), sent):
            return
        to, on = new.to.strip(), day_of(new.day)
        if not to or to == pump.location:
            raise FieldError("place", f"it is at {pump.location} already." if to else "nothing was entered.", "Expected another.")
        last = pump.moves.filter(struck_reason="").last()
        if last and on < last.day:
            raise FieldError("day", f"it came to {last.to} later than that.", "Expected a day after it.")
        if new.lent and pump.jobs.filter(ended="").exists():
            raise FieldError("on loan", f"{pump.tag} is on the bench.", "Expected its job signed or abandoned first.")
        _back_on(new, on)
        keep_move(actor, pump, new, sent, on)


def keep_move(actor: User, pump: Pump, new: MovePump, sent: str, on: dt.date) -> None:
    """Write a move down, and move the pump."""
    Moved.objects.create(
        id=new.id, pump=pump, was=pump.location, to=new.to.strip(), day=on, note=new.note.strip(), by=actor, at=timezone.now(),
        sent=sent, lent=new.lent, back=_back_on(new, on),
    )  # fmt: skip
    pump.location, pump.lent = new.to.strip(), new.lent
    pump.version += 1
    pump.save(update_fields=["location", "lent", "version"])


def _back_on(new: MovePump, on: dt.date) -> dt.date | None:
    """The day on which a pump that is lent is expected back."""
    if not new.back.strip():
        return None
    if not new.lent:
        raise FieldError("back on", "it is not lent.", "Expected nothing here, or that it is on loan.")
    try:
        day = dt.date.fromisoformat(new.back.strip())
    except ValueError:
        raise FieldError("back on", f"“{new.back}” is not a day.", "Expected it as 2026-03-31.") from None
    if day < on:
        raise FieldError("back on", "that is before it goes.", "Expected the day it goes, or later.")
    return day


def add_earlier(actor: User, tag: str, new: AddEarlier, entry: Entry) -> None:
    """Enter an overhaul from before this record, so that wear begins with it.

    Raises
    ------
    FieldError
        No such pump; a day that is none, or after this record begins; hours that do not go with the meter; a size that is none, or
        of no part of this pump; nothing said of any part.
    Unlikely
        A size far from what the sheet prints.
    Conflict
        The same identity with other contents.
    """
    with transaction.atomic():
        pump = pump_named(tag)
        sent = digest((tag, new), actor, entry)
        if is_retry(EarlierOverhaul.objects.filter(id=new.id).first(), sent):
            return
        revision = pump.sheet.revisions.first()
        if revision is None:
            raise FieldError("sheet", "the pump has no sheet.", "Expected one.")
        sheet = read_sheet(revision.content)
        on, hours = _when(pump, new, entry)
        usual = usual_of(sheet)
        overhaul = EarlierOverhaul.objects.create(
            id=new.id,
            pump=pump,
            day=on,
            hours=hours,
            pressure_bar=entry.read("pressure", new.pressure, usual.get("pressure")).value,
            speed_r_min=entry.read("speed", new.speed, usual.get("speed")).value,
            source=new.source.strip(),
            by=actor,
            at=timezone.now(),
            sent=sent,
        )
        sizes = [_size(overhaul, sheet, measured(sheet.family_of(pump.build)), part, entry) for part in new.parts]
        if not sizes:
            raise FieldError("sizes", "nothing is said of any part.", "Expected a size, or that a part was renewed.")
        EarlierSize.objects.bulk_create(sizes)


def measured(family: Family) -> dict[str, Feature]:
    """The parts of a pump a size can be written down of."""
    return {f.key: f for f in family.features if f.kind is not FeatureKind.CHECK and not f.press}


def _when(pump: Pump, new: AddEarlier, entry: Entry) -> tuple[dt.date, int]:
    on = day_of(new.day)
    first = pump.jobs.order_by("number").first()
    if first and on >= timezone.localdate(first.opened_at):
        raise FieldError("day", f"job {first.number} was opened before.", "Expected a day before this record begins.")
    if pump.earlier.filter(struck_reason="").count() >= _MOST:
        raise FieldError("day", f"there are {_MOST} already.", "Expected fewer.")
    if pump.earlier.filter(day=on, struck_reason="").exists():
        raise FieldError("day", "there is an overhaul of that day already.", "Expected one a day.")
    return on, hours_on(pump, new.hours, METER, on, entry)


def hours_on(pump: Pump, typed: str, name: str, on: dt.date, entry: Entry) -> int:
    """What the meter of a pump showed on a day, between what was read before and after it.

    Raises
    ------
    FieldError
        No hours, less than were read before, or more than after.
    """
    hours = meter.typed_hours(pump, typed, name, entry)
    if hours is None:
        raise FieldError(name, "nothing was entered.", "Expected digits, such as 14380.")
    before, after = meter.last_hours(pump, on), meter.next_hours(pump, on)
    if before and hours < before.hours:
        raise FieldError(name, f"{before.hours:.0f} h were read on {pump.tag} before that day.", "Expected no less.")
    if after and after.old_last is None and hours > after.hours:
        raise FieldError(name, f"{after.hours:.0f} h were read on {pump.tag} after that day.", "Expected no more.")
    return hours


def _size(overhaul: EarlierOverhaul, sheet: SpecSheet, parts: dict[str, Feature], new: EarlierPart, entry: Entry) -> EarlierSize:
    feature = parts.get(new.feature)
    if feature is None:
        raise FieldError("part", f"the pump has no {new.feature[:40]}.", "Expected one of its sheet.")
    row = EarlierSize(overhaul=overhaul, feature=feature.key, changed=new.changed)
    if new.found.strip():
        row.found_mm, row.found_u_mm = _typed(sheet, feature, new.found, f"{feature.name}, found", entry)
    if new.left.strip():
        row.left_mm, row.left_u_mm = _typed(sheet, feature, new.left, f"{feature.name}, left", entry)
    if row.found_mm is None and row.left_mm is None and not row.changed:
        raise FieldError(feature.name, "nothing is said of it.", "Expected a size, or that it was renewed.")
    return row


def _typed(sheet: SpecSheet, feature: Feature, text: str, name: str, entry: Entry) -> tuple[float, float]:
    """A size and its standard uncertainty: a book tells the digits, and no more; the last of them counts as the half width of what
    it may be (common practice, no source).
    """
    sign = AllowedSign.NOT_NEGATIVE if feature.kind.is_gap or feature.kind is FeatureKind.PAIR else AllowedSign.POSITIVE
    quantity = entry.quantity(text, Dimension.LENGTH, name, sign)
    new_mm = sheet.spec(feature.key).new_mm
    if new_mm and not entry.meant:
        gap = feature.kind.is_gap or feature.kind is FeatureKind.PAIR
        check_plausible(quantity, name, sum(new_mm) / 2, gap, entry.mark)
    digits = re.match(r"\d*[.,]?(\d*)", quantity.typed)
    last = entry.quantity(f"1 {quantity.unit}", Dimension.LENGTH, name).value / 10 ** len(digits[1] if digits else "")
    return quantity.value, last / math.sqrt(3)
